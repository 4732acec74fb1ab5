"""A threshold of one's own: it falls with R in a straight line, to nothing at R = 1."""

from __future__ import annotations

from dataclasses import dataclass
from typing import Any, ClassVar

from vivid_anvil.materials import THRESHOLDS, Threshold
from vivid_anvil.units import Coherent


@THRESHOLDS.add("straight to 1")
@dataclass(frozen=True, kw_only=True)
class StraightThreshold(Threshold):
    """ΔK_th = ΔK_0 (1 - R), no more than at R = 0."""

    at_0: Coherent = Coherent("stress intensity", above=0.0)
    formula: ClassVar[str] = "ΔK_th = ΔK_0 × (1 - R)"

    @property
    def row(self) -> tuple[float, ...]:
        return (self.at_0,)

    @staticmethod
    def value(p: Any, r: float, a: float) -> float:
        return p[0] * (1.0 - max(r, 0.0))
