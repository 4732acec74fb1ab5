"""Constants of a growth law, given as people can check them: a rate at a stress intensity range.

In: "da/dN = 6.9e-12 m/cycle at ΔK = 1 MPa√m" and the slope m. Out: C of da/dN = C ΔK^m with mm/cycle and MPa√mm.
"""

from __future__ import annotations

import math
import re
import sys

from vivid_anvil.ground.checks import positive_number
from vivid_anvil.ground.errors import InputError
from vivid_anvil.units.door import coherent

EXAMPLE = "6.9e-12 m/cycle at 1 MPa√m"
_RATE = re.compile(
    r"\s*(?:da/dN\s*=)?\s*(?P<rate>.+?)\s+at\s+(?:(?:ΔK|dK|delta K)\s*=)?\s*(?P<range>.+?)\s*", re.IGNORECASE
)
_PRINTED = re.compile(r"\s*(?P<constant>[\d.]+(?:[eE][+-]?\d+)?)\s+with\s+(?P<rate>.+?)\s+and\s+(?P<k>.+?)\s*")


def growth_constant(
    value: str | float, slope: float, where: str = "growth constant", further_power: float = 0.0
) -> float:
    """C of da/dN = C ΔK^slope in mm/cycle and MPa√mm, from the rate at one stress intensity range.

    "C with mm/cycle and MPa√m" is a constant as a source prints it, for its units; `further_power` is what K has in the
    unit of C beyond the slope. A float is coherent already. Raises InputError, which names `where`, for text of another form.

    >>> f"{growth_constant('da/dN = 6.9e-12 m/cycle at ΔK = 1 MPa√m', 3.0):.4g}"
    '2.182e-13'
    >>> f"{growth_constant('6.9e-12 with m/cycle and MPa√m', 3.0):.4g}"
    '2.182e-13'
    """
    slope = positive_number(f"{where} (slope)", slope)
    if not isinstance(value, str):
        return positive_number(where, value, f"text such as {EXAMPLE!r}, or C above 0 in mm/cycle and MPa√mm")
    if (printed := _PRINTED.fullmatch(value)) is not None:
        unit_rate = coherent(f"1 {printed['rate']}", "growth rate", where)
        unit_k = coherent(f"1 {printed['k']}", "stress intensity", where)
        constant = positive_number(where, float(printed["constant"]), "a constant above 0")
        return _over_power(constant * unit_rate, unit_k, slope + further_power, where)
    rate, delta_k = rate_at_range(value, where)
    if further_power:
        raise InputError(where, repr(value), "the constant as printed, such as '5e-10 with mm/cycle and MPa√mm'")
    return _over_power(rate, delta_k, slope, where)


def _over_power(rate: float, delta_k: float, power: float, where: str) -> float:
    """rate / delta_k ** power; InputError where no number can hold it, as with a slope of hundreds."""
    log = math.log10(rate) - power * math.log10(delta_k)
    if not abs(log) < sys.float_info.max_10_exp:
        raise InputError(
            where,
            f"{rate:g} mm/cycle at {delta_k:g} MPa√mm with a slope of {power:g}",
            "a constant between 1e-308 and 1e308",
            "Is the slope the exponent m of ΔK? 2 to 5 is usual.",
        )
    return float(rate / delta_k**power)


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
