"""Methods: how stress cycles become damage, a file each."""

from vivid_anvil.damage.methods.cracking_energy import CrackingEnergy
from vivid_anvil.damage.methods.critical_plane import CriticalPlane
from vivid_anvil.damage.methods.local_strain import LocalStrain
from vivid_anvil.damage.methods.ply_fatigue import PlyFatigue
from vivid_anvil.damage.methods.strain_plane import StrainPlane
from vivid_anvil.damage.methods.stress_life import StressLife, stress_life, stress_life_of
from vivid_anvil.damage.methods.weld_of_two import WeldOfTwo

__all__ = [
    "CrackingEnergy",
    "CriticalPlane",
    "LocalStrain",
    "PlyFatigue",
    "StrainPlane",
    "StressLife",
    "WeldOfTwo",
    "stress_life",
    "stress_life_of",
]
