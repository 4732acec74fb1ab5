"""A life: the S-N curve with the counted cycles on it, and the damage of each class beside it."""

from __future__ import annotations

import numpy as np
from matplotlib.axes import Axes
from matplotlib.figure import Figure

from vivid_anvil.counting.cycles import PANEL
from vivid_anvil.damage import LifeResult
from vivid_anvil.events.calendar import amount
from vivid_anvil.figures.curve_figure import Look, draw_curve, name_points
from vivid_anvil.figures.style import (
    BLUE,
    GREEN,
    ORANGE,
    PALE,
    RED,
    new_figure,
    note,
    plain_log_ticks,
    share_axis,
    share_labels,
)
from vivid_anvil.ground.checks import FloatArray
from vivid_anvil.materials import SNCurve
from vivid_anvil.units import UnitSystem, display_unit, in_unit, number, shown

FEWEST_CYCLES, MOST_CYCLES = 1e2, 1e13


def life_figure(result: LifeResult, units: UnitSystem = "metric") -> Figure:
    """The figure of a life result."""
    figure = new_figure(f"{result.hot_spot.name.capitalize()}: {headline(result)}")
    left, right = figure.subplots(1, 2, width_ratios=(2.3, 1.0), sharey=True)
    stress = shown(result.equivalent_stress, result.dimension, units)
    curve, one = result.method.reference, float(shown(1.0, result.dimension, units))
    largest = one * result.largest_equivalent
    levels = [largest or 1.0] if curve is None else [largest or 1.0, one * _level(curve), one * curve.limit]
    top = 1.6 * max(largest, *levels[:2])
    if curve is not None:
        draw_curve(left, curve, Look(label=f"S-N curve {curve.name}"), units, MOST_CYCLES)
        name_points(left, curve, units, highest=top / one / 1.5)
    words = result.stress_in_words
    left.set_xlabel("Cycles")
    left.set_ylabel(f"{words[0].upper()}{words[1:]} [{display_unit(result.dimension, units)}]")
    left.set_title(result.method.words if curve is None else f"S-N curve, basis: {curve.basis}")
    _spectrum(left, result, stress, units)
    _against_target(left, result)
    left.set_ylim(min(levels) / 6.0, top)
    left.legend(loc="lower left")
    plain_log_ticks(left.yaxis)
    _bars(right, result, stress, units)
    return figure


def _level(curve: SNCurve) -> float:
    """A stress in the middle of the curve, MPa."""
    level = float(curve.stress_at(1e5))
    return level if 0.0 < level < np.inf else curve.limit


def headline(result: LifeResult) -> str:
    """Life and verdict in a few words."""
    if result.damage_per_repeat == 0.0:
        return "no damage"
    return f"life {result.duty_cycle.calendar.text(result.life_repeats)}, {result.verdict}"


def _spectrum(axes: Axes, result: LifeResult, stress: FloatArray, units: UnitSystem) -> None:
    """Exceedance of the equivalent stress over the target, or over the life; the largest cycle is named."""
    repeats = result.target_repeats or result.life_repeats
    if not np.isfinite(repeats):
        repeats = result.duty_cycle.repeats_per_year or 1.0
    if result.target_repeats is not None:
        span = "target life"
    else:
        one = result.duty_cycle.repeat if result.duty_cycle.repeats_per_year is None else "year"
        span = "life" if np.isfinite(result.life_repeats) else f"span of one {one}"
    if not stress.size:
        note(axes, "The load never changes:\nthere is no cycle", y=0.9)
        axes.set_xlim(FEWEST_CYCLES, _far(result))
        return
    order = np.argsort(-stress, kind="stable")
    passed = np.cumsum(result.spectrum.per_repeat[order]) * repeats
    if (
        PANEL in result.spectrum.cycles.columns
    ):  # a density has no largest stress: what is passed often enough to be seen
        seen = passed >= min(FEWEST_CYCLES, 0.5 * float(passed[-1]))
        order, passed = order[seen], passed[seen]
    cycles, heights = np.append(FEWEST_CYCLES, passed), np.append(stress[order][0], stress[order])
    axes.fill_between(cycles, heights, step="pre", color=PALE, alpha=0.45, lw=0)
    axes.step(cycles, heights, where="pre", color=BLUE, lw=2.2, label=f"Exceedance in the {span}")
    axes.set_xlim(FEWEST_CYCLES, 10.0 ** np.ceil(np.log10(max(float(passed[-1]), _far(result)))))
    largest = f"largest {in_unit(result.largest_equivalent, result.dimension, units)}"
    if PANEL in result.spectrum.cycles.columns:
        largest += f" once a {result.duty_cycle.repeat}"
    axes.annotate(
        largest, (FEWEST_CYCLES, float(heights[0])), xytext=(8, 7), textcoords="offset points", color=BLUE, fontsize=12
    )


def _far(result: LifeResult) -> float:
    """Cycles up to which the axis goes at least: well beyond the last point of the curve."""
    curve = result.method.reference
    return MOST_CYCLES / 1e4 if curve is None else 100.0 * float(curve.point_lives[-1])


def _against_target(axes: Axes, result: LifeResult) -> None:
    """The cycles of the target life as a line, and how much of the life is used by then."""
    share, target = result.used_at_target, result.target_repeats
    if share is None or target is None:
        return
    words = amount(target, result.duty_cycle.repeat)
    cycles = float(result.spectrum.per_repeat.sum()) * target
    if cycles > 0.0:
        axes.axvline(cycles, color=GREEN, lw=1.8, ls=(0, (6, 2)), label=f"Cycles in the target life, {words}")
    reserve = result.reserve_on_stress
    factor = "" if reserve is None else f"\nreserve on stress {number(reserve)}"
    note(axes, f"{number(100.0 * share)} % of the life used at the target{factor}")


def _bars(axes: Axes, result: LifeResult, stress: FloatArray, units: UnitSystem) -> None:
    """Share of the damage of each class of equivalent stress."""
    axes.set_title("Damage of each stress class")
    share_axis(axes)
    if result.damage_per_repeat == 0.0:
        curve = result.method.reference
        why = "No damage"
        if stress.size and curve is not None:
            why = f"No cycle reaches\nthe fatigue limit, {in_unit(curve.limit, 'stress', units)}:\nno damage"
        note(axes, why, y=0.9)
        return
    edges = shown(result.edges(units), result.dimension, units)
    share = np.array([100.0 * one.share for one in result.stress_classes(result.edges(units))])
    low = np.maximum(edges[:-1], edges[1] * 0.5)
    worst = int(np.argmax(share))
    most = np.arange(share.size) == worst
    kinds = [("all other classes", ORANGE, ~most), ("the class that does most", RED, most)]
    for label, colour, those in kinds:
        axes.barh(
            low[those],
            share[those],
            height=(edges[1:] - low)[those],
            align="edge",
            edgecolor="white",
            linewidth=1.2,
            color=colour,
            label=label if share[those].any() else None,
        )
    share_labels(axes, share, np.sqrt(low * edges[1:]))
    axes.legend(loc="lower right")
