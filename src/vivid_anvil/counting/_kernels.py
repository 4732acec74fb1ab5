"""Loops over samples: arrays in, arrays out, no checks. Inputs are read-only C-contiguous float64."""

import numpy as np

from vivid_anvil.ground.compiled import compiled

# Where the state of an unfinished count stands in its array of int64.
DEPTH, LAST, HEADING, STARTED = range(4)
NOWHERE = 2  # heading while the history has not left its first level; else 1 up, 0 down
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
def _turns(samples, offset, level, last, rising, points, where):
    """Turning points of a piece whose first sample is number `offset`, after `level` that began at sample `last`.

    The levels that are left for good into `points`, where each began into `where`; returns how many, level, its sample, whether
    it rises, and how many samples are not finite. No branch in the loop: turns of a random load cannot be foretold.
    """
    count = 0
    bad = 0
    for i in range(samples.size):
        value = samples[i]
        points[count] = level
        where[count] = last
        other = value != level
        now = value > level if other else rising
        count += 1 if now != rising else 0
        last = offset + i if other else last
        bad += 0 if abs(value) <= LARGEST else 1
        rising = now
        level = value
    return count, level, last, rising, bad


@compiled
def _close(points, where, stack, places, depth, ranges, means, start, end, cycles):
    """Put turning points on the stack of open ones, and close what they close; depth and number of cycles."""
    two = stack[max(depth - 2, 0)]
    one = stack[depth - 1]
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
    A closed cycle is the inner pair of four successive points whose range is not larger than either neighbour's;
    equality counts (otherwise ties would never close).
    """
    depth = state[DEPTH]
    last = state[LAST]
    heading = state[HEADING]
    cycles = 0
    first = 0
    if state[STARTED] == 0:
        level = samples[0]
        stack[0] = level
        places[0] = offset
        depth = 1
        last = offset
        heading = NOWHERE
        first = 1
    if heading == NOWHERE:
        while first < samples.size and samples[first] == level:
            first += 1
        if first < samples.size:
            heading = 1 if samples[first] > level else 0
            level = samples[first]
            last = offset + first
            first += 1
    if not (abs(level) <= LARGEST and abs(stack[0]) <= LARGEST):
        return -1, level
    points = np.empty(BLOCK)
    where = np.empty(BLOCK, dtype=np.int64)
    rising = heading == 1
    for i in range(first, samples.size, BLOCK):
        part = samples[i : min(i + BLOCK, samples.size)]
        many, level, last, rising, bad = _turns(part, offset + i, level, last, rising, points, where)
        if bad > 0:
            return -1, level
        depth, cycles = _close(points[:many], where, stack, places, depth, ranges, means, start, end, cycles)
    state[DEPTH] = depth
    state[LAST] = last
    state[HEADING] = heading if heading == NOWHERE else (1 if rising else 0)
    state[STARTED] = 1
    return cycles, level


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
