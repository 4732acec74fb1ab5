"""A one-sided PSD seen from outside: its moments, its value at a frequency, and lines that stand for it."""

from __future__ import annotations

from abc import abstractmethod
from typing import NamedTuple

import numpy as np
from numpy.typing import ArrayLike

from vivid_anvil.ground.checks import FloatArray
from vivid_anvil.spectra.moments import Moments


class Lines(NamedTuple):
    """Places on the frequency axis, Hz, and what each stands for: ∫ g df = Σ weight × g(frequency)."""

    frequency: FloatArray
    weight: FloatArray


class SpectralDensity(Moments):
    """A PSD of a quantity of `dimension`, in the coherent unit squared a Hz, over a band outside which there is nothing."""

    dimension: str

    @property
    @abstractmethod
    def band(self) -> tuple[float, float]:
        """Lowest and highest frequency, Hz."""

    @abstractmethod
    def at(self, frequency: ArrayLike) -> FloatArray:
        """G at frequencies in Hz; 0 outside the band."""

    @abstractmethod
    def lines(self) -> Lines:
        """Lines that integrate it, and any smooth function times it."""

    @abstractmethod
    def times(self, factor: float) -> SpectralDensity:
        """The PSD of the quantity times a factor: of factor² the size."""

    def part(self, low: float, high: float, order: float = 0.0) -> float:
        """∫ f^order G df from `low` to `high`, Hz, by the lines; a line at an edge counts as far as it is inside."""
        frequency, weight = self.lines()
        inside = (frequency >= low) & (frequency < high)
        return float(np.sum(weight[inside] * frequency[inside] ** order * self.at(frequency[inside])))
