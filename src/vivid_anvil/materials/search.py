"""The top of a likelihood: by the simplex of Nelder and Mead, then by Newton steps; and its curvature there."""

from __future__ import annotations

from collections.abc import Callable
from typing import Any

import numpy as np

from vivid_anvil.ground.checks import FloatArray

Value = Callable[[FloatArray], float]


def simplex(value: Value, start: FloatArray, tolerance: float = 1e-4) -> FloatArray:
    """The top of `value` near `start` (Nelder, J. A. and Mead, R. 1965, Computer Journal 7, 308-313)."""
    settings: Any = {"xatol": tolerance, "fatol": tolerance, "maxiter": 3000, "maxfev": 3000}

    from scipy.optimize import minimize  # takes long to import

    def lost(theta: Any) -> float:
        return -value(theta)

    return np.asarray(minimize(lost, start, method="Nelder-Mead", options=settings).x, dtype=np.float64)


def highest(value: Value, start: FloatArray) -> FloatArray:
    """The top near `start`: simplex twice, then Newton steps while they climb."""
    theta = simplex(value, simplex(value, start), 1e-8)
    for _ in range(20):
        gradient, curvature = derivatives(value, theta)
        try:
            step = np.linalg.solve(curvature, gradient)
        except np.linalg.LinAlgError:
            return theta
        if not np.isfinite(step).all() or not value(theta - step) >= value(theta):
            return theta
        theta = theta - step
        if np.abs(step).max() < 1e-10:
            return theta
    return theta


def derivatives(value: Value, theta: FloatArray) -> tuple[FloatArray, FloatArray]:
    """Gradient and curvature by central differences."""
    size = theta.size
    steps = np.diag(1e-4 * np.maximum(1.0, np.abs(theta)))
    middle = value(theta)
    gradient, curvature = np.zeros(size), np.zeros((size, size))
    for i in range(size):
        ahead, behind = value(theta + steps[i]), value(theta - steps[i])
        gradient[i] = (ahead - behind) / (2.0 * steps[i, i])
        curvature[i, i] = (ahead - 2.0 * middle + behind) / steps[i, i] ** 2
        for j in range(i):
            corners = [value(theta + a * steps[i] + b * steps[j]) for a, b in ((1, 1), (1, -1), (-1, 1), (-1, -1))]
            mixed = (corners[0] - corners[1] - corners[2] + corners[3]) / (4.0 * steps[i, i] * steps[j, j])
            curvature[i, j] = curvature[j, i] = mixed
    return gradient, curvature


def is_top(curvature: FloatArray) -> bool:
    """Whether the likelihood falls in every direction, by more than round-off."""
    if not np.isfinite(curvature).all():
        return False
    falls = np.linalg.eigvalsh(-curvature)
    return bool(falls.min() > 1e-9 * falls.max() > 0.0)
