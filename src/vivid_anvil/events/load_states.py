"""Loads that go together through some states: what a table of events and load cases says, one event a row."""

from __future__ import annotations

import dataclasses
import re
from collections.abc import Mapping
from dataclasses import dataclass
from typing import Any, ClassVar

import numpy as np

from vivid_anvil.counting.counter import RESIDUES
from vivid_anvil.counting.cycles import Cycles
from vivid_anvil.counting.load_sequence import LoadSequence
from vivid_anvil.counting.rainflow import rainflow
from vivid_anvil.events.equal_cycles import signed
from vivid_anvil.ground import checks
from vivid_anvil.ground.errors import InputError, listed
from vivid_anvil.histories.channel import Channel, channel_named, check_channels
from vivid_anvil.histories.load import Give, Load, Samples
from vivid_anvil.units import coherent, sound

_IN_TURN = re.compile(r"\s*(\d{1,6})\s+to\s+(\d{1,6})\s*")


@sound
@dataclass(frozen=True, eq=False, repr=False)
class LoadStates(Load):
    """Channels that go through the same states, one after the other and back to the first, `cycles` times an occurrence.

    `frequency`, Hz or text, is how often a second. Values of a channel are load factors, or loads with a unit. In a duty cycle a
    load that the states of one event name, and those of another do not, is 0 there.

    Parameters
    ----------
    channels : tuple of Channel
        The channels.
    cycles : float, default 1.0
        How often in one occurrence.
    frequency : float, optional
        How often a second, Hz or text.

    Raises
    ------
    InputError
        For an argument of another kind, unit or range; the message says which.

    Examples
    --------
    >>> LoadStates.of({"weight": 1, "wind": [-0.6, 1.0]}, cycles=300)
    <LoadStates weight, wind: 2 states, 300 times>
    """

    channels: tuple[Channel, ...]
    cycles: float = 1.0
    frequency: float | None = None
    gives: ClassVar[frozenset[Give]] = frozenset({"samples", "cycles", "order"})

    def __post_init__(self) -> None:
        object.__setattr__(self, "channels", tuple(self.channels))
        check_channels(self.channels, "states")
        checks.positive_number("states, cycles", self.cycles)
        if self.frequency is not None:
            hertz = coherent(self.frequency, "frequency", "states, frequency")
            object.__setattr__(self, "frequency", checks.positive_number("states, frequency", hertz))

    @classmethod
    def of(cls, states: Mapping[str, Any], *, cycles: float = 1.0, frequency: float | str | None = None) -> LoadStates:
        """From a value, or a list of values in their order, for each load; a single value holds in all states.

        A number is a load factor, text has its unit ("12 kN"); "3 to 14" are the whole numbers in turn, such as of steps.
        Raises InputError for lists of different lengths, and where no load has two states.

        >>> gust = LoadStates.of({"weight": 1, "wind": [-0.6, 1.0]}, cycles=300)
        >>> gust.extremes("wind"), float(gust.cycles_of("wind").count.sum())
        ((-0.6, 1.0), 300.0)
        """
        if not isinstance(states, Mapping) or not states:
            raise InputError(
                "states", repr(states), "a table of loads with their values, such as { wind = [-0.6, 1.0] }"
            )
        lists = {name: _as_list(one) for name, one in states.items()}
        most = max(len(one) for one in lists.values())
        for name, one in lists.items():
            if len(one) not in (1, most):
                raise InputError(
                    f"states, {name}",
                    f"{len(one)} values",
                    f"{most}, as another load has, or one value for all states",
                    "The first values of all loads stand together, then the second ones.",
                )
        if most < 2:
            raise InputError(
                "states", "one state", "two or more for at least one load", "A load that never changes does no damage."
            )
        channels = tuple(_channel(name, list(one) * (most if len(one) == 1 else 1)) for name, one in lists.items())
        return cls(channels, cycles, frequency)  # type: ignore[arg-type]  # text becomes Hz when it is made

    def __getitem__(self, name: str) -> Channel:
        return channel_named(self.channels, name, "states")

    def with_zeros(self, dimensions: Mapping[str, str]) -> LoadStates:
        """With a channel of zeros for each of these loads that the states do not name."""
        size = len(self.channels[0])
        more = [
            Channel(name, checks.read_only(np.zeros(size)), dimension)
            for name, dimension in dimensions.items()
            if name not in self.dimensions
        ]
        return dataclasses.replace(self, channels=(*self.channels, *more)) if more else self

    @property
    def named(self) -> dict[str, str]:
        """All its loads: they are 0 in the states of other events that do not name them."""
        return self.dimensions

    def samples(self) -> Samples:
        """The states, gone through again and again."""
        return Samples(self.channels, 1.0, "none", self.cycles)

    def with_channel(self, channel: Channel) -> LoadStates:
        """This channel alone through as many states."""
        return LoadStates((channel,), self.cycles, self.frequency)

    @property
    def duration(self) -> float | None:
        """Time that the cycles take, s; None where no frequency is stated."""
        return None if self.frequency is None else self.cycles / self.frequency

    @property
    def dimensions(self) -> dict[str, str]:
        """Names and dimensions of the loads."""
        return {channel.name: channel.dimension for channel in self.channels}

    def extremes(self, channel: str) -> tuple[float, float]:
        """Lowest and highest load."""
        values = self[channel].values
        return float(values.min()), float(values.max())

    def cycles_of(self, channel: str, *, residue: str = "half cycles") -> Cycles:
        """Cycles of the states gone through again and again; there is no residue, as the last state meets the first."""
        checks.one_of("residue", residue, tuple(RESIDUES))
        one = self[channel]
        cycles = rainflow(one.values, residue="repeated", dimension=one.dimension)
        return Cycles(
            range=cycles.range, mean=cycles.mean, count=cycles.count * self.cycles, dimension=one.dimension
        ).sorted_by_range()

    def in_order(self, channel: str) -> LoadSequence:
        """From state to state and back to the first, as often as there are cycles."""
        values = self[channel].values
        none = self.cycles_of(channel).chosen(np.zeros(0, dtype=np.int64))
        return LoadSequence(none, ((np.append(values, values[0]), self.cycles),))

    def __repr__(self) -> str:
        names = ", ".join(channel.name for channel in self.channels)
        return f"<LoadStates {names}: {len(self.channels[0])} states, {self.cycles:g} times>"


def _as_list(values: Any) -> list[Any]:
    """A list, an array or an array quantity as a list; "3 to 14" as whole numbers in turn; a single value as the only one."""
    if isinstance(values, str) and (turn := _IN_TURN.fullmatch(values)) is not None:
        first, last = int(turn[1]), int(turn[2])
        step = 1 if last >= first else -1
        return [float(one) for one in range(first, last + step, step)]
    several = isinstance(values, list | tuple) or np.ndim(getattr(values, "magnitude", values)) == 1
    return list(values) if several else [values]


def _channel(name: str, values: list[Any]) -> Channel:
    """A channel of load factors, or of loads with units of one dimension."""
    checks.text("states, a load", name)
    found = [signed(value, f"states, {name}") for value in values]
    kinds = dict.fromkeys(dimension for _, dimension in found)
    if len(kinds) > 1:
        raise InputError(f"states, {name}", f"values of {listed(kinds)}", "values of one dimension")
    return Channel(name, checks.read_only(np.array([value for value, _ in found])), found[0][1])
