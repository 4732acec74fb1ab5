"""Loops over samples and nodes: from unit stresses and loads to one stress, from that to its cycles."""

from __future__ import annotations

import math

import numpy as np

from vivid_anvil.compiled import compiled

PRINCIPAL, MISES_HYDROSTATIC, MISES_PRINCIPAL, TRESCA, ALONG = range(5)
BOUNDED = (PRINCIPAL, MISES_HYDROSTATIC, MISES_PRINCIPAL, TRESCA, ALONG)  # those that `_norm` knows a bound of


@compiled(nogil=True, inline="always")
def principals(xx, yy, zz, xy, yz, zx):
    """Largest and smallest principal stress of a tensor, by the angle of its cubic (Smith, O. K. 1961, Comm. ACM 4, 168)."""
    mean = (xx + yy + zz) / 3.0
    a, b, c = xx - mean, yy - mean, zz - mean
    p2 = (a * a + b * b + c * c + 2.0 * (xy * xy + yz * yz + zx * zx)) / 6.0
    if p2 < 1e-200:  # below, its cube is 0
        return mean, mean
    p = math.sqrt(p2)
    det = a * (b * c - yz * yz) - xy * (xy * c - yz * zx) + zx * (xy * yz - b * zx)
    r = 0.5 * det / (p2 * p)
    angle = math.acos(max(-1.0, min(1.0, r))) / 3.0
    return mean + 2.0 * p * math.cos(angle), mean + 2.0 * p * math.cos(angle + 2.0 * math.pi / 3.0)


@compiled(nogil=True, inline="always")
def one_stress(code, along, xx, yy, zz, xy, yz, zx):
    """The scalar that stands for a tensor."""
    if code == ALONG:
        return along[0] * xx + along[1] * yy + along[2] * zz + along[3] * xy + along[4] * yz + along[5] * zx
    if code == MISES_HYDROSTATIC:
        square = 0.5 * ((xx - yy) ** 2 + (yy - zz) ** 2 + (zz - xx) ** 2) + 3.0 * (xy * xy + yz * yz + zx * zx)
        return math.sqrt(square) if xx + yy + zz >= 0.0 else -math.sqrt(square)
    high, low = principals(xx, yy, zz, xy, yz, zx)
    pulled = high >= -low
    if code == PRINCIPAL:
        return high if pulled else low
    if code == TRESCA:
        return high - low if pulled else low - high
    square = 0.5 * ((xx - yy) ** 2 + (yy - zz) ** 2 + (zz - xx) ** 2) + 3.0 * (xy * xy + yz * yz + zx * zx)
    return math.sqrt(square) if pulled else -math.sqrt(square)


@compiled(nogil=True)
def stress_history(code, along, unit, constant, loads, out):
    """One stress for every sample: `unit`, (cases, 6), times `loads`, (samples, cases), plus `constant`, (6,)."""
    cases = unit.shape[0]
    if code == ALONG:  # straight in the components: one number a case
        always = 0.0
        for c in range(6):
            always += along[c] * constant[c]
        out[:] = always
        for k in range(cases):
            per_load = 0.0
            for c in range(6):
                per_load += along[c] * unit[k, c]
            for i in range(loads.shape[0]):
                out[i] += per_load * loads[i, k]
        return
    for i in range(loads.shape[0]):
        xx, yy, zz, xy, yz, zx = constant[0], constant[1], constant[2], constant[3], constant[4], constant[5]
        for k in range(cases):
            load = loads[i, k]
            xx += unit[k, 0] * load
            yy += unit[k, 1] * load
            zz += unit[k, 2] * load
            xy += unit[k, 3] * load
            yz += unit[k, 4] * load
            zx += unit[k, 5] * load
        out[i] = one_stress(code, along, xx, yy, zz, xy, yz, zx)


@compiled(nogil=True)
def largest_principal(units, constants, loads, out):
    """For each node the sample with the principal stress of largest magnitude, the first one of equals."""
    for node in range(units.shape[0]):
        largest = -1.0
        for i in range(loads.shape[0]):
            s = constants[node].copy()
            for k in range(units.shape[1]):
                for c in range(6):
                    s[c] += units[node, k, c] * loads[i, k]
            high, low = principals(s[0], s[1], s[2], s[3], s[4], s[5])
            size = max(abs(high), abs(low))
            if size > largest:
                largest = size
                out[node] = i


@compiled(nogil=True)
def closed_cycles(values, stack, high, low):
    """Cycles of a history that is repeated for ever, their largest and smallest value; how many. `values` must be finite.

    From the highest sample round to it again, by the four-point rule: all cycles close.
    """
    first, top = 0, values[0]
    for i in range(1, values.size):
        if values[i] > top:
            first, top = i, values[i]
    stack[0] = top
    level, heading, depth, count = _count_part(values, first + 1, values.size, top, 0, 1, stack, high, low, 0)
    level, heading, depth, count = _count_part(values, 0, first + 1, level, heading, depth, stack, high, low, count)
    lowest = np.full(1, -np.inf)  # makes the last highest a turning point
    level, heading, depth, count = _count_part(lowest, 0, 1, level, heading, depth, stack, high, low, count)
    if depth == 1:
        return 0  # it never moves
    # left over: down from the highest to the lowest, and up again
    high[count], low[count] = top, stack[1]
    for i in range(2, depth):
        low[count] = min(low[count], stack[i])
    return count + 1


@compiled(nogil=True)
def _count_part(values, start, end, level, heading, depth, stack, high, low, count):
    """The four-point rule over some samples: turning points go on the stack and close what they close."""
    for i in range(start, end):
        value = values[i]
        up = 1 if value > level else 0
        if up == 0 and not value < level:
            continue
        if up == heading:
            level = value
            continue
        stack[depth] = level
        depth += 1
        while depth >= 4:
            inner = abs(stack[depth - 3] - stack[depth - 2])
            if inner > abs(stack[depth - 2] - stack[depth - 1]) or inner > abs(stack[depth - 4] - stack[depth - 3]):
                break
            high[count] = max(stack[depth - 3], stack[depth - 2])
            low[count] = min(stack[depth - 3], stack[depth - 2])
            count += 1
            stack[depth - 3] = stack[depth - 1]
            depth -= 2
        level = value
        heading = up
    return level, heading, depth, count


@compiled(nogil=True)
def cycles_of_nodes(code, along, units, constants, loads, history, stack, room_high, room_low, ends, extremes):
    """Cycles of one event at several nodes, one after the other in `room_*`; `ends` says where those of each node end.

    `units`, shape (nodes, cases, 6); `extremes`, shape (nodes, 2), the lowest and highest stress. Returns how many nodes were
    done: fewer than all where the room is full.
    """
    used = 0
    for node in range(units.shape[0]):
        if used + history.size // 2 + 2 > room_high.size:
            return node
        stress_history(code, along[node], units[node], constants[node], loads, history)
        found = closed_cycles(history, stack, room_high[used:], room_low[used:])
        used += found
        ends[node] = used
        extremes[node, 0] = extremes[node, 1] = history[0]
        if found > 0:  # the last cycle goes from the highest to the lowest
            extremes[node, 0], extremes[node, 1] = room_low[used - 1], room_high[used - 1]
    return units.shape[0]


@compiled(nogil=True)
def largest_stress(code, units, constants, largest_loads, out):
    """A bound on the size of the stress of each node: a norm, so that of the sum is at most the sum of the norms."""
    for node in range(units.shape[0]):
        total = _norm(code, constants[node])
        for k in range(units.shape[1]):
            total += largest_loads[k] * _norm(code, units[node, k])
        out[node] = total


@compiled(nogil=True)
def _norm(code, s):
    if code in (PRINCIPAL, ALONG):
        return np.sqrt(s[0] ** 2 + s[1] ** 2 + s[2] ** 2 + 2.0 * (s[3] * s[3] + s[4] * s[4] + s[5] * s[5]))
    if code not in (MISES_HYDROSTATIC, MISES_PRINCIPAL, TRESCA):
        return np.inf
    square = 0.5 * ((s[0] - s[1]) ** 2 + (s[1] - s[2]) ** 2 + (s[2] - s[0]) ** 2)
    size = np.sqrt(square + 3.0 * (s[3] * s[3] + s[4] * s[4] + s[5] * s[5]))
    return size * 2.0 / math.sqrt(3.0) if code == TRESCA else size
