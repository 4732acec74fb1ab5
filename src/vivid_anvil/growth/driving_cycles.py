"""What drives a crack through one repeat: the ranges of nominal stress, ready for growth at any size.

Growth per repeat at size a: G(a) = C (Y sqrt(π a))^m Σ n w over the cycles that grow the crack at this K per stress, w = ΔS^m
for a power law. The cycles are sorted once, with running sums, so that G costs one search whatever their number.
A K that is always
there, of residual stress, moves largest and smallest K of every cycle alike: R changes, and with it what of a cycle counts.
"""

from __future__ import annotations

import math
from collections.abc import Callable
from dataclasses import dataclass
from functools import cached_property
from typing import NamedTuple, cast

import numpy as np
from numpy.typing import ArrayLike

from vivid_anvil.counting import Cycles
from vivid_anvil.counting.cycles import PANEL
from vivid_anvil.counting.panels import halved, panels_of
from vivid_anvil.ground import checks
from vivid_anvil.ground.checks import FloatArray, IntArray, read_only
from vivid_anvil.ground.errors import InputError
from vivid_anvil.growth._kernels import growth_sums, growth_sums_of_two
from vivid_anvil.growth.density_sums import Ramps, ramps, whole_panels
from vivid_anvil.materials import GrowthLaw
from vivid_anvil.shapes.shape import OneSizeShape
from vivid_anvil.units import LENGTH, opened

COUNTED_PARTS = {
    "tensile": "only the part of a cycle in which the stress is tensile opens the crack and counts",
    "full": "the whole range counts, as where tensile residual stress holds the crack open; of cycles that stay in compression "
    "only by laws that do not ask for R",
}


BENDING = ("bending at the largest", "bending at the smallest")  # columns of cycles with a second stress, MPa
FINER = 4  # halvings of the panels of a density: a life with a threshold is right to some 4e-7
_HALVINGS = 52  # of the interval of log size: to the last digit


@dataclass(frozen=True, eq=False)
class GrowthDrive:
    """Cycles of one repeat that count for a crack, the smallest range first.

    `ranges`, MPa, is the part that counts; `maximum` and `minimum`, MPa, are the nominal stress; `per_repeat` is how
    often each happens, `event` which event it is of; `peak_stress`, MPa, is the largest nominal stress. `counted_part` is one of
    `COUNTED_PARTS`. `bending`, MPa, shape (n, 2), is a second stress at the largest and at the smallest one, whose K is added.
    `panel` is the column `PANEL` of cycles that stand for a density.
    """

    ranges: FloatArray
    maximum: FloatArray
    minimum: FloatArray
    per_repeat: FloatArray
    event: IntArray
    peak_stress: float
    counted_part: str = "tensile"
    bending: FloatArray | None = None
    panel: FloatArray | None = None

    @property
    def peak_bending(self) -> float:
        """The largest bending stress, MPa; 0 without."""
        return 0.0 if self.bending is None else float(self.bending.max(initial=0.0))

    @property
    def rows(self) -> FloatArray:
        """Rows (largest, smallest stress, count[, bending at both]) for a loop, the smallest whole range first."""
        columns = [self.maximum, self.minimum, self.per_repeat]
        if self.bending is not None:
            columns += [self.bending[:, 0], self.bending[:, 1]]
        order = np.argsort(self.maximum - self.minimum, kind="stable")
        return np.column_stack(columns)[order]

    @property
    def lowest(self) -> float:
        """Stress, MPa, or K below which nothing of a cycle counts."""
        return lowest_of(self.counted_part)

    @cached_property
    def r_ratios(self) -> FloatArray:
        """R of what counts: (maximum - counted range) / maximum; 0 where nothing is tensile."""
        opened = self.maximum > 0.0
        high = np.where(opened, self.maximum, 1.0)
        return read_only(np.where(opened, np.minimum((high - self.ranges) / high, 1.0 - 1e-12), 0.0))

    def counts_shut(self, law: GrowthLaw) -> bool:
        """Whether cycles that stay in compression grow the crack by `law`: with all of R = 0, or not at all."""
        return counts_shut(self.counted_part, law)

    def counted(self, law: GrowthLaw) -> FloatArray:
        """The ranges, MPa, that count by `law`."""
        return self.ranges if self.counts_shut(law) else np.where(self.maximum > 0.0, self.ranges, 0.0)

    def k_cycles(
        self, law: GrowthLaw, scale: float, always: float = 0.0, bending_scale: float = 0.0
    ) -> tuple[FloatArray, FloatArray]:
        """Range of K that counts by `law`, MPa√mm, and R of each cycle, at K per MPa `scale`, √mm, with a K `always` there.

        `bending_scale` is the K per MPa of the bending stress.
        """
        if always == 0.0 and self.bending is None:
            return scale * self.counted(law), self.r_ratios
        one, other = scale * self.maximum + always, scale * self.minimum + always
        if self.bending is not None:
            one, other = one + bending_scale * self.bending[:, 0], other + bending_scale * self.bending[:, 1]
        high, low = np.maximum(one, other), np.minimum(one, other)
        delta = np.maximum(high - np.maximum(low, self.lowest), 0.0)
        opened = high > 0.0
        high = np.where(opened, high, 1.0)
        delta = delta if self.counts_shut(law) else np.where(opened, delta, 0.0)
        return delta, np.where(opened, np.minimum((high - delta) / high, 1.0 - 1e-12), 0.0)

    def sums(self, law: GrowthLaw) -> Sums | None:
        """Σ n weight over the cycles that grow the crack, by the K per MPa that they need; None where K and cycle don't part."""
        found = None if self.bending is not None else law.separate(self.counted(law), self.r_ratios)
        if found is None:
            return None
        weights = self.per_repeat * found.weight
        panels = whole_panels(self.panel, self.event, np.asarray(np.isfinite(found.least) & (found.least > 0.0)))
        alone = np.ones(weights.size, dtype=bool)
        alone[panels.ravel()] = False
        density = ramps(panels, found.least, weights)
        return Sums(*_stairs(found.least, weights), *_stairs(found.least[alone], weights[alone]), density)

    def threshold_range(self, scale: ArrayLike, law: GrowthLaw, size: float = math.inf) -> FloatArray:
        """Range, MPa, above which a cycle with the R of the largest one grows a crack whose K per MPa is `scale`, √mm."""
        r = self.r_ratios[-1] if self.ranges.size else 0.0
        return np.asarray(float(law.threshold_at(r, size)) / np.asarray(scale, dtype=np.float64))


def lowest_of(counted_part: str) -> float:
    """Stress, MPa, or K below which nothing of a cycle counts: 0 where only tension does, else -inf."""
    return 0.0 if counted_part == "tensile" else -math.inf


def counts_shut(counted_part: str, law: GrowthLaw) -> bool:
    """Whether cycles that stay in compression count, at R = 0: where the whole range does and the law does not ask for R."""
    return counted_part == "full" and not law.form_knows_r


class Sums(NamedTuple):
    """Growth in one repeat is C scale^m times `weights` at the number of `least`, √mm, rising, that lie below the scale.

    `alone_least` and `alone_weights` are those of cycles that stand for themselves, `density` is of the others.
    """

    least: FloatArray
    weights: FloatArray
    alone_least: FloatArray
    alone_weights: FloatArray
    density: Ramps | None

    def at(self, scales: FloatArray) -> FloatArray:
        """Σ n weight of what grows the crack at a K per MPa, √mm."""
        single = self.alone_weights[np.searchsorted(self.alone_least, scales, side="left")]
        return np.asarray(single if self.density is None else single + self.density.at(scales))


def _stairs(least: FloatArray, weights: FloatArray) -> tuple[FloatArray, FloatArray]:
    """Both in the order of the K per MPa that is needed, the weights summed."""
    order = np.argsort(least, kind="stable")
    return least[order], np.concatenate([[0.0], np.cumsum(weights[order])])


@opened()
def growth_drive(repeat: Cycles, counted_part: str = "tensile") -> GrowthDrive:
    """The cycles of one repeat as a crack sees them; `counted_part` is one of `COUNTED_PARTS`.

    Cycles that stand for a density of ranges are laid so fine that it matters little whether one of them is above the threshold.
    Cycles with the columns `BENDING` have a second stress, MPa, of bending, at the largest and at the smallest of the first.
    """
    checks.one_of("counted_part", counted_part, tuple(COUNTED_PARTS))
    for _ in range(FINER):
        repeat = halved(repeat, panels_of(repeat))
    high, low = repeat.maximum, repeat.minimum
    lowest = lowest_of(counted_part)
    ranges = np.maximum(high, lowest) - np.maximum(low, lowest)
    order = np.argsort(ranges, kind="stable")
    return GrowthDrive(
        ranges=read_only(ranges[order]),
        maximum=read_only(high[order]),
        minimum=read_only(low[order]),
        per_repeat=read_only(repeat.per_repeat[order]),
        event=read_only(repeat.event[order]),
        peak_stress=float(high.max(initial=0.0)) if repeat.highest is None else repeat.highest,
        counted_part=counted_part,
        bending=None if BENDING[0] not in repeat.columns else read_only(_bending(repeat)[order]),
        panel=None if PANEL not in repeat.columns else read_only(repeat.columns[PANEL][order]),
    )


def _bending(repeat: Cycles) -> FloatArray:
    missing = [name for name in BENDING if name not in repeat.columns]
    if missing:
        raise InputError("growth, cycles", f"no column {missing[0]}", f"both of {BENDING[0]} and {BENDING[1]}, MPa")
    return np.column_stack([repeat.columns[name] for name in BENDING])


Always = Callable[[ArrayLike], FloatArray]


@opened()
def growth_per_repeat(
    drive: GrowthDrive, shape: OneSizeShape, law: GrowthLaw, always: Always | None = None
) -> Callable[[ArrayLike], FloatArray]:
    """The function G(a): growth in one repeat, mm, of a crack of size a, mm; `always` gives the K that is always there."""
    growth = growth_at_scale(drive, law) if always is None else growth_with_k(drive, law)
    if drive.bending is None:
        if always is None:
            return lambda size: growth(_scale(shape, size), size)
        return lambda size: growth(_scale(shape, size), size, always(size))
    none: Always = lambda size: np.zeros(np.shape(size))  # noqa: E731
    there = none if always is None else always
    if not shape.bends:
        bending = _scale_of_bending(shape)
        return lambda size: growth(_scale(shape, size), size, there(size), bending(size))
    pure, bent = (cast(OneSizeShape, shape.under(share)) for share in (0.0, 1.0))
    return lambda size: growth(_scale(pure, size), size, there(size), _scale(bent, size))


def _scale_of_bending(shape: OneSizeShape) -> Callable[[ArrayLike], FloatArray]:
    """K per MPa of bending at sizes, √mm, of a shape that knows only what bending is at most."""

    def scale(size: ArrayLike) -> FloatArray:
        sizes = np.asarray(size, dtype=np.float64)
        found = [shape.scales_of_bending(float(one))[0] for one in sizes.ravel()]
        return np.array(found).reshape(sizes.shape)

    return scale


def growth_at_scale(drive: GrowthDrive, law: GrowthLaw) -> Callable[..., FloatArray]:
    """The function of K per MPa, √mm, and crack size, mm, that gives the growth in one repeat, mm; inf is fracture.

    Where K and cycle part, the sums over the cycles are had in advance; other laws go through all cycles.
    """
    sums = drive.sums(law)
    if sums is None:
        return growth_with_k(drive, law)

    def growth(scale: ArrayLike, size: ArrayLike) -> FloatArray:  # noqa: ARG001 (the law does not know the size)
        scales = np.asarray(scale, dtype=np.float64)
        return np.asarray(law.constant * scales**law.slope * sums.at(scales))

    return growth


def growth_with_k(drive: GrowthDrive, law: GrowthLaw) -> Callable[..., FloatArray]:
    """The same with a third argument, the K that is always there, MPa√mm, and a fourth, the K per MPa of bending, √mm."""
    rows = np.ascontiguousarray(drive.rows)
    least = law.limit.least(drive.r_ratios[drive.ranges > 0.0])
    fixed = (*law.handed, rows, drive.lowest, drive.counts_shut(law))
    one_stress, least_of_all = drive.bending is None, law.limit.least_of_all

    def growth(scale: ArrayLike, size: ArrayLike, always: ArrayLike = 0.0, bending: ArrayLike = 0.0) -> FloatArray:
        given = np.broadcast_arrays(*(np.asarray(one, dtype=np.float64) for one in (scale, size, always, bending)))
        out = np.empty(given[0].size)
        scales, sizes, there, bent = (np.array(one, copy=True).reshape(-1) for one in given)
        if one_stress:
            growth_sums(*fixed, least if not there.any() else least_of_all, scales, there, sizes, out)
        else:
            growth_sums_of_two(*fixed, scales, bent, there, sizes, out)
        if np.isnan(out).any():
            raise law.beyond("a range of stress intensity")
        return out.reshape(given[0].shape)

    return growth


Pair = tuple[float, float]


def growth_of_pair(drive: GrowthDrive, law: GrowthLaw) -> Callable[[Pair, Pair, Pair, Pair], Pair]:
    """The same for two ends at once, as numbers: K per MPa, sizes, K that is always there, K per MPa of bending."""
    rows = np.ascontiguousarray(drive.rows)
    least = law.limit.least(drive.r_ratios[drive.ranges > 0.0])
    fixed = (*law.handed, rows, drive.lowest, drive.counts_shut(law))
    one_stress, least_of_all = drive.bending is None, law.limit.least_of_all
    scales, sizes, there, bent, out = (np.empty(2) for _ in range(5))

    def growth(scale: Pair, size: Pair, always: Pair, bending: Pair) -> Pair:
        scales[:], sizes[:], there[:], bent[:] = scale, size, always, bending
        if one_stress:
            bound = least if always[0] == 0.0 and always[1] == 0.0 else least_of_all
            growth_sums(*fixed, bound, scales, there, sizes, out)
        else:
            growth_sums_of_two(*fixed, scales, bent, there, sizes, out)
        first, second = float(out[0]), float(out[1])
        if first != first or second != second:
            raise law.beyond("a range of stress intensity")
        return first, second

    return growth


@opened(start=LENGTH, end=LENGTH)
def threshold_sizes(drive: GrowthDrive, shape: OneSizeShape, law: GrowthLaw, start: float, end: float) -> FloatArray:
    """Sizes, mm, between `start` and `end` at which one more cycle passes the threshold: the kinks of G(a).

    K per stress must rise with the size between the two, as it does for the shapes here. Empty for laws in which K and cycle do
    not part.
    """
    sums = drive.sums(law)
    if sums is None:
        return np.empty(0)
    lowest, highest = _scale(shape, np.array([start, end]))
    needed = np.unique(sums.alone_least[(sums.alone_least > lowest) & (sums.alone_least < highest)])
    low, high = np.full(needed.shape, np.log(start)), np.full(needed.shape, np.log(end))
    for _ in range(_HALVINGS if needed.size else 0):
        middle = 0.5 * (low + high)
        grows = _scale(shape, np.exp(middle)) > needed
        low, high = np.where(grows, low, middle), np.where(grows, middle, high)
    return np.asarray(np.exp(high))


def _scale(shape: OneSizeShape, size: ArrayLike) -> FloatArray:
    """K for a stress of 1 MPa."""
    return shape.geometry_factor(size) * np.sqrt(np.pi * np.asarray(size, dtype=np.float64))
