"""The door for many values at once: arrays, lists, array quantities and columns whose heading carries the unit.

In: whatever holds numbers. Out: a float, or a float64 array, in the coherent unit. What carries a unit that cannot be read is
an InputError: a number is never taken from it as it is.
"""

from __future__ import annotations

import re
from typing import Any

import numpy as np

from vivid_anvil.ground.checks import FloatArray, plain_numbers, real_number
from vivid_anvil.ground.errors import InputError, inside
from vivid_anvil.units.dimensions import DIMENSIONS
from vivid_anvil.units.door import coherent, dimension_of, factor

_HEADED = re.compile(r".*[\[(](?P<unit>[^\[\]()]*(?:\([^()]*\)[^\[\]()]*)*)[\])]\s*")


def coherent_values(value: Any, dimension: str, where: str) -> float | FloatArray:
    """`value` of `dimension`, one or many, in the coherent unit: a float for one, float64 of its shape for many.

    Text and quantities are converted, array quantities too, and a pandas Series headed "force [kN]". Raises InputError for
    another dimension, an unknown unit, and for what is no number.

    >>> coherent_values(["1 kN", 250.0], "force", "loads")
    array([1000.,  250.])
    """
    if isinstance(value, float):  # by far the most frequent
        return value
    if isinstance(value, str) or _is_quantity(value) or not hasattr(value, "__len__"):
        return _of_quantity(value, dimension, where)
    unit = unit_of(value, where)
    if isinstance(value, list | tuple) and any(isinstance(one, str) or _is_quantity(one) for one in value):
        return np.array(
            [coherent_values(one, dimension, inside(where, f"value {i}")) for i, one in enumerate(value, 1)]
        )
    numbers = plain_numbers(value, where)
    return numbers if unit is None else factor(unit, DIMENSIONS[dimension], where) * numbers


def unit_of(value: Any, where: str) -> str | None:
    """The unit that an array quantity or a headed column carries; None where it carries none.

    Raises InputError for what has a unit of another kind of quantity object, which cannot be read.

    >>> import pandas as pd
    >>> unit_of(pd.Series([1.0, 2.0], name="force [kN]"), "loads")
    'kN'
    """
    if type(value) is np.ndarray:
        return None
    if _is_quantity(value):
        return f"{value.units:~C}"
    if hasattr(value, "unit") or hasattr(value, "units"):
        found = getattr(value, "unit", None) or getattr(value, "units", None)
        raise InputError(
            where,
            f"a {type(value).__name__} in {found}",
            "numbers, text with a unit, or a pint quantity",
            "Convert it.",
        )
    name = getattr(value, "name", None)
    if isinstance(name, str) and hasattr(value, "dtype") and (match := _HEADED.fullmatch(name)) is not None:
        return match["unit"].strip()
    return None


def in_dimension(value: Any, dimension: str, where: str) -> Any:
    """An array quantity or a headed column as numbers in the coherent unit of `dimension`; anything else as it is.

    >>> in_dimension([1.0, 2.0], "force", "loads")
    [1.0, 2.0]
    """
    unit = unit_of(value, where)
    if unit is None:
        return value
    numbers = value.magnitude if _is_quantity(value) else value
    return factor(unit, DIMENSIONS[dimension], where) * plain_numbers(numbers, where)


def with_dimension(value: Any, dimension: str | None, where: str) -> tuple[Any, str]:
    """The same where the unit may say the dimension: numbers, and the dimension (given, that of the unit, or else stress).

    >>> with_dimension([1.0, 2.0], "force", "loads")
    ([1.0, 2.0], 'force')
    """
    unit = unit_of(value, where)
    if unit is None:
        return value, dimension or "stress"
    own = dimension or dimension_of(unit, where).name
    return in_dimension(value, own, where), own


def _is_quantity(value: Any) -> bool:
    return hasattr(value, "magnitude") and hasattr(value, "units")


def _of_quantity(value: Any, dimension: str, where: str) -> float | FloatArray:
    """One value, or an array quantity."""
    if _is_quantity(value) and np.ndim(value.magnitude) > 0:
        scale = factor(f"{value.units:~C}", DIMENSIONS[dimension], where)
        return scale * plain_numbers(value.magnitude, where)
    if isinstance(value, np.ndarray):  # of no dimension
        return real_number(where, value.item(), f"a value of {dimension}")
    if dimension == "number" and isinstance(value, str):
        raise InputError(where, repr(value), "a plain number")
    return coherent(value, dimension, where)
