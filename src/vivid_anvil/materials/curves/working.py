"""Hand calculation on an S-N curve: the life at one stress, and how the curve itself was made."""

from __future__ import annotations

import numpy as np

from vivid_anvil.materials.curves import _kernels
from vivid_anvil.materials.curves.curve import SNCurve
from vivid_anvil.materials.curves.curved import CurvedForm
from vivid_anvil.units import UnitSystem, display_unit, number, one, opened, shown
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
