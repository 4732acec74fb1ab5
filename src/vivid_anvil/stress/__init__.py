"""What the hot spots feel: from load to stress at a point."""

from vivid_anvil.stress.hot_spot import HotSpot
from vivid_anvil.stress.measures import (
    MEASURES,
    AbsoluteMaximumPrincipal,
    Component,
    Measure,
    NormalStress,
    SignedTresca,
    SignedVonMisesHydrostatic,
    SignedVonMisesPrincipal,
    stress_measure,
)
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
    "MEASURES",
    "TOE_RULES",
    "AbsoluteMaximumPrincipal",
    "Component",
    "HotSpot",
    "Measure",
    "NominalStress",
    "NormalStress",
    "NotchEffect",
    "PlateStress",
    "RectangleSection",
    "RoundSection",
    "SignedTresca",
    "SignedVonMisesHydrostatic",
    "SignedVonMisesPrincipal",
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
    "stress_measure",
    "through_thickness",
    "toe_stress",
]
