"""Loops over an S-N curve: arrays in, arrays out. A curve is segments, from its highest stress down.

Segment j lies below point j-1 and reaches down to point j, which is its anchor (the first and the last segment have the
first and the last point as anchor). `rate` is the slope m, ln(life) per MPa, or cycles per MPa, by `kind`.
"""

from __future__ import annotations

import math

import numpy as np

from vivid_anvil.ground.compiled import compiled

POWER, EXPONENTIAL, LINEAR, CONSTANT, NEVER = 0, 1, 2, 3, 4
_SCAN = 16  # up to so many points a plain scan is faster than halving


@compiled(inline="always")
def segment_of_stress(stress, edge):
    """Number of the points that lie above `stress`; `edge` falls."""
    low, high = 0, edge.size
    if high > _SCAN:
        while low < high:
            middle = (low + high) // 2
            if stress < edge[middle]:
                low = middle + 1
            else:
                high = middle
        return low
    while low < high and stress < edge[low]:
        low += 1
    return low


@compiled(inline="always")
def life_in(stress, kind, anchor_stress, anchor_life, rate):
    """Life at `stress` above 0 in one segment."""
    if kind == 0:
        return anchor_life * (anchor_stress / stress) ** rate
    if kind == 1:
        return anchor_life * math.exp(rate * (anchor_stress - stress))
    if kind == 2:
        return anchor_life + rate * (anchor_stress - stress)
    if kind == 3:
        return anchor_life
    return math.inf


@compiled(inline="always")
def stress_in(life, kind, anchor_stress, anchor_life, rate):
    """Stress at which `life` is reached in one segment, other than a constant one."""
    if kind == 0:
        return anchor_stress * (anchor_life / life) ** (1.0 / rate)
    if kind == 1:
        return max(0.0, anchor_stress + math.log(anchor_life / life) / rate)
    if kind == 2:
        return anchor_stress + (anchor_life - life) / rate
    return anchor_stress


@compiled
def lives(stress, edge, kind, anchor_stress, anchor_life, rate, out):
    """Write the life at each stress into `out`, inf at 0; return the place of a stress that is no number of 0 or more, or -1."""
    for i in range(stress.size):
        one = stress[i]
        if not one >= 0.0:
            return i
        if one == 0.0:
            out[i] = np.inf
            continue
        j = segment_of_stress(one, edge)
        out[i] = life_in(one, kind[j], anchor_stress[j], anchor_life[j], rate[j])
    return -1


@compiled
def stress_at_life(life, point_life, kind, anchor_stress, anchor_life, rate):
    """Stress at one life; inf for lives shorter than a held first one, 0 for lives longer than are ever reached."""
    j = 0
    while j < point_life.size and point_life[j] < life:
        j += 1
    if kind[j] == 3 and life != anchor_life[j]:
        return np.inf if j == 0 else 0.0
    return stress_in(life, kind[j], anchor_stress[j], anchor_life[j], rate[j])


@compiled
def stresses(life, point_life, kind, anchor_stress, anchor_life, rate, out):
    """Write the stress at each life into `out`; return the place of a life that is no number above 0, or -1."""
    for i in range(life.size):
        if not life[i] > 0.0:
            return i
        out[i] = stress_at_life(life[i], point_life, kind, anchor_stress, anchor_life, rate)
    return -1


@compiled
def damage_sum(stress, scale, count, edge, kind, anchor_stress, anchor_life, rate):
    """Sum of count / life at the stresses times `scale`; an empty `count` counts each once."""
    total = 0.0
    for i in range(stress.size):
        one = scale * stress[i]
        if one <= 0.0:
            continue
        j = segment_of_stress(one, edge)
        if kind[j] == 4:
            continue
        if kind[j] == 0:
            share = (one / anchor_stress[j]) ** rate[j] / anchor_life[j]
        else:
            share = 1.0 / life_in(one, kind[j], anchor_stress[j], anchor_life[j], rate[j])
        total += share * count[i] if count.size else share
    return total


@compiled
def split_stresses(stress, scale, edge, kind, anchor_stress, rate, at_anchor, never, ratio, exponent, factor):
    """Write ratio, exponent and factor of factor * ratio**exponent at the stresses times `scale`; for power laws only.

    `at_anchor` is the factor of each segment, `never` that of stresses without damage. Returns the place of a stress that is
    no number of 0 or more, or -1.
    """
    for i in range(stress.size):
        one = scale * stress[i]
        if not one >= 0.0:
            return i
        j = segment_of_stress(one, edge)
        if one == 0.0 or kind[j] == 4:
            ratio[i], exponent[i], factor[i] = 1.0, 0.0, never
        elif kind[j] == 3:
            ratio[i], exponent[i], factor[i] = 1.0, 0.0, at_anchor[j]
        else:
            ratio[i], exponent[i], factor[i] = one / anchor_stress[j], rate[j], at_anchor[j]
    return -1


@compiled
def split_lives(life, point_life, kind, anchor_stress, anchor_life, rate, ratio, exponent, factor):
    """The same for the stress at each life; returns the place of a life that is no number above 0, or -1."""
    for i in range(life.size):
        if not life[i] > 0.0:
            return i
        j = 0
        while j < point_life.size and point_life[j] < life[i]:
            j += 1
        ratio[i], exponent[i], factor[i] = 1.0, 0.0, anchor_stress[j]
        if kind[j] == 0:
            ratio[i], exponent[i] = anchor_life[j] / life[i], 1.0 / rate[j]
        elif kind[j] == 3 and life[i] != anchor_life[j]:
            factor[i] = np.inf if j == 0 else 0.0
    return -1
