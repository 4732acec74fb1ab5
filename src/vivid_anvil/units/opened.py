"""The door of public functions: what they are given is made coherent, and checked, before they see it.

`@opened(force=Takes("force"), size=Takes("length", above=0.0))` over a function says for each of its arguments what it is.
A float stays as it is; text, quantities, array quantities and headed columns are converted; anything else is an InputError.
"""

from __future__ import annotations

import functools
import inspect
import math
import os
import re
from collections.abc import Callable, Mapping
from dataclasses import dataclass
from pathlib import Path
from typing import Any, TypeVar, cast

import numpy as np

from vivid_anvil.ground.checks import FloatArray
from vivid_anvil.ground.errors import InputError, in_file, shortened
from vivid_anvil.units.dimensions import DIMENSIONS
from vivid_anvil.units.values import coherent_values

Function = TypeVar("Function", bound=Callable[..., Any])


@dataclass(frozen=True, kw_only=True)
class Takes:
    """What an argument is: its dimension, its limits in the coherent unit, and whether it may be many, inf, or left out.

    `degrees` is for angles that the function wants in degrees; `only_units` where it says itself which value is wrong.
    """

    dimension: str = "number"
    above: float | None = None
    at_least: float | None = None
    below: float | None = None
    at_most: float | None = None
    many: bool = False
    may_be_infinite: bool = False
    optional: bool = False
    degrees: bool = False
    only_units: bool = False

    @functools.cached_property
    def inside(self) -> tuple[float, float]:
        """A plain float between these is good without a further look."""
        lows = [limit for limit in (self.above, self.at_least) if limit is not None]
        highs = [limit for limit in (self.below, self.at_most) if limit is not None]
        return max(lows, default=-math.inf), min(highs, default=math.inf)

    def checked(self, value: Any, where: str) -> Any:
        """`value` as a coherent float (or an array of float64); otherwise InputError at `where`."""
        if value is None and self.optional:
            return None
        found = (
            value if self.degrees and isinstance(value, int | float) else coherent_values(value, self.dimension, where)
        )
        if self.degrees and not isinstance(value, int | float):
            found = _degrees(value, found)
        if isinstance(found, float | int) and not isinstance(found, bool):
            one = float(found)
            if self._fits(one, one) and (self.may_be_infinite or math.isfinite(one)):
                return one
            raise self._refused(where, one)
        if self.only_units:
            return found
        if isinstance(found, bool) or not self.many:
            raise InputError(where, shortened(value), f"one {self._kind}")
        if found.size and not self._fits_all(found):
            bad = found.ravel()[np.flatnonzero(~self._good(found).ravel())]
            raise self._refused(where, float(bad[0]))
        return found

    def _fits(self, low: float, high: float) -> bool:
        return (
            low == low
            and (self.above is None or low > self.above)
            and (self.at_least is None or low >= self.at_least)
            and (self.below is None or high < self.below)
            and (self.at_most is None or high <= self.at_most)
        )

    def _fits_all(self, values: FloatArray) -> bool:
        low, high = float(values.min()), float(values.max())  # nan where any is
        finite = math.isfinite(low) and math.isfinite(high)
        return self._fits(low, high) and (finite or (self.may_be_infinite and low == low))

    def _good(self, values: FloatArray) -> np.ndarray:
        good = ~np.isnan(values)
        if not self.may_be_infinite:
            good &= np.isfinite(values)
        for limit, ok in (
            (self.above, np.greater),
            (self.at_least, np.greater_equal),
            (self.below, np.less),
            (self.at_most, np.less_equal),
        ):
            if limit is not None:
                good &= ok(values, limit)
        return np.asarray(good)

    @property
    def unit(self) -> str:
        """The coherent unit, empty for a number."""
        unit = "degrees" if self.degrees else DIMENSIONS[self.dimension].coherent
        return "" if unit == "1" else unit

    @property
    def _kind(self) -> str:
        return "number" if self.dimension == "number" else f"value of {self.dimension}"

    def _refused(self, where: str, value: float) -> InputError:
        limits = [
            f"{words} {limit:g} {self.unit}".rstrip()
            for words, limit in (
                ("above", self.above),
                ("of at least", self.at_least),
                ("below", self.below),
                ("of at most", self.at_most),
            )
            if limit is not None
        ]
        what = self._kind if self.may_be_infinite else f"finite {self._kind}"
        return InputError(where, f"{value:g} {self.unit}".rstrip(), f"a {what} {' and '.join(limits)}".rstrip())


def _degrees(given: Any, found: float | FloatArray) -> float | FloatArray:
    """Radians of text or a quantity as degrees; plain arrays are degrees already."""
    if isinstance(given, list | tuple) and any(isinstance(one, str) for one in given):
        return np.array(
            [
                np.degrees(one) if isinstance(said, str) else one
                for one, said in zip(np.asarray(found), given, strict=True)
            ]
        )
    if isinstance(given, str) or hasattr(given, "units"):
        return float(np.degrees(found)) if isinstance(found, float) else np.degrees(found)
    return found


@dataclass(frozen=True)
class Noun:
    """An argument that must be one of some classes, by their names."""

    names: tuple[str, ...]
    inside: tuple[float, float] = (math.inf, -math.inf)

    def checked(self, value: Any, where: str) -> Any:
        """`value`; InputError, with what to do, for anything else."""
        if any(base.__name__ in self.names for base in type(value).__mro__):
            return value
        wanted = [name for name in self.names if name[0].isupper()]
        hint = next((REMEDIES[name] for name in wanted if name in REMEDIES), "")
        raise InputError(where, f"a {type(value).__name__}", " or ".join(f"a {name}" for name in wanted), hint)


@dataclass(frozen=True)
class Plain:
    """An argument that must be a text, a path, something to call, a mapping or several of something; None where it may be."""

    kind: str
    optional: bool
    items: Noun | None = None
    inside: tuple[float, float] = (math.inf, -math.inf)

    def checked(self, value: Any, where: str) -> Any:
        """`value`; InputError for anything else, and for an item of another class than `items`."""
        if value is None and self.optional:
            return value
        if not _PLAIN[self.kind][1](value) or (self.items is not None and isinstance(value, str)):
            raise InputError(where, shortened(value), _PLAIN[self.kind][0])
        if self.items is not None and isinstance(value, list | tuple):
            for i, item in enumerate(value, 1):
                self.items.checked(item, f"{where}, entry {i}")
        return value


# What an annotation begins with, what that is in words, and whether a value is one.
_PLAIN: dict[str, tuple[str, Callable[[Any], bool]]] = {
    "str | Path": ("the path of a file", lambda value: isinstance(value, str | os.PathLike)),
    "str": ("a text", lambda value: isinstance(value, str)),
    "Callable[": ("a function", callable),
    "Mapping[": ("a mapping, such as a dict", lambda value: hasattr(value, "keys")),
    "Sequence[": ("several, such as a list", lambda value: hasattr(value, "__iter__")),
    "Iterable[": ("several, such as a list", lambda value: hasattr(value, "__iter__")),
}


def _plain(function: Callable[..., Any]) -> dict[str, Plain]:
    """The arguments whose annotation is one of the plain kinds, alone or with None."""
    found = {}
    for name, words in function.__annotations__.items():
        if name == "return" or not isinstance(words, str):
            continue
        alone = words.removesuffix(" | None")
        for kind in _PLAIN:
            if alone == kind or (kind.endswith("[") and alone.startswith(kind) and _one_bracket(alone)):
                item = alone[len(kind) : -1] if kind in ("Sequence[", "Iterable[") else ""
                known = re.fullmatch(r"[A-Z]\w*", item) is not None and item not in _NOT_CHECKED
                own = Noun((item,)) if known and _a_class(item, function) else None
                found[name] = Plain(kind, alone != words, own)
    return found


def _one_bracket(words: str) -> bool:
    """Whether the first bracket closes at the end, so that nothing else is named beside it."""
    depth = 0
    for i, sign in enumerate(words):
        depth += (sign == "[") - (sign == "]")
        if depth == 0 and sign == "]":
            return i == len(words) - 1
    return False


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
}
# Names in annotations that are no classes of ours, or that anything may be that has their methods.
_NOT_CHECKED = {
    "Any",
    "ArrayLike",
    "Margin",
    "OneSizeShape",
    "FloatArray",
    "IntArray",
    "Load",
    "None",
    "Shape",
    "TwoSizeShape",
    "Watch",
}
_BUILTIN = {"Path": ("PosixPath", "WindowsPath", "Path"), "None": ("NoneType",), "float": ("float", "int", "floating")}
_NAMES = re.compile(r"[A-Za-z]\w*(?:\s*\|\s*[A-Za-z]\w*)*")


def _nouns(function: Callable[..., Any]) -> dict[str, Noun]:
    """The arguments whose annotation names classes of ours."""
    nouns = {}
    for name, words in function.__annotations__.items():
        if name == "return" or not isinstance(words, str) or _NAMES.fullmatch(words.strip("'\"")) is None:
            continue
        names = [one.strip() for one in words.strip("'\"").split("|")]
        if any(name in _NOT_CHECKED - {"None"} for name in names) or not any(
            _a_class(name, function) for name in names
        ):
            continue
        nouns[name] = Noun(tuple(known for one in names for known in (*_BUILTIN.get(one, ()), one)))
    return nouns


def _a_class(name: str, function: Callable[..., Any]) -> bool:
    """Whether a name in an annotation is that of a class, and not of an alias."""
    meant = function.__globals__.get(name)
    return name[0].isupper() and name not in ("Path", "None") and (meant is None or isinstance(meant, type))


# Short words for what occurs most often.
def many(dimension: str = "number", **limits: Any) -> Takes:
    """One value or many."""
    return Takes(dimension=dimension, many=True, **limits)


def one(dimension: str = "number", **limits: Any) -> Takes:
    """One value."""
    return Takes(dimension=dimension, **limits)


LENGTH, LENGTHS = one("length", above=0.0), many("length", above=0.0)
LENGTH_OR_NONE, REACH = one("length", above=0.0, optional=True), one("length", above=0.0, may_be_infinite=True)
STRENGTH, STRESS, STRESSES = one("stress", above=0.0), one("stress"), many("stress")
FORCE, MOMENT, POISSON = one("force"), one("moment"), one(at_least=0.0, at_most=0.5)
FRONT_ANGLE = one("angle", degrees=True, at_least=0.0, at_most=180.0)


def opened(valid: Callable[..., None] | None = None, /, **takes: Takes) -> Callable[[Function], Function]:
    """Open a function: its arguments are made coherent and checked by `takes`; `.takes` keeps what was said.

    `valid` is called before with the same arguments by their names, and raises InputError where they do not go together.

    >>> @opened(force=one("force"), area=one(above=0.0))
    ... def stress(force, area):
    ...     return force / area
    >>> stress("2 kN", 10.0)
    200.0
    """

    def wrapped(function: Function) -> Function:
        names = list(inspect.signature(function).parameters)
        known: dict[str, Takes | Noun | Plain] = {**_plain(function), **_nouns(function), **takes}
        unknown = [name for name in takes if name not in names]
        assert not unknown, f"{function.__qualname__} has no {unknown}"
        places = [(names.index(name), name, how, *how.inside) for name, how in known.items()]
        title = function.__qualname__.replace("_", " ")

        @functools.wraps(function)
        def door(*given: Any, **named: Any) -> Any:
            values: list[Any] | None = None
            for at, name, how, low, high in places:
                if at < len(given):
                    value = given[at]
                    if isinstance(value, float) and low < value < high:  # the usual case, at no cost
                        continue
                    values = list(given) if values is None else values
                    values[at] = how.checked(value, f"{title}, {name}")
                elif name in named:
                    value = named[name]
                    if not (isinstance(value, float) and low < value < high):
                        named[name] = how.checked(value, f"{title}, {name}")
            ready = given if values is None else values
            if valid is not None:
                valid(**dict(zip(names, ready, strict=False)), **named)
            return function(*ready, **named)

        if names[:1] == ["path"]:
            door = _of_a_file(door)  # type: ignore[assignment]
        door.takes = cast(Mapping[str, Takes], takes)  # type: ignore[attr-defined]
        door.plain = _plain(function)  # type: ignore[attr-defined]
        return cast(Function, door)

    return wrapped


def _of_a_file(door: Callable[..., Any]) -> Callable[..., Any]:
    """What goes wrong inside is a fault of the file that was given."""

    @functools.wraps(door)
    def read(*given: Any, **named: Any) -> Any:
        path = given[0] if given else named.get("path")
        with in_file(Path(path).name if isinstance(path, str | Path) else ""):
            return door(*given, **named)

    return read


def inner(function: Function) -> Function:
    """The function behind its door, for loops whose values have been checked before."""
    return cast(Function, getattr(function, "__wrapped__", function))
