"""A life: the S-N curve with the counted cycles on it, and the damage of each class beside it."""

from __future__ import annotations

import numpy as np
from matplotlib.axes import Axes
from matplotlib.figure import Figure

from vivid_anvil.checks import FloatArray
from vivid_anvil.damage import LifeResult, class_edges
from vivid_anvil.figures.style import BLUE, INK, ORANGE, PALE, RED, new_figure, note, plain_log_ticks
from vivid_anvil.materials import SNCurve
from vivid_anvil.units import UnitSystem, display_unit, in_unit, number, shown

FEWEST_CYCLES, MOST_CYCLES = 1e2, 1e13


def life_figure(result: LifeResult, units: UnitSystem = "metric") -> Figure:
    """The figure of a life result."""
    figure = new_figure(f"{result.hot_spot.name.capitalize()}: {_headline(result)}")
    left, right = figure.subplots(1, 2, width_ratios=(2.3, 1.0), sharey=True)
    stress = shown(result.equivalent_stress, "stress", units)
    top = max(float(stress.max(initial=0.0)), float(shown(result.curve.knee_stress, "stress", units))) * 1.6
    bottom = min(float(shown(result.curve.knee_stress, "stress", units)), float(stress.max(initial=1.0))) / 12.0
    _curve(left, result.curve, (bottom, top), units)
    _spectrum(left, result, stress, units)
    left.set_ylim(bottom, top)
    left.legend(loc="lower left")
    plain_log_ticks(left.yaxis)
    _bars(right, result, stress, units)
    return figure


def curve_figure(curve: SNCurve, units: UnitSystem = "metric") -> Figure:
    """The figure of an S-N curve alone."""
    figure = new_figure(f"S-N curve {curve.name}")
    axes = figure.subplots()
    knee = float(shown(curve.knee_stress, "stress", units))
    _curve(axes, curve, (knee / 8.0, knee * 10.0), units)
    axes.set_xlim(FEWEST_CYCLES, 1e3 * curve.knee_life)
    axes.legend(loc="lower left")
    plain_log_ticks(axes.yaxis)
    note(axes, f"Source: {curve.source}")
    return figure


def _headline(result: LifeResult) -> str:
    if result.damage_per_repeat == 0.0:
        return "no damage"
    return f"life {number(result.life_years)} years, {result.verdict}"


def _curve(axes: Axes, curve: SNCurve, limits: tuple[float, float], units: UnitSystem) -> None:
    """The curve between two stresses, dashed beyond the tested lives, with its knee."""
    unit = display_unit("stress", units)
    one = float(shown(1.0, "stress", units))
    knee = curve.knee_stress * one
    stress = np.unique(np.concatenate([np.geomspace(*limits, 400), [knee]]))
    stress = stress[stress >= knee * (1.0 - 1e-12)] if curve.has_limit else stress
    life = curve.life(np.maximum(stress / one, curve.knee_stress) if curve.has_limit else stress / one)
    if curve.has_limit:
        life, stress = np.append(MOST_CYCLES, life), np.append(knee, stress)
    tested = (life >= curve.tested_from) & (life <= curve.tested_to)
    axes.loglog(life, np.where(tested, stress, np.nan), color=INK, lw=2.4, label=f"S-N curve {curve.name}")
    if not tested.all():
        axes.loglog(life, stress, color=INK, lw=1.2, ls=(0, (4, 3)), zorder=1.5)
    axes.plot([curve.knee_life], [knee], marker="s", ms=8, mfc="white", mec=INK, ls="none", zorder=4)
    axes.annotate(
        f"knee {in_unit(curve.knee_stress, 'stress', units)},\n{number(curve.knee_life)} cycles",
        (curve.knee_life, knee),
        xytext=(10, 8),
        textcoords="offset points",
        fontsize=12,
    )
    axes.set_xlabel("Cycles")
    axes.set_ylabel(f"Stress {curve.stress} at {curve.at_r} [{unit}]")
    axes.set_title(f"S-N curve, slope {curve.slope:g}, {_below(curve)}")


def _below(curve: SNCurve) -> str:
    if curve.has_limit:
        return "no damage below the knee"
    return "one slope" if curve.slope_below == curve.slope else f"{curve.slope_below:g} below the knee"


def _spectrum(axes: Axes, result: LifeResult, stress: FloatArray, units: UnitSystem) -> None:
    """Exceedance of the equivalent stress over the target, or over the life; the largest cycle is named."""
    repeats = result.target_repeats or result.life_repeats
    if not np.isfinite(repeats):
        repeats = result.duty_cycle.repeats_per_year
    if result.target_repeats is not None:
        span = "target life"
    else:
        span = "life" if np.isfinite(result.life_repeats) else "a year"
    if not stress.size:
        note(axes, "The load never changes:\nthere is no cycle", y=0.9)
        axes.set_xlim(FEWEST_CYCLES, 100.0 * result.curve.knee_life)
        return
    order = np.argsort(-stress, kind="stable")
    passed = np.cumsum(result.spectrum.per_repeat[order]) * repeats
    cycles, heights = np.append(FEWEST_CYCLES, passed), np.append(stress[order][0], stress[order])
    axes.fill_between(cycles, heights, step="pre", color=PALE, alpha=0.45, lw=0)
    axes.step(cycles, heights, where="pre", color=BLUE, lw=2.2, label=f"Exceedance in the {span}")
    axes.set_xlim(FEWEST_CYCLES, 10.0 ** np.ceil(np.log10(max(float(passed[-1]), 100.0 * result.curve.knee_life))))
    largest = in_unit(float(result.equivalent_stress.max()), "stress", units)
    axes.annotate(
        f"largest {largest}",
        (FEWEST_CYCLES, float(stress.max())),
        xytext=(8, 7),
        textcoords="offset points",
        color=BLUE,
        fontsize=12,
    )


def _bars(axes: Axes, result: LifeResult, stress: FloatArray, units: UnitSystem) -> None:
    """Share of the damage of each class of equivalent stress."""
    axes.set_title("Damage of each stress class")
    axes.set_xlabel("Share of the damage [%]")
    total = result.damage_per_repeat
    if total == 0.0:
        axes.set_xlim(0.0, 100.0)
        limit = in_unit(result.curve.knee_stress, "stress", units)
        note(axes, f"No cycle reaches\nthe fatigue limit, {limit}:\nno damage" if stress.size else "No damage", y=0.9)
        return
    edges = class_edges(float(stress.max()))
    place = np.clip(np.searchsorted(edges, stress, side="right") - 1, 0, edges.size - 2)
    share = 100.0 * np.bincount(place, weights=result.damage, minlength=edges.size - 1) / total
    low = np.maximum(edges[:-1], edges[1] * 0.5)
    worst = int(np.argmax(share))
    axes.barh(
        low,
        share,
        height=edges[1:] - low,
        align="edge",
        edgecolor="white",
        linewidth=1.2,
        color=[RED if i == worst else ORANGE for i in range(share.size)],
    )
    for i in np.flatnonzero(share >= 1.0):
        axes.annotate(
            f"{share[i]:.0f} %",
            (share[i], float(np.sqrt(low[i] * edges[i + 1]))),
            xytext=(5, 0),
            textcoords="offset points",
            va="center",
            fontsize=12,
        )
    axes.set_xlim(0.0, float(share.max()) * 1.25)
