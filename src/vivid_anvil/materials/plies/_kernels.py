"""Lives of many cycles in diagrams that are handed in by address, one stress alone or two that act together."""

from __future__ import annotations

import math

from vivid_anvil.ground.compiled import compiled
from vivid_anvil.ground.handed import REAL, ROW, caller

LIFE = REAL(ROW, REAL, REAL)  # numbers, amplitude, mean -> log10 of the life
USE = REAL(ROW, REAL, REAL, REAL)  # numbers, log10 of a life, amplitude, mean -> part of what is borne
LONGEST = 300.0
CLOSED_IN, USUAL_SLOPE = 1e-11, 0.4  # of the squares that sum up to 1; of their logarithm over log10 N
_life, _use = caller(LIFE), caller(USE)


@compiled
def log_lives(life_at, numbers, amplitude, mean, found):
    """log10 of the life of each cycle under one stress; `LONGEST` and more: no damage."""
    for i in range(amplitude.size):
        found[i] = _life(life_at, numbers, amplitude[i], mean[i])


@compiled
def joint_log_life(use_one, one, size_one, mean_one, log_one, use_two, two, size_two, mean_two, log_two):
    """log10 N at which the squares of what two stresses use sum up to 1, from the lives of each alone."""
    high = min(log_one, log_two)
    if high >= LONGEST or size_one <= 0.0 or size_two <= 0.0 or high <= -100.0 or high != high:
        return high
    # both squares at the shorter life; if the other one is next to nothing, its first term; else between two lives, by secants
    low, step = high, 0.05
    at_high, at_low = 0.0, 0.0
    for tries in range(60):
        a = _use(use_one, one, low, size_one, mean_one)
        b = _use(use_two, two, low, size_two, mean_two)
        at_low = math.log(a * a + b * b)
        if tries == 0:
            at_high = at_low
            if at_low <= 1e-15:
                return high
            step = min(max(at_low, 1e-6), 1.0) * 0.5
        elif at_low <= 0.0:
            break
        else:
            high, at_high = low, at_low
        low -= step
        step *= 3.0
        if low < -100.0:
            return low
    if at_low == 0.0:
        return low
    side, middle, top, bottom = 0, high, at_high, at_low
    for _ in range(100):
        middle = high - top * (high - low) / (top - bottom)
        a = _use(use_one, one, middle, size_one, mean_one)
        b = _use(use_two, two, middle, size_two, mean_two)
        value = math.log(a * a + b * b)
        if abs(value) <= 1e-13 or high - low <= 1e-13 * max(1.0, abs(high)):
            return middle
        if value > 0.0:
            high, top = middle, value
            if side == 1:
                bottom *= 0.5
            side = 1
        else:
            low, bottom = middle, value
            if side == -1:
                top *= 0.5
            side = -1
    return middle


@compiled
def joint_log_life_near(near, use_one, one, size_one, mean_one, log_one, use_two, two, size_two, mean_two, log_two):
    """The same where a life `near` it is known, by secants from there; where they leave what is possible, by the search."""
    high = min(log_one, log_two)
    if -100.0 < near < high < LONGEST and size_one > 0.0 and size_two > 0.0:
        before, at_before, log = 0.0, 0.0, near
        for tries in range(12):
            a = _use(use_one, one, log, size_one, mean_one)
            b = _use(use_two, two, log, size_two, mean_two)
            value = math.log(a * a + b * b)
            if abs(value) <= CLOSED_IN:
                return log
            slope = USUAL_SLOPE if tries == 0 else (value - at_before) / (log - before)
            before, at_before = log, value
            log -= value / slope
            if not -100.0 < log <= high:
                break
    return joint_log_life(use_one, one, size_one, mean_one, log_one, use_two, two, size_two, mean_two, log_two)


@compiled
def joint_log_lives(life_one, use_one, one, size_one, mean_one, life_two, use_two, two, size_two, mean_two, found):
    """The same of many cycles, whose lives alone are looked for too."""
    for i in range(size_one.size):
        first = _life(life_one, one, size_one[i], mean_one[i])
        second = _life(life_two, two, size_two[i], mean_two[i])
        found[i] = joint_log_life(
            use_one, one, size_one[i], mean_one[i], first, use_two, two, size_two[i], mean_two[i], second
        )


@compiled
def uses(use_at, numbers, log_life, amplitude, mean, found):
    """What each cycle uses of what is borne for its number of cycles."""
    for i in range(amplitude.size):
        found[i] = _use(use_at, numbers, log_life[i], amplitude[i], mean[i])
