"""Loops compiled by numba, kept on disk where there is a place for it: the only way to compile in this package."""

from __future__ import annotations

from collections.abc import Callable, Iterator
from contextlib import contextmanager
from functools import cache
from typing import Any

_told: list[Callable[[], None]] = []  # what is called when a loop begins to be compiled


@contextmanager
def told_of_compiling(tell: Callable[[], None]) -> Iterator[None]:
    """Call `tell` whenever a loop begins to be compiled, which takes seconds, once on a machine."""
    _told.append(tell)
    try:
        yield
    finally:
        _told.remove(tell)


@cache
def _listening() -> None:
    """Let numba tell `_told`."""
    from numba.core import event

    class Listener(event.Listener):
        def on_start(self, event: Any) -> None:
            for tell in list(_told):
                tell()

        def on_end(self, event: Any) -> None:
            pass

    event.register("numba:compile", Listener())  # type: ignore[no-untyped-call]


def compiled(function: Callable[..., Any] | None = None, **options: Any) -> Any:
    """`numba.njit` of a function, with its result kept for the next process; without, where nothing can be written.

    Threads run beside it, and numbers behave as NumPy's: a division by 0 gives inf or nan, and raises nothing. A loop that might
    raise takes one number at a time, others several.
    """
    from numba import njit

    _listening()
    how = {"nogil": True, "error_model": "numpy", **options}

    def made(plain: Callable[..., Any]) -> Any:
        try:
            found = njit(cache=True, **how)(plain)
        except RuntimeError:  # no folder for the cache: no home, and the package is read-only
            return njit(**how)(plain)
        _stamp_with_callees(found, plain)
        return found

    return made if function is None else made(function)


def _stamp_with_callees(loop: Any, plain: Callable[..., Any]) -> None:
    """Let what is kept of a loop go out of date when a compiled function that it calls is edited, in whatever file.

    numba looks at the file of the loop alone, and has no open door for more. Callees stand above: their own are in their stamp.
    """
    if not hasattr(loop, "_cache"):  # NUMBA_DISABLE_JIT
        return
    called: Iterator[Any] = (plain.__globals__.get(name) for name in plain.__code__.co_names)
    files = (getattr(getattr(callee, "_cache", None), "_cache_file", None) for callee in called)
    stamps = sorted({str(file._source_stamp) for file in files if file is not None})
    if stamps:
        kept = loop._cache._cache_file
        kept._source_stamp = (kept._source_stamp, *stamps)
