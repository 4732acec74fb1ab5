"""All local stress cycles of a hot spot in one repeat, and their damage: the sum that everything else is asked of.

Method: linear damage, D = Σ n / N (Palmgren, A. 1924, VDI-Z. 68, 339-341; Miner, M. A. 1945, J. Appl. Mech. 12,
A159-A164).
"""

from __future__ import annotations

from dataclasses import dataclass

import numpy as np

from vivid_anvil.counting import Cycles
from vivid_anvil.events import DutyCycle, Source
from vivid_anvil.ground.checks import FloatArray, IntArray
from vivid_anvil.ground.errors import InputError
from vivid_anvil.materials import ANY_R, FIXED_MEAN, SNCurve, SNFamily
from vivid_anvil.materials.curves.below_knee import consistent_damage, curve_below_knee
from vivid_anvil.materials.mean_stress.rules import compressive_mean, counted_r, mean_stress_rule, rule_value
from vivid_anvil.stress import HotSpot, local_cycles
from vivid_anvil.units import opened


@dataclass(frozen=True, eq=False)
class Spectrum:
    """Local stress cycles of every event of one repeat: `cycles` of one occurrence each, and which `event` they are of.

    `per_repeat`, shape (k,), is how often each happens in one repeat; `lowest` and `highest` are the local stress, MPa.
    """

    hot_spot: HotSpot
    curve: SNCurve  # of a family: the curve of its reference
    cycles: Cycles
    event: IntArray
    per_repeat: FloatArray
    lowest: float
    highest: float
    sources: tuple[Source, ...]

    @classmethod
    def of_cycles(cls, hot_spot: HotSpot, cycles: Cycles, per_repeat: FloatArray) -> Spectrum:
        """The spectrum of local cycles that are counted already, MPa, as those of many nodes side by side."""
        low = float((cycles.mean - 0.5 * cycles.range).min(initial=0.0))
        high = float((cycles.mean + 0.5 * cycles.range).max(initial=0.0))
        event = np.zeros(len(cycles), dtype=np.int64)
        return cls(hot_spot, counted_curve(hot_spot), cycles, event, per_repeat, low, high, ())

    def equivalent_stress(self, load_factor: float = 1.0) -> FloatArray:
        """Each cycle in the terms of the curve (range or amplitude, at its R), MPa, with all loads times `load_factor`.

        inf where a mean reaches the ultimate strength under a rule that has no meaning there.
        """
        spot = self.hot_spot
        fixed = spot.notch_factor * spot.offset
        rule = mean_stress_rule(spot.mean_stress)
        if isinstance(spot.curve, SNFamily):
            means = load_factor * (self.cycles.mean - fixed) + fixed
            return spot.curve.at_reference(0.5 * load_factor * self.cycles.range, means)
        if self.curve.r_ratio in (ANY_R, FIXED_MEAN) or rule.name == "none":
            return (load_factor if self.curve.stress == "range" else 0.5 * load_factor) * self.cycles.range
        amplitude = 0.5 * load_factor * self.cycles.range
        value = rule_value(rule, spot.material, f"hot spot {spot.name}")
        actual = load_factor * (self.cycles.mean - fixed) + fixed
        means = compressive_mean(amplitude, actual, spot.compressive_mean, rule)
        reversed_amplitude = rule.to_reversed(amplitude, means, value)
        finite = np.isfinite(reversed_amplitude)
        r_ratio = counted_r(float(self.curve.r_ratio), spot.compressive_mean)
        at_curve = rule.at_r(np.where(finite, reversed_amplitude, 1.0), r_ratio, value)
        return self.curve.from_amplitude(np.where(finite, at_curve, np.inf))

    def damage(self, load_factor: float = 1.0) -> FloatArray:
        """Damage of each cycle per repeat, n / N, shape (k,)."""
        return self.damage_of(self.equivalent_stress(load_factor))

    def damage_of(self, equivalent: FloatArray) -> FloatArray:
        """Damage per repeat, shape (k,), of the cycles at `equivalent` stresses, MPa, in the terms of the curve; inf at inf."""
        beyond = np.isinf(equivalent)
        if beyond.any():
            return np.where(beyond, np.inf, self.damage_of(np.where(beyond, 0.0, equivalent)))
        if self.hot_spot.below_knee == "consistent":
            return consistent_damage(equivalent, self.per_repeat, self.curve)
        with np.errstate(divide="ignore"):
            return np.asarray(self.per_repeat / self.curve.life(equivalent))


@opened()
def spectrum(hot_spot: HotSpot, duty_cycle: DutyCycle) -> Spectrum:
    """The local stress cycles of `hot_spot` in one repeat of `duty_cycle`, counted once per event and channel."""
    found, curve = local_cycles(hot_spot, duty_cycle), counted_curve(hot_spot)
    return Spectrum(
        hot_spot, curve, found.cycles, found.event, found.per_repeat, found.lowest, found.highest, found.sources
    )


def counted_curve(hot_spot: HotSpot) -> SNCurve:
    """The curve of a hot spot as its cycles are held against it: of a family that of its reference, below the knee as chosen."""
    if hot_spot.curve is None:
        raise InputError(f"hot spot {hot_spot.name}", "no S-N curve", "a curve, needed for a life", "Give it one.")
    curve = hot_spot.curve.reference if isinstance(hot_spot.curve, SNFamily) else hot_spot.curve
    return curve_below_knee(curve, hot_spot.below_knee, f"hot spot {hot_spot.name}, below_knee")
