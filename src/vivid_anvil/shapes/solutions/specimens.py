"""Stress intensity of test pieces: compact tension, three-point bend, middle tension; and of a round bar.

In: force P, N, thickness B and width W, mm, size a, mm. Out: K, MPa√mm. Source: ASTM E399 and E647.
"""

from __future__ import annotations

import math

import numpy as np
from numpy.polynomial.polynomial import polyval
from numpy.typing import ArrayLike

from vivid_anvil.ground.checks import FloatArray, reach, refuse_unless
from vivid_anvil.units import FORCE, LENGTH, LENGTHS, one, opened


def _within(what: str, size: ArrayLike, width: float, low: float, high: float, share: str) -> None:
    x = np.asarray(size) / width
    found = f"sizes of {reach(size)} mm at a width of {width:g} mm"
    refuse_unless((x >= low * (1.0 - 1e-9)) & (x < high), what, found, f"{share} from {low:g} to below {high:g}")


def _compact(width: float, size: ArrayLike, **_: object) -> None:
    _within("compact tension", size, width, 0.2, 1.0, "a/W")


def _bend(width: float, size: ArrayLike, **_: object) -> None:
    _within("three-point bend", size, width, 0.0, 1.0, "a/W")


def _middle(width: float, size: ArrayLike, **_: object) -> None:
    _within("middle tension", size, 0.5 * width, 0.0, 0.95, "2a/W")


def _in_bar(size: ArrayLike, diameter: float) -> None:
    _within("round bar", size, 0.5 * diameter, 0.0, 1.0, "a/R")


def _thumbnail(size: ArrayLike, diameter: float, **_: object) -> None:
    _within("round bar", size, diameter, 0.0, 0.6 * (1.0 + 1e-9), "a/D")


@opened(_compact, force=FORCE, thickness=LENGTH, width=LENGTH, size=LENGTHS)
def compact_tension(force: float, thickness: float, width: float, size: ArrayLike) -> FloatArray:
    """K of a compact-tension piece, a from the load line; a/W >= 0.2 (ASTM E399).

    >>> float(compact_tension(5000.0, 12.5, 50.0, 25.0)).__round__(3)
    546.4
    """
    x = np.asarray(size, dtype=np.float64) / width
    polynomial = polyval(x, (0.886, 4.64, -13.32, 14.72, -5.6))
    return np.asarray(force / (thickness * math.sqrt(width)) * (2.0 + x) / (1.0 - x) ** 1.5 * polynomial)


@opened(_bend, force=FORCE, thickness=LENGTH, width=LENGTH, size=LENGTHS)
def three_point_bend(force: float, thickness: float, width: float, size: ArrayLike) -> FloatArray:
    """K of a bend piece with a span of 4 W (ASTM E399).

    >>> float(three_point_bend(5000.0, 12.5, 50.0, 25.0)).__round__(3)
    602.455
    """
    x = np.asarray(size, dtype=np.float64) / width
    polynomial = 1.99 - x * (1.0 - x) * (2.15 - 3.93 * x + 2.7 * x**2)
    shape = 3.0 * np.sqrt(x) * polynomial / (2.0 * (1.0 + 2.0 * x) * (1.0 - x) ** 1.5)
    return np.asarray(force * 4.0 * width / (thickness * width**1.5) * shape)


@opened(_middle, force=FORCE, thickness=LENGTH, width=LENGTH, size=LENGTHS)
def middle_tension(force: float, thickness: float, width: float, size: ArrayLike) -> FloatArray:
    """K of a middle-cracked piece with a crack of 2a; 2a/W < 0.95 (ASTM E647).

    >>> float(middle_tension(5000.0, 12.5, 50.0, 12.5)).__round__(3)
    59.618
    """
    x = 2.0 * np.asarray(size, dtype=np.float64) / width
    return np.asarray(force / thickness * np.sqrt(np.pi * x / (2.0 * width) / np.cos(0.5 * np.pi * x)))


@opened(_in_bar, size=LENGTHS, diameter=LENGTH)
def round_bar_surround(size: ArrayLike, diameter: float) -> FloatArray:
    """Y of K = Y S √(π a), a crack of depth a all around a bar in tension, S on the whole section; any a/R.

    Y = √(1 - x) (1 + y/2 + 3/8 y² - 0.363 y³ + 0.731 y⁴) / (2 y²), y = 1 - x, x = a/R (Tada, Paris and Irwin; better than 1 %).

    >>> round_bar_surround([0.001, 5.0], 20.0).round(3)
    array([1.122, 1.901])
    """
    y = 1.0 - 2.0 * np.asarray(size, dtype=np.float64) / diameter
    net = (1.0 + 0.5 * y + 0.375 * y**2 - 0.363 * y**3 + 0.731 * y**4) / 2.0
    return np.asarray(net * np.sqrt(y) / y**2)


@opened(_thumbnail, size=LENGTHS, diameter=LENGTH, bending_share=one(at_least=0.0, at_most=1.0))
def round_bar_thumbnail(size: ArrayLike, diameter: float, bending_share: float = 0.0) -> FloatArray:
    """Y of K = Y S √(π a) at the deepest point of a circular-arc surface crack of depth a in a round bar; a/D <= 0.6.

    Y = g (0.752 + 2.02 x + 0.37 (1 - sin β)³) in tension, g (0.923 + 0.199 (1 - sin β)⁴) in bending, with x = a/D, β = π x / 2,
    g = 0.92 (2/π) √(tan β / β) / cos β (Forman, R. G. and Shivakumar, V. 1986, ASTM STP 905).

    >>> round_bar_thumbnail([0.01, 4.0], 20.0).round(3)
    array([0.657, 0.8  ])
    """
    x = np.asarray(size, dtype=np.float64) / diameter
    beta = 0.5 * np.pi * x
    g = 0.92 * (2.0 / np.pi) * np.sqrt(np.tan(beta) / beta) / np.cos(beta)
    short = 1.0 - np.sin(beta)
    tension, bending = g * (0.752 + 2.02 * x + 0.37 * short**3), g * (0.923 + 0.199 * short**4)
    return np.asarray((1.0 - bending_share) * tension + bending_share * bending)
