"""How a crack grows: shapes, critical sizes, growth through the duty cycle, inspection."""

from vivid_anvil.cracks.crack import Crack
from vivid_anvil.cracks.critical import CriticalSizes, critical_sizes
from vivid_anvil.cracks.drive import COUNTED_PARTS, GrowthDrive, growth_drive, growth_per_repeat, threshold_sizes
from vivid_anvil.cracks.grow import grow_crack
from vivid_anvil.cracks.growth import GrowthResult
from vivid_anvil.cracks.growth_working import growth_working
from vivid_anvil.cracks.integrate import GrowthTable, integrate_growth, size_after
from vivid_anvil.cracks.shapes import SHAPES, CentreCrack, CrackShape, EdgeCrack, stress_intensity

__all__ = [
    "COUNTED_PARTS",
    "SHAPES",
    "CentreCrack",
    "Crack",
    "CrackShape",
    "CriticalSizes",
    "EdgeCrack",
    "GrowthDrive",
    "GrowthResult",
    "GrowthTable",
    "critical_sizes",
    "grow_crack",
    "growth_drive",
    "growth_per_repeat",
    "growth_working",
    "integrate_growth",
    "size_after",
    "stress_intensity",
    "threshold_sizes",
]
