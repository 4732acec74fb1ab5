"""Texts of a figure put where they can be read: inside the picture, clear of each other and of the lines.

Long names are folded, or shortened where folding does not help; labels beside a point move around it, legends and remarks go
where they cover least, and out of the axes where there is no room in them.
"""

from __future__ import annotations

import textwrap
from collections.abc import Iterator, Sequence
from typing import Any

import numpy as np
from matplotlib.axes import Axes
from matplotlib.collections import PathCollection
from matplotlib.figure import Figure
from matplotlib.patches import Rectangle, StepPatch
from matplotlib.text import Annotation, Text
from matplotlib.transforms import Bbox

from vivid_anvil.ground.checks import FloatArray

LEGEND_WIDTH, LEGEND_LINES, LABEL_WIDTH = 34, 2, 44  # letters
STEP = 3.0  # pixels between points that stand for a line
_LEGEND_PLACES = ("upper right", "upper left", "lower left", "lower right", "center right", "center left", "upper center",
                  "lower center", "center")  # fmt: skip
_CORNERS = ((0.99, 0.97, "right", "top"), (0.01, 0.97, "left", "top"), (0.01, 0.03, "left", "bottom"),
            (0.99, 0.03, "right", "bottom"), (0.5, 0.97, "center", "top"), (0.5, 0.03, "center", "bottom"),
            (0.99, 0.5, "right", "center"), (0.01, 0.5, "left", "center"))  # fmt: skip
_AROUND = [(dx, dy) for far in (8, 16, 28, 44, 64) for dx, dy in
           ((far, far), (far, -far), (-far, far), (-far, -far), (far, 0), (-far, 0), (0, far), (0, -far))]  # fmt: skip
FIXED = "stays"  # the gid of a text that is not moved


def tidy(figure: Figure) -> None:
    """Fold, shorten and move the texts of a figure, or of a part of one."""
    _titles(figure)
    for axes in figure.axes:
        _axis_labels(axes)
        _legend_labels(axes)
        if not hasattr(
            figure, "draw_without_rendering"
        ):  # a part is small: its remarks must not take the room of its axes
            for text in axes.texts:
                text.set_in_layout(False)
    _laid_out(figure)
    _shrink_titles(figure)
    reached = _reaching_out(figure)
    outside: list[Axes] = []
    for _ in range(
        len(figure.axes) + 1
    ):  # each legend that goes out makes the axes narrower, and the others look again
        shown = [axes for axes in figure.axes if axes.axison]
        crowded = [axes for axes in shown if not _arranged(axes, figure, legend_too=axes not in outside)]
        if not crowded:
            break
        for axes in crowded:
            legend = axes.get_legend()
            if legend is not None:
                legend.set_loc("upper left")
                legend.set_bbox_to_anchor((1.01, 1.0), transform=axes.transAxes)
        outside += crowded
        _laid_out(figure)
    if outside or reached or _reaching_out(figure):
        _laid_out(figure)  # with the labels where they are now


def _reaching_out(figure: Figure) -> bool:
    """Whether a label or legend of axes reaches out of them, so that it takes part in how they are laid out."""
    for axes in figure.axes:
        within = axes.get_window_extent()
        legend = axes.get_legend()
        inner = [text.get_window_extent() for text in axes.texts if text.get_text()]
        inner += [] if legend is None else [legend.get_window_extent()]
        if any(box.x0 < within.x0 or box.x1 > within.x1 or box.y0 < within.y0 or box.y1 > within.y1 for box in inner):
            return True
    return False


def _laid_out(figure: Figure) -> None:
    """Everything at its place, as it will be drawn."""
    whole: Any = figure
    while not hasattr(whole, "draw_without_rendering"):  # a part has none
        whole = whole._parent
    engine = whole.get_layout_engine()
    if engine is None:
        whole.draw_without_rendering()
    else:
        engine.execute(whole)


def shortened_name(text: str, letters: int) -> str:
    """A name of at most so many letters, its middle left out.

    >>> shortened_name("weld toe at the transverse stiffener of bay 14", 24)
    'weld toe at …r of bay 14'
    """
    if len(text) <= letters:
        return text
    head = letters // 2
    return f"{text[:head]}…{text[len(text) - (letters - 1 - head) :]}"


def folded(text: str, letters: int, lines: int) -> str:
    """A text folded at blanks into lines, and shortened where they are more than allowed."""
    if "\n" in text:
        return "\n".join(folded(line, letters, lines) for line in text.split("\n"))
    parts = textwrap.wrap(text, letters, break_long_words=True) or [text]
    if len(parts) <= lines:
        return "\n".join(parts)
    return "\n".join(textwrap.wrap(shortened_name(text, lines * letters - 2), letters))


def _titles(figure: Figure) -> None:
    headline = getattr(figure, "_suptitle", None)
    if headline is not None:
        headline.set_text(folded(headline.get_text(), 92 if hasattr(figure, "draw_without_rendering") else 60, 2))
    for axes in figure.axes:
        for title in (axes._left_title, axes.title):  # type: ignore[attr-defined]
            if title.get_text():
                title.set_text(folded(title.get_text(), 64, 2))


def _shrink_titles(figure: Figure) -> None:
    """Titles that are wider than their place in smaller letters, folded again."""
    width = figure.bbox.width
    headline = getattr(figure, "_suptitle", None)
    changed = False
    if headline is not None:
        changed |= _shrunk(headline, width * 0.97)
    for axes in figure.axes:
        title: Text = axes._left_title  # type: ignore[attr-defined]
        if title.get_text():
            reach = max(axes.get_window_extent().width, 60.0)
            room = min(figure.bbox.x1 - title.get_window_extent().x0 - 4.0, _until_next(axes, figure, reach))
            changed |= _shrunk(title, room)
    if changed:
        _laid_out(figure)


def _until_next(axes: Axes, figure: Figure, reach: float) -> float:
    """How far a title may go to the right: to the axes beside it, else to the end of the picture."""
    box = axes.get_window_extent()
    beside = [axis.get_window_extent().x0 for axis in figure.axes if axis is not axes and axis.axison]
    right = [x for x in beside if x > box.x1]
    return float(min(right) - box.x0 - 12.0) if right else max(reach, figure.bbox.x1 - box.x0 - 4.0)


def _shrunk(text: Text, room: float) -> bool:
    changed = False
    for _ in range(12):
        width = text.get_window_extent().width
        if width <= room:
            break
        one = text.get_text().replace("\n", " ")
        if float(text.get_fontsize()) > 12.0:
            text.set_fontsize(max(12.0, float(text.get_fontsize()) * max(0.8, room / width)))
        elif text.get_text().count("\n") < 1 and len(one) > 12:
            text.set_text(folded(one, len(one) // 2 + 2, 2))
        else:
            text.set_text(folded(shortened_name(one, int(len(one) * max(0.5, room / width) * 0.95)), 200, 1))
        changed = True
    return changed


def _axis_labels(axes: Axes) -> None:
    for label in (axes.xaxis.label, axes.yaxis.label):
        panels = max(1, len(axes.figure.axes) // 2) if axes.figure is not None and label is axes.yaxis.label else 1
        letters = LABEL_WIDTH // min(panels, 3) if label is axes.yaxis.label else 2 * LABEL_WIDTH
        name, bracket, unit = label.get_text().rpartition(" [")
        if bracket and len(name) > letters:
            label.set_text(f"{folded(name, letters, 2)}{bracket}{unit}")
        elif len(label.get_text()) > letters:
            label.set_text(folded(label.get_text(), letters, 2))


def _legend_labels(axes: Axes) -> None:
    legend = axes.get_legend()
    if legend is not None:
        for text in legend.get_texts():
            text.set_text(folded(text.get_text(), LEGEND_WIDTH, LEGEND_LINES))


def _fold_remarks(axes: Axes) -> None:
    """Remarks that are wider than their axes in lines that are not."""
    room = 0.96 * axes.get_window_extent().width
    for text in axes.texts:
        if isinstance(text, Annotation) or text.get_transform() != axes.transAxes or not text.get_text():
            continue
        width = text.get_window_extent().width
        if width > room > 60.0:
            letters = max(12, int(room / width * max(len(line) for line in text.get_text().split("\n"))))
            text.set_text("\n".join(textwrap.fill(line, letters) for line in text.get_text().split("\n")))


def _arranged(axes: Axes, figure: Figure, legend_too: bool = True) -> bool:
    """Put labels, legend and remarks of axes where they are clear; False where the legend covers something wherever it is."""
    _fold_remarks(axes)
    points = obstacles(axes)
    frame = figure.bbox.padded(-2.0)
    taken = [text.get_window_extent() for text in _titles_of(axes)]
    taken += [text.get_window_extent() for text in axes.texts if text.get_gid() == FIXED]
    for text in axes.texts:
        if isinstance(text, Annotation) and text.get_text() and text.get_gid() != FIXED:
            taken.append(_beside_its_point(text, points, taken, frame))
    clear = True
    legend = axes.get_legend()
    if legend is not None and legend_too:
        within = axes.get_window_extent()
        clear = _best_place(legend, points, taken, within, axes)
    if legend is not None:
        taken.append(legend.get_window_extent())
    for text in axes.texts:
        if not isinstance(text, Annotation) and text.get_text() and text.get_gid() != FIXED:
            if text.get_transform() == axes.transAxes:
                _in_a_corner(text, points, taken)
            taken.append(text.get_window_extent())
    return clear


def _titles_of(axes: Axes) -> Iterator[Text]:
    for text in (axes._left_title, axes.title, axes.xaxis.label, axes.yaxis.label):  # type: ignore[attr-defined]
        if text.get_text():
            yield text


def obstacles(axes: Axes) -> FloatArray:
    """Points, in pixels, that stand for the lines, dots and bars of axes, shape (n, 2)."""
    obstacles: list[FloatArray] = [np.empty((0, 2))]
    for line in axes.lines:
        if not line.get_visible():
            continue
        places = line.get_transform().transform(np.column_stack([np.asarray(one, float) for one in line.get_data()]))
        obstacles.append(places if line.get_linestyle() in ("None", "none", "", " ") else _along(places))
        if line.get_drawstyle().startswith("steps"):
            corners = np.repeat(places, 2, axis=0)
            obstacles.append(_along(np.column_stack([corners[1:, 0], corners[:-1, 1]])))
    for collection in axes.collections:
        if isinstance(collection, PathCollection):
            obstacles.append(np.asarray(collection.get_offset_transform().transform(collection.get_offsets())))
    within = axes.get_window_extent()
    for patch in axes.patches:
        if isinstance(patch, Rectangle):
            obstacles.append(_filled(_clipped(patch.get_window_extent(), within)))
        elif isinstance(patch, StepPatch):
            obstacles.append(_under_steps(patch, within))
    points = np.concatenate(obstacles)
    inside = axes.get_window_extent().padded(6.0)
    kept = np.isfinite(points).all(axis=1)
    points = points[kept]
    seen = (
        (points[:, 0] > inside.x0)
        & (points[:, 0] < inside.x1)
        & (points[:, 1] > inside.y0)
        & (points[:, 1] < inside.y1)
    )
    return np.asarray(points[seen])


def _along(places: FloatArray) -> FloatArray:
    """Points every few pixels along a polygon; gaps stay gaps."""
    if len(places) < 2:
        return places
    near = np.clip(places, -4e3, 8e3)
    start, end = near[:-1], near[1:]
    whole = np.isfinite(start).all(axis=1) & np.isfinite(end).all(axis=1)
    start, end = start[whole], end[whole]
    many = (
        np.maximum(1, np.ceil(np.hypot(*(end - start).T) / STEP)).astype(np.int64)
        if len(start)
        else np.empty(0, np.int64)
    )
    owner = np.repeat(np.arange(many.size), many)
    if not owner.size:
        return np.empty((0, 2))
    within = (np.arange(owner.size) - np.repeat(np.cumsum(many) - many, many)) / many[owner]
    return np.asarray(start[owner] + within[:, None] * (end - start)[owner])


def _clipped(box: Bbox, within: Bbox) -> Bbox:
    """The part of a box within another; ends at infinity, as of bars on an axis of logarithms, are at its border."""
    low = np.where(np.isfinite(box.min), np.maximum(box.min, within.min), within.min)
    high = np.where(np.isfinite(box.max), np.minimum(box.max, within.max), within.max)
    return Bbox([low, np.maximum(low, high)])


def _under_steps(patch: StepPatch, within: Bbox) -> FloatArray:
    """Points over the area under steps."""
    values, edges, _ = patch.get_data()
    to_pixels = patch.get_transform()
    steps = [np.empty((0, 2))]
    for value, left, right in zip(values, edges[:-1], edges[1:], strict=True):
        ends = Bbox(to_pixels.transform([[left, 0.0], [right, value]]))
        steps.append(_filled(_clipped(ends, within)))
    return np.concatenate(steps)


def _filled(box: Bbox, step: float = 8.0) -> FloatArray:
    """A grid of points over a box."""
    if not (np.isfinite(box.extents).all() and box.width > 0.5 and box.height > 0.5):
        return np.empty((0, 2))
    x, y = (
        np.linspace(low, high, max(2, min(200, int((high - low) / step))))
        for low, high in (box.intervalx, box.intervaly)
    )
    return np.stack(np.meshgrid(x, y), axis=-1).reshape(-1, 2)


def covered(box: Bbox, points: FloatArray) -> int:
    """How many of the points a box covers."""
    inside = (points[:, 0] > box.x0) & (points[:, 0] < box.x1) & (points[:, 1] > box.y0) & (points[:, 1] < box.y1)
    return int(inside.sum())


def _cost(box: Bbox, points: FloatArray, taken: Sequence[Bbox], frame: Bbox) -> float:
    outside = not (box.x0 >= frame.x0 and box.x1 <= frame.x1 and box.y0 >= frame.y0 and box.y1 <= frame.y1)
    return 1e6 * outside + 1e4 * sum(box.overlaps(one) for one in taken) + covered(box, points)


def _beside_its_point(text: Annotation, points: FloatArray, taken: Sequence[Bbox], frame: Bbox) -> Bbox:
    """A label at the first offset from its point where it is clear, else where it covers least; its box there."""
    box = text.get_window_extent()
    best, cost = box, _cost(box.padded(1.0), points, taken, frame)
    if cost == 0.0 or text.anncoords != "offset points":
        return box
    place = (text.xyann, text.get_horizontalalignment(), text.get_verticalalignment())
    for dx, dy in _AROUND:
        text.xyann = (dx, dy)
        text.set_horizontalalignment("left" if dx > 0 else "right" if dx < 0 else "center")
        text.set_verticalalignment("bottom" if dy > 0 else "top" if dy < 0 else "center")
        box = text.get_window_extent()
        now = _cost(box.padded(1.0), points, taken, frame)
        if now < cost:
            best, cost, place = box, now, (text.xyann, text.get_horizontalalignment(), text.get_verticalalignment())
        if cost == 0.0:
            break
    text.xyann = place[0]
    text.set_horizontalalignment(place[1])
    text.set_verticalalignment(place[2])
    return best


def _best_place(legend: Any, points: FloatArray, taken: Sequence[Bbox], within: Bbox, axes: Axes) -> bool:
    """The legend at the first of its places where it covers nothing; whether there is one."""
    size = legend.get_window_extent()
    if size.width > within.width or size.height > within.height:
        return False
    best, cost = None, np.inf
    for place in _LEGEND_PLACES:
        legend.set_loc(place)
        legend.set_bbox_to_anchor((0.0, 0.0, 1.0, 1.0), transform=axes.transAxes)
        now = _cost(legend.get_window_extent(), points, taken, within)
        if now < cost:
            best, cost = place, now
        if cost == 0.0:
            break
    legend.set_loc(best)
    return cost == 0.0


def _in_a_corner(text: Text, points: FloatArray, taken: Sequence[Bbox]) -> None:
    """A remark in the first corner where it is clear, else where it covers least."""
    axes = text.axes
    assert axes is not None
    frame = axes.get_window_extent()
    x, y = text.get_position()
    best: tuple[float, float, Any, Any] = (x, y, text.get_horizontalalignment(), text.get_verticalalignment())
    cost = _cost(text.get_window_extent(), points, taken, frame)
    for corner in _CORNERS:
        if cost == 0.0:
            break
        _move(text, corner)
        here = _cost(text.get_window_extent(), points, taken, frame)
        if here < cost:
            best, cost = corner, here
    _move(text, best)


def _move(text: Text, corner: tuple[float, float, Any, Any]) -> None:
    text.set_position(corner[:2])
    text.set_horizontalalignment(corner[2])
    text.set_verticalalignment(corner[3])
