"""Values on their way out, each with its unit, in the unit system the user asks for."""

from __future__ import annotations

import math
from typing import Literal

import numpy as np

from vivid_anvil.ground.checks import FloatArray, one_of
from vivid_anvil.units.dimensions import DIMENSIONS
from vivid_anvil.units.door import factor

UnitSystem = Literal["metric", "us"]
UNIT_SYSTEMS: tuple[UnitSystem, ...] = ("metric", "us")


def display_unit(dimension: str, system: UnitSystem = "metric") -> str:
    """The unit in which values of `dimension` are shown: MPa or ksi, mm or in, ...

    >>> display_unit("stress intensity", "us")
    'ksi√in'
    """
    one_of("units", system, UNIT_SYSTEMS)
    return DIMENSIONS[dimension].metric if system == "metric" else DIMENSIONS[dimension].us


def shown(value: float | FloatArray, dimension: str, system: UnitSystem = "metric") -> FloatArray:
    """Coherent value(s) in the unit that `display_unit` names.

    >>> float(shown(2529.822128134704, "stress intensity")).__round__(6)
    80.0
    """
    return np.asarray(value, dtype=np.float64) / factor(display_unit(dimension, system), DIMENSIONS[dimension])


def in_unit(value: float, dimension: str, system: UnitSystem = "metric", digits: int = 4) -> str:
    """A coherent value as text with its unit, to `digits` significant digits.

    >>> in_unit(185.0, "stress"), in_unit(185.0, "stress", "us")
    ('185 MPa', '26.83 ksi')
    """
    unit = display_unit(dimension, system)
    return f"{number(float(shown(value, dimension, system)), digits)}" + ("" if unit == "1" else f" {unit}")


_SPANS = (("years", 8766.0 * 3600.0, 2.0), ("h", 3600.0, 2.0), ("min", 60.0, 2.0))


def lasting(seconds: float) -> str:
    """A time in the unit that one would say it in.

    >>> lasting(90.0), lasting(600.0), lasting(28800.0), lasting(9.5e8)
    ('90 s', '10 min', '8 h', '30.1 years')
    """
    for word, size, least in _SPANS:
        if seconds >= least * size:
            return f"{number(seconds / size)} {word}"
    return f"{number(seconds)} s"


def number(value: float, digits: int = 4) -> str:
    """A plain number to `digits` significant digits, without a tail of zeros; large whole numbers stay whole.

    >>> number(12345.678), number(0.00012345), number(3.0), number(1.5e9)
    ('12346', '0.0001234', '3', '1.5e9')
    """
    mantissa, e, exponent = fixed(value, digits).partition("e")
    trimmed = mantissa.rstrip("0").rstrip(".") if "." in mantissa else mantissa
    return trimmed + e + exponent


def fixed(value: float, digits: int = 4) -> str:
    """The same with its zeros, as columns of a table want it; 0 stays '0'.

    >>> fixed(12345.678), fixed(25.0), fixed(0.0), fixed(1.5e9)
    ('12346', '25.00', '0', '1.500e9')
    """
    if not math.isfinite(value):
        return "no limit" if value > 0 else str(value)
    size = abs(value)
    if size == 0.0:
        return "0"
    if not 1e-4 <= size < 1e6:
        mantissa, exponent = f"{value:.{digits - 1}e}".split("e")
        return f"{mantissa}e{int(exponent)}"
    if size >= 10.0 ** (digits - 1):
        return f"{value:.0f}"
    return f"{value:.{digits - 1 - math.floor(math.log10(size))}f}"
