"""Hand calculation by an S-N curve: from amplitude and mean of a cycle to the life there."""

from __future__ import annotations

from typing import TYPE_CHECKING

import numpy as np

from vivid_anvil.counting import Cycles
from vivid_anvil.materials import life_steps
from vivid_anvil.materials.curves.below_knee import curve_below_knee
from vivid_anvil.materials.mean_stress.apply import compressive_mean, counted_r
from vivid_anvil.materials.mean_stress.working import rule_steps
from vivid_anvil.stress import HotSpot
from vivid_anvil.units import UnitSystem, display_unit, shown
from vivid_anvil.writing.working import Step, put_in

if TYPE_CHECKING:
    from vivid_anvil.damage.methods.stress_life import StressLife


def stress_life_steps(method: StressLife, spot: HotSpot, size: float, mean: float, units: UnitSystem) -> list[Step]:
    """From amplitude and mean, MPa, to the stress in the curve's terms, and to the life there, cycles."""
    curve, unit, rule = method.reference, display_unit("stress", units), method.rule
    amplitude = float(shown(size, "stress", units))
    steps: list[Step] = []
    equivalent = float(
        method.terms(spot, Cycles(range=np.array([2.0 * size]), mean=np.array([mean]), count=np.ones(1)))[0]
    )
    steps += method.sn_curve.equivalent_steps(size, mean, units)
    if steps:
        amplitude = float(shown(equivalent, "stress", units))
    if method.corrects:
        counted = float(compressive_mean(size, mean, method.compressive_mean, rule))
        held = f" (the compressive mean is {method.compressive_mean})" if counted != mean else ""
        r_ratio = counted_r(float(curve.r_ratio), method.compressive_mean)
        steps += rule_steps(rule, size, counted, method.strength(spot), r_ratio, units, held)
        amplitude = steps[-1].value
    if curve.stress == "range":
        stress = float(shown(equivalent, "stress", units))
        steps.append(Step("The curve is in ranges", "ΔS = 2 × S_a", f"2 × {put_in(amplitude)} {unit}", stress, unit))
    # under the consistent rule the slope goes on for those that it lets in
    looked_up = curve_below_knee(method.reference, "continued") if method.acts_together else curve
    return [*steps, *life_steps(looked_up, equivalent, units)]
