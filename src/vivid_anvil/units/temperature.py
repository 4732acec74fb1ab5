"""Temperatures, which have scales and not just units: text such as "260 °C" or "500 °F" to degrees Celsius."""

from __future__ import annotations

import re
from typing import Any

from vivid_anvil.ground.checks import real_number
from vivid_anvil.ground.errors import InputError

_TEXT = re.compile(r"\s*([+-]?\d+(?:\.\d*)?)\s*(°C|degC|°F|degF|K)\s*")
ABSOLUTE_ZERO = -273.15


def celsius(value: Any, where: str = "temperature") -> float:
    """`value` in °C; a float is taken as °C already.

    Raises InputError for text without a scale, and for a temperature below absolute zero.

    >>> celsius("500 °F")
    260.0
    """
    if isinstance(value, str):
        match = _TEXT.fullmatch(value)
        if match is None:
            raise InputError(where, repr(value), "a temperature with its scale", "Write for instance '260 °C'.")
        number, scale = float(match[1]), match[2]
        degrees = {"K": number + ABSOLUTE_ZERO, "F": (number - 32.0) / 1.8, "C": number}[scale[-1]]
    else:
        degrees = real_number(where, value, "a temperature in °C, or text such as '260 °C'")
    if not degrees > ABSOLUTE_ZERO:
        raise InputError(where, f"{degrees:g} °C", "a temperature above absolute zero, -273.15 °C")
    return degrees
