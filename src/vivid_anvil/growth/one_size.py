"""The way of a crack with one size: a quadrature over the size, exact between the sizes at which one more cycle grows it."""

from __future__ import annotations

import dataclasses
import math
from collections.abc import Callable
from functools import cached_property, partial
from typing import Any, cast

import numpy as np

from vivid_anvil.ground.checks import FloatArray
from vivid_anvil.growth.driving_cycles import growth_per_repeat, threshold_sizes
from vivid_anvil.growth.fracture_cycle import stress_at_limit
from vivid_anvil.growth.integrate import GrowthTable, integrate_growth, size_after
from vivid_anvil.growth.limits import CriticalSizes, critical_sizes, margins_of
from vivid_anvil.growth.way import AT_REST, IN_TIME, Ended, Leg, Way
from vivid_anvil.materials import GrowthLaw
from vivid_anvil.shapes.shape import Margin, OneSizeShape

ARREST_LOOKS = 257  # sizes at which growth is looked at where it may end on the way
# Laws that go through all cycles at every size: as far as their jumps at the thresholds allow.
LOOSE = {"tolerance": 1e-6, "most_steps": 4096}
PerRepeat = Callable[..., FloatArray]


class OneSizeWay(Way):
    """By quadrature."""

    @property
    def shape(self) -> OneSizeShape:
        """Of one size."""
        return cast(OneSizeShape, self.crack.shape)

    @cached_property
    def limits(self) -> CriticalSizes:
        """All limiting sizes, that at which the law says fracture among them."""
        crack = self.crack
        shape, peak = self.at_peak
        critical = critical_sizes(
            cast(OneSizeShape, shape),
            crack.hot_spot.material,
            peak,
            chosen=crack.stop_size,
            limits=crack.limits,
            youngs_modulus=crack.youngs_modulus,
            always=crack.always,
            largest=crack.deepest,
        )
        start, end = crack.initial_size, critical.limiting
        laws = [law for law in (crack.law, crack.later_law) if law is not None and law.fracture_toughness is not None]
        broken = [_fracture_size(self.growth(law), start, end) for law in laws if start < end]
        return dataclasses.replace(critical, law=min((size for size in broken if size is not None), default=None))

    def growth(self, law: GrowthLaw) -> PerRepeat:
        """Growth in one repeat, mm, as a function of the size."""
        return growth_per_repeat(self.drive, self.shape, law, self.always)

    @property
    def always(self) -> Callable[..., Any] | None:
        """K of residual stress at an array of sizes."""
        residual = self.crack.residual_stress
        return None if residual is None else partial(self.shape.k_of_stress, residual)

    @property
    def used(self) -> str | None:
        """The limit that comes first, where the crack starts beyond it."""
        return self.limits.governed_by if self.crack.initial_size >= self.limits.limiting else None

    def leg(self, law: GrowthLaw, sizes: tuple[float, ...], most: float) -> Leg:
        """By quadrature to the limit, cut inside the step that holds `most`."""
        end = self.limits.limiting
        growth = self.growth(law)
        table = self._table(law, growth, sizes[0], end)
        if table is None:
            return Leg.still(sizes, AT_REST)
        ended_by = self.limits.governed_by if table.sizes[-1] >= end * (1.0 - 1e-12) else AT_REST
        way, repeats = table.sizes, table.repeats
        if repeats[-1] > most:
            size, before, ended_by = size_after(table, growth, most), repeats < most, IN_TIME
            way, repeats = np.append(way[before], size), np.append(repeats[before], most)
        return Leg(way[:, None], repeats, ended_by, table.halving_change)

    def quick_leg(self) -> Leg:
        """The exact one is quick."""
        return self.whole(math.inf, None) if self.used is None else Leg.still(self.crack.sizes, self.used)

    def left_from(self, size: float, whole: float) -> float:
        """By another quadrature."""
        return self.leg(self.crack.law, (size,), math.inf).life

    def critical(self, ended: Ended) -> CriticalSizes:
        """All of them."""
        return self.limits

    def waiting_at(self, sizes: tuple[float, ...]) -> Ended:
        """The first of all."""
        return Ended(self.limits.governed_by, (self.limits.limiting,))

    def ended(self, by: str, sizes: tuple[float, ...]) -> Ended:
        """The first of all."""
        return self.waiting_at(sizes)

    def margins(self) -> dict[str, Margin]:
        """None: the limiting size is known before."""
        return {}

    def marched_to(self) -> float:
        """The limiting size."""
        return self.limits.limiting

    def breaking_stress(self, ended: Ended) -> float:
        """The least that breaks it there: the limit is that of the largest of all."""
        crack, peak = self.crack, self.drive.peak_stress
        if ended.by == "fracture by the law":
            return peak

        def room(stress: float) -> float:
            rest = (crack.limits, crack.youngs_modulus, crack.always)
            return margins_of(self.shape, crack.hot_spot.material, stress, *rest)[ended.by](self.limits.limiting)

        return stress_at_limit(room, peak)

    def _table(self, law: GrowthLaw, growth: PerRepeat, start: float, end: float) -> GrowthTable | None:
        """Sizes and repeats from `start` to `end`, mm, or to where it comes to rest; None where it does not grow."""
        if not start < end or not float(growth(start)) > 0.0:
            return None
        end = self._arrest(growth, start, end)
        if self.crack.always is not None or self.drive.bending is not None or not law.separable:
            return integrate_growth(growth, start, end, np.array(self.shape.kinks), **LOOSE)  # type: ignore[arg-type]
        return integrate_growth(growth, start, end, threshold_sizes(self.drive, self.shape, law, start, end))

    def _arrest(self, growth: PerRepeat, start: float, end: float) -> float:
        """`end`, or the size, mm, before it at which growth falls to 0: K may fall with the size, or residual stress close it."""
        sizes = np.geomspace(start, end, ARREST_LOOKS)
        k = np.asarray(self.shape.geometry_factor(sizes)) * np.sqrt(sizes)
        if self.crack.always is None and (np.diff(k) >= 0.0).all():
            return end
        still = np.flatnonzero(~(growth(sizes) > 0.0))
        if not still.size:
            return end
        low, high = math.log(sizes[still[0] - 1]), math.log(sizes[still[0]])
        for _ in range(52):
            middle = 0.5 * (low + high)
            low, high = (middle, high) if float(growth(math.exp(middle))) > 0.0 else (low, middle)
        return math.exp(low)


def _fracture_size(growth: PerRepeat, start: float, end: float) -> float | None:
    """The size, mm, from which the growth of a repeat is infinite; None where it never is before `end`."""
    if np.isfinite(growth(end)):
        return None
    if not np.isfinite(growth(start)):
        return start
    low, high = math.log(start), math.log(end)
    for _ in range(52):
        middle = 0.5 * (low + high)
        low, high = (middle, high) if np.isfinite(growth(math.exp(middle))) else (low, middle)
    return math.exp(low)
