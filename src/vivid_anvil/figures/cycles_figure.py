"""Counted cycles: range against mean, and how often each range is reached or passed."""

from __future__ import annotations

import numpy as np
from matplotlib.axes import Axes
from matplotlib.figure import Figure

from vivid_anvil.checks import FloatArray
from vivid_anvil.damage import class_edges
from vivid_anvil.figures.style import BLUE, INK, ORANGE, new_figure, note
from vivid_anvil.histories import Cycles
from vivid_anvil.units import UnitSystem, display_unit, number, shown

SMALLEST_SHOWN = 0.01  # of the largest range


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
    full = count >= 1.0
    left.plot(
        means[full], ranges[full], ls="none", marker="o", ms=6, mfc="none", mec=BLUE, label="Full cycles", alpha=0.7
    )
    if (~full).any():
        left.plot(means[~full], ranges[~full], ls="none", marker="^", ms=7, mfc=ORANGE, mec=INK, label="Half cycles")
    left.set_ylim(bottom=0.0)
    left.set_title("Range against mean")
    left.legend(loc="upper left")
    _exceedance(right, ranges, count)
    note(right, f"{number(cycles.total, 7)} cycles\nlargest range {number(float(ranges.max(initial=0.0)))} {unit}")
    return figure


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
