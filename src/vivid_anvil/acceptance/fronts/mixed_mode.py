"""Effective stress intensity where a crack is opened and sheared at once, one rule a function."""

from __future__ import annotations

from collections.abc import Callable

import numpy as np

from vivid_anvil.ground.checks import FloatArray
from vivid_anvil.ground.choices import Choices

MixedMode = Callable[[FloatArray, FloatArray, FloatArray, float], FloatArray]
MIXED_MODES: Choices[MixedMode] = Choices("rule for mixed mode")


@MIXED_MODES.add("energy release rate")
def by_energy(k1: FloatArray, k2: FloatArray, k3: FloatArray, poissons_ratio: float) -> FloatArray:
    """√(K_I² + K_II² + K_III² / (1 - ν)), what drives a crack straight ahead; a closed crack has no K_I.

    >>> by_energy(np.array([3.0]), np.array([4.0]), np.array([0.0]), 0.3)
    array([5.])
    """
    opened = np.maximum(k1, 0.0)
    return np.sqrt(opened**2 + k2**2 + k3**2 / (1.0 - poissons_ratio))


@MIXED_MODES.add("largest tangential stress")
def by_tangential_stress(k1: FloatArray, k2: FloatArray, *_: object) -> FloatArray:
    """cos(θ/2) (K_I cos²(θ/2) - 1.5 K_II sin θ) at the θ where it is largest (Erdogan and Sih 1963); without K_III.

    >>> by_tangential_stress(np.array([0.0]), np.array([1.0]), np.array([0.0]), 0.3).round(4)
    array([1.1547])
    """
    opened = np.maximum(k1, 0.0)
    with np.errstate(divide="ignore", invalid="ignore"):
        ratio = opened / np.where(k2 == 0.0, 1.0, k2)
        half = np.where(k2 == 0.0, 0.0, 0.25 * (ratio - np.sign(k2) * np.sqrt(ratio**2 + 8.0)))
    theta = 2.0 * np.arctan(half)
    return np.asarray(np.cos(0.5 * theta) * (opened * np.cos(0.5 * theta) ** 2 - 1.5 * k2 * np.sin(theta)))
