"""The units of the vocabulary against pint's own definitions, which come from other hands."""

import pint
import pytest

from vivid_anvil.units.dimensions import LONG_NAMES, SYMBOLS
from vivid_anvil.units.door import _registry

OURS = ("_unit", "angle_", "load_cycle")  # which pint does not have, or has as plain numbers
WHOLE = pint.UnitRegistry()


@pytest.mark.parametrize(
    "name", sorted(name for name in {*SYMBOLS.values(), *LONG_NAMES} if not any(one in name for one in OURS))
)
def test_a_unit_is_that_of_pint(name):
    own, wanted = (registry.Quantity(1.0, name).to_base_units() for registry in (_registry(), WHOLE))
    grams = 1000.0 ** dict(wanted._units).get("kilogram", 0)  # pint's base is the kilogram, ours the gram
    assert own.magnitude == pytest.approx(wanted.magnitude * grams, rel=1e-15)
    assert dict(own.dimensionality) == dict(wanted.dimensionality)
