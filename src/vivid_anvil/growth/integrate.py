"""Repeats that a crack takes from one size to another: the integral of da / G(a), with its steps refined until converged.

Method: three-point Gauss-Legendre rule in the logarithm of the size on each step; a step whose two halves give another
value is halved, until such differences are below `TOLERANCE`. Where the growth jumps, a step ends. The integral follows the
growth within each repeat and each step, so that it doesn't fall short as explicit stepping does.
"""

from __future__ import annotations

from collections.abc import Callable
from dataclasses import dataclass

import numpy as np
from numpy.typing import ArrayLike

from vivid_anvil.ground.checks import FloatArray, as_numbers
from vivid_anvil.units import LENGTH, many, one, opened

TOLERANCE = 1.0e-8
NEAREST = 1e-12  # of ln size
_STEPS_AT_START = 64
_MOST_STEPS = 1_000_000
_PLACES = np.array([-np.sqrt(0.6), 0.0, np.sqrt(0.6)])
_WEIGHTS = np.array([5.0, 8.0, 5.0]) / 18.0

Growth = Callable[[FloatArray], FloatArray]


@dataclass(frozen=True, slots=True)
class GrowthTable:
    """Sizes, mm, and the repeats at which they are reached, shape (n,); what halving every step would change (share)."""

    sizes: FloatArray
    repeats: FloatArray
    halving_change: float


@opened(start=LENGTH, end=LENGTH, kinks=many("length"), tolerance=one(above=0.0))
def integrate_growth(
    growth: Growth,
    start: float,
    end: float,
    kinks: ArrayLike = (),
    tolerance: float = TOLERANCE,
    most_steps: int = _MOST_STEPS,
) -> GrowthTable:
    """Repeats from `start` to each size up to `end`, mm; `growth` is G(a), mm per repeat, above 0 from `start` on.

    `kinks` are sizes at which G jumps; each becomes the end of a step, as a rule for smooth functions needs. `tolerance` and
    `most_steps` may be looser where a value of G is dear.

    >>> table = integrate_growth(lambda a: 1e-3 * a, 1.0, np.e)         # da/dN = a / 1000: 1000 repeats
    >>> round(float(table.repeats[-1]), 6), table.halving_change < 1e-3
    (1000.0, True)
    """
    even = np.linspace(np.log(start), np.log(end), _STEPS_AT_START + 1)
    inside = np.log(np.asarray(kinks, dtype=np.float64))
    every = np.unique(np.concatenate([even, inside[(inside > even[0]) & (inside < even[-1])]]))
    edges = np.append(every[:-1][np.diff(every) > NEAREST], every[-1])  # of two that rounding alone parts, one
    low, high = edges[:-1], edges[1:]
    as_numbers("integrate growth, growth", growth(np.array([start])), "a function that gives rates, mm each repeat")
    done_low, done_repeats = [np.empty(0)], [np.empty(0)]
    total = float(_step(growth, low, high).sum())
    while low.size:
        middle = 0.5 * (low + high)
        whole = _step(growth, low, high)
        left, right = _step(growth, low, middle), _step(growth, middle, high)
        rough = np.abs(left + right - whole) > tolerance * np.maximum(total / _STEPS_AT_START, left + right)
        if sum(part.size for part in done_low) + 4 * low.size > most_steps:
            rough[:] = False
        done_low += [low[~rough], middle[~rough]]
        done_repeats += [left[~rough], right[~rough]]
        low, high = np.concatenate([low[rough], middle[rough]]), np.concatenate([middle[rough], high[rough]])
    order = np.argsort(np.concatenate(done_low))
    steps = np.concatenate(done_repeats)[order]
    places = np.append(np.concatenate(done_low)[order], edges[-1])
    middle = 0.5 * (places[:-1] + places[1:])
    halved = _step(growth, places[:-1], middle).sum() + _step(growth, middle, places[1:]).sum()
    repeats = np.concatenate([[0.0], np.cumsum(steps)])
    sizes = np.exp(places)
    sizes[0], sizes[-1] = start, end
    return GrowthTable(sizes, repeats, float(abs(halved / repeats[-1] - 1.0)))


@opened(repeats=one(at_least=0.0))
def size_after(table: GrowthTable, growth: Growth, repeats: float) -> float:
    """Size, mm, after `repeats`, which must lie within the table: solved inside the step that holds it."""
    from scipy.optimize import brentq

    step = int(np.clip(np.searchsorted(table.repeats, repeats, side="right") - 1, 0, table.sizes.size - 2))
    low, high = np.log(table.sizes[step]), np.log(table.sizes[step + 1])
    wanted = repeats - table.repeats[step]

    def missing(place: float) -> float:
        return float(_step(growth, np.array([low]), np.array([place]))[0] - wanted)

    if missing(high) <= 0.0:
        return float(table.sizes[step + 1])
    return float(np.exp(brentq(missing, low, high, xtol=1e-15)))


def _step(growth: Growth, low: FloatArray, high: FloatArray) -> FloatArray:
    """Repeats from exp(low) to exp(high), by the three-point rule; shape of `low`."""
    half = 0.5 * (high - low)
    sizes = np.exp(0.5 * (low + high)[:, None] + half[:, None] * _PLACES)
    return np.asarray((2.0 * half[:, None] * _WEIGHTS * sizes / growth(sizes)).sum(axis=1))
