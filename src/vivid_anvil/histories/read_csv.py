"""Read a load history from a text file whose header names each channel with its unit.

In: `time [s],vertical force [kN]` and rows of numbers; comma, semicolon or tab between columns, point or comma in
decimals, comment lines before the header: detected, or given. A time column of equal steps gives the sample rate, or
the caller states it. Out: `LoadHistory`. Nothing is repaired: text in a number column, a gap, unequal steps, repeated or
falling time are errors that name file, line and column.
"""

from __future__ import annotations

from collections.abc import Iterable, Iterator, Mapping, Sequence
from dataclasses import dataclass
from pathlib import Path
from typing import Any

import numpy as np

from vivid_anvil.ground import checks
from vivid_anvil.ground.checks import FloatArray
from vivid_anvil.ground.errors import InputError, shortened
from vivid_anvil.ground.files import existing
from vivid_anvil.histories.block_of_text import NotClean, columns_of_block, parsed_blocks
from vivid_anvil.histories.columns import EVEN, SHORT, history_of
from vivid_anvil.histories.load_history import LoadHistory
from vivid_anvil.units import opened
from vivid_anvil.writing.read_table import DATE_TIME, Header, headers

DELIMITERS = {"comma": ",", "semicolon": ";", "tab": "\t"}
_COMMENTS = ("#", "//", "%", "!")
_GAP = "Cut the row out or fill it before, and keep a note of it: nothing is repaired here."


@dataclass(frozen=True, slots=True)
class TextForm:
    """How a text file is written: encoding, delimiter, decimal mark, and on which line (from 1) the header stands."""

    encoding: str
    delimiter: str
    decimal: str
    header_line: int
    cells: tuple[str, ...]


@opened()
def read_csv(
    path: str | Path,
    *,
    sample_rate: float | str | None = None,
    name: str | None = None,
    units: Mapping[str, str] | None = None,
    delimiter: str | None = None,
    decimal: str | None = None,
    encoding: str | None = None,
    header_line: int | None = None,
    rows: str = EVEN,
) -> LoadHistory:
    """The load history in the text file `path`.

    `sample_rate`, Hz or text such as "100 Hz", is needed where there is no column `time [s]`; where there is one, the two must
    agree within 1 %. The first column is the time where its unit is one, whatever its name; a column `time` without unit holds
    date-times. With `rows="peaks and valleys"` times may be uneven, or missing. `units` gives the units of columns whose header
    has none. `delimiter` ("comma", "semicolon", "tab"), `decimal` ("." or ","), `encoding` and `header_line` (from 1) are
    detected unless given. `name` is the file's name by default.

    Parameters
    ----------
    path : str or path
        The file.
    sample_rate : float or str, optional
        Samples a second, Hz, or text such as "100 Hz"; where the data say it themselves it is not needed.
    name : str, optional
        What it is called in messages, tables and reports.
    units : mapping of str to str, optional
        Units of columns whose heading has none.
    delimiter : str, optional
        Between cells: "comma", "semicolon" or "tab"; detected unless given.
    decimal : str, optional
        The decimal sign, "." or ","; detected unless given.
    encoding : str, optional
        Encoding of the text; detected unless given.
    header_line : int, optional
        Line of the headings, from 1; detected unless given.
    rows : str, default "samples at even steps"
        What a row is: "samples at even steps", or "peaks and valleys", whose times may be uneven or missing.

    Returns
    -------
    LoadHistory
        The history, with its channels in their units.

    Raises
    ------
    InputError
        With file, line and column, for anything that is not a clean history.

    Examples
    --------
    >>> read_csv("loaded_lap.csv")  # in the folder of `vivid-anvil demo`
    <LoadHistory loaded_lap: 480 s at 100 Hz, vertical force>
    """
    path = existing(path)
    form = text_form(path, delimiter=delimiter, decimal=decimal, encoding=encoding, header_line=header_line)
    heads = headers(form.cells, lambda i: f"{path.name}, line {form.header_line}, column {i + 1}", units)
    columns = _fast(path, form, heads) or _slow(path, form, heads)
    return history_of(name or path.stem, heads, columns, sample_rate, path.name, form.header_line + 1, rows)


def text_form(
    path: Path, *, delimiter: str | None, decimal: str | None, encoding: str | None, header_line: int | None
) -> TextForm:
    """How `path` is written, detected from its first lines unless given."""
    if delimiter is not None:
        checks.one_of("delimiter", delimiter, tuple(DELIMITERS))
    if decimal is not None:
        checks.one_of("decimal", decimal, (".", ","))
    found = encoding or _encoding(path)
    lines = []
    for number_of_line, line in enumerate(_lines(path, found), start=1):
        lines.append((number_of_line, line))
        is_header = (
            header_line == number_of_line if header_line else line.strip() and not line.lstrip().startswith(_COMMENTS)
        )
        if is_header:
            sample = [next_line for _, next_line in zip(range(5), _lines(path, found, number_of_line), strict=False)]
            sign = DELIMITERS[delimiter] if delimiter else _delimiter(line)
            mark = decimal or ("," if sign != "," and any("," in row for row in sample) else ".")
            cells = tuple(cell.strip().strip('"').strip() for cell in line.rstrip("\r\n").split(sign))
            return TextForm(found, sign, mark, number_of_line, cells)
    if header_line:
        raise InputError(path.name, f"{len(lines)} lines", f"a header in line {header_line}")
    raise InputError(path.name, "an empty file", "a header such as 'time [s],vertical force [kN]'")


def _delimiter(header: str) -> str:
    outside = header if '"' not in header else "".join(header.split('"')[::2])
    return max(DELIMITERS.values(), key=outside.count)


def _encoding(path: Path) -> str:
    try:
        with path.open("rb") as file:
            start = file.read(1 << 16)
    except OSError as error:
        raise InputError(str(path), error.strerror or "no access", "a file that can be read") from None
    if start.startswith((b"\xff\xfe", b"\xfe\xff")):
        return "utf-16"
    if b"\x00" in start:
        raise InputError(path.name, "bytes that are no text", "a text file", "Name the reader for its format.")
    try:
        start[: start.rfind(b"\n") + 1 or None].decode("utf-8")
    except UnicodeDecodeError:
        return "cp1252"
    return "utf-8-sig"


def _lines(path: Path, encoding: str, skip: int = 0) -> Iterator[str]:
    try:
        with path.open(encoding=encoding, errors="strict" if skip == 0 else "replace") as file:
            for number_of_line, line in enumerate(file):
                if number_of_line >= skip:
                    yield line
    except (UnicodeError, LookupError) as error:
        reason = f"text that is not {encoding} ({error})"
        raise InputError(path.name, reason, "another encoding", "State it: encoding=.") from None


def _fast(path: Path, form: TextForm, heads: list[Header]) -> list[FloatArray] | None:
    """All columns, from blocks of clean rows read side by side; None where a row is not clean.

    Whole blocks of lines are converted to the last digit; nothing but the columns is kept.
    """
    if form.encoding == "utf-16" or any(head.unit == DATE_TIME for head in heads):
        return None
    columns = _Columns(len(heads), path.stat().st_size)

    def parse(block: bytes) -> list[FloatArray]:
        return columns_of_block(block, form.delimiter, form.decimal, len(heads), range(len(heads)))

    try:
        for block, values in parsed_blocks(path, form.encoding, form.header_line, parse):
            columns.append(values, len(block))
    except NotClean:
        return None
    return columns.filled() if columns.rows else None


class _Columns:
    """Columns that fill up block by block; their length is guessed from the first block and the size of the file."""

    def __init__(self, columns: int, file_size: int) -> None:
        self.rows, self._size = 0, file_size
        self._columns = [np.empty(0) for _ in range(columns)]

    def append(self, block: list[FloatArray], block_size: int) -> None:
        needed = self.rows + block[0].size
        if needed > self._columns[0].size:
            guess = int(1.02 * block[0].size * self._size / block_size) if self.rows == 0 else int(1.3 * needed)
            for i, column in enumerate(self._columns):
                self._columns[i] = np.empty(max(guess, needed))
                self._columns[i][: self.rows] = column[: self.rows]
        for column, values in zip(self._columns, block, strict=True):
            column[self.rows : needed] = values
        self.rows = needed

    def filled(self) -> list[FloatArray]:
        return [column[: self.rows] for column in self._columns]


def _slow(path: Path, form: TextForm, heads: list[Header]) -> list[FloatArray]:
    """The columns read cell by cell: for date-times, blanks around numbers, and to name the first bad cell."""
    lines = _lines(path, form.encoding, form.header_line)
    rows = cell_by_cell(lines, form.header_line + 1, path, form, heads, range(len(heads)))
    if not rows:
        raise InputError(path.name, "a header and no rows", "at least two samples", SHORT)
    return list(np.ascontiguousarray(np.array(rows, dtype=np.float64).T))


def cell_by_cell(
    lines: Iterable[str], first: int, path: Path, form: TextForm, heads: Sequence[Header], wanted: Sequence[int]
) -> list[list[float]]:
    """The wanted cells of lines as numbers, the first line being that number of the file; InputError for the first bad one."""
    rows: list[list[float]] = []
    for number_of_line, line in enumerate(lines, start=first):
        cells = line.rstrip("\r\n").split(form.delimiter)
        if len(cells) != len(heads):
            hint = "A decimal comma reads as two columns: write 3.25, or ';' between columns."
            raise InputError(
                f"{path.name}, line {number_of_line}",
                f"{len(cells)} columns" if line.strip() else "an empty line",
                f"{len(heads)} as in the header",
                hint if len(cells) > len(heads) else _GAP,
            )
        rows.append([_value(cells[i], heads[i], path, number_of_line, form) for i in wanted])
    return rows


def _value(cell: str, head: Header, path: Path, number_of_line: int, form: TextForm) -> float:
    text = cell.strip().strip('"')
    if head.unit == DATE_TIME:
        value: Any = _microseconds(text)
    else:
        value = _number(text if form.decimal == "." else text.replace(",", "."))
    if value is None or not np.isfinite(value):
        raise InputError(
            f"{path.name}, line {number_of_line}, column {head.label!r}",
            shortened(text) if text else "an empty cell",
            "a date and time" if head.unit == DATE_TIME else "a finite number" if value is not None else "a number",
            _GAP,
        )
    return float(value)


def _number(text: str) -> float | None:
    try:
        return float(text)
    except ValueError:
        return None


def _microseconds(text: str) -> float | None:
    """Microseconds since 1970 of a date-time of ISO 8601: a whole number, and so exact."""
    from datetime import datetime, timedelta

    try:
        return float(
            (datetime.fromisoformat(text).replace(tzinfo=None) - datetime(1970, 1, 1)) // timedelta(microseconds=1)
        )
    except ValueError:
        return None
