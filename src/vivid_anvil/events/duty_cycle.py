"""What the part goes through: events, how often each happens in one repeat, and repeats per year.

In: loads (histories, constant amplitudes, block programmes, spectra, duty cycles of their own). Out: cycles of each
event, counted once per channel, and of what happens between events.
"""

from __future__ import annotations

import dataclasses
import re
from collections.abc import Mapping
from dataclasses import dataclass, field
from typing import Any, ClassVar, NamedTuple

from vivid_anvil.counting.counter import RESIDUES
from vivid_anvil.counting.cycles import Cycles, of_a_repeat
from vivid_anvil.counting.methods import COUNTING_METHODS
from vivid_anvil.events.between import BETWEEN, BETWEEN_EVENTS, Source, in_order, whole, worst_case
from vivid_anvil.events.calendar import Calendar, amount, plural
from vivid_anvil.events.event import Asked, Event, dimension_in, seconds_of, seen_load
from vivid_anvil.events.random_stress import FORMULA
from vivid_anvil.events.seen import Seen
from vivid_anvil.ground import checks
from vivid_anvil.ground.errors import InputError, did_you_mean, field_of, listed
from vivid_anvil.histories.load import Give, Load
from vivid_anvil.spectra.methods import EXPECTED_CYCLES
from vivid_anvil.units import DIMENSIONS, number, sound, split
from vivid_anvil.writing.html import html_frame

HOUR = 3600.0
CHOICES = (
    "between",
    "residue",
    "counting",
    "expected_cycles",
    "expected_slope",
)  # of a duty cycle, for all that it holds
_GROUPED = re.compile(r"(?<=\d)[ _](?=\d{3}(?!\d))")  # "50 000", "50_000"


class SimpleEvent(NamedTuple):
    """An event without a duty cycle of its own: its full name, and its load."""

    name: str
    load: Load
    lasts: float | None

    def extremes(self, channel: Asked) -> tuple[float, float]:
        """Lowest and highest load of the channel, in its coherent unit."""
        low, high = self.seen(channel).extremes(str(channel))
        return low, high

    def seen(self, channel: Asked) -> Any:
        """The load; that of several channels that act together has the one channel of their stress."""
        return seen_load(self.name, self.load, channel)


def _source(event: SimpleEvent, times: float, channel: str, load: Load, cycles: Cycles) -> Source:
    """Cycles of an event, with the history they were measured in and what a gate took out."""
    return Source(event.name, times, cycles, load.measured, load.gated(channel))


def _named(events: tuple[Event, ...]) -> dict[str, str]:
    """Every load that the states of any event name, with its dimension."""
    return {name: dimension for event in events for name, dimension in event.load.named.items()}


def _with_zeros(events: tuple[Event, ...], dimensions: dict[str, str]) -> tuple[Event, ...]:
    """The events, where loads that some states do not name are 0 in them."""
    loads = [event.load.with_zeros(dimensions) for event in events]
    return tuple(
        event if load is event.load else dataclasses.replace(event, load=load)
        for event, load in zip(events, loads, strict=True)
    )


def _flat(events: tuple[Event, ...]) -> list[tuple[SimpleEvent, float]]:
    found: list[tuple[SimpleEvent, float]] = []
    for event in events:
        if not event.load.parts:
            found.append((SimpleEvent(event.name, event.load, event.lasts), float(event.occurrences)))
        for one, times in _flat(event.load.parts):
            inner = SimpleEvent(f"{event.name}: {one.name}", one.load, one.lasts)
            found.append((inner, times * event.occurrences))
    return found


@sound
@dataclass(frozen=True, eq=False, repr=False)
class DutyCycle(Load):
    """One repeat of the use: events with occurrences. The user names the repeat ("lap", "flight", "month").

    `residue` says how the residue of an event counts (see `RESIDUES`); as events come again and again, the default closes it.
    `between` says what happens between events (see `BETWEEN_EVENTS`). `counting` is how histories are counted, by a name of
    `COUNTING_METHODS`; other than rainflow only with events each by itself. `expected_cycles` is the formula for the cycles of
    random events, by a name of `EXPECTED_CYCLES`; one that holds for a single slope asks for the `expected_slope` m of the curve.

    Parameters
    ----------
    repeat : str
        What one pass of the events is called, such as "month".
    events : tuple of Event
        What happens in one repeat, in its order.
    repeats_per_year : float, optional
        How many repeats a year has; None without a calendar.
    residue : str, default "repeated"
        What becomes of half cycles that are left: one of `RESIDUES`.
    between : str, default "each by itself"
        What happens between events: one of `BETWEEN_EVENTS`.
    counting : str, default "rainflow"
        How histories are counted: one of `COUNTING_METHODS`.
    expected_cycles : str, default "dirlik"
        What the cycles of random events are expected by: one of `EXPECTED_CYCLES`.
    expected_slope : float, optional
        Slope m of the S-N curve, for formulas that hold for one slope only.
    repeat_duration : float or str, optional
        How long one repeat takes, s or text; for loads that do not know their own.

    Raises
    ------
    InputError
        For an argument of another kind, unit or range; the message says which.

    Examples
    --------
    >>> from vivid_anvil.events.equal_cycles import ConstantAmplitude
    >>> test = ConstantAmplitude.from_range("force", "2 kN", r_ratio=0.0, cycles=60, frequency="1 Hz")
    >>> shift = DutyCycle("shift", [Event("press stroke", test, 480)], repeats_per_year=600)
    >>> shift
    <DutyCycle: 1 event per shift, 8 h, 600 shifts per year>
    >>> DutyCycle("week", [Event("a shift", shift, 12)], repeats_per_year=50).hours
    96.0

    Without `repeats_per_year` lives are told in repeats; `repeat_duration`, s or text, is for events that know no time.

    >>> DutyCycle("block", [Event("press stroke", test, 480)])
    <DutyCycle: 1 event per block, 8 h>
    """

    repeat: str
    events: tuple[Event, ...]
    repeats_per_year: float | None = None
    residue: str = "repeated"
    between: str = "each by itself"
    counting: str = "rainflow"
    expected_cycles: str = FORMULA
    expected_slope: float | None = None
    repeat_duration: float | str | None = None
    gives: ClassVar[frozenset[Give]] = frozenset({"cycles"})
    _counted: dict[Asked, tuple[Source, ...]] = field(default_factory=dict, init=False, repr=False)
    _joined: dict[Asked, Cycles] = field(default_factory=dict, init=False, repr=False)

    def __post_init__(self) -> None:
        checks.text(field_of("DutyCycle", "repeat"), self.repeat)
        object.__setattr__(self, "events", _with_zeros(tuple(self.events), _named(tuple(self.events))))
        if not self.events:
            raise InputError(field_of("DutyCycle", "events"), "no event", "at least one event with its occurrences")
        names = [event.name for event in self.events]
        for name in names:
            if names.count(name) > 1:
                raise InputError(f"DutyCycle.events, {name}", "the same name twice", "a different name for each event")
        if self.repeats_per_year is not None:
            checks.positive_number(field_of("DutyCycle", "repeats_per_year"), self.repeats_per_year)
        checks.one_of(field_of("DutyCycle", "residue"), self.residue, tuple(RESIDUES))
        checks.one_of(field_of("DutyCycle", "between"), self.between, tuple(BETWEEN_EVENTS))
        COUNTING_METHODS.get(self.counting, field_of("DutyCycle", "counting"))
        self._check_formula()
        if self.counting != "rainflow" and self.between != "each by itself":
            raise InputError(
                field_of("DutyCycle", "counting"),
                f"{self.counting!r} with events {self.between}",
                "rainflow",
                "What happens between events is counted by rainflow only.",
            )
        known = self._of_events()
        if self.repeat_duration is not None and known is not None:
            raise InputError(
                field_of("DutyCycle", "repeat_duration"),
                f"{self.repeat_duration} beside events that take {number(known)} s",
                "one of both",
                "Leave it out, or leave out the durations, rates and frequencies of the events.",
            )
        stated = seconds_of(field_of("DutyCycle", "repeat_duration"), self.repeat_duration)
        object.__setattr__(self, "repeat_duration", stated)
        for event in self.events:
            if self.between == "in the order given":
                whole(event.name, event.occurrences)
            if event.load.parts:  # a duty cycle, with a choice of its own, which must be that of the outer one
                load: Any = event.load
                inner, outer = load.choices, self.choices
                if inner != outer:
                    raise InputError(
                        f"event {event.name}, its duty cycle",
                        ", ".join(f"{key} = {value!r}" for key, value in inner.items()),
                        f"{', '.join(repr(value) for value in outer.values())}, as the outer duty cycle has them",
                        "What happens between events is one choice for all: make the inner one with .counted(...).",
                    )

    def _rows(self) -> list[dict[str, Any]]:
        rows = []
        for event, times in self.flat():
            row: dict[str, Any] = {"event": event.name, f"times a {self.repeat}": times, "duration [s]": event.lasts}
            for name, dimension in event.load.dimensions.items():
                low, high = event.load.extremes(name)
                unit = DIMENSIONS[dimension].coherent
                row |= {f"{name}, lowest [{unit}]": low, f"{name}, highest [{unit}]": high}
            rows.append(row)
        return rows

    def to_frame(self) -> Any:
        """A row an event: how often in a repeat, its duration, lowest and highest load of each channel; units in the headings."""
        import pandas as pd

        return pd.DataFrame(self._rows())

    def _repr_html_(self) -> str:
        return html_frame(repr(self).strip("<>"), self.to_frame())

    @property
    def choices(self) -> dict[str, Any]:
        """How its cycles come about: one choice for all that it holds."""
        return {key: getattr(self, key) for key in CHOICES}

    def _check_formula(self) -> None:
        """InputError for an unknown formula, and for a slope that is missing or not asked for."""
        formula = EXPECTED_CYCLES.get(self.expected_cycles, field_of("DutyCycle", "expected_cycles"))
        where = field_of("DutyCycle", "expected_slope")
        if formula.one_slope and self.expected_slope is None:
            raise InputError(where, "no slope", f"the slope m of the S-N curve, for {self.expected_cycles!r}")
        if self.expected_slope is not None:
            checks.positive_number(where, self.expected_slope)
            if not formula.one_slope:
                raise InputError(where, f"{self.expected_slope:g} with {self.expected_cycles!r}", "no slope")

    def counted(self, **choices: Any) -> DutyCycle:
        """The same duty cycle, with its inner ones, under other `choices`, such as between="worst case"."""
        for key in choices:
            checks.one_of("duty cycle, a choice", key, CHOICES)
        events = tuple(
            dataclasses.replace(event, load=event.load.counted(**{**self.choices, **choices}))  # type: ignore[attr-defined]
            if event.load.parts
            else event
            for event in self.events
        )
        return dataclasses.replace(self, events=events, **choices)

    def sources(self, channel: Asked) -> tuple[Source, ...]:
        """Where cycles come from: each event, and what happens between events; counted once per channel.

        Raises InputError for a channel that an event lacks, and for "in the order given" where an event has no order or
        does not happen a whole number of times.
        """
        if channel not in self._counted:
            dimension, name = self.dimension_of_channel(channel), str(channel)
            loads = [(event, times, event.seen(channel)) for event, times in self.flat()]
            if self.between == "in the order given":
                own = tuple(
                    _source(event, times, name, load, load.in_order(name).closed) for event, times, load in loads
                )
                sources = (*own, Source(BETWEEN, 1.0, in_order(self.events, channel, self.residue, dimension)))
            else:
                sources = tuple(
                    _source(event, times, name, load, self._cycles(load, name)) for event, times, load in loads
                )
                if self.between == "worst case":
                    sources = worst_case(sources, [event.extremes(channel) for event, _ in self.flat()], dimension)
            self._counted[channel] = sources
        return self._counted[channel]

    def _cycles(self, load: Load, name: str) -> Cycles:
        """Cycles of one occurrence of a load, a history by the counting method."""
        history = load.measured
        if "cross-spectra" in load.gives:
            own: Any = load
            expected: Cycles = own.cycles_of(name, method=self.expected_cycles, slope=self.expected_slope)
            return expected
        if self.counting == "rainflow" or history is None:
            return load.cycles_of(name, residue=self.residue)
        if load.gated(name) is not None:
            raise InputError(f"DutyCycle.counting, {name}", f"{self.counting!r} with a gate", "rainflow, or no gate")
        one, rate = history[name], history.counting_rate
        counting = COUNTING_METHODS[self.counting]
        return counting.cycles(one.values, dimension=one.dimension, sample_rate=rate, residue=self.residue)

    @property
    def parts(self) -> tuple[Event, ...]:
        """Its events."""
        return self.events

    @property
    def named(self) -> dict[str, str]:
        """Loads that states of its events name."""
        return _named(self.events)

    def with_zeros(self, dimensions: Mapping[str, str]) -> DutyCycle:
        """With loads of 0 in the states of its events."""
        events = _with_zeros(self.events, dict(dimensions))
        same = all(one is other for one, other in zip(events, self.events, strict=True))
        return self if same else dataclasses.replace(self, events=events)

    def cycles_of(self, channel: Asked, *, residue: str | None = None) -> Cycles:
        """The load cycles of all sources of a repeat in one table, put together once per channel; its own residue unless told."""
        if residue not in (None, self.residue):
            return self.counted(residue=residue).cycles_of(channel)
        if channel not in self._joined:
            self._joined[channel] = of_a_repeat(self.sources(channel), self.extremes(channel))
        return self._joined[channel]

    def flat(self) -> list[tuple[SimpleEvent, float]]:
        """The events that hold no duty cycle of their own, those of inner ones too, with occurrences per repeat."""
        return _flat(self.events)

    @property
    def dimensions(self) -> dict[str, str]:
        """Channels that every event has, with their dimensions."""
        first, *others = [event.load.dimensions for event in self.events]
        return {name: one for name, one in first.items() if all(other.get(name) == one for other in others)}

    @property
    def duration(self) -> float | None:
        """Time that one repeat takes, s, as stated or of its events; None where one doesn't know its own."""
        return self._of_events() if self.repeat_duration is None else float(self.repeat_duration)

    def _of_events(self) -> float | None:
        durations = [event.lasts for event in self.events]
        if any(duration is None for duration in durations):
            return None
        return sum(
            event.occurrences * duration for event, duration in zip(self.events, durations, strict=True) if duration
        )

    @property
    def calendar(self) -> Calendar:
        """What a repeat is called, and how many a year has."""
        return Calendar(self.repeat, self.repeats_per_year)

    @property
    def hours(self) -> float | None:
        """Duration of one repeat, h; None where an event knows no time."""
        return None if self.duration is None else self.duration / HOUR

    def extremes(self, channel: Asked) -> tuple[float, float]:
        """Lowest and highest load of all events."""
        lows, highs = zip(*(event.extremes(channel) for event in self.events), strict=True)
        return min(lows), max(highs)

    def dimension_of_channel(self, channel: Asked) -> str:
        """The dimension that `channel` has in every event; InputError where events differ or lack it."""
        if isinstance(channel, Seen):
            for name in () if channel.any_of_channels else channel.channels:
                self.dimension_of_channel(name)
            return channel.dimension
        found = {event.name: dimension_in(event.name, event.load, channel) for event, _ in self.flat()}
        bare = [name for name, one in found.items() if one == "number"]
        if bare and len(bare) < len(found):
            other = next(name for name, one in found.items() if one != "number")
            raise InputError(
                f"event {bare[0]}, channel {channel}",
                "a load without a unit",
                f"one of {found[other]}, as {other} has it",
                "Write it with its unit; only a load factor has none.",
            )
        if len(set(found.values())) > 1:
            raise InputError(f"channel {channel}", f"different dimensions: {found}", "the same in every event")
        return next(iter(found.values()))

    def repeats_in(self, value: Any, where: str = "target life") -> float:
        """The repeats in "30 years", "20000 h" or "1.2e6 laps"; a plain number is repeats already, without a calendar text too.

        >>> from vivid_anvil.events.equal_cycles import ConstantAmplitude
        >>> test = ConstantAmplitude.from_range("force", "2 kN", cycles=60, frequency="1 Hz")
        >>> DutyCycle("shift", [Event("stroke", test, 480)], repeats_per_year=600).repeats_in("2 years")
        1200.0
        """
        repeats = plural(self.repeat)
        if not isinstance(value, str):
            return checks.positive_number(where, value, f"a number of {repeats} above 0")
        words = {"repeat": (self.repeat, repeats), "year": ("year", "years"), "hour": ("h", "hour", "hours")}
        known = [word for kind in words.values() for word in kind]
        size, unit = split(_GROUPED.sub("", value), where, f"50 000 {repeats}", "number")
        positive = checks.positive_number(where, size, "a life above 0")
        if not unit and self.repeats_per_year is not None:
            raise InputError(
                where,
                f"{value} without a unit",
                f"a life in one of {listed(known)}",
                f"Write '{value} years' or '{value} {repeats}'.",
            )
        if unit in ("", *words["repeat"]):
            return positive
        if unit in words["year"]:
            if self.repeats_per_year is None:
                raise InputError(
                    where,
                    repr(value),
                    f"a life in {repeats}" + ("" if self.hours is None else " or hours"),
                    f"Years need repeats_per_year: how many {repeats} a year has.",
                )
            return positive * self.repeats_per_year
        if unit in words["hour"]:
            if self.hours is None:
                raise InputError(
                    where,
                    repr(value),
                    "a life in years or repeats",
                    "Hours need the duration of a repeat, or of each event.",
                )
            return positive / self.hours
        raise InputError(where, repr(value), f"a life in one of {listed(known)}", did_you_mean(unit, known))

    def __repr__(self) -> str:
        hours = "" if self.hours is None else f", {number(self.hours)} h"
        yearly = "" if self.repeats_per_year is None else f", {amount(self.repeats_per_year, self.repeat)} per year"
        return f"<DutyCycle: {amount(len(self.events), 'event')} per {self.repeat}{hours}{yearly}>"
