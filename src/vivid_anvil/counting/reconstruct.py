"""A history whose rainflow count is a given table or matrix: to drive a test rig, or to feed what depends on order.

In: full cycles of a repeated history. Out: turning points that start and end at the lowest load.
Method: the largest cycle gives the first two flanks; every smaller one is put into a flank that holds it, where rainflow
finds it again. The result is counted, and must give the table back.
"""

from __future__ import annotations

import numpy as np

from vivid_anvil.counting import _kernels
from vivid_anvil.counting.cycles import Cycles
from vivid_anvil.counting.matrix import CycleMatrix
from vivid_anvil.counting.rainflow import rainflow
from vivid_anvil.ground import checks
from vivid_anvil.ground.checks import FloatArray
from vivid_anvil.ground.errors import InputError
from vivid_anvil.units import opened

_SAME = 1e-12
ORDERS = {
    "random": "every flank that holds a cycle is as likely to get it",
    "nested": "each cycle goes into the first flank that holds it; the same table gives the same history",
}


@opened()
def reconstruct(table: Cycles | CycleMatrix, *, order: str = "random", seed: int = 0) -> FloatArray:
    """Turning points, shape (n,), whose rainflow count as a repeated history is `table`; `order` is one of `ORDERS`.

    A matrix stands for its middle values; by maximum and minimum or from-to these keep the spanning cycle.

    Parameters
    ----------
    table : Cycles or CycleMatrix
        Cycles, or a matrix of them.
    order : str, default "random"
        In what order the cycles come: one of `ORDERS`.
    seed : int, default 0
        Seed of the random numbers: the same gives the same.

    Returns
    -------
    ndarray
        Turning points, shape (n,), in the unit of the table.

    Raises
    ------
    InputError
        For counts that are not whole, and where no cycle spans all others, as one does in every count of a repeated
        history.

    Examples
    --------
    >>> reconstruct(Cycles(range=[10.0, 4.0, 2.0], mean=[5.0, 6.0, 2.0], count=[1.0, 1.0, 1.0]), order="nested")
    array([ 0.,  3.,  1.,  8.,  4., 10.,  0.])
    """
    checks.one_of("order", order, tuple(ORDERS))
    cycles = table.cycles() if isinstance(table, CycleMatrix) else table
    moving = cycles.chosen(cycles.range > 0.0)
    if not len(moving):
        raise InputError("reconstruction", "no cycle with a range", "at least one")
    if (moving.count != np.round(moving.count)).any():
        raise InputError(
            "reconstruction",
            "half cycles",
            "whole numbers of full cycles",
            "Count with the residue closed as a repeated history.",
        )
    times = moving.count.astype(np.int64)
    rank = np.argsort(-moving.range, kind="stable")
    grid = _SAME * float(moving.range.max())  # limits that differ by round-off only are the same
    low, high = (
        grid * np.round(np.repeat(limit[rank], times[rank]) / grid) for limit in (moving.minimum, moving.maximum)
    )
    pick = np.random.default_rng(seed).random(low.size) if order == "random" else np.zeros(low.size)
    flank_low, flank_high = np.empty((2, 2 * low.size))
    flank_next = np.empty(2 * low.size, dtype=np.int64)
    homeless = _kernels.nest(low, high, pick, flank_low, flank_high, flank_next)
    if homeless >= 0:
        raise InputError(
            "reconstruction",
            f"a cycle from {low[homeless]:g} to {high[homeless]:g} outside of the largest, {low[0]:g} to {high[0]:g}",
            "one cycle that spans all others, as in every count of a repeated history",
            'Use residue="repeated", and a matrix by maximum and minimum or from-to.',
        )
    values = np.empty(2 * low.size + 1)
    history = values[: _kernels.walk(flank_low, flank_high, flank_next, values)]
    _recount(history, low, high)
    return checks.read_only(history)


def _recount(history: FloatArray, low: FloatArray, high: FloatArray) -> None:
    """The count of the history must be the table; anything else is a fault of this module."""
    cycles = rainflow(history, residue="repeated")
    ours, theirs = np.lexsort((cycles.minimum, cycles.range)), np.lexsort((low, high - low))
    same = cycles.range.size == low.size and np.allclose(
        cycles.range[ours], (high - low)[theirs], rtol=1e-12, atol=1e-12 * high[0]
    )
    if not same:
        raise RuntimeError("the reconstructed history does not count as the table it was made from")
