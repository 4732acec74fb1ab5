"""What the hot spots feel: from load to stress at a point."""

from vivid_anvil.stress.hot_spot import HotSpot
from vivid_anvil.stress.notch_effect import (
    NotchEffect,
    notch_effect_by_gradient,
    notch_effect_by_radius,
    relative_gradient,
)
from vivid_anvil.stress.notches import elliptic_hole, hole_in_strip, round_groove, shape_gradient, shoulder
from vivid_anvil.stress.repeat_cycles import local_cycles, nominal_cycles
from vivid_anvil.stress.sections import (
    NominalStress,
    PlateStress,
    RectangleSection,
    RoundSection,
    plate_under_pressure,
    plate_with_hole,
)
from vivid_anvil.stress.structural import TOE_RULES, ThroughThickness, ToeRule, through_thickness, toe_stress

__all__ = [
    "TOE_RULES",
    "HotSpot",
    "NominalStress",
    "NotchEffect",
    "PlateStress",
    "RectangleSection",
    "RoundSection",
    "ThroughThickness",
    "ToeRule",
    "elliptic_hole",
    "hole_in_strip",
    "local_cycles",
    "nominal_cycles",
    "notch_effect_by_gradient",
    "notch_effect_by_radius",
    "plate_under_pressure",
    "plate_with_hole",
    "relative_gradient",
    "round_groove",
    "shape_gradient",
    "shoulder",
    "through_thickness",
    "toe_stress",
]
