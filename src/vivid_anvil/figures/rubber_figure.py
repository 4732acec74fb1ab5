"""A life in rubber: the damage of all planes, the energy on the worst one over each event, the flaw over the life."""

from __future__ import annotations

from typing import Any

import numpy as np
from matplotlib.axes import Axes
from matplotlib.figure import Figure
from matplotlib.ticker import MaxNLocator

from vivid_anvil.damage import CrackingEnergy, LifeResult
from vivid_anvil.damage.methods.cracking_search import PlaceInRubber
from vivid_anvil.damage.methods.cracking_words import flaw_course
from vivid_anvil.events.calendar import plural
from vivid_anvil.figures.life_figure import headline
from vivid_anvil.figures.plane_figure import STEP, draw_planes
from vivid_anvil.figures.style import INK, LINES, RED, new_figure, note, share_axis
from vivid_anvil.stress.planes import plane_map
from vivid_anvil.units import UnitSystem, display_unit, in_unit, shown

MOST_WAYS = 3  # of one event that are drawn
MARKED = 4  # cycles that are marked
COURSE = 60  # sizes of the flaw


def rubber_figure(result: LifeResult, units: UnitSystem = "metric") -> Figure:
    """The figure of a life in rubber."""
    method = result.method
    assert isinstance(method, CrackingEnergy)
    figure = new_figure(f"{result.hot_spot.name.capitalize()}: {headline(result)}")
    grid = figure.add_gridspec(2, 2, width_ratios=(1.0, 1.05))
    left, top, below = (figure.add_subplot(one) for one in (grid[:, 0], grid[0, 1], grid[1, 1]))
    place = method.place(result.hot_spot, result.duty_cycle)
    if place.worst is None:
        _events(left, result)
    else:
        values = plane_map(place.flaw.damage, step_degrees=STEP)
        draw_planes(figure, left, values, place.worst, place.ties, result.damage_per_repeat)
    _energy(top, place, method, units)
    _flaw(below, result, method, units)
    return figure


def _events(axes: Axes, result: LifeResult) -> None:
    """Share of each event in the damage, where what is counted hangs on no plane."""
    axes.set_title("Damage of each event")
    shares = result.events
    axes.barh([one.name for one in shares], [100.0 * one.share for one in shares], color=RED, height=0.6)
    axes.invert_yaxis()
    share_axis(axes)


def _energy(axes: Axes, place: PlaceInRubber, method: CrackingEnergy, units: UnitSystem) -> None:
    """Energy over the share of each event that is done, its largest cycles marked."""
    unit, one = display_unit("energy density", units), float(shown(1.0, "energy density", units))
    for colour, event in zip(LINES, place.events, strict=False):
        for number, way in enumerate(list(event.ways)[:MOST_WAYS]):
            course = one * place.courses[way]
            done = np.linspace(0.0, 1.0, course.size)
            axes.plot(done, course, color=colour, lw=1.6, label=event.event.name if number == 0 else None)
            at = [int(course.argmax()), int(course.argmin())]
            axes.plot(done[at], course[at], ls="none", marker="o", ms=5, mfc="white", mec=colour, mew=1.6)
    where = (
        "on the worst plane"
        if method.on_a_plane
        else "stored"
        if method.energy == "energy density"
        else "of the stretch"
    )
    axes.set_title(f"Energy {where}")
    axes.set_xlabel("Share of the event that is done [-]")
    axes.set_ylabel(f"Energy [{unit}]")
    axes.yaxis.set_major_locator(MaxNLocator(5))
    axes.set_xlim(0.0, 1.0)
    axes.set_ylim(0.0, 1.45 * max(one * float(course.max()) for course in place.courses) or 1.0)
    axes.legend(loc="upper left", fontsize=11, ncols=2)


def _flaw(axes: Axes, result: LifeResult, method: CrackingEnergy, units: UnitSystem) -> None:
    """The size of one flaw under all cycles over the life."""
    axes.set_title("One flaw under all cycles")
    unit, repeats = display_unit("length", units), plural(result.duty_cycle.repeat)
    axes.set_xlabel(f"Time [{repeats}]")
    axes.set_ylabel(f"Flaw [{unit}]")
    found: Any = flaw_course(method, result, COURSE)
    if found is None:
        note(axes, "The flaw does not grow", y=0.9)
        return
    sizes, passed = found
    axes.plot(passed, shown(sizes, "length", units), color=INK, lw=1.8)
    axes.set_xlim(left=0.0)
    axes.set_ylim(bottom=0.0)
    axes.xaxis.set_major_locator(MaxNLocator(5))
    ends = f"{in_unit(float(sizes[0]), 'length', units)} to {in_unit(float(sizes[-1]), 'length', units)}"
    note(axes, f"from {ends}")
