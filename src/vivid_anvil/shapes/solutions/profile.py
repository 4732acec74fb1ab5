"""A stress across the section, as straight lines between points of depth: nominal shares, or residual stress."""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass

import numpy as np
from numpy.typing import ArrayLike

from vivid_anvil.ground.checks import FloatArray, one_of
from vivid_anvil.ground.errors import InputError
from vivid_anvil.units import DIMENSIONS, coherent, number, sound


@sound
@dataclass(frozen=True)
class StressProfile:
    """Stress over the depth from the cracked surface, straight between `points` (depth, mm; stress); nothing beyond the last.

    The stress is MPa, or with `of` "number" a share of the nominal stress. Calling it gives the stress at depths, mm.
    Raises InputError for depths that do not start at 0 and rise, and for a depth beyond the last.

    >>> weld = StressProfile([("0 mm", "180 MPa"), ("3 mm", "-40 MPa"), ("12 mm", "0 MPa")])
    >>> weld([0.0, 1.5, 12.0])
    array([180.,  70.,   0.])
    """

    points: Sequence[tuple[float | str, float | str]]
    of: str = "stress"
    where: str = "stress profile"

    def __post_init__(self) -> None:
        where = self.where
        one_of(f"{where}, of", self.of, tuple(DIMENSIONS))
        if len(self.points) < 2 or any(len(row) != 2 for row in self.points):
            raise InputError(where, f"{self.points!r}", "two or more rows of depth and stress")
        rows = [
            (coherent(depth, "length", f"{where}: row {i}"), coherent(stress, self.of, f"{where}: row {i}"))
            for i, (depth, stress) in enumerate(self.points, 1)
        ]
        depths, stresses = np.array(rows, dtype=np.float64).T
        if depths[0] != 0.0 or not (np.diff(depths) > 0.0).all() or not np.isfinite(stresses).all():
            raise InputError(
                where,
                "depths " + ", ".join(number(float(depth)) for depth in depths) + " mm",
                "depths that start at 0 mm, the cracked surface, and rise from row to row",
                "Sort the rows by depth, and give the stress at the surface.",
            )
        object.__setattr__(self, "points", tuple(rows))

    @property
    def kinks(self) -> FloatArray:
        """The depths, mm."""
        return np.array([depth for depth, _ in self.points], dtype=np.float64)

    @property
    def reach(self) -> float:
        """The last depth, mm."""
        return float(self.points[-1][0])

    def __call__(self, depth: ArrayLike) -> FloatArray:
        """The stress at `depth`, mm."""
        depths = np.asarray(depth, dtype=np.float64)
        if not (depths <= self.reach * (1.0 + 1e-9)).all():
            raise InputError(
                self.where,
                f"{number(float(depths.max()))} mm",
                f"depths up to {number(self.reach)} mm, the last of the points",
                "Add points; nothing is extrapolated.",
            )
        return np.asarray(np.interp(depths, *np.array(self.points, dtype=np.float64).T))

    def means(self, thickness: float) -> tuple[float, float]:
        """Mean over `thickness`, mm, and the bending at the surface that has the same moment: the linear part of the profile.

        >>> share = StressProfile([(0.0, 1.0), (10.0, -1.0)], of="number")
        >>> [round(value, 9) for value in share.means(10.0)]
        [0.0, 1.0]
        """
        edges = np.unique(np.append(np.minimum(self.kinks, thickness), thickness))
        low, high = edges[:-1], edges[1:]
        first, last = self(low), self(high)
        middle = 0.5 * (first + last)
        membrane = float(((high - low) * middle).sum()) / thickness
        # Simpson's rule is exact for the stress times its lever, a parabola on each part
        lever = [0.5 * thickness - x for x in (low, 0.5 * (low + high), high)]
        moment = ((high - low) / 6.0 * (first * lever[0] + 4.0 * middle * lever[1] + last * lever[2])).sum()
        return membrane, float(6.0 * moment) / thickness**2
