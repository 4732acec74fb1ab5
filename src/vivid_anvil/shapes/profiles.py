"""Cracks under any stress across the section, K by weight functions: from an edge, and on a surface.

The stress is a profile of shares of the nominal stress over the depth, as of a notch, a weld or a finite-element model without
the crack.
"""

from __future__ import annotations

import math
from collections.abc import Sequence
from dataclasses import dataclass
from functools import cached_property
from typing import Any, ClassVar

import numpy as np
from numpy.typing import ArrayLike

from vivid_anvil.ground.checks import FloatArray
from vivid_anvil.ground.errors import InputError
from vivid_anvil.shapes.one_size import CentreCrack, EdgeCrack
from vivid_anvil.shapes.shape import SHAPES, OneSizeShape, Onwards, TwoSizeShape
from vivid_anvil.shapes.solutions.collapse import reference_stress, surface_share
from vivid_anvil.shapes.solutions.profile import StressProfile
from vivid_anvil.shapes.surface import SurfaceCrack
from vivid_anvil.units import LENGTH, LENGTHS, STRESS, Coherent, number, opened, sound
from vivid_anvil.writing.working import put_in


def _profile(points: Any, where: str, needed: float) -> StressProfile:
    """The points as a profile of shares that reaches `needed`, mm."""
    profile = StressProfile(points, of="number", where=where)
    if profile.reach < needed * (1.0 - 1e-9):
        raise InputError(
            where,
            f"shares to a depth of {number(profile.reach)} mm",
            f"shares to {number(needed)} mm, through the section",
            "Add points; nothing is extrapolated.",
        )
    return profile


@sound
@SHAPES.add("edge, any stress")
@dataclass(frozen=True, repr=False)
class ProfileEdgeCrack(OneSizeShape):
    """A crack from one edge of a plate under any stress across it: weight function of Bueckner 1970, to a/W = 0.5.

    `stress_profile` are rows of depth and share of the nominal stress there, over the whole width, straight between. Net section:
    that of `EdgeCrack` under the mean of the profile and the bending that has its moment.

    Parameters
    ----------
    plate_width : float or text with a unit
        Width of the plate, mm.
    stress_profile : sequence
        Rows of depth, mm or text, and share of the nominal stress there, -.

    Raises
    ------
    InputError
        For an argument of another kind, unit or range; the message says which.

    Examples
    --------
    >>> notch = ProfileEdgeCrack("40 mm", [("0 mm", 2.4), ("2 mm", 1.3), ("40 mm", 0.9)])
    >>> notch.geometry_factor([0.2, 10.0]).round(3)
    array([2.636, 2.035])
    """

    plate_width: Coherent = Coherent("length", above=0.0)
    stress_profile: Sequence[Any]  # type: ignore[misc]
    size_means: ClassVar[str] = "crack length from the edge"
    source: ClassVar[str] = "Bueckner 1970"
    factor_formula: ClassVar[str] = "Y = ∫ s(x) × h(x, a) dx / √(π × a), s the share of the stress"

    @property
    def width(self) -> float:
        """The length that sizes are related to, mm."""
        return self.plate_width

    weighs: ClassVar[bool] = True

    def __post_init__(self) -> None:
        self.profile  # noqa: B018 (checks the points)

    @cached_property
    def profile(self) -> StressProfile:
        """The shares over the depth."""
        return _profile(self.stress_profile, f"{self.kind} crack, stress_profile", self.plate_width)

    @property
    def largest_size(self) -> float:
        """Half of the width, mm."""
        return 0.5 * self.plate_width

    def k_of_stress(self, stress: StressProfile, size: ArrayLike) -> FloatArray:
        """K, MPa√mm, of a stress across the section."""
        return EdgeCrack(self.plate_width).k_of_stress(stress, size)

    @opened(size=LENGTHS)
    def geometry_factor(self, size: ArrayLike) -> FloatArray:
        """Y, -."""
        return np.asarray(self.k_of_stress(self.profile, size) / np.sqrt(np.pi * np.asarray(size, dtype=np.float64)))

    @opened(size=LENGTHS, stress=STRESS)
    def net_section_stress(self, size: ArrayLike, stress: float) -> FloatArray:
        """Collapse stress of the ligament, MPa."""
        x = np.asarray(size, dtype=np.float64) / self.plate_width
        membrane, bending = (share * stress for share in self.profile.means(self.plate_width))
        return reference_stress(membrane, bending + 3.0 * membrane * x, x)

    def factor_numbers(self, size: float) -> str:
        """Y as a number: an integral over the profile."""
        return put_in(float(self.geometry_factor(size)))


@sound
@SHAPES.add("surface, any stress")
@dataclass(frozen=True, kw_only=True, repr=False)
class ProfileSurfaceCrack(TwoSizeShape):
    """A semi-elliptical surface crack under any stress across the plate: weight functions of Shen and Glinka 1991.

    Their constants come from tension and bending (Newman and Raju 1981), so that these are met exactly. `stress_profile` are rows
    of depth and share of the nominal stress, over the whole thickness. For a <= c.

    Parameters
    ----------
    thickness : float or text with a unit
        Thickness, mm.
    plate_width : float or text with a unit
        Width of the plate, mm.
    stress_profile : sequence
        Rows of depth, mm or text, and share of the nominal stress there, -.

    Raises
    ------
    InputError
        For an argument of another kind, unit or range; the message says which.

    Examples
    --------
    >>> flat = [("0 mm", 1.0), ("20 mm", 1.0)]
    >>> crack = ProfileSurfaceCrack(thickness="20 mm", plate_width="200 mm", stress_profile=flat)
    >>> [round(y, 5) for y in crack.factors(2.0, 5.0)]        # as `SurfaceCrack`
    [0.9595, 0.66965]
    """

    thickness: Coherent = Coherent("length", above=0.0)
    plate_width: Coherent = Coherent("length", above=0.0)
    stress_profile: Sequence[Any]
    size_means: ClassVar[str] = "depth"
    source: ClassVar[str] = "Shen and Glinka 1991"
    aspects_known: ClassVar[tuple[float, float]] = (0.0, 1.0)
    weighs: ClassVar[bool] = True

    def __post_init__(self) -> None:
        self.profile  # noqa: B018 (checks the points)

    @cached_property
    def profile(self) -> StressProfile:
        """The shares over the depth."""
        return _profile(self.stress_profile, f"{self.kind} crack, stress_profile", self.thickness)

    @cached_property
    def _plain(self) -> SurfaceCrack:
        return SurfaceCrack(thickness=self.thickness, plate_width=self.plate_width)

    @property
    def deepest(self) -> float:
        """The thickness, mm."""
        return self.thickness

    @property
    def longest(self) -> float:
        """A quarter of the width, mm."""
        return self._plain.longest

    def k_of_stress(self, stress: StressProfile, a: float, c: float) -> tuple[float, float]:
        """K, MPa√mm, of a stress across the section, at the deepest point and at the surface."""
        return self._plain.k_of_stress(stress, a, c)

    @opened(a=LENGTH, c=LENGTH)
    def factors(self, a: float, c: float) -> tuple[float, float]:
        """Y at the deepest point and at the surface."""
        deep, along = self.k_of_stress(self.profile, a, c)
        root = math.sqrt(math.pi * a)
        return deep / root, along / root

    @opened(a=LENGTH, c=LENGTH, stress=STRESS)
    def collapse_stress(self, a: float, c: float, stress: float) -> float:
        """Reference stress, BS 7910 annex P, under the linear part of the profile, MPa."""
        membrane, bending = (share * stress for share in self.profile.means(self.thickness))
        return float(reference_stress(membrane, bending, surface_share(a, c, self.thickness, self.plate_width)))

    def after(self, a: float, c: float) -> Onwards | None:
        """A crack through the plate under the mean of the profile is not the same load: nothing goes on unless it is even."""
        even = all(share == 1.0 for _, share in self.profile.points)
        return (CentreCrack(self.plate_width), (c,)) if even else None
