"""The way of a crack with depth and half length: both rates followed together to a limit, or to the wall."""

from __future__ import annotations

import math
from collections.abc import Callable
from functools import cached_property
from typing import Any, ClassVar, cast

import numpy as np

from vivid_anvil.growth.integrate_two import CHECK, FINE, ROUGH, STEADY, Pace, followed, integrate_two, two_size_rates
from vivid_anvil.growth.limits import CriticalSizes, all_margins, critical_depth, margins_of
from vivid_anvil.growth.way import Ended, Leg, Way
from vivid_anvil.materials import GrowthLaw
from vivid_anvil.shapes.shape import Margin, TwoSizeShape

_FIELDS = {
    "toughness": "toughness",
    "net-section yield": "net_section",
    "assessment curve": "assessment",
    "chosen size": "chosen",
    "wall": "wall",
    "length of the solution": "length",
    "aspect of the solution": "aspect",
    "fracture by the law": "law",
}


class TwoSizeWay(Way):
    """By Runge-Kutta steps in the logarithms of both sizes."""

    most_places: ClassVar[int] = 1_000_000  # all: a rare large cycle may stand between two of them
    scale_known_to: ClassVar[float] = 0.05

    @property
    def shape(self) -> TwoSizeShape:
        """Of two sizes."""
        return cast(TwoSizeShape, self.crack.shape)

    @property
    def used(self) -> str | None:
        """The first margin that is used up at the start."""
        return next((name for name, margin in self._margins.items() if margin(*self.crack.sizes) <= 0.0), None)

    def leg(self, law: GrowthLaw, sizes: tuple[float, ...], most: float) -> Leg:
        """Followed twice, the second time finer, which says what that changes."""
        way = integrate_two(self.rates(law), self._pair(sizes), self._margins, most, self._paces())
        both = np.column_stack([way.depths, way.half_lengths])
        return Leg(both, way.repeats, way.ended_by, way.change)

    def quick_leg(self) -> Leg:
        """With long steps."""
        if self.used is not None:
            return Leg.still(self.crack.sizes, self.used)
        way = followed(self.rates(self.crack.law), self._pair(self.crack.sizes), self._margins, math.inf, ROUGH)
        return Leg(np.column_stack([way.depths, way.half_lengths]), way.repeats, way.ended_by, 0.0)

    def left_from(self, size: float, whole: float) -> float:
        """What is left of the whole: the half length there is that of the way."""
        margin: dict[str, Margin] = {"depth": lambda deep, _: size - deep}
        start = self._pair(self.crack.sizes)
        way = followed(self.rates(self.crack.law), start, margin, math.inf, self._paces()[1])
        return whole - float(way.repeats[-1])

    def critical(self, ended: Ended) -> CriticalSizes:
        """The depth at which the crack stopped, under the name of what stopped it."""
        depth, deepest = ended.sizes[0], self.shape.deepest
        values: dict[str, Any] = {
            "toughness": None,
            "net_section": None,
            "validity": max(deepest, depth) * (1.0 + 1e-12),
        }
        return CriticalSizes(**(values | {_FIELDS[ended.by]: depth}))

    def waiting_at(self, sizes: tuple[float, ...]) -> Ended:
        """At the aspect that it has."""
        a, c = sizes
        depth, name = critical_depth(self._margins, self.shape.deepest, a / c)
        return Ended(name, (depth, depth * c / a))

    def ended(self, by: str, sizes: tuple[float, ...]) -> Ended:
        """The margin, or the wall."""
        return Ended("wall" if by == "stop" else by, sizes)

    @property
    def always(self) -> Callable[..., Any] | None:
        """K of residual stress at both ends."""
        return self.crack.always

    def margins(self) -> dict[str, Margin]:
        """All: which comes first depends on how the aspect goes."""
        return self._margins

    def marched_to(self) -> float:
        """The wall, or the end of the solution."""
        return self.shape.deepest

    def breaking_stress(self, ended: Ended) -> float:
        """The margins are those under the largest stress of all."""
        return self.drive.peak_stress

    def rates(self, law: GrowthLaw) -> Any:
        """What both sizes grow in one repeat, as a function of them."""
        return two_size_rates(self.drive, self.shape, law, self.crack.always)

    @cached_property
    def _margins(self) -> dict[str, Margin]:
        crack = self.crack
        rest = (crack.limits, crack.youngs_modulus, crack.always)
        shape, peak = self.at_peak
        margins = margins_of(shape, crack.hot_spot.material, peak, *rest)
        margins = all_margins(self.shape, margins, crack.stop_size, weighed=crack.always is not None)
        laws = [law for law in (crack.law, crack.later_law) if law is not None and law.fracture_toughness is not None]
        if laws:
            rates = [self.rates(law) for law in laws]
            margins["fracture by the law"] = lambda a, c: min(
                1.0 if math.isfinite(sum(rate(a, c))) else -1.0 for rate in rates
            )
        return margins

    def _paces(self) -> tuple[Pace, Pace]:
        """How the way is followed, and its check; laws that go through all cycles at every look with longer steps."""
        crack = self.crack
        laws = [law for law in (crack.law, crack.later_law) if law is not None]
        return (CHECK, FINE) if crack.always is None and all(law.separable for law in laws) else (ROUGH, STEADY)

    @staticmethod
    def _pair(sizes: tuple[float, ...]) -> tuple[float, float]:
        a, c = sizes
        return a, c
