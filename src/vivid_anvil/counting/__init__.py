"""From samples to cycles: turning points, rainflow and the other counts, matrices, tails."""

from vivid_anvil.counting.counter import RANGES_AND_MEANS, RANGES_ONLY, RESIDUES, RainflowCounter, Residue
from vivid_anvil.counting.cycles import Cycles, joined
from vivid_anvil.counting.exceedance import Exceedance, classes_of_exceedance, exceedance
from vivid_anvil.counting.gate import Gated, gate
from vivid_anvil.counting.load_sequence import LoadSequence
from vivid_anvil.counting.matrix import (
    CLASS_VALUES,
    MATRICES,
    CycleMatrix,
    binning_effect,
    binning_findings,
    cycle_matrix,
)
from vivid_anvil.counting.methods import COUNTING_METHODS, CountingMethod
from vivid_anvil.counting.other_counts import (
    PeakCount,
    level_crossings,
    peaks,
    peaks_between_crossings,
    range_pair,
    simple_range,
    time_at_level,
)
from vivid_anvil.counting.rainflow import FourPointCount, four_point, rainflow
from vivid_anvil.counting.reconstruct import ORDERS, reconstruct
from vivid_anvil.counting.tail import TAILS, TailFit, fit_tail
from vivid_anvil.counting.turning_points import turning_points

__all__ = [
    "CLASS_VALUES",
    "COUNTING_METHODS",
    "MATRICES",
    "ORDERS",
    "RANGES_AND_MEANS",
    "RANGES_ONLY",
    "RESIDUES",
    "TAILS",
    "CountingMethod",
    "CycleMatrix",
    "Cycles",
    "Exceedance",
    "FourPointCount",
    "Gated",
    "LoadSequence",
    "PeakCount",
    "RainflowCounter",
    "Residue",
    "TailFit",
    "binning_effect",
    "binning_findings",
    "classes_of_exceedance",
    "cycle_matrix",
    "exceedance",
    "fit_tail",
    "four_point",
    "gate",
    "joined",
    "level_crossings",
    "peaks",
    "peaks_between_crossings",
    "rainflow",
    "range_pair",
    "reconstruct",
    "simple_range",
    "time_at_level",
    "turning_points",
]
