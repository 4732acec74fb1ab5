"""Hand calculation on an S-N curve: the life at one stress, and how the curve itself was made."""

from __future__ import annotations

import numpy as np

from vivid_anvil.materials.curves import _kernels
from vivid_anvil.materials.curves.curve import SNCurve
from vivid_anvil.materials.curves.curved import CurvedForm
from vivid_anvil.materials.curves.family import SNFamily
from vivid_anvil.units import STRESS, UnitSystem, display_unit, number, one, opened, shown
from vivid_anvil.writing.working import Step, Working, put_in

_SOURCE = "Basquin 1910"


@opened(stress=one("stress", at_least=0.0))
def life_steps(curve: SNCurve, stress: float, system: UnitSystem = "metric") -> tuple[Step, ...]:
    """The life at `stress`, MPa, in the curve's own terms, as steps to redo by hand."""
    before: tuple[Step, ...] = ()
    if curve.conversion is not None:
        before = curve.conversion.working(stress, system)
        stress = float(curve.conversion.to_tested(np.asarray(stress)))
    if curve.curved is not None:
        return (*before, _curved_step(curve, curve.curved, stress, system))
    parts, unit = curve.segments, display_unit("stress", system)
    j = int(_kernels.segment_of_stress(stress, parts.edge))
    kind, rate = int(parts.kind[j]), float(parts.rate[j])
    anchor, life_0 = float(shown(parts.stress[j], "stress", system)), float(parts.life[j])
    here = float(shown(stress, "stress", system))
    life = float(_kernels.life_in(stress, kind, parts.stress[j], life_0, rate))
    symbol = "ΔS" if curve.stress == "range" else "S_a"
    title = f"Life on the S-N curve {curve.name}"
    if kind == _kernels.POWER:
        step = Step(
            f"{title}, on its line of slope {number(rate)}",
            f"N = N_k × ({symbol}_k / {symbol})^m",
            f"{put_in(life_0)} cycles × ({put_in(anchor)} {unit} / {put_in(here)} {unit})^{put_in(rate)}",
            life,
            "cycles",
            _SOURCE,
        )
    elif kind == _kernels.EXPONENTIAL:
        per_unit = rate * float(1.0 / shown(1.0, "stress", system))
        step = Step(
            f"{title}, on a straight line in {symbol} and log N",
            f"N = N_k × exp(k × ({symbol}_k - {symbol}))",
            f"{put_in(life_0)} cycles × exp({put_in(per_unit)} 1/{unit} × ({put_in(anchor)} {unit} - {put_in(here)} {unit}))",
            life,
            "cycles",
        )
    elif kind == _kernels.LINEAR:
        per_unit = rate * float(1.0 / shown(1.0, "stress", system))
        step = Step(
            f"{title}, on a straight line in {symbol} and N",
            f"N = N_k + k × ({symbol}_k - {symbol})",
            f"{put_in(life_0)} cycles + {put_in(per_unit)} cycles/{unit} × ({put_in(anchor)} {unit} - {put_in(here)} {unit})",
            life,
            "cycles",
        )
    else:
        step = Step(f"{title}, which holds this life there", "N = N_k", f"{put_in(life_0)} cycles", life, "cycles")
    return (*before, step)


def _curved_step(curve: SNCurve, form: CurvedForm, stress: float, system: UnitSystem) -> Step:
    """The life by a formula."""
    numbers, life = form.numbers(stress, float(shown(1.0, "stress", system))), float(form.life(np.array([stress]))[0])
    return Step(f"Life on the S-N curve {curve.name}", form.formula, numbers, life, "cycles", form.source)


def stress_step(curve: SNCurve, life: float, name: str, system: UnitSystem = "metric") -> Step:
    """The stress at which the curve has `life`, cycles, under the symbol `name`, as a step to redo by hand."""
    if curve.curved is not None:
        found, unit = float(shown(float(curve.stress_at(life)), "stress", system)), display_unit("stress", system)
        title = f"Amplitude on the curve at {curve.at_r} for that life: solved, {curve.curved.formula}"
        return Step(title, f"{name} = S", put_in(found), found, unit, curve.curved.source)
    parts, unit = curve.segments, display_unit("stress", system)
    j = int(np.searchsorted(curve.point_lives, life))
    kind, rate, life_0 = int(parts.kind[j]), float(parts.rate[j]), float(parts.life[j])
    anchor = float(shown(parts.stress[j], "stress", system))
    found = float(shown(float(curve.stress_at(life)), "stress", system))
    per_unit = rate * float(1.0 / shown(1.0, "stress", system))
    ways = {
        _kernels.POWER: (
            f"{name} = S_k × (N_k / N)^(1/m)",
            f"{put_in(anchor)} {unit} × ({put_in(life_0)} / {put_in(life)})^(1 / {put_in(rate)})",
        ),
        _kernels.EXPONENTIAL: (
            f"{name} = S_k + log(N_k / N) / k",
            f"{put_in(anchor)} {unit} + log({put_in(life_0)} / {put_in(life)}) / {put_in(per_unit)}",
        ),
        _kernels.LINEAR: (
            f"{name} = S_k + (N_k - N) / k",
            f"{put_in(anchor)} {unit} + ({put_in(life_0)} - {put_in(life)}) / {put_in(per_unit)}",
        ),
    }
    formula, numbers = ways.get(kind, (f"{name} = S_k", f"{put_in(anchor)} {unit}"))
    return Step(f"Amplitude on the curve at {curve.at_r} for that life", formula, numbers, found, unit, _SOURCE)


@opened(amplitude=one("stress", at_least=0.0), mean=STRESS)
def family_steps(family: SNFamily, amplitude: float, mean: float, system: UnitSystem = "metric") -> tuple[Step, ...]:
    """That the constant-life line of the life found passes through the cycle, as steps to redo by hand."""
    life = float(family.life(amplitude, mean))
    unit = display_unit("stress", system)
    size, middle = (float(shown(one, "stress", system)) for one in (amplitude, mean))
    place = mean if family.by_mean else mean / amplitude
    at = float(np.clip(place, family.places[0], family.places[-1]))
    i = int(np.clip(np.searchsorted(family.places, at, side="right") - 1, 0, family.places.size - 2))
    low, high = (float(one) for one in family.places[i : i + 2])
    first: tuple[Step, ...] = ()
    if family.by_mean:
        at, low, high = (float(shown(one, "stress", system)) for one in (at, low, high))
    else:
        held = "; the outermost curve is held" if at != place else ""
        numbers = f"{put_in(middle)} {unit} / {put_in(size)} {unit}" if not held else put_in(at)
        first = (Step(f"Place between the curves: mean over amplitude{held}", "u = S_m / S_a", numbers, at, ""),)
    share = (at - low) / (high - low)
    symbol = "S_m" if family.by_mean else "u"
    where = Step(
        f"Share of the way from the curve at {family.curves[i].at_r} to that at {family.curves[i + 1].at_r}",
        f"w = ({symbol} - {symbol}_1) / ({symbol}_2 - {symbol}_1)",
        f"({put_in(at)} - {put_in(low)}) / ({put_in(high)} - {put_in(low)})",
        share,
        "",
    )
    ends = tuple(stress_step(family.curves[i + j], life, f"S_{j + 1}", system) for j in (0, 1))
    one, two = (put_in(end.value) for end in ends)
    w = put_in(share)
    formula, numbers = (
        ("S_a = (1 - w) × S_1 + w × S_2", f"(1 - {w}) × {one} {unit} + {w} × {two} {unit}")
        if family.by_mean
        else ("S_a = 1 / ((1 - w) / S_1 + w / S_2)", f"1 / ((1 - {w}) / {one} {unit} + {w} / {two} {unit})")
    )
    title = f"The constant-life line of {number(life, 7)} cycles, found by halving, passes through the cycle"
    return (*first, where, *ends, Step(title, formula, numbers, size, unit, "Haigh 1917, straight between the curves"))


@opened()
def curve_working(curve: SNCurve, system: UnitSystem = "metric") -> Working:
    """How a curve was made, and its life at the stress of a million cycles, to redo by hand."""
    shear = "Shear stress" if curve.component == "shear" else "Stress"
    opening = f"{shear} {curve.stress}, {curve.at_r}; {curve.shape}. Basis: {curve.basis}; {curve.source}."
    stress = float(curve.stress_at(1e6))
    if not 0.0 < stress < float("inf"):
        stress = curve.limit
    return Working(
        f"S-N curve {curve.name}, worked by hand", opening, (*curve.steps, *life_steps(curve, stress, system))
    )
