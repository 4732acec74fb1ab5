"""Life at every node of a field: loads superposed, one stress counted, damage summed, in chunks of nodes on any executor.

The cycles of many nodes are put side by side into one spectrum, so that a node gets exactly what a hot spot there would get.
Nodes whose stress can be shown never to reach the fatigue limit are left out of the counting.
"""

from __future__ import annotations

from collections.abc import Callable, Iterator
from concurrent.futures import Executor, Future, as_completed
from dataclasses import dataclass
from pathlib import Path
from typing import Any

import numpy as np
from numpy.typing import ArrayLike

from vivid_anvil import checks
from vivid_anvil.checks import FloatArray, IntArray, read_only
from vivid_anvil.damage.assess import check_rule
from vivid_anvil.damage.spectrum import Spectrum
from vivid_anvil.errors import InputError
from vivid_anvil.fields import _kernels as kernels
from vivid_anvil.fields.field_loads import EventLoads, FieldLoads
from vivid_anvil.fields.harmless import harmless
from vivid_anvil.fields.kept_chunks import KeptChunks
from vivid_anvil.fields.measures import StressMeasure, normal_weights
from vivid_anvil.fields.stress_field import StressField
from vivid_anvil.histories import Cycles, DutyCycle
from vivid_anvil.stress import HotSpot

CHUNK = 2000  # nodes handed to a worker at once
ROOM = 200_000  # cycles put side by side: what fits the cache
NO_EVENT = -1

Watch = Callable[[str, int, int], None]


@dataclass(frozen=True, eq=False)
class NodeValues:
    """Of each node of a chunk: damage per repeat, the event that does most, lowest and highest stress, MPa; shape (n,)."""

    damage: FloatArray
    worst_event: IntArray
    lowest: FloatArray
    highest: FloatArray
    counted: np.ndarray


@dataclass(frozen=True, eq=False)
class _Task:
    """All that a worker needs for one chunk."""

    units: FloatArray
    constants: FloatArray
    events: tuple[EventLoads, ...]
    spot: HotSpot
    along: FloatArray
    code: int
    skip: bool


@dataclass(frozen=True, eq=False, repr=False)
class ModelResult:
    """Damage per repeat and what belongs to it at every node; `spot` holds curve, material and mean-stress rule.

    `counted` says where cycles were counted, and not shown to be harmless before. `directions`, shape (n, 3), are those of the
    normal stress at each node, where every node has its own.
    """

    field: StressField
    loads: FieldLoads
    duty_cycle: DutyCycle
    spot: HotSpot
    measure: StressMeasure
    values: NodeValues
    target_repeats: float | None = None
    directions: FloatArray | None = None

    def measure_at(self, place: int) -> StressMeasure:
        """What was counted at the node that stands there."""
        if self.directions is None:
            return self.measure
        x, y, z = (float(one) for one in self.directions[place])
        return StressMeasure(direction=(x, y, z))

    @property
    def damage_per_repeat(self) -> FloatArray:
        """Damage of one repeat at each node, shape (n,)."""
        return self.values.damage

    @property
    def life_repeats(self) -> FloatArray:
        """Repeats to the critical sum, inf without damage, shape (n,)."""
        with np.errstate(divide="ignore"):
            return np.asarray(self.spot.critical_sum / self.values.damage)

    @property
    def life_years(self) -> FloatArray:
        """The same in years."""
        return np.asarray(self.life_repeats / self.duty_cycle.repeats_per_year)

    @property
    def worst(self) -> int:
        """The place of the node with the largest damage; of those without, the one with the largest stress."""
        if self.values.damage.max(initial=0.0) > 0.0:
            return int(self.values.damage.argmax())
        return int(np.maximum(self.values.highest, -self.values.lowest).argmax())

    def to_frame(self) -> Any:
        """A row a node: number, place, damage, life, worst event, stresses; units in the headings."""
        import pandas as pd

        names = np.array([event.name for event, _ in self.duty_cycle.flat()] + ["none"])
        x, y, z = self.field.coordinates.T
        return pd.DataFrame(
            {
                "node": self.field.node_ids,
                "x [mm]": x,
                "y [mm]": y,
                "z [mm]": z,
                "damage per repeat": self.values.damage,
                f"life [{self.duty_cycle.repeat}s]": self.life_repeats,
                "life [years]": self.life_years,
                "worst event": names[self.values.worst_event],
                "lowest stress [MPa]": self.values.lowest,
                "highest stress [MPa]": self.values.highest,
            }
        )

    def __repr__(self) -> str:
        at, years = self.worst, float(self.life_years[self.worst])
        life = "no damage" if np.isinf(years) else f"{years:.4g} years"
        return f"<ModelResult {self.field.size} nodes: {life} at node {self.field.node_ids[at]}>"


def assess_model(
    field: StressField,
    loads: FieldLoads,
    duty_cycle: DutyCycle,
    spot: HotSpot,
    *,
    measure: StressMeasure | str = "signed von Mises, hydrostatic",
    directions: ArrayLike | None = None,
    target: float | str | None = None,
    executor: Executor | None = None,
    chunk: int = CHUNK,
    skip_harmless: str = "yes",
    keep_in: str | Path | None = None,
    watch: Watch | None = None,
) -> ModelResult:
    """Damage at every node of `field` under `loads`; `spot` gives curve, material, notch factor and mean-stress rule.

    With `directions`, shape (n, 3), the normal stress along that of each node counts instead of `measure`.
    `executor` is any of `concurrent.futures` (None: one after the other here); the result does not depend on it, nor on `chunk`.
    With `keep_in`, a folder, finished chunks are kept, and an interrupted run goes on from there. `skip_harmless` is "yes" or
    "no". `watch(label, done, of)` is told how many nodes are done.

    Raises InputError for loads that do not fit the field, and for what a hot spot refuses.
    """
    how = measure if isinstance(measure, StressMeasure) else StressMeasure(measure)
    own = None if directions is None else _directions(directions, field.size)
    checks.one_of("whole model, skip_harmless", skip_harmless, ("yes", "no"))
    if not checks.real_number("whole model, chunk", chunk) >= 1:
        raise InputError("whole model, chunk", f"{chunk}", "one node or more")
    check_rule(spot)
    if duty_cycle.residue != "repeated":
        raise InputError("duty cycle, residue", repr(duty_cycle.residue), "'repeated' for a whole model")
    loads.check(field)
    units, constants = loads.units(field), loads.constants(field)
    along = np.tile(how.along, (field.size, 1)) if own is None else np.array([normal_weights(one) for one in own])
    code = how.code if own is None else kernels.ALONG
    shared = (tuple(loads.events(duty_cycle)), spot, code, skip_harmless == "yes")
    starts = range(0, field.size, int(chunk))
    kept = None if keep_in is None else KeptChunks(Path(keep_in), (units, constants, along, chunk, shared))

    def task(start: int) -> _Task:
        part = slice(start, start + int(chunk))
        events, at, how_counted, skip = shared
        return _Task(units[part], constants[part], events, at, along[part], how_counted, skip)

    found: dict[int, NodeValues] = {}
    for done, (start, values) in enumerate(_in_turn(starts, task, kept, executor), 1):
        found[start] = values
        if watch is not None:
            watch("nodes", min(done * int(chunk), field.size), field.size)
    joined = [
        read_only(np.concatenate([getattr(found[start], name) for start in starts]))
        for name in NodeValues.__dataclass_fields__
    ]
    repeats = None if target is None else duty_cycle.repeats_in(target)
    return ModelResult(field, loads, duty_cycle, spot, how, NodeValues(*joined), repeats, own)


def _directions(given: ArrayLike, size: int) -> FloatArray:
    found = np.asarray(given, dtype=np.float64)
    if found.shape != (size, 3) or not (np.linalg.norm(found, axis=1) > 0.0).all():
        raise InputError("whole model, directions", f"shape {found.shape}", f"({size}, 3), none of length 0")
    return read_only(found)


def _in_turn(
    starts: range, task: Callable[[int], _Task], kept: KeptChunks | None, executor: Executor | None
) -> Iterator[tuple[int, NodeValues]]:
    """Chunks as they are finished; those kept from before first."""
    left = []
    for start in starts:
        known = None if kept is None else kept.read(start)
        if known is None:
            left.append(start)
        else:
            yield start, NodeValues(**known)
    for start, values in _computed(left, task, executor):
        if kept is not None:
            kept.write(start, vars(values))
        yield start, values


def _computed(
    starts: list[int], task: Callable[[int], _Task], executor: Executor | None
) -> Iterator[tuple[int, NodeValues]]:
    if executor is None:
        for start in starts:
            yield start, values_of(task(start))
        return
    waiting: dict[Future[NodeValues], int] = {executor.submit(values_of, task(start)): start for start in starts}
    for future in as_completed(waiting):
        yield waiting[future], future.result()


def values_of(task: _Task) -> NodeValues:
    """The values of the nodes of one chunk."""
    size = task.units.shape[0]
    damage, worst = np.zeros(size), np.full(size, NO_EVENT, dtype=np.int64)
    largest, lowest, highest = np.zeros(size), np.full(size, np.inf), np.full(size, -np.inf)
    factor = task.spot.notch_factor
    units, constants = factor * task.units, factor * task.constants
    idle = harmless(units, constants, task.events, task.spot, task.code) if task.skip else np.zeros(size, dtype=bool)
    counted = np.flatnonzero(~idle)
    for number, event in enumerate(task.events):
        reached = np.empty((size, 2))
        _extremes_of_idle(task, units, constants, event, np.flatnonzero(idle), reached)
        for places, high, low, ends, found in _batches(task, units, constants, event, counted):
            reached[places] = found
            share = _damage(task.spot, event, high, low)
            owner = np.repeat(np.arange(places.size), np.diff(ends, prepend=0))
            own = np.bincount(owner, weights=share, minlength=places.size)
            damage[places] += own
            more = own > largest[places]
            worst[places[more]], largest[places[more]] = number, own[more]
        lowest, highest = np.minimum(lowest, reached[:, 0]), np.maximum(highest, reached[:, 1])
    return NodeValues(damage, worst, lowest, highest, ~idle)


def _extremes_of_idle(
    task: _Task, units: FloatArray, constants: FloatArray, event: EventLoads, places: IntArray, reached: FloatArray
) -> None:
    """Lowest and highest stress of nodes whose cycles are not counted."""
    history = np.empty(event.loads.shape[0])
    for place in places:
        kernels.stress_history(task.code, task.along[place], units[place], constants[place], event.loads, history)
        reached[place] = history.min(), history.max()


def _batches(
    task: _Task, units: FloatArray, constants: FloatArray, event: EventLoads, counted: IntArray
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
    """Damage of cycles per repeat: exactly that of a hot spot with these cycles."""
    nowhere = np.broadcast_to(np.int64(-1), high.shape)
    cycles = Cycles(
        range=high - low,
        mean=0.5 * (high + low),
        count=np.broadcast_to(1.0, high.shape),
        start=nowhere,
        end=nowhere,
        dimension="stress",
    )
    often = np.broadcast_to(event.occurrences, high.shape)
    spectrum = Spectrum.of_cycles(spot, cycles, often)
    equivalent = spectrum.equivalent_stress()
    if not np.isfinite(equivalent).all():
        mean = float(cycles.mean[np.flatnonzero(~np.isfinite(equivalent))[0]])
        raise InputError(
            f"event {event.name}",
            f"a mean stress of {mean:.4g} MPa at a node",
            f"means that the rule {spot.mean_stress!r} has a meaning for, below the strength",
            "The part would fail statically there: check stress unit, unit loads and loads.",
        )
    return spectrum.damage_of(equivalent)
