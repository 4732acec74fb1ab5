"""Tables in text files and workbooks: headers with units, columns of numbers. Shared by all readers of tables."""

from __future__ import annotations

import re
import zipfile
from collections.abc import Callable, Mapping, Sequence
from dataclasses import dataclass
from pathlib import Path
from typing import Any

import numpy as np

from vivid_anvil.ground.checks import FloatArray
from vivid_anvil.ground.errors import InputError, did_you_mean, inside, listed
from vivid_anvil.ground.extras import needed
from vivid_anvil.ground.files import existing, first_line, fits_memory, read_by_others
from vivid_anvil.units import dimension_of
from vivid_anvil.writing.headings import name_and_unit

DATE_TIME = "date-time"
BYTES_PER_BYTE = 30  # of memory for each of an unpacked workbook

Place = Callable[[int], str]


@dataclass(frozen=True, slots=True)
class Header:
    """Name and unit of a column, and where it stands, for errors."""

    name: str
    unit: str
    where: str
    leads: bool = False

    @property
    def label(self) -> str:
        """The header as it stands in the file."""
        return self.name if self.unit == DATE_TIME else f"{self.name} [{self.unit}]"

    @property
    def is_time(self) -> bool:
        """Whether the column holds the time: by its name, or as the first one whose unit is a time, whatever its name."""
        return self.name.lower() == "time" or self.leads


def headers(cells: Sequence[str], place: Place, units: Mapping[str, str] | None = None) -> list[Header]:
    """Names and units from header cells; `units` gives those that a cell doesn't carry. `place(i)` names column i.

    Raises InputError for a cell without a unit, an unknown unit, or the same name twice.
    """
    headers: list[Header] = []
    for i, cell in enumerate(cells):
        name, unit = name_and_unit(cell)
        unit = unit or (units or {}).get(name, "")
        bare = cell.strip() == name
        if bare and not unit and name.lower() == "time":
            unit = DATE_TIME
        if not name or (bare and not unit):
            is_number = re.fullmatch(r"\s*[-+.,\d]+([eE][-+]?\d+)?\s*", cell) is not None
            raise InputError(
                place(i),
                f"the number {cell!r}" if is_number else f"the header {cell!r} without a unit",
                "a name with its unit",
                "Head the column for instance 'vertical force [kN]', or 'time [s]'.",
            )
        leads = False
        if unit != DATE_TIME:
            leads = dimension_of(unit, f"{place(i)} ({name})").name == "time" and i == 0
        if name in [other.name for other in headers]:
            raise InputError(place(i), f"a second column named {name!r}", "a different name for each column")
        headers.append(Header(name, unit, place(i), leads))
    return headers


@read_by_others("an .xlsx workbook")
def workbook(path: Path, sheet: str | int, header_row: int) -> tuple[Any, str]:
    """A sheet as a data frame, and its place for errors; with `header_row` 0 all rows are cells."""
    import pandas as pd

    needed("openpyxl", path.name)
    with path.open("rb") as file:
        if file.read(4) == b"\xd0\xcf\x11\xe0":
            raise InputError(
                path.name,
                "an encrypted or old (.xls) workbook",
                "an open .xlsx workbook",
                "Save it without a password as .xlsx.",
            )
    try:
        with zipfile.ZipFile(path) as parts:
            whole = sum(one.file_size for one in parts.infolist())
        fits_memory(BYTES_PER_BYTE * whole, path.name)
        book = pd.ExcelFile(path, engine="openpyxl")
    except (zipfile.BadZipFile, KeyError, ValueError, OSError) as error:
        if isinstance(error, InputError):
            raise
        raise InputError(path.name, f"a file that is no workbook ({first_line(error)})", "an .xlsx workbook") from None
    with book:
        names = [str(one) for one in book.sheet_names]
        if (isinstance(sheet, str) and sheet not in names) or (isinstance(sheet, int) and not 0 <= sheet < len(names)):
            raise InputError(
                path.name, f"no sheet {sheet!r}", f"one of {listed(names)}", did_you_mean(str(sheet), names)
            )
        where = f"{path.name}, sheet {names[sheet] if isinstance(sheet, int) else sheet}"
        frame = pd.read_excel(
            book, sheet_name=sheet, header=header_row - 1 if header_row else None, keep_default_na=False, na_values=[""]
        )
        frame = frame.dropna(axis=1, how="all") if header_row else frame.astype(object).where(frame.notna(), None)
    if not len(frame):
        raise InputError(where, "no rows below the header", "at least two samples")
    return frame, where


@read_by_others("a table in text or a workbook")
def read_frame(path: str | Path, sheet: str | int = 0, what: str = "a table") -> tuple[Any, str]:
    """The table of a text file (comma, semicolon or tab; point or comma in decimals) or of a sheet, and its place."""
    import pandas as pd

    file = existing(path, what)
    if file.suffix.lower() in (".xlsx", ".xlsm"):
        return workbook(file, sheet, 1)
    try:
        text = file.read_text(encoding="utf-8-sig")
    except UnicodeDecodeError:
        raise InputError(file.name, "bytes that are not UTF-8 text", "a text file in UTF-8, or .xlsx") from None
    lines = [line for line in text.splitlines() if line.strip() and not line.lstrip().startswith("#")]
    if len(lines) < 2:
        raise InputError(file.name, f"{len(lines)} rows", "a header and at least one row of values")
    delimiter = next((mark for mark in (";", "\t") if mark in lines[0]), ",")
    decimal = "," if delimiter != "," and re.search(r"\d,\d", "".join(lines[1:])) else "."
    settings: dict[str, Any] = {"sep": delimiter, "decimal": decimal, "comment": "#", "skipinitialspace": True}
    cells = [cell.strip() for cell in lines[0].split(delimiter)]
    twice = next((cell for cell in cells if cells.count(cell) > 1), None)
    if twice is not None:
        raise InputError(file.name, f"two columns headed {twice!r}", "each column once")
    try:
        return pd.read_csv(file, encoding="utf-8-sig", **settings), file.name
    except pd.errors.ParserError as error:
        raise InputError(file.name, f"rows of different lengths ({error})", "as many cells as in the header") from None


def column_numbers(column: Any, where: str) -> FloatArray:
    """The numbers of a column of a data frame; InputError with the row for a cell that is none."""
    import pandas as pd

    numbers = pd.to_numeric(column, errors="coerce").to_numpy(dtype=np.float64)
    bad = np.flatnonzero(~np.isfinite(numbers))
    if bad.size:
        cell = column.iloc[bad[0]]
        found = "an empty cell" if pd.isna(cell) or not str(cell).strip() else repr(str(cell))
        raise InputError(inside(where, f"row {bad[0] + 1}"), found, "a number")
    return np.asarray(numbers, dtype=np.float64)
