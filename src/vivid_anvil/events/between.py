"""What happens between events: cycles that no event has by itself.

In: the events of a duty cycle. Out: `Source`s of cycles, among them one "between the events".

- "in the order given": the repeat is one long history. Each load gives its closed cycles and its residue; residues are
  laid end to end and counted, and a load that comes again and again closes the same cycles each time after the first few,
  so that no number of occurrences costs more than those.
- "worst case": the order is unknown, and so the highest maximum meets the lowest minimum, as often as the rarer of the two
  happens; both lose that many, and so on. Every cycle that a load is specified by gives one maximum and one minimum; of a
  measured history, whose own order is known, each occurrence gives one of both.
"""

from __future__ import annotations

import math
from collections.abc import Callable, Sequence
from dataclasses import dataclass
from typing import Any

import numpy as np

from vivid_anvil.counting.counter import RainflowCounter
from vivid_anvil.counting.cycles import Cycles, joined
from vivid_anvil.counting.gate import Gated
from vivid_anvil.ground.checks import FloatArray, real_number
from vivid_anvil.ground.errors import InputError, inside
from vivid_anvil.histories.load_history import LoadHistory
from vivid_anvil.units import opened

BETWEEN_EVENTS = {
    "each by itself": "no cycle spans two events",
    "in the order given": "the events follow one another as listed, each its whole number of times",
    "worst case": "the order is unknown: the highest maximum meets the lowest minimum, and so on",
}
BETWEEN = "between the events"


@dataclass(frozen=True, eq=False)
class Source:
    """Cycles of one event, in the unit of the load: `cycles` of one occurrence, and `occurrences` per repeat.

    `history` is the measured one they come from, or None; `gated` is what a gate left and took out, or None.
    """

    name: str
    occurrences: float
    cycles: Cycles
    history: LoadHistory | None = None
    gated: Gated | None = None


Closed = list[tuple[Cycles, float]]
Unit = Callable[[FloatArray], tuple[Closed, FloatArray]]


def in_order(events: Sequence[Any], channel: Any, residue: str, dimension: str) -> Cycles:
    """The cycles between events that follow one another as listed, in one repeat.

    The repeat itself follows itself for ever (residue "repeated"), or its residue counts as half cycles.
    """
    closed, left = _pass(events, channel)(np.empty(0))
    rows: list[tuple[np.ndarray, ...]] = [(one.range, one.mean, one.count * times) for one, times in closed if len(one)]
    counter = RainflowCounter()
    if left.size:
        counter.feed(left)
    ending = counter.finish(residue)
    rows.append((ending.range, ending.mean, ending.count))
    ranges, means, counts = (np.concatenate(column) for column in zip(*rows, strict=True))
    return Cycles(range=ranges, mean=means, count=counts, dimension=dimension)


def worst_case(
    sources: Sequence[Source], extremes: Sequence[tuple[float, float]], dimension: str
) -> tuple[Source, ...]:
    """The sources with the cycles that each keeps to itself, and the pairs across events that an unknown order can make.

    A load that is specified by its cycles gives every one of them a maximum and a minimum; a history, whose own order is
    known, one of each an occurrence.
    """
    ends: list[tuple[float, float, float]] = []
    many: list[int] = []
    owner: list[tuple[int, int]] = []  # of each end: its source, and its row there (a history has one, its largest)
    for number, (source, (low, high)) in enumerate(zip(sources, extremes, strict=True)):
        rows = _ends_of(source, low, high)
        ends += rows
        many.append(len(rows))
        owner += [(number, row) for row in range(len(rows))]
    own: dict[tuple[int, int], float] = {}
    across = []
    for high, low, count, one, other in worst_case_pairs(ends):
        if one == other:
            own[owner[one]] = count
        else:
            across.append((abs(high - low), 0.5 * (high + low), count))
    kept = []
    for number, source in enumerate(sources):
        counts = np.array([own.get((number, row), 0.0) for row in range(many[number])])
        cycles = _kept_to_itself(source, extremes[number], counts / source.occurrences)
        kept.append(Source(source.name, source.occurrences, cycles, source.history, source.gated))
    ranges, means, counts = np.array(across, dtype=np.float64).reshape(-1, 3).T
    pairs = Cycles(range=ranges, mean=means, count=counts, dimension=dimension)
    return (*kept, Source(BETWEEN, 1.0, pairs))


def _ends_of(source: Source, low: float, high: float) -> list[tuple[float, float, float]]:
    """Maximum, minimum and how often per repeat, of every cycle that is free to pair."""
    if source.history is not None:
        return [(high, low, source.occurrences)]
    table = source.cycles
    counts = table.count * source.occurrences
    return list(zip(table.maximum.tolist(), table.minimum.tolist(), counts.tolist(), strict=True))


def _kept_to_itself(source: Source, extremes: tuple[float, float], counts: FloatArray) -> Cycles:
    """The cycles of one occurrence that are not paired with those of another event; `counts` of those that were free to."""
    table = source.cycles
    if source.history is None:
        return table.alone().counted(counts)
    smaller = without_largest(table)
    if not len(table) or counts[0] == 0.0:
        return smaller
    low, high = extremes
    at = int(np.argmax(table.range))
    largest = Cycles(
        range=np.array([high - low]),
        mean=np.array([0.5 * (high + low)]),
        count=counts[:1],
        start=table.start[at : at + 1],
        end=table.end[at : at + 1],
        dimension=table.dimension,
        sample_rate=table.sample_rate,
    )
    return joined([smaller, largest])


def without_largest(cycles: Cycles) -> Cycles:
    """The cycles less the largest; where that is a half cycle, less the largest other half too, which closes it."""
    if not len(cycles):
        return cycles
    count, left = cycles.count.copy(), 1.0
    largest, parts = int(np.argmax(cycles.range)), np.flatnonzero(cycles.count < 1.0)
    others = parts[np.argsort(-cycles.range[parts], kind="stable")]
    for i in (largest, *others[others != largest]):
        taken = min(count[i], left)
        count[i] -= taken
        left -= taken
        if left <= 0.0:
            break
    return cycles.counted(count)


@opened()
def worst_case_pairs(events: Sequence[tuple[float, float, float]]) -> list[tuple[float, float, float, int, int]]:
    """Pairs (maximum, minimum, count, event of the maximum, event of the minimum) of events (maximum, minimum, occurrences).

    Highest maximum with lowest minimum, as often as the rarer happens; both lose that many; again, until none is left. Where
    one event lies wholly above another, the last pairs may have a minimum above the maximum: a swing all the same.

    >>> worst_case_pairs([(250.0, 0.0, 1000), (180.0, -60.0, 400)])
    [(250.0, -60.0, 400, 0, 1), (250.0, 0.0, 600, 0, 0), (180.0, 0.0, 400, 1, 0)]
    """
    for row, event in enumerate(events, start=1):
        _check_event(f"worst case pairs, event {row}", event)
    highs = sorted(range(len(events)), key=lambda i: -events[i][0])
    lows = sorted(range(len(events)), key=lambda i: events[i][1])
    left_high, left_low = [event[2] for event in events], [event[2] for event in events]
    rows = []
    top = bottom = 0
    while top < len(highs) and bottom < len(lows):
        high, low = highs[top], lows[bottom]
        count = min(left_high[high], left_low[low])
        rows.append((events[high][0], events[low][1], count, high, low))
        left_high[high] -= count
        left_low[low] -= count
        if left_high[high] <= 0:
            top += 1
        if left_low[low] <= 0:
            bottom += 1
    return rows


def _check_event(where: str, event: Any) -> None:
    """InputError unless it is a maximum, a minimum that is not above it, and occurrences of 0 or more."""
    if not isinstance(event, Sequence) or isinstance(event, str) or len(event) != 3:
        raise InputError(where, repr(event), "maximum, minimum and occurrences")
    high, low, often = (real_number(where, one) for one in event)
    if not (-math.inf < low <= high < math.inf and 0.0 <= often < math.inf):
        raise InputError(
            where,
            f"maximum {high:g}, minimum {low:g}, occurrences {often:g}",
            "a maximum at or above the minimum, occurrences of 0 or more",
        )


def _pass(events: Sequence[Any], channel: Any, within: str = "") -> Unit:
    """One repeat as a unit: what closes between its events when it follows the open turning points given.

    `within` is the name of the event whose duty cycle these are, as it stands before theirs.
    """
    units: list[tuple[Unit, int]] = []
    for event in events:
        times = whole(event.name, event.occurrences)
        if event.load.parts:
            units.append((_pass(event.load.parts, channel, f"{within}{event.name}: "), times))
        else:
            load = event.load if isinstance(channel, str) else channel.seen(event.load, within + event.name)
            steps = load.in_order(str(channel)).steps
            units.append((_steps([(values, whole(event.name, n)) for values, n in steps]), times))
    return _in_turn(units)


def _steps(steps: list[tuple[FloatArray, int]]) -> Unit:
    return _in_turn([(_lay(values), times) for values, times in steps])


def _lay(values: FloatArray) -> Unit:
    def unit(left: FloatArray) -> tuple[Closed, FloatArray]:
        counter = RainflowCounter()
        closed = counter.feed(np.concatenate([left, values]))
        return [(closed, 1.0)], counter.residue().values

    return unit


def _in_turn(units: list[tuple[Unit, int]]) -> Unit:
    """Units one after the other, each its number of times; once a unit leaves what it found, the rest is multiplied."""

    def unit(left: FloatArray) -> tuple[Closed, FloatArray]:
        all_closed: Closed = []
        for one, times in units:
            for done in range(times):
                closed, after = one(left)
                if np.array_equal(after, left):
                    all_closed += [(cycles, n * (times - done)) for cycles, n in closed]
                    break
                all_closed += closed
                left = after
        return all_closed, left

    return unit


def whole(name: str, times: Any) -> int:
    """The occurrences as a whole number; InputError where they are none."""
    if times != round(times):
        raise InputError(
            inside(f"event {name}", "occurrences"),
            f"{times:g}",
            "a whole number, as the events follow in the order given",
            'Choose a longer repeat, or between = "each by itself".',
        )
    return int(times)
