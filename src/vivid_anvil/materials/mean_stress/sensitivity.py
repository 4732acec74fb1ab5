"""Mean-stress rules: a cycle of any mean becomes the equally damaging fully reversed amplitude, and from there one at any R.

In: amplitudes and means, MPa, and the one value of the material that the rule needs. Out: amplitudes, MPa. inf where a mean
reaches the strength of a rule that has no meaning there. The table of what there is stands in `mean_stress_rules`.
"""

from __future__ import annotations

import numpy as np
from numpy.typing import ArrayLike

from vivid_anvil.ground.checks import FloatArray, positive_number, real_number
from vivid_anvil.ground.errors import InputError, did_you_mean, listed
from vivid_anvil.units import STRENGTH, STRESS, opened


def mean_ratio(r_ratio: float) -> float:
    """Mean / amplitude of a cycle of `r_ratio`, other than 1: (1 + R) / (1 - R)."""
    return (1.0 + r_ratio) / (1.0 - r_ratio)


def _numbers(*values: ArrayLike) -> tuple[FloatArray, ...]:
    return tuple(np.asarray(value, dtype=np.float64) for value in values)


def goodman_reversed(amplitude: ArrayLike, mean: ArrayLike, strength: float) -> FloatArray:
    """S_ar = S_a / (1 - S_m / strength): the straight line to the strength; inf at or beyond it.

    With the ultimate strength: Goodman, J. (1899), Mechanics applied to engineering; with the yield strength: Soderberg, C.
    R. (1930), Trans. ASME 52, APM-52-2; with the true fracture strength or the fatigue strength coefficient: Morrow, J.
    (1968), Fatigue design handbook, SAE.

    >>> float(goodman_reversed(120.0, 100.0, 700.0))
    140.0
    """
    size, middle = _numbers(amplitude, mean)
    left = 1.0 - middle / strength
    with np.errstate(divide="ignore", invalid="ignore"):
        return np.where(left > 0.0, size / np.maximum(left, 0.0), np.inf)


def goodman_at(reversed_amplitude: ArrayLike, r_ratio: float, strength: float) -> FloatArray:
    """The same solved for the amplitude at `r_ratio` below 1: S_aR = S_ar / (1 + S_ar k / strength), k = (1 + R) / (1 - R).

    >>> round(float(goodman_at(140.0, 0.0, 700.0)), 3)
    116.667
    """
    (size,) = _numbers(reversed_amplitude)
    return size / (1.0 + size * mean_ratio(r_ratio) / strength)


def gerber_reversed(amplitude: ArrayLike, mean: ArrayLike, strength: float) -> FloatArray:
    """S_ar = S_a / (1 - (S_m / R_m)²), the parabola (Gerber, W. 1874, Z. bayer. Archit. Ing.-Ver. 6, 101-110).

    >>> float(gerber_reversed(120.0, 100.0, 700.0))
    122.5
    """
    size, middle = _numbers(amplitude, mean)
    left = np.where(middle < strength, 1.0 - (middle / strength) ** 2, 0.0)
    with np.errstate(divide="ignore", invalid="ignore"):
        return np.where(left > 0.0, size / np.maximum(left, 0.0), np.inf)


def gerber_at(reversed_amplitude: ArrayLike, r_ratio: float, strength: float) -> FloatArray:
    """The same at an R: S_aR = 2 S_ar / (1 + √(1 + 4 (k S_ar / R_m)²)), k = (1 + R) / (1 - R).

    >>> round(float(gerber_at(122.5, 0.5, 700.0)), 6)
    100.0
    """
    (size,) = _numbers(reversed_amplitude)
    return np.asarray(2.0 * size / (1.0 + np.sqrt(1.0 + 4.0 * (mean_ratio(r_ratio) * size / strength) ** 2)))


def elliptic_reversed(amplitude: ArrayLike, mean: ArrayLike, strength: float) -> FloatArray:
    """S_ar = S_a / √(1 - (S_m / R_e)²), the ellipse through the yield strength (Marin, J. 1956, Trans. ASME 78, 1777-1785).

    >>> round(float(elliptic_reversed(120.0, 100.0, 420.0)), 4)
    123.5532
    """
    size, middle = _numbers(amplitude, mean)
    left = np.where(middle < strength, 1.0 - (middle / strength) ** 2, 0.0)
    with np.errstate(divide="ignore", invalid="ignore"):
        return np.where(left > 0.0, size / np.sqrt(np.maximum(left, 0.0)), np.inf)


def elliptic_at(reversed_amplitude: ArrayLike, r_ratio: float, strength: float) -> FloatArray:
    """The same at an R: S_aR = S_ar / √(1 + (k S_ar / R_e)²), k = (1 + R) / (1 - R).

    >>> round(float(elliptic_at(120.0, 0.0, 420.0)), 4)
    115.3829
    """
    (size,) = _numbers(reversed_amplitude)
    return np.asarray(size / np.sqrt(1.0 + (mean_ratio(r_ratio) * size / strength) ** 2))


def walker_reversed(amplitude: ArrayLike, mean: ArrayLike, exponent: float) -> FloatArray:
    """S_ar = S_max^(1-γ) S_a^γ; 0 where the maximum is not tensile (Walker, K. 1970, ASTM STP 462, 1-14).

    γ = 0.5 is S_ar = √(S_max S_a) (Smith, K. N., Watson, P. and Topper, T. H. 1970, J. Materials 5, 767-778).

    >>> round(float(walker_reversed(120.0, 100.0, 0.5)), 4)
    162.4808
    """
    size, middle = _numbers(amplitude, mean)
    return np.asarray(np.maximum(size + middle, 0.0) ** (1.0 - exponent) * size**exponent)


def walker_at(reversed_amplitude: ArrayLike, r_ratio: float, exponent: float) -> FloatArray:
    """The same at an R: S_aR = S_ar ((1 - R) / 2)^(1-γ).

    >>> round(float(walker_at(120.0, 0.0, 0.5)), 4)
    84.8528
    """
    (size,) = _numbers(reversed_amplitude)
    return np.asarray(size * (0.5 * (1.0 - r_ratio)) ** (1.0 - exponent))


def sensitivity_reversed(amplitude: ArrayLike, mean: ArrayLike, sensitivity: float) -> FloatArray:
    """S_ar by the mean-stress sensitivity M (Schütz, W. 1967, Z. Flugwiss. 15, 407-419) in four regions of R.

    R > 1: S_a (1 - M); R <= 0: S_a + M S_m; 0 < R < 0.5: (1 + M) (S_a + M/3 S_m) / (1 + M/3); R >= 0.5: 3 S_a (1 + M)² / (3 + M)
    (FKM guideline, Analytical strength assessment of components, 4.4.2).

    >>> sensitivity_reversed([120.0, 120.0, 120.0], [-200.0, 60.0, 500.0], 0.145).round(3)
    array([102.6 , 128.7 , 150.07])
    """
    size, middle = np.broadcast_arrays(*_numbers(amplitude, mean))
    m = sensitivity
    found = size + m * middle  # R <= 0
    found = np.where(middle < -size, size * (1.0 - m), found)
    found = np.where(middle > size, (1.0 + m) * (size + m / 3.0 * middle) / (1.0 + m / 3.0), found)
    return np.where(middle >= 3.0 * size, 3.0 * size * (1.0 + m) ** 2 / (3.0 + m), found)


def sensitivity_at(reversed_amplitude: ArrayLike, r_ratio: float, sensitivity: float) -> FloatArray:
    """The same at an R: in each region the reversed amplitude is a constant times the amplitude.

    >>> round(float(sensitivity_at(102.6, 5.0, 0.145)), 6)
    120.0
    """
    (size,) = _numbers(reversed_amplitude)
    ratio = -np.inf if r_ratio > 1.0 else mean_ratio(r_ratio)
    one = sensitivity_reversed(1.0, max(ratio, -2.0), sensitivity)
    return size / float(one)


def unchanged_reversed(amplitude: ArrayLike, mean: ArrayLike, value: float) -> FloatArray:  # noqa: ARG001
    """The amplitude itself: the mean is taken to have no effect."""
    return _numbers(amplitude)[0]


def unchanged_at(reversed_amplitude: ArrayLike, r_ratio: float, value: float) -> FloatArray:  # noqa: ARG001
    """The amplitude itself, at any R."""
    return _numbers(reversed_amplitude)[0]


# ---- values that the rules need, from the strength -----------------------------------------------------------------

# a and b of M = a 1e-3 R_m + b (FKM guideline, table 4.4.2).
SENSITIVITIES = {
    "steel": (0.35, -0.10),
    "cast steel": (0.35, 0.05),
    "nodular iron": (0.35, 0.08),
    "malleable iron": (0.35, 0.13),
    "grey iron": (0.0, 0.5),
    "wrought aluminium": (1.0, -0.04),
    "cast aluminium": (1.0, 0.2),
}


@opened(ultimate_strength=STRENGTH)
def estimated_sensitivity(group: str, ultimate_strength: float) -> float:
    """Mean-stress sensitivity M of a material `group` (a key of `SENSITIVITIES`) from its ultimate strength, MPa.

    >>> round(estimated_sensitivity("steel", 700.0), 6)
    0.145
    """
    if group not in SENSITIVITIES:
        raise InputError(
            "mean-stress sensitivity",
            repr(group),
            f"one of {listed(SENSITIVITIES)}",
            did_you_mean(group, SENSITIVITIES),
        )
    strength = positive_number("ultimate strength", ultimate_strength, "a strength above 0 MPa")
    slope, base = SENSITIVITIES[group]
    found = slope * 1e-3 * strength + base
    if not found >= 0.0:
        raise InputError(
            f"mean-stress sensitivity, {group}",
            f"{strength:g} MPa, for which M = {found:.3g}",
            "a strength that gives M of 0 or more",
            "The estimate does not reach so low: state mean_stress_sensitivity.",
        )
    return found


@opened(ultimate_strength=STRESS)
def estimated_walker_exponent(ultimate_strength: float) -> float:
    """Walker's exponent γ of a steel from its ultimate strength, MPa: γ = 0.8818 - 0.0002 R_m.

    Dowling, N. E., Calhoun, C. A. and Arcari, A. (2009), Fatigue Fract. Engng Mater. Struct. 32, 163-179.

    >>> round(estimated_walker_exponent(780.0), 4)
    0.7258
    """
    strength = real_number("ultimate strength", ultimate_strength)
    if not 200.0 <= strength <= 2500.0:
        raise InputError("Walker's exponent", f"{strength:g} MPa", "an ultimate strength of steel, 200 to 2500 MPa")
    return 0.8818 - 0.0002 * strength
