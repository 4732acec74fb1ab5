"""The smallest ball that holds all points of a path in any number of dimensions, exactly."""

from __future__ import annotations

import numpy as np

from vivid_anvil.ground.checks import FloatArray
from vivid_anvil.stress.planes import _ball_kernels as kernels


def smallest_ball(points: FloatArray) -> tuple[FloatArray, float]:
    """Centre and radius of the smallest ball round points, shape (n, dimensions).

    >>> centre, radius = smallest_ball(np.array([[1.0, 0, 0], [-1.0, 0, 0], [0, 0.5, 0]]))
    >>> centre.tolist(), radius
    ([0.0, 0.0, 0.0], 1.0)
    """
    centre = np.empty(points.shape[1])
    return centre, _found(float(kernels.ball(np.ascontiguousarray(points, dtype=np.float64), centre)))


def balls_of_places(corners: FloatArray, units: FloatArray) -> tuple[FloatArray, FloatArray]:
    """The same of the path at each of many places: corners of the loads, (n, cases), times `units`, (places, cases, 6).

    >>> centres, radii = balls_of_places(np.array([[1.0], [-1.0]]), np.array([[[2.0, 0, 0, 0, 0, 0]]]))
    >>> centres.tolist(), radii.tolist()
    ([[0.0, 0.0, 0.0, 0.0, 0.0, 0.0]], [2.0])
    """
    centres, radii = np.empty((len(units), 6)), np.empty(len(units))
    kernels.balls_of_places(np.ascontiguousarray(corners), np.ascontiguousarray(units), centres, radii)
    _found(float(radii.min(initial=0.0)))
    return centres, radii


def _found(radius: float) -> float:
    if radius < 0.0:
        raise RuntimeError("the smallest ball of a path was not found")
    return radius
