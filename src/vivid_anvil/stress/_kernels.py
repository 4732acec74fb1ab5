"""Loops over places and samples: from unit stresses and loads to one stress, and to its cycles.

The measure is handed in by the straight forms that it needs and, where it is more than these, a function of a block of them.
Counting is handed in too: there is one four-point rule, and this file calls it.
"""

from __future__ import annotations

import math

import numpy as np
from numba import types

from vivid_anvil.ground.compiled import compiled
from vivid_anvil.ground.handed import ROW, WHOLE, caller

BLOCK = 512  # samples made and counted at once: what stays in the nearest cache
STATE = types.CPointer(WHOLE)
TO_STRESS = types.void(
    ROW, WHOLE, ROW, ROW
)  # forms, one row of n after the other; n; numbers of the measure; the stresses
TURNS = WHOLE(ROW, WHOLE, STATE, types.float64, ROW)
CLOSED = WHOLE(ROW, WHOLE, ROW, STATE, ROW, ROW)
ROUND = WHOLE(ROW, WHOLE, ROW, ROW)
_to_stress, _turns, _closed, _round = caller(TO_STRESS), caller(TURNS), caller(CLOSED), caller(ROUND)


@compiled
def _factors(forms, unit, constant, rows):
    """Each form of the unit stress of each case, and of what is always there: `rows`, (k, cases + 1)."""
    cases = unit.shape[0]
    for k in range(cases + 1):
        s = unit[k] if k < cases else constant
        for j in range(forms.shape[0]):
            total = 0.0
            for c in range(6):
                total += forms[j, c] * s[c]
            rows[j, k] = total


@compiled(inline="always")
def _squares_of_three(rows, one, two, three, out):
    """Signed sum of squares of six forms for three cases: numbers in registers, the compiler takes several samples at once."""
    a0, a1, a2, a3 = rows[0, 0], rows[0, 1], rows[0, 2], rows[0, 3]
    b0, b1, b2, b3 = rows[1, 0], rows[1, 1], rows[1, 2], rows[1, 3]
    c0, c1, c2, c3 = rows[2, 0], rows[2, 1], rows[2, 2], rows[2, 3]
    d0, d1, d2, d3 = rows[3, 0], rows[3, 1], rows[3, 2], rows[3, 3]
    e0, e1, e2, e3 = rows[4, 0], rows[4, 1], rows[4, 2], rows[4, 3]
    t0, t1, t2, t3 = rows[5, 0], rows[5, 1], rows[5, 2], rows[5, 3]
    for i in range(out.size):
        x, y, z = one[i], two[i], three[i]
        a = a3 + a0 * x + a1 * y + a2 * z
        b = b3 + b0 * x + b1 * y + b2 * z
        c = c3 + c0 * x + c1 * y + c2 * z
        d = d3 + d0 * x + d1 * y + d2 * z
        e = e3 + e0 * x + e1 * y + e2 * z
        sign = t3 + t0 * x + t1 * y + t2 * z
        square = a * a + b * b + c * c + d * d + e * e
        out[i] = square if sign >= 0.0 else -square


@compiled
def _ordered(block, numbers, rows, loads, start, forms, out):
    """A number for each sample that rises and falls with the stress: the stress, or its signed square (`_is_square`).

    `loads`, (cases, samples), from the sample `start` on; `forms` is room for all forms of a block. Turning points are
    where those of the stress are. Rows are cut here, so that the compiler sees them as one piece of memory.
    """
    cases, size, many = loads.shape[0], out.size, rows.shape[0]
    end = start + size
    if block == 0 and many == 6 and cases == 3:
        _squares_of_three(rows, loads[0, start:end], loads[1, start:end], loads[2, start:end], out)
        return
    for j in range(many):
        form = out if many == 1 and block == 0 else forms[j * size : (j + 1) * size]
        for i in range(size):
            form[i] = rows[j, cases]
        for k in range(cases):
            factor, load = rows[j, k], loads[k, start:end]
            for i in range(size):
                form[i] += factor * load[i]
    if block != 0:
        _to_stress(block, forms, size, numbers, out)
    elif many > 1:
        out[:] = 0.0
        for j in range(many - 1):
            form = forms[j * size : (j + 1) * size]
            for i in range(size):
                out[i] += form[i] * form[i]
        sign = forms[(many - 1) * size : many * size]
        for i in range(size):
            out[i] = out[i] if sign[i] >= 0.0 else -out[i]


@compiled(inline="always")
def _root(value):
    """The stress behind its signed square."""
    root = math.sqrt(abs(value))
    return root if value >= 0.0 else -root


@compiled
def stress_history(block, numbers, forms, unit, constant, loads, out):
    """One stress for every sample: `unit`, (cases, 6), times `loads`, (cases, samples), plus `constant`, (6,)."""
    squared = block == 0 and forms.shape[0] > 1
    rows, room = np.empty((forms.shape[0], unit.shape[0] + 1)), np.empty(forms.shape[0] * BLOCK)
    _factors(forms, unit, constant, rows)
    for start in range(0, out.size, BLOCK):
        part = out[start : start + BLOCK]
        _ordered(block, numbers, rows, loads, start, room, part)
        if squared:
            for i in range(part.size):
                part[i] = _root(part[i])


@compiled
def cycles_of_places(block, numbers, forms, units, constants, loads, counting, ranges, means, ends, extremes):
    """Cycles of one event at several places, one after the other in `ranges` and `means`; `ends` says where those of each end.

    `forms`, (places or 1, k, 6), `units`, (places, cases, 6), `loads`, (cases, samples); `extremes`, (places, 2), the lowest and
    highest stress. Stresses are made in blocks that stay in the cache and counted at once; `counting` are the addresses of the
    functions `TURNS`, `CLOSED` and `ROUND`. What is left open is closed as that of a history that is repeated for ever. Returns
    how many places were done: fewer than all where the room is full.
    """
    samples, squared = loads.shape[1], block == 0 and forms.shape[1] > 1
    rows, room = np.empty((forms.shape[1], units.shape[1] + 1)), np.empty(forms.shape[1] * BLOCK)
    values, points, stack = np.empty(BLOCK), np.empty(BLOCK + 1), np.empty(samples + 4)
    heading, depth = np.zeros(1, dtype=np.int64), np.zeros(1, dtype=np.int64)
    used = 0
    for place in range(units.shape[0]):
        if used + samples // 2 + 4 > ranges.size:
            return place
        _factors(forms[place if forms.shape[0] > 1 else 0], units[place], constants[place], rows)
        heading[0], depth[0] = 0, 0
        level = 0.0
        for start in range(0, samples, BLOCK):
            part = values[: min(BLOCK, samples - start)]
            _ordered(block, numbers, rows, loads, start, room, part)
            level = part[0] if start == 0 else level
            many = _turns(counting[0], part, part.size, heading, level, points)
            level = part[part.size - 1]
            if squared:
                for i in range(many):
                    points[i] = _root(points[i])
            used += _closed(counting[1], points, many, stack, depth, ranges[used:], means[used:])
        stack[depth[0]] = _root(level) if squared else level
        left = stack[: depth[0] + 1]
        used += _round(counting[2], left, left.size, ranges[used:], means[used:])
        ends[place] = used
        extremes[place, 0], extremes[place, 1] = left.min(), left.max()
    return units.shape[0]
