"""Loops over planes for paths that are taken whole: each passage of an event is one cycle on every plane."""

import numpy as np

from vivid_anvil.ground.compiled import compiled
from vivid_anvil.materials.curves._kernels import NEVER, POWER
from vivid_anvil.stress.planes._kernels import smallest_circle

CIRCLE, CHORD, VARIANCE, NORMAL = 0, 1, 2, 3  # what the amplitude on a plane is
BY_DAMAGE, BY_SIZE, BY_SHEAR = 0, 1, 2  # what is looked for
FIRST = 4  # cells along an edge of a face
COARSE = 0.1  # radius of the smallest cells, radians
FINEST = 2e-4  # radians, to which the best planes are refined
PEAKS = 8  # planes that are refined
AROUND = 6
NEARLY = 2e-3  # radians, to which a plane is refined before it is given up
CLOSE = 0.02  # share below the best, within which it is not
ROOM = 1e-9  # for rounding
TIED = 1e-6
GAIN = 1e-8  # share by which a plane has to be better
MOST_CELLS = 20_000


@compiled
def _axes(n, m, q):
    """Two axes in the plane."""
    least = 0
    for i in range(1, 3):
        if abs(n[i]) < abs(n[least]):
            least = i
    for i in range(3):
        m[i] = (1.0 if i == least else 0.0) - n[least] * n[i]
    size = np.sqrt(m[0] ** 2 + m[1] ** 2 + m[2] ** 2)
    for i in range(3):
        m[i] /= size
    q[0], q[1], q[2] = n[1] * m[2] - n[2] * m[1], n[2] * m[0] - n[0] * m[2], n[0] * m[1] - n[1] * m[0]


@compiled
def _weights(tensor, n, m, q, found):
    """On a plane the normal part, shear along both axes, and in the plane: half the sum, half the difference, mixed."""
    for i in range(3):
        axis = (n, m, q)[i]
        x = tensor[0] * axis[0] + tensor[3] * axis[1] + tensor[5] * axis[2]
        y = tensor[3] * axis[0] + tensor[1] * axis[1] + tensor[4] * axis[2]
        z = tensor[5] * axis[0] + tensor[4] * axis[1] + tensor[2] * axis[2]
        if i == 0:
            found[0] = x * n[0] + y * n[1] + z * n[2]
            found[1] = x * m[0] + y * m[1] + z * m[2]
            found[2] = x * q[0] + y * q[1] + z * q[2]
        elif i == 1:
            found[3] = x * m[0] + y * m[1] + z * m[2]
            found[5] = x * q[0] + y * q[1] + z * q[2]
        else:
            found[4] = x * q[0] + y * q[1] + z * q[2]
    along, across = found[3], found[4]
    found[3], found[4] = 0.5 * (along + across), 0.5 * (along - across)


@compiled
def _chord(points, first, last):
    longest = 0.0
    for i in range(first, last):
        for j in range(first, i):
            square = (points[i, 0] - points[j, 0]) ** 2 + (points[i, 1] - points[j, 1]) ** 2
            longest = max(longest, square)
    return 0.5 * np.sqrt(longest)


@compiled
def _along_most(points, first, last, a, b, c):
    """Half of the range along the direction of the largest variance; a, b, c: scatter along the axes, and mixed."""
    turn = 0.5 * np.arctan2(2.0 * c, a - b)
    x, y = np.cos(turn), np.sin(turn)
    low, high = np.inf, -np.inf
    for i in range(first, last):
        value = points[i, 0] * x + points[i, 1] * y
        low, high = min(low, value), max(high, value)
    return 0.5 * (high - low)


@compiled
def on_plane(
    n, radius, roughly, unit, constant, loads, ends, order, scatter, form, rates, work, shear, normal, most, above
):
    """Of each event on a plane its amplitude `shear` and its largest normal part; within `radius` at most `most` and `above`.

    `roughly` takes the circle about the middle of what the path spans: for a bound that needs no search.

    `unit` (cases, 6) and `constant` (6,) are those of the place; `loads` the corners of all events, `ends` where those of each
    end, `order` in which they are added to a circle; `work` is room for points, path, axes and weights.
    """
    points, path, axes, weights = work
    _axes(n, axes[0], axes[1])
    cases = unit.shape[0]
    for k in range(cases):
        _weights(unit[k], n, axes[0], axes[1], weights[k])
    _weights(constant, n, axes[0], axes[1], weights[cases])
    first = 0
    for e in range(ends.size):
        last = ends[e]
        low, high = np.inf, -np.inf
        left, right, down, up = np.inf, -np.inf, np.inf, -np.inf
        for i in range(first, last):
            z, x, y = weights[cases, 0], weights[cases, 1], weights[cases, 2]
            for k in range(cases):
                load = loads[i, k]
                z += load * weights[k, 0]
                x += load * weights[k, 1]
                y += load * weights[k, 2]
            low, high = min(low, z), max(high, z)
            left, right, down, up = min(left, x), max(right, x), min(down, y), max(up, y)
            points[i, 0], points[i, 1] = x, y
        normal[e] = high
        x = y = 0.0
        if form == NORMAL:
            shear[e] = 0.5 * (high - low)
        elif roughly:
            x, y = 0.5 * (left + right), 0.5 * (down + up)
        else:
            x, y, around = smallest_circle(points[first:last], order[first:last], path[first:last])
            if form == CIRCLE:
                shear[e] = around
            elif form == CHORD:
                shear[e] = _chord(points, first, last)
            else:
                shear[e] = _by_variance(points, first, last, weights, scatter[e])
        if radius > 0.0:
            _weights(rates[e, 1:], n, axes[0], axes[1], weights[cases + 1])
            most[e], above[e] = _within(radius, x, y, loads, first, last, points, weights, form, low, high, rates[e, 0])
        first = last


@compiled
def _by_variance(points, first, last, weights, scatter):
    a = b = c = 0.0
    cases = scatter.shape[0]
    for k in range(cases):
        for j in range(cases):
            a += weights[k, 1] * scatter[k, j] * weights[j, 1]
            b += weights[k, 2] * scatter[k, j] * weights[j, 2]
            c += weights[k, 1] * scatter[k, j] * weights[j, 2]
    return _along_most(points, first, last, a, b, c)


@compiled
def _within(radius, x, y, loads, first, last, points, weights, form, low, high, rate):
    """What amplitude and normal part of a path can become on planes turned by up to `radius`.

    Turned by δ towards e a normal part becomes σ + τ_e sin 2δ + (σ_e - σ) sin² δ, exactly. A shear vector, in axes that turn
    along, moves at a rate of σ_e - σ and τ_eb together, at most |c| + d with c that of the middle and d the radius of Mohr's
    circle in the plane; that rate itself changes at most by 2 √2 times the deviator's length. The path may be seen from any
    tensor, such as the middle of what it spans, and the circle's centre may stay.
    """
    cases = weights.shape[0] - 2
    seen = weights[cases + 1]
    double, square = np.sin(min(2.0 * radius, 0.5 * np.pi)), np.sin(radius) ** 2
    farthest, above, widest = 0.0, -np.inf, 0.0
    middle = 0.5 * (low + high)
    for i in range(first, last):
        z, p, h, t = weights[cases, 0], weights[cases, 3], weights[cases, 4], weights[cases, 5]
        for k in range(cases):
            load = loads[i, k]
            z += load * weights[k, 0]
            p += load * weights[k, 3]
            h += load * weights[k, 4]
            t += load * weights[k, 5]
        c, d = p - z, np.sqrt(h * h + t * t)
        shear = np.sqrt(points[i, 0] ** 2 + points[i, 1] ** 2)
        above = max(above, z + shear * double + max(c + d, 0.0) * square)
        if form == NORMAL:
            widest = max(widest, abs(z - middle) + shear * double + (abs(c) + d) * square)
        else:
            reach = np.sqrt((points[i, 0] - x) ** 2 + (points[i, 1] - y) ** 2)
            c -= seen[3] - seen[0]
            d = np.sqrt((h - seen[4]) ** 2 + (t - seen[5]) ** 2)
            farthest = max(farthest, reach + radius * (abs(c) + d))
    if form == NORMAL:
        return widest, above
    return farthest + rate * radius * radius, above


@compiled
def _equivalent(shear, normal, how):
    """The uniaxial amplitude with the same parameter; `how`: weights of shear and normal, 1 where compression counts as 0."""
    if how[2] > 0.5:
        normal = max(normal, 0.0)
    return max(how[0] * shear + how[1] * normal, 0.0)


@compiled
def _damage(amplitude, often, twice, curve):
    """Damage of cycles of an amplitude on a curve of power laws, in ranges where `twice` is 2."""
    edge, kind, anchor_stress, anchor_life, rate = curve
    stress = twice * amplitude
    j = 0
    while j < edge.size and stress < edge[j]:
        j += 1
    if stress == 0.0 or kind[j] == NEVER:
        return 0.0
    found = often / anchor_life[j]
    if kind[j] == POWER:
        found *= power(stress / anchor_stress[j], rate[j])
    return found


@compiled
def power(base, exponent):
    """A power, by products where the exponent is whole: slopes mostly are."""
    if exponent != np.floor(exponent) or not 0.0 <= exponent <= 64.0:
        return base**exponent
    left, found = int(exponent), 1.0
    while left > 0:
        if left & 1:
            found *= base
        base *= base
        left >>= 1
    return found


@compiled
def _sought(shear, normal, aim, often, how, twice, curve):
    """What is looked for, of all events."""
    total = 0.0
    for e in range(shear.size):
        if aim == BY_SHEAR:
            total = max(total, shear[e])
            continue
        amplitude = _equivalent(shear[e], normal[e], how)
        if aim == BY_SIZE:
            total = max(total, amplitude)
        else:
            total += _damage(amplitude, often[e], twice, curve)
    return total


@compiled
def rates_of(unit, constant, loads, ends, rates):
    """Of each event √2 times the longest deviator of its path, seen from the middle of what it spans, and that middle, MPa."""
    cases = unit.shape[0]
    low, high, tensor = np.empty(6), np.empty(6), np.empty(6)
    first = 0
    for e in range(ends.size):
        low[:], high[:] = np.inf, -np.inf
        for turn in range(2):
            path = 0.0
            for i in range(first, ends[e]):
                for c in range(6):
                    value = constant[c]
                    for k in range(cases):
                        value += loads[i, k] * unit[k, c]
                    tensor[c] = value
                    if turn == 0:
                        low[c], high[c] = min(low[c], value), max(high[c], value)
                    else:
                        tensor[c] -= rates[e, 1 + c]
                if turn == 1:
                    path = max(path, _deviator_length(tensor))
            if turn == 0:
                for c in range(6):
                    rates[e, 1 + c] = 0.5 * (low[c] + high[c])
            else:
                rates[e, 0] = np.sqrt(2.0) * path
        first = ends[e]


@compiled
def _deviator_length(t):
    mean = (t[0] + t[1] + t[2]) / 3.0
    square = (t[0] - mean) ** 2 + (t[1] - mean) ** 2 + (t[2] - mean) ** 2
    return np.sqrt(square + 2.0 * (t[3] ** 2 + t[4] ** 2 + t[5] ** 2))


@compiled
def _direction(face, u, v, n):
    """Of a place on a face of half a cube."""
    size = np.sqrt(1.0 + u * u + v * v)
    n[face], n[(face + 1) % 3], n[(face + 2) % 3] = 1.0 / size, u / size, v / size


@compiled
def _radius(face, u, v, half, n, corner):
    """Angle from the middle of a cell to its farthest corner."""
    least = 1.0
    for i in range(2):
        for j in range(2):
            _direction(face, u + (2 * i - 1) * half, v + (2 * j - 1) * half, corner)
            least = min(least, n[0] * corner[0] + n[1] * corner[1] + n[2] * corner[2])
    return np.arccos(min(least, 1.0))


@compiled
def worst_plane_of(
    unit, constant, loads, ends, order, scatter, form, often, how, twice, curve, aim, rates, cells, work, best
):
    """The plane of a place where what is looked for is largest, into `best` (3,): value, and how many planes were looked at.

    Cells of the half sphere that cannot hold the largest are left out, the others split; what is left is refined.
    """
    events = ends.size
    shear, normal, most, above = np.empty(events), np.empty(events), np.empty(events), np.empty(events)
    place = (unit, constant, loads, ends, order, scatter, form)
    n, corner, near = np.empty(3), np.empty(3), np.empty(3)
    looked = 0
    reached = -1.0
    better = 1.0 - ROOM if aim == BY_SHEAR else 1.0 + TIED  # of shear all planes that tie are wanted
    half = 1.0 / FIRST
    many = 0
    for face in range(3):
        for i in range(FIRST):
            for j in range(FIRST):
                cells[many, 0], cells[many, 1], cells[many, 2] = (
                    face,
                    (2 * i + 1) * half - 1.0,
                    (2 * j + 1) * half - 1.0,
                )
                many += 1
    while True:
        widest = 0.0
        for c in range(many):
            face, u, v = int(cells[c, 0]), cells[c, 1], cells[c, 2]
            _direction(face, u, v, n)
            radius = _radius(face, u, v, half, n, corner)
            widest = max(widest, radius)
            looked += 1
            on_plane(n, radius, True, *place, rates, work, shear, normal, most, above)
            cells[c, 4] = _sought(most, above, aim, often, how, twice, curve)
            if cells[c, 4] < reached * better:
                continue
            on_plane(n, radius, False, *place, rates, work, shear, normal, most, above)
            cells[c, 3] = _sought(shear, normal, aim, often, how, twice, curve)
            cells[c, 4] = _sought(most, above, aim, often, how, twice, curve)
            if cells[c, 3] > reached:
                reached = cells[c, 3]
                best[:] = n
        if half == 1.0 / FIRST and reached > 0.0:  # the sooner a good plane is known, the more can be left out
            near[:] = best
            reached, steps = _climb(
                near,
                reached,
                widest,
                NEARLY,
                place,
                rates,
                work,
                (shear, normal, most, above),
                aim,
                often,
                how,
                twice,
                curve,
            )
            best[:] = near
            looked += steps
        kept = 0
        for c in range(many):
            if cells[c, 4] >= reached * better and cells[c, 4] > 0.0:
                cells[kept] = cells[c]
                kept += 1
        many = kept
        if many == 0 or widest <= COARSE or 4 * many > cells.shape[0]:
            break
        for c in range(many - 1, -1, -1):
            face, u, v = cells[c, 0], cells[c, 1], cells[c, 2]
            at = 4 * c
            for i in range(2):
                for j in range(2):
                    cells[at, 0], cells[at, 1], cells[at, 2] = face, u + (i - 0.5) * half, v + (j - 0.5) * half
                    at += 1
        many *= 4
        half *= 0.5
    tie = -1.0
    for _peak in range(PEAKS):
        at = -1
        for c in range(many):
            if cells[c, 4] > 0.0 and cells[c, 4] >= reached * better and (at < 0 or cells[c, 3] > cells[at, 3]):
                at = c
        if at < 0:
            break
        _direction(int(cells[at, 0]), cells[at, 1], cells[at, 2], near)
        top, step = cells[at, 3], widest
        for c in range(many):  # what lies around belongs to it
            _direction(int(cells[c, 0]), cells[c, 1], cells[c, 2], n)
            if abs(n[0] * near[0] + n[1] * near[1] + n[2] * near[2]) > np.cos(2.5 * widest):
                cells[c, 4] = 0.0
        top, steps = _climb(
            near, top, step, NEARLY, place, rates, work, (shear, normal, most, above), aim, often, how, twice, curve
        )
        looked += steps
        if top < reached * (1.0 - CLOSE):
            continue
        top, steps = _climb(
            near, top, NEARLY, FINEST, place, rates, work, (shear, normal, most, above), aim, often, how, twice, curve
        )
        looked += steps
        if top < reached * (1.0 - TIED):
            continue
        on_plane(near, 0.0, False, *place, rates, work, shear, normal, most, above)
        second = _sought(shear, normal, BY_DAMAGE if aim == BY_SHEAR else aim, often, how, twice, curve)
        if aim == BY_SHEAR and second == 0.0:
            second = 1e-300 * _sought(shear, normal, BY_SIZE, often, how, twice, curve)
        if top > reached * (1.0 + TIED) or second > tie:
            best[:] = near
            tie = second
        reached = max(reached, top)
    return reached, looked


@compiled
def _climb(near, top, step, finest, place, rates, work, rooms, aim, often, how, twice, curve):
    """Move a plane, `near`, to the best around it, with steps that halve where none is better; what it reaches, in how many."""
    shear, normal, most, above = rooms
    n, turned, beside = np.empty(3), np.empty(3), np.empty((2, 3))
    looked = 0
    while step > finest:
        _axes(near, beside[0], beside[1])
        moved = False
        for a in range(AROUND):
            turn = 2.0 * np.pi * a / AROUND
            for i in range(3):
                side = np.cos(turn) * beside[0, i] + np.sin(turn) * beside[1, i]
                n[i] = np.cos(step) * near[i] + np.sin(step) * side
            on_plane(n, 0.0, False, *place, rates, work, shear, normal, most, above)
            looked += 1
            value = _sought(shear, normal, aim, often, how, twice, curve)
            if value > top * (1.0 + GAIN):
                top, moved = value, True
                turned[:] = n
        if moved:
            near[:] = turned
        else:
            step *= 0.5
    return top, looked


@compiled
def of_planes(normals, unit, constant, loads, ends, order, scatter, form, work, shear, normal):
    """Amplitude and largest normal part of each event, shape (planes, events), on many planes of a place."""
    most, above, rates = np.empty(ends.size), np.empty(ends.size), np.empty((ends.size, 7))
    place = (unit, constant, loads, ends, order, scatter, form)
    for i in range(len(normals)):
        on_plane(normals[i], 0.0, False, *place, rates, work, shear[i], normal[i], most, above)


@compiled
def _at_most(unit, constant, loads, ends, form, often, how, twice, curve, rates):
    """What no plane of a place does more damage than: by the deviators' lengths, and the hydrostatic part."""
    bound = 0.0
    first = 0
    for e in range(ends.size):
        low, high = np.inf, -np.inf
        for i in range(first, ends[e]):
            value = constant[0] + constant[1] + constant[2]
            for k in range(unit.shape[0]):
                value += loads[i, k] * (unit[k, 0] + unit[k, 1] + unit[k, 2])
            low, high = min(low, value / 3.0), max(high, value / 3.0)
        first = ends[e]
        path = rates[e, 0] / np.sqrt(2.0)
        largest = np.sqrt(2.0 / 3.0) * path  # no principal stress of a deviator is more, and no shear
        shear = path / np.sqrt(2.0) if form != NORMAL else 0.5 * (high - low) + largest
        normal = high + np.sqrt(2.0 / 3.0) * (path + _deviator_length(rates[e, 1:]))
        bound += _damage(_equivalent(shear, normal, how) * (1.0 + ROOM), often[e], twice, curve)
    return bound


@compiled
def of_places(
    units, constants, loads, ends, order, scatter, form, often, how, twice, curve, aim, work, damage, normals, looked
):
    """Damage of each event, shape (places, events), on the worst plane of each place; -1 looked at where none can do any."""
    cells = np.empty((MOST_CELLS, 5))
    events = ends.size
    shear, normal, most, above = np.empty(events), np.empty(events), np.empty(events), np.empty(events)
    rates = np.empty((events, 7))
    for p in range(len(units)):
        unit, constant = units[p], constants[p]
        place = (unit, constant, loads, ends, order, scatter, form)
        rates_of(unit, constant, loads, ends, rates)
        if _at_most(unit, constant, loads, ends, form, often, how, twice, curve, rates) == 0.0:
            looked[p] = -1
            damage[p, :] = 0.0
            normals[p, :] = np.nan
            continue
        best = normals[p]
        _, looked[p] = worst_plane_of(
            unit, constant, loads, ends, order, scatter, form, often, how, twice, curve, aim, rates, cells, work, best
        )
        on_plane(best, 0.0, False, *place, rates, work, shear, normal, most, above)
        for e in range(events):
            damage[p, e] = _damage(_equivalent(shear[e], normal[e], how), often[e], twice, curve)


@compiled
def bounds_of_places(units, constants, loads, ends, form, often, how, twice, curve, bounds):
    """What no plane of each place does more damage than, were each path one cycle."""
    rates = np.empty((ends.size, 7))
    for p in range(len(units)):
        rates_of(units[p], constants[p], loads, ends, rates)
        bounds[p] = _at_most(units[p], constants[p], loads, ends, form, often, how, twice, curve, rates)
