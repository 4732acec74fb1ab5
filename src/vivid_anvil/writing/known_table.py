"""Tables whose columns are known by name: title rows above, headings as people write them, blocks of columns side by side."""

from __future__ import annotations

import csv
from collections.abc import Mapping, Sequence
from dataclasses import dataclass
from pathlib import Path
from typing import Any

from vivid_anvil.ground.errors import InputError, inside
from vivid_anvil.ground.files import existing, read_by_others
from vivid_anvil.writing.headings import Heading, column_meant, headings
from vivid_anvil.writing.read_table import workbook

ROWS_ABOVE = 20  # titles and remarks that may stand above the headings
ALL = "all"


@dataclass(frozen=True)
class KnownTable:
    """The columns of a block as a data frame by the names of known columns, the headings as understood, and the place."""

    frame: Any
    headings: tuple[Heading, ...]
    where: str

    def __contains__(self, column: str) -> bool:
        return column in [heading.column for heading in self.headings]

    def unit(self, column: str) -> str:
        """The unit in the heading of a column; "" for none."""
        return next(heading.unit for heading in self.headings if heading.column == column)

    @property
    def told(self) -> str:
        """How the headings were understood, and where they stand."""
        return f"{self.where}: {', '.join(map(str, self.headings))}"


@read_by_others("a table in text or a workbook")
def read_known(
    path: str | Path,
    known: Sequence[str],
    *,
    what: str,
    sheet: str | int = 0,
    block: int | str | None = None,
    hints: Mapping[str, str] | None = None,
) -> KnownTable:
    """The table in a text file or on a sheet whose headings mean some of the columns `known`.

    The headings stand in the first row with two of them, titles above are skipped. Where columns come again to the right there
    are several blocks, and `block` says which, from 1; "all" puts them one below the other.
    Raises InputError for headings that are not known, for several blocks where none is chosen, and for a file without.
    """
    file = existing(path, what)
    rows, where = _workbook_rows(file, sheet) if file.suffix.lower() in (".xlsx", ".xlsm") else _text_rows(file)
    at = next((i for i, row in enumerate(rows[:ROWS_ABOVE]) if _known_in(row, known) >= min(2, len(known))), None)
    if at is None:
        at = next((i for i, row in enumerate(rows) if _filled(row)), 0)  # its cells say what is wrong
    if len(rows) < at + 2:
        raise InputError(where, f"{len(rows)} rows", "a header and at least one row of values")
    longer = next((i for i, row in enumerate(rows[at + 1 :], start=1) if len(row) > len(rows[at])), None)
    if longer is not None:
        found_here = f"{len(rows[at + longer])} cells"
        raise InputError(inside(where, f"row {longer}"), found_here, f"as many cells as in the header, {len(rows[at])}")
    blocks = _blocks(rows[at], known)
    named = [headings([_text(rows[at][i]) for i in block], known, where, hints or {}) for block in blocks]
    chosen = _chosen(block, [", ".join(one.cell for one in heads) for heads in named], where)
    parts = [_frame(rows[at + 1 :], blocks[number], named[number]) for number in chosen]
    if len({tuple((one.column, one.unit) for one in named[number]) for number in chosen}) > 1:
        raise InputError(where, "blocks with different columns", "alike ones to put together", "Choose one: block = 1.")
    if len(blocks) > 1:
        where = inside(where, f"block {block}")
    frame = parts[0] if len(parts) == 1 else _stacked(parts)
    if not len(frame):
        raise InputError(where, "no rows below the header", "at least one row of values")
    return KnownTable(frame, tuple(named[chosen[0]]), where)


def _known_in(row: Sequence[Any], known: Sequence[str]) -> int:
    return len({column_meant(cell, known) for cell in row if isinstance(cell, str)} - {None})


def _filled(row: Sequence[Any]) -> list[int]:
    return [i for i, cell in enumerate(row) if _text(cell)]


def _text(cell: Any) -> str:
    return (
        "" if cell is None or cell != cell else str(cell).strip()
    )  # an empty cell of a workbook is not equal to itself


def _blocks(row: Sequence[Any], known: Sequence[str]) -> list[list[int]]:
    """Places of the columns of each block: a new one begins where a column comes again, or after an empty one."""
    blocks: list[list[int]] = [[]]
    seen: set[str] = set()
    last = -1
    for i in _filled(row):
        column = column_meant(_text(row[i]), known) or _text(row[i])
        if blocks[-1] and column in seen and (last < i - 1 or column == _first(row, blocks[-1], known)):
            blocks.append([])
            seen = set()
        blocks[-1].append(i)
        seen.add(column)
        last = i
    return blocks


def _first(row: Sequence[Any], block: Sequence[int], known: Sequence[str]) -> str:
    cell = _text(row[block[0]])
    return column_meant(cell, known) or cell


def _chosen(block: int | str | None, names: Sequence[str], where: str) -> list[int]:
    """Which blocks are meant."""
    if block == ALL:
        return list(range(len(names)))
    if block is None and len(names) == 1:
        return [0]
    if block is None or isinstance(block, str | bool) or not 1 <= block <= len(names):
        listed = "; ".join(f"{i} ({name})" for i, name in enumerate(names, start=1))
        found = f"{len(names)} blocks of columns side by side" if block is None else f"block {block!r}"
        raise InputError(
            where, found, f"one of {listed}", 'Say which: block = 1, or block = "all" for one table in several blocks.'
        )
    return [block - 1]


def _frame(rows: Sequence[Sequence[Any]], places: Sequence[int], heads: Sequence[Heading]) -> Any:
    import pandas as pd

    cells = [[row[i] if i < len(row) else None for i in places] for row in rows]
    kept = [row for row in cells if any(_text(cell) for cell in row)]
    return pd.DataFrame(kept, columns=[one.column for one in heads], dtype=object)


def _stacked(parts: Sequence[Any]) -> Any:
    import pandas as pd

    return pd.concat(parts, ignore_index=True)


def _workbook_rows(path: Path, sheet: str | int) -> tuple[list[list[Any]], str]:
    frame, where = workbook(path, sheet, 0)
    return frame.values.tolist(), where


def _text_rows(path: Path) -> tuple[list[list[Any]], str]:
    """Rows of cells; comma, semicolon or tab between them, point or comma in decimals, lines with # left out."""
    try:
        text = path.read_text(encoding="utf-8-sig")
    except UnicodeDecodeError:
        raise InputError(path.name, "bytes that are not UTF-8 text", "a text file in UTF-8, or .xlsx") from None
    lines = [line for line in text.splitlines() if line.strip() and not line.lstrip().startswith("#")]
    mark = next((one for one in (";", "\t") if any(one in line for line in lines[:ROWS_ABOVE])), ",")
    rows = [[cell.strip() for cell in row] for row in csv.reader(lines, delimiter=mark, skipinitialspace=True)]
    if mark != ",":
        rows = [[_with_point(cell) for cell in row] for row in rows]
    return rows, path.name


def _with_point(cell: str) -> str:
    """A number with a decimal comma with a point instead; other text as it is."""
    changed = cell.replace(",", ".")
    try:
        float(changed)
    except ValueError:
        return cell
    return changed
