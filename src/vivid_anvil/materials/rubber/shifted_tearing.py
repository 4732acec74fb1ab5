"""A power of the tearing energy above a threshold."""

from __future__ import annotations

from dataclasses import dataclass
from typing import ClassVar

import numpy as np

from vivid_anvil.ground.checks import FloatArray
from vivid_anvil.materials.rubber.tearing_law import TEARING_LAWS, TearingLaw, check_below
from vivid_anvil.units import Coherent


@TEARING_LAWS.add("shifted power")
@dataclass(frozen=True, kw_only=True, repr=False)
class ShiftedTearing(TearingLaw):
    """dc/dN = r_c ((T - T_0) / (T_c - T_0))^F above T_0, 0 at or below.

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
        T_c, N/mm.
    slope : float
        F, -.
    least : float or text with a unit
        T_0, N/mm.

    Raises
    ------
    InputError
        For T_0 at or above T_c, and values of another kind, unit or range.

    Examples
    --------
    >>> ShiftedTearing(name="nr", rate=0.003, at=10.0, slope=2.0, least="0.1 N/mm").growth([0.1, 1.0]).round(8)
    array([0.000e+00, 2.479e-05])
    """

    rate: Coherent = Coherent("growth rate", above=0.0)
    at: Coherent = Coherent("energy release rate", above=0.0)
    slope: Coherent = Coherent("number", above=0.0)
    least: Coherent = Coherent("energy release rate", above=0.0)
    formula: ClassVar[str] = "dc/dN = r_c × ((T - T_0) / (T_c - T_0))^F"
    origin: ClassVar[str] = "Lake and Lindley 1965, bent at the threshold"

    def check(self, where: str) -> None:
        """T_0 below T_c."""
        check_below(where, "least", self.least, self.at)

    @property
    def anchor(self) -> tuple[float, float]:
        """T_c, F."""
        return self.at, self.slope

    @property
    def threshold(self) -> float | None:
        """T_0."""
        return self.least

    @property
    def knees(self) -> tuple[float, ...]:
        """Where the growth rises steeply from nothing: pieces of a decade above T_0."""
        return tuple(self.least * (1.0 + step) for step in (0.0, 1e-4, 1e-3, 1e-2, 0.1, 1.0, 10.0))

    @property
    def numbers(self) -> FloatArray:
        """r_c, T_c, F, T_0."""
        return np.array([self.rate, self.at, self.slope, self.least])

    @staticmethod
    def rate_of(numbers: FloatArray, tearing_energy: float) -> float:
        """The same of one tearing energy, as loops take it."""
        if tearing_energy <= numbers[3]:
            return 0.0
        grown: float = numbers[0] * ((tearing_energy - numbers[3]) / (numbers[1] - numbers[3])) ** numbers[2]
        return grown

    def relaxing(self, tearing_energy: FloatArray) -> FloatArray:
        """Growth, mm/cycle."""
        over = np.maximum(np.asarray(tearing_energy) - self.least, 0.0) / (self.at - self.least)
        return np.asarray(self.rate * over**self.slope)
