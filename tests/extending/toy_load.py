"""A load of one's own: a ramp up to a load, held, and let go, so often."""

from __future__ import annotations

from dataclasses import dataclass
from typing import ClassVar

import numpy as np

from vivid_anvil.counting import Cycles, LoadSequence
from vivid_anvil.histories.load import LOADS, Load
from vivid_anvil.units import Coherent, coherent


@LOADS.add("ramps")
@dataclass(frozen=True, kw_only=True)
class Ramps(Load):
    """`times` ramps from 0 to `top` ("12 kN") on a channel of force, each taking `each`."""

    channel: str
    top: str
    times: Coherent = Coherent("number", above=0.0)
    each: Coherent = Coherent("time", above=0.0)
    gives: ClassVar = frozenset({"cycles", "order"})

    @property
    def highest(self):
        """N."""
        return coherent(self.top, "force", "ramps, top")

    @property
    def dimensions(self):
        """A force."""
        return {self.channel: "force"}

    @property
    def duration(self):
        """All ramps."""
        return self.times * self.each

    def extremes(self, channel):
        """From 0."""
        return 0.0, self.highest

    def cycles_of(self, channel, *, residue="repeated"):
        """Equal cycles."""
        of = {"range": self.highest, "mean": 0.5 * self.highest, "count": self.times}
        return Cycles(**{key: np.array([one]) for key, one in of.items()}, dimension="force")

    def in_order(self, channel):
        """Up and down."""
        none = self.cycles_of(channel).chosen(np.zeros(1, dtype=bool))
        return LoadSequence(none, ((np.array([0.0, self.highest, 0.0]), self.times),))
