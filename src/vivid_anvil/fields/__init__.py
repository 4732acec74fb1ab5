"""The same on a whole model: stresses at thousands to millions of nodes, life at each, and where it is shortest."""

from vivid_anvil.fields.averaging import NodeMeans, ShellFaces, averaged_at_nodes, shell_faces, von_mises
from vivid_anvil.fields.field_loads import CaseLoad, EventLoads, FieldLoads
from vivid_anvil.fields.hottest import HotPlace, hottest_places
from vivid_anvil.fields.measures import MEASURES, StressMeasure, Trust, trust_of
from vivid_anvil.fields.node_life import node_life, node_tensors, node_trust
from vivid_anvil.fields.stress_field import COMPONENTS, Elements, StressField, joined_cases
from vivid_anvil.fields.whole_model import ModelResult, NodeValues, assess_model

__all__ = [
    "COMPONENTS",
    "MEASURES",
    "CaseLoad",
    "Elements",
    "EventLoads",
    "FieldLoads",
    "HotPlace",
    "ModelResult",
    "NodeMeans",
    "NodeValues",
    "ShellFaces",
    "StressField",
    "StressMeasure",
    "Trust",
    "assess_model",
    "averaged_at_nodes",
    "hottest_places",
    "joined_cases",
    "node_life",
    "node_tensors",
    "node_trust",
    "shell_faces",
    "trust_of",
    "von_mises",
]
