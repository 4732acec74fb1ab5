"""The loops over planes and directions on which cycles are counted: from stresses, or strains, to damage."""

import numpy as np

from vivid_anvil.counting._kernels import turning_points
from vivid_anvil.ground.compiled import compiled
from vivid_anvil.materials.curves._kernels import NEVER, POWER
from vivid_anvil.materials.strain._kernels import two_powers
from vivid_anvil.stress.planes._kernels import loops
from vivid_anvil.stress.planes._path_kernels import power


@compiled
def _weighted(weights, stress, found):
    """Weighted sum of the components, each a row."""
    a, b, c, d, e, f = weights[0], weights[1], weights[2], weights[3], weights[4], weights[5]
    for t in range(found.size):
        found[t] = (
            a * stress[0, t]
            + b * stress[1, t]
            + c * stress[2, t]
            + d * stress[3, t]
            + e * stress[4, t]
            + f * stress[5, t]
        )


@compiled
def _done(ranges, peaks, how, twice, curve):
    """Damage of cycles, one of each: as of one cycle after the other, with all that is asked of the curve asked once."""
    edge, kind, anchor_stress, anchor_life, rate = curve
    shear, normal, clamps = 0.5 * how[0] * twice, how[1] * twice, how[2] > 0.5
    total = 0.0
    for i in range(ranges.size):
        peak = max(peaks[i], 0.0) if clamps else peaks[i]
        stress = shear * ranges[i] + normal * peak
        if stress <= 0.0:
            continue
        j = 0
        while j < edge.size and stress < edge[j]:
            j += 1
        if kind[j] == POWER:
            total += power(stress / anchor_stress[j], rate[j]) / anchor_life[j]
        elif kind[j] != NEVER:
            total += 1.0 / anchor_life[j]
    return total


@compiled
def _from_top(values, beside, turned, besides):
    """A repeated course from its highest value on to there again, and what stands beside it, (kinds, samples)."""
    top = 0
    for t in range(values.size):
        if values[t] > values[top]:
            top = t
    rest = values.size - top
    turned[:rest], turned[rest:] = values[top:], values[: top + 1]
    for k in range(beside.shape[0]):
        besides[k, :rest], besides[k, rest:] = beside[k, top:], beside[k, : top + 1]


@compiled
def damage_on_planes(shear, normal, stress, often, by_shear, how, twice, curve, sums):
    """Damage along directions on planes, added to `sums` (planes, directions).

    `shear` (planes, directions, 6) and `normal` (planes, 6) are weights of the components, `stress` (6, samples) repeats itself.
    Each cycle of the shear has the largest normal stress while it lasts; without `by_shear` the normal stress itself is counted.
    """
    samples = stress.shape[1]
    sigma, tau = np.empty((1, samples)), np.empty(samples)
    turned, beside = np.empty(samples + 1), np.empty((1, samples + 1))
    index = np.empty(samples + 1, np.int64)
    room = samples // 2 + 3
    ranges, peaks = np.empty(room), np.empty(room)
    start, end = np.empty(room, np.int64), np.empty(room, np.int64)
    for p in range(shear.shape[0]):
        _weighted(normal[p], stress, sigma[0])
        for d in range(shear.shape[1]):
            if by_shear:
                _weighted(shear[p, d], stress, tau)
            else:
                tau[:] = sigma[0]
            _from_top(tau, sigma, turned, beside)
            turns = index[: turning_points(turned, index)]
            many = loops(turned, beside[0], turns, ranges, peaks, start, end)
            sums[p, d] += often * _done(ranges[:many], peaks[:many], how, twice, curve)


@compiled
def strain_damage_on_planes(shear, normal, stress, strain, often, by_shear, by_range, terms, sums):
    """The same by strains: tensor strains beside stresses, (6, samples); of shear the engineering strain is counted.

    The life solves parameter = (f - g (σ_max + σ_min)) (2 N)^s + h (2 N)^t, of parameter = Δ/2 (a + b <σ_max>) + c Δε_n, with
    `terms` a, b, c, f, g, s, h, t; smallest stress and Δε_n are looked at with `by_range` alone.
    """
    samples = stress.shape[1]
    kinds = 4 if by_range else 1
    on_plane, gamma = np.empty((kinds, samples)), np.empty(samples)
    turned, beside = np.empty(samples + 1), np.empty((kinds, samples + 1))
    index = np.empty(samples + 1, np.int64)
    room = samples // 2 + 3
    ranges, peaks = np.empty(room), np.empty((4, room))
    start, end = np.empty(room, np.int64), np.empty(room, np.int64)
    peaks[:] = 0.0
    for p in range(shear.shape[0]):
        _weighted(normal[p], stress, on_plane[0])
        if by_range:
            _weighted(normal[p], strain, on_plane[2])
            on_plane[1], on_plane[3] = -on_plane[0], -on_plane[2]
        for d in range(shear.shape[1]):
            if by_shear:
                _weighted(2.0 * shear[p, d], strain, gamma)
            else:
                _weighted(normal[p], strain, gamma)
            _from_top(gamma, on_plane, turned, beside)
            turns = index[: turning_points(turned, index)]
            many = 0
            for k in range(kinds):
                many = loops(turned, beside[k], turns, ranges, peaks[k], start, end)
            sums[p, d] += often * _strained(ranges[:many], peaks, terms)


@compiled
def _strained(ranges, peaks, terms):
    """Damage of cycles of strain, one of each; inf where one has no life."""
    a, b, c, f, g, slope_1, h, slope_2 = terms
    second = np.log(h)
    total = 0.0
    for i in range(ranges.size):
        parameter = 0.5 * ranges[i] * (a + b * max(peaks[0, i], 0.0)) + c * (peaks[2, i] + peaks[3, i])
        if parameter <= 0.0:
            continue
        first = f - g * (peaks[0, i] - peaks[1, i])
        if first <= 0.0:
            return np.inf
        total += 2.0 * np.exp(-two_powers(np.log(first), slope_1, second, slope_2, np.log(parameter)))
    return total
