"""The constant-life diagram of a family of S-N curves: amplitude over mean, a line for each life (Haigh 1917)."""

from __future__ import annotations

import numpy as np
from matplotlib.figure import Figure

from vivid_anvil.figures.style import BLUE, INK, RED, new_figure, note
from vivid_anvil.materials import SNFamily
from vivid_anvil.units import UnitSystem, display_unit, number, shown

_GROUND = {"facecolor": "white", "edgecolor": "none", "alpha": 0.85, "pad": 1.0}
DECADES = (1e4, 1e5, 1e6, 1e7, 1e8)


def family_figure(family: SNFamily, units: UnitSystem = "metric") -> Figure:
    """The figure of an S-N family."""
    unit = display_unit("stress", units)
    figure = new_figure(f"Constant-life diagram of {family.name}")
    axes = figure.subplots()
    one = float(shown(1.0, "stress", units))
    lines = {life: family.constant_life(life) for life in DECADES}
    lines = {life: line for life, line in lines.items() if np.isfinite(line[1]).all() and (line[1] > 0.0).all()}
    top = max(float(amplitudes.max()) for _, amplitudes in lines.values()) * one
    right = max(float(np.abs(means).max()) for means, _ in lines.values()) * one
    for i, (life, (means, amplitudes)) in enumerate(lines.items()):
        colour = RED if i == 0 else BLUE
        shade = 1.0 - 0.16 * i
        axes.plot(means * one, amplitudes * one, color=colour, alpha=shade, lw=2.2, marker="o", ms=7, zorder=3)
        axes.annotate(
            f"{number(life)} cycles",
            (means[-1] * one, amplitudes[-1] * one),
            xytext=(9, -15),
            textcoords="offset points",
            fontsize=12,
            bbox=_GROUND,
        )
        for end, choice in ((0, family.beyond_lowest), (-1, family.beyond_highest)):
            if choice == "hold":
                far = [means[end] * one, means[end] * one + (0.3 if end else -0.3) * right]
                axes.plot(far, [amplitudes[end] * one] * 2, color=colour, alpha=shade, lw=1.3, ls=(0, (4, 3)))
    for curve, place in zip(family.curves, family.places, strict=True):
        reach = top * 1.12
        across = [place * one] * 2 if family.by_mean else [0.0, place * reach]
        axes.plot(across, [0.0, reach], color=INK, lw=1.0, ls=(0, (1, 3)), zorder=2)
        height = min(reach, right * 1.2 / place) if not family.by_mean and place > 0.0 else reach
        label_at = (place * one if family.by_mean else place * height, height)
        axes.annotate(curve.at_r, label_at, xytext=(4, 6), textcoords="offset points", fontsize=12, bbox=_GROUND)
    low = min(0.0, min(float(means.min()) for means, _ in lines.values()) * one)
    axes.set_xlim(low * 1.1 - 0.05 * right, right * 1.3)
    axes.set_ylim(0.0, top * 1.2)
    axes.set_xlabel(f"Mean stress [{unit}]")
    axes.set_ylabel(f"Stress amplitude [{unit}]")
    text = "Straight between the tested curves (dots);\nnothing is taken from beyond them" + _beyond(family)
    note(axes, text, x=0.8, y=0.13)
    return figure


def _beyond(family: SNFamily) -> str:
    held = [
        side
        for side, choice in (("below the lowest", family.beyond_lowest), ("above the highest", family.beyond_highest))
        if choice == "hold"
    ]
    return f",\nexcept {' and '.join(held)}: the amplitude is held (dashed)" if held else ""
