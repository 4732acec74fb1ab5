"""Forces and moments per width of a model of shells from a table or HDF5."""

from __future__ import annotations

from pathlib import Path
from typing import Any

import numpy as np

from vivid_anvil.ground.errors import InputError, inside, listed
from vivid_anvil.ground.files import read_by_others
from vivid_anvil.models.element_values import ELEMENT_VALUES, chosen_values
from vivid_anvil.models.hdf5_of_fields import read_field_hdf5
from vivid_anvil.models.read_field import HDF5, TABLES
from vivid_anvil.models.stress_field import StressField
from vivid_anvil.models.tables_of_fields import field_of_frame, frame_of
from vivid_anvil.spectra.responses.components import COMPONENTS
from vivid_anvil.units import DIMENSIONS, factor, opened
from vivid_anvil.writing.headings import name_and_unit
from vivid_anvil.writing.read_table import column_numbers

SECTION_LOADS = "section loads"
# Both ways in which their columns are headed, and what they are.
HEADS = (
    ("nx", "nxx", "force per width"),
    ("ny", "nyy", "force per width"),
    ("nxy", "nxy", "force per width"),
    ("mx", "mxx", "moment per width"),
    ("my", "myy", "moment per width"),
    ("mxy", "mxy", "moment per width"),
)


@read_by_others("a table of section loads")
@opened()
def read_section_loads(path: str | Path, *, element_values: str = "each element") -> StressField:
    """Forces and moments per width at nodes, or of elements at nodes, from CSV, a workbook, Parquet or HDF5.

    Columns `node`, `x [mm]`, `y`, `z`, `nx [N/mm]`, `ny`, `nxy`, `mx [N*mm/mm]`, `my`, `mxy` (or nxx, nyy, mxx, myy), and where
    there are several `load case`, `element`, `set`; in the axes x and y of the laminate.

    Parameters
    ----------
    path : str or path
        The file.
    element_values : str, default "each element"
        Loads of elements at a node: one of `ELEMENT_VALUES`.

    Returns
    -------
    StressField
        The field, with the dimension "section loads": nx, ny, nxy, N/mm, mx, my, mxy, N·mm/mm, in the place of components.

    Raises
    ------
    InputError
        With file and column.

    Examples
    --------
    >>> read_section_loads("safety_bar_shell.h5")  # in the folder of `vivid-anvil demo`
    <StressField 45 nodes, 1 case (bar force), 28 elements>
    """
    where, ending = Path(path).name, Path(path).suffix.lower()
    if element_values not in ELEMENT_VALUES:
        raise InputError(inside(where, "element_values"), repr(element_values), f"one of {listed(ELEMENT_VALUES)}")
    if ending in HDF5:
        field = read_field_hdf5(path)
        if field.dimension != SECTION_LOADS:
            raise InputError(where, f"a field of {field.dimension}", "a field of section loads")
    elif ending in TABLES:
        field = field_of_frame(*_as_components(*frame_of(path)), SECTION_LOADS)
    else:
        raise InputError(where, f"a file {ending!r}", f"a table ({', '.join(TABLES)}) or HDF5 of section loads")
    return chosen_values(field, element_values, "both")


def _as_components(frame: Any, where: str) -> tuple[Any, str]:
    """The table with coherent resultants in the place of the six components."""
    heads = {name_and_unit(str(cell))[0].lower(): cell for cell in frame.columns}
    columns, used = {}, []
    for (one, other, dimension), component in zip(HEADS, COMPONENTS, strict=True):
        cell = heads.get(one, heads.get(other))
        if cell is None:
            raise InputError(
                where, f"no column {one!r}", f"the columns {listed([head[0] for head in HEADS])}, zeros too"
            )
        unit = name_and_unit(str(cell))[1]
        place = inside(where, f"column {str(cell)!r}")
        if not unit:
            example = DIMENSIONS[dimension].coherent
            raise InputError(place, "no unit", f"a unit of {dimension}", f"Head it for instance '{one} [{example}]'.")
        scale = factor(unit, DIMENSIONS[dimension], place)
        columns[f"{component} [-]"] = scale * np.asarray(column_numbers(frame[cell], place))
        used.append(cell)
    return frame.drop(columns=used).assign(**columns), where
