"""A figure to look around in, before it stands in a page: what Plotly draws, what is told under it, choices beside it."""

from __future__ import annotations

from collections.abc import Mapping, Sequence
from dataclasses import dataclass, field
from typing import TYPE_CHECKING, Any

from vivid_anvil.figures.style import INK

if TYPE_CHECKING:
    import plotly.graph_objects as go

FONT = '"Segoe UI", "DejaVu Sans", Arial, sans-serif'
AXIS: dict[str, Any] = {
    "gridcolor": "#e3e7eb",
    "linecolor": "#77808a",
    "showline": True,
    "zeroline": False,
    "ticks": "outside",
}


@dataclass(frozen=True, eq=False)
class Live:
    """A figure for a page: its title, Plotly's figure, sentences under it, and what the page's own script needs of it.

    `kind` is "figure", or "model", which has a panel beside it with places and sets.
    """

    title: str
    figure: go.Figure
    notes: tuple[str, ...] = ()
    kind: str = "figure"
    more: Mapping[str, Any] = field(default_factory=dict)
    height: int = 560  # pixels


def graphs() -> Any:
    """Plotly's figures, imported when something is drawn."""
    import plotly.graph_objects as go

    return go


def new_live(**layout: Any) -> Any:
    """An empty figure of the house's look."""
    figure = graphs().Figure()
    figure.update_layout(
        template="none",
        font={"family": FONT, "size": 13, "color": INK},
        margin={"l": 80, "r": 30, "t": 50, "b": 60},
        hoverlabel={"font": {"family": FONT, "size": 13}, "align": "left"},
        legend={"orientation": "h", "x": 0.0, "y": 1.01, "yanchor": "bottom"},
        **layout,
    )
    return figure


def axes(figure: Any, x: str, y: str, *, log_x: bool = False, log_y: bool = False, **which: Any) -> None:
    """Names of both axes of a figure or, by `row` and `col`, of one of its parts."""
    powers = {"type": "log", "exponentformat": "power", "minor": {"ticks": "outside", "ticklen": 3}}
    figure.update_xaxes(title=x, **({**powers, "dtick": 1} if log_x else {}), **AXIS, **which)
    figure.update_yaxes(title=y, **({**powers, "dtick": "D2"} if log_y else {}), **AXIS, **which)


def named(rows: Sequence[tuple[str, str]]) -> str:
    """A hover text: bold label and value, one below the other; "%{x}" and the like are filled in by the page."""
    return "<br>".join(f"<b>{label}</b> {text}" if label else text for label, text in rows) + "<extra></extra>"
