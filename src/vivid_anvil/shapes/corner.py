"""Quarter-elliptical cracks: at a corner of a plate, and at a hole."""

from __future__ import annotations

import math
from dataclasses import dataclass
from typing import ClassVar

from vivid_anvil.ground.checks import positive_number, share_of_one
from vivid_anvil.ground.errors import InputError
from vivid_anvil.shapes.aspect import checked_aspect, mixed
from vivid_anvil.shapes.hole import HoleCrack
from vivid_anvil.shapes.one_size import EdgeCrack
from vivid_anvil.shapes.shape import SHAPES, Onwards, TwoSizeShape
from vivid_anvil.shapes.solutions.collapse import reference_stress
from vivid_anvil.shapes.solutions.ellipses import corner_crack, hole_corner_crack
from vivid_anvil.units import LENGTH, STRESS, Coherent, inner, opened, sound

# The shape checks its sizes itself, and asks thousands of times.
_corner_crack = inner(corner_crack)
_hole_corner_crack = inner(hole_corner_crack)


@SHAPES.add("corner")
@dataclass(frozen=True, kw_only=True, repr=False)
class CornerCrack(TwoSizeShape):
    """A quarter-elliptical crack at a corner: a through the thickness, c along the width of the plate (Newman and Raju 1984).

    Parameters
    ----------
    thickness : float or text with a unit
        Thickness, mm.
    plate_width : float or text with a unit
        Width of the plate, mm.
    bending_share : float, default 0.0
        Share of the outer stress that is bending, from 0 to 1, -.
    surface_factor : float, default 1.0
        Factor on K at the surface, -.

    Raises
    ------
    InputError
        For an argument of another kind, unit or range; the message says which.

    Examples
    --------
    >>> crack = CornerCrack(thickness="10 mm", plate_width="200 mm")
    >>> [round(y, 5) for y in crack.factors(2.0, 4.0)]
    [0.98629, 0.70383]
    """

    thickness: Coherent = Coherent("length", above=0.0)
    plate_width: Coherent = Coherent("length", above=0.0)
    bending_share: float = 0.0
    surface_factor: float = 1.0
    size_means: ClassVar[str] = "depth"
    source: ClassVar[str] = "Newman and Raju 1984"

    def __post_init__(self) -> None:
        share_of_one("corner crack, bending_share", self.bending_share)
        positive_number("corner crack, surface_factor", self.surface_factor, "a factor above 0")

    @property
    def deepest(self) -> float:
        """The thickness, mm."""
        return self.thickness

    @property
    def longest(self) -> float:
        """Half of the width, mm."""
        return 0.5 * self.plate_width

    @opened(a=LENGTH, c=LENGTH)
    def factors(self, a: float, c: float) -> tuple[float, float]:
        """Y at the end of a and at the end of c."""
        checked_aspect(self.kind, a, c)
        ends = (_corner_crack(a, c, self.thickness, angle) for angle in (90.0, 0.0))
        deep, along = (mixed(found, self.bending_share) for found in ends)
        return deep, self.surface_factor * along

    @opened(a=LENGTH, c=LENGTH, stress=STRESS)
    def collapse_stress(self, a: float, c: float, stress: float) -> float:
        """Net section of a plate of this width, the bending part by the same share, MPa."""
        lost = math.pi * a * c / (4.0 * self.thickness * self.plate_width)
        return float(reference_stress((1.0 - self.bending_share) * stress, self.bending_share * stress, lost))

    def after(self, a: float, c: float) -> Onwards | None:
        """A crack from the edge of the plate."""
        return EdgeCrack(self.plate_width), (c,)


@sound
@SHAPES.add("hole, corner")
@dataclass(frozen=True, kw_only=True, repr=False)
class HoleCornerCrack(TwoSizeShape):
    """One or two quarter-elliptical cracks at a hole in a plate in tension, a along the hole, c along the surface.

    Newman and Raju 1984, for r/t from 0.5 to 2; the stress is that far from the hole. It becomes a crack through the plate.

    Parameters
    ----------
    thickness : float or text with a unit
        Thickness, mm.
    plate_width : float or text with a unit
        Width of the plate, mm.
    radius : float or text with a unit
        Radius, mm.
    cracks : int, default 2
        How many cracks at the hole, 1 or 2.

    Raises
    ------
    InputError
        For an argument of another kind, unit or range; the message says which.

    Examples
    --------
    >>> crack = HoleCornerCrack(thickness="10 mm", plate_width="120 mm", radius="8 mm")
    >>> [round(y, 4) for y in crack.factors(1.0, 1.0)]
    [2.0268, 1.7528]
    """

    thickness: Coherent = Coherent("length", above=0.0)
    plate_width: Coherent = Coherent("length", above=0.0)
    radius: Coherent = Coherent("length", above=0.0)
    cracks: int = 2
    size_means: ClassVar[str] = "depth along the hole"
    source: ClassVar[str] = "Newman and Raju 1984"

    def __post_init__(self) -> None:
        if not 0.5 * (1.0 - 1e-9) <= self.radius / self.thickness <= 2.0 * (1.0 + 1e-9):
            raise InputError(
                "corner crack at a hole, radius", f"r/t = {self.radius / self.thickness:.4g}", "r/t from 0.5 to 2"
            )
        HoleCrack(self.radius, self.cracks, self.plate_width)

    @property
    def deepest(self) -> float:
        """The thickness, mm."""
        return self.thickness

    @property
    def longest(self) -> float:
        """As long as the crack through the plate is known, mm."""
        return 0.9 * HoleCrack(self.radius, self.cracks, self.plate_width).largest_size

    @opened(a=LENGTH, c=LENGTH)
    def factors(self, a: float, c: float) -> tuple[float, float]:
        """Y at the end of a, in the hole, and at the end of c, on the surface."""
        checked_aspect(self.kind, a, c)
        rest = (a, c, self.thickness, self.radius, 0.5 * self.plate_width)
        deep, along = (_hole_corner_crack(*rest, angle, cracks=self.cracks).tension for angle in (90.0, 0.0))
        return deep, along

    @opened(a=LENGTH, c=LENGTH, stress=STRESS)
    def collapse_stress(self, a: float, c: float, stress: float) -> float:
        """Net section of the plate without hole and cracks, MPa."""
        lost = 2.0 * self.radius * self.thickness + self.cracks * 0.25 * math.pi * a * c
        return stress / (1.0 - lost / (self.thickness * self.plate_width))

    def after(self, a: float, c: float) -> Onwards | None:
        """Cracks through the plate at the hole."""
        return HoleCrack(self.radius, self.cracks, self.plate_width), (c,)
