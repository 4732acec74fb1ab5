"""A model's surface coloured by life, its worst places marked."""

from __future__ import annotations

import itertools
import math

import numpy as np
from matplotlib.collections import PolyCollection
from matplotlib.figure import Figure
from matplotlib.patches import Patch

from vivid_anvil.fields.model_view import ModelView
from vivid_anvil.figures.style import INK, new_figure
from vivid_anvil.units import UnitSystem, number

NO_DAMAGE = "#dfe6ee"
# From the shortest life on: told apart in print and by colour-blind eyes, as lightness rises all the way.
COLOURS = ("#7a1022", "#b3432b", "#dd7f33", "#eab55c", "#efdcaa", "#c3d5e0", "#94b5cf")
STEPS = (1.0, 3.0, 10.0)


def bands(shortest: float, longest: float, most: int = len(COLOURS)) -> list[float]:
    """Borders of life, years, at 1, 3, 10, 30, ..., that part lives from `shortest` on; the last band is open."""
    first = 10.0 ** math.floor(math.log10(shortest))
    start = next(first * step for step in STEPS if first * step > shortest * (1.0 + 1e-12))
    borders = [start]
    while len(borders) < most - 1 and borders[-1] < longest:
        power = 10.0 ** math.floor(math.log10(borders[-1]) + 1e-9)
        borders.append(power * 3.0 if borders[-1] < 2.0 * power else power * 10.0)
    return borders


def model_figure(view: ModelView, units: UnitSystem = "metric") -> Figure:  # noqa: ARG001 (lives have no other unit)
    """The surface as the eye sees it; each face shows the shortest life of its corners."""
    result = view.result
    figure = new_figure(f"{result.field.source}: life, seen from {view.side}")
    axes = figure.subplots()
    years = result.life_years[view.faces].min(axis=1)
    finite = years[np.isfinite(years)]
    borders = bands(float(finite.min()), float(finite.max())) if finite.size else []
    colours = np.array([NO_DAMAGE] * years.size, dtype=object)
    kind = np.searchsorted(borders, years, side="right")
    for i, colour in enumerate(COLOURS[: len(borders) + 1]):
        colours[np.isfinite(years) & (kind == i)] = colour
    shown = PolyCollection(
        list(view.seen[view.faces][:, :, :2]), facecolors=list(colours), edgecolors="#00000022", lw=0.25
    )
    axes.add_collection(shown)
    axes.set_aspect("equal")
    axes.autoscale_view()
    axes.axis("off")
    _mark(axes, view)
    axes.legend(
        handles=_legend(borders, finite.size < years.size),
        title="Life [years]",
        loc="center left",
        bbox_to_anchor=(1.0, 0.5),
    )
    return figure


def _legend(borders: list[float], quiet: bool) -> list[Patch]:
    names = [f"below {number(borders[0])}"] if borders else []
    names += [f"{number(low)} to {number(high)}" for low, high in itertools.pairwise(borders)]
    names += [f"{number(borders[-1])} and more"] if borders else []
    patches = [
        Patch(facecolor=colour, edgecolor="#00000044", label=name) for colour, name in zip(COLOURS, names, strict=False)
    ]
    return [*patches, *([Patch(facecolor=NO_DAMAGE, edgecolor="#00000044", label="no damage")] if quiet else [])]


def _mark(axes: object, view: ModelView) -> None:
    """Places with rank and life; those on the far side in brackets."""
    field, seen = view.result.field, view.seen
    middle = seen[:, :2].mean(axis=0)
    reach = float(np.ptp(seen[:, :2], axis=0).max())
    for one in view.places:
        at = field.place_of(one.node)
        here = seen[at, :2]
        away = here - middle
        away = away / max(float(np.linalg.norm(away)), 1e-12)
        hidden = view.is_hidden(at)
        life = "no damage" if math.isinf(one.life_years) else f"{number(one.life_years)} years"
        text = f"{one.rank}: node {one.node}\n{life}"
        axes.annotate(  # type: ignore[attr-defined]
            f"({text})" if hidden else text,
            here,
            here + away * 0.16 * reach + np.array([0.0, 0.05 * reach * ((one.rank % 3) - 1)]),
            ha="left" if away[0] >= 0.0 else "right",
            va="center",
            fontsize=10,
            color=INK,
            bbox={"boxstyle": "round,pad=0.25", "fc": "white", "ec": INK, "lw": 0.8, "ls": ":" if hidden else "-"},
            arrowprops={"arrowstyle": "-|>", "color": INK, "lw": 1.0, "ls": ":" if hidden else "-"},
            zorder=5,
        )
