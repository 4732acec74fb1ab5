"""The same on a whole model: stresses at thousands to millions of nodes, life at each, and where it is shortest."""

from vivid_anvil.fields.at_points import at_points
from vivid_anvil.fields.averaging import NodeMeans, ShellFaces, averaged_at_nodes, shell_faces, von_mises
from vivid_anvil.fields.element_values import ELEMENT_VALUES, FACE_CHOICES, averaged, field_of_rows, of_face
from vivid_anvil.fields.field_loads import CaseLoad, EventLoads, FieldLoads, StepLoad
from vivid_anvil.fields.hdf5_of_fields import read_field_hdf5, write_field_hdf5
from vivid_anvil.fields.hottest import HotPlace, hottest_places, neighbours_within
from vivid_anvil.fields.measures import MEASURES, StressMeasure
from vivid_anvil.fields.model_findings import model_findings
from vivid_anvil.fields.model_result import ModelResult, NodeValues
from vivid_anvil.fields.model_view import DIRECTIONS, ModelView
from vivid_anvil.fields.node_life import WorstCycle, node_life, node_tensors, worst_cycle
from vivid_anvil.fields.node_working import stress_working
from vivid_anvil.fields.planes import (
    PLANES,
    assess_planes,
    critical_planes,
    half_sphere,
    surface_directions,
    surface_normals,
    surface_part,
)
from vivid_anvil.fields.read_field import read_field
from vivid_anvil.fields.read_frd import read_frd
from vivid_anvil.fields.read_mesh import read_mesh
from vivid_anvil.fields.read_sets import with_sets
from vivid_anvil.fields.reserves import reserves_on_stress
from vivid_anvil.fields.rows import FACES, Rows
from vivid_anvil.fields.stress_field import COMPONENTS, Elements, StressField, joined_cases, with_boxes, without_cases
from vivid_anvil.fields.structural_field import ThroughPath, ToePath, structural_field
from vivid_anvil.fields.surface import outer_surface, undrawable
from vivid_anvil.fields.tables_of_fields import read_field_table, write_field_table
from vivid_anvil.fields.trust import Trust, TrustOfNodes, trust_of, trust_of_nodes
from vivid_anvil.fields.whole_model import assess_model, left_out, regions_of
from vivid_anvil.fields.write_results import write_results

__all__ = [
    "COMPONENTS",
    "DIRECTIONS",
    "ELEMENT_VALUES",
    "FACES",
    "FACE_CHOICES",
    "MEASURES",
    "PLANES",
    "CaseLoad",
    "Elements",
    "EventLoads",
    "FieldLoads",
    "HotPlace",
    "ModelResult",
    "ModelView",
    "NodeMeans",
    "NodeValues",
    "Rows",
    "ShellFaces",
    "StepLoad",
    "StressField",
    "StressMeasure",
    "ThroughPath",
    "ToePath",
    "Trust",
    "TrustOfNodes",
    "WorstCycle",
    "assess_model",
    "assess_planes",
    "at_points",
    "averaged",
    "averaged_at_nodes",
    "critical_planes",
    "field_of_rows",
    "half_sphere",
    "hottest_places",
    "joined_cases",
    "left_out",
    "model_findings",
    "neighbours_within",
    "node_life",
    "node_tensors",
    "of_face",
    "outer_surface",
    "read_field",
    "read_field_hdf5",
    "read_field_table",
    "read_frd",
    "read_mesh",
    "regions_of",
    "reserves_on_stress",
    "shell_faces",
    "stress_working",
    "structural_field",
    "surface_directions",
    "surface_normals",
    "surface_part",
    "trust_of",
    "trust_of_nodes",
    "undrawable",
    "von_mises",
    "with_boxes",
    "with_sets",
    "without_cases",
    "worst_cycle",
    "write_field_hdf5",
    "write_field_table",
    "write_results",
]
