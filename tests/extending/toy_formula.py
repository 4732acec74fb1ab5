"""A formula of one's own for the cycles of random stress: every peak a cycle, of one range that keeps the rms."""

import math

from vivid_anvil.spectra import EXPECTED_CYCLES, ExpectedCycles, RangeDensity
from vivid_anvil.spectra.range_density import SingleRange


@EXPECTED_CYCLES.add("one range")
class OneRange(ExpectedCycles):
    """A sine of the rms, at the rate of peaks."""

    source = "made up"
    misses = "all but the rms"

    @staticmethod
    def ranges(process, slope):
        """2√2 rms, at the rate of peaks."""
        return RangeDensity(singles=(SingleRange(process.peak_rate, 2.0 * math.sqrt(2.0) * process.rms),))
