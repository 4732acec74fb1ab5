"""How a larger cycle slows those after it: what each model says."""

from __future__ import annotations

import dataclasses
import math
from abc import ABC
from dataclasses import dataclass
from typing import Any, ClassVar, TypeVar

import numpy as np

from vivid_anvil.ground import checks
from vivid_anvil.ground.checks import FloatArray, read_only
from vivid_anvil.ground.choices import Choices
from vivid_anvil.ground.handed import address
from vivid_anvil.growth._kernels import SLOWED
from vivid_anvil.units import UnitSystem, in_unit, one, opened

ZONES = {"plane stress": 1.0 / math.pi, "plane strain": 1.0 / (3.0 * math.pi)}
RETARDATIONS: Choices[type[Retardation]] = Choices("retardation, kind")
KEPT = 4  # numbers that a model may keep at each end of a crack
Model = TypeVar("Model", bound="Retardation")


class Retardation(ABC):
    """How a larger cycle slows those after it; a frozen dataclass of plain values. Retardation lengthens the life.

    A model that `remembers` has a plain function `slowed` that loops are handed by its address; one that does not changes the
    cycles beforehand, by `prepared`.
    """

    kind: ClassVar[str]
    method: ClassVar[str]
    remembers: ClassVar[bool] = True
    acts: ClassVar[bool] = True  # False: every cycle is as if it were alone
    slows_the_rate: ClassVar[bool] = True  # by a factor alone, not by another K
    has_zones: ClassVar[bool] = False  # plastic zones, of a yield strength
    takes_residual_stress: ClassVar[bool] = True
    yield_strength: float | None = None

    @property
    def row(self) -> tuple[float, ...]:
        """The numbers of the model for its function."""
        return (0.0,)

    @staticmethod
    def slowed(q: Any, kept: Any, k_max: float, k_min: float, a: float, out: Any) -> int:
        """Whether larger cycles before slow this one, at size a: 0 no; 1 its rate by out[0]; 2 its K is from out[1] to out[0].

        `kept`, `KEPT` numbers that begin as 0, holds what is remembered at this end of the crack, and is kept up.
        """
        return 0

    @property
    def handed(self) -> tuple[int, FloatArray]:
        """What a loop needs: where the function stands (0: nothing is remembered), and its numbers."""
        at = address(type(self).slowed, SLOWED) if self.remembers else 0
        return at, read_only(np.array(self.row, dtype=np.float64))

    def prepared(self, rows: FloatArray, lowest: float) -> tuple[FloatArray, float]:
        """Rows (largest, smallest stress[, count]) as the loop wants them, and the stress below which nothing counts."""
        return rows, lowest

    def zone_words(self, k_max: float, units: UnitSystem = "metric") -> str:
        """The plastic zone that it reckons with, in words."""
        return "none"

    def of(self: Model, yield_strength: float | None) -> Model:
        """With the yield strength of the material, MPa, where none of its own is stated; checked."""
        if self.yield_strength is not None or not self.has_zones:
            return self
        return dataclasses.replace(self, yield_strength=yield_strength)  # type: ignore[type-var]


@RETARDATIONS.add("none")
@dataclass(frozen=True, kw_only=True)
class NoRetardation(Retardation):
    """Every cycle as if it were alone: the default everywhere."""

    method: ClassVar[str] = "-"
    acts: ClassVar[bool] = False
    remembers: ClassVar[bool] = False


def check_zone(model: Any) -> None:
    """InputError for an unknown constraint and for a yield strength that is none."""
    checks.one_of(checks.place(model, "constraint"), model.constraint, tuple(ZONES))


def needed_strength(model: Any) -> float:
    """The yield strength, MPa; InputError where neither the model nor the material states one."""
    where = f"retardation {model.kind}, yield_strength"
    return checks.positive_number(where, model.yield_strength, "a yield strength, MPa, of the material or its own")


@opened(k_max=one("stress intensity", at_least=0.0))
def plastic_zone(model: Any, k_max: float) -> float:
    """Size of the plastic zone, mm, β (K_max / yield strength)² after Irwin, β by the constraint, at `k_max`, MPa√mm.

    >>> from vivid_anvil.growth.memories.wheeler import Wheeler
    >>> round(plastic_zone(Wheeler(yield_strength=350.0), 700.0), 4)
    0.4244
    """
    return float(ZONES[model.constraint] * (k_max / needed_strength(model)) ** 2)


def zone_in_words(model: Any, k_max: float, units: UnitSystem) -> str:
    """The zone at `k_max`, MPa√mm, and what it was reckoned with."""
    size = in_unit(plastic_zone(model, k_max), "length", units)
    return f"{size} at the start, {model.constraint}, yield {in_unit(needed_strength(model), 'stress', units)}"
