"""What pulls at a flaw: primary stresses, which a section carries, secondary ones, which balance themselves, and both."""

from vivid_anvil.acceptance.stresses.as_welded import RELAXED, AsWelded
from vivid_anvil.acceptance.stresses.heat_treated import HEAT_TREATED, HeatTreated
from vivid_anvil.acceptance.stresses.interaction import INTERACTIONS, Way
from vivid_anvil.acceptance.stresses.measured_profile import ProfileStress
from vivid_anvil.acceptance.stresses.pressure import DIRECTIONS, PressureStress
from vivid_anvil.acceptance.stresses.primary import PRIMARY, Outer, Primary, PrimaryStresses
from vivid_anvil.acceptance.stresses.primary_profile import PrimaryProfile
from vivid_anvil.acceptance.stresses.secondary import SECONDARY, Balanced, Secondary, SecondaryStresses
from vivid_anvil.acceptance.stresses.weld_profile import WELD_PROFILES, WeldProfile

__all__ = [
    "DIRECTIONS",
    "HEAT_TREATED",
    "INTERACTIONS",
    "PRIMARY",
    "RELAXED",
    "SECONDARY",
    "WELD_PROFILES",
    "AsWelded",
    "Balanced",
    "HeatTreated",
    "Outer",
    "PressureStress",
    "Primary",
    "PrimaryProfile",
    "PrimaryStresses",
    "ProfileStress",
    "Secondary",
    "SecondaryStresses",
    "Way",
    "WeldProfile",
]
