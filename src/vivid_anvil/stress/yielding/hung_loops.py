"""Cycles of a repeat with the branches that they hang on: what their mean stress depends on where a notch yields.

In: a duty cycle, and what is counted. Out: its cycles, as `DutyCycle.cycles_of` gives them, with the columns `LOOP`, `HANGS_ON`
and `RISES`. A loop that closes within another starts on one of the other's two branches (Masing's memory): on the branch that
rises from its lower tip, or on the one that falls from its upper tip. That does not change when all loads are scaled.
"""

from __future__ import annotations

from collections.abc import Sequence
from typing import Any, NamedTuple

import numpy as np

from vivid_anvil.counting import Cycles, turning_points
from vivid_anvil.counting.cycles import of_a_repeat
from vivid_anvil.events import BETWEEN, DutyCycle, Source
from vivid_anvil.events.between import whole
from vivid_anvil.events.event import Asked
from vivid_anvil.ground.checks import FloatArray, IntArray
from vivid_anvil.ground.errors import InputError
from vivid_anvil.stress.yielding import _kernels

LOOP = "loop"  # column: the number of a loop that others may hang on; -1 of a cycle by itself
HANGS_ON = "hangs on"  # column: the number of the loop on whose branch it starts; -1 of what hangs on none
RISES = "rises"  # column: 1 where that branch rises, 0 where it falls
SAME = 1e-12  # of a range: by round-off
ALONE = {LOOP: -1.0, HANGS_ON: -1.0, RISES: 0.0}


class Course(NamedTuple):
    """Values in their order, the sample of each (-1: of no history), and how often the whole is gone through."""

    values: FloatArray
    samples: IntArray
    times: float


class Found(NamedTuple):
    """Loops as they close: numbers of the points at which each starts, turns and of the point before; values; how often."""

    points: IntArray
    values: FloatArray
    times: float


def check_count(duty_cycle: DutyCycle) -> None:
    """InputError where cycles are not rainflow's of a repeated history: no others hang on each other."""
    for key, usual in (("counting", "rainflow"), ("residue", "repeated")):
        if getattr(duty_cycle, key) != usual:
            raise InputError(
                f"duty cycle, {key}",
                repr(getattr(duty_cycle, key)),
                f"{usual!r}, where a history is followed with the memory of the material",
                f'Set {key} = "{usual}", or assess the place by stress-life.',
            )


def hung_cycles(duty_cycle: DutyCycle, asked: Asked) -> Cycles:
    """The cycles of a repeat with the columns that say where each hangs; InputError where they are not rainflow's of a repeat."""
    check_count(duty_cycle)
    if duty_cycle.between == "in the order given":
        sources = _in_the_order_given(duty_cycle, asked)
    else:
        sources = _numbered(_each_by_itself(duty_cycle, asked))
    return of_a_repeat(sources, duty_cycle.extremes(asked))


def as_stress(cycles: Cycles, factor: float, offset: float) -> Cycles:
    """Hung cycles of a load as those of factor × load + offset, MPa: what rises falls under a factor below 0."""
    found = cycles.linear(factor, offset, "stress")
    if factor > 0.0:
        return found
    return found.with_columns({**found.columns, RISES: 1.0 - found.columns[RISES]})


def _numbered(sources: Sequence[Source]) -> list[Source]:
    """The same sources, no two of whose loops have one number."""
    found, first = [], 0.0
    for source in sources:
        columns = dict(source.cycles.columns)
        known = columns[LOOP] >= 0.0
        for name in (LOOP, HANGS_ON):
            columns[name] = np.where(columns[name] >= 0.0, columns[name] + first, -1.0)
        first = max(first, float(columns[LOOP].max(initial=-1.0)) + 1.0) if known.any() else first
        found.append(_with(source, source.cycles.with_columns(columns)))
    return found


def _with(source: Source, cycles: Cycles) -> Source:
    return Source(source.name, source.occurrences, cycles, source.history, source.gated)


def _alone(source: Source) -> Source:
    """Cycles that have no order: each by itself."""
    own = {name: np.full(len(source.cycles), value) for name, value in ALONE.items()}
    return _with(source, source.cycles.with_columns({**source.cycles.columns, **own}))


# each event by itself


def _each_by_itself(duty_cycle: DutyCycle, asked: Asked) -> list[Source]:
    """Each event as a block that follows itself; with the order unknown its largest loops as often as they are its own."""
    name, kept = str(asked), list(duty_cycle.sources(asked))
    events = duty_cycle.flat()
    found = []
    for (event, _), source in zip(events, kept, strict=False):
        load = event.seen(asked)
        course = _course_of(load, name)
        paired = (
            duty_cycle.between == "worst case" and source.history is None
        )  # any of its cycles may meet another event's
        if course is None or paired or not len(source.cycles):
            found.append(_alone(source))
            continue
        hung = _block(course, source.cycles)
        if duty_cycle.between == "worst case":  # of the widest loop those that pair with no other event
            outer = float(source.cycles.count[source.cycles.range >= (1.0 - SAME) * hung.range[-1]].sum())
            count = hung.count.copy()
            count[-1] = min(outer, count[-1])
            hung = hung.happening(count)
        found.append(_with(source, hung))
    return [*found, *(_alone(one) for one in kept[len(events) :])]


def _course_of(load: Any, name: str) -> Course | None:
    """The order in which a load goes; None where it has none."""
    gated = load.gated(name)
    if gated is not None:
        return Course(gated.values, gated.samples, 1.0)
    if load.measured is not None:
        values = load.measured[name].values
        return Course(values, np.arange(values.size), 1.0)
    if "samples" in load.gives:
        samples = load.samples()
        values = samples.channel(name).values
        return Course(values, np.full(values.size, -1), float(samples.passes or 1.0))
    return None


def _block(course: Course, like: Cycles) -> Cycles:
    """The loops of a block that follows itself, as they close; the widest is the last."""
    points = turning_points(course.values)
    values, samples = course.values[points], course.samples[points]
    closed, kept = _round(values, np.arange(values.size))
    owner = _owners([closed], values.size)
    return _table([closed], owner, samples, like, course.times, kept)


def _round(values: FloatArray, names: IntArray) -> tuple[Found, IntArray]:
    """The loops of turning points that follow themselves, the widest last; and at which point the branch at each point began."""
    top = int(values.argmax())
    order = np.concatenate([np.arange(top, values.size), np.arange(top), [top]])
    turned = turning_points(values[order])
    at = order[turned]
    loops, ends = np.empty((at.size // 2 + 1, 3), dtype=np.int64), np.empty((at.size // 2 + 1, 2))
    stack, open_names = np.empty(at.size), np.empty(at.size, dtype=np.int64)
    many, depth = _kernels.close_open(values[at], names[at], stack, open_names, loops, ends)
    if depth == 3:  # the outermost, from the highest point and back to it
        loops[many], ends[many] = (open_names[0], open_names[1], -1), stack[:2]
        many += 1
    began = np.empty(values.size, dtype=np.int64)
    began[order[:-1]] = names[at[np.searchsorted(turned, np.arange(values.size), side="right") - 1]]
    return Found(loops[:many], ends[:many], 1.0), began


def _owners(found: Sequence[Found], size: int) -> IntArray:
    """The loop that each point is a tip of, by their numbers; -1 of a point of none."""
    owner, first = np.full(size, -1), 0
    for one in found:
        rows = first + np.arange(len(one.points))
        owner[one.points[:, 0]] = rows
        owner[one.points[:, 1]] = rows
        first += len(one.points)
    return owner


def _table(
    found: Sequence[Found], owner: IntArray, samples: IntArray, like: Cycles, times: float, began: IntArray
) -> Cycles:
    """Loops as cycles, with where they hang."""
    points = np.concatenate([one.points for one in found])
    ends = np.concatenate([one.values for one in found])
    often = times * np.concatenate([np.full(len(one.points), one.times) for one in found])
    before = points[:, 2]
    hangs_on = np.where(before < 0, -1, owner[np.where(before < 0, 0, before)])
    lost = (hangs_on < 0) & (before >= 0)  # of a first point that is none where the block follows itself
    hangs_on[lost] = owner[began[before[lost]]]
    _within(hangs_on, ends)
    return Cycles(
        range=np.abs(ends[:, 0] - ends[:, 1]),
        mean=0.5 * ends[:, 0] + 0.5 * ends[:, 1],
        count=often,
        start=samples[points[:, 0]],
        end=samples[points[:, 1]],
        dimension=like.dimension,
        sample_rate=like.sample_rate,
        columns={
            LOOP: np.arange(len(points), dtype=np.float64),
            HANGS_ON: hangs_on.astype(np.float64),
            RISES: (ends[:, 0] > ends[:, 1]).astype(np.float64),
        },
    )


def _within(hangs_on: IntArray, ends: FloatArray) -> None:
    """Hang loops that start beyond the one they hang on, which has closed there, on what that one hangs on.

    So it is where an event came first with nothing before it, and only what follows told where its first loops close.
    """
    low, high, start = ends.min(axis=1), ends.max(axis=1), ends[:, 0]
    while True:
        on = np.maximum(hangs_on, 0)
        beyond = (hangs_on >= 0) & (hangs_on[on] >= 0) & ((start < low[on]) | (start > high[on]))
        if not beyond.any():
            return
        hangs_on[beyond] = hangs_on[on[beyond]]


# in the order given


class _Walk:
    """The events of a repeat laid end to end: what closes on the way, and where each turning point came from."""

    def __init__(self) -> None:
        self.found: list[Found] = []
        self.size = 0
        self.bases: list[int] = []
        self.events: list[int] = []
        self.samples: list[IntArray] = []

    def named(self, event: int, samples: IntArray) -> IntArray:
        """Numbers of new points of an event."""
        self.bases.append(self.size)
        self.events.append(event)
        self.samples.append(samples)
        self.size += samples.size
        return np.arange(self.bases[-1], self.size)


class _Open(NamedTuple):
    """Turning points that closed nothing yet: their values and numbers."""

    values: FloatArray
    names: IntArray


NOTHING = _Open(np.empty(0), np.empty(0, dtype=np.int64))


def _in_the_order_given(duty_cycle: DutyCycle, asked: Asked) -> list[Source]:
    """The whole repeat as one block that follows itself; a loop belongs to the event that has both its tips, else to none."""
    walk, events = _Walk(), duty_cycle.flat()
    found, left = _units(walk, duty_cycle.events, asked, NOTHING, [0], "")
    rest, began = _round(left.values, np.arange(left.values.size)) if left.values.size else (None, NOTHING.names)
    if rest is not None:
        points = np.where(rest.points >= 0, left.names[np.maximum(rest.points, 0)], -1)
        found.append(Found(points, rest.values, 1.0))
    place = np.arange(walk.size)
    place[left.names] = left.names[began]
    like = duty_cycle.sources(asked)[-1].cycles
    every = _table(found, _owners(found, walk.size), np.concatenate(walk.samples), like, 1.0, place)
    ends = np.concatenate([one.points[:, :2] for one in found])
    pass_of = np.searchsorted(np.array(walk.bases), ends, side="right") - 1
    event = np.where(pass_of[:, 0] == pass_of[:, 1], np.array(walk.events)[pass_of[:, 0]], len(events))
    sources = []
    for number, (one, times) in enumerate(events):
        rows = every.chosen(event == number)
        rate = None if one.load.measured is None else one.load.measured.counting_rate
        own = rows.counted(rows.count / times) if len(rows) else rows
        sources.append(Source(one.name, times, own.sampled(rate), one.load.measured, one.load.gated(str(asked))))
    between = every.chosen(event == len(events)).sampled(None)
    return [*sources, Source(BETWEEN, 1.0, between.nowhere())]


def _units(
    walk: _Walk, events: Sequence[Any], asked: Asked, left: _Open, number: list[int], within: str
) -> tuple[list[Found], _Open]:
    """Events one after the other, each its number of times; `number` counts those that hold no others."""
    found: list[Found] = []
    for event in events:
        first = number[0]

        def once(open_: _Open, event: Any = event, first: int = first) -> tuple[list[Found], _Open]:
            number[0] = first
            if event.load.parts:
                return _units(walk, event.load.parts, asked, open_, number, f"{within}{event.name}: ")
            number[0] += 1
            load = event.load if isinstance(asked, str) else asked.seen(event.load, within + event.name)
            return _steps(walk, first, _steps_of(load, str(asked), event.name), open_)

        more, left = _repeated(once, whole(event.name, event.occurrences), left)
        found += more
    return found, left


def _steps_of(load: Any, name: str, event: str) -> list[Course]:
    """What one occurrence goes through: its whole course where it has one in time, else turning points with how often."""
    course = _course_of(load, name) if load.measured is not None else None
    if course is not None:
        points = turning_points(course.values)
        return [Course(course.values[points], course.samples[points], 1.0)]
    return [
        Course(values, np.full(np.size(values), -1), float(whole(event, n))) for values, n in load.in_order(name).steps
    ]


def _steps(walk: _Walk, event: int, steps: Sequence[Course], left: _Open) -> tuple[list[Found], _Open]:
    found: list[Found] = []
    for step in steps:

        def once(open_: _Open, step: Course = step) -> tuple[list[Found], _Open]:
            return _laid(walk, event, step, open_)

        more, left = _repeated(once, int(step.times), left)
        found += more
    return found, left


def _laid(walk: _Walk, event: int, step: Course, left: _Open) -> tuple[list[Found], _Open]:
    values = np.concatenate([left.values, step.values])
    names = np.concatenate([left.names, walk.named(event, step.samples)])
    points = turning_points(values)
    values, names = values[points], names[points]
    loops, ends = np.empty((values.size // 2 + 1, 3), dtype=np.int64), np.empty((values.size // 2 + 1, 2))
    stack, open_names = np.empty(values.size), np.empty(values.size, dtype=np.int64)
    many, depth = _kernels.close_open(values, names, stack, open_names, loops, ends)
    return [Found(loops[:many], ends[:many], 1.0)], _Open(stack[:depth], open_names[:depth])


def _repeated(once: Any, times: int, left: _Open) -> tuple[list[Found], _Open]:
    """A unit so often; once it leaves the values that it found, what it closes is multiplied."""
    found: list[Found] = []
    for done in range(times):
        closed, after = once(left)
        same = np.array_equal(after.values, left.values)
        found += [Found(one.points, one.values, one.times * (times - done if same else 1)) for one in closed]
        left = after
        if same:
            break
    return found, left
