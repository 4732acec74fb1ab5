"""What the part goes through: events, how often each happens in a repeat, and what happens between them."""

from vivid_anvil.events.between import BETWEEN, BETWEEN_EVENTS, Source, worst_case_pairs
from vivid_anvil.events.duty_cycle import DutyCycle
from vivid_anvil.events.equal_cycles import ConstantAmplitude
from vivid_anvil.events.event import Event
from vivid_anvil.events.gated import GatedHistory
from vivid_anvil.events.load_states import LoadStates
from vivid_anvil.events.programmes import (
    BlockProgramme,
    LoadSpectrum,
    block_programme,
    load_spectrum,
    read_programme,
    read_spectrum,
)
from vivid_anvil.events.repeated_times import repeated_times
from vivid_anvil.events.seen import Seen
from vivid_anvil.events.stated_cycles import StatedCycles

__all__ = [
    "BETWEEN",
    "BETWEEN_EVENTS",
    "BlockProgramme",
    "ConstantAmplitude",
    "DutyCycle",
    "Event",
    "GatedHistory",
    "LoadSpectrum",
    "LoadStates",
    "Seen",
    "Source",
    "StatedCycles",
    "block_programme",
    "load_spectrum",
    "read_programme",
    "read_spectrum",
    "repeated_times",
    "worst_case_pairs",
]
