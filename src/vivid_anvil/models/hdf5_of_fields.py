"""Large stress fields in HDF5: everything a field has, each array with its unit."""

from __future__ import annotations

from pathlib import Path
from typing import Any

import numpy as np

from vivid_anvil.ground.checks import FloatArray, one_of
from vivid_anvil.ground.errors import InputError
from vivid_anvil.ground.extras import needed
from vivid_anvil.ground.files import existing, read_by_others, replacing
from vivid_anvil.models.element_values import field_of_rows
from vivid_anvil.models.rows import Rows
from vivid_anvil.models.stress_field import UNITS_OF, Elements, StressField
from vivid_anvil.stress.measures import COMPONENTS
from vivid_anvil.units import DIMENSIONS, factor, opened


@opened()
def write_field_hdf5(field: StressField, path: str | Path) -> Path:
    """The field as HDF5: `node`, `coordinates` in mm, `stresses`, (cases, n, 6), in MPa, with the names of the cases.

    Where nodes have several stresses, `stresses` are those of the rows, with `row node`, `row element`, `row face`. Groups
    `node sets`, `element sets` (by number) and `elements` (by kind) hold the rest.
    """
    target = Path(path)
    needed("h5py", target.name)
    import h5py

    with replacing(target) as temporary, h5py.File(temporary, "w") as file:
        file["node"], file["coordinates"] = field.node_ids, field.coordinates
        file["coordinates"].attrs["unit"] = "mm"
        file["stresses"] = field.stresses if field.rows is None else field.rows.stresses
        file["stresses"].attrs["unit"] = UNITS_OF[field.dimension]
        file["stresses"].attrs["dimension"] = field.dimension
        file["stresses"].attrs["cases"] = list(field.cases)
        file["stresses"].attrs["components"] = list(COMPONENTS)
        if field.rows is not None:
            file["row node"] = field.node_ids[field.rows.nodes]
            if field.rows.elements is not None:
                file["row element"] = field.rows.elements
            if field.rows.faces is not None:
                file["row face"] = field.rows.faces.astype("S6")
        for name, places in field.node_sets.items():
            file[f"node sets/{name}"] = field.node_ids[np.asarray(places)]
        for name, ids in field.element_sets.items():
            file[f"element sets/{name}"] = np.asarray(ids)
        for i, one in enumerate(field.elements):
            group = file.create_group(f"elements/{i}")
            group.attrs["kind"] = one.kind
            group["id"], group["nodes"] = one.ids, field.node_ids[one.nodes]
    return target


@read_by_others("a whole HDF5 file")
@opened()
def read_field_hdf5(path: str | Path) -> StressField:
    """A field from HDF5 as `write_field_hdf5` leaves it; InputError for anything else, and for a file that is cut off."""
    found = existing(path, "a field in HDF5")
    needed("h5py", found.name)
    import h5py

    try:
        with h5py.File(found, "r") as file:
            return _field(file, found.name)
    except OSError as error:
        raise InputError(found.name, f"a file that cannot be read ({error})", "a whole HDF5 file") from None


def _field(file: Any, where: str) -> StressField:
    if "stresses" not in file:
        raise InputError(where, "no data set 'stresses'", "node, coordinates and stresses")
    if "cases" not in file["stresses"].attrs:
        raise InputError(where, "no names of cases", "attributes unit and cases")
    cases = [str(one) for one in file["stresses"].attrs["cases"]]
    return field_of_arrays(file, cases, file["stresses"][:], where)


def _scale(unit: str, dimension: str, where: str) -> float:
    """What the unit of a file is in coherent ones; section loads stand in coherent ones alone."""
    if dimension in DIMENSIONS:
        return factor(unit, DIMENSIONS[dimension], where)
    if unit != UNITS_OF[dimension]:
        raise InputError(f"{where}, unit", repr(unit), repr(UNITS_OF[dimension]))
    return 1.0


def field_of_arrays(file: Any, cases: list[str], stresses: FloatArray, where: str) -> StressField:
    """The field of a file with these cases and stresses, in the unit that the file says."""
    missing = [name for name in ("node", "coordinates") if name not in file]
    if missing:
        raise InputError(where, f"no data set {missing[0]!r}", "node, coordinates and stresses")
    units = [file[name].attrs.get("unit") for name in ("stresses", "coordinates")]
    if None in units:
        raise InputError(where, "no unit", "attributes unit of stresses and coordinates")
    ids = file["node"][:]
    dimension = str(file["stresses"].attrs.get("dimension", "stress"))
    one_of(f"{where}, dimension", dimension, ("stress", "strain", "section loads"))
    values = stresses * _scale(str(units[0]), dimension, where)
    coordinates = file["coordinates"][:] * factor(str(units[1]), DIMENSIONS["length"], where)
    order = np.argsort(ids)

    def at(numbers: Any) -> Any:
        """Places of nodes by their numbers."""
        near = np.minimum(np.searchsorted(ids[order], numbers), ids.size - 1)
        if not (ids[order][near] == numbers).all():
            raise InputError(where, "a number of no node in a set, an element or a row", "numbers of nodes")
        return order[near]

    rest: dict[str, Any] = {
        "node_sets": {name: at(one[:]) for name, one in file.get("node sets", {}).items()},
        "element_sets": {name: one[:] for name, one in file.get("element sets", {}).items()},
        "elements": [
            Elements(str(one.attrs["kind"]), at(one["nodes"][:]), one["id"][:])
            for _, one in sorted(file.get("elements", {}).items(), key=lambda pair: int(pair[0]))
        ],
        "source": where,
        "dimension": dimension,
    }
    if "row node" not in file:
        return StressField(cases=cases, node_ids=ids, coordinates=coordinates, stresses=values, **rest)
    rows = Rows(
        at(file["row node"][:]),
        values,
        file["row element"][:] if "row element" in file else None,
        file["row face"][:].astype(str) if "row face" in file else None,
    )
    return field_of_rows(cases, ids, coordinates, rows, **rest)
