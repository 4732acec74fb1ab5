"""Strained rubber: measures of strain, computed states of it, and the energy that is there to open a crack."""

from vivid_anvil.stress.rubber.cracking_energy import StrainPath, without_drift
from vivid_anvil.stress.rubber.read_strain_states import read_strain_states
from vivid_anvil.stress.rubber.states_in_turn import StatesInTurn
from vivid_anvil.stress.rubber.strain_fields import StrainFields
from vivid_anvil.stress.rubber.strain_loads import StrainLoads
from vivid_anvil.stress.rubber.strain_measures import SHEARS, STRAIN_MEASURES, cauchy_green, volumes
from vivid_anvil.stress.rubber.strain_states import StrainStates, green_lagrange, joined_states

__all__ = [
    "SHEARS",
    "STRAIN_MEASURES",
    "StatesInTurn",
    "StrainFields",
    "StrainLoads",
    "StrainPath",
    "StrainStates",
    "cauchy_green",
    "green_lagrange",
    "joined_states",
    "read_strain_states",
    "volumes",
    "without_drift",
]
