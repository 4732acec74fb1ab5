"""A factor on the damage of the narrow band, fitted to simulations, by slope and bandwidth."""

from __future__ import annotations

from typing import ClassVar

from vivid_anvil.spectra.methods.expected_cycles import EXPECTED_CYCLES, Constant, ExpectedCycles
from vivid_anvil.spectra.methods.narrow_band import NarrowBand
from vivid_anvil.spectra.moments import Moments
from vivid_anvil.spectra.range_density import RangeDensity


def _factor(process: Moments, slope: float) -> tuple[float, float, float]:
    """a, b, and the factor a + (1 - a) (1 - ε)^b."""
    a, b = 0.926 - 0.033 * slope, 1.587 * slope - 2.323
    return a, b, a + (1.0 - a) * (1.0 - process.bandwidth) ** b


@EXPECTED_CYCLES.add("wirsching-light")
class WirschingLight(ExpectedCycles):
    """The narrow band's damage times a factor, for a curve of one slope."""

    source: ClassVar[str] = "Wirsching & Light (1980), J. Structural Division ASCE 106, 1593-1607"
    misses: ClassVar[str] = "knees and limits of a curve: it is a formula for one slope"
    one_slope: ClassVar[bool] = True

    @staticmethod
    def ranges(process: Moments, slope: float) -> RangeDensity:
        """Rayleigh ranges, fewer of them."""
        return NarrowBand.ranges(process, slope).times(_factor(process, slope)[2])

    @staticmethod
    def constants(process: Moments, slope: float) -> tuple[Constant, ...]:
        """Both constants, and the factor."""
        a, b, factor = _factor(process, slope)
        return (
            Constant("ε", "√(1 - α2²)", process.bandwidth),
            Constant("a", "0.926 - 0.033 m", a),
            Constant("b", "1.587 m - 2.323", b),
            Constant("factor", "a + (1 - a) (1 - ε)^b", factor),
        )
