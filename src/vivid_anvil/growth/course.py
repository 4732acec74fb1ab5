"""What a crack sees on its way: the range of ΔK that the cycles visit on the law, and K and aspect along the sizes."""

from __future__ import annotations

from dataclasses import dataclass

import numpy as np

from vivid_anvil.ground.checks import FloatArray, read_only
from vivid_anvil.growth.growth_numbers import Growth
from vivid_anvil.units import opened
from vivid_anvil.writing.table import Column, Table

PLACES = 40


@dataclass(frozen=True, eq=False, repr=False)
class VisitedLaw:
    """The growth law with the cycles on it: share of the growth by range of K, MPa√mm, at the initial size and at the end.

    `edges` are borders of classes of ΔK, `shares` rows (at the start, at the end) of the share of growth in each class.
    """

    result: Growth
    edges: FloatArray
    shares: FloatArray

    def table(self) -> Table:
        """One row a class of ΔK."""
        columns = (
            Column("from", self.edges[:-1].tolist(), of="stress intensity"),
            Column("to", self.edges[1:].tolist(), of="stress intensity"),
            Column("share at start", self.shares[0].tolist()),
            Column("share at end", self.shares[1].tolist()),
        )
        return Table(f"Growth on the law {self.result.crack.law.name}", columns, "growth on the law")

    def __repr__(self) -> str:
        return f"<VisitedLaw {self.result.crack.law.name}: ΔK {self.edges[0]:.3g} to {self.edges[-1]:.3g} MPa√mm>"


@dataclass(frozen=True, eq=False, repr=False)
class CrackCourse:
    """K along the way of a crack: sizes, mm, largest K, MPa√mm, at the end of the depth and (two sizes) at the surface; aspect.

    `surface_k` and `aspects` (a/c) are None for a crack with one size.
    """

    result: Growth
    sizes: FloatArray
    depth_k: FloatArray
    surface_k: FloatArray | None
    aspects: FloatArray | None

    def __repr__(self) -> str:
        return f"<CrackCourse {self.result.crack.hot_spot.name}: {self.sizes[0]:g} to {self.sizes[-1]:g} mm>"


@opened()
def visited_law(result: Growth) -> VisitedLaw:
    """Where on its law the cycles of a repeat grow the crack, at the start and at the end of its way."""
    ends = (result.crack.initial_size, result.final_size)
    reach = [result.depth_cycles(size)[0] for size in ends]
    high = max(float(one.max(initial=1.0)) for one in reach) * 1.0001
    low = max(min(float(one[one > 0.0].min(initial=high)) for one in reach), high / 1000.0)
    edges = np.geomspace(min(low, 0.5 * high), high, PLACES + 1)
    shares = []
    for size, ranges in zip(ends, reach, strict=True):
        grown = result.cycle_growth(size)
        grown = np.where(np.isfinite(grown), grown, 0.0)
        counts, _ = np.histogram(ranges, bins=edges, weights=grown)
        shares.append(counts / grown.sum() if grown.sum() > 0.0 else counts)
    return VisitedLaw(result, read_only(edges), read_only(np.array(shares)))


@opened()
def crack_course(result: Growth) -> CrackCourse:
    """Largest K and aspect along the way of a crack.

    Parameters
    ----------
    result : Growth
        The result that is asked.

    Returns
    -------
    CrackCourse
        Sizes, K at both ends and aspect on the way.

    Raises
    ------
    InputError
        For an argument of another kind, unit or range; the message says which.

    Examples
    --------
    >>> crack_course(result.growths[0])  # of the demo: run_study(read_study('larkfell.toml'))
    <CrackCourse weld toe at the grip head: 1 to 9.08829 mm>
    """
    sizes, peak, crack = result.sizes, result.drive.peak_stress, result.crack
    ways = [result.sizes_at(size) for size in sizes.tolist()]
    scales = np.array([crack.shape.scales(*at) for at in ways])
    ends = scales * peak + np.array([crack.always_at(*at) for at in ways])
    if result.half_lengths is None:
        return CrackCourse(result, sizes, ends[:, 0], None, None)
    return CrackCourse(result, sizes, ends[:, 0], ends[:, 1], sizes / result.half_lengths)
