"""One moment for one slope: of order 2/m."""

from __future__ import annotations

from typing import ClassVar

from vivid_anvil.spectra.methods.expected_cycles import EXPECTED_CYCLES, Constant, ExpectedCycles
from vivid_anvil.spectra.methods.narrow_band import rayleigh
from vivid_anvil.spectra.moments import Moments
from vivid_anvil.spectra.range_density import RangeDensity


def _rate(process: Moments, slope: float) -> tuple[float, float]:
    """The moment of order 2/m, and the rate (m_(2/m)/m0)^(m/2), Hz, at which Rayleigh ranges give the same damage."""
    moment = process.moment(2.0 / slope)
    return moment, (moment / process.moment(0.0)) ** (0.5 * slope)


@EXPECTED_CYCLES.add("single moment")
class SingleMoment(ExpectedCycles):
    """The damage of each frequency alone, summed: (2√2)^m Γ(1 + m/2) m_(2/m)^(m/2), for a curve of one slope."""

    source: ClassVar[str] = "Lutes & Larsen (1990), J. Structural Engineering 116, 1149-1164"
    misses: ClassVar[str] = "knees and limits of a curve: it is a formula for one slope"
    one_slope: ClassVar[bool] = True

    @staticmethod
    def ranges(process: Moments, slope: float) -> RangeDensity:
        """Rayleigh ranges at the rate that gives that damage."""
        return RangeDensity((rayleigh(_rate(process, slope)[1], process.rms),))

    @staticmethod
    def constants(process: Moments, slope: float) -> tuple[Constant, ...]:
        """The moment, and the rate."""
        moment, rate = _rate(process, slope)
        return (Constant("m_(2/m)", "∫ f^(2/m) G df", moment), Constant("rate", "(m_(2/m)/m0)^(m/2)", rate))
