"""Tables of keys as people write them in TOML, checked: unknown keys, missing ones, and values of the wrong kind.

Each key has a kind: a dimension (text with its unit -> coherent float; a bare number is refused), or one of `KINDS`.
"""

from __future__ import annotations

from collections.abc import Callable, Mapping, Sequence
from typing import Any

from vivid_anvil.ground.checks import real_number
from vivid_anvil.ground.errors import InputError, did_you_mean, inside, listed
from vivid_anvil.units.dimensions import DIMENSIONS
from vivid_anvil.units.door import coherent
from vivid_anvil.units.temperature import celsius


def _text(value: Any, where: str) -> str:
    if not isinstance(value, str) or not value.strip():
        raise InputError(where, repr(value), "text in quotes")
    return value


def _number(value: Any, where: str) -> float:
    return real_number(where, value, "a number")


def _numbers(value: Any, where: str) -> list[float]:
    if not isinstance(value, list) or not value:
        raise InputError(where, repr(value), "a list of numbers, such as [3, 5]")
    return [real_number(inside(where, f"number {i}"), one) for i, one in enumerate(value, start=1)]


def _number_or_text(value: Any, where: str) -> float | str:
    return value if isinstance(value, str) else real_number(where, value, "a number, or text in quotes")


def _table(value: Any, where: str) -> dict[str, Any]:
    if not isinstance(value, dict):
        raise InputError(where, repr(value), "a table of keys")
    return value


def _points(value: Any, where: str) -> list[Any]:
    """Pairs of a stress with its unit and a life."""
    if not isinstance(value, list) or not value:
        raise InputError(where, repr(value), 'pairs of stress and life, such as [["400 MPa", 1e4], ["250 MPa", 1e5]]')
    for row, point in enumerate(value, start=1):
        if not isinstance(point, list) or len(point) != 2:
            raise InputError(inside(where, f"point {row}"), repr(point), 'a pair, such as ["400 MPa", 1e4]')
        quantity(point[0], "stress", inside(where, f"point {row}"))
    return value


def _temperature(value: Any, where: str) -> float:
    return celsius(_text(value, where), where)


def _anything(value: Any, where: str) -> Any:  # noqa: ARG001 (the shape of all kinds)
    return value


KINDS: dict[str, Callable[[Any, str], Any]] = {
    "text": _text,
    "a number": _number,
    "numbers": _numbers,
    "number or text": _number_or_text,
    "table": _table,
    "points": _points,
    "temperature": _temperature,
    "anything": _anything,
}


def quantity(value: Any, dimension: str, where: str) -> float:
    """Text with a unit of `dimension` as a coherent float; a bare number is refused."""
    if not isinstance(value, str):
        example = DIMENSIONS[dimension].example
        raise InputError(
            where, f"{value!r} without a unit", f"text with a unit of {dimension}", f"Write for instance {example!r}."
        )
    return coherent(value, dimension, where)


def checked(
    section: Mapping[str, Any], kinds: Mapping[str, str], where: str, needed: Sequence[str] = ()
) -> dict[str, Any]:
    """The values of `section` by their kinds; InputError, which names the key, for anything else.

    >>> checked({"slope": 3, "knee_stress": "52 MPa"}, {"slope": "a number", "knee_stress": "stress"}, "curve")
    {'slope': 3.0, 'knee_stress': 52.0}
    """
    for key in section:
        if key not in kinds:
            raise InputError(
                inside(where, f"{key}"), "an unknown key", f"one of {listed(kinds)}", did_you_mean(key, kinds)
            )
    for key in needed:
        if key not in section:
            raise InputError(where, "no such key", f"the key {key!r}", "Add it.")
    return {key: _value(value, kinds[key], inside(where, f"{key}")) for key, value in section.items()}


def _value(value: Any, kind: str, where: str) -> Any:
    return KINDS[kind](value, where) if kind in KINDS else quantity(value, kind, where)
