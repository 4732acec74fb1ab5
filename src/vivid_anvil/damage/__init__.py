"""How fast the life is used up: mean stress, cumulative damage, life, reserve factors."""

from vivid_anvil.damage.assess import assess_life
from vivid_anvil.damage.between_effect import between_effect
from vivid_anvil.damage.life import EventShare, LifeResult, RangeClass, class_edges
from vivid_anvil.damage.life_working import life_working
from vivid_anvil.damage.mean_stress import COMPRESSIVE_MEANS, MEAN_STRESS_RULES, equivalent_amplitude
from vivid_anvil.damage.reserve import reserve_on_stress
from vivid_anvil.damage.spectrum import Spectrum, spectrum
from vivid_anvil.damage.stream import damage_of_chunks, damage_of_samples

__all__ = [
    "COMPRESSIVE_MEANS",
    "MEAN_STRESS_RULES",
    "EventShare",
    "LifeResult",
    "RangeClass",
    "Spectrum",
    "assess_life",
    "between_effect",
    "class_edges",
    "damage_of_chunks",
    "damage_of_samples",
    "equivalent_amplitude",
    "life_working",
    "reserve_on_stress",
    "spectrum",
]
