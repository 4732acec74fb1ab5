"""Redo a printed line of working the way a reader would: units off, signs into a calculator."""

import math
import re

_NAMES = r"""N\*mm/mm|in\*lbf/in|lbf/in|N/mm|1/mm|1/in
|ksi/ksi|MPa/MPa|1/MPa|1/ksi|cycles/MPa|cycles/ksi|MPa√mm|MPa√m|ksi√in|MPa/kN|ksi/kip|mm/cycle|in/cycle
|cycles|MPa|ksi|kN\*m|kip\*ft|lbf\*in|kN|kip|mm|in|N""".replace("\n", "")
_UNITS = re.compile(rf"(?<![\w√.])({_NAMES})(?![\w√])")
_KEYS = ("sqrt", "sin", "cos", "tan", "acos", "pi", "exp", "log")


def by_hand(numbers: str) -> float:
    """The value of what a step puts in."""
    plain = _UNITS.sub("", numbers)
    for sign, meaning in (("×", "*"), ("^", "**"), ("√", "sqrt"), ("π", "pi"), ("²", "**2")):
        plain = plain.replace(sign, meaning)
    return float(
        eval(plain, {"__builtins__": {}}, {"min": min, "max": max} | {name: getattr(math, name) for name in _KEYS})
    )
