"""More cracks with one size: two edges, at a hole, in pipes, around a bar, and of a table of the user's own.

Each is what `OneSizeShape` says: Y of K = Y S √(π a), the stress that is compared with yield, the largest size of the solution.
"""

from __future__ import annotations

import math
from collections.abc import Sequence
from dataclasses import dataclass
from typing import ClassVar

import numpy as np
from numpy.typing import ArrayLike

from vivid_anvil.ground.checks import FloatArray, real_number, share_of_one
from vivid_anvil.ground.errors import InputError, inside
from vivid_anvil.shapes.shape import SHAPES, OneSizeShape
from vivid_anvil.shapes.solutions.holes import hole_crack, pin_hole_crack
from vivid_anvil.shapes.solutions.pipes import axial_through_crack, pipe_through_crack
from vivid_anvil.shapes.solutions.specimens import round_bar_surround, round_bar_thumbnail
from vivid_anvil.shapes.solutions.through import geometry_factor
from vivid_anvil.units import LENGTHS, STRESS, Coherent, OptionalCoherent, coherent, number, opened
from vivid_anvil.writing.working import put_in

_FAR = 0.95  # of a section: where a formula holds up to the end


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
        if not 5.0 <= self.radius / self.wall <= 20.0:
            raise InputError(
                "pipe crack, radius", f"R/t = {self.radius / self.wall:.4g}", "mean radius over wall from 5 to 20"
            )

    @property
    def width(self) -> float:
        """Mean radius, mm: x is the half angle."""
        return self.radius

    @property
    def largest_size(self) -> float:
        """Half arc of 99°, mm."""
        return 0.55 * math.pi * self.radius

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


@SHAPES.add("table")
@dataclass(frozen=True, repr=False)
class TableCrack(OneSizeShape):
    """A crack whose Y(a) is a table, straight between its points; nothing beyond them. No net section: toughness alone limits.

    Parameters
    ----------
    points : sequence of tuple[float or str, float]
        Rows of size, mm, and Y, -.
    source : str, default "own table"
        Where the numbers come from, in words.

    Raises
    ------
    InputError
        For an argument of another kind, unit or range; the message says which.

    Examples
    --------
    >>> crack = TableCrack([("0.5 mm", 1.12), ("2 mm", 1.2), ("5 mm", 1.45), ("10 mm", 2.1)])
    >>> round(float(crack.geometry_factor(3.5)), 4), crack.largest_size
    (1.325, 10.0)
    """

    points: Sequence[tuple[float | str, float]]
    source: str = "own table"  # type: ignore[misc]
    size_means: ClassVar[str] = "size as in the table"
    factor_formula: ClassVar[str] = "Y by straight lines between the points of the table"

    def __post_init__(self) -> None:
        where = "crack of a table, points"
        if len(self.points) < 2 or any(len(row) != 2 for row in self.points):
            raise InputError(where, f"{len(self.points)} rows", "two or more rows of a size and its Y")
        rows = tuple(
            (coherent(size, "length", where), real_number(inside(where, f"Y of row {i}"), y))
            for i, (size, y) in enumerate(self.points, 1)
        )
        sizes, factors = np.array(rows, dtype=np.float64).T
        bad = np.flatnonzero(np.concatenate([[sizes[0] <= 0.0], np.diff(sizes) <= 0.0]) | (factors <= 0.0))
        if bad.size:
            row = int(bad[0])
            found = f"row {row + 1}: {number(sizes[row])} mm with Y = {number(factors[row])}"
            raise InputError(
                where, found, "sizes above 0 that rise from row to row, Y above 0", "Sort the rows by size."
            )
        object.__setattr__(self, "points", rows)

    @property
    def _columns(self) -> tuple[FloatArray, FloatArray]:
        sizes, factors = np.array(self.points, dtype=np.float64).T
        return sizes, factors

    @property
    def kinks(self) -> tuple[float, ...]:
        """Those of the points, mm."""
        return tuple(float(size) for size, _ in self.points)

    @property
    def width(self) -> float:
        """The last size of the table, mm."""
        return self.largest_size

    @property
    def smallest_size(self) -> float:
        """The first size of the table, mm."""
        return float(self.points[0][0])

    @property
    def largest_size(self) -> float:
        """The last size of the table, mm."""
        return float(self.points[-1][0])

    @opened(size=LENGTHS)
    def geometry_factor(self, size: ArrayLike) -> FloatArray:
        """Y, -; InputError outside the table."""
        sizes = np.asarray(size, dtype=np.float64)
        slack = 1e-9 * self.largest_size
        if not ((sizes >= self.smallest_size - slack) & (sizes <= self.largest_size + slack)).all():
            raise InputError(
                "crack of a table, size",
                f"{float(sizes.min()):g} to {float(sizes.max()):g} mm",
                f"sizes of the table, {self.smallest_size:g} to {self.largest_size:g} mm",
                "Add points; nothing is extrapolated.",
            )
        return np.asarray(np.interp(sizes, *self._columns))

    @opened(size=LENGTHS, stress=STRESS)
    def net_section_stress(self, size: ArrayLike, stress: float) -> FloatArray:
        """0: a table knows no section."""
        return np.zeros_like(np.asarray(size, dtype=np.float64)) * stress

    def factor_numbers(self, size: float) -> str:
        """The two points and the place between them."""
        sizes, factors = self._columns
        i = int(np.clip(np.searchsorted(sizes, size), 1, sizes.size - 1))
        low, high = float(factors[i - 1]), float(factors[i])
        share = (size - float(sizes[i - 1])) / float(sizes[i] - sizes[i - 1])
        return f"{put_in(low)} + ({put_in(high)} - {put_in(low)}) × {put_in(share)}"
