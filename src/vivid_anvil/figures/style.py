"""One look for all figures: 1280x800, units on all axes, colours that differ in lightness as well as in hue."""

from __future__ import annotations

import io
from collections.abc import Iterator
from contextlib import contextmanager
from contextvars import ContextVar
from pathlib import Path
from typing import Any, cast

import matplotlib as mpl
import numpy as np
from matplotlib.axes import Axes
from matplotlib.axis import Axis
from matplotlib.backends.backend_agg import FigureCanvasAgg
from matplotlib.figure import Figure
from matplotlib.layout_engine import ConstrainedLayoutEngine
from matplotlib.ticker import FuncFormatter, LogLocator, MaxNLocator, NullFormatter

from vivid_anvil.figures.tidy import FIXED
from vivid_anvil.ground.checks import FloatArray
from vivid_anvil.ground.errors import InputError, shortened
from vivid_anvil.ground.files import replacing
from vivid_anvil.units import opened

# From dark to light, so that they stay apart in grey print and for the colour-blind.
INK, BLUE, RED, ORANGE, PALE = "#1d2733", "#1f4e79", "#b3432b", "#e29a2d", "#b9cbdc"
GREEN, PLUM = "#3f7d5b", "#7a5a94"
LINES = (BLUE, ORANGE, GREEN, PLUM, RED, INK)  # of several things in one picture, in this order

_RC: dict[Any, Any] = {
    "figure.figsize": (12.8, 8.0),
    "figure.dpi": 100,
    "savefig.dpi": 100,
    "font.size": 13,
    "axes.titlesize": 14,
    "axes.titleweight": "bold",
    "axes.titlelocation": "left",
    "axes.labelcolor": INK,
    "axes.edgecolor": "#77808a",
    "axes.spines.top": False,
    "axes.spines.right": False,
    "axes.grid": True,
    "grid.color": "#e3e7eb",
    "grid.linewidth": 0.8,
    "axes.axisbelow": True,
    "xtick.color": INK,
    "ytick.color": INK,
    "text.color": INK,
    "legend.frameon": False,
    "lines.linewidth": 1.6,
}


_HOST: ContextVar[Axes | None] = ContextVar("axes in whose place is drawn", default=None)


@contextmanager
def styled() -> Iterator[None]:
    """The settings of the house for what is drawn inside."""
    with mpl.rc_context(_RC):
        yield


class Picture(Figure):
    """A figure that a notebook shows by itself, without any setting."""

    def _repr_png_(self) -> bytes:
        made = io.BytesIO()
        self.savefig(made, format="png")
        return made.getvalue()


@contextmanager
def in_place_of(axes: Axes | None) -> Iterator[None]:
    """What is drawn inside goes into the place of `axes`, if any, in its figure."""
    token = _HOST.set(axes)
    try:
        yield
    finally:
        _HOST.reset(token)


def new_figure(title: str) -> Figure:
    """A figure of 1280x800 with a headline; made without pyplot, so that it needs no display.

    In the place of axes it is a part of their figure, in smaller letters.
    """
    axes = _HOST.get()
    if axes is not None:
        place = axes.get_subplotspec()
        if place is None or axes.figure is None:
            raise InputError("plot, ax", "axes that are no subplot", "axes of figure.subplots or add_subplot")
        part = axes.figure.add_subfigure(place)
        axes.remove()
        part.suptitle(title, x=0.02, ha="left", fontsize=mpl.rcParams["axes.titlesize"], fontweight="bold")
        return cast(Figure, part)
    figure = Picture(layout=ConstrainedLayoutEngine(w_pad=0.12, h_pad=0.1))
    FigureCanvasAgg(figure)  # one renderer for all measuring of texts; else each measuring makes its own
    figure.suptitle(title, x=0.012, ha="left", fontsize=17, fontweight="bold")
    return figure


@opened()
def save_figure(figure: Figure, path: str | Path) -> Path:
    """Write `figure` as PNG (or what the ending says), by way of a temporary name; returns the path.

    Parameters
    ----------
    figure : Figure
        The figure.
    path : str or path
        Where to, by its ending.

    Returns
    -------
    Path
        The file.

    Raises
    ------
    InputError
        For an argument of another kind, unit or range; the message says which.

    Examples
    --------
    >>> save_figure(plot(history), "lap.png").name  # of the demo: read_history("loaded_lap.csv")
    'lap.png'
    """
    _asked_for(figure, path)
    with replacing(path) as temporary:
        draw_into(figure, temporary)
    return Path(path)


def _asked_for(figure: Figure, path: str | Path) -> None:
    """InputError unless the ending says which kind of picture is asked for."""
    if Path(path).suffix.lower().removeprefix(".") not in figure.canvas.get_supported_filetypes():
        raise InputError(
            "figure, path",
            shortened(Path(path).name),
            "a name that ends in .png, .svg, .pdf or another kind of picture",
        )


@opened()
def draw_into(figure: Figure, path: str | Path | io.BytesIO) -> None:
    """Write `figure` into a file that is there for it, by its ending; what is tidy stays where it is.

    Parameters
    ----------
    figure : Figure
        The figure.
    path : path or BytesIO
        The file that is there for it; into a buffer goes a PNG.

    Returns
    -------
    None
        Nothing; the file is written.

    Raises
    ------
    InputError
        For an argument of another kind, unit or range; the message says which.

    Examples
    --------
    >>> from pathlib import Path
    >>> picture = Path("lap.png")
    >>> picture.touch()
    >>> draw_into(plot(history), picture)  # history of the demo: read_history("loaded_lap.csv")
    >>> picture.stat().st_size > 0
    True
    """
    if not isinstance(path, io.BytesIO):
        _asked_for(figure, path)
    engine = figure.get_layout_engine()
    figure.set_layout_engine(None)
    try:
        figure.savefig(path)
    finally:
        figure.set_layout_engine(engine)


def thinned(x: FloatArray, y: FloatArray, places: int = 3000) -> tuple[FloatArray, FloatArray]:
    """Lowest and highest of `y` in each of `places` pieces: the same picture from fewer points."""
    if x.size <= 4 * places:
        return x, y
    size = x.size // places
    blocks = y[: size * places].reshape(places, size)
    pick = np.sort(np.stack([blocks.argmin(axis=1), blocks.argmax(axis=1)], axis=1), axis=1)
    index = np.concatenate([(pick + size * np.arange(places)[:, None]).ravel(), np.arange(size * places, x.size)])
    return x[index], y[index]


class _PlainLogLocator(LogLocator):
    """Ticks at 1, 2 and 5 of each decade; where fewer than three are seen, at round steps."""

    def __init__(self) -> None:
        super().__init__(subs=(1.0, 2.0, 5.0))

    def tick_values(self, vmin: float, vmax: float) -> Any:
        found = np.asarray(super().tick_values(vmin, vmax))
        if int(((found >= vmin) & (found <= vmax)).sum()) >= FEWEST_TICKS:
            return found
        steps = MaxNLocator(nbins=6, steps=[1, 2, 2.5, 5, 10]).tick_values(vmin, vmax)
        return np.asarray(steps)[np.asarray(steps) > 0.0]


FEWEST_TICKS = 3


def plain_log_ticks(axis: Axis) -> None:
    """Ticks at 1, 2 and 5 of each decade, or at round steps where these are few, written as plain numbers."""
    axis.set_major_locator(_PlainLogLocator())
    axis.set_major_formatter(FuncFormatter(lambda value, _: f"{value:.6g}"))
    axis.set_minor_formatter(NullFormatter())


def share_axis(axes: Axes) -> None:
    """An axis of shares in percent from 0 to 100."""
    axes.set_xlim(0.0, 100.0)
    axes.set_xlabel("Share of the damage [%]")


def share_labels(axes: Axes, shares: FloatArray, heights: FloatArray, least: float = 1.0) -> None:
    """Shares in percent beside their bars, within those that are long."""
    for share, height in zip(shares, heights, strict=True):
        if share >= least:
            long = share > 70.0
            axes.annotate(
                f"{share:.0f} %",
                (share, height),
                xytext=(-6 if long else 5, 0),
                textcoords="offset points",
                ha="right" if long else "left",
                va="center",
                fontsize=12,
                color="white" if long else INK,
                gid=FIXED,
            )


def note(axes: Axes, text: str, x: float = 0.99, y: float = 0.97) -> None:
    """A remark in a corner of the axes, on a ground that keeps it readable."""
    axes.text(
        x,
        y,
        text,
        transform=axes.transAxes,
        ha="right",
        va="top",
        fontsize=12,
        bbox={"facecolor": "white", "edgecolor": "none", "alpha": 0.85, "pad": 3.0},
    )
