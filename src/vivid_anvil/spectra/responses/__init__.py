"""What a structure makes of an input over frequency: one kind a file."""

from vivid_anvil.spectra.responses.components import ComponentResponses, ComponentTables
from vivid_anvil.spectra.responses.damping import Damping
from vivid_anvil.spectra.responses.modal_components import ModalComponents
from vivid_anvil.spectra.responses.modes import ModalResponse, modal_coordinates
from vivid_anvil.spectra.responses.oscillator import OneDegreeOfFreedom
from vivid_anvil.spectra.responses.response import RESPONSES, Resonance, Response
from vivid_anvil.spectra.responses.response_table import BETWEEN_LINES, ResponseTable

__all__ = [
    "BETWEEN_LINES",
    "RESPONSES",
    "ComponentResponses",
    "ComponentTables",
    "Damping",
    "ModalComponents",
    "ModalResponse",
    "OneDegreeOfFreedom",
    "Resonance",
    "Response",
    "ResponseTable",
    "modal_coordinates",
]
