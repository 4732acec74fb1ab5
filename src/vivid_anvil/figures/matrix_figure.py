"""A matrix of cycles: a heat map on a log scale, with the sums of rows and columns beside it."""

from __future__ import annotations

import numpy as np
from matplotlib.axes import Axes
from matplotlib.colors import LogNorm
from matplotlib.figure import Figure

from vivid_anvil.counting import MATRICES, CycleMatrix
from vivid_anvil.figures.style import BLUE, new_figure
from vivid_anvil.ground.checks import FloatArray
from vivid_anvil.units import UnitSystem, display_unit, number, shown


def matrix_figure(matrix: CycleMatrix, units: UnitSystem = "metric") -> Figure:
    """The figure of a matrix."""
    unit = display_unit(matrix.dimension, units)
    rows, columns = (shown(edges, matrix.dimension, units) for edges in (matrix.row_edges, matrix.column_edges))
    row_name, column_name = (f"{name.capitalize()} [{unit}]" for name in MATRICES[matrix.kind])
    figure = new_figure(
        f"{matrix.kind.capitalize()} matrix, {matrix.counts.shape[0]} x {matrix.counts.shape[1]} classes"
    )
    grid = figure.subplots(2, 2, width_ratios=(3.2, 1.0), height_ratios=(1.0, 3.2), sharex="col", sharey="row")
    heat: Axes = grid[1, 0]
    filled = np.where(matrix.counts > 0.0, matrix.counts, np.nan)
    least, most = np.nanmin(filled), max(float(np.nanmax(filled)), 1.01 * float(np.nanmin(filled)))
    mesh = heat.pcolormesh(columns, rows, filled, cmap="cividis_r", norm=LogNorm(least, most))
    heat.set_xlabel(column_name)
    heat.set_ylabel(row_name)
    figure.colorbar(mesh, ax=grid[:, 1], label="Cycles in a class", shrink=0.6, location="right")
    _margin(grid[0, 0], columns, matrix.counts.sum(axis=0), upright=True)
    grid[0, 0].set_ylabel("Cycles")
    _margin(grid[1, 1], rows, matrix.counts.sum(axis=1), upright=False)
    grid[1, 1].set_xlabel("Cycles")
    grid[0, 1].set_axis_off()
    grid[0, 1].text(0.02, 0.5, f"{number(matrix.total, 7)} cycles", fontsize=13, transform=grid[0, 1].transAxes)
    return figure


def _margin(axes: Axes, edges: FloatArray, sums: FloatArray, *, upright: bool) -> None:
    middle, width = 0.5 * (edges[:-1] + edges[1:]), np.diff(edges)
    shown_sums = np.where(sums > 0.0, sums, np.nan)
    if upright:
        axes.bar(middle, shown_sums, width=width, color=BLUE)
        axes.set_yscale("log")
    else:
        axes.barh(middle, shown_sums, height=width, color=BLUE)
        axes.set_xscale("log")
