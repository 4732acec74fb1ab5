"""The outer surface of a model: faces that belong to one element only, and elements that are faces themselves."""

from __future__ import annotations

from collections.abc import Sequence

import numpy as np

from vivid_anvil.ground.checks import IntArray
from vivid_anvil.ground.errors import InputError, listed
from vivid_anvil.models.stress_field import Elements
from vivid_anvil.units import opened

# Faces by corner nodes, turned outwards; elements of higher order start with the same corners.
SOLIDS: dict[str, tuple[tuple[int, ...], ...]] = {
    "tetra": ((0, 2, 1), (0, 1, 3), (1, 2, 3), (2, 0, 3)),
    "hexahedron": ((0, 3, 2, 1), (4, 5, 6, 7), (0, 1, 5, 4), (1, 2, 6, 5), (2, 3, 7, 6), (3, 0, 4, 7)),
    "wedge": ((0, 2, 1), (3, 4, 5), (0, 1, 4, 3), (1, 2, 5, 4), (2, 0, 3, 5)),
    "pyramid": ((0, 3, 2, 1), (0, 1, 4), (1, 2, 4), (2, 3, 4), (3, 0, 4)),
}
FLAT = {"triangle": (0, 1, 2), "quad": (0, 1, 2, 3)}
# Nodes in the middle of edges, by the corners of the edge, of elements of second order.
MIDDLES: dict[str, dict[tuple[int, int], int]] = {
    "tetra10": {(0, 1): 4, (1, 2): 5, (0, 2): 6, (0, 3): 7, (1, 3): 8, (2, 3): 9},
    "hexahedron20": {
        (0, 1): 8,
        (1, 2): 9,
        (2, 3): 10,
        (0, 3): 11,
        (4, 5): 12,
        (5, 6): 13,
        (6, 7): 14,
        (4, 7): 15,
        (0, 4): 16,
        (1, 5): 17,
        (2, 6): 18,
        (3, 7): 19,
    },
    "wedge15": {(0, 1): 6, (1, 2): 7, (0, 2): 8, (3, 4): 9, (4, 5): 10, (3, 5): 11, (0, 3): 12, (1, 4): 13, (2, 5): 14},
    "triangle6": {(0, 1): 3, (1, 2): 4, (0, 2): 5},
    "quad8": {(0, 1): 4, (1, 2): 5, (2, 3): 6, (0, 3): 7},
}


@opened()
def outer_surface(elements: Sequence[Elements]) -> tuple[IntArray, bool]:
    """Corners of the outer faces, shape (m, 4), a triangle's last corner twice; and whether the surface is closed by solids.

    Faces of second order are cut up, so that their middle nodes are corners too. Raises InputError where no element can be drawn.

    >>> one = Elements("tetra", np.array([[0, 1, 2, 3]]), np.array([1]))
    >>> faces, closed = outer_surface([one])
    >>> faces.shape, closed
    ((4, 4), True)
    """
    solid, flat = [], []  # rows: corners (4), middles of their edges (4), -1 where there are none
    for one in elements:
        kind = one.kind.rstrip("0123456789")
        if kind in SOLIDS:
            solid += [_rows(one, face) for face in SOLIDS[kind]]
        elif kind in FLAT:
            flat.append(_rows(one, FLAT[kind]))
    if not solid and not flat:
        kinds = listed(dict.fromkeys(element.kind for element in elements)) or "no elements"
        raise InputError(
            "model surface",
            kinds,
            f"elements that can be drawn: {listed([*SOLIDS, *FLAT])}",
            "Lives are there without.",
        )
    outer = [_once(np.concatenate(solid))] if solid else []
    rows = np.concatenate([*outer, *flat])
    return _cut_up(rows), bool(solid) and not flat


@opened()
def undrawable(elements: Sequence[Elements]) -> list[str]:
    """Kinds of elements without a face to draw, such as lines.

    >>> undrawable([Elements("line", np.array([[0, 1]]), np.array([1]))])
    ['line']
    """
    kinds = dict.fromkeys(element.kind for element in elements)
    return [kind for kind in kinds if kind.rstrip("0123456789") not in (*SOLIDS, *FLAT)]


def _rows(one: Elements, face: tuple[int, ...]) -> IntArray:
    """Corners of a face, the last twice for a triangle, and the nodes in the middle of its edges."""
    nodes, middles = np.asarray(one.nodes), MIDDLES.get(one.kind, {})
    corners = face if len(face) == 4 else (*face, face[-1])
    edges = [(min(a, b), max(a, b)) for a, b in zip(corners, (*corners[1:], corners[0]), strict=True)]
    none = np.full(len(nodes), -1)
    return np.column_stack([nodes[:, list(corners)], *(nodes[:, middles[e]] if e in middles else none for e in edges)])


def _once(rows: IntArray) -> IntArray:
    """Faces whose corners no other face has."""
    corners = rows[:, :4].copy()
    corners[corners[:, 2] == corners[:, 3], 3] = -1
    keys = np.sort(corners, axis=1)
    _, back, counts = np.unique(keys, axis=0, return_inverse=True, return_counts=True)
    return np.asarray(rows[counts[back.ravel()] == 1])


def _cut_up(rows: IntArray) -> IntArray:
    """Faces of second order as four triangles, or four triangles and a quadrilateral; the others as they are."""
    corners, middles = rows[:, :4], rows[:, 4:]
    plain = (middles < 0).all(axis=1)
    three = ~plain & (corners[:, 2] == corners[:, 3])
    four = ~plain & ~three
    found = [corners[plain]]
    for which, edges in ((three, (0, 1, 3)), (four, (0, 1, 2, 3))):
        c, m = corners[which], middles[which][:, list(edges)]
        size = len(edges)
        found += [np.column_stack([c[:, i], m[:, i], m[:, i - 1], m[:, i - 1]]) for i in range(size)]
        found.append(np.column_stack([m, m[:, -1]]) if size == 3 else m)
    return np.concatenate(found)
