"""The same on a whole model: stresses at thousands to millions of nodes, life at each, and where it is shortest."""

from vivid_anvil.fields.averaging import NodeMeans, ShellFaces, averaged_at_nodes, shell_faces, von_mises
from vivid_anvil.fields.field_loads import CaseLoad, EventLoads, FieldLoads
from vivid_anvil.fields.hottest import HotPlace, hottest_places
from vivid_anvil.fields.measures import MEASURES, StressMeasure, Trust, trust_of
from vivid_anvil.fields.model_view import DIRECTIONS, ModelView
from vivid_anvil.fields.node_life import node_life, node_tensors, node_trust
from vivid_anvil.fields.planes import critical_planes, half_sphere, surface_directions, surface_normals
from vivid_anvil.fields.read_field import read_field
from vivid_anvil.fields.read_frd import read_frd
from vivid_anvil.fields.read_mesh import read_mesh
from vivid_anvil.fields.reserves import reserves_on_stress
from vivid_anvil.fields.stress_field import COMPONENTS, Elements, StressField, joined_cases, with_boxes
from vivid_anvil.fields.surface import outer_surface
from vivid_anvil.fields.tables_of_fields import read_field_hdf5, read_field_table, write_field_hdf5, write_field_table
from vivid_anvil.fields.whole_model import ModelResult, NodeValues, assess_model
from vivid_anvil.fields.write_results import write_results

__all__ = [
    "COMPONENTS",
    "DIRECTIONS",
    "MEASURES",
    "CaseLoad",
    "Elements",
    "EventLoads",
    "FieldLoads",
    "HotPlace",
    "ModelResult",
    "ModelView",
    "NodeMeans",
    "NodeValues",
    "ShellFaces",
    "StressField",
    "StressMeasure",
    "Trust",
    "assess_model",
    "averaged_at_nodes",
    "critical_planes",
    "half_sphere",
    "hottest_places",
    "joined_cases",
    "node_life",
    "node_tensors",
    "node_trust",
    "outer_surface",
    "read_field",
    "read_field_hdf5",
    "read_field_table",
    "read_frd",
    "read_mesh",
    "reserves_on_stress",
    "shell_faces",
    "surface_directions",
    "surface_normals",
    "trust_of",
    "von_mises",
    "with_boxes",
    "write_field_hdf5",
    "write_field_table",
    "write_results",
]
