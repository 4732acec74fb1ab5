"""Bulging of thin shells under pressure beside a crack: M_T of through cracks, M of cracks in part of the wall."""

from __future__ import annotations

import math

import numpy as np
from numpy.typing import ArrayLike

from vivid_anvil.ground.checks import FloatArray, reach, refuse_unless
from vivid_anvil.units import LENGTH, LENGTHS, one, opened

LARGEST = 9.0  # λ


def _known(size: ArrayLike, radius: float, wall: float) -> None:
    shape = 1.818 * np.asarray(size) / math.sqrt(radius * wall)
    refuse_unless(shape <= LARGEST * (1.0 + 1e-9), "sphere, size", f"λ = {reach(shape)}", "λ = 1.818 a/√(R t) up to 9")


@opened(_known, size=LENGTHS, radius=LENGTH, wall=LENGTH)
def sphere_bulging(size: ArrayLike, radius: float, wall: float) -> FloatArray:
    """M_T of a crack 2a through a thin sphere: (1.0005 + 0.49001 λ + 0.32409 λ²)/(1 + 0.50077 λ - 0.011519 λ²).

    λ = 1.818 a/√(R t). Source: API 579-1/ASME FFS-1, surface correction factors.

    >>> sphere_bulging([20.0, 60.0], 1000.0, 20.0).round(4)
    array([1.0177, 1.1391])
    """
    x = 1.818 * np.asarray(size, dtype=np.float64) / math.sqrt(radius * wall)
    return np.asarray((1.0005 + 0.49001 * x + 0.32409 * x**2) / (1.0 + 0.50077 * x - 0.011519 * x**2))


@opened(relative_depth=one(at_least=0.0, below=1.0), through=one(at_least=1.0))
def part_bulging(relative_depth: float, through: float) -> float:
    """M = (1 - (a/t)/M_T) / (1 - a/t) of a crack of depth a in a wall t; 1 for a shallow one (BS 7910, annexes M and P).

    >>> part_bulging(0.5, 2.0)
    1.5
    """
    return (1.0 - relative_depth / through) / (1.0 - relative_depth)
