"""Cracks in thin shells under pressure: along a cylinder on either face, on and through a sphere."""

from __future__ import annotations

import math
from collections.abc import Sequence
from dataclasses import dataclass
from functools import cached_property
from typing import ClassVar

import numpy as np
from numpy.typing import ArrayLike

from vivid_anvil.ground.checks import FloatArray, share_of_one
from vivid_anvil.ground.errors import InputError, inside
from vivid_anvil.shapes.pipes import AxialPipeCrack
from vivid_anvil.shapes.shape import SHAPES, OneSizeShape, Onwards, TwoSizeShape
from vivid_anvil.shapes.solutions.collapse import surface_share
from vivid_anvil.shapes.solutions.shells import part_bulging, sphere_bulging
from vivid_anvil.shapes.surface import SurfaceCrack
from vivid_anvil.units import LENGTH, LENGTHS, STRESS, Coherent, inner, opened
from vivid_anvil.writing.working import Step, put_in

THINNEST = 10.0  # mean radius over wall

# The shape checks its sizes itself, and asks thousands of times.
_part_bulging, _sphere_bulging = inner(part_bulging), inner(sphere_bulging)


def _thin(where: str, radius: float, wall: float) -> None:
    if not radius / wall >= THINNEST:
        raise InputError(inside(where, "wall"), f"R/t = {radius / wall:.4g}", "R/t of 10 or more, a thin shell")


def _collapse(membrane: float, bending: float, bulging: float, lost: float) -> float:
    """1.2 M_s P_m + 2 P_b / (3 (1 - α)²): BS 7910:2005, annex P."""
    return 1.2 * bulging * membrane + 2.0 * bending / (3.0 * (1.0 - lost) ** 2)


@SHAPES.add("cylinder, along, surface")
@dataclass(frozen=True, kw_only=True, repr=False)
class CylinderSurfaceCrack(TwoSizeShape):
    """A surface crack along a thin cylinder, inside or outside, under its hoop stress: a plate times the bulging of the shell.

    K: Newman and Raju 1981 times M = (1 - a/(t M_T)) / (1 - a/t) on the membrane stress, M_T = √(1 + 1.6 c²/(R t)). Pressure on
    the faces of an inner crack is added to the stress by who states it.

    Parameters
    ----------
    radius : float or text with a unit
        Mean radius, mm; ten walls or more.
    wall : float or text with a unit
        Thickness of the wall, mm.
    bending_share : float, default 0.0
        Share of the outer stress that is bending of the wall, from 0 to 1, -.

    Raises
    ------
    InputError
        For a wall that is not thin.

    Examples
    --------
    >>> crack = CylinderSurfaceCrack(radius="400 mm", wall="20 mm")
    >>> [round(y, 4) for y in crack.factors(5.0, 20.0)]
    [1.1291, 0.6333]
    """

    radius: Coherent = Coherent("length", above=0.0)
    wall: Coherent = Coherent("length", above=0.0)
    bending_share: float = 0.0
    size_means: ClassVar[str] = "depth"
    source: ClassVar[str] = "Newman and Raju 1981, with bulging as in BS 7910, annex M"

    def __post_init__(self) -> None:
        share_of_one("cylinder, along, surface, bending_share", self.bending_share)
        _thin("cylinder, along, surface", self.radius, self.wall)

    @cached_property
    def _plate(self) -> SurfaceCrack:
        return SurfaceCrack(thickness=self.wall, plate_width=40.0 * self.longest, bending_share=self.bending_share)

    @property
    def deepest(self) -> float:
        """The wall, mm."""
        return self.wall

    @property
    def longest(self) -> float:
        """As long as the through crack that it becomes is known, mm."""
        return 5.0 * math.sqrt(self.radius * self.wall)

    def bulging(self, a: float, c: float) -> float:
        """M, -."""
        through = math.sqrt(1.0 + 1.6 * c * c / (self.radius * self.wall))
        return _part_bulging(min(a, 0.999999 * self.wall) / self.wall, through)

    @opened(a=LENGTH, c=LENGTH)
    def factors(self, a: float, c: float) -> tuple[float, float]:
        """Y at the deepest point and at the surface."""
        return _bulged(self._plate, self.bulging(a, c), a, c)

    def steps(self, sizes: Sequence[float], unit: str, one: float, end: int = 0) -> list[Step]:
        """Those of the plate, and the bulging of the shell."""
        return _bulged_steps(self, self._plate, self.bulging(*sizes), sizes, (unit, one, end))

    @opened(a=LENGTH, c=LENGTH, stress=STRESS)
    def collapse_stress(self, a: float, c: float, stress: float) -> float:
        """Reference stress, BS 7910, annex P, MPa."""
        lost, share = float(surface_share(a, c, self.wall)), self.bending_share
        return _collapse((1.0 - share) * stress, share * stress, self.bulging(a, c), lost)

    def after(self, a: float, c: float) -> Onwards | None:
        """A crack through the wall along the cylinder."""
        return AxialPipeCrack(self.radius, self.wall), (c,)


def _bulged(plate: SurfaceCrack, bulging: float, a: float, c: float) -> tuple[float, float]:
    """Y of a plate whose membrane part the shell raises."""
    share = plate.bending_share
    both = zip(*plate.ends_of_parts(a, c), strict=True)
    deep, along = ((1.0 - share) * bulging * m + share * b for m, b in both)
    return deep, along


def _bulged_steps(
    shape: TwoSizeShape, plate: SurfaceCrack, bulging: float, sizes: Sequence[float], rest: tuple[str, float, int]
) -> list[Step]:
    """Y of the plate, M of the shell, Y of both; of bending alone the plate's."""
    share, end = plate.bending_share, rest[2]
    if share == 1.0:
        return plate.steps(sizes, *rest)
    of_plate = plate.under(0.0).steps(sizes, *rest)
    y = float(shape.ends(*sizes)[end])
    through = (1.0 - bulging * (1.0 - sizes[0] / plate.thickness)) / (sizes[0] / plate.thickness)
    depth = put_in(sizes[0] / plate.thickness)
    shell = Step(
        "Bulging of the shell",
        "M = (1 - y / M_T) / (1 - y)",
        f"(1 - {depth} / {put_in(1.0 / through)}) / (1 - {depth})",
        bulging,
        "",
        shape.source,
    )
    formula, numbers = "Y = M × Y_plate", f"{put_in(bulging)} × {put_in(of_plate[-1].value)}"
    if share:
        bending = float(plate.under(1.0).ends(*sizes)[end])
        formula = "Y = (1 - β) × M × Y_plate + β × Y_bending"
        numbers = f"{put_in(1.0 - share)} × {numbers} + {put_in(share)} × {put_in(bending)}"
    return [*of_plate, shell, Step(f"Geometry factor at the {shape.end_names[end]}", formula, numbers, y, "")]


@SHAPES.add("sphere")
@dataclass(frozen=True, kw_only=True, repr=False)
class SphereCrack(OneSizeShape):
    """A crack of length 2a through the wall of a thin sphere under pressure; K and collapse by the bulging of the shell.

    M_T = (1.0005 + 0.49001 λ + 0.32409 λ²) / (1 + 0.50077 λ - 0.011519 λ²), λ = 1.818 a / √(R t), up to λ = 9.

    Parameters
    ----------
    radius : float or text with a unit
        Mean radius, mm; ten walls or more.
    wall : float or text with a unit
        Thickness of the wall, mm.

    Raises
    ------
    InputError
        For a wall that is not thin.

    Examples
    --------
    >>> round(float(SphereCrack(radius="1 m", wall="20 mm").geometry_factor(60.0)), 4)
    1.1391
    """

    radius: Coherent = Coherent("length", above=0.0)
    wall: Coherent = Coherent("length", above=0.0)
    size_means: ClassVar[str] = "half of the crack length"
    factor_formula: ClassVar[str] = "Y = M_T(λ), λ = 1.818 × x, x = a / √(R × t)"
    source: ClassVar[str] = "API 579-1, surface correction factor of spheres"

    def __post_init__(self) -> None:
        _thin("sphere", self.radius, self.wall)

    @property
    def width(self) -> float:
        """√(R t), mm."""
        return math.sqrt(self.radius * self.wall)

    @property
    def largest_size(self) -> float:
        """λ = 9, mm."""
        return 9.0 / 1.818 * self.width

    @opened(size=LENGTHS)
    def geometry_factor(self, size: ArrayLike) -> FloatArray:
        """Y, -."""
        return sphere_bulging(size, self.radius, self.wall)

    @opened(size=LENGTHS, stress=STRESS)
    def net_section_stress(self, size: ArrayLike, stress: float) -> FloatArray:
        """S M_T, MPa."""
        return np.asarray(stress * sphere_bulging(size, self.radius, self.wall))

    def factor_numbers(self, size: float) -> str:
        """λ."""
        return f"M_T({put_in(1.818 * size / self.width)})"


@SHAPES.add("sphere, surface")
@dataclass(frozen=True, kw_only=True, repr=False)
class SphereSurfaceCrack(TwoSizeShape):
    """A surface crack of a thin sphere, inside or outside, under pressure: a plate times the bulging of the shell.

    As `CylinderSurfaceCrack`, with M_T of the sphere.

    Parameters
    ----------
    radius : float or text with a unit
        Mean radius, mm; ten walls or more.
    wall : float or text with a unit
        Thickness of the wall, mm.
    bending_share : float, default 0.0
        Share of the outer stress that is bending of the wall, from 0 to 1, -.

    Raises
    ------
    InputError
        For a wall that is not thin.

    Examples
    --------
    >>> crack = SphereSurfaceCrack(radius="1 m", wall="20 mm")
    >>> [round(y, 4) for y in crack.factors(5.0, 20.0)]
    [1.1215, 0.6291]
    """

    radius: Coherent = Coherent("length", above=0.0)
    wall: Coherent = Coherent("length", above=0.0)
    bending_share: float = 0.0
    size_means: ClassVar[str] = "depth"
    source: ClassVar[str] = "Newman and Raju 1981, with bulging as in API 579-1"

    def __post_init__(self) -> None:
        share_of_one("sphere, surface, bending_share", self.bending_share)
        _thin("sphere, surface", self.radius, self.wall)

    @cached_property
    def _plate(self) -> SurfaceCrack:
        return SurfaceCrack(thickness=self.wall, plate_width=40.0 * self.longest, bending_share=self.bending_share)

    @property
    def deepest(self) -> float:
        """The wall, mm."""
        return self.wall

    @property
    def longest(self) -> float:
        """As long as the through crack that it becomes is known, mm."""
        return 9.0 / 1.818 * math.sqrt(self.radius * self.wall)

    def bulging(self, a: float, c: float) -> float:
        """M, -."""
        through = float(_sphere_bulging(min(c, self.longest), self.radius, self.wall))
        return _part_bulging(min(a, 0.999999 * self.wall) / self.wall, through)

    @opened(a=LENGTH, c=LENGTH)
    def factors(self, a: float, c: float) -> tuple[float, float]:
        """Y at the deepest point and at the surface."""
        return _bulged(self._plate, self.bulging(a, c), a, c)

    def steps(self, sizes: Sequence[float], unit: str, one: float, end: int = 0) -> list[Step]:
        """Those of the plate, and the bulging of the shell."""
        return _bulged_steps(self, self._plate, self.bulging(*sizes), sizes, (unit, one, end))

    @opened(a=LENGTH, c=LENGTH, stress=STRESS)
    def collapse_stress(self, a: float, c: float, stress: float) -> float:
        """Reference stress, as along a cylinder, MPa."""
        lost, share = float(surface_share(a, c, self.wall)), self.bending_share
        return _collapse((1.0 - share) * stress, share * stress, self.bulging(a, c), lost)

    def after(self, a: float, c: float) -> Onwards | None:
        """A crack through the wall of the sphere."""
        return SphereCrack(radius=self.radius, wall=self.wall), (c,)
