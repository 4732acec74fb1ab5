"""Stress intensity from any stress on the crack line: weight functions, residual stress included.

In: the stress s(x), MPa, on the line of the crack before it is there, x, mm, from the cracked surface. Out: K, MPa√mm, as the
integral of s(x) h(x, a). Methods: Bueckner, H. F. (1970), ZAMM 50, 529-546, edge crack in a strip; Shen, G. and Glinka, G.
(1991), Theor. Appl. Fract. Mech. 15, 247-255, both points of a surface crack; exact for a crack in an infinite plate.
The substitution x = a (1 - u²) takes the square-root singularity at the tip out before Gauss-Legendre quadrature; a stress
with `kinks` (`StressProfile`) is integrated from kink to kink.
"""

from __future__ import annotations

import math
from collections.abc import Callable
from typing import NamedTuple

import numpy as np
from numpy.typing import ArrayLike

from vivid_anvil.ground.checks import FloatArray, given_back, refuse_unless
from vivid_anvil.ground.errors import InputError
from vivid_anvil.shapes.solutions.ellipses import surface_crack
from vivid_anvil.units import LENGTH, LENGTHS, REACH, inner, opened

Stress = Callable[[FloatArray], FloatArray]
_NODES, _WEIGHTS = np.polynomial.legendre.leggauss(64)
_FEW, _FEW_WEIGHTS = np.polynomial.legendre.leggauss(8)  # exact on each straight part of a profile


def _a_stress(stress: Stress, **_: object) -> None:
    refuse_unless(callable(stress), "stress", f"a {type(stress).__name__}", "a function of x, mm, or a StressProfile")


def _a_surface(stress: Stress, a: float, c: float, t: float, half_width: float = math.inf) -> None:
    _a_stress(stress)
    found = f"depth {a:g} mm, half length {c:g} mm, thickness {t:g} mm"
    fits = a <= min(c * (1.0 + 1e-9), t) and c < half_width
    refuse_unless(fits, "surface crack by weight", found, "a crack within the plate, no deeper than half as long")


@opened(_a_stress, size=LENGTH)
def centre_crack_by_weight(stress: Stress, size: float) -> float:
    """K at x = +a of a crack from -a to a in an infinite plate, s(x) over x from -a to a; exact.

    >>> round(centre_crack_by_weight(lambda x: 100.0 + 0.0 * x, 4.0) / math.sqrt(math.pi * 4.0), 9)
    100.0
    """
    angles = 0.5 * math.pi * _NODES  # x = a sin(angle)
    values = _along(stress, size * np.sin(angles)) * (1.0 + np.sin(angles))
    return float(math.sqrt(size / math.pi) * 0.5 * math.pi * (values * _WEIGHTS).sum())


@opened(_a_stress, size=LENGTHS, width=LENGTH)
def edge_crack_by_weight(stress: Stress, size: ArrayLike, width: float) -> FloatArray:
    """K of an edge crack in a strip of `width`, shape of `size`; a/W <= 0.5, within 0.7 % (Bueckner 1970).

    >>> k = edge_crack_by_weight(lambda x: 100.0 + 0.0 * x, 0.01, 100.0)
    >>> round(float(k) / (100.0 * math.sqrt(math.pi * 0.01)), 3)
    1.13
    """
    sizes = np.asarray(size, dtype=np.float64)
    refuse_unless(sizes.size > 0, "edge crack by weight, size", "no size", "one or more")
    y = sizes / width
    if not ((y > 0.0) & (y <= 0.5 + 1e-12)).all():
        raise InputError(
            "edge crack by weight, size",
            f"{float(sizes.min()):g} to {float(sizes.max()):g} mm",
            f"sizes above 0 and up to half the width, {width / 2:g} mm",
        )
    m1 = 0.6147 + 17.1844 * y**2 + 8.7822 * y**6
    m2 = 0.2502 + 3.2889 * y**2 + 70.0444 * y**6
    return _from_tip(stress, sizes, math.sqrt(2.0 / math.pi), (1.0, 0.0, m1, 0.0, m2))


class SurfaceWeight(NamedTuple):
    """K at the deepest point, and the constants of the weight function."""

    k: float
    m1: float
    m3: float


@opened(_a_surface, a=LENGTH, c=LENGTH, t=LENGTH, half_width=REACH)
def surface_crack_by_weight(
    stress: Stress, a: float, c: float, t: float, half_width: float = math.inf
) -> SurfaceWeight:
    """K at the deepest point of a surface crack; constants from its tension and bending solutions (Newman and Raju 1981).

    >>> found = surface_crack_by_weight(lambda x: 100.0 + 0.0 * x, 4.0, 10.0, 16.0)
    >>> flat = 100.0 * surface_crack(4.0, 10.0, 16.0).tension * math.sqrt(math.pi * 4.0)
    >>> round(found.k / flat, 6)
    1.0
    """
    flat = inner(surface_crack)(a, c, t, half_width)
    root = math.sqrt(2.0 * flat.shape)
    uniform = flat.boundary
    falling = flat.boundary * (
        1.0 - t / (2.0 * a) * (1.0 - flat.multiplier)
    )  # stress 1 - x/a, from tension and bending
    m1 = math.pi / root * (4.0 * uniform - 6.0 * falling) - 24.0 / 5.0
    m3 = 2.0 * (math.pi * uniform / root - m1 - 4.0)
    k = _from_tip(stress, np.array(a, dtype=np.float64), 2.0 / math.sqrt(2.0 * math.pi), (1.0, m1, 3.0, m3))
    return SurfaceWeight(float(k), m1, m3)


@opened(_a_surface, a=LENGTH, c=LENGTH, t=LENGTH, half_width=REACH)
def surface_ends_by_weight(stress: Stress, a: float, c: float, t: float, half_width: float = math.inf) -> float:
    """K at the surface points of a surface crack: h = 2 / √(π x) (1 + Σ m_i (x/a)^(i/2)), 0 at the depth (Shen and Glinka 1991).

    Its three constants are those that give back tension and bending (Newman and Raju 1981).

    >>> bent = surface_ends_by_weight(lambda x: 100.0 * (1.0 - 2.0 * x / 10.0), 4.0, 10.0, 10.0)
    >>> round(bent / (100.0 * surface_crack(4.0, 10.0, 10.0, angle=0.0).bending * math.sqrt(math.pi * 4.0)), 9)
    1.0
    """
    flat = inner(surface_crack)(a, c, t, half_width, 0.0)
    uniform = flat.tension
    falling = uniform - (uniform - flat.bending) * 0.5 * t / a  # stress 1 - x/a
    rows = np.array([[1.0, 2.0 / 3.0, 0.5], [0.5, 4.0 / 15.0, 1.0 / 6.0], [1.0, 1.0, 1.0]])
    known = np.array([0.5 * math.pi * uniform - 2.0, 0.5 * math.pi * falling - 4.0 / 3.0, -1.0])
    powers = (1.0, *np.linalg.solve(rows, known))
    edges = np.sqrt(np.minimum(_kinks(stress), a) / a)  # x = a v² takes 1 / √x out
    v, dv = _nodes(np.append(np.where(edges < 1.0, edges, 1.0), 1.0))
    values = _along(stress, a * v**2) * np.polynomial.polynomial.polyval(v, powers)
    return float(4.0 * math.sqrt(a / math.pi) * (values * dv).sum())


def _from_tip(stress: Stress, sizes: FloatArray, front: float, powers: tuple[ArrayLike, ...]) -> FloatArray:
    """front ∫ s(x) / √(a - x) Σ p_i (1 - x/a)^(i/2) dx over the crack; with x = a (1 - u²), 1 - x/a is u². Shape of `sizes`."""
    a = sizes[..., None]
    u, du = _nodes(np.sqrt(1.0 - np.append(np.minimum(_kinks(stress), a), a, axis=-1) / a))
    weights = np.zeros_like(u)
    for power in reversed(powers):
        weights = weights * u + np.asarray(power, dtype=np.float64)[..., None]
    return np.asarray(-front * 2.0 * np.sqrt(sizes) * (_along(stress, a * (1.0 - u**2)) * weights * du).sum(axis=-1))


def _along(stress: Stress, places: FloatArray) -> FloatArray:
    return given_back("stress", stress(places), places.shape)


def _kinks(stress: Stress) -> FloatArray:
    return np.asarray(getattr(stress, "kinks", (0.0,)), dtype=np.float64)


def _nodes(edges: FloatArray) -> tuple[FloatArray, FloatArray]:
    """Places and weights between the edges along the last axis: many for one part, few on each of several."""
    places, weights = (_NODES, _WEIGHTS) if edges.shape[-1] == 2 else (_FEW, _FEW_WEIGHTS)
    half = 0.5 * np.diff(edges)[..., None]
    middle = 0.5 * (edges[..., 1:] + edges[..., :-1])[..., None]
    shape = (*edges.shape[:-1], -1)
    return (middle + half * places).reshape(shape), (half * weights).reshape(shape)
