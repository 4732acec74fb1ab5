"""Loops from energy on planes to the damage of a flaw there: cycles counted, each grown from the flaw at the start to its end."""

import numpy as np

from vivid_anvil.counting._kernels import closed_round
from vivid_anvil.ground.compiled import compiled
from vivid_anvil.ground.handed import REAL, ROW, caller
from vivid_anvil.stress.rubber._kernels import BLOCK, energies, squares_of

RATE = REAL(ROW, REAL)  # numbers of a law, tearing energy of a relaxing cycle, N/mm -> mm/cycle
call = caller(RATE)
AT, WEIGHTS = np.polynomial.legendre.leggauss(24)
ALIKE = 1e-9  # of the exponent, within which the power is the logarithm
# where the numbers of a flaw stand in their row
START, END, PER_SIZE, BY_RANGE, MIDDLE, SLOPE, RISE, ONE, TWO, THREE = range(10)
NONE = 1e-300


@compiled
def slope_of(flaw, r):
    """F(R)."""
    return flaw[SLOPE] * np.exp(flaw[RISE] * r) + flaw[ONE] * r + flaw[TWO] * r * r + flaw[THREE] * r * r * r


@compiled
def life(rate, numbers, knees, flaw, energy, r):
    """Cycles of a largest energy density, MPa, and R that grow the flaw from its start to its end; inf where it does not grow."""
    if energy <= 0.0 or r >= 1.0:
        return np.inf
    start, end, middle = flaw[START], flaw[END], flaw[MIDDLE]
    bent = 1.0  # power of the tearing energy, over the middle, that a cycle of R relaxing alone has
    scale = flaw[PER_SIZE] * energy / middle
    if flaw[BY_RANGE] > 0.5:
        scale *= 1.0 - r
    else:
        bent = slope_of(flaw, r) / flaw[SLOPE]
    first = call(rate, numbers, middle * (scale * start) ** bent)
    if not first > 0.0:
        return np.inf
    whole = np.log(end / start)
    if knees.size == 0:  # one power of the size
        x = (1.0 - flaw[SLOPE] * bent) * whole
        ratio = 1.0 + 0.5 * x if abs(x) < ALIKE else np.expm1(x) / x
        return start * whole * ratio / first
    total, low = 0.0, 0.0
    for k in range(knees.size + 1):
        high = whole
        if k < knees.size:
            size = (knees[k] / middle) ** (1.0 / bent) / scale
            high = min(max(np.log(size / start), 0.0), whole)
        if high <= low:
            continue
        half = 0.5 * (high - low)
        for i in range(AT.size):
            size = start * np.exp(low + half * (1.0 + AT[i]))
            total += half * WEIGHTS[i] * size / call(rate, numbers, middle * (scale * size) ** bent)
        low = high
    return total


@compiled
def damage_of_course(course, rate, numbers, knees, flaw, ranges, means):
    """Damage of the cycles of energy, MPa, in a course that follows itself for ever."""
    many = closed_round(course, None, ranges, means, None, None)
    total = 0.0
    for i in range(many):
        high = means[i] + 0.5 * ranges[i]
        if high > 0.0 and ranges[i] > 0.0:
            total += 1.0 / life(rate, numbers, knees, flaw, high, max(means[i] - 0.5 * ranges[i], 0.0) / high)
    return total


@compiled
def _level(found, plane, first, last, course):
    """Energy on a plane over the part that is repeated, less what a pass leaves, in proportion to the step; none below 0."""
    steps = last - first
    over = (found[last, plane] - found[first, plane]) / steps
    for s in range(steps):
        course[s] = max(found[first + s, plane] - over * s, 0.0)
    return steps


@compiled
def damage_on_planes(work, line, traction, planes, closes, ends, first, often, rate, numbers, knees, flaw, sums):
    """Damage of each way through states on planes, into `sums`, (ways, planes).

    Steps of all ways stand one after the other, those of each up to `ends`; `first` says from which of its rows on a way is
    repeated, `often` how often in a repeat.
    """
    longest, before = 0, 0
    for w in range(ends.size):
        longest, before = max(longest, ends[w] - before), ends[w]
    squares, found = np.empty((6, BLOCK)), np.empty((longest + 1, BLOCK))
    course = np.empty(longest + 1)
    ranges, means = np.empty(longest + 3), np.empty(longest + 3)
    for start in range(0, planes.shape[0], BLOCK):
        own = planes[start : start + BLOCK]
        some = squares if own.shape[0] == BLOCK else np.empty((6, own.shape[0]))
        room = found if own.shape[0] == BLOCK else np.empty((longest + 1, own.shape[0]))
        squares_of(own, some)
        before = 0
        for w in range(ends.size):
            a, b = before, ends[w]
            before = b
            energies(work[a:b], line[a:b], traction[a:b], some, closes, room)
            for p in range(own.shape[0]):
                steps = _level(room, p, first[w], b - a, course)
                sums[w, start + p] = often[w] * damage_of_course(
                    course[:steps], rate, numbers, knees, flaw, ranges, means
                )
