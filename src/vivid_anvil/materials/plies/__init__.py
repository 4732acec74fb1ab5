"""Plies of long fibres: stiffness, strengths, static criteria, lives by mode, decay of strength and stiffness."""

from vivid_anvil.materials.plies.bell import Bell
from vivid_anvil.materials.plies.criteria import (
    PLY_CRITERIA,
    Hashin,
    LargestPlyStrain,
    LargestPlyStress,
    PlyCriterion,
    Puck,
    TsaiWu,
    criterion_of,
)
from vivid_anvil.materials.plies.energy_life import EnergyLife, energy_range, normalised_energy
from vivid_anvil.materials.plies.largest_stress import LargestStress
from vivid_anvil.materials.plies.life_diagram import LIFE_DIAGRAMS, LifeDiagram, joint_lives
from vivid_anvil.materials.plies.ply import Ply
from vivid_anvil.materials.plies.rays import Rays
from vivid_anvil.materials.plies.shifted_linear import ShiftedLinear
from vivid_anvil.materials.plies.stiffness_decay import (
    STIFFNESS_DECAYS,
    NormalisedStiffness,
    PowerStiffness,
    StiffnessDecay,
    StiffnessRate,
)
from vivid_anvil.materials.plies.strength_decay import STRENGTH_DECAYS, NormalisedStrength, PowerStrength, StrengthDecay

__all__ = [
    "LIFE_DIAGRAMS",
    "PLY_CRITERIA",
    "STIFFNESS_DECAYS",
    "STRENGTH_DECAYS",
    "Bell",
    "EnergyLife",
    "Hashin",
    "LargestPlyStrain",
    "LargestPlyStress",
    "LargestStress",
    "LifeDiagram",
    "NormalisedStiffness",
    "NormalisedStrength",
    "Ply",
    "PlyCriterion",
    "PowerStiffness",
    "PowerStrength",
    "Puck",
    "Rays",
    "ShiftedLinear",
    "StiffnessDecay",
    "StiffnessRate",
    "StrengthDecay",
    "TsaiWu",
    "criterion_of",
    "energy_range",
    "joint_lives",
    "normalised_energy",
]
