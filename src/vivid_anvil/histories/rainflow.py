"""Rainflow counting: a history becomes a table of cycles.

In: samples of a channel, in time order. Out: `Cycles` with the sample of each turning point.
Method: ASTM E1049-85, 5.4.4, by the equivalent four-point rule: of four successive turning points the inner pair is a
full cycle if its range is not larger than its neighbours'. What closes no cycle is the residue. It counts as half
cycles (5.4.4), or is closed as if the history were repeated for ever (5.4.5). The loop is `_kernels.rainflow`.
"""

from __future__ import annotations

import numpy as np
from numpy.typing import ArrayLike

from vivid_anvil import checks
from vivid_anvil.checks import FloatArray, IntArray, finite_samples
from vivid_anvil.histories import _kernels
from vivid_anvil.histories.cycles import Cycles

RESIDUES = {
    "half cycles": "each range of the residue counts one half (ASTM E1049-85, 5.4.4)",
    "repeated": "the history repeats for ever, and so the residue closes to full cycles (ASTM E1049-85, 5.4.5)",
}


def rainflow(
    samples: ArrayLike, *, residue: str = "half cycles", dimension: str = "stress", sample_rate: float | None = None
) -> Cycles:
    """Rainflow cycles of `samples`, shape (n,), in the coherent unit of `dimension`.

    Closed cycles come first, in the order in which they close; those of the residue follow.
    Raises InputError for anything but one row of finite numbers, and for an unknown `residue` (see `RESIDUES`).

    >>> cycles = rainflow([-2, 1, -3, 5, -1, 3, -4, 4, -2])        # the example of ASTM E1049-85
    >>> [(float(r), float(n)) for r, n in zip(cycles.range, cycles.count)]
    [(4.0, 1.0), (3.0, 0.5), (4.0, 0.5), (8.0, 0.5), (9.0, 0.5), (8.0, 0.5), (6.0, 0.5)]
    >>> rainflow([-2, 1, -3, 5, -1, 3, -4, 4, -2], residue="repeated").range
    array([4., 3., 7., 9.])
    """
    checks.one_of("residue", residue, tuple(RESIDUES))
    values = finite_samples(samples, where="samples", unit="")
    table = _Table(values)
    closed = table.used
    left = table.residue
    if residue == "repeated":
        again = _Table(checks.read_only(np.concatenate([values[left], values[left]])))
        first, last = (left[places[: again.used] % left.size] for places in (again.start, again.end))
    else:
        first, last = left[:-1], left[1:]
    table.append(values[first], values[last], first, last)
    count = np.ones(table.used)
    if residue == "half cycles":
        count[closed:] = 0.5
    columns = (table.ranges, table.means, table.start, table.end)
    ranges, means, start, end = (checks.read_only(column[: table.used]) for column in columns)
    return Cycles(
        range=ranges,
        mean=means,
        count=checks.read_only(count),
        start=start,
        end=end,
        dimension=dimension,
        sample_rate=sample_rate,
    )


class _Table:
    """Columns large enough for all cycles of `values`; only the places used are ever touched in memory."""

    def __init__(self, values: FloatArray) -> None:
        size = values.size + 1
        self.ranges, self.means = np.empty(size), np.empty(size)
        self.start, self.end = np.empty(size, dtype=np.int64), np.empty(size, dtype=np.int64)
        residue = np.empty(size, dtype=np.int64)
        self.used, left = _kernels.rainflow(values, self.ranges, self.means, self.start, self.end, residue)
        self.residue: IntArray = residue[:left].copy()

    def append(self, one: FloatArray, other: FloatArray, start: IntArray, end: IntArray) -> None:
        """Put the cycles between the turning points `one` and `other` behind the closed ones."""
        places = slice(self.used, self.used + one.size)
        self.ranges[places], self.means[places] = np.abs(one - other), 0.5 * (one + other)
        self.start[places], self.end[places] = start, end
        self.used += one.size
