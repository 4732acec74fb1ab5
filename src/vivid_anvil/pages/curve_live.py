"""S-N curves, and a life on its curve with its classes, to read values off."""

from __future__ import annotations

from collections.abc import Sequence
from typing import Any

import numpy as np

from vivid_anvil.damage import LifeResult
from vivid_anvil.figures.life_figure import headline
from vivid_anvil.figures.style import BLUE, GREEN, INK, LINES, ORANGE, RED
from vivid_anvil.ground.checks import FloatArray
from vivid_anvil.materials import SNCurve
from vivid_anvil.pages.live import Live, axes, graphs, named, new_live
from vivid_anvil.units import UnitSystem, display_unit, number, shown

SHORTEST, LONGEST, POINTS = 1e2, 1e10, 400
MOST_STEPS = 2_000


def curve_live(curve: SNCurve, units: UnitSystem = "metric") -> Live:
    """One S-N curve."""
    return curves_live([curve], units)


def curves_live(curves: Sequence[SNCurve], units: UnitSystem = "metric") -> Live:
    """S-N curves with their points, dotted where no test was; ranges and amplitudes each in a picture of their own."""
    from plotly.subplots import make_subplots

    kinds = [kind for kind in ("range", "amplitude") if any(curve.stress == kind for curve in curves)]
    figure = make_subplots(1, len(kinds), horizontal_spacing=0.1, figure=new_live())
    for col, kind in enumerate(kinds, 1):
        for i, curve in enumerate(curves):
            if curve.stress == kind:
                _curve(figure, curve, LINES[i % len(LINES)], units, row=1, col=col)
        label = f"Stress {kind} [{display_unit('stress', units)}]"
        axes(figure, "Life [cycles]", label, log_x=True, log_y=True, row=1, col=col)
    title = f"S-N curve {curves[0].name}" if len(curves) == 1 else f"{len(curves)} S-N curves"
    notes = tuple(f"{curve.name}: {curve.stress}, {curve.at_r}, basis {curve.basis}." for curve in curves)
    return Live(title, figure, notes)


def _curve(figure: Any, curve: SNCurve, colour: str, units: UnitSystem, **which: int) -> None:
    one = float(shown(1.0, "stress", units))
    unit = display_unit("stress", units)
    lives = np.unique(np.concatenate([np.geomspace(SHORTEST, LONGEST, POINTS), curve.point_lives]))
    stress = np.asarray(curve.stress_at(lives))
    there = np.isfinite(stress) & (stress > 0.0)
    tested = (lives >= curve.tested_from) & (lives <= curve.tested_to)
    hover = named([("", curve.name), ("", "%{x:.4g} cycles"), ("", f"%{{y:.5g}} {unit}")])
    for inside, dash in ((tested, "solid"), (~tested, "dot")):
        seen = there & (inside | np.append(inside[1:], False) | np.append(False, inside[:-1]))
        if (there & inside).any():
            figure.add_trace(
                graphs().Scatter(
                    x=lives,
                    y=np.where(seen, stress * one, np.nan),
                    mode="lines",
                    line={"color": colour, "width": 2.4 if dash == "solid" else 1.4, "dash": dash},
                    name=curve.name if dash == "solid" else f"{curve.name}, not tested",
                    showlegend=dash == "solid",
                    hovertemplate=hover,
                ),
                **which,
            )
    if curve.point_lives.size <= 24:
        figure.add_trace(
            graphs().Scatter(
                x=curve.point_lives,
                y=curve.point_stresses * one,
                mode="markers",
                marker={"symbol": "square-open", "size": 9, "color": colour},
                showlegend=False,
                hovertemplate=hover,
            ),
            **which,
        )


def life_live(result: LifeResult, units: UnitSystem = "metric") -> Live:
    """The curve with the exceedance of the counted cycles, and the share of the damage of each class beside it."""
    from plotly.subplots import make_subplots

    figure = make_subplots(
        1, 2, shared_yaxes=True, column_widths=[0.68, 0.32], horizontal_spacing=0.03, figure=new_live()
    )
    curve, unit = result.method.reference, display_unit(result.dimension, units)
    stress = shown(result.equivalent_stress, result.dimension, units)
    if curve is not None:
        _curve(figure, curve, INK, units, row=1, col=1)
    _exceeded(figure, result, stress, unit)
    words = result.stress_in_words
    label = f"{words[0].upper()}{words[1:]} [{unit}]"
    axes(figure, "Cycles", label, log_x=True, log_y=True, row=1, col=1)
    axes(figure, "Share of the damage [%]", "", log_y=True, row=1, col=2)
    _classes(figure, result, unit, units)
    if stress.size:
        levels = [float(stress.max())]
        levels += [] if curve is None else [float(shown(curve.limit, "stress", units))]
        low, high = min(one for one in levels if one > 0.0) / 5.0, 2.2 * max(levels)
        figure.update_yaxes(range=[float(np.log10(low)), float(np.log10(high))])
    notes = [f"Damage {number(result.damage_per_repeat)} a {result.duty_cycle.repeat}."]
    if curve is not None:
        notes.insert(0, f"S-N curve {curve.name}, basis: {curve.basis}.")
    return Live(f"{result.hot_spot.name.capitalize()}: {headline(result)}", figure, tuple(notes))


def _exceeded(figure: Any, result: LifeResult, stress: FloatArray, unit: str) -> None:
    """How often each stress is reached in the target, or in the life."""
    repeats = result.target_repeats or result.life_repeats
    if not np.isfinite(repeats):
        repeats = result.duty_cycle.repeats_per_year or 1.0
    if not stress.size:
        return
    order = np.argsort(-stress, kind="stable")
    passed = np.cumsum(result.spectrum.per_repeat[order]) * repeats
    pick = np.unique(np.round(np.geomspace(1, order.size, MOST_STEPS)).astype(np.int64)) - 1
    span = "the target life" if result.target_repeats else "the life"
    line = {"color": BLUE, "width": 2, "shape": "vh"}
    hover = named([("", "reached or passed %{x:.5g} times in " + span), ("", f"%{{y:.5g}} {unit}")])
    figure.add_trace(
        graphs().Scatter(
            x=passed[pick],
            y=stress[order][pick],
            mode="lines",
            line=line,
            name=f"exceedance in {span}",
            hovertemplate=hover,
        ),
        row=1,
        col=1,
    )
    if result.target_repeats is not None:
        cycles = float(result.spectrum.per_repeat.sum()) * result.target_repeats
        if cycles > 0.0:
            figure.add_vline(x=cycles, line={"color": GREEN, "dash": "dash"}, row=1, col=1)


def _classes(figure: Any, result: LifeResult, unit: str, units: UnitSystem) -> None:
    """The share of the damage of each class of equivalent stress."""
    edges = result.edges(units)
    shown_edges = shown(edges, result.dimension, units)
    classes = result.stress_classes(edges)
    low = np.maximum(shown_edges[:-1], 0.5 * shown_edges[1])
    worst = max(range(len(classes)), key=lambda i: classes[i].share)
    for i, one in enumerate(classes):
        share, bottom, top = 100.0 * one.share, float(low[i]), float(shown_edges[i + 1])
        told = [
            f"{number(float(shown_edges[i]))} to {number(top)} {unit}",
            f"{number(one.cycles, 5)} cycles a {result.duty_cycle.repeat}",
            f"damage {number(one.damage)}, {number(share)} %",
        ]
        figure.add_trace(
            graphs().Scatter(
                x=[0.0, share, share, 0.0, 0.0],
                y=[bottom, bottom, top, top, bottom],
                mode="lines",
                fill="toself",
                fillcolor=RED if i == worst and share else ORANGE,
                line={"color": "white", "width": 1},
                hoveron="fills",
                text="<br>".join(told),
                hoverinfo="text",
                showlegend=False,
            ),
            row=1,
            col=2,
        )
