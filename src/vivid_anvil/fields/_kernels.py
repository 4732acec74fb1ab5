"""Loops over samples and nodes: from unit stresses and loads to one stress, from that to its cycles."""

from __future__ import annotations

import math

import numpy as np

from vivid_anvil.ground.compiled import compiled
from vivid_anvil.materials.curves._kernels import NEVER, POWER

PRINCIPAL, MISES_HYDROSTATIC, MISES_PRINCIPAL, TRESCA, ALONG = range(5)
MOST_MULTIPLIED = 32  # rates up to which a power is multiplied
BLOCK = 512  # samples made and counted at once: what stays in the nearest cache
BOUNDED = (PRINCIPAL, MISES_HYDROSTATIC, MISES_PRINCIPAL, TRESCA, ALONG)  # those that `_norm` knows a bound of


@compiled(inline="always")
def principals(xx, yy, zz, xy, yz, zx):
    """Largest and smallest principal stress of a tensor, from its cubic (Smith, O. K. 1961, Comm. ACM 4, 168).

    t = cos(arccos(q) / 3) is the root of 4 t^3 - 3 t = q next to 1: a polynomial near it (off by 6e-7), then Newton twice.
    No branch and no call, so that the compiler takes several tensors at once.
    """
    mean = (xx + yy + zz) / 3.0
    a, b, c = xx - mean, yy - mean, zz - mean
    p2 = (a * a + b * b + c * c + 2.0 * (xy * xy + yz * yz + zx * zx)) / 6.0
    p = math.sqrt(p2) if p2 > 1e-200 else 0.0  # below, its cube is 0
    det = a * (b * c - yz * yz) - xy * (xy * c - yz * zx) + zx * (xy * yz - b * zx)
    r = 0.5 * det / (p2 * p if p > 0.0 else 1.0)
    q = min(abs(r), 1.0)
    t = -0.047553625888 + q * (0.021977785572 + q * (-0.009054171952 + q * 0.001981906598))
    t = 0.866025982448 + q * (0.166622563947 + q * t)
    t -= ((4.0 * t * t - 3.0) * t - q) / (12.0 * t * t - 3.0)
    t -= ((4.0 * t * t - 3.0) * t - q) / (12.0 * t * t - 3.0)
    # the root at the other end: 1 - t^2 = (1 - q) (1 + t) / (2 t + 1)^2
    far = 2.0 * p * (0.5 * t + 0.5 * math.sqrt(3.0) * math.sqrt((1.0 - q) * (1.0 + t)) / (2.0 * t + 1.0))
    near = 2.0 * p * t
    return mean + (near if r >= 0.0 else far), mean - (far if r >= 0.0 else near)


@compiled(inline="always")
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


@compiled
def rows_of(code, along, unit, constant, rows):
    """What is straight in the loads: `rows`, (6, cases + 1), factor of each case and what is always there, for `ordered`.

    One row for a component; five of the deviator, whose squares sum up to that of von Mises, and the trace; else the components.
    """
    cases = unit.shape[0]
    root = math.sqrt(3.0)
    for k in range(cases + 1):
        s = unit[k] if k < cases else constant
        if code == ALONG:
            total = 0.0
            for c in range(6):
                total += along[c] * s[c]
            rows[0, k] = total
        elif code == MISES_HYDROSTATIC:
            rows[0, k] = s[0] - 0.5 * (s[1] + s[2])
            rows[1, k] = 0.5 * root * (s[1] - s[2])
            rows[2, k] = root * s[3]
            rows[3, k] = root * s[4]
            rows[4, k] = root * s[5]
            rows[5, k] = s[0] + s[1] + s[2]
        else:
            for c in range(6):
                rows[c, k] = s[c]


@compiled(inline="always")
def _mises_of_three(rows, one, two, three, out):
    """Signed square of von Mises for three cases; numbers in registers, as the compiler takes several samples at once."""
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
        trace = t3 + t0 * x + t1 * y + t2 * z
        square = a * a + b * b + c * c + d * d + e * e
        out[i] = square if trace >= 0.0 else -square


@compiled
def ordered(code, along, rows, loads, start, sums, out):
    """A number for each sample that rises and falls with the stress: the stress, or its signed square (`is_square`).

    `loads`, (cases, samples), from the sample `start` on; `sums`, (6, BLOCK), is room to work in. Turning points are where those
    of the stress are. Rows are cut here, so that the compiler sees them as one piece of memory.
    """
    cases, end, size = loads.shape[0], start + out.size, out.size
    if code == MISES_HYDROSTATIC and cases == 3:
        _mises_of_three(rows, loads[0, start:end], loads[1, start:end], loads[2, start:end], out)
        return
    for c in range(1 if code == ALONG else 6):
        sum_of = sums[c, :size]
        for i in range(out.size):
            sum_of[i] = rows[c, cases]
        for k in range(cases):
            factor, load = rows[c, k], loads[k, start:end]
            for i in range(out.size):
                sum_of[i] += factor * load[i]
    one, two, three = sums[0, :size], sums[1, :size], sums[2, :size]
    four, five, six = sums[3, :size], sums[4, :size], sums[5, :size]
    if code == ALONG:
        for i in range(out.size):
            out[i] = one[i]
    elif code == MISES_HYDROSTATIC:
        for i in range(out.size):
            square = one[i] * one[i] + two[i] * two[i] + three[i] * three[i] + four[i] * four[i] + five[i] * five[i]
            out[i] = square if six[i] >= 0.0 else -square
    elif code == PRINCIPAL:
        for i in range(out.size):
            high, low = principals(one[i], two[i], three[i], four[i], five[i], six[i])
            out[i] = high if high >= -low else low
    elif code == TRESCA:
        for i in range(out.size):
            high, low = principals(one[i], two[i], three[i], four[i], five[i], six[i])
            out[i] = high - low if high >= -low else low - high
    else:
        for i in range(out.size):
            out[i] = one_stress(code, along, one[i], two[i], three[i], four[i], five[i], six[i])


@compiled(inline="always")
def _stress_of(code, value):
    """The stress that stands behind a number of `ordered`."""
    if code != MISES_HYDROSTATIC:
        return value
    root = math.sqrt(abs(value))
    return root if value >= 0.0 else -root


@compiled
def stress_history(code, along, unit, constant, loads, out):
    """One stress for every sample: `unit`, (cases, 6), times `loads`, (cases, samples), plus `constant`, (6,)."""
    rows = np.empty((6, unit.shape[0] + 1))
    rows_of(code, along, unit, constant, rows)
    sums = np.empty((6, BLOCK))
    for start in range(0, out.size, BLOCK):
        part = out[start : start + BLOCK]
        ordered(code, along, rows, loads, start, sums, part)
        for i in range(part.size):
            part[i] = _stress_of(code, part[i])


@compiled
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


@compiled
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


@compiled
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


@compiled
def _turns(values, points, level, heading):
    """Where values turn, after `level` with `heading` (1 up, -1 down, 0 not yet): the levels left, how many, level and heading.

    Without a branch in the loop, as turns of a random load cannot be foretold.
    """
    count = 0
    for i in range(values.size):
        value = values[i]
        now = 2 * (value > level) - 1 if value != level else heading
        points[count] = level
        count += 1 if now != heading else 0
        heading = now
        level = value
    return count, level, heading


@compiled
def _closed_by(points, stack, depth, high, low, count):
    """The four-point rule over turning points: those that stay on the stack, those that close as cycles; depth and count."""
    two = stack[max(depth - 2, 0)]
    one = stack[max(depth - 1, 0)]
    for i in range(points.size):
        value = points[i]
        outer = abs(one - value)
        inner = abs(two - one)
        while depth >= 3 and inner <= outer:
            before = stack[depth - 3]
            if inner > abs(before - two):
                break
            falls = two > one
            high[count] = two if falls else one
            low[count] = one if falls else two
            count += 1
            depth -= 2
            one = before
            two = stack[max(depth - 2, 0)]
            outer = abs(one - value)
            inner = abs(two - one)
        stack[depth] = value
        depth += 1
        two = one
        one = value
    return depth, count


@compiled
def cycles_of_nodes(code, along, units, constants, loads, room_high, room_low, ends, extremes):
    """Cycles of one event at several nodes, one after the other in `room_*`; `ends` says where those of each node end.

    `units`, shape (nodes, cases, 6), `loads`, (cases, samples); `extremes`, shape (nodes, 2), the lowest and highest stress.
    Stresses are made in blocks that stay in the cache and counted at once. What is left open is closed as that of a history that
    is repeated for ever. Returns how many nodes were done: fewer than all where the room is full.
    """
    samples = loads.shape[1]
    rows, sums = np.empty((6, units.shape[1] + 1)), np.empty((6, BLOCK))
    values, points, stack, rest = np.empty(BLOCK), np.empty(BLOCK + 1), np.empty(samples + 4), np.empty(samples + 4)
    used = 0
    for node in range(units.shape[0]):
        if used + samples // 2 + 4 > room_high.size:
            return node
        rows_of(code, along[node], units[node], constants[node], rows)
        depth, found, heading = 0, 0, 0
        level = 0.0
        for start in range(0, samples, BLOCK):
            part = values[: min(BLOCK, samples - start)]
            ordered(code, along[node], rows, loads, start, sums, part)
            if start == 0:
                level = part[0]
            many, level, heading = _turns(part, points, level, heading)
            if code == MISES_HYDROSTATIC:
                for i in range(many):
                    root = math.sqrt(abs(points[i]))
                    points[i] = root if points[i] >= 0.0 else -root
            depth, found = _closed_by(points[:many], stack, depth, room_high[used:], room_low[used:], found)
        last = _stress_of(code, level)
        stack[depth] = last
        found += closed_cycles(stack[: depth + 1], rest, room_high[used + found :], room_low[used + found :])
        used += found
        ends[node] = used
        extremes[node, 0], extremes[node, 1] = last, last
        if found > 0:  # the last cycle of a repeated history is its widest
            extremes[node, 0], extremes[node, 1] = room_low[used - 1], room_high[used - 1]
    return units.shape[0]


@compiled(inline="always")
def _power(ratio, rate, whole):
    """`ratio ** rate`; whole rates, as most slopes are, by multiplying."""
    if whole < 0:
        return ratio**rate
    found = 1.0
    while whole > 0:
        if whole & 1:
            found *= ratio
        ratio *= ratio
        whole >>= 1
    return found


@compiled
def _reversed_of(high, low, factor, twice, strength, means, out):
    """The stress that a curve is asked for, of each cycle, inf where a mean reaches the strength: several cycles at once."""
    half = 0.5 * factor
    for i in range(out.size):
        size, mean = half * (high[i] - low[i]), half * (high[i] + low[i])
        if means == 0:
            mean = mean if mean > 0.0 else 0.0
        elif means == 1:
            mean = mean if mean > -size else -size
        left = 1.0 - mean / strength
        out[i] = twice * size / left if left > 0.0 else np.inf


@compiled
def damage_of_nodes(
    high, low, often, ends, which, factors, twice, strength, means, edge, kind, anchor_stress, anchor_life, rate, out
):
    """Damage of the cycles of the nodes `which`, at `factors` on their stresses, shape of `which`: sums into `out`.

    Cycles of the nodes stand one after the other, `ends` says where those of each end; `often`, as many or one for all, how
    often each happens in a repeat. The rule is
    S_a / (1 - S_m / strength), none with an infinite `strength`; `means` are held at 0 or above (0), at -S_a or above (1), or
    not (2); `twice` is 2 for a curve in ranges. The curve is that of power laws, held lives and stresses without damage; inf
    where a mean reaches the strength.
    """
    whole = np.empty(rate.size, dtype=np.int64)
    for j in range(rate.size):
        whole[j] = int(rate[j]) if int(rate[j]) == rate[j] and 0 <= rate[j] <= MOST_MULTIPLIED else -1
    stresses = np.empty(BLOCK)
    for k in range(which.size):
        node, total = which[k], 0.0
        for start in range(ends[node - 1] if node > 0 else 0, ends[node], BLOCK):
            end = min(start + BLOCK, ends[node])
            part = stresses[: end - start]
            _reversed_of(high[start:end], low[start:end], factors[k], twice, strength, means, part)
            for i in range(part.size):
                stress = part[i]
                if stress == np.inf:
                    total = np.inf
                    break
                j = 0
                while j < edge.size and stress < edge[j]:
                    j += 1
                if stress == 0.0 or kind[j] == NEVER:
                    continue
                share = 1.0 / anchor_life[j]
                if kind[j] == POWER:
                    share *= _power(stress / anchor_stress[j], rate[j], whole[j])
                total += share * (often[0] if often.size == 1 else often[start + i])
        out[k] = total


@compiled
def largest_stress(code, units, constants, largest_loads, out):
    """A bound on the size of the stress of each node: a norm, so that of the sum is at most the sum of the norms."""
    for node in range(units.shape[0]):
        total = _norm(code, constants[node])
        for k in range(units.shape[1]):
            total += largest_loads[k] * _norm(code, units[node, k])
        out[node] = total


@compiled
def _norm(code, s):
    if code in (PRINCIPAL, ALONG):
        return np.sqrt(s[0] ** 2 + s[1] ** 2 + s[2] ** 2 + 2.0 * (s[3] * s[3] + s[4] * s[4] + s[5] * s[5]))
    if code not in (MISES_HYDROSTATIC, MISES_PRINCIPAL, TRESCA):
        return np.inf
    square = 0.5 * ((s[0] - s[1]) ** 2 + (s[1] - s[2]) ** 2 + (s[2] - s[0]) ** 2)
    size = np.sqrt(square + 3.0 * (s[3] * s[3] + s[4] * s[4] + s[5] * s[5]))
    return size * 2.0 / math.sqrt(3.0) if code == TRESCA else size
