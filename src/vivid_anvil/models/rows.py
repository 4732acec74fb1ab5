"""Stresses of which a node has several: one for each element that meets there, or for each face of a shell."""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass

import numpy as np
from numpy.typing import NDArray

from vivid_anvil.ground.checks import FloatArray, IntArray
from vivid_anvil.ground.errors import InputError, inside

FACES = ("top", "middle", "bottom")


@dataclass(frozen=True, eq=False)
class Rows:
    """Stresses, shape (cases, r, 6), MPa, at places of nodes, (r,), of elements by their number, and of faces ("" for none)."""

    nodes: IntArray
    stresses: FloatArray
    elements: IntArray | None = None
    faces: NDArray[np.str_] | None = None

    def check(self, where: str, cases: int, node_ids: IntArray) -> None:
        """InputError unless shapes fit, every node has a row, and no row is there twice."""
        size = self.nodes.size
        others = [one for one in (self.elements, self.faces) if one is not None]
        if self.stresses.shape != (cases, size, 6) or any(other.shape != (size,) for other in others):
            raise InputError(
                inside(where, "rows"),
                f"stresses of shape {self.stresses.shape}",
                f"({cases}, {size}, 6), and one of each other",
            )
        alone = np.setdiff1d(np.arange(node_ids.size), self.nodes)
        if alone.size:
            raise InputError(inside(where, f"node {node_ids[alone[0]]}"), "no stress", "a stress at every node")
        seen = np.sort(self.keys(with_elements="yes"))
        if (np.diff(seen) == 0).any():
            raise InputError(
                inside(where, "rows"), "an element twice at a node", "each element and face once at a node"
            )

    def keys(self, with_elements: str) -> IntArray:
        """A number for every row, the same for rows of the same node and face, and of the same element if "yes"."""
        key = np.asarray(self.nodes, dtype=np.int64)
        for given in (self.elements if with_elements == "yes" else None, self.faces):
            if given is not None:
                kinds, back = np.unique(given, return_inverse=True)
                key = key * kinds.size + back
        return key

    def take(self, chosen: IntArray, new_places: IntArray) -> Rows:
        """Some rows only; `new_places` says where each node stands then."""
        return Rows(
            new_places[self.nodes[chosen]],
            self.stresses[:, chosen],
            None if self.elements is None else self.elements[chosen],
            None if self.faces is None else self.faces[chosen],
        )

    def label(self, row: int) -> str:
        """Which element and face a row is of, in words."""
        words: Sequence[str] = [
            *([] if self.elements is None else [f"element {self.elements[row]}"]),
            *([] if self.faces is None or not self.faces[row] else [f"{self.faces[row]} face"]),
        ]
        return ", ".join(words)
