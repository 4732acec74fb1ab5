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
from vivid_anvil.materials.mean_stress import MEAN_STRESS_RULES
from vivid_anvil.materials.mean_stress.apply import compressive_mean, counted_r
from vivid_anvil.stress import HotSpot, local_cycles
from vivid_anvil.units import opened


@dataclass(frozen=True, eq=False)
class Spectrum:
    """Local stress cycles of one repeat at a hot spot, MPa, and the curve that they are held against."""

    hot_spot: HotSpot
    curve: SNCurve  # of a family: the curve of its reference
    cycles: Cycles

    @classmethod
    def of_cycles(cls, hot_spot: HotSpot, cycles: Cycles) -> Spectrum:
        """The spectrum of local cycles that are counted already, MPa, as those of many nodes side by side."""
        return cls(hot_spot, counted_curve(hot_spot), cycles)

    @property
    def event(self) -> IntArray:
        """Of which source each cycle is."""
        return self.cycles.event

    @property
    def per_repeat(self) -> FloatArray:
        """How often each cycle happens in one repeat."""
        return self.cycles.per_repeat

    @property
    def sources(self) -> tuple[Source, ...]:
        """What the cycles are of."""
        return self.cycles.sources

    @property
    def lowest(self) -> float:
        """Lowest local stress, MPa, also where an event has no cycle."""
        low = self.cycles.lowest
        return float(self.cycles.minimum.min(initial=0.0)) if low is None else low

    @property
    def highest(self) -> float:
        """Highest local stress, MPa, also where an event has no cycle."""
        high = self.cycles.highest
        return float(self.cycles.maximum.max(initial=0.0)) if high is None else high

    def equivalent_stress(self, load_factor: float | FloatArray = 1.0) -> FloatArray:
        """Each cycle in the terms of the curve (range or amplitude, at its R), MPa, with all loads times `load_factor`.

        inf where a mean reaches the ultimate strength under a rule that has no meaning there.
        """
        spot = self.hot_spot
        rule, cycles = MEAN_STRESS_RULES.get(spot.mean_stress, "mean_stress"), self.cycles.at(load_factor)
        if isinstance(spot.curve, SNFamily):
            return spot.curve.at_reference(0.5 * cycles.range, cycles.mean)
        if self.curve.r_ratio in (ANY_R, FIXED_MEAN) or not rule.corrects:
            return (1.0 if self.curve.stress == "range" else 0.5) * cycles.range
        amplitude = 0.5 * cycles.range
        value = rule.value_of(spot.material, f"hot spot {spot.name}")
        means = compressive_mean(amplitude, cycles.mean, spot.compressive_mean, rule)
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
    return Spectrum.of_cycles(hot_spot, local_cycles(hot_spot, duty_cycle))


def counted_curve(hot_spot: HotSpot) -> SNCurve:
    """The curve of a hot spot as its cycles are held against it: of a family that of its reference, below the knee as chosen."""
    if hot_spot.curve is None:
        raise InputError(f"hot spot {hot_spot.name}", "no S-N curve", "a curve, needed for a life", "Give it one.")
    curve = hot_spot.curve.reference if isinstance(hot_spot.curve, SNFamily) else hot_spot.curve
    return curve_below_knee(curve, hot_spot.below_knee, f"hot spot {hot_spot.name}, below_knee")
