"""A history whose small cycles are taken out before counting."""

from __future__ import annotations

from collections.abc import Mapping
from dataclasses import dataclass
from typing import ClassVar

from vivid_anvil.counting.cycles import Cycles
from vivid_anvil.counting.gate import Gated, gate
from vivid_anvil.counting.load_sequence import LoadSequence
from vivid_anvil.counting.rainflow import four_point, rainflow
from vivid_anvil.ground.checks import positive_number
from vivid_anvil.ground.errors import InputError
from vivid_anvil.histories.load import Ends, Give, Load
from vivid_anvil.histories.load_history import LoadHistory
from vivid_anvil.units import coherent, sound


@sound
@dataclass(frozen=True, eq=False)
class GatedHistory(Load):
    """A history whose small cycles of some channels are taken out before counting; `gates` by channel, coherent or text.

    Parameters
    ----------
    history : LoadHistory
        The history; it stays as it is.
    gates : mapping of str to float
        Smallest range that is kept, by channel, coherent or text.

    Raises
    ------
    InputError
        For an argument of another kind, unit or range; the message says which.

    Examples
    --------
    >>> GatedHistory(history, {"vertical force": "0.2 kN"}).gates  # history of the demo, force in N
    {'vertical force': 200.0}
    """

    history: LoadHistory
    gates: Mapping[str, float]
    gives: ClassVar[frozenset[Give]] = frozenset({"cycles", "order"})

    def __post_init__(self) -> None:
        gates = {}
        for channel, size in self.gates.items():
            found = coherent(size, self.history[channel].dimension, f"gate, {channel}")  # raises for an unknown channel
            gates[channel] = positive_number(f"gate, {channel}", found, "a range above 0")
        object.__setattr__(self, "gates", gates)

    def ends(self, channel: str) -> Ends:
        """A gate belongs to one channel: InputError."""
        raise InputError(
            "history with a gate",
            "a gate",
            "a history as it is",
            "What is small on a channel may be large at a node: leave the gate out.",
        )

    @property
    def measured(self) -> LoadHistory:
        """The whole history."""
        return self.history

    @property
    def dimensions(self) -> dict[str, str]:
        """Names and dimensions of the channels."""
        return self.history.dimensions

    @property
    def duration(self) -> float | None:
        """Time from the first to the last sample, s; None where samples have no times."""
        return self.history.duration

    def extremes(self, channel: str) -> tuple[float, float]:
        """Lowest and highest value of one channel."""
        return self.history.extremes(channel)

    def gated(self, channel: str) -> Gated | None:
        """What the gate of a channel leaves and takes out; None where it has no gate."""
        if channel not in self.gates:
            return None
        one = self.history[channel]
        return gate(one.values, self.gates[channel], dimension=one.dimension, sample_rate=self.history.counting_rate)

    def cycles_of(self, channel: str, *, residue: str = "half cycles") -> Cycles:
        """Cycles of what is left, the residue as half cycles unless it is "repeated", with the samples of the whole history."""
        found = self.gated(channel)
        if found is None:
            return self.history.cycles_of(channel, residue=residue)
        dimension = self.history[channel].dimension
        cycles = rainflow(found.values, residue=residue, dimension=dimension, sample_rate=self.history.counting_rate)
        return cycles.among(found.samples)

    def in_order(self, channel: str) -> LoadSequence:
        """The closed cycles of what is left, and the residue."""
        found = self.gated(channel)
        if found is None:
            return self.history.in_order(channel)
        count = four_point(found.values, dimension=self.history[channel].dimension)
        return LoadSequence(count.cycles, ((count.residue.values, 1.0),))
