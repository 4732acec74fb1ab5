"""Three bands: amplitudes of one, two and three rms only, as often as a Gaussian value is within each."""

from __future__ import annotations

from typing import ClassVar

from vivid_anvil.spectra.methods.expected_cycles import EXPECTED_CYCLES, ExpectedCycles
from vivid_anvil.spectra.moments import Moments
from vivid_anvil.spectra.range_density import RangeDensity, SingleRange

SHARES = (0.683, 0.271, 0.0433)  # of amplitudes of 1, 2 and 3 rms


@EXPECTED_CYCLES.add("three-band")
class ThreeBand(ExpectedCycles):
    """Ranges of 2, 4 and 6 rms: a rule for the back of an envelope."""

    source: ClassVar[str] = "Steinberg (2000), Vibration Analysis for Electronic Equipment, 3rd ed."
    misses: ClassVar[str] = "ranges beyond 6 rms, so that a limit above it gives no damage at all"

    @staticmethod
    def ranges(process: Moments, slope: float) -> RangeDensity:
        """ν0 a second, times the share of each."""
        rate, rms = process.upcrossing_rate, process.rms
        singles = (SingleRange(share * rate, 2.0 * k * rms) for k, share in enumerate(SHARES, 1))
        return RangeDensity(singles=tuple(singles))
