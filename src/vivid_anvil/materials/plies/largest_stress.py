"""Life by the largest stress of a cycle, of either sign: a power of the static strength."""

from __future__ import annotations

import math
from dataclasses import dataclass
from typing import ClassVar

import numpy as np

from vivid_anvil.ground.checks import FloatArray
from vivid_anvil.materials.plies.life_diagram import LIFE_DIAGRAMS, LifeDiagram
from vivid_anvil.units import Coherent, UnitSystem, in_unit, number, shown
from vivid_anvil.writing.working import Step, put_in


@LIFE_DIAGRAMS.add("largest stress")
@dataclass(frozen=True, kw_only=True, repr=False)
class LargestStress(LifeDiagram):
    """X(N) = X N^(-1/k), of tension for the largest stress of a cycle and of compression for the least; the shorter life.

    R is not used: it holds for the R of its tests.

    Parameters
    ----------
    r_ratios_tested : sequence of float, optional
        R of the tests behind it.
    source : str, default "not stated"
        Where the numbers come from, in words.
    tension : float or text with a unit
        Strength in tension at one cycle, MPa.
    tension_slope : float
        k of it: S^k N = constant, -.
    compression : float or text with a unit
        Strength in compression at one cycle, a positive number, MPa.
    compression_slope : float
        k of it, -.

    Raises
    ------
    InputError
        For values of another kind, unit or range.

    Examples
    --------
    >>> LargestStress(tension=45.0, tension_slope=9, compression=180.0, compression_slope=12).lives([14.0], [14.0]).round()
    array([72.])
    """

    tension: Coherent = Coherent("stress", above=0.0)
    tension_slope: Coherent = Coherent("number", above=1.0)
    compression: Coherent = Coherent("stress", above=0.0)
    compression_slope: Coherent = Coherent("number", above=1.0)
    formula: ClassVar[str] = "N = (X / S)^k"
    origin: ClassVar[str] = "Hashin and Rotem 1973"

    @property
    def numbers(self) -> FloatArray:
        """X_t, k_t, X_c, k_c."""
        return np.array([self.tension, self.tension_slope, self.compression, self.compression_slope])

    @property
    def static(self) -> tuple[float, float]:
        """X_t, X_c."""
        return self.tension, self.compression

    @staticmethod
    def use(numbers: FloatArray, log_life: float, amplitude: float, mean: float) -> float:
        """The larger of both sides."""
        pulled = (mean + amplitude) / numbers[0] * math.exp(2.302585092994046 * log_life / numbers[1])
        pushed = (amplitude - mean) / numbers[2] * math.exp(2.302585092994046 * log_life / numbers[3])
        return float(max(pulled, pushed, 0.0))

    @staticmethod
    def log_life(numbers: FloatArray, amplitude: float, mean: float) -> float:
        """The shorter of both sides."""
        found = 400.0
        high, low = mean + amplitude, amplitude - mean
        if amplitude <= 0.0:
            return found
        if high > 0.0:
            found = min(found, numbers[1] * math.log10(numbers[0] / high))
        if low > 0.0:
            found = min(found, numbers[3] * math.log10(numbers[2] / low))
        return found

    def steps(self, symbol: str, amplitude: float, mean: float, units: UnitSystem) -> list[Step]:
        """The side that governs."""
        given = self.numbers
        high, low = mean + amplitude, amplitude - mean
        pulled = given[1] * math.log10(given[0] / high) if high > 0.0 else math.inf
        pushed = given[3] * math.log10(given[2] / low) if low > 0.0 else math.inf
        side, size, x, k = ("max", high, given[0], given[1]) if pulled <= pushed else ("min", low, given[2], given[3])
        stress = put_in(float(shown(size, "stress", units)))
        unit = in_unit(1.0, "stress", units).split(" ", 1)[1]
        strength = put_in(float(shown(x, "stress", units)))
        return [
            Step(
                f"Life by the {'largest' if side == 'max' else 'least'} {symbol} of the cycle",
                f"N = (X / |{symbol}_{side}|)^k",
                f"({strength} {unit} / {stress} {unit})^{put_in(float(k))}",
                float((x / size) ** k),
                "cycles",
                source=self.origin,
            )
        ]

    @property
    def words(self) -> str:
        """Strengths and slopes."""
        return (
            f"tension {number(self.tension)} MPa, k = {number(self.tension_slope)}; "
            f"compression {number(self.compression)} MPa, k = {number(self.compression_slope)}"
        )
