"""The loop over planes and directions whose shear is counted: from stresses to damage by a curve of power laws."""

import numpy as np

from vivid_anvil.counting._kernels import turning_points
from vivid_anvil.ground.compiled import compiled
from vivid_anvil.stress.planes._kernels import loops
from vivid_anvil.stress.planes._path_kernels import _damage, _equivalent


@compiled
def damage_on_planes(shear, normal, stress, often, by_shear, how, twice, curve, sums):
    """Damage along directions on planes, added to `sums` (planes, directions).

    `shear` (planes, directions, 6) and `normal` (planes, 6) are weights of the components, `stress` (samples, 6) repeats itself.
    Each cycle of the shear has the largest normal stress while it lasts; without `by_shear` the normal stress itself is counted.
    """
    samples = stress.shape[0]
    sigma, tau = np.empty(samples), np.empty(samples)
    turned, beside = np.empty(samples + 1), np.empty(samples + 1)
    index = np.empty(samples + 1, np.int64)
    room = samples // 2 + 3
    ranges, peaks = np.empty(room), np.empty(room)
    start, end = np.empty(room, np.int64), np.empty(room, np.int64)
    for p in range(shear.shape[0]):
        for t in range(samples):
            value = 0.0
            for c in range(6):
                value += normal[p, c] * stress[t, c]
            sigma[t] = value
        for d in range(shear.shape[1]):
            top = 0
            for t in range(samples):
                if by_shear:
                    value = 0.0
                    for c in range(6):
                        value += shear[p, d, c] * stress[t, c]
                    tau[t] = value
                else:
                    tau[t] = sigma[t]
                if tau[t] > tau[top]:
                    top = t
            turned[: samples - top], turned[samples - top :] = tau[top:], tau[: top + 1]
            beside[: samples - top], beside[samples - top :] = sigma[top:], sigma[: top + 1]
            turns = index[: turning_points(turned, index)]
            many = loops(turned, beside, turns, ranges, peaks, start, end)
            total = 0.0
            for i in range(many):
                total += _damage(_equivalent(0.5 * ranges[i], peaks[i], how), often, twice, curve)
            sums[p, d] += total
