"""Growth per cycle by every form of law, for one cycle and for all: what the face and the growth loops share.

`form` and `model` are the codes below; `p` holds constant, slope, threshold, and what the form needs (see `growth_forms`).
Lengths in mm, stress intensity in MPa√mm. inf means fracture, nan a range above the last point of a table.
"""

from __future__ import annotations

import math

import numpy as np

from vivid_anvil.ground.compiled import compiled

PARIS, TWO_STAGE, WALKER, FORMAN, FORMAN_METTU, HARTMAN_SCHIJVE, TOUGHNESS_SHAPED, CLOSURE, TABLE = range(9)
FIXED, POWER_OF_R, STEEL_LINE, STEEL_STEPS = range(4)
FORM_VALUES = 5  # where the values of the form start


@compiled(inline="always")
def power_of(x, m):
    """x^m, quick for the usual whole m."""
    if m == 3.0:
        return x * x * x
    if m == 4.0:
        return (x * x) * (x * x)
    return x**m


@compiled(inline="always")
def threshold_of(model, dk0, exponent, r):
    """Threshold of a range at R."""
    if model == POWER_OF_R:
        return dk0 * (1.0 - r) ** exponent
    if model == STEEL_LINE:
        return (7.0 * (1.0 - 0.85 * r) if r >= 0.1 else 6.0) * math.sqrt(1000.0)
    if model == STEEL_STEPS:
        return 63.0 if r >= 0.5 else (170.0 - 214.0 * r if r >= 0.0 else 170.0)
    return dk0


@compiled
def closure_of(r, alpha, peak):
    """Opening over maximum stress f(R) (Newman 1984)."""
    a0 = (0.825 - 0.34 * alpha + 0.05 * alpha**2) * math.cos(0.5 * math.pi * peak) ** (1.0 / alpha)
    a1 = (0.415 - 0.071 * alpha) * peak
    a3 = 2.0 * a0 + a1 - 1.0
    a2 = 1.0 - a0 - a1 - a3
    if r >= 0.0:
        return max(r, a0 + a1 * r + a2 * r * r + a3 * r * r * r)
    return a0 + a1 * max(r, -2.0)


@compiled
def full_threshold(form, model, p, r, a):
    """Range at or below which nothing grows."""
    if form != FORMAN_METTU:
        return threshold_of(model, p[2], p[4], r)
    alpha, peak, a0_intrinsic = p[8], p[9], p[10]
    if alpha == 0.0:  # closure off
        return p[2] * math.sqrt(a / (a + a0_intrinsic))
    f, at_zero = (
        closure_of(r, alpha, peak),
        (0.825 - 0.34 * alpha + 0.05 * alpha**2) * math.cos(0.5 * math.pi * peak) ** (1.0 / alpha),
    )
    power = 1.0 + (p[11] if r >= 0.0 else p[12]) * r
    return p[2] * math.sqrt(a / (a + a0_intrinsic)) / ((1.0 - f) / ((1.0 - at_zero) * (1.0 - r))) ** power


@compiled
def rate_of(form, model, p, dk, r, a):
    """Growth of one cycle, mm."""
    threshold = full_threshold(form, model, p, r, a)
    if dk <= threshold:
        return 0.0
    if form == PARIS:
        return p[0] * power_of(dk, p[1])
    if form == WALKER:
        gamma = p[5] if r >= 0.0 else p[6]
        return p[0] * power_of(dk / (1.0 - r) ** (1.0 - gamma), p[1])
    if form == TWO_STAGE:
        return p[0] * dk ** p[1] if dk < p[7] else p[5] * dk ** p[6]
    if form == CLOSURE:
        return p[0] * (max(p[5] + p[6] * r + p[7] * r * r, 0.0) * dk) ** p[1]
    if form == TABLE:
        return _of_table(p, dk)
    room = (1.0 - r) * p[5] - dk
    if room <= 0.0:
        return np.inf
    if form == FORMAN:
        return p[0] * dk ** p[1] / room
    if form == HARTMAN_SCHIJVE:
        return p[0] * (dk - threshold) ** p[1] / room
    peak_share = dk / ((1.0 - r) * p[5])
    if form == TOUGHNESS_SHAPED:
        return p[0] * ((dk - threshold) / math.sqrt(1.0 - peak_share)) ** p[1]
    f = closure_of(r, p[8], p[9]) if p[8] > 0.0 else r
    open_part = (1.0 - f) / (1.0 - r)
    return p[0] * (open_part * dk) ** p[1] * (1.0 - threshold / dk) ** p[6] / (1.0 - peak_share) ** p[7]


@compiled
def _of_table(p, dk):
    size = int(p[FORM_VALUES])
    first, x = FORM_VALUES + 1, math.log(dk)
    if x < p[first] - 1e-12:
        return 0.0
    if x > p[first + size - 1] + 1e-12:
        return np.nan
    i = 1
    while i < size - 1 and x > p[first + i]:
        i += 1
    x0, x1, y0, y1 = p[first + i - 1], p[first + i], p[first + size + i - 1], p[first + size + i]
    return math.exp(y0 + (y1 - y0) * (x - x0) / (x1 - x0))


@compiled
def rates_of(form, model, p, dk, r, a, out):
    """Growth of each cycle, mm."""
    for i in range(dk.size):
        out[i] = rate_of(form, model, p, dk[i], r[i], a[i])


@compiled
def growth_sums(form, model, p, highs, lows, counts, lowest, least, scales, always, sizes, out):
    """Σ n da/dN over all cycles for each size: K is the `scales` of that size times the stress, and what is `always` there.

    Whole ranges of stress rise from row to row; no range of K up to `least` grows the crack.
    """
    for j in range(sizes.size):
        total = 0.0
        for i in range(highs.size - 1, -1, -1):
            if scales[j] * (highs[i] - lows[i]) <= least:
                break
            high = scales[j] * highs[i] + always[j]
            low = max(scales[j] * lows[i] + always[j], lowest)
            if high > 0.0 and high > low:
                total += counts[i] * rate_of(form, model, p, high - low, min(low / high, 1.0 - 1e-12), sizes[j])
        out[j] = total
