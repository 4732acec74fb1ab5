"""Mean-stress rules: a cycle of any mean becomes the equally damaging fully reversed amplitude, and from there one at any R.

In: amplitudes and means, MPa, and the one value of the material that the rule needs. Out: amplitudes, MPa. inf where a mean
reaches the strength of a rule that has no meaning there. A rule is one file: its two formulas, what it needs, where it holds.
"""

from __future__ import annotations

import math
from abc import ABC, abstractmethod
from collections.abc import Mapping
from typing import Any, ClassVar

import numpy as np
from numpy.typing import ArrayLike

from vivid_anvil.ground.checks import FloatArray
from vivid_anvil.ground.choices import Choices
from vivid_anvil.ground.errors import InputError, did_you_mean, inside
from vivid_anvil.materials.material import Material
from vivid_anvil.units import STRENGTH, one

# What rules need, with the limits of each.
VALUES = {
    "ultimate_strength": STRENGTH,
    "yield_strength": STRENGTH,
    "true_fracture_strength": STRENGTH,
    "fatigue_strength_coefficient": STRENGTH,
    "walker_exponent": one(above=0.0, at_most=1.0),
    "mean_stress_sensitivity": one(at_least=0.0, at_most=1.0),
}
MEAN_STRESS_RULES: Choices[type[MeanStressRule]] = Choices("mean_stress")


class MeanStressRule(ABC):
    """A rule: to and from the fully reversed amplitude, the value of the material that it needs, where it holds, whose it is.

    It has no values of its own, so the class itself is used. `formula` and `formula_at` say the same in symbols; a, m and v stand
    for amplitude, mean and the value in `numbers`, and a, k and v in `numbers_at`, with k = (1 + R) / (1 - R).
    """

    kind: ClassVar[str]
    needs: ClassVar[str | None] = None
    validity: ClassVar[str]
    source: ClassVar[str]
    formula: ClassVar[str]
    numbers: ClassVar[str]
    formula_at: ClassVar[str]
    numbers_at: ClassVar[str]
    corrects: ClassVar[bool] = True  # False: the mean has no effect
    in_compression: ClassVar[bool] = True  # whether its formula has a meaning for compressive means
    needs_tension: ClassVar[bool] = False  # whether a cycle wholly in compression has no equivalent amplitude
    bounded: ClassVar[bool] = False  # reversed amplitude at amplitude + |mean| <= B below the value is at most B
    straight: ClassVar[bool] = False  # S_a / (1 - S_m / value): the one rule that loops over nodes know

    @staticmethod
    @abstractmethod
    def to_reversed(amplitude: ArrayLike, mean: ArrayLike, value: float) -> FloatArray:
        """The fully reversed amplitude, MPa, that does the same damage; inf where the rule has no meaning."""

    @staticmethod
    @abstractmethod
    def at_r(reversed_amplitude: ArrayLike, r_ratio: float, value: float) -> FloatArray:
        """The same solved for the amplitude at `r_ratio`, MPa."""

    @classmethod
    def formulas(cls, amplitude: float, mean: float) -> tuple[str, str]:
        """The formula in symbols and its numbers, as they hold for a cycle."""
        return cls.formula, cls.numbers

    @classmethod
    def formulas_at(cls, r_ratio: float) -> tuple[str, str]:
        """The same for the amplitude at an R."""
        return cls.formula_at, cls.numbers_at

    @classmethod
    def value_of(cls, material: Material, where: str) -> float:
        """The value that the rule needs, from the material; nan where it needs none. InputError where it is missing."""
        if cls.needs is None:
            return math.nan
        return material.needed(cls.needs, f"the mean-stress rule {cls.kind} of {where}")

    @classmethod
    def checked_value(cls, values: Mapping[str, Any], where: str) -> float:
        """What the rule needs of `values`, coherent and within its limits; nan where it needs nothing.

        Raises InputError for a value that is missing, that cannot be, or that this rule does not use.
        """
        for name in values:
            if name != cls.needs:
                needed = "none" if cls.needs is None else f"{cls.needs!r} alone"
                known = [cls.needs] if cls.needs is not None else []
                raise InputError(
                    inside(where, f"{name}"),
                    "a value that the rule does not use" if name in VALUES else "an unknown keyword",
                    f"{needed} with the rule {cls.kind!r}",
                    did_you_mean(name, known),
                )
        if cls.needs is None:
            return math.nan
        if values.get(cls.needs) is None:
            raise InputError(where, f"no {cls.needs}", f"the value that the rule {cls.kind!r} needs", "State it.")
        return float(VALUES[cls.needs].checked(values[cls.needs], inside(where, f"{cls.needs}")))


def mean_ratio(r_ratio: float) -> float:
    """Mean / amplitude of a cycle of `r_ratio`, other than 1: (1 + R) / (1 - R)."""
    return (1.0 + r_ratio) / (1.0 - r_ratio)


def numbers_of(*values: ArrayLike) -> tuple[FloatArray, ...]:
    """The values as arrays of float64."""
    return tuple(np.asarray(value, dtype=np.float64) for value in values)
