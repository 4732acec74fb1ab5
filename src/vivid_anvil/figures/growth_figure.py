"""The growth of a crack: size against time, with limiting and detectable size and the inspections."""

from __future__ import annotations

from typing import Any

import numpy as np
from matplotlib.axes import Axes
from matplotlib.figure import Figure

from vivid_anvil.figures.style import BLUE, INK, ORANGE, RED, new_figure, note
from vivid_anvil.ground.checks import FloatArray
from vivid_anvil.growth import GrowthResult, InspectionPlan, inspection_plan
from vivid_anvil.units import UnitSystem, display_unit, in_unit, shown


def growth_figure(result: GrowthResult, units: UnitSystem = "metric") -> Figure:
    """The figure of a growth result, with the inspections that its detectable size allows."""
    plan = None
    if result.interval_repeats and np.isfinite(result.interval_repeats) and result.sizes.size > 1:
        plan = inspection_plan(result)
    return _grown(result, plan, units)


def plan_figure(plan: InspectionPlan, units: UnitSystem = "metric") -> Figure:
    """The growth curve with the inspections of a plan on it."""
    return _grown(plan.result, plan, units)


def _grown(result: GrowthResult, plan: InspectionPlan | None, units: UnitSystem) -> Figure:
    crack = result.crack
    figure = new_figure(f"Crack at {crack.hot_spot.name}: {headline(result)}")
    axes = figure.subplots()
    calendar = result.duty_cycle.calendar
    unit = _unit(result)
    axes.set_xlabel(f"Time [{unit}]")
    axes.set_ylabel(f"Crack size, {crack.shape.size_means} [{display_unit('length', units)}]")
    limit = float(shown(result.critical.limiting, "length", units))
    axes.set_ylim(0.0, limit * 1.15)
    _limits(axes, result, units)
    if result.sizes.size == 1:
        note(axes, f"{in_unit(crack.initial_size, 'length', units)}: {headline(result)}")
        return figure
    years = calendar.life_in(unit, result.repeats)
    axes.set_xlim(0.0, float(years[-1]) * 1.06)
    times, sizes, label = _smooth(result)
    axes.plot(calendar.life_in(unit, times), shown(sizes, "length", units), color=BLUE, lw=2.6, label=label, zorder=3)
    if plan is not None:
        _inspections(axes, plan, units)
    end = float(shown(result.final_size, "length", units))
    stop: dict[str, Any] = {"marker": "X", "ms": 13, "mfc": RED, "mec": "white", "ls": "none", "zorder": 5}
    through = None if result.then is None else result.then.crack
    name = f"Stop: {result.stopped_by}"
    if through is not None:
        name = f"then a {through.shape.kind} crack" if len(through.sizes) == 2 else "through the wall"
    axes.plot([years[-1]], [end], label=name, **stop)
    axes.legend(loc="upper left", bbox_to_anchor=(0.01, 0.86))
    return figure


SMOOTH_FROM = 20  # repeats; in fewer the events within a repeat are shown


def _smooth(result: GrowthResult) -> tuple[FloatArray, FloatArray, str]:
    """Times and sizes to draw: at the ends of repeats where there are many, as events within one would look like steps."""
    repeats, repeat = result.repeats, result.duty_cycle.repeat
    if repeats[-1] < SMOOTH_FROM or result.crack.order == "per repeat":
        return repeats, result.sizes, "Crack size"
    ends = np.unique(np.round(np.linspace(0.0, np.floor(repeats[-1]), 600)))
    times = np.append(ends[ends < repeats[-1]], repeats[-1])
    return times, np.interp(times, repeats, result.sizes), f"Crack size at the end of each {repeat}"


def headline(result: GrowthResult) -> str:
    """How long it lasts, and what ends it."""
    if np.isinf(result.life_repeats):
        return "no growth"
    if result.life_repeats == 0.0:
        return "critical from the start"
    return f"{result.duty_cycle.calendar.text(result.life_repeats)} to {result.governed_by}"


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


def _unit(result: GrowthResult) -> str:
    """The unit of the time axis."""
    return result.duty_cycle.calendar.unit_for(float(result.repeats[-1]))


def _inspections(axes: Axes, plan: InspectionPlan, units: UnitSystem) -> None:
    """The inspections on the curve; those that can find the crack filled."""
    result, calendar = plan.result, plan.result.duty_cycle.calendar
    years, heights = calendar.life_in(_unit(result), plan.at_repeats), shown(plan.sizes, "length", units)
    every = calendar.text(plan.interval_repeats).removeprefix("1 ")
    marks = (
        (plan.found, ORANGE, 11, f"Inspection that finds it, every {every}"),
        (np.logical_not(plan.found), "white", 9, "Inspection before it can be found"),
    )
    for those, fill, size, label in marks:
        if those.any():
            axes.plot(
                years[those], heights[those], ls="none", marker="v", ms=size, mfc=fill, mec=INK, zorder=4, label=label
            )
    factor = result.crack.inspection_factor
    way = calendar.text((result.interval_repeats or 0.0) * factor)
    note(axes, f"From detectable to limiting size {way}, divided by {factor:g}", y=0.985)
