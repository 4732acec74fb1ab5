"""Flaw acceptance: a flaw against the assessment curve, its reserves, limiting and allowable sizes, lists of indications."""

from vivid_anvil.acceptance.allowable_flaws import AllowableFlaws, allowable_flaws
from vivid_anvil.acceptance.assess_flaw import FlawAssessment, assess_flaw
from vivid_anvil.acceptance.flaw import WELDS, Flaw
from vivid_anvil.acceptance.flaw_list import FlawList, ListedFlaw
from vivid_anvil.acceptance.flaw_looks import FlawLooks, Look, flaw_looks
from vivid_anvil.acceptance.fronts.assess_front import FrontAssessment, assess_front
from vivid_anvil.acceptance.fronts.crack_front import CrackFront, crack_front
from vivid_anvil.acceptance.fronts.crack_of_fronts import crack_of_fronts
from vivid_anvil.acceptance.fronts.mixed_mode import MIXED_MODES
from vivid_anvil.acceptance.fronts.read_crack_front import read_crack_front
from vivid_anvil.acceptance.grow_flaw import FlawGrowth, grow_flaw
from vivid_anvil.acceptance.indication import Characterised, Indication, characterised
from vivid_anvil.acceptance.leak_before_break import LeakBeforeBreak, leak_before_break, opening_area
from vivid_anvil.acceptance.limiting_sizes import LimitingCurve, LimitingSizes, limiting_sizes
from vivid_anvil.acceptance.many_flaws import PlaceOfFlaws, assess_indications
from vivid_anvil.acceptance.part import FORMS, KINDS, Part
from vivid_anvil.acceptance.partial_factors import PartialFactors
from vivid_anvil.acceptance.point import EndPoint, FractureLoads, Point, Terms
from vivid_anvil.acceptance.read_indications import read_indications
from vivid_anvil.acceptance.read_ranges import read_ranges
from vivid_anvil.acceptance.reserves import Reserve
from vivid_anvil.acceptance.sensitivity import Moved, Sensitivity, sensitivity
from vivid_anvil.acceptance.stages import RangesPerYear, Stage, stage_of_duty_cycle
from vivid_anvil.acceptance.stresses import (
    INTERACTIONS,
    PRIMARY,
    SECONDARY,
    AsWelded,
    HeatTreated,
    PressureStress,
    Primary,
    PrimaryProfile,
    PrimaryStresses,
    ProfileStress,
    Secondary,
    SecondaryStresses,
    WeldProfile,
)
from vivid_anvil.acceptance.tearing import Tearing, tearing

__all__ = [
    "FORMS",
    "INTERACTIONS",
    "KINDS",
    "MIXED_MODES",
    "PRIMARY",
    "SECONDARY",
    "WELDS",
    "AllowableFlaws",
    "AsWelded",
    "Characterised",
    "CrackFront",
    "EndPoint",
    "Flaw",
    "FlawAssessment",
    "FlawGrowth",
    "FlawList",
    "FlawLooks",
    "FractureLoads",
    "FrontAssessment",
    "HeatTreated",
    "Indication",
    "LeakBeforeBreak",
    "LimitingCurve",
    "LimitingSizes",
    "ListedFlaw",
    "Look",
    "Moved",
    "Part",
    "PartialFactors",
    "PlaceOfFlaws",
    "Point",
    "PressureStress",
    "Primary",
    "PrimaryProfile",
    "PrimaryStresses",
    "ProfileStress",
    "RangesPerYear",
    "Reserve",
    "Secondary",
    "SecondaryStresses",
    "Sensitivity",
    "Stage",
    "Tearing",
    "Terms",
    "WeldProfile",
    "allowable_flaws",
    "assess_flaw",
    "assess_front",
    "assess_indications",
    "characterised",
    "crack_front",
    "crack_of_fronts",
    "flaw_looks",
    "grow_flaw",
    "leak_before_break",
    "limiting_sizes",
    "opening_area",
    "read_crack_front",
    "read_indications",
    "read_ranges",
    "sensitivity",
    "stage_of_duty_cycle",
    "tearing",
]
