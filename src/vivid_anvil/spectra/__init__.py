"""Vibration over frequency: PSDs, responses, spectral moments, expected cycles, histories made of a PSD."""

from vivid_anvil.spectra.between_points import BETWEEN_POINTS
from vivid_anvil.spectra.cross_spectra import CrossSpectra, PSDs, SpectralMatrix, Together
from vivid_anvil.spectra.density import SpectralDensity
from vivid_anvil.spectra.largest import Largest, expected_largest
from vivid_anvil.spectra.methods import EXPECTED_CYCLES, ExpectedCycles
from vivid_anvil.spectra.methods.expected_cycles import expected_ranges
from vivid_anvil.spectra.moments import Moments, StatedMoments
from vivid_anvil.spectra.non_gaussian import HermiteForm, hermite_form
from vivid_anvil.spectra.psd import PSD, psd_of_slopes
from vivid_anvil.spectra.range_density import RangeDensity
from vivid_anvil.spectra.read_spectra import read_cross_spectra, read_psd, read_response
from vivid_anvil.spectra.response_density import ResponseDensity
from vivid_anvil.spectra.responses import (
    BETWEEN_LINES,
    RESPONSES,
    ComponentResponses,
    ComponentTables,
    Damping,
    ModalComponents,
    ModalResponse,
    OneDegreeOfFreedom,
    Resonance,
    Response,
    ResponseTable,
)
from vivid_anvil.spectra.rows_of_psd import psd_of_rows
from vivid_anvil.spectra.synthesis import Synthesis, Tone, counted_synthesis, synthesized
from vivid_anvil.spectra.tensor_spectra import TensorSpectra

__all__ = [
    "BETWEEN_LINES",
    "BETWEEN_POINTS",
    "EXPECTED_CYCLES",
    "PSD",
    "RESPONSES",
    "ComponentResponses",
    "ComponentTables",
    "CrossSpectra",
    "Damping",
    "ExpectedCycles",
    "HermiteForm",
    "Largest",
    "ModalComponents",
    "ModalResponse",
    "Moments",
    "OneDegreeOfFreedom",
    "PSDs",
    "RangeDensity",
    "Resonance",
    "Response",
    "ResponseDensity",
    "ResponseTable",
    "SpectralDensity",
    "SpectralMatrix",
    "StatedMoments",
    "Synthesis",
    "TensorSpectra",
    "Together",
    "Tone",
    "counted_synthesis",
    "expected_largest",
    "expected_ranges",
    "hermite_form",
    "psd_of_rows",
    "psd_of_slopes",
    "read_cross_spectra",
    "read_psd",
    "read_response",
    "synthesized",
]
