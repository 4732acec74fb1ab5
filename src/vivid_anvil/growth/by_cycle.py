"""Growth cycle by cycle in the real order, each from the size that the one before it left; larger cycles may be remembered.

In: cycles in order (largest and smallest nominal stress, MPa), a shape of one size, a law. Out: size after each pass, and at
which cycle it stopped. Methods: Wheeler, O. E. (1972), J. Basic Eng. 94, 181-186; Willenborg, J. et al. (1971),
AFFDL-TM-71-1-FBR, in the general form of Gallagher, J. P. and Hughes, T. F. (1974), AFFDL-TR-74-27; zones after Irwin. The
geometry factor is read from an even grid over the size, so fine that it is right to 1e-8.
"""

from __future__ import annotations

import math
from collections.abc import Callable
from dataclasses import dataclass
from typing import Any

import numpy as np
from numpy.typing import ArrayLike

from vivid_anvil.ground import checks
from vivid_anvil.ground.checks import FloatArray
from vivid_anvil.ground.errors import InputError
from vivid_anvil.growth._kernels import NO_MEMORY, WHEELER, WILLENBORG, first_bad_row, march, march_power, power_weights
from vivid_anvil.materials import GrowthLaw
from vivid_anvil.materials.laws._kernels import closure_of
from vivid_anvil.shapes.one_size import CrackShape
from vivid_anvil.units import LENGTH, LENGTH_OR_NONE, Coherent, OptionalCoherent, many, number, one, opened

GRID = 1 << 16
ZONES = {"plane stress": 1.0 / math.pi, "plane strain": 1.0 / (3.0 * math.pi)}
_ALPHA, _PEAK = one(at_least=1.0, at_most=3.0), one(above=0.0, below=1.0)
KINDS = {"none": NO_MEMORY, "wheeler": WHEELER, "willenborg": WILLENBORG, "constant closure": NO_MEMORY}


@dataclass(frozen=True, kw_only=True)
class Retardation:
    """How a larger cycle slows those after it. "none" is the default everywhere: retardation lengthens the life.

    wheeler: the rate times (r_p / (X - a))^`exponent` within the zone X of the largest; willenborg: a residual K with
    `shut_off` ratio and `threshold_maximum`, MPa√mm; constant closure: K opens at f(R) of the spectrum's largest and smallest
    stress (Newman 1984, `closure_alpha`, `closure_peak`). Zones r_p = β (K_max / yield_strength)², β by `constraint`.
    """

    kind: str = "none"
    yield_strength: OptionalCoherent = OptionalCoherent("stress", above=0.0)
    constraint: str = "plane strain"
    exponent: float = 1.0
    shut_off: float = 3.0
    threshold_maximum: Coherent = Coherent("stress intensity", at_least=0.0, default=0.0)
    closure_alpha: float = 2.0
    closure_peak: float = 0.3

    def __post_init__(self) -> None:
        checks.one_of("retardation, kind", self.kind, tuple(KINDS))
        checks.one_of("retardation, constraint", self.constraint, tuple(ZONES))
        if self.kind in ("wheeler", "willenborg"):
            checks.positive_number("retardation, yield_strength", self.yield_strength, "a yield strength, MPa")
        if not checks.real_number("retardation, exponent", self.exponent) >= 0.0:
            raise InputError("retardation, exponent", f"{self.exponent:g}", "an exponent of 0 or more")
        if not checks.real_number("retardation, shut_off", self.shut_off) > 1.0:
            raise InputError("retardation, shut_off", f"{self.shut_off:g}", "a ratio above 1")
        _ALPHA.checked(self.closure_alpha, "retardation, closure_alpha")
        _PEAK.checked(self.closure_peak, "retardation, closure_peak")

    @property
    def packed(self) -> FloatArray:
        """The numbers for the loop."""
        rest = (self.exponent, 0.0) if self.kind == "wheeler" else (self.shut_off, self.threshold_maximum)
        return np.array([ZONES[self.constraint], self.yield_strength or 1.0, *rest])

    @opened(k_max=one("stress intensity", at_least=0.0))
    def zone(self, k_max: float) -> float:
        """Size of the plastic zone, mm, at `k_max`, MPa√mm.

        >>> round(Retardation(kind="wheeler", yield_strength=350.0).zone(700.0), 4)
        0.4244
        """
        return float(ZONES[self.constraint] * (k_max / (self.yield_strength or math.inf)) ** 2)


@dataclass(frozen=True, eq=False)
class CycleGrowth:
    """Size, mm, after each pass (the start first), cycles gone through, where it stopped: (pass, piece, time, row) or None.

    `memory`, shape (1, 4), is what larger cycles left; `error` a bound on the share by which reading Y off a grid moves a rate.
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

    >>> from vivid_anvil.shapes.one_size import CentreCrack
    >>> law = GrowthLaw(name="steel", rate=5.21e-13, slope=3.0)
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
    how = Retardation() if retardation is None else retardation
    lowest = 0.0 if counted_part == "tensile" else -math.inf
    if how.kind == "constant closure":
        opens = max(lowest, opening_stress(rows, how, lowest))
        rows, lowest = np.maximum(rows, [opens, opens, 0.0][: rows.shape[1]]), opens
    parts = np.asarray([[0, rows.shape[0], 1, 1]] if pieces is None else pieces, dtype=np.float64)
    sizes = np.full(passes + 1, np.nan)
    sizes[0] = start
    kept = np.zeros((1, 4)) if memory is None else memory.copy()
    rest = (KINDS[how.kind], how.packed, kept, start, largest, begun, sizes)
    quick = law.is_power_at_each_r and how.kind != "willenborg" and always is None
    if quick:
        (n, piece, time, row, done, size), error = _march_power(law, shape, (rows, lowest), parts, rest)
    else:
        (n, piece, time, row, done, size), error = _march(law, shape, (rows, lowest), parts, always, rest)
    if math.isnan(size):
        raise InputError(
            f"growth law {law.name}",
            "a range of stress intensity above the last point",
            "points for all ranges up to the limiting size",
            "Add a point from tests; nothing is extrapolated.",
        )
    at = None if row < 0 else (int(n), int(piece), int(time), int(row))
    return CycleGrowth(sizes[: int(n) + 1], int(done), float(min(size, largest)), at, kept, error)


def _march(
    law: GrowthLaw,
    shape: CrackShape,
    cycles: tuple[FloatArray, float],
    parts: FloatArray,
    always: Callable[[ArrayLike], FloatArray] | None,
    rest: tuple[Any, ...],
) -> tuple[Any, float]:
    """Any law, with Y and the K of residual stress from an even grid of sizes; and the error of the grid."""
    start, largest = rest[3], rest[4]
    grid = np.linspace(start, largest, GRID)
    factors = np.asarray(shape.geometry_factor(grid), dtype=np.float64)
    constant = np.zeros(GRID) if always is None else np.asarray(always(grid), dtype=np.float64)
    even = np.array([start, grid[1] - grid[0]])
    rows, lowest = cycles
    low = rows[:, 1] if always is not None else np.maximum(rows[:, 1], lowest)
    rows = np.column_stack([rows[:, 0], low, rows[:, 2] if rows.shape[1] > 2 else np.ones(len(rows))])
    least = lowest if always is not None else -math.inf
    error = law.slope * _off_the_grid(shape, grid, factors)
    return march(*law.codes, law.packed, rows, parts, factors, constant, least, even, *rest), error


def _march_power(
    law: GrowthLaw, shape: CrackShape, cycles: tuple[FloatArray, float], parts: FloatArray, rest: tuple[Any, ...]
) -> tuple[Any, float]:
    """Laws that are a power of K: what depends on the cycle is had once, what depends on the size from a grid of its log."""
    start, largest = rest[3], rest[4]
    grid = np.geomspace(start, largest, GRID)
    grid[0], grid[-1] = start, largest
    factors = np.asarray(shape.geometry_factor(grid), dtype=np.float64)
    scales = factors * np.sqrt(np.pi * grid)
    weight, least = weights_of(law, *cycles)
    powers = law.constant * scales**law.slope
    error = law.slope * _off_the_grid(shape, grid, factors)
    return march_power(weight, least, cycles[0], parts, grid, scales, powers, *rest), error


def _off_the_grid(shape: CrackShape, grid: FloatArray, factors: FloatArray) -> float:
    """The largest share by which Y halfway between places of the grid is off, looked at every 64th."""
    at = slice(0, GRID - 1, 64)
    exact = np.asarray(shape.geometry_factor(0.5 * (grid[:-1] + grid[1:])[at]), dtype=np.float64)
    return float(np.abs(0.5 * (factors[:-1] + factors[1:])[at] / exact - 1.0).max())


def weights_of(law: GrowthLaw, rows: FloatArray, lowest: float = -math.inf) -> tuple[FloatArray, FloatArray]:
    """For each cycle its growth over C (K per MPa)^m, and the K per MPa, √mm, that it must exceed to grow the crack."""
    weight, least = np.empty(rows.shape[0]), np.empty(rows.shape[0])
    power_weights(*law.codes, law.packed, rows, lowest, weight, least)
    return weight, least


@opened(rows=many("stress"), lowest=one("stress", may_be_infinite=True))
def opening_stress(rows: FloatArray, how: Retardation, lowest: float = -math.inf) -> float:
    """Stress, MPa, at which the crack opens under a spectrum: f(R) of its largest and smallest stress times the largest.

    >>> rows = np.array([[100.0, 0.0], [60.0, 30.0]])
    >>> round(opening_stress(rows, Retardation(kind="constant closure")), 3)
    32.566
    """
    high, low = float(rows[:, 0].max()), max(float(rows[:, 1].min()), lowest)
    return float(closure_of(low / high, how.closure_alpha, how.closure_peak)) * high


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
