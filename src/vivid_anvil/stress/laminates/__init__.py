"""Laminates: layups, classical lamination theory, static failure of plies, loads of a section."""

from vivid_anvil.stress.laminates.laminate import RESULTANTS, Constants, LaidPly, Laminate, LaminateState
from vivid_anvil.stress.laminates.layup import angles_of, layup_text
from vivid_anvil.stress.laminates.section_fields import SectionFields
from vivid_anvil.stress.laminates.section_loads import SectionLoads
from vivid_anvil.stress.laminates.static_failure import (
    PlyFailure,
    PlyFailures,
    StaticReserves,
    ply_failures,
    static_reserves,
)

__all__ = [
    "RESULTANTS",
    "Constants",
    "LaidPly",
    "Laminate",
    "LaminateState",
    "PlyFailure",
    "PlyFailures",
    "SectionFields",
    "SectionLoads",
    "StaticReserves",
    "angles_of",
    "layup_text",
    "ply_failures",
    "static_reserves",
]
