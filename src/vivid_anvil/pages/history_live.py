"""A load history to zoom into, the worst cycles marked; under it the damage as it builds up, where a life is asked."""

from __future__ import annotations

from collections.abc import Mapping, Sequence
from dataclasses import dataclass
from typing import Any

import numpy as np

from vivid_anvil.counting import rainflow, turning_points
from vivid_anvil.damage import DamageOverTime
from vivid_anvil.events import GatedHistory
from vivid_anvil.figures.style import BLUE, ORANGE, RED, thinned
from vivid_anvil.ground.checks import FloatArray
from vivid_anvil.histories import Channel, LoadHistory
from vivid_anvil.pages.live import Live, axes, graphs, named, new_live
from vivid_anvil.units import UnitSystem, display_unit, number, shown

MOST_CYCLES = 10  # that are marked
MOST_SAMPLES = 60_000  # a channel; beyond, the lowest and highest of each piece are drawn
ROW_HEIGHT = 300
STEPS = 20  # a percent of the damage: finer ones are not drawn


@dataclass(frozen=True)
class Mark:
    """A cycle on a channel: samples of its two turning points, and what is told of it."""

    start: int
    end: int
    text: str


def history_live(history: LoadHistory, units: UnitSystem = "metric") -> Live:
    """Each channel with its ten largest cycles."""
    marks = {channel.name: _largest(channel, units) for channel in history.channels}
    figure, notes = _drawn(history, marks, units)
    told = f"Marked: the {MOST_CYCLES} largest rainflow cycles of each channel. Drag to zoom, double-click to go back."
    title = f"{history.name[:1].upper()}{history.name[1:]}: {history.course}"
    return Live(title, figure, (told, *notes), height=_height(history))


def gated_live(gated: GatedHistory, units: UnitSystem = "metric") -> Live:
    """The history, and what the gate left of it."""
    made = history_live(gated.history, units)
    for row, channel in enumerate(gated.history.channels, 1):
        left = gated.gated(channel.name)
        if left is not None:
            x, y = _places(gated.history)[left.samples], shown(left.values, channel.dimension, units)
            look = {"mode": "lines", "line": {"color": ORANGE, "width": 1.2}}
            made.figure.add_trace(graphs().Scattergl(x=x, y=y, name="left by the gate", **look), row=row, col=1)
    return made


def over_time_live(built: DamageOverTime, units: UnitSystem = "metric") -> Live:
    """The history of an event with the cycles that do most damage to the place, and the damage as it builds up."""
    title = f"{built.event.capitalize()}: when the damage is done"
    if built.history is None:
        figure = new_live()
        notes: tuple[str, ...] = ()
        row, height = None, ROW_HEIGHT
    else:
        marks = {channel.name: _worst(built, units) for channel in built.history.channels}
        figure, notes = _drawn(built.history, marks, units, below=1)
        row, height = len(built.history.channels) + 1, _height(built.history) + ROW_HEIGHT
    part: dict[str, Any] = {} if row is None else {"row": row, "col": 1}
    end = float(built.damage[-1]) if built.damage.size else 0.0
    share = 100.0 * built.damage / end if end else built.damage
    pick = np.diff(np.floor(share * STEPS), prepend=-1.0) != 0.0
    pick[-1:] = True
    hover = named([("", "%{x:.5g} s"), ("", "%{y:.4g} % of the damage of the event")])
    line = {"color": BLUE, "width": 2, "shape": "hv"}
    figure.add_trace(
        graphs().Scatter(
            x=built.time[pick], y=share[pick], mode="lines", line=line, hovertemplate=hover, name="damage"
        ),
        **part,
    )
    axes(figure, "Time [s]", "Damage of the event [%]", **part)
    told = f"Marked: the {MOST_CYCLES} cycles that do most damage in the event. Its damage is {number(end)} a repeat."
    return Live(title, figure, (told, *notes), height=height)


def _height(history: LoadHistory) -> int:
    return ROW_HEIGHT * len(history.channels) + 80


def _places(history: LoadHistory) -> FloatArray:
    """Times, s, or numbers of peaks and valleys."""
    return history.time if history.steps == "even" else np.arange(len(history.channels[0]), dtype=np.float64)


def _drawn(
    history: LoadHistory, marks: Mapping[str, Sequence[Mark]], units: UnitSystem, below: int = 0
) -> tuple[Any, tuple[str, ...]]:
    """The channels one above the other, with rows left free below, zoomed together."""
    from plotly.subplots import make_subplots

    rows = len(history.channels) + below
    figure = make_subplots(
        rows, 1, shared_xaxes=True, vertical_spacing=min(0.06, 0.3 / rows), figure=new_live(showlegend=False)
    )
    places = _places(history)
    notes: tuple[str, ...] = ()
    for row, channel in enumerate(history.channels, 1):
        values = shown(channel.values, channel.dimension, units)
        x, y = thinned(places, values, MOST_SAMPLES // 4)
        if x.size < places.size:
            notes = (
                f"Of {places.size} samples the lowest and the highest of each of {MOST_SAMPLES // 4} pieces are drawn.",
            )
        unit = display_unit(channel.dimension, units)
        hover = named([("", "%{x:.6g} s" if history.steps == "even" else "point %{x}"), ("", f"%{{y:.5g}} {unit}")])
        line = {"color": BLUE, "width": 1}
        along = {"x0": float(places[0]), "dx": float(places[1] - places[0])} if x is places and x.size > 1 else {"x": x}
        look = {"mode": "lines", "line": line, "hovertemplate": hover, "name": channel.name}
        figure.add_trace(graphs().Scattergl(y=y.astype(np.float32), **along, **look), row=row, col=1)
        _marked(figure, row, places, values, marks[channel.name])
        name = channel.name[:1].upper() + channel.name[1:]
        label = f"{name} [{unit}]" if unit != "1" else name
        axes(figure, "" if row < rows else _along(history), label, row=row, col=1)
    return figure, notes


def _along(history: LoadHistory) -> str:
    return "Time [s]" if history.steps == "even" else "Peak or valley, number"


def _marked(figure: Any, row: int, places: FloatArray, values: FloatArray, marks: Sequence[Mark]) -> None:
    """Both turning points of each cycle, joined, with its number at the first."""
    x: list[float | None] = []
    y: list[float | None] = []
    texts: list[str] = []
    numbers: list[str] = []
    for rank, mark in enumerate(marks, 1):
        for at in (mark.start, mark.end):
            x.append(float(places[at]))
            y.append(float(values[at]))
            texts.append(f"<b>{rank}</b> {mark.text}")
            numbers.append(str(rank) if at == mark.start else "")
        x.append(None)
        y.append(None)
        texts.append("")
        numbers.append("")
    look = {"mode": "lines+markers+text", "line": {"color": RED, "width": 1.5, "dash": "dot"}}
    marker = {"color": "white", "size": 8, "line": {"color": RED, "width": 2}}
    figure.add_trace(
        graphs().Scatter(
            x=x,
            y=y,
            text=numbers,
            textposition="top center",
            textfont={"color": RED},
            hovertext=texts,
            hovertemplate="%{hovertext}<extra></extra>",
            marker=marker,
            name="worst cycles",
            **look,
        ),
        row=row,
        col=1,
    )


def _largest(channel: Channel, units: UnitSystem) -> list[Mark]:
    """The largest rainflow cycles of a channel."""
    if turning_points(channel.values).size < 2:
        return []
    cycles = rainflow(channel.values, residue="half cycles")
    found = []
    for i in np.argsort(-cycles.range, kind="stable")[:MOST_CYCLES].tolist():
        of = [float(shown(one[i], channel.dimension, units)) for one in (cycles.range, cycles.mean)]
        unit = display_unit(channel.dimension, units)
        whole = "full cycle" if cycles.count[i] == 1.0 else "half cycle"
        text = f"{whole}: range {number(of[0])} {unit}, mean {number(of[1])} {unit}"
        found.append(Mark(int(cycles.start[i]), int(cycles.end[i]), text))
    return found


def _worst(built: DamageOverTime, units: UnitSystem) -> list[Mark]:
    """The cycles that do most damage in the event."""
    assert built.history is not None
    found = []
    for cycle in built.worst[:MOST_CYCLES]:
        if cycle.start is None or cycle.end is None:
            continue
        at = [round(time * built.history.sample_rate) for time in (cycle.start, cycle.end)]
        unit = display_unit(built.dimension, units)
        size, mean = (number(float(shown(one, built.dimension, units))) for one in (cycle.range, cycle.mean))
        share = f"{number(100.0 * cycle.share, 3)} % of all damage of the place"
        found.append(Mark(at[0], at[1], f"local range {size} {unit}, mean {mean} {unit}<br>{share}"))
    return found
