"""Growth by cycles that stand for a density: a part of a panel grows the crack, not each of its rows at once.

A row stands for a cell of its panel, whose ends need a K per MPa each; between them the cell comes in evenly.
"""

from __future__ import annotations

from typing import NamedTuple

import numpy as np

from vivid_anvil.counting.panels import NODES, PLACES, WEIGHTS
from vivid_anvil.ground.checks import BoolArray, FloatArray, IntArray


def _to_cells() -> FloatArray:
    """From values at the places of a panel to those at the ends of their cells, shape (PLACES + 1, PLACES)."""
    ends = np.concatenate([[-1.0], -1.0 + np.cumsum(WEIGHTS)])
    own = np.polynomial.legendre.legvander(NODES, PLACES - 1)
    return np.asarray(np.polynomial.legendre.legvander(ends, PLACES - 1) @ np.linalg.inv(own))


TO_CELLS = _to_cells()


class Ramps(NamedTuple):
    """Σ n weight of the cells that grow the crack, at logarithms of the K per MPa, √mm, straight between them."""

    log_scale: FloatArray
    total: FloatArray

    def at(self, scale: FloatArray) -> FloatArray:
        """The sum at a K per MPa."""
        with np.errstate(divide="ignore"):
            return np.interp(np.log(scale), self.log_scale, self.total, left=0.0)


def ramps(panels: IntArray, least: FloatArray, weights: FloatArray) -> Ramps | None:
    """Of whole panels, rows of places, with the K per MPa that each row needs, above 0, and its n weight."""
    if not panels.size:
        return None
    ends = np.log(least[panels]) @ TO_CELLS.T
    one, other = ends[:, :-1].ravel(), ends[:, 1:].ravel()
    low, high = np.minimum(one, other), np.maximum(np.maximum(one, other), np.minimum(one, other) + 1e-12)
    rise = weights[panels].ravel() / (high - low)
    places = np.concatenate([low, high])
    order = np.argsort(places, kind="stable")
    slope = np.cumsum(np.concatenate([rise, -rise])[order])
    along = places[order]
    total = np.concatenate([[0.0], np.cumsum(slope[:-1] * np.diff(along))])
    return Ramps(along, np.maximum.accumulate(total))


def whole_panels(panel: FloatArray | None, event: IntArray, usable: BoolArray) -> IntArray:
    """Rows of the panels of a drive, all of whose rows are `usable`; none where nothing stands for a density."""
    if panel is None:
        return np.empty((0, PLACES), dtype=np.int64)
    rows = np.flatnonzero(panel >= 0.0)
    rows = rows[np.lexsort((panel[rows], event[rows]))]
    keys = np.column_stack([event[rows], panel[rows] // PLACES])
    starts = np.flatnonzero(np.any(np.diff(keys, axis=0, prepend=-1.0) != 0.0, axis=1))
    whole = starts[np.diff(starts, append=rows.size) == PLACES]
    found = rows[whole[:, None] + np.arange(PLACES)]
    return np.asarray(found[usable[found].all(axis=1)])
