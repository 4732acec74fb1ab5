"""S-N curves that are no straight lines: a formula, a file each form; and what is done to one, on top of it.

In: stress, MPa, in the curve's own terms (range or amplitude, at its R). Out: life, cycles; and back.
"""

from __future__ import annotations

import math
from abc import ABC, abstractmethod
from dataclasses import dataclass
from typing import ClassVar

import numpy as np

from vivid_anvil.ground.checks import FloatArray
from vivid_anvil.ground.choices import Choices

CURVED_FORMS: Choices[type[CurvedForm]] = Choices("form of an S-N curve")
NEAR = 1e-4  # of a logarithm, over which a slope is taken


class CurvedForm(ABC):
    """A falling curve by a formula; the class is a frozen dataclass of plain values with units.

    `formula` is told, with S the stress and N the life; `source` says whose it is.
    """

    kind: ClassVar[str]
    formula: ClassVar[str]
    source: ClassVar[str]

    @abstractmethod
    def life(self, stress: FloatArray) -> FloatArray:
        """Life, cycles, at stresses above 0, MPa; inf where nothing does damage."""

    @abstractmethod
    def stress_at(self, life: FloatArray) -> FloatArray:
        """The inverse: stress, MPa, at lives above 0, cycles."""

    @abstractmethod
    def numbers(self, stress: float, one: float) -> str:
        """The right side of the formula at a stress, MPa, with all stresses times `one`, to redo by hand."""

    @property
    def limit(self) -> float:
        """Stress, MPa, at and below which nothing does damage; 0 where there is none."""
        return 0.0

    def slope_at(self, stress: float) -> float:
        """Local slope m = -d log N / d log S."""
        if stress <= self.limit:
            return math.inf
        ends = stress * np.exp([-NEAR, NEAR])
        high, low = np.log(self.life(ends))
        return float((high - low) / (2.0 * NEAR)) if np.isfinite(high) else math.inf

    @property
    def words(self) -> str:
        """The form in a line."""
        return self.formula


@dataclass(frozen=True)
class Changed(CurvedForm):
    """Another form with all its stresses times `stress_factor` and all its lives times `life_factor`."""

    of: CurvedForm
    stress_factor: float = 1.0
    life_factor: float = 1.0

    @property
    def formula(self) -> str:  # type: ignore[override]
        """With the factors in it."""
        return f"{self.of.formula}; stresses × {self.stress_factor:.6g}, lives × {self.life_factor:.6g}"

    @property
    def source(self) -> str:  # type: ignore[override]
        """That of the other."""
        return self.of.source

    @property
    def limit(self) -> float:
        """Moved with the stresses."""
        return self.stress_factor * self.of.limit

    def life(self, stress: FloatArray) -> FloatArray:
        """Of the smaller stress, with the factor."""
        return self.life_factor * self.of.life(np.asarray(stress) / self.stress_factor)

    def stress_at(self, life: FloatArray) -> FloatArray:
        """The other way round."""
        return self.stress_factor * self.of.stress_at(np.asarray(life) / self.life_factor)

    def numbers(self, stress: float, one: float) -> str:
        """Those of the other, with the factor."""
        inner = self.of.numbers(stress / self.stress_factor, one)
        return inner if self.life_factor == 1.0 else f"{self.life_factor:.7g} × {inner}"
