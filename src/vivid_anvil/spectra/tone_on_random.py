"""A tone on a narrow band: the envelope is Rice's, and every upcrossing a cycle.

Rice (1944): amplitudes r of density r/σ² exp(-(r² + a²)/2σ²) I0(ra/σ²).
Σ r^m a second = ν (√2σ)^m Γ(1 + m/2) 1F1(-m/2; 1; -a²/2σ²).
"""

from __future__ import annotations

import math
from collections.abc import Sequence
from dataclasses import dataclass

import numpy as np
from scipy.special import gamma, hyp1f1, i0e

from vivid_anvil.counting import Cycles
from vivid_anvil.counting.panels import of_density, places
from vivid_anvil.ground.errors import InputError
from vivid_anvil.spectra.moments import Moments
from vivid_anvil.spectra.synthesis import Tone

REACH, STEP = 14.0, 0.5  # of the envelope: how far in rms, and the width of a panel


@dataclass(frozen=True)
class ToneDensity:
    """Ranges of a tone of amplitude `tone` on a narrow band of `rms`, `rate` a second."""

    rate: float
    rms: float
    tone: float

    def moment(self, order: float) -> float:
        """Σ S^order a second, S the range, in closed form."""
        x = 0.5 * (self.tone / self.rms) ** 2
        each = (math.sqrt(2.0) * self.rms) ** order * gamma(1.0 + 0.5 * order) * hyp1f1(-0.5 * order, 1.0, -x)
        return float(self.rate * 2.0**order * each)

    def cycles(self, duration: float, *, dimension: str = "stress") -> Cycles:
        """The cycles expected in `duration`, s, about a mean of 0."""
        low, high = max(0.0, self.tone - REACH * self.rms), self.tone + REACH * self.rms
        edges = np.linspace(low, high, math.ceil((high - low) / (STEP * self.rms)) + 1)
        amplitude, weight, numbers = places(edges)
        r, a = amplitude / self.rms, self.tone / self.rms
        density = r * np.exp(-0.5 * (r - a) ** 2) * i0e(r * a) / self.rms
        counts = duration * self.rate * weight * density
        wanted = counts > 0.0
        ranges = 2.0 * amplitude[wanted]
        return of_density(ranges, np.zeros(ranges.size), counts[wanted], numbers[wanted], dimension)


def tone_density(process: Moments, tones: Sequence[Tone]) -> ToneDensity:
    """Of one tone on a process, at the upcrossings of both together: √((m2 + a²f²/2)/(m0 + a²/2)).

    InputError for several tones, whose envelope is another one.
    """
    if len(tones) != 1:
        raise InputError(
            "tones on random, narrow band",
            f"{len(tones)} tones",
            "one",
            "For several take another of the formulas: the cycles are then counted in a synthesis.",
        )
    one = tones[0]
    power = 0.5 * one.amplitude**2
    rate = math.sqrt((process.moment(2.0) + power * one.frequency**2) / (process.moment(0.0) + power))
    return ToneDensity(rate, process.rms, abs(one.amplitude))
