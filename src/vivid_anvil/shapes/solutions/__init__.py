"""How hard a crack is driven: stress intensity for many shapes and loads, plastic collapse, failure assessment curve."""

from vivid_anvil.shapes.solutions.collapse import (
    assessment_curve,
    embedded_reference_stress,
    plasticity_interaction,
    reference_stress,
    surface_share,
    through_reference_stress,
)
from vivid_anvil.shapes.solutions.contours import ContourMeans, k_from_j, k_of_contour_frame, k_of_contours
from vivid_anvil.shapes.solutions.ellipses import (
    EllipseFactors,
    corner_crack,
    embedded_crack,
    embedded_in_infinite,
    hole_corner_crack,
    shape_factor,
    surface_crack,
)
from vivid_anvil.shapes.solutions.holes import hole_crack, hole_crack_biaxial, hole_wedge_force, pin_hole_crack
from vivid_anvil.shapes.solutions.pipes import (
    axial_through_crack,
    circumferential_through_crack,
    inner_axial_crack,
    pipe_through_crack,
)
from vivid_anvil.shapes.solutions.profile import StressProfile
from vivid_anvil.shapes.solutions.shells import part_bulging, sphere_bulging
from vivid_anvil.shapes.solutions.specimens import (
    compact_tension,
    middle_tension,
    round_bar_surround,
    round_bar_thumbnail,
    three_point_bend,
)
from vivid_anvil.shapes.solutions.through import FACTORS, FactorFormula, geometry_factor
from vivid_anvil.shapes.solutions.toe import toe_branches, toe_magnification, toe_value
from vivid_anvil.shapes.solutions.weight import (
    SurfaceWeight,
    centre_crack_by_weight,
    edge_crack_by_weight,
    surface_crack_by_weight,
    surface_ends_by_weight,
)

__all__ = [
    "FACTORS",
    "ContourMeans",
    "EllipseFactors",
    "FactorFormula",
    "StressProfile",
    "SurfaceWeight",
    "assessment_curve",
    "axial_through_crack",
    "centre_crack_by_weight",
    "circumferential_through_crack",
    "compact_tension",
    "corner_crack",
    "edge_crack_by_weight",
    "embedded_crack",
    "embedded_in_infinite",
    "embedded_reference_stress",
    "geometry_factor",
    "hole_corner_crack",
    "hole_crack",
    "hole_crack_biaxial",
    "hole_wedge_force",
    "inner_axial_crack",
    "k_from_j",
    "k_of_contour_frame",
    "k_of_contours",
    "middle_tension",
    "part_bulging",
    "pin_hole_crack",
    "pipe_through_crack",
    "plasticity_interaction",
    "reference_stress",
    "round_bar_surround",
    "round_bar_thumbnail",
    "shape_factor",
    "sphere_bulging",
    "surface_crack",
    "surface_crack_by_weight",
    "surface_ends_by_weight",
    "surface_share",
    "three_point_bend",
    "through_reference_stress",
    "toe_branches",
    "toe_magnification",
    "toe_value",
]
