"""Fields of nouns that take "185 MPa", a quantity or a coherent float, and are a coherent float from then on.

Descriptor-typed dataclass fields: the conversion and the limit stand once, where the field is declared.
"""

from __future__ import annotations

from typing import Any

from vivid_anvil.ground.checks import place
from vivid_anvil.ground.errors import InputError
from vivid_anvil.units.dimensions import DIMENSIONS
from vivid_anvil.units.door import coherent

_REQUIRED: Any = object()


class Coherent:
    """A required or defaulted field of `dimension`; with `above` or `at_least` as limits in the coherent unit."""

    def __init__(
        self, dimension: str, *, above: float | None = None, at_least: float | None = None, default: Any = _REQUIRED
    ) -> None:
        self.dimension, self.above, self.at_least, self.default = dimension, above, at_least, default

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
        unit = DIMENSIONS[self.dimension].coherent
        if self.above is not None and not number > self.above:
            raise InputError(where, f"{number:g} {unit}", f"a value above {self.above:g} {unit}")
        if self.at_least is not None and not number >= self.at_least:
            raise InputError(where, f"{number:g} {unit}", f"a value of at least {self.at_least:g} {unit}")
        return number


class OptionalCoherent(Coherent):
    """The same, but the field may be left out, and is None then."""

    def __init__(self, dimension: str, *, above: float | None = None, at_least: float | None = None) -> None:
        super().__init__(dimension, above=above, at_least=at_least, default=None)

    def __get__(self, noun: object | None, owner: type) -> float | None:  # type: ignore[override]
        return super().__get__(noun, owner)

    def __set__(self, noun: object, value: Any) -> None:
        noun.__dict__[self.name] = None if value is None else self.checked(place(noun, self.name), value)
