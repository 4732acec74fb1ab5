"""How a crack grows: shapes, critical sizes, growth through the duty cycle, inspection."""

from vivid_anvil.cracks.by_cycle import CycleGrowth, Retardation, grow_by_cycle, opening_stress
from vivid_anvil.cracks.crack import Crack
from vivid_anvil.cracks.critical import CriticalSizes, critical_sizes
from vivid_anvil.cracks.drive import COUNTED_PARTS, GrowthDrive, growth_drive, growth_per_repeat, threshold_sizes
from vivid_anvil.cracks.grid_crack import GridCrack
from vivid_anvil.cracks.grow import grow_crack, with_tests
from vivid_anvil.cracks.growth import GrowthResult
from vivid_anvil.cracks.growth_fit import GrowthFit, fit_growth_law, table_law
from vivid_anvil.cracks.growth_tests import (
    PIECES,
    GrowthTests,
    growth_of_piece,
    rates_by_polynomial,
    rates_by_secant,
    read_growth_tests,
)
from vivid_anvil.cracks.growth_working import growth_working
from vivid_anvil.cracks.inspection import InspectionPlan, inspection_plan
from vivid_anvil.cracks.integrate import GrowthTable, integrate_growth, size_after
from vivid_anvil.cracks.load_limits import LoadLimit, limits_over_load
from vivid_anvil.cracks.other_shapes import (
    AxialPipeCrack,
    BarCrack,
    BarSurfaceCrack,
    DoubleEdgeCrack,
    HoleCrack,
    PipeCrack,
    TableCrack,
)
from vivid_anvil.cracks.profile_cracks import ProfileEdgeCrack, ProfileSurfaceCrack
from vivid_anvil.cracks.shape_forms import SHAPE_KEYS, SHAPES, shape_of_keys
from vivid_anvil.cracks.shape_points import grid_of_rows, read_points
from vivid_anvil.cracks.shapes import CentreCrack, CrackShape, EdgeCrack, stress_intensity
from vivid_anvil.cracks.sizes import SizeLives, largest_lasting_size, lives_over_size
from vivid_anvil.cracks.two_way import TwoWayTable, grow_two_way, two_way_rates
from vivid_anvil.cracks.two_way_shapes import (
    CornerCrack,
    EmbeddedCrack,
    HoleCornerCrack,
    PipeSurfaceCrack,
    SurfaceCrack,
    TwoWayShape,
    VesselCrack,
)
from vivid_anvil.cracks.visited import CrackCourse, VisitedLaw, crack_course, visited_law
from vivid_anvil.intensity import StressProfile

__all__ = [
    "COUNTED_PARTS",
    "PIECES",
    "SHAPES",
    "SHAPE_KEYS",
    "AxialPipeCrack",
    "BarCrack",
    "BarSurfaceCrack",
    "CentreCrack",
    "CornerCrack",
    "Crack",
    "CrackCourse",
    "CrackShape",
    "CriticalSizes",
    "CycleGrowth",
    "DoubleEdgeCrack",
    "EdgeCrack",
    "EmbeddedCrack",
    "GridCrack",
    "GrowthDrive",
    "GrowthFit",
    "GrowthResult",
    "GrowthTable",
    "GrowthTests",
    "HoleCornerCrack",
    "HoleCrack",
    "InspectionPlan",
    "LoadLimit",
    "PipeCrack",
    "PipeSurfaceCrack",
    "ProfileEdgeCrack",
    "ProfileSurfaceCrack",
    "Retardation",
    "SizeLives",
    "StressProfile",
    "SurfaceCrack",
    "TableCrack",
    "TwoWayShape",
    "TwoWayTable",
    "VesselCrack",
    "VisitedLaw",
    "crack_course",
    "critical_sizes",
    "fit_growth_law",
    "grid_of_rows",
    "grow_by_cycle",
    "grow_crack",
    "grow_two_way",
    "growth_drive",
    "growth_of_piece",
    "growth_per_repeat",
    "growth_working",
    "inspection_plan",
    "integrate_growth",
    "largest_lasting_size",
    "limits_over_load",
    "lives_over_size",
    "opening_stress",
    "rates_by_polynomial",
    "rates_by_secant",
    "read_growth_tests",
    "read_points",
    "shape_of_keys",
    "size_after",
    "stress_intensity",
    "table_law",
    "threshold_sizes",
    "two_way_rates",
    "visited_law",
    "with_tests",
]
