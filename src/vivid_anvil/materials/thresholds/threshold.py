"""The threshold of a growth law: what each form says, and the field of a law that takes one."""

from __future__ import annotations

import math
from abc import ABC, abstractmethod
from typing import Any, ClassVar

import numpy as np
from numpy.typing import ArrayLike

from vivid_anvil.ground.checks import FloatArray, read_only
from vivid_anvil.ground.choices import Choices
from vivid_anvil.ground.handed import address
from vivid_anvil.materials.thresholds._kernels import THRESHOLD, thresholds_of
from vivid_anvil.units import UnitSystem, many, opened
from vivid_anvil.writing.working import put_in

LARGE = 1e12  # mm: a crack so long that its size does not matter
THRESHOLDS: Choices[type[Threshold]] = Choices("threshold, kind")


class Threshold(ABC):
    """A range of stress intensity, MPa√mm, at or below which a crack does not grow; a frozen dataclass of plain values.

    `value` is handed to the loops by its address: plain, of the row `numbers`, R and the size of the crack, mm.
    """

    kind: ClassVar[str]
    formula: ClassVar[str]
    method: ClassVar[str] = "as stated"
    depends_on_r: ClassVar[bool] = True
    depends_on_size: ClassVar[bool] = False

    @property
    def row(self) -> tuple[float, ...]:
        """The numbers of the form; at least one."""
        return (0.0,)

    @property
    def numbers(self) -> FloatArray:
        """The same for the loops, read-only."""
        return read_only(np.array(self.row, dtype=np.float64))

    @staticmethod
    @abstractmethod
    def value(p: Any, r: float, a: float) -> float:
        """The threshold, MPa√mm, at R of a crack of size a, mm."""

    def numbers_in(self, r: float, a: float) -> str:
        """The formula with R and size put in, MPa√mm; by default its value."""
        return put_in(float(self.at(r, a)))

    @property
    def handed(self) -> tuple[int, FloatArray]:
        """What a loop needs: where the form stands, and its numbers."""
        return address(type(self).value, THRESHOLD), self.numbers

    @opened(r_ratio=many(below=1.0), size=many("length", above=0.0, may_be_infinite=True))
    def at(self, r_ratio: ArrayLike = 0.0, size: ArrayLike = math.inf) -> FloatArray:
        """The threshold, MPa√mm, at each R, for a crack of `size`, mm; shape of both together."""
        given = np.broadcast_arrays(*(np.asarray(one, dtype=np.float64) for one in (r_ratio, size)))
        ratios, sizes = (np.array(one, copy=True).reshape(-1) for one in given)
        out = np.empty(ratios.size)
        thresholds_of(*self.handed, ratios, np.minimum(sizes, LARGE), out)
        return out.reshape(given[0].shape)

    def least(self, r_ratios: FloatArray) -> float:
        """A range, MPa√mm, that no threshold at these R falls below; 0 where it depends on the size."""
        return 0.0 if self.depends_on_size or not r_ratios.size else float(self.at(np.unique(r_ratios)).min())

    @property
    def least_of_all(self) -> float:
        """The same for every R and size; 0 where nothing is known."""
        return 0.0

    def words_in(self, units: UnitSystem = "metric") -> str:
        """What it is, to read."""
        return f"by {self.kind}"
