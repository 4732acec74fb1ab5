"""Pages and tables in a terminal and in a pipe, readable at 80 columns."""

from __future__ import annotations

import os
from collections.abc import Iterable, Sequence
from pathlib import Path

from rich import box
from rich.console import Console, Group, RenderableType
from rich.padding import Padding
from rich.table import Table as Grid
from rich.text import Text

from vivid_anvil.cli.words import CODES, quiet
from vivid_anvil.units import UnitSystem
from vivid_anvil.writing.finding import Finding, gravest_first
from vivid_anvil.writing.result import Page, Words
from vivid_anvil.writing.table import Table

WIDTH, WIDEST = 80, 160
SHORT = 16  # letters of a cell that is not folded
_COLOURS = {"note": "cyan", "warning": "yellow", "severe": "bold red"}


def console() -> Console:
    """The console of all tables, silent where asked to be: at most 160 columns wide; in a pipe 80, or what COLUMNS says."""
    out = Console(highlight=False, markup=False, emoji=False, quiet=quiet())  # names are text, whatever they look like
    stated = out.is_terminal or os.environ.get("COLUMNS", "").isdecimal()
    out.width = min(max(out.width, 40), WIDEST) if stated else WIDTH
    return out


def page(made: Page, units: UnitSystem) -> RenderableType:
    """A page: its title, words, tables and findings."""
    parts: list[RenderableType] = [heading(made.title)] if made.title else []
    if made.words:
        parts.append(words_grid(made.words))
    parts += [table(one, units) for one in made.tables]
    if made.findings is not None:
        parts += [*([Text("")] if made.tables else []), findings_list(made.findings)]
    return Group(*parts)


def words_grid(words: Words) -> RenderableType:
    """Labels and what they say, one below the other; sentences without a label over the whole width."""
    parts: list[RenderableType] = []
    grid = Grid.grid(padding=(0, 2))
    for label, text in words:
        if label:
            grid.add_row(f"  {label}", text)
            continue
        if grid.row_count:
            parts.append(grid)
        parts.append(indented(text))
        grid = Grid.grid(padding=(0, 2))
    return Group(*parts, *([grid] if grid.row_count else []))


def table(given: Table, units: UnitSystem) -> RenderableType:
    """A table with its title before it and its note below, one empty line before and none after."""
    on_page = given.on_page(units)
    made = Grid(box=box.SIMPLE_HEAD, padding=(0, 1, 0, 0), show_edge=False)
    for i, (head, left) in enumerate(zip(on_page.heads, on_page.left, strict=True)):
        made.add_column(
            Text(head), justify="left" if left else "right", overflow="fold", no_wrap=i == 0 and _short(on_page.rows)
        )
    for i, row in enumerate(on_page.rows):
        made.add_row(*(Text(cell, style="red" if (i, k) in on_page.bad else "") for k, cell in enumerate(row)))
    title = [Text(f"\n{on_page.title}", style="bold")] if on_page.title else []
    return Group(*(title or [Text("")]), made, *([indented(on_page.note)] if on_page.note else []))


def _short(rows: list[list[str]]) -> bool:
    """Whether the first column is to stay on one line each: short, or of names without blanks."""
    return all(len(row[0]) <= SHORT or " " not in row[0] for row in rows)


def heading(text: str) -> Text:
    """A bold line with an empty one before."""
    return Text(f"\n{text}", style="bold")


def indented(text: str) -> RenderableType:
    """A paragraph set in from the left."""
    return Padding(Text(text), (0, 0, 0, 2))


def findings_list(findings: Iterable[Finding]) -> RenderableType:
    """Findings, each as severity and code, sentence and advice; the codes are noted, to be explained at the end."""
    findings = list(findings)
    CODES.get([]).extend(finding.code for finding in findings)
    lines = [
        Padding(
            Text.assemble(
                (f"{finding.severity}: ", _COLOURS[finding.severity]),
                f"{finding.sentence} {finding.advice} [{finding.code}]",
            ),
            (0, 0, 0, 2),
        )
        for finding in findings
    ]
    return Group(*lines) if lines else indented("no findings")


def findings_summary(findings: Iterable[Finding], where: str = "") -> RenderableType:
    """How many findings there are, and the gravest of them; `where` names the command that shows all."""
    every = gravest_first(findings)
    if not every:
        return indented("No findings.")
    counts = [(kind, sum(one.severity == kind for one in every)) for kind in ("severe", "warning", "note")]
    words = ", ".join(
        f"{many} {kind if many == 1 or kind == 'severe' else kind + 's'}" for kind, many in counts if many
    )
    if len(every) == 1:
        return Group(indented("One finding:"), findings_list(every))
    more = f"; all of them: {where}" if where else ""
    head = indented(f"{len(every)} findings ({words}{more}). The gravest:")
    return Group(head, findings_list(every[:1]))


def say_meanings(codes: Sequence[str]) -> None:
    """The line that explains the codes in brackets, by the first of them."""
    console().print(f"  Meaning of codes in brackets: vivid-anvil meaning {codes[0]}", soft_wrap=True)


def say_written(out: Console, written: Sequence[Path]) -> None:
    """Name the files that were written."""
    for path in written:
        out.print(f"Written: {path}", soft_wrap=True)
