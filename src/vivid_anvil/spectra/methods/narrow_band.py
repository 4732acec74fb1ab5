"""Narrow band: every upcrossing a cycle about the mean, amplitudes of Rayleigh's density."""

from __future__ import annotations

import math
from typing import ClassVar

from vivid_anvil.spectra.methods.expected_cycles import EXPECTED_CYCLES, ExpectedCycles
from vivid_anvil.spectra.moments import Moments
from vivid_anvil.spectra.range_density import RangeDensity, RangePart


def rayleigh(rate: float, rms: float) -> RangePart:
    """Ranges of a Gaussian narrow band of that rms, `rate` a second: twice its peaks, of scale 2√2 rms."""
    return RangePart(rate, 2.0, 2.0 * math.sqrt(2.0) * rms)


@EXPECTED_CYCLES.add("narrow band")
class NarrowBand(ExpectedCycles):
    """Rayleigh ranges at the rate of upcrossings: exact for a narrow band, on the safe side else."""

    source: ClassVar[str] = "Miles (1954), J. Aeronautical Sciences 21, 753-762; Rice (1944)"
    misses: ClassVar[str] = "small ranges within large ones: on a wide band it counts them as large"

    @staticmethod
    def ranges(process: Moments, slope: float) -> RangeDensity:
        """ν0 a second."""
        return RangeDensity((rayleigh(process.upcrossing_rate, process.rms),))
