"""Read a load history from a CSV file whose header names each channel with its unit.

In: `time [s],vertical force [kN]` and rows of numbers, comma between columns, point in decimals. A time column of
equal steps gives the sample rate, or the caller states it. Out: `LoadHistory`. Nothing is repaired: text in a number
column, a gap, unequal steps, repeated or falling time are errors that name file, line and column.
"""

from __future__ import annotations

import re
from pathlib import Path
from typing import TYPE_CHECKING

import numpy as np

from vivid_anvil.checks import FloatArray
from vivid_anvil.errors import InputError
from vivid_anvil.histories.load_history import Channel, LoadHistory
from vivid_anvil.units import coherent, dimension_of, factor, number

if TYPE_CHECKING:
    pass

_HEADER = re.compile(r"\s*(?P<name>[^\[\]]*?)\s*\[(?P<unit>[^\[\]]*)\]\s*")
# Steps may differ by this share of a step: times are often written with few digits.
STEP_TOLERANCE = 0.01


def read_csv(path: str | Path, *, sample_rate: float | str | None = None, name: str | None = None) -> LoadHistory:
    """The load history in the CSV file `path`.

    `sample_rate`, Hz or text such as "100 Hz", is needed where there is no column `time [s]`; where there is one, the
    two must agree within 1 %. `name` is the file's name by default.

    Raises InputError, with file, line and column, for anything that is not a clean history.
    """
    path = Path(path)
    header = _header(path)
    names, units = _names_and_units(path, header)
    columns = _numbers(path, header)
    rate = None if sample_rate is None else coherent(sample_rate, "frequency", f"{path.name}, sample rate")
    time_columns = [i for i, column in enumerate(names) if column.lower() == "time"]
    if len(columns[0]) < 2:
        raise InputError(path.name, f"{len(columns[0])} row of values", "at least two samples", _SHORT)
    if time_columns:
        found = _rate_from_time(path, columns[time_columns[0]], units[time_columns[0]])
        if rate is not None and abs(found / rate - 1.0) > STEP_TOLERANCE:
            raise InputError(
                f"{path.name}, column time",
                f"steps of {number(1 / found)} s ({number(found)} Hz)",
                f"the stated sample rate of {number(rate)} Hz",
                "Correct the rate, or leave it out.",
            )
        rate = found if rate is None else rate
    if rate is None:
        raise InputError(
            path.name,
            "no time column and no sample rate",
            "one of the two",
            "Head a column 'time [s]', or state the rate: sample_rate = \"100 Hz\".",
        )
    channels = [Channel.in_unit(names[i], columns[i], units[i]) for i in range(len(names)) if i not in time_columns]
    if not channels:
        raise InputError(path.name, "only a time column", "at least one channel", "Add the load beside it.")
    return LoadHistory(name or path.stem, tuple(channels), rate)


_SHORT = "A single value is no history: describe it as an event of constant amplitude."


def _header(path: Path) -> list[str]:
    try:
        with path.open(encoding="utf-8-sig") as file:
            first = file.readline()
    except FileNotFoundError:
        raise InputError(str(path), "no such file", "a CSV file", "Check the folder and the spelling.") from None
    except IsADirectoryError:
        raise InputError(str(path), "a folder", "a CSV file", "Name the file in it.") from None
    except UnicodeDecodeError:
        raise InputError(
            str(path), "bytes that are not UTF-8 text", "a CSV file in UTF-8", "Save it as UTF-8."
        ) from None
    except OSError as error:
        raise InputError(str(path), error.strerror or "no access", "a file that can be read") from None
    if not first.strip():
        raise InputError(path.name, "an empty first line", "a header such as 'time [s],vertical force [kN]'")
    if ";" in first and "," not in first:
        raise InputError(
            f"{path.name}, line 1",
            "columns separated by ';'",
            "columns separated by ','",
            "Save the file with comma between columns and point in decimals (3.25, not 3,25).",
        )
    return [cell.strip().strip('"') for cell in first.rstrip("\r\n").split(",")]


def _names_and_units(path: Path, header: list[str]) -> tuple[list[str], list[str]]:
    names, units = [], []
    for position, cell in enumerate(header, start=1):
        where = f"{path.name}, line 1, column {position}"
        match = _HEADER.fullmatch(cell)
        if match is None or not match["name"]:
            looks_like_data = re.fullmatch(r"\s*[-+.\d]+([eE][-+]?\d+)?\s*", cell) is not None
            raise InputError(
                where,
                f"the number {cell!r}" if looks_like_data else f"the header {cell!r} without a unit",
                "a name with its unit",
                "Head the column for instance 'vertical force [kN]', or 'time [s]'.",
            )
        dimension_of(match["unit"], f"{where} ({match['name']})")
        names.append(match["name"])
        units.append(match["unit"])
    for name in names:
        if names.count(name) > 1:
            raise InputError(f"{path.name}, line 1", f"two columns named {name!r}", "a different name for each")
    return names, units


def _numbers(path: Path, header: list[str]) -> list[FloatArray]:
    import pandas as pd

    try:
        frame = pd.read_csv(
            path,
            header=None,
            skiprows=1,
            dtype=np.float64,
            encoding="utf-8-sig",
            skip_blank_lines=False,
            na_filter=True,
            index_col=False,
            names=None,
        )
    except pd.errors.EmptyDataError:
        raise InputError(path.name, "a header and no rows", "at least two samples") from None
    except (ValueError, pd.errors.ParserError) as error:
        raise _bad_cell(path, header) or InputError(path.name, str(error), "rows of numbers") from None
    if frame.shape[1] != len(header) or frame.isna().to_numpy().any():
        raise _bad_cell(path, header) or InputError(
            path.name, f"{frame.shape[1]} columns of values", f"{len(header)} as in the header"
        )
    values = frame.to_numpy()
    if not np.isfinite(values).all():
        row, column = (int(place) for place in np.argwhere(~np.isfinite(values))[0])
        raise InputError(
            f"{path.name}, line {row + 2}, column {header[column]!r}", f"{values[row, column]}", "a finite number", _GAP
        )
    return [np.ascontiguousarray(values[:, i]) for i in range(values.shape[1])]


_GAP = "Cut the row out or fill it before, and keep a note of it: nothing is repaired here."


def _bad_cell(path: Path, header: list[str]) -> InputError | None:
    """The first cell that is no number, found by reading the file again as text."""
    with path.open(encoding="utf-8-sig", errors="replace") as file:
        next(file)
        for line, text in enumerate(file, start=2):
            cells = text.rstrip("\r\n").split(",")
            if len(cells) != len(header):
                hint = (
                    "A decimal comma reads as two columns: write 3.25, not 3,25." if len(cells) > len(header) else _GAP
                )
                return InputError(
                    f"{path.name}, line {line}",
                    f"{len(cells)} columns" if text.strip() else "an empty line",
                    f"{len(header)} as in the header",
                    hint,
                )
            for cell, column in zip(cells, header, strict=True):
                where = f"{path.name}, line {line}, column {column!r}"
                try:
                    value = float(cell)
                except ValueError:
                    found = repr(cell.strip()) if cell.strip() else "an empty cell"
                    return InputError(where, found, "a number", _GAP)
                if not np.isfinite(value):
                    return InputError(where, cell.strip(), "a finite number", _GAP)
    return None


def _rate_from_time(path: Path, time: FloatArray, unit: str) -> float:
    """The sample rate, Hz, of a time column of equal steps."""
    seconds = time * factor(unit, dimension_of("s", "time"), f"{path.name}, column time")
    steps = np.diff(seconds)
    where = f"{path.name}, column time"
    for bad, found in ((steps == 0.0, "the same time twice"), (steps < 0.0, "a time before the one above")):
        if bad.any():
            row = int(np.flatnonzero(bad)[0])
            raise InputError(
                f"{where}, line {row + 3}",
                f"{found}, {time[row + 1]:.10g} {unit}",
                "time that rises",
                "Cut the file where the recording starts again.",
            )
    step = float((seconds[-1] - seconds[0]) / steps.size)
    uneven = np.abs(steps - step) > STEP_TOLERANCE * step
    if uneven.any():
        row = int(np.flatnonzero(uneven)[0])
        raise InputError(
            f"{where}, line {row + 3}",
            f"a step of {number(float(steps[row]))} s where the mean is {number(step)} s",
            "equal steps",
            f"{int(uneven.sum())} of {steps.size} steps differ by more than {STEP_TOLERANCE:.0%}: resample; "
            "or, if only the printed digits are too few, drop the time column and state the sample rate.",
        )
    rate = 1.0 / step
    # 0.01 s steps mean 100 Hz, not 99.99999999999: the last digits are those of the printed times.
    return float(f"{rate:.9g}")
