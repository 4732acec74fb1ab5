"""All local stress cycles of a hot spot in one repeat, and their damage: the sum that everything else is asked of.

Method: linear damage, D = Σ n / N (Palmgren, A. 1924, VDI-Z. 68, 339-341; Miner, M. A. 1945, J. Appl. Mech. 12,
A159-A164).
"""

from __future__ import annotations

from dataclasses import dataclass

import numpy as np

from vivid_anvil.checks import FloatArray, IntArray
from vivid_anvil.damage.mean_stress import compressive_mean, mean_stress_rule
from vivid_anvil.errors import InputError
from vivid_anvil.histories import Cycles, DutyCycle, Source
from vivid_anvil.materials import ANY_R, SNCurve
from vivid_anvil.stress import HotSpot, local_cycles


@dataclass(frozen=True, eq=False)
class Spectrum:
    """Local stress cycles of every event of one repeat: `cycles` of one occurrence each, and which `event` they are of.

    `per_repeat`, shape (k,), is how often each happens in one repeat; `lowest` and `highest` are the local stress, MPa.
    """

    hot_spot: HotSpot
    curve: SNCurve
    cycles: Cycles
    event: IntArray
    per_repeat: FloatArray
    lowest: float
    highest: float
    sources: tuple[Source, ...]

    def equivalent_stress(self, load_factor: float = 1.0) -> FloatArray:
        """Each cycle in the terms of the curve (range or amplitude, at its R), MPa, with all loads times `load_factor`.

        inf where a mean reaches the ultimate strength under a rule that has no meaning there.
        """
        spot = self.hot_spot
        fixed = spot.notch_factor * spot.offset
        rule = mean_stress_rule(spot.mean_stress)
        amplitude = 0.5 * load_factor * self.cycles.range
        if self.curve.r_ratio == ANY_R or rule.needs is None:
            return self.curve.from_amplitude(amplitude)
        strength = spot.material.needed(rule.needs, f"the mean-stress rule {rule.name} of hot spot {spot.name}")
        means = compressive_mean(load_factor * (self.cycles.mean - fixed) + fixed, spot.compressive_mean)
        reversed_amplitude = rule.to_reversed(amplitude, means, strength)
        finite = np.isfinite(reversed_amplitude)
        at_curve = rule.at_r(np.where(finite, reversed_amplitude, 1.0), float(self.curve.r_ratio), strength)
        return self.curve.from_amplitude(np.where(finite, at_curve, np.inf))

    def damage(self, load_factor: float = 1.0) -> FloatArray:
        """Damage of each cycle per repeat, n / N, shape (k,)."""
        with np.errstate(divide="ignore"):
            return np.asarray(self.per_repeat / self.curve.life(self.equivalent_stress(load_factor)))


def spectrum(hot_spot: HotSpot, duty_cycle: DutyCycle) -> Spectrum:
    """The local stress cycles of `hot_spot` in one repeat of `duty_cycle`, counted once per event and channel."""
    curve = hot_spot.curve
    if curve is None:
        raise InputError(f"hot spot {hot_spot.name}", "no S-N curve", "a curve, needed for a life", "Give it one.")
    found = local_cycles(hot_spot, duty_cycle)
    return Spectrum(
        hot_spot, curve, found.cycles, found.event, found.per_repeat, found.lowest, found.highest, found.sources
    )
