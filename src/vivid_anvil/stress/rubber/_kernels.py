"""Loops over the steps of a strain path and over planes: energy that is there to open a crack."""

import numpy as np

from vivid_anvil.ground.compiled import compiled

# places and weights of Gauss and Lobatto on a step, the ends among them
AT = np.array([0.0, 0.5 * (1.0 - np.sqrt(0.2)), 0.5 * (1.0 + np.sqrt(0.2)), 1.0])
WEIGHTS = np.array([1.0, 5.0, 5.0, 1.0]) / 12.0
NODES = 4
POWERS = np.linalg.inv(np.vander(AT))  # of values at the nodes the coefficients of their polynomial
NO_PULL = 1e-12  # MPa, a traction that is rounding
BLOCK = 64  # planes that go through a step together: what stays in the nearest cache
SURFACE, VOLUME = 0, 1  # how the pressure is found: nothing acts along a normal, or by the bulk modulus
XX, YY, ZZ, XY, YZ, ZX = range(6)
TRIES, CLOSE = 60, 1e-13  # of the search for where a traction turns, and the share of a step that is close enough


@compiled
def _full(six, out):
    out[0, 0], out[1, 1], out[2, 2] = six[XX], six[YY], six[ZZ]
    out[0, 1] = out[1, 0] = six[XY]
    out[1, 2] = out[2, 1] = six[YZ]
    out[2, 0] = out[0, 2] = six[ZX]


@compiled
def _product(a, b, out):
    for i in range(3):
        for j in range(3):
            out[i, j] = a[i, 0] * b[0, j] + a[i, 1] * b[1, j] + a[i, 2] * b[2, j]


@compiled
def _inverse(a, out):
    """Inverse of a symmetric tensor; returns its determinant."""
    out[0, 0] = a[1, 1] * a[2, 2] - a[1, 2] * a[1, 2]
    out[1, 1] = a[0, 0] * a[2, 2] - a[0, 2] * a[0, 2]
    out[2, 2] = a[0, 0] * a[1, 1] - a[0, 1] * a[0, 1]
    out[0, 1] = out[1, 0] = a[0, 2] * a[1, 2] - a[0, 1] * a[2, 2]
    out[0, 2] = out[2, 0] = a[0, 1] * a[1, 2] - a[0, 2] * a[1, 1]
    out[1, 2] = out[2, 1] = a[0, 1] * a[0, 2] - a[0, 0] * a[1, 2]
    determinant = a[0, 0] * out[0, 0] + a[0, 1] * out[0, 1] + a[0, 2] * out[0, 2]
    for i in range(3):
        for j in range(3):
            out[i, j] /= determinant
    return determinant


@compiled
def _second_stress(c, row, pressure, mean, normal, inverse, bar, out):
    """Second Piola-Kirchhoff stress of a right Cauchy-Green tensor, MPa; `mean` is J times the mean Cauchy stress."""
    determinant = _inverse(c, inverse)
    size = determinant ** (-1.0 / 3.0)  # of what keeps the volume
    for i in range(3):
        for j in range(3):
            bar[i, j] = size * c[i, j]
            out[i, j] = 0.0
    if row.size == 4:
        first = bar[0, 0] + bar[1, 1] + bar[2, 2]
        x = first - 3.0
        one = 2.0 * (row[0] + 2.0 * row[1] * x + 3.0 * row[2] * x * x)
        for i in range(3):
            out[i, i] = one + 2.0 * row[3] * first
            for j in range(3):
                out[i, j] -= 2.0 * row[3] * bar[i, j]
    else:
        squares, axes = np.linalg.eigh(bar)
        for k in range(3):
            stretch, along = np.sqrt(squares[k]), 0.0
            for t in range(4, row.size, 2):
                along += row[t] * stretch ** row[t + 1]
            for i in range(3):
                for j in range(3):
                    out[i, j] += along / squares[k] * axes[i, k] * axes[j, k]
    # of `bar`: now what keeps the volume, then the pressure
    held, over = 0.0, 0.0
    if pressure == SURFACE:
        for i in range(3):
            for j in range(3):
                held += normal[i] * size * out[i, j] * normal[j]
                over += normal[i] * inverse[i, j] * normal[j]
        held = -held / over
    else:
        for i in range(3):
            for j in range(3):
                held -= size * out[i, j] * c[i, j] / 3.0
        held += mean
    for i in range(3):
        for j in range(3):
            out[i, j] = size * out[i, j] + held * inverse[i, j]


@compiled
def _full_step(one, other, step):
    """Of Green and Lagrange's strain, between two right Cauchy-Green tensors."""
    for i in range(3):
        step[i, i] = 0.5 * (other[i] - one[i])
    step[0, 1] = step[1, 0] = 0.5 * (other[XY] - one[XY])
    step[1, 2] = step[2, 1] = 0.5 * (other[YZ] - one[YZ])
    step[2, 0] = step[0, 2] = 0.5 * (other[ZX] - one[ZX])


@compiled
def _keep_volume(c, step, inverse):
    """The part of C that keeps the volume, and of the step of the strain there, both in place."""
    determinant = _inverse(c, inverse)
    size, swells = determinant ** (-1.0 / 3.0), 0.0
    for i in range(3):
        for j in range(3):
            swells += inverse[i, j] * step[i, j]
    for i in range(3):
        for j in range(3):
            step[i, j] = size * (step[i, j] - swells * c[i, j] / 3.0)
    for i in range(3):
        for j in range(3):
            c[i, j] *= size


@compiled
def _mean(six, bulk, full, inverse):
    """J times the mean Cauchy stress of U = K (J - 1)² / 2, MPa."""
    _full(six, full)
    volume = np.sqrt(_inverse(full, inverse))
    return bulk * (volume - 1.0) * volume


@compiled
def prepared(path, row, pressure, bulk, normal, work, line, traction):
    """Of each node of each step, in a row of six: what the work on a plane is a form of, the square of a line, its traction.

    `path` are right Cauchy-Green tensors, shape (samples, 6); between samples they go straight. So does the mean stress that a
    bulk modulus gives: the volume of a straight way between two states is not that of the body. Without a bulk modulus the volume
    is kept on the way.
    """
    c, step, stress = np.empty((3, 3)), np.empty((3, 3)), np.empty((3, 3))
    inverse, bar, both, three = np.empty((3, 3)), np.empty((3, 3)), np.empty((3, 3)), np.empty((3, 3))
    six = np.empty(6)
    for s in range(path.shape[0] - 1):
        _full_step(path[s], path[s + 1], step)
        first, last = 0.0, 0.0
        if pressure == VOLUME:
            first, last = _mean(path[s], bulk, c, inverse), _mean(path[s + 1], bulk, c, inverse)
        for n in range(NODES):
            for k in range(6):
                six[k] = path[s, k] + AT[n] * (path[s + 1, k] - path[s, k])
            _full(six, c)
            if pressure == SURFACE:
                _full_step(path[s], path[s + 1], step)
                _keep_volume(c, step, inverse)
            _form(c, line[s, n])
            _second_stress(c, row, pressure, first + AT[n] * (last - first), normal, inverse, bar, stress)
            _product(c, stress, both)
            _product(both, step, three)
            _form(three, work[s, n])
            _product(both, c, three)
            _form(three, traction[s, n])


@compiled
def _form(tensor, out):
    """Weights of x², y², z², xy, yz, zx in the quadratic form of a tensor."""
    out[XX], out[YY], out[ZZ] = tensor[0, 0], tensor[1, 1], tensor[2, 2]
    out[XY], out[YZ], out[ZX] = tensor[0, 1] + tensor[1, 0], tensor[1, 2] + tensor[2, 1], tensor[2, 0] + tensor[0, 2]


@compiled
def squares_of(planes, squares):
    """x², y², z², xy, yz, zx of unit normals, shape (planes, 3), in rows of `squares`, (6, planes)."""
    for p in range(planes.shape[0]):
        x, y, z = planes[p, 0], planes[p, 1], planes[p, 2]
        squares[0, p], squares[1, p], squares[2, p] = x * x, y * y, z * z
        squares[3, p], squares[4, p], squares[5, p] = x * y, y * z, z * x


@compiled(fastmath={"contract"})
def energies(work, line, traction, squares, closes, found):
    """Energy that was there on each plane at each sample, MPa, shape (samples, planes), from 0 at the first.

    `squares`, (6, planes), are those of the planes' normals in the undeformed body; with `closes` only the work done while the
    plane is pulled counts. Planes stand side by side in blocks, so that the processor takes several at once: the innermost loop
    is all that counts, and stays vectorised only with a row for each of the six squares.
    """
    steps, many = work.shape[0], squares.shape[1]
    done, least, most, total = np.empty(BLOCK), np.empty(BLOCK), np.empty(BLOCK), np.empty(BLOCK)
    room = np.empty((6, NODES))
    for start in range(0, many, BLOCK):
        size = min(BLOCK, many - start)
        end = start + size
        xx, yy, zz = squares[0, start:end], squares[1, start:end], squares[2, start:end]
        xy, yz, zx = squares[3, start:end], squares[4, start:end], squares[5, start:end]
        for n in range(size):
            total[n] = 0.0
            found[0, start + n] = 0.0
        for s in range(steps):
            for n in range(size):
                done[n], least[n], most[n] = 0.0, np.inf, -np.inf
            for k in range(NODES):
                w = WEIGHTS[k]
                a, b, c = w * work[s, k, 0], w * work[s, k, 1], w * work[s, k, 2]
                d, e, f = w * work[s, k, 3], w * work[s, k, 4], w * work[s, k, 5]
                g, h, i, j, x, m = (
                    line[s, k, 0],
                    line[s, k, 1],
                    line[s, k, 2],
                    line[s, k, 3],
                    line[s, k, 4],
                    line[s, k, 5],
                )
                o, p, q = traction[s, k, 0], traction[s, k, 1], traction[s, k, 2]
                r, u, v = traction[s, k, 3], traction[s, k, 4], traction[s, k, 5]
                for n in range(size):
                    above = a * xx[n] + b * yy[n] + c * zz[n] + d * xy[n] + e * yz[n] + f * zx[n]
                    below = g * xx[n] + h * yy[n] + i * zz[n] + j * xy[n] + x * yz[n] + m * zx[n]
                    pull = o * xx[n] + p * yy[n] + q * zz[n] + r * xy[n] + u * yz[n] + v * zx[n]
                    done[n] += above / below
                    least[n] = pull if pull < least[n] else least[n]
                    most[n] = pull if pull > most[n] else most[n]
            turns = 0
            for n in range(size):
                turns += 1 if least[n] <= NO_PULL and most[n] > NO_PULL else 0
                total[n] += done[n] if least[n] > NO_PULL or not closes else 0.0
            if closes and turns > 0:
                for n in range(size):
                    if least[n] <= NO_PULL and most[n] > NO_PULL:
                        total[n] += _turning(work[s], line[s], traction[s], squares[:, start + n], room)
            for n in range(size):
                found[s + 1, start + n] = total[n]


@compiled
def _turning(work, line, traction, squares, room):
    """The work on one plane of a step on which its traction turns; `room` for six rows of nodes."""
    g, h, t = room[0], room[1], room[2]
    for n in range(NODES):
        g[n], h[n], t[n] = 0.0, 0.0, 0.0
        for k in range(6):
            g[n] += work[n, k] * squares[k]
            h[n] += line[n, k] * squares[k]
            t[n] += traction[n, k] * squares[k]
    return _while_pulled(g, h, t, room[3], room[4], room[5])


@compiled
def _cubic(values, out):
    """Coefficients of the polynomial through the values at the nodes, the highest power first."""
    for i in range(NODES):
        out[i] = 0.0
        for n in range(NODES):
            out[i] += POWERS[i, n] * values[n]


@compiled
def _at(c, x):
    return ((c[0] * x + c[1]) * x + c[2]) * x + c[3]


@compiled
def _turn(pull, a, b, at_a, at_b):
    """Where a cubic turns its sign between two places, by false position, the end that stays halved (Dowell and Jarratt 1971)."""
    middle = a
    for _try in range(TRIES):
        before = middle
        middle = b - at_b * (b - a) / (at_b - at_a)
        value = _at(pull, middle)
        if value == 0.0 or abs(middle - before) < CLOSE:
            return middle
        if (value > 0.0) == (at_b > 0.0):
            at_a *= 0.5
        else:
            a, at_a = b, at_b
        b, at_b = middle, value
    return middle


@compiled
def _while_pulled(g, h, t, work, line, pull):
    """The work of a step on which the traction of a plane turns: split where it does."""
    _cubic(g, work)
    _cubic(h, line)
    _cubic(t, pull)
    total, low = 0.0, 0.0
    for n in range(1, NODES + 1):
        # to where it turns before the next node, then to that node
        high = AT[n] if n < NODES else 1.0
        turns = n < NODES and (t[n - 1] > 0.0) != (t[n] > 0.0)
        if turns:
            high = _turn(pull, AT[n - 1], AT[n], t[n - 1], t[n])
        if turns or n == NODES:
            if (t[n - 1] > 0.0) if n < NODES else (t[NODES - 1] > 0.0):
                for k in range(NODES):
                    at = low + AT[k] * (high - low)
                    total += (high - low) * WEIGHTS[k] * _at(work, at) / _at(line, at)
            low = high
    return total
