"""Loops compiled by numba, kept on disk where there is a place for it: the only way to compile in this package."""

from __future__ import annotations

from collections.abc import Callable
from typing import Any


def compiled(function: Callable[..., Any] | None = None, **options: Any) -> Any:
    """`numba.njit` of a function, with its result kept for the next process; without, where nothing can be written."""
    from numba import njit

    def made(plain: Callable[..., Any]) -> Any:
        try:
            return njit(cache=True, **options)(plain)
        except RuntimeError:  # no folder for the cache: no home, and the package is read-only
            return njit(**options)(plain)

    return made if function is None else made(function)
