"""Lives by a strain-life curve in terms of one stress: E times the fully reversed strain amplitude of the same life."""

from __future__ import annotations

import numpy as np

from vivid_anvil.ground.checks import FloatArray
from vivid_anvil.materials.strain import StrainLife


def terms_of(curve: StrainLife, lives: FloatArray) -> FloatArray:
    """E times the amplitude, MPa; 0 of endless lives, inf of none."""
    finite = np.isfinite(lives) & (lives > 0.0)
    some = np.where(finite, lives, 1.0)
    found = curve.youngs_modulus * (curve.elastic(some) + curve.plastic(some))
    return np.where(finite, found, np.where(lives > 0.0, 0.0, np.inf))


def damage_of(curve: StrainLife, terms: FloatArray, per_repeat: FloatArray) -> FloatArray:
    """n / N of each; inf at inf."""
    beyond = np.isinf(terms)
    lives = curve.life(np.where(beyond, 0.0, terms) / curve.youngs_modulus)
    return np.asarray(np.where(beyond, np.inf, per_repeat / lives))
