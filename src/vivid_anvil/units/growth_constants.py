"""Constants of a growth law, given as people can check them: a rate at a stress intensity range.

In: "da/dN = 6.9e-12 m/cycle at ΔK = 1 MPa√m" and the slope m. Out: C of da/dN = C ΔK^m with mm/cycle and MPa√mm.
"""

from __future__ import annotations

import re

from vivid_anvil.checks import positive_number
from vivid_anvil.errors import InputError
from vivid_anvil.units.door import coherent

EXAMPLE = "6.9e-12 m/cycle at 1 MPa√m"
_RATE = re.compile(
    r"\s*(?:da/dN\s*=)?\s*(?P<rate>.+?)\s+at\s+(?:(?:ΔK|dK|delta K)\s*=)?\s*(?P<range>.+?)\s*", re.IGNORECASE
)


def growth_constant(value: str | float, slope: float, where: str = "growth constant") -> float:
    """C of da/dN = C ΔK^slope in mm/cycle and MPa√mm, from the rate at one stress intensity range.

    A float is taken as coherent already. Raises InputError, which names `where`, for text of another form.

    >>> f"{growth_constant('da/dN = 6.9e-12 m/cycle at ΔK = 1 MPa√m', 3.0):.4g}"
    '2.182e-13'
    """
    slope = positive_number(f"{where} (slope)", slope)
    if not isinstance(value, str):
        return positive_number(where, value, f"text such as {EXAMPLE!r}, or C above 0 in mm/cycle and MPa√mm")
    rate, delta_k = rate_at_range(value, where)
    return float(rate / delta_k**slope)


def rate_at_range(value: str, where: str = "growth constant") -> tuple[float, float]:
    """The growth rate, mm/cycle, and the stress intensity range, MPa√mm, that the text states.

    >>> rate_at_range("5.21e-13 mm/cycle at 1 N/mm^1.5")
    (5.21e-13, 1.0)
    """
    match = _RATE.fullmatch(value)
    if match is None:
        raise InputError(
            where, repr(value), "a growth rate at a stress intensity range", f"Write for instance {EXAMPLE!r}."
        )
    rate = positive_number(where, coherent(match["rate"], "growth rate", where), "a growth rate above 0")
    delta_k = positive_number(where, coherent(match["range"], "stress intensity", where), "a range of K above 0")
    return rate, delta_k
