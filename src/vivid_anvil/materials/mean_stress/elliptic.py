"""The ellipse through the yield strength."""

from __future__ import annotations

from typing import ClassVar

import numpy as np
from numpy.typing import ArrayLike

from vivid_anvil.ground.checks import FloatArray
from vivid_anvil.materials.mean_stress.rule import MEAN_STRESS_RULES, MeanStressRule, mean_ratio, numbers_of


@MEAN_STRESS_RULES.add("elliptic")
class Elliptic(MeanStressRule):
    """S_ar = S_a / √(1 - (S_m / R_e)²) (Marin, J. 1956, Trans. ASME 78, 1777-1785)."""

    needs: ClassVar[str | None] = "yield_strength"
    validity: ClassVar[str] = (
        "tensile means below the yield strength; the mildest of the textbook rules; no meaning in compression"
    )
    source: ClassVar[str] = "Marin 1956"
    formula: ClassVar[str] = "S_ar = S_a / (1 - (S_m / R_e)^2)^0.5"
    numbers: ClassVar[str] = "{a} / (1 - ({m} / {v})^2)^0.5"
    formula_at: ClassVar[str] = "S_aR = S_ar / (1 + (k × S_ar / R_e)^2)^0.5, k = (1 + R) / (1 - R)"
    numbers_at: ClassVar[str] = "{a} / (1 + ({k} × {a} / {v})^2)^0.5"
    in_compression: ClassVar[bool] = False
    bounded: ClassVar[bool] = True

    @staticmethod
    def to_reversed(amplitude: ArrayLike, mean: ArrayLike, value: float) -> FloatArray:
        """S_ar = S_a / √(1 - (S_m / R_e)²), the ellipse through the yield strength (Marin, J. 1956, Trans. ASME 78, 1777-1785).

        >>> round(float(Elliptic.to_reversed(120.0, 100.0, 420.0)), 4)
        123.5532
        """
        size, middle = numbers_of(amplitude, mean)
        left = np.where(middle < value, 1.0 - (middle / value) ** 2, 0.0)
        with np.errstate(divide="ignore", invalid="ignore"):
            return np.where(left > 0.0, size / np.sqrt(np.maximum(left, 0.0)), np.inf)

    @staticmethod
    def at_r(reversed_amplitude: ArrayLike, r_ratio: float, value: float) -> FloatArray:
        """The same at an R: S_aR = S_ar / √(1 + (k S_ar / R_e)²), k = (1 + R) / (1 - R).

        >>> round(float(Elliptic.at_r(120.0, 0.0, 420.0)), 4)
        115.3829
        """
        (size,) = numbers_of(reversed_amplitude)
        return np.asarray(size / np.sqrt(1.0 + (mean_ratio(r_ratio) * size / value) ** 2))
