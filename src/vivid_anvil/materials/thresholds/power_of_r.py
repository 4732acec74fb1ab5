"""A threshold that falls as a power of 1 - R."""

from __future__ import annotations

from dataclasses import dataclass
from typing import Any, ClassVar

from vivid_anvil.materials.thresholds.threshold import THRESHOLDS, Threshold
from vivid_anvil.units import Coherent, UnitSystem, in_unit
from vivid_anvil.writing.working import put_in


@THRESHOLDS.add("power of 1 - R")
@dataclass(frozen=True, kw_only=True)
class PowerOfRThreshold(Threshold):
    """ΔK_th = `range` (1 - R)^`exponent`; `range`, MPa√mm, is that at R = 0 (Klesnil and Lukáš 1972).

    Parameters
    ----------
    range : float or text with a unit
        Threshold at R = 0, MPa√mm.
    exponent : float
        g of (1 - R)^g, -.

    Raises
    ------
    InputError
        For an argument of another kind, unit or range; the message says which.

    Examples
    --------
    >>> round(float(PowerOfRThreshold(range=120.0, exponent=0.5).at(0.75)), 6)
    60.0
    """

    range: Coherent = Coherent("stress intensity", at_least=0.0)
    exponent: Coherent = Coherent("number")
    formula: ClassVar[str] = "ΔK_th = ΔK_th0 × (1 - R)^g"
    method: ClassVar[str] = "Klesnil and Lukáš 1972"

    @property
    def row(self) -> tuple[float, ...]:
        """Range at R = 0, exponent."""
        return (self.range, self.exponent)

    @staticmethod
    def value(p: Any, r: float, a: float) -> float:
        """The threshold at R."""
        return p[0] * (1.0 - r) ** p[1]  # type: ignore[no-any-return]

    def numbers_in(self, r: float, a: float) -> str:
        """The formula with R put in."""
        return f"{put_in(self.range)} × (1 - {put_in(r)})^{put_in(self.exponent)}"

    def words_in(self, units: UnitSystem = "metric") -> str:
        """The form, and the range that it starts from."""
        return f"by {self.kind} from {in_unit(self.range, 'stress intensity', units)}"
