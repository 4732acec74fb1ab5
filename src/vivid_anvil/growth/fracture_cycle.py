"""The cycle that breaks a crack which has reached its limiting size: the next one large enough, not the one that grew it there.

In: rows of a repeat in order, and the place where the size was reached. Out: the place of the cycle that breaks it. The limiting
size is that under the largest stress, so a smaller cycle may still be carried at it.
"""

from __future__ import annotations

import math
from collections.abc import Callable
from typing import NamedTuple

import numpy as np
from scipy.optimize import brentq

from vivid_anvil.ground.checks import FloatArray
from vivid_anvil.growth._kernels import times_in

BY_PEAK = ("toughness", "net-section yield", "assessment curve", "fracture by the law")


class CyclePlace(NamedTuple):
    """Which cycle: pass, piece of the pass, how often the piece was gone through before, row."""

    passed: int
    piece: int
    time: int
    row: int


def breaking_cycle(rows: FloatArray, pieces: FloatArray, at: CyclePlace, least: float) -> CyclePlace:
    """The first cycle from `at` on, in its pass or the next, whose largest stress, MPa, is `least` or more; else `at` itself.

    A rarer cycle is not waited for, which is on the safe side.
    """
    large = np.flatnonzero(rows[:, 0] >= least * (1.0 - 1e-9))
    for passed in (at.passed, at.passed + 1):
        for piece in range(at.piece if passed == at.passed else 0, len(pieces)):
            here = passed == at.passed and piece == at.piece
            first, last = int(pieces[piece, 0]), int(pieces[piece, 1])
            among = large[(large >= first) & (large < last)]
            if not among.size:
                continue
            if here and (left := among[among >= at.row]).size:
                return CyclePlace(passed, piece, at.time, int(left[0]))
            time = at.time + 1 if here else 0
            if time < int(times_in(pieces, piece, passed)):
                return CyclePlace(passed, piece, time, int(among[0]))
    return at


def cycles_until(pieces: FloatArray, at: CyclePlace) -> tuple[int, int]:
    """How many cycles of its pass are gone through with the one at `at`, and how many the whole pass has."""
    sizes = (pieces[:, 1] - pieces[:, 0]).astype(int)
    times = np.array([int(times_in(pieces, piece, at.passed)) for piece in range(len(pieces))])
    before = int((sizes * times)[: at.piece].sum()) + at.time * int(sizes[at.piece])
    return before + at.row - int(pieces[at.piece, 0]) + 1, int((sizes * times).sum())


def stress_at_limit(room: Callable[[float], float], peak: float) -> float:
    """The largest stress, MPa, up to `peak`, under which there is `room` left; the peak itself where there is at it."""
    if room(peak) > 0.0:
        return peak
    low = 1e-6 * peak
    if room(low) <= 0.0:
        return low
    return float(brentq(room, low, peak, xtol=1e-12 * max(peak, 1.0), rtol=1e-12)) if math.isfinite(room(low)) else peak
