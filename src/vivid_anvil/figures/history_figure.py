"""A load history: each channel as a whole, and a zoom on its steepest swing with the turning points."""

from __future__ import annotations

from typing import Any

import numpy as np
from matplotlib.axes import Axes
from matplotlib.figure import Figure

from vivid_anvil.counting import turning_points
from vivid_anvil.events import GatedHistory
from vivid_anvil.figures.style import BLUE, ORANGE, PALE, RED, new_figure, thinned
from vivid_anvil.figures.tidy import shortened_name
from vivid_anvil.ground.checks import FloatArray, IntArray
from vivid_anvil.histories import Channel, LoadHistory, check_history
from vivid_anvil.units import UnitSystem, display_unit, shown

ZOOM_SAMPLES = 1200


MOST_ENLARGED, MOST_MARKED = 3, 40  # channels with an enlarged part; turning points that are marked


def history_figure(history: LoadHistory, units: UnitSystem = "metric") -> Figure:
    """The figure of a load history: each channel, and enlarged where they are few."""
    figure = new_figure(f"{history.name}: {history.course}")
    many = len(history.channels)
    if many > MOST_ENLARGED:
        _stacked(figure, history, units)
        return figure
    grid = figure.subplots(2, 1) if many == 1 else figure.subplots(many, 2, width_ratios=(1.6, 1))
    for row, channel in zip(np.atleast_2d(grid), history.channels, strict=True):
        start, stop = _zoom(history, channel)
        _whole(row[0], history, channel, (start, stop), units)
        _near(row[1], history, channel, (start, stop), units)
    return figure


def _stacked(figure: Figure, history: LoadHistory, units: UnitSystem) -> None:
    """Many channels one above the other, each with its name above it."""
    columns = 1 if len(history.channels) <= 6 else 2
    rows = -(-len(history.channels) // columns)
    grid = figure.subplots(rows, columns, sharex=True, squeeze=False)
    places = _places(history)
    for axes, channel in zip(grid.T.ravel(), history.channels, strict=False):
        axes.plot(*thinned(places, shown(channel.values, channel.dimension, units), 1500), color=BLUE, lw=0.8)
        unit = display_unit(channel.dimension, units)
        name = shortened_name(channel.name, 90 // columns)
        axes.set_title(f"{name} [{unit}]" if unit != "1" else name, fontsize=12, fontweight="normal")
        axes.tick_params(labelsize=10)
        axes.margins(x=0.005)
    for axes in grid.T.ravel()[len(history.channels) :]:
        axes.set_visible(False)
    for axes in grid[-1]:
        axes.set_xlabel("Time [s]" if history.steps == "even" else "Peak or valley, number")


def gated_figure(gated: GatedHistory, units: UnitSystem = "metric") -> Figure:
    """The figure of a gated history: what the gate left, on the history as measured."""
    figure = history_figure(gated.history, units)
    one = len(gated.history.channels) == 1
    for i, channel in enumerate(gated.history.channels):
        left = gated.gated(channel.name)
        if left is None:
            continue
        axes = figure.axes[1 if one else 2 * i + 1] if len(gated.history.channels) <= MOST_ENLARGED else figure.axes[i]
        low, high = axes.get_xlim()
        times = _places(gated.history)[left.samples]
        inside = (times >= low) & (times <= high)
        values = shown(left.values, channel.dimension, units)
        axes.plot(
            times[inside], values[inside], color=ORANGE, lw=2.0, marker="s", ms=7, mec="black", label="Left by the gate"
        )
        axes.legend(loc="upper left", ncols=4 if one else 1)
        axes.set_title(f"{left.values.size} of {turning_points(channel.values).size} turning points left")
    return figure


def _zoom(history: LoadHistory, channel: Channel) -> tuple[int, int]:
    """Samples around the steepest swing between two turning points."""
    points = turning_points(channel.values)
    if points.size < 2:
        return 0, len(channel)
    swings = np.abs(np.diff(channel.values[points])) / np.sqrt(np.diff(points))
    middle = int(points[int(np.argmax(swings))])
    half = int(min(ZOOM_SAMPLES, max(200.0, 6.0 * history.sample_rate if history.steps == "even" else 0.0)) // 2)
    return max(0, middle - half), min(len(channel), middle + half)


def _places(history: LoadHistory) -> FloatArray:
    """Where samples stand along the axis: times, s, or numbers of peaks and valleys without even times."""
    return history.time if history.steps == "even" else np.arange(len(history.channels[0]), dtype=np.float64)


def _label(axes: Axes, channel: Channel, units: UnitSystem, timed: bool) -> None:
    unit = display_unit(channel.dimension, units)
    axes.set_xlabel("Time [s]" if timed else "Peak or valley, number")
    axes.set_ylabel(f"{channel.name.capitalize()} [{unit}]" if unit != "1" else channel.name.capitalize())


def _whole(axes: Axes, history: LoadHistory, channel: Channel, zoom: tuple[int, int], units: UnitSystem) -> None:
    places = _places(history)
    time, values = thinned(places, shown(channel.values, channel.dimension, units))
    axes.axvspan(places[zoom[0]], places[zoom[1] - 1], color=PALE, alpha=0.6, lw=0)
    axes.plot(time, values, color=BLUE, lw=0.8)
    marked = next(one for one in check_history(history) if one.channel == channel.name).spikes
    if marked.size:
        high = shown(channel.values[marked], channel.dimension, units)
        axes.plot(places[marked], high, ls="none", marker="x", ms=9, mew=2.0, color=RED, label="Spikes")
        axes.legend(loc="upper left")
    axes.margins(x=0.005)
    axes.set_title("All of it (shaded: enlarged)")
    _label(axes, channel, units, history.steps == "even")


def _largest_turns(values: FloatArray, points: IntArray) -> IntArray:
    """Of turning points those with the largest swings beside them, few enough for the line to be seen."""
    if points.size <= MOST_MARKED:
        return points
    swings = np.abs(np.diff(values[points]))
    size = np.maximum(np.append(swings, 0.0), np.append(0.0, swings))
    return np.sort(points[np.argsort(-size, kind="stable")[:MOST_MARKED]])


def _near(axes: Axes, history: LoadHistory, channel: Channel, zoom: tuple[int, int], units: UnitSystem) -> None:
    values, places = shown(channel.values, channel.dimension, units), _places(history)
    points = turning_points(channel.values)
    inside = points[(points >= zoom[0]) & (points < zoom[1])]
    part = slice(*zoom)
    axes.plot(places[part], values[part], color=BLUE, lw=1.0, marker=".", ms=3, label="Samples")
    marked = _largest_turns(values, inside)
    which = "Turning points" if marked.size == inside.size else f"The {marked.size} largest of {inside.size} turns"
    axes.plot(places[marked], values[marked], ls="none", marker="o", ms=6, mfc="none", mec=RED, label=which)
    extremes = [zoom[0] + int(np.argmax(values[part])), zoom[0] + int(np.argmin(values[part]))]
    look: dict[str, Any] = {"ls": "none", "marker": "D", "ms": 9, "mfc": ORANGE, "mec": "black"}
    axes.plot(places[extremes], values[extremes], label="Highest and lowest", **look)
    axes.margins(x=0.01)
    low, high = axes.get_ylim()
    axes.set_ylim(low, high + 0.18 * (high - low))
    axes.set_title(f"Enlarged; {points.size} turning points in all")
    axes.legend(loc="upper left", ncols=3 if len(history.channels) == 1 else 1)
    _label(axes, channel, units, history.steps == "even")
