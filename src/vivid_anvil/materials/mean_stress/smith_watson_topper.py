"""The rule of Smith, Watson and Topper."""

from __future__ import annotations

from typing import ClassVar

from numpy.typing import ArrayLike

from vivid_anvil.ground.checks import FloatArray
from vivid_anvil.materials.mean_stress.rule import MEAN_STRESS_RULES, MeanStressRule
from vivid_anvil.materials.mean_stress.walker import Walker


@MEAN_STRESS_RULES.add("smith-watson-topper")
class SmithWatsonTopper(MeanStressRule):
    """S_ar = √(S_max S_a) (Smith, K. N., Watson, P. and Topper, T. H. 1970, J. Materials 5, 767-778)."""

    validity: ClassVar[str] = (
        "maximum stress above 0, else no damage; needs no strength; good for aluminium, fair for steels"
    )
    source: ClassVar[str] = "Smith, Watson and Topper 1970"
    formula: ClassVar[str] = "S_ar = (S_max × S_a)^0.5, S_max = S_a + S_m"
    numbers: ClassVar[str] = "(({a} + {m}) × {a})^0.5"
    formula_at: ClassVar[str] = "S_aR = S_ar × ((1 - R) / 2)^0.5, (1 - R) / 2 = 1 / (1 + k)"
    numbers_at: ClassVar[str] = "{a} × (1 / (1 + {k}))^0.5"
    needs_tension: ClassVar[bool] = True
    bounded: ClassVar[bool] = True

    @staticmethod
    def to_reversed(amplitude: ArrayLike, mean: ArrayLike, value: float = 0.5) -> FloatArray:
        """√(S_max S_a): Walker's rule with γ = 0.5.

        >>> round(float(SmithWatsonTopper.to_reversed(120.0, 100.0)), 4)
        162.4808
        """
        return Walker.to_reversed(amplitude, mean, 0.5)

    @staticmethod
    def at_r(reversed_amplitude: ArrayLike, r_ratio: float, value: float = 0.5) -> FloatArray:
        """S_ar √((1 - R) / 2)."""
        return Walker.at_r(reversed_amplitude, r_ratio, 0.5)
