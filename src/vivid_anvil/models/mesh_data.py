"""Data of a mesh as stresses: tensors of points or cells, faces of shells, or their forces and moments."""

from __future__ import annotations

from collections.abc import Callable, Mapping, Sequence
from typing import Any, NamedTuple

import numpy as np

from vivid_anvil.ground.checks import FloatArray, IntArray
from vivid_anvil.ground.errors import InputError, did_you_mean, inside, listed
from vivid_anvil.models.averaging import shell_faces
from vivid_anvil.models.rows import FACES
from vivid_anvil.models.tables_of_fields import PER_LENGTH
from vivid_anvil.units import DIMENSIONS, factor
from vivid_anvil.writing.headings import name_and_unit

# Orders of the six components that are found in such files: places of xx, yy, zz, xy, yz, zx.
ORDERS = {"xx, yy, zz, xy, yz, zx": (0, 1, 2, 3, 4, 5), "xx, yy, zz, xy, xz, yz": (0, 1, 2, 3, 5, 4)}
# What gives the stresses of a shell: dimension and number of components; moments are N mm in a width of 1 mm.
SHELL = {"forces": (PER_LENGTH, 3), "moments": (DIMENSIONS["force"], 3), "thickness": (DIMENSIONS["length"], 1)}


class Table(NamedTuple):
    """Stresses of a load case, (r, 6), and of which node, element (0 for none) and face (0 for none) each is, (r, 3)."""

    keys: IntArray
    stresses: FloatArray


class Way(NamedTuple):
    """How data are read: order of the components, factors to MPa and mm; `six`, where stated, makes six components of nine."""

    order: Sequence[int]
    scale: float
    length: float
    six: Callable[[FloatArray], FloatArray] | None = None


def of_case(mesh: Any, data: str | Mapping[str, str], where: str, way: Way) -> Table:
    """The stresses of a load case, MPa: one data array, one for each face, or forces and moments of shells."""
    if isinstance(data, str):
        return _stresses(mesh, data, 0, where, way)
    if set(data) & {*SHELL}:
        return _shell(mesh, data, where)
    parts = []
    for face, name in data.items():
        if face not in FACES:
            hint = did_you_mean(face, (*FACES, *SHELL))
            raise InputError(inside(where, "face"), repr(face), f"one of {listed(FACES)}, or {listed(SHELL)}", hint)
        parts.append(_stresses(mesh, name, 1 + FACES.index(face), inside(where, f"{face} face"), way))
    if not parts:
        raise InputError(where, "no faces", f"data for some of {listed(FACES)}")
    return Table(np.concatenate([part.keys for part in parts]), np.concatenate([part.stresses for part in parts]))


def _stresses(mesh: Any, name: str, face: int, where: str, way: Way) -> Table:
    """Tensors of the points, nan where a point has none, or of the cells at each of their nodes."""
    nodes, elements, values = _data(mesh, name, where)
    place = inside(where, f"{name}")
    six = _six(values, place, way.order) * way.scale if way.six is None else _of_nine(values, place, way.six)
    there = np.isfinite(six).any(axis=1) if not elements.any() else np.ones(nodes.size, dtype=bool)
    return Table(np.column_stack([nodes, elements, np.full_like(nodes, face)])[there], six[there])


def _shell(mesh: Any, data: Mapping[str, str], where: str) -> Table:
    """Both faces from forces and moments; the thickness too is data."""
    if set(data) != {*SHELL}:
        raise InputError(where, listed(data), f"all of {listed(SHELL)}, each as 'name [unit]'")
    found, keys = [], None
    for what, (dimension, columns) in SHELL.items():
        name, unit = name_and_unit(data[what])
        place = inside(where, f"{what}")
        if not unit:
            raise InputError(
                place, repr(data[what]), f"a unit beside the name, such as '{name} [{dimension.coherent}]'"
            )
        nodes, elements, values = _data(mesh, name, place)
        flat = values.reshape(len(values), -1)
        if flat.shape[1] != columns:
            raise InputError(
                place, f"{flat.shape[1]} components", f"{columns}" + (": xx, yy, xy" if columns == 3 else "")
            )
        key = np.column_stack([nodes, elements])
        if keys is not None and not np.array_equal(key, keys):
            raise InputError(place, "data at other places", "all three of points, or all three of cells")
        keys = key
        found.append(flat * factor(unit, dimension, place))
    assert keys is not None, "there are three"
    faces = shell_faces(found[0], found[1], found[2][:, 0])
    both = [np.column_stack([keys, np.full(len(keys), 1 + FACES.index(face))]) for face in ("top", "bottom")]
    return Table(np.concatenate(both), np.concatenate([faces.top, faces.bottom]))


def _data(mesh: Any, name: str, where: str) -> tuple[IntArray, IntArray, FloatArray]:
    """Places of nodes, numbers of elements (0 for data of points), and values, of points or of cells at each of their nodes."""
    if name in mesh.point_data:
        values = np.asarray(mesh.point_data[name], dtype=np.float64)
        nodes = np.arange(len(values))
        return nodes, np.zeros_like(nodes), values
    if name not in mesh.cell_data:
        known = [*mesh.point_data, *mesh.cell_data]
        expected = f"one of {listed(known)}" if known else "point data or cell data"
        raise InputError(inside(where, "data"), repr(name), expected, did_you_mean(name, known))
    places, numbers, rows, first = [], [], [], 1
    for block, values in zip(mesh.cells, mesh.cell_data[name], strict=True):
        width = block.data.shape[1]
        places.append(block.data.ravel())
        numbers.append(np.repeat(np.arange(first, first + len(block.data)), width))
        first += len(block.data)
        rows.append(np.repeat(np.asarray(values, dtype=np.float64), width, axis=0))
    return np.concatenate(places).astype(np.int64), np.concatenate(numbers), np.concatenate(rows)


def _of_nine(values: FloatArray, where: str, six: Callable[[FloatArray], FloatArray]) -> FloatArray:
    """Six components of nine each, row by row of the tensor; nan where a point has none."""
    flat = values.reshape(len(values), -1)
    if flat.shape[1] != 9:
        raise InputError(where, f"{flat.shape[1]} components", "9 of a full tensor, row by row")
    found = np.full((len(flat), 6), np.nan)
    there = np.isfinite(flat).all(axis=1)
    if there.any():
        found[there] = six(flat[there])
    return found


def _six(values: FloatArray, where: str, order: Sequence[int]) -> FloatArray:
    flat = values.reshape(len(values), -1)
    if flat.shape[1] == 9:
        return np.asarray(flat[:, [0, 4, 8, 1, 5, 2]])
    if flat.shape[1] != 6:
        raise InputError(
            where,
            f"{flat.shape[1]} components",
            "6 components, or 9 of a full tensor",
            "A plane state needs zeros for zz, yz and zx." if flat.shape[1] in (3, 4) else "Is it a stress?",
        )
    return np.asarray(flat[:, list(order)])
