"""Curved S-N lines that level out at an endurance stress."""

from __future__ import annotations

import math
from dataclasses import dataclass
from typing import ClassVar

import numpy as np

from vivid_anvil.ground.checks import FloatArray
from vivid_anvil.ground.errors import InputError
from vivid_anvil.materials.curves.curved import CURVED_FORMS, CurvedForm
from vivid_anvil.units import Coherent
from vivid_anvil.writing.working import put_in


@CURVED_FORMS.add("stromeyer")
@dataclass(frozen=True, kw_only=True)
class Stromeyer(CurvedForm):
    """N (S - S_e)^m = A, here by a point: the life at a stress. Stromeyer, C. E. 1914, Proc. R. Soc. A 90, 411-425.

    Parameters
    ----------
    endurance : float or text with a unit
        Stress that is borne for ever, MPa.
    exponent : float
        The exponent, -.
    point_stress : float or text with a unit
        Stress of a point on the curve, MPa.
    point_life : float
        Cycles at that point.

    Raises
    ------
    InputError
        For an argument of another kind, unit or range; the message says which.

    Examples
    --------
    >>> form = Stromeyer(endurance="80 MPa", exponent=3.0, point_stress="180 MPa", point_life=1e5)
    >>> form.life(np.array([130.0, 80.0])), form.stress_at(np.array([8e5])), round(form.slope_at(130.0), 6)
    (array([800000.,     inf]), array([130.]), 7.8)
    """

    endurance: Coherent = Coherent("stress", at_least=0.0)
    exponent: Coherent = Coherent("number", above=0.0, below=math.inf)
    point_stress: Coherent = Coherent("stress", above=0.0)
    point_life: Coherent = Coherent("number", at_least=1.0, below=math.inf)
    formula: ClassVar[str] = "N = N_1 × ((S_1 - S_e) / (S - S_e))^m"
    source: ClassVar[str] = "Stromeyer 1914"

    def __post_init__(self) -> None:
        _above_endurance(self.point_stress, self.endurance)

    @property
    def limit(self) -> float:
        """The endurance stress."""
        return self.endurance

    def life(self, stress: FloatArray) -> FloatArray:
        """By the formula; inf at and below the endurance stress."""
        over = _over(stress, self.endurance)
        with np.errstate(divide="ignore", over="ignore"):
            return np.asarray(self.point_life * ((self.point_stress - self.endurance) / over) ** self.exponent)

    def stress_at(self, life: FloatArray) -> FloatArray:
        """Solved for the stress."""
        share = (self.point_life / np.asarray(life, dtype=np.float64)) ** (1.0 / self.exponent)
        return np.asarray(self.endurance + (self.point_stress - self.endurance) * share)

    def numbers(self, stress: float, one: float) -> str:
        """With the numbers put in."""
        first, lowest, here = (put_in(one * value) for value in (self.point_stress, self.endurance, stress))
        return f"{put_in(self.point_life)} × (({first} - {lowest}) / ({here} - {lowest}))^{put_in(self.exponent)}"


@CURVED_FORMS.add("palmgren")
@dataclass(frozen=True, kw_only=True)
class Palmgren(CurvedForm):
    """S = S_e + a (N + B)^-b: level at both ends. Palmgren, A. 1924, VDI-Z. 68, 339-341.

    `largest` is the stress at N = 0, S_e + a B^-b; `bend` is B, cycles.

    Parameters
    ----------
    endurance : float or text with a unit
        Stress that is borne for ever, MPa.
    largest : float or text with a unit
        Stress that is not borne once, MPa.
    bend : float
        B, cycles: where the curve bends.
    exponent : float
        The exponent, -.

    Raises
    ------
    InputError
        For an argument of another kind, unit or range; the message says which.

    Examples
    --------
    >>> form = Palmgren(endurance="80 MPa", largest="480 MPa", bend=1e4, exponent=0.5)
    >>> form.stress_at(np.array([0.0, 3e4])), form.life(np.array([280.0, 80.0]))
    (array([480., 280.]), array([30000.,    inf]))
    """

    endurance: Coherent = Coherent("stress", at_least=0.0)
    largest: Coherent = Coherent("stress", above=0.0)
    bend: Coherent = Coherent("number", above=0.0, below=math.inf)
    exponent: Coherent = Coherent("number", above=0.0, below=math.inf)
    formula: ClassVar[str] = "N = B × ((S_0 - S_e) / (S - S_e))^(1 / b) - B"
    source: ClassVar[str] = "Palmgren 1924"

    def __post_init__(self) -> None:
        _above_endurance(self.largest, self.endurance)

    @property
    def limit(self) -> float:
        """The endurance stress."""
        return self.endurance

    def life(self, stress: FloatArray) -> FloatArray:
        """By the formula; 0 at and above the largest stress, inf at and below the endurance stress."""
        over = _over(stress, self.endurance)
        with np.errstate(divide="ignore", over="ignore"):
            found = self.bend * (((self.largest - self.endurance) / over) ** (1.0 / self.exponent) - 1.0)
        return np.maximum(found, 0.0)

    def stress_at(self, life: FloatArray) -> FloatArray:
        """As it is written."""
        share = (1.0 + np.asarray(life, dtype=np.float64) / self.bend) ** -self.exponent
        return np.asarray(self.endurance + (self.largest - self.endurance) * share)

    def numbers(self, stress: float, one: float) -> str:
        """With the numbers put in."""
        first, lowest, here = (put_in(one * value) for value in (self.largest, self.endurance, stress))
        bend = put_in(self.bend)
        return f"{bend} × (({first} - {lowest}) / ({here} - {lowest}))^(1 / {put_in(self.exponent)}) - {bend}"


def _above_endurance(stress: float, endurance: float) -> None:
    if not stress > endurance:
        raise InputError(
            "form of an S-N curve",
            f"{stress:g} MPa at or below the endurance stress, {endurance:g} MPa",
            "one above it",
        )


def _over(stress: FloatArray, endurance: float) -> FloatArray:
    """What of each stress lies above the endurance stress, MPa; 0 below."""
    return np.maximum(np.asarray(stress, dtype=np.float64) - endurance, 0.0)
