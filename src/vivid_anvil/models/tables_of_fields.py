"""Stress fields in tables: CSV, workbooks and Parquet, a row for every node and load case; and fields written as tables."""

from __future__ import annotations

from pathlib import Path
from typing import Any

import numpy as np

from vivid_anvil.ground.checks import FloatArray, IntArray
from vivid_anvil.ground.errors import InputError, inside, listed
from vivid_anvil.ground.extras import needed
from vivid_anvil.ground.files import existing, read_by_others, replacing
from vivid_anvil.models.averaging import shell_faces
from vivid_anvil.models.element_values import field_of_rows
from vivid_anvil.models.rows import FACES, Rows
from vivid_anvil.models.stress_field import StressField, joined_cases
from vivid_anvil.stress.measures import COMPONENTS
from vivid_anvil.units import DIMENSIONS, Dimension, factor, opened
from vivid_anvil.writing.headings import name_and_unit
from vivid_anvil.writing.read_table import column_numbers, read_frame

PLACES = ("x", "y", "z")
FORCES, MOMENTS = ("nxx", "nyy", "nxy"), ("mxx", "myy", "mxy")
PER_LENGTH = Dimension("force per length", "N/mm", "200 N/mm", "N/mm", "kip/in")
_DIMENSION = {
    **dict.fromkeys((*PLACES, "thickness"), DIMENSIONS["length"]),
    **dict.fromkeys(COMPONENTS, DIMENSIONS["stress"]),
    **dict.fromkeys(FORCES, PER_LENGTH),
    **dict.fromkeys(MOMENTS, DIMENSIONS["force"]),  # N mm in a width of 1 mm
}


@read_by_others("a table of stresses")
@opened()
def read_field_table(path: str | Path) -> StressField:
    """A field from a CSV file, a workbook or a Parquet file: columns `node`, `x [mm]`, `y`, `z`, `xx [MPa]` to `zx`, `load case`.

    With a column `element` the stresses of each element at a node stand in rows of their own; with `face` those of the "top" and
    "bottom" of a shell. A shell may have `thickness [mm]`, `nxx [N/mm]`, `nyy`, `nxy`, `mxx [N*mm/mm]`, `myy`, `mxy` instead of
    stresses, which gives both faces. `set` names a set that the node is in. Rows may stand in any order; every load case needs
    the same ones.

    Parameters
    ----------
    path : str or path
        The file.

    Returns
    -------
    StressField
        The field.

    Raises
    ------
    InputError
        With file and column.

    Examples
    --------
    >>> read_field_table(write_field_table(field, "head.csv"))  # field of the demo
    <StressField 7522 nodes, 2 cases (step 1, step 2), 0 elements>
    """
    return field_of_frame(*frame_of(path))


def frame_of(path: str | Path) -> tuple[Any, str]:
    """The cells of a table of stresses, and what to call it in messages."""
    file = existing(path, "a table of stresses")
    return _parquet(file) if file.suffix.lower() in (".parquet", ".pq") else read_frame(file)


def field_of_frame(frame: Any, where: str, dimension: str = "stress") -> StressField:
    """The field of these rows; InputError with file and column."""
    headings = {name_and_unit(str(cell))[0].lower(): str(cell) for cell in frame.columns}
    shell = "nxx" in headings and "xx" not in headings and dimension == "stress"
    wanted = ["node", *PLACES, *((*FORCES, *MOMENTS, "thickness") if shell else COMPONENTS)]
    missing = [name for name in wanted if name not in headings]
    if missing:
        raise InputError(
            where,
            f"no column {missing[0]!r} among {listed(headings)}",
            f"the columns {listed(wanted)}" + (", zeros where the stress is plane" if missing[0] in COMPONENTS else ""),
        )
    kinds = {**_DIMENSION, **dict.fromkeys(COMPONENTS, DIMENSIONS.get(dimension, DIMENSIONS["number"]))}
    columns: dict[str, Any] = {name: _column(frame, headings[name], where, kinds.get(name)) for name in wanted}
    columns["node"] = _whole(columns["node"], inside(where, "column 'node'"))
    if "element" in headings:
        place = inside(where, "column 'element'")
        columns["element"] = _whole(_column(frame, headings["element"], where, None), place)
    words = {name: _words(frame[headings[name]]) for name in ("face", "set") if name in headings}
    if "face" in words and not np.isin(words["face"], (*FACES, "")).all():
        odd = next(word for word in words["face"] if word not in (*FACES, ""))
        raise InputError(inside(where, "column 'face'"), repr(odd), f"one of {listed(FACES)}")
    if shell and "face" in words:
        raise InputError(inside(where, "column 'face'"), "faces beside forces and moments", "one of them")
    key = headings.get("load case")
    names = np.array(["load case 1"] * len(frame) if key is None else [str(one) for one in frame[key]])
    parts = []
    for name in dict.fromkeys(names.tolist()):
        rows = names == name
        own: dict[str, Any] = {column: values[rows] for column, values in (*columns.items(), *words.items())}
        parts.append(_shell_part(name, own, where) if shell else _part(name, own, where, dimension))
    return joined_cases(parts)


def _part(case: str, columns: dict[str, Any], where: str, dimension: str) -> StressField:
    """A load case of stresses."""
    stresses = np.column_stack([columns[one] for one in COMPONENTS])[None]
    if "element" not in columns and "face" not in columns:
        ids = columns["node"]
        coordinates = np.column_stack([columns[one] for one in PLACES])
        sets = _sets(ids, columns, ids)
        return StressField(
            cases=[case],
            node_ids=ids,
            coordinates=coordinates,
            stresses=stresses,
            node_sets=sets,
            source=where,
            dimension=dimension,
        )
    return _of_rows(case, columns, stresses, columns.get("face"), where, dimension)


def _shell_part(case: str, columns: dict[str, Any], where: str) -> StressField:
    """A load case of forces and moments: both faces."""
    forces, moments = (np.column_stack([columns[name] for name in names]) for names in (FORCES, MOMENTS))
    faces = shell_faces(forces, moments, columns["thickness"])
    both = np.concatenate([faces.top, faces.bottom])[None]
    twice = {name: np.concatenate([values, values]) for name, values in columns.items()}
    face = np.repeat(np.array(["top", "bottom"]), columns["node"].size)
    return _of_rows(case, twice, both, face, where)


def _of_rows(
    case: str, columns: dict[str, Any], stresses: FloatArray, faces: Any, where: str, dimension: str = "stress"
) -> StressField:
    ids, first, back = np.unique(columns["node"], return_index=True, return_inverse=True)
    places = np.column_stack([columns[one] for one in PLACES])
    moved = np.abs(places - places[first][back]).max(axis=1)
    if moved.max() > 1e-9:
        raise InputError(
            inside(where, f"node {columns['node'][moved.argmax()]}"), "two places", "the same place in all rows"
        )
    rows = Rows(back.astype(np.int64), stresses, columns.get("element"), faces)
    sets = _sets(ids, columns, columns["node"])
    return field_of_rows([case], ids, places[first], rows, node_sets=sets, source=where, dimension=dimension)


def _sets(ids: IntArray, columns: dict[str, Any], nodes: IntArray) -> dict[str, IntArray]:
    """Places of nodes by the name in the column `set`; an empty name is none."""
    if "set" not in columns:
        return {}
    names = columns["set"]
    return {str(name): np.flatnonzero(np.isin(ids, nodes[names == name])) for name in np.unique(names) if name}


@opened()
def write_field_table(field: StressField, path: str | Path) -> Path:
    """The field as CSV, or Parquet by its ending: what `read_field_table` reads. Sets and elements are left out.

    Parameters
    ----------
    field : StressField
        Stresses of a finite-element model.
    path : str or path
        Where to, as CSV, or Parquet by its ending.

    Returns
    -------
    Path
        The file.

    Raises
    ------
    InputError
        For an argument of another kind, unit or range; the message says which.

    Examples
    --------
    >>> write_field_table(field, "head.csv").name  # field of the demo
    'head.csv'
    """
    import pandas as pd

    target = Path(path)
    frames = []
    owners, unit = field.owners, "MPa" if field.dimension == "stress" else "-"
    for name in field.cases:
        columns: dict[str, Any] = {"node": field.node_ids[owners]}
        if field.rows is not None and field.rows.elements is not None:
            columns["element"] = field.rows.elements
        if field.rows is not None and field.rows.faces is not None:
            columns["face"] = field.rows.faces
        columns |= {f"{one} [mm]": field.coordinates[owners, i] for i, one in enumerate(PLACES)}
        columns |= {f"{one} [{unit}]": field.assessed(name)[:, i] for i, one in enumerate(COMPONENTS)}
        frames.append(pd.DataFrame({**columns, "load case": name}))
    whole = pd.concat(frames, ignore_index=True)
    with replacing(target) as temporary:
        if target.suffix.lower() in (".parquet", ".pq"):
            needed("pyarrow", target.name)
            whole.to_parquet(temporary, index=False)
        else:
            whole.to_csv(temporary, index=False)
    return target


def _parquet(path: Path) -> tuple[Any, str]:
    import pandas as pd

    needed("pyarrow", path.name)
    try:
        return pd.read_parquet(path), path.name
    except (OSError, ValueError) as error:
        raise InputError(path.name, f"a file that cannot be read ({error})", "a whole Parquet file") from None


def _words(column: Any) -> np.ndarray:
    """Text of the cells; nothing for an empty one."""
    return np.array(["" if one is None or one != one else str(one).strip() for one in column])


def _whole(values: FloatArray, where: str) -> IntArray:
    odd = np.flatnonzero(values != np.round(values))
    if odd.size:
        raise InputError(inside(where, f"row {odd[0] + 1}"), f"{values[odd[0]]:g}", "a whole number")
    return values.astype(np.int64)


def _column(frame: Any, cell: str, where: str, dimension: Dimension | None) -> FloatArray:
    place = inside(where, f"column {cell!r}")
    values = column_numbers(frame[cell], place)
    if dimension is None:
        return values
    unit = name_and_unit(cell)[1]
    if not unit:
        raise InputError(place, "no unit", f"a unit in brackets, such as '{cell} [{dimension.coherent}]'")
    if dimension.name == "strain" and unit in ("-", "1"):
        return values
    return np.asarray(values * factor(unit, dimension, place))
