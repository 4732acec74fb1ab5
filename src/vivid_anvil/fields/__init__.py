"""The assessments at every node of a model."""

from vivid_anvil.fields.endless_nodes import EndlessNodes, endless_life_of_nodes
from vivid_anvil.fields.free_surface import WHOLE, free_surface_normals
from vivid_anvil.fields.hottest import HotPlace, hottest_places, neighbours_within
from vivid_anvil.fields.model_answer import ModelAnswer, model_answer
from vivid_anvil.fields.model_findings import model_findings
from vivid_anvil.fields.model_result import ModelResult, NodeValues
from vivid_anvil.fields.model_view import DIRECTIONS, ModelView
from vivid_anvil.fields.node_life import WorstCycle, node_life, node_tensors, worst_cycle
from vivid_anvil.fields.planes import (
    PLANES,
    assess_planes,
    critical_planes,
    surface_directions,
    surface_normals,
    surface_part,
)
from vivid_anvil.fields.proportionality import Trust, TrustOfNodes, trust_of, trust_of_nodes
from vivid_anvil.fields.reserves import reserves_on_stress
from vivid_anvil.fields.structural_field import ThroughPath, ToePath, structural_field
from vivid_anvil.fields.whole_model import assess_model, left_out, regions_of
from vivid_anvil.fields.write_results import write_results
from vivid_anvil.stress.directions import half_sphere
from vivid_anvil.stress.relations import CaseLoad, CaseLoads, EventLoads, StepLoad

__all__ = [
    "DIRECTIONS",
    "PLANES",
    "WHOLE",
    "CaseLoad",
    "CaseLoads",
    "EndlessNodes",
    "EventLoads",
    "HotPlace",
    "ModelAnswer",
    "ModelResult",
    "ModelView",
    "NodeValues",
    "StepLoad",
    "ThroughPath",
    "ToePath",
    "Trust",
    "TrustOfNodes",
    "WorstCycle",
    "assess_model",
    "assess_planes",
    "critical_planes",
    "endless_life_of_nodes",
    "free_surface_normals",
    "half_sphere",
    "hottest_places",
    "left_out",
    "model_answer",
    "model_findings",
    "neighbours_within",
    "node_life",
    "node_tensors",
    "regions_of",
    "reserves_on_stress",
    "structural_field",
    "surface_directions",
    "surface_normals",
    "surface_part",
    "trust_of",
    "trust_of_nodes",
    "worst_cycle",
    "write_results",
]
