"""Growth of a crack with two sizes through repeats: depth and half length each at their own rate.

Method: with G_a and G_c the growth of depth and half length in one repeat, ln a, ln c and the repeats N are followed along s,
ds = (G_a / a + G_c / c) dN, in which both sizes move at an even pace however fast they grow in time; Runge-Kutta of order 8
(Dormand and Prince, as in scipy), its tolerance cut by 100 to see what that changes.
"""

from __future__ import annotations

import bisect
import math
from collections.abc import Callable
from dataclasses import dataclass
from typing import Any, Literal, NamedTuple

import numpy as np
from scipy.integrate import solve_ivp

from vivid_anvil.ground.checks import FloatArray, as_numbers
from vivid_anvil.ground.errors import InputError, shortened
from vivid_anvil.growth.driving_cycles import GrowthDrive, growth_of_pair
from vivid_anvil.materials import GrowthLaw
from vivid_anvil.shapes.shape import Margin, TwoSizeShape
from vivid_anvil.units import one, opened


class Pace(NamedTuple):
    """How the way is followed: rule of scipy, largest step of s, tolerance of a step."""

    rule: Literal["DOP853", "RK45", "RK23"]
    largest_step: float
    tolerance: float


FINE = Pace("DOP853", 0.05, 1e-7)  # the life is right to some 1e-6
CHECK = Pace("DOP853", 0.05, 1e-6)  # the change told is that from this to the fine one
STEADY = Pace("RK23", 0.05, 1e-5)  # right to some 1e-5, where every look goes through all cycles
ROUGH = Pace("RK23", 0.2, 1e-4)  # right to some 3e-4, ten times as fast
FIRST = 0.1  # of the largest step; repeats begin at 0, for which scipy would begin with 1e-8
_FURTHEST = 60.0  # of s: both sizes times e^30


@dataclass(frozen=True, slots=True)
class TwoSizeTable:
    """Depths, half lengths, mm, and repeats, shape (n,); why it ended; what a tolerance 100 times finer changes (share)."""

    depths: FloatArray
    half_lengths: FloatArray
    repeats: FloatArray
    ended_by: str
    change: float


@opened()
def two_size_rates(
    drive: GrowthDrive, shape: TwoSizeShape, law: GrowthLaw, always: Callable[..., tuple[float, ...]] | None = None
) -> Callable[[float, float], tuple[float, float]]:
    """The function of depth and half length, mm, that gives what both grow in one repeat, mm.

    `always` gives the K that is always there, MPa√mm, at both ends of a crack of these sizes.
    """
    quick = _power_growth(drive, law) if always is None else None
    growth = None if quick is not None else growth_of_pair(drive, law)
    two_stresses = drive.bending is not None

    def rates(a: float, c: float) -> tuple[float, float]:
        root = math.sqrt(math.pi * a)
        (deep, along), bending = shape.ends_of_parts(a, c) if two_stresses else (shape.ends(a, c), (0.0, 0.0))
        if growth is None:
            assert quick is not None, "one of both is there"
            return quick(deep * root), quick(along * root)
        there = (0.0, 0.0) if always is None else always(a, c)
        k_always = (float(there[0]), float(there[1]))
        return growth((deep * root, along * root), (a, c), k_always, (bending[0] * root, bending[1] * root))

    return rates


def _power_growth(drive: GrowthDrive, law: GrowthLaw) -> Callable[[float], float] | None:
    """`growth_at_scale` where K and cycle part, for one K per MPa at a time, without arrays; None elsewhere."""
    sums = drive.sums(law)
    if sums is None:
        return None
    least, weights, constant, slope = sums.least.tolist(), sums.weights.tolist(), law.constant, law.slope
    return lambda scale: constant * scale**slope * weights[bisect.bisect_left(least, scale)]


@opened(most_repeats=one(above=0.0, may_be_infinite=True))
def integrate_two(
    rates: Callable[[float, float], tuple[float, float]],
    start: tuple[float, float],
    margins: dict[str, Margin],
    most_repeats: float = math.inf,
    paces: tuple[Pace, Pace] = (CHECK, FINE),
) -> TwoSizeTable:
    """Sizes and repeats from `start` until the first of `margins`, functions of (a, c) above 0, falls to 0, or `most_repeats`.

    >>> even = integrate_two(lambda a, c: (1e-3 * a, 2e-3 * c), (1.0, 2.0), {"depth": lambda a, c: 3.0 - a})
    >>> round(float(even.repeats[-1]), 3), round(float(even.half_lengths[-1]), 3), even.ended_by
    (1098.612, 18.0, 'depth')
    """
    began, places = (
        as_numbers(f"integrate two, {name}", given) for name, given in (("start", start), ("rates", rates(*start)))
    )
    if began.shape != (2,) or places.shape != (2,):
        found = f"shapes {began.shape} and {places.shape}"
        raise InputError("integrate two, start and rates", found, "depth and half length, and the rate of each")
    if not all(isinstance(one, Pace) for one in paces):
        raise InputError("integrate two, paces", shortened(paces), "two Pace: one to check, a finer one")
    fine, finer = (followed(rates, start, margins, most_repeats, pace) for pace in paces)
    last = float(finer.repeats[-1])
    change = abs(float(fine.repeats[-1]) / last - 1.0) if last > 0.0 else 0.0
    return TwoSizeTable(finer.depths, finer.half_lengths, finer.repeats, finer.ended_by, change)


def followed(
    rates: Callable[[float, float], tuple[float, float]],
    start: tuple[float, float],
    margins: dict[str, Margin],
    most_repeats: float,
    pace: Pace = FINE,
) -> TwoSizeTable:
    """The same once, at one `pace`, without what a finer one would change."""

    def slope(_: float, state: FloatArray) -> list[float]:
        a, c = math.exp(state[0]), math.exp(state[1])
        grown_a, grown_c = rates(a, c)
        pace = grown_a / a + grown_c / c
        if pace == math.inf:  # broken: a step may look beyond, where nothing takes time
            return [0.5, 0.5, 0.0]
        if not pace > 0.0:
            return [0.0, 0.0, 0.0]
        return [grown_a / a / pace, grown_c / c / pace, 1.0 / pace]

    def event(margin: Margin) -> Callable[[float, FloatArray], float]:
        def value(_: float, state: FloatArray) -> float:
            return margin(math.exp(state[0]), math.exp(state[1]))

        value.terminal = True  # type: ignore[attr-defined]
        return value

    names = [*margins, "repeats"]
    stops = [event(margin) for margin in margins.values()]

    def left(_: float, state: FloatArray) -> float:
        return float(most_repeats - state[2]) if math.isfinite(most_repeats) else 1.0

    left.terminal = True  # type: ignore[attr-defined]
    stops.append(left)
    began = [math.log(start[0]), math.log(start[1]), 0.0]
    rule, largest, tolerance = pace
    how: dict[str, Any] = {"rtol": tolerance, "atol": 1e-12, "max_step": largest, "first_step": FIRST * largest}
    solved = solve_ivp(slope, (0.0, _FURTHEST), began, rule, events=stops, **how)
    reached = [name for name, times in zip(names, solved.t_events or [], strict=True) if times.size]
    depths, half_lengths = np.exp(solved.y[0]), np.exp(solved.y[1])
    depths[0], half_lengths[0] = start
    return TwoSizeTable(depths, half_lengths, solved.y[2], reached[0] if reached else "no growth", 0.0)
