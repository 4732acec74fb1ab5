"""The straight line to the yield strength."""

from __future__ import annotations

from typing import ClassVar

from vivid_anvil.materials.mean_stress.goodman import Goodman
from vivid_anvil.materials.mean_stress.rule import MEAN_STRESS_RULES


@MEAN_STRESS_RULES.add("soderberg")
class Soderberg(Goodman):
    """S_ar = S_a / (1 - S_m / R_e) (Soderberg, C. R. 1930, Trans. ASME 52, APM-52-2)."""

    needs: ClassVar[str | None] = "yield_strength"
    validity: ClassVar[str] = "mean below the yield strength; very much on the safe side"
    source: ClassVar[str] = "Soderberg 1930"
    formula: ClassVar[str] = "S_ar = S_a / (1 - S_m / R_e)"
    numbers: ClassVar[str] = "{a} / (1 - {m} / {v})"
    formula_at: ClassVar[str] = "S_aR = S_ar / (1 + S_ar × k / R_e), k = (1 + R) / (1 - R)"
    numbers_at: ClassVar[str] = "{a} / (1 + {a} × {k} / {v})"
