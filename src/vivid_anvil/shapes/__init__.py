"""Cracked parts: stress intensity and collapse for a stress that is given."""

from vivid_anvil.shapes.bars_pipes_holes import (
    AxialPipeCrack,
    BarCrack,
    BarSurfaceCrack,
    DoubleEdgeCrack,
    HoleCrack,
    PipeCrack,
    TableCrack,
)
from vivid_anvil.shapes.forms import SHAPE_KEYS, SHAPES, shape_of_keys
from vivid_anvil.shapes.grid import GridCrack
from vivid_anvil.shapes.one_size import CentreCrack, CrackShape, EdgeCrack, stress_intensity
from vivid_anvil.shapes.points import grid_of_rows, read_points
from vivid_anvil.shapes.profiles import ProfileEdgeCrack, ProfileSurfaceCrack
from vivid_anvil.shapes.two_sizes import (
    CornerCrack,
    EmbeddedCrack,
    HoleCornerCrack,
    PipeSurfaceCrack,
    SurfaceCrack,
    TwoWayShape,
    VesselCrack,
)

__all__ = [
    "SHAPES",
    "SHAPE_KEYS",
    "AxialPipeCrack",
    "BarCrack",
    "BarSurfaceCrack",
    "CentreCrack",
    "CornerCrack",
    "CrackShape",
    "DoubleEdgeCrack",
    "EdgeCrack",
    "EmbeddedCrack",
    "GridCrack",
    "HoleCornerCrack",
    "HoleCrack",
    "PipeCrack",
    "PipeSurfaceCrack",
    "ProfileEdgeCrack",
    "ProfileSurfaceCrack",
    "SurfaceCrack",
    "TableCrack",
    "TwoWayShape",
    "VesselCrack",
    "grid_of_rows",
    "read_points",
    "shape_of_keys",
    "stress_intensity",
]
