"""A crack whose geometry factors stand in a table of the user's own."""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass
from typing import ClassVar

import numpy as np
from numpy.typing import ArrayLike

from vivid_anvil.ground.checks import FloatArray, real_number
from vivid_anvil.ground.errors import InputError, inside
from vivid_anvil.shapes.shape import SHAPES, OneSizeShape
from vivid_anvil.units import LENGTHS, STRESS, coherent, number, opened, sound
from vivid_anvil.writing.working import put_in


@sound
@SHAPES.add("table")
@dataclass(frozen=True, repr=False)
class TableCrack(OneSizeShape):
    """A crack whose Y(a) is a table, straight between its points; nothing beyond them. No net section: toughness alone limits.

    Parameters
    ----------
    points : sequence of tuple[float or str, float]
        Rows of size, mm, and Y, -.
    source : str, default "own table"
        Where the numbers come from, in words.

    Raises
    ------
    InputError
        For an argument of another kind, unit or range; the message says which.

    Examples
    --------
    >>> crack = TableCrack([("0.5 mm", 1.12), ("2 mm", 1.2), ("5 mm", 1.45), ("10 mm", 2.1)])
    >>> round(float(crack.geometry_factor(3.5)), 4), crack.largest_size
    (1.325, 10.0)
    """

    points: Sequence[tuple[float | str, float]]
    source: str = "own table"  # type: ignore[misc]
    size_means: ClassVar[str] = "size as in the table"
    factor_formula: ClassVar[str] = "Y by straight lines between the points of the table"

    def __post_init__(self) -> None:
        where = "crack of a table, points"
        if len(self.points) < 2 or any(len(row) != 2 for row in self.points):
            raise InputError(where, f"{len(self.points)} rows", "two or more rows of a size and its Y")
        rows = tuple(
            (coherent(size, "length", where), real_number(inside(where, f"Y of row {i}"), y))
            for i, (size, y) in enumerate(self.points, 1)
        )
        sizes, factors = np.array(rows, dtype=np.float64).T
        bad = np.flatnonzero(np.concatenate([[sizes[0] <= 0.0], np.diff(sizes) <= 0.0]) | (factors <= 0.0))
        if bad.size:
            row = int(bad[0])
            found = f"row {row + 1}: {number(sizes[row])} mm with Y = {number(factors[row])}"
            raise InputError(
                where, found, "sizes above 0 that rise from row to row, Y above 0", "Sort the rows by size."
            )
        object.__setattr__(self, "points", rows)

    @property
    def _columns(self) -> tuple[FloatArray, FloatArray]:
        sizes, factors = np.array(self.points, dtype=np.float64).T
        return sizes, factors

    @property
    def kinks(self) -> tuple[float, ...]:
        """Those of the points, mm."""
        return tuple(float(size) for size, _ in self.points)

    @property
    def width(self) -> float:
        """The last size of the table, mm."""
        return self.largest_size

    @property
    def smallest_size(self) -> float:
        """The first size of the table, mm."""
        return float(self.points[0][0])

    @property
    def largest_size(self) -> float:
        """The last size of the table, mm."""
        return float(self.points[-1][0])

    @opened(size=LENGTHS)
    def geometry_factor(self, size: ArrayLike) -> FloatArray:
        """Y, -; InputError outside the table."""
        sizes = np.asarray(size, dtype=np.float64)
        slack = 1e-9 * self.largest_size
        if not ((sizes >= self.smallest_size - slack) & (sizes <= self.largest_size + slack)).all():
            raise InputError(
                "crack of a table, size",
                f"{float(sizes.min()):g} to {float(sizes.max()):g} mm",
                f"sizes of the table, {self.smallest_size:g} to {self.largest_size:g} mm",
                "Add points; nothing is extrapolated.",
            )
        return np.asarray(np.interp(sizes, *self._columns))

    @opened(size=LENGTHS, stress=STRESS)
    def net_section_stress(self, size: ArrayLike, stress: float) -> FloatArray:
        """0: a table knows no section."""
        return np.zeros_like(np.asarray(size, dtype=np.float64)) * stress

    def factor_numbers(self, size: float) -> str:
        """The two points and the place between them."""
        sizes, factors = self._columns
        i = int(np.clip(np.searchsorted(sizes, size), 1, sizes.size - 1))
        low, high = float(factors[i - 1]), float(factors[i])
        share = (size - float(sizes[i - 1])) / float(sizes[i] - sizes[i - 1])
        return f"{put_in(low)} + ({put_in(high)} - {put_in(low)}) × {put_in(share)}"
