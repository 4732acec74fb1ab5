"""Cycles that a load is specified by, seen as stress: both ends of each, in their order."""

from __future__ import annotations

from collections.abc import Callable
from dataclasses import dataclass
from typing import Any, ClassVar

import numpy as np

from vivid_anvil.counting.cycles import Cycles
from vivid_anvil.counting.load_sequence import LoadSequence
from vivid_anvil.ground.checks import FloatArray, read_only
from vivid_anvil.histories.channel import Channel
from vivid_anvil.histories.load import Ends, Give, Load


@dataclass(frozen=True, eq=False)
class StatedCycles(Load):
    """Blocks of `counts` equal cycles, each from its `first` stress to the `other`, MPa, and back.

    `check_order` raises where the load behind has no order.
    """

    channel: str
    first: FloatArray
    other: FloatArray
    counts: FloatArray
    check_order: Callable[[], Any]
    dimension: str = "stress"
    gives: ClassVar[frozenset[Give]] = frozenset({"cycles", "order"})

    @property
    def dimensions(self) -> dict[str, str]:
        """The stress."""
        return {self.channel: self.dimension}

    @property
    def duration(self) -> float | None:
        """Known by the event."""
        return None

    def extremes(self, channel: str) -> tuple[float, float]:
        """Lowest and highest stress."""
        both = np.concatenate([self.first, self.other])
        return float(both.min()), float(both.max())

    def cycles_of(self, channel: str, *, residue: str = "half cycles") -> Cycles:
        """The cycles as they are specified; there is no residue."""
        ranges, means = np.abs(self.first - self.other), 0.5 * self.first + 0.5 * self.other
        return Cycles(range=ranges, mean=means, count=self.counts, dimension=self.dimension)

    def ends(self, channel: str) -> Ends:
        """Both ends, in their order."""
        both = read_only(np.column_stack([self.first, self.other]).ravel())
        return Ends(Channel(self.channel, both, self.dimension), self.counts)

    def in_order(self, channel: str) -> LoadSequence:
        """The blocks in their order."""
        self.check_order()
        none = self.cycles_of(channel).chosen(np.zeros(self.counts.size, dtype=bool))
        rows = zip(self.first, self.other, self.counts, strict=True)
        return LoadSequence(none, tuple((np.array([one, other, one]), float(times)) for one, other, times in rows))
