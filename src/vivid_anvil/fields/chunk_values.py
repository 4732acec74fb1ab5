"""The values of one chunk of nodes: what a worker does.

The cycles of many nodes are put side by side into one spectrum, so that each gets exactly what a hot spot there would get. Nodes
whose stress can be shown never to reach the fatigue limit are left out of the counting.
"""

from __future__ import annotations

import dataclasses
from collections.abc import Iterator
from dataclasses import dataclass
from typing import Any

import numpy as np

from vivid_anvil.counting import Cycles
from vivid_anvil.damage.spectrum import Spectrum
from vivid_anvil.damage.spectrum import spectrum as spectrum_of
from vivid_anvil.events import DutyCycle
from vivid_anvil.fields import _kernels as kernels
from vivid_anvil.fields.model_result import NO_EVENT, NodeValues, sources_of
from vivid_anvil.fields.vibrating_nodes import Nodes, event_at_nodes
from vivid_anvil.ground.checks import BoolArray, FloatArray, IntArray
from vivid_anvil.stress import HotSpot, OfMany, PowerLoop
from vivid_anvil.stress.cycles_of_places import Batch, batches
from vivid_anvil.stress.measures import Measure, NormalStress
from vivid_anvil.stress.measures.straight import normal_weights
from vivid_anvil.stress.relations import EventLoads


@dataclass(frozen=True, eq=False)
class Task:
    """All that a worker needs for one chunk; the duty cycle only where cycles or events act on each other.

    With `directions`, (n, 3), the normal stress along that of each node counts, and `measure` is of that kind.
    """

    units: FloatArray
    constants: FloatArray
    loads: Any
    events: tuple[Any, ...]
    spot: HotSpot
    measure: Measure
    skip: bool
    directions: FloatArray | None = None
    duty_cycle: DutyCycle | None = None

    @property
    def scaled(self) -> tuple[FloatArray, FloatArray]:
        """Unit stresses and constants with the notch factor."""
        factor = self.spot.notch_factor
        return factor * self.units, factor * self.constants

    @property
    def forms(self) -> FloatArray:
        """Weights of the components in what is counted: one set for all nodes, or one for each."""
        return self.measure.forms[None] if self.directions is None else normal_weights(self.directions)[:, None]

    def measure_at(self, row: int) -> Measure:
        """What is counted at a node."""
        return self.measure if self.directions is None else NormalStress(self.directions[row])

    def relation_at(self, row: int) -> Any:
        """How loads become the counted stress at a node."""
        return self.loads.relation_at(self.units[row], self.constants[row], self.measure_at(row))

    @property
    def nodes(self) -> Nodes:
        """The nodes as events over frequency look at them."""
        return Nodes(self.units, self.constants, self.measure, self.directions, self.relation_at)

    def counted(self, event: EventLoads, places: IntArray) -> Iterator[Batch]:
        """The stress cycles of an event at some of the nodes, as many nodes at a time as there is room for."""
        units, constants = self.scaled
        forms = self.forms if self.directions is None else self.forms[places]
        return batches(self.measure, forms, units[places], constants[places], event.by_case, event.counts)


def acts_together(spot: HotSpot, duty_cycle: DutyCycle) -> bool:
    """Whether the cycles of a node act on each other, or are counted in another way, so that nodes go one after the other."""
    alone = duty_cycle.between == "each by itself" and duty_cycle.residue == "repeated"
    method = spot.assessed_by
    return not alone or duty_cycle.counting != "rainflow" or method.acts_together or method.hangs


def values_of(task: Task) -> NodeValues:
    """The values of the nodes of one chunk."""
    if not any(event.vibrates for event in task.events):
        together = task.spot.assessed_by.of_many(task.spot, *task.scaled, task.events, task.duty_cycle)
        if together is not None:
            return _of_many(task, together)
    if task.duty_cycle is not None:
        return _one_by_one(task, task.duty_cycle)
    size = task.units.shape[0]
    found = _Sums(size, len(task.events))
    idle = np.zeros(size, dtype=bool)
    if task.skip:
        idle = harmless(task)
    counted, how = np.flatnonzero(~idle), task.spot.assessed_by.loop(task.spot)
    for number, event in enumerate(task.events):
        if event.vibrates:
            own = event_at_nodes(event, task.nodes, task.spot)
            found.add(number, np.arange(size), own.damage)
            found.reach(np.arange(size), np.column_stack([own.lowest, own.highest]))
            continue
        reached = np.empty((size, 2))
        reached[idle] = _reached(task, event, np.flatnonzero(idle))
        for batch in task.counted(event, counted):
            places = counted[batch.places]
            reached[places] = batch.extremes
            found.add(number, places, _damage_by_node(task.spot, how, event, batch))
        found.reach(np.arange(size), reached)
    return found.values(~idle)


def _reached(task: Task, event: EventLoads, rows: IntArray) -> FloatArray:
    """Lowest and highest counted stress of an event at some nodes, shape (rows, 2)."""
    found = np.empty((rows.size, 2))
    for i, row in enumerate(rows.tolist()):
        history = task.spot.notch_factor * task.measure_at(row).history(
            task.units[row], task.constants[row], event.loads
        )
        found[i] = history.min(), history.max()
    return found


def _of_many(task: Task, together: OfMany) -> NodeValues:
    """The values of nodes whose damage a method gives at once."""
    every = np.arange(task.units.shape[0])
    found = _Sums(every.size, len(task.events))
    for number, event in enumerate(task.events):
        found.add(number, every, together.by_event[:, number])
        if together.reached is None:
            found.reach(every, _reached(task, event, every))
    if together.reached is not None:
        found.reach(every, together.reached)
    return found.values(together.counted)


def harmless(task: Task) -> BoolArray:
    """Which nodes do no damage whatever the phase of the loads, shape (n,); none where the bound says nothing.

    |s(t)| is at most B = Σ norm(unit stress) max |load| + norm(constant), with the norm that the measure states: a norm of a
    sum is at most the sum of the norms. What a stress within -B to B can do the method knows.
    """
    units, constants = task.scaled
    if any(event.vibrates for event in task.events):
        return np.zeros(units.shape[0], dtype=bool)  # a random stress has no bound
    always, each = task.measure.norm(constants), task.measure.norm(units.reshape(-1, 6))
    found = None
    if always is not None and each is not None:  # else no bound, no skipping
        largest = np.max([np.abs(event.loads).max(axis=0, initial=0.0) for event in task.events], axis=0)
        bound = (always + each.reshape(units.shape[:2]) @ largest) * (1.0 + 1e-9)  # room for rounding
        found = task.spot.assessed_by.never(task.spot, bound)
    return np.zeros(units.shape[0], dtype=bool) if found is None else found


def cycles_side_by_side(task: Task) -> tuple[Cycles, IntArray]:
    """The cycles of all events at the nodes of a task, and the number of the node of each.

    Only where cycles and events do not act on each other (`acts_together`).
    """
    everyone = np.arange(task.units.shape[0])
    parts: list[tuple[FloatArray | IntArray, ...]] = []
    for event in task.events:
        for batch in task.counted(event, everyone):
            owner = np.repeat(everyone[batch.places], np.diff(batch.ends, prepend=0))
            parts.append((batch.ranges.copy(), batch.means.copy(), batch.counts, batch.counts * event.often, owner))
    *columns, owner = (np.concatenate(column) for column in zip(*parts, strict=True))
    return Cycles.of_columns(*columns), owner.astype(np.int64)


class _Sums:
    """Damage of nodes as events are added, and which event did most."""

    def __init__(self, size: int, events: int) -> None:
        self.by_event = np.zeros((size, events))
        self.lowest, self.highest = np.full(size, np.inf), np.full(size, -np.inf)

    def add(self, event: int, places: IntArray, damage: FloatArray) -> None:
        self.by_event[places, event] += damage

    def reach(self, places: IntArray, extremes: FloatArray) -> None:
        self.lowest[places] = np.minimum(self.lowest[places], extremes[:, 0])
        self.highest[places] = np.maximum(self.highest[places], extremes[:, 1])

    def values(self, counted: np.ndarray) -> NodeValues:
        damage, worst = self.by_event.sum(axis=1), self.by_event.argmax(axis=1)
        worst = np.where(damage > 0.0, worst, NO_EVENT)
        return NodeValues(damage, worst, self.lowest, self.highest, counted, self.by_event)


def _one_by_one(task: Task, duty_cycle: DutyCycle) -> NodeValues:
    """Nodes as hot spots one after the other: where cycles act on each other, or events do."""
    size = task.units.shape[0]
    sums = _Sums(size, len(sources_of(duty_cycle)))
    for node in range(size):
        relation = task.relation_at(node)
        spectrum = spectrum_of(dataclasses.replace(task.spot, relation=relation), dataclasses.replace(duty_cycle))
        share, one = spectrum.damage(), np.array([node])
        for number in range(len(spectrum.sources)):
            sums.add(number, one, np.array([share[spectrum.event == number].sum()]))
        sums.reach(one, np.array([[spectrum.lowest, spectrum.highest]]))
    return sums.values(np.ones(size, dtype=bool))


def _damage_by_node(spot: HotSpot, how: PowerLoop | None, event: EventLoads, batch: Batch) -> FloatArray:
    """Damage of an event per repeat at nodes whose cycles stand one after the other; by one loop where rule and curve allow."""
    if how is None:
        count = batch.counts
        cycles = Cycles.of_columns(batch.ranges, batch.means, count, count * event.often)
        share = Spectrum(spot, cycles).damage()
        owner = np.repeat(np.arange(batch.ends.size), np.diff(batch.ends, prepend=0))
        return np.bincount(owner, weights=share, minlength=batch.ends.size).astype(np.float64)
    often = np.array([event.often]) if event.counts is None else event.often * batch.counts
    of_all = np.arange(batch.ends.size)
    return damage_by_loop(how, (batch.ranges, batch.means, often, batch.ends), of_all, np.ones(of_all.size))


def damage_by_loop(
    how: PowerLoop, cycles: tuple[FloatArray, FloatArray, FloatArray, IntArray], which: IntArray, factors: FloatArray
) -> FloatArray:
    """Damage a repeat at the nodes `which`, at `factors` on their stresses; `cycles`: ranges, means, how often, ends of nodes."""
    curve, strength, means = how
    twice, found = 2.0 if curve.stress == "range" else 1.0, np.empty(which.size)
    kernels.damage_of_nodes(*cycles, which, factors, twice, strength, means, *curve.segments.by_stress, found)
    return found
