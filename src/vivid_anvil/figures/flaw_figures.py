"""Flaws: the assessment diagram with point, ray and path, the wall to scale, limiting and allowable sizes, growth by stages."""

from __future__ import annotations

import math
from collections.abc import Sequence

import numpy as np
from matplotlib.axes import Axes
from matplotlib.figure import Figure
from matplotlib.patches import Ellipse, Rectangle

from vivid_anvil.acceptance import (
    AllowableFlaws,
    CrackFront,
    FlawAssessment,
    FlawGrowth,
    FlawList,
    LimitingSizes,
    Tearing,
)
from vivid_anvil.acceptance.point import point_of
from vivid_anvil.events.calendar import amount
from vivid_anvil.figures.style import BLUE, GREEN, INK, LINES, ORANGE, PALE, PLUM, RED, new_figure
from vivid_anvil.ground.checks import FloatArray
from vivid_anvil.materials.fracture import AssessmentCurve
from vivid_anvil.units import UnitSystem, display_unit, in_unit, number, shown

FAR = 4.0  # times the cut-off: points beyond are drawn at the edge


def flaw_figure(found: FlawAssessment, units: UnitSystem = "metric") -> Figure:
    """The diagram with both ends of the flaw and the ray of the load; the wall with the flaw to scale; the reserves."""
    figure = new_figure(f"Flaw {found.flaw.name}: {found.verdict}")
    grid = figure.add_gridspec(2, 2, width_ratios=(1.6, 1.0), height_ratios=(1.3, 1.0))
    diagram = figure.add_subplot(grid[:, 0])
    the_curve(diagram, found.curve)
    _ray(diagram, found)
    _ends(diagram, found)
    finished(diagram, found.curve, [found.point.load_ratio], [end.fracture_ratio for end in found.point.ends])
    _wall(figure.add_subplot(grid[0, 1]), found, units)
    _reserves(figure.add_subplot(grid[1, 1]), found)
    return figure


def the_curve(axes: Axes, curve: AssessmentCurve, label: str = "") -> None:
    """The curve down to its cut-off, what is acceptable below it."""
    end = curve.largest_load_ratio
    ratios = np.unique(np.concatenate([np.linspace(0.0, end, 400), [one for one in curve.kinks if one < end]]))
    heights = curve.at(ratios)
    axes.plot([*ratios, end], [*heights, 0.0], color=INK, lw=2.0, label=label or curve.words)
    axes.fill_between(ratios, heights, color=PALE, alpha=0.35, lw=0)


def _ray(axes: Axes, found: FlawAssessment) -> None:
    """Where the governing end goes as the primary load grows, to where it meets the curve."""
    ray = ray_of(found)
    if ray is None:
        return
    words = f"primary load grows: {number(found.reserve_on_load.factor, 3)} times at the curve"
    axes.plot(*ray, color=BLUE, lw=1.4, ls="--", label=words)
    meets = found.under_load(found.reserve_on_load.factor)
    met = point_of(meets, found.curve, found.toughness, found.loads.way, found.flaw.shape.end_names)
    axes.plot(met.load_ratio, met.governing.fracture_ratio, "o", ms=7, mfc="white", mec=BLUE, mew=1.8)


def ray_of(found: FlawAssessment) -> tuple[FloatArray, FloatArray] | None:
    """Load and fracture ratio of the governing end as the primary load grows to the curve; None where it never meets it."""
    reserve = found.reserve_on_load.factor
    if not 0.0 < reserve < math.inf:
        return None
    at = [end.name for end in found.point.ends].index(found.point.governing.name)
    rows = []
    for factor in np.linspace(0.0, max(reserve, 1.0), 80):
        terms = found.under_load(float(factor))
        point = point_of(terms, found.curve, found.toughness, found.loads.way, found.flaw.shape.end_names)
        rows.append((point.load_ratio, point.ends[at].fracture_ratio))
    x, y = np.array(rows).T
    return x, y


def _ends(axes: Axes, found: FlawAssessment) -> None:
    own = found.point
    for end in own.ends:
        governs = end.name == own.governing.name
        colour = (GREEN if own.acceptable else RED) if governs else "#77808a"
        axes.plot(own.load_ratio, end.fracture_ratio, "o", ms=11 if governs else 7, color=colour, zorder=5)
        told(axes, end.name, own.load_ratio, end.fracture_ratio, colour)


def told(axes: Axes, text: str, x: float, y: float, colour: str = INK) -> None:
    """A word beside its point."""
    axes.annotate(text, (x, y), xytext=(9, 5), textcoords="offset points", color=colour, fontsize=11)


def finished(axes: Axes, curve: AssessmentCurve, x: Sequence[float], y: Sequence[float]) -> None:
    """Limits that show the curve and the points, labels, legend."""
    axes.set_xlim(0.0, max(1.12 * curve.largest_load_ratio, min(1.08 * max(x), FAR)))
    axes.set_ylim(0.0, max(1.2, min(1.1 * max(y), FAR)))
    axes.set_xlabel("Load ratio L_r [-]")
    axes.set_ylabel("Fracture ratio K_r [-]")
    axes.legend(loc="upper right")


def _wall(axes: Axes, found: FlawAssessment, units: UnitSystem) -> None:
    """A piece of the wall with the flaw in it, both directions to one scale."""
    shape, sizes = found.flaw.shape, found.flaw.sizes
    one = 1.0 / float(shown(1.0, "length", units)) if units == "us" else 1.0
    unit = display_unit("length", units)
    wall = shape.wall_thickness or 2.0 * sizes[0]
    a, c = sizes[0], sizes[-1]
    depth = float(getattr(shape, "_cover", 0.0))
    room = max(1.6 * c, 0.8 * wall)
    axes.add_patch(Rectangle((-room / one, 0.0), 2.0 * room / one, wall / one, color=PALE, lw=0))
    if len(sizes) == 1:
        axes.add_patch(Rectangle((-c / one, 0.0), 2.0 * c / one, wall / one, color=RED, lw=0))
    elif depth > 0.0:
        axes.add_patch(Ellipse((0.0, depth / one), 2.0 * c / one, 2.0 * a / one, color=RED, lw=0))
    else:
        axes.add_patch(Ellipse((0.0, 0.0), 2.0 * c / one, 2.0 * a / one, color=RED, lw=0))
        axes.add_patch(Rectangle((-room / one, -1.05 * a / one), 2.0 * room / one, 1.05 * a / one, color="white", lw=0))
    axes.set_xlim(-room / one, room / one)
    axes.set_ylim(1.02 * wall / one, -0.06 * wall / one)
    axes.set_aspect("equal", adjustable="box")
    axes.grid(visible=False)
    axes.set_xlabel(f"Along the flaw [{unit}]")
    axes.set_ylabel(f"Depth [{unit}]")
    axes.set_title(
        "The flaw in the wall" if shape.wall_thickness else "The flaw, of a wall that the shape does not know"
    )


def _reserves(axes: Axes, found: FlawAssessment) -> None:
    reserves = found.reserves[::-1]
    largest = max([one.factor for one in reserves if math.isfinite(one.factor)], default=1.0)
    end = 1.35 * max(largest, 1.2)
    for i, own in enumerate(reserves):
        length = min(own.factor, end)
        axes.barh(i, length, color=GREEN if own.factor >= 1.0 else RED, height=0.6)
        if math.isinf(own.factor):
            continue
        beside = 1.0 if 0.7 < own.factor < 1.0 else length  # not under the line of 1
        axes.text(beside + 0.015 * end, i, number(own.factor, 3), va="center", fontsize=11)
    axes.axvline(1.0, color=INK, lw=1.2)
    words = [f"{own.on}, not limited" if math.isinf(own.factor) else own.on for own in reserves]
    axes.set_yticks(range(len(reserves)), words)
    axes.set_xlim(0.0, end)
    axes.grid(visible=False, axis="y")
    axes.set_xlabel("Reserve [-]")
    axes.set_title("Reserves, 1 is just enough")


def flaw_growth_figure(found: FlawGrowth, units: UnitSystem = "metric") -> Figure:
    """Sizes over the years by stage, and the path in the diagram marked by years."""
    flaw = found.assessment.flaw
    figure = new_figure(f"Flaw {flaw.name}: {headline_of_growth(found)}")
    left, right = figure.subplots(1, 2, width_ratios=(1.1, 1.0))
    _over_years(left, found, units)
    _path(right, found)
    return figure


def headline_of_growth(found: FlawGrowth) -> str:
    """How long it lasts, and what ends it."""
    if math.isinf(found.life):
        return "no end within its stages"
    return f"{amount(found.life, 'year')} to the {found.governed_by}"


def _over_years(axes: Axes, found: FlawGrowth, units: UnitSystem) -> None:
    years, sizes, names = found.course
    unit, shape = display_unit("length", units), found.assessment.flaw.shape
    for j, name in enumerate(shape.sizes):
        values = shown(sizes[:, j], "length", units)
        axes.plot(years, values, color=LINES[j], label=name, lw=2.0)
    seen: list[str] = []
    top = float(np.max(shown(sizes, "length", units)))
    for i, stage in enumerate(names):
        if stage not in seen:
            seen.append(stage)
            if len(set(names)) > 1:
                axes.axvline(years[i], color="#77808a", lw=1.0, ls=":")
                told(axes, stage, years[i], top)
    axes.set_xlim(0.0, max(float(years[-1]) * 1.02, 1e-6))
    axes.set_ylim(0.0, 1.08 * top)
    axes.set_xlabel("Time [years]")
    axes.set_ylabel(f"Size [{unit}]")
    axes.set_title("Growth")
    axes.legend(loc="upper left")


def _path(axes: Axes, found: FlawGrowth) -> None:
    the_curve(axes, found.assessment.curve)
    points = found.path
    x = [point.load_ratio for _, point in points]
    y = [point.governing.fracture_ratio for _, point in points]
    axes.plot(x, y, color=RED, lw=2.0, label="path of the flaw")
    axes.plot(x[0], y[0], "o", ms=8, color=GREEN if points[0][1].acceptable else RED, zorder=5)
    for year in _marks(points[-1][0]):
        at = found.point_at(found.sizes_at(year))
        axes.plot(at.load_ratio, at.governing.fracture_ratio, "o", ms=5, color=RED)
        words = f"{year:g} years" if year != 1.0 else "1 year"
        told(axes, words, at.load_ratio, at.governing.fracture_ratio)
    finished(axes, found.assessment.curve, x, y)
    axes.set_title("Its path in the assessment diagram")


def _marks(end: float) -> FloatArray:
    """Some four round times to the end."""
    if not end > 0.0:
        return np.empty(0)
    step = 10.0 ** math.floor(math.log10(end / 2.0))
    for times in (1.0, 2.0, 5.0, 10.0):
        if end / (times * step) <= 5.0:
            step *= times
            break
    return np.arange(step, end * (1.0 - 1e-9), step)


def limiting_figure(found: LimitingSizes, units: UnitSystem = "metric") -> Figure:
    """Limiting depth over half length, a curve a case, with the flaw that is there."""
    figure = new_figure(f"Limiting sizes of {found.flaw.shape.kind} flaws")
    axes = figure.subplots()
    unit = display_unit("length", units)
    for colour, curve in zip(LINES, found.curves, strict=False):
        if len(found.flaw.sizes) == 1:
            axes.axhline(float(shown(curve.depths[0], "length", units)), color=colour, lw=2.0, label=curve.case)
            continue
        order = np.argsort(curve.half_lengths)
        x, y = (shown(one[order], "length", units) for one in (curve.half_lengths, curve.depths))
        axes.plot(x, y, "o-", color=colour, ms=4, lw=2.0, label=f"limit, {curve.case}")
    size, half = (float(shown(one, "length", units)) for one in (found.flaw.sizes[0], found.flaw.sizes[-1]))
    axes.plot(half, size, "D", ms=9, color=RED, zorder=5, label=f"flaw {found.flaw.name}")
    axes.set_xlim(left=0.0)
    axes.set_ylim(bottom=0.0)
    axes.set_xlabel(f"Half length [{unit}]")
    axes.set_ylabel(f"{found.flaw.shape.size_means[:1].upper()}{found.flaw.shape.size_means[1:]} [{unit}]")
    axes.legend(loc="best")
    return figure


def allowable_figure(found: AllowableFlaws, units: UnitSystem = "metric") -> Figure:
    """The depth that may be left over the aspect, with the flaw that is there."""
    figure = new_figure(found.title)
    axes = figure.subplots()
    unit = display_unit("length", units)
    depths = shown(found.depths, "length", units)
    axes.plot(found.aspects, depths, "o-", color=BLUE, ms=5, lw=2.0, label=f"lives {number(found.target)} years")
    axes.fill_between(found.aspects, depths, color=PALE, alpha=0.35, lw=0)
    a, c = found.flaw.sizes
    axes.plot(a / c, float(shown(a, "length", units)), "D", ms=9, color=RED, zorder=5, label=f"flaw {found.flaw.name}")
    axes.set_xlim(0.0, max(1.05, 1.05 * a / c))
    axes.set_ylim(bottom=0.0)
    axes.set_xlabel("Aspect a/c [-]")
    axes.set_ylabel(f"Depth [{unit}]")
    axes.legend(loc="upper left")
    return figure


def flaws_figure(found: FlawList, units: UnitSystem = "metric") -> Figure:  # noqa: ARG001
    """All flaws of a list in the diagram; the curve of the most urgent one, and of others where they differ."""
    figure = new_figure(f"{found.name}: {len(found.flaws)} flaws, {len(found.rejected)} not acceptable")
    axes = figure.subplots()
    curves = {one.assessment.curve.words: one.assessment.curve for one in found.flaws}
    for words, curve in curves.items():
        the_curve(axes, curve, words)
    x = [one.assessment.point.load_ratio for one in found.flaws]
    y = [one.assessment.point.governing.fracture_ratio for one in found.flaws]
    groups = {"not acceptable": RED, "to be looked at": ORANGE, "acceptable": GREEN}
    for words, colour in groups.items():
        rows = [i for i, one in enumerate(found.flaws) if group_of(one) == words]
        if rows:
            axes.plot([x[i] for i in rows], [y[i] for i in rows], "o", ms=8, color=colour, label=words, zorder=5)
    for i in range(min(len(found.flaws), 12)):
        told(axes, found.flaws[i].name, x[i], y[i])
    if curves:
        finished(axes, max(curves.values(), key=lambda one: one.largest_load_ratio), x, y)
    return figure


def group_of(one: object) -> str:
    """What is said of a flaw in a picture of many: its verdict without its reasons."""
    verdict: str = one.verdict  # type: ignore[attr-defined]
    return "to be looked at" if verdict.startswith("look") else verdict


def tearing_figure(found: Tearing, units: UnitSystem = "metric") -> Figure:
    """Reserve on load over the amount of tearing."""
    figure = new_figure(f"{found.title}: {number(found.largest, 3)} × load at the most")
    axes = figure.subplots()
    unit = display_unit("length", units)
    torn = shown(found.torn, "length", units)
    axes.plot(torn, found.factor, color=BLUE, lw=2.0)
    top = int(found.factor.argmax())
    axes.plot(torn[[0, top]], found.factor[[0, top]], "o", color=RED, ms=7)
    told(axes, "initiation", torn[0], found.factor[0])
    told(axes, "instability", torn[top], found.factor[top])
    axes.set_xlabel(f"Tearing [{unit}]")
    axes.set_ylabel("Reserve on load [-]")
    axes.set_title(f"Toughness at initiation {in_unit(float(found.toughness[0]), 'stress intensity', units)}")
    return figure


def front_figure(found: CrackFront, units: UnitSystem = "metric") -> Figure:
    """K along the front: the mean, each contour, what is not trusted."""
    figure = new_figure(f"{found.title}: worst at {found.said(found.worst, units)}")
    along_front(figure.subplots(), found, units)
    return figure


def along_front(axes: Axes, found: CrackFront, units: UnitSystem) -> None:
    """The same on axes."""
    unit = display_unit("stress intensity", units)
    places = np.degrees(found.positions) if found.angular else shown(found.positions, "length", units)
    rows = found.contour_k
    for i in range(rows.shape[1]):
        first = i == 0
        words = "contour 1, left out" if first else ("other contours" if i == 1 else None)
        colour = "#77808a" if first else PALE
        axes.plot(
            places,
            shown(rows[:, i], "stress intensity", units),
            color=colour,
            lw=1.2,
            ls=":" if first else "-",
            label=words,
        )
    axes.plot(places, shown(found.k_effective, "stress intensity", units), color=BLUE, lw=2.0, label="effective K")
    for other, colour in (("K_II", ORANGE), ("K_III", PLUM)):
        if other in found.contours:
            axes.plot(places, shown(found.mean(other), "stress intensity", units), color=colour, label=other)
    doubtful = ~found.trusted
    if doubtful.any():
        values = shown(found.k_effective, "stress intensity", units)
        axes.plot(places[doubtful], values[doubtful], "x", color=RED, ms=9, mew=2.0, label="not trusted")
    at = found.worst
    axes.plot(
        places[at],
        float(shown(found.k_effective[at], "stress intensity", units)),
        "o",
        ms=9,
        color=GREEN,
        label="worst",
    )
    axes.set_xlabel("Angle [°]" if found.angular else f"Along the front [{display_unit('length', units)}]")
    axes.set_ylabel(f"K [{unit}]")
    axes.legend(loc="best")
