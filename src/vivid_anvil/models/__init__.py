"""Finite-element models: stress fields, meshes, result files."""

from vivid_anvil.models.at_points import at_points
from vivid_anvil.models.averaging import NodeMeans, ShellFaces, averaged_at_nodes, shell_faces, von_mises
from vivid_anvil.models.element_values import (
    ELEMENT_VALUES,
    FACE_CHOICES,
    averaged,
    chosen_values,
    field_of_rows,
    of_face,
)
from vivid_anvil.models.hdf5_of_fields import read_field_hdf5, write_field_hdf5
from vivid_anvil.models.read_field import read_field
from vivid_anvil.models.read_frd import read_frd
from vivid_anvil.models.read_mesh import read_mesh
from vivid_anvil.models.read_modes import ModesOfModel, participation_along, read_modes, read_participation
from vivid_anvil.models.read_ply_stresses import read_ply_stresses
from vivid_anvil.models.read_section_loads import read_section_loads
from vivid_anvil.models.read_sets import with_sets
from vivid_anvil.models.read_steady import SteadyModel, read_steady
from vivid_anvil.models.read_strain_field import read_strain_field
from vivid_anvil.models.rows import FACES, Rows
from vivid_anvil.models.stress_field import Elements, StressField, joined_cases, with_boxes, without_cases
from vivid_anvil.models.surface import outer_surface, undrawable
from vivid_anvil.models.tables_of_fields import read_field_table, write_field_table

__all__ = [
    "ELEMENT_VALUES",
    "FACES",
    "FACE_CHOICES",
    "Elements",
    "ModesOfModel",
    "NodeMeans",
    "Rows",
    "ShellFaces",
    "SteadyModel",
    "StressField",
    "at_points",
    "averaged",
    "averaged_at_nodes",
    "chosen_values",
    "field_of_rows",
    "joined_cases",
    "of_face",
    "outer_surface",
    "participation_along",
    "read_field",
    "read_field_hdf5",
    "read_field_table",
    "read_frd",
    "read_mesh",
    "read_modes",
    "read_participation",
    "read_ply_stresses",
    "read_section_loads",
    "read_steady",
    "read_strain_field",
    "shell_faces",
    "undrawable",
    "von_mises",
    "with_boxes",
    "with_sets",
    "without_cases",
    "write_field_hdf5",
    "write_field_table",
]
