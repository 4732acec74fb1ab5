"""A mean-stress rule of one's own: halfway between the line to the ultimate strength and the parabola."""

from __future__ import annotations

from typing import ClassVar

import numpy as np
from numpy.typing import ArrayLike

from vivid_anvil.ground.checks import FloatArray
from vivid_anvil.materials import MEAN_STRESS_RULES
from vivid_anvil.materials.mean_stress import MeanStressRule
from vivid_anvil.materials.mean_stress.rule import mean_ratio


@MEAN_STRESS_RULES.add("in between")
class InBetween(MeanStressRule):
    """S_ar = S_a / (1 - (S_m / R_m)^1.5)."""

    needs: ClassVar[str | None] = "ultimate_strength"
    validity: ClassVar[str] = "made up"
    source: ClassVar[str] = "made up"
    formula: ClassVar[str] = "S_ar = S_a / (1 - (S_m / R_m)^1.5)"
    numbers: ClassVar[str] = "{a} / (1 - ({m} / {v})^1.5)"
    formula_at: ClassVar[str] = "S_aR by Newton's rule"
    numbers_at: ClassVar[str] = "{a}, {k}, {v}"
    in_compression: ClassVar[bool] = False
    bounded: ClassVar[bool] = True

    @staticmethod
    def to_reversed(amplitude: ArrayLike, mean: ArrayLike, value: float) -> FloatArray:
        left = 1.0 - (np.maximum(mean, 0.0) / value) ** 1.5
        with np.errstate(divide="ignore"):
            return np.where(left > 0.0, np.asarray(amplitude) / np.maximum(left, 0.0), np.inf)

    @staticmethod
    def at_r(reversed_amplitude: ArrayLike, r_ratio: float, value: float) -> FloatArray:
        """By Newton's rule from above, where the function is convex: S_a + S_ar (k S_a / R_m)^1.5 - S_ar = 0."""
        wanted = np.asarray(reversed_amplitude, dtype=float)
        bend = wanted * (max(mean_ratio(r_ratio), 0.0) / value) ** 1.5
        found = wanted.copy()
        for _ in range(12):
            root = np.sqrt(found)
            found = found - (found + bend * found * root - wanted) / (1.0 + 1.5 * bend * root)
        return found
