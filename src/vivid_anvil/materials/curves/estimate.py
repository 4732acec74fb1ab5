"""S-N curve estimated from the tensile strength (or hardness), where no test exists, with every factor listed.

In: strength, surface, size, loading, temperature, survival probability. Out: `Estimate`: factors, limit, curve of amplitudes
at R = -1 between 1e3 cycles and the knee. Method: S_e = k_a k_b k_c k_d k_e S_e' (Budynas, R. G. and Nisbett, J. K., Shigley's
mechanical engineering design, ch. 6, surface constants of the 8th to 10th editions; Norton, R. L., Machine design, ch. 6, for
cast irons and aluminium). An estimate never replaces a test.
"""

from __future__ import annotations

import math
from collections.abc import Callable, Mapping
from dataclasses import dataclass

from vivid_anvil.ground import checks
from vivid_anvil.ground.errors import InputError
from vivid_anvil.materials.curves.curve import Below, SNCurve
from vivid_anvil.materials.curves.estimate_factors import (
    FACTORS,
    GROUPS,
    load_factor,
    own_factor,
    reliability_factor,
    size_factor,
    strength_of,
    surface_factor,
    temperature_factor,
    uncorrected_limit,
    usual_fraction,
)
from vivid_anvil.materials.curves.written_as_points import table_curve
from vivid_anvil.units import celsius, number, opened
from vivid_anvil.writing.finding import Finding
from vivid_anvil.writing.working import Step, put_in


@dataclass(frozen=True, eq=False, repr=False)
class Estimate:
    """An estimated curve: `factors` by name, limits and strengths in MPa, the `curve`, whose steps hold the working."""

    factors: Mapping[str, float]
    ultimate_strength: float
    uncorrected_limit: float
    limit: float
    fraction_at_1e3: float
    strength_at_1e3: float
    curve: SNCurve

    @property
    def slope(self) -> float:
        """Slope m between 1e3 cycles and the knee."""
        return float(self.curve.segments.rate[1])

    def __repr__(self) -> str:
        factors = ", ".join(f"{name} {number(value, 3)}" for name, value in self.factors.items())
        return f"<Estimate {self.curve.name}: limit {number(self.limit)} MPa, slope {number(self.slope)}; {factors}>"


@opened()
def estimate_curve(
    group: str,
    *,
    ultimate_strength: float | str | None = None,
    brinell_hardness: float | None = None,
    surface: str | None = None,
    loading: str,
    size: float | str | tuple[float | str, float | str] | None = None,
    section: str = "rotating round",
    temperature: float | str = 20.0,
    temperature_rule: str = "table",
    survival_probability: float = 0.5,
    fraction_at_1e3: float | None = None,
    below: Below | None = None,
    own_factors: Mapping[str, float] | None = None,
    name: str | None = None,
) -> Estimate:
    """The S-N curve that textbooks estimate for `group` ("steel", "cast iron", "aluminium") from its tensile strength.

    `surface` is one of `SURFACES`, `loading` of `LOADINGS`, `section` of `SECTIONS` with its `size` (diameter, or width and
    height), mm. `temperature` in °C or text. `own_factors` replaces factors by name (see `FACTORS`) by your own values. `below`
    says what holds under the knee.

    Parameters
    ----------
    group : str
        Which group of materials it belongs to: one of `GROUPS`.
    ultimate_strength : float or str, optional
        Tensile strength, MPa.
    brinell_hardness : float, optional
        Brinell hardness, in the place of the strength.
    surface : str, optional
        How the surface is made: one of `SURFACES`.
    loading : str
        How it is loaded.
    size : float or str or tuple[float or str, float or str], optional
        A diameter, mm, or both sides of a rectangle.
    section : str, default "rotating round"
        Which section the size is of: one of `SECTIONS`.
    temperature : float or str, default 20.0
        Temperature at work, °C or text.
    temperature_rule : str, default "table"
        Where the factor of temperature comes from.
    survival_probability : float, default 0.5
        Share of parts that outlive the curve, between 0 and 1, -.
    fraction_at_1e3 : float, optional
        Strength at 1000 cycles as a share of the ultimate strength, -.
    below : Below, optional
        What holds below the last point: a slope, or a word such as "no damage".
    own_factors : mapping of str to float, optional
        Factors of your own in the place of those estimated, -.
    name : str, optional
        What it is called in messages, tables and reports.

    Returns
    -------
    Estimate
        The curve with the factors that it was estimated with.

    Raises
    ------
    InputError
        Outside the validity of a factor, naming the factor to state.

    Examples
    --------
    >>> made = estimate_curve(
    ...     "steel", ultimate_strength="690 MPa", surface="machined or cold-drawn", loading="bending", size="32 mm"
    ... )
    >>> made
    <Estimate steel of 690 MPa, estimated: limit 235.5 MPa, slope 7.587; surface 0.798, size 0.856, ...>
    """
    checks.one_of("estimate, group", group, tuple(GROUPS))
    of_group = GROUPS[group]
    steps: list[Step] = []
    strength = strength_of(of_group, ultimate_strength, brinell_hardness, steps, group)
    own = dict(own_factors or {})
    for one in own:
        checks.one_of("estimate, own_factors", one, FACTORS)
    ways: dict[str, Callable[[], float]] = {
        "surface": lambda: surface_factor(group, surface, strength, steps),
        "size": lambda: size_factor(loading, size, section, steps),
        "load": lambda: load_factor(group, loading, steps),
        "temperature": lambda: temperature_factor(
            group, celsius(temperature, "estimate, temperature"), temperature_rule, steps
        ),
        "reliability": lambda: reliability_factor(survival_probability, steps),
    }
    uncorrected = uncorrected_limit(of_group, strength, steps)
    factors = {key: own_factor(key, own[key], steps) if key in own else way() for key, way in ways.items()}
    limit = uncorrected * math.prod(factors.values())
    steps.append(
        Step(
            "Fatigue limit of the part, amplitude at R = -1"
            if of_group.has_limit
            else "Fatigue strength of the part at the knee",
            "S_e = k_a × k_b × k_c × k_d × k_e × S_e'",
            " × ".join(put_in(value) for value in (*factors.values(), uncorrected)) + " MPa",
            limit,
            "MPa",
            of_group.source,
        )
    )
    fraction = usual_fraction(group, loading, strength, steps) if fraction_at_1e3 is None else fraction_at_1e3
    at_1e3, knee = _at_1e3(fraction, strength, limit, steps), of_group.knee_life
    steps.append(
        Step(
            "Slope of the line between the two",
            "m = log(N_k / 1e3) / log(S_1e3 / S_e)",
            f"log({put_in(knee)} / 1000) / log({put_in(at_1e3)} / {put_in(limit)})",
            math.log(knee / 1e3) / math.log(at_1e3 / limit),
            "",
        )
    )
    curve = table_curve(
        name=name or f"{group} of {number(strength)} MPa, estimated",
        stress="amplitude",
        r_ratio=-1.0,
        points=[(at_1e3, 1e3), (limit, knee)],
        above="extend",
        below=("no damage" if of_group.has_limit else "extend") if below is None else below,
        survival_probability=survival_probability,
        component="shear" if loading == "torsion" else "normal",
        basis="estimate",
        source=f"estimated from the tensile strength, {of_group.source}",
        steps=tuple(steps),
        remarks=_remarks(group, surface, own),
    )
    return Estimate(factors, strength, uncorrected, limit, fraction, at_1e3, curve)


def _at_1e3(fraction: float, strength: float, limit: float, steps: list[Step]) -> float:
    """The strength at 1000 cycles, MPa, above the limit."""
    if not 0.3 <= checks.real_number("estimate, fraction_at_1e3", fraction) <= 1.0:
        raise InputError("estimate, fraction_at_1e3", f"{fraction:g}", "a share of the tensile strength, 0.3 to 1")
    found = fraction * strength
    numbers = f"{put_in(fraction)} × {put_in(strength)} MPa"
    steps.append(Step("Strength at 1000 cycles", "S_1e3 = f × R_m", numbers, found, "MPa"))
    if not limit < found:
        above = f"a limit of {number(limit)} MPa, above the strength at 1e3 cycles"
        raise InputError("estimate", above, "a limit below it", "Check the factors.")
    return found


def _remarks(group: str, surface: str | None, own: Mapping[str, float]) -> tuple[Finding, ...]:
    remarks = [
        Finding(
            "warning",
            "estimated-curve",
            "The S-N curve is an estimate from the tensile strength; tests of the same steel scatter by a factor of 3 and more "
            "in life around it."
            if group == "steel"
            else "The S-N curve is an estimate from the tensile strength; tests scatter widely around it.",
            "Good for a first design: confirm with tests before anything depends on it.",
        )
    ]
    if group == "aluminium" and surface not in (None, "polished") and "surface" not in own:
        remarks.append(
            Finding(
                "note",
                "surface-of-steel",
                "The surface factor was derived for steel.",
                "State your own where you know it.",
            )
        )
    return tuple(remarks)
