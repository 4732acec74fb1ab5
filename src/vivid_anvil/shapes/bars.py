"""Cracks in round bars: all around, and from one place of the surface."""

from __future__ import annotations

import math
from dataclasses import dataclass
from typing import ClassVar

import numpy as np
from numpy.typing import ArrayLike

from vivid_anvil.ground.checks import FloatArray, share_of_one
from vivid_anvil.shapes.shape import SHAPES, OneSizeShape
from vivid_anvil.shapes.solutions.specimens import round_bar_surround, round_bar_thumbnail
from vivid_anvil.units import LENGTHS, STRESS, Coherent, opened
from vivid_anvil.writing.working import put_in

_FAR = 0.95  # of a section: where the formula holds up to the end


@SHAPES.add("round bar")
@dataclass(frozen=True, repr=False)
class BarCrack(OneSizeShape):
    """A crack of depth a all around a round bar in tension (Tada, Paris and Irwin); net section S / (1 - 2a/D)².

    Parameters
    ----------
    diameter : float or text with a unit
        Diameter, mm.

    Raises
    ------
    InputError
        For an argument of another kind, unit or range; the message says which.

    Examples
    --------
    >>> round(float(BarCrack("20 mm").geometry_factor(5.0)), 3)
    1.901
    """

    diameter: Coherent = Coherent("length", above=0.0)
    size_means: ClassVar[str] = "depth all around"
    factor_formula: ClassVar[str] = (
        "Y = √y × (1 + y / 2 + 0.375 × y^2 - 0.363 × y^3 + 0.731 × y^4) / (2 × y^2), y = 1 - 2 × x"
    )
    source: ClassVar[str] = "Tada, Paris and Irwin"

    @property
    def width(self) -> float:
        """The length that sizes are related to, mm."""
        return self.diameter

    @property
    def largest_size(self) -> float:
        """0.95 of the radius, mm."""
        return 0.5 * _FAR * self.diameter

    @opened(size=LENGTHS)
    def geometry_factor(self, size: ArrayLike) -> FloatArray:
        """Y, -."""
        return round_bar_surround(size, self.diameter)

    @opened(size=LENGTHS, stress=STRESS)
    def net_section_stress(self, size: ArrayLike, stress: float) -> FloatArray:
        """S on the core that is left, MPa."""
        return stress / (1.0 - 2.0 * np.asarray(size, dtype=np.float64) / self.diameter) ** 2

    def factor_numbers(self, size: float) -> str:
        """Y with y put in."""
        y = put_in(1.0 - 2.0 * size / self.diameter)
        return f"√({y}) × (1 + {y} / 2 + 0.375 × {y}^2 - 0.363 × {y}^3 + 0.731 × {y}^4) / (2 × {y}^2)"


@SHAPES.add("round bar, surface")
@dataclass(frozen=True, repr=False)
class BarSurfaceCrack(OneSizeShape):
    """A circular-arc surface crack of depth a in a round bar (Forman and Shivakumar 1986), to a/D = 0.6.

    `bending_share` of the outer stress is bending. Net section: S on what a straight cut of depth a leaves.

    Parameters
    ----------
    diameter : float or text with a unit
        Diameter, mm.
    bending_share : float, default 0.0
        Share of the outer stress that is bending, from 0 to 1, -.

    Raises
    ------
    InputError
        For an argument of another kind, unit or range; the message says which.

    Examples
    --------
    >>> round(float(BarSurfaceCrack("20 mm").geometry_factor(4.0)), 3)
    0.8
    """

    diameter: Coherent = Coherent("length", above=0.0)
    bending_share: float = 0.0
    size_means: ClassVar[str] = "depth"
    factor_formula: ClassVar[str] = (
        "Y = 0.92 × 2 / π × √(tan(β) / β) / cos(β) × ((1 - s) × (0.752 + 2.02 × x + 0.37 × (1 - sin(β))^3) "
        "+ s × (0.923 + 0.199 × (1 - sin(β))^4)), β = π × x / 2, s the share of bending"
    )
    source: ClassVar[str] = "Forman and Shivakumar 1986"

    @property
    def width(self) -> float:
        """The length that sizes are related to, mm."""
        return self.diameter

    def __post_init__(self) -> None:
        share_of_one("crack of a bar, bending_share", self.bending_share)

    @property
    def largest_size(self) -> float:
        """0.6 of the diameter, mm."""
        return 0.6 * self.diameter

    @opened(size=LENGTHS)
    def geometry_factor(self, size: ArrayLike) -> FloatArray:
        """Y, -."""
        return round_bar_thumbnail(size, self.diameter, self.bending_share)

    @opened(size=LENGTHS, stress=STRESS)
    def net_section_stress(self, size: ArrayLike, stress: float) -> FloatArray:
        """S on the part of the circle that is left, MPa."""
        half = np.arccos(1.0 - 2.0 * np.asarray(size, dtype=np.float64) / self.diameter)
        return np.asarray(stress / (1.0 - (half - np.sin(half) * np.cos(half)) / np.pi))

    def factor_numbers(self, size: float) -> str:
        """Y with x, β and s put in."""
        x, beta = put_in(size / self.diameter), put_in(0.5 * math.pi * size / self.diameter)
        s = put_in(self.bending_share)
        return (
            f"0.92 × 2 / π × √(tan({beta}) / {beta}) / cos({beta}) × ((1 - {s}) × (0.752 + 2.02 × {x} "
            f"+ 0.37 × (1 - sin({beta}))^3) + {s} × (0.923 + 0.199 × (1 - sin({beta}))^4))"
        )
