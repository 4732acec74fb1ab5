"""The later form of the law of Hartman and Schijve: a power of a range shaped by threshold and toughness."""

from __future__ import annotations

import math
from dataclasses import dataclass
from typing import Any, ClassVar

from vivid_anvil.materials.laws.law import LAWS, GrowthLaw
from vivid_anvil.units import Coherent, GrowthRate
from vivid_anvil.writing.working import put_in


@LAWS.add("hartman-schijve, later form")
@dataclass(frozen=True, kw_only=True, repr=False)
class LaterHartmanSchijveLaw(GrowthLaw):
    """da/dN = C ((ΔK - ΔK_th) / √(1 - K_max / K_c))^m (Jones 2014); `toughness` is K_c.

    >>> law = LaterHartmanSchijveLaw(name="h", rate=3e-13, slope=3.0, toughness=2000.0, threshold=100.0)
    >>> f"{float(law.growth(500.0, 0.1)):.4g}"
    '3.13e-05'
    """

    rate: GrowthRate = GrowthRate()
    slope: Coherent = Coherent("number", above=0.0, below=math.inf)
    toughness: Coherent = Coherent("stress intensity", above=0.0)
    formula: ClassVar[str] = "da/dN = C × ((ΔK - ΔK_th) / √(1 - K_max / K_c))^m"
    holds: ClassVar[str] = "any R"
    method: ClassVar[str] = "Jones 2014, Fatigue Fract. Eng. Mater. Struct. 37"

    @property
    def row(self) -> tuple[float, ...]:
        """C, m, K_c."""
        return (self.constant, self.slope, self.toughness)

    @property
    def fracture_toughness(self) -> float | None:
        """K_c, MPa√mm."""
        return self.toughness

    @staticmethod
    def grown(p: Any, threshold: float, dk: float, r: float, a: float) -> float:
        """Growth of one cycle, mm."""
        if (1.0 - r) * p[2] - dk <= 0.0:
            return math.inf
        peak_share = dk / ((1.0 - r) * p[2])
        return p[0] * ((dk - threshold) / math.sqrt(1.0 - peak_share)) ** p[1]  # type: ignore[no-any-return]

    def numbers_in(self, dk: float, r: float, threshold: float) -> str:
        """The formula with numbers."""
        peak = f"{put_in(dk)} / ((1 - {put_in(r)}) × {put_in(self.toughness)})"
        above = f"({put_in(dk)} - {put_in(threshold)})"
        return f"{put_in(self.constant)} × ({above} / √(1 - {peak}))^{put_in(self.slope)}"
