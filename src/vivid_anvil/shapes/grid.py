"""A crack with two sizes whose Y stand in tables over depth and aspect."""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass
from typing import ClassVar

import numpy as np

from vivid_anvil.ground import checks
from vivid_anvil.ground.errors import InputError
from vivid_anvil.shapes.shape import TwoSizeShape
from vivid_anvil.units import LENGTH, STRESS, opened, sound


@sound
@dataclass(frozen=True, kw_only=True, repr=False)
class GridCrack(TwoSizeShape):
    """A crack with two sizes whose Y stand in tables over depth and aspect, straight between; nothing beyond them.

    `depths`, mm, shape (n,), and `aspects` a/c, shape (k,), rise; `deep` and `along`, shape (n, k), are Y of K = Y S √(π a) at
    the end of the depth and of the length, as from finite-element contours.

    Parameters
    ----------
    depths : sequence of float
        Depths, mm, rising.
    aspects : sequence of float
        Aspects a/c, -, rising.
    deep : sequence of Sequence[float]
        Y at the end of the depth, -, shape (depths, aspects).
    along : sequence of Sequence[float]
        Y at the end of the length, -, shape (depths, aspects).
    source : str, default "own table"
        Whose table it is.

    Raises
    ------
    InputError
        For an argument of another kind, unit or range; the message says which.

    Examples
    --------
    >>> crack = GridCrack(depths=[1.0, 4.0], aspects=[0.2, 1.0], deep=[[1.1, 0.7], [1.3, 0.8]], along=[[0.6, 0.8], [0.8, 0.9]])
    >>> [round(y, 4) for y in crack.factors(2.5, 5.0)]
    [1.0312, 0.7562]
    """

    depths: Sequence[float]
    aspects: Sequence[float]
    deep: Sequence[Sequence[float]]
    along: Sequence[Sequence[float]]
    kind: ClassVar[str] = "grid"
    size_means: ClassVar[str] = "depth"
    source: str = "own table"  # type: ignore[misc]

    def __post_init__(self) -> None:
        shape = (len(self.depths), len(self.aspects))
        for name, values in (("depths", self.depths), ("aspects", self.aspects)):
            rising = checks.as_numbers(f"crack of a grid, {name}", values)
            if rising.ndim != 1 or rising.size < 2 or not ((np.diff(rising) > 0.0).all() and rising[0] > 0.0):
                raise InputError(f"crack of a grid, {name}", f"{rising.tolist()}", "two or more that rise, above 0")
        for name, table in (("deep", self.deep), ("along", self.along)):
            found = checks.as_numbers(f"crack of a grid, {name}", table)
            if found.shape != shape or not (np.isfinite(found) & (found > 0.0)).all():
                raise InputError(f"crack of a grid, {name}", f"shape {found.shape}", f"values above 0 of shape {shape}")

    @property
    def aspects_known(self) -> tuple[float, float]:
        """First and last aspect of the table."""
        return float(self.aspects[0]), float(self.aspects[-1])

    @property
    def smallest_size(self) -> float:
        """The first depth, mm."""
        return float(self.depths[0])

    @property
    def deepest(self) -> float:
        """The last depth, mm."""
        return float(self.depths[-1])

    @property
    def longest(self) -> float:
        """The last depth at the smallest aspect, mm."""
        return float(self.depths[-1]) / float(self.aspects[0])

    @opened(a=LENGTH, c=LENGTH)
    def factors(self, a: float, c: float) -> tuple[float, float]:
        """Y at both ends; InputError outside the table."""
        places: list[float] = []
        for name, value, values in (("depth", a, self.depths), ("a/c", a / c, self.aspects)):
            low, high = float(values[0]), float(values[-1])
            if not low * (1.0 - 1e-9) <= value <= high * (1.0 + 1e-9):
                raise InputError(
                    f"crack of a grid, {name}",
                    f"{value:.5g}",
                    f"from {low:g} to {high:g}, where the table has values",
                    "Extend the table.",
                )
            place = float(np.interp(value, values, np.arange(len(values))))
            places.append(min(int(place), len(values) - 2))
            places.append(place - places[-1])
        i, x, j, y = int(places[0]), places[1], int(places[2]), places[3]
        factors = []
        for table in (self.deep, self.along):
            cell = np.asarray(table, dtype=np.float64)[i : i + 2, j : j + 2]
            factors.append(float(np.array([1.0 - x, x]) @ cell @ np.array([1.0 - y, y])))
        return factors[0], factors[1]

    @opened(a=LENGTH, c=LENGTH, stress=STRESS)
    def collapse_stress(self, a: float, c: float, stress: float) -> float:
        """The stress itself: a table knows no section, so toughness, sizes and wall limit."""
        return stress
