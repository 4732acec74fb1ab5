"""Lives at the parameters of strain criteria on planes, by a strain-life curve."""

from __future__ import annotations

import math
from typing import NamedTuple

import numpy as np

from vivid_anvil.ground.checks import FloatArray
from vivid_anvil.materials.strain import StrainLife
from vivid_anvil.materials.strain.two_powers import reversals

POISSON = (0.3, 0.5)  # elastic, plastic


class ShearCurve(NamedTuple):
    """γ_a = τ_f' / G (2N)^b + γ_f' (2N)^c: constants in shear, MPa and -."""

    strength: float
    exponent: float
    ductility: float
    ductility_exponent: float
    shear_modulus: float


def shear_curve(curve: StrainLife, poissons_ratio: float = POISSON[0]) -> ShearCurve:
    """The constants in shear by von Mises: τ_f' = σ_f' / √3, γ_f' = √3 ε_f', G = E / (2 (1 + ν)), the same exponents.

    >>> from vivid_anvil.materials.strain import uniform_material_law
    >>> round(shear_curve(uniform_material_law("520 MPa")).strength, 1)
    450.3
    """
    root = math.sqrt(3.0)
    return ShearCurve(
        curve.fatigue_strength_coefficient / root,
        curve.fatigue_strength_exponent,
        root * curve.fatigue_ductility_coefficient,
        curve.fatigue_ductility_exponent,
        curve.youngs_modulus / (2.0 * (1.0 + poissons_ratio)),
    )


def fatemi_socie_life(parameter: FloatArray, curve: ShearCurve) -> FloatArray:
    """Cycles at γ_a (1 + k σ_n,max / R_e), by the curve in shear."""
    first = np.asarray(curve.strength / curve.shear_modulus)
    found = reversals(
        first, curve.exponent, np.asarray(curve.ductility), curve.ductility_exponent, np.asarray(parameter)
    )
    return np.asarray(0.5 * found)


def brown_miller_life(
    parameter: FloatArray,
    mean_normal: FloatArray,
    curve: StrainLife,
    s: float = 0.5,
    poisson: tuple[float, float] = POISSON,
) -> FloatArray:
    """Cycles at γ_a + S Δε_n: A (σ_f' - 2 σ_n,mean) / E (2N)^b + B ε_f' (2N)^c (Wang and Brown 1993).

    A and B follow of Poisson ratios: 1.65 and 1.75 with S = 0.5 and 0.3, 0.5. The life is 0 where the mean reaches half of σ_f'.
    """
    elastic, plastic = (1.0 + one + s * (1.0 - one) for one in poisson)
    left = np.maximum(curve.fatigue_strength_coefficient - 2.0 * np.asarray(mean_normal), 0.0)
    found = reversals(
        np.asarray(elastic * left / curve.youngs_modulus),
        curve.fatigue_strength_exponent,
        np.asarray(plastic * curve.fatigue_ductility_coefficient),
        curve.fatigue_ductility_exponent,
        np.asarray(parameter),
    )
    return np.where(left > 0.0, 0.5 * found, 0.0)


def smith_watson_topper_life(parameter: FloatArray, curve: StrainLife) -> FloatArray:
    """Cycles at σ_n,max ε_n,a, MPa: σ_f'²/E (2N)^(2b) + σ_f' ε_f' (2N)^(b + c)."""
    strength, b = curve.fatigue_strength_coefficient, curve.fatigue_strength_exponent
    found = reversals(
        np.asarray(strength**2 / curve.youngs_modulus),
        2.0 * b,
        np.asarray(strength * curve.fatigue_ductility_coefficient),
        b + curve.fatigue_ductility_exponent,
        np.asarray(parameter),
    )
    return np.asarray(0.5 * found)
