"""Loops over samples: arrays in, arrays out, no checks. Inputs are read-only C-contiguous float64."""

import numpy as np
from numba import njit


@njit(cache=True)
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


@njit(cache=True)
def rainflow(samples, ranges, means, start, end, residue):
    """Four-point rainflow in one pass over the samples.

    Writes range and mean of each closed cycle into `ranges` and `means` (float64), its first and last sample into
    `start` and `end` (int64), and the samples of the residue into `residue` (int64). Each has samples.size + 1 places,
    of which only those are touched that are needed. Returns the number of cycles and the length of the residue.
    A closed cycle is the inner pair of four successive points whose range is not larger than either neighbour's;
    equality counts (otherwise ties would never close).
    """
    stack = np.empty(samples.size + 1, np.float64)  # values of the open points; `residue` holds their samples
    cycles = 0
    depth = 1
    level = samples[0]
    stack[0] = level
    residue[0] = 0
    last = 0  # first sample of `level`
    rising = False
    for i in range(1, samples.size + 1):
        value = level
        up = rising
        if i < samples.size:
            value = samples[i]
            if value == level:
                continue
            up = value > level
            if last == 0 or up == rising:
                last = i
                level = value
                rising = up
                continue
        elif last == 0:  # a constant history
            break
        # `level` is a turning point: put it on the stack and close what it closes
        stack[depth] = level
        residue[depth] = last
        depth += 1
        while depth >= 4:
            inner = abs(stack[depth - 3] - stack[depth - 2])
            if inner > abs(stack[depth - 2] - stack[depth - 1]) or inner > abs(stack[depth - 4] - stack[depth - 3]):
                break
            ranges[cycles] = inner
            means[cycles] = 0.5 * (stack[depth - 3] + stack[depth - 2])
            start[cycles] = residue[depth - 3]
            end[cycles] = residue[depth - 2]
            cycles += 1
            stack[depth - 3] = stack[depth - 1]
            residue[depth - 3] = residue[depth - 1]
            depth -= 2
        last = i
        level = value
        rising = up
    return cycles, depth
