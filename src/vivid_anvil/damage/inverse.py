"""Questions asked the other way round: the class that is needed, the test that does the damage of the service."""

from __future__ import annotations

import dataclasses
from dataclasses import dataclass
from typing import Any

import numpy as np
from numpy.typing import ArrayLike

from vivid_anvil.damage.assess import assess_life
from vivid_anvil.damage.life import LifeResult
from vivid_anvil.damage.methods import CriticalPlane, WeldOfTwo, stress_life_of
from vivid_anvil.ground import checks
from vivid_anvil.ground.checks import FloatArray, positive_number
from vivid_anvil.ground.errors import InputError
from vivid_anvil.materials import SNCurve, detail_curve, standard_named
from vivid_anvil.stress import HotSpot, Method
from vivid_anvil.units import many, number, one, opened


@opened()
def class_needed(
    result: LifeResult, standard: str, *, component: str = "normal", loading: str | None = None, **how: Any
) -> str | None:
    """The lowest class of `standard` with which the hot spot meets its target; None where the highest does not.

    `how` goes to `detail_curve` (thickness, partial_factor, ...). Of a weld of two stresses it is the class of the one that
    `component` names, beside that of the other as it is; on planes it is the class of their equivalent stress.

    Parameters
    ----------
    result : LifeResult
        The result that is asked.
    standard : str
        Which standard, by its name; or its data file.
    component : str, default "normal"
        Stress that the class is for.
    loading : str, optional
        How it is loaded.
    **how : any
        Further settings of `detail_curve`.

    Returns
    -------
    str or None
        Name of the class; None where even the highest is too low.

    Raises
    ------
    InputError
        Without a target.

    Examples
    --------
    >>> from vivid_anvil.events import ConstantAmplitude, DutyCycle, Event
    >>> from vivid_anvil.materials import Material
    >>> from vivid_anvil.damage.methods import StressLife
    >>> from vivid_anvil.stress import HotSpot, OneLoad
    >>> load = ConstantAmplitude.from_range("stress", "85 MPa", r_ratio=0.0, cycles=1000)
    >>> spot = HotSpot(
    ...     name="toe",
    ...     relation=OneLoad("stress", 1.0),
    ...     material=Material(name="s"),
    ...     method=StressLife(sn_curve=detail_curve("EN 1993-1-9", 71)),
    ... )
    >>> life = assess_life(spot, DutyCycle("day", [Event("shift", load)], 250), target=1500)
    >>> class_needed(life, "EN 1993-1-9")
    '80'
    """
    if result.target_repeats is None:
        raise InputError(
            f"hot spot {result.hot_spot.name}", "no target", "a target life, to know which class is needed"
        )
    table = standard_named(standard)
    chosen = [curve for curve in table.curves if curve.component == component and loading in (None, curve.loading)]
    if not chosen:
        table.find("0", component, loading)  # says what there is
    first = next((one for one in chosen if one.loading == "variable"), chosen[0])
    names = sorted((name for one in chosen if one.loading == first.loading for name in one.classes), key=float)
    for name in names:
        curve = detail_curve(table, name, component=component, loading=first.loading, **how)
        spot = dataclasses.replace(result.hot_spot, method=_of_class(result.hot_spot, curve))
        other = assess_life(spot, result.duty_cycle, target=result.target_repeats)
        if (other.reserve_on_life or 0.0) >= 1.0:
            return name
    return None


def _of_class(spot: HotSpot, curve: SNCurve) -> Method:
    """The method of a hot spot with another class."""
    if isinstance(spot.method, WeldOfTwo) and curve.component == "shear":
        return dataclasses.replace(spot.method, shear_curve=curve)
    if isinstance(spot.method, WeldOfTwo | CriticalPlane):
        return dataclasses.replace(spot.method, sn_curve=curve)
    return dataclasses.replace(stress_life_of(spot), sn_curve=curve, mean_stress="none")


@opened(stress=one("stress", at_least=0.0), repeats=one(above=0.0, optional=True))
def cycles_of_test(result: LifeResult, stress: float, repeats: float | None = None) -> float:
    """Cycles of a constant-amplitude test at `stress`, MPa, in the curve's terms, that do the damage of `repeats`.

    `repeats` is the target by default. inf where that stress does no damage. Raises InputError without target and repeats.
    """
    asked = _repeats(result, repeats)
    level = positive_number("test stress", stress, "a stress above 0 MPa")
    return float(result.curve.life(level)) * result.damage_per_repeat * asked


@dataclass(frozen=True, eq=False)
class AcceleratedTest:
    """A service history with small cycles left out: what is kept, and how many repeats do the damage of the service.

    Each has an entry for each limit of the local stress range, MPa, below which cycles are left out.
    """

    omitted_below: FloatArray
    damage_kept: FloatArray
    cycles_kept: FloatArray
    repeats: FloatArray

    def rows(self) -> list[dict[str, float]]:
        """One row a limit."""
        columns = (self.omitted_below, self.damage_kept, self.cycles_kept, self.repeats)
        heads = ("omitted below [MPa]", "share of damage kept", "cycles per repeat kept", "repeats")
        return [dict(zip(heads, map(float, row), strict=True)) for row in zip(*columns, strict=True)]


@opened(omit_below=many("stress", at_least=0.0), repeats=one(above=0.0, optional=True))
def accelerated_test(result: LifeResult, omit_below: ArrayLike, repeats: float | None = None) -> AcceleratedTest:
    """The test that leaves out cycles of a local range below each of `omit_below`, MPa, and still does the damage of `repeats`.

    `repeats` is the target by default.

    Parameters
    ----------
    result : LifeResult
        The result that is asked.
    omit_below : array_like or text with a unit
        Local ranges, MPa, below which cycles are left out.
    repeats : float, optional
        Repeats whose damage the test shall do; by default the target.

    Returns
    -------
    AcceleratedTest
        A row a limit: what is left of the history, how often it is run, how much shorter it is.

    Raises
    ------
    InputError
        Where nothing does damage, and for a limit that leaves no damage.

    Examples
    --------
    >>> test = accelerated_test(result.lives[0], ["20 MPa", "40 MPa"])  # of the demo: run_study(read_study('larkfell.toml'))
    >>> test.damage_kept.round(3), test.repeats.round(1)
    (array([1.   , 0.874]), array([360. , 411.8]))
    """
    asked = _repeats(result, repeats)
    limits = np.atleast_1d(np.asarray(omit_below, dtype=np.float64))
    checks.refuse_unless(limits.ndim == 1, "accelerated test, omit_below", f"shape {limits.shape}", "one row of limits")
    ranges, total = result.spectrum.cycles.range, result.damage_per_repeat
    kept = np.array([float(result.damage[ranges >= limit].sum()) for limit in limits]) / total
    if not (kept > 0.0).all():
        worst = float(limits[int(np.argmin(kept))])
        raise InputError(
            f"accelerated test of {result.hot_spot.name}",
            f"a limit of {number(worst)} MPa, above all that does damage",
            f"limits up to {number(float(ranges[result.damage > 0.0].max()))} MPa",
        )
    cycles = np.array([float(result.spectrum.per_repeat[ranges >= limit].sum()) for limit in limits])
    return AcceleratedTest(limits, kept, cycles, asked / kept)


def _repeats(result: LifeResult, repeats: float | None) -> float:
    asked = result.target_repeats if repeats is None else repeats
    where = f"test of {result.hot_spot.name}"
    if asked is None:
        raise InputError(where, "no target and no repeats", "how much service the test stands for")
    if result.damage_per_repeat == 0.0:
        raise InputError(where, "a service that does no damage", "damage, to be done by the test as well")
    return positive_number(where, asked, "repeats above 0")
