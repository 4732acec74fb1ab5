"""The loop over values for which a sum of two falling powers is solved."""

import numpy as np

from vivid_anvil.ground.compiled import compiled

ROUNDS = 60
CLOSE = 1e-14


@compiled
def two_powers(log_1, slope_1, log_2, slope_2, wanted):
    """The logarithm of one x."""
    at = max((wanted - log_1) / slope_1, (wanted - log_2) / slope_2)
    for _round in range(ROUNDS):
        first, second = log_1 + slope_1 * at, log_2 + slope_2 * at
        top, bottom = max(first, second), min(first, second)
        share = np.exp(bottom - top)
        total = top + np.log1p(share)
        one = 1.0 / (1.0 + share)
        other = 1.0 - one
        slope = slope_1 * one + slope_2 * other if first >= second else slope_1 * other + slope_2 * one
        step = (total - wanted) / slope
        at -= step
        if abs(step) <= CLOSE * max(abs(at), 1.0):
            break
    return at


@compiled
def solve_two_powers(log_1, slope_1, log_2, slope_2, log_value, found):
    """Logarithms of x where e^log_1 x^slope_1 + e^log_2 x^slope_2 has a value, by Newton's method from below."""
    for i in range(log_value.size):
        found[i] = two_powers(log_1[i], slope_1, log_2[i], slope_2, log_value[i])
