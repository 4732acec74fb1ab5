"""A process with more kurtosis than Gauss's: Hermite polynomials of a Gaussian one.

x = rms κ [u + h3 (u² - 1) + h4 (u³ - 3u)]. Winterstein (1988), J. Engineering Mechanics 114, 1772-1790. His usual coefficients
have the stated kurtosis nearly; those that match it exactly are solved for.
"""

from __future__ import annotations

import math
from dataclasses import dataclass
from functools import lru_cache
from typing import Any

import numpy as np
from scipy.optimize import root

from vivid_anvil.counting import Cycles
from vivid_anvil.ground import checks
from vivid_anvil.ground.checks import FloatArray, read_only
from vivid_anvil.ground.errors import InputError, inside
from vivid_anvil.units import opened

COEFFICIENTS = ("exact", "usual")
_NODES, _WEIGHTS = np.polynomial.hermite_e.hermegauss(24)  # exact for the fourth power of a cubic
HIGHEST = 15.0  # kurtosis: beyond, the cubic is no longer the process


@dataclass(frozen=True)
class HermiteForm:
    """h3, h4 and κ of the form."""

    h3: float
    h4: float

    @property
    def scale(self) -> float:
        """κ = 1/√(1 + 2 h3² + 6 h4²), which keeps the rms."""
        return 1.0 / math.sqrt(1.0 + 2.0 * self.h3**2 + 6.0 * self.h4**2)

    def at(self, gaussian: FloatArray | float) -> FloatArray:
        """x/rms for values u of the Gaussian process."""
        u = np.asarray(gaussian, dtype=np.float64)
        return np.asarray(self.scale * (u + self.h3 * (u**2 - 1.0) + self.h4 * (u**3 - 3.0 * u)))

    @property
    def skewness_and_kurtosis(self) -> tuple[float, float]:
        """Those that the form has."""
        x = self.at(_NODES)
        weight = _WEIGHTS / _WEIGHTS.sum()
        return float(np.sum(weight * x**3)), float(np.sum(weight * x**4))

    def cycles(self, cycles: Cycles, rms: float) -> Cycles:
        """Cycles of the Gaussian process about 0 as those of this one: both ends of each carried over."""
        u = 0.5 * cycles.range / rms
        top, bottom = rms * self.at(u), rms * self.at(-u)
        return cycles.with_ends(read_only(bottom), read_only(top))


@opened()
def hermite_form(kurtosis: float, skewness: float = 0.0, *, coefficients: str = "exact") -> HermiteForm:
    """The form for a kurtosis of 3 (Gauss) or more, and a skewness.

    Parameters
    ----------
    kurtosis : float
        Fourth moment over the square of the second: 3 for Gauss.
    skewness : float, default 0.0
        Third moment over the power 1.5 of the second.
    coefficients : str, default "exact"
        "exact" has that kurtosis and skewness; "usual" are the closed ones in use, which have them nearly.

    Returns
    -------
    HermiteForm
        Its coefficients.

    Raises
    ------
    InputError
        For a kurtosis below 3 (hardening), and where the form would not rise everywhere.

    Examples
    --------
    >>> f"{hermite_form(6.0).h4:.5f} {hermite_form(6.0, coefficients='usual').h4:.5f}"
    '0.06886 0.07473'
    """
    checks.one_of("kurtosis, coefficients", coefficients, COEFFICIENTS)
    size, lean = checks.real_number("kurtosis", kurtosis), checks.real_number("skewness", skewness)
    if not 3.0 <= size <= HIGHEST:
        raise InputError(
            "kurtosis",
            f"{size:g}",
            f"a kurtosis from 3 (Gauss) to {HIGHEST:g}",
            "An excess kurtosis is 3 less; below 3 the process is harder than Gauss's, for which there is no such form.",
        )
    form = _usual(size, lean) if coefficients == "usual" else _exact(size, lean)
    if form.h3**2 > 3.0 * form.h4 * (1.0 - 3.0 * form.h4) + 1e-15 and lean != 0.0:
        raise InputError(
            "skewness", f"{lean:g} with a kurtosis of {size:g}", "a form that rises everywhere", "Look at both numbers."
        )
    return form


def _usual(kurtosis: float, skewness: float) -> HermiteForm:
    h4 = (math.sqrt(1.0 + 1.5 * (kurtosis - 3.0)) - 1.0) / 18.0
    return HermiteForm(skewness / (6.0 * (1.0 + 6.0 * h4)), h4)


@lru_cache(maxsize=256)
def _exact(kurtosis: float, skewness: float) -> HermiteForm:
    if kurtosis == 3.0 and skewness == 0.0:
        return HermiteForm(0.0, 0.0)

    def off(h: Any) -> tuple[float, float]:
        own = HermiteForm(float(h[0]), float(h[1])).skewness_and_kurtosis
        return own[0] - skewness, own[1] - kurtosis

    start = _usual(kurtosis, skewness)
    found = root(off, [start.h3, start.h4], tol=1e-14)
    h3, h4 = (float(one) for one in found.x)
    if max(abs(one) for one in off((h3, h4))) > 1e-8:
        raise InputError(
            inside("kurtosis", "coefficients"),
            f"no form of kurtosis {kurtosis:g} and skewness {skewness:g}",
            "a form",
            "Take 'usual'.",
        )
    return HermiteForm(h3 if skewness else 0.0, h4)
