"""A strain cycle on the worst plane by hand: local stress and strain, resolved on the plane, to its life."""

from __future__ import annotations

from typing import TYPE_CHECKING, Any

import numpy as np

from vivid_anvil.ground.checks import FloatArray
from vivid_anvil.spectra.responses.components import COMPONENTS
from vivid_anvil.stress import HotSpot
from vivid_anvil.stress.measures.straight import normal_weights
from vivid_anvil.stress.planes.plane_cycles import TensorEvent, tensor_events
from vivid_anvil.stress.planes.resolve import shear_weights
from vivid_anvil.stress.planes.strain_parameters import StrainCycles
from vivid_anvil.stress.yielding.proportional_steps import largest_steps
from vivid_anvil.units import UnitSystem, display_unit, shown
from vivid_anvil.writing.working import Step, put_in

if TYPE_CHECKING:
    from vivid_anvil.damage.methods.strain_plane import StrainPlane

CAUCHY = "Cauchy 1827"
NOTHING = 1e-15


def strain_steps(method: StrainPlane, spot: HotSpot, one: StrainCycles, units: UnitSystem) -> list[Step]:
    """From a cycle on the plane to its life."""
    return method.form.steps(method.given(spot), one, units)


def at_ends(method: StrainPlane, result: Any, row: int, units: UnitSystem) -> list[Step]:
    """Local strains at both ends of a cycle and local stress where its normal stress is largest, resolved on the plane."""
    worst, cycles = method.worst(result.hot_spot, result.duty_cycle), result.spectrum.cycles
    number = int(cycles.event[row])
    event, own = worst.events[number], worst.cycles[number]
    at = row - int(np.flatnonzero(cycles.event == number)[0])
    normal, along = worst.found.normal, worst.along
    assert event.strain is not None
    if event.counts is None:
        ends = [int(own.start[at]), int(own.end[at])]
    else:
        ends = [2 * at, 2 * at + 1]
    by_shear = method.form.by_shear
    weights = 2.0 * shear_weights(normal[None], along[None])[0] if by_shear else normal_weights(normal)
    symbol = "γ" if by_shear else "ε_n"
    ends.sort(key=lambda i: -float(event.strain[i] @ weights))  # type: ignore[index]
    steps = _yields(method, result, number, at, units)
    for label, place in (("max", ends[0]), ("min", ends[1])):
        title = f"At the cycle's {label}imum"
        steps += _resolved(event.strain[place], weights, f"{symbol}_{label}", title, method.plasticity)
    high = next(step.value for step in steps if step.formula.startswith(f"{symbol}_max"))
    low = steps[-1].value
    title = "Range of the engineering shear strain" if by_shear else "Range of the normal strain"
    steps.append(
        Step(title, f"Δ{symbol} = {symbol}_max - {symbol}_min", f"{put_in(high)} - {put_in(low)}", high - low, "")
    )
    steps.append(
        Step("Its amplitude", f"{symbol}_a = Δ{symbol} / 2", f"{put_in(high - low)} / 2", 0.5 * (high - low), "")
    )
    return [*steps, *_largest_normal(event, normal, float(own.cycles.highest[at]), units, method.plasticity)]


def _yields(method: StrainPlane, result: Any, number: int, at: int, units: UnitSystem) -> list[Step]:
    """How the place yields where the path of the event, or the cycle, is largest, where the rule can be worked by hand."""
    if method.plasticity != "proportional":
        return []
    spot = result.hot_spot
    events = tensor_events(spot.fed, result.duty_cycle, spot.notch_factor)
    normal = method.normal_of(np.concatenate([one.stress for one in events]))
    own = events[number]
    path = own.stress if own.counts is None else own.stress[2 * at : 2 * at + 2]
    return largest_steps(method.how, path, normal, units)


def _resolved(strain: FloatArray, weights: FloatArray, symbol: str, title: str, rule: str) -> list[Step]:
    """Strain components as the rule for yielding gives them, and on the plane."""
    parts = [
        f"{put_in(float(w))} × {put_in(float(e))}" for w, e in zip(weights, strain, strict=True) if abs(w * e) > NOTHING
    ]
    known = [
        Step(
            f"{title}: local strain {name}, by the {rule} rule",
            f"ε_{name} = as the path is followed",
            put_in(float(value)),
            float(value),
            "",
        )
        for name, value in zip(COMPONENTS, strain, strict=True)
        if abs(value) > NOTHING
    ]
    value = float(weights @ strain)
    return [*known, Step(f"{title}, on the plane", f"{symbol} = Σ w × ε", " + ".join(parts) or "0", value, "", CAUCHY)]


def _largest_normal(event: TensorEvent, normal: FloatArray, highest: float, units: UnitSystem, rule: str) -> list[Step]:
    """Local stress where the normal stress is largest while the cycle lasts, and on the plane."""
    unit, weights = display_unit("stress", units), normal_weights(normal)
    place = int(np.abs(event.stress @ weights - highest).argmin())
    stress = [float(shown(float(one), "stress", units)) for one in event.stress[place]]
    title = "Where the normal stress is largest while the cycle lasts"
    known = [
        Step(
            f"{title}: local stress {name}, by the {rule} rule",
            f"σ_{name} = as the path is followed",
            f"{put_in(value)} {unit}",
            value,
            unit,
        )
        for name, value in zip(COMPONENTS, stress, strict=True)
        if abs(value) > NOTHING
    ]
    parts = [
        f"{put_in(float(w))} × {put_in(s)} {unit}" for w, s in zip(weights, stress, strict=True) if abs(w * s) > NOTHING
    ]
    value = float(shown(float(weights @ event.stress[place]), "stress", units))
    return [*known, Step(f"{title}, on the plane", "σ_n_max = Σ w × σ", " + ".join(parts) or "0", value, unit, CAUCHY)]
