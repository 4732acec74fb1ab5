"""A model's surface coloured by life, its worst places marked."""

from __future__ import annotations

import math

import numpy as np
from matplotlib.axes import Axes
from matplotlib.collections import PolyCollection
from matplotlib.figure import Figure
from matplotlib.lines import Line2D
from matplotlib.patches import Patch

from vivid_anvil.fields.model_view import ModelView
from vivid_anvil.fields.planes import surface_normals
from vivid_anvil.figures.banded import (
    COLOURS,
    NO_DAMAGE,
    band_colours,
    band_names,
    cut_into_bands,
    life_bands,
    life_heights,
)
from vivid_anvil.figures.style import INK, new_figure
from vivid_anvil.figures.tidy import FIXED
from vivid_anvil.ground.checks import FloatArray
from vivid_anvil.ground.errors import listed
from vivid_anvil.units import UnitSystem, display_unit, number, shown

LEFT_OUT = "#ffffff"
MOST_OUTLINED = 30_000  # faces; of more the outlines would hide the colours
STROKE, FLAT = 0.035, 0.05  # half a stroke of the model's size; sine of an angle between planes that are one
LEAST_HEIGHT = 0.8  # of what is drawn, over its width
OUTWARDS, LABEL_GAP, LABEL_ROOM = 0.12, 0.09, 0.24  # of the model's size


def model_figure(view: ModelView, units: UnitSystem = "metric") -> Figure:
    """The surface as the eye sees it, its colours following the life between the nodes."""
    result = view.result
    figure = new_figure(f"{view.title or result.field.source}: life, seen from {view.side}")
    axes = figure.subplots()
    unit = result.duty_cycle.calendar.unit_for(float(result.life_repeats.min()))
    lives = np.asarray(result.duty_cycle.calendar.life_in(unit, result.life_repeats))
    borders = life_bands(lives)
    axes.add_collection(_surface(view, lives, borders))
    axes.margins(0.01)
    axes.set_aspect("equal")
    axes.autoscale_view()
    if view.places:  # room for labels, so that they stay clear of the legend
        left, right = axes.get_xlim()
        room = LABEL_ROOM * float(np.ptp(view.seen[:, :2], axis=0).max())
        axes.set_xlim(left - room, right + room)
        bottom, top = axes.get_ylim()
        missing = LEAST_HEIGHT * float(np.ptp(view.seen[:, 0])) - (top - bottom)
        if missing > 0.0:  # of a flat thing labels would stand on the line of words above it
            axes.set_ylim(bottom - 0.35 * missing, top + 0.65 * missing)
    axes.axis("off")
    axes.set_title(_what(view), fontsize=12, fontweight="normal")
    _scale(axes, view, units)
    _mark(axes, view)
    strokes = _strokes(axes, view)
    quiet = bool(np.isinf(lives[result.assessed]).any())
    axes.legend(
        handles=[*_legend(borders, quiet, result.left_out is not None), *_of_brackets(view), *strokes],
        title=f"Life [{unit}]",
        loc="center left",
        bbox_to_anchor=(1.0, 0.5),
    )
    return figure


def _surface(view: ModelView, lives: FloatArray, borders: list[float]) -> PolyCollection:
    """The faces from the farthest on, each cut into its bands, and its outline over them."""
    heights, edges = life_heights(lives, borders)
    corners = view.seen[view.faces][:, :, :2]
    parts, face, band = cut_into_bands(corners, heights[view.faces], edges)
    colours = np.array(band_colours(borders))[band]
    if view.result.left_out is not None:
        partly = np.asarray(view.result.left_out[view.faces]).any(axis=1)
        colours[np.asarray(partly)[face]] = LEFT_OUT
    shapes, fills, lines = list(parts), colours.tolist(), colours.tolist()
    if len(corners) <= MOST_OUTLINED:
        order = np.argsort(np.concatenate([face, np.arange(len(corners))]), kind="stable").tolist()
        shapes += list(corners)
        fills += ["none"] * len(corners)
        lines += ["#00000022"] * len(corners)
        shapes, fills, lines = ([one[i] for i in order] for one in (shapes, fills, lines))
    return PolyCollection(shapes, facecolors=fills, edgecolors=lines, lw=0.3)


def _what(view: ModelView) -> str:
    """What was assessed: the stress that is counted, load cases, curve, target."""
    result = view.result
    measure = "normal stress on planes" if result.directions is not None else result.measure.label
    if result.spot.assessed_by.tensors:
        measure = result.spot.assessed_by.kind
    curve = "" if result.spot.curve is None else f"; curve {result.spot.curve.name}"
    cases = f"load cases {listed(result.field.cases)}".replace("'", "")
    if result.field.dimension == "strain":
        cases = f"{len(result.field.cases)} states of strain"
    target = (
        "" if result.target_repeats is None else f"; target {result.duty_cycle.calendar.text(result.target_repeats)}"
    )
    return f"{measure}; {cases}{curve}{target}"


def _scale(axes: Axes, view: ModelView, units: UnitSystem) -> None:
    """A bar of a round length, and the axes of the model, below on the left."""
    left, right = (float(one) for one in axes.get_xlim())
    bottom, top = (float(one) for one in axes.get_ylim())
    reach = top - bottom
    axes.set_ylim(bottom - 0.24 * reach, top)
    in_unit_of = float(shown(1.0, "length", units))
    rough = 0.22 * (right - left) * in_unit_of
    step = 10.0 ** math.floor(math.log10(rough))
    length = next(step * nice for nice in (5.0, 2.0, 1.0) if step * nice <= rough)
    height, begin = bottom - 0.2 * reach, left + 0.16 * (right - left)
    axes.plot([begin, begin + length / in_unit_of], [height, height], color=INK, lw=3.0, solid_capstyle="butt")
    text = f"{number(length)} {display_unit('length', units)}"
    axes.annotate(text, (begin, height), xytext=(0, 6), textcoords="offset points", fontsize=11, gid=FIXED)
    origin = np.array([left + 0.07 * (right - left), height])
    for name, direction in zip("xyz", np.eye(3) @ view.axes.T, strict=True):
        right, high = (float(one) for one in direction[:2])
        if math.hypot(right, high) > 0.15:
            start = (float(origin[0]), float(origin[1]))
            end = (start[0] + 0.06 * reach * right, start[1] + 0.06 * reach * high)
            arrow = {"arrowstyle": "-|>", "color": INK, "lw": 1.4, "shrinkA": 0, "shrinkB": 0}
            axes.annotate("", end, start, arrowprops=arrow)
            tip = (start[0] + 0.085 * reach * right, start[1] + 0.085 * reach * high)
            axes.text(tip[0], tip[1], name, ha="center", va="center", fontsize=11, gid=FIXED)


def _of_brackets(view: ModelView) -> list[Patch]:
    """What brackets around a label say, where there are any."""
    hidden = any(view.is_hidden(view.result.field.place_of(place.node)) for place in view.places)
    return [Patch(facecolor="none", edgecolor="none", label="(in brackets: hidden)")] if hidden else []


def _legend(borders: list[float], quiet: bool, partly: bool) -> list[Patch]:
    patches = [
        Patch(facecolor=colour, edgecolor="#00000044", label=name)
        for colour, name in zip(COLOURS, band_names(borders), strict=False)
    ]
    more = [(NO_DAMAGE, "no damage")] * quiet + [(LEFT_OUT, "left out")] * partly
    return [*patches, *(Patch(facecolor=colour, edgecolor="#00000044", label=name) for colour, name in more)]


def _mark(axes: object, view: ModelView) -> None:
    """Places with rank and life; those that cannot be seen from here in brackets."""
    if not view.places:
        return
    seen = view.seen[:, :2]
    at = [view.result.field.place_of(place.node) for place in view.places]
    reach = float(np.ptp(seen, axis=0).max())
    for one, place, label in zip(view.places, at, label_places(seen[at], seen.mean(axis=0), reach), strict=True):
        hidden = view.is_hidden(place)
        endless = math.isinf(one.life_repeats)
        life = "no damage" if endless else view.result.duty_cycle.calendar.text(one.life_repeats)
        text = f"{one.rank}: node {one.node}\n{life}"
        axes.annotate(  # type: ignore[attr-defined]
            f"({text})" if hidden else text,
            seen[place],
            label,
            ha="left" if label[0] >= seen[place][0] else "right",
            va="center",
            fontsize=10,
            gid=FIXED,
            color=INK,
            bbox={"boxstyle": "round,pad=0.25", "fc": "white", "ec": INK, "lw": 0.8, "ls": ":" if hidden else "-"},
            arrowprops={"arrowstyle": "-|>", "color": INK, "lw": 1.0, "ls": ":" if hidden else "-"},
            zorder=5,
        )


def _strokes(axes: Axes, view: ModelView) -> list[Line2D]:
    """At each place on the surface the trace of the plane on which a crack starts there; what the legend says of them."""
    if not view.places or not view.result.field.elements:
        return []
    at = [view.result.field.place_of(place.node) for place in view.places]
    normals = surface_normals(view.result.field)[at]
    half = STROKE * float(np.ptp(view.seen[:, :2], axis=0).max())
    drawn = False
    for one, place, normal in zip(view.places, at, normals, strict=True):
        trace = np.cross(np.asarray(one.worst_cycle.direction), normal)
        size = float(np.linalg.norm(trace))
        if not size > FLAT:  # inside, or the plane lies in the surface
            continue
        across, up = half * (trace / size @ view.axes.T)[:2]
        x, y = view.seen[place, :2]
        style = ":" if view.is_hidden(place) else "-"
        for colour, width in (("white", 5.0), (INK, 2.6)):
            axes.plot(
                [x - across, x + across],
                [y - up, y + up],
                color=colour,
                lw=width,
                ls=style,
                zorder=4,
                solid_capstyle="butt",
            )
        drawn = True
    return [Line2D([], [], color=INK, lw=2.6, label="a crack starts along")] if drawn else []


def label_places(points: FloatArray, middle: FloatArray, reach: float) -> FloatArray:
    """Where labels of points stand, beside each, shape (n, 2), those on the same side one above the other."""
    right = points[:, 0] >= middle[0]
    labels = points + OUTWARDS * reach * np.column_stack([np.where(right, 1.0, -1.0), np.zeros(len(points))])
    for side in (right, ~right):
        mine = np.flatnonzero(side)
        if not mine.size:
            continue
        order = mine[np.argsort(labels[mine, 1], kind="stable")]
        wanted = labels[order, 1]
        steps = LABEL_GAP * reach * np.arange(order.size)
        pushed = np.maximum.accumulate(wanted - steps) + steps
        labels[order, 1] = pushed - (pushed - wanted).mean()
    return np.asarray(labels)
