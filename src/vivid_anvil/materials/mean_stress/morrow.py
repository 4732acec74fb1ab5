"""The straight line to the true fracture strength, or to the fatigue strength coefficient."""

from __future__ import annotations

from typing import ClassVar

from vivid_anvil.materials.mean_stress.goodman import Goodman
from vivid_anvil.materials.mean_stress.rule import MEAN_STRESS_RULES


@MEAN_STRESS_RULES.add("morrow")
class Morrow(Goodman):
    """S_ar = S_a / (1 - S_m / σ_fB) (Morrow, J. 1968, Fatigue design handbook, SAE)."""

    needs: ClassVar[str | None] = "true_fracture_strength"
    validity: ClassVar[str] = "mean below the true fracture strength of the tensile test; steels and others"
    source: ClassVar[str] = "Morrow 1968"
    formula: ClassVar[str] = "S_ar = S_a / (1 - S_m / σ_fB)"
    numbers: ClassVar[str] = "{a} / (1 - {m} / {v})"
    formula_at: ClassVar[str] = "S_aR = S_ar / (1 + S_ar × k / σ_fB), k = (1 + R) / (1 - R)"
    numbers_at: ClassVar[str] = "{a} / (1 + {a} × {k} / {v})"


@MEAN_STRESS_RULES.add("morrow coefficient")
class MorrowCoefficient(Goodman):
    """S_ar = S_a / (1 - S_m / σ_f') (Morrow, J. 1968, Fatigue design handbook, SAE)."""

    needs: ClassVar[str | None] = "fatigue_strength_coefficient"
    validity: ClassVar[str] = "mean below the fatigue strength coefficient; steels; unsafe for aluminium"
    source: ClassVar[str] = "Morrow 1968"
    formula: ClassVar[str] = "S_ar = S_a / (1 - S_m / σ_f')"
    numbers: ClassVar[str] = "{a} / (1 - {m} / {v})"
    formula_at: ClassVar[str] = "S_aR = S_ar / (1 + S_ar × k / σ_f'), k = (1 + R) / (1 - R)"
    numbers_at: ClassVar[str] = "{a} / (1 + {a} × {k} / {v})"
    bounded: ClassVar[bool] = False
