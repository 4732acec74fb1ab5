"""Growth by ozone, along a line, by a power."""

from __future__ import annotations

from dataclasses import dataclass
from typing import ClassVar

import numpy as np

from vivid_anvil.ground.checks import FloatArray
from vivid_anvil.ground.errors import InputError, inside
from vivid_anvil.materials.rubber.tearing_law import TEARING_LAWS, TearingLaw, check_below
from vivid_anvil.units import Coherent, number


@TEARING_LAWS.add("three regimes")
@dataclass(frozen=True, kw_only=True, repr=False)
class ThreeRegimes(TearingLaw):
    """r_z up to T_0; A (T - T_0) + r_z up to T_t; B T^β above, B such that both meet at T_t.

    Parameters
    ----------
    name : str
        What it is called in messages, tables and reports.
    r_effect : str, default "range"
        One of `R_EFFECTS`: what R above 0 does.
    slope_rise : float, optional
        F4 of F(R) = F0 exp(F4 R), for "crystallising".
    slope_terms : (float, float, float), optional
        F1, F2, F3 of F(R) = F0 + F1 R + F2 R² + F3 R³, instead.
    temperature : float or text with a scale, optional
        Of the tests, °C.
    r_ratios_tested : (float, float), optional
        Least and largest R of the tests.
    source : str, default "not stated"
        Where the numbers come from, in words.
    least_rate : float or text with a unit
        r_z, mm/cycle, by ozone and heat alone.
    least : float or text with a unit
        T_0, N/mm.
    bend : float or text with a unit
        T_t, N/mm.
    bend_rate : float or text with a unit
        r_t, mm/cycle, at T_t: A = (r_t - r_z) / (T_t - T_0).
    slope : float
        β, -.

    Raises
    ------
    InputError
        For T_0 at or above T_t, and values of another kind, unit or range.

    Examples
    --------
    >>> law = ThreeRegimes(name="nr", least_rate=1e-8, least=0.05, bend="4 N/mm", bend_rate="7.91e-6 mm/cycle", slope=2.0)
    >>> [f"{one:.4g}" for one in law.growth([0.02, 1.0, 6.0])]
    ['1e-08', '1.91e-06', '1.78e-05']
    """

    least_rate: Coherent = Coherent("growth rate", above=0.0)
    least: Coherent = Coherent("energy release rate", above=0.0)
    bend: Coherent = Coherent("energy release rate", above=0.0)
    bend_rate: Coherent = Coherent("growth rate", above=0.0)
    slope: Coherent = Coherent("number", above=0.0)
    formula: ClassVar[str] = "dc/dN = r_z, A × (T - T_0) + r_z, B × T^β"
    origin: ClassVar[str] = "Lake and Lindley 1965"

    def check(self, where: str) -> None:
        """T_0 below T_t, r_z below r_t."""
        check_below(where, "least", self.least, self.bend)
        if not self.least_rate < self.bend_rate:
            raise InputError(
                inside(where, "bend_rate"),
                f"{number(self.bend_rate)} mm/cycle",
                f"more than the least rate, {number(self.least_rate)} mm/cycle",
            )

    @property
    def rise(self) -> float:
        """A, mm/cycle over N/mm."""
        return (self.bend_rate - self.least_rate) / (self.bend - self.least)

    @property
    def anchor(self) -> tuple[float, float]:
        """T_t, β."""
        return self.bend, self.slope

    @property
    def knees(self) -> tuple[float, ...]:
        """T_0 and T_t, and pieces between."""
        return (self.least, 1.1 * self.least, 2.0 * self.least, self.bend)

    @property
    def numbers(self) -> FloatArray:
        """r_z, T_0, A, T_t, r_t, β."""
        return np.array([self.least_rate, self.least, self.rise, self.bend, self.bend_rate, self.slope])

    @staticmethod
    def rate_of(numbers: FloatArray, tearing_energy: float) -> float:
        """The same of one tearing energy, as loops take it."""
        if tearing_energy > numbers[3]:
            above: float = numbers[4] * (tearing_energy / numbers[3]) ** numbers[5]
            return above
        between: float = numbers[2] * max(tearing_energy - numbers[1], 0.0) + numbers[0]
        return between

    def relaxing(self, tearing_energy: FloatArray) -> FloatArray:
        """Growth, mm/cycle."""
        own = np.asarray(tearing_energy)
        middle = self.rise * np.maximum(own - self.least, 0.0) + self.least_rate
        return np.asarray(np.where(own > self.bend, self.bend_rate * (own / self.bend) ** self.slope, middle))
