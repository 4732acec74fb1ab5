"""A method of one's own: each cycle does (amplitude / strength)^power of damage, whatever its mean."""

from __future__ import annotations

from dataclasses import dataclass

import numpy as np

from vivid_anvil.stress import METHODS, Method
from vivid_anvil.units import Coherent
from vivid_anvil.writing.working import Step, put_in


@METHODS.add("power of amplitude")
@dataclass(frozen=True, kw_only=True)
class PowerOfAmplitude(Method):
    """D = Σ n (S_a / S_1)^p; nothing below a stress that is idle."""

    at_once: Coherent = Coherent("stress", above=0.0)
    power: Coherent = Coherent("number", above=0.0)
    idle: Coherent = Coherent("stress", at_least=0.0, default=0.0)

    def terms(self, spot, cycles):
        """Amplitudes."""
        return 0.5 * cycles.range

    def damage(self, spot, terms, per_repeat):
        """By the power."""
        return np.where(terms > self.idle, per_repeat * (terms / self.at_once) ** self.power, 0.0)

    def never(self, spot, bound):
        """What stays below the idle stress."""
        return bound <= self.idle

    def steps(self, spot, size, mean, units):
        """One step."""
        numbers = f"({put_in(self.at_once)} MPa / {put_in(size)} MPa)^{put_in(self.power)}"
        return [
            Step("Life at this amplitude", "N = (S_1 / S_a)^p", numbers, (self.at_once / size) ** self.power, "cycles")
        ]
