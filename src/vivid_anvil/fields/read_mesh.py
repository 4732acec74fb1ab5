"""Stress fields from meshes that the general mesh package reads (VTU, VTK, ...): tensors as point data or as cell data."""

from __future__ import annotations

import contextlib
import io
from collections.abc import Mapping, Sequence
from pathlib import Path
from typing import Any, NamedTuple

import numpy as np

from vivid_anvil.checks import FloatArray, IntArray
from vivid_anvil.errors import InputError, did_you_mean, listed
from vivid_anvil.fields.element_values import field_of_rows
from vivid_anvil.fields.rows import FACES, Rows
from vivid_anvil.fields.stress_field import Elements, StressField
from vivid_anvil.tables import existing
from vivid_anvil.units import DIMENSIONS, factor

# Orders of the six components that are found in such files: places of xx, yy, zz, xy, yz, zx.
ORDERS = {"xx, yy, zz, xy, yz, zx": (0, 1, 2, 3, 4, 5), "xx, yy, zz, xy, xz, yz": (0, 1, 2, 3, 5, 4)}
MOST_KINDS = 100  # more different numbers than this are no materials


def read_mesh(
    path: str | Path,
    *,
    stress_unit: str,
    length_unit: str,
    cases: Mapping[str, str | Mapping[str, str]] | Sequence[str],
    order: str = "xx, yy, zz, xy, yz, zx",
) -> StressField:
    """The stresses of a mesh file; `cases` are the names of its data, or names of load cases with the data of each.

    A load case of shells may have data for each face: `{"vertical": {"top": "S top", "bottom": "S bottom"}}`. Data have six
    components in `order`, one of `ORDERS`, or nine as full tensors. Point data are taken as they are; cell data are those of each
    element at the nodes of its cell (see `averaged`). Sets of the file are kept, and whole numbers of cells or points, such as
    those of a material, make sets "material 1", "material 2". Raises InputError for data that are not there, another number of
    components, and files that cannot be read.
    """
    found = existing(path, "a mesh file")
    if order not in ORDERS:
        raise InputError(f"{found.name}, order", repr(order), f"one of {listed(ORDERS)}", did_you_mean(order, ORDERS))
    mesh = _mesh(found)
    scale = factor(stress_unit, DIMENSIONS["stress"], f"{found.name}, stress_unit")
    length = factor(length_unit, DIMENSIONS["length"], f"{found.name}, length_unit")
    named = dict(cases) if isinstance(cases, Mapping) else {name: name for name in cases}
    points = np.zeros((len(mesh.points), 3))
    points[:, : mesh.points.shape[1]] = mesh.points
    tables = [_case(mesh, data, f"{found.name}, load case {name}", ORDERS[order]) for name, data in named.items()]
    keys = [table.keys for table in tables]
    if any(not np.array_equal(key, keys[0]) for key in keys):
        raise InputError(
            found.name, "load cases with stresses at different nodes, elements or faces", "the same in all"
        )
    nodes, elements, faces = keys[0].T
    known = np.isin(np.arange(len(points)), nodes)
    new = np.cumsum(known) - 1
    stresses = np.array([table.stresses for table in tables]) * scale
    kept, first = [], 1
    for block in mesh.cells:
        ids = np.arange(first, first + len(block.data))
        first += len(block.data)
        if block.data.size and known[block.data].all():
            kept.append(Elements(block.type, new[block.data], ids))
    rest: dict[str, Any] = {
        "node_sets": _node_sets(mesh, known, new),
        "element_sets": _element_sets(mesh),
        "elements": kept,
        "source": found.name,
    }
    ids, places = np.flatnonzero(known) + 1, points[known] * length
    if not elements.any() and not faces.any():
        at = np.argsort(nodes)
        return StressField(cases=list(named), node_ids=ids, coordinates=places, stresses=stresses[:, at], **rest)
    rows = Rows(
        new[nodes],
        stresses,
        elements if elements.any() else None,
        np.array(["", *FACES])[faces] if faces.any() else None,
    )
    return field_of_rows(list(named), ids, places, rows, **rest)


def _mesh(found: Path) -> Any:
    import meshio

    said = io.StringIO()
    try:
        with contextlib.redirect_stdout(said), contextlib.redirect_stderr(said):
            return meshio.read(found)
    except (Exception, SystemExit) as error:  # the package raises whatever its readers meet, or says it and ends
        words = " ".join((said.getvalue() or str(error)).split())
        raise InputError(
            found.name, f"a mesh that cannot be read ({words})", "a whole mesh file, such as .vtu or .vtk"
        ) from None


class _Table(NamedTuple):
    """Stresses of a load case, (r, 6), and of which node, element (0 for none) and face (0 for none) each is, (r, 3)."""

    keys: IntArray
    stresses: FloatArray


def _case(mesh: Any, data: str | Mapping[str, str], where: str, order: Sequence[int]) -> _Table:
    if isinstance(data, str):
        return _data(mesh, data, 0, where, order)
    parts = []
    for face, name in data.items():
        if face not in FACES:
            raise InputError(f"{where}, face", repr(face), f"one of {listed(FACES)}", did_you_mean(face, FACES))
        parts.append(_data(mesh, name, 1 + FACES.index(face), f"{where}, {face} face", order))
    if not parts:
        raise InputError(where, "no faces", f"data for some of {listed(FACES)}")
    return _Table(np.concatenate([one.keys for one in parts]), np.concatenate([one.stresses for one in parts]))


def _data(mesh: Any, name: str, face: int, where: str, order: Sequence[int]) -> _Table:
    """Tensors of the points, nan where a point has none, or of the cells at each of their nodes."""
    if name in mesh.point_data:
        six = _six(np.asarray(mesh.point_data[name], dtype=np.float64), f"{where}, {name}", order)
        nodes = np.flatnonzero(np.isfinite(six).any(axis=1))
        return _Table(np.column_stack([nodes, np.zeros_like(nodes), np.full_like(nodes, face)]), six[nodes])
    if name not in mesh.cell_data:
        known = [*mesh.point_data, *mesh.cell_data]
        expected = f"one of {listed(known)}" if known else "point data or cell data"
        raise InputError(f"{where}, data", repr(name), expected, did_you_mean(name, known))
    keys, tensors, first = [], [], 1
    for block, values in zip(mesh.cells, mesh.cell_data[name], strict=True):
        six = _six(np.asarray(values, dtype=np.float64), f"{where}, {name}", order)
        width = block.data.shape[1]
        ids = np.repeat(np.arange(first, first + len(block.data)), width)
        first += len(block.data)
        keys.append(np.column_stack([block.data.ravel(), ids, np.full_like(ids, face)]))
        tensors.append(np.repeat(six, width, axis=0))
    return _Table(np.concatenate(keys).astype(np.int64), np.concatenate(tensors))


def _node_sets(mesh: Any, known: np.ndarray, new: IntArray) -> dict[str, IntArray]:
    """Places of nodes with stress: sets of points, whole numbers of points, and nodes of sets of elements."""
    sets = {name: np.asarray(places, dtype=np.int64) for name, places in (mesh.point_sets or {}).items()}
    for name, values in mesh.point_data.items():
        sets |= {label: np.flatnonzero(values == value) for label, value in _kinds(name, [values])}
    nodes = [np.asarray(block.data) for block in mesh.cells]
    first = np.cumsum([1, *(len(one) for one in nodes)])
    for name, ids in _element_sets(mesh).items():
        inside = [
            one[np.isin(np.arange(len(one)) + start, ids)].ravel() for one, start in zip(nodes, first, strict=False)
        ]
        sets.setdefault(name, np.unique(np.concatenate(inside)).astype(np.int64))
    return {name: new[places[known[places]]] for name, places in sets.items()}


def _element_sets(mesh: Any) -> dict[str, IntArray]:
    """Numbers of elements: sets of cells, and whole numbers of cells."""
    sizes = [len(block.data) for block in mesh.cells]
    first = np.cumsum([1, *sizes])
    sets = {}
    for name, blocks in (mesh.cell_sets or {}).items():
        parts = [
            np.asarray(rows, dtype=np.int64) + start
            for rows, start in zip(blocks, first, strict=False)
            if rows is not None and len(rows)
        ]
        sets[name] = np.concatenate(parts) if parts else np.empty(0, dtype=np.int64)
    for name, blocks in mesh.cell_data.items():
        for label, value in _kinds(name, blocks):
            sets[label] = np.flatnonzero(np.concatenate([np.asarray(one).ravel() for one in blocks]) == value) + 1
    return sets


def _kinds(name: str, blocks: Sequence[Any]) -> list[tuple[str, int]]:
    """Names of sets for whole numbers that come again and again, such as those of materials."""
    values = [np.asarray(one) for one in blocks]
    if not values or any(one.dtype.kind not in "iu" or one.ndim > 1 for one in values):
        return []
    found = np.unique(np.concatenate(values))
    return [(f"{name} {value}", int(value)) for value in found] if found.size <= MOST_KINDS else []


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
