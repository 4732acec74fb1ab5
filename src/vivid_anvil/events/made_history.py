"""A seeded history of an input, made of a random event where no formula counts: tones on a wide band, several components.

It stands for the whole exposure: its cycles count as often as the exposure is longer.
"""

from __future__ import annotations

import dataclasses
from dataclasses import dataclass
from typing import ClassVar

import numpy as np

from vivid_anvil.counting import Cycles, rainflow
from vivid_anvil.counting.cycles import BLOCK
from vivid_anvil.ground.checks import FloatArray
from vivid_anvil.histories.channel import Channel
from vivid_anvil.histories.load import Give, Load, Samples
from vivid_anvil.spectra.synthesis import BLOCKS

MOST = 2**18  # samples
PER_SHORTEST = 8.0  # samples in the shortest period of the input; resonances have more


@dataclass(frozen=True, eq=False)
class MadeHistory(Load):
    """One channel of made samples at `sample_rate`, Hz, for an `exposure`, s."""

    channel: str
    values: FloatArray
    dimension: str
    sample_rate: float
    exposure: float
    gives: ClassVar[frozenset[Give]] = frozenset({"samples", "cycles"})

    @property
    def passes(self) -> float:
        """How often the samples are gone through in the exposure."""
        return self.exposure * self.sample_rate / self.values.size

    @property
    def dimensions(self) -> dict[str, str]:
        """The one channel."""
        return {self.channel: self.dimension}

    @property
    def duration(self) -> float | None:
        """The exposure, s."""
        return self.exposure

    def extremes(self, channel: str) -> tuple[float, float]:
        """Of the samples."""
        return float(self.values.min()), float(self.values.max())

    def samples(self) -> Samples:
        """The one channel."""
        return Samples((Channel(self.channel, self.values, self.dimension),), self.sample_rate, "even", self.passes)

    def with_channel(self, channel: Channel) -> MadeHistory:
        """The same course of another channel."""
        return dataclasses.replace(self, channel=channel.name, values=channel.values, dimension=channel.dimension)

    def cycles_of(self, channel: str, *, residue: str = "half cycles") -> Cycles:
        """Counted as often as in the exposure; the block in which each starts tells the scatter."""
        table = rainflow(self.values, residue=residue, dimension=self.dimension)
        block = np.floor(table.start * (BLOCKS / self.values.size))
        return dataclasses.replace(table, count=table.count * self.passes, columns={**table.columns, BLOCK: block})
