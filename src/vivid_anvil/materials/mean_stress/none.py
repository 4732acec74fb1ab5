"""No correction: the mean has no effect."""

from __future__ import annotations

from typing import ClassVar

from numpy.typing import ArrayLike

from vivid_anvil.ground.checks import FloatArray
from vivid_anvil.materials.mean_stress.rule import MEAN_STRESS_RULES, MeanStressRule, numbers_of


@MEAN_STRESS_RULES.add("none")
class NoRule(MeanStressRule):
    """The amplitude as it is."""

    validity: ClassVar[str] = "where the curve holds for the means that occur, such as welds as welded"
    source: ClassVar[str] = "no correction"
    formula: ClassVar[str] = "S_ar = S_a"
    numbers: ClassVar[str] = "{a}"
    formula_at: ClassVar[str] = "S_aR = S_ar"
    numbers_at: ClassVar[str] = "{a}"
    corrects: ClassVar[bool] = False
    bounded: ClassVar[bool] = True

    @staticmethod
    def to_reversed(amplitude: ArrayLike, mean: ArrayLike, value: float) -> FloatArray:
        """The amplitude itself: the mean is taken to have no effect."""
        return numbers_of(amplitude)[0]

    @staticmethod
    def at_r(reversed_amplitude: ArrayLike, r_ratio: float, value: float) -> FloatArray:
        """The amplitude itself, at any R."""
        return numbers_of(reversed_amplitude)[0]
