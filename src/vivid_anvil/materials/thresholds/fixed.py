"""One threshold at every R."""

from __future__ import annotations

from dataclasses import dataclass
from typing import Any, ClassVar

from vivid_anvil.materials.thresholds.threshold import THRESHOLDS, Threshold
from vivid_anvil.units import Coherent, UnitSystem, in_unit


@THRESHOLDS.add("one value")
@dataclass(frozen=True, kw_only=True)
class FixedThreshold(Threshold):
    """The same `range`, MPa√mm, at every R.

    >>> round(float(FixedThreshold(range="2 MPa√m").at(0.5)), 2)
    63.25
    """

    range: Coherent = Coherent("stress intensity", at_least=0.0)
    formula: ClassVar[str] = "ΔK_th = one value at every R"
    depends_on_r: ClassVar[bool] = False

    @property
    def row(self) -> tuple[float, ...]:
        """The range."""
        return (self.range,)

    @staticmethod
    def value(p: Any, r: float, a: float) -> float:
        """The range."""
        return p[0]  # type: ignore[no-any-return]

    @property
    def least_of_all(self) -> float:
        """The range, MPa√mm."""
        return self.range

    def words_in(self, units: UnitSystem = "metric") -> str:
        """The range with its unit."""
        return in_unit(self.range, "stress intensity", units)
