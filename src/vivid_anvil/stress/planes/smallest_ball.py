"""The smallest ball that holds all points of a path in any number of dimensions, exactly."""

from __future__ import annotations

from itertools import combinations

import numpy as np

from vivid_anvil.ground.checks import FloatArray

OUTSIDE = 1e-12  # of the radius
ROUNDS = 1000


def smallest_ball(points: FloatArray) -> tuple[FloatArray, float]:
    """Centre and radius: the ball of a few points grows by the one that lies farthest outside, until none does.

    The few points of each round are those that the ball before rests on, so that the radius rises and no set comes twice.

    >>> centre, radius = smallest_ball(np.array([[1.0, 0, 0], [-1.0, 0, 0], [0, 0.5, 0]]))
    >>> centre.tolist(), radius
    ([0.0, 0.0, 0.0], 1.0)
    """
    first = int(np.linalg.norm(points - points.mean(axis=0), axis=1).argmax())
    other = int(np.linalg.norm(points - points[first], axis=1).argmax())
    support = [first, other] if other != first else [first]
    for _ in range(ROUNDS):
        centre, radius, rests = _ball_of(points, support)
        far = np.linalg.norm(points - centre, axis=1)
        worst = int(far.argmax())
        if far[worst] <= radius * (1.0 + OUTSIDE) or worst in rests:
            return centre, float(max(radius, far[worst]))
        support = [*rests, worst]
    raise RuntimeError("the smallest ball of a path was not found")


def _ball_of(points: FloatArray, support: list[int]) -> tuple[FloatArray, float, list[int]]:
    """The smallest ball of a few points, and those that lie on it: of all subsets whose own ball holds the rest the smallest."""
    best: tuple[FloatArray, float, list[int]] | None = None
    own = points[support]
    for size in range(1, len(support) + 1):
        for chosen in combinations(range(len(support)), size):
            centre = _through(own[list(chosen)])
            radius = float(np.linalg.norm(own[chosen[0]] - centre))
            room = 1e-10 * max(radius, 1e-300)
            holds = (np.linalg.norm(own - centre, axis=1) <= radius + room).all()
            if holds and (best is None or radius < best[1]):
                best = centre, radius, [support[i] for i in chosen]
        if best is not None and size > 1:
            break
    assert best is not None
    return best


def _through(points: FloatArray) -> FloatArray:
    """The centre, in their own flat, of the smallest ball through all of a few points."""
    first = points[0]
    if len(points) == 1:
        return np.asarray(first)
    across = points[1:] - first
    gram = across @ across.T
    share = np.linalg.lstsq(2.0 * gram, np.diag(gram), rcond=None)[0]
    return np.asarray(first + share @ across)
