"""Fields of nouns that take "185 MPa", a quantity or a coherent float, and are a coherent float from then on.

Descriptor-typed dataclass fields: the conversion and the limit stand once, where the field is declared.
"""

from __future__ import annotations

import math
from typing import Any

from vivid_anvil.ground.checks import place, positive_number
from vivid_anvil.ground.errors import InputError
from vivid_anvil.units.dimensions import DIMENSIONS
from vivid_anvil.units.door import coherent
from vivid_anvil.units.growth_constants import EXAMPLE
from vivid_anvil.units.temperature import celsius

_REQUIRED: Any = object()


class Coherent:
    """A required or defaulted field of `dimension`; with limits in the coherent unit."""

    def __init__(
        self,
        dimension: str,
        *,
        above: float | None = None,
        at_least: float | None = None,
        below: float | None = None,
        default: Any = _REQUIRED,
    ) -> None:
        self.dimension, self.above, self.at_least, self.below, self.default = dimension, above, at_least, below, default

    def __set_name__(self, owner: type, name: str) -> None:
        self.name = name

    def __get__(self, noun: object | None, owner: type) -> float:
        if noun is None:
            if self.default is _REQUIRED:
                raise AttributeError(self.name)  # a dataclass reads this as: no default
            return self.default  # type: ignore[no-any-return]
        return noun.__dict__[self.name]  # type: ignore[no-any-return]

    def __set__(self, noun: object, value: Any) -> None:
        noun.__dict__[self.name] = self.checked(place(noun, self.name), value)

    def checked(self, where: str, value: Any) -> float:
        """`value` as a coherent float within the limits; otherwise InputError at `where`."""
        number = coherent(value, self.dimension, where)
        unit = "" if self.dimension == "number" else f" {DIMENSIONS[self.dimension].coherent}"
        if self.above is not None and not number > self.above:
            raise InputError(where, f"{number:g}{unit}", f"a value above {self.above:g}{unit}")
        if self.at_least is not None and not number >= self.at_least:
            raise InputError(where, f"{number:g}{unit}", f"a value of at least {self.at_least:g}{unit}")
        if self.below is not None and not number < self.below:
            limit = "a finite number" if math.isinf(self.below) else f"a value below {self.below:g}{unit}"
            raise InputError(where, f"{number:g}{unit}", limit)
        return number


class OptionalCoherent(Coherent):
    """The same, but the field may be left out, and is None then."""

    def __init__(
        self, dimension: str, *, above: float | None = None, at_least: float | None = None, below: float | None = None
    ) -> None:
        super().__init__(dimension, above=above, at_least=at_least, below=below, default=None)

    def __get__(self, noun: object | None, owner: type) -> float | None:  # type: ignore[override]
        return super().__get__(noun, owner)

    def __set__(self, noun: object, value: Any) -> None:
        noun.__dict__[self.name] = None if value is None else self.checked(place(noun, self.name), value)


class Temperature:
    """An optional field for a temperature: text with its scale, or °C."""

    def __set_name__(self, owner: type, name: str) -> None:
        self.name = name

    def __get__(self, noun: object | None, owner: type) -> float | None:
        return None if noun is None else noun.__dict__[self.name]

    def __set__(self, noun: object, value: Any) -> None:
        noun.__dict__[self.name] = None if value is None else celsius(value, place(noun, self.name))


class GrowthRate:
    """The field for the constant of a growth law: text such as "6.9e-12 m/cycle at 1 MPa√m", or C in mm/cycle and MPa√mm."""

    def __set_name__(self, owner: type, name: str) -> None:
        self.name = name

    def __get__(self, noun: object | None, owner: type) -> str | float:
        if noun is None:
            raise AttributeError(self.name)  # a dataclass reads this as: no default
        return noun.__dict__[self.name]  # type: ignore[no-any-return]

    def __set__(self, noun: object, value: str | float) -> None:
        where = place(noun, self.name)
        if not isinstance(value, str):
            value = positive_number(where, value, f"text such as {EXAMPLE!r}, or C above 0 in mm/cycle and MPa√mm")
        noun.__dict__[self.name] = value
