"""Measured growth of cracks: sizes against cycles from a test piece, or growth rates against ΔK, from arrays or a file.

In: cycles and crack sizes, mm, with the piece and its load; or ranges of K, MPa√mm, and rates, mm/cycle. Out: `GrowthTests`.
Rates from sizes: secant, and the incremental polynomial over seven points (ASTM E647, appendix X1).
"""

from __future__ import annotations

from collections.abc import Callable
from dataclasses import dataclass
from pathlib import Path
from typing import Any

import numpy as np
from numpy.typing import ArrayLike

from vivid_anvil.ground import checks
from vivid_anvil.ground.checks import FloatArray, read_only
from vivid_anvil.ground.errors import InputError, inside, listed
from vivid_anvil.shapes.solutions import compact_tension, middle_tension, three_point_bend
from vivid_anvil.units import DIMENSIONS, FORCE, LENGTH, LENGTHS, coherent, factor, many, one, opened, sound
from vivid_anvil.writing.known_table import KnownTable, read_known
from vivid_anvil.writing.read_table import column_numbers

PIECES: dict[str, Callable[[float, float, float, ArrayLike], FloatArray]] = {
    "compact tension": compact_tension,
    "three-point bend": three_point_bend,
    "middle tension": middle_tension,
}
METHODS = ("secant", "polynomial")
AROUND = 3  # points on each side of the incremental polynomial
COLUMNS = {
    "stress intensity range": "stress intensity",
    "growth rate": "growth rate",
    "crack size": "length",
    "cycles": "",
}


@sound
@dataclass(frozen=True, kw_only=True, eq=False, repr=False)
class GrowthTests:
    """Growth rates, mm/cycle, at ranges of K, MPa√mm, both shape (n,), of tests at one R; how they were had.

    >>> GrowthTests(name="plate", ranges=[300.0, 600.0, 900.0], rates=[1e-5, 8e-5, 3e-4], r_ratio=0.1)
    <GrowthTests plate: 3 rates, ΔK 300 to 900 MPa√mm, R = 0.1>
    """

    name: str
    ranges: FloatArray
    rates: FloatArray
    r_ratio: float
    how: str = "rates as given"
    source: str = "not stated"

    def __post_init__(self) -> None:
        where = f"growth tests {self.name}"
        ranges, rates = (np.array(checks.as_numbers(where, one)) for one in (self.ranges, self.rates))
        if ranges.ndim != 1 or ranges.shape != rates.shape or ranges.size < 3:
            raise InputError(where, f"{ranges.size} ranges and {rates.size} rates", "as many of both, three or more")
        for name, values in (("range of K", ranges), ("growth rate", rates)):
            bad = np.flatnonzero(~((values > 0.0) & np.isfinite(values)))
            if bad.size:
                raise InputError(
                    inside(where, f"row {bad[0] + 1}"), f"a {name} of {values[bad[0]]:g}", "values above 0"
                )
        if not checks.real_number(inside(where, "r_ratio"), self.r_ratio) < 1.0:
            raise InputError(inside(where, "r_ratio"), f"{self.r_ratio:g}", "minimum / maximum below 1")
        object.__setattr__(self, "ranges", read_only(ranges))
        object.__setattr__(self, "rates", read_only(rates))

    def __repr__(self) -> str:
        low, high = self.ranges.min(), self.ranges.max()
        return f"<GrowthTests {self.name}: {self.ranges.size} rates, ΔK {low:.4g} to {high:.4g} MPa√mm, R = {self.r_ratio:g}>"


@opened(cycles=many(at_least=0.0), sizes=LENGTHS)
def rates_by_secant(cycles: ArrayLike, sizes: ArrayLike) -> tuple[FloatArray, FloatArray]:
    """Sizes, mm, halfway between successive readings, and growth rates, mm/cycle, shape (n - 1,) (ASTM E647, X1.1).

    >>> rates_by_secant([0.0, 1000.0, 3000.0], [10.0, 10.1, 10.5])
    (array([10.05, 10.3 ]), array([0.0001, 0.0002]))
    """
    n, a = _readings(cycles, sizes, 2)
    return 0.5 * (a[1:] + a[:-1]), np.diff(a) / np.diff(n)


@opened(cycles=many(at_least=0.0), sizes=LENGTHS)
def rates_by_polynomial(cycles: ArrayLike, sizes: ArrayLike) -> tuple[FloatArray, FloatArray]:
    """Sizes, mm, and growth rates, mm/cycle, of parabolas through seven successive readings, shape (n - 6,) (ASTM E647, X1.2).

    >>> n = np.arange(0.0, 10e3, 1e3)
    >>> found = rates_by_polynomial(n, 10.0 + 1e-4 * n + 1e-9 * n**2)
    >>> round(float(found[0][0]), 4), round(float(found[1][0]), 9)
    (10.309, 0.000106)
    """
    n, a = _readings(cycles, sizes, 2 * AROUND + 1)
    fitted, rates = [], []
    for i in range(AROUND, n.size - AROUND):
        some = slice(i - AROUND, i + AROUND + 1)
        middle, half = 0.5 * (n[some][0] + n[some][-1]), 0.5 * (n[some][-1] - n[some][0])
        z = (n[some] - middle) / half
        b = np.polynomial.polynomial.polyfit(z, a[some], 2)
        at = (n[i] - middle) / half
        fitted.append(b[0] + b[1] * at + b[2] * at**2)
        rates.append((b[1] + 2.0 * b[2] * at) / half)
    return np.array(fitted), np.array(rates)


@opened(
    cycles=many(at_least=0.0), sizes=LENGTHS, force_range=FORCE, thickness=LENGTH, width=LENGTH, r_ratio=one(below=1.0)
)
def growth_of_piece(
    cycles: ArrayLike,
    sizes: ArrayLike,
    *,
    piece: str,
    force_range: float | str,
    thickness: float | str,
    width: float | str,
    r_ratio: float,
    method: str = "polynomial",
    name: str = "test piece",
    source: str = "not stated",
) -> GrowthTests:
    """Rates at ΔK from readings of one piece (one of `PIECES`) under a range of force, by one of `METHODS`.

    Raises InputError for an unknown piece or method, too few readings, and readings that do not rise.

    >>> n = np.arange(8) * 1e4
    >>> found = growth_of_piece(n, 20.0 + 1e-5 * n, piece="compact tension", force_range="4 kN", thickness="12.5 mm",
    ...                        width="50 mm", r_ratio=0.1, method="secant")
    >>> found
    <GrowthTests test piece: 7 rates, ΔK 330.3 to 341 MPa√mm, R = 0.1>
    """
    where = f"growth tests {name}"
    checks.one_of(inside(where, "piece"), piece, tuple(PIECES))
    checks.one_of(inside(where, "method"), method, METHODS)
    force = checks.positive_number(
        where, coherent(force_range, "force", inside(where, "force_range")), "a force range above 0"
    )
    lengths = [
        checks.positive_number(where, coherent(one, "length", inside(where, f"{key}")), "a length above 0")
        for key, one in (("thickness", thickness), ("width", width))
    ]
    at, rates = rates_by_secant(cycles, sizes) if method == "secant" else rates_by_polynomial(cycles, sizes)
    reach = 0.5 * lengths[1] if piece == "middle tension" else lengths[1]
    if not (at < 0.95 * reach).all():
        raise InputError(
            where, f"a size of {at.max():.5g} mm", f"sizes below {0.95 * reach:.5g} mm", "Is the width right?"
        )
    low = 0.2 * lengths[1] if piece == "compact tension" else 0.0
    if not (at >= low).all():
        raise InputError(where, f"a size of {at.min():.5g} mm", f"sizes from {low:.5g} mm, where the solution starts")
    ranges = PIECES[piece](force, lengths[0], lengths[1], at)
    keep = rates > 0.0
    how = f"{method} of {np.size(sizes)} readings on a {piece} piece"
    return GrowthTests(name=name, ranges=ranges[keep], rates=rates[keep], r_ratio=r_ratio, how=how, source=source)


def _readings(cycles: ArrayLike, sizes: ArrayLike, least: int) -> tuple[FloatArray, FloatArray]:
    n, a = (np.asarray(one, dtype=np.float64) for one in (cycles, sizes))
    where = "growth readings"
    if n.ndim != 1 or n.shape != a.shape or n.size < least:
        raise InputError(where, f"{n.size} cycles and {a.size} sizes", f"as many of both, at least {least}")
    bad = np.flatnonzero(~(np.diff(n) > 0.0))
    if bad.size:
        raise InputError(
            inside(where, f"row {bad[0] + 2}"), f"{n[bad[0] + 1]:g} cycles after {n[bad[0]]:g}", "cycles that rise"
        )
    falls = np.flatnonzero(np.diff(a) < 0.0)
    if falls.size > 0.2 * a.size:
        raise InputError(
            inside(where, f"row {falls[0] + 2}"), f"{falls.size} sizes below the one before", "a crack that grows"
        )
    return n, a


@opened()
def read_growth_tests(
    path: str | Path,
    *,
    r_ratio: float | None = None,
    name: str | None = None,
    sheet: str | int = 0,
    block: int | str | None = None,
    **piece: Any,
) -> GrowthTests:
    """The crack growth tests in a CSV or Excel file.

    Columns `stress intensity range [..]` and `growth rate [..]`, or `cycles` and `crack size [..]` with what `growth_of_piece`
    needs. R is a number for all rows.

    Parameters
    ----------
    path : str or path
        The file.
    r_ratio : float, optional
        Ratio of the smallest to the largest stress, R, -.
    name : str, optional
        What it is called in messages, tables and reports.
    sheet : str or int, default 0
        Sheet of a workbook, by its name or its number from 0.
    block : int or str, optional
        Which of several blocks of columns side by side, from 1.
    **piece : any
        Further settings of `growth_of_piece`.

    Returns
    -------
    GrowthTests
        The tests.

    Raises
    ------
    InputError
        With file, row and column, for what is missing or cannot be read.

    Examples
    --------
    >>> piece = {"piece": "compact tension", "force_range": "4.5 kN", "thickness": "12.5 mm", "width": "50 mm"}
    >>> read_growth_tests("growth_readings.csv", r_ratio=0.1, **piece)
    <GrowthTests growth_readings: 77 rates, ΔK 260.9 to 838.8 MPa√mm, R = 0.1>
    """
    table = read_known(path, tuple(COLUMNS), what="a file of growth tests", sheet=sheet, block=block)
    columns, where = {head.column for head in table.headings}, table.where
    if r_ratio is None:
        raise InputError(where, "no R of the tests", "minimum / maximum of the load", "State r_ratio.")
    label = name or Path(path).stem
    if {"stress intensity range", "growth rate"} <= set(columns):
        ranges, rates = (_values(table, key) for key in ("stress intensity range", "growth rate"))
        return GrowthTests(name=label, ranges=ranges, rates=rates, r_ratio=r_ratio, source=where)
    if not {"cycles", "crack size"} <= set(columns):
        expected = "'stress intensity range [..]' and 'growth rate [..]', or 'cycles' and 'crack size [..]'"
        raise InputError(where, f"the columns {listed(columns)}", expected)
    missing = [key for key in ("piece", "force_range", "thickness", "width") if piece.get(key) is None]
    if missing:
        raise InputError(where, f"sizes against cycles without {listed(missing)}", "the piece and its load")
    n, a = (_values(table, key) for key in ("cycles", "crack size"))
    return growth_of_piece(n, a, r_ratio=r_ratio, name=label, source=where, **piece)


def _values(table: KnownTable, key: str) -> FloatArray:
    cell = next(head.cell for head in table.headings if head.column == key)
    place = f"{table.where}, column {cell!r}"
    numbers = column_numbers(table.frame[key], place)
    if not COLUMNS[key]:
        return numbers
    unit = table.unit(key)
    if not unit:
        raise InputError(place, "no unit", f"a unit in brackets, such as '{key} [{_EXAMPLES[key]}]'")
    return np.asarray(factor(unit, DIMENSIONS[COLUMNS[key]], place) * numbers)


_EXAMPLES = {"stress intensity range": "MPa√m", "growth rate": "mm/cycle", "crack size": "mm"}
