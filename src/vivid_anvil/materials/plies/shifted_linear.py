"""Straight lines from the strengths in tension and compression to a top between them, at every life."""

from __future__ import annotations

import math
from dataclasses import dataclass
from typing import ClassVar

import numpy as np

from vivid_anvil.ground.checks import FloatArray
from vivid_anvil.materials.plies.life_diagram import LIFE_DIAGRAMS, LifeDiagram
from vivid_anvil.units import Coherent, UnitSystem, display_unit, number, shown
from vivid_anvil.writing.working import Step, put_in


@LIFE_DIAGRAMS.add("shifted linear")
@dataclass(frozen=True, kw_only=True, repr=False)
class ShiftedLinear(LifeDiagram):
    """`N = [(X_t + X_c - |2 γ_m S_m - X_t + X_c|) / (2 γ_a S_a)]^k`: the top stands at the mean (X_t - X_c) / 2.

    Parameters
    ----------
    r_ratios_tested : sequence of float, optional
        R of the tests behind it.
    source : str, default "not stated"
        Where the numbers come from, in words.
    tension : float or text with a unit
        Strength in tension, MPa.
    compression : float or text with a unit
        Strength in compression, a positive number, MPa.
    slope : float
        k: S^k N = constant, -.
    mean_factor : float, default 1
        Partial factor γ_m on the mean, beside the static strengths, -.
    amplitude_factor : float, default 1
        Partial factor γ_a on the amplitude, -.

    Raises
    ------
    InputError
        For values of another kind, unit or range.

    Examples
    --------
    >>> ShiftedLinear(tension=760.0, compression=580.0, slope=10).lives([90.0], [60.0]).round()
    array([3.30654658e+08])
    """

    tension: Coherent = Coherent("stress", above=0.0)
    compression: Coherent = Coherent("stress", above=0.0)
    slope: Coherent = Coherent("number", above=1.0)
    mean_factor: Coherent = Coherent("number", above=0.0, default=1.0)
    amplitude_factor: Coherent = Coherent("number", above=0.0, default=1.0)
    formula: ClassVar[str] = "N = [(X_t + X_c - |2 γ_m S_m - X_t + X_c|) / (2 γ_a S_a)]^k"
    origin: ClassVar[str] = "Goodman line to both strengths, as in guidelines for blades, GL 2010, 5.5.3"

    @property
    def numbers(self) -> FloatArray:
        """X_t, X_c, k, both factors."""
        return np.array([self.tension, self.compression, self.slope, self.mean_factor, self.amplitude_factor])

    @property
    def static(self) -> tuple[float, float]:
        """X_t, X_c."""
        return self.tension, self.compression

    @staticmethod
    def use(numbers: FloatArray, log_life: float, amplitude: float, mean: float) -> float:
        """The larger of both lines."""
        size = numbers[4] * amplitude * math.exp(2.302585092994046 * log_life / numbers[2])
        middle = numbers[3] * mean
        return float(max((size + middle) / numbers[0], (size - middle) / numbers[1]))

    @staticmethod
    def log_life(numbers: FloatArray, amplitude: float, mean: float) -> float:
        """By the formula; where the top is not above 0 the ply fails at once."""
        top = numbers[0] + numbers[1] - abs(2.0 * numbers[3] * mean - numbers[0] + numbers[1])
        if top <= 0.0:
            return -400.0
        if amplitude <= 0.0:
            return 400.0
        return float(numbers[2] * math.log10(top / (2.0 * numbers[4] * amplitude)))

    def steps(self, symbol: str, amplitude: float, mean: float, units: UnitSystem) -> list[Step]:
        """The top at the mean, and the life."""
        unit = display_unit("stress", units)
        xt, xc, sa, sm = (
            float(shown(one, "stress", units)) for one in (self.tension, self.compression, amplitude, mean)
        )
        gm, ga = self.mean_factor, self.amplitude_factor
        top = xt + xc - abs(2.0 * gm * sm - xt + xc)
        inner = f"2 × {put_in(gm)} × {put_in(sm)} - {put_in(xt)} + {put_in(xc)}"
        return [
            Step(
                f"Twice the amplitude of {symbol} borne once at that mean",
                "2 S_1 = X_t + X_c - |2 γ_m S_m - X_t + X_c|",
                f"{put_in(xt)} + {put_in(xc)} - |{inner}| {unit}",
                top,
                unit,
            ),
            Step(
                f"Life under {symbol}",
                "N = [2 S_1 / (2 γ_a S_a)]^k",
                f"[{put_in(top)} {unit} / (2 × {put_in(ga)} × {put_in(sa)} {unit})]^{put_in(self.slope)}",
                (top / (2.0 * ga * sa)) ** self.slope,
                "cycles",
                source=self.origin,
            ),
        ]

    @property
    def words(self) -> str:
        """Strengths, slope, factors."""
        factors = (
            ""
            if self.mean_factor == self.amplitude_factor == 1.0
            else (
                f", factors {number(self.mean_factor)} on the mean and {number(self.amplitude_factor)} on the amplitude"
            )
        )
        return f"{number(self.tension)} MPa to -{number(self.compression)} MPa, k = {number(self.slope)}{factors}"
