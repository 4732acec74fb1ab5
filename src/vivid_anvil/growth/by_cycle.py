"""Growth cycle by cycle in the real order, each from the size that the one before it left; larger cycles may be remembered.

In: cycles in order (largest and smallest nominal stress, MPa), a shape of one size, a law. Out: size after each pass, and at
which cycle it stopped. How larger cycles are remembered is in `memories`. The
geometry factor is read from an even grid over the size, so fine that it is right to 1e-8.
"""

from __future__ import annotations

import math
from collections.abc import Callable
from dataclasses import dataclass

import numpy as np
from numpy.typing import ArrayLike

from vivid_anvil.ground.checks import FloatArray
from vivid_anvil.ground.errors import InputError
from vivid_anvil.growth._kernels import first_bad_row, march, march_power, what_counts
from vivid_anvil.growth.drive import counts_shut, lowest_of
from vivid_anvil.growth.memories import NoRetardation, Retardation
from vivid_anvil.growth.memories.retardation import KEPT
from vivid_anvil.materials import GrowthLaw
from vivid_anvil.shapes.shape import CrackShape
from vivid_anvil.units import LENGTH, LENGTH_OR_NONE, many, number, opened

GRID = 1 << 16
BLOCK = 1 << 13  # cycles at a time: what stays in the cache


@dataclass(frozen=True, eq=False)
class CycleGrowth:
    """Size, mm, after each pass (the start first), cycles gone through, where it stopped: (pass, piece, time, row) or None.

    `memory`, shape (1, n), is what larger cycles left; `error` a bound on the share by which reading Y off a grid moves a rate.
    """

    sizes: FloatArray
    cycles: int
    size: float
    stopped_at: tuple[int, int, int, int] | None
    memory: FloatArray
    error: float


@opened(cycles=many("stress", only_units=True), start=LENGTH, stop=LENGTH_OR_NONE)
def grow_by_cycle(
    cycles: ArrayLike,
    shape: CrackShape,
    law: GrowthLaw,
    start: float,
    *,
    passes: int = 1,
    stop: float | None = None,
    pieces: ArrayLike | None = None,
    counted_part: str = "tensile",
    retardation: Retardation | None = None,
    always: Callable[[ArrayLike], FloatArray] | None = None,
    begun: int = 0,
    memory: FloatArray | None = None,
) -> CycleGrowth:
    """Growth from `start`, mm, through `passes` of rows (largest, smallest stress, MPa[, count]) in their order.

    `stop`, mm, is where it ends, by default the limit of the shape; `pieces`, rows (first, last, occurrences, repetitions),
    are the parts of a pass: occurrences below 1 happen in the pass in which their sum is whole. `always` gives the K, MPa√mm,
    that residual stress adds at a size. To go on where another call ended, `begun` are the passes done, `memory` what it left.
    Raises InputError for a size outside the shape, rows of another form, and a law that ends before the load does.

    >>> from vivid_anvil.materials import ParisLaw
    >>> from vivid_anvil.shapes import CentreCrack
    >>> law = ParisLaw(name="steel", rate=5.21e-13, slope=3.0)
    >>> found = grow_by_cycle([[100.0, 0.0], [150.0, 0.0]], CentreCrack(100.0), law, 5.0, passes=1000)
    >>> found.cycles, round(found.size, 4)
    (2000, 5.1478)
    """
    rows = _rows(cycles)
    largest = shape.largest_size if stop is None else min(stop, shape.largest_size)
    if not 0.0 < start < largest:
        raise InputError(
            "growth by cycle, start",
            f"{number(start)} mm",
            f"a size above 0 and below {number(largest)} mm, where it stops",
        )
    how = NoRetardation() if retardation is None else retardation
    rows, lowest = how.prepared(rows, lowest_of(counted_part))
    parts = np.asarray([[0, rows.shape[0], 1, 1]] if pieces is None else pieces, dtype=np.float64)
    kept = np.zeros((1, KEPT)) if memory is None else memory.copy()
    at, place, sizes = np.array([start]), np.zeros(5, dtype=np.int64), np.full((passes + 1, 1), np.nan)
    sizes[0, 0] = start
    rest = (np.array([largest]), begun, at, place, sizes)
    ends = (start, largest)
    shut = counts_shut(counted_part, law)
    powers = weights_of(law, rows, lowest, shut) if how.slows_the_rate and always is None else None
    if powers is not None:
        anchors, error = _power_anchors(law, shape, *ends)
        march_power(*powers, *how.handed, kept, rows, parts, anchors, math.inf, *rest)
    else:
        low = rows[:, 1] if always is not None else np.maximum(rows[:, 1], lowest)
        table = np.column_stack([rows[:, 0], low, rows[:, 2] if rows.shape[1] > 2 else np.ones(len(rows))])
        least = lowest if always is not None else -math.inf
        anchors, error = _anchors(law, shape, always, *ends)
        march(*law.handed, *how.handed, kept, table, parts, anchors, least, shut, math.inf, *rest)
    size = float(at[0])
    if math.isnan(size):
        raise law.beyond("a range of stress intensity")
    n, piece, time, row, done = (int(one) for one in place)
    stopped_at = (n, piece, time, row) if not size < largest else None
    return CycleGrowth(sizes[: n + 1, 0], done, min(size, largest), stopped_at, kept, error)


def _anchors(
    law: GrowthLaw, shape: CrackShape, always: Callable[[ArrayLike], FloatArray] | None, start: float, largest: float
) -> tuple[FloatArray, float]:
    """Y and the K of residual stress on an even grid of sizes, with their slopes; and the error of the grid."""
    grid = np.linspace(start, largest, GRID)
    factors = np.asarray(shape.geometry_factor(grid), dtype=np.float64)
    constant = np.zeros(GRID) if always is None else np.asarray(always(grid), dtype=np.float64)
    return _with_slopes(grid, factors, constant), law.slope * _off_the_grid(shape, grid, factors)


def _power_anchors(law: GrowthLaw, shape: CrackShape, start: float, largest: float) -> tuple[FloatArray, float]:
    """K per MPa and C times its power m on a grid of the logarithm of the size, with their slopes; and the error of the grid."""
    grid = np.geomspace(start, largest, GRID)
    grid[0], grid[-1] = start, largest
    factors = np.asarray(shape.geometry_factor(grid), dtype=np.float64)
    scales = factors * np.sqrt(np.pi * grid)
    powers = law.constant * scales**law.slope
    return _with_slopes(grid, scales, powers), law.slope * _off_the_grid(shape, grid, factors)


def _with_slopes(grid: FloatArray, *values: FloatArray) -> FloatArray:
    """Rows: place, then each value with its slope to the next row."""
    widths = np.diff(grid)
    columns = [grid]
    for one in values:
        slopes = np.diff(one) / widths
        columns += [one, np.append(slopes, slopes[-1])]
    return np.column_stack(columns)


def _off_the_grid(shape: CrackShape, grid: FloatArray, factors: FloatArray) -> float:
    """The largest share by which Y halfway between places of the grid is off, looked at every 64th."""
    at = slice(0, GRID - 1, 64)
    exact = np.asarray(shape.geometry_factor(0.5 * (grid[:-1] + grid[1:])[at]), dtype=np.float64)
    return float(np.abs(0.5 * (factors[:-1] + factors[1:])[at] / exact - 1.0).max())


def weights_of(law: GrowthLaw, rows: FloatArray, lowest: float, shut: bool) -> tuple[FloatArray, FloatArray] | None:
    """For each cycle its growth over C (K per MPa)^m, and the K per MPa, √mm, that it must exceed; None where they don't part."""
    weight, least = np.empty(rows.shape[0]), np.empty(rows.shape[0])
    span, r = np.empty(BLOCK), np.empty(BLOCK)
    for start in range(0, rows.shape[0], BLOCK):
        size = min(BLOCK, rows.shape[0] - start)
        what_counts(rows, start, lowest, shut, span[:size], r[:size])
        found = law.separate(span[:size], r[:size])
        if found is None:
            return None
        weight[start : start + size], least[start : start + size] = found
    if rows.shape[1] > 2:
        weight *= rows[:, 2]
    return weight, least


def _rows(cycles: ArrayLike) -> FloatArray:
    """Rows (largest, smallest) or with a count, checked; the caller's own array where it can be."""
    given = np.ascontiguousarray(cycles, dtype=np.float64)
    if given.ndim != 2 or given.shape[1] not in (2, 3) or not given.shape[0]:
        raise InputError(
            "growth by cycle, cycles",
            f"shape {given.shape}",
            "rows (largest, smallest stress) or with a count, one or more",
        )
    bad = first_bad_row(given)
    if bad >= 0:
        raise InputError(
            f"growth by cycle, cycles, row {bad + 1}",
            f"{given[bad].tolist()}",
            "finite numbers, the largest stress not below the smallest",
        )
    return given
