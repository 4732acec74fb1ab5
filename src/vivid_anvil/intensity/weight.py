"""Stress intensity from any stress on the crack line: weight functions, residual stress included.

In: the stress s(x), MPa, on the line of the crack before it is there, x, mm, from the cracked surface. Out: K, MPa√mm, as the
integral of s(x) h(x, a). Methods: Bueckner, H. F. (1970), ZAMM 50, 529-546, edge crack in a strip; Shen, G. and Glinka, G.
(1991), Theor. Appl. Fract. Mech. 15, 247-255, deepest point of a surface crack; exact for a crack in an infinite plate.
The substitution x = a (1 - u²) takes the square-root singularity at the tip out before Gauss-Legendre quadrature.
"""

from __future__ import annotations

import math
from collections.abc import Callable
from typing import NamedTuple

import numpy as np

from vivid_anvil.checks import FloatArray
from vivid_anvil.errors import InputError
from vivid_anvil.intensity.ellipses import surface_crack

Stress = Callable[[FloatArray], FloatArray]
_NODES, _WEIGHTS = np.polynomial.legendre.leggauss(64)
_U, _DU = 0.5 * (_NODES + 1.0), 0.5 * _WEIGHTS


def centre_crack_by_weight(stress: Stress, size: float) -> float:
    """K at x = +a of a crack from -a to a in an infinite plate, s(x) over x from -a to a; exact.

    >>> round(centre_crack_by_weight(lambda x: 100.0 + 0.0 * x, 4.0) / math.sqrt(math.pi * 4.0), 9)
    100.0
    """
    angles = 0.5 * math.pi * _NODES  # x = a sin(angle)
    values = stress(size * np.sin(angles)) * (1.0 + np.sin(angles))
    return float(math.sqrt(size / math.pi) * 0.5 * math.pi * (values * _WEIGHTS).sum())


def edge_crack_by_weight(stress: Stress, size: float, width: float) -> float:
    """K of an edge crack in a strip of `width`; a/W <= 0.5, within 0.7 % (Bueckner 1970).

    >>> k = edge_crack_by_weight(lambda x: 100.0 + 0.0 * x, 0.01, 100.0)
    >>> round(k / (100.0 * math.sqrt(math.pi * 0.01)), 3)
    1.13
    """
    y = size / width
    if not 0.0 < y <= 0.5:
        raise InputError(
            "edge crack by weight, size", f"{size:g} mm", f"sizes above 0 and up to half the width, {width / 2:g} mm"
        )
    m1 = 0.6147 + 17.1844 * y**2 + 8.7822 * y**6
    m2 = 0.2502 + 3.2889 * y**2 + 70.0444 * y**6
    return _integral(stress, size, math.sqrt(2.0 / math.pi), (1.0, 0.0, m1, 0.0, m2))


class SurfaceWeight(NamedTuple):
    """K at the deepest point, and the constants of the weight function."""

    k: float
    m1: float
    m3: float


def surface_crack_by_weight(
    stress: Stress, a: float, c: float, t: float, half_width: float = math.inf
) -> SurfaceWeight:
    """K at the deepest point of a surface crack; constants from its tension and bending solutions (Newman and Raju 1981).

    >>> found = surface_crack_by_weight(lambda x: 100.0 + 0.0 * x, 4.0, 10.0, 16.0)
    >>> flat = 100.0 * surface_crack(4.0, 10.0, 16.0).tension * math.sqrt(math.pi * 4.0)
    >>> round(found.k / flat, 6)
    1.0
    """
    flat = surface_crack(a, c, t, half_width)
    root = math.sqrt(2.0 * flat.shape)
    uniform = flat.boundary
    falling = flat.boundary * (
        1.0 - t / (2.0 * a) * (1.0 - flat.multiplier)
    )  # stress 1 - x/a, from tension and bending
    m1 = math.pi / root * (4.0 * uniform - 6.0 * falling) - 24.0 / 5.0
    m3 = 2.0 * (math.pi * uniform / root - m1 - 4.0)
    k = _integral(stress, a, 2.0 / math.sqrt(2.0 * math.pi), (1.0, m1, 3.0, m3, 0.0))
    return SurfaceWeight(k, m1, m3)


def _integral(stress: Stress, size: float, front: float, powers: tuple[float, ...]) -> float:
    """front ∫ s(x) / √(a - x) Σ p_i (1 - x/a)^(i/2) dx over the crack; with x = a (1 - u²), 1 - x/a is u²."""
    values = stress(size * (1.0 - _U**2)) * np.polynomial.polynomial.polyval(_U, powers)
    return float(front * 2.0 * math.sqrt(size) * (values * _DU).sum())
