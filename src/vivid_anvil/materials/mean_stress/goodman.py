"""The straight line to the ultimate strength."""

from __future__ import annotations

from typing import ClassVar

import numpy as np
from numpy.typing import ArrayLike

from vivid_anvil.ground.checks import FloatArray
from vivid_anvil.materials.mean_stress.rule import MEAN_STRESS_RULES, MeanStressRule, mean_ratio, numbers_of


@MEAN_STRESS_RULES.add("goodman")
class Goodman(MeanStressRule):
    """S_ar = S_a / (1 - S_m / R_m) (Goodman, J. 1899, Mechanics applied to engineering)."""

    needs: ClassVar[str | None] = "ultimate_strength"
    validity: ClassVar[str] = "mean below the ultimate strength; on the safe side for most ductile metals"
    source: ClassVar[str] = "Goodman 1899"
    formula: ClassVar[str] = "S_ar = S_a / (1 - S_m / R_m)"
    numbers: ClassVar[str] = "{a} / (1 - {m} / {v})"
    formula_at: ClassVar[str] = "S_aR = S_ar / (1 + S_ar × k / R_m), k = (1 + R) / (1 - R)"
    numbers_at: ClassVar[str] = "{a} / (1 + {a} × {k} / {v})"
    bounded: ClassVar[bool] = True
    straight: ClassVar[bool] = True

    @staticmethod
    def to_reversed(amplitude: ArrayLike, mean: ArrayLike, value: float) -> FloatArray:
        """S_ar = S_a / (1 - S_m / strength): the straight line to the strength; inf at or beyond it.

        With the ultimate strength: Goodman, J. (1899), Mechanics applied to engineering; with the yield strength: Soderberg, C.
        R. (1930), Trans. ASME 52, APM-52-2; with the true fracture strength or the fatigue strength coefficient: Morrow, J.
        (1968), Fatigue design handbook, SAE.

        >>> float(Goodman.to_reversed(120.0, 100.0, 700.0))
        140.0
        """
        size, middle = numbers_of(amplitude, mean)
        left = 1.0 - middle / value
        with np.errstate(divide="ignore", invalid="ignore"):
            return np.where(left > 0.0, size / np.maximum(left, 0.0), np.inf)

    @staticmethod
    def at_r(reversed_amplitude: ArrayLike, r_ratio: float, value: float) -> FloatArray:
        """The same solved for the amplitude at `r_ratio` below 1: S_aR = S_ar / (1 + S_ar k / strength), k = (1 + R) / (1 - R).

        >>> round(float(Goodman.at_r(140.0, 0.0, 700.0)), 3)
        116.667
        """
        (size,) = numbers_of(reversed_amplitude)
        return size / (1.0 + size * mean_ratio(r_ratio) / value)
