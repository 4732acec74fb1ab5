"""Loops compiled by numba, kept on disk where there is a place for it: the only way to compile in this package."""

from __future__ import annotations

from collections.abc import Callable
from typing import Any


def compiled(function: Callable[..., Any] | None = None, **options: Any) -> Any:
    """`numba.njit` of a function, with its result kept for the next process; without, where nothing can be written.

    Threads run beside it, and numbers behave as NumPy's: a division by 0 gives inf or nan, and raises nothing. A loop that might
    raise takes one number at a time, others several.
    """
    from numba import njit

    how = {"nogil": True, "error_model": "numpy", **options}

    def made(plain: Callable[..., Any]) -> Any:
        try:
            return njit(cache=True, **how)(plain)
        except RuntimeError:  # no folder for the cache: no home, and the package is read-only
            return njit(**how)(plain)

    return made if function is None else made(function)
