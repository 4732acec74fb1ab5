"""Cycles that stand for a density of ranges: places of a quadrature, in panels that can be halved.

A panel is a stretch of ranges, or of frequencies, with `PLACES` rows: the Gauss-Legendre places of its coordinate t, -1 to 1.
The rows say where they stand in the column `PANEL`: `PLACES` times the number of their panel plus their place in it, -1 for
cycles by themselves. The count of a row is its weight times the density. So the table alone can be made finer where an S-N curve
has a knee or a limit, without knowing where it came from.
"""

from __future__ import annotations

import numpy as np

from vivid_anvil.counting.cycles import PANEL, Cycles
from vivid_anvil.ground.checks import BoolArray, FloatArray, IntArray, read_only

PLACES = 16
NODES, WEIGHTS = np.polynomial.legendre.leggauss(PLACES)


def _to_halves() -> FloatArray:
    """From values at the places of a panel to those of its halves, shape (2 PLACES, PLACES): by the polynomial through them."""
    asked = np.concatenate([0.5 * NODES - 0.5, 0.5 * NODES + 0.5])
    own = np.polynomial.legendre.legvander(NODES, PLACES - 1)
    return np.asarray(np.polynomial.legendre.legvander(asked, PLACES - 1) @ np.linalg.inv(own))


TO_HALVES = _to_halves()


def panels_of(cycles: Cycles) -> IntArray:
    """Rows of whole panels, shape (panels, PLACES), each in the order of its places; none where the table has no panel."""
    own = cycles.columns.get(PANEL)
    if own is None:
        return np.empty((0, PLACES), dtype=np.int64)
    rows = np.flatnonzero(own >= 0.0)
    rows = rows[np.lexsort((own[rows], cycles.event[rows]))]
    keys = np.column_stack([cycles.event[rows], own[rows] // PLACES])
    starts = np.flatnonzero(np.any(np.diff(keys, axis=0, prepend=-1.0) != 0.0, axis=1))
    sizes = np.diff(starts, append=rows.size)
    whole = starts[sizes == PLACES]
    return np.asarray(rows[whole[:, None] + np.arange(PLACES)])


def happening(cycles: Cycles) -> BoolArray:
    """Which cycles a repeat may be shown by: of a density, which has no largest range, those that are expected once at least.

    >>> from vivid_anvil.counting.cycles import Cycles
    >>> happening(Cycles(range=[2.0, 1.0], mean=[0.0, 0.0], count=[1.0, 3.0])).tolist()
    [True, True]
    """
    own = cycles.columns.get(PANEL)
    found = np.ones(len(cycles), dtype=bool)
    if own is None:
        return found
    for event in np.unique(cycles.event[own >= 0.0]).tolist():
        rows = np.flatnonzero((cycles.event == event) & (own >= 0.0))
        rows = rows[np.argsort(-cycles.range[rows], kind="stable")]
        beyond = np.cumsum(cycles.per_repeat[rows])
        found[rows] = beyond >= min(1.0, 0.5 * float(beyond[-1]))
    return found


def halved(cycles: Cycles, panels: IntArray) -> Cycles:
    """The same cycles with each of these panels, rows of `panels_of`, in two: ranges, means and densities go on as they were."""
    if not panels.size:
        return cycles
    both, weights = 0.5 * np.tile(WEIGHTS, 2), WEIGHTS
    ranges = np.exp(np.log(cycles.range[panels]) @ TO_HALVES.T)
    means = cycles.mean[panels] @ TO_HALVES.T
    parts = {
        name: np.exp(np.log(getattr(cycles, name)[panels] / weights) @ TO_HALVES.T) * both
        for name in ("count", "per_repeat")
    }
    columns = {name: (one[panels] @ TO_HALVES.T).ravel() for name, one in cycles.columns.items() if name != PANEL}
    columns[PANEL] = _numbered(cycles.columns[PANEL].max() // PLACES + 1.0, 2 * len(panels))
    return cycles.replaced(
        panels.ravel(),
        np.repeat(panels[:, 0], 2 * PLACES),
        range=ranges.ravel(),
        mean=means.ravel(),
        count=parts["count"].ravel(),
        per_repeat=parts["per_repeat"].ravel(),
        columns=columns,
    )


def places(edges: FloatArray) -> tuple[FloatArray, FloatArray, FloatArray]:
    """Places, weights and the column `PANEL` that integrate over stretches between `edges`: each shape (panels × PLACES,)."""
    half = 0.5 * np.diff(edges)[:, None]
    middle = 0.5 * (edges[:-1] + edges[1:])[:, None]
    return (middle + half * NODES).ravel(), (half * WEIGHTS).ravel(), _numbered(0.0, edges.size - 1)


def _numbered(first: float, many: int) -> FloatArray:
    """The column `PANEL` of that many whole panels."""
    return PLACES * first + np.arange(PLACES * many, dtype=np.float64)


def alone(cycles: Cycles) -> BoolArray:
    """Cycles that stand for themselves, not for a density."""
    own = cycles.columns.get(PANEL)
    return np.ones(len(cycles), dtype=bool) if own is None else np.asarray(own < 0.0)


def of_density(
    ranges: FloatArray, means: FloatArray, counts: FloatArray, numbers: FloatArray, dimension: str
) -> Cycles:
    """A table of cycles that stand for a density, with their panels."""
    return Cycles(
        range=ranges, mean=means, count=counts, dimension=dimension, columns={PANEL: read_only(np.asarray(numbers))}
    )
