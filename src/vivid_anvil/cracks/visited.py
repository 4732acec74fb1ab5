"""What a crack sees on its way: the range of ΔK that the cycles visit on the law, and K and aspect along the sizes."""

from __future__ import annotations

from dataclasses import dataclass
from typing import Any

import numpy as np

from vivid_anvil.checks import FloatArray, read_only
from vivid_anvil.cracks.growth import GrowthResult

PLACES = 40


@dataclass(frozen=True, eq=False, repr=False)
class VisitedLaw:
    """The growth law with the cycles on it: share of the growth by range of K, MPa√mm, at the initial size and at the end.

    `edges` are borders of classes of ΔK, `shares` rows (at the start, at the end) of the share of growth in each class.
    """

    result: GrowthResult
    edges: FloatArray
    shares: FloatArray

    def rows(self) -> list[dict[str, Any]]:
        """One row a class of ΔK."""
        return [
            {
                "from_MPa_sqrt_mm": low,
                "to_MPa_sqrt_mm": high,
                "share_at_start": float(first),
                "share_at_end": float(last),
            }
            for low, high, first, last in zip(self.edges[:-1], self.edges[1:], *self.shares, strict=True)
        ]

    def __repr__(self) -> str:
        return f"<VisitedLaw {self.result.crack.law.name}: ΔK {self.edges[0]:.3g} to {self.edges[-1]:.3g} MPa√mm>"


@dataclass(frozen=True, eq=False, repr=False)
class CrackCourse:
    """K along the way of a crack: sizes, mm, largest K, MPa√mm, at the end of the depth and (two sizes) at the surface; aspect.

    `surface_k` and `aspects` (a/c) are None for a crack with one size.
    """

    result: GrowthResult
    sizes: FloatArray
    depth_k: FloatArray
    surface_k: FloatArray | None
    aspects: FloatArray | None

    def __repr__(self) -> str:
        return f"<CrackCourse {self.result.crack.hot_spot.name}: {self.sizes[0]:g} to {self.sizes[-1]:g} mm>"


def visited_law(result: GrowthResult) -> VisitedLaw:
    """Where on its law the cycles of a repeat grow the crack, at the start and at the end of its way."""
    drive, law = result.drive, result.crack.law
    ends = (result.crack.initial_size, result.final_size)
    reach = [result.depth_scale(size) * drive.ranges for size in ends]
    high = max(float(one.max(initial=1.0)) for one in reach) * 1.0001
    low = max(min(float(one[one > 0.0].min(initial=high)) for one in reach), high / 1000.0)
    edges = np.geomspace(min(low, 0.5 * high), high, PLACES + 1)
    shares = []
    for size, ranges in zip(ends, reach, strict=True):
        grown = np.where(drive.maximum > 0.0, drive.per_repeat * law.growth(ranges, drive.r_ratios, size), 0.0)
        grown = np.where(np.isfinite(grown), grown, 0.0)
        counts, _ = np.histogram(ranges, bins=edges, weights=grown)
        shares.append(counts / grown.sum() if grown.sum() > 0.0 else counts)
    return VisitedLaw(result, read_only(edges), read_only(np.array(shares)))


def crack_course(result: GrowthResult) -> CrackCourse:
    """Largest K and aspect along the way of a crack."""
    sizes, peak = result.sizes, result.drive.peak_stress
    depth = np.array([result.depth_scale(float(size)) for size in sizes]) * peak
    if result.half_lengths is None:
        return CrackCourse(result, sizes, depth, None, None)
    shape = result.crack.two_sizes
    along = [shape.factors(float(a), float(c))[1] for a, c in zip(sizes, result.half_lengths, strict=True)]
    surface = np.array(along) * np.sqrt(np.pi * sizes) * peak
    return CrackCourse(result, sizes, depth, surface, sizes / result.half_lengths)
