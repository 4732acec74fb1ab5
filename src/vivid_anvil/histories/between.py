"""What happens between events: cycles that no event has by itself.

In: the events of a duty cycle. Out: `Source`s of cycles, among them one "between the events".

- "in the order given": the repeat is one long history. Each load gives its closed cycles and its residue; residues are
  laid end to end and counted, and a load that comes again and again closes the same cycles each time after the first few,
  so that no number of occurrences costs more than those.
- "worst case": the order is unknown, and so the highest maximum meets the lowest minimum, as often as the rarer of the two
  happens; both lose that many, and so on. Each occurrence gives one maximum and one minimum.
"""

from __future__ import annotations

import dataclasses
from collections.abc import Callable, Sequence
from dataclasses import dataclass
from typing import TYPE_CHECKING, Any, NamedTuple

import numpy as np

from vivid_anvil.checks import FloatArray
from vivid_anvil.errors import InputError
from vivid_anvil.histories.counter import RainflowCounter
from vivid_anvil.histories.cycles import Cycles

if TYPE_CHECKING:
    from vivid_anvil.histories.events import DutyCycle
    from vivid_anvil.histories.gate import Gated
    from vivid_anvil.histories.load_history import LoadHistory

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


class LoadSequence(NamedTuple):
    """A load in its order: cycles that are closed already, and steps of turning points with how often each comes."""

    closed: Cycles
    steps: tuple[tuple[FloatArray, float], ...]


Closed = list[tuple[Cycles, float]]
Unit = Callable[[FloatArray], tuple[Closed, FloatArray]]


def in_order(duty_cycle: DutyCycle, channel: str, residue: str) -> Cycles:
    """The cycles between events that follow one another as listed, in one repeat.

    The repeat itself follows itself for ever (residue "repeated"), or its residue counts as half cycles.
    """
    closed, left = _pass(duty_cycle, channel)(np.empty(0))
    rows: list[tuple[np.ndarray, ...]] = [(one.range, one.mean, one.count * times) for one, times in closed if len(one)]
    counter = RainflowCounter()
    if left.size:
        counter.feed(left)
    ending = counter.finish(residue)
    rows.append((ending.range, ending.mean, ending.count))
    ranges, means, counts = (np.concatenate(column) for column in zip(*rows, strict=True))
    return Cycles(range=ranges, mean=means, count=counts, dimension=duty_cycle.dimension_of_channel(channel))


def worst_case(
    sources: Sequence[Source], extremes: Sequence[tuple[float, float]], dimension: str
) -> tuple[Source, ...]:
    """The sources without the largest cycle of each, and the pairs that these largest cycles can make in unknown order."""
    smaller = []
    for source in sources:
        cycles = without_largest(source.cycles)
        smaller.append(Source(source.name, source.occurrences, cycles, source.history, source.gated))
    rows = worst_case_pairs(
        [(high, low, source.occurrences) for source, (low, high) in zip(sources, extremes, strict=True)]
    )
    high, low, count = np.array([row[:3] for row in rows], dtype=np.float64).reshape(-1, 3).T
    pairs = Cycles(range=np.abs(high - low), mean=0.5 * (high + low), count=count, dimension=dimension)
    return (*smaller, Source(BETWEEN, 1.0, pairs))


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
    return dataclasses.replace(cycles, count=count).chosen(count > 0.0)


def worst_case_pairs(events: Sequence[tuple[float, float, float]]) -> list[tuple[float, float, float, int, int]]:
    """Pairs (maximum, minimum, count, event of the maximum, event of the minimum) of events (maximum, minimum, occurrences).

    Highest maximum with lowest minimum, as often as the rarer happens; both lose that many; again, until none is left. Where
    one event lies wholly above another, the last pairs may have a minimum above the maximum: a swing all the same.

    >>> worst_case_pairs([(250.0, 0.0, 1000), (180.0, -60.0, 400)])
    [(250.0, -60.0, 400, 0, 1), (250.0, 0.0, 600, 0, 0), (180.0, 0.0, 400, 1, 0)]
    """
    highs = sorted(range(len(events)), key=lambda i: -events[i][0])
    lows = sorted(range(len(events)), key=lambda i: events[i][1])
    left_high, left_low = [event[2] for event in events], [event[2] for event in events]
    rows = []
    while highs and lows:
        high, low = highs[0], lows[0]
        count = min(left_high[high], left_low[low])
        rows.append((events[high][0], events[low][1], count, high, low))
        left_high[high] -= count
        left_low[low] -= count
        if left_high[high] <= 0:
            highs.pop(0)
        if left_low[low] <= 0:
            lows.pop(0)
    return rows


def _pass(duty_cycle: DutyCycle, channel: str) -> Unit:
    """One repeat as a unit: what closes between its events when it follows the open turning points given."""
    units: list[tuple[Unit, int]] = []
    for event in duty_cycle.events:
        times = whole(event.name, event.occurrences)
        if hasattr(event.load, "events"):
            units.append((_pass(event.load, channel), times))  # type: ignore[arg-type]
        else:
            steps = event.load.sequence(channel).steps
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
            f"event {name}, occurrences",
            f"{times:g}",
            "a whole number, as the events follow in the order given",
            'Choose a longer repeat, or between = "each by itself".',
        )
    return int(times)
