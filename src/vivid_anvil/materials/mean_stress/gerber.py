"""The parabola to the ultimate strength."""

from __future__ import annotations

from typing import ClassVar

import numpy as np
from numpy.typing import ArrayLike

from vivid_anvil.ground.checks import FloatArray
from vivid_anvil.materials.mean_stress.rule import MEAN_STRESS_RULES, MeanStressRule, mean_ratio, numbers_of


@MEAN_STRESS_RULES.add("gerber")
class Gerber(MeanStressRule):
    """S_ar = S_a / (1 - (S_m / R_m)²) (Gerber, W. 1874, Z. bayer. Archit. Ing.-Ver. 6, 101-110)."""

    needs: ClassVar[str | None] = "ultimate_strength"
    validity: ClassVar[str] = (
        "tensile means below the ultimate strength; ductile metals, no longer safe near yield; no meaning in compression"
    )
    source: ClassVar[str] = "Gerber 1874"
    formula: ClassVar[str] = "S_ar = S_a / (1 - (S_m / R_m)^2)"
    numbers: ClassVar[str] = "{a} / (1 - ({m} / {v})^2)"
    formula_at: ClassVar[str] = "S_aR = 2 × S_ar / (1 + (1 + 4 × (k × S_ar / R_m)^2)^0.5), k = (1 + R) / (1 - R)"
    numbers_at: ClassVar[str] = "2 × {a} / (1 + (1 + 4 × ({k} × {a} / {v})^2)^0.5)"
    in_compression: ClassVar[bool] = False
    bounded: ClassVar[bool] = True

    @staticmethod
    def to_reversed(amplitude: ArrayLike, mean: ArrayLike, value: float) -> FloatArray:
        """S_ar = S_a / (1 - (S_m / R_m)²), the parabola (Gerber, W. 1874, Z. bayer. Archit. Ing.-Ver. 6, 101-110).

        >>> float(Gerber.to_reversed(120.0, 100.0, 700.0))
        122.5
        """
        size, middle = numbers_of(amplitude, mean)
        left = np.where(middle < value, 1.0 - (middle / value) ** 2, 0.0)
        with np.errstate(divide="ignore", invalid="ignore"):
            return np.where(left > 0.0, size / np.maximum(left, 0.0), np.inf)

    @staticmethod
    def at_r(reversed_amplitude: ArrayLike, r_ratio: float, value: float) -> FloatArray:
        """The same at an R: S_aR = 2 S_ar / (1 + √(1 + 4 (k S_ar / R_m)²)), k = (1 + R) / (1 - R).

        >>> round(float(Gerber.at_r(122.5, 0.5, 700.0)), 6)
        100.0
        """
        (size,) = numbers_of(reversed_amplitude)
        return np.asarray(2.0 * size / (1.0 + np.sqrt(1.0 + 4.0 * (mean_ratio(r_ratio) * size / value) ** 2)))
