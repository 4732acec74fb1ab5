"""Strain-life curves and cyclic stress-strain curves of metals."""

from vivid_anvil.materials.strain.cyclic_curve import CyclicCurve
from vivid_anvil.materials.strain.estimate_strain_life import (
    hardness_estimate,
    medians_estimate,
    uniform_material_law,
    universal_slopes,
)
from vivid_anvil.materials.strain.fit_strain_life import StrainLifeFit, fit_strain_life, strain_life_through
from vivid_anvil.materials.strain.strain_life import StrainLife
from vivid_anvil.materials.strain.strain_mean import STRAIN_MEANS, StrainMean
from vivid_anvil.materials.strain.strain_tests import StrainTests, read_strain_tests

__all__ = [
    "STRAIN_MEANS",
    "CyclicCurve",
    "StrainLife",
    "StrainLifeFit",
    "StrainMean",
    "StrainTests",
    "fit_strain_life",
    "hardness_estimate",
    "medians_estimate",
    "read_strain_tests",
    "strain_life_through",
    "uniform_material_law",
    "universal_slopes",
]
