"""Cracks with two sizes, depth a and half length c: on a surface, at a corner, embedded, inside a vessel.

Each gives Y at the end of a and at the end of c, both for K = Y S √(π a), the stress compared with yield, how far the solution
holds, and what it becomes when it has broken through.
"""

from __future__ import annotations

import math
from collections.abc import Sequence
from dataclasses import dataclass
from functools import cached_property
from typing import ClassVar

from vivid_anvil.ground.checks import positive_number, share_of_one
from vivid_anvil.ground.errors import InputError, inside
from vivid_anvil.shapes.bars_pipes_holes import AxialPipeCrack, HoleCrack, PipeCrack
from vivid_anvil.shapes.one_size import CentreCrack, EdgeCrack
from vivid_anvil.shapes.shape import SHAPES, Onwards, TwoSizeShape, aspect_step
from vivid_anvil.shapes.solutions.collapse import reference_stress, surface_share
from vivid_anvil.shapes.solutions.ellipses import (
    EllipseFactors,
    corner_crack,
    embedded_crack,
    hole_corner_crack,
    surface_crack,
)
from vivid_anvil.shapes.solutions.pipes import inner_axial_crack
from vivid_anvil.shapes.solutions.profile import StressProfile
from vivid_anvil.shapes.solutions.toe import toe_value
from vivid_anvil.shapes.solutions.weight import surface_crack_by_weight, surface_ends_by_weight
from vivid_anvil.shapes.surface_steps import surface_steps
from vivid_anvil.units import LENGTH, STRESS, Coherent, OptionalCoherent, inner, number, opened
from vivid_anvil.writing.working import Step

TOE_DEPTH_AT_SURFACE = 0.15  # mm, where the weld-toe magnification of the surface points is taken (BS 7910)
MOST_ASPECT = 2.0

# Shapes check their sizes themselves, and ask thousands of times.
_surface_crack, _corner_crack, _embedded_crack = inner(surface_crack), inner(corner_crack), inner(embedded_crack)
_hole_corner_crack, _inner_axial_crack, _toe_value = (
    inner(hole_corner_crack),
    inner(inner_axial_crack),
    inner(toe_value),
)
_surface_crack_by_weight, _surface_ends_by_weight = inner(surface_crack_by_weight), inner(surface_ends_by_weight)


def _mixed(found: EllipseFactors, bending_share: float) -> float:
    return (1.0 - bending_share) * found.tension + bending_share * found.bending


@SHAPES.add("surface")
@dataclass(frozen=True, kw_only=True, repr=False)
class SurfaceCrack(TwoSizeShape):
    """A semi-elliptical crack on the surface of a plate, length 2c (Newman and Raju 1981, 1984).

    `bending_share` of the outer stress is bending across the wall. With an `attachment_length`, the crack starts at a weld toe
    whose magnification falls with the depth. `surface_factor` multiplies K at the surface (Newman and Raju suggest 0.9).

    Parameters
    ----------
    thickness : float or text with a unit
        Thickness, mm.
    plate_width : float or text with a unit
        Width of the plate, mm.
    bending_share : float, default 0.0
        Share of the outer stress that is bending, from 0 to 1, -.
    attachment_length : float or text with a unit, optional
        Length of the attachment along the stress, mm.
    surface_factor : float, default 1.0
        Factor on K at the surface, -.

    Raises
    ------
    InputError
        For an argument of another kind, unit or range; the message says which.

    Examples
    --------
    >>> crack = SurfaceCrack(thickness="20 mm", plate_width="200 mm")
    >>> [round(y, 5) for y in crack.factors(2.0, 5.0)]
    [0.9595, 0.66965]
    """

    thickness: Coherent = Coherent("length", above=0.0)
    plate_width: Coherent = Coherent("length", above=0.0)
    bending_share: float = 0.0
    attachment_length: OptionalCoherent = OptionalCoherent("length", above=0.0)
    surface_factor: float = 1.0
    size_means: ClassVar[str] = "depth"
    source: ClassVar[str] = "Newman and Raju 1981"

    weighs: ClassVar[bool] = True

    def __post_init__(self) -> None:
        share_of_one("surface crack, bending_share", self.bending_share)
        positive_number("surface crack, surface_factor", self.surface_factor, "a factor above 0, such as 1 or 0.9")

    @property
    def deepest(self) -> float:
        """The thickness, mm."""
        return self.thickness

    @property
    def longest(self) -> float:
        """A quarter of the width, mm."""
        return 0.25 * self.plate_width

    @opened(a=LENGTH, c=LENGTH)
    def factors(self, a: float, c: float) -> tuple[float, float]:
        """Y at the deepest point and at the surface."""
        _checked_aspect(self.kind, a, c)
        deep = _surface_crack(a, c, self.thickness, 0.5 * self.plate_width, 90.0)
        surface = _surface_crack(a, c, self.thickness, 0.5 * self.plate_width, 0.0)
        share = self.bending_share
        at_depth, at_surface = self._toe(a), self._toe_at_surface
        return (
            (1.0 - share) * deep.tension * at_depth[0] + share * deep.bending * at_depth[1],
            self.surface_factor
            * ((1.0 - share) * surface.tension * at_surface[0] + share * surface.bending * at_surface[1]),
        )

    def k_of_stress(self, stress: StressProfile, a: float, c: float) -> tuple[float, float]:
        """K, MPa√mm, of any stress across the plate, at the deepest point and at the surface, by weight functions; a <= c."""
        if a > c * (1.0 + 1e-9):
            raise InputError(
                f"{self.kind} crack, weight function",
                f"a/c = {a / c:.4g}",
                "a crack no deeper than half as long",
                "Start from a longer crack, or leave the residual stress to a table.",
            )
        rest = (stress, a, c, self.thickness, 0.5 * self.plate_width)
        return _surface_crack_by_weight(*rest).k, self.surface_factor * _surface_ends_by_weight(*rest)

    def _toe(self, depth: float) -> tuple[float, float]:
        """M_k of tension and of bending; the latter is not asked for without bending."""
        if self.attachment_length is None:
            return 1.0, 1.0
        ratio, place = self.attachment_length / self.thickness, depth / self.thickness
        return _toe_value(place, ratio, "axial"), _toe_value(place, ratio, "bending") if self.bending_share else 1.0

    @cached_property
    def _toe_at_surface(self) -> tuple[float, float]:
        return self._toe(TOE_DEPTH_AT_SURFACE)

    @opened(a=LENGTH, c=LENGTH, stress=STRESS)
    def collapse_stress(self, a: float, c: float, stress: float) -> float:
        """Reference stress, BS 7910 annex P, MPa."""
        lost = surface_share(a, c, self.thickness, self.plate_width)
        return float(reference_stress((1.0 - self.bending_share) * stress, self.bending_share * stress, lost))

    def steps(self, sizes: Sequence[float], unit: str, one: float) -> list[Step]:
        """The formula of Newman and Raju at the deepest point, for cracks no deeper than half as long."""
        a, c = sizes
        if a > c:
            return super().steps(sizes, unit, one)
        return [aspect_step(a, c, unit, one), *surface_steps(self, a, c, unit, one)]

    def after(self, a: float, c: float) -> Onwards | None:
        """A crack through the plate, in its middle."""
        return CentreCrack(self.plate_width), (c,)


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
        _checked_aspect(self.kind, a, c)
        ends = (_corner_crack(a, c, self.thickness, angle) for angle in (90.0, 0.0))
        deep, along = (_mixed(found, self.bending_share) for found in ends)
        return deep, self.surface_factor * along

    @opened(a=LENGTH, c=LENGTH, stress=STRESS)
    def collapse_stress(self, a: float, c: float, stress: float) -> float:
        """Net section of a plate of this width, the bending part by the same share, MPa."""
        lost = math.pi * a * c / (4.0 * self.thickness * self.plate_width)
        return float(reference_stress((1.0 - self.bending_share) * stress, self.bending_share * stress, lost))

    def after(self, a: float, c: float) -> Onwards | None:
        """A crack from the edge of the plate."""
        return EdgeCrack(self.plate_width), (c,)


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
        _checked_aspect(self.kind, a, c)
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


@SHAPES.add("pipe, around, surface")
@dataclass(frozen=True, kw_only=True, repr=False)
class PipeSurfaceCrack(TwoSizeShape):
    """A surface crack around a pipe, its wall taken as a plate as wide as the circumference (Newman and Raju 1981); R/t >= 10.

    R is the mean radius; `bending_share` is bending of the wall, not of the pipe, whose largest axial stress counts.

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
    >>> crack = PipeSurfaceCrack(radius="200 mm", wall="12 mm")
    >>> [round(y, 4) for y in crack.factors(3.0, 9.0)]
    [1.0499, 0.68]
    """

    radius: Coherent = Coherent("length", above=0.0)
    wall: Coherent = Coherent("length", above=0.0)
    bending_share: float = 0.0
    size_means: ClassVar[str] = "depth"
    source: ClassVar[str] = "Newman and Raju 1981, the wall as a plate"

    def __post_init__(self) -> None:
        if not self.radius / self.wall >= 10.0:
            raise InputError(
                "surface crack around a pipe, wall",
                f"R/t = {self.radius / self.wall:.4g}",
                "R/t of 10 or more, where a wall is as a plate",
            )
        share_of_one("surface crack around a pipe, bending_share", self.bending_share)

    @property
    def _plate(self) -> SurfaceCrack:
        around = 2.0 * math.pi * self.radius
        return SurfaceCrack(thickness=self.wall, plate_width=around, bending_share=self.bending_share)

    @property
    def deepest(self) -> float:
        """The wall, mm."""
        return self.wall

    @property
    def longest(self) -> float:
        """A quarter of the circumference, mm."""
        return self._plate.longest

    @opened(a=LENGTH, c=LENGTH)
    def factors(self, a: float, c: float) -> tuple[float, float]:
        """Y at the deepest point and at the surface."""
        return self._plate.factors(a, c)

    @opened(a=LENGTH, c=LENGTH, stress=STRESS)
    def collapse_stress(self, a: float, c: float, stress: float) -> float:
        """Reference stress of the wall as a plate, MPa."""
        return self._plate.collapse_stress(a, c, stress)

    def after(self, a: float, c: float) -> Onwards | None:
        """A crack through the wall around the pipe."""
        return PipeCrack(self.radius, self.wall), (c,)


@SHAPES.add("embedded")
@dataclass(frozen=True, kw_only=True, repr=False)
class EmbeddedCrack(TwoSizeShape):
    """An ellipse 2a by 2c inside a plate in tension (Newman and Raju 1984), in the middle or `centre_depth` below a surface.

    Nearer to one surface it is taken as in a plate of twice the centre's depth. When the ligament counts as broken, at a =
    `broken_at` times the centre's depth, a crack in the middle goes through the plate; another becomes a surface crack that takes
    in the ligament p, depth 2a + p and half length c + p. (0.714 is the rule p = 0.4 a of ASME XI, IWA-3300.)

    Parameters
    ----------
    thickness : float or text with a unit
        Thickness, mm.
    plate_width : float or text with a unit
        Width of the plate, mm.
    centre_depth : float or text with a unit, optional
        How deep the middle of the crack lies, mm.
    broken_at : float, default 0.9
        Share of the ligament at which it breaks, -.

    Raises
    ------
    InputError
        For an argument of another kind, unit or range; the message says which.

    Examples
    --------
    >>> crack = EmbeddedCrack(thickness="20 mm", plate_width="120 mm")
    >>> [round(y, 5) for y in crack.factors(3.0, 8.0)]
    [0.89951, 0.5483]
    >>> EmbeddedCrack(thickness="20 mm", plate_width="120 mm", centre_depth="5 mm").after(4.5, 8.0)[1]
    (9.5, 8.5)
    """

    thickness: Coherent = Coherent("length", above=0.0)
    plate_width: Coherent = Coherent("length", above=0.0)
    centre_depth: OptionalCoherent = OptionalCoherent("length", above=0.0)
    broken_at: float = 0.9
    size_means: ClassVar[str] = "half of the depth"
    source: ClassVar[str] = "Newman and Raju 1984"

    def __post_init__(self) -> None:
        if self.centre_depth is not None and self.centre_depth > 0.5 * self.thickness:
            raise InputError(
                "embedded crack, centre_depth",
                f"{number(self.centre_depth)} mm",
                f"at most half of the thickness, {number(0.5 * self.thickness)} mm",
                "Measure it from the nearer surface.",
            )
        share = positive_number("embedded crack, broken_at", self.broken_at, "a share above 0")
        if share > 0.95:
            raise InputError("embedded crack, broken_at", f"{share:g}", "at most 0.95, where the solution ends")

    @property
    def _cover(self) -> float:
        """Depth of the centre below the nearer surface, mm."""
        return 0.5 * self.thickness if self.centre_depth is None else self.centre_depth

    @property
    def deepest(self) -> float:
        """Half depth, mm, at which the ligament counts as broken."""
        return self.broken_at * self._cover

    @property
    def longest(self) -> float:
        """A quarter of the width, mm."""
        return 0.25 * self.plate_width

    @opened(a=LENGTH, c=LENGTH)
    def factors(self, a: float, c: float) -> tuple[float, float]:
        """Y at the end of a and at the end of c."""
        _checked_aspect(self.kind, a, c)
        around = 2.0 * self._cover
        deep, along = (_embedded_crack(a, c, around, 0.5 * self.plate_width, angle).tension for angle in (90.0, 0.0))
        return deep, along

    @opened(a=LENGTH, c=LENGTH, stress=STRESS)
    def collapse_stress(self, a: float, c: float, stress: float) -> float:
        """Net section of the plate, MPa."""
        return stress / (1.0 - math.pi * a * c / (self.thickness * self.plate_width))

    def after(self, a: float, c: float) -> Onwards | None:
        """A crack through the plate, in its middle; or on its surface, where the near ligament alone is broken."""
        ligament = self._cover - a
        depth, along = 2.0 * a + ligament, c + ligament
        if self._cover >= 0.5 * self.thickness * (1.0 - 1e-9) or depth >= self.thickness:
            return CentreCrack(self.plate_width), (c,)
        return SurfaceCrack(thickness=self.thickness, plate_width=self.plate_width), (depth, along)


@SHAPES.add("vessel, inside")
@dataclass(frozen=True, kw_only=True, repr=False)
class VesselCrack(TwoSizeShape):
    """An inner axial surface crack of a vessel under pressure, the nominal stress p Ri / t (Newman and Raju 1980).

    For a <= c, a/t <= 0.8 and t/Ri from 0.1 to 0.25; the pressure on the faces is in the solution.

    Parameters
    ----------
    thickness : float or text with a unit
        Thickness, mm.
    radius : float or text with a unit
        Radius, mm.

    Raises
    ------
    InputError
        For an argument of another kind, unit or range; the message says which.

    Examples
    --------
    >>> crack = VesselCrack(thickness="20 mm", radius="120 mm")
    >>> [round(y, 4) for y in crack.factors(4.0, 10.0)]
    [1.1629, 0.8193]
    """

    thickness: Coherent = Coherent("length", above=0.0)
    radius: Coherent = Coherent("length", above=0.0)
    size_means: ClassVar[str] = "depth"
    source: ClassVar[str] = "Newman and Raju 1980"
    aspects_known: ClassVar[tuple[float, float]] = (0.0, 1.0)

    def __post_init__(self) -> None:
        if not 0.1 <= self.thickness / self.radius <= 0.25:
            raise InputError(
                "vessel crack, thickness", f"t/Ri = {self.thickness / self.radius:.4g}", "t/Ri from 0.1 to 0.25"
            )

    @property
    def deepest(self) -> float:
        """0.8 of the wall, mm."""
        return 0.8 * self.thickness

    @property
    def longest(self) -> float:
        """As long as the through crack that it becomes is known, mm."""
        return 5.0 * math.sqrt(self.radius * self.thickness)

    @opened(a=LENGTH, c=LENGTH)
    def factors(self, a: float, c: float) -> tuple[float, float]:
        """Y at the deepest point and at the surface."""
        if a > c * (1.0 + 1e-9):
            raise InputError("vessel crack, aspect", f"a/c = {a / c:.4g}", "a crack no deeper than half as long")
        deep, along = (_inner_axial_crack(a, c, self.thickness, self.radius, angle).tension for angle in (90.0, 0.0))
        return deep, along

    @opened(a=LENGTH, c=LENGTH, stress=STRESS)
    def collapse_stress(self, a: float, c: float, stress: float) -> float:
        """Hoop stress on the wall that is left, over the length of the crack and a wall on both sides, MPa."""
        return float(stress / (1.0 - float(surface_share(a, c, self.thickness))))

    def after(self, a: float, c: float) -> Onwards | None:
        """An axial crack through the wall."""
        return AxialPipeCrack(self.radius + 0.5 * self.thickness, self.thickness), (c,)


def _checked_aspect(kind: str, a: float, c: float) -> None:
    if not 0.0 < a / c <= MOST_ASPECT * (1.0 + 1e-9):
        raise InputError(
            inside(f"{kind} crack", "aspect"),
            f"a/c = {a / c:.4g}",
            "a/c above 0 and up to 2",
            "Start from a longer crack.",
        )
