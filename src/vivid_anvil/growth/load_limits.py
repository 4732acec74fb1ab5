"""Critical size as a function of load: the size at which each limit is met when the peak stress is larger or smaller."""

from __future__ import annotations

import math
from collections.abc import Sequence
from dataclasses import dataclass

import numpy as np

from vivid_anvil.ground.checks import positive_number
from vivid_anvil.growth.limits import all_margins, critical_depth, critical_sizes, margins_of
from vivid_anvil.growth.per_repeat import way_of
from vivid_anvil.growth.result import GrowthResult
from vivid_anvil.shapes.shape import Margin, OneSizeShape, Shape
from vivid_anvil.units import many, opened
from vivid_anvil.writing.table import Column, Table

STRIDE = 16  # places of a way between looks at the limits
SCALES = (0.6, 0.8, 1.0, 1.2, 1.4, 1.6, 2.0)


@dataclass(frozen=True, slots=True)
class LoadLimit:
    """The limiting size, mm, at `scale` times the peak stress, which is `peak_stress`, MPa, and what limits it there."""

    scale: float
    peak_stress: float
    size: float
    governed_by: str


def limits_table(limits: Sequence[LoadLimit]) -> Table:
    """A row a load factor: peak stress, limiting size, what governs it."""
    columns = (
        Column("load times", [limit.scale for limit in limits], style="number"),
        Column("peak stress", [limit.peak_stress for limit in limits], of="stress"),
        Column("limiting size", [limit.size for limit in limits], of="length"),
        Column("governed by", [limit.governed_by for limit in limits]),
    )
    return Table("Limiting size at other loads", columns, "limits over load")


@opened(scales=many(above=0.0))
def limits_over_load(result: GrowthResult, scales: Sequence[float] = SCALES) -> list[LoadLimit]:
    """The limiting size at each of `scales` times the peak stress of the duty cycle.

    A crack with two sizes is taken at the aspect that it has on its way, and beyond the end of its way at the last.

    Parameters
    ----------
    result : GrowthResult
        The result that is asked.
    scales : array_like, optional
        Factors on the peak stress, above 0, -.

    Returns
    -------
    list[LoadLimit]
        One limit a factor.

    Raises
    ------
    InputError
        For an argument of another kind, unit or range; the message says which.

    Examples
    --------
    >>> limits_over_load(result.growths[0], [1.0])  # of the demo: run_study(read_study('larkfell.toml'))
    [LoadLimit(scale=1.0, peak_stress=161.55545, size=9.088287468326385, governed_by='net-section yield')]
    """
    limits = []
    for scale in np.atleast_1d(np.asarray(scales, dtype=np.float64)).tolist():
        factor = positive_number("limits over load, scale", scale, "a factor above 0")
        limits.append(_limit_at(result, factor, *way_of(result.crack, result.drive).at_peak))
    return limits


def _limit_at(result: GrowthResult, scale: float, shape: Shape, peak: float) -> LoadLimit:
    crack, peak = result.crack, scale * peak
    rest = (crack.hot_spot.material, peak, crack.limits, crack.youngs_modulus, crack.always)
    if isinstance(shape, OneSizeShape):
        sizes = critical_sizes(
            shape,
            crack.hot_spot.material,
            peak,
            chosen=crack.stop_size,
            limits=crack.limits,
            youngs_modulus=crack.youngs_modulus,
            always=crack.always,
            largest=crack.deepest,
        )
        return LoadLimit(scale, peak, sizes.limiting, sizes.governed_by)
    margins = all_margins(shape, margins_of(shape, *rest), crack.stop_size, weighed=crack.always is not None)
    if result.half_lengths is None or result.sizes.size < 2:
        a, c = crack.sizes
        return LoadLimit(scale, peak, *critical_depth(margins, shape.deepest, a / c))
    depths, along = result.sizes, result.half_lengths
    first = float(depths[0]), float(along[0])
    if (name := _used(margins, *first)) is not None:
        return LoadLimit(scale, peak, first[0], name)
    before = 0
    for i in (*range(STRIDE, depths.size - 1, STRIDE), depths.size - 1):
        if _used(margins, float(depths[i]), float(along[i])) is not None:
            for j in range(before + 1, i + 1):
                if (name := _used(margins, float(depths[j]), float(along[j]))) is not None:
                    return LoadLimit(scale, peak, _between(margins[name], result, j), name)
        before = i
    aspect = float(depths[-1] / along[-1])
    return LoadLimit(scale, peak, *critical_depth(margins, shape.deepest, aspect))


def _used(margins: dict[str, Margin], a: float, c: float) -> str | None:
    return next((name for name, margin in margins.items() if margin(a, c) <= 0.0), None)


def _between(margin: Margin, result: GrowthResult, i: int) -> float:
    """Where the margin is used up between two points of the way, found by halving in log size."""
    low, high = math.log(result.sizes[i - 1]), math.log(result.sizes[i])
    for _ in range(50):
        middle = 0.5 * (low + high)
        depth = math.exp(middle)
        low, high = (low, middle) if margin(depth, result.half_length(depth)) <= 0.0 else (middle, high)
    return float(np.exp(high))
