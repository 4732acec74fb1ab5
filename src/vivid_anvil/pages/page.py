"""Figures as one HTML file that opens offline, and as parts of another page."""

from __future__ import annotations

import html
import io
import json
from collections.abc import Callable, Mapping, Sequence
from importlib.resources import files
from pathlib import Path
from typing import Any

from vivid_anvil.fields import ModelView
from vivid_anvil.figures import draw_into, plot
from vivid_anvil.ground.errors import InputError
from vivid_anvil.ground.extras import needed
from vivid_anvil.ground.files import replacing
from vivid_anvil.pages.live import Live, graphs
from vivid_anvil.pages.live_of import live
from vivid_anvil.units import UnitSystem, opened
from vivid_anvil.writing.html import data_url

Watch = Callable[[str, int, int], None]


def scripts() -> str:
    """What a page with figures needs in its head: Plotly's script, that of the house, both whole."""
    graphs()
    from plotly.offline import get_plotlyjs

    return f"<script>{get_plotlyjs()}</script>\n<script>{_shipped('page.js')}</script>"


def style() -> str:
    """The style of figures and of the panel beside them."""
    return _shipped("page.css")


@opened()
def live_html(one: Live, name: str) -> str:
    """A figure as part of a page whose head has `scripts` and `style`; `name` is its own on that page."""
    figure = one.figure
    figure.update_layout(height=one.height)
    more = json.dumps(one.more, ensure_ascii=False)
    call = f"show({json.dumps(name)}, {figure.to_json()}, {json.dumps(one.kind)}, {more});".replace("<", "\\u003c")
    panel = f'<div class="live-panel" id="{name}-panel"></div>' if one.kind == "model" else ""
    notes = "".join(f'<p class="live-note">{html.escape(note)}</p>' for note in one.notes)
    row = f'<div class="live-row" style="height:{one.height}px"><div class="live" id="{name}"></div>{panel}</div>'
    return f"{row}{notes}\n<script>{call}</script>"


@opened()
def page_text(
    things: Mapping[str, Any], title: str, *, units: UnitSystem = "metric", watch: Watch | None = None
) -> str:
    """A page of figures: those to look around in, and the still ones of what has no other."""
    from jinja2 import Environment, StrictUndefined

    figures = []
    for i, (name, thing) in enumerate(_once(things).items()):
        if watch is not None:
            watch(f"drawing {name}", i, len(things))
        one = live(thing, units=units)
        heading = name[:1].upper() + name[1:] if one is None else one.title
        body = _still(thing, heading, units) if one is None else live_html(one, f"figure-{i + 1}")
        figures.append({"title": heading, "anchor": f"part-{i + 1}", "body": body})
    made = Environment(autoescape=True, undefined=StrictUndefined).from_string(_shipped("page.html"))
    return made.render(title=title, figures=figures, style=style(), scripts=scripts()) + "\n"


@opened()
def write_page(
    things: Mapping[str, Any] | Sequence[Any], path: str | Path, *, title: str = "", units: UnitSystem = "metric"
) -> Path:
    """Write figures of nouns and results, to look around in, into one HTML file; returns its path.

    Parameters
    ----------
    things : mapping of str to any, or sequence
        What is drawn, by names where it is a mapping: whatever `plot` draws.
    path : str or path
        The file, which ends in .html.
    title : str, optional
        Heading of the page; by default the name of the file.
    units : UnitSystem, default "metric"
        Units of the axes.

    Returns
    -------
    Path
        The file.

    Raises
    ------
    InputError
        For nothing to draw, for a thing without a figure, another ending, and where the extra "pages" is not installed.

    Examples
    --------
    >>> write_page({"life": result.lives[0], "crack": result.growths[0]}, "look.html").name  # result of the demo
    'look.html'
    """
    file = checked_place("write page", path)
    if isinstance(things, str) or not isinstance(things, Mapping | Sequence) or not things:
        raise InputError("write page", f"{things!r:.60}", "a list or a mapping of nouns or results, at least one")
    by_name = things if isinstance(things, Mapping) else {f"figure {i}": one for i, one in enumerate(things, 1)}
    text = page_text(by_name, title or file.stem, units=units)
    with replacing(file) as temporary:
        temporary.write_text(text, encoding="utf-8")
    return file


def _once(things: Mapping[str, Any]) -> dict[str, Any]:
    """The things without further views of a model that is there already: one can be turned."""
    seen: list[Any] = []
    found = {}
    for name, thing in things.items():
        if isinstance(thing, ModelView):
            if any(thing.result is one for one in seen):
                continue
            seen.append(thing.result)
        found[name] = thing
    return found


def checked_place(where: str, path: str | Path) -> Path:
    """The file for a page; InputError for another ending, and where nothing is installed that draws it."""
    file = Path(path)
    if file.suffix.lower() not in (".html", ".htm"):
        raise InputError(where, str(path), "a file that ends in .html")
    needed("plotly", where, "pages")
    return file


def _still(thing: Any, words: str, units: UnitSystem) -> str:
    buffer = io.BytesIO()
    draw_into(plot(thing, units=units), buffer)
    return f'<img src="{data_url(buffer.getvalue())}" alt="{html.escape(words)}">'


def _shipped(name: str) -> str:
    return (files("vivid_anvil.pages") / "data" / name).read_text(encoding="utf-8")
