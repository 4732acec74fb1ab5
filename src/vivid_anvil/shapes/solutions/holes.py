"""Geometry factors of one or two cracks through a plate from the edge of a round hole: K = Y S √(π a), a from the edge.

In: a, radius r and plate width W, mm. Out: Y. Methods: Newman, J. C. (1971), NASA TN D-6376; fit to Bowie, O. L. (1956), J. Math.
and Phys. 35, 60-71, in Tada, Paris and Irwin, The stress analysis of cracks handbook. A pin that presses on the hole: fits of our
own to the solution by dislocations beside a round hole (Muskhelishvili's potentials), its width after the handbook.
"""

from __future__ import annotations

import numpy as np
from numpy.typing import ArrayLike

from vivid_anvil.ground.checks import FloatArray, one_of, reach, refuse_unless
from vivid_anvil.units import LENGTH, LENGTH_OR_NONE, LENGTHS, one, opened

# Polynomials in 1 / (1 + a / r), for one crack and for two.
_NEWMAN = {1: (0.707, -0.18, 6.55, -10.54, 6.85), 2: (1.0, 0.358, 1.425, -1.578, 2.156)}

# K √(π (r + a)) / P of two cracks, K √(π (r + a/2) (1 + a/r)) / P of one, as polynomials in s = √(a / (r + a)) without
# constant, where the cosine pressures of two opposite pins with the force P each wedge the hole open.
_WEDGED = {
    1: (2.8614, -0.3659, -7.3721, 12.6967, -11.355, 6.1517, -1.5136),
    2: (2.8614, -0.3658, -8.098, 12.8763, -8.285, 2.0101),
}


def _in_plate(size: ArrayLike, radius: float, cracks: int = 2, width: float | None = None) -> None:
    one_of("hole crack, cracks", cracks, (1, 2))
    if width is not None:
        found = f"sizes of {reach(size)} mm, radius {radius:g} mm, width {width:g} mm"
        fits = 2.0 * (radius + np.asarray(size)) < width
        refuse_unless(fits, "hole crack", found, "hole and cracks within the plate: 2 (r + a) below the width")


def _pin_in_plate(size: ArrayLike, radius: float, width: float, cracks: int = 2) -> None:
    _in_plate(size, radius, cracks, width)


def _at_hole(cracks: int = 2, **_: object) -> None:
    one_of("hole crack, cracks", cracks, (1, 2))


@opened(_in_plate, size=LENGTHS, radius=LENGTH, width=LENGTH_OR_NONE)
def hole_crack(size: ArrayLike, radius: float, cracks: int = 2, width: float | None = None) -> FloatArray:
    """Y of one or two cracks at a hole under tension; with `width`, mm, of a plate with the hole in the middle.

    Within 0.15 % for two cracks up to a = 3 r, within 5.5 % for one.

    >>> hole_crack([0.2, 3.0], 3.0).round(4), float(hole_crack(3.0, 3.0, 1, 60.0)).__round__(4)
    (array([2.9533, 1.4728]), 1.3951)
    """
    a = np.asarray(size, dtype=np.float64)
    infinite = np.polynomial.polynomial.polyval(1.0 / (1.0 + a / radius), _NEWMAN[cracks])
    if width is None:
        return np.asarray(infinite)
    whole = radius + a if cracks == 2 else radius + 0.5 * a
    room = width if cracks == 2 else width - a
    secants = 1.0 / (np.cos(np.pi * radius / width) * np.cos(np.pi * whole / room))
    return np.asarray(infinite * np.sqrt(secants))


@opened(_at_hole, size=LENGTHS, radius=LENGTH, along=one())
def hole_crack_biaxial(size: ArrayLike, radius: float, cracks: int = 2, along: float = 0.0) -> FloatArray:
    """Y in a wide plate under S across the crack and `along` times S along it; within 2 % for two cracks, 5 % for one.

    >>> hole_crack_biaxial([0.2, 3.0], 3.0, along=1.0).round(4)
    array([2.081 , 1.3429])
    """
    a = np.asarray(size, dtype=np.float64)
    s = a / (radius + a)
    rest = 1.0 - s
    if cracks == 2:
        uniaxial = 0.5 * (3.0 - s) * (1.0 + 1.243 * rest**3)
        equal = 1.0 + rest * (0.5 + 0.743 * rest**2)
    else:
        equal = 2.243 - 2.64 * s + 1.352 * s**2 - 0.248 * s**3
        uniaxial = (1.0 + 0.2 * rest + 0.3 * rest**6) * equal
    return np.asarray((1.0 - along) * uniaxial + along * equal)


@opened(_at_hole, size=LENGTHS, radius=LENGTH)
def hole_wedge_force(size: ArrayLike, radius: float, cracks: int = 2) -> FloatArray:
    """K √(π l) / P of cracks at a hole in a wide plate that forces P per thickness, spread as a cosine, press open to both sides.

    l is r + a for two cracks, (r + a/2) (r + a) / r for one. Within 0.06 % to a = 10 r; 1 for two long cracks.

    >>> hole_wedge_force([0.2, 30.0], 3.0).round(4)
    array([0.6087, 0.9998])
    """
    a = np.asarray(size, dtype=np.float64)
    s = np.sqrt(a / (radius + a))
    return np.asarray(s * np.polynomial.polynomial.polyval(s, _WEDGED[cracks]))


@opened(_pin_in_plate, size=LENGTHS, radius=LENGTH, width=LENGTH)
def pin_hole_crack(size: ArrayLike, radius: float, width: float, cracks: int = 2) -> FloatArray:
    """Y of one or two cracks at a hole whose pin takes the whole force S W t of the plate, S the stress on the loaded side.

    Half of the sum of tension on both sides and of two pins that press apart; a close-fitting pin, cosine pressure.

    >>> pin_hole_crack([0.5, 3.0], 3.0, 30.0).round(3)
    array([4.405, 2.186])
    """
    a = np.asarray(size, dtype=np.float64)
    length = radius + a if cracks == 2 else (radius + 0.5 * a) * (radius + a) / radius
    x = 2.0 * (radius + a) / width if cracks == 2 else (2.0 * radius + a) / (width - a)
    strip = (1.0 - 0.5 * x + 0.957 * x**2 - 0.16 * x**3) / np.sqrt(1.0 - x)
    pressed = width / (np.pi * np.sqrt(a * length)) * hole_wedge_force(a, radius, cracks) * strip
    return np.asarray(0.5 * (hole_crack(a, radius, cracks, width) + pressed))
