"""Unit stresses of a place from a table in a file: a row a load case."""

from __future__ import annotations

from pathlib import Path
from typing import Any

import numpy as np

from vivid_anvil.ground.checks import FloatArray
from vivid_anvil.ground.errors import InputError, did_you_mean, inside, listed
from vivid_anvil.stress.measures import COMPONENTS, Measure
from vivid_anvil.stress.relations.case_loads import CaseLoad, CaseLoads
from vivid_anvil.stress.relations.unit_stresses import UnitStresses
from vivid_anvil.units import coherent, opened
from vivid_anvil.writing.headings import name_and_unit
from vivid_anvil.writing.read_table import column_numbers, read_frame

COLUMNS = ("channel", "unit load", *COMPONENTS)


@opened()
def read_unit_stresses(
    path: str | Path, *, measure: Measure | str = "signed von Mises, hydrostatic", offset: float | str = 0.0
) -> UnitStresses:
    r"""A place from a CSV file or a workbook: columns `channel`, `unit load`, and `xx [MPa]` to `zx`, a row a load case.

    The unit load has its unit in the cell ("10 kN"), as those of different channels differ; components that no column names are
    0. A row without channel holds stresses that are there all the time.

    Parameters
    ----------
    path : str or path
        The file.
    measure : Measure or str, default "signed von Mises, hydrostatic"
        The stress that is counted: one of `MEASURES`, or its name.
    offset : float or str, default 0.0
        Stress that is there without load, MPa; no load factor moves it.

    Returns
    -------
    UnitStresses
        The relation, for a hot spot.

    Raises
    ------
    InputError
        With file and column.

    Examples
    --------
    >>> from pathlib import Path
    >>> _ = Path("place.csv").write_text("channel,unit load,xx [MPa],xy [MPa]\nforce,10 kN,120,30\n")
    >>> read_unit_stresses("place.csv").words
    'signed von Mises, hydrostatic of force'
    """
    frame, where = read_frame(path, what="a table of unit stresses")
    columns = {name_and_unit(str(cell))[0].lower(): str(cell) for cell in frame.columns}
    for name in columns:
        if name not in COLUMNS:
            raise InputError(
                inside(where, f"column {name!r}"),
                "an unknown column",
                f"one of {listed(COLUMNS)}",
                did_you_mean(name, COLUMNS),
            )
    for name in ("channel", "unit load"):
        if name not in columns:
            raise InputError(where, f"no column {name!r}", f"columns of {listed(COLUMNS)}")
    stresses = np.column_stack([_stress(frame, columns.get(one), where) for one in COMPONENTS])
    channels = ["" if one is None or one != one else str(one).strip() for one in frame[columns["channel"]]]
    loads = [str(one).strip() for one in frame[columns["unit load"]]]
    moving = [i for i, channel in enumerate(channels) if channel]
    if not moving:
        raise InputError(
            inside(where, "column 'channel'"), "no channel", "at least one load case that a channel scales"
        )
    cases = [CaseLoad(case=f"row {i + 1}, {channels[i]}", channel=channels[i], unit_load=loads[i]) for i in moving]
    always = np.array([not channel for channel in channels])
    constant = stresses[always].sum(axis=0)
    given: dict[str, Any] = {"measure": measure, "offset": offset}
    return UnitStresses(loads=CaseLoads(cases), unit=stresses[moving], constant=constant, **given)


def _stress(frame: Any, heading: str | None, where: str) -> FloatArray:
    """A column of stresses, MPa; zeros where there is none."""
    if heading is None:
        return np.zeros(len(frame))
    name, unit = name_and_unit(heading)
    place = inside(where, f"column {heading!r}")
    if not unit:
        raise InputError(place, "no unit", f"a heading such as '{name} [MPa]'")
    return column_numbers(frame[heading], place) * coherent(f"1 {unit}", "stress", place)
