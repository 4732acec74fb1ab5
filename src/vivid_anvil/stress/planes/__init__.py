"""Planes: what a tensor does on them, and the criteria that go by the plane where it does most."""

from vivid_anvil.stress.planes.constants import dang_van_constants, findley_constant
from vivid_anvil.stress.planes.criteria import CRITERIA, Criterion, Paths
from vivid_anvil.stress.planes.dang_van import DangVanAnswer, dang_van
from vivid_anvil.stress.planes.invariants import crossland, sines
from vivid_anvil.stress.planes.resolve import angles_of, normal_at, normal_stress, plane_axes, shear_stress
from vivid_anvil.stress.planes.search import PlaneFound, plane_map, worst_plane
from vivid_anvil.stress.planes.shear_amplitude import SHEAR_AMPLITUDES, smallest_circle
from vivid_anvil.stress.planes.surface_planes import free_normal

__all__ = [
    "CRITERIA",
    "SHEAR_AMPLITUDES",
    "Criterion",
    "DangVanAnswer",
    "Paths",
    "PlaneFound",
    "angles_of",
    "crossland",
    "dang_van",
    "dang_van_constants",
    "findley_constant",
    "free_normal",
    "normal_at",
    "normal_stress",
    "plane_axes",
    "plane_map",
    "shear_stress",
    "sines",
    "smallest_circle",
    "worst_plane",
]
