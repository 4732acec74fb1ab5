"""Redo a printed line of working the way a reader would: units off, signs into a calculator."""

import math
import re

_UNITS = re.compile(
    r"(?<![\w√.])(MPa√mm|MPa√m|ksi√in|MPa/kN|ksi/kip|MPa/MPa|mm/cycle|in/cycle|cycles|MPa|ksi|kN|kip|mm|in)(?![\w√])"
)


def by_hand(numbers: str) -> float:
    """The value of what a step puts in."""
    plain = _UNITS.sub("", numbers)
    for sign, meaning in (("×", "*"), ("^", "**"), ("√", "sqrt"), ("π", "pi")):
        plain = plain.replace(sign, meaning)
    return float(
        eval(plain, {"__builtins__": {}}, {name: getattr(math, name) for name in ("sqrt", "sin", "cos", "tan", "pi")})
    )
