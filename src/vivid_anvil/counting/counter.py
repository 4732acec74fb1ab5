"""Rainflow counting in chunks: the same cycles, whatever the chunks, with only the open turning points kept.

In: pieces of a history, in time order. Out: `Cycles` as they close, then those of the residue.
Method: ASTM E1049-85, 5.4.4, by the four-point rule (see `rainflow`). The loop is `_kernels.rainflow`.
"""

from __future__ import annotations

from collections.abc import Iterable, Iterator
from typing import Any, NamedTuple

import numpy as np
from numpy.typing import ArrayLike

from vivid_anvil.counting import _kernels
from vivid_anvil.counting.cycles import Cycles, written_by_a_loop
from vivid_anvil.ground import checks
from vivid_anvil.ground.checks import FloatArray, IntArray, finite_samples, one_row

# A history by itself is counted in half cycles unless told otherwise: it happened once. A duty cycle repeats, so its loads are
# counted with the residue "repeated" unless told otherwise.
RESIDUES = {
    "half cycles": "each range of the residue counts one half (ASTM E1049-85, 5.4.4)",
    "repeated": "the history repeats for ever, and so the residue closes to full cycles (ASTM E1049-85, 5.4.5)",
}


PIECE = 1 << 17  # samples: its cycles stay in the cache of the processor
Columns = tuple[Any, ...]  # range, mean, count, start, end: arrays, or None where nobody asks


class Residue(NamedTuple):
    """Turning points that closed no cycle: their values, and the samples at which they stand."""

    values: FloatArray
    samples: IntArray


RANGES_ONLY: tuple[Any, ...] = (np.empty(0), None, None, None, None)
RANGES_AND_MEANS: tuple[Any, ...] = (np.empty(1), np.empty(1), None, None, None)


class RainflowCounter:
    """Counts a history piece by piece.

    Parameters
    ----------
    dimension : str, default "stress"
        What the values are, such as "stress" or "force"; a name of `DIMENSIONS`.
    sample_rate : float, optional
        Samples a second, Hz, or text such as "100 Hz"; where the data say it themselves it is not needed.

    Raises
    ------
    InputError
        For an argument of another kind, unit or range; the message says which.

    Examples
    --------
    >>> counter = RainflowCounter()
    >>> [len(counter.feed(piece)) for piece in ([-2.0, 1.0, -3.0], [5.0, -1.0, 3.0, -4.0], [4.0, -2.0])]
    [0, 0, 1]
    >>> counter.finish("half cycles").range
    array([3., 4., 8., 9., 8., 6.])
    """

    def __init__(self, *, dimension: str = "stress", sample_rate: float | None = None) -> None:
        self.dimension, self.sample_rate = dimension, sample_rate
        self.samples = 0
        self._level = 0.0
        self._state = np.array([0, 0, _kernels.NOWHERE, 0])
        self._stack, self._places = np.empty(2), np.empty(2, dtype=np.int64)

    def feed(self, samples: ArrayLike) -> Cycles:
        """The cycles that close while `samples`, shape (n,), follow what was fed before.

        Raises InputError for anything but one row of finite numbers.
        """
        columns, used = self.count_into(one_row(samples, where=f"samples from {self.samples} on"))
        return self.table_of(columns, used)

    def whole(self, samples: ArrayLike, residue: str) -> Cycles:
        """All cycles of a history in one piece: `feed` and `finish` in one table, without copying it."""
        columns, used = self.count_into(one_row(samples, where="samples"))
        rest = self._rest(residue)
        for column, more in zip(columns, rest, strict=True):
            column[used : used + more.size] = more
        return self.table_of(columns, used + rest[0].size)

    def residue(self) -> Residue:
        """The open turning points, with the present end of the history as the last."""
        depth = int(self._state[_kernels.DEPTH])
        values, places = self._stack[:depth], self._places[:depth]
        if not self._state[_kernels.STARTED]:
            return Residue(values.copy(), places.copy())
        return Residue(np.append(values, self._level), np.append(places, self._state[_kernels.LAST]))

    def finish(self, residue: str = "half cycles") -> Cycles:
        """The cycles that the end of the history closes, and those of the residue, half ones unless it is "repeated"."""
        columns = self._rest(residue)
        return self.table_of(columns, columns[0].size)

    def _rest(self, residue: str) -> Columns:
        checks.one_of("residue", residue, tuple(RESIDUES))
        if residue == "repeated":
            return closed_round(self.residue())
        closed, left = last_closed(self.residue())
        one, other = left.values[:-1], left.values[1:]
        with np.errstate(over="ignore"):  # told by the table
            ranges = np.abs(one - other)
        halves = (ranges, 0.5 * one + 0.5 * other, np.full(ranges.size, 0.5), left.samples[:-1], left.samples[1:])
        return tuple(np.concatenate(pair) for pair in zip(closed, halves, strict=True))

    def count_into(self, samples: FloatArray, scratch: Columns | None = None) -> tuple[Columns, int]:
        """Like `feed`, without a table: columns with room for the residue too, and how many places are filled.

        For loops over many pieces `scratch` is what the last call gave, so that the columns are used again; at first it is
        `RANGES_ONLY`, `RANGES_AND_MEANS`, or None for all columns. `samples` must be one read-only row of float64.
        """
        depth = int(self._state[_kernels.DEPTH])
        size = samples.size + depth + 2
        stack, places = np.empty(size), np.empty(size, dtype=np.int64)
        stack[:depth], places[:depth] = self._stack[:depth], self._places[:depth]
        if scratch is None:
            scratch = (*np.empty((3, size)), *np.empty((2, size), dtype=np.int64))
        elif scratch[0].size < size:
            scratch = (np.empty(2 * size), None if scratch[1] is None else np.empty(2 * size), *scratch[2:])
        ranges, means, count, start, end = scratch
        used, level = _kernels.rainflow(
            samples, self.samples, self._level, self._state, stack, places, ranges, means, start, end
        )
        if used < 0:
            finite_samples(samples, where=f"samples from {self.samples} on", unit="")  # raises, with the place
        self._level = level
        if count is not None:
            count[:used] = 1.0
        self.samples += samples.size
        depth = int(self._state[_kernels.DEPTH])
        self._stack, self._places = stack[: depth + 2].copy(), places[: depth + 2].copy()
        return scratch, used

    def in_pieces(self, chunks: Iterable[ArrayLike], scratch: Columns) -> Iterator[tuple[Columns, int]]:
        """`count_into` over all of `chunks`, piece by piece; the columns hold good until the next piece."""
        for chunk in chunks:
            if not np.size(chunk):
                continue
            samples = one_row(chunk, where=f"samples from {self.samples} on")
            for start in range(0, samples.size, PIECE):
                scratch, used = self.count_into(samples[start : start + PIECE], scratch)
                yield scratch, used

    def table_of(self, columns: Columns, used: int) -> Cycles:
        """The first `used` rows of columns as `Cycles` of this counter's load."""
        rows = tuple(checks.read_only(column[:used]) for column in columns)
        return written_by_a_loop(rows, self.dimension, self.sample_rate)


def last_closed(left: Residue) -> tuple[Columns, Residue]:
    """The cycles that the last turning point closes, as columns, and what is left after them."""
    size = left.values.size
    values, places, rows = left.values.copy(), left.samples.copy(), _rows(size)
    depth, closed = (0, 0) if size == 0 else _kernels.last_closed(values, places, size, *rows)
    return _full(rows, closed), Residue(values[:depth], places[:depth])


def closed_round(left: Residue) -> Columns:
    """The cycles of a residue that follows itself for ever, as columns."""
    rows, size = _rows(left.values.size + 1), left.values.size
    return _full(rows, 0 if size == 0 else _kernels.closed_round(left.values, left.samples, *rows))


def _rows(size: int) -> Columns:
    """Room for range, mean, start and end of cycles."""
    return (*np.empty((2, size)), *np.empty((2, size), dtype=np.int64))


def _full(rows: Columns, used: int) -> Columns:
    """Columns of full cycles from the first rows of range, mean, start and end."""
    ranges, means, start, end = (row[:used] for row in rows)
    return ranges, means, np.ones(used), start, end
