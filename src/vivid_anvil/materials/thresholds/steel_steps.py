"""The threshold of steels that are not welded, of a standard."""

from __future__ import annotations

from dataclasses import dataclass
from typing import Any, ClassVar

from vivid_anvil.materials.thresholds.threshold import THRESHOLDS, Threshold
from vivid_anvil.writing.working import put_in


@THRESHOLDS.add("steel, steps")
@dataclass(frozen=True, kw_only=True)
class SteelStepsThreshold(Threshold):
    """63 MPa√mm for R of 0.5 and more, 170 - 214 R from 0 on, 170 below (BS 7910, steels that are not welded).

    >>> SteelStepsThreshold().at([-1.0, 0.25, 0.7])
    array([170. , 116.5,  63. ])
    """

    formula: ClassVar[str] = "ΔK_th = 170 - 214 × R from R = 0 on, 170 below, 63 MPa√mm from 0.5 on"
    method: ClassVar[str] = "BS 7910"

    def numbers_in(self, r: float, a: float) -> str:
        """The formula with R put in."""
        if r >= 0.5 or r < 0.0:
            return put_in(float(self.at(r)))
        return f"170 - 214 × {put_in(r)}"

    @staticmethod
    def value(p: Any, r: float, a: float) -> float:
        """The threshold at R."""
        if r >= 0.5:
            return 63.0
        return 170.0 - 214.0 * r if r >= 0.0 else 170.0
