"""Nouns that say which of their fields is not what it should be, where they would only stumble over it."""

from __future__ import annotations

import dataclasses
import functools
import inspect
from collections.abc import Callable
from typing import Any, TypeVar

from vivid_anvil.ground.errors import InputError, Place
from vivid_anvil.units.kinds import Noun, Plain, kinds_of

Class = TypeVar("Class", bound=type)


def sound(cls: Class) -> Class:
    """Over a dataclass: where it stumbles over a field that is not what its annotation says, InputError at `Class.field`.

    What the class says itself comes first: it knows more. Values with units have doors of their own (`Coherent`), and arrays
    may still be lists here.

    >>> @sound
    ... @dataclasses.dataclass(frozen=True)
    ... class Bolt:
    ...     name: str
    ...
    ...     def __post_init__(self):
    ...         self.name.upper()
    >>> Bolt(3)
    Traceback (most recent call last):
        ...
    vivid_anvil.ground.errors.InputError: Bolt.name: found 3, expected a text.
    """
    made: Callable[..., None] = cls.__init__  # type: ignore[misc]
    names = list(inspect.signature(made).parameters)[1:]
    kinds = {name: _as_given(kind) for name, kind in kinds_of(made).items() if not _has_a_door(cls, name)}

    @functools.wraps(made)
    def asked(self: Any, *given: Any, **named: Any) -> None:
        try:
            made(self, *given, **named)
        except InputError:
            raise
        except Exception:
            for name, value in (*zip(names, given, strict=False), *named.items()):
                if name in kinds:
                    kinds[name].checked(value, Place(f"{cls.__name__}.{name}", (cls.__name__, name)))
            raise

    cls.__init__ = asked  # type: ignore[misc]
    return cls


def _has_a_door(cls: type, name: str) -> bool:
    """Whether the field converts what it is given itself."""
    fields = [vars(base)[name] for base in cls.__mro__ if name in vars(base)]
    return any(hasattr(type(one), "__set__") and not inspect.ismemberdescriptor(one) for one in fields)


def _as_given(kind: Noun | Plain) -> Noun | Plain:
    """Arrays as they are given: one or many, with or without units."""
    if isinstance(kind, Noun):
        return kind
    kinds = tuple("one or many" if one == "array" else one for one in kind.kinds)
    return dataclasses.replace(kind, kinds=kinds)
