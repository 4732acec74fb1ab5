"""The door of public functions: what they are given is made coherent, and checked, before they see it.

`@opened(force=Takes("force"), size=Takes("length", above=0.0))` over a function says for each of its arguments what it is.
A float stays as it is; text, quantities, array quantities and headed columns are converted; anything else is an InputError.
"""

from __future__ import annotations

import functools
import inspect
import math
from collections.abc import Callable, Mapping
from dataclasses import dataclass
from pathlib import Path
from typing import Any, TypeVar, cast

import numpy as np

from vivid_anvil.ground.checks import FloatArray
from vivid_anvil.ground.errors import InputError, in_file, shortened
from vivid_anvil.units.dimensions import DIMENSIONS
from vivid_anvil.units.kinds import Noun, Plain, kinds_of
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
        kinds = kinds_of(function)
        known: dict[str, Takes | Noun | Plain] = {**kinds, **takes}
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
            try:
                return function(*ready, **named)
            except OverflowError:
                raise InputError(
                    title, "values too large to compute with", "smaller ones", "Is one of them in another unit?"
                ) from None

        if names[:1] == ["path"]:
            door = _of_a_file(door)  # type: ignore[assignment]
        door.takes = cast(Mapping[str, Takes], takes)  # type: ignore[attr-defined]
        door.plain = {name: kind for name, kind in kinds.items() if isinstance(kind, Plain)}  # type: ignore[attr-defined]
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
