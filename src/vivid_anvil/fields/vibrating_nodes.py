"""Damage of events over frequency at many nodes: by quadratic forms of modal stresses, without a loop over frequencies.

Where formula, rule and curve allow, damage has a closed form by incomplete gamma functions, for all nodes at once; otherwise each
node is assessed as a hot spot of its own.
"""

from __future__ import annotations

import dataclasses
import math
from collections.abc import Callable, Mapping
from typing import Any, NamedTuple

import numpy as np
from scipy.special import gamma, gammainc, gammaincc

from vivid_anvil.counting import Cycles
from vivid_anvil.counting.cycles import PANEL
from vivid_anvil.damage.converged import converged
from vivid_anvil.damage.spectrum import Spectrum
from vivid_anvil.damage.spectrum import spectrum as spectrum_of
from vivid_anvil.events import DutyCycle, Event
from vivid_anvil.ground.checks import FloatArray
from vivid_anvil.materials.curves._kernels import CONSTANT, NEVER
from vivid_anvil.spectra.largest import EULER
from vivid_anvil.spectra.methods.dirlik import dirlik_constants
from vivid_anvil.stress import HotSpot, PowerLoop
from vivid_anvil.stress.measures.straight import normal_weights
from vivid_anvil.stress.relations import VibratingEvent

TOGETHER = 4096  # nodes whose forms are made at once
ROOM = 200_000  # cycles of a sweep at nodes that are laid at once
IGNORED, CREDITED = 0, 2  # what becomes of a mean in compression, as loops know it
NARROW = 1e-9  # irregularity nearer to 1 is a narrow band
ORDERS = (0.0, 1.0, 2.0, 4.0)


class EventAtNodes(NamedTuple):
    """Damage of an event per repeat, and lowest and highest local stress, MPa, at nodes: shape (n,) each."""

    damage: FloatArray
    lowest: FloatArray
    highest: FloatArray


class Nodes(NamedTuple):
    """What is looked at: unit stresses (n, cases, 6), constant ones (n, 6), forms (1 or n, k, 6), and the relation at a row."""

    units: FloatArray
    constants: FloatArray
    measure: Any
    directions: FloatArray | None
    relation_at: Callable[[int], Any]


def event_at_nodes(event: VibratingEvent, nodes: Nodes, spot: HotSpot) -> EventAtNodes:
    """An event over frequency at nodes; each as a hot spot of its own would have it."""
    how, load = spot.assessed_by.loop(spot), event.load
    if "cross-spectra" in load.gives and _closed(event, nodes, how):
        assert how is not None
        return _random(event, nodes, spot, how)
    if "lines" in load.gives:
        return _sines(event, nodes, spot)
    return _one_by_one(event, nodes, spot)


def _closed(event: VibratingEvent, nodes: Nodes, how: PowerLoop | None) -> bool:
    load: Any = event.load
    gauss = load.shaping.form is None and math.isinf(load.shaping.crest_factor) and not any(load.tones.values())
    forms = nodes.directions is not None or nodes.measure.random_forms is not None
    still = not load.means and not nodes.constants.any()
    kind = how is not None and (math.isinf(how.strength) or how.means in (IGNORED, CREDITED) or still)
    return gauss and forms and kind and event.formula in FORMULAS and hasattr(load.inputs, "band")


def _one_by_one(event: VibratingEvent, nodes: Nodes, spot: HotSpot) -> EventAtNodes:
    """Each node as a hot spot under this event alone."""
    size = len(nodes.units)
    found = EventAtNodes(np.zeros(size), np.zeros(size), np.zeros(size))
    alone = DutyCycle(
        "occurrence",
        (Event(event.name, event.load, event.occurrences),),
        expected_cycles=event.formula,
        expected_slope=event.slope,
    )
    for row in range(size):
        if not nodes.units[row].any():
            continue
        own = spectrum_of(dataclasses.replace(spot, relation=nodes.relation_at(row)), dataclasses.replace(alone))
        found.damage[row] = own.damage().sum()
        found.lowest[row], found.highest[row] = own.lowest, own.highest
    return found


# ---- random ------------------------------------------------------------------------------------------------------


def moments_of_nodes(event: VibratingEvent, nodes: Nodes) -> FloatArray:
    """m0, m1, m2, m4 of the counted stress at nodes, MPa² Hz^n: shape (4, n)."""
    matrices = np.stack([event.moments(order).ravel() for order in ORDERS], axis=1)
    size, modes = nodes.units.shape[:2]
    found = np.empty((len(ORDERS), size))
    for start in range(0, size, TOGETHER):
        rows = slice(start, min(start + TOGETHER, size))
        sides = _straight(nodes, rows)
        squares = sides @ np.swapaxes(sides, 1, 2)
        found[:, rows] = (squares.reshape(-1, modes * modes) @ matrices).T
    return np.maximum(found, 0.0)


def _straight(nodes: Nodes, rows: slice) -> FloatArray:
    """Each mode in each form that squares sum up from, shape (rows, modes, k)."""
    if nodes.directions is None:
        return np.asarray(nodes.units[rows] @ nodes.measure.random_forms.T)
    weights = normal_weights(nodes.directions[rows])
    return np.asarray(nodes.units[rows] @ weights[:, :, None])


def _random(event: VibratingEvent, nodes: Nodes, spot: HotSpot, how: PowerLoop) -> EventAtNodes:
    load: Any = event.load
    kf = spot.notch_factor
    m0, m1, m2, m4 = kf**2 * moments_of_nodes(event, nodes)
    mean = kf * _means(event, nodes, load.means)
    moving = m0 > 0.0
    rms = np.sqrt(m0)
    safe = [np.where(moving, one, 1.0) for one in (m0, m1, m2, m4)]
    rate = np.sqrt(safe[2] / safe[0])
    corrected = _mean_factor(mean, how)
    damage = np.zeros(m0.size)
    for part in FORMULAS[event.formula](*safe):
        damage += _weibull_damage(part, corrected, how)
    damage = np.where(moving, damage * load.exposure * event.occurrences, 0.0)
    damage = np.where(moving & np.isinf(corrected), np.inf, damage)
    level = np.sqrt(2.0 * np.log(np.maximum(rate * load.exposure, math.e)))
    reach = rms * (level + EULER / level)
    return EventAtNodes(damage, mean - reach, mean + reach)


def _means(event: VibratingEvent, nodes: Nodes, means: Mapping[str, float]) -> FloatArray:
    """The counted stress at rest under static means of inputs, shape (n,), without the notch factor."""
    still = event.static(means)
    tensors = nodes.constants + np.einsum("nrc,r->nc", nodes.units, still) if still.any() else nodes.constants
    if nodes.directions is None:
        return np.asarray(nodes.measure.of(tensors))
    return np.asarray(np.einsum("nc,nc->n", tensors, normal_weights(nodes.directions)))


def _mean_factor(mean: FloatArray, how: PowerLoop) -> FloatArray:
    """What every amplitude is multiplied by for its mean: 1/(1 - S_m/strength); inf where the mean reaches the strength."""
    if math.isinf(how.strength):
        return np.ones(mean.size)
    held = np.maximum(mean, 0.0) if how.means == IGNORED else mean
    left = 1.0 - held / how.strength
    return np.where(left > 0.0, 1.0 / np.where(left > 0.0, left, 1.0), np.inf)


class Part(NamedTuple):
    """`rate` ranges a second at each node, of which exp(-(S/scale)^shape) are above S."""

    rate: FloatArray
    shape: float
    scale: FloatArray


def _narrow_band(m0: FloatArray, _: FloatArray, m2: FloatArray, __: FloatArray) -> list[Part]:
    return [Part(np.sqrt(m2 / m0), 2.0, 2.0 * math.sqrt(2.0) * np.sqrt(m0))]


def _dirlik(m0: FloatArray, m1: FloatArray, m2: FloatArray, m4: FloatArray) -> list[Part]:
    """As the formula has it for one process; a narrow band to rounding has Rayleigh ranges only."""
    rate, rms = np.sqrt(m4 / m2), np.sqrt(m0)
    a = np.minimum(m2 / np.sqrt(m0 * m4), 1.0)
    narrow = 1.0 - a < NARROW
    a = np.where(narrow, 0.5, a)
    x = np.where(narrow, 0.3, m1 / m0 * np.sqrt(m2 / m4))
    c = dirlik_constants(a, x)
    wide = 2.0 * math.sqrt(2.0) * rms
    return [
        Part(np.where(narrow, 0.0, rate * c.d1), 1.0, 2.0 * rms * np.where(narrow, 1.0, c.q)),
        Part(np.where(narrow, 0.0, rate * c.d2), 2.0, wide * np.where(narrow, 1.0, np.abs(c.r))),
        Part(np.where(narrow, rate, rate * c.d3), 2.0, wide),
    ]


FORMULAS: dict[str, Callable[..., list[Part]]] = {"narrow band": _narrow_band, "dirlik": _dirlik}


def _weibull_damage(part: Part, corrected: FloatArray, how: PowerLoop) -> FloatArray:
    """Damage a second of Weibull ranges under a curve of power laws: incomplete gamma functions between its points."""
    curve = how.curve
    edge, kind, anchor, life, slopes = (np.asarray(one) for one in curve.segments.by_stress)
    half = 1.0 if curve.stress == "range" else 0.5
    scale = np.where(np.isfinite(corrected), corrected, 1.0) * half * part.scale
    found = np.zeros(part.rate.size)
    for j in range(slopes.size):
        if kind[j] == NEVER:
            continue
        m = 0.0 if kind[j] == CONSTANT else float(slopes[j])
        top = math.inf if j == 0 else float(edge[j - 1])
        low = float(edge[j]) if j < edge.size else 0.0
        order = 1.0 + m / part.shape
        between = _gamma_between(order, low, top, scale, part.shape)
        whole = gamma(order) * between
        found += part.rate * whole * (scale / float(anchor[j])) ** m / float(life[j])
    return found


def _gamma_between(order: float, low: float, top: float, scale: FloatArray, shape: float) -> FloatArray:
    """The share of a gamma integral between two stresses, without loss of digits where one end is 0 or infinite."""
    lower = (low / scale) ** shape
    if math.isinf(top):
        return np.asarray(gammaincc(order, lower))
    upper = (top / scale) ** shape
    if low == 0.0:
        return np.asarray(gammainc(order, upper))
    by_tails = gammaincc(order, lower) - gammaincc(order, upper)
    return np.where(lower > order, by_tails, gammainc(order, upper) - gammainc(order, lower))


# ---- sines -------------------------------------------------------------------------------------------------------


class _Around(NamedTuple):
    """Where a sweep has to be laid finely."""

    resonances: tuple[Any, ...]
    corners: FloatArray


def _sines(event: VibratingEvent, nodes: Nodes, spot: HotSpot) -> EventAtNodes:
    """Dwells: one range each; sweeps: their rows, made finer at every node where its curve has a knee."""
    load: Any = event.load
    around: Any = _Around(event.source.resonances, event.source.corners)
    rows = load.course.rows(around)
    mean = spot.notch_factor * _means(event, nodes, {load.channel: load.mean})
    coordinates = event.coordinates(rows.frequency)[:, :, 0] * rows.amplitude[:, None]
    size, many = len(nodes.units), rows.frequency.size
    damage, top = np.zeros(size), np.zeros(size)
    together = max(1, ROOM // many)
    for start in range(0, size, together):
        part = np.arange(start, min(start + together, size))
        amplitude = spot.notch_factor * _amplitudes(nodes, part, coordinates)
        top[part] = amplitude.max(axis=1)
        damage[part] = _damage_of_rows(spot, amplitude, mean[part], rows) * event.occurrences
    return EventAtNodes(damage, mean - top, mean + top)


def _damage_of_rows(spot: HotSpot, amplitude: FloatArray, mean: FloatArray, rows: Any) -> FloatArray:
    """Damage of one occurrence at nodes, from amplitudes of shape (n, rows)."""
    size, many = amplitude.shape
    ranges = 2.0 * amplitude.ravel()
    owner = np.repeat(np.arange(size), many)
    counts = np.tile(rows.cycles, size)
    columns = {PANEL: np.tile(rows.panel, size)} if (rows.panel >= 0.0).any() else {}
    moving = np.flatnonzero(np.repeat(amplitude.min(axis=1) > 0.0, many))
    if not moving.size:
        return np.zeros(size)
    every = Cycles(range=ranges, mean=np.repeat(mean, many), count=counts, event=owner, columns=columns)
    cycles = converged(spot, every.chosen(moving))
    share = Spectrum(spot, cycles).damage()
    return np.bincount(cycles.event, weights=share, minlength=size).astype(np.float64)


def _amplitudes(nodes: Nodes, part: Any, coordinates: Any) -> FloatArray:
    """Amplitude of the counted stress at some nodes, for complex coordinates of shape (rows, modes): shape (nodes, rows)."""
    tensors = np.matmul(coordinates, nodes.units[part])  # (nodes, rows, 6)
    if nodes.directions is None:
        flat = tensors.reshape(-1, 6)
        return np.asarray(nodes.measure.amplitude(flat)).reshape(tensors.shape[:2])
    return np.asarray(np.abs(np.einsum("nrc,nc->nr", tensors, normal_weights(nodes.directions[part]))))
