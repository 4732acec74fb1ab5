"""A model's surface coloured by life, its worst places marked."""

from __future__ import annotations

import itertools
import math

import numpy as np
from matplotlib.axes import Axes
from matplotlib.collections import PolyCollection
from matplotlib.figure import Figure
from matplotlib.patches import Patch

from vivid_anvil.fields.model_view import ModelView
from vivid_anvil.figures.style import INK, new_figure
from vivid_anvil.figures.tidy import FIXED
from vivid_anvil.ground.checks import FloatArray
from vivid_anvil.ground.errors import listed
from vivid_anvil.units import UnitSystem, display_unit, number, shown

NO_DAMAGE = "#f4f6f9"
LEFT_OUT = "#ffffff"
# From the shortest life on: told apart in grey print and by colour-blind eyes, as lightness rises all the way.
COLOURS = ("#3d0a14", "#7a1022", "#b3432b", "#d97a34", "#e6a955", "#efcd8c", "#f3e3c3")
STEPS = (1.0, 3.0, 10.0)
OUTWARDS, LABEL_GAP, LABEL_ROOM = 0.12, 0.09, 0.24  # of the model's size


def bands(shortest: float, longest: float, most: int = len(COLOURS)) -> list[float]:
    """Borders of life, in its unit, at 1, 3, 10, 30, ..., that part lives from `shortest` on; the last band is open."""
    first = 10.0 ** math.floor(math.log10(shortest))
    start = next(first * step for step in STEPS if first * step > shortest * (1.0 + 1e-12))
    borders = [start]
    while len(borders) < most - 1 and borders[-1] < longest:
        power = 10.0 ** math.floor(math.log10(borders[-1]) + 1e-9)
        borders.append(power * 3.0 if borders[-1] < 2.0 * power else power * 10.0)
    return borders


def model_figure(view: ModelView, units: UnitSystem = "metric") -> Figure:
    """The surface as the eye sees it; each face shows the shortest life of its corners."""
    result = view.result
    figure = new_figure(f"{view.title or result.field.source}: life, seen from {view.side}")
    axes = figure.subplots()
    calendar = result.duty_cycle.calendar
    unit = calendar.unit_for(float(result.life_repeats.min()))
    years = calendar.life_in(unit, result.life_repeats)[view.faces].min(axis=1)
    finite = years[np.isfinite(years) & (years > 0.0)]
    borders = bands(float(finite.min()), float(finite.max())) if finite.size else []
    colours = np.array([NO_DAMAGE] * years.size, dtype=object)
    kind = np.searchsorted(borders, years, side="right")
    for i, colour in enumerate(COLOURS[: len(borders) + 1]):
        colours[np.isfinite(years) & (kind == i)] = colour
    if result.left_out is not None:
        colours[result.left_out[view.faces].any(axis=1)] = LEFT_OUT
    faces = list(view.seen[view.faces][:, :, :2])
    axes.add_collection(PolyCollection(faces, facecolors=list(colours), edgecolors="#00000022", lw=0.25))
    axes.margins(0.01)
    axes.set_aspect("equal")
    axes.autoscale_view()
    if view.places:  # room for labels, so that they stay clear of the legend
        left, right = axes.get_xlim()
        room = LABEL_ROOM * float(np.ptp(view.seen[:, :2], axis=0).max())
        axes.set_xlim(left - room, right + room)
    axes.axis("off")
    axes.set_title(_what(view), fontsize=12, fontweight="normal")
    _scale(axes, view, units)
    _mark(axes, view)
    axes.legend(
        handles=[*_legend(borders, bool(np.isinf(years).any()), result.left_out is not None), *_of_brackets(view)],
        title=f"Life [{unit}]",
        loc="center left",
        bbox_to_anchor=(1.0, 0.5),
    )
    return figure


def _what(view: ModelView) -> str:
    """What was assessed: the stress that is counted, load cases, curve, target."""
    result = view.result
    measure = "normal stress on planes" if result.directions is not None else result.measure.label
    curve = "" if result.spot.curve is None else f"; curve {result.spot.curve.name}"
    cases = listed(result.field.cases).replace("'", "")
    target = (
        "" if result.target_repeats is None else f"; target {result.duty_cycle.calendar.text(result.target_repeats)}"
    )
    return f"{measure}; load cases {cases}{curve}{target}"


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
    names = [f"below {number(borders[0])}"] if borders else []
    names += [f"{number(low)} to {number(high)}" for low, high in itertools.pairwise(borders)]
    names += [f"{number(borders[-1])} and more"] if borders else []
    patches = [
        Patch(facecolor=colour, edgecolor="#00000044", label=name) for colour, name in zip(COLOURS, names, strict=False)
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
