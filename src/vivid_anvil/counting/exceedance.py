"""How often each range is reached or passed."""

from __future__ import annotations

from typing import NamedTuple

import numpy as np

from vivid_anvil.counting.cycles import Cycles
from vivid_anvil.ground.checks import FloatArray
from vivid_anvil.ground.errors import InputError, inside
from vivid_anvil.units import many, opened


class Exceedance(NamedTuple):
    """Ranges, the largest first, and how many cycles reach or pass each."""

    ranges: FloatArray
    passed: FloatArray


@opened()
def exceedance(cycles: Cycles) -> Exceedance:
    """The exceedance curve of `cycles`.

    Parameters
    ----------
    cycles : Cycles
        Counted cycles.

    Returns
    -------
    Exceedance
        Ranges and how often each is exceeded.

    Raises
    ------
    InputError
        For an argument of another kind, unit or range; the message says which.

    Examples
    --------
    >>> exceedance(Cycles(range=[10.0, 30.0, 20.0], mean=[0.0, 0.0, 0.0], count=[5.0, 0.5, 2.0]))
    Exceedance(ranges=array([30., 20., 10.]), passed=array([0.5, 2.5, 7.5]))
    """
    order = np.argsort(-cycles.range, kind="stable")
    return Exceedance(cycles.range[order], np.cumsum(cycles.count[order]))


@opened(ranges=many(), counts=many())
def classes_of_exceedance(ranges: FloatArray, counts: FloatArray, *, where: str = "exceedance") -> Cycles:
    """Cycles of a spectrum given as exceedance: each class between two ranges counts at the larger one, mean 0.

    `ranges` fall, `counts` (how often each is reached or passed) rise; InputError otherwise.

    >>> table = classes_of_exceedance(np.array([90.0, 60.0, 30.0]), np.array([10.0, 1e3, 1e5]))
    >>> table.range.tolist(), table.count.tolist()
    ([90.0, 60.0, 30.0], [10.0, 990.0, 99000.0])
    """
    ranges, counts = np.asarray(ranges, dtype=np.float64), np.asarray(counts, dtype=np.float64)
    if ranges.ndim != 1 or not ranges.size or counts.shape != ranges.shape:
        found = f"shapes {ranges.shape} and {counts.shape}"
        raise InputError(inside(where, "ranges and counts"), found, "two rows of the same length")
    if (np.diff(ranges) >= 0.0).any():
        row = int(np.flatnonzero(np.diff(ranges) >= 0.0)[0]) + 2
        raise InputError(
            inside(where, f"row {row}"), f"a range of {ranges[row - 1]:g}", "ranges that fall", "The largest first."
        )
    if (np.diff(counts) < 0.0).any() or not counts[0] > 0.0:
        row = int(np.flatnonzero(np.diff(counts, prepend=0.0) < 0.0)[0]) + 1 if counts[0] > 0.0 else 1
        raise InputError(
            inside(where, f"row {row}"),
            f"{counts[row - 1]:g} cycles",
            "numbers above 0 that rise as the range falls",
            "Exceedance counts all cycles that reach or pass a range; for cycles per class give a spectrum.",
        )
    return Cycles(range=ranges, mean=np.zeros(ranges.size), count=np.diff(counts, prepend=0.0))
