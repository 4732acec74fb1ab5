"""S-N curves: one with its knees and ends named, or several side by side, with test points on request."""

from __future__ import annotations

from collections.abc import Mapping, Sequence
from dataclasses import dataclass
from typing import Any

import numpy as np
from matplotlib.axes import Axes
from matplotlib.figure import Figure

from vivid_anvil.figures.style import BLUE, GREEN, INK, ORANGE, PLUM, RED, new_figure, note, plain_log_ticks
from vivid_anvil.ground.checks import FloatArray
from vivid_anvil.ground.errors import InputError
from vivid_anvil.materials import SNCurve, SpecimenSeries, describe
from vivid_anvil.units import UnitSystem, display_unit, in_unit, number, shown

SHORTEST, LONGEST, FAR = 1e3, 1e9, 3e8
_COLOURS = (INK, RED, BLUE, ORANGE, GREEN, PLUM)
_DASHES = (0, (1.5, 2.5))  # beyond what was tested
_STYLES: tuple[Any, ...] = (
    "-",
    (0, (9, 2)),
    (0, (5, 2)),
    (0, (9, 2, 2, 2)),
    (0, (3, 1)),
)  # so that colours are not needed
MOST_NAMED = 4  # points that a single curve is labelled with


@dataclass(frozen=True)
class Look:
    """How a curve is drawn."""

    colour: str = INK
    label: str = ""
    width: float = 2.4
    dashes: Any = "-"


def curve_figure(curve: SNCurve, units: UnitSystem = "metric") -> Figure:
    """The figure of one S-N curve."""
    return curves_figure([curve], units)


def curves_figure(things: Sequence[SNCurve | SpecimenSeries], units: UnitSystem = "metric") -> Figure:
    """S-N curves and test series; ranges and amplitudes beside each other, each on axes of their own."""
    curves = [thing for thing in things if isinstance(thing, SNCurve)]
    series = [thing for thing in things if isinstance(thing, SpecimenSeries)]
    kinds = [kind for kind in ("range", "amplitude") if any(thing.stress == kind for thing in things)]
    figure = new_figure(_headline(curves, series))
    panels = figure.subplots(1, len(kinds), squeeze=False)[0]
    for axes, kind in zip(panels, kinds, strict=True):
        looked_at = [thing for thing in things if thing.stress == kind]
        _panel(axes, looked_at, {id(thing): i for i, thing in enumerate(things)}, units)
        if len(kinds) > 1:
            axes.set_title(f"In {kind}s" + (" (maximum - minimum)" if kind == "range" else " (half of the range)"))
    if len(curves) == 1:
        note(panels[0 if curves[0].stress == kinds[0] else -1], _facts(curves[0]))
    return figure


def _panel(
    axes: Axes, things: Sequence[SNCurve | SpecimenSeries], numbers: Mapping[int, int], units: UnitSystem
) -> None:
    """Curves and tests that all are in ranges, or all in amplitudes."""
    curves = [thing for thing in things if isinstance(thing, SNCurve)]
    ratios = dict.fromkeys(_at_r(thing) for thing in things)
    lowest, highest = np.inf, 0.0
    for curve in curves:
        i = numbers[id(curve)]
        label = curve.name if len(ratios) == 1 else f"{curve.name}, {curve.at_r}"
        draw_curve(axes, curve, Look(_COLOURS[i % len(_COLOURS)], label, dashes=_STYLES[i % len(_STYLES)]), units)
        drawn = _drawn_stresses(curve)
        lowest, highest = min(lowest, float(drawn.min())), max(highest, float(drawn.max()))
        if len(numbers) == 1 or len(curves) == 1:
            name_points(axes, curve, units)
    for tests in things:
        if isinstance(tests, SpecimenSeries):
            draw_specimens(axes, tests, 1.0, _COLOURS[numbers[id(tests)] % len(_COLOURS)], units)
            lowest, highest = min(lowest, float(tests.stresses.min())), max(highest, float(tests.stresses.max()))
    axes.set_xlim(SHORTEST, LONGEST)
    one_mpa = float(shown(1.0, "stress", units))
    axes.set_ylim(lowest * one_mpa / 1.35, highest * one_mpa * 1.25)
    _name_axes(axes, things[0].stress, list(ratios), {_component(curve) for curve in curves}, units)
    _place_legend(axes)
    plain_log_ticks(axes.yaxis)


def _headline(curves: Sequence[SNCurve], series: Sequence[SpecimenSeries]) -> str:
    if len(curves) == 1:
        return f"S-N curve {curves[0].name}"
    if not curves:
        return f"Tests: {', '.join(one.name for one in series)}"
    return f"{len(curves)} S-N curves"


def _at_r(thing: SNCurve | SpecimenSeries) -> str:
    if isinstance(thing, SNCurve):
        return thing.at_r
    return "any R" if thing.r_ratio == "any" else f"R = {thing.r_ratio:g}"


def _component(curve: SNCurve) -> str:
    return "Shear stress" if curve.component == "shear" else "Stress"


def _name_axes(axes: Axes, kind: str, ratios: list[str], components: set[str], units: UnitSystem) -> None:
    what = components.pop() if len(components) == 1 else "Stress"
    at = f" at {ratios[0]}" if len(ratios) == 1 else ", each at its R"
    axes.set_xlabel("Life [cycles]")
    axes.set_ylabel(f"{what} {kind}{at} [{display_unit('stress', units)}]")


def _place_legend(axes: Axes) -> None:
    if axes.get_legend_handles_labels()[1]:
        axes.legend(loc="lower left")


def _facts(curve: SNCurve) -> str:
    """What a reader must know of a curve, in a corner."""
    survival = curve.survival_probability
    lines = [f"Basis: {curve.basis}"]
    lines.append(
        "Survival probability not stated" if survival is None else f"Survival probability {100 * survival:g} %"
    )
    if curve.log_life_std is not None:
        lines.append(f"Standard deviation of log10 life {number(curve.log_life_std, 3)}")
    if curve.conversion is not None:
        lines.append(curve.conversion.words.capitalize())
    return "\n".join(lines)


def _drawn_stresses(curve: SNCurve) -> FloatArray:
    """Stresses between which the curve is drawn, MPa."""
    top = float(curve.stress_at(max(SHORTEST, min(curve.tested_from, float(curve.point_lives[0])))))
    bottom = float(curve.stress_at(LONGEST))
    points = curve.point_stresses
    top = top if np.isfinite(top) else float(points[0]) * 1.3
    return np.array([max(top, float(points[0])), bottom if bottom > 0.0 else float(points[-1]) / 1.3])


def draw_curve(axes: Axes, curve: SNCurve, look: Look, units: UnitSystem, most: float = LONGEST) -> None:
    """The curve with its knees, dashed beyond the tested lives and beyond an end where a choice holds."""
    one = float(shown(1.0, "stress", units))
    points, lives = curve.point_stresses, curve.point_lives
    grid = np.unique(np.concatenate([np.geomspace(1.0, most, 600), lives]))
    stress = curve.stress_at(grid)
    there = np.isfinite(stress) & (stress > 0.0)
    grid, stress = grid[there], stress[there] * one
    chosen = ((grid > lives[-1]) & isinstance(curve.below, str)) | ((grid < lives[0]) & isinstance(curve.above, str))
    solid = (grid >= curve.tested_from) & (grid <= curve.tested_to) & ~chosen
    solid |= np.isclose(grid, lives[-1]) | np.isclose(grid, lives[0])
    settings = {"color": look.colour, "zorder": 3.0}
    axes.loglog(
        grid, np.where(solid, stress, np.nan), lw=look.width, ls=look.dashes, label=look.label or None, **settings
    )
    if not solid.all():
        inside = solid & np.append(solid[1:], True) & np.append(True, solid[:-1])
        axes.loglog(grid, np.where(inside, np.nan, stress), lw=0.55 * look.width, ls=_DASHES, **settings)
    for end, choice, far in ((0, curve.above, 30.0), (-1, curve.below, 1.0 / 30.0)):
        if choice == "hold":
            held = [lives[end]] * 2, [points[end] * one, points[end] * one * far]
            axes.loglog(*held, lw=0.55 * look.width, ls=_DASHES, **settings)
    if points.size <= 12:
        axes.plot(lives, points * one, marker="s", ms=7, mfc="white", mec=look.colour, ls="none", zorder=4)


def name_points(axes: Axes, curve: SNCurve, units: UnitSystem, highest: float = np.inf) -> None:
    """Knees or points up to the stress `highest`, MPa, by their values, and what holds beyond the last."""
    if curve.point_lives.size > MOST_NAMED:
        chosen = [0, curve.point_lives.size - 1]
    else:
        chosen = list(range(curve.point_lives.size))
    one = float(shown(1.0, "stress", units))
    last = curve.point_lives.size - 1
    for i in (i for i in chosen if curve.point_stresses[i] <= highest):
        stress, life = float(curve.point_stresses[i]), float(curve.point_lives[i])
        below = f"\n{_below(curve)}" if i == last else ""
        axes.annotate(
            f"{in_unit(stress, 'stress', units)},\n{number(life)} cycles{below}",
            (life, stress * one),
            xytext=(_aside(life), 8),
            textcoords="offset points",
            ha="left" if life < FAR else "right",
            fontsize=12,
        )


def _below(curve: SNCurve) -> str:
    """What holds below the last point, in words."""
    words = {"no damage": "no damage below", "extend": "extended below", "hold": "life held below"}
    return words.get(str(curve.below)) or f"slope {number(float(curve.below))} below"


def _aside(life: float) -> float:
    """How far beside a point its label starts: to the left where the axes end soon."""
    return 10.0 if life < FAR else -10.0


def draw_specimens(axes: Axes, series: SpecimenSeries, factor: float, colour: str, units: UnitSystem) -> None:
    """Failures as dots, run-outs as open dots with an arrow to longer lives."""
    stress = factor * np.asarray(shown(series.stresses, "stress", units))
    failed = series.failed
    dots = {"ls": "none", "marker": "o", "ms": 8, "mec": colour, "zorder": 5}
    axes.loglog(series.lives[failed], stress[failed], mfc=colour, label=f"{series.name}: failed", **dots)
    if not failed.all():
        label = f"{series.name}: run out"
        axes.loglog(series.lives[~failed], stress[~failed], mfc="white", label=label, **dots)
        for life, height in sorted(set(zip(series.lives[~failed].tolist(), stress[~failed].tolist(), strict=True))):
            arrow = {"arrowstyle": "-|>", "color": colour, "lw": 1.6, "shrinkA": 4.0}
            axes.annotate("", (life * 2.4, height), (life, height), arrowprops=arrow, zorder=4)


def count_runouts(axes: Axes, series: SpecimenSeries, colour: str, units: UnitSystem) -> None:
    """How many ran out at a level, beside the arrow, where they are more than one."""
    for level in series.levels:
        ran_out = (series.stresses == level) & ~series.failed
        if ran_out.sum() > 1:
            place = float(series.lives[ran_out].max()) * 2.5, float(shown(float(level), "stress", units))
            axes.annotate(
                f"{ran_out.sum()}",
                place,
                xytext=(4, 0),
                textcoords="offset points",
                va="center",
                fontsize=12,
                color=colour,
            )


def curve_title(curve: SNCurve, units: UnitSystem) -> str:
    """The lines of a curve in words, as a title."""
    return describe(curve, display_unit("stress", units), float(shown(1.0, "stress", units)))


def refuse_mixture(things: Sequence[object]) -> None:
    """InputError for a list that holds anything but curves and tests."""
    odd = next((thing for thing in things if not isinstance(thing, SNCurve | SpecimenSeries)), None)
    if odd is not None:
        raise InputError("plot", f"a list with a {type(odd).__name__}", "S-N curves and test series, or load histories")
