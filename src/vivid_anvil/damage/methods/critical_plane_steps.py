"""A cycle on the worst plane by hand: from loads to components, to shear and normal stress on the plane, to its life."""

from __future__ import annotations

import dataclasses
from typing import TYPE_CHECKING, Any

import numpy as np

from vivid_anvil.ground.checks import FloatArray
from vivid_anvil.materials import life_steps
from vivid_anvil.spectra.responses.components import COMPONENTS
from vivid_anvil.stress import HotSpot
from vivid_anvil.stress.measures.straight import normal_weights
from vivid_anvil.stress.planes.resolve import plane_axes, shear_weights
from vivid_anvil.stress.planes.shear_amplitude import carriers
from vivid_anvil.stress.relations import Moment
from vivid_anvil.units import UnitSystem, display_unit, shown
from vivid_anvil.writing.working import Step, put_in

if TYPE_CHECKING:
    from vivid_anvil.damage.life_numbers import Life
    from vivid_anvil.damage.methods.critical_plane import CriticalPlane

CAUCHY = "Cauchy 1827"


def plane_steps(method: CriticalPlane, spot: HotSpot, size: float, mean: float, units: UnitSystem) -> list[Step]:
    """From shear amplitude and largest normal stress, MPa, to the life."""
    unit, form = display_unit("stress", units), method.form
    shear, normal = method.constants(spot)
    tau, sigma = (float(shown(one, "stress", units)) for one in (size, mean))
    equivalent = float(method.equivalent(spot, np.array([2.0 * size]), np.array([mean]))[0])
    amplitude = float(shown(equivalent, "stress", units))
    steps = []
    counts = max(sigma, 0.0) if form.clamps else sigma
    if form.by_shear:
        numbers = f"max({put_in(shear)} × {put_in(tau)} {unit} + {put_in(normal)} × {put_in(counts)} {unit}, 0)"
        title = f"Fully reversed uniaxial amplitude with the same parameter, {form.formula}"
        steps.append(Step(title, "S_a = max(w × τ_a + v × σ_n,max, 0)", numbers, amplitude, unit, form.source))
    else:
        steps.append(
            Step("Amplitude of the normal stress", "S_a = σ_n,a", f"{put_in(tau)} {unit}", amplitude, unit, form.source)
        )
    stress = float(method.sn_curve.from_amplitude(equivalent))
    if method.sn_curve.stress == "range":
        value = float(shown(stress, "stress", units))
        steps.append(Step("The curve is in ranges", "ΔS = 2 × S_a", f"2 × {put_in(amplitude)} {unit}", value, unit))
    return [*steps, *life_steps(method.sn_curve, stress, units)]


def load_steps(method: CriticalPlane, result: Life, row: int, units: UnitSystem) -> list[Step]:
    """From the loads at both ends of a cycle to shear and normal stress on the plane."""
    worst = method.worst(result.hot_spot, result.duty_cycle)
    cycles = result.spectrum.cycles
    number = int(cycles.event[row])
    event = worst.events[number]
    own, _ = result.duty_cycle.flat()[number]
    normal, along = worst.found.normal, worst.along
    weights = {"σ_n": normal_weights(normal), "τ": shear_weights(normal[None], along[None])[0]}
    counted = "τ" if method.form.by_shear else "σ_n"
    courses = {key: event.stress @ one for key, one in weights.items()}
    if method.shear_amplitude in ("circle", "chord") and method.form.by_shear:
        return _path_steps(method, result, row, number, units)
    ends = _ends(result, row, number)
    high, low = sorted(ends, key=lambda i: -float(courses[counted][i]))
    relation: Any = result.hot_spot.fed
    steps, values = [], {}
    for label, sample in (("max", high), ("min", low)):
        title = f"At the cycle's {label}imum"
        steps += _components(relation, own, sample, units, result.hot_spot.notch_factor, title)
        step = _on_plane(counted, weights[counted], event.stress[sample], units, f"{title}, on the plane", label)
        values[label] = step.value
        steps.append(step)
    unit = display_unit("stress", units)
    amplitude = 0.5 * (values["max"] - values["min"])
    numbers = f"({put_in(values['max'])} {unit} - {put_in(values['min'])} {unit}) / 2"
    steps.append(
        Step("Amplitude on the plane", f"{counted}_a = ({counted}_max - {counted}_min) / 2", numbers, amplitude, unit)
    )
    if counted == "τ":
        peak = int(np.abs(courses["σ_n"] - cycles.mean[row]).argmin())
        title = "Where the normal stress is largest while the cycle lasts"
        steps += _components(relation, own, peak, units, result.hot_spot.notch_factor, title)
        steps.append(_on_plane("σ_n", weights["σ_n"], event.stress[peak], units, f"{title}, on the plane", "max"))
    return steps


def _path_steps(method: CriticalPlane, result: Life, row: int, number: int, units: UnitSystem) -> list[Step]:
    """From the loads where the path touches its circle, or at the ends of its longest chord, to the amplitude."""
    worst, cycles = method.worst(result.hot_spot, result.duty_cycle), result.spectrum.cycles
    event, normal = worst.events[number], worst.found.normal
    own, _ = result.duty_cycle.flat()[number]
    first = int(np.flatnonzero(cycles.event == number)[0])
    stated = event.counts is not None
    samples = np.arange(2 * (row - first), 2 * (row - first) + 2) if stated else np.arange(len(event.stress))
    axes = [shear_weights(normal[None], axis)[0] for axis in plane_axes(normal)]
    path = event.stress[samples] @ np.column_stack(axes)
    relation: Any = result.hot_spot.fed
    unit = display_unit("stress", units)
    steps, places = [], []
    for label, sample in zip("123", samples[carriers(path, str(method.shear_amplitude))], strict=False):
        title = f"Point {label} that carries the {method.shear_amplitude}"
        steps += _components(relation, own, int(sample), units, result.hot_spot.notch_factor, title)
        place = []
        for axis, weights in zip(("θ", "φ"), axes, strict=True):
            name = f"{title}: shear along growing {axis}"
            steps.append(_on_plane(f"τ_{axis}", weights, event.stress[sample], units, name, label))
            place.append(steps[-1].value)
        places.append(place)
    steps += _radius_steps(places, unit)
    sigma = event.stress[samples] @ normal_weights(normal)
    peak = int(samples[int(sigma.argmax())])
    title = "Where the normal stress is largest"
    steps += _components(relation, own, peak, units, result.hot_spot.notch_factor, title)
    steps.append(_on_plane("σ_n", normal_weights(normal), event.stress[peak], units, f"{title}, on the plane", "max"))
    return steps


def _radius_steps(places: list[list[float]], unit: str) -> list[Step]:
    """Half the distance of two points, or the radius of the circle through three."""

    def distance(i: int, j: int) -> Step:
        (x, y), (u, v) = places[i], places[j]
        numbers = f"√(({put_in(x)} - {put_in(u)})^2 + ({put_in(y)} - {put_in(v)})^2) {unit}"
        return Step(
            f"From point {i + 1} to point {j + 1}",
            f"d_{i + 1}{j + 1} = √(Δτ_θ^2 + Δτ_φ^2)",
            numbers,
            float(np.hypot(x - u, y - v)),
            unit,
        )

    if len(places) < 2:
        return [Step("Amplitude of a path that stays", "τ_a = 0", "0", 0.0, unit)]
    if len(places) == 2:
        one = distance(0, 1)
        return [
            one,
            Step("Amplitude on the plane", "τ_a = d_12 / 2", f"{put_in(one.value)} {unit} / 2", 0.5 * one.value, unit),
        ]
    sides = [distance(0, 1), distance(1, 2), distance(2, 0)]
    a, b, c = (one.value for one in sides)
    four = (a + b + c) * (b + c - a) * (c + a - b) * (a + b - c)
    ta, tb, tc = (put_in(one) for one in (a, b, c))
    factors = f"({ta} + {tb} + {tc}) × ({tb} + {tc} - {ta}) × ({tc} + {ta} - {tb}) × ({ta} + {tb} - {tc})"
    numbers = f"{ta} × {tb} × {tc} / √({factors}) {unit}"
    formula = "τ_a = a b c / √((a + b + c) (b + c - a) (c + a - b) (a + b - c))"
    return [
        *sides,
        Step("Radius of the circle through the three points", formula, numbers, a * b * c / float(np.sqrt(four)), unit),
    ]


def _ends(result: Life, row: int, number: int) -> tuple[int, int]:
    """Samples of both ends of a cycle, or places of the stated ends."""
    cycles = result.spectrum.cycles
    if cycles.start[row] >= 0:
        return int(cycles.start[row]), int(cycles.end[row])
    first = int(np.flatnonzero(cycles.event == number)[0])
    return 2 * (row - first), 2 * (row - first) + 1


def _components(relation: Any, event: Any, sample: int, units: UnitSystem, factor: float, title: str) -> list[Step]:
    """Loads over unit loads, and the components that they sum up to, with the notch factor."""
    moment = Moment(event.name, event.load, sample)
    loads = relation.loads_at(moment)
    steps = relation.component_steps_at(moment, loads, units)
    found = [dataclasses.replace(step, title=f"{title}: {step.title[0].lower()}{step.title[1:]}") for step in steps]
    if factor == 1.0:
        return found
    unit = display_unit("stress", units)
    scaled = []
    for component, step in zip(COMPONENTS, found[-6:], strict=True):
        numbers = f"{put_in(factor)} × {put_in(step.value)} {unit}"
        name = f"{title}: component {component} with the notch factor"
        scaled.append(Step(name, f"σ_{component} = K_f × σ_{component},n", numbers, factor * step.value, unit))
    return [*found, *scaled]


def component_steps(spot: HotSpot, event: Any, sample: int, units: UnitSystem, title: str) -> list[Step]:
    """Loads over unit loads at a sample of an event, and the components that they sum up to, with the notch factor."""
    return _components(spot.fed, event, sample, units, spot.notch_factor, title)


def _on_plane(symbol: str, weights: FloatArray, stress: FloatArray, units: UnitSystem, title: str, label: str) -> Step:
    """Shear or normal stress as the sum of weighted components."""
    unit = display_unit("stress", units)
    parts = [
        f"{put_in(float(weight))} × {put_in(float(shown(one, 'stress', units)))} {unit}"
        for weight, one in zip(weights, stress, strict=True)
        if one != 0.0
    ]
    formula = f"{symbol}_{label} = Σ w × σ"
    value = float(shown(float(weights @ stress), "stress", units))
    return Step(title, formula, " + ".join(parts) or "0", value, unit, CAUCHY)
