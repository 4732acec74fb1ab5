"""The deviator of tensors as a vector of its length, and how far a path of it leaves a straight line."""

from __future__ import annotations

import numpy as np

from vivid_anvil.ground.checks import FloatArray

FULL = np.array([[0, 3, 5], [3, 1, 4], [5, 4, 2]])  # places of the components in the tensor
TWICE = np.sqrt([1.0, 1.0, 1.0, 2.0, 2.0, 2.0])  # shear stands twice in the tensor
STRAIGHT = 1e-12  # below: rounding


def deviator(tensors: FloatArray) -> FloatArray:
    """Deviators with shear components times √2, so that their length is √(s:s), shape (..., 6)."""
    own = tensors.copy()
    own[..., :3] -= tensors[..., :3].mean(axis=-1, keepdims=True)
    return np.asarray(own * TWICE)


def off_line(sizes: FloatArray) -> FloatArray:
    """The second over the first of singular values, shape (n, k): 0 of a path along a line, 1 of one that fills a circle."""
    if sizes.shape[1] < 2:
        return np.zeros(len(sizes))
    first = sizes[:, 0]
    share = np.where(first > 0.0, sizes[:, 1] / np.where(first > 0.0, first, 1.0), 0.0)
    return np.where(share < STRAIGHT, 0.0, share)
