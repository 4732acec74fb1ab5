"""What the part goes through: events, how often each happens in a repeat, and what happens between them."""

from vivid_anvil.events.between import BETWEEN, BETWEEN_EVENTS, Source, worst_case_pairs
from vivid_anvil.events.channel_sum import ChannelSum
from vivid_anvil.events.duty_cycle import DutyCycle, Event
from vivid_anvil.events.equal_cycles import ConstantAmplitude
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

__all__ = [
    "BETWEEN",
    "BETWEEN_EVENTS",
    "BlockProgramme",
    "ChannelSum",
    "ConstantAmplitude",
    "DutyCycle",
    "Event",
    "GatedHistory",
    "LoadSpectrum",
    "LoadStates",
    "Source",
    "block_programme",
    "load_spectrum",
    "read_programme",
    "read_spectrum",
    "repeated_times",
    "worst_case_pairs",
]
