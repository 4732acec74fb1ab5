"""Cracks through the plate at a hole, and from both edges."""

from __future__ import annotations

import math
from dataclasses import dataclass
from typing import ClassVar

import numpy as np
from numpy.typing import ArrayLike

from vivid_anvil.ground.checks import FloatArray, share_of_one
from vivid_anvil.ground.errors import InputError
from vivid_anvil.shapes.shape import SHAPES, OneSizeShape
from vivid_anvil.shapes.solutions.holes import hole_crack, pin_hole_crack
from vivid_anvil.shapes.solutions.through import geometry_factor
from vivid_anvil.units import LENGTHS, STRESS, Coherent, OptionalCoherent, opened, sound
from vivid_anvil.writing.working import put_in

_FAR = 0.95  # of a section: where the formula holds up to the end


@SHAPES.add("double edge")
@dataclass(frozen=True, repr=False)
class DoubleEdgeCrack(OneSizeShape):
    """Two cracks of length a from both edges of a plate of width W in tension; net section S W / (W - 2a).

    Y = (1 + 0.122 cos⁴(πx/2)) √(2/(πx) tan(πx/2)), x = 2a/W (Tada, Paris and Irwin; 0.8 %).

    Parameters
    ----------
    plate_width : float or text with a unit
        Width of the plate, mm.

    Raises
    ------
    InputError
        For an argument of another kind, unit or range; the message says which.

    Examples
    --------
    >>> round(float(DoubleEdgeCrack("80 mm").geometry_factor(16.0)), 5)
    1.13153
    """

    plate_width: Coherent = Coherent("length", above=0.0)
    size_means: ClassVar[str] = "length from each edge"
    factor_formula: ClassVar[str] = "Y = (1 + 0.122 × cos(π × x)^4) × √(1 / (π × x) × tan(π × x))"
    source: ClassVar[str] = "Tada, Paris and Irwin"

    @property
    def width(self) -> float:
        """The length that sizes are related to, mm."""
        return self.plate_width

    @property
    def largest_size(self) -> float:
        """0.95 of the half width, mm."""
        return 0.5 * _FAR * self.plate_width

    @opened(size=LENGTHS)
    def geometry_factor(self, size: ArrayLike) -> FloatArray:
        """Y, -."""
        return geometry_factor("double edge, cosine", 2.0 * np.asarray(size, dtype=np.float64) / self.plate_width)

    @opened(size=LENGTHS, stress=STRESS)
    def net_section_stress(self, size: ArrayLike, stress: float) -> FloatArray:
        """S W / (W - 2a), MPa."""
        return stress / (1.0 - 2.0 * np.asarray(size, dtype=np.float64) / self.plate_width)

    def factor_numbers(self, size: float) -> str:
        """Y with x = a / W put in."""
        x = put_in(size / self.plate_width)
        return f"(1 + 0.122 × cos(π × {x})^4) × √(1 / (π × {x}) × tan(π × {x}))"


@sound
@SHAPES.add("hole")
@dataclass(frozen=True, repr=False)
class HoleCrack(OneSizeShape):
    """One or two cracks from the edge of a round hole, in a wide plate or in the middle of one of `plate_width` (Newman 1971).

    Valid to a = 10 r, and to a hole with cracks over 0.7 of the width. Net section: S W / (W - 2r - n a). With a `pin_share` a
    close-fitting pin takes that share of the plate's force, the rest passes by; S is the stress on the loaded side.

    Parameters
    ----------
    radius : float or text with a unit
        Radius, mm.
    cracks : int, default 2
        How many cracks at the hole, 1 or 2.
    plate_width : float or text with a unit, optional
        Width of the plate, mm.
    pin_share : float, default 0.0
        Share of the force that a pin brings into the hole, -.

    Raises
    ------
    InputError
        For an argument of another kind, unit or range; the message says which.

    Examples
    --------
    >>> round(float(HoleCrack("3 mm", 2).geometry_factor(1.0)), 5)
    2.08652
    >>> round(float(HoleCrack("3 mm", 2, "30 mm", pin_share=1.0).geometry_factor(3.0)), 3)
    2.186
    """

    radius: Coherent = Coherent("length", above=0.0)
    cracks: int = 2
    plate_width: OptionalCoherent = OptionalCoherent("length", above=0.0)
    pin_share: float = 0.0
    size_means: ClassVar[str] = "length from the edge of the hole"
    source: ClassVar[str] = "Newman 1971"

    def __post_init__(self) -> None:
        if self.cracks not in (1, 2):
            raise InputError("hole crack, cracks", repr(self.cracks), "1 or 2 cracks")
        if share_of_one("hole crack, pin_share", self.pin_share) > 0.0 and self.plate_width is None:
            raise InputError(
                "hole crack, pin_share",
                f"{self.pin_share:g} without plate_width",
                "the width of the plate, of whose force the pin takes a share",
                "Give plate_width.",
            )
        if self.plate_width is not None and self.plate_width * 0.7 <= 2.0 * self.radius:
            raise InputError(
                "hole crack, plate_width",
                f"{self.plate_width:g} mm",
                f"more than {2.0 * self.radius / 0.7:.4g} mm for this hole",
            )

    @property
    def width(self) -> float:
        """Radius of the hole, mm: the size is related to it."""
        return self.radius

    @property
    def factor_formula(self) -> str:
        """Y in symbols; x = a / r, in a plate with the secants of hole and crack."""
        coefficients = "1 + 0.358 × λ + 1.425 × λ^2 - 1.578 × λ^3 + 2.156 × λ^4"
        if self.cracks == 1:
            coefficients = "0.707 - 0.18 × λ + 6.55 × λ^2 - 10.54 × λ^3 + 6.85 × λ^4"
        finite = "" if self.plate_width is None else "; times the width factors"
        plain = f"{coefficients}, λ = 1 / (1 + x){finite}"
        return f"Y = (1 - β) × ({plain}) + β × Y_pin" if self.pin_share else f"Y = {plain}"

    @property
    def largest_size(self) -> float:
        """Limit of the fit or of the width factors, mm."""
        if self.plate_width is None:
            return 10.0 * self.radius
        if self.cracks == 1:  # one crack moves the middle: 2r + a over W - a
            return min(10.0 * self.radius, (0.7 * self.plate_width - 2.0 * self.radius) / 1.7)
        return min(10.0 * self.radius, 0.35 * self.plate_width - self.radius)

    @opened(size=LENGTHS)
    def geometry_factor(self, size: ArrayLike) -> FloatArray:
        """Y, -."""
        far = hole_crack(size, self.radius, self.cracks, self.plate_width)
        if not self.pin_share or self.plate_width is None:
            return far
        pin = pin_hole_crack(size, self.radius, self.plate_width, self.cracks)
        return (1.0 - self.pin_share) * far + self.pin_share * pin

    @opened(size=LENGTHS, stress=STRESS)
    def net_section_stress(self, size: ArrayLike, stress: float) -> FloatArray:
        """S W / (W - 2r - n a), MPa; S in a wide plate."""
        lost = 2.0 * self.radius + self.cracks * np.asarray(size, dtype=np.float64)
        return stress / (1.0 - lost / (math.inf if self.plate_width is None else self.plate_width))

    def factor_numbers(self, size: float) -> str:
        """Y with λ put in; the width factors as one number."""
        ratio = put_in(1.0 / (1.0 + size / self.radius))
        first = f"1 + 0.358 × {ratio} + 1.425 × {ratio}^2 - 1.578 × {ratio}^3 + 2.156 × {ratio}^4"
        if self.cracks == 1:
            first = f"0.707 - 0.18 × {ratio} + 6.55 × {ratio}^2 - 10.54 × {ratio}^3 + 6.85 × {ratio}^4"
        if self.plate_width is None:
            return first
        far = float(hole_crack(size, self.radius, self.cracks, self.plate_width))
        plain = f"({first}) × {put_in(far / float(hole_crack(size, self.radius, self.cracks)))}"
        if not self.pin_share:
            return plain
        pin = put_in(float(pin_hole_crack(size, self.radius, self.plate_width, self.cracks)))
        return f"{put_in(1.0 - self.pin_share)} × ({plain}) + {put_in(self.pin_share)} × {pin}"
