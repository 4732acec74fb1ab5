"""Any file of stresses by its ending."""

from __future__ import annotations

from collections.abc import Mapping, Sequence
from pathlib import Path
from typing import Any

from vivid_anvil.ground.checks import one_of
from vivid_anvil.ground.errors import InputError, inside, listed
from vivid_anvil.models.element_values import ELEMENT_VALUES, chosen_values
from vivid_anvil.models.hdf5_of_fields import read_field_hdf5
from vivid_anvil.models.read_frd import read_frd
from vivid_anvil.models.read_mesh import read_mesh
from vivid_anvil.models.stress_field import StressField
from vivid_anvil.models.tables_of_fields import read_field_table
from vivid_anvil.units import opened

TABLES = (".csv", ".tsv", ".txt", ".xlsx", ".xlsm", ".parquet", ".pq")
HDF5 = (".h5", ".hdf5", ".hdf")


@opened()
def read_field(
    path: str | Path,
    *,
    stress_unit: str | None,
    length_unit: str | None,
    cases: Sequence[str] | Mapping[str, str | Mapping[str, str]] | None = None,
    component_order: str | None = None,
    element_values: str = "each element",
    face: str = "both",
) -> StressField:
    """The stresses of a result file, a mesh, a table or HDF5; files without units need both stated, those with units neither.

    `cases` names the steps of a result file, or the data of a mesh, whose components stand in `component_order`. Where nodes have
    a stress of each element, `element_values` is "averaged" or "each element"; `face` is what of shells is assessed, "both",
    "top", "middle" or "bottom"; "middle" says of one stress at a node that it is meant so.

    Parameters
    ----------
    path : str or path
        The file.
    stress_unit : str
        Unit of the stresses, where the file has none; else None.
    length_unit : str
        Unit of the coordinates, where the file has none; else None.
    cases : sequence of str] or mapping of str to str or Mapping[str, str, optional
        The load cases.
    component_order : str, optional
        Order of the six components in the file: one of `ORDERS`.
    element_values : str, default "each element"
        Stresses of elements at a node: one of `ELEMENT_VALUES`.
    face : str, default "both"
        What of shells is assessed: one of `FACE_CHOICES`.

    Returns
    -------
    StressField
        The field.

    Raises
    ------
    InputError
        For units missing or stated twice, and for a choice of a face where there are none.

    Examples
    --------
    >>> read_field("hanger_head.frd", stress_unit="MPa", length_unit="mm")  # in the folder of `vivid-anvil demo`
    <StressField 7522 nodes, 2 cases (step 1, step 2), 4023 elements>
    """
    one_of(inside(f"{Path(path).name}", "element_values"), element_values, ELEMENT_VALUES)
    found = _as_it_is(path, stress_unit, length_unit, cases, component_order)
    return chosen_values(found, element_values, face)


def _as_it_is(
    path: str | Path,
    stress_unit: str | None,
    length_unit: str | None,
    cases: Sequence[str] | Mapping[str, str | Mapping[str, str]] | None,
    order: str | None,
) -> StressField:
    ending, where = Path(path).suffix.lower(), Path(path).name
    if ending in (*TABLES, *HDF5):
        stated = {"stress_unit": stress_unit, "length_unit": length_unit, "cases": cases, "component_order": order}
        for key, given in stated.items():
            if given is not None:
                raise InputError(inside(where, f"{key}"), f"{given!r}", "none: the file says it itself")
        return read_field_hdf5(path) if ending in HDF5 else read_field_table(path)
    missing = [key for key, given in (("stress_unit", stress_unit), ("length_unit", length_unit)) if given is None]
    if missing or stress_unit is None or length_unit is None:
        raise InputError(
            inside(where, f"{listed(missing)}"), "nothing", "a unit, as the file carries none", "Such as 'MPa'."
        )
    if ending == ".frd":
        if order is not None:
            raise InputError(inside(where, "component_order"), f"{order!r}", "none: the file says it itself")
        if isinstance(cases, Mapping):
            raise InputError(inside(where, "cases"), "a table", "a list: names of its steps, in their order")
        return read_frd(path, stress_unit=stress_unit, length_unit=length_unit, cases=cases)
    if cases is None:
        raise InputError(inside(where, "cases"), "nothing", "the names of the data that are stresses")
    given_order: dict[str, Any] = {} if order is None else {"order": order}
    return read_mesh(path, stress_unit=stress_unit, length_unit=length_unit, cases=cases, **given_order)
