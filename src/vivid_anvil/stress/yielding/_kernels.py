"""Loops over turning points with material memory."""

import numpy as np
from numba import njit


@njit(cache=True, error_model="numpy")
def on_skeleton(x, step, stress, slope_of_stress, strain, slope_of_strain):
    """Stress and strain at a drive of 0 or more, between rows of a table with slopes, the step between rows even."""
    last = stress.size - 2
    at = x / step
    i = min(int(at), last)
    t = at - i
    t2 = t * t
    t3 = t2 * t
    h00 = 2.0 * t3 - 3.0 * t2 + 1.0
    h10 = (t3 - 2.0 * t2 + t) * step
    h01 = 3.0 * t2 - 2.0 * t3
    h11 = (t3 - t2) * step
    return (
        h00 * stress[i] + h10 * slope_of_stress[i] + h01 * stress[i + 1] + h11 * slope_of_stress[i + 1],
        h00 * strain[i] + h10 * slope_of_strain[i] + h01 * strain[i + 1] + h11 * slope_of_strain[i + 1],
    )


@njit(cache=True, error_model="numpy")
def follow(drive, largest, step, stress, slope_of_stress, strain, slope_of_strain, at_stress, at_strain, ends):
    """Stress and strain at each turning point, and every loop that closes; how many did.

    `largest` is the largest size of drive so far; where it is passed the path runs on the cyclic curve. `ends`, with room for
    half as many rows as there are points, gets the turning points of a loop, the earlier first.
    """
    stack = np.empty(drive.size + 1, np.int64)
    depth = 0
    closed = 0
    for k in range(drive.size):
        x = drive[k]
        while depth >= 2:
            c = stack[depth - 1]
            b = stack[depth - 2]
            if abs(x - drive[c]) < abs(drive[c] - drive[b]):
                break
            ends[closed, 0] = b
            ends[closed, 1] = c
            closed += 1
            depth -= 2
        if abs(x) > largest or depth == 0:  # on the cyclic curve: what was open before is forgotten
            largest = max(largest, abs(x))
            s, e = on_skeleton(abs(x), step, stress, slope_of_stress, strain, slope_of_strain)
            sign = 1.0 if x >= 0.0 else -1.0
            at_stress[k] = sign * s
            at_strain[k] = sign * e
            depth = 0
        else:
            a = stack[depth - 1]
            s, e = on_skeleton(0.5 * abs(x - drive[a]), step, stress, slope_of_stress, strain, slope_of_strain)
            sign = 1.0 if x >= drive[a] else -1.0
            at_stress[k] = at_stress[a] + sign * 2.0 * s
            at_strain[k] = at_strain[a] + sign * 2.0 * e
        stack[depth] = k
        depth += 1
    return closed
