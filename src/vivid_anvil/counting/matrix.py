"""Matrices of cycles: how many there are in each class of two of their values.

In: `Cycles`, and edges of classes or their number. Out: a matrix, which turns back into `Cycles` at stated class values.
Classes are half-open, [edge, next edge). Binning moves the damage; `binning_effect` says by how much.
"""

from __future__ import annotations

from dataclasses import dataclass
from typing import Any

import numpy as np
from numpy.typing import ArrayLike

from vivid_anvil.counting import _kernels
from vivid_anvil.counting.cycles import Cycles
from vivid_anvil.ground import checks
from vivid_anvil.ground.checks import FloatArray
from vivid_anvil.ground.errors import InputError, field_of, shortened
from vivid_anvil.units import DIMENSIONS, one, opened, plain_numbers, sound
from vivid_anvil.writing.finding import Finding
from vivid_anvil.writing.html import html_frame

# What stands in rows and columns of each kind.
MATRICES = {"range-mean": ("range", "mean"), "maximum-minimum": ("maximum", "minimum"), "from-to": ("from", "to")}
CLASS_VALUES = {
    "middle": "the middle of a class stands for its cycles",
    "upper": "the upper edge of the range stands for its cycles (on the safe side); the mean is the middle",
}
TOO_COARSE = 0.01


MOST_CLASSES = 4096


@sound
@dataclass(frozen=True, eq=False, repr=False)
class CycleMatrix:
    """Counts, shape (rows, columns), of cycles by classes of two values (see `MATRICES`), in the unit of `dimension`.

    Parameters
    ----------
    kind : str
        What the two axes are.
    row_edges : ndarray
        Borders of the classes of the rows, rising.
    column_edges : ndarray
        Borders of the classes of the columns, rising.
    counts : ndarray
        Cycles of each class, shape (rows, columns).
    dimension : str, default "stress"
        What the values are, such as "stress" or "force"; a name of `DIMENSIONS`.

    Raises
    ------
    InputError
        For an argument of another kind, unit or range; the message says which.

    Examples
    --------
    >>> cycles = Cycles(range=[3.0, 4.0, 8.0], mean=[0.0, 1.0, 1.0], count=[1.0, 0.5, 1.0])
    >>> matrix = cycle_matrix(cycles, "range-mean", classes=4)
    >>> matrix.total, matrix.cycles().total
    (2.5, 2.5)
    """

    kind: str
    row_edges: FloatArray
    column_edges: FloatArray
    counts: FloatArray
    dimension: str = "stress"

    def __post_init__(self) -> None:
        checks.one_of(field_of("CycleMatrix", "kind"), self.kind, tuple(MATRICES))
        shape = []
        for name in ("row_edges", "column_edges"):
            edges = _edges(getattr(self, name), name)
            object.__setattr__(self, name, checks.kept(edges))
            shape.append(edges.size - 1)
        counts = plain_numbers(self.counts, field_of("CycleMatrix", "counts"))
        if counts.shape != tuple(shape):
            raise InputError(
                field_of("CycleMatrix", "counts"),
                f"shape {counts.shape}",
                f"shape {tuple(shape)}, as the edges have it",
            )
        if not (np.isfinite(counts).all() and (counts >= 0.0).all()):
            raise InputError(field_of("CycleMatrix", "counts"), "negative or not finite counts", "counts of 0 or more")
        object.__setattr__(self, "counts", checks.kept(counts))

    @property
    def total(self) -> float:
        """How many cycles are in the matrix."""
        return float(self.counts.sum())

    def cycles(self, class_value: str = "middle") -> Cycles:
        """The cycles of the matrix, one entry per filled cell; `class_value` is one of `CLASS_VALUES`.

        Raises InputError for an empty matrix. The diagonal of a from-to matrix at middle values has no range.
        """
        checks.one_of("class_value", class_value, tuple(CLASS_VALUES))
        row, column = np.nonzero(self.counts)
        if not row.size:
            raise InputError("matrix", "an empty matrix", "at least one cycle")
        rows, columns = _middle(self.row_edges), _middle(self.column_edges)
        if self.kind == "range-mean":
            ranges = self.row_edges[1:][row] if class_value == "upper" else rows[row]
            means = columns[column]
        else:
            ranges, means = np.abs(rows[row] - columns[column]), 0.5 * (rows[row] + columns[column])
            if class_value == "upper":
                ranges = ranges + 0.5 * (np.diff(self.row_edges)[row] + np.diff(self.column_edges)[column])
        return Cycles(range=ranges, mean=means, count=self.counts[row, column], dimension=self.dimension)

    def _filled(self) -> dict[str, Any]:
        unit = DIMENSIONS[self.dimension].coherent
        rows, columns = np.nonzero(self.counts)
        found: dict[str, Any] = {}
        for name, edges, at in zip(
            MATRICES[self.kind], (self.row_edges, self.column_edges), (rows, columns), strict=True
        ):
            found |= {f"{name}, above [{unit}]": edges[at], f"{name}, below [{unit}]": edges[at + 1]}
        return {**found, "count": self.counts[rows, columns]}

    def to_frame(self) -> Any:
        """A row a class with cycles in it: its edges by row and column, units in the headings, and the count."""
        import pandas as pd

        return pd.DataFrame(self._filled())

    def _repr_html_(self) -> str:
        return html_frame(repr(self).strip("<>"), self.to_frame())

    def __repr__(self) -> str:
        size = f"{self.counts.shape[0]} x {self.counts.shape[1]} classes"
        return f"<CycleMatrix {self.kind}: {size}, {self.total:g} cycles>"


@opened()
def cycle_matrix(
    cycles: Cycles,
    kind: str = "range-mean",
    *,
    classes: int | None = None,
    row_edges: ArrayLike | None = None,
    column_edges: ArrayLike | None = None,
    samples: ArrayLike | None = None,
) -> CycleMatrix:
    """The matrix of `cycles`: by `classes` even classes over what occurs, or by edges (maxima and minima share theirs).

    A from-to matrix needs the `samples` that were counted, as it tells rising from falling cycles.

    Parameters
    ----------
    cycles : Cycles
        Counted cycles.
    kind : str, default "range-mean"
        What the two axes are: "range-mean", "maximum-minimum" or "from-to".
    classes : int, optional
        Number of even classes.
    row_edges : array_like, optional
        Borders of the classes of the rows, rising.
    column_edges : array_like, optional
        Borders of the classes of the columns, rising.
    samples : array_like, optional
        The samples, in their order.

    Returns
    -------
    CycleMatrix
        The matrix.

    Raises
    ------
    InputError
        For cycles beyond the edges, edges that don't rise, or neither edges nor a number of classes.

    Examples
    --------
    >>> cycle_matrix(rainflow([0.0, 100.0, 20.0, 60.0, 0.0]), classes=4)
    <CycleMatrix range-mean: 4 x 4 classes, 2 cycles>
    """
    checks.one_of("matrix, kind", kind, tuple(MATRICES))
    rows, columns = _values(cycles, kind, samples)
    if row_edges is None and classes is None:
        raise InputError("matrix", "neither edges nor a number of classes", "one of the two", "Write classes=64.")
    if not rows.size:
        raise InputError("matrix", "no cycles", "at least one cycle")
    if row_edges is None:
        along_rows, along_columns = _even(rows, columns, kind, int(classes or 0))
    else:
        along_rows = _edges(row_edges, "row_edges")
        along_columns = along_rows if column_edges is None else _edges(column_edges, "column_edges")
    counts = _counted(rows, columns, cycles.count, along_rows, along_columns)
    return CycleMatrix(kind, along_rows, along_columns, counts, cycles.dimension)


@opened(slope=one(at_least=1.0))
def binning_effect(cycles: Cycles, matrix: CycleMatrix, slope: float, class_value: str = "middle") -> float:
    """By which share the matrix moves the damage on a curve of one `slope`: Σ n ΔS^m of the matrix / of the cycles - 1.

    >>> cycles = Cycles(range=[3.0, 4.9], mean=[0.0, 0.0], count=[1.0, 1.0])
    >>> matrix = cycle_matrix(cycles, "range-mean", row_edges=[2.0, 4.0, 6.0], column_edges=[-1.0, 1.0])
    >>> f"{binning_effect(cycles, matrix, 3.0):.3f}"
    '0.051'
    """
    binned = matrix.cycles(class_value)
    exact = float((cycles.count * cycles.range**slope).sum())
    return float((binned.count * binned.range**slope).sum()) / exact - 1.0 if exact > 0.0 else 0.0


@opened(slope=one(at_least=1.0))
def binning_findings(
    cycles: Cycles, matrix: CycleMatrix, slope: float, class_value: str = "middle"
) -> tuple[Finding, ...]:
    """A finding where the matrix moves the damage by more than 1 %."""
    effect = binning_effect(cycles, matrix, slope, class_value)
    if abs(effect) <= TOO_COARSE:
        return ()
    return (
        Finding(
            "warning",
            "bins-too-coarse",
            f"With {matrix.counts.shape[0]} x {matrix.counts.shape[1]} classes ({class_value} values) the damage is "
            f"{effect:+.1%} off that of the cycles themselves (slope {slope:g}).",
            "Use more classes, or the cycles as counted.",
        ),
    )


def _values(cycles: Cycles, kind: str, samples: ArrayLike | None) -> tuple[FloatArray, FloatArray]:
    names = MATRICES[kind]
    if kind != "from-to":
        return getattr(cycles, names[0]), getattr(cycles, names[1])
    if samples is None or (cycles.start < 0).any():
        raise InputError("from-to matrix", "no samples", "the samples that were counted", "Give samples=.")
    values = np.asarray(samples, dtype=np.float64)
    return values[np.minimum(cycles.start, cycles.end)], values[np.maximum(cycles.start, cycles.end)]


def _even(rows: FloatArray, columns: FloatArray, kind: str, classes: int) -> tuple[FloatArray, FloatArray]:
    if not 1 <= classes <= MOST_CLASSES:
        raise InputError("matrix, classes", shortened(classes), f"1 to {MOST_CLASSES}")
    if kind == "range-mean":
        return _spread(0.0, rows.max(), classes), _spread(columns.min(), columns.max(), classes)
    both = _spread(min(rows.min(), columns.min()), max(rows.max(), columns.max()), classes)
    return both, both


def _spread(low: float, high: float, classes: int) -> FloatArray:
    """Even edges whose last class holds `high`."""
    span = high - low if high > low else max(abs(high), 1.0)
    return np.asarray(low + span * (1.0 + 1e-12) * np.arange(classes + 1) / classes)


def _counted(
    rows: FloatArray, columns: FloatArray, count: FloatArray, row_edges: FloatArray, column_edges: FloatArray
) -> FloatArray:
    matrix = np.zeros((row_edges.size - 1, column_edges.size - 1))
    row_step, column_step = _step(row_edges), _step(column_edges)
    if row_step and column_step:
        outside = _kernels.bin_two(
            np.ascontiguousarray(rows),
            np.ascontiguousarray(columns),
            count,
            row_edges[0],
            row_step,
            column_edges[0],
            column_step,
            matrix,
        )
    else:
        row = np.searchsorted(row_edges, rows, side="right") - 1
        column = np.searchsorted(column_edges, columns, side="right") - 1
        inside = (row >= 0) & (row < matrix.shape[0]) & (column >= 0) & (column < matrix.shape[1])
        np.add.at(matrix, (row[inside], column[inside]), count[inside])
        outside = int((~inside).sum())
    if outside:
        raise InputError(
            "matrix",
            f"{outside} of {rows.size} cycles beyond the edges",
            "edges that hold all cycles",
            f"Rows go from {rows.min():g} to {rows.max():g}, columns from {columns.min():g} to {columns.max():g}.",
        )
    return matrix


def _step(edges: FloatArray) -> float:
    """The class size where all are equal to the last digits, else 0."""
    step = float((edges[-1] - edges[0]) / (edges.size - 1))
    even = edges[0] + step * np.arange(edges.size)
    return step if np.array_equal(even, edges) else 0.0


def _edges(edges: ArrayLike, name: str) -> FloatArray:
    limits = checks.finite_samples(edges, where=f"matrix, {name}", unit="")
    if limits.size < 2 or (np.diff(limits) <= 0.0).any():
        raise InputError(
            f"matrix, {name}",
            "edges that do not rise, or fewer than two",
            "two or more, rising",
            "Classes must not overlap.",
        )
    return limits


def _middle(edges: FloatArray) -> FloatArray:
    return np.asarray(0.5 * (edges[:-1] + edges[1:]))
