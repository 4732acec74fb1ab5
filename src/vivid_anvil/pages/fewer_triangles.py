"""A surface of fewer triangles: points near each other become the worst of them, so that no worst place is lost."""

from __future__ import annotations

import numpy as np

from vivid_anvil.ground.checks import FloatArray, IntArray

SEARCHES = 24


def triangles_of(faces: IntArray) -> IntArray:
    """Faces of four corners, a triangle's last twice, as triangles, shape (m, 3).

    >>> triangles_of(np.array([[0, 1, 2, 3], [4, 5, 6, 6]])).tolist()
    [[0, 1, 2], [4, 5, 6], [0, 2, 3]]
    """
    four = faces[:, 2] != faces[:, 3]
    return np.concatenate([faces[:, :3], faces[four][:, [0, 2, 3]]])


def fewer(points: FloatArray, triangles: IntArray, weight: FloatArray, most: int) -> IntArray:
    """At most `most` triangles over the same points, shape (m, 3); the same ones where they are few enough.

    Points, shape (n, 3), in one cell of a grid over the model become the one of the largest `weight`, shape (n,); triangles that
    shrink to a line vanish. The cells are as small as `most` allows.

    >>> square = np.array([[0.0, 0, 0], [1, 0, 0], [1, 1, 0], [0, 1, 0], [1.01, 1, 0]])
    >>> fewer(square, np.array([[0, 1, 2], [0, 2, 3], [1, 4, 2]]), np.arange(5.0), 2).tolist()
    [[0, 1, 4], [0, 4, 3]]
    """
    if len(triangles) <= most:
        return triangles
    low = points.min(axis=0)
    reach = float(np.ptp(points, axis=0).max())
    coarse, fine = 1.0, float(len(triangles))  # cells along the longest side
    best = _merged(points, triangles, weight, low, reach / coarse)
    for _ in range(SEARCHES):
        middle = np.sqrt(coarse * fine)
        made = _merged(points, triangles, weight, low, reach / middle)
        if len(made) <= most:
            best, coarse = made, middle
        else:
            fine = middle
        if fine / coarse < 1.01:
            break
    return best


def _merged(points: FloatArray, triangles: IntArray, weight: FloatArray, low: FloatArray, size: float) -> IntArray:
    """The triangles between the heaviest points of the cells."""
    used = np.unique(triangles)
    cells = np.floor((points[used] - low) / size).astype(np.int64)
    span = cells.max(axis=0) + 1
    keys = (cells[:, 0] * span[1] + cells[:, 1]) * span[2] + cells[:, 2]
    order = np.lexsort((used, -weight[used], keys))
    firsts = np.append(True, np.diff(keys[order]) != 0)
    leader_of = np.empty(len(points), dtype=np.int64)
    leader_of[used[order]] = used[order][firsts][np.cumsum(firsts) - 1]
    moved = leader_of[triangles]
    flat = (moved[:, 0] == moved[:, 1]) | (moved[:, 1] == moved[:, 2]) | (moved[:, 0] == moved[:, 2])
    kept = moved[~flat]
    _, once = np.unique(np.sort(kept, axis=1), axis=0, return_index=True)
    return np.asarray(kept[np.sort(once)])
