"""A matrix of cycles that tells of each class how many are in it."""

from __future__ import annotations

import numpy as np

from vivid_anvil.counting import MATRICES, CycleMatrix, Cycles, cycle_matrix
from vivid_anvil.ground.checks import FloatArray
from vivid_anvil.pages.live import Live, axes, graphs, named, new_live
from vivid_anvil.units import UnitSystem, display_unit, number, shown

CLASSES = 48


def cycles_live(cycles: Cycles, units: UnitSystem = "metric") -> Live | None:
    """Counted cycles in classes of range and mean; None where there are none."""
    return matrix_live(cycle_matrix(cycles, kind="range-mean", classes=CLASSES), units) if len(cycles) else None


def matrix_live(matrix: CycleMatrix, units: UnitSystem = "metric") -> Live:
    """The matrix as a map on a log scale."""
    unit = display_unit(matrix.dimension, units)
    rows, columns = (shown(edges, matrix.dimension, units) for edges in (matrix.row_edges, matrix.column_edges))
    names = [f"{name.capitalize()} [{unit}]" for name in MATRICES[matrix.kind]]
    there = matrix.counts > 0.0
    with np.errstate(divide="ignore"):
        height = np.where(there, np.log10(matrix.counts), np.nan)
    low, high = (int(np.floor(np.nanmin(height))), int(np.ceil(np.nanmax(height)))) if there.any() else (0, 1)
    powers = list(range(low, max(high, low + 1) + 1))
    bar = {"title": {"text": "Cycles"}, "tickvals": powers, "ticktext": [f"10<sup>{one}</sup>" for one in powers]}
    figure = new_live()
    figure.add_trace(
        graphs().Heatmap(
            z=height,
            x=columns,
            y=rows,
            zmin=powers[0],
            zmax=powers[-1],
            customdata=_told(matrix.counts, rows, columns),
            colorscale="Cividis",
            reversescale=True,
            colorbar=bar,
            hoverongaps=False,
            hovertemplate=named(
                [
                    (MATRICES[matrix.kind][0], f"%{{customdata[1]:.5g}} to %{{customdata[2]:.5g}} {unit}"),
                    (MATRICES[matrix.kind][1], f"%{{customdata[3]:.5g}} to %{{customdata[4]:.5g}} {unit}"),
                    ("", "%{customdata[0]:.7g} cycles"),
                ]
            ),
        )
    )
    axes(figure, names[1], names[0])
    title = f"{matrix.kind.capitalize()} matrix, {matrix.counts.shape[0]} x {matrix.counts.shape[1]} classes"
    return Live(title, figure, (f"{number(matrix.total, 7)} cycles.",))


def _told(counts: FloatArray, rows: FloatArray, columns: FloatArray) -> FloatArray:
    """Count and edges of each class, shape (rows, columns, 5)."""
    low, left = np.meshgrid(rows[:-1], columns[:-1], indexing="ij")
    high, right = np.meshgrid(rows[1:], columns[1:], indexing="ij")
    return np.stack([counts, low, high, left, right], axis=-1)
