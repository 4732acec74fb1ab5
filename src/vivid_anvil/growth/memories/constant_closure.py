"""Constant closure: the crack opens at one stress under the whole spectrum."""

from __future__ import annotations

from dataclasses import dataclass
from typing import ClassVar

import numpy as np

from vivid_anvil.ground.checks import FloatArray
from vivid_anvil.growth.memories.retardation import RETARDATIONS, Retardation
from vivid_anvil.materials import opening
from vivid_anvil.units import UnitSystem, many, one, opened

_ALPHA, _PEAK = one(at_least=1.0, at_most=3.0), one(above=0.0, below=1.0)


@RETARDATIONS.add("constant closure")
@dataclass(frozen=True, kw_only=True)
class ConstantClosure(Retardation):
    """K opens at f(R) of the spectrum's largest and smallest stress, times the largest (Newman 1984).

    Parameters
    ----------
    closure_alpha : float, default 2.0
        Constraint of the closure, from 1 (plane stress) to 3, -.
    closure_peak : float, default 0.3
        Largest stress over flow stress in the closure, -.

    Raises
    ------
    InputError
        For an argument of another kind, unit or range; the message says which.

    Examples
    --------
    >>> round(ConstantClosure().opening_stress([[120.0, 0.0], [80.0, 5.0]]), 2)
    39.08
    """

    closure_alpha: float = 2.0
    closure_peak: float = 0.3
    method: ClassVar[str] = "Newman 1984"
    remembers: ClassVar[bool] = False
    takes_residual_stress: ClassVar[bool] = False

    def __post_init__(self) -> None:
        _ALPHA.checked(self.closure_alpha, "retardation, closure_alpha")
        _PEAK.checked(self.closure_peak, "retardation, closure_peak")

    @opened(rows=many("stress"), lowest=one("stress", may_be_infinite=True))
    def opening_stress(self, rows: FloatArray, lowest: float = -np.inf) -> float:
        """Stress, MPa, at which the crack opens under rows (largest, smallest, ...) of a spectrum.

        >>> rows = np.array([[100.0, 0.0], [60.0, 30.0]])
        >>> round(ConstantClosure().opening_stress(rows), 3)
        32.566
        """
        high, low = float(rows[:, 0].max()), max(float(rows[:, 1].min()), lowest)
        return opening(self.closure_alpha, self.closure_peak).at(low / high) * high

    def prepared(self, rows: FloatArray, lowest: float) -> tuple[FloatArray, float]:
        """What lies below the opening stress cut off."""
        opens = max(lowest, self.opening_stress(rows, lowest))
        return np.maximum(rows, [opens, opens, 0.0][: rows.shape[1]]), opens

    def zone_words(self, k_max: float, units: UnitSystem = "metric") -> str:
        """There is no zone."""
        return "none: K opens at one stress"
