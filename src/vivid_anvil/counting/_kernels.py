"""Loops over samples: arrays in, arrays out, no checks. Inputs are read-only C-contiguous float64."""

import numpy as np
from numba import carray  # type: ignore[attr-defined]

from vivid_anvil.ground.compiled import compiled

# Where the state of an unfinished count stands in its array of int64.
DEPTH, LAST, HEADING, STARTED = range(4)
NOWHERE = 0  # heading while the history has not left its first level; else 1 up, -1 down
BLOCK = 1024  # samples whose turning points are found at once: what stays in the nearest cache
LARGEST = np.finfo(np.float64).max


@compiled
def turning_points(samples, index):
    """Write the place of each turning point into `index` (int64, as long as `samples`); return how many there are."""
    index[0] = 0
    count = 1
    last = 0  # first sample of the level we are on
    rising = False
    for i in range(1, samples.size):
        if samples[i] != samples[last]:
            up = samples[i] > samples[last]
            if last > 0 and up != rising:  # turned: the level we leave was a turning point
                index[count] = last
                count += 1
            last = i
            rising = up
    if last > 0:  # the end of the history
        index[count] = last
        count += 1
    return count


@compiled
def _turns(samples, offset, level, last, heading, points, where):
    """Turning points of a piece whose first sample is number `offset`, after `level` that began at sample `last`.

    The levels that are left for good into `points`, where each began into `where` (None: not asked for); returns how many, level,
    its sample, heading, and how many samples are not finite (not looked at without `where`). No branch in the loop: turns of a
    random load cannot be foretold.
    """
    count = 0
    bad = 0
    for i in range(samples.size):
        value = samples[i]
        points[count] = level
        other = value != level
        now = 2 * (value > level) - 1 if other else heading
        if where is not None:
            where[count] = last
            last = offset + i if other else last
            bad += 0 if abs(value) <= LARGEST else 1
        count += 1 if now != heading else 0
        heading = now
        level = value
    return count, level, last, heading, bad


@compiled
def _close(points, where, stack, places, depth, ranges, means, start, end, cycles):
    """Put turning points on the stack of open ones, and close what they close; depth and number of cycles.

    The four-point rule: a closed cycle is the inner pair of four successive points whose range is not larger than either
    neighbour's; equality counts (otherwise ties would never close). What is None is not written.
    """
    two = stack[max(depth - 2, 0)]
    one = stack[max(depth - 1, 0)]
    for k in range(points.size):
        value = points[k]
        outer = abs(one - value)
        inner = abs(two - one)
        while depth >= 3 and inner <= outer:
            before = stack[depth - 3]
            if inner > abs(before - two):
                break
            ranges[cycles] = inner
            if means is not None:
                means[cycles] = 0.5 * two + 0.5 * one
            if start is not None:
                start[cycles] = places[depth - 2]
                end[cycles] = places[depth - 1]
            cycles += 1
            depth -= 2
            one = before
            two = stack[max(depth - 2, 0)]
            outer = abs(one - value)
            inner = abs(two - one)
        stack[depth] = value
        if places is not None:
            places[depth] = where[k]
        depth += 1
        two = one
        one = value
    return depth, cycles


@compiled
def rainflow(samples, offset, level, state, stack, places, ranges, means, start, end):
    """Four-point rainflow in one pass over a chunk of samples whose first is sample `offset` of the history.

    `stack` and `places` hold values and samples of the open turning points, `level` the value we are on and `state` (see
    the names above) the rest of what is carried from chunk to chunk. Writes range and mean of each closed cycle into
    `ranges` and `means`, its first and last sample into `start` and `end`; each has samples.size + 2 places, of which
    only those are touched that are needed; `means`, or `start` and `end`, may be None and are not written then. Returns
    the number of cycles, -1 where a sample is not finite, and the new level.
    """
    depth, last, heading, cycles = state[DEPTH], state[LAST], state[HEADING], 0
    if state[STARTED] == 0:
        level, last = samples[0], offset
    if not abs(level) <= LARGEST:
        return -1, level
    points = np.empty(BLOCK)
    where = np.empty(BLOCK, dtype=np.int64)
    for i in range(0, samples.size, BLOCK):
        part = samples[i : min(i + BLOCK, samples.size)]
        many, level, last, heading, bad = _turns(part, offset + i, level, last, heading, points, where)
        if bad > 0:
            return -1, level
        depth, cycles = _close(points[:many], where, stack, places, depth, ranges, means, start, end, cycles)
    state[DEPTH], state[LAST], state[HEADING], state[STARTED] = depth, last, heading, 1
    return cycles, level


@compiled
def last_closed(stack, places, depth, ranges, means, start, end):
    """What the last of `depth` open points closes: depth left, and number of cycles."""
    point, where = stack[depth - 1 : depth].copy(), places[depth - 1 : depth].copy()
    return _close(point, where, stack, places, depth - 1, ranges, means, start, end, 0)


@compiled
def closed_round(values, places, ranges, means, start, end):
    """Cycles of open points, the end as the last, that follow themselves for ever; how many.

    From the highest round to it again all cycles close; the last is the widest. `values` and `places` are left as they are;
    `places`, with `start` and `end`, may be None.
    """
    size, highest = values.size, 0
    for i in range(1, size):
        highest = i if values[i] > values[highest] else highest
    turned, order = np.empty(size + 1), np.empty(size + 1, dtype=np.int64)
    for i in range(size + 1):
        order[i] = (highest + i) % size
        turned[i] = values[order[i]]
    points, where, stack = np.empty(size + 2), np.empty(size + 2, dtype=np.int64), np.empty(size + 2)
    many, _, _, _, _ = _turns(turned[1:], 1, turned[0], 0, 0, points, where)
    if many == 0:
        return 0  # it never moves
    points[many], where[many] = turned[size], size
    open_at = np.empty(size + 2, dtype=np.int64)
    _, cycles = _close(points[: many + 1], where, stack, open_at, 0, ranges, means, start, end, 0)
    ranges[cycles] = stack[0] - stack[1]
    means[cycles] = 0.5 * stack[0] + 0.5 * stack[1]
    if start is not None:
        start[cycles], end[cycles] = open_at[0], open_at[1]
        for i in range(cycles + 1):
            start[i], end[i] = places[order[start[i]]], places[order[end[i]]]
    return cycles + 1


def turns_of_block(values, size, heading, level, points):
    """`_turns` as it is handed to other loops: how many points, and the new heading in `heading[0]`."""
    many, _, _, now, _ = _turns(carray(values, size), 0, level, 0, heading[0], carray(points, size + 1), None)
    heading[0] = now
    return many


def closed_by_block(points, many, stack, depth, ranges, means):
    """`_close` as it is handed to other loops: how many cycles, and the new depth in `depth[0]`."""
    room = depth[0] + many + 1
    now, cycles = _close(
        carray(points, many),
        None,
        carray(stack, room),
        None,
        depth[0],
        carray(ranges, room),
        carray(means, room),
        None,
        None,
        0,
    )
    depth[0] = now
    return cycles


def closed_by_round(values, size, ranges, means):
    """`closed_round` as it is handed to other loops."""
    return closed_round(carray(values, size), None, carray(ranges, size + 1), carray(means, size + 1), None, None)


@compiled
def range_pair(values, first, second, left):
    """Pairs of places in `values` (turning points) that count as cycles in one pass, and the places `left` over.

    Returns the number of pairs and the number of places left.
    """
    pairs = 0
    depth = 0
    for i in range(values.size):
        left[depth] = i
        depth += 1
        while depth >= 3:
            before = abs(values[left[depth - 2]] - values[left[depth - 3]])
            if abs(values[left[depth - 1]] - values[left[depth - 2]]) < before:
                break
            first[pairs] = left[depth - 3]
            second[pairs] = left[depth - 2]
            pairs += 1
            left[depth - 3] = left[depth - 1]
            depth -= 2
    return pairs, depth


@compiled
def bin_two(first, second, count, first_start, first_step, second_start, second_step, matrix):
    """Add `count` to the cell of each pair (first, second) of even classes; return how many lie outside of the matrix.

    Bins are half-open, [edge, next edge).
    """
    outside = 0
    for i in range(first.size):
        row = int(np.floor((first[i] - first_start) / first_step))
        column = int(np.floor((second[i] - second_start) / second_step))
        if 0 <= row < matrix.shape[0] and 0 <= column < matrix.shape[1]:
            matrix[row, column] += count[i]
        else:
            outside += 1
    return outside


@compiled
def nest(low, high, pick, flank_low, flank_high, flank_next):
    """Put cycles, the largest first, into flanks that hold them: the order of turning points as a linked list.

    Cycle 0 spans all others and gives the first two flanks. Flank f runs between `flank_low` and `flank_high`; even
    flanks rise, odd ones fall; `flank_next` is the flank that follows. `pick` (0 to 1) chooses where the search begins.
    Arrays of flanks have 2 * cycles places. Returns the first cycle that no flank holds, or -1.
    """
    flank_low[0] = low[0]
    flank_high[0] = high[0]
    flank_low[1] = low[0]
    flank_high[1] = high[0]
    flank_next[0] = 1
    flank_next[1] = -1
    flanks = 2
    for k in range(1, low.size):
        at = int(pick[k] * flanks)
        tried = 0
        while not (flank_low[at] <= low[k] and high[k] <= flank_high[at]):
            at = at + 1 if at + 1 < flanks else 0
            tried += 1
            if tried == flanks:
                return k
        # a rising flank a -> b becomes a -> high, high -> low, low -> b; a falling one b -> low, low -> high, high -> a
        back = flanks if at % 2 == 1 else flanks + 1
        forth = flanks + 1 if at % 2 == 1 else flanks
        flank_low[back] = low[k]
        flank_high[back] = high[k]
        if at % 2 == 0:
            flank_low[forth] = low[k]
            flank_high[forth] = flank_high[at]
            flank_high[at] = high[k]
        else:
            flank_low[forth] = flank_low[at]
            flank_high[forth] = high[k]
            flank_low[at] = low[k]
        flank_next[forth] = flank_next[at]
        flank_next[back] = forth
        flank_next[at] = back
        flanks += 2
    return -1


@compiled
def walk(flank_low, flank_high, flank_next, values):
    """Write the turning points along the flanks into `values`, one more than there are flanks; return how many."""
    values[0] = flank_low[0]
    count = 1
    at = 0
    while at >= 0:
        values[count] = flank_high[at] if at % 2 == 0 else flank_low[at]
        count += 1
        at = flank_next[at]
    return count
