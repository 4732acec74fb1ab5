"""Relations: from the loads of a duty cycle to the stress at a place, a file each kind."""

from vivid_anvil.stress.relations.case_loads import CaseLoad, CaseLoads, EventLoads, StepLoad
from vivid_anvil.stress.relations.input_responses import InputResponses
from vivid_anvil.stress.relations.line_loads import LineLoads
from vivid_anvil.stress.relations.mode_loads import ModeLoads
from vivid_anvil.stress.relations.one_load import OneLoad
from vivid_anvil.stress.relations.read_unit_stresses import read_unit_stresses
from vivid_anvil.stress.relations.relation import Moment, Relation, moment_of
from vivid_anvil.stress.relations.rosette import stresses_of_rosette
from vivid_anvil.stress.relations.several_loads import SeveralLoads
from vivid_anvil.stress.relations.unit_stresses import UnitStresses
from vivid_anvil.stress.relations.vibrating_components import VibratingComponents
from vivid_anvil.stress.relations.vibrating_event import VibratingEvent

__all__ = [
    "CaseLoad",
    "CaseLoads",
    "EventLoads",
    "InputResponses",
    "LineLoads",
    "ModeLoads",
    "Moment",
    "OneLoad",
    "Relation",
    "SeveralLoads",
    "StepLoad",
    "UnitStresses",
    "VibratingComponents",
    "VibratingEvent",
    "moment_of",
    "read_unit_stresses",
    "stresses_of_rosette",
]
