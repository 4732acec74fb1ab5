"""Large strains of states from a result file, a mesh, a table or HDF5, as Green and Lagrange's, of a stated measure."""

from __future__ import annotations

import dataclasses
from collections.abc import Mapping, Sequence
from pathlib import Path
from typing import Any

import numpy as np

from vivid_anvil.ground.checks import FloatArray, IntArray, one_of
from vivid_anvil.ground.errors import InputError, inside, listed
from vivid_anvil.ground.files import read_by_others
from vivid_anvil.models.element_values import ELEMENT_VALUES, chosen_values
from vivid_anvil.models.hdf5_of_fields import read_field_hdf5
from vivid_anvil.models.read_field import HDF5, TABLES
from vivid_anvil.models.read_frd import field_of_steps, refuse_no_load_case
from vivid_anvil.models.read_mesh import read_mesh
from vivid_anvil.models.stress_field import StressField
from vivid_anvil.models.tables_of_fields import field_of_frame, frame_of
from vivid_anvil.spectra.responses.components import COMPONENTS
from vivid_anvil.stress.rubber import SHEARS, STRAIN_MEASURES, green_lagrange
from vivid_anvil.units import opened
from vivid_anvil.writing.headings import name_and_unit
from vivid_anvil.writing.read_table import column_numbers

GRADIENT = "deformation gradient"
NINE = ("xx", "xy", "xz", "yx", "yy", "yz", "zx", "zy", "zz")


@read_by_others("a file of strains")
@opened()
def read_strain_field(
    path: str | Path,
    *,
    measure: str,
    shear: str = "tensor",
    strain_unit: str | None = None,
    length_unit: str | None = None,
    cases: Sequence[str] | Mapping[str, str | Mapping[str, str]] | None = None,
    component_order: str | None = None,
    element_values: str = "each element",
) -> StressField:
    """The strains of all states of a file, by nodes, or by elements at nodes.

    Result files of the solver and meshes carry no units: those of strains ("mm/mm" or "%") and lengths are stated; tables and
    HDF5 say them.

    Parameters
    ----------
    path : str or path
        The file.
    measure : str
        Which measure of strain it holds: one of `STRAIN_MEASURES`. A deformation gradient is nine components, of a mesh or a
        table.
    shear : str, default "tensor"
        What the shear components are: one of `SHEARS`.
    strain_unit : str, optional
        Unit of the strains, where the file has none.
    length_unit : str, optional
        Unit of the coordinates, where the file has none.
    cases : sequence of str, or mapping of str to str, optional
        Names of the steps of a result file; the data of a mesh that are strains.
    component_order : str, optional
        Order of the six components of a mesh: one of `ORDERS`.
    element_values : str, default "each element"
        Strains of elements at a node: one of `ELEMENT_VALUES`.

    Returns
    -------
    StressField
        The field, with the dimension "strain", of Green and Lagrange's strains.

    Raises
    ------
    InputError
        For an unknown measure, units missing or stated twice, and stretches at or below 0, with the node, where they are
        converted.

    Examples
    --------
    >>> bush = read_strain_field(
    ...     "suspension_bush_lap.frd", measure="green-lagrange", strain_unit="mm/mm", length_unit="mm"
    ... )  # in the folder of `vivid-anvil demo`
    >>> bush.size, len(bush.cases), bush.dimension
    (1420, 14, 'strain')
    """
    where, ending = Path(path).name, Path(path).suffix.lower()
    one_of(inside(where, "measure"), measure, tuple(STRAIN_MEASURES))
    gradient = measure == GRADIENT
    one_of(inside(where, "shear"), shear, tuple(SHEARS))
    one_of(inside(where, "element_values"), element_values, ELEMENT_VALUES)
    units = {"strain_unit": strain_unit, "length_unit": length_unit}
    if ending in (*TABLES, *HDF5):
        for key, given in {**units, "cases": cases, "component_order": component_order}.items():
            if given is not None:
                raise InputError(inside(where, key), f"{given!r}", "none: the file says it itself")
        if gradient and ending in HDF5:
            raise InputError(
                inside(where, "measure"), repr(measure), "six components, in HDF5", "Write Green and Lagrange's."
            )
        if gradient:
            return chosen_values(field_of_frame(*_of_gradients(*frame_of(path)), "strain"), element_values, "both")
        field = read_field_hdf5(path) if ending in HDF5 else field_of_frame(*frame_of(path), "strain")
        if field.dimension != "strain":
            raise InputError(where, f"a field of {field.dimension}", "a field of strains")
        return _converted(chosen_values(field, element_values, "both"), measure, shear)
    if strain_unit is None or length_unit is None:
        key = next(key for key, given in units.items() if given is None)
        raise InputError(inside(where, key), "nothing", "a unit, as the file carries none", "Such as 'mm/mm'.")
    if ending == ".frd":
        if gradient:
            raise InputError(inside(where, "measure"), repr(measure), "'green-lagrange', as such files hold it")
        if component_order is not None or isinstance(cases, Mapping):
            key = "cases" if component_order is None else "component_order"
            raise InputError(inside(where, key), "one for a result file", "names of its steps alone")
        how = {"stress_unit": strain_unit, "length_unit": length_unit}
        field = field_of_steps(path, **how, cases=cases, look=refuse_no_load_case, dimension="strain")
    elif cases is None:
        raise InputError(inside(where, "cases"), "nothing", "the names of the data that are strains")
    else:
        more: dict[str, Any] = {} if component_order is None else {"order": component_order}
        if gradient:
            more["six"] = lambda nine: green_lagrange(nine, GRADIENT)
        field = read_mesh(
            path, stress_unit=strain_unit, length_unit=length_unit, cases=cases, dimension="strain", **more
        )
        if gradient:
            return chosen_values(field, element_values, "both")
    return _converted(chosen_values(field, element_values, "both"), measure, shear)


def _of_gradients(frame: Any, where: str) -> tuple[Any, str]:
    """A table of deformation gradients as one of Green and Lagrange's strains."""
    heads = {name_and_unit(str(cell))[0].lower(): cell for cell in frame.columns}
    missing = [name for name in NINE if name not in heads]
    if missing:
        raise InputError(where, f"no column {missing[0]!r}", f"the nine of a deformation gradient: {listed(NINE)}")
    nine = np.column_stack([column_numbers(frame[heads[one]], inside(where, f"column {heads[one]!r}")) for one in NINE])
    strains = green_lagrange(nine, GRADIENT)
    rest = frame.drop(columns=[heads[one] for one in NINE])
    return rest.assign(**{f"{one} [-]": strains[:, i] for i, one in enumerate(COMPONENTS)}), where


def _converted(field: StressField, measure: str, shear: str) -> StressField:
    """Its strains as Green and Lagrange's."""
    values = _of_rows(field, np.asarray(field.stresses), field.node_ids, measure, shear)
    rows = field.rows
    if rows is not None:
        of_rows = _of_rows(field, np.asarray(rows.stresses), field.node_ids[rows.nodes], measure, shear)
        rows = dataclasses.replace(rows, stresses=of_rows)
    return dataclasses.replace(field, stresses=values, rows=rows)


def _of_rows(field: StressField, values: FloatArray, nodes: IntArray, measure: str, shear: str) -> FloatArray:
    if measure == "green-lagrange":  # as they are; that stretches are above 0 is asked of places that are assessed
        return values * np.array([1.0, 1.0, 1.0, 0.5, 0.5, 0.5]) if shear == "engineering" else values
    found = np.empty_like(values)
    for k, own in enumerate(values):
        try:
            found[k] = green_lagrange(own, measure, shear=shear)
        except InputError as error:
            row = _refused_row(own, measure, shear)
            raise InputError(
                inside(field.place, f"case {field.cases[k]}, node {nodes[row]}"),
                error.found,
                error.expected,
                error.remedy,
            ) from None
    return found


def _refused_row(values: FloatArray, measure: str, shear: str) -> int:
    """The first row that has no stretches, by halves."""
    low, high = 0, len(values)
    while high - low > 1:
        middle = (low + high) // 2
        try:
            green_lagrange(values[low:middle], measure, shear=shear)
            low = middle
        except InputError:
            high = middle
    return low
