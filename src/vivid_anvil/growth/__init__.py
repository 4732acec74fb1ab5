"""A crack through a duty cycle: limits, growth, inspection."""

from vivid_anvil.growth.by_cycle import CycleGrowth, grow_by_cycle
from vivid_anvil.growth.course import CrackCourse, VisitedLaw, crack_course, visited_law
from vivid_anvil.growth.crack import Crack
from vivid_anvil.growth.driving_cycles import (
    COUNTED_PARTS,
    GrowthDrive,
    growth_drive,
    growth_per_repeat,
    threshold_sizes,
)
from vivid_anvil.growth.grow import grow_crack, with_tests
from vivid_anvil.growth.growth_numbers import Growth
from vivid_anvil.growth.growth_page import course_of_all
from vivid_anvil.growth.initial_sizes import SizeLives, largest_lasting_size, lives_over_size
from vivid_anvil.growth.inspection import InspectionPlan, inspection_plan
from vivid_anvil.growth.integrate import GrowthTable, integrate_growth, size_after
from vivid_anvil.growth.integrate_two import TwoSizeTable, integrate_two, two_size_rates
from vivid_anvil.growth.limits import CriticalSizes, critical_sizes
from vivid_anvil.growth.load_limits import LoadLimit, limits_over_load
from vivid_anvil.growth.memories import RETARDATIONS, ConstantClosure, NoRetardation, Retardation, Wheeler, Willenborg
from vivid_anvil.growth.result import GrowthResult
from vivid_anvil.growth.working import growth_working

__all__ = [
    "COUNTED_PARTS",
    "RETARDATIONS",
    "ConstantClosure",
    "Crack",
    "CrackCourse",
    "CriticalSizes",
    "CycleGrowth",
    "Growth",
    "GrowthDrive",
    "GrowthResult",
    "GrowthTable",
    "InspectionPlan",
    "LoadLimit",
    "NoRetardation",
    "Retardation",
    "SizeLives",
    "TwoSizeTable",
    "VisitedLaw",
    "Wheeler",
    "Willenborg",
    "course_of_all",
    "crack_course",
    "critical_sizes",
    "grow_by_cycle",
    "grow_crack",
    "growth_drive",
    "growth_per_repeat",
    "growth_working",
    "inspection_plan",
    "integrate_growth",
    "integrate_two",
    "largest_lasting_size",
    "limits_over_load",
    "lives_over_size",
    "size_after",
    "threshold_sizes",
    "two_size_rates",
    "visited_law",
    "with_tests",
]
