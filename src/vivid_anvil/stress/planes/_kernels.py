"""Loops over paths in planes."""

import numpy as np

from vivid_anvil.counting._kernels import turning_points
from vivid_anvil.ground.compiled import compiled

ROOM = 1e-12  # of the radius, by which a point may lie outside: rounding


@compiled
def _of_two(ax, ay, bx, by):
    x, y = 0.5 * (ax + bx), 0.5 * (ay + by)
    return x, y, (ax - x) ** 2 + (ay - y) ** 2


@compiled
def _of_three(ax, ay, bx, by, cx, cy):
    """Circle through three points; of points on a line that of the two farthest apart."""
    ux, uy, vx, vy = bx - ax, by - ay, cx - ax, cy - ay
    cross = 2.0 * (ux * vy - uy * vx)
    u, v = ux * ux + uy * uy, vx * vx + vy * vy
    if abs(cross) <= 1e-14 * (u + v):
        w = (bx - cx) ** 2 + (by - cy) ** 2
        if u >= v and u >= w:
            return _of_two(ax, ay, bx, by)
        if v >= w:
            return _of_two(ax, ay, cx, cy)
        return _of_two(bx, by, cx, cy)
    x, y = (vy * u - uy * v) / cross, (ux * v - vx * u) / cross
    return ax + x, ay + y, x * x + y * y


@compiled
def smallest_circle(given, order, path):
    """Centre and radius of the smallest circle that holds all points, shape (n, 2): points are added one after the other.

    Welzl, E. 1991, without recursion; a point outside of the circle so far lies on the next one. `order` is that in which they
    are added, without rhyme: in the order of a smooth path nearly every point would start anew. `path` is room for them.
    """
    for i in range(order.size):
        path[i, 0], path[i, 1] = given[order[i], 0], given[order[i], 1]
    x, y, square = path[0, 0], path[0, 1], 0.0
    for i in range(1, path.shape[0]):
        if _inside(path, i, x, y, square):
            continue
        x, y, square = path[i, 0], path[i, 1], 0.0
        for j in range(i):
            if _inside(path, j, x, y, square):
                continue
            x, y, square = _of_two(path[i, 0], path[i, 1], path[j, 0], path[j, 1])
            for k in range(j):
                if not _inside(path, k, x, y, square):
                    x, y, square = _of_three(path[i, 0], path[i, 1], path[j, 0], path[j, 1], path[k, 0], path[k, 1])
    return x, y, np.sqrt(square)


@compiled
def _inside(path, i, x, y, square):
    return (path[i, 0] - x) ** 2 + (path[i, 1] - y) ** 2 <= square * (1.0 + ROOM)


@compiled
def circles(paths, order, radii):
    """The radius for each path, shape (k, n, 2)."""
    room = np.empty((paths.shape[1], 2))
    for i in range(paths.shape[0]):
        radii[i] = smallest_circle(paths[i], order, room)[2]


@compiled
def longest_chords(paths, halves):
    """Half of the longest chord of each path, shape (k, n, 2)."""
    for k in range(paths.shape[0]):
        longest = 0.0
        for i in range(paths.shape[1]):
            for j in range(i):
                square = (paths[k, i, 0] - paths[k, j, 0]) ** 2 + (paths[k, i, 1] - paths[k, j, 1]) ** 2
                longest = max(longest, square)
        halves[k] = 0.5 * np.sqrt(longest)


@compiled
def loops(tau, normal, turns, ranges, largest, start, end):
    """Loops of a repeated course of shear, and the largest normal stress while each lasts; how many.

    The course begins at its highest shear and ends there again; `turns` are its turning points. Loops close by the four-point
    rule. One lasts from where it starts to where the course comes back to that shear; the widest, the last, all the time.
    """
    stack = np.empty(turns.size + 1, np.int64)
    level = np.empty(turns.size + 1)
    between = np.empty(turns.size + 1)  # largest from one open point to the next
    depth = found = 0
    since = whole = normal[0]  # since: largest since the last open point
    at = 0
    for t in range(turns.size):
        x = turns[t]
        value = tau[x]
        before, last = since, at  # up to the turn before: no loop that closes now had come back by then
        for i in range(at + 1, x + 1):
            since = max(since, normal[i])
        at = x
        whole = max(whole, since)
        while depth >= 3:
            low, high = level[depth - 2], level[depth - 1]
            size = abs(low - high)
            if size > abs(high - value):
                break
            ranges[found] = size
            peak = max(between[depth - 2], before)
            if peak < since:
                peak = max(peak, _until(tau, normal, last, x, low, high < low))
            largest[found] = peak
            start[found], end[found] = stack[depth - 2], stack[depth - 1]
            found += 1
            inner = max(between[depth - 3], between[depth - 2])
            since, before = max(since, inner), max(before, inner)
            depth -= 2
        if depth > 0:
            between[depth - 1] = since
        stack[depth] = x
        level[depth] = value
        depth += 1
        since = normal[x]
    for i in range(at + 1, normal.size):  # the course may end level with its last turning point
        whole = max(whole, normal[i])
    if depth >= 2:
        ranges[found], largest[found] = abs(level[0] - level[1]), whole
        start[found], end[found] = stack[0], stack[1]
        found += 1
    return found


@compiled
def _until(tau, normal, first, last, level, rises):
    """Largest normal stress from a place on until the shear has come to a level, straight from sample to sample."""
    found = normal[first]
    for i in range(first + 1, last + 1):
        if (tau[i] >= level) if rises else (tau[i] <= level):
            share = (level - tau[i - 1]) / (tau[i] - tau[i - 1])
            return max(found, normal[i - 1] + share * (normal[i] - normal[i - 1]))
        found = max(found, normal[i])
    return found


@compiled
def loops_of_courses(courses, besides, ranges, peaks, ends):
    """Loops of many repeated courses, (courses, samples), one after the other: ranges, and the largest of each of `besides`,
    (kinds, samples), while each lasts, (kinds, loops); `ends` says where those of each course end."""
    many, samples = courses.shape
    turned, beside = np.empty(samples + 1), np.empty(samples + 1)
    index = np.empty(samples + 1, np.int64)
    start, end = np.empty(samples // 2 + 3, np.int64), np.empty(samples // 2 + 3, np.int64)
    at = 0
    for d in range(many):
        top = 0
        for i in range(1, samples):
            if courses[d, i] > courses[d, top]:
                top = i
        turned[: samples - top] = courses[d, top:]
        turned[samples - top :] = courses[d, : top + 1]
        turns = index[: turning_points(turned, index)]
        found = 0
        for k in range(besides.shape[0]):
            beside[: samples - top] = besides[k, top:]
            beside[samples - top :] = besides[k, : top + 1]
            found = loops(turned, beside, turns, ranges[at:], peaks[k, at:], start, end)
        at += found
        ends[d] = at


@compiled
def mark_turns(values, width, kept):
    """Mark the turning points between which values go at least `width`."""
    high = low = 0  # samples of the extremes since the last turn
    rising = falling = False
    for i in range(1, values.size):
        if values[i] > values[high]:
            high = i
        if values[i] < values[low]:
            low = i
        if not falling and values[high] - values[i] >= width:
            kept[high] = True
            falling, rising = True, False
            low = i
        elif not rising and values[i] - values[low] >= width:
            kept[low] = True
            rising, falling = True, False
            high = i
        elif falling and values[low] == values[i]:
            high = i
        elif rising and values[high] == values[i]:
            low = i
    kept[high] = kept[low] = True
