"""The one door for values with units, in and out."""

from vivid_anvil.ground.checks import plain_numbers
from vivid_anvil.units.dimensions import DIMENSIONS, Dimension
from vivid_anvil.units.display import UNIT_SYSTEMS, UnitSystem, display_unit, fixed, in_unit, lasting, number, shown
from vivid_anvil.units.door import coherent, coherent_ratio, dimension_of, factor, is_unit, split
from vivid_anvil.units.growth_constants import growth_constant, rate_at_range
from vivid_anvil.units.keys import Coherent, GrowthRate, OptionalCoherent, Temperature
from vivid_anvil.units.opened import (
    FORCE,
    FRONT_ANGLE,
    LENGTH,
    LENGTH_OR_NONE,
    LENGTHS,
    MOMENT,
    POISSON,
    REACH,
    STRENGTH,
    STRESS,
    STRESSES,
    Takes,
    inner,
    many,
    one,
    opened,
)
from vivid_anvil.units.sound import sound
from vivid_anvil.units.temperature import celsius
from vivid_anvil.units.values import coherent_values, in_dimension, unit_of, with_dimension

__all__ = [
    "DIMENSIONS",
    "FORCE",
    "FRONT_ANGLE",
    "LENGTH",
    "LENGTHS",
    "LENGTH_OR_NONE",
    "MOMENT",
    "POISSON",
    "REACH",
    "STRENGTH",
    "STRESS",
    "STRESSES",
    "UNIT_SYSTEMS",
    "Coherent",
    "Dimension",
    "GrowthRate",
    "OptionalCoherent",
    "Takes",
    "Temperature",
    "UnitSystem",
    "celsius",
    "coherent",
    "coherent_ratio",
    "coherent_values",
    "dimension_of",
    "display_unit",
    "factor",
    "fixed",
    "growth_constant",
    "in_dimension",
    "in_unit",
    "inner",
    "is_unit",
    "lasting",
    "many",
    "number",
    "one",
    "opened",
    "plain_numbers",
    "rate_at_range",
    "shown",
    "sound",
    "split",
    "unit_of",
    "with_dimension",
]
