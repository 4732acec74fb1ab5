"""Stress fields in tables: CSV, Parquet and HDF5, a row for every node and load case; and results written as tables."""

from __future__ import annotations

from pathlib import Path
from typing import Any

import numpy as np

from vivid_anvil.checks import FloatArray
from vivid_anvil.errors import InputError, listed
from vivid_anvil.fields.stress_field import COMPONENTS, StressField, joined_cases
from vivid_anvil.tables import column_numbers, existing, read_frame
from vivid_anvil.units import DIMENSIONS, factor

PLACES = ("x", "y", "z")


def read_field_table(path: str | Path) -> StressField:
    """A field from a CSV file, a workbook or a Parquet file: columns `node`, `x [mm]`, `y`, `z`, `xx [MPa]` to `zx`, `load case`.

    Rows may stand in any order; every load case needs the same nodes. Raises InputError with file and column.
    """
    found = existing(path, "a table of stresses")
    frame, where = _parquet(found) if found.suffix.lower() in (".parquet", ".pq") else read_frame(found)
    headings = {str(cell).partition("[")[0].strip().lower(): str(cell) for cell in frame.columns}
    wanted = ["node", *PLACES, *COMPONENTS]
    missing = [name for name in wanted if name not in headings]
    if missing:
        raise InputError(
            where,
            f"no column {missing[0]!r} among {listed(headings)}",
            f"the columns {listed(wanted)}" + (", zeros where the stress is plane" if missing[0] in COMPONENTS else ""),
        )
    columns = {name: _column(frame, headings[name], where, _dimension(name)) for name in wanted}
    key = headings.get("load case")
    names = np.array(["load case 1"] * len(frame) if key is None else [str(one) for one in frame[key]])
    parts = []
    for name in dict.fromkeys(names.tolist()):
        rows = names == name
        parts.append(
            StressField(
                cases=[name],
                node_ids=columns["node"][rows].astype(np.int64),
                coordinates=np.column_stack([columns[one][rows] for one in PLACES]),
                stresses=np.column_stack([columns[one][rows] for one in COMPONENTS])[None],
                source=where,
            )
        )
    return joined_cases(parts)


def write_field_table(field: StressField, path: str | Path) -> Path:
    """The field as CSV, or Parquet by its ending: what `read_field_table` reads."""
    import pandas as pd

    target = Path(path)
    frames = []
    for name in field.cases:
        columns: dict[str, Any] = {"node": field.node_ids}
        columns |= {f"{one} [mm]": field.coordinates[:, i] for i, one in enumerate(PLACES)}
        columns |= {f"{one} [MPa]": field.of_case(name)[:, i] for i, one in enumerate(COMPONENTS)}
        frames.append(pd.DataFrame({**columns, "load case": name}))
    whole = pd.concat(frames, ignore_index=True)
    if target.suffix.lower() in (".parquet", ".pq"):
        whole.to_parquet(target, index=False)
    else:
        whole.to_csv(target, index=False)
    return target


def write_field_hdf5(field: StressField, path: str | Path) -> Path:
    """The field as HDF5: `node`, `coordinates` in mm, and `stresses`, (cases, n, 6), in MPa, with the names of the cases."""
    import h5py

    target = Path(path)
    with h5py.File(target, "w") as file:
        file["node"], file["coordinates"] = field.node_ids, field.coordinates
        file["coordinates"].attrs["unit"] = "mm"
        file["stresses"] = field.stresses
        file["stresses"].attrs["unit"] = "MPa"
        file["stresses"].attrs["cases"] = list(field.cases)
        file["stresses"].attrs["components"] = list(COMPONENTS)
    return target


def read_field_hdf5(path: str | Path) -> StressField:
    """A field from HDF5 as `write_field_hdf5` leaves it; InputError for anything else, and for a file that is cut off."""
    import h5py

    found = existing(path, "a field in HDF5")
    try:
        with h5py.File(found, "r") as file:
            missing = [name for name in ("node", "coordinates", "stresses") if name not in file]
            if missing:
                raise InputError(found.name, f"no data set {missing[0]!r}", "node, coordinates and stresses")
            stresses, places = file["stresses"], file["coordinates"]
            units = stresses.attrs.get("unit"), places.attrs.get("unit")
            if None in units or "cases" not in stresses.attrs:
                raise InputError(found.name, "no unit or no names of cases", "attributes unit and cases")
            return StressField(
                cases=[str(one) for one in stresses.attrs["cases"]],
                node_ids=file["node"][:],
                coordinates=places[:] * factor(str(units[1]), DIMENSIONS["length"], found.name),
                stresses=stresses[:] * factor(str(units[0]), DIMENSIONS["stress"], found.name),
                source=found.name,
            )
    except OSError as error:
        raise InputError(found.name, f"a file that cannot be read ({error})", "a whole HDF5 file") from None


def _parquet(path: Path) -> tuple[Any, str]:
    import pandas as pd

    try:
        return pd.read_parquet(path), path.name
    except (OSError, ValueError) as error:
        raise InputError(path.name, f"a file that cannot be read ({error})", "a whole Parquet file") from None


def _dimension(name: str) -> str:
    return "" if name == "node" else "length" if name in PLACES else "stress"


def _column(frame: Any, cell: str, where: str, dimension: str) -> FloatArray:
    place = f"{where}, column {cell!r}"
    values = column_numbers(frame[cell], place)
    if not dimension:
        return values
    unit = cell.partition("[")[2].strip(" ]")
    if not unit:
        raise InputError(
            place, "no unit", f"a unit in brackets, such as '{cell} [{'MPa' if dimension == 'stress' else 'mm'}]'"
        )
    return np.asarray(values * factor(unit, DIMENSIONS[dimension], place))
