"""Stress fields from meshes that the general mesh package reads (VTU, VTK, ...): tensors as point data or as cell data."""

from __future__ import annotations

import contextlib
import io
from collections.abc import Mapping, Sequence
from pathlib import Path
from typing import Any

import numpy as np

from vivid_anvil.checks import FloatArray
from vivid_anvil.errors import InputError, did_you_mean, listed
from vivid_anvil.fields.averaging import averaged_at_nodes
from vivid_anvil.fields.stress_field import Elements, StressField
from vivid_anvil.tables import existing
from vivid_anvil.units import DIMENSIONS, factor

# Orders of the six components that are found in such files: places of xx, yy, zz, xy, yz, zx.
ORDERS = {"xx, yy, zz, xy, yz, zx": (0, 1, 2, 3, 4, 5), "xx, yy, zz, xy, xz, yz": (0, 1, 2, 3, 5, 4)}


def read_mesh(
    path: str | Path,
    *,
    stress_unit: str,
    length_unit: str,
    cases: Mapping[str, str] | Sequence[str],
    order: str = "xx, yy, zz, xy, yz, zx",
) -> StressField:
    """The stresses of a mesh file; `cases` are the names of its data, or names of load cases with the data of each.

    Data have six components in `order`, one of `ORDERS`, or nine as full tensors. Point data are taken as they are; cell data
    count at each node of their cell and are averaged, with the disagreement as `spread`. Raises InputError for data that are not
    there, another number of components, and files that cannot be read.
    """
    import meshio

    found = existing(path, "a mesh file")
    if order not in ORDERS:
        raise InputError(f"{found.name}, order", repr(order), f"one of {listed(ORDERS)}", did_you_mean(order, ORDERS))
    said = io.StringIO()
    try:
        with contextlib.redirect_stdout(said), contextlib.redirect_stderr(said):
            mesh = meshio.read(found)
    except (Exception, SystemExit) as error:  # the package raises whatever its readers meet, or says it and ends
        words = " ".join((said.getvalue() or str(error)).split())
        raise InputError(
            found.name, f"a mesh that cannot be read ({words})", "a whole mesh file, such as .vtu or .vtk"
        ) from None
    scale = factor(stress_unit, DIMENSIONS["stress"], f"{found.name}, stress_unit")
    length = factor(length_unit, DIMENSIONS["length"], f"{found.name}, length_unit")
    named = dict(cases) if isinstance(cases, Mapping) else {name: name for name in cases}
    points = np.zeros((len(mesh.points), 3))
    points[:, : mesh.points.shape[1]] = mesh.points
    rows: list[FloatArray] = []
    spreads: list[FloatArray] = []
    for name in named.values():
        values, spread = _of_nodes(mesh, name, found.name, ORDERS[order], len(points))
        rows.append(values * scale)
        if spread is not None:
            spreads.append(spread)
    known = np.asarray(np.isfinite(rows[0]).all(axis=1))
    new = np.cumsum(known) - 1
    elements, first = [], 1
    for block in mesh.cells:
        ids = np.arange(first, first + len(block.data))
        first += len(block.data)
        if block.data.size and known[block.data].all():
            elements.append(Elements(block.type, new[block.data], ids))
    return StressField(
        cases=list(named),
        node_ids=np.flatnonzero(known) + 1,
        coordinates=points[known] * length,
        stresses=np.array(rows)[:, known],
        node_sets={name: new[np.asarray(places)] for name, places in (mesh.point_sets or {}).items()},
        elements=elements,
        spread=np.max(spreads, axis=0)[known] if spreads else None,
        source=found.name,
    )


def _of_nodes(
    mesh: Any, name: str, where: str, order: Sequence[int], size: int
) -> tuple[FloatArray, FloatArray | None]:
    """Tensors at the points, nan where a point has none; and the spread of cell data."""
    if name in mesh.point_data:
        return _six(np.asarray(mesh.point_data[name], dtype=np.float64), f"{where}, {name}", order), None
    if name not in mesh.cell_data:
        known = [*mesh.point_data, *mesh.cell_data]
        expected = f"one of {listed(known)}" if known else "point data or cell data"
        raise InputError(f"{where}, data", repr(name), expected, did_you_mean(name, known))
    nodes, tensors = [], []
    for block, values in zip(mesh.cells, mesh.cell_data[name], strict=True):
        six = _six(np.asarray(values, dtype=np.float64), f"{where}, {name}", order)
        nodes.append(block.data.ravel())
        tensors.append(np.repeat(six, block.data.shape[1], axis=0))
    means = averaged_at_nodes(np.concatenate(nodes), np.concatenate(tensors)[None])
    full, spread = np.full((size, 6), np.nan), np.zeros(size)
    full[means.nodes], spread[means.nodes] = means.stresses[0], means.spread
    return full, spread


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
