"""All places of a study: bars of what is used, what moves one of them, to choose, lives by survival probability."""

from __future__ import annotations

import math
from typing import Any

import numpy as np

from vivid_anvil.figures.places_figure import (
    FEWEST_ROWS,
    LESS_AND_MORE,
    base_of,
    colour_of,
    end_of_bars,
    ends_of,
    label_of,
    said_used,
)
from vivid_anvil.figures.style import INK, LINES
from vivid_anvil.pages.live import Live, axes, graphs, named, new_live
from vivid_anvil.study import AllPlaces
from vivid_anvil.study.all_places import said_life
from vivid_anvil.study.levers import Lever
from vivid_anvil.units import UnitSystem

ROW, LEAST = 34, 420  # pixels: of a bar, of all


def places_live(found: AllPlaces, units: UnitSystem = "metric") -> Live:  # noqa: ARG001 (shares and times)
    """The bars on the left; on the right the levers of the place that is chosen above, and the survival below."""
    from plotly.subplots import make_subplots

    rows = bool(found.moved) + bool(found.survivals)
    height = max(LEAST + 260 * (rows - 1), 160 + ROW * len(found.places))
    if not rows:
        figure = new_live(showlegend=False)
        _bars(figure, found, {})
        return Live(found.title, figure, (), height=height)
    specs: list[list[Any]] = [[{"rowspan": rows}, {}], *[[None, {}]] * (rows - 1)]
    figure = make_subplots(
        rows,
        2,
        specs=specs,
        column_widths=[0.55, 0.45],
        horizontal_spacing=0.16,
        vertical_spacing=0.22,
        figure=new_live(),
    )
    _bars(figure, found, {"row": 1, "col": 1})
    if found.moved:
        _levers(figure, found)
    if found.survivals:
        _survival(figure, found, rows)
    figure.update_layout(showlegend=False, margin={"l": 260, "t": 70})
    notes = ("On the right: life or use with 10% less (blue) and 10% more (orange) of each value, one at a time.",)
    return Live(found.title, figure, notes if found.moved else (), height=height)


def _bars(figure: Any, found: AllPlaces, part: dict[str, Any]) -> None:
    shown = found.places
    end = end_of_bars(shown)
    told = []
    for place in shown:
        lines = (f"<b>{place.name}</b>, {place.kind}", f"{said_used(place.used)} of {place.share_of}", place.life)
        told.append("<br>".join((*lines, place.verdict, f"governed by {place.governed_by}")))
    figure.add_trace(
        graphs().Bar(
            x=[100.0 * min(place.used or 0.0, end) for place in shown],
            y=[label_of(place) for place in shown],
            orientation="h",
            marker={"color": [colour_of(place) for place in shown]},
            text=[said_used(place.used) for place in shown],
            textangle=0,
            hovertext=told,
            hovertemplate="%{hovertext}<extra></extra>",
        ),
        **part,
    )
    figure.add_vline(x=100.0, line={"color": INK, "width": 1.5}, **part)
    axes(figure, "Used of what it may [%]", "", **part)
    figure.update_yaxes(range=[max(len(shown), FEWEST_ROWS) - 0.5, -0.5], automargin=True, **part)
    figure.update_xaxes(range=[0.0, 100.0 * end], **part)


def _levers(figure: Any, found: AllPlaces) -> None:
    """Two traces a place, less and more; a menu shows those of one."""
    before, buttons = len(figure.data), []
    for i, (name, kind) in enumerate(found.moved):
        levers = found.levers_of(name, kind)
        by_share = all(one.used is not None for one in levers)
        for k, (label, colour) in enumerate(LESS_AND_MORE.items()):
            figure.add_trace(_side(found, levers, k, label, colour, by_share=by_share), row=1, col=2)
            figure.data[-1].visible = i == 0
        buttons.append(f"{kind.capitalize()} of {name}")
    by_share = all(one.used is not None for one in found.levers)
    axes(figure, "Used at the target [%]" if by_share else "Life [repeats]", "", row=1, col=2)
    figure.update_xaxes(type="log", row=1, col=2)
    figure.update_yaxes(autorange="reversed", row=1, col=2)
    figure.update_layout(barmode="overlay")
    count = 2 * len(buttons)

    def shown(i: int, size: int) -> list[bool]:
        others = [True] * (size - before - count)
        return [True] * before + [k // 2 == i for k in range(count)] + others

    size = before + count + len(found.survivals)
    menu = [
        {"label": label[:60], "method": "restyle", "args": [{"visible": shown(i, size)}]}
        for i, label in enumerate(buttons)
    ]
    figure.update_layout(updatemenus=[{"buttons": menu, "x": 1.0, "xanchor": "right", "y": 1.02, "yanchor": "bottom"}])


def _side(found: AllPlaces, levers: tuple[Lever, ...], k: int, label: str, colour: str, *, by_share: bool) -> Any:
    """The bars of all levers of a place to one side."""
    lengths, bases, told = [], [], []
    for one in levers:
        base, end = base_of(one, by_share), ends_of(one, by_share)[k]
        there = end is not None and 0.0 < end < math.inf and 0.0 < base < math.inf
        bases.append(base if there else None)
        lengths.append((end or 0.0) - base if there else None)
        life = (one.life_low, one.life_high)[k]
        used = (one.used_low, one.used_high)[k]
        lasts = "" if life is None or found.calendar is None else said_life(found.calendar, life)
        told.append(
            f"<b>{one.lever}</b>, {label}<br>life {lasts}" + ("" if used is None else f"<br>used {said_used(used)}")
        )
    return graphs().Bar(
        x=lengths,
        y=[one.lever for one in levers],
        base=bases,
        orientation="h",
        marker={"color": colour},
        hovertext=told,
        hovertemplate="%{hovertext}<extra></extra>",
        name=label,
    )


def _survival(figure: Any, found: AllPlaces, row: int) -> None:
    assert found.calendar is not None
    unit = found.unit_of_life
    for i, one in enumerate(found.survivals):
        stated = [share == one.stated for share in one.shares]
        figure.add_trace(
            graphs().Scatter(
                x=100.0 * one.shares,
                y=np.asarray(found.calendar.life_in(unit, one.repeats)),
                mode="lines+markers",
                line={"color": LINES[i % len(LINES)]},
                marker={"size": [10 if own else 5 for own in stated]},
                name=one.place,
                hovertemplate=named([("", one.place), ("", f"%{{x}} % survive %{{y:.4g}} {unit}")]),
            ),
            row=row,
            col=2,
        )
    axes(figure, "Survival probability [%]", f"Life [{unit}]", log_y=True, row=row, col=2)
