"""What the part goes through: events, how often each happens in a repeat, and what happens between them."""

from vivid_anvil.events.between import BETWEEN, BETWEEN_EVENTS, Source, worst_case_pairs
from vivid_anvil.events.duty_cycle import DutyCycle
from vivid_anvil.events.equal_cycles import ConstantAmplitude
from vivid_anvil.events.event import Event
from vivid_anvil.events.gated import GatedHistory
from vivid_anvil.events.load_states import LoadStates
from vivid_anvil.events.profile import Profile
from vivid_anvil.events.programmes import (
    BlockProgramme,
    LoadSpectrum,
    block_programme,
    load_spectrum,
    read_programme,
    read_spectrum,
)
from vivid_anvil.events.random_vibration import RandomVibration
from vivid_anvil.events.repeated_times import repeated_times
from vivid_anvil.events.seen import Seen
from vivid_anvil.events.sine import Sine
from vivid_anvil.events.sine_course import Course, Dwells, Sweep
from vivid_anvil.events.stated_cycles import StatedCycles

__all__ = [
    "BETWEEN",
    "BETWEEN_EVENTS",
    "BlockProgramme",
    "ConstantAmplitude",
    "Course",
    "DutyCycle",
    "Dwells",
    "Event",
    "GatedHistory",
    "LoadSpectrum",
    "LoadStates",
    "Profile",
    "RandomVibration",
    "Seen",
    "Sine",
    "Source",
    "StatedCycles",
    "Sweep",
    "block_programme",
    "load_spectrum",
    "read_programme",
    "read_spectrum",
    "repeated_times",
    "worst_case_pairs",
]
