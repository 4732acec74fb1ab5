"""The way that a crack has gone from its start to where it has to stop: what every engine of growth gives."""

from __future__ import annotations

import dataclasses
import math
from dataclasses import dataclass
from typing import Any

import numpy as np

from vivid_anvil.ground.checks import FloatArray
from vivid_anvil.growth.limits import CriticalSizes


@dataclass(frozen=True, eq=False)
class WayGone:
    """Sizes, mm, shape (n, sizes), repeats, shape (n,), those to the limit, why it stopped, what finer steps change, the limits.

    `cycles` gone through, and `stopped_in` words for the event, where it went cycle by cycle. `uncut` is the way to the limit
    where the target ends this one before.
    """

    sizes: FloatArray
    repeats: FloatArray
    life_repeats: float
    stopped_by: str
    change: float
    critical: CriticalSizes
    cycles: int | None = None
    stopped_in: str | None = None
    uncut: WayGone | None = None

    @classmethod
    def still(cls, sizes: tuple[float, ...], critical: CriticalSizes, life: float, stopped_by: str) -> WayGone:
        """A crack that does not move: none, or critical from the start."""
        return cls(np.array([sizes]), np.array([0.0]), life, stopped_by, 0.0, critical)

    @property
    def last(self) -> tuple[float, ...]:
        """The sizes at its end, mm."""
        return tuple(self.sizes[-1].tolist())

    def repeats_at(self, size: float) -> float:
        """Repeats at which the first size is `size`, mm; 0 before it, inf where it never moves."""
        way = self.uncut or self
        first = way.sizes[:, 0]
        if first.size == 1:
            return 0.0 if size <= float(first[0]) else math.inf
        return float(np.interp(math.log(size), np.log(first), way.repeats))

    def sizes_at(self, size: float) -> tuple[float, ...]:
        """All sizes, mm, where the first is `size`, read from the way."""
        way = self.uncut or self
        logs = np.log(way.sizes)
        others = (float(np.exp(np.interp(math.log(size), logs[:, 0], one))) for one in logs.T[1:])
        return (size, *others)

    def cut(self, sizes: FloatArray, repeats: FloatArray) -> WayGone:
        """The part of it to the target life."""
        ended: dict[str, Any] = {"stopped_by": "target life", "stopped_in": None, "uncut": self}
        return dataclasses.replace(self, sizes=sizes, repeats=repeats, **ended)
