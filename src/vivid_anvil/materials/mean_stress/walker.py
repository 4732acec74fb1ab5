"""Walker's rule with an exponent."""

from __future__ import annotations

from typing import ClassVar

import numpy as np
from numpy.typing import ArrayLike

from vivid_anvil.ground.checks import FloatArray
from vivid_anvil.materials.material import Material
from vivid_anvil.materials.mean_stress.rule import MEAN_STRESS_RULES, MeanStressRule, numbers_of
from vivid_anvil.materials.mean_stress.sensitivity import estimated_walker_exponent


@MEAN_STRESS_RULES.add("walker")
class Walker(MeanStressRule):
    """S_ar = S_max^(1-γ) S_a^γ (Walker, K. 1970, ASTM STP 462, 1-14)."""

    needs: ClassVar[str | None] = "walker_exponent"
    validity: ClassVar[str] = "maximum stress above 0, else no damage; best where its exponent was fitted to tests"
    source: ClassVar[str] = "Walker 1970"
    formula: ClassVar[str] = "S_ar = S_max^(1 - γ) × S_a^γ, S_max = S_a + S_m"
    numbers: ClassVar[str] = "({a} + {m})^(1 - {v}) × {a}^{v}"
    formula_at: ClassVar[str] = "S_aR = S_ar × ((1 - R) / 2)^(1 - γ), (1 - R) / 2 = 1 / (1 + k)"
    numbers_at: ClassVar[str] = "{a} × (1 / (1 + {k}))^(1 - {v})"
    needs_tension: ClassVar[bool] = True

    @staticmethod
    def to_reversed(amplitude: ArrayLike, mean: ArrayLike, value: float) -> FloatArray:
        """S_ar = S_max^(1-γ) S_a^γ; 0 where the maximum is not tensile (Walker, K. 1970, ASTM STP 462, 1-14).

        γ = 0.5 is S_ar = √(S_max S_a) (Smith, K. N., Watson, P. and Topper, T. H. 1970, J. Materials 5, 767-778).

        >>> round(float(Walker.to_reversed(120.0, 100.0, 0.5)), 4)
        162.4808
        """
        size, middle = numbers_of(amplitude, mean)
        return np.asarray(np.maximum(size + middle, 0.0) ** (1.0 - value) * size**value)

    @staticmethod
    def at_r(reversed_amplitude: ArrayLike, r_ratio: float, value: float) -> FloatArray:
        """The same at an R: S_aR = S_ar ((1 - R) / 2)^(1-γ).

        >>> round(float(Walker.at_r(120.0, 0.0, 0.5)), 4)
        84.8528
        """
        (size,) = numbers_of(reversed_amplitude)
        return np.asarray(size * (0.5 * (1.0 - r_ratio)) ** (1.0 - value))

    @classmethod
    def value_of(cls, material: Material, where: str) -> float:
        """γ of the material, or estimated from its strength where it asks for that."""
        if material.walker_exponent == "estimated":
            purpose = f"the mean-stress rule {cls.kind} of {where}"
            return estimated_walker_exponent(material.needed("ultimate_strength", purpose))
        return super().value_of(material, where)
