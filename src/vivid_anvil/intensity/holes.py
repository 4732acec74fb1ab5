"""Geometry factors of one or two cracks through a plate from the edge of a round hole: K = Y S √(π a), a from the edge.

In: a, radius r and plate width W, mm. Out: Y. Methods: Newman, J. C. (1971), NASA TN D-6376; fit to Bowie, O. L. (1956), J. Math.
and Phys. 35, 60-71, in Tada, Paris and Irwin, The stress analysis of cracks handbook.
"""

from __future__ import annotations

import numpy as np
from numpy.typing import ArrayLike

from vivid_anvil.checks import FloatArray

# Polynomials in 1 / (1 + a / r), for one crack and for two.
_NEWMAN = {1: (0.707, -0.18, 6.55, -10.54, 6.85), 2: (1.0, 0.358, 1.425, -1.578, 2.156)}


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
