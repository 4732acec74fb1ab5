"""One power of the tearing energy."""

from __future__ import annotations

import math
from dataclasses import dataclass
from typing import ClassVar

import numpy as np

from vivid_anvil.ground.checks import FloatArray
from vivid_anvil.materials.rubber.tearing_law import TEARING_LAWS, TearingLaw, check_below
from vivid_anvil.units import Coherent, OptionalCoherent

ALIKE = 1e-9  # of the exponent, within which the power is the logarithm


@TEARING_LAWS.add("power")
@dataclass(frozen=True, kw_only=True, repr=False)
class PowerTearing(TearingLaw):
    """dc/dN = r_c (T / T_c)^F, nothing at or below a threshold.

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
    rate : float or text with a unit
        r_c, mm/cycle.
    at : float or text with a unit
        T_c, N/mm, at which cracks grow that fast; near the strength of the rubber.
    slope : float
        F at R = 0, -.
    cut_off : float or text with a unit, optional
        Equivalent tearing energy, N/mm, at or below which nothing grows.

    Raises
    ------
    InputError
        For a cut-off at or above T_c, and values of another kind, unit or range.

    Examples
    --------
    >>> PowerTearing(name="sbr", rate="0.0025 mm/cycle", at="11 kJ/m^2", slope=2.0).growth([2.0]).round(9)
    array([8.2645e-05])
    """

    rate: Coherent = Coherent("growth rate", above=0.0)
    at: Coherent = Coherent("energy release rate", above=0.0)
    slope: Coherent = Coherent("number", above=0.0)
    cut_off: OptionalCoherent = OptionalCoherent("energy release rate", above=0.0)
    formula: ClassVar[str] = "dc/dN = r_c × (T / T_c)^F"
    origin: ClassVar[str] = "Thomas 1958; Lake and Lindley 1964"

    def check(self, where: str) -> None:
        """A cut-off below T_c."""
        check_below(where, "cut_off", self.cut_off, self.at)

    @property
    def anchor(self) -> tuple[float, float]:
        """T_c, F."""
        return self.at, self.slope

    @property
    def threshold(self) -> float | None:
        """The cut-off."""
        return self.cut_off

    @property
    def knees(self) -> tuple[float, ...]:
        """None that a growing flaw passes."""
        return ()

    @property
    def numbers(self) -> FloatArray:
        """r_c, T_c, F, cut-off or 0."""
        return np.array([self.rate, self.at, self.slope, self.cut_off or 0.0])

    @staticmethod
    def rate_of(numbers: FloatArray, tearing_energy: float) -> float:
        """The same of one tearing energy, as loops take it."""
        if tearing_energy <= numbers[3]:
            return 0.0
        grown: float = numbers[0] * (tearing_energy / numbers[1]) ** numbers[2]
        return grown

    def relaxing(self, tearing_energy: FloatArray) -> FloatArray:
        """Growth, mm/cycle."""
        own = np.asarray(tearing_energy)
        grown = self.rate * (own / self.at) ** self.slope
        return np.asarray(grown if self.cut_off is None else np.where(own > self.cut_off, grown, 0.0))

    def _integrated(self, per_size: FloatArray, r: FloatArray, start: float, end: float) -> FloatArray:
        """In closed form: the rate is a power of the size, by cycle."""
        self._check(per_size, r)
        power = self.slope_at(r) if self.r_effect == "crystallising" else np.full(r.size, self.slope)
        first = self.growth(per_size * start, r)
        x = (1.0 - power) * math.log(end / start)
        ratio = np.where(np.abs(x) < ALIKE, 1.0 + 0.5 * x, np.expm1(x) / np.where(x == 0.0, 1.0, x))
        with np.errstate(divide="ignore"):
            return np.asarray(np.where(first > 0.0, start * math.log(end / start) * ratio / first, np.inf))
