"""Loops from energy on planes to the damage of a flaw there: cycles counted, each grown from the flaw at the start to its end."""

import numpy as np

from vivid_anvil.ground.compiled import compiled
from vivid_anvil.ground.handed import REAL, ROW, caller
from vivid_anvil.stress.rubber._kernels import BLOCK, energies, squares_of

RATE = REAL(ROW, REAL)  # numbers of a law, tearing energy of a relaxing cycle, N/mm -> mm/cycle
call = caller(RATE)
AT, WEIGHTS = np.polynomial.legendre.leggauss(24)
ALIKE = 1e-9  # of the exponent, within which the power is the logarithm
# where the numbers of a flaw stand in their row
START, END, PER_SIZE, BY_RANGE, MIDDLE, SLOPE, RISE, ONE, TWO, THREE = range(10)
LEAST, FINE = np.log(1e-6), 0.05  # of the logarithm of an energy, MPa, in tables of what a cycle does at most
NEAR = 0.85  # of the best on the net, from which on a plane is looked at more closely
HILLS, AROUND = 4, 8  # that are climbed, and planes looked at around each
ROUGH, FINEST = 1.0, 0.02  # degrees to which hills are climbed, and the highest
TURN = 0.7  # radians between one look around and the next: a ridge may run along none of eight ways
GAIN = 1e-6  # share by which a plane has to be better


@compiled
def slope_of(flaw, r):
    """F(R)."""
    return flaw[SLOPE] * np.exp(flaw[RISE] * r) + flaw[ONE] * r + flaw[TWO] * r * r + flaw[THREE] * r * r * r


@compiled
def life(rate, numbers, knees, flaw, energy, r):
    """Cycles of a largest energy density, MPa, and R that grow the flaw from its start to its end; inf where it does not grow."""
    if energy <= 0.0 or r >= 1.0:
        return np.inf
    start, end, middle = flaw[START], flaw[END], flaw[MIDDLE]
    bent = 1.0  # power of the tearing energy, over the middle, that a cycle of R relaxing alone has
    scale = flaw[PER_SIZE] * energy / middle
    if flaw[BY_RANGE] > 0.5:
        scale *= 1.0 - r
    else:
        bent = slope_of(flaw, r) / flaw[SLOPE]
    first = call(rate, numbers, middle * (scale * start) ** bent)
    if not first > 0.0:
        return np.inf
    whole = np.log(end / start)
    if knees.size == 0:  # one power of the size
        x = (1.0 - flaw[SLOPE] * bent) * whole
        ratio = 1.0 + 0.5 * x if abs(x) < ALIKE else np.expm1(x) / x
        return start * whole * ratio / first
    total, low = 0.0, 0.0
    for k in range(knees.size + 1):
        high = whole
        if k < knees.size:
            size = (knees[k] / middle) ** (1.0 / bent) / scale
            high = min(max(np.log(size / start), 0.0), whole)
        if high <= low:
            continue
        half = 0.5 * (high - low)
        for i in range(AT.size):
            size = start * np.exp(low + half * (1.0 + AT[i]))
            total += half * WEIGHTS[i] * size / call(rate, numbers, middle * (scale * size) ** bent)
        low = high
    return total


@compiled
def _of_cycle(one, other, rate, numbers, knees, flaw, quick):
    """Damage of a cycle between two energies, MPa; `quick` is what one power of the range gives over growth at the first size."""
    high, low = max(one, other), min(one, other)
    if high <= 0.0 or high == low:
        return 0.0
    if quick > 0.0:
        return quick * call(rate, numbers, flaw[PER_SIZE] * (high - low) * flaw[START])
    return 1.0 / life(rate, numbers, knees, flaw, high, low / high)


@compiled
def damage_of_course(course, rate, numbers, knees, flaw, stack):
    """Damage of the cycles of energy, MPa, none below 0, in a course that follows itself for ever.

    Three points, from the largest on and back to it: a range that the next one reaches is a cycle.
    """
    size, top = course.size, 0
    for i in range(1, size):
        top = i if course[i] > course[top] else top
    quick = 0.0
    if knees.size == 0 and flaw[BY_RANGE] > 0.5:  # of one power all lives go as growth at the first size
        whole = np.log(flaw[END] / flaw[START])
        x = (1.0 - flaw[SLOPE]) * whole
        quick = 1.0 / (flaw[START] * whole * (1.0 + 0.5 * x if abs(x) < ALIKE else np.expm1(x) / x))
    total, depth = 0.0, 1
    stack[0] = course[top]
    at = top
    for _ in range(size):
        at = at + 1 if at + 1 < size else 0
        value = course[at]
        if depth >= 2 and (value > stack[depth - 1]) == (stack[depth - 1] > stack[depth - 2]):
            stack[depth - 1] = value
        elif value != stack[depth - 1]:
            stack[depth] = value
            depth += 1
        while depth >= 3 and abs(stack[depth - 1] - stack[depth - 2]) >= abs(stack[depth - 2] - stack[depth - 3]):
            total += _of_cycle(stack[depth - 3], stack[depth - 2], rate, numbers, knees, flaw, quick)
            stack[depth - 3] = stack[depth - 1]
            depth -= 2
    return total


@compiled
def _level(found, plane, first, last, course):
    """Energy on a plane over the part that is repeated, less what a pass leaves, in proportion to the step; none below 0."""
    steps = last - first
    over = (found[last, plane] - found[first, plane]) / steps
    for s in range(steps):
        course[s] = max(found[first + s, plane] - over * s, 0.0)
    return steps


@compiled
def damage_on_planes(work, line, traction, planes, closes, ends, first, often, rate, numbers, knees, flaw, sums):
    """Damage of each way through states on planes, into `sums`, (ways, planes).

    Steps of all ways stand one after the other, those of each up to `ends`; `first` says from which of its rows on a way is
    repeated, `often` how often in a repeat.
    """
    longest, before = 0, 0
    for w in range(ends.size):
        longest, before = max(longest, ends[w] - before), ends[w]
    squares, found = np.empty((6, BLOCK)), np.empty((longest + 1, BLOCK))
    own = np.empty((BLOCK, 3))
    course, stack = np.empty(longest + 1), np.empty(longest + 3)
    for start in range(0, planes.shape[0], BLOCK):
        size = min(BLOCK, planes.shape[0] - start)
        own[:size] = planes[start : start + size]
        own[size:] = planes[start]  # blocks are full, which keeps loops quick
        squares_of(own, squares)
        before = 0
        for w in range(ends.size):
            a, b = before, ends[w]
            before = b
            energies(work[a:b], line[a:b], traction[a:b], squares, closes, found)
            for p in range(size):
                steps = _level(found, p, first[w], b - a, course)
                sums[w, start + p] = often[w] * damage_of_course(course[:steps], rate, numbers, knees, flaw, stack)


@compiled
def table_of_most(rate, numbers, knees, flaw, energies, most):
    """Most damage of a cycle of each range of energy, rising, whatever its largest energy up to the last: into `most`.

    From one energy to the next the damage rises with the largest and falls with R, so that the ends of a step bound what lies in
    it. Where R acts by the range alone that is the damage of a relaxing cycle; infinite where R does not make growth slower.
    """
    by_range = flaw[BY_RANGE] > 0.5
    rises = flaw[RISE] >= 0.0 and flaw[ONE] >= 0.0 and flaw[TWO] >= 0.0 and flaw[THREE] >= 0.0
    for i in range(energies.size):
        if by_range:
            most[i] = 1.0 / life(rate, numbers, knees, flaw, energies[i], 0.0)
            continue
        most[i] = 0.0
        for k in range(i, energies.size - 1):
            if not rises or flaw[PER_SIZE] * energies[k + 1] * flaw[END] > flaw[MIDDLE]:
                break
            r = max(1.0 - energies[i] / energies[k], 0.0)
            most[i] = max(most[i], 1.0 / life(rate, numbers, knees, flaw, energies[k + 1], r))


@compiled
def _bounds(found, size, first, last, over, high, low, travel, moved, turns):
    """Largest and least energy on each plane of a block over the part that is repeated, how far it travels up, and its turns."""
    steps = last - first
    for p in range(size):
        over[p] = (found[last, p] - found[first, p]) / steps
        high[p] = low[p] = max(found[first, p], 0.0)
        travel[p], moved[p], turns[p] = 0.0, 0.0, 0.0
    for s in range(1, steps + 1):
        now, before = found[first + s], found[first + s - 1]
        for p in range(size):
            value = max(now[p] - over[p] * s, 0.0)
            step = value - max(before[p] - over[p] * (s - 1), 0.0)
            high[p] = value if value > high[p] else high[p]
            low[p] = value if value < low[p] else low[p]
            travel[p] += step if step > 0.0 else 0.0
            turns[p] += 1.0 if step * moved[p] < 0.0 else 0.0
            moved[p] = step if step != 0.0 else moved[p]


@compiled
def _at_most(travel, largest, top, turns, most):
    """Damage of a course at most: ranges of its cycles sum up to what it travels up, and none is larger than `largest`.

    `most` has, over the logarithm of a range, the most damage over the range of any cycle up to it; its last but one entry is the
    energy, MPa, up to which it holds, its last one what a cycle does that is next to none.
    """
    if largest <= 0.0:
        return 0.0
    place = int(np.ceil((np.log(largest) - LEAST) / FINE))
    if place >= most.size - 2 or top > most[-2]:
        return np.inf
    return travel * most[max(place, 0)] + (0.5 * turns + 1.0) * most[-1]


@compiled
def _exactly(forms, ways, planes, law, closes, room, values):
    """Damage of all ways on `AROUND` planes into `values`, of each way into the last of `room`."""
    work, line, traction = forms
    ends, first, often = ways
    rate, numbers, knees, flaw = law
    found, squares, course, stack, sums = room
    squares_of(planes, squares)
    before = 0
    for p in range(AROUND):
        values[p] = 0.0
    for w in range(ends.size):
        a, b = before, ends[w]
        before = b
        energies(work[a:b], line[a:b], traction[a:b], squares, closes, found)
        for p in range(AROUND):
            steps = _level(found, p, first[w], b - a, course)
            sums[w, p] = often[w] * damage_of_course(course[:steps], rate, numbers, knees, flaw, stack)
            values[p] += sums[w, p]


@compiled
def _around(normal, degrees, turned, planes):
    """Directions that far from a normal on all sides, the first at an angle, radians."""
    least = 0
    for i in range(3):
        if abs(normal[i]) < abs(normal[least]):
            least = i
    x = np.zeros(3)
    x[least] = 1.0
    one, other = np.empty(3), np.empty(3)
    one[0] = normal[1] * x[2] - normal[2] * x[1]
    one[1] = normal[2] * x[0] - normal[0] * x[2]
    one[2] = normal[0] * x[1] - normal[1] * x[0]
    size = np.sqrt(one[0] ** 2 + one[1] ** 2 + one[2] ** 2)
    one /= size
    other[0] = normal[1] * one[2] - normal[2] * one[1]
    other[1] = normal[2] * one[0] - normal[0] * one[2]
    other[2] = normal[0] * one[1] - normal[1] * one[0]
    angle = np.radians(degrees)
    for k in range(planes.shape[0]):
        turn = turned + 2.0 * np.pi * k / planes.shape[0]
        for i in range(3):
            side = np.cos(turn) * one[i] + np.sin(turn) * other[i]
            planes[k, i] = np.cos(angle) * normal[i] + np.sin(angle) * side


@compiled
def _climbed(normal, value, step, finest, forms, ways, law, closes, room, around, values):
    """The best plane up the hill from a normal, in place; its value."""
    widest, turned = step, 0.0
    while step > finest:
        _around(normal, step, turned, around)
        turned += TURN
        _exactly(forms, ways, around, law, closes, room, values)
        best = 0
        for k in range(AROUND):
            if values[k] > values[best]:
                best = k
        if values[best] > value * (1.0 + GAIN):
            normal[:] = around[best]
            normal /= np.sqrt(normal[0] ** 2 + normal[1] ** 2 + normal[2] ** 2)
            value = values[best]
            step = min(2.0 * step, widest)
        else:
            step *= 0.5
    return value


@compiled
def worst_of_place(forms, ways, net, squares, step, most, pruned, law, closes, normal, by_way, reach):
    """The plane of a place that is damaged most: over a net, then up the hills near the best; how many planes were counted.

    `most` is as `_at_most` takes it; with `pruned` planes that cannot come near the best
    by it are not counted. Writes the normal, the damage of each way, and least and largest energy on the plane.
    """
    work, line, traction = forms
    ends, first, often = ways
    longest, before = 0, 0
    for w in range(ends.size):
        longest, before = max(longest, ends[w] - before), ends[w]
    many = net.shape[0]
    found, some = np.empty((longest + 1, BLOCK)), np.empty((6, BLOCK))
    over, high, low, travel = np.empty(BLOCK), np.empty(BLOCK), np.empty(BLOCK), np.empty(BLOCK)
    moved, turns = np.empty(BLOCK), np.empty(BLOCK)
    bound, peak = np.zeros(many), np.zeros(many)
    for start in range(0, many, BLOCK):
        size = min(BLOCK, many - start)
        for k in range(6):
            some[k, :size] = squares[k, start : start + size]
            some[k, size:] = squares[k, start]
        before = 0
        for w in range(ends.size):
            a, b = before, ends[w]
            before = b
            energies(work[a:b], line[a:b], traction[a:b], some, closes, found)
            _bounds(found, size, first[w], b - a, over, high, low, travel, moved, turns)
            for p in range(size):
                peak[start + p] = max(peak[start + p], high[p])
                bound[start + p] += often[w] * _at_most(travel[p], high[p] - low[p], high[p], turns[p], most)
    room = (
        np.empty((longest + 1, AROUND)),
        np.empty((6, AROUND)),
        np.empty(longest + 1),
        np.empty(longest + 3),
        np.empty((ends.size, AROUND)),
    )
    values, around, of = np.empty(AROUND), np.empty((AROUND, 3)), np.full(many, -1.0)
    order = np.argsort(-bound)
    best, counted = 0.0, 0
    chosen = np.empty((AROUND, 3))
    for start in range(0, many, AROUND):
        if bound[order[start]] <= 0.0 or (pruned and bound[order[start]] < NEAR * best):
            break
        size = min(AROUND, many - start)
        for k in range(AROUND):
            chosen[k] = net[order[start + min(k, size - 1)]]
        _exactly(forms, ways, chosen, law, closes, room, values)
        for k in range(size):
            of[order[start + k]] = values[k]
            best = max(best, values[k])
        counted += size
    top = 0
    for p in range(many):
        if (of[p] > of[top]) if best > 0.0 else (peak[p] > peak[top]):
            top = p
    normal[:] = net[top]
    if best > 0.0:
        best = _hills(net, of, best, step, forms, ways, law, closes, room, around, values, normal)
    around[:] = normal
    _exactly(forms, ways, around, law, closes, room, values)
    for w in range(ends.size):
        by_way[w] = room[4][w, 0]
    _reached(forms, ways, normal, closes, reach)
    return counted


@compiled
def _hills(net, of, best, step, forms, ways, law, closes, room, around, values, normal):
    """Up each of the hills whose foot on the net comes near the best, roughly; then up the highest; the damage there."""
    taken = np.zeros(HILLS, np.int64)
    hills, top = 0, 0.0
    near = np.cos(np.radians(1.6 * step))
    rank = np.argsort(-of)
    one = np.empty(3)
    for i in range(rank.size):
        p = rank[i]
        if of[p] < NEAR * best or hills == HILLS:
            break
        alone = True
        for k in range(hills):
            q = taken[k]
            if abs(net[p, 0] * net[q, 0] + net[p, 1] * net[q, 1] + net[p, 2] * net[q, 2]) > near:
                alone = False
        if not alone:
            continue
        taken[hills] = p
        hills += 1
        one[:] = net[p]
        value = _climbed(one, of[p], 0.5 * step, ROUGH, forms, ways, law, closes, room, around, values)
        if value > top:
            top = value
            normal[:] = one
    return _climbed(normal, top, ROUGH, FINEST, forms, ways, law, closes, room, around, values)


@compiled
def _reached(forms, ways, normal, closes, reach):
    """Least and largest energy on a plane of all ways over the parts that are repeated."""
    work, line, traction = forms
    ends, first, _ = ways
    squares = np.empty((6, 1))
    squares_of(normal.reshape(1, 3), squares)
    reach[0], reach[1] = np.inf, -np.inf
    before = 0
    for w in range(ends.size):
        a, b = before, ends[w]
        before = b
        found = np.empty((b - a + 1, 1))
        energies(work[a:b], line[a:b], traction[a:b], squares, closes, found)
        course = np.empty(b - a + 1)
        steps = _level(found, 0, first[w], b - a, course)
        for s in range(steps):
            reach[0], reach[1] = min(reach[0], course[s]), max(reach[1], course[s])
