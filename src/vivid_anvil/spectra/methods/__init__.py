"""How a spectrum becomes cycles: one published formula a file."""

from vivid_anvil.spectra.methods.dirlik import Dirlik
from vivid_anvil.spectra.methods.expected_cycles import EXPECTED_CYCLES, Constant, ExpectedCycles
from vivid_anvil.spectra.methods.narrow_band import NarrowBand
from vivid_anvil.spectra.methods.single_moment import SingleMoment
from vivid_anvil.spectra.methods.three_band import ThreeBand
from vivid_anvil.spectra.methods.three_quarter_moment import ThreeQuarterMoment
from vivid_anvil.spectra.methods.tovo_benasciutti import TovoBenasciutti
from vivid_anvil.spectra.methods.wirsching_light import WirschingLight
from vivid_anvil.spectra.methods.zhao_baker import ZhaoBaker

__all__ = [
    "EXPECTED_CYCLES",
    "Constant",
    "Dirlik",
    "ExpectedCycles",
    "NarrowBand",
    "SingleMoment",
    "ThreeBand",
    "ThreeQuarterMoment",
    "TovoBenasciutti",
    "WirschingLight",
    "ZhaoBaker",
]
