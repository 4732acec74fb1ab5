"""Mean-stress rules side by side: their constant-life lines over the cloud of cycles, and the life by each."""

from __future__ import annotations

from typing import Any

import numpy as np
from matplotlib.axes import Axes
from matplotlib.figure import Figure

from vivid_anvil.damage import RuleComparison, StressLife
from vivid_anvil.figures.style import BLUE, GREEN, INK, ORANGE, PLUM, RED, new_figure, note
from vivid_anvil.figures.tidy import FIXED
from vivid_anvil.materials import MEAN_STRESS_RULES
from vivid_anvil.materials.mean_stress import MeanStressRule
from vivid_anvil.units import UnitSystem, display_unit, number, shown

_COLOURS = (INK, RED, BLUE, ORANGE, GREEN, PLUM)
_STYLES = ("-", (0, (6, 2)), (0, (2, 2)), (0, (9, 2, 2, 2)))
MOST_CYCLES = 4000  # of the cloud; the most damaging ones


def rules_figure(comparison: RuleComparison, units: UnitSystem = "metric") -> Figure:
    """The figure of a comparison of rules."""
    base = comparison.base
    spot, cycles = base.hot_spot, base.spectrum.cycles
    if not isinstance(base.method, StressLife):
        figure = new_figure(f"{spot.name.capitalize()}: by each {base.method.varies}")
        _bars(figure.subplots(), comparison)
        return figure
    figure = new_figure(f"{spot.name.capitalize()}: mean-stress rules")
    axes, bars = figure.subplots(1, 2, width_ratios=(2.1, 1.0))
    one = float(shown(1.0, "stress", units))
    amplitude, mean = 0.5 * cycles.range, cycles.mean
    worst = int(np.argmax(base.damage)) if base.damage_per_repeat > 0.0 else int(np.argmax(cycles.range))
    order = np.argsort(base.damage, kind="stable")[-MOST_CYCLES:]
    share = base.damage[order] / (base.damage_per_repeat or 1.0)
    level = np.log10(np.maximum(share, 1e-8))
    drawn = axes.scatter(mean[order] * one, amplitude[order] * one, c=level, cmap="YlOrBr", s=26, vmin=-8.0, vmax=0.0, zorder=3,
                         edgecolors="#00000040", linewidths=0.4)  # fmt: skip
    figure.colorbar(drawn, ax=axes, label="log10 of the share of the damage", shrink=0.85, pad=0.015)
    top = float(amplitude.max()) * 1.35
    right = max(float(np.abs(mean).max()), top)
    means = np.linspace(-0.3 * right if float(mean.min()) < 0.0 else 0.0, 1.25 * right, 240)
    for i, name in enumerate(comparison.lives):
        rule = MEAN_STRESS_RULES[name]
        value = rule.value_of(spot.material, spot.name)
        style: dict[str, Any] = {"color": _COLOURS[i % len(_COLOURS)], "ls": _STYLES[i % len(_STYLES)]}
        target = float(rule.to_reversed(amplitude[worst], max(float(mean[worst]), 0.0), value))
        line = np.array([_amplitude_for(rule, target, max(m, 0.0), value) for m in means])
        axes.plot(means * one, line * one, lw=1.9, label=name, zorder=2, **style)
    axes.plot(mean[worst] * one, amplitude[worst] * one, "o", ms=12, mfc="none", mec=INK, mew=1.8, zorder=5)
    unit = display_unit("stress", units)
    axes.set_xlim(means[0] * one, means[-1] * one)
    axes.set_ylim(0.0, top * one * 1.15)
    axes.set_xlabel(f"Mean stress [{unit}]")
    axes.set_ylabel(f"Stress amplitude [{unit}]")
    axes.set_title("Lines of equal damage through the worst cycle (ring)")
    axes.legend(loc="upper right", fontsize=11)
    _bars(bars, comparison)
    return figure


def _amplitude_for(rule: type[MeanStressRule], target: float, mean: float, value: float) -> float:
    """Amplitude at `mean` that the rule makes equal to `target` fully reversed, by halving; nan where none is."""
    low, high = 0.0, 4.0 * target + abs(mean)
    for _ in range(60):
        middle = 0.5 * (low + high)
        low, high = (low, middle) if float(rule.to_reversed(middle, mean, value)) > target else (middle, high)
    return 0.5 * (low + high) if high > 1e-6 * target else np.nan


def _bars(axes: Axes, comparison: RuleComparison) -> None:
    names = list(comparison.lives)
    calendar, lives = comparison.base.duty_cycle.calendar, [comparison.lives[name].life_repeats for name in names]
    unit = calendar.unit_for(*lives)
    years = np.array([calendar.life_in(unit, life) for life in lives])
    finite = np.isfinite(years)
    axes.set_title("Life by each rule")
    axes.set_xlabel(f"Life [{unit}]")
    if not finite.any():
        note(axes, "No cycle does damage\nby any of the rules", y=0.9)
        axes.set_yticks([])
        return
    shown_years = np.where(finite, years, 3.0 * years[finite].max())
    used = comparison.used
    for label, colour, those in (("the rule of the study", RED, True), ("other rules", ORANGE, False)):
        mine = [i for i, name in enumerate(names) if (name == used) == those]
        if mine:
            axes.barh(mine, shown_years[mine], color=colour, edgecolor="white", label=label)
    axes.set_yticks(range(len(names)), names)
    axes.set_xscale("log")
    axes.set_xlim(years[finite].min() / 3.0, shown_years.max() * 6.0)
    for i, value in enumerate(years):
        text = f"{number(value, 3)}" if finite[i] else "no damage"
        axes.annotate(
            text, (shown_years[i], i), xytext=(5, 0), textcoords="offset points", va="center", fontsize=11, gid=FIXED
        )
    axes.tick_params(axis="y", labelsize=11)
    axes.grid(axis="y", visible=False)
    axes.set_ylim(len(names) + 0.9, -0.6)  # room for the legend below
    axes.legend(loc="lower right", fontsize=11)
