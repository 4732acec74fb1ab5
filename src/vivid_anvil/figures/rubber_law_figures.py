"""Laws of rubber through their tests: stress over stretch in every mode, and growth of cracks over the tearing energy."""

from __future__ import annotations

import numpy as np
from matplotlib.figure import Figure

from vivid_anvil.figures.style import BLUE, INK, LINES, RED, new_figure, note
from vivid_anvil.materials.rubber import LOADING_MODES, HyperelasticFit, TearingFit
from vivid_anvil.units import UnitSystem, display_unit, number, shown

BEYOND = 1.15  # times the largest strain tested, up to which a law is drawn
POINTS = 200
DECADE = 10.0


def hyperelastic_figure(fit: HyperelasticFit, units: UnitSystem = "metric") -> Figure:
    """Nominal stress over stretch of law and tests in each mode; where the law is unstable it is drawn red."""
    figure = new_figure(f"Hyperelastic law, {fit.law.kind}, through {fit.tests.name}")
    axes = figure.subplots()
    one = float(shown(1.0, "stress", units))
    tested = [fit.tests.of(mode)[0] for mode in fit.tests.tested]
    top = 1.0 + BEYOND * (max(float(stretch[-1]) for stretch in tested) - 1.0)
    low = 1.0 - BEYOND * (1.0 - min(1.0, *(float(stretch[0]) for stretch in tested)))
    highest = 0.0
    for colour, mode in zip(LINES, LOADING_MODES, strict=False):
        stretch, stress = fit.tests.of(mode)
        looked = np.linspace(low, top, POINTS)
        own = one * fit.law.nominal(mode, looked)
        least, largest = fit.law.stable_between(mode, 0.3, 10.0)
        stable = (looked >= least) & (looked <= largest)
        axes.plot(looked, np.where(stable, own, np.nan), color=colour, lw=1.8, label=f"{mode}, law")
        if not stable.all():
            axes.plot(
                looked, np.where(stable, np.nan, own), color=RED, lw=2.2, ls=(0, (3, 2)), label=f"{mode}, unstable"
            )
        if stretch.size:
            axes.plot(stretch, one * stress, ls="none", marker="o", ms=6, mfc="white", mec=colour, mew=1.6)
            highest = max(highest, one * float(stress.max()))
    axes.set_xlabel("Stretch [-]")
    axes.set_ylabel(f"Force over undeformed area [{display_unit('stress', units)}]")
    axes.set_ylim(top=1.35 * highest)
    axes.legend(loc="lower right")
    note(axes, "\n".join(f"{mode}: off by {100.0 * fit.deviation(mode):.2g} %" for mode in fit.tests.tested))
    return figure


def tearing_fit_figure(fit: TearingFit, units: UnitSystem = "metric") -> Figure:
    """Growth over the tearing energy of equal relaxing cycles: tests and law."""
    figure = new_figure(f"Tearing law, {fit.law.kind}, through {fit.tests.name}")
    axes = figure.subplots()
    energy, rate = (float(shown(1.0, kind, units)) for kind in ("energy release rate", "growth rate"))
    equal = fit.law.equivalent(fit.tests.energies, fit.tests.ratios)
    looked = np.geomspace(float(equal.min()) / 2.0, float(equal.max()) * 2.0, POINTS)
    grown = fit.law.relaxing(looked)
    axes.loglog(energy * looked, np.where(grown > 0.0, rate * grown, np.nan), color=BLUE, lw=1.8, label="law, R = 0")
    ratios = fit.tests.ratios
    for colour, ratio in zip((INK, *LINES[1:]), sorted(set(ratios.tolist())), strict=False):
        some = ratios == ratio
        axes.plot(
            energy * equal[some],
            rate * fit.tests.rates[some],
            ls="none",
            marker="o",
            ms=6,
            mfc="white",
            mec=colour,
            mew=1.6,
            label=f"tests, R = {number(ratio)}",
        )
    axes.set_xlabel(f"Largest tearing energy of equal relaxing cycles [{display_unit('energy release rate', units)}]")
    axes.set_ylabel(f"Growth [{display_unit('growth rate', units)}]")
    axes.legend(loc="lower right")
    note(axes, f"slope {number(fit.law.anchor[1], 3)}; log10 of the rate ±{number(fit.log_rate_std, 2)}")
    return figure
