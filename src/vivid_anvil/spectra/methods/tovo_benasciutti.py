"""Tovo and Benasciutti: a share of the narrow band, and the rest at its lower bound."""

from __future__ import annotations

import math
from typing import ClassVar

from vivid_anvil.spectra.methods.expected_cycles import EXPECTED_CYCLES, Constant, ExpectedCycles
from vivid_anvil.spectra.methods.narrow_band import rayleigh
from vivid_anvil.spectra.moments import Moments
from vivid_anvil.spectra.range_density import RangeDensity


def tovo_benasciutti_share(process: Moments) -> float:
    """b, the share of the narrow band, with the constants of 2005: 1.112 and 2.11."""
    a1, a2 = process.bandwidth_factor(1.0), process.irregularity
    if 1.0 - a2 < 1e-9:
        return 1.0
    bracket = 1.112 * (1.0 + a1 * a2 - (a1 + a2)) * math.exp(2.11 * a2) + (a1 - a2)
    return (a1 - a2) * bracket / (a2 - 1.0) ** 2


@EXPECTED_CYCLES.add("tovo-benasciutti")
class TovoBenasciutti(ExpectedCycles):
    """b Rayleigh ranges at ν0, and 1 - b of a process of rms α2 σ at the rate of peaks: between an upper and a lower bound."""

    source: ClassVar[str] = "Benasciutti & Tovo (2005), Int. J. Fatigue 27, 867-877"
    misses: ClassVar[str] = "up to 20 to 30 % on the unsafe side for two bands far apart and a high slope"

    @staticmethod
    def ranges(process: Moments, slope: float) -> RangeDensity:
        """b ν0 and (1 - b) νp a second."""
        b, rms = tovo_benasciutti_share(process), process.rms
        upper = rayleigh(b * process.upcrossing_rate, rms)
        if b == 1.0:
            return RangeDensity((upper,))
        return RangeDensity((upper, rayleigh((1.0 - b) * process.peak_rate, process.irregularity * rms)))

    @staticmethod
    def constants(process: Moments, slope: float) -> tuple[Constant, ...]:
        """The share."""
        words = "(α1 - α2) [1.112 (1 + α1 α2 - (α1 + α2)) e^(2.11 α2) + (α1 - α2)]/(α2 - 1)²"
        return (
            Constant("α1", "m1/√(m0 m2)", process.bandwidth_factor(1.0)),
            Constant("b", words, tovo_benasciutti_share(process)),
        )
