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
from vivid_anvil.stress.method import METHODS, Method, PowerLoop
from vivid_anvil.stress.notch_effect import (
    NotchEffect,
    notch_effect_by_gradient,
    notch_effect_by_radius,
    relative_gradient,
)
from vivid_anvil.stress.notches import elliptic_hole, hole_in_strip, round_groove, shape_gradient, shoulder
from vivid_anvil.stress.relations import (
    CaseLoad,
    CaseLoads,
    OneLoad,
    Relation,
    SeveralLoads,
    StepLoad,
    UnitStresses,
    read_unit_stresses,
    stresses_of_rosette,
)
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
    "METHODS",
    "TOE_RULES",
    "AbsoluteMaximumPrincipal",
    "CaseLoad",
    "CaseLoads",
    "Component",
    "HotSpot",
    "Measure",
    "Method",
    "NominalStress",
    "NormalStress",
    "NotchEffect",
    "OneLoad",
    "PlateStress",
    "PowerLoop",
    "RectangleSection",
    "Relation",
    "RoundSection",
    "SeveralLoads",
    "SignedTresca",
    "SignedVonMisesHydrostatic",
    "SignedVonMisesPrincipal",
    "StepLoad",
    "ThroughThickness",
    "ToeRule",
    "UnitStresses",
    "elliptic_hole",
    "hole_in_strip",
    "notch_effect_by_gradient",
    "notch_effect_by_radius",
    "plate_under_pressure",
    "plate_with_hole",
    "read_unit_stresses",
    "relative_gradient",
    "round_groove",
    "shape_gradient",
    "shoulder",
    "stress_measure",
    "stresses_of_rosette",
    "through_thickness",
    "toe_stress",
]
