"""Ranges of stress a year from CSV files and workbooks: a row a range, as a sheet has them."""

from __future__ import annotations

from pathlib import Path

from vivid_anvil.acceptance.stages import RangesPerYear
from vivid_anvil.ground.errors import InputError, did_you_mean, inside, listed
from vivid_anvil.ground.files import existing, read_by_others
from vivid_anvil.units import DIMENSIONS, factor, one, opened
from vivid_anvil.writing.headings import name_and_unit
from vivid_anvil.writing.read_table import column_numbers, read_frame

COLUMNS = ("membrane range", "bending range", "cycles a year")
ALSO = {"range": "membrane range", "stress range": "membrane range", "cycles per year": "cycles a year"}


@read_by_others("ranges of stress a year")
@opened(r_ratio=one())
def read_ranges(path: str | Path, *, sheet: str | int = 0, r_ratio: float = 0.5) -> RangesPerYear:
    r"""Ranges of stress and how often a year each occurs, from a CSV file or a workbook.

    Columns are `membrane range [MPa]` (or `range`), where there is some `bending range [MPa]`, and `cycles a year`.

    Parameters
    ----------
    path : str or path
        The file.
    sheet : str or int, default 0
        Of a workbook.
    r_ratio : float, default 0.5
        Smallest over largest stress of all of them, -.

    Returns
    -------
    RangesPerYear
        For a stage.

    Raises
    ------
    InputError
        With the column, for unknown ones, ranges without unit, and cells that are no numbers.

    Examples
    --------
    >>> _ = Path("year.csv").write_text("range [MPa],cycles a year\n60,2e4\n30,3e5\n")
    >>> read_ranges("year.csv").many
    320000.0
    """
    frame, where = read_frame(existing(path, "ranges of stress a year"), sheet)
    found = {}
    for i, cell in enumerate(map(str, frame.columns)):
        name, unit = name_and_unit(cell)
        key = ALSO.get(name.strip().lower(), name.strip().lower())
        place = inside(where, f"column {cell!r}")
        if key not in COLUMNS:
            raise InputError(place, "no such column", f"one of {listed(COLUMNS)}", did_you_mean(key, COLUMNS))
        of_stress = key != "cycles a year"
        if of_stress != bool(unit):
            expected = f"a unit in brackets, such as '{key} [MPa]'" if of_stress else "a number without unit"
            raise InputError(place, repr(unit) if unit else "no unit", expected)
        scale = factor(unit, DIMENSIONS["stress"], place) if of_stress else 1.0
        found[key] = scale * column_numbers(frame.iloc[:, i], place)
    for key in ("membrane range", "cycles a year"):
        if key not in found:
            raise InputError(
                where, f"no column {key!r}", f"the columns {listed(COLUMNS)}, the second where there is some"
            )
    bending = found.get("bending range")
    zeros = [0.0] * len(frame) if bending is None else bending
    rows = zip(found["membrane range"], zeros, found["cycles a year"], strict=True)
    return RangesPerYear([tuple(map(float, row)) for row in rows], r_ratio)
