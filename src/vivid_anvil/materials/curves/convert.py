"""The same S-N curve in other terms: range or amplitude, another survival probability, stresses changed by a factor.

Each keeps the working: the step that was done stands in the curve's `steps`.
"""

from __future__ import annotations

import dataclasses
import math
from dataclasses import dataclass

from scipy.special import ndtri

from vivid_anvil.ground import checks
from vivid_anvil.ground.checks import FloatArray
from vivid_anvil.ground.errors import InputError, inside
from vivid_anvil.materials.curves import _kernels
from vivid_anvil.materials.curves.checks import check_share
from vivid_anvil.materials.curves.curve import Conversion, SNCurve, StressKind
from vivid_anvil.materials.curves.curved import Changed
from vivid_anvil.units import LENGTH, UnitSystem, number, one, opened
from vivid_anvil.writing.working import Step, put_in


@opened()
def in_terms_of(curve: SNCurve, stress: StressKind) -> SNCurve:
    """`curve` with its stress as "range" or "amplitude"; the lives stay.

    Parameters
    ----------
    curve : SNCurve
        The S-N curve.
    stress : StressKind
        Whether the stress is a "range" or an "amplitude".

    Returns
    -------
    SNCurve
        The curve in those terms, with the step that made it.

    Raises
    ------
    InputError
        For an argument of another kind, unit or range; the message says which.

    Examples
    --------
    >>> from vivid_anvil.materials.curves.forms import straight_curve
    >>> line = straight_curve(name="l", stress="range", r_ratio="any", point_stress=90.0, point_life=2e6, slope=3)
    >>> in_terms_of(line, "amplitude")
    <SNCurve l: stress amplitude, any R, m = 3 through 45 MPa at 2e6 cycles>
    """
    checks.one_of(inside(f"S-N curve {curve.name}", "stress"), stress, ("range", "amplitude"))
    if stress == curve.stress:
        return curve
    return _stretched(curve, 0.5 if stress == "amplitude" else 2.0, stress)


@opened(factor=one(above=0.0))
def with_stress_factor(curve: SNCurve, factor: float, step: Step) -> SNCurve:
    """`curve` with all its stresses times `factor`, above 0; `step` says why."""
    value = checks.positive_number(f"S-N curve {curve.name}, factor on stress", factor)
    return dataclasses.replace(_stretched(curve, value, curve.stress), steps=(*curve.steps, step))


def _stretched(curve: SNCurve, factor: float, stress: StressKind) -> SNCurve:
    old = curve.conversion
    if old is None:
        points = tuple((factor * one, life) for one, life in curve.points)
        curved = None if curve.curved is None else Changed(curve.curved, stress_factor=factor)
        return dataclasses.replace(curve, stress=stress, points=points, curved=curved)
    return dataclasses.replace(curve, stress=stress, conversion=Stretched(old, factor))


@dataclass(frozen=True)
class Stretched(Conversion):
    """Another conversion whose stresses are all times `factor`."""

    old: Conversion
    factor: float

    @property
    def words(self) -> str:
        """Those of the other."""
        return self.old.words

    def to_tested(self, stress: FloatArray) -> FloatArray:
        """As the other does it, of the smaller stress."""
        return self.old.to_tested(stress / self.factor)

    def from_tested(self, stress: FloatArray) -> FloatArray:
        """The other way round."""
        return self.factor * self.old.from_tested(stress)

    def working(self, stress: float, system: UnitSystem) -> tuple[Step, ...]:
        """The steps of the other."""
        return self.old.working(stress / self.factor, system)


@opened(survival_probability=one())
def at_survival(curve: SNCurve, survival_probability: float) -> SNCurve:
    """`curve` for another survival probability: all lives times 10^((z_old - z_new) s).

    z is the quantile of the normal distribution, s the `log_life_std` of the curve; life is taken as lognormal. Where there is a
    fatigue limit its life stays, and its stress moves along the slope above it.

    Parameters
    ----------
    curve : SNCurve
        The S-N curve.
    survival_probability : float
        Share of parts that outlive the curve, between 0 and 1, -.

    Returns
    -------
    SNCurve
        The curve at that survival probability, with the step that made it.

    Raises
    ------
    InputError
        For an argument of another kind, unit or range; the message says which.

    Examples
    --------
    >>> from vivid_anvil.materials.curves.forms import straight_curve
    >>> median = straight_curve(
    ...     name="-", stress="range", r_ratio=0, point_stress=200.0, point_life=1e6, slope=5, survival_probability=0.5,
    ...     log_life_std=0.2,
    ... )
    >>> float(at_survival(median, 0.977).life(200.0)).__round__()
    398953
    """
    where = f"S-N curve {curve.name}"
    wanted = check_share(inside(where, "survival_probability"), survival_probability)
    old, spread = curve.survival_probability, curve.log_life_std
    if old is None or spread is None:
        missing = [name for name in ("survival_probability", "log_life_std") if getattr(curve, name) is None]
        raise InputError(
            where, f"no {' and no '.join(missing)}", "both, to change the survival probability", "State them."
        )
    z_old, z_new = float(ndtri(old)), float(ndtri(wanted))
    factor = 10.0 ** ((z_old - z_new) * spread)
    points = [(stress, life * factor) for stress, life in curve.points]
    if curve.has_limit and curve.curved is None:
        (stress, life), parts = curve.points[-1], curve.segments
        kind, rate = parts.kind[-2], parts.rate[-2]
        rate = rate * factor if kind == _kernels.LINEAR else rate  # cycles per MPa grow with the lives
        moved = float(_kernels.stress_in(life, kind, stress, life * factor, rate))
        points[-1] = (moved, life)
        if len(points) > 1 and not (points[-2][0] > moved > 0.0 and points[-2][1] < life):
            raise InputError(
                inside(where, "survival_probability"),
                f"{wanted:g}",
                "one that leaves the fatigue limit below the point before it",
                "State the curve for this survival probability itself.",
            )
    step = Step(
        f"Factor on life, from a survival probability of {old:g} to {wanted:g}",
        "f = 10^((z_old - z_new) × s)",
        f"10^(({put_in(z_old)} - {put_in(z_new)}) × {put_in(spread)})",
        factor,
        "",
        "life lognormal; z: quantile of the normal distribution",
    )
    return dataclasses.replace(
        curve,
        name=f"{curve.name}, {number(100.0 * wanted)} % survival",
        points=tuple(points),
        curved=None if curve.curved is None else Changed(curve.curved, life_factor=factor),
        tested_from=curve.tested_from * factor,
        tested_to=curve.tested_to if curve.has_limit else curve.tested_to * factor,
        survival_probability=wanted,
        steps=(*curve.steps, step),
    )


@opened(thickness=LENGTH, reference=LENGTH, exponent=one())
def thickness_factor(thickness: float, reference: float, exponent: float) -> float:
    """Factor on the stress of a curve for a plate thicker than the reference: (t_ref / t)^k; 1 for a thinner one.

    IIW-2259-15, 3.5.2 and EN 1993-1-9, 7.2.2. Thickness and reference in mm, above 0; k at least 0.

    >>> round(thickness_factor(40.0, 25.0, 0.25), 6)
    0.88914
    """
    size = checks.positive_number("thickness", thickness, "a thickness above 0 mm")
    least = checks.positive_number("reference thickness", reference, "a thickness above 0 mm")
    power = checks.real_number("thickness exponent", exponent)
    if not 0.0 <= power <= 1.0 or math.isinf(size):
        raise InputError("thickness exponent", f"{power:g}", "an exponent from 0 to 1, usually 0.1 to 0.3")
    return float((least / max(size, least)) ** power)


@opened(thickness=LENGTH, reference=LENGTH, exponent=one())
def thickened(curve: SNCurve, thickness: float, reference: float, exponent: float) -> SNCurve:
    """The curve of a thicker plate, mm, by a stated reference thickness, mm, and exponent, with its step.

    >>> from vivid_anvil.materials.curves.forms import straight_curve
    >>> weld = straight_curve(name="w", stress="range", r_ratio="any", slope=3, point_stress=80.0, point_life=2e6)
    >>> float(thickened(weld, 40.0, 25.0, 0.25).points[0][0].__round__(3))
    71.131
    """
    value = thickness_factor(thickness, reference, exponent)
    numbers = f"({put_in(reference)} / {put_in(max(thickness, reference))})^{put_in(exponent)}"
    step = Step(
        "Factor of a thicker plate; a thinner one counts as the reference", "f = (t_ref / t)^k", numbers, value, ""
    )
    return with_stress_factor(curve, value, step)
