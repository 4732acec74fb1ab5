"""Cracks through the wall of a pipe, around and along it."""

from __future__ import annotations

import math
from dataclasses import dataclass
from typing import ClassVar

import numpy as np
from numpy.typing import ArrayLike

from vivid_anvil.ground.checks import FloatArray, share_of_one
from vivid_anvil.ground.errors import InputError
from vivid_anvil.shapes.shape import SHAPES, OneSizeShape
from vivid_anvil.shapes.solutions.pipes import axial_through_crack, pipe_through_crack
from vivid_anvil.units import LENGTHS, STRESS, Coherent, opened
from vivid_anvil.writing.working import put_in

LEAST_KNOWN, MOST_KNOWN = 5.0, 20.0  # R/t of the solution of Zahoor


@SHAPES.add("pipe, around")
@dataclass(frozen=True, repr=False)
class PipeCrack(OneSizeShape):
    """A crack through the wall of a pipe, half of its arc a = R θ around it (Zahoor 1985), axial stress S, part of it bending.

    For 5 <= R/t <= 20 and θ up to 99°. Net section in tension: S π / (π - θ - 2 arcsin(sin θ / 2)); the bending part by the limit
    moment, S_b (π/4) / (cos(θ/2) - sin(θ)/2) for thin walls (limit analysis, Kanninen et al. 1976, EPRI NP-192).

    Parameters
    ----------
    radius : float or text with a unit
        Radius, mm.
    wall : float or text with a unit
        Thickness of the wall, mm.
    bending_share : float, default 0.0
        Share of the outer stress that is bending, from 0 to 1, -.

    Raises
    ------
    InputError
        For an argument of another kind, unit or range; the message says which.

    Examples
    --------
    >>> round(float(PipeCrack("100 mm", "12.5 mm").geometry_factor(np.radians(45.0) * 100.0)), 5)
    1.66898
    """

    radius: Coherent = Coherent("length", above=0.0)
    wall: Coherent = Coherent("length", above=0.0)
    bending_share: float = 0.0
    size_means: ClassVar[str] = "half of the arc length at mid-wall"
    factor_formula: ClassVar[str] = "Y = 1 + A × (f_1 × (x / π)^1.5 + f_2 × (x / π)^4.24)"
    source: ClassVar[str] = "Zahoor 1985"

    def __post_init__(self) -> None:
        share_of_one("pipe crack, bending_share", self.bending_share)
        if not LEAST_KNOWN <= self.radius / self.wall <= MOST_KNOWN:
            raise InputError(
                "pipe crack, radius", f"R/t = {self.radius / self.wall:.4g}", "mean radius over wall from 5 to 20"
            )

    @property
    def width(self) -> float:
        """Mean radius, mm: x is the half angle."""
        return self.radius

    @property
    def largest_size(self) -> float:
        """Half arc of 99°, mm, and a hair less, so that its angle in degrees is never beyond."""
        return 0.55 * math.pi * self.radius * (1.0 - 1e-12)

    @opened(size=LENGTHS)
    def geometry_factor(self, size: ArrayLike) -> FloatArray:
        """Y, -."""
        angle = np.degrees(np.asarray(size, dtype=np.float64) / self.radius)
        tension = pipe_through_crack(angle, self.radius, self.wall, "tension")
        bending = pipe_through_crack(angle, self.radius, self.wall, "bending")
        return (1.0 - self.bending_share) * tension + self.bending_share * bending

    @opened(size=LENGTHS, stress=STRESS)
    def net_section_stress(self, size: ArrayLike, stress: float) -> FloatArray:
        """Share of the limit loads of tension and bending that is used, times the yield strength: as a stress, MPa."""
        angle = np.asarray(size, dtype=np.float64) / self.radius
        tension = np.pi / (np.pi - angle - 2.0 * np.arcsin(0.5 * np.sin(angle)))
        bending = 0.25 * np.pi / np.maximum(np.cos(0.5 * angle) - 0.5 * np.sin(angle), 1e-9)
        return stress * ((1.0 - self.bending_share) * tension + self.bending_share * bending)

    def factor_numbers(self, size: float) -> str:
        """Y as 1 plus its growth, as one number."""
        return f"1 + {put_in(float(self.geometry_factor(size)) - 1.0)}"


@SHAPES.add("pipe, along")
@dataclass(frozen=True, repr=False)
class AxialPipeCrack(OneSizeShape):
    """An axial crack of length 2a through a thin shell under hoop stress, a <= 5 √(R t) (Folias, Erdogan).

    Net section: S √(1 + 1.6 a² / (R t)), Folias' bulging (BS 7910, annex P).

    Parameters
    ----------
    radius : float or text with a unit
        Radius, mm.
    wall : float or text with a unit
        Thickness of the wall, mm.

    Raises
    ------
    InputError
        For an argument of another kind, unit or range; the message says which.

    Examples
    --------
    >>> round(float(AxialPipeCrack("200 mm", "8 mm").geometry_factor(60.0)), 3)
    1.95
    """

    radius: Coherent = Coherent("length", above=0.0)
    wall: Coherent = Coherent("length", above=0.0)
    size_means: ClassVar[str] = "half of the crack length"
    factor_formula: ClassVar[str] = "Y = √(1 + 1.25 × x^2) to x = 1, 0.6 + 0.9 × x above, x = a / √(R × t)"
    source: ClassVar[str] = "Tada, Paris and Irwin"

    @property
    def width(self) -> float:
        """√(R t), mm."""
        return math.sqrt(self.radius * self.wall)

    @property
    def largest_size(self) -> float:
        """5 √(R t), mm."""
        return 5.0 * self.width

    @opened(size=LENGTHS)
    def geometry_factor(self, size: ArrayLike) -> FloatArray:
        """Y, -."""
        return axial_through_crack(size, self.radius, self.wall)

    @opened(size=LENGTHS, stress=STRESS)
    def net_section_stress(self, size: ArrayLike, stress: float) -> FloatArray:
        """S times Folias' factor, MPa."""
        return np.asarray(stress * np.sqrt(1.0 + 1.6 * (np.asarray(size, dtype=np.float64) / self.width) ** 2))

    def factor_numbers(self, size: float) -> str:
        """Y with x put in."""
        x = size / self.width
        return f"√(1 + 1.25 × {put_in(x)}^2)" if x <= 1.0 else f"0.6 + 0.9 × {put_in(x)}"
