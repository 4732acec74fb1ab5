"""A life of a laminate: what is left of its stiffness, failures of plies, their stresses and damages over repeats."""

from __future__ import annotations

from typing import Any

import numpy as np
from matplotlib.axes import Axes
from matplotlib.figure import Figure

from vivid_anvil.damage import LifeResult, PlyFatigue
from vivid_anvil.damage.methods.ply_words import MODE_WORDS
from vivid_anvil.events.calendar import plural
from vivid_anvil.figures.life_figure import headline
from vivid_anvil.figures.style import INK, LINES, RED, new_figure, note
from vivid_anvil.progress import LaminateProgress
from vivid_anvil.units import UnitSystem, display_unit, number, shown

COMPONENTS = ("s1", "s2", "t12")
DECADES = 7.0  # before the end, that are drawn


def laminate_figure(result: LifeResult, units: UnitSystem = "metric") -> Figure:
    """The figure of a life of a laminate."""
    method = result.method
    assert isinstance(method, PlyFatigue)
    figure = new_figure(f"{result.hot_spot.name.capitalize()}: {headline(result)}")
    grid = figure.add_gridspec(2, 2)
    progress = method.progress(result.hot_spot, result.duty_cycle)
    place = method.place(result.hot_spot, result.duty_cycle)
    if progress is None or progress.course.repeats.size < 2:
        _lives(figure.add_subplot(grid[:, 0]), result, method)
        _through(figure.add_subplot(grid[:, 1]), method, place, place.lead.component, units)
        return figure
    left, right, below, beside = (figure.add_subplot(one) for one in (grid[0, 0], grid[0, 1], grid[1, 0], grid[1, 1]))
    reach = _reach(progress)
    _stiffness(left, progress, reach, result)
    _through(right, method, place, place.lead.component, units)
    _stresses(below, progress, place.lead.component, reach, result, units)
    _left(beside, progress, place.lead.component, reach, result)
    return figure


def _reach(progress: LaminateProgress) -> tuple[float, float]:
    """Repeats from some decades before the first failure to the end."""
    repeats = progress.course.repeats
    last = float(repeats[-1])
    first = min((one.repeats for one in progress.failures if one.repeats > 0.0), default=last)
    return max(first / 100.0, last * 10.0**-DECADES, float(repeats[1]) * 0.5), 1.6 * last


def _time(axes: Axes, reach: tuple[float, float], result: LifeResult) -> None:
    axes.set_xscale("log")
    axes.set_xlim(*reach)
    axes.set_xlabel(f"Time [{plural(result.duty_cycle.repeat)}]")


def _from_start(values: Any, reach: tuple[float, float]) -> Any:
    """Repeats of a course, the start at the left edge."""
    return np.maximum(values, reach[0])


def _stiffness(axes: Axes, progress: LaminateProgress, reach: tuple[float, float], result: LifeResult) -> None:
    course = progress.drawn
    axes.set_title("Stiffness against the loads")
    axes.plot(_from_start(course.repeats, reach), 100.0 * course.stiffness, color=INK, lw=1.8)
    for mode, colour, face in (("matrix", LINES[0], "white"), ("fibre", RED, RED)):
        own = [one for one in progress.failures if one.mode == mode]
        if own:
            axes.plot(
                _from_start([one.repeats for one in own], reach),
                [100.0 * one.stiffness_left for one in own],
                ls="none",
                marker="o",
                ms=7,
                mfc=face,
                mec=colour,
                mew=1.6,
                label=f"{MODE_WORDS[mode]} fail" if mode == "fibre" else f"failure {MODE_WORDS[mode]}",
            )
    axes.set_ylabel("Stiffness left [%]")
    axes.set_ylim(0.0, 108.0)
    _time(axes, reach, result)
    if progress.failures:
        axes.legend(loc="lower left", fontsize=11)


def _through(axes: Axes, method: PlyFatigue, place: Any, component: int, units: UnitSystem) -> None:
    """What a component goes through in the cycles, ply by ply over the thickness."""
    laminate = method.laminate
    low, high = (shown(one[:, :, component], "stress", units) for one in place.extremes)
    z = shown(np.asarray(laminate.edges), "length", units)
    for ply in range(len(laminate.laid)):
        worst = ply == place.lead.ply
        corners = [z[ply], z[ply + 1]]
        axes.fill_betweenx(corners, low[ply], high[ply], color=RED if worst else LINES[0], alpha=0.75, lw=0.0)
        axes.axhline(z[ply], color="0.8", lw=0.6, zorder=0)
        if len(laminate.laid) <= 24:
            axes.annotate(
                f"{number(float(laminate.angles[ply]))}°",
                (1.01, 0.5 * sum(corners)),
                xycoords=("axes fraction", "data"),
                va="center",
                fontsize=9,
            )
    axes.axvline(0.0, color=INK, lw=0.8)
    axes.set_title(f"{COMPONENTS[component]} of the plies, sound laminate")
    axes.set_xlabel(f"Stress {COMPONENTS[component]} [{display_unit('stress', units)}]")
    axes.set_ylabel(f"Height in the laminate [{display_unit('length', units)}]")
    axes.set_ylim(z[0], z[-1])


def _colours(progress: LaminateProgress) -> list[tuple[str, str | None]]:
    """A colour for each angle, with a label where it comes first."""
    angles = progress.laminate.angles.tolist()
    known = {angle: LINES[i % len(LINES)] for i, angle in enumerate(dict.fromkeys(angles))}
    seen: set[float] = set()
    found: list[tuple[str, str | None]] = []
    for angle in angles:
        found.append((known[angle], None if angle in seen else f"{number(angle)}°"))
        seen.add(angle)
    return found


def _stresses(
    axes: Axes,
    progress: LaminateProgress,
    component: int,
    reach: tuple[float, float],
    result: LifeResult,
    units: UnitSystem,
) -> None:
    course = progress.drawn
    high, low = course.highest[:, :, :, component].max(axis=2), course.lowest[:, :, :, component].min(axis=2)
    for ply, (colour, label) in enumerate(_colours(progress)):
        own = np.where(high[:, ply] >= -low[:, ply], high[:, ply], low[:, ply])
        axes.plot(_from_start(course.repeats, reach), shown(own, "stress", units), color=colour, lw=1.3, label=label)
    axes.set_title(f"Largest {COMPONENTS[component]} of each ply")
    axes.set_ylabel(f"Stress {COMPONENTS[component]} [{display_unit('stress', units)}]")
    _time(axes, reach, result)
    axes.legend(loc="lower left", fontsize=10, ncols=2)


def _left(
    axes: Axes, progress: LaminateProgress, component: int, reach: tuple[float, float], result: LifeResult
) -> None:
    """Damage of the mode, or strength that is left, of each ply."""
    course, mode = progress.drawn, 0 if component == 0 else 1
    if progress.settings.fails_by == "damage sum":
        values = course.damage[:, :, :, mode].max(axis=2) / progress.settings.critical_sum
        title, words = f"Damage {('of fibres', 'between fibres')[mode]}", "Damage over the critical sum [%]"
    else:
        at = 4 if component == 2 else 2 * component
        start = course.strengths[0, :, :, at]
        values = (course.strengths[:, :, :, at] / start).min(axis=2)
        title, words = f"Strength left against {COMPONENTS[component]}", "Strength left [%]"
    for ply, (colour, _) in enumerate(_colours(progress)):
        axes.plot(_from_start(course.repeats, reach), 100.0 * values[:, ply], color=colour, lw=1.3)
    axes.set_title(title)
    axes.set_ylabel(words)
    axes.set_ylim(0.0, 105.0)
    _time(axes, reach, result)


def _lives(axes: Axes, result: LifeResult, method: PlyFatigue) -> None:
    """Damage a repeat of each ply by its worst mode."""
    place = method.place(result.hot_spot, result.duty_cycle)
    worst = np.max([own.max(axis=(1, 2)) for own in place.damage.values()], axis=0)
    axes.set_title("Damage of each ply")
    axes.set_ylabel("Ply, from the bottom [-]")
    axes.set_xlabel(f"Damage a {result.duty_cycle.repeat} [-]")
    if not worst.any():
        note(axes, "No damage", y=0.9)
        return
    axes.barh(
        np.arange(1, worst.size + 1),
        worst,
        color=[RED if ply == place.lead.ply else LINES[0] for ply in range(worst.size)],
    )
    axes.set_xscale("log")
