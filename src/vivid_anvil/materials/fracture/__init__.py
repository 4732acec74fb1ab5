"""Fracture of the metal at a flaw: assessment curves, toughness, weld and plates."""

from vivid_anvil.materials.fracture.assessment_curve import ASSESSMENT_CURVES, AssessmentCurve
from vivid_anvil.materials.fracture.from_charpy import CharpyToughness
from vivid_anvil.materials.fracture.from_ctod import CTODToughness
from vivid_anvil.materials.fracture.from_j import JToughness
from vivid_anvil.materials.fracture.general_curve import GeneralCurve
from vivid_anvil.materials.fracture.master_curve import MasterCurve
from vivid_anvil.materials.fracture.metal import Metal, Weld
from vivid_anvil.materials.fracture.older_curve import OlderCurve
from vivid_anvil.materials.fracture.plateau_curve import PlateauCurve
from vivid_anvil.materials.fracture.resistance_curve import ResistanceCurve
from vivid_anvil.materials.fracture.stress_strain_curve import StressStrainCurve
from vivid_anvil.materials.fracture.toughness import TOUGHNESSES, FoundToughness, KToughness, Toughness
from vivid_anvil.materials.fracture.toughness_tests import RULES, ToughnessTests

__all__ = [
    "ASSESSMENT_CURVES",
    "RULES",
    "TOUGHNESSES",
    "AssessmentCurve",
    "CTODToughness",
    "CharpyToughness",
    "FoundToughness",
    "GeneralCurve",
    "JToughness",
    "KToughness",
    "MasterCurve",
    "Metal",
    "OlderCurve",
    "PlateauCurve",
    "ResistanceCurve",
    "StressStrainCurve",
    "Toughness",
    "ToughnessTests",
    "Weld",
]
