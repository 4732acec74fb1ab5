"""Flaws over their looks, what moves a verdict, indications as they become a flaw, a crack front in the diagram."""

from __future__ import annotations

import textwrap

import numpy as np
from matplotlib.axes import Axes
from matplotlib.figure import Figure
from matplotlib.patches import Rectangle

from vivid_anvil.acceptance import Characterised, FlawLooks, FrontAssessment, Sensitivity
from vivid_anvil.figures.flaw_figures import along_front, finished, the_curve, told
from vivid_anvil.figures.style import BLUE, GREEN, INK, ORANGE, PALE, RED, new_figure
from vivid_anvil.units import UnitSystem, display_unit, number, shown

GREY = "#77808a"


def looks_figure(found: FlawLooks, units: UnitSystem = "metric") -> Figure:
    """Expected sizes at each look, and the largest that may be left."""
    figure = new_figure(f"{found.title}: {found.verdict}")
    names = found.growth.assessment.flaw.shape.sizes
    unit = display_unit("length", units)
    times = [look.years for look in found.looks]
    for j, axes in enumerate(np.atleast_1d(figure.subplots(1, len(names)))):
        sizes = shown(np.array([look.sizes[j] for look in found.looks]), "length", units)
        most = shown(np.array([look.largest[j] if look.largest else np.nan for look in found.looks]), "length", units)
        axes.plot(times, most, "s-", color=GREEN, lw=2.0, ms=6, label="largest that may be left")
        axes.plot(times, sizes, "o-", color=BLUE, lw=2.0, ms=6, label="expected")
        gone = [i for i, look in enumerate(found.looks) if not look.may_stay]
        if gone:
            axes.plot(
                [times[i] for i in gone], [sizes[i] for i in gone], "x", color=RED, ms=11, mew=2.5, label="repair"
            )
        axes.set_xlabel("Time [years]")
        axes.set_ylabel(f"{names[j][:1].upper()}{names[j][1:]} [{unit}]")
        axes.set_ylim(bottom=0.0)
        axes.legend(loc="best")
    return figure


def sensitivity_figure(found: Sensitivity, units: UnitSystem = "metric") -> Figure:  # noqa: ARG001
    """What is left under the curve with each input changed, the one that takes most at the top."""
    figure = new_figure(f"{found.title}: {found.moved[0].what}")
    axes = figure.subplots()
    rows = found.moved[::-1]
    for i, row in enumerate(rows):
        axes.barh(i, row.room, color=GREEN if row.room >= 0.0 else RED, height=0.6)
        axes.text(max(row.room, found.room, 0.0), i, f"  {number(row.room, 3)}", va="center", fontsize=11)
    axes.axvline(found.room, color=INK, lw=1.4, ls="--", label=f"as it is: {number(found.room, 3)}")
    axes.axvline(0.0, color=INK, lw=1.2)
    axes.set_yticks(range(len(rows)), [row.what for row in rows])
    ends = [*(row.room for row in rows), found.room, 0.0]
    spread = max(ends) - min(ends)
    axes.set_xlim(min(ends) - 0.05 * spread, max(ends) + 0.22 * spread)
    axes.set_ylim(-0.6, len(rows) + 0.2)
    axes.grid(visible=False, axis="y")
    axes.set_xlabel(f"Room under the curve f(L_r) - K_r, each input {found.change:.0%} to the unsafe side [-]")
    axes.legend(loc="upper right")
    return figure


def characterised_figure(found: Characterised, units: UnitSystem = "metric") -> Figure:
    """Indications as they were reported, the flaw that they became, and the rules in words."""
    many = f" of {len(found.of)} indications" if len(found.of) > 1 else ""
    figure = new_figure(f"Flaw {found.flaw.name}{many}")
    above, below = figure.subplots(2, 1, height_ratios=(2.2, 1.0))
    _in_the_wall(above, found, units)
    rules = found.rules or ("taken as it was reported",)
    lines = [
        line for i, rule in enumerate(rules, 1) for line in textwrap.wrap(f"{i}. {rule}", 110, subsequent_indent="    ")
    ]
    below.axis("off")
    below.text(0.0, 1.0, "\n".join(lines), va="top", fontsize=13, transform=below.transAxes)
    return figure


def _in_the_wall(axes: Axes, found: Characterised, units: UnitSystem) -> None:
    flaw, middle = found.flaw, found.position or 0.0
    wall = flaw.shape.wall_thickness or 2.0 * flaw.size
    half = flaw.half_length or flaw.size
    reach = max([half, *(abs((one.position or 0.0) - middle) + 0.5 * one.length for one in found.found)])

    def out(value: float) -> float:
        return float(shown(value, "length", units))

    axes.add_patch(Rectangle((out(middle - 1.5 * reach), 0.0), out(3.0 * reach), out(wall), color=PALE, lw=0))
    _flaw(axes, found, middle, wall, out)
    for i, one in enumerate(found.found):
        height, top = one.height or wall, one.ligament or 0.0
        left = (one.position if one.position is not None else middle) - 0.5 * one.length
        axes.add_patch(
            Rectangle(
                (out(left), out(top)),
                out(one.length),
                out(height),
                fill=False,
                ec=INK,
                lw=2.0,
                ls="--",
                label="as reported" if i == 0 else None,
            )
        )
        axes.text(out(left + 0.5 * one.length), out(-0.03 * wall), one.name, ha="center", va="bottom", fontsize=12)
    axes.set_xlim(out(middle - 1.5 * reach), out(middle + 1.5 * reach))
    axes.set_ylim(out(1.02 * wall), out(-0.16 * wall))
    axes.grid(visible=False)
    axes.set_xlabel(f"Along the line of flaws [{display_unit('length', units)}]")
    axes.set_ylabel(f"Depth [{display_unit('length', units)}]")
    axes.legend(loc="lower right")


def _flaw(axes: Axes, found: Characterised, middle: float, wall: float, out: object) -> None:
    """The flaw that is assessed."""
    scale = out(1.0)  # type: ignore[operator]
    flaw = found.flaw
    words = {"color": RED, "alpha": 0.75, "lw": 0, "label": "as assessed"}
    if flaw.half_length is None:
        axes.add_patch(Rectangle(((middle - flaw.size) * scale, 0.0), 2.0 * flaw.size * scale, wall * scale, **words))  # type: ignore[arg-type]
        return
    centre = float(getattr(flaw.shape, "_cover", 0.0))
    turns = np.linspace(0.0, np.pi if centre == 0.0 else 2.0 * np.pi, 200)  # of a surface flaw the half in the wall
    x, y = middle + flaw.half_length * np.cos(turns), centre + flaw.size * np.sin(turns)
    axes.fill(x * scale, y * scale, **words)  # type: ignore[arg-type]


def assessed_front_figure(found: FrontAssessment, units: UnitSystem = "metric") -> Figure:
    """K along the front, and its worst position in the diagram."""
    figure = new_figure(f"{found.title}: {found.verdict}")
    left, right = figure.subplots(1, 2, width_ratios=(1.1, 1.0))
    along_front(left, found.front, units)
    point, curve = found.point, found.metal.assessment_curve
    the_curve(right, curve)
    own = point.governing.fracture_ratio
    factor = found.reserve_on_load.factor
    if np.isfinite(factor):
        far = max(factor, 1.0)
        right.plot([0.0, far * point.load_ratio], [0.0, far * own], color=ORANGE, lw=1.6, label="load grows")
    right.plot(point.load_ratio, own, "o", ms=11, color=GREEN if point.acceptable else RED, zorder=5)
    told(right, point.governing.name, point.load_ratio, own, GREY)
    finished(right, curve, [point.load_ratio], [own])
    return figure
