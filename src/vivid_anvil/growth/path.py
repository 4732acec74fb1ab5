"""The way of a crack from its start to where it has to stop: what every engine of growth gives."""

from __future__ import annotations

import math
from dataclasses import dataclass

import numpy as np

from vivid_anvil.ground.checks import FloatArray
from vivid_anvil.growth.limits import CriticalSizes


@dataclass(frozen=True, eq=False)
class GrowthPath:
    """Sizes, mm, and repeats, shape (n,), repeats to the limit, why it stopped, what finer steps change (share), the limits.

    `half_lengths` where there are two sizes; `cycles` gone through, and `stopped_in` words for the event, where it went
    cycle by cycle.
    """

    sizes: FloatArray
    repeats: FloatArray
    life_repeats: float
    stopped_by: str
    change: float
    critical: CriticalSizes
    half_lengths: FloatArray | None = None
    cycles: int | None = None
    stopped_in: str | None = None

    @classmethod
    def still(
        cls, size: float, critical: CriticalSizes, life: float, stopped_by: str, half_length: float | None = None
    ) -> GrowthPath:
        """A crack that does not move: none, or critical from the start."""
        along = None if half_length is None else np.array([half_length])
        return cls(np.array([size]), np.array([0.0]), life, stopped_by, 0.0, critical, along)

    def repeats_at(self, size: float) -> float:
        """Repeats at which `size`, mm, is reached, read from the path; 0 before it, inf where it never moves."""
        if self.sizes.size == 1:
            return 0.0 if size <= float(self.sizes[0]) else math.inf
        return float(np.interp(math.log(size), np.log(self.sizes), self.repeats))
