"""Flaws in the failure assessment diagram, to point at."""

from __future__ import annotations

import math
from typing import Any

import numpy as np

from vivid_anvil.acceptance import FlawAssessment, FlawGrowth, FlawList
from vivid_anvil.figures.flaw_figures import FAR, group_of, headline_of_growth, ray_of
from vivid_anvil.figures.style import BLUE, GREEN, INK, ORANGE, RED
from vivid_anvil.materials.fracture import AssessmentCurve
from vivid_anvil.pages.live import Live, axes, graphs, named, new_live
from vivid_anvil.units import UnitSystem, display_unit, in_unit, number, shown

GROUPS = {"not acceptable": RED, "to be looked at": ORANGE, "acceptable": GREEN}


def flaw_live(found: FlawAssessment, units: UnitSystem = "metric") -> Live:  # noqa: ARG001 (ratios)
    """Both ends of a flaw in the diagram, the ray of the primary load, the reserves in words."""
    figure = new_live()
    _curve(figure, found.curve)
    ray = ray_of(found)
    if ray is not None:
        words = f"primary load grows: {number(found.reserve_on_load.factor, 3)} times at the curve"
        line = {"color": BLUE, "dash": "dash"}
        figure.add_trace(graphs().Scatter(x=ray[0], y=ray[1], mode="lines", line=line, name=words, hoverinfo="skip"))
    own = found.point
    for end in own.ends:
        governs = end.name == own.governing.name
        colour = (GREEN if own.acceptable else RED) if governs else "#77808a"
        figure.add_trace(
            graphs().Scatter(
                x=[own.load_ratio],
                y=[end.fracture_ratio],
                mode="markers+text",
                text=[end.name],
                textposition="middle right",
                marker={"size": 14 if governs else 9, "color": colour},
                name=end.name,
                hovertemplate=named([("", end.name), ("L_r", "%{x:.4g}"), ("K_r", "%{y:.4g}")]),
                showlegend=False,
            )
        )
    _finished(figure, found.curve, [own.load_ratio], [end.fracture_ratio for end in own.ends])
    notes = [
        f"Reserve on {one.on}: {'not limited' if math.isinf(one.factor) else number(one.factor, 4)}."
        for one in found.reserves
    ]
    return Live(f"Flaw {found.flaw.name}: {found.verdict}", figure, tuple(notes))


def flaw_growth_live(found: FlawGrowth, units: UnitSystem = "metric") -> Live:
    """The path of a growing flaw in the diagram, with year and sizes at each point."""
    figure = new_live()
    _curve(figure, found.assessment.curve)
    points = found.path
    names, told = found.assessment.flaw.shape.sizes, []
    for year, _ in points:
        sizes = (in_unit(float(one), "length", units) for one in np.atleast_1d(found.sizes_at(year)))
        told.append(
            f"{number(year)} years<br>" + "<br>".join(f"{name} {size}" for name, size in zip(names, sizes, strict=True))
        )
    x = [point.load_ratio for _, point in points]
    y = [point.governing.fracture_ratio for _, point in points]
    figure.add_trace(
        graphs().Scatter(
            x=x,
            y=y,
            mode="lines+markers",
            line={"color": RED, "width": 2},
            marker={"size": 6},
            text=told,
            name="path of the flaw",
            hovertemplate=named([("", "%{text}"), ("L_r", "%{x:.4g}"), ("K_r", "%{y:.4g}")]),
        )
    )
    _finished(figure, found.assessment.curve, x, y)
    return Live(f"Flaw {found.assessment.flaw.name}: {headline_of_growth(found)}", figure)


def flaws_live(found: FlawList, units: UnitSystem = "metric") -> Live:
    """All flaws of a list; each tells its name, sizes, verdict, reserve and life."""
    figure = new_live()
    curves = {one.assessment.curve.words: one.assessment.curve for one in found.flaws}
    for curve in curves.values():
        _curve(figure, curve)
    for words, colour in GROUPS.items():
        rows = [one for one in found.flaws if group_of(one) == words]
        if rows:
            figure.add_trace(
                graphs().Scatter(
                    x=[one.assessment.point.load_ratio for one in rows],
                    y=[one.assessment.point.governing.fracture_ratio for one in rows],
                    mode="markers+text" if len(found.flaws) <= 40 else "markers",
                    text=[one.name for one in rows],
                    textposition="top right",
                    hovertext=[_told(one, units) for one in rows],
                    hovertemplate="%{hovertext}<br><b>L_r</b> %{x:.4g}<br><b>K_r</b> %{y:.4g}<extra></extra>",
                    marker={"size": 11, "color": colour},
                    name=words,
                )
            )
    points = [one.assessment.point for one in found.flaws]
    if curves:
        widest = max(curves.values(), key=lambda one: one.largest_load_ratio)
        _finished(figure, widest, [p.load_ratio for p in points], [p.governing.fracture_ratio for p in points])
    return Live(f"{found.name}: {len(found.flaws)} flaws, {len(found.rejected)} not acceptable", figure)


def _told(one: Any, units: UnitSystem) -> str:
    """What is known of a flaw, in lines."""
    flaw = one.assessment.flaw
    lines = [f"<b>{one.name}</b> {one.verdict}", f"{flaw.shape.kind} flaw"]
    for name, size in zip(flaw.shape.sizes, flaw.sizes, strict=True):
        lines.append(f"{name} {number(float(shown(size, 'length', units)))} {display_unit('length', units)}")
    lines.append(f"reserve on load {number(one.assessment.reserve_on_load.factor, 3)}")
    if one.growth is not None:
        lines.append(
            "no end within its stages" if math.isinf(one.growth.life) else f"life {number(one.growth.life)} years"
        )
    return "<br>".join(lines)


def _curve(figure: Any, curve: AssessmentCurve) -> None:
    """The curve down to its cut-off, what is acceptable below it."""
    end = curve.largest_load_ratio
    ratios = np.unique(np.concatenate([np.linspace(0.0, end, 300), [one for one in curve.kinks if one < end]]))
    x, y = [*ratios, end], [*curve.at(ratios), 0.0]
    hover = named([("L_r", "%{x:.4g}"), ("K_r", "%{y:.4g}")])
    look = {"line": {"color": INK, "width": 2}, "fill": "tozeroy", "fillcolor": "rgba(185,203,220,0.3)"}
    figure.add_trace(graphs().Scatter(x=x, y=y, mode="lines", name=curve.words, hovertemplate=hover, **look))


def _finished(figure: Any, curve: AssessmentCurve, x: list[float], y: list[float]) -> None:
    axes(figure, "Load ratio L<sub>r</sub> [-]", "Fracture ratio K<sub>r</sub> [-]")
    figure.update_xaxes(range=[0.0, max(1.15 * curve.largest_load_ratio, min(1.1 * max(x), FAR))])
    figure.update_yaxes(range=[0.0, max(1.2, min(1.1 * max(y), FAR))])
