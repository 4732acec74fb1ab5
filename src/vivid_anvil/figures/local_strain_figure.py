"""A life by local strain: the hysteresis loops of one repeat, and the strain-life curve with the loops on it."""

from __future__ import annotations

import numpy as np
from matplotlib.axes import Axes
from matplotlib.figure import Figure

from vivid_anvil.damage import LifeResult, LocalStrain
from vivid_anvil.figures.life_figure import headline
from vivid_anvil.figures.strain_life_figure import draw_strain_life
from vivid_anvil.figures.style import BLUE, INK, ORANGE, PALE, RED, new_figure, note
from vivid_anvil.ground.checks import FloatArray
from vivid_anvil.materials.strain import CyclicCurve
from vivid_anvil.stress.yielding.tips_of_loops import strains_of_loops
from vivid_anvil.units import UnitSystem, display_unit, number, shown

PLACES = 60  # of a branch
MOST_LOOPS = 40  # that are drawn pale behind the worst ones
MARKED = 3
PERCENT = 100.0


def local_strain_figure(result: LifeResult, units: UnitSystem = "metric") -> Figure:
    """The figure of a life by local strain."""
    method = result.method
    assert isinstance(method, LocalStrain)
    figure = new_figure(f"{result.hot_spot.name.capitalize()}: {headline(result)}")
    left, right = figure.subplots(1, 2, width_ratios=(1.15, 1.0))
    _hysteresis(left, result, method, units)
    _on_the_curve(right, result, method)
    return figure


def _hysteresis(axes: Axes, result: LifeResult, method: LocalStrain, units: UnitSystem) -> None:
    """The worst loops over those of the largest ranges, and the cyclic curve that first loading runs on."""
    cycles, one = result.spectrum.cycles, float(shown(1.0, "stress", units))
    axes.set_xlabel("Strain at the notch [%]")
    axes.set_ylabel(f"Stress at the notch [{display_unit('stress', units)}]")
    axes.set_title("Loops of one repeat")
    if not len(cycles):
        note(axes, "The load never changes:\nthere is no loop", y=0.9)
        return
    loops, curve = method.loops(cycles), method.cyclic
    low, high = strains_of_loops(curve, cycles, method.notch_rule, method.plastic_limit_ratio)
    tips = (low, loops.lowest, high, loops.highest)
    worst = [i for i in np.argsort(-result.damage, kind="stable")[:MARKED].tolist() if result.damage[i] > 0.0]
    largest = np.argsort(-loops.amplitude, kind="stable")[:MOST_LOOPS]
    for i in largest.tolist():
        strain, stress = _loop(curve, *(float(end[i]) for end in tips))
        axes.plot(PERCENT * strain, one * stress, color=PALE, lw=1.2, label="other loops" if i == largest[-1] else None)
    for colour, i in zip((RED, ORANGE, BLUE), worst, strict=False):
        strain, stress = _loop(curve, *(float(end[i]) for end in tips))
        share = result.damage[i] / result.damage_per_repeat
        name = result.spectrum.sources[int(result.spectrum.event[i])].name
        axes.plot(PERCENT * strain, one * stress, color=colour, lw=2.2, label=f"{share:.1%}, {name}")
    stress = np.linspace(min(0.0, float(loops.lowest.min())), max(0.0, float(loops.highest.max())), PLACES)
    axes.plot(PERCENT * curve.strain(stress), one * stress, color=INK, lw=1.2, ls=(0, (6, 2)), label="cyclic curve")
    axes.axhline(0.0, color=INK, lw=0.6)
    low_stress, high_stress = axes.get_ylim()
    axes.set_ylim(low_stress, high_stress + 0.42 * (high_stress - low_stress))
    axes.legend(loc="upper left", fontsize=11, title="Share of the damage" if worst else None, alignment="left")


def _loop(curve: CyclicCurve, low: float, bottom: float, high: float, top: float) -> tuple[FloatArray, FloatArray]:
    """The two branches of a loop between its tips."""
    ranges = np.linspace(0.0, top - bottom, PLACES)
    strains = curve.strain_range(ranges)
    strain = np.concatenate([low + strains, high - strains])
    return strain, np.concatenate([bottom + ranges, top - ranges])


def _on_the_curve(axes: Axes, result: LifeResult, method: LocalStrain) -> None:
    """The curve, and each loop at its life: its own amplitude, and that which does as much fully reversed."""
    draw_strain_life(axes, method.strain_life)
    axes.set_title(f"Strain-life curve {method.strain_life.name}")
    cycles = result.spectrum.cycles
    if len(cycles) and result.damage_per_repeat > 0.0:
        loops = method.loops(cycles)
        lives = method.lives(result.hot_spot, loops)
        share = result.damage / result.damage_per_repeat
        told = np.flatnonzero((share > 1e-4) & np.isfinite(lives))
        told = told[np.argsort(share[told], kind="stable")][-200:]
        size = 20.0 + 220.0 * share[told]
        even = result.equivalent_stress[told] / method.strain_life.youngs_modulus
        axes.scatter(
            lives[told],
            PERCENT * even,
            s=size,
            color=RED,
            zorder=5,
            label="loops, by their damage",
            edgecolor="white",
            lw=0.6,
        )
        axes.scatter(
            lives[told],
            PERCENT * loops.amplitude[told],
            s=34,
            marker="D",
            facecolor="none",
            edgecolor=RED,
            lw=1.2,
            zorder=4,
            label="their own amplitude",
        )
        low, high = axes.get_ylim()
        axes.set_ylim(min(low, 0.6 * PERCENT * float(loops.amplitude[told].min())), high)
    used = result.used_at_target
    if used is not None:
        words = f"{number(100.0 * used)} % used\nat the target"
        reserve = result.reserve_on_stress
        note(axes, words if reserve is None else f"{words},\nreserve on\nstress {number(reserve)}")
    axes.legend(loc="upper right", fontsize=11)
