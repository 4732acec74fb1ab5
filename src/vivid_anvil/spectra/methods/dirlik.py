"""Dirlik: an exponential density and two of Rayleigh, fitted to simulated spectra of many shapes."""

from __future__ import annotations

import math
from typing import Any, ClassVar, NamedTuple

from vivid_anvil.spectra.methods.expected_cycles import EXPECTED_CYCLES, Constant, ExpectedCycles
from vivid_anvil.spectra.methods.narrow_band import rayleigh
from vivid_anvil.spectra.moments import Moments
from vivid_anvil.spectra.range_density import RangeDensity, RangePart, positive


class DirlikConstants(NamedTuple):
    """Shares d1, d2, d3; q of the exponential, r of the narrower Rayleigh density (which may be negative); x."""

    x: Any
    d1: Any
    d2: Any
    d3: Any
    q: Any
    r: Any


def dirlik_constants(irregularity: Any, x: Any) -> DirlikConstants:
    """The constants for processes that are not quite narrow bands, x = m1/m0 √(m2/m4): numbers, or an array of each.

    >>> dirlik_constants(0.5, 0.4).d1
    0.24
    """
    a = irregularity
    d1 = 2.0 * (x - a**2) / (1.0 + a**2)
    rest = 1.0 - a - d1 + d1**2
    r = (a - x - d1**2) / rest
    d2 = rest / (1.0 - r)
    d3 = 1.0 - d1 - d2
    return DirlikConstants(x, d1, d2, d3, 1.25 * (a - d3 - d2 * r) / d1, r)


def _of(process: Moments) -> DirlikConstants:
    x = process.moment(1.0) / process.moment(0.0) * math.sqrt(process.moment(2.0) / process.moment(4.0))
    return dirlik_constants(process.irregularity, x)


@EXPECTED_CYCLES.add("dirlik")
class Dirlik(ExpectedCycles):
    """Z = S/(2 rms): D1/Q e^(-Z/Q) + D2 Z/R² e^(-Z²/2R²) + D3 Z e^(-Z²/2), at the rate of peaks: the method of choice."""

    source: ClassVar[str] = "Dirlik (1985), Application of computers in fatigue analysis, thesis, University of Warwick"
    misses: ClassVar[str] = "up to 10 to 30 % for two bands far apart"

    @staticmethod
    def ranges(process: Moments, slope: float) -> RangeDensity:
        """νp a second; a narrow band to rounding has Rayleigh ranges only."""
        rate, rms = process.peak_rate, process.rms
        if 1.0 - process.irregularity < 1e-9:
            return RangeDensity((rayleigh(rate, rms),))
        c = _of(process)
        exponential = RangePart(rate * c.d1, 1.0, 2.0 * rms * positive(c.q, "Dirlik's Q"))
        narrower = rayleigh(rate * c.d2, rms * positive(abs(c.r), "Dirlik's |R|"))
        return RangeDensity((exponential, narrower, rayleigh(rate * c.d3, rms)))

    @staticmethod
    def constants(process: Moments, slope: float) -> tuple[Constant, ...]:
        """In the order of a hand calculation."""
        c = _of(process)
        return (
            Constant("x", "m1/m0 √(m2/m4)", c.x),
            Constant("D1", "2 (x - α2²)/(1 + α2²)", c.d1),
            Constant("R", "(α2 - x - D1²)/(1 - α2 - D1 + D1²)", c.r),
            Constant("D2", "(1 - α2 - D1 + D1²)/(1 - R)", c.d2),
            Constant("D3", "1 - D1 - D2", c.d3),
            Constant("Q", "1.25 (α2 - D3 - D2 R)/D1", c.q),
        )
