"""A fitted tail: the measured exceedance of one occurrence, the fit with its limits, and how far it is carried on."""

from __future__ import annotations

import numpy as np
from matplotlib.figure import Figure

from vivid_anvil.counting import TailFit, exceedance
from vivid_anvil.figures.style import BLUE, INK, ORANGE, PALE, RED, new_figure, note
from vivid_anvil.units import UnitSystem, display_unit, in_unit, number, shown

OCCURRENCES = 1e4
PLACES = 200


def tail_figure(fit: TailFit, units: UnitSystem = "metric") -> Figure:
    """The figure of a fitted tail, carried on to what is expected once in 10 000 occurrences."""
    dimension = fit.cycles.dimension
    unit = display_unit(dimension, units)
    figure = new_figure(f"Tail of the ranges, {fit.model}")
    axes = figure.subplots()
    measured = exceedance(fit.cycles)
    axes.step(
        measured.passed,
        shown(measured.ranges, dimension, units),
        where="pre",
        color=BLUE,
        lw=2.0,
        label="Measured, one occurrence",
    )
    ranges = np.linspace(fit.threshold, fit.largest(OCCURRENCES), PLACES)
    heights = shown(ranges, dimension, units)
    low, high = fit.limits(ranges)
    least = 0.5 / OCCURRENCES
    axes.fill_betweenx(
        heights,
        np.maximum(low, least),
        np.maximum(high, least),
        color=PALE,
        alpha=0.7,
        lw=0,
        label="90 % limits of the fit",
    )
    axes.plot(
        np.maximum(fit.passed(ranges), least), heights, color=RED, lw=2.2, label=f"Fit, shape {number(fit.shape, 3)}"
    )
    for value, name, colour in (
        (fit.threshold, "threshold", INK),
        (fit.largest_measured, "largest measured", ORANGE),
        (fit.largest(OCCURRENCES), f"once in {OCCURRENCES:.0f} occurrences", RED),
    ):
        height = float(shown(value, dimension, units))
        axes.axhline(height, color=colour, ls="--", lw=1.2)
        axes.annotate(
            f"{name}, {in_unit(value, dimension, units)}",
            (0.99, height),
            xycoords=("axes fraction", "data"),
            xytext=(0, 4),
            textcoords="offset points",
            ha="right",
            fontsize=12,
        )
    axes.set_xscale("log")
    axes.set_xlim(least, 3.0 * measured.passed[-1])
    axes.set_ylim(0.0, float(shown(fit.largest(OCCURRENCES), dimension, units)) * 1.15)
    axes.set_xlabel("Cycles in one occurrence that reach or pass the range")
    axes.set_ylabel(f"{'Stress' if dimension == 'stress' else 'Load'} range [{unit}]")
    axes.legend(loc="center right", bbox_to_anchor=(0.99, 0.62))
    note(axes, f"fitted to {number(fit.above)} cycles", y=0.985)
    return figure
