"""Counted cycles: range against mean, and how often each range is reached or passed."""

from __future__ import annotations

from typing import Any

import numpy as np
from matplotlib.axes import Axes
from matplotlib.colors import LinearSegmentedColormap, LogNorm
from matplotlib.figure import Figure

from vivid_anvil.counting import Cycles
from vivid_anvil.damage import class_edges
from vivid_anvil.figures.style import BLUE, INK, ORANGE, RED, new_figure, note
from vivid_anvil.ground.checks import FloatArray
from vivid_anvil.units import UnitSystem, display_unit, number, shown

CLASSES, SLOPE = 40, 5.0
WEIGHTS = LinearSegmentedColormap.from_list("weights", ["#e4e9ee", "#f3d9a0", ORANGE, RED, "#5c1414"])


def cycles_figure(cycles: Cycles, units: UnitSystem = "metric", title: str = "Rainflow cycles") -> Figure:
    """The figure of a table of cycles."""
    unit = display_unit(cycles.dimension, units)
    what = "stress " if cycles.dimension == "stress" else "load "
    figure = new_figure(title)
    left, right = figure.subplots(1, 2, width_ratios=(1.15, 1.0))
    left.set_xlabel(f"Mean {what}[{unit}]")
    left.set_ylabel(f"{what.capitalize()}range [{unit}]")
    right.set_xlabel("Cycles that reach or pass the range")
    right.set_ylabel(f"{what.capitalize()}range [{unit}]")
    if not len(cycles):
        note(left, "No cycle")
        return figure
    order = np.argsort(-cycles.range, kind="stable")
    ranges, means = (shown(array[order], cycles.dimension, units) for array in (cycles.range, cycles.mean))
    count = cycles.count[order]
    _weights(figure, left, means, ranges, count)
    _exceedance(right, ranges, count)
    note(right, f"{number(cycles.total, 7)} cycles\nlargest range {number(float(ranges.max(initial=0.0)))} {unit}")
    return figure


def _weights(figure: Figure, axes: Axes, means: FloatArray, ranges: FloatArray, count: FloatArray) -> None:
    """Classes of mean and range: dots that grow with the number of cycles, coloured by what they weigh at slope 5."""
    edges = [np.linspace(*_ends(means), CLASSES + 1), np.linspace(0.0, float(ranges[0]) * 1.02 or 1.0, CLASSES + 1)]
    cycles = np.histogram2d(means, ranges, edges, weights=count)[0]
    weight = np.histogram2d(means, ranges, edges, weights=count * (ranges / max(float(ranges[0]), 1e-300)) ** SLOPE)[0]
    i, j = np.nonzero(cycles)
    middles = [0.5 * (edge[1:] + edge[:-1]) for edge in edges]
    share = 100.0 * weight[i, j] / weight.sum()
    order = np.argsort(share)
    size = 10.0 + 26.0 * np.log10(1.0 + cycles[i, j])
    looks: dict[str, Any] = {
        "cmap": WEIGHTS,
        "norm": LogNorm(1e-2, 100.0, clip=True),
        "edgecolors": "#00000066",
        "linewidths": 0.5,
    }
    drawn = axes.scatter(
        middles[0][i][order], middles[1][j][order], s=size[order], c=np.maximum(share[order], 1e-2), **looks
    )
    bar = figure.colorbar(drawn, ax=axes, label=f"Share of the damage at slope {SLOPE:g} [%]", pad=0.02)
    bar.ax.yaxis.set_major_formatter("{x:g}")
    axes.set_ylim(bottom=0.0)
    axes.set_title("Range against mean; larger dots: more cycles")


def _ends(values: FloatArray) -> tuple[float, float]:
    """Ends of classes around values, apart where all are the same."""
    low, high = float(values.min()), float(values.max())
    apart = 0.02 * (high - low) or 0.1 * abs(high) or 1.0
    return low - apart, high + apart


def _exceedance(axes: Axes, ranges: FloatArray, count: FloatArray) -> None:
    """Steps of range over the running number of cycles, the largest first, and round load classes on them."""
    passed = np.cumsum(count)
    first = min(0.5, float(passed[0]))
    axes.step(
        np.append(first, passed), np.append(ranges[0], ranges), where="pre", color=BLUE, lw=2, label="Every cycle"
    )
    edges = class_edges(float(ranges[0]))[:-1]
    reached = np.array([count[ranges >= edge].sum() for edge in edges])
    axes.plot(reached, edges, ls="none", marker="s", ms=7, mfc="white", mec=INK, label="At the edge of a load class")
    axes.set_xscale("log")
    axes.set_ylim(bottom=0.0)
    axes.set_title("Exceedance")
    axes.legend(loc="upper right", bbox_to_anchor=(1.0, 0.88))
