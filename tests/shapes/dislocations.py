"""Exact K of radial cracks at a round hole in a wide plate, by dislocations along the cracks: reference for fits and formulas.

An edge dislocation beside a free hole of radius 1, by Muskhelishvili's potentials; the density along the crack, singular at the
tip and 0 at the hole, at Gauss-Chebyshev places (Erdogan, Gupta and Cook 1973).
"""

import math

import numpy as np

NODES = 200


def _stress(x, t):
    """Stress across the axis at x of a dislocation at t, the hole's answer included."""
    top = t**3 * x**4 - 2 * t**2 * x**3 - 2 * t**2 * x + 4 * t * x**2 + t - x**3 - x
    return 2.0 / (x - t) - 2.0 * top / (t * x**3 * (t * x - 1.0) ** 3)


def exact_k(stress, size, cracks):
    """K of one or two cracks of `size`, in radii, under the stress that is on their line without them."""
    j, i = np.arange(1, NODES + 1), np.arange(1, NODES)
    there = 1.0 + 0.5 * size * (1.0 + np.cos((2 * j - 1) * np.pi / (2 * NODES)))
    here = 1.0 + 0.5 * size * (1.0 + np.cos(i * np.pi / NODES))
    if cracks == 2:
        kernel = _stress(here[:, None], there) - _stress(here[:, None], -there)
    else:  # what opens at the mouth closes again inside the hole
        kernel = _stress(here[:, None], there) - (2.0 / here + 2.0 / here**3)[:, None]
    half_angle = (2 * j - 1) * np.pi / (4 * NODES)
    mouth = (-1.0) ** (j + NODES) * np.tan(half_angle)
    rows = np.vstack([0.5 * size * kernel * np.pi / NODES, mouth / NODES])
    density = np.linalg.solve(rows, np.append(-stress(here), 0.0))
    at_tip = ((-1.0) ** (j + 1) / np.tan(half_angle) * density).sum() / NODES
    return 2.0 * math.pi * float(at_tip) * math.sqrt(0.5 * math.pi * size)


def tension(x):
    """Kirsch 1898: stress 1 across the axis, far from the hole."""
    return 0.5 * (2.0 + x**-2 + 3.0 * x**-4)


def equal_tension(x):
    """Stress 1 in both directions."""
    return 1.0 + x**-2.0


def pressed_apart(x):
    """Cosine pressures of two opposite pins, each of force 1: the hole's Fourier series, term by term."""
    k = np.arange(1, 800)[:, None]
    series = ((k * x ** (-2.0 * k - 2.0) - (k - 1.0) * x ** (-2.0 * k)) / (4.0 * k**2 - 1.0)).sum(axis=0)
    return (2.0 / np.pi) ** 2 * (x**-2.0 + 2.0 * series)
