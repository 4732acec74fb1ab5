"""Figures around a crack: its shape's Y, the law with what the cycles visit, K and aspect on its way, initial size and life."""

from __future__ import annotations

import math
from typing import Any

import numpy as np
from matplotlib.axes import Axes
from matplotlib.figure import Figure

from vivid_anvil.figures.style import BLUE, GREEN, INK, ORANGE, PALE, RED, new_figure, note, plain_log_ticks
from vivid_anvil.growth import CrackCourse, SizeLives, VisitedLaw
from vivid_anvil.materials import GrowthFit, GrowthLaw
from vivid_anvil.units import UnitSystem, display_unit, in_unit, number, shown

ASPECTS = (0.2, 0.5, 1.0)
_LAW_RATIOS = (0.0, 0.5)


def shape_figure(shape: Any, units: UnitSystem = "metric") -> Figure:
    """Y of a crack shape over its relative size; of one with two sizes at both ends for three aspects."""
    figure = new_figure(f"{shape.kind.capitalize()} crack: geometry factor Y")
    axes = figure.subplots()
    axes.set_ylabel("Y of K = Y S √(π a) [-]")
    if len(shape.sizes) == 1:
        sizes = np.linspace(max(shape.smallest_size, 1e-3 * shape.largest_size), shape.largest_size, 400)
        axes.plot(sizes / shape.width, shape.geometry_factor(sizes), color=BLUE, lw=2.6)
        axes.set_xlabel(f"a / W [-], a: {shape.size_means}, W = {in_unit(shape.width, 'length', units)}")
        end = in_unit(shape.largest_size, "length", units)
        axes.axvline(shape.largest_size / shape.width, color=RED, lw=1.6, ls=(0, (5, 3)), label=f"solution ends: {end}")
    else:
        _two_size_factors(axes, shape, units)
    axes.set_xlim(left=0.0)
    axes.set_ylim(bottom=0.0)
    axes.legend(loc="best")
    note(axes, shape.source, y=0.06)
    return figure


def _two_size_factors(axes: Axes, shape: Any, units: UnitSystem) -> None:
    depths = np.linspace(0.01, 0.995, 200) * shape.deepest
    for aspect, colour in zip(ASPECTS, (BLUE, RED, ORANGE), strict=True):
        fits = [a for a in depths if a / aspect < shape.longest]
        ends = np.array([shape.factors(float(a), float(a) / aspect) for a in fits])
        places = np.array(fits) / shape.deepest
        axes.plot(places, ends[:, 0], color=colour, lw=2.4, label=f"a/c = {aspect:g}, end of the depth")
        axes.plot(
            places, ends[:, 1], color=colour, lw=2.0, ls=(0, (5, 2)), label=f"a/c = {aspect:g}, end of the length"
        )
    axes.set_xlabel(f"a / {in_unit(shape.deepest, 'length', units)} [-], a: {shape.size_means}")


def law_figure(law: GrowthLaw, units: UnitSystem = "metric") -> Figure:
    """Growth per cycle over the range of K at R = 0 and 0.5."""
    figure = new_figure(f"Growth law {law.name}")
    axes = figure.subplots()
    top = coherent_top(law)
    ratios = _LAW_RATIOS if law.depends_on_r else _LAW_RATIOS[:1]
    lowest = float(law.threshold_at(ratios).min())
    _law_lines(axes, law, ratios, 0.8 * lowest or 0.02 * top, top, units)
    axes.legend(loc="lower right")
    return figure


def coherent_top(law: GrowthLaw) -> float:
    """The range of K, MPa√mm, to which a law is drawn: that of 0.01 mm a cycle, at least 10 thresholds."""
    ends = law.tested[1]
    if math.isfinite(ends):
        return ends
    ranges = np.geomspace(1.0, 1e6, 1201)
    fast = ranges[law.growth(ranges) >= 1e-2]
    return float(max(fast[0] if fast.size else ranges[-1], 10.0 * float(law.threshold_at(0.0))))


def visited_figure(visited: VisitedLaw, units: UnitSystem = "metric") -> Figure:
    """The law over ΔK, and under it where the cycles of a repeat grow the crack, at the start and at the end."""
    result = visited.result
    law, tests = result.crack.law, result.tests
    figure = new_figure(f"{law.name}: where the cycles grow the crack at {result.crack.hot_spot.name}")
    upper, lower = figure.subplots(2, 1, sharex=True, height_ratios=[3, 1.4])
    delta_k, r_ratios = result.depth_cycles(result.crack.initial_size)
    weights = result.drive.per_repeat * delta_k**law.slope
    mean_r = float((weights * r_ratios).sum() / weights.sum()) if weights.sum() > 0.0 else 0.0
    ratios = (round(mean_r, 2),) if not law.depends_on_r else tuple(dict.fromkeys((0.0, round(mean_r, 2))))
    growing = np.flatnonzero(visited.shares.sum(axis=0) > 1e-6)
    low = visited.edges[growing[0]] if growing.size else visited.edges[0]
    bottom = 0.6 * min(low, float(law.threshold_at(0.0)) or low)
    top = 1.25 * visited.edges[-1]
    if tests is not None:
        bottom, top = min(bottom, 0.8 * float(tests.ranges.min())), max(top, 1.25 * float(tests.ranges.max()))
    _law_lines(upper, law, ratios, bottom, top, units)
    if tests is not None:
        given = shown(tests.ranges, "stress intensity", units), shown(tests.rates, "length", units)
        rates = f"{tests.rates.size} measured rates, R = {tests.r_ratio:g}"
        upper.plot(*given, ls="none", marker="o", ms=6, mfc="none", mec=INK, label=rates, zorder=4)
    upper.set_xlabel("")
    upper.set_xlim(*(float(shown(one, "stress intensity", units)) for one in (bottom, top)))
    upper.legend(loc="lower right")
    edges = shown(visited.edges, "stress intensity", units)
    sizes = (result.crack.initial_size, result.final_size)
    for shares, size, colour, solid in zip(visited.shares, sizes, (BLUE, RED), (0.75, 0.45), strict=True):
        label = f"at {in_unit(size, 'length', units)}"
        lower.stairs(100.0 * shares, edges, color=colour, fill=True, alpha=solid, label=label)
    lower.set_ylabel("Share of\nthe growth [%]")
    lower.set_xlabel(f"ΔK [{display_unit('stress intensity', units)}]")
    plain_log_ticks(lower.xaxis)
    lower.legend(loc="upper left")
    return figure


def _law_lines(
    axes: Axes, law: GrowthLaw, ratios: tuple[float, ...], low: float, high: float, units: UnitSystem
) -> None:
    known = law.tested
    ends = known if math.isfinite(known[1]) else (max(low, 1e-3 * high), high)
    ranges = np.geomspace(ends[0] * (1.0 + 1e-9), ends[1] * (1.0 - 1e-9), 500)
    for r, colour in zip(ratios, (BLUE, ORANGE, GREEN), strict=False):
        rates = law.growth(ranges, r)
        seen = (rates > 0.0) & np.isfinite(rates)
        name = law.name if not law.depends_on_r else f"R = {r:g}"
        axes.plot(
            shown(ranges[seen], "stress intensity", units),
            shown(rates[seen], "length", units),
            color=colour,
            lw=2.6,
            label=name,
        )
        threshold = float(law.threshold_at(r))
        if threshold > 0.0:
            at = float(shown(threshold, "stress intensity", units))
            name = f"threshold {in_unit(threshold, 'stress intensity', units)}"
            of_r = "" if not law.depends_on_r else f" at R = {r:g}"
            axes.axvline(at, color=colour, lw=1.4, ls=(0, (4, 3)), label=f"{name}{of_r}")
    _law_axes(axes, units)


def course_figure(course: CrackCourse, units: UnitSystem = "metric") -> Figure:
    """Largest K over the size, with the toughness; under it the aspect of a crack with two sizes."""
    result = course.result
    figure = new_figure(f"K on the way of the crack at {result.crack.hot_spot.name}")
    two = course.aspects is not None
    panels = figure.subplots(2, 1, sharex=True, height_ratios=[3, 1.6]) if two else [figure.subplots()]
    sizes = shown(course.sizes, "length", units)
    upper = panels[0]
    ends = "end of the depth" if two else "largest K"
    upper.plot(sizes, shown(course.depth_k, "stress intensity", units), color=BLUE, lw=2.6, label=ends)
    if course.surface_k is not None:
        along = shown(course.surface_k, "stress intensity", units)
        upper.plot(sizes, along, color=ORANGE, lw=2.2, ls=(0, (5, 2)), label="end of the length")
    toughness = result.crack.hot_spot.material.toughness
    if toughness is not None:
        height = float(shown(toughness, "stress intensity", units))
        upper.axhline(height, color=RED, lw=1.8, label=f"toughness {in_unit(toughness, 'stress intensity', units)}")
    upper.set_ylim(bottom=0.0)
    upper.margins(y=0.12)
    upper.set_ylabel(f"Largest K [{display_unit('stress intensity', units)}]")
    upper.legend(loc="upper left", bbox_to_anchor=(0.0, 0.88))
    if course.aspects is not None:
        panels[1].plot(sizes, course.aspects, color=GREEN, lw=2.4)
        panels[1].set_ylabel("Aspect a/c [-]")
        panels[1].set_ylim(0.0, max(1.05, 1.1 * float(course.aspects.max())))
    panels[-1].set_xlabel(f"Crack size, {result.crack.shape.size_means} [{display_unit('length', units)}]")
    return figure


def sizes_figure(lives: SizeLives, units: UnitSystem = "metric") -> Figure:
    """Life over initial size, with the target and the largest size that lasts it."""
    crack = lives.crack
    figure = new_figure(f"Life of the crack at {crack.hot_spot.name} from other initial sizes")
    axes = figure.subplots()
    calendar, finite = lives.duty_cycle.calendar, np.isfinite(lives.repeats) & (lives.repeats > 0.0)
    unit = calendar.unit_for(*lives.repeats.tolist())
    heights = calendar.life_in(unit, lives.repeats)
    target = None if lives.target_repeats is None else calendar.life_in(unit, lives.target_repeats)
    sizes = shown(lives.sizes, "length", units)
    axes.plot(sizes[finite], heights[finite], color=BLUE, lw=2.4, marker="o", ms=7, label="life")
    if lives.largest_lasting and target is not None and 0.0 < lives.largest_lasting < lives.sizes[0]:
        first = shown(np.array([lives.largest_lasting, lives.sizes[0]]), "length", units)
        axes.plot(first, [target, heights[0]], color=BLUE, lw=1.6, ls=(0, (4, 3)))
    if not finite.any():
        axes.set_ylim(0.1, 1000.0)
    if (~finite).any():
        note(axes, f"No growth up to {in_unit(float(lives.sizes[~finite].max()), 'length', units)}", y=0.9)
    now = float(shown(crack.initial_size, "length", units))
    axes.axvline(
        now, color=INK, lw=1.4, ls=(0, (1, 2)), label=f"as it is: {in_unit(crack.initial_size, 'length', units)}"
    )
    if target is not None:
        axes.axhline(target, color=RED, lw=1.8, label="target")
        if lives.largest_lasting:
            at = float(shown(lives.largest_lasting, "length", units))
            name = f"lasts: up to {in_unit(lives.largest_lasting, 'length', units)}"
            axes.plot([at], [target], "D", ms=11, mfc=ORANGE, mec=INK, label=name)
    axes.set_xscale("log")
    axes.set_yscale("log")
    plain_log_ticks(axes.xaxis)
    plain_log_ticks(axes.yaxis)
    axes.set_xlabel(f"Initial size, {crack.shape.size_means} [{display_unit('length', units)}]")
    axes.set_ylabel(f"Life to the limiting size [{unit}]")
    axes.legend(loc="lower left", facecolor=PALE)
    return figure


def growth_fit_figure(fit: GrowthFit, units: UnitSystem = "metric") -> Figure:
    """Measured rates with the mean line and the upper bound of two standard deviations."""
    tests = fit.tests
    figure = new_figure(f"{tests.name}: da/dN = C ΔK^m, m = {number(fit.slope, 3)}")
    axes = figure.subplots()
    _law_axes(axes, units)
    ranges = np.geomspace(tests.ranges.min() / 1.15, tests.ranges.max() * 1.15, 50)
    at = shown(ranges, "stress intensity", units)
    lines = ((0.0, BLUE, "-", "mean"), (2.0, RED, (0, (6, 2)), "mean + 2 standard deviations"))
    for above, colour, style, name in lines:
        axes.plot(at, shown(fit.law(above).growth(ranges), "length", units), color=colour, ls=style, lw=2.2, label=name)
    seen = (shown(tests.ranges, "stress intensity", units), shown(tests.rates, "length", units))
    axes.plot(*seen, ls="none", marker="o", ms=7, mfc="white", mec=INK, label=f"tests, R = {tests.r_ratio:g}", zorder=4)
    note(axes, tests.how, y=0.06)
    axes.legend(loc="upper left")
    return figure


def _law_axes(axes: Axes, units: UnitSystem) -> None:
    axes.set_xscale("log")
    axes.set_yscale("log")
    plain_log_ticks(axes.xaxis)
    axes.set_xlabel(f"ΔK [{display_unit('stress intensity', units)}]")
    axes.set_ylabel(f"Growth [{display_unit('length', units)} a cycle]")
