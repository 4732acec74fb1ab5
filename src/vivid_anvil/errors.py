"""The one error for input that cannot be used, and the suggestion of what was perhaps meant."""

from __future__ import annotations

import difflib
from collections.abc import Iterable


class InputError(ValueError):
    """Input that cannot be used: where it stands, what was found, what was expected, what to do.

    The parts are kept for programs; `args` holds them all, so the error crosses a process pool.

    >>> print(InputError("lap.csv, line 7", "'n/a'", "a number", "Cut the row out."))
    lap.csv, line 7: found 'n/a', expected a number. Cut the row out.
    """

    def __init__(self, where: str, found: str, expected: str, remedy: str = "") -> None:
        super().__init__(where, found, expected, remedy)
        self.where, self.found, self.expected, self.remedy = where, found, expected, remedy

    def __str__(self) -> str:
        return f"{self.where}: found {self.found}, expected {self.expected}. {self.remedy}".rstrip()


def did_you_mean(name: str, known: Iterable[str]) -> str:
    """A sentence with the known name nearest to `name`; empty where none is near.

    >>> did_you_mean("vertical force", ["vertical_force", "sway"])
    "Did you mean 'vertical_force'?"
    >>> did_you_mean("weld", ["bore of the pin", "toe of the weld"])
    "Did you mean 'toe of the weld'?"
    """
    by_lower = {word.lower(): word for word in known}
    parts = [word for word in by_lower if len(name) > 2 and name.lower() in word]
    near = parts or difflib.get_close_matches(name.lower(), by_lower, n=1, cutoff=0.5)
    return f"Did you mean {by_lower[near[0]]!r}?" if near else ""


def listed(names: Iterable[str]) -> str:
    """Names as they stand in an error: quoted, in their order, with commas."""
    return ", ".join(repr(name) for name in names)
