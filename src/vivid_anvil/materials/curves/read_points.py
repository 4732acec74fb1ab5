"""Points of an S-N curve in a text file or a workbook."""

from __future__ import annotations

from pathlib import Path

from vivid_anvil.ground.errors import InputError
from vivid_anvil.materials.fits.specimens import STRESS_HINTS
from vivid_anvil.units import DIMENSIONS, factor, opened
from vivid_anvil.writing.known_table import read_known
from vivid_anvil.writing.read_table import column_numbers


@opened()
def read_points(
    path: str | Path, sheet: str | int = 0, *, block: int | str | None = None, stress: str | None = None
) -> tuple[str, list[tuple[float, float]], str]:
    """Range or amplitude, and the points (stress in MPa, life) of a CSV or Excel table headed `stress range [MPa],life [cycles]`.

    Headings may be as people write them (`N`, `Amplitude (MPa)`; `S (MPa)` with `stress` stated), titles may stand above, rows
    in any order, a point twice (a knee that ends one line and begins the next); `block` chooses one of several blocks of columns.
    The last of the answer tells how the headings were understood.
    Raises InputError, with the row, for anything that is missing or no number.
    """
    kinds = ("stress range", "stress amplitude")
    known = (*kinds, "life") if stress is None else (*kinds, "life", "stress")
    table = read_known(path, known, what="a table of points", sheet=sheet, block=block, hints=STRESS_HINTS)
    found = [heading for heading in table.headings if heading.column != "life"]
    if len(found) != 1 or "life" not in table:
        cells = ", ".join(heading.cell for heading in table.headings)
        raise InputError(
            table.where, f"the columns {cells}", "'stress range [..]' or 'stress amplitude [..]', and 'life [cycles]'"
        )
    kind = stress or "" if found[0].column == "stress" else found[0].column.removeprefix("stress ")
    place = f"{table.where}, column {found[0].cell!r}"
    if not found[0].unit:
        raise InputError(place, "no unit", "a unit of stress", f"Head it {found[0].cell + ' [MPa]'!r}.")
    if table.unit("life") not in ("", "cycle", "cycles", "1", "-"):
        raise InputError(f"{table.where}, column 'life'", repr(table.unit("life")), "lives in cycles")
    one = factor(found[0].unit, DIMENSIONS["stress"], place)
    stresses = column_numbers(table.frame[found[0].column], place)
    lives = column_numbers(table.frame["life"], f"{table.where}, column 'life'")
    points = sorted(
        {(one * float(s), float(n)) for s, n in zip(stresses, lives, strict=True)}, key=lambda p: (-p[0], p[1])
    )
    return kind, points, table.told
