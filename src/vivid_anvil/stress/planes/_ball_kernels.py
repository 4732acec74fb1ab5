"""The loop that finds the smallest ball round points."""

import numpy as np

from vivid_anvil.ground.compiled import compiled

OUTSIDE = 1e-12  # of the radius
ROUNDS = 1000
FLAT = 1e-13  # of the largest entry: points that lie in the flat of the others


@compiled
def ball(points, centre):
    """Radius of the smallest ball that holds all points, shape (n, dimensions); its centre is written. -1 where none was found.

    The ball of a few points grows by the one that lies farthest outside, until none does. The few are those that the ball before
    rests on, so that the radius rises and no set comes twice.
    """
    support = np.empty(points.shape[1] + 2, np.int64)
    support[0] = _farthest(points, _middle(points))
    support[1] = _farthest(points, points[support[0]])
    held = 2 if support[1] != support[0] else 1
    for _round in range(ROUNDS):
        held, radius = _rests(points, support, held, centre)
        worst = _farthest(points, centre)
        far = np.sqrt(_square(points[worst], centre))
        resting = False
        for i in range(held):
            resting = resting or support[i] == worst
        if far <= radius * (1.0 + OUTSIDE) or resting:
            return max(radius, far)
        support[held] = worst
        held += 1
    return -1.0


@compiled
def _square(one, other):
    total = 0.0
    for c in range(one.size):
        total += (one[c] - other[c]) ** 2
    return total


@compiled
def _middle(points):
    found = np.zeros(points.shape[1])
    for i in range(points.shape[0]):
        for c in range(found.size):
            found[c] += points[i, c] / points.shape[0]
    return found


@compiled
def _farthest(points, place):
    best, found = -1.0, 0
    for i in range(points.shape[0]):
        square = _square(points[i], place)
        if square > best:
            best, found = square, i
    return found


@compiled
def _rests(points, support, held, centre):
    """The smallest ball of a few points, and those that lie on it: of all subsets whose own ball holds the rest the smallest."""
    best, kept = np.inf, 0
    tried = np.empty(points.shape[1])
    chosen = np.empty(held, np.int64)
    for size in range(1, held + 1):
        for mask in range(1, 1 << held):
            many = 0
            for i in range(held):
                if mask >> i & 1:
                    chosen[many] = support[i]
                    many += 1
            if many != size:
                continue
            _through(points, chosen[:many], tried)
            radius = np.sqrt(_square(points[chosen[0]], tried))
            room = radius + 1e-10 * max(radius, 1e-300)
            holds = radius < best
            for i in range(held):
                holds = holds and np.sqrt(_square(points[support[i]], tried)) <= room
            if holds:
                best, kept = radius, mask
                for c in range(tried.size):
                    centre[c] = tried[c]
        if kept and size > 1:
            break
    many = 0
    for i in range(held):
        if kept >> i & 1:
            support[many] = support[i]
            many += 1
    return many, best


@compiled
def _through(points, chosen, centre):
    """The centre, in their own flat, of the smallest ball through all of a few points."""
    first, size = points[chosen[0]], chosen.size - 1
    for c in range(first.size):
        centre[c] = first[c]
    if size == 0:
        return
    gram, half = np.empty((size, size)), np.empty(size)
    for i in range(size):
        for j in range(size):
            total = 0.0
            for c in range(first.size):
                total += (points[chosen[i + 1], c] - first[c]) * (points[chosen[j + 1], c] - first[c])
            gram[i, j] = 2.0 * total
        half[i] = 0.5 * gram[i, i]
    _solve(gram, half)
    for i in range(size):
        for c in range(first.size):
            centre[c] += half[i] * (points[chosen[i + 1], c] - first[c])


@compiled
def _solve(matrix, values):
    """Solve in place, by elimination of the largest entry left; what hangs on the rest counts as 0 (points of one flat)."""
    size = values.size
    whole = 0.0
    for i in range(size):
        whole = max(whole, matrix[i, i])
    rows, columns = np.full(size, -1), np.full(size, -1)  # of the column that a row stands for, and the other way round
    for _step in range(size):
        row, column, best = -1, -1, FLAT * whole
        for i in range(size):
            for j in range(size):
                if rows[i] < 0 and columns[j] < 0 and abs(matrix[i, j]) > best:
                    row, column, best = i, j, abs(matrix[i, j])
        if row < 0:
            break
        rows[row], columns[column] = column, row
        for i in range(size):
            if i != row:
                factor = matrix[i, column] / matrix[row, column]
                for j in range(size):
                    matrix[i, j] -= factor * matrix[row, j]
                values[i] -= factor * values[row]
    found = np.zeros(size)
    for i in range(size):
        if rows[i] >= 0:
            found[rows[i]] = values[i] / matrix[i, rows[i]]
    for i in range(size):
        values[i] = found[i]


@compiled
def balls_of_places(corners, units, centres, radii):
    """Radius of each place's path, and its centre: corners (n, k) of loads times what each load does there, (places, k, 6)."""
    many, cases = corners.shape
    points = np.empty((many, 6))
    for p in range(units.shape[0]):
        for i in range(many):
            for c in range(6):
                total = 0.0
                for k in range(cases):
                    total += corners[i, k] * units[p, k, c]
                points[i, c] = total
        radii[p] = ball(points, centres[p])
