"""The few samples of loads at which a convex function of them can be largest: the corners of their convex hull."""

from __future__ import annotations

import numpy as np
from scipy.spatial import ConvexHull, QhullError

from vivid_anvil.ground.checks import FloatArray

_HULL_DIMENSIONS = 4  # beyond, a hull has nearly all points


def load_corners(loads: FloatArray) -> FloatArray:
    """Samples, of shape (samples, cases), that hold every largest value of a convex function of the loads.

    All different samples where a hull is no saving.

    >>> load_corners(np.array([[0.0, 1.0], [2.0, 2.0], [1.0, 1.5], [-1.0, 0.5]]))
    array([[-1. ,  0.5],
           [ 2. ,  2. ]])
    """
    points = np.unique(loads, axis=0)
    moved = points - points.mean(axis=0)
    _, sizes, axes = np.linalg.svd(moved, full_matrices=False)
    kept = int((sizes > 1e-9 * sizes[0]).sum()) if sizes[0] > 0.0 else 0
    if kept == 0:
        return points[:1]
    flat = moved @ axes[:kept].T
    if kept == 1:
        return points[[int(flat[:, 0].argmin()), int(flat[:, 0].argmax())]]
    if kept > _HULL_DIMENSIONS or len(points) <= 2 * kept:
        return points
    try:
        return points[np.sort(ConvexHull(flat).vertices)]
    except QhullError:
        return points
