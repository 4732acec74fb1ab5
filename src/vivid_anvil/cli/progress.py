"""A progress bar on the error stream, for people only: nothing of it reaches a pipe or a file."""

from __future__ import annotations

from collections.abc import Callable, Iterator
from contextlib import contextmanager

from vivid_anvil.cli.words import quiet
from vivid_anvil.ground.compiled import told_of_compiling


@contextmanager
def progress(first: str) -> Iterator[Callable[[str, int, int], None]]:
    """Show how far the work is; yields the function to tell it: `watch(label, done, of)`."""
    from rich.console import Console
    from rich.progress import BarColumn, Progress, SpinnerColumn, TextColumn, TimeElapsedColumn, TimeRemainingColumn

    console = Console(stderr=True)
    columns = (
        SpinnerColumn(),
        TextColumn("{task.description}"),
        BarColumn(bar_width=24),
        TimeElapsedColumn(),
        TextColumn("left"),
        TimeRemainingColumn(),
    )
    with Progress(*columns, console=console, transient=True, disable=quiet() or not console.is_terminal) as bar:
        task = bar.add_task(first, total=None)

        shown = first

        def watch(label: str, done: int, of: int) -> None:
            nonlocal shown
            if label != shown:  # the time left is that of this piece of work
                bar.reset(task, description=label, total=max(of, 1))
                shown = label
            bar.update(task, description=label, completed=done, total=max(of, 1))

        def compiling() -> None:
            bar.update(task, description=f"{shown} (compiling, once)")
            bar.refresh()

        with told_of_compiling(compiling):
            yield watch
