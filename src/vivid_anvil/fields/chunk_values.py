"""The values of one chunk of nodes: what a worker does.

The cycles of many nodes are put side by side into one spectrum, so that each gets exactly what a hot spot there would get. Nodes
whose stress can be shown never to reach the fatigue limit are left out of the counting.
"""

from __future__ import annotations

from collections.abc import Iterator
from dataclasses import dataclass

import numpy as np

from vivid_anvil.checks import FloatArray, IntArray
from vivid_anvil.damage.spectrum import Spectrum
from vivid_anvil.errors import InputError
from vivid_anvil.fields import _kernels as kernels
from vivid_anvil.fields.field_loads import EventLoads
from vivid_anvil.fields.harmless import harmless
from vivid_anvil.fields.model_result import NO_EVENT, NodeValues
from vivid_anvil.histories import Cycles
from vivid_anvil.stress import HotSpot

ROOM = 200_000  # cycles put side by side: what fits the cache


@dataclass(frozen=True, eq=False)
class Task:
    """All that a worker needs for one chunk."""

    units: FloatArray
    constants: FloatArray
    events: tuple[EventLoads, ...]
    spot: HotSpot
    along: FloatArray
    code: int
    skip: bool

    @property
    def scaled(self) -> tuple[FloatArray, FloatArray]:
        """Unit stresses and constants with the notch factor."""
        factor = self.spot.notch_factor
        return factor * self.units, factor * self.constants


def values_of(task: Task) -> NodeValues:
    """The values of the nodes of one chunk."""
    if task.spot.below_knee == "consistent":
        return _one_by_one(task)
    size = task.units.shape[0]
    found = _Sums(size)
    units, constants = task.scaled
    idle = harmless(units, constants, task.events, task.spot, task.code) if task.skip else np.zeros(size, dtype=bool)
    counted = np.flatnonzero(~idle)
    for number, event in enumerate(task.events):
        reached = np.empty((size, 2))
        _extremes_of_idle(task, units, constants, event, np.flatnonzero(idle), reached)
        for places, high, low, ends, extremes in _batches(task, units, constants, event, counted):
            reached[places] = extremes
            share = _damage(task.spot, event, high, low)
            owner = np.repeat(np.arange(places.size), np.diff(ends, prepend=0))
            found.add(number, places, np.bincount(owner, weights=share, minlength=places.size).astype(np.float64))
        found.reach(np.arange(size), reached)
    return found.values(~idle)


class _Sums:
    """Damage of nodes as events are added, and which event did most."""

    def __init__(self, size: int) -> None:
        self.damage, self.largest = np.zeros(size), np.zeros(size)
        self.worst = np.full(size, NO_EVENT, dtype=np.int64)
        self.lowest, self.highest = np.full(size, np.inf), np.full(size, -np.inf)

    def add(self, event: int, places: IntArray, damage: FloatArray) -> None:
        self.damage[places] += damage
        more = damage > self.largest[places]
        self.worst[places[more]], self.largest[places[more]] = event, damage[more]

    def reach(self, places: IntArray, extremes: FloatArray) -> None:
        self.lowest[places] = np.minimum(self.lowest[places], extremes[:, 0])
        self.highest[places] = np.maximum(self.highest[places], extremes[:, 1])

    def values(self, counted: np.ndarray) -> NodeValues:
        return NodeValues(self.damage, self.worst, self.lowest, self.highest, counted)


def _one_by_one(task: Task) -> NodeValues:
    """Nodes whose cycles act on each other, as where the limit falls with the damage: all events of a node in one spectrum."""
    size = task.units.shape[0]
    units, constants = task.scaled
    sums = _Sums(size)
    for node in range(size):
        one = np.array([node])
        parts = []
        for event in task.events:
            for _, high, low, _, extremes in _batches(task, units, constants, event, one):
                parts.append((high.copy(), low.copy(), np.full(high.size, event.occurrences)))
                sums.reach(one, extremes)
        high, low, often = (np.concatenate(columns) for columns in zip(*parts, strict=True))
        share = _damage_of_cycles(task.spot, high, low, often, "a node")
        start = 0
        for number, part in enumerate(parts):
            sums.add(number, one, np.array([share[start : start + part[0].size].sum()]))
            start += part[0].size
    return sums.values(np.ones(size, dtype=bool))


def _extremes_of_idle(
    task: Task, units: FloatArray, constants: FloatArray, event: EventLoads, places: IntArray, reached: FloatArray
) -> None:
    """Lowest and highest stress of nodes whose cycles are not counted."""
    history = np.empty(event.loads.shape[0])
    for place in places:
        kernels.stress_history(task.code, task.along[place], units[place], constants[place], event.loads, history)
        reached[place] = history.min(), history.max()


def _batches(
    task: Task, units: FloatArray, constants: FloatArray, event: EventLoads, counted: IntArray
) -> Iterator[tuple[IntArray, FloatArray, FloatArray, IntArray, FloatArray]]:
    """Cycles of the counted nodes, as many nodes at a time as there is room for."""
    samples = event.loads.shape[0]
    history, stack = np.empty(samples), np.empty(samples + 2)
    room = max(ROOM, samples // 2 + 2)
    high, low = np.empty(room), np.empty(room)
    done = 0
    while done < counted.size:
        places = counted[done:]
        ends, found = np.zeros(places.size, dtype=np.int64), np.empty((places.size, 2))
        many = int(
            kernels.cycles_of_nodes(
                task.code,
                task.along[places],
                units[places],
                constants[places],
                event.loads,
                history,
                stack,
                high,
                low,
                ends,
                found,
            )
        )
        used = int(ends[many - 1])
        yield places[:many], high[:used], low[:used], ends[:many], found[:many]
        done += many


def _damage(spot: HotSpot, event: EventLoads, high: FloatArray, low: FloatArray) -> FloatArray:
    """Damage of cycles of an event per repeat: exactly that of a hot spot with these cycles."""
    return _damage_of_cycles(spot, high, low, np.broadcast_to(event.occurrences, high.shape), f"event {event.name}")


def _damage_of_cycles(spot: HotSpot, high: FloatArray, low: FloatArray, often: FloatArray, where: str) -> FloatArray:
    nowhere = np.broadcast_to(np.int64(-1), high.shape)
    cycles = Cycles(
        range=high - low,
        mean=0.5 * (high + low),
        count=np.broadcast_to(1.0, high.shape),
        start=nowhere,
        end=nowhere,
        dimension="stress",
    )
    spectrum = Spectrum.of_cycles(spot, cycles, often)
    equivalent = spectrum.equivalent_stress()
    if not np.isfinite(equivalent).all():
        mean = float(cycles.mean[np.flatnonzero(~np.isfinite(equivalent))[0]])
        raise InputError(
            where,
            f"a mean stress of {mean:.4g} MPa at a node",
            f"means that the rule {spot.mean_stress!r} has a meaning for, below the strength",
            "The part would fail statically there: check stress unit, unit loads and loads.",
        )
    return spectrum.damage_of(equivalent)
