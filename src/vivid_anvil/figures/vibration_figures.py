"""Vibration: a PSD under the bands that do its damage, ranges by formula, a response, damage spectra of service and test."""

from __future__ import annotations

from typing import Any

import numpy as np
from matplotlib.axes import Axes
from matplotlib.figure import Figure

from vivid_anvil.damage import ResponseView, VibrationView
from vivid_anvil.figures.style import BLUE, GREEN, INK, ORANGE, PALE, PLUM, RED, new_figure, plain_log_ticks
from vivid_anvil.ground.checks import FloatArray
from vivid_anvil.histories import PSDEstimate
from vivid_anvil.tailoring import Coverage, TailoredTest
from vivid_anvil.units import UnitSystem, in_unit, lasting, number
from vivid_anvil.units.psd import psd_dimension

DRAWN = {"dirlik": BLUE, "narrow band": ORANGE, "tovo-benasciutti": GREEN, "zhao-baker": PLUM}
G = 9806.65  # mm/s²
VERDICTS = {"covered": GREEN, "too hard": ORANGE, "not covered": RED}
DEEPEST = 1e-7  # of the highest density: below, nothing is drawn


def vibration_figure(view: VibrationView, units: UnitSystem = "metric") -> Figure:
    """Bands above the PSD, and how often ranges are passed by formula and in a synthesis."""
    own, kind = view.process, view.process.dimension
    figure = new_figure(f"{view.name[:1].upper()}{view.name[1:]}: rms {in_unit(own.rms, kind, units)}")
    grid = figure.add_gridspec(2, 2, width_ratios=(1.5, 1.0), height_ratios=(1.0, 1.6))
    above = figure.add_subplot(grid[0, 0])
    below = figure.add_subplot(grid[1, 0], sharex=above)
    _bands(above, view)
    _density(below, view)
    _ranges(figure.add_subplot(grid[:, 1]), view)
    return figure


def _bands(axes: Axes, view: VibrationView) -> None:
    edges = view.edges
    axes.bar(edges[:-1], 100.0 * view.left_out, np.diff(edges), align="edge", color=RED, label="damage less without it")
    axes.step(
        np.repeat(edges, 2)[1:-1],
        np.repeat(100.0 * view.mean_square, 2),
        color=BLUE,
        label="its share of the mean square",
    )
    axes.set_xscale("log")
    axes.set_ylim(0.0, 118.0)
    axes.set_ylabel("Share [%]")
    axes.set_title("Which band does the damage")
    axes.legend(loc="upper left", ncols=2, fontsize=11)
    axes.tick_params(labelbottom=False)


def _density(axes: Axes, view: VibrationView) -> None:
    own = view.process
    low, high = own.band
    places = np.unique(np.concatenate([np.geomspace(max(low, 1e-3 * high), high, 1500), own.lines().frequency]))
    places = places[(places >= low) & (places <= high)]
    unit, size = _psd_unit(own.dimension)
    values = own.at(places) / size
    axes.loglog(places, values, color=BLUE)
    floor = max(float(values[values > 0.0].min(initial=1.0)), DEEPEST * float(values.max()))
    axes.fill_between(places, values, floor, color=PALE, alpha=0.5, lw=0)
    axes.set_ylim(0.7 * floor, 3.0 * float(values.max()))
    axes.set_xlim(max(low, 1e-3 * high), high)
    axes.set_xlabel("Frequency [Hz]")
    axes.set_ylabel(f"PSD [{unit}]")
    plain_log_ticks(axes.xaxis)


def _psd_unit(kind: str) -> tuple[str, float]:
    """The unit that a PSD is drawn in, and what it is in the coherent one; an acceleration in g²/Hz."""
    if kind == "acceleration":
        return "g²/Hz", G**2
    return psd_dimension(kind).coherent.replace("^2", "²").replace("(MPa)²", "MPa²"), 1.0


def _ranges(axes: Axes, view: VibrationView) -> None:
    """Ranges a second that are passed, over the range in rms."""
    rms = view.process.rms
    sizes = np.linspace(0.02, 12.0, 400)
    for formula, colour in DRAWN.items():
        if any(one.formula == formula and np.isfinite(one.damage) for one in view.formulas):
            axes.semilogy(sizes, view.ranges(formula).beyond(sizes * rms), color=colour, label=formula)
    if view.counted is not None:
        order = np.argsort(-view.counted.range)
        passed = np.cumsum(view.counted.count[order]) / view.counted_time
        axes.step(view.counted.range[order] / rms, passed, color=INK, lw=2.4, alpha=0.75, label="counted synthesis")
    rate = view.process.peak_rate
    lowest = 1e-7 if view.exposure is None else 0.3 / view.exposure
    axes.set_ylim(min(lowest, 1e-3) * rate if view.exposure is None else min(lowest, 1e-3), 3.0 * rate)
    axes.set_xlim(0.0, 12.0)
    axes.set_xlabel("Range over rms")
    axes.set_ylabel("Ranges passed, a second")
    axes.set_title("Expected ranges")
    if view.exposure is not None:
        axes.axhline(1.0 / view.exposure, color="#77808a", lw=1.0, ls="--")
        text = f"once in {lasting(view.exposure)}"
        axes.annotate(text, (0.2, 1.0 / view.exposure), xytext=(0, 5), textcoords="offset points", fontsize=11)
    axes.legend(loc="upper right")


def response_figure(view: ResponseView, units: UnitSystem = "metric") -> Figure:  # noqa: ARG001
    """Magnitude with the half-power points, and phase."""
    figure = new_figure(f"{view.title}: {view.response.words}")
    above, below = figure.subplots(2, 1, sharex=True, height_ratios=(2.2, 1.0))
    above.loglog(view.frequency, view.size * view.per, color=BLUE)
    for i, own in enumerate(view.resonances):
        points = view.sizes_at(own.half_power)
        above.plot(own.half_power, points, "o-", color=RED, ms=5, label="half power" if i == 0 else None)
        peak = float(view.sizes_at([own.peak_frequency])[0])
        above.annotate(
            f"{number(own.frequency)} Hz, ζ {number(own.damping_ratio, 3)}: {number(peak)} {view.unit}",
            (own.peak_frequency, peak),
            xytext=(8, 2),
            textcoords="offset points",
            fontsize=11,
            color=INK,
        )
    corners = view.response.corners
    if 0 < corners.size <= 400:
        above.plot(corners, np.abs(view.response.at(corners)) * view.per, ".", color=ORANGE, ms=4, label="lines")
    above.set_ylabel(f"Stress over input [{view.unit}]")
    above.set_title("Magnitude")
    if above.get_legend_handles_labels()[0]:
        above.legend(loc="lower left")
    phase = np.degrees(np.unwrap(np.angle(view.response.at(view.frequency))))
    below.semilogx(view.frequency, phase, color=BLUE)
    below.set_ylabel("Phase [deg]")
    below.set_xlabel("Frequency [Hz]")
    below.set_xlim(float(view.frequency[0]), float(view.frequency[-1]))
    plain_log_ticks(below.xaxis)
    return figure


def coverage_figure(found: Coverage, units: UnitSystem = "metric") -> Figure:  # noqa: ARG001
    """Damage and extreme response spectra, test against service, with the verdict of each band."""
    word = "covers" if found.covers else "does not cover"
    figure = new_figure(f"{found.test.name[:1].upper()}{found.test.name[1:]} {word} {found.service.name}")
    above, below = figure.subplots(2, 1, sharex=True)
    f = found.service.oscillators.natural_frequency
    base = float(found.service.damage.max())
    rows: tuple[tuple[Axes, FloatArray, FloatArray, str, str], ...] = (
        (
            above,
            found.service.damage / base,
            found.test.damage / base,
            "Damage over its largest",
            "Fatigue damage spectrum",
        ),
        (below, found.service.extreme / G, found.test.extreme / G, "Extreme response [g]", "Extreme response spectrum"),
    )
    for axes, service, test, label, title in rows:
        axes.loglog(f, service, color=BLUE, lw=2.4, label=f"service, {_for(found.service.time)}")
        axes.loglog(f, test, color=RED, ls="--", lw=2.0, label=f"test, {_for(found.test.time)}")
        axes.set_ylabel(label)
        axes.set_title(title)
    above.legend(loc="lower left")
    low, top = above.get_ylim()
    above.set_ylim(top=top * (top / low) ** 0.3)  # room for the verdicts
    plain_log_ticks(below.yaxis)
    for band in found.bands:
        colour = VERDICTS[band.verdict]
        above.axvspan(band.low, band.high, color=colour, alpha=0.12, lw=0)
        middle = float(np.sqrt(band.low * band.high))
        words, place = f"{band.verdict}\n×{number(band.smallest, 2)}", above.get_xaxis_transform()
        above.annotate(words, (middle, 0.84), xycoords=place, ha="center", color=colour, fontsize=11)
    below.set_xlim(float(f[0]), float(f[-1]))
    own = found.service.oscillators
    below.set_xlabel(f"Natural frequency [Hz]   (Q = {own.quality_factor:g}, slope {own.slope:g})")
    plain_log_ticks(below.xaxis)
    return figure


def _for(time: float | None) -> str:
    return "of unknown time" if time is None else lasting(time)


def tailored_figure(test: TailoredTest, units: UnitSystem = "metric") -> Figure:  # noqa: ARG001
    """The PSD of the test, and its damage and extremes over those of the service."""
    size = in_unit(test.psd.rms, "acceleration", "us", digits=3)
    figure = new_figure(f"{test.title}: {size} rms for {lasting(test.time)}")
    above, below = figure.subplots(2, 1, sharex=True)
    levels = test.psd.values / G**2
    above.loglog(test.psd.frequency, levels, "o-", color=BLUE, lw=2.2)
    for f, level in zip(test.psd.frequency, levels, strict=True):
        text = f"{number(float(level), 3)}"
        above.annotate(text, (f, level), xytext=(0, 9), textcoords="offset points", ha="center", fontsize=11)
    above.set_ylim(0.5 * float(levels.min()), 3.0 * float(levels.max()))
    plain_log_ticks(above.yaxis)
    above.set_ylabel("PSD [g²/Hz]")
    above.set_title("Base acceleration of the test")
    f = test.service.oscillators.natural_frequency
    below.loglog(f, test.damage_ratio, color=BLUE, label="damage")
    below.loglog(f, test.spectrum.extreme / test.service.extreme, color=RED, ls="--", label="extreme response")
    below.axhline(1.0, color="#77808a", lw=1.0)
    below.set_ylabel("Test over service")
    below.set_xlabel("Natural frequency [Hz]")
    below.set_xlim(0.9 * float(f[0]), 1.12 * float(f[-1]))
    below.legend(loc="best")
    plain_log_ticks(below.xaxis)
    plain_log_ticks(below.yaxis)
    return figure


def psd_estimate_figure(found: PSDEstimate, units: UnitSystem = "metric") -> Figure:
    """The lines with what each is worth."""
    size = in_unit(float(np.sqrt(found.mean_square)), found.dimension, units)
    figure = new_figure(f"{found.title}: rms {size}, {number(found.averages, 3)} independent averages")
    axes: Any = figure.subplots()
    unit, one = _psd_unit(found.dimension)
    f, values = found.frequency[1:], found.values[1:] / one
    low, high = found.confidence()
    axes.fill_between(f, low * values, high * values, color=PALE, alpha=0.7, lw=0, label="a line, 19 times in 20")
    axes.loglog(f, values, color=BLUE, lw=1.2, label=f"{found.segments} segments, {number(found.spacing)} Hz apart")
    axes.set_xlim(float(f[0]), float(f[-1]))
    axes.set_xlabel("Frequency [Hz]")
    axes.set_ylabel(f"PSD [{unit}]")
    axes.legend(loc="upper right")
    plain_log_ticks(axes.xaxis)
    return figure
