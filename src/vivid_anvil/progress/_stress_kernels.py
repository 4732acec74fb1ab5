"""Stresses of plies of one laminate, with what they have lost, at both ends of every class of cycles."""

from __future__ import annotations

import math

import numpy as np

from vivid_anvil.ground.compiled import compiled
from vivid_anvil.progress.bundles import Stresses


@compiled
def inverted(matrix, out):
    """Inverse of a symmetric positive definite matrix (6, 6), by Cholesky; False where it is not."""
    n = 6
    lower = np.zeros((n, n))
    for i in range(n):
        for j in range(i + 1):
            total = matrix[i, j]
            for k in range(j):
                total -= lower[i, k] * lower[j, k]
            if i == j:
                if not total > 0.0:
                    return False
                lower[i, i] = math.sqrt(total)
            else:
                lower[i, j] = total / lower[j, j]
    for column in range(n):
        x = np.zeros(n)
        for i in range(n):
            total = 1.0 if i == column else 0.0
            for k in range(i):
                total -= lower[i, k] * x[k]
            x[i] = total / lower[i, i]
        for i in range(n - 1, -1, -1):
            total = x[i]
            for k in range(i + 1, n):
                total -= lower[k, i] * x[k]
            x[i] = total / lower[i, i]
        for i in range(n):
            out[i, column] = x[i]
    return True


@compiled
def empty_stresses(plies, slots):
    """Room for the stresses of so many plies and slots."""
    return Stresses(
        np.empty((plies, 2, 3, 6)),
        np.empty((plies, 2, 3)),
        np.empty((6, 6)),
        np.empty((slots, 2, 2)),
        np.empty((plies, 2, 3, 2)),
    )


@compiled
def _stiffness_of(plies, lost, abd, held, own):
    """Stiffness of the laminate, its resultants held back by the temperature, and strains of it to stresses of each ply."""
    moduli, turn, z, free = plies.moduli, plies.turn, plies.edges, plies.free
    for p in range(moduli.shape[0]):
        e1, e2 = moduli[p, 0] * (1.0 - lost[p, 0]), moduli[p, 1] * (1.0 - lost[p, 1])
        g, nu = moduli[p, 2] * (1.0 - lost[p, 2]), moduli[p, 3]
        d = 1.0 - nu * nu * e2 / e1
        q11, q12, q22 = e1 / d, nu * e2 / d, e2 / d
        for j in range(3):
            own[p, 0, j] = q11 * turn[p, 0, j] + q12 * turn[p, 1, j]
            own[p, 1, j] = q12 * turn[p, 0, j] + q22 * turn[p, 1, j]
            own[p, 2, j] = g * turn[p, 2, j]
        s1 = q11 * free[p, 0] + q12 * free[p, 1]
        s2 = q12 * free[p, 0] + q22 * free[p, 1]
        one, two, three = z[p + 1] - z[p], 0.5 * (z[p + 1] ** 2 - z[p] ** 2), (z[p + 1] ** 3 - z[p] ** 3) / 3.0
        for i in range(3):
            thermal = turn[p, 0, i] * s1 + turn[p, 1, i] * s2
            held[i] += thermal * one
            held[3 + i] += thermal * two
            for j in range(3):
                bar = 0.0
                for k in range(3):
                    bar += turn[p, k, i] * own[p, k, j]
                abd[i, j] += bar * one
                abd[i, 3 + j] += bar * two
                abd[3 + i, j] += bar * two
                abd[3 + i, 3 + j] += bar * three


@compiled
def stress_of_loads(plies, lost, now):
    """Stresses of plies per unit of each resultant, and those of the temperature, with the parts of moduli that are lost."""
    moduli, z, free = plies.moduli, plies.edges, plies.free
    count = moduli.shape[0]
    abd, held, own = np.zeros((6, 6)), np.zeros(6), np.zeros((count, 3, 3))
    _stiffness_of(plies, lost, abd, held, own)
    compliance = now.compliance
    if not inverted(abd, compliance):
        return False
    warm = compliance @ held
    for p in range(count):
        nu = moduli[p, 3]
        e1, e2 = moduli[p, 0] * (1.0 - lost[p, 0]), moduli[p, 1] * (1.0 - lost[p, 1])
        d = 1.0 - nu * nu * e2 / e1
        for f in range(2):
            at = z[p + f]
            for c in range(3):
                fixed = 0.0
                for k in range(6):
                    total = 0.0
                    for j in range(3):
                        total += own[p, c, j] * (compliance[j, k] + at * compliance[3 + j, k])
                    now.per_load[p, f, c, k] = total
                for j in range(3):
                    fixed += own[p, c, j] * (warm[j] + at * warm[3 + j])
                if c == 0:
                    fixed -= (e1 * free[p, 0] + nu * e2 * free[p, 1]) / d
                elif c == 1:
                    fixed -= (nu * e2 * free[p, 0] + e2 * free[p, 1]) / d
                now.there[p, f, c] = fixed
    return True


@compiled
def same_rows(spans, p, f):
    """Whether both stresses between fibres stand in the same classes of cycles."""
    return spans[p, f, 1, 0] == spans[p, f, 2, 0] and spans[p, f, 1, 1] == spans[p, f, 2, 1]


@compiled
def _at_end(per_load, there, p, f, c, row):
    total = there[p, f, c]
    for k in range(6):
        total += per_load[p, f, c, k] * row[k]
    return total


@compiled
def stresses(plies, classes, lost, now):
    """All of `now` with these parts of moduli lost; False where the laminate has no stiffness left."""
    if not stress_of_loads(plies, lost, now):
        return False
    per_load, there, at_ends, ends, spans = now.per_load, now.there, now.at_ends, classes.ends, classes.spans
    for p in range(spans.shape[0]):
        for f in range(2):
            shared = same_rows(spans, p, f)
            for c in range(3):
                first, at = spans[p, f, c, 0], classes.slots[p, f, c]
                high, low = -1e300, 1e300
                for i in range(spans[p, f, c, 1] - first):
                    for e in range(2):
                        own = _at_end(per_load, there, p, f, c, ends[first + i, e])
                        high, low = max(high, own), min(low, own)
                        at_ends[at + i, e, 0] = own
                        if c > 0 and not shared:
                            at_ends[at + i, e, 1] = _at_end(per_load, there, p, f, 3 - c, ends[first + i, e])
                now.extremes[p, f, c, 0], now.extremes[p, f, c, 1] = high, low
            if shared:
                one, two = classes.slots[p, f, 1], classes.slots[p, f, 2]
                for i in range(spans[p, f, 1, 1] - spans[p, f, 1, 0]):
                    for e in range(2):
                        at_ends[one + i, e, 1] = at_ends[two + i, e, 0]
                        at_ends[two + i, e, 1] = at_ends[one + i, e, 0]
    return True


@compiled
def work_of(compliance, row):
    """Twice the work of a load: its stiffness against itself goes with 1 over it."""
    total = 0.0
    for i in range(6):
        for j in range(6):
            total += row[i] * compliance[i, j] * row[j]
    return total
