"""The one verb for looking: draw any result, history, table of cycles or curve."""

from __future__ import annotations

from functools import singledispatch
from typing import Any

from matplotlib.figure import Figure

from vivid_anvil.cracks import GrowthResult
from vivid_anvil.damage import LifeResult
from vivid_anvil.errors import InputError
from vivid_anvil.figures.cycles_figure import cycles_figure
from vivid_anvil.figures.growth_figure import growth_figure
from vivid_anvil.figures.history_figure import gated_figure, history_figure
from vivid_anvil.figures.life_figure import curve_figure, life_figure
from vivid_anvil.figures.matrix_figure import matrix_figure
from vivid_anvil.figures.overlay_figure import overlay_figure
from vivid_anvil.figures.style import styled
from vivid_anvil.figures.tail_figure import tail_figure
from vivid_anvil.histories import CycleMatrix, Cycles, GatedHistory, LoadHistory, TailFit
from vivid_anvil.materials import SNCurve
from vivid_anvil.units import UnitSystem


def plot(thing: Any, *, units: UnitSystem = "metric") -> Figure:
    """A figure of 1280x800 of a load history or several, cycles, a matrix, an S-N curve, a life or a growth result.

    `units` is "metric" or "us". Save it with `save_figure`. Raises InputError for a thing that has no figure.

    >>> from vivid_anvil.histories import rainflow
    >>> figure = plot(rainflow([0.0, 120.0, 20.0, 80.0, 0.0]))
    >>> len(figure.axes)
    2
    """
    with styled():
        return _draw(thing, units)


@singledispatch
def _draw(thing: object, units: UnitSystem) -> Figure:  # noqa: ARG001
    raise InputError(
        "plot",
        f"a {type(thing).__name__}",
        "a LoadHistory or a list of them, GatedHistory, Cycles, CycleMatrix, TailFit, SNCurve, LifeResult or GrowthResult",
        "Of a study result, plot one of its lives or growths.",
    )


_draw.register(LoadHistory, history_figure)
_draw.register(GatedHistory, gated_figure)
_draw.register(CycleMatrix, matrix_figure)
_draw.register(TailFit, tail_figure)
_draw.register(list, overlay_figure)
_draw.register(tuple, overlay_figure)
_draw.register(Cycles, cycles_figure)
_draw.register(SNCurve, curve_figure)
_draw.register(LifeResult, life_figure)
_draw.register(GrowthResult, growth_figure)
