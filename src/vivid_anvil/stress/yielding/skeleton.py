"""First loading of a notch: stress and strain over the drive, as a table where many are asked for."""

from __future__ import annotations

import numpy as np

from vivid_anvil.ground.checks import FloatArray
from vivid_anvil.materials.strain import CyclicCurve
from vivid_anvil.stress.yielding import _kernels
from vivid_anvil.stress.yielding.notch_rules import NOTCH_RULES, stiffness

ROWS = 4_096  # of the table of the cyclic curve over the drive
Table = tuple[float, FloatArray]


def on_skeleton(
    curve: CyclicCurve, rule: str, drives: FloatArray, plastic_limit_ratio: float | None
) -> tuple[FloatArray, FloatArray]:
    """Stress, MPa, and strain, -, at drives of 0 or more, each solved where they are few, else from a table of solved ones."""
    if drives.size <= ROWS:
        return NOTCH_RULES[rule].local(curve, drives, plastic_limit_ratio)
    stress, strain = np.empty(drives.size), np.empty(drives.size)
    _kernels.many_on_skeleton(
        drives, *skeleton_table(curve, rule, float(drives.max()), plastic_limit_ratio), stress, strain
    )
    return stress, strain


def skeleton_table(curve: CyclicCurve, rule: str, largest: float, plastic_limit_ratio: float | None) -> Table:
    """One over an even step of the drive, and for each step from 0 to the largest a cubic of stress and one of strain, (n, 8).

    The cubics meet value and slope at both ends of a step (Hermite).
    """
    chosen = NOTCH_RULES[rule]
    end = largest or 1.0
    step = end / (ROWS - 1)
    drives = np.linspace(0.0, end, ROWS)
    stress, strain = chosen.local(curve, drives, plastic_limit_ratio)
    slope = chosen.slope(curve, drives, stress, plastic_limit_ratio)
    parts = []
    for values, slopes in ((stress, slope * step), (strain, slope * step * stiffness(curve, stress))):
        rise = np.diff(values)
        before, after = slopes[:-1], slopes[1:]
        parts += [values[:-1], before, 3.0 * rise - 2.0 * before - after, before + after - 2.0 * rise]
    return 1.0 / step, np.ascontiguousarray(np.column_stack(parts))
