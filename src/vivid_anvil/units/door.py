"""The one door: text, quantity or float in, coherent float out.

In: "185 MPa", a pint quantity, or a float that is already coherent. Out: MPa, mm, N, s, Hz, MPa√mm, mm/cycle.
A wrong dimension, a missing unit or an unknown unit is an `InputError` that names the place and gives an example.
"""

from __future__ import annotations

import functools
import math
import re
from typing import Any

from vivid_anvil.ground.checks import real_number
from vivid_anvil.ground.errors import InputError, did_you_mean, shortened
from vivid_anvil.units.definitions import DEFINITIONS
from vivid_anvil.units.dimensions import DIMENSIONS, LONG_NAMES, SLIPS, SYMBOLS, Dimension

_NUMBER = re.compile(r"\s*([+-]?(?:\d+\.?\d*|\.\d+)(?:[eE][+-]?\d+)?)\s*(.*)", re.DOTALL)
_NAME = re.compile(r"[A-Za-z_]+[0-9]*(?:_[A-Za-z]+)*|%")
_NO_UNIT = ("", "1", "-")
LARGEST = 1e100  # beyond, a number is a slip, and products of it are infinite
LONGEST = 80  # characters of a unit
# A unit: names with small powers, * and / between them, brackets one in another at most.
_POWER = r"(?:\*\*(?:-?[1-9](?:\.5)?|0?\.5|\((?:-?[1-9](?:\.5)?|0?\.5|[1-9]/[1-9])\)))?"
_WORD = rf"(?:{_NAME.pattern}|1(?:\.0)?){_POWER}"
_FLAT = rf"{_WORD}(?:\s*[*/]\s*{_WORD})*"
_GROUP = rf"(?:{_WORD}|\(\s*{_FLAT}\s*\){_POWER})"
_NESTED = rf"(?:{_GROUP}|\(\s*{_GROUP}(?:\s*[*/]\s*{_GROUP})*\s*\){_POWER})"
_GRAMMAR = re.compile(rf"\s*{_NESTED}(?:\s*[*/]\s*{_NESTED})*\s*")
_ROOT = re.compile(r"(?:√|\bsqrt)\s*(?:\(\s*(\w+)\s*\)|([A-Za-z]+))")


def coherent(value: Any, dimension: str, where: str) -> float:
    """`value` as a float in the coherent unit of `dimension` (a key of `DIMENSIONS`).

    A float or an integer is taken as coherent already; text and quantities are converted.

    Raises InputError, which names `where`, for text without a unit, an unknown unit or another dimension.

    >>> coherent("18.5 kN/cm^2", "stress", "curve, knee_stress")
    185.0
    >>> f"{coherent('80 MPa√m', 'stress intensity', 'toughness'):.2f} MPa√mm"
    '2529.82 MPa√mm'
    """
    if isinstance(value, str):
        number, unit = split(value, where, DIMENSIONS[dimension].example, dimension)
        return number * factor(unit, DIMENSIONS[dimension], where)
    if hasattr(value, "magnitude") and hasattr(value, "units"):
        magnitude = real_number(where, float(value.magnitude), f"a value of {dimension}")
        return magnitude * factor(f"{value.units:~C}", DIMENSIONS[dimension], where)
    what = "a number" if dimension == "number" else f"a value of {dimension}, such as {DIMENSIONS[dimension].example!r}"
    return real_number(where, value, what)


def coherent_ratio(value: Any, dimension: str, per: str, where: str) -> float:
    """`value` of `dimension` per `per` as a coherent float: "38 MPa/kN" is 0.038 MPa/N.

    >>> coherent_ratio("38 MPa/kN", "stress", "force", "hot spot, stress_per_load")
    0.038
    """
    ratio = _ratio(DIMENSIONS[dimension], DIMENSIONS[per])
    if isinstance(value, str):
        number, unit = split(value, where, ratio.example, "number" if dimension == per else ratio.name)
        return number * factor(unit, ratio, where)
    if hasattr(value, "magnitude") and hasattr(value, "units"):
        return real_number(where, float(value.magnitude)) * factor(f"{value.units:~C}", ratio, where)
    return real_number(where, value, f"a value of {ratio.name}, such as {ratio.example!r}")


def split(value: str, where: str, example: str, dimension: str) -> tuple[float, str]:
    """The number and the unit text of "185 MPa"; a bare number is refused unless `dimension` is "number"."""
    match = _NUMBER.fullmatch(value)
    if match is None:
        raise InputError(
            where, shortened(value), f"a number with its unit of {dimension}", f"Write for instance {example!r}."
        )
    unit = match[2].strip()
    if unit.startswith(","):
        raise InputError(where, shortened(value), "a decimal point, not a comma", f"Write for instance {example!r}.")
    if not unit and dimension != "number":
        raise InputError(
            where,
            f"{shortened(value.strip())} without a unit",
            f"a number with its unit of {dimension}",
            f"Write for instance {example!r}.",
        )
    number = float(match[1])
    if not abs(number) <= LARGEST:
        raise InputError(where, shortened(value), f"a number up to {LARGEST:g}")
    return number, unit


@functools.lru_cache(maxsize=1024)
def factor(unit: str, dimension: Dimension, where: str = "unit") -> float:
    """What one `unit` is in the coherent unit of `dimension`."""
    quantity = _quantity(unit, where, dimension.example)
    target = _quantity(dimension.coherent, where, dimension.example)
    if not quantity.is_compatible_with(target):
        raise InputError(
            where,
            f"the unit {unit!r}, which is not one of {dimension.name}",
            "a plain number" if dimension.name == "number" else f"a unit of {dimension.name}",
            f"Write for instance {dimension.example!r}.",
        )
    value = float(quantity.to(target.units).magnitude)
    return float(f"{value:.15g}")  # 0.1, not 0.09999999999999999: the conversion goes through products of floats


def dimension_of(unit: str, where: str) -> Dimension:
    """The dimension that `unit` belongs to; InputError where the trade's table has none."""
    if unit.strip() in _NO_UNIT:
        return DIMENSIONS["number"]
    quantity = _quantity(unit, where, "3.2 kN")
    for dimension in DIMENSIONS.values():
        if dimension.name != "number" and quantity.is_compatible_with(_quantity(dimension.coherent, where, "")):
            return dimension
    raise InputError(
        where,
        f"the unit {unit!r}",
        "a unit of " + ", ".join(DIMENSIONS),
        "Head the column for instance 'vertical force [kN]'.",
    )


@functools.lru_cache(maxsize=1024)
def is_unit(text: str) -> bool:
    """Whether a text is a unit that the trade's table has; a bare number is none.

    >>> is_unit("MPa"), is_unit("left"), is_unit("1")
    (True, False, False)
    """
    if not any(letter.isalpha() or letter in "°%µ" for letter in text):
        return False
    try:
        dimension_of(text, "")
    except InputError:
        return text in ("cycle", "cycles")
    return True


@functools.lru_cache(maxsize=64)
def _ratio(dimension: Dimension, per: Dimension) -> Dimension:
    metric = dimension.metric if per.name == "number" else f"{dimension.metric}/({per.metric})"
    shown = metric.replace("(", "").replace(")", "") if "*" not in per.metric else metric
    return Dimension(
        f"{dimension.name} per {per.name}", f"{dimension.coherent}/({per.coherent})", f"38 {shown}", shown, shown
    )


@functools.lru_cache(maxsize=1)
def _registry() -> Any:
    """Units of the closed vocabulary alone: pint's own thousand take half a second to read."""
    import pint

    registry: Any = pint.UnitRegistry(None)
    for line in DEFINITIONS:
        registry.define(line)
    return registry


@functools.lru_cache(maxsize=1024)
def _quantity(unit: str, where: str, example: str) -> Any:
    """1 `unit` as a pint quantity; every name in it must be in the closed vocabulary."""
    expression = _plain(unit[: LONGEST + 1])
    if len(unit) > LONGEST:
        raise InputError(where, f"the unit {shortened(unit)}", f"a unit such as that of {example!r}")
    for name in _NAME.findall(expression):
        if name not in SYMBOLS and name not in LONG_NAMES:
            known = SLIPS.get(name) or did_you_mean(name, SYMBOLS)
            raise InputError(
                where, f"the unknown unit {shortened(unit)}", "a unit such as that of " + repr(example), known
            )
    if expression not in _NO_UNIT and _GRAMMAR.fullmatch(expression) is None:
        raise InputError(where, f"the unit {unit!r}, which cannot be read", f"a unit such as that of {example!r}")
    try:
        pint_expression = _NAME.sub(lambda match: SYMBOLS.get(match[0], match[0]), expression)
        units = "" if expression in _NO_UNIT else pint_expression
        result = _registry().Quantity(1.0, _registry().parse_units(units))
    except Exception as error:
        raise InputError(
            where, f"the unit {unit!r}, which cannot be read", f"a unit such as that of {example!r}"
        ) from error
    if not math.isfinite(result.magnitude):
        raise InputError(where, f"the unit {unit!r}", "a unit")
    return result


def _plain(unit: str) -> str:
    """The unit in the plain notation that pint reads: 'MPa·√m' -> 'MPa*(m**0.5)'."""
    text = unit.strip().replace("μ", "u").replace("µ", "u").replace("·", "*").replace("×", "*").replace("^", "**")
    text = text.replace("²", "**2").replace("³", "**3").replace("⁰·⁵", "**0.5")
    text = text.replace("°", "deg")
    text = re.sub(r"\b(mm|cm|m|in|ft|s)([234])\b", r"\1**\2", text)
    text = re.sub(r"\s*\*\*\s*", "**", text)
    text = _ROOT.sub(lambda match: f" {match[1] or match[2]}**0.5", text)
    text = re.sub(r"\*\s+(?=\w)", "*", text.strip())
    return re.sub(r"(?<=[\w)])\s+(?=[A-Za-z(])", "*", text)
