"""Stresses at points within a model, from the nodes of the element that holds each."""

from __future__ import annotations

from collections.abc import Sequence
from typing import NamedTuple

import numpy as np
from numpy.typing import ArrayLike

from vivid_anvil.ground.checks import FloatArray, IntArray
from vivid_anvil.ground.errors import InputError
from vivid_anvil.models.stress_field import Elements, StressField
from vivid_anvil.units import many, opened

# Solids cut into tetrahedra, shells into triangles, by corner nodes; elements of higher order start with the same corners.
TETRAHEDRA: dict[str, tuple[tuple[int, ...], ...]] = {
    "tetra": ((0, 1, 2, 3),),
    "hexahedron": ((0, 1, 2, 6), (0, 2, 3, 6), (0, 3, 7, 6), (0, 7, 4, 6), (0, 4, 5, 6), (0, 5, 1, 6)),
    "wedge": ((0, 1, 2, 5), (0, 1, 5, 4), (0, 4, 5, 3)),
    "pyramid": ((0, 1, 2, 4), (0, 2, 3, 4)),
}
TRIANGLES: dict[str, tuple[tuple[int, ...], ...]] = {"triangle": ((0, 1, 2),), "quad": ((0, 1, 2), (0, 2, 3))}
# Nodes in the middle of edges, which carry quadratic shape functions in the undivided element.
_MIDDLES = {"tetra10": ((0, 1), (1, 2), (0, 2), (0, 3), (1, 3), (2, 3)), "triangle6": ((0, 1), (1, 2), (0, 2))}
OUTSIDE = 0.1  # of an element: straight edges stand for curved ones


class _Cells(NamedTuple):
    """Simplexes: places of all their nodes, (m, k), the first of them corners, edges of middle nodes, boxes around, (m, 3)."""

    nodes: IntArray
    corners: int
    edges: tuple[tuple[int, int], ...]
    low: FloatArray
    high: FloatArray


@opened(points=many("length"))
def at_points(field: StressField, points: ArrayLike, *, names: Sequence[str] = ()) -> StressField:
    """The field at points, shape (m, 3), mm, as nodes 1 to m; `names` make a set of each.

    Between nodes by the shape functions of tetrahedra and triangles, of second order where they are; hexahedra, wedges, pyramids
    and quadrilaterals are cut into such of first order.

    Parameters
    ----------
    field : StressField
        Stresses of a finite-element model.
    points : array_like or text with a unit
        Places, mm, shape (k, 3).
    names : sequence of str, optional
        Names of the points.

    Returns
    -------
    StressField
        A field whose nodes are the points.

    Raises
    ------
    InputError
        For a point outside of the model, and for a field without elements.

    Examples
    --------
    >>> one = Elements("tetra", np.array([[0, 1, 2, 3]]), np.array([1]))
    >>> places = [[0, 0, 0], [4, 0, 0], [0, 4, 0], [0, 0, 4]]
    >>> stresses = np.zeros((1, 4, 6)); stresses[0, 1, 0] = 100.0
    >>> field = StressField(cases=["pull"], node_ids=[1, 2, 3, 4], coordinates=places, stresses=stresses, elements=[one])
    >>> at_points(field, [[1.0, 1.0, 1.0]]).stresses[0, 0].tolist()
    [25.0, 0.0, 0.0, 0.0, 0.0, 0.0]
    """
    if field.rows is not None:
        raise InputError(field.place, "several stresses at a node", "one: average, or take one face")
    wanted = np.atleast_2d(np.asarray(points, dtype=np.float64))
    if wanted.shape[1:] != (3,) or not np.isfinite(wanted).all():
        raise InputError("points of a model", f"shape {wanted.shape}", "x, y, z of each")
    cells = [cell for one in field.elements for cell in _cut(one, field.coordinates)]
    if not cells:
        raise InputError(field.place, "no elements with a shape", "tetrahedra, triangles and the like")
    stresses = np.empty((len(field.cases), len(wanted), 6))
    for i, point in enumerate(wanted):
        nodes, weights = _holder(field, cells, point)
        stresses[:, i] = np.einsum("n,knc->kc", weights, field.stresses[:, nodes])
    return StressField(
        cases=field.cases,
        node_ids=np.arange(len(wanted)) + 1,
        coordinates=wanted,
        stresses=stresses,
        node_sets={name: np.array([i]) for i, name in enumerate(names)},
        source=field.source,
    )


def _cut(one: Elements, coordinates: FloatArray) -> list[_Cells]:
    base = one.kind.rstrip("0123456789")
    nodes = np.asarray(one.nodes)
    size = 4 if base in TETRAHEDRA else 3

    def cells(rows: IntArray, edges: tuple[tuple[int, int], ...]) -> _Cells:
        corners = coordinates[rows[:, :size]]
        low, high = corners.min(axis=1), corners.max(axis=1)
        room = OUTSIDE * (high - low).max(axis=1, keepdims=True)
        return _Cells(rows, size, edges, low - room, high + room)

    if one.kind in _MIDDLES:
        return [cells(nodes, _MIDDLES[one.kind])]
    parts = TETRAHEDRA.get(base) or TRIANGLES.get(base, ())
    return [cells(nodes[:, list(part)], ()) for part in parts]


def _holder(field: StressField, cells: Sequence[_Cells], point: FloatArray) -> tuple[IntArray, FloatArray]:
    """Nodes of the element that holds a point, or is next to it on a curved surface, and their weights."""
    best, found = -np.inf, None
    for cell in cells:
        near = np.flatnonzero(((point >= cell.low) & (point <= cell.high)).all(axis=1))
        if not near.size:
            continue
        shares, off = _shares(field.coordinates[cell.nodes[near, : cell.corners]], point)
        inside = np.minimum(shares.min(axis=1), -off)
        at = int(inside.argmax())
        if inside[at] > best:
            best, found = float(inside[at]), (cell, int(near[at]), shares[at])
    if found is None or best < -OUTSIDE:
        distances = np.linalg.norm(field.coordinates - point, axis=1)
        nearest = int(distances.argmin())
        x, y, z = point
        raise InputError(
            f"point ({x:g}, {y:g}, {z:g}) mm",
            "no element there",
            f"a point of {field.source}",
            f"The nearest node is {field.node_ids[nearest]}, {distances[nearest]:.4g} mm away.",
        )
    cell, row, share = found
    return cell.nodes[row], _weights(cell, share)


def _shares(corners: FloatArray, point: FloatArray) -> tuple[FloatArray, FloatArray]:
    """Barycentric shares of the corners, and how far off a triangle's plane the point is, as part of its size."""
    edges = np.moveaxis(corners[:, 1:] - corners[:, :1], 1, 2)  # (m, 3, corners - 1)
    to = point - corners[:, 0]
    off = np.zeros(len(corners))
    if edges.shape[2] == 2:
        normal = np.cross(edges[:, :, 0], edges[:, :, 1])
        size = np.sqrt(np.linalg.norm(normal, axis=1))
        unit = normal / np.where(size > 0.0, size, 1.0)[:, None] ** 2
        off = np.abs((to * unit).sum(axis=1)) / np.where(size > 0.0, size, 1.0)
        edges = np.concatenate([edges, unit[:, :, None]], axis=2)
    flat = np.abs(np.linalg.det(edges)) <= 0.0
    edges = np.where(flat[:, None, None], np.eye(3), edges)
    rest = np.linalg.solve(edges, to[:, :, None])[:, : corners.shape[1] - 1, 0]
    shares = np.column_stack([1.0 - rest.sum(axis=1), rest])
    return np.where(flat[:, None], -np.inf, shares), off


def _weights(cell: _Cells, share: FloatArray) -> FloatArray:
    """Values of the shape functions."""
    if not cell.edges:
        return share
    return np.array([*(share * (2.0 * share - 1.0)), *(4.0 * share[i] * share[j] for i, j in cell.edges)])
