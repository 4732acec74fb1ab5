"""The way of a crack from its start to where it has to stop: what every engine of growth gives."""

from __future__ import annotations

import dataclasses
import math
from dataclasses import dataclass
from typing import Any

import numpy as np

from vivid_anvil.ground.checks import FloatArray
from vivid_anvil.growth.limits import CriticalSizes


@dataclass(frozen=True, eq=False)
class GrowthPath:
    """Sizes, mm, and repeats, shape (n,), repeats to the limit, why it stopped, what finer steps change (share), the limits.

    `half_lengths` where there are two sizes; `cycles` gone through, and `stopped_in` words for the event, where it went
    cycle by cycle. `uncut` is the way to the limit where the target ends this one before.
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
    uncut: GrowthPath | None = None

    @classmethod
    def still(
        cls, size: float, critical: CriticalSizes, life: float, stopped_by: str, half_length: float | None = None
    ) -> GrowthPath:
        """A crack that does not move: none, or critical from the start."""
        along = None if half_length is None else np.array([half_length])
        return cls(np.array([size]), np.array([0.0]), life, stopped_by, 0.0, critical, along)

    def repeats_at(self, size: float) -> float:
        """Repeats at which `size`, mm, is reached, read from the path; 0 before it, inf where it never moves."""
        way = self.uncut or self
        if way.sizes.size == 1:
            return 0.0 if size <= float(way.sizes[0]) else math.inf
        return float(np.interp(math.log(size), np.log(way.sizes), way.repeats))

    def cut(self, sizes: FloatArray, repeats: FloatArray, half_lengths: FloatArray | None = None) -> GrowthPath:
        """The part of it to the target life."""
        ended: dict[str, Any] = {"stopped_by": "target life", "stopped_in": None, "uncut": self}
        return dataclasses.replace(self, sizes=sizes, repeats=repeats, half_lengths=half_lengths, **ended)
