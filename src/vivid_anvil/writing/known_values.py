"""The numbers of a known column, in the coherent unit that its heading says."""

from __future__ import annotations

import numpy as np

from vivid_anvil.ground.checks import FloatArray
from vivid_anvil.ground.errors import InputError
from vivid_anvil.units import DIMENSIONS, factor
from vivid_anvil.writing.known_table import KnownTable
from vivid_anvil.writing.read_table import column_numbers

EXAMPLES = {
    "strain": "%",
    "stress": "MPa",
    "length": "mm",
    "energy density": "kJ/m^3",
    "energy release rate": "kJ/m^2",
    "growth rate": "mm/cycle",
}


def known_values(
    table: KnownTable, key: str, dimension: str, plain: tuple[str, ...] = (), said: str = ""
) -> FloatArray:
    """A column with its unit; one without dimension has none of other units than `plain`, and `said` is what it holds.

    Raises InputError, with place and column, for a missing or another unit, and for what is no number.
    """
    cell = next(head.cell for head in table.headings if head.column == key)
    place = f"{table.where}, column {cell!r}"
    numbers = column_numbers(table.frame[key], place)
    unit = table.unit(key)
    if not dimension:
        if unit not in ("", "1", "-", *plain):
            raise InputError(place, repr(unit), said)
        return numbers
    if not unit:
        raise InputError(place, "no unit", f"a unit in brackets, such as '{key} [{EXAMPLES[dimension]}]'")
    return np.asarray(factor(unit, DIMENSIONS[dimension], place) * numbers)
