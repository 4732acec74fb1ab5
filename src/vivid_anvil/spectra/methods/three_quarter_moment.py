"""A factor on the narrow band by the moment of order 0.75: α0.75²."""

from __future__ import annotations

from typing import ClassVar

from vivid_anvil.spectra.methods.expected_cycles import EXPECTED_CYCLES, Constant, ExpectedCycles
from vivid_anvil.spectra.methods.narrow_band import NarrowBand
from vivid_anvil.spectra.moments import Moments
from vivid_anvil.spectra.range_density import RangeDensity


@EXPECTED_CYCLES.add("three-quarter moment")
class ThreeQuarterMoment(ExpectedCycles):
    """Rayleigh ranges, α0.75² times as many: for one slope, though the factor does not ask which."""

    source: ClassVar[str] = "Benasciutti & Tovo (2006), Probabilistic Engineering Mechanics 21, 115-127"
    misses: ClassVar[str] = "the shape of the density: it is a factor on the damage for a curve of one slope"

    @staticmethod
    def ranges(process: Moments, slope: float) -> RangeDensity:
        """ν0 α0.75² a second."""
        return NarrowBand.ranges(process, slope).times(process.bandwidth_factor(0.75) ** 2)

    @staticmethod
    def constants(process: Moments, slope: float) -> tuple[Constant, ...]:
        """The factor."""
        factor = process.bandwidth_factor(0.75)
        return (Constant("α0.75", "m0.75/√(m0 m1.5)", factor), Constant("factor", "α0.75²", factor**2))
