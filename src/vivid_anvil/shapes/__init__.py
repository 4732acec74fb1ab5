"""Cracked parts: stress intensity and collapse for a stress that is given."""

from vivid_anvil.shapes.bars import BarCrack, BarSurfaceCrack
from vivid_anvil.shapes.corner import CornerCrack, HoleCornerCrack
from vivid_anvil.shapes.cylinders import PipeSurfaceCrack, VesselCrack
from vivid_anvil.shapes.embedded import EmbeddedCrack
from vivid_anvil.shapes.from_keys import keys_of_shape, shape_of_keys
from vivid_anvil.shapes.grid import GridCrack
from vivid_anvil.shapes.hole import DoubleEdgeCrack, HoleCrack
from vivid_anvil.shapes.one_size import CentreCrack, EdgeCrack, stress_intensity
from vivid_anvil.shapes.pipes import AxialPipeCrack, PipeCrack
from vivid_anvil.shapes.points import grid_of_rows, read_points
from vivid_anvil.shapes.profiles import ProfileEdgeCrack, ProfileSurfaceCrack
from vivid_anvil.shapes.shape import SHAPES, OneSizeShape, Shape, TwoSizeShape
from vivid_anvil.shapes.shells import CylinderSurfaceCrack, SphereCrack, SphereSurfaceCrack
from vivid_anvil.shapes.surface import SurfaceCrack
from vivid_anvil.shapes.table import TableCrack

__all__ = [
    "SHAPES",
    "AxialPipeCrack",
    "BarCrack",
    "BarSurfaceCrack",
    "CentreCrack",
    "CornerCrack",
    "CylinderSurfaceCrack",
    "DoubleEdgeCrack",
    "EdgeCrack",
    "EmbeddedCrack",
    "GridCrack",
    "HoleCornerCrack",
    "HoleCrack",
    "OneSizeShape",
    "PipeCrack",
    "PipeSurfaceCrack",
    "ProfileEdgeCrack",
    "ProfileSurfaceCrack",
    "Shape",
    "SphereCrack",
    "SphereSurfaceCrack",
    "SurfaceCrack",
    "TableCrack",
    "TwoSizeShape",
    "VesselCrack",
    "grid_of_rows",
    "keys_of_shape",
    "read_points",
    "shape_of_keys",
    "stress_intensity",
]
