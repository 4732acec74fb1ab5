"""What is told of counted cycles: the largest of them, classes of range, a matrix."""

from __future__ import annotations

from itertools import pairwise

import numpy as np

from vivid_anvil.counting.cycles import Cycles
from vivid_anvil.counting.matrix import MATRICES, CycleMatrix
from vivid_anvil.ground.checks import FloatArray, IntArray
from vivid_anvil.units import UnitSystem, display_unit, number, shown
from vivid_anvil.writing.table import Column, Table

LARGEST, MOST_CLASSES = 10, 8


def largest_cycles(cycles: Cycles) -> Table:
    """The ten largest cycles, and when or at which samples they turn."""
    top = cycles.sorted_by_range().chosen(np.arange(min(LARGEST, len(cycles))))
    rate = top.sample_rate
    ends = [place.tolist() for place in (top.start, top.end)]
    timed, told = rate is not None, ("From", "To")
    turns = [[at / rate if rate else at + 1 for at in places] for places in ends]
    columns = (
        Column("no", list(range(1, len(top) + 1)), left=True),
        Column("range", top.range.tolist(), of=top.dimension),
        Column("mean", top.mean.tolist(), of=top.dimension),
        Column("count", top.count.tolist(), style="number"),
        *(
            Column(
                name.lower(),
                at,
                unit="s" if timed else "",
                head=name if timed else f"{name} row",
                style="number",
                digits=6,
            )
            for name, at in zip(told, turns, strict=True)
        ),
    )
    return Table("The largest cycles", columns, "largest cycles")


def range_classes(cycles: Cycles, edges: FloatArray, channel: str, units: UnitSystem) -> Table:
    """Classes of range between `edges` with their cycles, and how many reach or pass them; the largest first."""
    place = np.clip(np.searchsorted(edges, cycles.range, side="right") - 1, 0, edges.size - 2)
    sums = np.bincount(place, weights=cycles.count, minlength=edges.size - 1)[::-1]
    low, high = edges[:-1][::-1], edges[1:][::-1]
    limits = [
        [number(float(shown(edge, cycles.dimension, units))) for edge in pair] for pair in zip(low, high, strict=True)
    ]
    columns = (
        Column(
            "range",
            [f"{one} to {two}" for one, two in limits],
            unit=display_unit(cycles.dimension, units),
            only="page",
            left=True,
        ),
        Column("from", low.tolist(), of=cycles.dimension, only="file"),
        Column("below", high.tolist(), of=cycles.dimension, only="file"),
        Column("cycles", sums.tolist(), style="number"),
        Column("at or above", np.cumsum(sums).tolist(), style="number"),
    )
    return Table(f"Classes of the range of {channel}", columns, "classes")


def matrix_table(matrix: CycleMatrix, units: UnitSystem) -> Table:
    """Cycles of a matrix in at most eight classes a side, neighbours put together; empty cells stay empty."""
    rows, columns = MATRICES[matrix.kind]
    unit = display_unit(matrix.dimension, units)
    row_at, column_at = (_coarse(edges.size - 1) for edges in (matrix.row_edges, matrix.column_edges))
    sums = np.add.reduceat(np.add.reduceat(matrix.counts, row_at[:-1], axis=0), column_at[:-1], axis=1)[::-1]
    down = [number(float(one), 3) for one in shown(matrix.row_edges[row_at], matrix.dimension, units)]
    across = [number(float(one), 3) for one in shown(matrix.column_edges[column_at], matrix.dimension, units)]
    names = [f"{low} to {high}" for low, high in pairwise(down)][::-1]
    made = [Column(rows, names, unit=unit, head=f"{rows.capitalize()}\n", left=True)]
    for i, (low, high) in enumerate(pairwise(across)):
        made.append(
            Column(
                f"{low} to {high}", sums[:, i].tolist(), head=f"{low} to\n{high}", style="number", digits=3, zero=" "
            )
        )
    return Table(f"Cycles by {rows}, down, and {columns} [{unit}], across", tuple(made), "matrix")


def _coarse(size: int) -> IntArray:
    """Edges that take classes together, so that few are left."""
    return np.unique(np.linspace(0, size, min(size, MOST_CLASSES) + 1).round().astype(np.int64))
