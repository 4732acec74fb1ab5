"""Surface cracks with two sizes in pipes and vessels."""

from __future__ import annotations

import math
from collections.abc import Sequence
from dataclasses import dataclass
from functools import cached_property
from typing import ClassVar

from vivid_anvil.ground.checks import share_of_one
from vivid_anvil.ground.errors import InputError
from vivid_anvil.shapes.pipes import MOST_KNOWN, AxialPipeCrack, PipeCrack
from vivid_anvil.shapes.shape import SHAPES, Onwards, TwoSizeShape
from vivid_anvil.shapes.solutions.collapse import surface_share
from vivid_anvil.shapes.solutions.pipes import inner_axial_crack
from vivid_anvil.shapes.surface import SurfaceCrack
from vivid_anvil.units import LENGTH, STRESS, Coherent, inner, opened
from vivid_anvil.writing.working import Step

# The shape checks its sizes itself, and asks thousands of times.
_inner_axial_crack = inner(inner_axial_crack)


@SHAPES.add("pipe, around, surface")
@dataclass(frozen=True, kw_only=True, repr=False)
class PipeSurfaceCrack(TwoSizeShape):
    """A surface crack around a pipe, its wall taken as a plate as wide as the circumference (Newman and Raju 1981); R/t >= 10.

    R is the mean radius; `bending_share` is bending of the wall, not of the pipe, whose largest axial stress counts. Beyond
    R/t = 20 it ends where it breaks through, as no solution goes on.

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

    @cached_property
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

    def ends_of_parts(self, *sizes: float) -> tuple[tuple[float, ...], tuple[float, ...]]:
        """Both parts of the plate's solution at once."""
        return self._plate.ends_of_parts(*sizes)

    @opened(a=LENGTH, c=LENGTH, stress=STRESS)
    def collapse_stress(self, a: float, c: float, stress: float) -> float:
        """Reference stress of the wall as a plate, MPa."""
        return self._plate.collapse_stress(a, c, stress)

    def steps(self, sizes: Sequence[float], unit: str, one: float, end: int = 0) -> list[Step]:
        """Those of the wall as a plate as wide as the circumference."""
        return self._plate.steps(sizes, unit, one, end)

    def reference_steps(self, membrane: float, bending: float, sizes: Sequence[float]) -> list[Step]:
        """Those of the wall as a plate as wide as the circumference."""
        return self._plate.reference_steps(membrane, bending, sizes)

    def after(self, a: float, c: float) -> Onwards | None:
        """A crack through the wall around the pipe; of a thinner pipe than its solution knows nothing goes on."""
        if self.radius / self.wall > MOST_KNOWN:
            return None
        return PipeCrack(self.radius, self.wall), (c,)


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
