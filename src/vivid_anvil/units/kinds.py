"""What an argument without a unit must be, by its annotation: a text, a path, a whole number, a function, one of our nouns.

Annotations that name something else (a protocol of the caller's own, `Any`) are not looked at here.
"""

from __future__ import annotations

import collections.abc
import datetime
import io
import math
import os
import re
import typing
from collections.abc import Callable
from dataclasses import dataclass
from typing import Any

import numpy as np

from vivid_anvil.ground.checks import as_numbers
from vivid_anvil.ground.errors import InputError, shortened

# What to do where something else is given than one of these.
REMEDIES = {
    "DutyCycle": 'Put what happens into one: DutyCycle("day", [Event("lap", history, occurrences=300)], repeats_per_year=250).',
    "HotSpot": "Make one with its channel, stress per load, material and curve.",
    "LifeResult": "assess_life gives one.",
    "GrowthResult": "grow_crack gives one.",
    "ModelResult": "assess_model gives one.",
    "StudyResult": "run_study gives one.",
    "Study": "read_study gives one.",
    "Cycles": "rainflow gives them.",
    "SNCurve": "knee_curve, detail_curve, estimate_curve and others give one.",
    "StressField": "read_field gives one.",
    "LoadHistory": "read_history gives one.",
    "Shape": "SurfaceCrack and others are shapes.",
    "Load": "A history, a programme, equal cycles and others are loads.",
}
_MOST_LOOKED_AT = 1000  # entries of a list


@dataclass(frozen=True)
class Noun:
    """An argument that must be one of some classes, by their names."""

    names: tuple[str, ...]
    inside: tuple[float, float] = (math.inf, -math.inf)

    def checked(self, value: Any, where: str) -> Any:
        """`value`; InputError, with what to do, for anything else."""
        if self.fits(value):
            return value
        hint = next((REMEDIES[name] for name in self.names if name in REMEDIES), "")
        raise InputError(where, f"a {type(value).__name__}", " or ".join(self.wanted), hint)

    def fits(self, value: Any) -> bool:
        """Whether it is of one of the classes."""
        return any(base.__name__ in self.names for base in type(value).__mro__)

    @property
    def wanted(self) -> list[str]:
        """The classes in words."""
        return [f"a {name}" for name in self.names if name[0].isupper() and name not in _NOT_SAID]


@dataclass(frozen=True)
class Plain:
    """An argument that must be of one of some plain kinds; None where it may be. `items` is what each of `length` entries is."""

    kinds: tuple[str, ...]
    optional: bool = False
    items: Noun | Plain | None = None
    length: int | None = None
    noun: Noun | None = None
    inside: tuple[float, float] = (math.inf, -math.inf)

    def checked(self, value: Any, where: str) -> Any:
        """`value`, lists of numbers as an array where that is asked; InputError for anything else, and for a wrong entry."""
        if value is None and self.optional:
            return value
        if self.noun is not None and self.noun.fits(value):
            return value
        if not any(_IS[kind](value) for kind in self.kinds) or (self.items is not None and isinstance(value, str)):
            hint = (
                f"Put it into a list: [{shortened(value)}]."
                if isinstance(value, str) and self.kinds == ("several",)
                else ""
            )
            nouns = [] if self.noun is None else self.noun.wanted
            words = " or ".join(dict.fromkeys([*nouns, *(_WORDS[kind] for kind in self.kinds)]))
            raise InputError(where, shortened(value), words, hint)
        if self.length is not None and (not hasattr(value, "__len__") or len(value) != self.length):
            raise InputError(where, shortened(value), "a pair" if self.length == 2 else f"{self.length} entries")
        if self.items is not None:
            self._look_at_entries(value, self.items, where)
        return _as_array(value, where) if self.kinds == ("array",) and not isinstance(value, np.ndarray) else value

    def _look_at_entries(self, value: Any, items: Noun | Plain, where: str) -> None:
        if isinstance(value, collections.abc.Mapping):
            for name, item in value.items():
                items.checked(item, f"{where}, {name}")
        elif isinstance(value, list | tuple | np.ndarray):
            for i, item in enumerate(value[:_MOST_LOOKED_AT], 1):
                items.checked(item, f"{where}, entry {i}")


def _is_number(value: Any) -> bool:
    return isinstance(value, int | float | np.integer | np.floating) and not isinstance(value, bool) and value == value


def _is_whole(value: Any) -> bool:
    return isinstance(value, int | np.integer) and not isinstance(value, bool) and -(2**63) <= int(value) < 2**63


def _is_one_or_many(value: Any) -> bool:
    many = hasattr(value, "__iter__") or hasattr(value, "__array__") or hasattr(value, "units")
    return (many or isinstance(value, int | float | str)) and not isinstance(value, bool | collections.abc.Mapping)


def _is_array(value: Any) -> bool:
    if isinstance(value, np.ndarray):
        return value.dtype.kind in "iufb"
    return isinstance(value, list | tuple)


def _as_array(value: Any, where: str) -> Any:
    as_numbers(where, value)
    return np.asarray(value)


_IS: dict[str, Callable[[Any], bool]] = {
    "text": lambda value: isinstance(value, str),
    "path": lambda value: isinstance(value, str | os.PathLike),
    "whole": _is_whole,
    "number": _is_number,
    "choice": lambda value: isinstance(value, bool | np.bool_),
    "date": lambda value: isinstance(value, datetime.date),
    "buffer": lambda value: isinstance(value, io.BytesIO),
    "function": callable,
    "mapping": lambda value: hasattr(value, "keys"),
    "several": lambda value: hasattr(value, "__iter__"),
    "one or many": _is_one_or_many,
    "array": _is_array,
}
_WORDS = {
    "text": "a text",
    "path": "the path of a file",
    "whole": "a whole number",
    "number": "a number",
    "choice": "True or False",
    "date": "a datetime.date",
    "buffer": "an io.BytesIO",
    "function": "a function",
    "mapping": "a mapping, such as a dict",
    "several": "several, such as a list",
    "one or many": "numbers",
    "array": "an array",
}
_ALONE = {
    "str": "text",
    "Path": "path",
    "int": "whole",
    "float": "number",
    "bool": "choice",
    "datetime.date": "date",
    "io.BytesIO": "buffer",
    "ArrayLike": "one or many",
    "FloatArray": "array",
    "IntArray": "array",
    "Watch": "function",
    "Margin": "function",
}
_WITH_ENTRIES = {
    "Callable": "function",
    "Mapping": "mapping",
    "dict": "mapping",
    "Sequence": "several",
    "Iterable": "several",
    "list": "several",
    "tuple": "several",
}
# Names in annotations that are no classes of ours, or that anything may be that has their methods.
_NOT_CHECKED = {"Any", "None"}
_NOT_SAID = {"None", "NoneType", "PosixPath", "WindowsPath"}
_BUILTIN = {"Path": ("PosixPath", "WindowsPath", "Path"), "None": ("NoneType",), "float": ("float", "int", "floating")}


def kinds_of(function: Callable[..., Any]) -> dict[str, Noun | Plain]:
    """What each argument of `function` must be, where its annotation says it."""
    found = {}
    for name, words in getattr(function, "__annotations__", {}).items():
        kind = _kind(words.strip("'\""), function) if name != "return" and isinstance(words, str) else None
        if kind is not None:
            found[name] = kind
    return found


def _kind(words: str, function: Callable[..., Any]) -> Noun | Plain | None:
    parts = _split(words, "|")
    optional = "None" in parts
    said = [one for one in parts if one != "None"]
    nouns = [one for one in said if re.fullmatch(r"[A-Z]\w*", one) and one not in _ALONE and _a_class(one, function)]
    ours = [one for one in said if one not in nouns]
    plain = [_plain_kind(one, function) for one in ours]
    if ours and all(plain) and not {*nouns} & _NOT_CHECKED:
        kinds = tuple(str(one) for one in plain if one != "text" or "path" not in plain)
        items = _entries(ours[0], function) if len(ours) == 1 else None
        return Plain(
            kinds, optional, items, _length(ours[0]) if len(ours) == 1 else None, Noun(tuple(nouns)) if nouns else None
        )
    names = [one for one in parts if re.fullmatch(r"[A-Za-z]\w*", one)]
    if len(names) < len(parts) or any(one in _NOT_CHECKED for one in said):
        return None
    if not any(_a_class(one, function) for one in names) or any(_an_alias(one, function) for one in names):
        return None
    return Noun(tuple(known for one in names for known in (*_BUILTIN.get(one, ()), one)))


def _plain_kind(words: str, function: Callable[..., Any]) -> str | None:
    """The plain kind of one part of an annotation."""
    if words in _ALONE:
        return _ALONE[words]
    meant = function.__globals__.get(words)
    if typing.get_origin(meant) is collections.abc.Callable:
        return "function"
    return _WITH_ENTRIES.get(words.split("[")[0]) if words.endswith("]") else None


def _entries(words: str, function: Callable[..., Any]) -> Noun | Plain | None:
    """What each entry of a list, or each value of a mapping, must be; None where they are numbers, whose units others look at."""
    outer, _, inner = words.partition("[")
    inside = _split(inner[:-1], ",") if inner else []
    if outer in ("Mapping", "dict") and len(inside) == 2:
        entry = inside[1]
    elif (outer in ("Sequence", "Iterable", "list") and len(inside) == 1) or (
        outer == "tuple" and inside[1:] == ["..."]
    ):
        entry = inside[0]
    else:
        return None
    kind = _kind(entry, function)
    return None if isinstance(kind, Plain) and {"number", "one or many"} & {*kind.kinds} else kind


def _length(words: str) -> int | None:
    """How many entries a tuple has; None where that is open."""
    parts = _split(words[6:-1], ",") if words.startswith("tuple[") else ["..."]
    return None if "..." in parts else len(parts)


def _split(words: str, at: str) -> list[str]:
    """The parts of an annotation between the signs `at` that stand in no bracket."""
    parts, depth = [""], 0
    for sign in words:
        depth += (sign == "[") - (sign == "]")
        if sign == at and depth == 0:
            parts.append("")
        else:
            parts[-1] += sign
    return [one.strip() for one in parts]


def _a_class(name: str, function: Callable[..., Any]) -> bool:
    """Whether a name in an annotation is that of a class, and not of an alias."""
    meant = function.__globals__.get(name)
    return name[0].isupper() and name not in ("Path", "None") and (meant is None or isinstance(meant, type))


def _an_alias(name: str, function: Callable[..., Any]) -> bool:
    """Whether a name stands for a union or a list of words, which is not looked into."""
    meant = function.__globals__.get(name)
    return meant is not None and not isinstance(meant, type)
