"""A strain-life curve with its elastic and plastic part and the tests that it rests on; a fit with its cyclic curve."""

from __future__ import annotations

import numpy as np
from matplotlib.axes import Axes
from matplotlib.figure import Figure

from vivid_anvil.figures.style import BLUE, GREEN, INK, ORANGE, new_figure, note
from vivid_anvil.materials.strain import CyclicCurve, StrainLife, StrainLifeFit
from vivid_anvil.units import UnitSystem, display_unit, number, shown

SHORTEST, LONGEST = 1e1, 1e8
PERCENT = 100.0
PLACES = 200


def strain_life_figure(curve: StrainLife, units: UnitSystem = "metric") -> Figure:
    """A strain-life curve beside its cyclic curve."""
    figure = new_figure(f"Strain-life curve {curve.name}, basis: {curve.basis}")
    left, right = figure.subplots(1, 2, width_ratios=(1.3, 1.0))
    draw_strain_life(left, curve)
    left.legend(loc="upper right")
    _cyclic(right, curve, units)
    return figure


def strain_life_fit_figure(fit: StrainLifeFit, units: UnitSystem = "metric") -> Figure:
    """A fit: both lines with the tests, the cyclic curve with the tips of the loops."""
    tests, curve = fit.tests, fit.curve()
    figure = new_figure(f"{tests.name}: {len(tests)} strain-controlled tests")
    left, right = figure.subplots(1, 2, width_ratios=(1.3, 1.0))
    draw_strain_life(left, curve)
    failed = np.asarray(tests.failed)
    elastic = PERCENT * tests.stress_amplitude / fit.youngs_modulus
    plastic = PERCENT * (tests.strain_amplitude - tests.stress_amplitude / fit.youngs_modulus)
    left.scatter(tests.lives[failed], elastic[failed], s=22, color=BLUE, marker="s", zorder=4)
    left.scatter(tests.lives[fit.used], plastic[fit.used], s=22, color=ORANGE, marker="^", zorder=4)
    left.legend(loc="upper right")
    note(left, f"Standard deviation of\nlog10 life {number(fit.std, 3)}")
    _cyclic(right, curve, units)
    one = float(shown(1.0, "stress", units))
    right.scatter(
        PERCENT * tests.strain_amplitude, one * tests.stress_amplitude, s=26, color=INK, zorder=4, label="tests"
    )
    right.legend(loc="lower right")
    return figure


def draw_strain_life(axes: Axes, curve: StrainLife) -> None:
    """The whole curve, its parts, the transition, and the tests that it rests on."""
    life = np.geomspace(SHORTEST, LONGEST, PLACES)
    axes.loglog(life, PERCENT * curve.elastic(life), color=BLUE, lw=1.4, ls=(0, (6, 2)), label="elastic part")
    axes.loglog(life, PERCENT * curve.plastic(life), color=ORANGE, lw=1.4, ls=(0, (2, 2)), label="plastic part")
    axes.loglog(life, PERCENT * curve.amplitude(life), color=INK, lw=2.4, label="whole")
    transition = curve.transition_life
    if SHORTEST < transition < LONGEST:
        at = PERCENT * float(curve.elastic(transition))
        axes.plot(
            [transition],
            [at],
            marker="o",
            color=GREEN,
            ms=7,
            ls="none",
            label=f"transition, {number(transition)} cycles",
        )
    if curve.points:
        strains, lives = np.array(curve.points).T
        axes.scatter(lives, PERCENT * strains, s=26, facecolor="none", edgecolor=INK, zorder=4, label="tests")
    axes.set_xlim(SHORTEST, LONGEST)
    axes.set_ylim(0.5 * PERCENT * float(curve.amplitude(LONGEST)), 1.6 * PERCENT * float(curve.amplitude(SHORTEST)))
    axes.set_xlabel("Life [cycles]")
    axes.set_ylabel("Strain amplitude [%]")


def _cyclic(axes: Axes, curve: StrainLife, units: UnitSystem) -> None:
    """The cyclic curve, and that of the four constants where it is another."""
    one = float(shown(1.0, "stress", units))
    strain = np.linspace(0.0, min(0.02, float(curve.amplitude(50.0))), PLACES)
    own, made = curve.cyclic, curve.compatible

    def draw(of: CyclicCurve, colour: str, style: object, label: str) -> None:
        axes.plot(PERCENT * strain, one * of.stress(strain), color=colour, lw=2.0, ls=style, label=label)

    draw(own, INK, "-", "cyclic curve")
    if own != made:
        draw(made, GREEN, (0, (4, 3)), "of the four constants")
    axes.set_title("Cyclic stress-strain curve")
    axes.set_xlabel("Strain amplitude [%]")
    axes.set_ylabel(f"Stress amplitude [{display_unit('stress', units)}]")
    axes.set_ylim(bottom=0.0)
    axes.legend(loc="lower right")
