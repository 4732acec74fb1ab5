"""Faces cut along the borders of bands, so that a colour follows what is between the nodes and not a face as a whole."""

from __future__ import annotations

import itertools
import math

import numpy as np

from vivid_anvil.ground.checks import FloatArray, IntArray
from vivid_anvil.units import number

# From the shortest life on: told apart in grey print and by colour-blind eyes, as lightness rises all the way.
COLOURS = ("#3d0a14", "#7a1022", "#b3432b", "#d97a34", "#e6a955", "#efcd8c", "#f3e3c3")
NO_DAMAGE = "#f4f6f9"
STEPS = (1.0, 3.0, 10.0)
BEYOND, ABOVE = 0.5, 0.35  # decades: of the first and last band, and of what has no damage above it
INSIDE = 0.05  # decades that the longest lives stay within the last band, whatever a screen rounds


def bands(shortest: float, longest: float, most: int = len(COLOURS)) -> list[float]:
    """Borders of life, in its unit, at 1, 3, 10, 30, ..., that part lives from `shortest` on; the last band is open."""
    first = 10.0 ** math.floor(math.log10(shortest))
    start = next(first * step for step in STEPS if first * step > shortest * (1.0 + 1e-12))
    borders = [start]
    while len(borders) < most - 1 and borders[-1] < longest:
        power = 10.0 ** math.floor(math.log10(borders[-1]) + 1e-9)
        borders.append(power * 3.0 if borders[-1] < 2.0 * power else power * 10.0)
    return borders


def life_bands(lives: FloatArray) -> list[float]:
    """The borders for all nodes of a model, so that every view of it has the same; none where nothing has a finite life."""
    finite = lives[np.isfinite(lives) & (lives > 0.0)]
    return bands(float(finite.min()), float(finite.max())) if finite.size else []


def band_colours(borders: list[float]) -> list[str]:
    """A colour a band of `life_heights`, the last for what has no damage."""
    return [*COLOURS[: len(borders) + 1], NO_DAMAGE] if borders else [NO_DAMAGE] * 3


def life_heights(lives: FloatArray, borders: list[float]) -> tuple[FloatArray, list[float]]:
    """log10 of lives, and the borders of all bands in it: shortest, `borders`, longest, what has no damage.

    >>> heights, edges = life_heights(np.array([0.0, 20.0, np.inf]), [10.0, 100.0])
    >>> heights.round(2).tolist(), [round(one, 2) for one in edges]
    ([0.5, 1.3, 2.85], [0.5, 1.0, 2.0, 2.5, 2.85])
    """
    at = [math.log10(one) for one in borders] or [0.0]
    low, high = at[0] - BEYOND, at[-1] + BEYOND
    with np.errstate(divide="ignore"):
        heights = np.clip(np.log10(lives), low, high - INSIDE)
    heights[np.isinf(lives)] = high + ABOVE
    return heights, [low, *at, high, high + ABOVE]


def cut_into_bands(
    corners: FloatArray, heights: FloatArray, edges: list[float]
) -> tuple[FloatArray, IntArray, IntArray]:
    """Parts of faces that each lie in one band, shape (k, 4, 2), the face each is of, rising, and its band.

    `corners`, shape (m, 4, 2), are those of faces in the picture, a triangle's last twice; `heights`, shape (m, 4), what is known
    there, even between them; `edges` are the borders of the bands, the first and last included.

    >>> square = np.array([[[0.0, 0], [1, 0], [1, 1], [0, 1]]])
    >>> parts, face, band = cut_into_bands(square, np.array([[0.0, 1, 1, 0]]), [0.0, 0.25, 1.0])
    >>> sorted(set(band.tolist())), set(face.tolist())
    ([0, 1], {0})
    """
    points = np.concatenate([corners, heights[:, :, None]], axis=2)  # x, y, height
    within = np.searchsorted(edges[1:-1], heights, side="right")
    whole = (within == within[:, :1]).all(axis=1)
    four = ~whole & (corners[:, 2] != corners[:, 3]).any(axis=1)
    three = ~whole & ~four
    quads = points[four]
    middle = quads.mean(axis=1, keepdims=True)
    cut = np.concatenate(
        [points[three][:, :3], *(np.concatenate([quads[:, [i, (i + 1) % 4]], middle], axis=1) for i in range(4))]
    )
    face = np.concatenate([np.flatnonzero(three), *[np.flatnonzero(four)] * 4])
    for border in edges[1:-1]:
        cut, face = _cut(cut, face, border)
    band = np.searchsorted(edges[1:-1], cut[:, :, 2].mean(axis=1), side="right")
    made = np.concatenate([corners[whole], cut[:, [0, 1, 2, 2], :2]])
    face = np.concatenate([np.flatnonzero(whole), face])
    band = np.concatenate([within[whole, 0], band])
    order = np.argsort(face, kind="stable")
    return made[order], face[order], np.asarray(band[order])


def _cut(triangles: FloatArray, face: IntArray, border: float) -> tuple[FloatArray, IntArray]:
    """Triangles that reach over a border as three, the others as they are."""
    above = triangles[:, :, 2] > border
    over = above.any(axis=1) & ~above.all(axis=1)
    if not over.any():
        return triangles, face
    those, sides = triangles[over], above[over]
    alone = np.where(sides.sum(axis=1) == 1, sides.argmax(axis=1), (~sides).argmax(axis=1))
    rows = np.arange(len(those))
    tip, left, right = (those[rows, (alone + i) % 3] for i in range(3))
    on_left, on_right = _between(tip, left, border), _between(tip, right, border)
    made = [
        np.stack(three, axis=1)
        for three in ((tip, on_left, on_right), (on_left, left, right), (on_left, right, on_right))
    ]
    return np.concatenate([triangles[~over], *made]), np.concatenate([face[~over], *[face[over]] * 3])


def _between(one: FloatArray, other: FloatArray, border: float) -> FloatArray:
    """Where the line between two points meets the border."""
    share = (border - one[:, 2]) / (other[:, 2] - one[:, 2])
    return np.asarray(one + share[:, None] * (other - one))


def band_names(borders: list[float]) -> list[str]:
    """What a legend says of each band.

    >>> band_names([10.0, 30.0])
    ['below 10', '10 to 30', '30 and more']
    """
    if not borders:
        return []
    between = [f"{number(low)} to {number(high)}" for low, high in itertools.pairwise(borders)]
    return [f"below {number(borders[0])}", *between, f"{number(borders[-1])} and more"]
