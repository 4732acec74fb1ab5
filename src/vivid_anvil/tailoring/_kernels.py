"""Oscillators under a history: arrays in, arrays out, no checks."""

import numpy as np

from vivid_anvil.ground.compiled import compiled


@compiled
def _counted(stack, depth, value, slope):
    """Put a turning point on the stack and take out the cycles that it closes; returns depth and the sum of amplitude^slope."""
    total = 0.0
    stack[depth] = value
    depth += 1
    while depth >= 4:
        inner = abs(stack[depth - 2] - stack[depth - 3])
        if inner > abs(stack[depth - 1] - stack[depth - 2]) or inner > abs(stack[depth - 3] - stack[depth - 4]):
            break
        total += (0.5 * inner) ** slope
        stack[depth - 3] = stack[depth - 1]
        depth -= 2
    return depth, total


@compiled
def shaken(base, steps, slope, damage, lowest, highest):
    """Base accelerations through oscillators at rest, each a row of `steps`: two rows of (z, z') from both and two accelerations.

    Of the relative displacement z at the samples: Σ amplitude^slope by the four-point rule, the residue by halves, and extremes.
    `steps`, shape (oscillators, 8): z from (z, v, a0, a1), then v from the same.
    """
    stack = np.empty(base.size + 2)
    for k in range(steps.shape[0]):
        p = steps[k]
        z = v = 0.0
        low = high = 0.0
        stack[0] = 0.0
        depth = 1
        last = 0.0
        heading = 0
        total = 0.0
        for i in range(1, base.size):
            a0, a1 = base[i - 1], base[i]
            z, v = p[0] * z + p[1] * v + p[2] * a0 + p[3] * a1, p[4] * z + p[5] * v + p[6] * a0 + p[7] * a1
            low, high = min(low, z), max(high, z)
            if z != last:
                now = 1 if z > last else -1
                if heading != 0 and now != heading:
                    depth, closed = _counted(stack, depth, last, slope)
                    total += closed
                heading = now
                last = z
        depth, closed = _counted(stack, depth, last, slope)
        total += closed
        for j in range(1, depth):
            total += 0.5 * (0.5 * abs(stack[j] - stack[j - 1])) ** slope
        damage[k] = total
        lowest[k] = low
        highest[k] = high
