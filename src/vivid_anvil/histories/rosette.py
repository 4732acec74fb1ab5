"""Strain-gauge rosettes: three strains become principal strains, their direction, and principal stresses.

Directions: gauges at 0°, 45°, 90° or at 0°, 60°, 120°, counted from gauge a. Plane stress, linear elastic.
Source: transformation of plane strain (Timoshenko, S. and Goodier, J. N. 1951, Theory of elasticity, 2nd ed., art. 12).
"""

from __future__ import annotations

from typing import NamedTuple

import numpy as np
from numpy.typing import ArrayLike

from vivid_anvil.ground.checks import FloatArray, finite_samples, one_of, positive_number, real_number
from vivid_anvil.ground.errors import InputError
from vivid_anvil.units import POISSON, STRENGTH, coherent, many, opened

ROSETTES = ("0/45/90", "0/60/120")


class PrincipalStrains(NamedTuple):
    """Larger and smaller principal strain, -, shape (n,); direction of the larger from gauge a, rad."""

    larger: FloatArray
    smaller: FloatArray
    direction: FloatArray


class PrincipalStresses(NamedTuple):
    """Larger and smaller principal stress in the plane, MPa, shape (n,)."""

    larger: FloatArray
    smaller: FloatArray


@opened(a=many("strain"), b=many("strain"), c=many("strain"))
def principal_strains(a: ArrayLike, b: ArrayLike, c: ArrayLike, rosette: str) -> PrincipalStrains:
    """Principal strains from the strains of gauges a, b, c, -, shape (n,) each; `rosette` is one of `ROSETTES`.

    >>> strains = principal_strains([1e-3], [0.35e-3], [-0.3e-3], "0/45/90")
    >>> float(strains.larger[0]), float(strains.smaller[0]), float(strains.direction[0])
    (0.001, -0.0003, 0.0)
    """
    one_of("rosette", rosette, ROSETTES)
    first, second, third = (
        finite_samples(one, where=f"gauge {name}", unit="") for one, name in zip((a, b, c), "abc", strict=True)
    )
    if not first.size == second.size == third.size:
        raise InputError("rosette", f"{first.size}, {second.size} and {third.size} samples", "as many in each gauge")
    if rosette == "0/45/90":
        middle, half, shear = 0.5 * (first + third), 0.5 * (first - third), second - 0.5 * (first + third)
    else:
        middle = (first + second + third) / 3.0
        half, shear = first - middle, (second - third) / np.sqrt(3.0)
    radius = np.hypot(half, shear)
    return PrincipalStrains(middle + radius, middle - radius, 0.5 * np.arctan2(shear, half))


@opened(elastic_modulus=STRENGTH, poisson_ratio=POISSON)
def principal_stresses(
    strains: PrincipalStrains, elastic_modulus: float | str, poisson_ratio: float
) -> PrincipalStresses:
    """Principal stresses of plane stress; `elastic_modulus` in MPa or text, `poisson_ratio` from 0 to 0.5.

    >>> uniaxial = PrincipalStrains(np.array([1e-3]), np.array([-0.3e-3]), np.array([0.0]))
    >>> principal_stresses(uniaxial, "210 GPa", 0.3).larger
    array([210.])
    """
    modulus = positive_number("elastic_modulus", coherent(elastic_modulus, "stress", "elastic_modulus"))
    nu = real_number("poisson_ratio", poisson_ratio)
    if not 0.0 <= nu <= 0.5:
        raise InputError("poisson_ratio", f"{nu:g}", "0 to 0.5")
    factor = modulus / (1.0 - nu**2)
    larger, smaller = (
        factor * (one + nu * other)
        for one, other in ((strains.larger, strains.smaller), (strains.smaller, strains.larger))
    )
    return PrincipalStresses(larger, smaller)
