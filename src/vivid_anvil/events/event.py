"""Something that happens in a repeat: a name, its load, how often."""

from __future__ import annotations

import math
from dataclasses import dataclass
from typing import Any

from vivid_anvil.events.seen import Seen
from vivid_anvil.ground import checks
from vivid_anvil.ground.errors import InputError, did_you_mean, field_of, inside, listed
from vivid_anvil.histories.load import Load
from vivid_anvil.units import coherent, number

Asked = str | Seen  # a channel, or several that act together


@dataclass(frozen=True, eq=False)
class Event:
    """Something that happens: a name, its load, and how many times per repeat. A duty cycle may be the load: a day of laps.

    `duration`, s or text such as "30 s", is the time of one occurrence, for loads that do not know their own.

    Parameters
    ----------
    name : str
        What it is called in messages, tables and reports.
    load : Load
        What happens: a history, cycles, states, or a duty cycle.
    occurrences : float, default 1.0
        How often in one repeat.
    duration : float or str, optional
        Time of one occurrence, s or text.

    Raises
    ------
    InputError
        For an argument of another kind, unit or range; the message says which.

    Examples
    --------
    >>> start = ConstantAmplitude.from_range("force", "12 kN", r_ratio=0.1, cycles=1)
    >>> Event("start", start, occurrences=20).occurrences
    20
    """

    name: str
    load: Load
    occurrences: float = 1.0
    duration: float | str | None = None

    def __post_init__(self) -> None:
        checks.text(field_of("Event", "name"), self.name)
        if self.duration is not None and self.load.duration is not None:
            raise InputError(
                inside(f"event {self.name}", "duration"),
                f"{self.duration} beside a load that takes {number(self.load.duration)} s",
                "one of both",
                "Leave out the duration: rates, frequencies and inner events give it.",
            )
        object.__setattr__(self, "duration", seconds_of(f"event {self.name}, duration", self.duration))
        occurrences = checks.real_number(inside(f"event {self.name}", "occurrences"), self.occurrences)
        if not 0.0 < occurrences < math.inf:
            raise InputError(
                inside(f"event {self.name}", "occurrences"),
                f"{occurrences:g}",
                "a number above 0",
                "Leave out an event that never happens.",
            )

    @property
    def lasts(self) -> float | None:
        """Time of one occurrence, s: the stated one, else that of the load; None where neither is known."""
        return self.load.duration if self.duration is None else float(self.duration)

    def extremes(self, channel: Asked) -> tuple[float, float]:
        """Lowest and highest load of the channel, in its coherent unit."""
        if self.load.parts:
            return self.load.extremes(channel)
        low, high = seen_load(self.name, self.load, channel).extremes(str(channel))
        return low, high

    def dimension_of_channel(self, channel: str) -> str:
        """The dimension of one of the event's channels; InputError where it has no such channel."""
        return dimension_in(self.name, self.load, channel)


def seconds_of(where: str, stated: float | str | None) -> float | None:
    """A stated duration in s."""
    if stated is None:
        return None
    return checks.positive_number(where, coherent(stated, "time", where), "a time above 0")


def dimension_in(name: str, load: Load, channel: str) -> str:
    """The dimension of a channel of an event's load; InputError where it has none of that name."""
    dimensions = load.dimensions
    if channel not in dimensions:
        raise InputError(
            f"event {name}",
            f"no channel {channel!r}",
            f"one of {listed(dimensions)}",
            did_you_mean(channel, dimensions) or "Every event must say what the load on this channel is.",
        )
    return dimensions[channel]


def seen_load(name: str, load: Any, channel: Asked) -> Any:
    """The load of an event as what is asked for sees it: itself for a channel, else the stress that it gives."""
    if isinstance(channel, str):
        return load
    try:
        return channel.seen(load, name)
    except InputError as error:
        raise InputError(f"event {name}, {error.where}", error.found, error.expected, error.remedy) from None
