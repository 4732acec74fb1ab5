"""Lists of indications from CSV files and workbooks: a row an indication, faults told by row and column."""

from __future__ import annotations

from pathlib import Path
from typing import Any

from vivid_anvil.acceptance.indication import Indication
from vivid_anvil.acceptance.part import KINDS
from vivid_anvil.ground.errors import InputError, did_you_mean, inside, listed
from vivid_anvil.ground.files import existing, read_by_others
from vivid_anvil.units import DIMENSIONS, factor, opened
from vivid_anvil.writing.headings import name_and_unit
from vivid_anvil.writing.read_table import read_frame

LENGTHS = ("length", "height", "ligament", "position")
WORDS = ("name", "kind", "place", "stress", "weld")
COLUMNS = (*WORDS, *LENGTHS, "angle")
# What inspection reports call these columns.
ALSO = {
    "depth": "height",
    "depth below surface": "ligament",
    "orientation": "angle",
    "part": "place",
    "no": "name",
    "indication": "name",
    "x": "position",
}


@read_by_others("a list of indications")
@opened()
def read_indications(path: str | Path, *, sheet: str | int = 0) -> tuple[Indication, ...]:
    r"""Indications from a CSV file or a workbook, a row each.

    Columns are `name`, `kind`, `length [mm]`, `height [mm]`, and where they are needed `ligament [mm]` (or `depth below
    surface`), `angle [deg]`, `position [mm]`, `place`, `stress`, `weld`; empty cells are none.

    Parameters
    ----------
    path : str or path
        The file.
    sheet : str or int, default 0
        Of a workbook.

    Returns
    -------
    tuple of Indication
        In the order of the rows.

    Raises
    ------
    InputError
        With row and column, for unknown columns and kinds, lengths without unit, cells that are no numbers, and indications that
        cannot be.

    Examples
    --------
    >>> _ = Path("found.csv").write_text("name,kind,length [mm],height [mm]\nA1,surface,24,5\nA2,through,30,\n")
    >>> [one.kind for one in read_indications("found.csv")]
    ['surface', 'through']
    """
    frame, where = read_frame(existing(path, "a list of indications"), sheet)
    columns: dict[str, tuple[str, float]] = {}
    for cell in map(str, frame.columns):
        name, unit = name_and_unit(cell)
        key = ALSO.get(name.strip().lower(), name.strip().lower())
        place = inside(where, f"column {cell!r}")
        if key not in COLUMNS:
            raise InputError(place, "no such column", f"one of {listed(COLUMNS)}", did_you_mean(key, COLUMNS))
        if key in columns:
            raise InputError(place, f"a second column of {key}", "each column once")
        columns[key] = (cell, _scale(key, unit, place))
    missing = [key for key in ("name", "kind", "length") if key not in columns]
    if missing:
        raise InputError(
            where, f"no column {missing[0]!r}", f"the columns {listed(('name', 'kind', 'length'))} at least"
        )
    rows = frame.to_dict("records")
    return tuple(_indication(row, columns, f"{where}, row {i}") for i, row in enumerate(rows, 2))


def _scale(key: str, unit: str, place: str) -> float:
    """What the numbers of a column are multiplied by."""
    if key in LENGTHS:
        if not unit:
            raise InputError(place, "no unit", f"a unit in brackets, such as '{key} [mm]'")
        return factor(unit, DIMENSIONS["length"], place)
    if key == "angle" and unit not in ("deg", "°"):
        raise InputError(place, repr(unit) if unit else "no unit", "'angle [deg]', 90 right across the stress")
    if key in WORDS and unit:
        raise InputError(place, f"the unit {unit!r}", "words without unit")
    return 1.0


def _indication(row: dict[str, Any], columns: dict[str, tuple[str, float]], where: str) -> Indication:
    given: dict[str, Any] = {}
    for key, (cell, scale) in columns.items():
        value = row[cell]
        if value is None or value != value or str(value).strip() == "":
            continue
        place = inside(where, f"column {cell!r}")
        if key in WORDS:
            given[key] = str(value).strip()
            continue
        try:
            given[key] = scale * float(value)
        except (TypeError, ValueError):
            raise InputError(place, repr(value), "a number") from None
    for key in ("name", "kind", "length"):
        if key not in given:
            raise InputError(inside(where, f"column {columns[key][0]!r}"), "an empty cell", f"the {key}")
    if given["kind"] not in KINDS:
        place = inside(where, f"column {columns['kind'][0]!r}")
        raise InputError(place, repr(given["kind"]), f"one of {listed(KINDS)}", did_you_mean(given["kind"], KINDS))
    try:
        return Indication(**given)
    except InputError as error:
        raise InputError(
            f"{where}, {error.where.partition(', ')[2] or 'name'}", error.found, error.expected, error.remedy
        ) from None
