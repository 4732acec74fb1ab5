"""Measured rates themselves as a law."""

from __future__ import annotations

import math
from collections.abc import Sequence
from dataclasses import dataclass
from functools import cached_property
from typing import Any, ClassVar

import numpy as np

from vivid_anvil.ground.checks import FloatArray
from vivid_anvil.ground.errors import InputError, inside
from vivid_anvil.materials.laws.law import LAWS, GrowthLaw
from vivid_anvil.units import coherent
from vivid_anvil.writing.working import put_in


@LAWS.add("table")
@dataclass(frozen=True, kw_only=True, repr=False)
class TableLaw(GrowthLaw):
    """Straight lines in log da/dN over log ΔK through `points`, pairs (range of K, rate); no growth below, an error above.

    Parameters
    ----------
    name : str
        What it is called in messages, tables and reports.
    threshold : ThresholdField, default 0.0
        Range of K at or below which nothing grows, MPa√mm or text; or a form of `THRESHOLDS`.
    r_ratio : float, optional
        Ratio of the smallest to the largest stress, R, -.
    valid_r : tuple[float, float], optional
        Lowest and highest R, -, of the tests; by default those of the form.
    scatter : str, default "not stated"
        Where in the scatter of the tests it lies: "mean", "upper bound", or in words.
    source : str, default "not stated"
        Where the numbers come from, in words.
    points : sequence of tuple[any, any]
        Rows of range of K and rate, with units, rising.

    Raises
    ------
    InputError
        For an argument of another kind, unit or range; the message says which.

    Examples
    --------
    >>> law = TableLaw(name="t", points=[("10 MPa√m", "1e-5 mm/cycle"), ("20 MPa√m", "1e-4 mm/cycle")])
    >>> f"{float(law.growth('14.142136 MPa√m')):.4g}"
    '3.162e-05'
    """

    points: Sequence[tuple[Any, Any]]
    formula: ClassVar[str] = "da/dN by straight lines in log da/dN over log ΔK"
    holds: ClassVar[str] = "the R of the tests; an error above the last point"
    method: ClassVar[str] = "measured"
    form_knows_r: ClassVar[bool] = False

    def check(self, where: str) -> None:
        """InputError for points that are no rising table."""
        place = inside(where, "points")
        try:
            rows = [(coherent(k, "stress intensity", place), coherent(v, "growth rate", place)) for k, v in self.points]
        except (TypeError, ValueError) as error:
            if isinstance(error, InputError):
                raise
            raise InputError(place, repr(self.points)[:60], "pairs of range and rate") from None
        ranges, rates = np.array(rows, dtype=np.float64).reshape(-1, 2).T
        rising = (np.diff(ranges) > 0.0).all() and (np.diff(rates) >= 0.0).all()
        if ranges.size < 2 or not (rising and (rates > 0.0).all() and ranges[0] > 0.0):
            expected = "two or more, ranges of K rising, rates above 0 that do not fall"
            raise InputError(place, f"{ranges.size} points", expected)
        object.__setattr__(self, "points", tuple((float(k), float(v)) for k, v in rows))

    @property
    def one_power(self) -> bool:
        """It is many."""
        return False

    @cached_property
    def _columns(self) -> FloatArray:
        return np.array(self.points, dtype=np.float64).T

    @property
    def tested(self) -> tuple[float, float]:
        """First and last range, MPa√mm."""
        ranges = self._columns[0]
        return float(ranges[0]), float(ranges[-1])

    @property
    def slope(self) -> float:
        """The mean slope from the first point to the last."""
        ranges, rates = np.log(self._columns)
        return float((rates[-1] - rates[0]) / (ranges[-1] - ranges[0]))

    @property
    def row(self) -> tuple[float, ...]:
        """How many points, logarithms of their ranges, and of their rates."""
        ranges, rates = self._columns
        return (float(ranges.size), *np.log(ranges).tolist(), *np.log(rates).tolist())

    @staticmethod
    def grown(p: Any, threshold: float, dk: float, r: float, a: float) -> float:
        """Growth of one cycle, mm; nan above the last point."""
        size = int(p[0])
        x = math.log(dk)
        if x < p[1] - 1e-12:
            return 0.0
        if x > p[size] + 1e-12:
            return math.nan
        i = 1
        while i < size - 1 and x > p[1 + i]:
            i += 1
        x0, x1, y0, y1 = p[i], p[1 + i], p[size + i], p[1 + size + i]
        return math.exp(y0 + (y1 - y0) * (x - x0) / (x1 - x0))

    def numbers_in(self, dk: float, r: float, threshold: float) -> str:
        """The rate: read off the lines."""
        return put_in(float(self.growth(dk, r)))

    def __repr__(self) -> str:
        low, high = self.tested
        return f"<GrowthLaw {self.name}: table of {len(self.points)} points, {low:.4g} to {high:.4g} MPa√mm>"
