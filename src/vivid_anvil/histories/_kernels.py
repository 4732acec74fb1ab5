"""Loops over samples: arrays in, arrays out, no checks. Inputs are read-only C-contiguous float64."""

import numpy as np

from vivid_anvil.compiled import compiled

# Where the state of an unfinished count stands in its array of int64.
DEPTH, LAST, HEADING, STARTED = range(4)
NOWHERE = 2  # heading while the history has not left its first level; else 1 up, 0 down


@compiled(nogil=True)
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


@compiled(nogil=True)
def rainflow(samples, offset, level, state, stack, places, ranges, means, start, end):
    """Four-point rainflow in one pass over a chunk of samples whose first is sample `offset` of the history.

    `stack` and `places` hold values and samples of the open turning points, `level` the value we are on and `state` (see
    the names above) the rest of what is carried from chunk to chunk. Writes range and mean of each closed cycle into
    `ranges` and `means`, its first and last sample into `start` and `end`; each has samples.size + 2 places, of which
    only those are touched that are needed; `means`, or `start` and `end`, may be empty and are not written then. Returns
    the number of cycles, -1 where a sample is not finite, and the new level.
    A closed cycle is the inner pair of four successive points whose range is not larger than either neighbour's;
    equality counts (otherwise ties would never close).
    """
    depth = state[DEPTH]
    last = state[LAST]
    heading = state[HEADING]
    with_means = means.size > 0
    with_places = start.size > 0
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
    for i in range(first, samples.size):
        value = samples[i]
        up = 1 if value > level else 0
        if up == 0 and not value < level:  # equal, or nan
            if value != level:
                return -1, level
            continue
        if up == heading:
            last = offset + i
            level = value
            continue
        if heading != NOWHERE:
            # `level` is a turning point: put it on the stack and close what it closes
            if level - level != 0.0:  # infinite: always an extreme
                return -1, level
            stack[depth] = level
            places[depth] = last
            depth += 1
            while depth >= 4:
                inner = abs(stack[depth - 3] - stack[depth - 2])
                if inner > abs(stack[depth - 2] - stack[depth - 1]) or inner > abs(stack[depth - 4] - stack[depth - 3]):
                    break
                ranges[cycles] = inner
                if with_means:
                    means[cycles] = 0.5 * (stack[depth - 3] + stack[depth - 2])
                if with_places:
                    start[cycles] = places[depth - 3]
                    end[cycles] = places[depth - 2]
                cycles += 1
                stack[depth - 3] = stack[depth - 1]
                places[depth - 3] = places[depth - 1]
                depth -= 2
        last = offset + i
        level = value
        heading = up
    if level - level != 0.0 or stack[0] - stack[0] != 0.0:
        return -1, level
    state[DEPTH] = depth
    state[LAST] = last
    state[HEADING] = heading
    state[STARTED] = 1
    return cycles, level


@compiled(nogil=True)
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


@compiled(nogil=True)
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


@compiled(nogil=True)
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


@compiled(nogil=True)
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
