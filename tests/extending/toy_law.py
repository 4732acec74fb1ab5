"""A growth law of one's own: the rate grows as the exponential of the range."""

from __future__ import annotations

import math
from dataclasses import dataclass
from typing import Any, ClassVar

from vivid_anvil.materials import LAWS, GrowthLaw
from vivid_anvil.units import Coherent


@LAWS.add("exponential")
@dataclass(frozen=True, kw_only=True, repr=False)
class ExponentialLaw(GrowthLaw):
    """da/dN = g exp(ΔK / K_0), above the threshold."""

    growth_at_0: Coherent = Coherent("growth rate", above=0.0)
    k_0: Coherent = Coherent("stress intensity", above=0.0)
    formula: ClassVar[str] = "da/dN = g × exp(ΔK / K_0)"
    holds: ClassVar[str] = "any R"
    method: ClassVar[str] = "made up"
    form_knows_r: ClassVar[bool] = False
    one_power: ClassVar[bool] = False
    slope: ClassVar[float] = 3.0

    @property
    def row(self) -> tuple[float, ...]:
        return (self.growth_at_0, self.k_0)

    @staticmethod
    def grown(p: Any, threshold: float, dk: float, r: float, a: float) -> float:
        return p[0] * math.exp(dk / p[1])

    def numbers_in(self, dk: float, r: float, threshold: float) -> str:
        return f"{self.growth_at_0:g} × exp({dk:.7g} / {self.k_0:.7g})"
