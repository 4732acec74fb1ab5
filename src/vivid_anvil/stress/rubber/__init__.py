"""Strained rubber: measures of strain, and the energy that is there to open a crack."""

from vivid_anvil.stress.rubber.cracking_energy import StrainPath, without_drift
from vivid_anvil.stress.rubber.strain_measures import SHEARS, STRAIN_MEASURES, cauchy_green, volumes

__all__ = ["SHEARS", "STRAIN_MEASURES", "StrainPath", "cauchy_green", "volumes", "without_drift"]
