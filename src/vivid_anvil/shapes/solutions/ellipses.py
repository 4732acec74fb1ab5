"""Elliptical cracks in a plate: on the surface, at a corner, embedded. K = (S_t + H S_b) √(π a / Q) F at any point of the front.

In: depth a, half length c, thickness t, half width b, mm, angle φ of the front, degrees: 90 at the end of a, 0 at the end
of c. Out: the factors F √(1 / Q) of tension and H F √(1 / Q) of bending, so that K = (Y_t S_t + Y_b S_b) √(π a).
Methods: Newman, J. C. and Raju, I. S. (1981), Eng. Fract. Mech. 15, 185-192; (1984), NASA TM 85793; infinite body: Irwin, G. R.
(1962), J. Appl. Mech. 29, 651-654. Scalars in and out, as the growth asks for one front at a time.
"""

from __future__ import annotations

import math
from typing import NamedTuple

from scipy.special import ellipe

from vivid_anvil.ground.checks import one_of, refuse_unless
from vivid_anvil.ground.errors import InputError
from vivid_anvil.units import FRONT_ANGLE, LENGTH, REACH, inner, opened

MOST_ASPECT = 2.0


def _fits(what: str, fits: bool, a: float, c: float, t: float, half_width: float, expected: str) -> None:
    """InputError unless a crack lies within its plate and its solution."""
    wide = "" if math.isinf(half_width) else f", half width {half_width:g} mm"
    found = f"depth {a:g} mm, half length {c:g} mm, thickness {t:g} mm{wide}"
    refuse_unless(fits, what, found, expected, "Beyond, the solution is not valid. Are the units right?")


def _surface_fits(a: float, c: float, t: float, half_width: float = math.inf, **_: object) -> None:
    fits = a <= t and a <= MOST_ASPECT * c * (1.0 + 1e-9) and c < half_width
    _fits("surface crack", fits, a, c, t, half_width, "a/t up to 1, a/c up to 2, c below the half width")


def _corner_fits(a: float, c: float, t: float, **_: object) -> None:
    fits = a < t and 0.2 * c * (1.0 - 1e-9) <= a <= MOST_ASPECT * c * (1.0 + 1e-9)
    _fits("corner crack", fits, a, c, t, math.inf, "a/t below 1, a/c from 0.2 to 2")


def _hole_fits(
    a: float, c: float, t: float, radius: float, half_width: float = math.inf, cracks: int = 2, **_: object
) -> None:
    one_of("hole corner crack, cracks", cracks, (1, 2))
    fits = a < t and 0.2 * c * (1.0 - 1e-9) <= a <= MOST_ASPECT * c * (1.0 + 1e-9) and c + radius < half_width
    fits = fits and 0.5 * t * (1.0 - 1e-9) <= radius <= 2.0 * t * (1.0 + 1e-9)
    expected = "a/t below 1, a/c from 0.2 to 2, r/t from 0.5 to 2, crack and hole within the plate"
    _fits(f"hole corner crack, radius {radius:g} mm", fits, a, c, t, half_width, expected)


def _embedded_fits(a: float, c: float, t: float, half_width: float = math.inf, **_: object) -> None:
    fits = 2.0 * a < t and c < half_width
    _fits("embedded crack", fits, a, c, t, half_width, "2a below the thickness, c below the half width")


def _flat_fits(a: float, c: float, **_: object) -> None:
    _fits("embedded in infinite", a <= c, a, c, math.inf, math.inf, "a up to c")


class EllipseFactors(NamedTuple):
    """Y of tension and of bending at one point of the front; shape factor Q, boundary factor F, bending multiplier H."""

    tension: float
    bending: float
    shape: float
    boundary: float
    multiplier: float


@opened(a=LENGTH, c=LENGTH)
def shape_factor(a: float, c: float) -> float:
    """Q = E(k)², nearly: 1 + 1.464 (smaller / larger axis)^1.65.

    >>> round(shape_factor(2.0, 5.0), 6)
    1.322805
    """
    return float(1.0 + 1.464 * (a / c if a <= c else c / a) ** 1.65)


_shape_factor = inner(shape_factor)  # asked for thousands of times, of sizes that are checked


@opened(_surface_fits, a=LENGTH, c=LENGTH, t=LENGTH, half_width=REACH, angle=FRONT_ANGLE)
def surface_crack(
    a: float, c: float, t: float, half_width: float = math.inf, angle: float = 90.0, *, with_width: bool = True
) -> EllipseFactors:
    """Factors of a semi-elliptical crack of depth a and length 2c on the surface of a plate (Newman and Raju 1981, 1984).

    For 0 < a/c <= 2, a/t <= 1, c / half width < 0.5.

    >>> found = surface_crack(2.0, 5.0, 20.0, 100.0)
    >>> round(100.0 * found.tension * math.sqrt(math.pi * 2.0), 3)
    240.512
    """
    depth, sine, cosine = a / t, math.sin(math.radians(angle)), math.cos(math.radians(angle))
    if a <= c:
        r = a / c
        m1, m2 = 1.13 - 0.09 * r, -0.54 + 0.89 / (0.2 + r)
        m3 = 0.5 - 1.0 / (0.65 + r) + 14.0 * (1.0 - r) ** 24
        g = 1.0 + (0.1 + 0.35 * depth**2) * (1.0 - sine) ** 2
        f_angle = (r**2 * cosine**2 + sine**2) ** 0.25
    else:
        q = c / a
        m1, m2, m3 = math.sqrt(q) * (1.0 + 0.04 * q), 0.2 * q**4, -0.11 * q**4
        g = 1.0 + (0.1 + 0.35 * q * depth**2) * (1.0 - sine) ** 2
        f_angle = (q**2 * sine**2 + cosine**2) ** 0.25
    f = (m1 + m2 * depth**2 + m3 * depth**4) * f_angle * g * (_width(c, half_width, depth) if with_width else 1.0)
    return _factors(a, c, f, _bending(a, c, depth, sine, 0.55))


@opened(_corner_fits, a=LENGTH, c=LENGTH, t=LENGTH, angle=FRONT_ANGLE)
def corner_crack(a: float, c: float, t: float, angle: float = 90.0) -> EllipseFactors:
    """Factors of a quarter-elliptical crack at a corner of a wide plate, a through the thickness (Newman and Raju 1984).

    For 0.2 <= a/c <= 2, a/t < 1.

    >>> round(100.0 * corner_crack(2.0, 4.0, 10.0).tension * math.sqrt(math.pi * 2.0), 3)
    247.226
    """
    depth, sine, cosine = a / t, math.sin(math.radians(angle)), math.cos(math.radians(angle))
    if a <= c:
        r, along = a / c, a / t
        m1, m2 = 1.08 - 0.03 * r, -0.44 + 1.06 / (0.3 + r)
        m3 = -0.5 + 0.25 * r + 14.8 * (1.0 - r) ** 15
        f_angle = (r**2 * cosine**2 + sine**2) ** 0.25
    else:
        q, along = c / a, c / t
        m1, m2, m3 = math.sqrt(q) * (1.08 - 0.03 * q), 0.375 * q**2, -0.25 * q**2
        f_angle = (q**2 * sine**2 + cosine**2) ** 0.25
    g1 = 1.0 + (0.08 + 0.4 * along**2) * (1.0 - sine) ** 3
    g2 = 1.0 + (0.08 + 0.15 * along**2) * (1.0 - cosine) ** 3
    f = (m1 + m2 * depth**2 + m3 * depth**4) * g1 * g2 * f_angle
    return _factors(a, c, f, _bending(a, c, depth, sine, 0.64))


@opened(_hole_fits, a=LENGTH, c=LENGTH, t=LENGTH, radius=LENGTH, half_width=REACH, angle=FRONT_ANGLE)
def hole_corner_crack(
    a: float, c: float, t: float, radius: float, half_width: float = math.inf, angle: float = 90.0, *, cracks: int = 2
) -> EllipseFactors:
    """Factors of quarter-elliptical cracks at a hole, a along the hole, c along the surface, in tension (Newman and Raju 1984).

    For 0.2 <= a/c <= 2, a/t < 1, 0.5 <= r/t <= 2; one crack by the factor of Shah, J. (1976), ASTM STP 590.

    >>> round(hole_corner_crack(0.01, 0.01, 10.0, 10.0, angle=45.0).tension / corner_crack(0.01, 0.01, 10.0, 45.0).tension, 2)
    2.72
    """
    depth, sine, cosine = a / t, math.sin(math.radians(angle)), math.cos(math.radians(angle))
    x = 1.0 / (1.0 + c / radius * math.cos(0.85 * math.radians(angle)))
    at_hole = (1.0 + 0.358 * x + 1.425 * x**2 - 1.578 * x**3 + 2.156 * x**4) / (1.0 + 0.13 * x**2)
    ends = (1.0 + 0.1 * (1.0 - cosine) ** 2) * (0.85 + 0.15 * depth**0.25)
    if a <= c:
        r = a / c
        m1, m2 = 1.13 - 0.09 * r, -0.54 + 0.89 / (0.2 + r)
        m3 = 0.5 - 1.0 / (0.65 + r) + 14.0 * (1.0 - r) ** 24
        g1 = 1.0 + (0.1 + 0.35 * depth**2) * (1.0 - sine) ** 2
        g3, g4 = (1.0 + 0.04 * r) * ends, 1.0 - 0.7 * (1.0 - depth) * (r - 0.2) * (1.0 - r)
        f_angle = (r**2 * cosine**2 + sine**2) ** 0.25
    else:
        q = c / a
        m1, m2, m3 = math.sqrt(q) * (1.0 + 0.04 * q), 0.2 * q**4, -0.11 * q**4
        g1 = 1.0 + (0.1 + 0.35 * q * depth**2) * (1.0 - sine) ** 2
        g3, g4 = (1.13 - 0.09 * q) * ends, 1.0
        f_angle = (q**2 * sine**2 + cosine**2) ** 0.25
    f = (m1 + m2 * depth**2 + m3 * depth**4) * g1 * at_hole * g3 * g4 * f_angle
    if not math.isinf(half_width):
        reach = (2.0 * radius + cracks * c) / (4.0 * (half_width - c) + 2.0 * cracks * c)
        f *= math.sqrt(
            1.0 / math.cos(0.5 * math.pi * radius / half_width) / math.cos(math.pi * reach * math.sqrt(depth))
        )
    if cracks == 1:
        lost = a * c / (t * radius)
        f *= math.sqrt((4.0 / math.pi + 0.5 * lost) / (4.0 / math.pi + lost))
    return _factors(a, c, f, 0.0)


@opened(_embedded_fits, a=LENGTH, c=LENGTH, t=LENGTH, half_width=REACH, angle=FRONT_ANGLE)
def embedded_crack(a: float, c: float, t: float, half_width: float = math.inf, angle: float = 90.0) -> EllipseFactors:
    """Factors of an ellipse 2a by 2c in the middle of a plate of thickness t, in tension (Newman and Raju 1984).

    >>> round(100.0 * embedded_crack(3.0, 8.0, 20.0, 60.0).tension * math.sqrt(math.pi * 3.0), 3)
    276.147
    """
    depth = 2.0 * a / t  # the source's t is half of the thickness
    sine, cosine = math.sin(math.radians(angle)), math.cos(math.radians(angle))
    r = a / c
    if a <= c:
        m1, f_angle = 1.0, (r**2 * cosine**2 + sine**2) ** 0.25
    else:
        q = c / a
        m1, f_angle = math.sqrt(q), (q**2 * sine**2 + cosine**2) ** 0.25
    m2, m3 = 0.05 / (0.11 + r**1.5), 0.29 / (0.23 + r**1.5)
    g = 1.0 - depth**4 * math.sqrt(max(2.6 - 2.0 * depth, 0.0)) / (1.0 + 4.0 * r) * abs(cosine)
    f = (m1 + m2 * depth**2 + m3 * depth**4) * g * f_angle * _width(c, half_width, depth)
    return _factors(a, c, f, 0.0)


@opened(_flat_fits, a=LENGTH, c=LENGTH, angle=FRONT_ANGLE)
def embedded_in_infinite(a: float, c: float, angle: float = 90.0) -> float:
    """Y of an ellipse with a <= c in an infinite body: (sin² φ + (a/c)² cos² φ)^¼ / E(k) (Irwin 1962); 2/π for a = c.

    >>> round(100.0 * embedded_in_infinite(3.0, 8.0) * math.sqrt(math.pi * 3.0), 3)
    270.134
    """
    ratio = (a / c) ** 2
    sine, cosine = math.sin(math.radians(angle)), math.cos(math.radians(angle))
    return float((sine**2 + ratio * cosine**2) ** 0.25 / ellipe(1.0 - ratio))


def _factors(a: float, c: float, f: float, multiplier: float) -> EllipseFactors:
    q = _shape_factor(a, c)
    tension = f / math.sqrt(q)
    return EllipseFactors(tension, multiplier * tension, q, f, multiplier)


def _width(c: float, half_width: float, depth: float) -> float:
    if math.isinf(half_width):
        return 1.0
    angle = 0.5 * math.pi * c / half_width * math.sqrt(depth)
    if not angle < 0.5 * math.pi:
        found = f"{2.0 * c:.5g} mm in a plate {2.0 * half_width:.5g} mm wide"
        raise InputError("crack of an ellipse, length", found, "a crack shorter than the plate is wide")
    return math.sqrt(1.0 / math.cos(angle))


def _bending(a: float, c: float, depth: float, sine: float, constant: float) -> float:
    """H: how much of the outer bending stress counts at this point of the front."""
    if a <= c:
        r = a / c
        p = 0.2 + r + 0.6 * depth
        h1 = 1.0 - 0.34 * depth - 0.11 * r * depth
        g1, g2 = -1.22 - 0.12 * r, constant - 1.05 * r**0.75 + 0.47 * r**1.5
        h2 = 1.0 + g1 * depth + g2 * depth**2
    else:
        q = c / a
        p = 0.2 + q + 0.6 * depth
        h1 = 1.0 - (0.04 + 0.41 * q) * depth + (0.55 - 1.93 * q**0.75 + 1.38 * q**1.5) * depth**2
        h2 = 1.0 + (-2.11 + 0.77 * q) * depth + (constant - 0.72 * q**0.75 + 0.14 * q**1.5) * depth**2
    return float(h1 + (h2 - h1) * sine**p)
