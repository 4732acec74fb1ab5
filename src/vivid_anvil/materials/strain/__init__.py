"""Strain-life curves and cyclic stress-strain curves of metals."""

from vivid_anvil.materials.strain.cyclic_curve import CyclicCurve
from vivid_anvil.materials.strain.estimate_strain_life import (
    hardness_estimate,
    medians_estimate,
    uniform_material_law,
    universal_slopes,
)
from vivid_anvil.materials.strain.strain_life import StrainLife
from vivid_anvil.materials.strain.strain_mean import STRAIN_MEANS, StrainMean

__all__ = [
    "STRAIN_MEANS",
    "CyclicCurve",
    "StrainLife",
    "StrainMean",
    "hardness_estimate",
    "medians_estimate",
    "uniform_material_law",
    "universal_slopes",
]
