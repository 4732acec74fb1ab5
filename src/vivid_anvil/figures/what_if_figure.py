"""What if: life against the value that was varied, a line a hot spot, the study as it is marked, and the target."""

from __future__ import annotations

import math

import numpy as np
from matplotlib.axes import Axes
from matplotlib.figure import Figure

from vivid_anvil.figures.style import BLUE, GREEN, INK, ORANGE, PLUM, RED, new_figure, note, plain_log_ticks
from vivid_anvil.study import FlawsWhatIf, Variant, WhatIf, number_and_unit
from vivid_anvil.units import UnitSystem

_COLOURS = (BLUE, RED, ORANGE, GREEN, PLUM, INK)


def what_if_figure(result: WhatIf, units: UnitSystem = "metric") -> Figure:  # noqa: ARG001 (values are shown as written)
    """The figure of a what-if."""
    figure = new_figure(result.title)
    axes = figure.subplots()
    used = [variant for variant in result.variants if variant.lives]
    sizes = [number_and_unit(one.value) for one in used]
    numeric = all(size is not None for size in sizes)
    places = np.array([size[0] for size in sizes if size is not None]) if numeric else np.arange(len(used), dtype=float)
    unit_of_life = result.unit_of_life
    finite = [life for one in used for spot in one.lives if 0.0 < (life := _life(one, spot, unit_of_life)) < math.inf]
    calendar = next(life.calendar for one in used if one.is_base for life in one.lives.values())
    target = None if result.target_repeats is None else calendar.life_in(unit_of_life, result.target_repeats)
    if not finite:
        note(axes, "No cycle does damage\nat any of the values", x=0.6, y=0.6)
        finite = [1.0, 10.0]
    ceiling = 4.0 * max(*finite, target or 0.0, 0.0)
    for i, spot in enumerate(result.spots):
        joined = "-" if numeric else "none"
        _line(axes, used, places, spot, ceiling, _COLOURS[i % len(_COLOURS)], joined, unit_of_life)
    if target is not None:
        axes.axhline(target, color=INK, lw=1.6, ls=(0, (5, 3)), label="target", zorder=2)
    base = next((place for place, one in zip(places, used, strict=True) if one.is_base), None)
    if base is not None:
        axes.axvline(base, color="#9aa4ae", lw=1.2, ls=(0, (1, 2)), zorder=1)
        axes.annotate("as it is", (base, ceiling), xytext=(5, -4), textcoords="offset points", fontsize=12, va="top")
    axes.set_yscale("log")
    axes.set_ylim(min(*finite, target or math.inf, math.inf) / 2.5, ceiling * 1.4)
    plain_log_ticks(axes.yaxis)
    unit = next((size[1] for size in sizes if size is not None and size[1]), "")
    axes.set_xlabel(f"{result.key} [{unit or '-'}]")
    axes.set_ylabel(f"Life [{unit_of_life}]")
    if not numeric:
        axes.set_xticks(places, [str(one.value) for one in used])
    axes.legend(loc="best")
    return figure


def _life(one: Variant, spot: str, unit: str) -> float:
    """The life of a hot spot at one of the values, in `unit`."""
    life = one.lives[spot]
    return float(life.calendar.life_in(unit, life.life_repeats))


def _line(
    axes: Axes, used: list[Variant], places: np.ndarray, spot: str, ceiling: float, colour: str, joined: str, unit: str
) -> None:
    """Lives of one hot spot; an endless life as an open triangle at the ceiling."""
    years = np.array([_life(one, spot, unit) if spot in one.lives else np.nan for one in used])
    heights = np.where(np.isinf(years) | (years <= 0.0), np.nan, years)  # one that fails at once is below the axes
    axes.plot(places, heights, color=colour, lw=2.0, ls=joined, marker="o", ms=8, label=spot, zorder=3)
    endless = np.isinf(years)
    if endless.any():
        axes.plot(places[endless], np.full(endless.sum(), ceiling), ls="none", marker="^", ms=10, mfc="white", mec=colour,
                  label=f"{spot}: no damage", zorder=3)  # fmt: skip
    for place, height, one in zip(places, heights, used, strict=True):
        if one.is_base and np.isfinite(height):
            axes.plot([place], [height], "o", ms=14, mfc="none", mec=INK, mew=1.8, zorder=4)


def flaws_what_if_figure(result: FlawsWhatIf, units: UnitSystem = "metric") -> Figure:  # noqa: ARG001
    """Reserve on load over the value, and the remaining life where flaws grow, a line a flaw."""
    figure = new_figure(result.title)
    used = [one for one in result.variants if one.flaws]
    sizes = [number_and_unit(one.value) for one in used]
    numeric = all(size is not None for size in sizes)
    places = np.array([size[0] for size in sizes if size is not None]) if numeric else np.arange(len(used), dtype=float)
    unit = next((size[1] for size in sizes if size is not None and size[1]), "")
    kept = [flaw for one in used for flaw in one.flaws.values()]
    growing = any(flaw.life is not None for flaw in kept)
    drawn = [figure.add_subplot(1, 2 if growing else 1, i) for i in (1, 2)[: 2 if growing else 1]]
    for axes, label in zip(drawn, ("Reserve on load [-]", "Remaining life [years]"), strict=False):
        for i, name in enumerate(result.shown):
            own = [one.flaws.get(name) for one in used]
            of_life = axes is not drawn[0]
            values = [None if flaw is None else flaw.life if of_life else flaw.reserve_on_load for flaw in own]
            heights = np.array([np.nan if one is None or math.isinf(one) else one for one in values])
            colour = _COLOURS[i % len(_COLOURS)]
            axes.plot(
                places, heights, color=colour, lw=2.0, ls="-" if numeric else "none", marker="o", ms=7, label=name
            )
        if axes is drawn[0]:
            axes.axhline(1.0, color=INK, lw=1.4, ls=(0, (5, 3)), label="just enough")
        base = next((place for place, one in zip(places, used, strict=True) if one.is_base), None)
        if base is not None:
            axes.axvline(base, color="#9aa4ae", lw=1.2, ls=(0, (1, 2)), zorder=1, label="as it is")
        axes.set_xlabel(f"{result.varied} [{unit or '-'}]")
        axes.set_ylabel(label)
        axes.set_ylim(bottom=0.0)
        if not numeric:
            axes.set_xticks(places, ["not given" if one.value is None else str(one.value) for one in used])
    drawn[0].legend(loc="best")
    return figure
