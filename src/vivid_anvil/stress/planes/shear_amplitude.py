"""The amplitude of a shear path in a plane: one number of a vector that goes its way."""

from __future__ import annotations

import itertools
from collections.abc import Callable
from functools import lru_cache

import numpy as np
from numpy.typing import ArrayLike

from vivid_anvil.ground.checks import FloatArray, IntArray, read_only
from vivid_anvil.ground.errors import InputError
from vivid_anvil.stress.load_corners import load_corners
from vivid_anvil.stress.planes import _kernels
from vivid_anvil.units import many, opened

TOUCHES = 1e-7  # of the radius, within which a point lies on a circle
MOST_PAIRED = 40  # points that are held against each other by threes


@lru_cache(maxsize=64)
def without_rhyme(size: int) -> IntArray:
    """The numbers below `size` in an order of no meaning, the same each time."""
    return read_only(np.random.default_rng(size).permutation(size))


def _paths(paths: ArrayLike) -> FloatArray:
    found = np.asarray(paths, dtype=np.float64)
    found = found[None] if found.ndim == 2 else found
    if found.ndim != 3 or found.shape[2] != 2 or not found.shape[1] or not np.isfinite(found).all():
        raise InputError("shear path", f"shape {found.shape}", "finite points, shape (n, 2), or (planes, n, 2)")
    return np.ascontiguousarray(found)


def by_circle(paths: FloatArray) -> FloatArray:
    """Radius of the smallest circle round each path, shape (k,) (Dang Van 1973; Papadopoulos 1998)."""
    radii = np.empty(len(paths))
    _kernels.circles(paths, without_rhyme(paths.shape[1]), radii)
    return radii


def by_chord(paths: FloatArray) -> FloatArray:
    """Half of the longest chord of each path, which is half of its greatest range in any direction."""
    halves = np.empty(len(paths))
    _kernels.longest_chords(paths, halves)
    return halves


def by_variance(paths: FloatArray) -> FloatArray:
    """Half of the range along the direction in which each path varies most (its largest variance)."""
    off = paths - paths.mean(axis=1, keepdims=True)
    scatter = np.einsum("kni,knj->kij", off, off)
    along = np.linalg.eigh(scatter)[1][:, :, 1]
    return np.asarray(0.5 * np.ptp(np.einsum("kni,ki->kn", off, along), axis=1))


def carriers(path: FloatArray, amplitude: str) -> IntArray:
    """Numbers of the two or three points of a path, shape (n, 2), that its smallest circle touches or its longest chord joins."""
    points = path - path.mean(axis=0)
    if amplitude == "circle":
        room = np.empty_like(points)
        x, y, radius = _kernels.smallest_circle(np.ascontiguousarray(points), without_rhyme(len(points)), room)
        away = np.hypot(points[:, 0] - x, points[:, 1] - y)
        touch = np.flatnonzero(away >= radius * (1.0 - TOUCHES))
    else:
        corners = load_corners(points)
        touch = np.array([int((points == corner).all(axis=1).argmax()) for corner in corners])
    _, first = np.unique(points[touch], axis=0, return_index=True)
    touch = touch[first]
    if touch.size < 2:
        return touch
    apart = np.linalg.norm(points[touch][:, None] - points[touch][None], axis=2)
    i, j = (int(at) for at in np.unravel_index(int(apart.argmax()), apart.shape))
    if amplitude != "circle" or apart[i, j] >= 2.0 * radius * (1.0 - TOUCHES):
        return touch[[i, j]]
    if touch.size > MOST_PAIRED:  # all around: some of them do
        around = np.argsort(np.arctan2(points[touch, 1] - y, points[touch, 0] - x))
        touch = touch[around[np.linspace(0, touch.size - 1, MOST_PAIRED).astype(np.int64)]]
        apart = np.linalg.norm(points[touch][:, None] - points[touch][None], axis=2)
    best, widest = touch[:3], -1.0
    for three in itertools.combinations(
        range(touch.size), 3
    ):  # those that hold the circle: no angle of theirs is blunt
        sides = sorted(apart[a, b] for a, b in itertools.combinations(three, 2))
        if sides[0] ** 2 + sides[1] ** 2 >= sides[2] ** 2 * (1.0 - TOUCHES) and sides[0] > widest:
            best, widest = touch[list(three)], sides[0]
    return best


SHEAR_AMPLITUDES: dict[str, Callable[[FloatArray], FloatArray]] = {
    "circle": by_circle,
    "chord": by_chord,
    "variance": by_variance,
}


@opened(path=many())
def smallest_circle(path: ArrayLike) -> tuple[FloatArray, float]:
    """Centre, shape (2,), and radius of the smallest circle that holds all points of a path, shape (n, 2) (Welzl 1991).

    Parameters
    ----------
    path : array_like
        Points, shape (n, 2).

    Returns
    -------
    tuple of (ndarray, float)
        Centre and radius, in the unit of the points.

    Raises
    ------
    InputError
        For another shape, and points that are not finite.

    Examples
    --------
    >>> centre, radius = smallest_circle([[0.0, 0.0], [4.0, 0.0], [2.0, 1.0]])
    >>> centre.tolist(), radius
    ([2.0, 0.0], 2.0)
    """
    found = _paths(path)[0]
    x, y, radius = _kernels.smallest_circle(found, without_rhyme(len(found)), np.empty_like(found))
    return np.array([x, y]), float(radius)
