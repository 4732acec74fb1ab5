"""The one error for input that cannot be used, and the suggestion of what was perhaps meant."""

from __future__ import annotations

import difflib
from collections.abc import Iterable, Iterator
from contextlib import contextmanager

MOST_LISTED = 40  # names in one message


class Place(str):
    """Where a fault stands, from the outside in, as it is read; its parts are kept, and the name of the file it is in.

    >>> place = inside("hot spot toe", "notch_factor")
    >>> place, place.parts, place.file
    ('hot spot toe, notch_factor', ('hot spot toe', 'notch_factor'), '')
    """

    parts: tuple[str, ...]
    file: str

    def __new__(cls, text: str, parts: tuple[str, ...] = (), file: str = "") -> Place:  # noqa: D102
        made = super().__new__(cls, text)
        made.parts, made.file = parts or (text,), file
        return made


def field_of(noun: str, field: str) -> Place:
    """The place of a field of a noun."""
    return Place(f"{noun}.{field}", (noun, field))


def inside(where: str, *parts: str) -> Place:
    """The place `parts` inside another one."""
    outer = where if isinstance(where, Place) else Place(where)
    return Place(", ".join((where, *parts)), (*outer.parts, *parts), outer.file)


class InputError(ValueError):
    """Input that cannot be used: where it stands, what was found, what was expected, what to do.

    The parts are kept for programs; `args` holds them all, so the error crosses a process pool.

    Parameters
    ----------
    where : str
        Where it stands.
    found : str
        What was found.
    expected : str
        What was expected.
    remedy : str, default ""
        What to do.

    Examples
    --------
    >>> print(InputError("lap.csv, line 7", "'n/a'", "a number", "Cut the row out."))
    lap.csv, line 7: found 'n/a', expected a number. Cut the row out.
    """

    def __init__(self, where: str, found: str, expected: str, remedy: str = "") -> None:
        parts = (_capped(where), _capped(found), _capped(expected, 2000), _capped(remedy, 2000))
        super().__init__(*parts)
        self.where, self.found, self.expected, self.remedy = parts
        self.place = where if isinstance(where, Place) else Place(where)

    def __str__(self) -> str:
        return f"{self.where}: found {self.found}, expected {self.expected}. {self.remedy}".rstrip()


@contextmanager
def in_file(name: str) -> Iterator[None]:
    """Errors raised inside are faults of that file, unless they name one themselves."""
    try:
        yield
    except InputError as error:
        if not error.place.file:
            error.place = Place(error.place, error.place.parts, name)
        raise


@contextmanager
def within(where: str) -> Iterator[None]:
    """Errors raised inside say first where: the place that what was called does not know.

    >>> with within("hot spot toe"):
    ...     raise InputError("stress_per_load", "0", "a stress for the load")
    Traceback (most recent call last):
        ...
    vivid_anvil.ground.errors.InputError: hot spot toe, stress_per_load: found 0, expected a stress for the load.
    """
    try:
        yield
    except InputError as error:
        inner = error.place
        place = inner if inner.startswith(where) else Place(f"{where}, {inner}", (where, *inner.parts), inner.file)
        raise InputError(place, error.found, error.expected, error.remedy) from None


def _capped(text: str, most: int = 400) -> str:
    """A part of a message, cut where it quotes something endless."""
    return text if len(text) <= most else f"{text[: most - 20]}... ({len(text)} characters)"


def shortened(value: object) -> str:
    """What was found, for an error: at most about 60 characters.

    >>> shortened("x" * 100)
    "'xxxxxxxxxxxxxxxxxxxxxxxxxxxxxxxxxxxxxxxxxxxxxxxxxxxxxxxxx..."
    """
    if isinstance(value, str | bytes):
        value = value[:200]
    elif isinstance(value, int) and not isinstance(value, bool) and abs(value) >= 10**50:
        return "a whole number of more than 50 digits"
    text = repr(value)
    return text if len(text) <= 61 else f"{text[:58]}..."


def did_you_mean(name: object, known: Iterable[str]) -> str:
    """A sentence with the known name nearest to `name`; empty where none is near.

    >>> did_you_mean("vertical force", ["vertical_force", "sway"])
    "Did you mean 'vertical_force'?"
    >>> did_you_mean("weld", ["bore of the pin", "toe of the weld"])
    "Did you mean 'toe of the weld'?"
    """
    if not isinstance(name, str):
        return ""
    by_lower = {word.lower(): word for word in known}
    parts = [word for word in by_lower if len(name) > 2 and name.lower() in word]
    near = parts or difflib.get_close_matches(name.lower(), by_lower, n=1, cutoff=0.5)
    return f"Did you mean {by_lower[near[0]]!r}?" if near else ""


def listed(names: Iterable[str]) -> str:
    """Names as they stand in an error: quoted, in their order, with commas."""
    every = list(names)
    words = [repr(name) if len(str(name)) <= 60 else f"{str(name)[:57]!r}..." for name in every[:MOST_LISTED]]
    return ", ".join(words) + ("" if len(every) <= MOST_LISTED else f" and {len(every) - MOST_LISTED} more")
