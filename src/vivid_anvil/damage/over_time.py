"""When the life is spent: the cycles that do most damage with their times, and the damage built up over a history.

Half of the damage of a cycle is booked at the turning point where it starts, half where it ends.
"""

from __future__ import annotations

from dataclasses import dataclass

import numpy as np

from vivid_anvil.damage.life_numbers import Life
from vivid_anvil.ground.checks import FloatArray, IntArray
from vivid_anvil.ground.errors import InputError, did_you_mean, listed
from vivid_anvil.histories import LoadHistory
from vivid_anvil.units import opened

MOST_MARKED = 10  # cycles of an event that are kept with its damage over time


@dataclass(frozen=True, slots=True)
class WorstCycle:
    """A cycle: its event, local stress range and mean, MPa, how often it happens in a repeat, its damage and share there.

    `start` and `end` are the times of its turning points in the event, s, the earlier first (a cycle of a repeated history
    may close over the joint); None where the event has no history.
    """

    event: str
    range: float
    mean: float
    per_repeat: float
    damage: float
    share: float
    start: float | None
    end: float | None


@opened()
def worst_cycles(result: Life, most: int = 10) -> tuple[WorstCycle, ...]:
    """The `most` cycles that do most damage in a repeat, the worst first; none where nothing does damage.

    Parameters
    ----------
    result : Life
        The result that is asked.
    most : int, default 10
        How many at most.

    Returns
    -------
    tuple[WorstCycle, ...]
        The cycles, the worst first.

    Raises
    ------
    InputError
        For an argument of another kind, unit or range; the message says which.

    Examples
    --------
    >>> worst, = worst_cycles(result.lives[0], 1)  # of the demo: run_study(read_study('larkfell.toml'))
    >>> round(worst.range, 2), round(worst.share, 3)
    (89.28, 0.554)
    """
    return _worst_of(result, np.argsort(-result.damage, kind="stable")[:most])


def _worst_of(result: Life, order: IntArray) -> tuple[WorstCycle, ...]:
    """Those of the cycles `order` that do damage."""
    total = result.damage_per_repeat
    if total == 0.0:
        return ()
    cycles, spectrum = result.spectrum.cycles, result.spectrum
    found = []
    for i in order[result.damage[order] > 0.0].tolist():
        source = spectrum.sources[int(spectrum.event[i])]
        rate = source.cycles.sample_rate
        times = [
            float(place[i]) / rate if rate and cycles.start[i] >= 0 else None for place in (cycles.start, cycles.end)
        ]
        damage = float(result.damage[i])
        found.append(
            WorstCycle(
                source.name,
                float(cycles.range[i]),
                float(cycles.mean[i]),
                float(spectrum.per_repeat[i]),
                damage,
                damage / total,
                *sorted(times, key=lambda time: -1.0 if time is None else time),
            )
        )
    return tuple(found)


@dataclass(frozen=True, eq=False)
class DamageOverTime:
    """Damage that one event has done up to each time, in all its occurrences of a repeat.

    `time`, s, rises; `damage` ends at the damage of the event per repeat. Both have shape (k,). `history` is that of the event,
    where it has one, `worst` its cycles that do most damage, the worst first, of the `dimension`.
    """

    event: str
    time: FloatArray
    damage: FloatArray
    history: LoadHistory | None = None
    worst: tuple[WorstCycle, ...] = ()
    dimension: str = "stress"

    def share_until(self, time: float) -> float:
        """Share of the event's damage that is done up to `time`, s."""
        end = float(self.damage[-1]) if self.damage.size else 0.0
        if end == 0.0:
            return 0.0
        place = int(np.searchsorted(self.time, time, side="right"))
        return float(self.damage[place - 1]) / end if place else 0.0


@opened()
def damage_over_time(result: Life, event: str) -> DamageOverTime:
    """The damage built up over the history of `event`.

    Parameters
    ----------
    result : Life
        The result that is asked.
    event : str
        Name of the event.

    Returns
    -------
    DamageOverTime
        Times, s, and the damage by then, -.

    Raises
    ------
    InputError
        For an unknown event, and for one without times.

    Examples
    --------
    >>> course = damage_over_time(result.lives[0], "loaded lap")  # of the demo: run_study(read_study('larkfell.toml'))
    >>> float(course.time[-1]), float(course.damage[-1])
    (479.99, 0.002970692739238265)
    """
    names = [source.name for source in result.spectrum.sources]
    if event not in names:
        raise InputError("event", repr(event), f"one of {listed(names)}", did_you_mean(event, names))
    number = names.index(event)
    source, cycles = result.spectrum.sources[number], result.spectrum.cycles
    of = np.flatnonzero((result.spectrum.event == number) & (cycles.start >= 0))
    if source.cycles.sample_rate is None or not of.size:
        raise InputError(f"event {event}", "no times of its cycles", "an event with a history")
    places = np.concatenate([cycles.start[of], cycles.end[of]])
    halves = 0.5 * np.concatenate([result.damage[of], result.damage[of]])
    order = np.argsort(places, kind="stable")
    worst = of[np.argsort(-result.damage[of], kind="stable")[:MOST_MARKED]]
    times = places[order] / source.cycles.sample_rate
    return DamageOverTime(
        event, times, np.cumsum(halves[order]), source.history, _worst_of(result, worst), result.dimension
    )


@dataclass(frozen=True, slots=True)
class FailureMoment:
    """When the critical sum is reached, if damage rises evenly within each event: whole repeats before, the event, hours.

    `hours` from the start, None where an event knows no time; `at_ends` is the damage at each event's end in the first repeat.
    """

    whole_repeats: int
    event: str
    hours: float | None
    at_ends: tuple[float, ...]


@opened()
def failure_moment(result: Life) -> FailureMoment:
    """In which repeat and which event the critical sum is reached, events in the order of the duty cycle.

    Parameters
    ----------
    result : Life
        The result that is asked.

    Returns
    -------
    FailureMoment
        The repeat, the event, the time.

    Raises
    ------
    InputError
        Where nothing does damage.

    Examples
    --------
    >>> moment = failure_moment(result.lives[0])  # of the demo: run_study(read_study('larkfell.toml'))
    >>> moment.whole_repeats, moment.event
    (334, 'loaded lap')
    """
    total = result.damage_per_repeat
    if total == 0.0:
        raise InputError(f"life of {result.hot_spot.name}", "no damage", "a life that ends")
    flat, names = result.duty_cycle.flat(), [source.name for source in result.spectrum.sources]
    done = np.bincount(result.spectrum.event, weights=result.damage, minlength=len(names))
    ends = np.cumsum(done)
    whole = min(int(result.critical_sum / total), 2**62)
    left = max(result.critical_sum - whole * total, 0.0)
    number = min(int(np.searchsorted(ends, left)), len(names) - 1)
    lasts = [event.lasts for event, _ in flat]
    hours = None
    if result.duty_cycle.hours is not None and number < len(flat) and None not in lasts:
        times = np.array([float(last or 0.0) * many for last, (_, many) in zip(lasts, flat, strict=True)]) / 3600.0
        part = (left - (ends[number - 1] if number else 0.0)) / done[number] if done[number] else 0.0
        hours = float(whole * times.sum() + times[:number].sum() + part * times[number])
    return FailureMoment(whole, names[number], hours, tuple(ends.tolist()))
