"""Geometry factors of cracks through a plate: K = Y S √(π a), S the stress far away, or the outer bending stress.

In: relative size x. Out: Y. Each formula with where it holds, how exact it is, and whose it is, in `FACTORS`.
"""

from __future__ import annotations

from collections.abc import Callable
from dataclasses import dataclass

import numpy as np
from numpy.typing import ArrayLike

from vivid_anvil.ground.checks import FloatArray, one_of, reach, refuse_unless
from vivid_anvil.units import many, opened


@dataclass(frozen=True, slots=True)
class FactorFormula:
    """A formula Y(x): what x is, up to which x it holds, how exact it is, in symbols and in Python, source."""

    name: str
    relative_size: str
    largest: float
    accuracy: str
    symbols: str
    source: str
    function: Callable[[FloatArray], FloatArray]

    def __reduce__(self) -> tuple[Callable[[str], FactorFormula], tuple[str]]:
        return FACTORS.__getitem__, (self.name,)

    def __call__(self, relative_size: ArrayLike) -> FloatArray:
        """Y at relative sizes."""
        return np.asarray(self.function(np.asarray(relative_size, dtype=np.float64)))


def _tangent(x: FloatArray) -> FloatArray:
    half = 0.5 * np.pi * np.maximum(x, 1e-12)
    return np.sqrt(np.tan(half) / half)


def _half_sine(x: FloatArray) -> FloatArray:
    return np.sin(0.5 * np.pi * x)


def _half_cosine(x: FloatArray) -> FloatArray:
    return np.cos(0.5 * np.pi * x)


_TADA = "Tada, Paris and Irwin"
_TANGENT = "√(2 / (π × x) × tan(π × x / 2))"
# The secant of the half width is written with x = 2a/W throughout.
FACTORS = {
    one.name: one
    for one in (
        FactorFormula("infinite", "a / W", 1.0, "exact for W much larger", "1", "Irwin 1957", np.ones_like),
        FactorFormula(
            "centre, secant",
            "2a / W",
            1.0,
            "0.3 % to 0.6, 0.9 % low at 0.8, more beyond",
            "√(1 / cos(π × x / 2))",
            "Feddersen 1966",
            lambda x: np.sqrt(1.0 / _half_cosine(x)),
        ),
        FactorFormula(
            "centre",
            "2a / W",
            1.0,
            "0.1 %",
            "(1 - 0.025 × x^2 + 0.06 × x^4) × √(1 / cos(π × x / 2))",
            _TADA,
            lambda x: (1.0 - 0.025 * x**2 + 0.06 * x**4) * np.sqrt(1.0 / _half_cosine(x)),
        ),
        FactorFormula(
            "edge, tension",
            "a / W",
            1.0,
            "about 0.6 %",
            f"{_TANGENT} × (0.752 + 2.02 × x + 0.37 × (1 - sin(π × x / 2))^3) / cos(π × x / 2)",
            _TADA,
            lambda x: _tangent(x) * (0.752 + 2.02 * x + 0.37 * (1.0 - _half_sine(x)) ** 3) / _half_cosine(x),
        ),
        FactorFormula(
            "edge, tension, polynomial",
            "a / W",
            0.6,
            "0.5 %",
            "1.122 - 0.231 × x + 10.55 × x^2 - 21.71 × x^3 + 30.382 × x^4",
            "Gross and Srawley 1964",
            lambda x: 1.122 - 0.231 * x + 10.55 * x**2 - 21.71 * x**3 + 30.382 * x**4,
        ),
        FactorFormula(
            "edge, bending",
            "a / W",
            1.0,
            "up to 2.3 % low near 0.3",
            f"{_TANGENT} × (0.923 + 0.199 × (1 - sin(π × x / 2))^4) / cos(π × x / 2)",
            _TADA,
            lambda x: _tangent(x) * (0.923 + 0.199 * (1.0 - _half_sine(x)) ** 4) / _half_cosine(x),
        ),
        FactorFormula(
            "edge, bending, polynomial",
            "a / W",
            0.6,
            "0.4 %",
            "1.122 - 1.4 × x + 7.33 × x^2 - 13.08 × x^3 + 14 × x^4",
            "Gross and Srawley 1965",
            lambda x: 1.122 - 1.4 * x + 7.33 * x**2 - 13.08 * x**3 + 14.0 * x**4,
        ),
        FactorFormula(
            "double edge",
            "2a / W",
            1.0,
            "up to 1.5 % high",
            "(1.122 - 0.561 × x - 0.205 × x^2 + 0.471 × x^3 - 0.19 × x^4) / √(1 - x)",
            "Benthem and Koiter 1973",
            lambda x: (1.122 - 0.561 * x - 0.205 * x**2 + 0.471 * x**3 - 0.19 * x**4) / np.sqrt(1.0 - x),
        ),
        FactorFormula(
            "double edge, cosine",
            "2a / W",
            1.0,
            "0.8 %",
            f"(1 + 0.122 × cos(π × x / 2)^4) × {_TANGENT}",
            _TADA,
            lambda x: (1.0 + 0.122 * _half_cosine(x) ** 4) * _tangent(x),
        ),
        FactorFormula(
            "edge of a half plane",
            "a / W",
            1.0,
            "exact",
            "1.12152226",
            "Koiter 1965",
            lambda x: 1.12152226 * np.ones_like(x),
        ),
    )
}


def _known_range(name: str, relative_size: ArrayLike) -> None:
    one_of("geometry factor, name", name, tuple(FACTORS))
    formula, x = FACTORS[name], np.asarray(relative_size)
    fits = x < 1.0 if formula.largest == 1.0 else x <= formula.largest * (1.0 + 1e-9)
    found = f"{formula.relative_size} of {reach(x)}"
    refuse_unless(fits, f"geometry factor {name}", found, f"0 to {formula.largest:g}, where the formula holds")


@opened(_known_range, relative_size=many(at_least=0.0, at_most=1.0))
def geometry_factor(name: str, relative_size: ArrayLike) -> FloatArray:
    """Y of one of `FACTORS` at relative sizes x; InputError for another name, and beyond the range of the formula.

    >>> float(geometry_factor("edge, tension", 0.25)).__round__(5)
    1.4941
    """
    return FACTORS[name](relative_size)
