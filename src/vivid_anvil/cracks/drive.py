"""What drives a crack through one repeat: the ranges of nominal stress, ready for growth at any size.

Growth per repeat at size a: G(a) = C (Y sqrt(π a))^m Σ n ΔS^m over the ranges with Y ΔS sqrt(π a) above the threshold.
The ranges are sorted once, with running sums, so that G costs one search whatever the number of cycles.
"""

from __future__ import annotations

from collections.abc import Callable
from dataclasses import dataclass

import numpy as np
from numpy.typing import ArrayLike

from vivid_anvil import checks
from vivid_anvil.checks import FloatArray, IntArray, read_only
from vivid_anvil.cracks.shapes import CrackShape
from vivid_anvil.materials import GrowthLaw
from vivid_anvil.stress import RepeatCycles

COUNTED_PARTS = {
    "tensile": "only the part of a cycle in which the stress is tensile opens the crack and counts",
    "full": "the whole range counts, as where tensile residual stress holds the crack open",
}


_HALVINGS = 52  # of the interval of log size: to the last digit


@dataclass(frozen=True, eq=False)
class GrowthDrive:
    """Cycles of one repeat that count for a crack, the smallest range first.

    `ranges`, MPa, is the part that counts; `maximum` and `minimum`, MPa, are the nominal stress; `per_repeat` is how
    often each happens, `event` which event it is of; `peak_stress`, MPa, is the largest nominal stress.
    """

    ranges: FloatArray
    maximum: FloatArray
    minimum: FloatArray
    per_repeat: FloatArray
    event: IntArray
    peak_stress: float

    @property
    def largest_range(self) -> float:
        """Largest range that counts, MPa; 0 where there is no cycle."""
        return float(self.ranges.max(initial=0.0))

    def threshold_range(self, shape: CrackShape, law: GrowthLaw, size: ArrayLike) -> FloatArray:
        """Range, MPa, above which a cycle grows a crack of `size`, mm."""
        return np.asarray(law.threshold / _scale(shape, size))


def growth_drive(repeat: RepeatCycles, counted_part: str = "tensile") -> GrowthDrive:
    """The cycles of one repeat as a crack sees them; `counted_part` is one of `COUNTED_PARTS`."""
    checks.one_of("counted_part", counted_part, tuple(COUNTED_PARTS))
    high, low = repeat.cycles.maximum, repeat.cycles.minimum
    lowest = 0.0 if counted_part == "tensile" else -np.inf
    ranges = np.maximum(high, lowest) - np.maximum(low, lowest)
    order = np.argsort(ranges, kind="stable")
    return GrowthDrive(
        ranges=read_only(ranges[order]),
        maximum=read_only(high[order]),
        minimum=read_only(low[order]),
        per_repeat=read_only(repeat.per_repeat[order]),
        event=read_only(repeat.event[order]),
        peak_stress=repeat.highest,
    )


def growth_per_repeat(drive: GrowthDrive, shape: CrackShape, law: GrowthLaw) -> Callable[[ArrayLike], FloatArray]:
    """The function G(a): growth in one repeat, mm, of a crack of size a, mm."""
    weights = drive.per_repeat * drive.ranges**law.slope
    from_here_on = np.concatenate([np.cumsum(weights[::-1])[::-1], [0.0]])

    def growth(size: ArrayLike) -> FloatArray:
        scale = _scale(shape, size)
        first = np.searchsorted(drive.ranges, law.threshold / scale, side="right")
        return np.asarray(law.constant * scale**law.slope * from_here_on[first])

    return growth


def threshold_sizes(drive: GrowthDrive, shape: CrackShape, law: GrowthLaw, start: float, end: float) -> FloatArray:
    """Sizes, mm, between `start` and `end` at which one more range passes the threshold: the kinks of G(a).

    K per stress must rise with the size between the two, as it does for the shapes here.
    """
    highest, lowest = drive.threshold_range(shape, law, np.array([start, end]))
    ranges = np.unique(drive.ranges[(drive.ranges > lowest) & (drive.ranges < highest)])
    low, high = np.full(ranges.shape, np.log(start)), np.full(ranges.shape, np.log(end))
    for _ in range(_HALVINGS if ranges.size else 0):
        middle = 0.5 * (low + high)
        grows = drive.threshold_range(shape, law, np.exp(middle)) < ranges
        low, high = np.where(grows, low, middle), np.where(grows, middle, high)
    return np.asarray(np.exp(high[::-1]))


def _scale(shape: CrackShape, size: ArrayLike) -> FloatArray:
    """K for a stress of 1 MPa."""
    return shape.geometry_factor(size) * np.sqrt(np.pi * np.asarray(size, dtype=np.float64))
