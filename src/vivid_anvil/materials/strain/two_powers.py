"""The reversals at which a sum of two falling powers has a value: what every strain-life form has to be solved for."""

from __future__ import annotations

import numpy as np

from vivid_anvil.ground.checks import FloatArray
from vivid_anvil.materials.strain import _kernels


def reversals(
    elastic: FloatArray, slope_1: float, plastic: FloatArray, slope_2: float, value: FloatArray
) -> FloatArray:
    """x of elastic x^slope_1 + plastic x^slope_2 = value, all positive but the slopes; 0 where value is inf, inf where it is 0.

    In logarithms the sum is convex and falls, so that Newton's method from below never overshoots.

    >>> x = reversals(np.array([0.01]), -0.1, np.array([0.5]), -0.6, np.array([0.004]))
    >>> float((0.01 * x**-0.1 + 0.5 * x**-0.6).round(12)[0])
    0.004
    """
    one, two, wanted = np.broadcast_arrays(elastic, plastic, value)
    found = np.where(wanted > 0.0, 0.0, np.inf)
    solved = (wanted > 0.0) & np.isfinite(wanted) & ((one > 0.0) | (two > 0.0))
    if not solved.any():
        return np.asarray(found)
    with np.errstate(divide="ignore"):
        log_1, log_2, log_v = (np.log(each[solved]) for each in (one, two, wanted))
    at = np.empty(log_v.size)
    _kernels.solve_two_powers(log_1, slope_1, log_2, slope_2, log_v, at)
    with np.errstate(over="ignore"):
        found[solved] = np.exp(at)
    return np.asarray(found)
