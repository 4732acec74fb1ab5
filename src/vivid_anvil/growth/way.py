"""How a crack of one or two sizes goes its way with all cycles of a repeat at once: what both kinds give.

A leg is growth by one law from given sizes, to a limit or for so many repeats. Each kind of shape has its own integrator: a
quadrature over the size, or the two rates followed together; what comes of the legs is the same for both (`per_repeat`).
"""

from __future__ import annotations

import dataclasses
import math
from abc import ABC, abstractmethod
from collections.abc import Callable
from dataclasses import dataclass
from typing import Any, ClassVar, NamedTuple

import numpy as np

from vivid_anvil.ground.checks import FloatArray
from vivid_anvil.growth.crack import Crack
from vivid_anvil.growth.driving_cycles import GrowthDrive
from vivid_anvil.growth.limits import CriticalSizes
from vivid_anvil.materials import GrowthLaw
from vivid_anvil.shapes.shape import Margin, Shape

AT_REST, IN_TIME = "no growth", "repeats"  # what ends a leg, if not a limit


@dataclass(frozen=True, eq=False)
class Leg:
    """Sizes, mm, shape (n, sizes), the repeats, shape (n,), at which they are reached, why it ended, what finer steps change."""

    sizes: FloatArray
    repeats: FloatArray
    ended_by: str
    change: float

    @classmethod
    def still(cls, sizes: tuple[float, ...], ended_by: str) -> Leg:
        """No way at all."""
        return cls(np.array([sizes]), np.array([0.0]), ended_by, 0.0)

    @property
    def last(self) -> tuple[float, ...]:
        """The sizes at its end, mm."""
        return tuple(self.sizes[-1].tolist())

    @property
    def life(self) -> float:
        """Repeats to the limit; inf where none is reached."""
        return math.inf if self.ended_by == AT_REST else float(self.repeats[-1])

    def then(self, since: float, onwards: Leg) -> Leg:
        """With what comes after, which began at `since`, repeats."""
        sizes, repeats = self.sizes, self.repeats
        if repeats[-1] < since:  # it rested until then
            sizes, repeats = np.vstack([sizes, sizes[-1]]), np.append(repeats, since)
        return Leg(
            np.vstack([sizes, onwards.sizes[1:]]),
            np.concatenate([repeats, since + onwards.repeats[1:]]),
            onwards.ended_by,
            max(self.change, onwards.change),
        )


class Ended(NamedTuple):
    """Why a crack stops, and its sizes, mm, there."""

    by: str
    sizes: tuple[float, ...]


@dataclass(frozen=True, eq=False)
class Way(ABC):
    """What drives a crack, and where it has to stop."""

    crack: Crack
    drive: GrowthDrive
    most_places: ClassVar[int] = 4000  # of a way cycle by cycle that are kept
    scale_known_to: ClassVar[float] = 1e-9  # share by which K may be larger cycle by cycle than all at once

    @property
    @abstractmethod
    def used(self) -> str | None:
        """The limit that the initial sizes have reached already; None where there is none."""

    @abstractmethod
    def leg(self, law: GrowthLaw, sizes: tuple[float, ...], most: float) -> Leg:
        """From `sizes`, mm, to the first limit, for `most` repeats at most."""

    @abstractmethod
    def quick_leg(self) -> Leg:
        """From the initial sizes to the first limit by the first law, right to some 3e-4 at least."""

    @abstractmethod
    def left_from(self, size: float, whole: float) -> float:
        """Repeats by the first law from `size`, mm, on its way to the limit, which takes `whole` repeats from the start."""

    @abstractmethod
    def critical(self, ended: Ended) -> CriticalSizes:
        """The limiting sizes, of which one ended it."""

    @abstractmethod
    def waiting_at(self, sizes: tuple[float, ...]) -> Ended:
        """Which limit would come first, and where, of a crack that has come to `sizes`, mm, and gets no further."""

    def waiting(self) -> Ended:
        """The same of one that does not move."""
        return self.waiting_at(self.crack.sizes)

    @abstractmethod
    def ended(self, by: str, sizes: tuple[float, ...]) -> Ended:
        """What it is that ended the way cycle by cycle: a margin, or "stop"."""

    @property
    @abstractmethod
    def always(self) -> Callable[..., Any] | None:
        """K, MPa√mm, that residual stress adds at the sizes; of one size a function of arrays."""

    @abstractmethod
    def margins(self) -> dict[str, Margin]:
        """What to look at on the way cycle by cycle, by name: what is left before each limit."""

    @abstractmethod
    def marched_to(self) -> float:
        """The first size, mm, at which going cycle by cycle ends."""

    @abstractmethod
    def breaking_stress(self, ended: Ended) -> float:
        """The largest stress, MPa, of the cycle that breaks a crack at its limiting size."""

    @property
    def at_peak(self) -> tuple[Shape, float]:
        """The shape and the stress, MPa, that the limits are looked at with: the largest of each stress, with its share."""
        shape, peak, bending = self.crack.shape, self.drive.peak_stress, self.drive.peak_bending
        if self.drive.bending is None:
            return shape, peak
        whole = max(peak, 0.0) + bending
        return shape.under(bending / whole if whole > 0.0 else 0.0), whole

    def scale(self, sizes: FloatArray) -> float:
        """The largest K per MPa, √mm, along a way."""
        return max(max(self.crack.shape.scales(*row)) for row in np.atleast_2d(sizes).tolist())

    def whole(self, most: float, later: float | None) -> Leg:
        """From the start to the first limit or for `most` repeats; from `later` on, where there is one, by the later law."""
        crack = self.crack
        first = self.leg(crack.law, crack.sizes, most if later is None else min(later, most))
        if later is None or crack.later_law is None or later >= most or first.ended_by not in (AT_REST, IN_TIME):
            return first
        return first.then(later, self.leg(crack.later_law, first.last, most - later))


def thinned(leg: Leg, most: int) -> Leg:
    """Sizes and repeats to look at, `most` at most: every kink is a step, and there may be one for each cycle."""
    if leg.repeats.size <= most:
        return leg
    kept = np.unique(np.linspace(0, leg.repeats.size - 1, most).astype(int))
    return dataclasses.replace(leg, sizes=leg.sizes[kept], repeats=leg.repeats[kept])


def moved(leg: Leg) -> Leg:
    """Without the places at which nothing has moved."""
    kept = np.concatenate([[True], (np.diff(leg.sizes, axis=0) > 0.0).any(axis=1)])
    return dataclasses.replace(leg, sizes=leg.sizes[kept], repeats=leg.repeats[kept])
