"""Nominal stress from the forces of a section: bars, tubes, rectangles, and tubes and round plates under pressure.

In: forces, N, moments, N mm, lengths, mm. Out: MPa. Source: strength of materials (Timoshenko, S.).
"""

from __future__ import annotations

import math
from dataclasses import dataclass
from typing import NamedTuple

import numpy as np

from vivid_anvil.ground.checks import one_of, positive_number
from vivid_anvil.ground.errors import InputError
from vivid_anvil.units import FORCE, LENGTH, MOMENT, POISSON, STRESS, Coherent, one, opened

CATALAN = 0.915965594177219015  # 1 - 1/9 + 1/25 - ...


@dataclass(frozen=True)
class NominalStress:
    """Parts of the nominal stress at the surface, MPa, and what they make together on the side that bending pulls."""

    axial: float
    bending: float = 0.0
    torsion: float = 0.0

    @property
    def normal(self) -> float:
        """Axial and bending together."""
        return self.axial + self.bending

    @property
    def principals(self) -> tuple[float, float]:
        """Larger and smaller principal stress at the surface."""
        middle, radius = 0.5 * self.normal, math.hypot(0.5 * self.normal, self.torsion)
        return middle + radius, middle - radius

    @property
    def von_mises(self) -> float:
        """Von Mises stress at the surface."""
        return math.sqrt(self.normal**2 + 3.0 * self.torsion**2)


@dataclass(frozen=True)
class RoundSection:
    """A round bar of `diameter`, or a tube with a `bore`, mm.

    Parameters
    ----------
    diameter : float or text with a unit
        Diameter, mm.
    bore : float or text with a unit, default 0.0
        Diameter of the bore, mm.

    Raises
    ------
    InputError
        For an argument of another kind, unit or range; the message says which.

    Examples
    --------
    >>> bar = RoundSection("40 mm")
    >>> stress = bar.stress(force=60e3, moment=0.9e6, torque=0.65e6)
    >>> round(stress.axial, 4), round(stress.bending, 4), round(stress.torsion, 4)
    (47.7465, 143.2394, 51.7254)
    """

    diameter: Coherent = Coherent("length", above=0.0)
    bore: Coherent = Coherent("length", at_least=0.0, default=0.0)

    def __post_init__(self) -> None:
        if not self.bore < self.diameter:
            raise InputError(
                "round section, bore", f"{self.bore:g} mm", f"less than the diameter, {self.diameter:g} mm"
            )

    @property
    def area(self) -> float:
        """mm²."""
        return 0.25 * math.pi * (self.diameter**2 - self.bore**2)

    @property
    def second_moment(self) -> float:
        """mm⁴."""
        return math.pi / 64.0 * (self.diameter**4 - self.bore**4)

    @opened(force=FORCE, moment=MOMENT, torque=MOMENT)
    def stress(self, force: float = 0.0, moment: float = 0.0, torque: float = 0.0) -> NominalStress:
        """F / A, M d / (2 I), T d / (4 I)."""
        reach = 0.5 * self.diameter / self.second_moment
        return NominalStress(force / self.area, moment * reach, 0.5 * torque * reach)

    @opened(pressure=STRESS)
    def pressure_stress(self, pressure: float) -> tuple[float, float]:
        """Hoop and axial stress, MPa, at the bore of a closed tube under inner `pressure`, MPa (Lamé).

        >>> [round(s, 3) for s in RoundSection("120 mm", "100 mm").pressure_stress(10.0)]
        [55.455, 22.727]
        """
        if self.bore == 0.0:
            raise InputError("round section, bore", "0 mm", "a tube, for pressure inside")
        ratio = (self.diameter / self.bore) ** 2
        return pressure * (ratio + 1.0) / (ratio - 1.0), pressure / (ratio - 1.0)


@dataclass(frozen=True)
class RectangleSection:
    """A rectangle `width` by `height`, mm; the moment bends it over its height.

    Parameters
    ----------
    width : float or text with a unit
        Width, mm.
    height : float or text with a unit
        Height, mm.

    Raises
    ------
    InputError
        For an argument of another kind, unit or range; the message says which.

    Examples
    --------
    >>> RectangleSection("20 mm", "50 mm").stress(force=40e3, moment=1.5e6)
    NominalStress(axial=40.0, bending=180.0, torsion=0.0)
    """

    width: Coherent = Coherent("length", above=0.0)
    height: Coherent = Coherent("length", above=0.0)

    @opened(force=FORCE, moment=MOMENT, torque=MOMENT)
    def stress(self, force: float = 0.0, moment: float = 0.0, torque: float = 0.0) -> NominalStress:
        """F / (b h), 6 M / (b h²), and the shear of a torque in the middle of the side that bending pulls."""
        even, bent = force / (self.width * self.height), 6.0 * moment / (self.width * self.height**2)
        return NominalStress(even, bent, torque * _shear_per_torque(self.width, self.height))

    @opened(torque=MOMENT)
    def largest_shear(self, torque: float) -> float:
        """Shear stress of a torque, N mm, in the middle of the longer side, where it is largest, MPa.

        >>> round(RectangleSection("10 mm", "10 mm").largest_shear(208.2), 3)
        1.0
        """
        short, long = sorted((self.width, self.height))
        return torque * _shear_per_torque(long, short)


def _shear_per_torque(side: float, across: float) -> float:
    """Shear per torque, 1/mm³, in the middle of a side of a rectangle (de Saint-Venant 1855; Timoshenko and Goodier, ch. 10)."""
    odd = np.arange(1.0, 200.0, 2.0)
    sign = np.where(odd % 4 == 1, 1.0, -1.0)
    reach = np.tanh(0.5 * math.pi * odd * across / side)
    rigid = side**3 * across / 3.0 * (1.0 - 192.0 / math.pi**5 * side / across * float((reach / odd**5).sum()))
    series = CATALAN - float((sign * (1.0 - reach) / odd**2).sum())
    return 8.0 * side / (math.pi**2 * rigid) * series


class PlateStress(NamedTuple):
    """Stresses at the surface of a round plate under pressure, MPa, along the radius and around, at the centre and the edge."""

    centre: float
    edge_radial: float
    edge_around: float


@opened(pressure=STRESS, radius=LENGTH, thickness=LENGTH, poisson=POISSON)
def plate_under_pressure(
    pressure: float, radius: float, thickness: float, edge: str, poisson: float = 0.3
) -> PlateStress:
    """A round plate under `pressure`, MPa; `radius` and `thickness` in mm, `edge` "clamped" or "supported".

    Small deflections; the face where the centre is pulled (Timoshenko and Woinowsky-Krieger 1959, art. 16).

    Parameters
    ----------
    pressure : float or text with a unit
        Pressure, MPa.
    radius : float or text with a unit
        Radius, mm.
    thickness : float or text with a unit
        Thickness, mm.
    edge : str
        How the edge is held: "clamped" or "supported".
    poisson : float, default 0.3
        Poisson's ratio, -.

    Returns
    -------
    PlateStress
        Bending stresses, MPa, and deflection.

    Raises
    ------
    InputError
        For a plate too thick for it.

    Examples
    --------
    >>> [round(one, 4) for one in plate_under_pressure(0.2, 100.0, 5.0, "clamped")]
    [39.0, -60.0, -18.0]
    """
    one_of("plate under pressure, edge", edge, ("clamped", "supported"))
    r = positive_number("plate under pressure, radius", radius, "a radius above 0 mm")
    t = positive_number("plate under pressure, thickness", thickness, "a thickness above 0 mm")
    if t > 0.4 * r:
        raise InputError("plate under pressure, thickness", f"{t:g} mm", f"up to 0.4 of the radius, {0.4 * r:g} mm")
    scale = 0.375 * pressure * (r / t) ** 2
    if edge == "clamped":
        return PlateStress((1.0 + poisson) * scale, -2.0 * scale, -2.0 * poisson * scale)
    return PlateStress((3.0 + poisson) * scale, 0.0, 2.0 * (1.0 - poisson) * scale)


@opened(radius=LENGTH, distance=LENGTH, angle_degrees=one("angle", degrees=True), along_x=STRESS, along_y=STRESS)
def plate_with_hole(
    radius: float, distance: float, angle_degrees: float, along_x: float, along_y: float = 0.0
) -> np.ndarray:
    """Stress tensor, MPa, six components, beside a round hole in a wide plate under tension along x and y (Kirsch 1898).

    `distance`, mm, from the centre, `angle_degrees` from x.

    Parameters
    ----------
    radius : float or text with a unit
        Radius, mm.
    distance : float or text with a unit
        Distance from the middle of the hole, mm.
    angle_degrees : float or text with a unit
        Angle from the direction of x, degrees.
    along_x : float or text with a unit
        Stress far away along x, MPa.
    along_y : float or text with a unit, default 0.0
        Stress far away along y, MPa.

    Returns
    -------
    ndarray
        Components xx, yy, zz, xy, yz, zx, MPa.

    Raises
    ------
    InputError
        For a place inside of the hole.

    Examples
    --------
    >>> plate_with_hole(10.0, 10.0, 90.0, 50.0).round(9).tolist()
    [150.0, 0.0, 0.0, 0.0, 0.0, 0.0]
    """
    if not distance >= radius > 0.0:
        raise InputError("plate with a hole, distance", f"{distance:g} mm", f"the radius, {radius:g} mm, or more")
    k = (radius / distance) ** 2
    total = np.zeros(3)
    for tension, turned in ((along_x, 0.0), (along_y, 90.0)):
        t = math.radians(2.0 * (angle_degrees - turned))
        c, s = math.cos(t), math.sin(t)
        half = 0.5 * tension
        total += half * np.array(
            [(1 - k) + (1 - 4 * k + 3 * k * k) * c, (1 + k) - (1 + 3 * k * k) * c, -(1 + 2 * k - 3 * k * k) * s]
        )
    rr, tt, rt = total
    c, s = math.cos(math.radians(angle_degrees)), math.sin(math.radians(angle_degrees))
    xx = rr * c * c + tt * s * s - 2.0 * rt * s * c
    yy = rr * s * s + tt * c * c + 2.0 * rt * s * c
    return np.array([xx, yy, 0.0, (rr - tt) * s * c + rt * (c * c - s * s), 0.0, 0.0])
