"""What the part goes through: events, how often each happens in one repeat, and repeats per year.

In: histories and constant-amplitude blocks. Out: cycles of each event, counted once per channel.
"""

from __future__ import annotations

import math
from dataclasses import dataclass, field
from typing import Any

import numpy as np

from vivid_anvil import checks
from vivid_anvil.errors import InputError, did_you_mean, listed
from vivid_anvil.histories.counter import RESIDUES
from vivid_anvil.histories.cycles import Cycles
from vivid_anvil.histories.load_history import LoadHistory
from vivid_anvil.units import coherent, dimension_of, number, split

HOUR = 3600.0


@dataclass(frozen=True, repr=False)
class ConstantAmplitude:
    """`cycles` equal cycles of a load between `minimum` and `maximum`, in the coherent unit of `dimension`.

    Made by `from_amplitude` or `from_range`, so that the two cannot be mixed up.
    """

    channel: str
    maximum: float
    minimum: float
    cycles: float
    dimension: str
    frequency: float | None = None

    def __post_init__(self) -> None:
        where = f"constant amplitude of {self.channel}"
        checks.text("ConstantAmplitude.channel", self.channel)
        checks.positive_number(f"{where}, cycles", self.cycles)
        if not (math.isfinite(self.maximum) and math.isfinite(self.minimum) and self.maximum >= self.minimum):
            raise InputError(where, f"maximum {self.maximum}, minimum {self.minimum}", "finite limits, maximum above")
        if self.frequency is not None:
            checks.positive_number(f"{where}, frequency", self.frequency)

    @classmethod
    def from_amplitude(
        cls,
        channel: str,
        amplitude: str | tuple[float, str],
        *,
        r_ratio: float = -1.0,
        cycles: float = 1.0,
        frequency: float | str | None = None,
    ) -> ConstantAmplitude:
        """Cycles of an amplitude (half of the range): text with unit such as "1.2 kN", or a pair (1.2, "kN").

        `r_ratio` = minimum / maximum: -1 is fully reversed, 0 pulsates from zero. It must be below 1.

        >>> event = ConstantAmplitude.from_amplitude("vertical force", "1.5 kN", r_ratio=0.0, cycles=100)
        >>> event.maximum, event.minimum
        (3000.0, 0.0)
        """
        where = f"constant amplitude of {channel}"
        value, dimension = _with_unit(amplitude, f"{where}, amplitude")
        return cls(channel, *_limits(value, r_ratio, where), cycles, dimension, _hertz(frequency, where))

    @classmethod
    def from_range(
        cls,
        channel: str,
        range: str | tuple[float, str],  # the trade's word
        *,
        r_ratio: float = -1.0,
        cycles: float = 1.0,
        frequency: float | str | None = None,
    ) -> ConstantAmplitude:
        """Cycles of a range (maximum - minimum): text with unit such as "2.4 kN", or a pair (2.4, "kN").

        >>> ConstantAmplitude.from_range("stress", "90 MPa", r_ratio=0.1, cycles=2e6).maximum
        100.0
        """
        where = f"constant amplitude of {channel}"
        value, dimension = _with_unit(range, f"{where}, range")
        return cls(channel, *_limits(0.5 * value, r_ratio, where), cycles, dimension, _hertz(frequency, where))

    @property
    def duration(self) -> float | None:
        """Time that the cycles take, s; None where no frequency is stated."""
        return None if self.frequency is None else self.cycles / self.frequency

    def rainflow(self, channel: str, *, residue: str = "half cycles") -> Cycles:
        """The cycles as a table of one entry; the residue is that of any whole number of equal cycles: none."""
        checks.one_of("residue", residue, tuple(RESIDUES))
        if channel != self.channel:
            raise InputError(
                f"constant amplitude of {self.channel}",
                f"no channel {channel!r}",
                repr(self.channel),
                did_you_mean(channel, [self.channel]),
            )
        extremes = np.array([self.maximum, self.minimum])
        return Cycles(
            range=np.array([extremes[0] - extremes[1]]),
            mean=np.array([0.5 * extremes.sum()]),
            count=np.array([float(self.cycles)]),
            dimension=self.dimension,
        )

    def __repr__(self) -> str:
        return f"<ConstantAmplitude {self.channel}: {self.cycles:g} cycles, {self.minimum:g} to {self.maximum:g}>"


@dataclass(frozen=True, eq=False)
class Event:
    """Something that happens: a name, its load, and how many times per repeat of the duty cycle."""

    name: str
    load: LoadHistory | ConstantAmplitude
    occurrences: float = 1.0

    def __post_init__(self) -> None:
        checks.text("Event.name", self.name)
        occurrences = checks.real_number(f"event {self.name}, occurrences", self.occurrences)
        if not 0.0 < occurrences < math.inf:
            raise InputError(
                f"event {self.name}, occurrences",
                f"{occurrences:g}",
                "a number above 0",
                "Leave out an event that never happens.",
            )

    def extremes(self, channel: str) -> tuple[float, float]:
        """Lowest and highest load of the channel, in its coherent unit."""
        if isinstance(self.load, ConstantAmplitude):
            return self.load.minimum, self.load.maximum
        values = self.load[channel].values
        return float(values.min()), float(values.max())

    def dimension_of_channel(self, channel: str) -> str:
        """The dimension of one of the event's channels; InputError where it has no such channel."""
        if isinstance(self.load, ConstantAmplitude):
            dimensions = {self.load.channel: self.load.dimension}
        else:
            dimensions = {one.name: one.dimension for one in self.load.channels}
        if channel not in dimensions:
            raise InputError(
                f"event {self.name}",
                f"no channel {channel!r}",
                f"one of {listed(dimensions)}",
                did_you_mean(channel, dimensions) or "Every event must say what the load on this channel is.",
            )
        return dimensions[channel]


@dataclass(frozen=True, eq=False, repr=False)
class DutyCycle:
    """One repeat of the use: events with occurrences. The user names the repeat ("lap", "flight", "month").

    Each event is counted by itself; `residue` says how its residue counts (see `RESIDUES`). As events come again and
    again, the default closes it.

    >>> test = ConstantAmplitude.from_range("force", "2 kN", r_ratio=0.0, cycles=60, frequency="1 Hz")
    >>> DutyCycle("shift", [Event("press stroke", test, 480)], repeats_per_year=600)
    <DutyCycle: 1 event per shift, 8 h, 600 shifts per year>
    """

    repeat: str
    events: tuple[Event, ...]
    repeats_per_year: float
    residue: str = "repeated"
    _counted: dict[tuple[int, str], Cycles] = field(default_factory=dict, init=False, repr=False)

    def __post_init__(self) -> None:
        checks.text("DutyCycle.repeat", self.repeat)
        object.__setattr__(self, "events", tuple(self.events))
        if not self.events:
            raise InputError("DutyCycle.events", "no event", "at least one event with its occurrences")
        names = [event.name for event in self.events]
        for name in names:
            if names.count(name) > 1:
                raise InputError(f"DutyCycle.events, {name}", "the same name twice", "a different name for each event")
        checks.positive_number("DutyCycle.repeats_per_year", self.repeats_per_year)
        checks.one_of("DutyCycle.residue", self.residue, tuple(RESIDUES))

    def cycles(self, event: Event, channel: str) -> Cycles:
        """Cycles of one occurrence of `event` in the unit of the load; each event and channel is counted once."""
        key = (self.events.index(event), channel)
        if key not in self._counted:
            self._counted[key] = event.load.rainflow(channel, residue=self.residue)
        return self._counted[key]

    def dimension_of_channel(self, channel: str) -> str:
        """The dimension that `channel` has in every event; InputError where events differ or lack it."""
        found = {event.name: event.dimension_of_channel(channel) for event in self.events}
        if len(set(found.values())) > 1:
            raise InputError(f"channel {channel}", f"different dimensions: {found}", "the same in every event")
        return next(iter(found.values()))

    @property
    def hours(self) -> float | None:
        """Duration of one repeat, h; None where an event of constant amplitude states no frequency."""
        durations = [event.load.duration for event in self.events]
        if any(duration is None for duration in durations):
            return None
        seconds = sum(
            event.occurrences * duration for event, duration in zip(self.events, durations, strict=True) if duration
        )
        return seconds / HOUR

    def repeats_in(self, value: Any, where: str = "target life") -> float:
        """The repeats in "30 years", "20000 h" or "1.2e6 laps"; a plain number is repeats already.

        >>> test = ConstantAmplitude.from_range("force", "2 kN", cycles=60, frequency="1 Hz")
        >>> DutyCycle("shift", [Event("stroke", test, 480)], repeats_per_year=600).repeats_in("2 years")
        1200.0
        """
        if not isinstance(value, str):
            return checks.positive_number(where, value, f"a number of {self.repeat}s above 0")
        words = {"year": ("year", "years"), "hour": ("h", "hour", "hours"), "repeat": (self.repeat, self.repeat + "s")}
        known = [word for kind in words.values() for word in kind]
        amount, unit = split(value, where, "30 years", "life")
        positive = checks.positive_number(where, amount, "a life above 0")
        if unit in words["repeat"]:
            return positive
        if unit in words["year"]:
            return positive * self.repeats_per_year
        if unit in words["hour"]:
            if self.hours is None:
                raise InputError(
                    where,
                    repr(value),
                    "a life in years or repeats",
                    "Hours need the frequency of every constant-amplitude event.",
                )
            return positive / self.hours
        raise InputError(where, repr(value), f"a life in one of {listed(known)}", did_you_mean(unit, known))

    def __repr__(self) -> str:
        hours = "" if self.hours is None else f", {number(self.hours)} h"
        plural = "" if len(self.events) == 1 else "s"
        return (
            f"<DutyCycle: {len(self.events)} event{plural} per {self.repeat}{hours}, "
            f"{number(self.repeats_per_year)} {self.repeat}s per year>"
        )


def _with_unit(value: Any, where: str) -> tuple[float, str]:
    """Value in the coherent unit, and its dimension, from text or a pair (number, unit)."""
    amount, unit = value if isinstance(value, tuple) else split(str(value), where, "1.2 kN", "load")
    dimension = dimension_of(unit, where)
    found = coherent(f"{amount!r} {unit}", dimension.name, where)
    return checks.positive_number(where, found), dimension.name


def _limits(amplitude: float, r_ratio: float, where: str) -> tuple[float, float]:
    """Maximum and minimum from amplitude and R; R above 1 (both negative) is meaningful, 1 is not."""
    r = checks.real_number(f"{where}, r_ratio", r_ratio)
    if r == 1.0 or not math.isfinite(r):
        raise InputError(f"{where}, r_ratio", f"{r:g}", "minimum / maximum, other than 1")
    maximum = 2.0 * amplitude / (1.0 - r)
    return maximum, maximum - 2.0 * amplitude


def _hertz(frequency: float | str | None, where: str) -> float | None:
    return None if frequency is None else coherent(frequency, "frequency", f"{where}, frequency")
