"""The values of one chunk of nodes: what a worker does.

The cycles of many nodes are put side by side into one spectrum, so that each gets exactly what a hot spot there would get. Nodes
whose stress can be shown never to reach the fatigue limit are left out of the counting.
"""

from __future__ import annotations

from collections.abc import Iterator, Sequence
from dataclasses import dataclass, replace

import numpy as np

from vivid_anvil.counting import Cycles
from vivid_anvil.damage.spectrum import Spectrum, counted_curve
from vivid_anvil.damage.spectrum import spectrum as spectrum_of
from vivid_anvil.events import DutyCycle
from vivid_anvil.fields import _kernels as kernels
from vivid_anvil.fields.field_loads import EventLoads
from vivid_anvil.fields.harmless import harmless
from vivid_anvil.fields.model_result import NO_EVENT, NodeValues, sources_of
from vivid_anvil.fields.node_duty import CHANNEL, node_duty
from vivid_anvil.ground.checks import FloatArray, IntArray
from vivid_anvil.materials import ANY_R, FIXED_MEAN, SNCurve, SNFamily
from vivid_anvil.materials.mean_stress import MEAN_STRESS_RULES
from vivid_anvil.materials.mean_stress.apply import counted_r
from vivid_anvil.stress import HotSpot

ROOM = 24_000  # cycles put side by side: what fits the cache


@dataclass(frozen=True, eq=False)
class Task:
    """All that a worker needs for one chunk; the duty cycle only where cycles or events act on each other."""

    units: FloatArray
    constants: FloatArray
    events: tuple[EventLoads, ...]
    spot: HotSpot
    along: FloatArray
    code: int
    skip: bool
    duty_cycle: DutyCycle | None = None

    @property
    def scaled(self) -> tuple[FloatArray, FloatArray]:
        """Unit stresses and constants with the notch factor."""
        factor = self.spot.notch_factor
        return factor * self.units, factor * self.constants


def acts_together(spot: HotSpot, duty_cycle: DutyCycle) -> bool:
    """Whether the cycles of a node act on each other, so that those of many cannot be put side by side."""
    alone = duty_cycle.between == "each by itself" and duty_cycle.residue == "repeated"
    return not alone or spot.below_knee == "consistent"


def values_of(task: Task) -> NodeValues:
    """The values of the nodes of one chunk."""
    if task.duty_cycle is not None:
        return _one_by_one(task, task.duty_cycle)
    size = task.units.shape[0]
    found = _Sums(size, len(task.events))
    units, constants = task.scaled
    idle = harmless(units, constants, task.events, task.spot, task.code) if task.skip else np.zeros(size, dtype=bool)
    counted, how = np.flatnonzero(~idle), one_loop(task.spot)
    for number, event in enumerate(task.events):
        reached = np.empty((size, 2))
        _extremes_of_idle(task, units, constants, event, np.flatnonzero(idle), reached)
        batches = _batches if event.counts is None else _specified
        for places, high, low, ends, extremes in batches(task, units, constants, event, counted):
            reached[places] = extremes
            found.add(number, places, _damage_by_node(task.spot, how, event, high, low, ends))
        found.reach(np.arange(size), reached)
    return found.values(~idle)


def cycles_side_by_side(task: Task) -> tuple[Cycles, IntArray]:
    """The cycles of all events at the nodes of a task, and the number of the node of each.

    Only where cycles and events do not act on each other (`acts_together`).
    """
    units, constants = task.scaled
    everyone = np.arange(task.units.shape[0])
    parts: list[tuple[FloatArray | IntArray, ...]] = []
    for event in task.events:
        batches = _batches if event.counts is None else _specified
        for places, high, low, ends, _ in batches(task, units, constants, event, everyone):
            owner = np.repeat(places, np.diff(ends, prepend=0))
            count = np.ones(high.size) if event.counts is None else np.tile(event.counts, places.size)
            parts.append((high - low, 0.5 * (high + low), count, count * event.often, owner))
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
        spectrum = node_spectrum(
            task.spot, duty_cycle, task.events, task.code, task.along[node], task.units[node], task.constants[node]
        )
        share, one = spectrum.damage(), np.array([node])
        for number in range(len(spectrum.sources)):
            sums.add(number, one, np.array([share[spectrum.event == number].sum()]))
        sums.reach(one, np.array([[spectrum.lowest, spectrum.highest]]))
    return sums.values(np.ones(size, dtype=bool))


def node_spectrum(
    spot: HotSpot,
    duty_cycle: DutyCycle,
    events: Sequence[EventLoads],
    code: int,
    along: FloatArray,
    unit: FloatArray,
    constant: FloatArray,
) -> Spectrum:
    """The cycles of one node: those of a hot spot whose load is the counted stress there."""

    def stress_of(loads: FloatArray) -> FloatArray:
        history = np.empty(loads.shape[0])
        kernels.stress_history(code, along, unit, constant, np.ascontiguousarray(loads.T), history)
        return history

    return spectrum_of(hot_spot_there(spot, "a node"), node_duty(duty_cycle, events, stress_of))


def hot_spot_there(spot: HotSpot, name: str) -> HotSpot:
    """The model's hot spot, fed by the counted stress."""
    return replace(spot, name=name, channel=CHANNEL, stress_per_load="1", offset=0.0)


def _extremes_of_idle(
    task: Task, units: FloatArray, constants: FloatArray, event: EventLoads, places: IntArray, reached: FloatArray
) -> None:
    """Lowest and highest stress of nodes whose cycles are not counted."""
    history = np.empty(event.loads.shape[0])
    for place in places:
        kernels.stress_history(task.code, task.along[place], units[place], constants[place], event.by_case, history)
        reached[place] = history.min(), history.max()


def _specified(
    task: Task, units: FloatArray, constants: FloatArray, event: EventLoads, counted: IntArray
) -> Iterator[tuple[IntArray, FloatArray, FloatArray, IntArray, FloatArray]]:
    """The same for an event that is specified by its cycles."""
    size = event.loads.shape[0]
    together = max(1, 2 * ROOM // size)
    for start in range(0, counted.size, together):
        places = counted[start : start + together]
        histories = np.empty((places.size, size))
        for row, place in zip(histories, places, strict=True):
            kernels.stress_history(task.code, task.along[place], units[place], constants[place], event.by_case, row)
        one, other = histories[:, 0::2], histories[:, 1::2]
        ends = np.arange(1, places.size + 1) * (size // 2)
        reached = np.column_stack([histories.min(axis=1), histories.max(axis=1)])
        yield places, np.maximum(one, other).ravel(), np.minimum(one, other).ravel(), ends, reached


def _batches(
    task: Task, units: FloatArray, constants: FloatArray, event: EventLoads, counted: IntArray
) -> Iterator[tuple[IntArray, FloatArray, FloatArray, IntArray, FloatArray]]:
    """Cycles of the counted nodes, as many nodes at a time as there is room for."""
    room = max(ROOM, event.loads.shape[0] // 2 + 4)
    high, low = np.empty(room), np.empty(room)
    along, unit, constant = (values[counted] for values in (task.along, units, constants))
    ends, found = np.zeros(counted.size, dtype=np.int64), np.empty((counted.size, 2))
    done = 0
    while done < counted.size:
        many = int(
            kernels.cycles_of_nodes(
                task.code,
                along[done:],
                unit[done:],
                constant[done:],
                event.by_case,
                high,
                low,
                ends[done:],
                found[done:],
            )
        )
        now = slice(done, done + many)
        used = int(ends[now][-1])
        yield counted[now], high[:used], low[:used], ends[now], found[now]
        done += many


MEANS = {"ignored": 0, "capped": 1, "credited": 2}  # as the loop knows them


Loop = tuple[SNCurve, float, int]  # curve, strength, choice of means


def _damage_by_node(
    spot: HotSpot, how: Loop | None, event: EventLoads, high: FloatArray, low: FloatArray, ends: IntArray
) -> FloatArray:
    """Damage of an event per repeat at nodes whose cycles stand one after the other; by one loop where rule and curve allow."""
    if how is None:
        share = _damage(spot, event, high, low)
        owner = np.repeat(np.arange(ends.size), np.diff(ends, prepend=0))
        return np.bincount(owner, weights=share, minlength=ends.size).astype(np.float64)
    often = np.array([event.often])
    if event.counts is not None:
        often = event.often * np.tile(event.counts, ends.size)
    return damage_by_loop(how, (high, low, often, ends), np.arange(ends.size), np.ones(ends.size))


def damage_by_loop(
    how: Loop, cycles: tuple[FloatArray, FloatArray, FloatArray, IntArray], which: IntArray, factors: FloatArray
) -> FloatArray:
    """Damage a repeat at the nodes `which`, at `factors` on their stresses; `cycles`: high, low, how often, ends of nodes."""
    curve, strength, means = how
    twice, found = 2.0 if curve.stress == "range" else 1.0, np.empty(which.size)
    kernels.damage_of_nodes(*cycles, which, factors, twice, strength, means, *curve.segments.by_stress, found)
    return found


def one_loop(spot: HotSpot) -> Loop | None:
    """Curve, strength and choice of means of a hot spot whose curve is power laws, under a line to a strength or no rule."""
    if isinstance(spot.curve, SNFamily):
        return None
    curve, rule = counted_curve(spot), MEAN_STRESS_RULES.get(spot.mean_stress, "mean_stress")
    if not curve.segments.powers:
        return None
    if curve.r_ratio in (ANY_R, FIXED_MEAN) or not rule.corrects:
        return curve, np.inf, MEANS["credited"]
    if not rule.straight or counted_r(float(curve.r_ratio), spot.compressive_mean) != -1.0:
        return None
    return curve, rule.value_of(spot.material, f"hot spot {spot.name}"), MEANS[spot.compressive_mean]


def _damage(spot: HotSpot, event: EventLoads, high: FloatArray, low: FloatArray) -> FloatArray:
    """Damage of cycles of an event per repeat: exactly that of a hot spot with these cycles."""
    count = np.broadcast_to(1.0, high.shape)
    if event.counts is not None:
        count = np.tile(event.counts, high.size // event.counts.size)
    cycles = Cycles.of_columns(high - low, 0.5 * (high + low), count, count * event.often)
    return Spectrum.of_cycles(spot, cycles).damage()
