"""The growth of a crack with a slider for its initial size."""

from __future__ import annotations

import math
from typing import Any

import numpy as np

from vivid_anvil.figures.growth_figure import headline
from vivid_anvil.figures.style import BLUE, INK, ORANGE, PALE, RED
from vivid_anvil.ground.errors import InputError
from vivid_anvil.growth import GrowthResult, grow_crack
from vivid_anvil.growth.initial_sizes import SMALLEST, of_size
from vivid_anvil.pages.live import Live, axes, graphs, named, new_live
from vivid_anvil.units import UnitSystem, display_unit, in_unit, shown

TIMES = (0.25, 0.35, 0.5, 0.7, 1.0, 1.4, 2.0, 2.8, 4.0)  # the initial size, that the slider goes through
FURTHEST = 0.8  # of the limiting size
MOST_POINTS = 1_500


def growth_live(result: GrowthResult, units: UnitSystem = "metric") -> Live:
    """The growth from the initial size, and from others by the slider; each is grown as the study says."""
    figure = new_live(showlegend=True)
    grown = [result] if result.sizes.size < 2 else _from_others(result)
    own = grown.index(result)
    longest = max(
        (one for one in grown if math.isfinite(one.life_repeats)), key=lambda one: one.life_repeats, default=result
    )
    calendar = result.duty_cycle.calendar
    unit = calendar.unit_for(float(longest.repeats[-1]))
    length = display_unit("length", units)
    lines = [_line(one, unit, units) for one in grown]
    for i, line in enumerate(lines):
        figure.add_trace(line.update(visible=i == own))
    if len(grown) > 1:  # the stated size stays to be compared with
        look = {"line": {"color": PALE, "width": 6}, "name": "as stated", "hoverinfo": "skip"}
        stated = graphs().Scatter(x=lines[own].x, y=lines[own].y, mode="lines", **look)
        figure.add_trace(stated)
        figure.data = (figure.data[-1], *figure.data[:-1])  # below the others
    _limits(figure, result, units)
    top = float(shown(result.critical.limiting, "length", units))
    axes(figure, f"Time [{unit}]", f"Crack size, {result.crack.shape.size_means} [{length}]")
    figure.update_yaxes(range=[0.0, 1.12 * top])
    end = float(calendar.life_in(unit, longest.repeats)[-1])
    figure.update_xaxes(range=[0.0, 1.05 * end if end else 1.0])
    if len(grown) > 1:
        figure.update_layout(sliders=[_slider(grown, own, units)], margin={"b": 130})
    notes = [f"From {in_unit(one.crack.initial_size, 'length', units)}: {headline(one)}." for one in grown]
    return Live(f"Crack at {result.crack.hot_spot.name}: {headline(result)}", figure, tuple(notes), height=620)


def _line(one: GrowthResult, unit: str, units: UnitSystem) -> Any:
    pick = np.unique(np.linspace(0, one.sizes.size - 1, MOST_POINTS).round().astype(np.int64))
    return graphs().Scatter(
        x=one.duty_cycle.calendar.life_in(unit, one.repeats[pick]),
        y=shown(one.sizes[pick], "length", units),
        mode="lines",
        line={"color": BLUE, "width": 3},
        name=f"from {in_unit(one.crack.initial_size, 'length', units)}",
        hovertemplate=named([("", f"%{{x:.5g}} {unit}"), ("", f"%{{y:.5g}} {display_unit('length', units)}")]),
    )


def _from_others(result: GrowthResult) -> list[GrowthResult]:
    """Growth from other initial sizes, rising, the stated one among them; those that the shape refuses are left out."""
    found = []
    for times in TIMES:
        size = result.crack.initial_size * times
        if times == 1.0:
            found.append(result)
        elif SMALLEST <= size < FURTHEST * result.critical.limiting:
            try:
                found.append(grow_crack(of_size(result.crack, float(f"{size:.3g}")), result.duty_cycle))
            except InputError:  # a size that the solution does not hold for; the notes name those that are shown
                continue
    return found


def _limits(figure: Any, result: GrowthResult, units: UnitSystem) -> None:
    """Limiting and detectable size as lines with their names."""
    lines = [(result.critical.limiting, RED, "limiting size")]
    if result.crack.detectable_size is not None:
        lines.append((result.crack.detectable_size, ORANGE, "detectable"))
    for size, colour, name in lines:
        text = f"{name} {in_unit(size, 'length', units)}"
        figure.add_hline(
            y=float(shown(size, "length", units)),
            line={"color": colour, "width": 2},
            annotation={"text": text, "font": {"color": INK}, "bgcolor": "rgba(255,255,255,0.8)"},
            annotation_position="top left",
        )


def _slider(grown: list[GrowthResult], own: int, units: UnitSystem) -> dict[str, Any]:
    """A step a size."""
    steps = []
    for i, one in enumerate(grown):
        shown_traces = [True, *(k == i for k in range(len(grown)))]
        size = in_unit(one.crack.initial_size, "length", units)
        steps.append(
            {
                "method": "update",
                "label": size,
                "args": [{"visible": shown_traces}, {"title.text": f"From {size}: {headline(one)}"}],
            }
        )
    return {"active": own, "currentvalue": {"prefix": "Initial size "}, "pad": {"t": 45}, "steps": steps}
