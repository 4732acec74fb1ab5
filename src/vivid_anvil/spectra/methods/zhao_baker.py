"""Zhao and Baker: a Weibull density of small ranges and one of Rayleigh, weighted so that the total variation is right."""

from __future__ import annotations

import math
from typing import ClassVar, NamedTuple

from scipy.special import gamma

from vivid_anvil.spectra.methods.expected_cycles import EXPECTED_CYCLES, Constant, ExpectedCycles
from vivid_anvil.spectra.methods.narrow_band import rayleigh
from vivid_anvil.spectra.moments import Moments
from vivid_anvil.spectra.range_density import RangeDensity, RangePart


class ZhaoBakerConstants(NamedTuple):
    """Share w of the Weibull density, and its parameters."""

    w: float
    alpha: float
    beta: float


def zhao_baker_constants(process: Moments) -> ZhaoBakerConstants:
    """The simple form, by the irregularity alone."""
    a = process.irregularity
    beta = 1.1 if a < 0.9 else 1.1 + 9.0 * (a - 0.9)
    alpha = 8.0 - 7.0 * a
    mean = math.sqrt(2.0 / math.pi) * float(gamma(1.0 + 1.0 / beta)) * alpha ** (-1.0 / beta)
    return ZhaoBakerConstants((1.0 - a) / (1.0 - mean), alpha, beta)


@EXPECTED_CYCLES.add("zhao-baker")
class ZhaoBaker(ExpectedCycles):
    """Z = S/(2 rms): w αβ Z^(β-1) e^(-α Z^β) + (1 - w) Z e^(-Z²/2), at the rate of peaks."""

    source: ClassVar[str] = "Zhao & Baker (1992), Int. J. Fatigue 14, 121-135, the simple form"
    misses: ClassVar[str] = "the shape of the spectrum beyond its irregularity: two bands far apart come out high"

    @staticmethod
    def ranges(process: Moments, slope: float) -> RangeDensity:
        """νp a second; a narrow band to rounding has Rayleigh ranges only."""
        rate, rms = process.peak_rate, process.rms
        if 1.0 - process.irregularity < 1e-12:
            return RangeDensity((rayleigh(rate, rms),))
        c = zhao_baker_constants(process)
        small = RangePart(rate * c.w, c.beta, 2.0 * rms * c.alpha ** (-1.0 / c.beta))
        return RangeDensity((small, rayleigh(rate * (1.0 - c.w), rms)))

    @staticmethod
    def constants(process: Moments, slope: float) -> tuple[Constant, ...]:
        """In the order of a hand calculation."""
        c = zhao_baker_constants(process)
        return (
            Constant("β", "1.1, from α2 = 0.9 on 1.1 + 9 (α2 - 0.9)", c.beta),
            Constant("α", "8 - 7 α2", c.alpha),
            Constant("w", "(1 - α2)/(1 - √(2/π) Γ(1 + 1/β) α^(-1/β))", c.w),
        )
