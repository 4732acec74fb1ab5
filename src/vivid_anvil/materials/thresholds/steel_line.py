"""The threshold of steels as a line over R."""

from __future__ import annotations

import math
from dataclasses import dataclass
from typing import Any, ClassVar

from vivid_anvil.materials.thresholds.threshold import THRESHOLDS, Threshold
from vivid_anvil.writing.working import put_in


@THRESHOLDS.add("steel, line over R")
@dataclass(frozen=True, kw_only=True)
class SteelLineThreshold(Threshold):
    """7.0 (1 - 0.85 R) MPa√m for R of 0.1 and more, else 6.0 (Barsom and Rolfe); it steps at 0.1.

    >>> (SteelLineThreshold().at([0.0, 0.5]) / 1000.0**0.5).round(3)
    array([6.   , 4.025])
    """

    formula: ClassVar[str] = "ΔK_th = 7.0 × (1 - 0.85 × R) MPa√m from R = 0.1 on, below 6.0 MPa√m"
    method: ClassVar[str] = "Barsom and Rolfe 1999"

    def numbers_in(self, r: float, a: float) -> str:
        """The formula with R put in, 1 MPa√m being √1000 MPa√mm."""
        return f"7.0 × (1 - 0.85 × {put_in(r)}) × √(1000)" if r >= 0.1 else "6.0 × √(1000)"

    @staticmethod
    def value(p: Any, r: float, a: float) -> float:
        """The threshold at R."""
        return (7.0 * (1.0 - 0.85 * r) if r >= 0.1 else 6.0) * math.sqrt(1000.0)
