"""Stress fields from meshes that the general mesh package reads (VTU, VTK, ...): tensors as point data or as cell data."""

from __future__ import annotations

import contextlib
import io
from collections.abc import Callable, Mapping, Sequence
from pathlib import Path
from typing import Any

import numpy as np

from vivid_anvil.ground.checks import FloatArray, IntArray
from vivid_anvil.ground.errors import InputError, did_you_mean, inside, listed
from vivid_anvil.ground.extras import needed
from vivid_anvil.ground.files import existing, read_by_others
from vivid_anvil.models.element_values import field_of_rows
from vivid_anvil.models.mesh_data import ORDERS, Way, of_case
from vivid_anvil.models.rows import FACES, Rows
from vivid_anvil.models.stress_field import Elements, StressField
from vivid_anvil.units import DIMENSIONS, factor, opened

MOST_KINDS = 100  # more different numbers than this are no materials


@read_by_others("a whole mesh file")
@opened()
def read_mesh(
    path: str | Path,
    *,
    stress_unit: str,
    length_unit: str,
    cases: Mapping[str, str | Mapping[str, str]] | Sequence[str],
    order: str = "xx, yy, zz, xy, yz, zx",
    dimension: str = "stress",
    six: Callable[[FloatArray], FloatArray] | None = None,
) -> StressField:
    """The stresses of a mesh file; `cases` are the names of its data, or names of load cases with the data of each.

    A load case of shells may have data for each face, `{"vertical": {"top": "S top", "bottom": "S bottom"}}`, or forces and
    moments, three components each in the axes of the element, with their units, `{"vertical": {"forces": "N [N/mm]", "moments":
    "M [N*mm/mm]", "thickness": "t [mm]"}}`. Stresses have six components in `order`, one of `ORDERS`, or nine as full tensors.

    Point data are taken as they are; cell data are those of each element at the nodes of its cell (see `averaged`). Sets of the
    file are kept, and whole numbers of cells or points, such as those of a material, make sets "material 1", "material 2".

    Parameters
    ----------
    path : str or path
        The file.
    stress_unit : str
        Unit of the stresses, where the file has none; else None.
    length_unit : str
        Unit of the coordinates, where the file has none; else None.
    cases : mapping of str to str or Mapping[str, str] or sequence of str
        The load cases.
    order : str, default "xx, yy, zz, xy, yz, zx"
        Order of the six components: one of `ORDERS`.
    dimension : str, default "stress"
        "stress", or "strain", whose unit is stated in the same way.
    six : callable, optional
        Makes six components of nine, shape (n, 9) to (n, 6), where the data are full tensors of another kind.

    Returns
    -------
    StressField
        The field.

    Raises
    ------
    InputError
        For data that are not there, another number of components, and files that cannot be read.

    Examples
    --------
    >>> import meshio
    >>> corners = [[0.0, 0, 0], [10, 0, 0], [0, 10, 0], [0, 0, 10]]
    >>> pull = {"S": [[120.0, 0, 0, 0, 0, 0]] * 4}
    >>> meshio.Mesh(corners, [("tetra", [[0, 1, 2, 3]])], pull).write("part.vtu")
    >>> read_mesh("part.vtu", stress_unit="MPa", length_unit="mm", cases=["S"])
    <StressField 4 nodes, 1 case (S), 1 elements>
    """
    file = existing(path, "a mesh file")
    if order not in ORDERS:
        raise InputError(
            inside(f"{file.name}", "order"), repr(order), f"one of {listed(ORDERS)}", did_you_mean(order, ORDERS)
        )
    mesh = _mesh(file)
    scale = factor(stress_unit, DIMENSIONS[dimension], f"{file.name}, {dimension}_unit")
    length = factor(length_unit, DIMENSIONS["length"], f"{file.name}, length_unit")
    named = dict(cases) if isinstance(cases, Mapping) else {name: name for name in cases}
    points = np.zeros((len(mesh.points), 3))
    points[:, : mesh.points.shape[1]] = mesh.points
    way = Way(ORDERS[order], scale, length, six)
    tables = [of_case(mesh, data, f"{file.name}, load case {name}", way) for name, data in named.items()]
    keys = [table.keys for table in tables]
    if any(not np.array_equal(key, keys[0]) for key in keys):
        raise InputError(file.name, "load cases with stresses at different nodes, elements or faces", "the same in all")
    nodes, elements, faces = keys[0].T
    known = np.isin(np.arange(len(points)), nodes)
    new = np.cumsum(known) - 1
    stresses = np.array([table.stresses for table in tables])
    rest: dict[str, Any] = {
        "node_sets": _node_sets(mesh, known, new),
        "element_sets": _element_sets(mesh),
        "elements": _elements(mesh, known, new),
        "source": file.name,
        "dimension": dimension,
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


def _elements(mesh: Any, known: np.ndarray, new: IntArray) -> list[Elements]:
    """Elements all of whose nodes have a stress."""
    kept, first = [], 1
    for block in mesh.cells:
        nodes = np.asarray(block.data)
        ids = np.arange(first, first + len(nodes))
        first += len(nodes)
        whole = known[nodes].all(axis=1) if nodes.size else np.zeros(0, dtype=bool)
        if whole.any():
            kept.append(Elements(block.type, new[nodes[whole]], ids[whole]))
    return kept


def _mesh(found: Path) -> Any:
    needed("meshio", found.name)
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


def _node_sets(mesh: Any, known: np.ndarray, new: IntArray) -> dict[str, IntArray]:
    """Places of nodes with stress: sets of points, whole numbers of points, and nodes of sets of elements."""
    sets = {name: np.asarray(places, dtype=np.int64) for name, places in (mesh.point_sets or {}).items()}
    for name, values in mesh.point_data.items():
        sets |= {label: np.flatnonzero(values == value) for label, value in _kinds(name, [values])}
    nodes = [np.asarray(block.data) for block in mesh.cells]
    first = np.cumsum([1, *(len(node) for node in nodes)])
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
            sets[label] = np.flatnonzero(np.concatenate([np.asarray(block).ravel() for block in blocks]) == value) + 1
    return sets


def _kinds(name: str, blocks: Sequence[Any]) -> list[tuple[str, int]]:
    """Names of sets for whole numbers that come again and again, such as those of materials."""
    values = [np.asarray(block) for block in blocks]
    if not values or any(value.dtype.kind not in "iu" or value.ndim > 1 for value in values):
        return []
    distinct = np.unique(np.concatenate(values))
    return [(f"{name} {value}", int(value)) for value in distinct] if distinct.size <= MOST_KINDS else []
