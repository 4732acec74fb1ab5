"""The growth of a crack: size against time, with limiting and detectable size and the inspections."""

from __future__ import annotations

import numpy as np
from matplotlib.axes import Axes
from matplotlib.figure import Figure

from vivid_anvil.cracks import GrowthResult
from vivid_anvil.figures.style import BLUE, INK, ORANGE, RED, new_figure, note
from vivid_anvil.units import UnitSystem, display_unit, in_unit, number, shown

MOST_MARKS = 60


def growth_figure(result: GrowthResult, units: UnitSystem = "metric") -> Figure:
    """The figure of a growth result."""
    crack = result.crack
    figure = new_figure(f"Crack at {crack.hot_spot.name}: {_headline(result)}")
    axes = figure.subplots()
    axes.set_xlabel("Time [years]")
    axes.set_ylabel(f"Crack size, {crack.shape.size_means} [{display_unit('length', units)}]")
    limit = float(shown(result.critical.limiting, "length", units))
    axes.set_ylim(0.0, limit * 1.15)
    _limits(axes, result, units)
    if result.sizes.size == 1:
        note(axes, f"{in_unit(crack.initial_size, 'length', units)}: {_headline(result)}")
    else:
        years = result.repeats / result.duty_cycle.repeats_per_year
        axes.set_xlim(0.0, float(years[-1]) * 1.06)
        axes.plot(years, shown(result.sizes, "length", units), color=BLUE, lw=2.6, label="Crack size", zorder=3)
        _inspections(axes, result, units)
        end = float(shown(result.final_size, "length", units))
        axes.plot(
            [years[-1]],
            [end],
            marker="X",
            ms=13,
            mfc=RED,
            mec="white",
            ls="none",
            zorder=5,
            label=f"Stop: {result.stopped_by}",
        )
        axes.legend(loc="upper left", bbox_to_anchor=(0.01, 0.86))
    return figure


def _headline(result: GrowthResult) -> str:
    if np.isinf(result.life_repeats):
        return "no growth"
    if result.life_repeats == 0.0:
        return "critical from the start"
    return f"{number(result.life_years)} years to {result.governed_by}"


def _limits(axes: Axes, result: GrowthResult, units: UnitSystem) -> None:
    """Horizontal lines for the limiting and the detectable size, each with its name at the left end."""
    crack = result.crack
    lines = [
        (result.critical.limiting, RED, "-", f"limiting size {in_unit(result.critical.limiting, 'length', units)}")
    ]
    if crack.detectable_size is not None:
        lines.append(
            (crack.detectable_size, ORANGE, "--", f"detectable {in_unit(crack.detectable_size, 'length', units)}")
        )
    for size, colour, style, name in lines:
        height = float(shown(size, "length", units))
        axes.axhline(height, color=colour, ls=style, lw=1.8, zorder=2)
        axes.annotate(
            name,
            (0.01, height),
            xycoords=("axes fraction", "data"),
            xytext=(0, 5),
            textcoords="offset points",
            color=INK,
            fontsize=12,
            bbox={"facecolor": "white", "edgecolor": "none", "alpha": 0.85, "pad": 1.0},
        )


def _inspections(axes: Axes, result: GrowthResult, units: UnitSystem) -> None:
    """Inspections at the interval, counted back from the stop, on the curve; those that can find the crack filled."""
    interval = result.interval_repeats
    if not interval or not np.isfinite(interval):
        return
    end = float(result.repeats[-1])
    marks = end - interval * np.arange(1, MOST_MARKS)
    marks = marks[marks > 0.0]
    sizes = np.interp(marks, result.repeats, result.sizes)
    seen = sizes >= (result.crack.detectable_size or 0.0) * (1.0 - 1e-9)
    years = marks / result.duty_cycle.repeats_per_year
    heights = shown(sizes, "length", units)
    axes.plot(
        years[seen],
        heights[seen],
        ls="none",
        marker="v",
        ms=11,
        mfc=ORANGE,
        mec=INK,
        zorder=4,
        label=f"Inspection that finds it, every {number(result.interval_years or 0.0)} years",
    )
    axes.plot(
        years[~seen],
        heights[~seen],
        ls="none",
        marker="v",
        ms=9,
        mfc="white",
        mec=INK,
        zorder=4,
        label="Inspection before it can be found",
    )
    factor = result.crack.inspection_factor
    from_detectable = number((result.interval_years or 0.0) * factor)
    note(axes, f"From detectable to limiting size {from_detectable} years, divided by {factor:g}", y=0.985)
