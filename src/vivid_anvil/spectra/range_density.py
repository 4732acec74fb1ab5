"""How often a second each range of a Gaussian process is expected: a sum of simple densities, with closed-form moments.

Every published formula for the rainflow ranges of a Gaussian process is such a sum: Rayleigh and exponential densities are
Weibull densities of shape 2 and 1, a rule of three bands has three single ranges.
"""

from __future__ import annotations

import dataclasses
import math
from dataclasses import dataclass
from typing import NamedTuple

import numpy as np
from numpy.typing import ArrayLike
from scipy.special import gamma, gammainc, gammaincc

from vivid_anvil.counting import Cycles
from vivid_anvil.counting.panels import of_density, places
from vivid_anvil.ground import checks
from vivid_anvil.ground.checks import FloatArray
from vivid_anvil.ground.errors import InputError

LOWEST = 1e-5  # of the smallest scale: what is below it is put there
HIGHEST = 200.0  # (range/scale)^shape: beyond is less than 1e-86 of the ranges
CORE, FOOT = 0.3, 1.5  # widths of panels in the logarithm of the range, where it matters and far below


class RangePart(NamedTuple):
    """`rate` ranges a second, Hz, of which exp(-(S/scale)^shape) are above S: Rayleigh for shape 2, exponential for 1."""

    rate: float
    shape: float
    scale: float

    def moment(self, order: float) -> float:
        """Σ S^order a second."""
        return float(self.rate * self.scale**order * gamma(1.0 + order / self.shape))

    def moment_beyond(self, order: float, size: float) -> float:
        """The same of ranges above `size`: by the upper incomplete gamma function."""
        a = 1.0 + order / self.shape
        share = float(gammaincc(a, (size / self.scale) ** self.shape))
        return float(self.rate * self.scale**order * gamma(a)) * share

    def moment_below(self, order: float, size: float) -> float:
        """The same of ranges up to `size`: by the lower one."""
        a = 1.0 + order / self.shape
        share = float(gammainc(a, (size / self.scale) ** self.shape))
        return float(self.rate * self.scale**order * gamma(a)) * share

    def of_logarithm(self, log_range: FloatArray) -> FloatArray:
        """Ranges a second for a unit of ln S."""
        power = np.exp(self.shape * (log_range - math.log(self.scale)))
        return np.asarray(self.rate * self.shape * power * np.exp(-power))

    def beyond(self, size: FloatArray) -> FloatArray:
        """Ranges a second above `size`."""
        return np.asarray(self.rate * np.exp(-((size / self.scale) ** self.shape)))


class SingleRange(NamedTuple):
    """`rate` equal ranges a second, Hz, of one `size`."""

    rate: float
    size: float


@dataclass(frozen=True)
class RangeDensity:
    """Expected ranges a second: densities, single ranges, and a size at which larger ones are held (a crest limit).

    Sizes are in the coherent unit of the process.
    """

    parts: tuple[RangePart, ...] = ()
    singles: tuple[SingleRange, ...] = ()
    held_at: float = math.inf

    @property
    def rate(self) -> float:
        """Ranges a second, Hz."""
        return sum(part.rate for part in self.parts) + sum(one.rate for one in self.singles)

    def moment(self, order: float) -> float:
        """Σ S^order a second, in closed form."""
        held = self.held_at
        if math.isinf(held):
            whole = sum(part.moment(order) for part in self.parts)
        else:
            below = sum(part.moment_below(order, held) for part in self.parts)
            whole = below + held**order * self._beyond(held)
        return float(whole + sum(one.rate * min(one.size, held) ** order for one in self.singles))

    def beyond(self, size: ArrayLike) -> FloatArray:
        """Ranges a second above `size`."""
        sizes = np.asarray(size, dtype=np.float64)
        found = sum((part.beyond(sizes) for part in self.parts), np.zeros(sizes.shape))
        found = found + sum((one.rate * (one.size > sizes) for one in self.singles), np.zeros(sizes.shape))
        return np.where(sizes >= self.held_at, 0.0, found)

    def density(self, size: ArrayLike) -> FloatArray:
        """Ranges a second for a unit of range, without single ones."""
        sizes = np.asarray(size, dtype=np.float64)
        found = sum((part.of_logarithm(np.log(sizes)) for part in self.parts), np.zeros(sizes.shape)) / sizes
        return np.where(sizes > self.held_at, 0.0, found)

    def held(self, size: float) -> RangeDensity:
        """With all ranges above `size` held at it: none is left out."""
        return dataclasses.replace(self, held_at=min(self.held_at, size))

    def times(self, factor: float) -> RangeDensity:
        """With all rates times a factor."""
        return dataclasses.replace(
            self,
            parts=tuple(part._replace(rate=factor * part.rate) for part in self.parts),
            singles=tuple(one._replace(rate=factor * one.rate) for one in self.singles),
        )

    def cycles(self, duration: float, *, dimension: str = "stress") -> Cycles:
        """The cycles expected in `duration`, s, about a mean of 0: places of a quadrature in panels, and single ranges.

        InputError where the formula gives a negative density: it does not hold for such a spectrum.
        """
        ranges, counts, numbers = self._placed()
        if (counts < 0.0).any():
            at = float(ranges[counts < 0.0][0])
            raise InputError(
                "expected cycles",
                f"a negative number of ranges of {at:.4g}",
                "a density of ranges",
                "The formula does not hold for this spectrum: take another, and compare with a counted synthesis.",
            )
        wanted = counts > 0.0
        ranges, counts, numbers = ranges[wanted], counts[wanted], numbers[wanted]
        return of_density(ranges, np.zeros(ranges.size), duration * counts, numbers, dimension)

    def _placed(self) -> tuple[FloatArray, FloatArray, FloatArray]:
        """Ranges, how often a second, and panel numbers (-1 for single ranges)."""
        singles = [(min(one.size, self.held_at), one.rate) for one in self.singles]
        rows = [np.empty(0)] * 3
        if self.parts:
            edges = _edges(self.parts, self.held_at)
            log_range, weight, numbers = places(edges)
            rows = [np.exp(log_range), weight * sum(part.of_logarithm(log_range) for part in self.parts), numbers]
            foot = float(np.exp(edges[0]))
            singles.append(
                (foot, float(sum(part.rate * -math.expm1(-((foot / part.scale) ** part.shape)) for part in self.parts)))
            )
            if not math.isinf(self.held_at):
                singles.append((self.held_at, self._beyond(self.held_at)))
        sizes, rates = (np.array([one[i] for one in singles]) for i in (0, 1))
        return (
            np.concatenate([rows[0], sizes]),
            np.concatenate([rows[1], rates]),
            np.concatenate([rows[2], np.full(sizes.size, -1.0)]),
        )

    def _beyond(self, size: float) -> float:
        return sum(float(part.beyond(np.array(size))) for part in self.parts)


def _edges(parts: tuple[RangePart, ...], held_at: float) -> FloatArray:
    """Edges of the panels in ln S: fine from a tenth of the smallest scale on, coarse below."""
    scales = [math.log(part.scale) for part in parts]
    foot, core = min(scales) + math.log(LOWEST), min(scales) - math.log(10.0)
    top = min(max(math.log(part.scale) + math.log(HIGHEST) / part.shape for part in parts), math.log(held_at))
    core, foot = min(core, top - CORE), min(foot, top - FOOT)
    low = np.linspace(foot, core, max(2, math.ceil((core - foot) / FOOT) + 1))
    high = np.linspace(core, top, max(2, math.ceil((top - core) / CORE) + 1))
    return np.concatenate([low[:-1], high])


def positive(value: float, what: str) -> float:
    """A constant of a formula that must be above 0; InputError where a spectrum gives another."""
    if not value > 0.0:
        raise InputError(
            "expected cycles",
            f"{what} = {value:.4g}",
            "a value above 0",
            "The formula does not hold for this spectrum: take another, and compare with a counted synthesis.",
        )
    return checks.positive_number(what, value)
