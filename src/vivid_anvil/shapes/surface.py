"""A semi-elliptical crack on the surface of a plate."""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass
from functools import cached_property
from typing import ClassVar

from vivid_anvil.ground.checks import positive_number, share_of_one
from vivid_anvil.ground.errors import InputError
from vivid_anvil.shapes.aspect import checked_aspect
from vivid_anvil.shapes.ellipse_steps import surface_steps
from vivid_anvil.shapes.one_size import CentreCrack
from vivid_anvil.shapes.shape import SHAPES, Onwards, TwoSizeShape, aspect_step
from vivid_anvil.shapes.solutions.collapse import reference_step, section_lost, stress_of_one, surface_share
from vivid_anvil.shapes.solutions.ellipses import surface_crack
from vivid_anvil.shapes.solutions.profile import StressProfile
from vivid_anvil.shapes.solutions.toe import toe_value
from vivid_anvil.shapes.solutions.weight import surface_crack_by_weight, surface_ends_by_weight
from vivid_anvil.units import LENGTH, STRESS, Coherent, OptionalCoherent, inner, opened
from vivid_anvil.writing.working import Step, put_in

TOE_DEPTH_AT_SURFACE = 0.15  # mm, where the weld-toe magnification of the surface points is taken (BS 7910)

# The shape checks its sizes itself, and asks thousands of times.
_surface_crack = inner(surface_crack)
_surface_crack_by_weight = inner(surface_crack_by_weight)
_surface_ends_by_weight = inner(surface_ends_by_weight)
_toe_value = inner(toe_value)


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
        checked_aspect(self.kind, a, c)
        deep = _surface_crack(a, c, self.thickness, 0.5 * self.plate_width, 90.0)
        surface = _surface_crack(a, c, self.thickness, 0.5 * self.plate_width, 0.0)
        share = self.bending_share
        at_depth, at_surface = self._toe(a), self._toe_at_surface
        return (
            (1.0 - share) * deep.tension * at_depth[0] + share * deep.bending * at_depth[1],
            self.surface_factor
            * ((1.0 - share) * surface.tension * at_surface[0] + share * surface.bending * at_surface[1]),
        )

    def ends_of_parts(self, *sizes: float) -> tuple[tuple[float, ...], tuple[float, ...]]:
        """Both parts of the solution at once."""
        if self.attachment_length is not None:
            return super().ends_of_parts(*sizes)
        a, c = self.within(*sizes)
        deep = _surface_crack(a, c, self.thickness, 0.5 * self.plate_width, 90.0)
        surface = _surface_crack(a, c, self.thickness, 0.5 * self.plate_width, 0.0)
        factor = self.surface_factor
        return (deep.tension, factor * surface.tension), (deep.bending, factor * surface.bending)

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
        if not (a <= self.thickness and 2.0 * c <= self.plate_width):
            surface_share(a, c, self.thickness, self.plate_width)  # which says what does not fit
        lost, share = section_lost(a, c, self.thickness, self.plate_width), self.bending_share
        return stress_of_one((1.0 - share) * stress, share * stress, lost)

    @property
    def toe_depth_at_surface(self) -> float:
        """Depth at which the magnification of a weld toe is taken for the surface point, mm."""
        return TOE_DEPTH_AT_SURFACE

    def steps(self, sizes: Sequence[float], unit: str, one: float, end: int = 0) -> list[Step]:
        """The formula of Newman and Raju at an end."""
        a, c = sizes
        return [aspect_step(a, c, unit, one), *surface_steps(self, (a, c), unit, one, end)]

    def reference_steps(self, membrane: float, bending: float, sizes: Sequence[float]) -> list[Step]:
        """The share α of the section that is lost, and σ_ref."""
        a, c = sizes
        t, w = self.thickness, self.plate_width
        lost = float(surface_share(a, c, t, w))
        if w >= 2.0 * (c + t):
            formula, numbers = (
                "α = (a / B) / (1 + B / c)",
                f"({put_in(a)} / {put_in(t)}) / (1 + {put_in(t)} / {put_in(c)})",
            )
        else:
            formula, numbers = (
                "α = (2 × a / B) × (c / W)",
                f"(2 × {put_in(a)} / {put_in(t)}) × ({put_in(c)} / {put_in(w)})",
            )
        share = Step("Share of the section that the flaw takes", formula, numbers, lost, "", "BS 7910, annex P")
        return [share, reference_step(membrane, bending, lost)]

    def after(self, a: float, c: float) -> Onwards | None:
        """A crack through the plate, in its middle."""
        return CentreCrack(self.plate_width), (c,)
