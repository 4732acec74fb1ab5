"""A table of choices: names that a study or an argument may give, and what each stands for.

A choice stands in one file: the decorator above its class or function puts it into the table, and the import of the file does the
rest. Options, messages, schema and tests read the table; nothing asks for a choice by its name.
"""

from __future__ import annotations

import functools
from collections.abc import Callable, Iterator
from importlib import import_module
from importlib.metadata import entry_points
from typing import Any, Generic, TypeVar

from vivid_anvil.ground.errors import InputError, did_you_mean, listed

T = TypeVar("T")
GROUP = "vivid_anvil.choices"  # entry points of installed packages: modules that add choices of their own


class Choices(Generic[T]):
    """What may be chosen, by name, in the order in which it was added; a class learns its name as its `kind`.

    >>> SEASONS = Choices("season")
    >>> @SEASONS.add("winter")
    ... def cold() -> int:
    ...     return -5
    >>> SEASONS["winter"](), list(SEASONS)
    (-5, ['winter'])
    >>> SEASONS["wintre"]
    Traceback (most recent call last):
        ...
    vivid_anvil.ground.errors.InputError: season: found 'wintre', expected one of 'winter'. Did you mean 'winter'?
    """

    def __init__(self, what: str) -> None:
        self.what = what
        self._known: dict[str, T] = {}

    def add(self, name: str) -> Callable[[Any], Any]:
        """A decorator that puts what it stands above into the table; InputError for a name that another one has."""

        def added(choice: Any) -> Any:
            have: Any = self._known.get(name)
            if have is not None and not _same_place(have, choice):
                raise InputError(f"{self.what}, a new choice", repr(name), "a name that none has yet")
            self._known[name] = choice
            if isinstance(choice, type):
                choice.kind = name  # type: ignore[attr-defined]  # how it calls itself, said once
            return choice

        return added

    def get(self, name: object, where: str | None = None) -> T:
        """The choice of that name; InputError at `where`, with the nearest name, for any other."""
        if isinstance(name, str):
            if name not in self._known:
                _load_installed()
            if name in self._known:
                return self._known[name]
        found = repr(name) if len(repr(name)) < 60 else f"{repr(name)[:57]}..."
        raise InputError(where or self.what, found, f"one of {listed(self)}", did_you_mean(str(name)[:200], self))

    def name_of(self, choice: object) -> str:
        """The name under which a choice stands."""
        return next(name for name, one in self._known.items() if one is choice)

    def __getitem__(self, name: str) -> T:
        return self.get(name)

    def __iter__(self) -> Iterator[str]:
        _load_installed()
        return iter(tuple(self._known))

    def __contains__(self, name: object) -> bool:
        return name in self._known or (isinstance(name, str) and name in tuple(self))

    def __len__(self) -> int:
        _load_installed()
        return len(self._known)

    def values(self) -> tuple[T, ...]:
        """What the names stand for."""
        return tuple(self._known[name] for name in self)

    def items(self) -> tuple[tuple[str, T], ...]:
        """Names and what they stand for."""
        return tuple((name, self._known[name]) for name in self)

    def __repr__(self) -> str:
        return f"<Choices of {self.what}: {', '.join(self)}>"


def _same_place(one: Any, other: Any) -> bool:
    """Whether both are the same definition, met again when its file is loaded a second time."""
    return (one.__module__, one.__qualname__) == (other.__module__, other.__qualname__)


@functools.cache
def _load_installed() -> None:
    """Import what installed packages add."""
    for point in entry_points(group=GROUP):
        import_module(point.module)
