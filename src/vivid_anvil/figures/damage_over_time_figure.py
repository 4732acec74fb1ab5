"""When the life is spent: the damage built up over the history of an event; and where in range and mean it lies."""

from __future__ import annotations

import numpy as np
from matplotlib.colors import LogNorm
from matplotlib.figure import Figure

from vivid_anvil.damage import DamageMatrix, DamageOverTime
from vivid_anvil.figures.style import BLUE, PALE, new_figure, note
from vivid_anvil.units import UnitSystem, display_unit, number, shown


def over_time_figure(built: DamageOverTime, units: UnitSystem = "metric") -> Figure:  # noqa: ARG001 (shares and seconds)
    """The figure of damage over time."""
    figure = new_figure(f"{built.event.capitalize()}: when the damage is done")
    axes = figure.subplots()
    axes.set_xlabel("Time in the event [s]")
    axes.set_ylabel("Share of the damage of the event [%]")
    end = float(built.damage[-1]) if built.damage.size else 0.0
    axes.set_ylim(0.0, 105.0)
    if end == 0.0:
        note(axes, "No damage", x=0.55, y=0.55)
        return figure
    share = 100.0 * built.damage / end
    axes.step(built.time, share, where="post", color=BLUE, lw=2.4)
    axes.fill_between(built.time, share, step="post", color=PALE, alpha=0.5, lw=0)
    jumps = np.diff(share, prepend=0.0)
    for i in np.argsort(-jumps)[:3]:
        if jumps[i] >= 5.0:
            text = f"{number(jumps[i], 2)} % at {number(float(built.time[i]), 5)} s"
            axes.annotate(
                text, (built.time[i], share[i]), xytext=(-8, 6), textcoords="offset points", ha="right", fontsize=12
            )
    note(axes, f"{number(end)} a repeat", x=0.3, y=0.97)
    return figure


def damage_matrix_figure(matrix: DamageMatrix, units: UnitSystem = "metric") -> Figure:
    """The figure of a damage matrix."""
    figure = new_figure("Damage over range and mean of the cycles")
    axes = figure.subplots()
    unit, of = display_unit(matrix.dimension, units), matrix.dimension
    axes.set_xlabel(f"Mean {of} [{unit}]")
    axes.set_ylabel(f"Local {of} range [{unit}]")
    share = matrix.damage / (matrix.damage.sum() or 1.0)
    if not share.any():
        note(axes, "No damage", x=0.55, y=0.55)
        return figure
    one = float(shown(1.0, matrix.dimension, units))
    drawn = axes.pcolormesh(
        matrix.mean_edges * one,
        matrix.range_edges * one,
        np.ma.masked_less(share, 1e-6),
        norm=LogNorm(1e-6, 1.0),
        cmap="YlOrBr",
    )
    axes.grid(visible=False)
    figure.colorbar(drawn, ax=axes, label="Share of the damage")
    row, column = np.unravel_index(int(share.argmax()), share.shape)
    place = (0.5 * (matrix.mean_edges[column] + matrix.mean_edges[column + 1]) * one, matrix.range_edges[row + 1] * one)
    axes.annotate(f"{share.max():.0%}", place, xytext=(0, 4), textcoords="offset points", ha="center", fontsize=12)
    return figure
