"""Rubber: hyperelastic laws, and growth of cracks by their tearing energy."""

from vivid_anvil.materials.rubber.at_temperature import law_at
from vivid_anvil.materials.rubber.cracked_strips import edge_crack_energy, planar_strip_energy, trousers_energy
from vivid_anvil.materials.rubber.fit_hyperelastic import HyperelasticFit, constants_of, fit_hyperelastic
from vivid_anvil.materials.rubber.fit_tearing import TearingFit, fit_tearing
from vivid_anvil.materials.rubber.flaw_size import FlawSizes, initial_flaws
from vivid_anvil.materials.rubber.hyperelastic import (
    HYPERELASTIC,
    HyperelasticLaw,
    MooneyRivlin,
    NeoHookean,
    Ogden,
    Yeoh,
)
from vivid_anvil.materials.rubber.loading_modes import LOADING_MODES, stretches
from vivid_anvil.materials.rubber.power_tearing import PowerTearing
from vivid_anvil.materials.rubber.rubber import Rubber
from vivid_anvil.materials.rubber.rubber_tests import RubberTests, read_rubber_tests
from vivid_anvil.materials.rubber.shifted_tearing import ShiftedTearing
from vivid_anvil.materials.rubber.strip_lives import flaws_of_strips
from vivid_anvil.materials.rubber.tearing_law import R_EFFECTS, TEARING_LAWS, TearingLaw
from vivid_anvil.materials.rubber.tearing_tests import TearingTests, read_tearing_tests
from vivid_anvil.materials.rubber.three_regimes import ThreeRegimes

__all__ = [
    "HYPERELASTIC",
    "LOADING_MODES",
    "R_EFFECTS",
    "TEARING_LAWS",
    "FlawSizes",
    "HyperelasticFit",
    "HyperelasticLaw",
    "MooneyRivlin",
    "NeoHookean",
    "Ogden",
    "PowerTearing",
    "Rubber",
    "RubberTests",
    "ShiftedTearing",
    "TearingFit",
    "TearingLaw",
    "TearingTests",
    "ThreeRegimes",
    "Yeoh",
    "constants_of",
    "edge_crack_energy",
    "fit_hyperelastic",
    "fit_tearing",
    "flaws_of_strips",
    "initial_flaws",
    "law_at",
    "planar_strip_energy",
    "read_rubber_tests",
    "read_tearing_tests",
    "stretches",
    "trousers_energy",
]
