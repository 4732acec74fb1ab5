"""The loops of growth: law, threshold and the memory of larger cycles are handed in by address.

Rows of `cycles` are (largest, smallest stress, count[, second stress at the one, at the other]), of `pieces` (first, last,
occurrences, repetitions); `at` are the sizes, one or two; `place` is (pass, piece, time, row, cycles gone through), kept up;
`sizes` gets those after each pass. Where `shut` is true, cycles that stay in compression count too, at R = 0.
"""

import math

import numpy as np

from vivid_anvil.ground.compiled import compiled
from vivid_anvil.ground.handed import REAL, ROW, WHOLE, caller

RATE = REAL(ROW, REAL, REAL, REAL, REAL)  # numbers, threshold, range of K, R, size -> mm/cycle
THRESHOLD = REAL(ROW, REAL, REAL)  # numbers, R, size -> range of K
SLOWED = WHOLE(ROW, ROW, REAL, REAL, REAL, ROW)  # numbers, what is kept, largest and smallest K, size, out -> how

call_rate = caller(RATE)
call_threshold = caller(THRESHOLD)
call_slowed = caller(SLOWED)

ALL_DONE, OUT_OF_REACH, PAST_LIMIT = range(3)


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
        for j in range(2, cycles.shape[1]):
            if not abs(cycles[i, j]) < math.inf:
                return i
    return -1


@compiled
def what_counts(cycles, first, lowest, shut, span, r):
    """Range of stress that counts and its R of the cycles from `first` on; 0 where nothing of them does."""
    for j in range(span.size):
        high, low = cycles[first + j, 0], max(cycles[first + j, 1], lowest)
        counts = high > low and (high > 0.0 or shut)
        span[j] = high - low if counts else 0.0
        r[j] = low / high if counts and high > 0.0 else 0.0


@compiled
def growth_sums(law, p, limit, t, cycles, lowest, shut, least, scales, always, sizes, out):
    """Σ n da/dN over all cycles for each size: K is the `scales` of that size times the stress, and what is `always` there.

    Rows of `cycles` are (largest, smallest stress, count); whole ranges rise from row to row, and no range of K up to `least`
    grows the crack.
    """
    for j in range(sizes.size):
        total = 0.0
        for i in range(cycles.shape[0] - 1, -1, -1):
            if scales[j] * (cycles[i, 0] - cycles[i, 1]) <= least:
                break
            high = scales[j] * cycles[i, 0] + always[j]
            low = scales[j] * cycles[i, 1] + always[j]
            total += cycles[i, 2] * _of_cycle(law, p, limit, t, high, low, lowest, shut, sizes[j])
        out[j] = total


@compiled
def growth_sums_of_two(law, p, limit, t, cycles, lowest, shut, scales, bending, always, sizes, out):
    """The same for two stresses: rows are (largest, smallest stress, count, bending stress at both), `bending` its K per MPa."""
    for j in range(sizes.size):
        total = 0.0
        for i in range(cycles.shape[0]):
            one = scales[j] * cycles[i, 0] + bending[j] * cycles[i, 3] + always[j]
            other = scales[j] * cycles[i, 1] + bending[j] * cycles[i, 4] + always[j]
            high, low = max(one, other), min(one, other)
            total += cycles[i, 2] * _of_cycle(law, p, limit, t, high, low, lowest, shut, sizes[j])
        out[j] = total


@compiled
def _of_cycle(law, p, limit, t, high, low, lowest, shut, size):
    """Growth of one cycle, mm, between two K, without memory."""
    low = max(low, lowest)
    if not (high > low and (high > 0.0 or shut)):
        return 0.0
    r = min(low / high, 1.0 - 1e-12) if high > 0.0 else 0.0
    return _rate(law, p, limit, t, high - low, r, size)


@compiled
def _rate(law, p, limit, t, dk, r, a):
    """Growth of one cycle, mm; 0 at or below the threshold."""
    threshold = call_threshold(limit, t, r, a)
    return call_rate(law, p, threshold, dk, r, a) if dk > threshold else 0.0


@compiled
def _grown(law, p, limit, t, memory, q, kept, k_max, k_min, lowest, shut, a, out):
    """Growth of one cycle, mm, with what larger ones before it left; K below `lowest` counts as that."""
    if k_max <= 0.0:  # no zone is left by it, and none slows it
        return _rate(law, p, limit, t, k_max - k_min, 0.0, a) if shut and k_max > k_min else 0.0
    k_min = max(k_min, lowest)
    how = call_slowed(memory, q, kept, k_max, k_min, a, out) if memory != 0 else 0
    if not k_max > k_min:
        return 0.0
    rate = _rate(law, p, limit, t, k_max - k_min, k_min / k_max, a)
    if how == 0 or rate == 0.0:  # memory never wakes an idle cycle: it lowers K and R, or the rate
        return rate
    if how == 1:
        return rate * out[0]
    return _rate(law, p, limit, t, out[0] - out[1], out[1] / out[0], a) if out[0] > out[1] else 0.0


@compiled
def _plane(row, first, da, dc, two):
    """A value that stands with its slopes from place `first` of an anchor's row on."""
    return row[first] + row[first + 1] * da + (row[first + 2] * dc if two else 0.0)


@compiled
def _between(row, first, da, dc, two, root, cycles, i):
    """Largest and smallest K of a cycle at the end whose values stand from place `first` of an anchor's row on."""
    wide = 3 if two else 2
    scale, there = _plane(row, first, da, dc, two) * root, _plane(row, first + wide, da, dc, two)
    one, other = scale * cycles[i, 0] + there, scale * cycles[i, 1] + there
    if cycles.shape[1] > 3:
        scale = _plane(row, first + 2 * wide, da, dc, two) * root
        one, other = one + scale * cycles[i, 3], other + scale * cycles[i, 4]
        return max(one, other), min(one, other)
    return one, other


@compiled
def march(
    law, p, limit, t, memory, q, kept, cycles, pieces, anchors, lowest, shut, reach, stops, begun, at, place, sizes
):
    """Grow `at`, one size or two, through the passes that `sizes` has room for, the first of them the pass `begun`.

    A row of `anchors`: sizes, then for each end Y, the K that is always there, and for rows of `cycles` with a second stress at
    both ends of the cycle (bending) Y of that, each with its slopes over the sizes. With one size they rise and the loop walks
    along them; with two there is one row, and the loop comes back when a size has moved by the share `reach`. `kept` is the
    memory of larger cycles, a row an end; `stops` are the largest sizes. Returns why it came back.
    """
    two = at.size == 2
    each = (3 if two else 2) * (3 if cycles.shape[1] > 3 else 2)  # numbers of an end in an anchor's row
    a, c = at[0], at[at.size - 1]
    stop_a, stop_c = stops[0], stops[stops.size - 1]
    out = np.empty(2)
    kept_a, kept_c = kept[0], kept[kept.shape[0] - 1]
    n, piece, time, i, done = place[0], place[1], place[2], place[3], place[4]
    cell, why = 0, ALL_DONE
    anchor = anchors[0]
    far_a, far_c = anchor[0] * reach, anchor[at.size - 1] * reach
    while n < sizes.shape[0] - 1 and why == ALL_DONE:
        while piece < pieces.shape[0] and why == ALL_DONE:
            first, last = int(pieces[piece, 0]), int(pieces[piece, 1])
            times = times_in(pieces, piece, begun + n)
            while time < times and why == ALL_DONE:
                i = max(i, first)
                while i < last:
                    if two:
                        if abs(a - anchor[0]) > far_a or abs(c - anchor[1]) > far_c:
                            why = OUT_OF_REACH
                            break
                    elif cell < anchors.shape[0] - 2 and a >= anchors[cell + 1, 0]:
                        while cell < anchors.shape[0] - 2 and a >= anchors[cell + 1, 0]:
                            cell += 1
                        anchor = anchors[cell]
                    da, dc = a - anchor[0], c - anchor[at.size - 1]
                    root, count = math.sqrt(math.pi * a), cycles[i, 2]
                    done += 1
                    k_max, k_min = _between(anchor, at.size, da, dc, two, root, cycles, i)
                    deeper = count * _grown(law, p, limit, t, memory, q, kept_a, k_max, k_min, lowest, shut, a, out)
                    if two:
                        k_max, k_min = _between(anchor, 2 + each, da, dc, two, root, cycles, i)
                        c += count * _grown(law, p, limit, t, memory, q, kept_c, k_max, k_min, lowest, shut, c, out)
                    a += deeper
                    if not (a < stop_a and (not two or c < stop_c)):
                        why = PAST_LIMIT
                        break
                    i += 1
                if why == ALL_DONE:
                    time += 1
                    i = 0
            if why == ALL_DONE:
                piece += 1
                time = 0
        if why == ALL_DONE:
            n += 1
            piece = 0
            sizes[n, 0] = a
            if two:
                sizes[n, 1] = c
    at[0] = a
    if two:
        at[1] = c
    place[0], place[1], place[2], place[3], place[4] = n, piece, time, i, done
    return why


@compiled
def _slowed(memory, q, kept, scale, cycles, i, size, out):
    """The factor by which larger cycles before slow this one, at K per MPa `scale`."""
    if not cycles[i, 0] > 0.0:
        return 1.0
    how = call_slowed(memory, q, kept, scale * cycles[i, 0], scale * cycles[i, 1], size, out)
    return out[0] if how == 1 else 1.0


@compiled
def march_power(weight, least, memory, q, kept, cycles, pieces, anchors, reach, stops, begun, at, place, sizes):
    """`march` for laws in which K and cycle part: growth is C scale^m `weight` where K per MPa, `scale`, exceeds `least`.

    A row of `anchors`: sizes, then for each end K per MPa and C times its power m, each with its slopes over the sizes. A memory
    may only slow the rate.
    """
    two = at.size == 2
    each = 6 if two else 4
    a, c = at[0], at[at.size - 1]
    stop_a, stop_c = stops[0], stops[stops.size - 1]
    out = np.empty(2)
    kept_a, kept_c = kept[0], kept[kept.shape[0] - 1]
    n, piece, time, i, done = place[0], place[1], place[2], place[3], place[4]
    cell, why = 0, ALL_DONE
    row = anchors[0]
    from_a, from_c = row[0], row[at.size - 1]
    far_a, far_c = (from_a * (1.0 + reach), from_c * (1.0 + reach)) if two else (anchors[1, 0], math.inf)
    s_a, s_aa, s_ac = row[at.size], row[at.size + 1], row[at.size + 2] if two else 0.0
    p_a, p_aa, p_ac = row[at.size + each // 2], row[at.size + each // 2 + 1], row[at.size + 5] if two else 0.0
    s_c, s_ca, s_cc, p_c, p_ca, p_cc = 0.0, 0.0, 0.0, 0.0, 0.0, 0.0
    if two:
        s_c, s_ca, s_cc, p_c, p_ca, p_cc = row[8], row[9], row[10], row[11], row[12], row[13]
    while n < sizes.shape[0] - 1 and why == ALL_DONE:
        while piece < pieces.shape[0] and why == ALL_DONE:
            first, last = int(pieces[piece, 0]), int(pieces[piece, 1])
            times = times_in(pieces, piece, begun + n)
            while time < times and why == ALL_DONE:
                i = max(i, first)
                while i < last:
                    if a > far_a or c > far_c:
                        if two:
                            why = OUT_OF_REACH
                            break
                        while cell < anchors.shape[0] - 2 and a >= anchors[cell + 1, 0]:
                            cell += 1
                        far_a = anchors[cell + 1, 0] if cell < anchors.shape[0] - 2 else math.inf
                        from_a, s_a, s_aa = anchors[cell, 0], anchors[cell, 1], anchors[cell, 2]
                        p_a, p_aa = anchors[cell, 3], anchors[cell, 4]
                    da = a - from_a
                    done += 1
                    needed = least[i]
                    scale = s_a + da * s_aa
                    power = p_a + da * p_aa
                    grown = 0.0
                    if two:
                        dc = c - from_c
                        scale += dc * s_ac
                        power += dc * p_ac
                        along = s_c + da * s_ca + dc * s_cc
                        slow = _slowed(memory, q, kept_c, along, cycles, i, c, out) if memory != 0 else 1.0
                        if along > needed:
                            grown = slow * weight[i] * (p_c + da * p_ca + dc * p_cc)
                    slow = _slowed(memory, q, kept_a, scale, cycles, i, a, out) if memory != 0 else 1.0
                    c += grown
                    if scale > needed:
                        a += slow * weight[i] * power
                        if not a < stop_a:
                            why = PAST_LIMIT
                            break
                    if two and not c < stop_c:
                        why = PAST_LIMIT
                        break
                    i += 1
                if why == ALL_DONE:
                    time += 1
                    i = 0
            if why == ALL_DONE:
                piece += 1
                time = 0
        if why == ALL_DONE:
            n += 1
            piece = 0
            sizes[n, 0] = a
            if two:
                sizes[n, 1] = c
    at[0] = a
    if two:
        at[1] = c
    place[0], place[1], place[2], place[3], place[4] = n, piece, time, i, done
    return why
