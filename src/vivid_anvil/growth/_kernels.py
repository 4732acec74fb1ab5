"""The loop of growth cycle by cycle, with and without the memory of larger cycles."""

from __future__ import annotations

import math

from vivid_anvil.ground.compiled import compiled
from vivid_anvil.materials.laws._kernels import CLOSURE, WALKER, power_of, rate_of, threshold_of

NO_MEMORY, WHEELER, WILLENBORG = range(3)


@compiled
def times_in(pieces, piece, n):
    """How often a piece (first, last row, occurrences, repetitions) happens in pass n: when its sum passes a whole number."""
    often = pieces[piece, 2]
    return int(math.floor((n + 1) * often + 1e-9) - math.floor(n * often + 1e-9)) * int(pieces[piece, 3])


@compiled
def first_bad_row(cycles):
    """The first row (largest, smallest[, count]) that is not finite or has its largest below its smallest; -1 without."""
    for i in range(cycles.shape[0]):
        if not (cycles[i, 0] >= cycles[i, 1] and abs(cycles[i, 0] - cycles[i, 1]) < math.inf):
            return i
        if cycles.shape[1] > 2 and not abs(cycles[i, 2]) < math.inf:
            return i
    return -1


@compiled
def power_weights(form, model, p, cycles, lowest, weight, least):
    """For laws that are a power of K at each R: growth of a cycle is C scale^m `weight` where K per MPa exceeds `least`.

    Stress below `lowest` counts as that; cycles that can never grow the crack get an infinite `least`.
    """
    m = p[1]
    counted = cycles.shape[1] > 2
    for i in range(cycles.shape[0]):
        high, low = cycles[i, 0], max(cycles[i, 1], lowest)
        if high <= 0.0 or not high > low:
            weight[i], least[i] = 0.0, math.inf
            continue
        r, span = low / high, high - low
        if form == CLOSURE:
            value = max(p[5] + p[6] * r + p[7] * r * r, 0.0) * span
        else:
            value = span
        if form == WALKER and r != 0.0:
            gamma = p[5] if r > 0.0 else p[6]
            if m == 3.0 or m == 4.0:
                value = power_of(span * (1.0 - r) ** (gamma - 1.0), m)
            else:  # one exponential for both powers
                value = math.exp(m * (math.log(span) + (gamma - 1.0) * math.log(1.0 - r)))
        else:
            value = power_of(value, m)
        weight[i] = value * cycles[i, 2] if counted else value
        least[i] = threshold_of(model, p[2], p[4], r) / span


@compiled
def march_power(weight, least, cycles, pieces, grid, scales, powers, memory, q, kept, a, stop, begun, sizes):
    """`march` for laws that are a power of K: `scales` is K per MPa and `powers` C times its power m on the rising `grid`."""
    zone_end = kept[0, 0]
    done = 0
    cell, last_cell = 0, grid.size - 2
    width = grid[1] - grid[0]
    s_slope, p_slope = (scales[1] - scales[0]) / width, (powers[1] - powers[0]) / width
    for n in range(sizes.size - 1):
        for piece in range(pieces.shape[0]):
            first, last = int(pieces[piece, 0]), int(pieces[piece, 1])
            for time in range(times_in(pieces, piece, begun + n)):
                for i in range(first, last):
                    if a >= grid[cell + 1] and cell < last_cell:
                        while a >= grid[cell + 1] and cell < last_cell:
                            cell += 1
                        width = grid[cell + 1] - grid[cell]
                        s_slope = (scales[cell + 1] - scales[cell]) / width
                        p_slope = (powers[cell + 1] - powers[cell]) / width
                    past = a - grid[cell]
                    scale = scales[cell] + past * s_slope
                    done += 1
                    factor = 1.0
                    if memory == WHEELER and cycles[i, 0] > 0.0:
                        zone = q[0] * (scale * cycles[i, 0] / q[1]) ** 2
                        if a + zone < zone_end:
                            factor = (zone / (zone_end - a)) ** q[2]
                        else:
                            zone_end = a + zone
                    if scale > least[i]:
                        a += factor * weight[i] * (powers[cell] + past * p_slope)
                        if not a < stop:
                            return n, piece, time, i, done, a
        sizes[n + 1] = a
    kept[0, 0] = zone_end
    return sizes.size - 1, -1, -1, -1, done, a


@compiled
def remembered(memory, q, kept, end, k_max, a):
    """Whether larger cycles before slow this one; otherwise it is the one to remember. `kept` holds the memory at each end.

    Wheeler keeps how far the farthest zone reaches; Willenborg K, size and zone of the last cycle that was the largest.
    """
    zone = q[0] * (k_max / q[1]) ** 2
    if memory == WHEELER:
        if a + zone < kept[end, 0]:
            return True
        kept[end, 0] = a + zone
        return False
    if a + zone < kept[end, 2] + kept[end, 3]:
        return True
    kept[end, 1], kept[end, 2], kept[end, 3] = k_max, a, zone
    return False


@compiled
def grown_by(form, model, p, memory, q, kept, end, k_max, k_min, lowest, a):
    """Growth of one cycle, mm, with what larger ones before it left; K below `lowest` counts as that."""
    if k_max <= 0.0:
        return 0.0
    k_min = max(k_min, lowest)
    slow = memory != NO_MEMORY and remembered(memory, q, kept, end, k_max, a)
    if not k_max > k_min:
        return 0.0
    rate = rate_of(form, model, p, k_max - k_min, k_min / k_max, a)
    if not slow or rate == 0.0:  # memory never wakes an idle cycle: it lowers K and R, or the rate
        return rate
    if memory == WHEELER:
        return rate * (q[0] * (k_max / q[1]) ** 2 / (kept[end, 0] - a)) ** q[2]
    left = 1.0 - (a - kept[end, 2]) / kept[end, 3]
    residual = (1.0 - q[3] / k_max) / (q[2] - 1.0) * (kept[end, 1] * left**0.5 - k_max)
    if residual <= 0.0:
        return rate
    k_max, k_min = k_max - residual, max(k_min - residual, 0.0)
    return rate_of(form, model, p, k_max - k_min, k_min / k_max, a) if k_max > k_min else 0.0


@compiled
def march(form, model, p, cycles, pieces, factors, constant, lowest, grid, memory, q, kept, a, stop, begun, sizes):
    """Grow from `a` through the passes that `sizes` has room for, the first of them the pass `begun`; size after each pass.

    `cycles` are rows (largest, smallest stress, count), `pieces` rows (first, last, occurrences, repetitions); Y and the K that
    is always there stand in `factors` and `constant` on the even grid (start, step) of sizes. `q`: plane-zone factor β, yield
    strength, then exponent, or shut-off ratio and threshold maximum; `kept` is the memory of larger cycles.
    Returns passes done, piece, time, row at the stop (-1 without one), cycles, size.
    """
    done = 0
    last_cell = factors.size - 2
    for n in range(sizes.size - 1):
        for piece in range(pieces.shape[0]):
            for time in range(times_in(pieces, piece, begun + n)):
                for i in range(int(pieces[piece, 0]), int(pieces[piece, 1])):
                    place = (a - grid[0]) / grid[1]
                    cell = min(int(place), last_cell)
                    share = place - cell
                    scale = (factors[cell] + share * (factors[cell + 1] - factors[cell])) * math.sqrt(math.pi * a)
                    always = constant[cell] + share * (constant[cell + 1] - constant[cell])
                    k_max, k_min = scale * cycles[i, 0] + always, scale * cycles[i, 1] + always
                    done += 1
                    a += cycles[i, 2] * grown_by(form, model, p, memory, q, kept, 0, k_max, k_min, lowest, a)
                    if not a < stop:
                        return n, piece, time, i, done, a
        sizes[n + 1] = a
    return sizes.size - 1, -1, -1, -1, done, a


@compiled
def march_two_power(weight, least, cycles, pieces, state, place, anchor, memory, q, kept, reach, limits, begun, sizes):
    """`march_two` for laws that are a power of K, without memory or with Wheeler's.

    `anchor`: a, c, then for the end of a and for that of c K per MPa with its slopes over a and c, and C times its power m
    with its slopes.
    """
    a, c, end_a, end_c = state[0], state[1], kept[0, 0], kept[1, 0]
    zone_factor = q[0] / (q[1] * q[1])
    done = 0
    n, piece, time, i = place[0], place[1], place[2], place[3]
    far_a, far_c = anchor[0] * (1.0 + reach), anchor[1] * (1.0 + reach)
    while n < sizes.shape[0] - 1:
        while piece < pieces.shape[0]:
            first, last = int(pieces[piece, 0]), int(pieces[piece, 1])
            times = times_in(pieces, piece, begun + n)
            while time < times:
                i = max(i, first)
                while i < last:
                    if a > far_a or c > far_c:
                        state[0], state[1], state[2], kept[0, 0], kept[1, 0] = a, c, state[2] + done, end_a, end_c
                        place[0], place[1], place[2], place[3] = n, piece, time, i
                        return 1
                    da, dc = a - anchor[0], c - anchor[1]
                    done += 1
                    needed = least[i]
                    scale_a = anchor[2] + anchor[3] * da + anchor[4] * dc
                    scale_c = anchor[8] + anchor[9] * da + anchor[10] * dc
                    slow_a, slow_c = 1.0, 1.0
                    if memory == WHEELER and cycles[i, 0] > 0.0:
                        zone_a, zone_c = (
                            zone_factor * (scale_a * cycles[i, 0]) ** 2,
                            zone_factor * (scale_c * cycles[i, 0]) ** 2,
                        )
                        if a + zone_a >= end_a:
                            end_a = a + zone_a
                        elif scale_a > needed:
                            slow_a = (zone_a / (end_a - a)) ** q[2]
                        if c + zone_c >= end_c:
                            end_c = c + zone_c
                        elif scale_c > needed:
                            slow_c = (zone_c / (end_c - c)) ** q[2]
                    grown = 0.0
                    if scale_a > needed:
                        grown = slow_a * weight[i] * (anchor[5] + anchor[6] * da + anchor[7] * dc)
                    if scale_c > needed:
                        c += slow_c * weight[i] * (anchor[11] + anchor[12] * da + anchor[13] * dc)
                    a += grown
                    i += 1
                    if not (a < limits[0] and c < limits[1]):
                        state[0], state[1], state[2], kept[0, 0], kept[1, 0] = a, c, state[2] + done, end_a, end_c
                        place[0], place[1], place[2], place[3] = n, piece, time, i
                        return 2
                time += 1
                i = 0
            piece += 1
            time = 0
        n += 1
        piece = 0
        sizes[n, 0], sizes[n, 1] = a, c
    state[0], state[1], state[2], kept[0, 0], kept[1, 0] = a, c, state[2] + done, end_a, end_c
    place[0] = n
    return 0


@compiled
def march_two(
    form, model, p, cycles, pieces, state, place, anchor, lowest, memory, q, kept, reach, limits, begun, sizes
):
    """Grow depth and half length from `state` (a, c) on, starting at `place` (pass, piece, time, row), until it leaves `reach`.

    `anchor`: a, c, then for the end of a and for that of c Y and K that is always there, each with its slopes over a and c;
    `kept`, shape (2, 4), is the memory of larger cycles at both ends. Returns why it came back: 0 all passes done, 1 out of
    reach of the anchor, 2 past a limit (a, c); `state`, `place` and `sizes`, (a, c) a pass, are kept up.
    """
    a, c = state[0], state[1]
    done = 0
    n, piece, time, i = place[0], place[1], place[2], place[3]
    while n < sizes.shape[0] - 1:
        while piece < pieces.shape[0]:
            first, last = int(pieces[piece, 0]), int(pieces[piece, 1])
            times = times_in(pieces, piece, begun + n)
            while time < times:
                i = max(i, first)
                while i < last:
                    da, dc = a - anchor[0], c - anchor[1]
                    if abs(da) > reach * anchor[0] or abs(dc) > reach * anchor[1]:
                        state[0], state[1], state[2] = a, c, state[2] + done
                        place[0], place[1], place[2], place[3] = n, piece, time, i
                        return 1
                    high, low, count = cycles[i, 0], cycles[i, 1], cycles[i, 2]
                    done += 1
                    root = math.sqrt(math.pi * a)
                    scale = (anchor[2] + anchor[3] * da + anchor[4] * dc) * root
                    always = anchor[5] + anchor[6] * da + anchor[7] * dc
                    k_max, k_min = scale * high + always, scale * low + always
                    deeper = count * grown_by(form, model, p, memory, q, kept, 0, k_max, k_min, lowest, a)
                    scale = (anchor[8] + anchor[9] * da + anchor[10] * dc) * root
                    always = anchor[11] + anchor[12] * da + anchor[13] * dc
                    k_max, k_min = scale * high + always, scale * low + always
                    c += count * grown_by(form, model, p, memory, q, kept, 1, k_max, k_min, lowest, c)
                    a += deeper
                    i += 1
                    if not (a < limits[0] and c < limits[1]):
                        state[0], state[1], state[2] = a, c, state[2] + done
                        place[0], place[1], place[2], place[3] = n, piece, time, i
                        return 2
                time += 1
                i = 0
            piece += 1
            time = 0
        n += 1
        piece = 0
        sizes[n, 0], sizes[n, 1] = a, c
    state[0], state[1], state[2] = a, c, state[2] + done
    place[0] = n
    return 0
