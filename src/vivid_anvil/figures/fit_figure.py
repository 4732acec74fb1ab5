"""Tests and the S-N curve fitted to them: median, its confidence band, and the limit that most parts outlive."""

from __future__ import annotations

import numpy as np
from matplotlib.figure import Figure

from vivid_anvil.figures.curve_figure import count_runouts, draw_specimens
from vivid_anvil.figures.style import BLUE, INK, PALE, RED, new_figure, note, plain_log_ticks
from vivid_anvil.ground.checks import FloatArray
from vivid_anvil.ground.errors import InputError
from vivid_anvil.materials import LikelihoodFit, LineFit, Staircase
from vivid_anvil.units import UnitSystem, display_unit, in_unit, number, shown

PLACES, FOREVER = 40, 1e15
CONFIDENCE, SURVIVAL, LIMIT_CONFIDENCE = 0.95, 0.95, 0.75


def fit_figure(fit: LineFit | LikelihoodFit, units: UnitSystem = "metric") -> Figure:
    """The figure of a fit."""
    series = fit.series
    figure = new_figure(f"{series.name}: {len(series)} tests, model {fit.model}")
    axes = figure.subplots()
    one = float(shown(1.0, "stress", units))
    low, high = float(series.levels[0]), float(series.levels[-1])
    stress = np.geomspace(high, low / 1.08, PLACES)
    median = fit.life(stress)
    there = np.isfinite(median) & (median < 1e12)
    axes.loglog(median[there], stress[there] * one, color=INK, lw=2.4, label="Median", zorder=4)
    limits = _limits(fit, stress)
    if limits is not None:
        (lower, upper), tolerance = np.minimum(limits[0], FOREVER), limits[1]
        label = f"{CONFIDENCE:.0%} confidence of the median"
        axes.fill_betweenx(stress * one, lower, upper, where=lower < FOREVER, color=PALE, alpha=0.6, lw=0, label=label)
        label = f"{SURVIVAL:.0%} of parts outlive it, with {LIMIT_CONFIDENCE:.0%} confidence"
        axes.loglog(tolerance, stress * one, color=RED, lw=2.0, ls=(0, (6, 2)), label=label, zorder=4)
    draw_specimens(axes, series, 1.0, BLUE, units)
    count_runouts(axes, series, BLUE, units)
    shortest = min(float(series.lives.min()), float(median[there].min())) / 3.0
    limit = fit.limit()
    longest = float(series.lives.max()) * 12.0
    if limit is not None:
        axes.axhline(limit * one, color=INK, lw=1.3, ls=(0, (4, 3)), zorder=2)
        axes.annotate(
            f"median fatigue limit {in_unit(limit, 'stress', units)}",
            (shortest, limit * one),
            xytext=(8, 5),
            textcoords="offset points",
            fontsize=12,
        )
    axes.set_xlim(shortest, longest)
    axes.set_ylim(low * one / 1.18, high * one * 1.18)
    axes.set_xlabel("Life [cycles]")
    ratio = "any R" if series.r_ratio == "any" else f"R = {series.r_ratio:g}"
    axes.set_ylabel(f"Stress {series.stress} at {ratio} [{display_unit('stress', units)}]")
    axes.legend(loc="upper right")
    plain_log_ticks(axes.yaxis)
    failed = np.asarray(series.stresses)[np.asarray(series.failed)]
    ends = (float(failed.max()), float(failed.min()))
    slopes = dict.fromkeys(number(fit.median_slope(end), 3) for end in ends)
    note(
        axes,
        f"Slope of the median m = {' to '.join(slopes)}\nStandard deviation of log10 life {number(fit.std, 3)}",
        x=0.42,
        y=0.12,
    )
    return figure


def _limits(
    fit: LineFit | LikelihoodFit, stress: FloatArray
) -> tuple[tuple[FloatArray, FloatArray], FloatArray] | None:
    """Band and tolerance limit, or None where the tests do not carry them."""
    try:
        band = fit.band(stress, CONFIDENCE)
        return band, fit.life(stress, SURVIVAL, LIMIT_CONFIDENCE)
    except InputError:
        return None


def staircase_figure(result: Staircase, units: UnitSystem = "metric") -> Figure:
    """The figure of a staircase test: outcomes in their order, mean and scatter."""
    series, found = result.series, result.dixon_mood
    figure = new_figure(
        f"Staircase {series.name}: {in_unit(found.mean, 'stress', units)} at {number(result.life)} cycles"
    )
    axes = figure.subplots()
    stress = np.asarray(shown(series.stresses, "stress", units))
    place = np.arange(1, len(series) + 1)
    axes.plot(place, stress, color=PALE, lw=1.2, zorder=1)
    axes.plot(place[series.failed], stress[series.failed], "X", ms=11, color=RED, ls="none", label="Failed", zorder=3)
    axes.plot(
        place[~series.failed],
        stress[~series.failed],
        "o",
        ms=10,
        mfc="white",
        mec=BLUE,
        ls="none",
        label="Run out",
        zorder=3,
    )
    mean, std = (float(shown(one, "stress", units)) for one in (found.mean, found.std))
    axes.axhline(mean, color=INK, lw=2.0, label="Mean, Dixon and Mood")
    axes.axhspan(
        mean - std, mean + std, color=PALE, alpha=0.4, lw=0, label="One standard deviation to each side", zorder=0
    )
    axes.set_xlabel("Specimen number, in the order of the tests")
    axes.set_ylabel(f"Stress {series.stress} at R = {series.r_ratio} [{display_unit('stress', units)}]")
    axes.legend(loc="upper left", ncols=4, bbox_to_anchor=(0.0, 1.06))
    return figure
