"""The samples of a path that carry its large cycles in every direction: enough to find where planes are damaged most."""

from __future__ import annotations

import numpy as np

from vivid_anvil.ground.checks import FloatArray, IntArray
from vivid_anvil.stress.directions import half_sphere
from vivid_anvil.stress.planes import _kernels

GATE = 0.03  # of the largest range, below which cycles are left out
PARTS = 0.02  # of the largest part of a path, below which another one is left out
AROUND = 36  # directions of a path in a plane
STEP = 15.0  # degrees between those of a path in space


def fewer_samples(path: FloatArray) -> IntArray:
    """Numbers of the samples, shape (k,), of a path, (samples, components), at which it turns in any direction."""
    off = path - path.mean(axis=0)
    _, sizes, axes = np.linalg.svd(off, full_matrices=False)
    if not sizes.size or sizes[0] == 0.0:
        return np.arange(min(len(path), 2))
    rank = min(int((sizes > PARTS * sizes[0]).sum()), 3)
    seen = off @ axes[:rank].T
    turn = np.pi * np.arange(AROUND) / AROUND
    directions = {1: np.ones((1, 1)), 2: np.column_stack([np.cos(turn), np.sin(turn)]), 3: half_sphere(STEP)}[rank]
    courses = np.ascontiguousarray((seen @ directions.T).T)
    width = GATE * float(np.ptp(courses, axis=1).max())
    kept = np.zeros(len(path), dtype=np.bool_)
    for course in courses:
        _kernels.mark_turns(course, width, kept)
    return np.flatnonzero(kept)
