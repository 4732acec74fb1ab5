"""A model's surface to turn and zoom, coloured by life; its worst places to go to, its sets to switch on and off."""

from __future__ import annotations

import math
from typing import Any

import numpy as np

from vivid_anvil.fields import HotPlace, ModelResult, ModelView
from vivid_anvil.figures.banded import band_colours, life_bands, life_heights
from vivid_anvil.figures.style import INK
from vivid_anvil.ground.checks import FloatArray, IntArray
from vivid_anvil.models import outer_surface
from vivid_anvil.pages.fewer_triangles import fewer, triangles_of
from vivid_anvil.pages.live import FONT, Live, graphs, new_live
from vivid_anvil.units import UnitSystem, display_unit, number, shown

MOST_TRIANGLES = 40_000
REST, LEFT_OUT = "all other nodes", "left out"
FAR = 1.5  # from which the whole model is seen, of its longest side
LIFTED = 0.012  # how far marks stand off the surface, of the same
LOOK = {"ambient": 0.9, "diffuse": 0.3, "specular": 0.02, "roughness": 0.9, "fresnel": 0.0}


def model_live(view: ModelView, units: UnitSystem = "metric") -> Live:
    """The surface; each node tells its number, its life, the event that does most damage to it."""
    result = view.result
    all_triangles = triangles_of(outer_surface(result.field.elements)[0])
    weight = result.damage_per_repeat.copy()
    for place in view.places:  # whatever is marked stays
        weight[result.field.place_of(place.node)] = math.inf
    triangles = fewer(result.field.coordinates, all_triangles, weight, MOST_TRIANGLES)
    calendar = result.duty_cycle.calendar
    unit = calendar.unit_for(float(result.life_repeats.min()))
    lives = np.asarray(calendar.life_in(unit, result.life_repeats))
    height, scale = _heights(lives)
    bar = {"title": {"text": f"Life [{unit}]"}, "tickvals": scale["at"], "ticktext": scale["words"], "len": 0.8}
    figure = new_live(scene=_scene(view, units), showlegend=False, coloraxis={**scale["colours"], "colorbar": bar})
    figure.update_layout(margin={"l": 10, "r": 10, "t": 10, "b": 10})
    parts = _by_set(result, triangles)
    points = shown(result.field.coordinates, "length", units)
    for name, mine in parts:
        figure.add_trace(_surface(points, mine, np.full_like(height, height.max()) if name == LEFT_OUT else height))
    outwards = [_outwards(result, place, triangles) for place in view.places]
    marks = _marks(view, outwards, units)
    figure.add_trace(marks)
    figure.update_layout(scene={"annotations": _ranks(view, marks)})
    used = [np.unique(mine) for _, mine in parts]
    more = {
        "sets": [{"name": name, "triangles": len(mine)} for name, mine in parts],
        "events": result.event_names,
        "unit": unit,
        "nodes": [
            {
                "number": result.field.node_ids[own].tolist(),
                "life": [f"{one:.4g}" for one in lives[own]],
                "event": result.values.worst_event[own].tolist(),
            }
            for own in used
        ],
        "places": [_place(view, place, way) for place, way in zip(view.places, outwards, strict=True)],
    }
    return Live(view.title or result.field.source, figure, _notes(view, triangles, all_triangles), "model", more, 720)


def _notes(view: ModelView, triangles: IntArray, all_triangles: IntArray) -> tuple[str, ...]:
    result = view.result
    notes = [f"{result.field.size} nodes, {len(all_triangles)} triangles of the surface. Drag to turn, scroll to zoom."]
    if len(triangles) < len(all_triangles):
        notes.append(
            f"Drawn with {len(triangles)} of them: nodes near each other are shown as the one of them with the shortest life; "
            "the worst places are all there. Files with every node: --nodes."
        )
    if result.left_out is not None:
        notes.append(f"{int(result.left_out.sum())} nodes were left out; they are coloured as without damage.")
    return tuple(notes)


def _heights(lives: FloatArray) -> tuple[FloatArray, dict[str, Any]]:
    """log10 of the lives for the colours, with the bands of the still picture; without damage a band of its own above."""
    borders = life_bands(lives)
    heights, edges = life_heights(lives, borders)
    colours = band_colours(borders)
    places = [(one - edges[0]) / (edges[-1] - edges[0]) for one in edges]
    scale = [[place, colour] for i, colour in enumerate(colours) for place in (places[i], places[i + 1])]
    ticks = [*edges[1:-2], 0.5 * (edges[-2] + edges[-1])] if borders else [0.5 * (edges[-2] + edges[-1])]
    words = [*(number(one) for one in borders), "no damage"]
    return heights, {"colours": {"cmin": edges[0], "cmax": edges[-1], "colorscale": scale}, "at": ticks, "words": words}


def _scene(view: ModelView, units: UnitSystem) -> dict[str, Any]:
    """Axes of one scale, the model in their middle, seen from where the still picture sees it."""
    points = shown(view.result.field.coordinates, "length", units)
    low, high = points.min(axis=0), points.max(axis=0)
    reach = float((high - low).max()) or 1.0
    unit = display_unit("length", units)
    axis = {"backgroundcolor": "#ffffff", "gridcolor": "#e3e7eb", "zeroline": False, "nticks": 5}
    ranges = {
        name: {
            **axis,
            "title": f"{name} [{unit}]",
            "range": [float(low[i] - 0.03 * reach), float(high[i] + 0.03 * reach)],
        }
        for i, name in enumerate("xyz")
    }
    sides = (high - low + 0.06 * reach) / (1.06 * reach)
    ratio = {name: float(sides[i]) for i, name in enumerate("xyz")}
    return {
        **{f"{name}axis": ranges[name] for name in "xyz"},
        "aspectmode": "manual",
        "aspectratio": ratio,
        "camera": {
            "eye": dict(zip("xyz", (FAR * view.axes[2]).tolist(), strict=True)),
            "up": {name: float(name == view.up) for name in "xyz"},
        },
        "dragmode": "turntable" if view.up == "z" else "orbit",
    }


def _by_set(result: ModelResult, triangles: IntArray) -> list[tuple[str, IntArray]]:
    """Triangles by the first set that holds all of their corners, those of none after them, those left out last."""
    without = np.zeros(len(triangles), dtype=bool)
    if result.left_out is not None:
        without[:] = np.asarray(result.left_out[triangles]).any(axis=1)
    triangles, left_out = triangles[~without], triangles[without]
    owner = np.full(len(triangles), -1)
    names = list(result.field.node_sets)
    for i, name in reversed(list(enumerate(names))):
        inside = np.zeros(result.field.size, dtype=bool)
        inside[np.asarray(result.field.node_sets[name], dtype=np.int64)] = True
        owner[inside[triangles].all(axis=1)] = i
    kept = [(names[i], triangles[owner == i]) for i in range(len(names)) if (owner == i).any()]
    rest = triangles[owner == -1]
    return [*kept, *([(REST, rest)] if len(rest) else []), *([(LEFT_OUT, left_out)] if len(left_out) else [])]


def _surface(points: FloatArray, triangles: IntArray, height: FloatArray) -> Any:
    """Triangles over their own points, coloured by their height inside each too."""
    own, corners = np.unique(triangles, return_inverse=True)
    i, j, k = corners.reshape(triangles.shape).astype(np.int32).T
    x, y, z = points[own].astype(np.float32).T
    return graphs().Mesh3d(
        x=x,
        y=y,
        z=z,
        i=i,
        j=j,
        k=k,
        intensity=height[own].astype(np.float32),
        coloraxis="coloraxis",
        flatshading=True,
        lighting=LOOK,
        hovertemplate="%{text}<extra></extra>",
    )


def _marks(view: ModelView, outwards: list[FloatArray], units: UnitSystem) -> Any:
    """The worst places as dots with their ranks, a little above the surface."""
    reach = float(np.ptp(view.result.field.coordinates, axis=0).max())
    at = np.array(
        [np.array(place.at_mm) + LIFTED * reach * way for place, way in zip(view.places, outwards, strict=True)]
    )
    x, y, z = shown(at.reshape(-1, 3), "length", units).T
    told = [
        f"<b>{place.rank}</b> node {place.node}<br>{_life(view.result, place)}<br>{place.worst_event}"
        for place in view.places
    ]
    return graphs().Scatter3d(
        x=x,
        y=y,
        z=z,
        mode="markers",
        marker={"size": 5, "color": "white", "line": {"color": INK, "width": 2}},
        hovertext=told,
        hovertemplate="%{hovertext}<extra></extra>",
    )


def _ranks(view: ModelView, marks: Any) -> list[dict[str, Any]]:
    """The rank of each place beside its dot, readable on any colour."""
    look = {
        "bgcolor": "rgba(255,255,255,0.85)",
        "bordercolor": INK,
        "borderpad": 2,
        "font": {"family": FONT, "size": 13, "color": INK},
        "arrowcolor": INK,
        "arrowwidth": 1,
        "arrowhead": 0,
        "ax": 18,
        "ay": -18,
    }
    spots = zip(view.places, marks.x, marks.y, marks.z, strict=True)
    return [{"x": float(x), "y": float(y), "z": float(z), "text": str(place.rank), **look} for place, x, y, z in spots]


def _life(result: ModelResult, place: HotPlace) -> str:
    return "no damage" if math.isinf(place.life_repeats) else result.duty_cycle.calendar.text(place.life_repeats)


def _outwards(result: ModelResult, place: HotPlace, triangles: IntArray) -> FloatArray:
    """The direction away from the surface at a place, a unit vector; that from the middle of the model within it."""
    points = result.field.coordinates
    corners = points[triangles[(triangles == result.field.place_of(place.node)).any(axis=1)]]
    way = np.cross(corners[:, 1] - corners[:, 0], corners[:, 2] - corners[:, 0]).sum(axis=0)
    if not np.linalg.norm(way) > 0.0:
        way = np.array(place.at_mm) - points.mean(axis=0)
    return np.asarray(way / (float(np.linalg.norm(way)) or 1.0))


def _place(view: ModelView, place: HotPlace, outwards: FloatArray) -> dict[str, Any]:
    """What the list beside the model says of a place, where it stands in the scene, and from where it is looked at."""
    points = view.result.field.coordinates
    middle, reach = 0.5 * (points.max(axis=0) + points.min(axis=0)), float(np.ptp(points, axis=0).max()) or 1.0
    return {
        "rank": place.rank,
        "node": place.node,
        "life": _life(view.result, place),
        "event": place.worst_event,
        "center": ((np.array(place.at_mm) - middle) / (1.06 * reach)).tolist(),
        "outwards": outwards.tolist(),
    }
