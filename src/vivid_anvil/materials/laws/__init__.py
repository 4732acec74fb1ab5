"""Crack growth laws, one form a file."""

from vivid_anvil.materials.laws.effective_range import EffectiveRangeLaw
from vivid_anvil.materials.laws.forman import FormanLaw
from vivid_anvil.materials.laws.forman_mettu import FormanMettuLaw
from vivid_anvil.materials.laws.hartman_schijve import HartmanSchijveLaw
from vivid_anvil.materials.laws.klesnil_lukas import KlesnilLukasLaw
from vivid_anvil.materials.laws.later_hartman_schijve import LaterHartmanSchijveLaw
from vivid_anvil.materials.laws.law import LAWS, GrowthLaw, Separate
from vivid_anvil.materials.laws.newman import opening
from vivid_anvil.materials.laws.paris import ParisLaw
from vivid_anvil.materials.laws.table import TableLaw
from vivid_anvil.materials.laws.two_stage import TwoStageLaw
from vivid_anvil.materials.laws.walker import WalkerLaw

__all__ = [
    "LAWS",
    "EffectiveRangeLaw",
    "FormanLaw",
    "FormanMettuLaw",
    "GrowthLaw",
    "HartmanSchijveLaw",
    "KlesnilLukasLaw",
    "LaterHartmanSchijveLaw",
    "ParisLaw",
    "Separate",
    "TableLaw",
    "TwoStageLaw",
    "WalkerLaw",
    "opening",
]
