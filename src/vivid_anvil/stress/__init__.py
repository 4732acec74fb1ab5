"""What the hot spots feel: from load to stress at a point."""

from vivid_anvil.stress.hot_spot import HotSpot
from vivid_anvil.stress.repeat_cycles import RepeatCycles, local_cycles, nominal_cycles
from vivid_anvil.stress.sections import NominalStress, RectangleSection, RoundSection, plate_with_hole
from vivid_anvil.stress.structural import TOE_RULES, ThroughThickness, ToeRule, through_thickness, toe_stress

__all__ = [
    "TOE_RULES",
    "HotSpot",
    "NominalStress",
    "RectangleSection",
    "RepeatCycles",
    "RoundSection",
    "ThroughThickness",
    "ToeRule",
    "local_cycles",
    "nominal_cycles",
    "plate_with_hole",
    "through_thickness",
    "toe_stress",
]
