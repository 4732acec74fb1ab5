"""Cracks in pipes and vessels: axial and circumferential, through the wall and at the inner surface.

In: sizes, mm, mean radius R or inner radius Ri, wall t, mm. Out: geometry factors. Methods: Folias and Erdogan, in Tada, Paris
and Irwin; Zahoor, A. (1985), J. Pressure Vessel Technol. 107, 203-205; Newman, J. C. and Raju, I. S. (1980), ibid. 102, 342-346.
"""

from __future__ import annotations

import math

import numpy as np
from numpy.typing import ArrayLike

from vivid_anvil.ground.checks import FloatArray, reach, refuse_unless
from vivid_anvil.ground.errors import InputError
from vivid_anvil.shapes.solutions.ellipses import EllipseFactors, surface_crack
from vivid_anvil.units import FRONT_ANGLE, LENGTH, LENGTHS, inner, many, opened


def _thin_shell(size: ArrayLike, radius: float, wall: float) -> None:
    longest = 5.0 * math.sqrt(radius * wall)
    fits = (np.asarray(size) <= longest * (1.0 + 1e-9)) & (wall < radius)
    found = f"sizes of {reach(size)} mm, radius {radius:g} mm, wall {wall:g} mm"
    refuse_unless(fits, "crack through a pipe", found, f"a wall thinner than the radius, sizes up to {longest:g} mm")


def _pipe(radius: float, wall: float, **_: object) -> None:
    fits = 5.0 * (1.0 - 1e-9) <= radius / wall <= 20.0 * (1.0 + 1e-9)
    refuse_unless(fits, "pipe through crack, R/t", f"{radius / wall:.4g}", "5 to 20, where the solution holds")


def _vessel(a: float, c: float, wall: float, inner_radius: float, **_: object) -> None:
    thin = 0.1 * (1.0 - 1e-9) <= wall / inner_radius <= 0.25 * (1.0 + 1e-9)
    fits = thin and a <= c * (1.0 + 1e-9) and a <= 0.8 * wall * (1.0 + 1e-9)
    found = f"depth {a:g} mm, half length {c:g} mm, wall {wall:g} mm, inner radius {inner_radius:g} mm"
    refuse_unless(fits, "inner axial crack", found, "a/c up to 1, a/t up to 0.8, t/Ri from 0.1 to 0.25")


@opened(_thin_shell, size=LENGTHS, radius=LENGTH, wall=LENGTH)
def axial_through_crack(size: ArrayLike, radius: float, wall: float) -> FloatArray:
    """Y of K = Y S √(π a), an axial crack of length 2a through a thin shell of mean radius R under hoop stress S; λ <= 5.

    >>> axial_through_crack([10.0, 120.0], 200.0, 8.0).round(5)
    array([1.03833, 3.3    ])
    """
    x = np.asarray(size, dtype=np.float64) / math.sqrt(radius * wall)
    return np.where(x <= 1.0, np.sqrt(1.0 + 1.25 * x**2), 0.6 + 0.9 * x)


@opened(_thin_shell, size=LENGTHS, radius=LENGTH, wall=LENGTH)
def circumferential_through_crack(size: ArrayLike, radius: float, wall: float) -> FloatArray:
    """Y of a circumferential crack of length 2a through a thin shell under axial stress; λ <= 5.

    >>> circumferential_through_crack([10.0, 120.0], 200.0, 8.0).round(5)
    array([1.01003, 1.65   ])
    """
    x = np.asarray(size, dtype=np.float64) / math.sqrt(radius * wall)
    return np.where(x <= 1.0, np.sqrt(1.0 + 0.3225 * x**2), 0.9 + 0.25 * x)


_PIPE = {"tension": (5.3303, 18.773), "bending": (4.5967, 2.6422)}


@opened(_pipe, half_angle=many("angle", degrees=True, above=0.0, at_most=99.0), radius=LENGTH, wall=LENGTH)
def pipe_through_crack(half_angle: ArrayLike, radius: float, wall: float, loading: str = "tension") -> FloatArray:
    """Y of K = Y S √(π R θ), a crack of half angle θ, degrees, around a pipe; 5 <= R/t <= 20, θ <= 99° (Zahoor 1985).

    >>> pipe_through_crack([20.0, 80.0], 100.0, 12.5).round(5)
    array([1.18529, 3.03086])
    """
    if loading not in _PIPE:
        raise InputError("pipe, loading", repr(loading), f"one of {', '.join(_PIPE)}")
    thin = radius / wall
    a = (0.125 * thin - 0.25) ** 0.25 if thin <= 10.0 else (0.4 * thin - 3.0) ** 0.25
    x = np.asarray(half_angle, dtype=np.float64) / 180.0
    first, second = _PIPE[loading]
    return np.asarray(1.0 + a * (first * x**1.5 + second * x**4.24))


@opened(_vessel, a=LENGTH, c=LENGTH, wall=LENGTH, inner_radius=LENGTH, angle=FRONT_ANGLE)
def inner_axial_crack(a: float, c: float, wall: float, inner_radius: float, angle: float = 90.0) -> EllipseFactors:
    """Factors of an inner semi-elliptical axial crack, by the pressure p Ri / t on wall and crack faces (Newman and Raju 1980).

    For a/c <= 1, a/t <= 0.8, 0.1 <= t/Ri <= 0.25.

    >>> hoop = 20.0 * 100.0 / 12.0
    >>> round(hoop * inner_axial_crack(3.0, 6.0, 12.0, 100.0).tension * math.sqrt(math.pi * 3.0), 3)
    533.818
    """
    flat = inner(surface_crack)(a, c, wall, angle=angle, with_width=False)
    outside, inside = (inner_radius + wall) ** 2, inner_radius**2
    curved = ((outside + inside) / (outside - inside) + 1.0 - 0.5 * math.sqrt(a / wall)) * wall / inner_radius
    return EllipseFactors(0.97 * curved * flat.tension, 0.0, flat.shape, 0.97 * curved * flat.boundary, 0.0)
