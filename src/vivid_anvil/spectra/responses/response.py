"""What a structure makes of an input: complex output per unit of input, over frequency.

Time factor e^(+iωt): an output that lags behind has a negative imaginary part.
"""

from __future__ import annotations

import math
from abc import ABC, abstractmethod
from typing import ClassVar, NamedTuple

import numpy as np
from numpy.typing import NDArray

from vivid_anvil.ground.checks import FloatArray
from vivid_anvil.ground.choices import Choices

ComplexArray = NDArray[np.complex128]
RESPONSES: Choices[type[Response]] = Choices("response")


class Resonance(NamedTuple):
    """Where a response peaks: natural frequency, Hz, and damping ratio ζ; of one mode alone by |H| = 1/√((1 - r²)² + (2ζr)²).

    >>> own = Resonance(50.0, 0.05)
    >>> f"{own.peak_frequency:.4f} Hz, {own.magnification:.4f}, {own.half_power[0]:.4f} to {own.half_power[1]:.4f} Hz"
    '49.8748 Hz, 10.0125, 47.3055 to 52.3181 Hz'
    """

    frequency: float
    damping_ratio: float

    @property
    def half_power_width(self) -> float:
        """Width at half the power, Hz, as it is reckoned with: 2 ζ fn."""
        return 2.0 * self.damping_ratio * self.frequency

    @property
    def peak_frequency(self) -> float:
        """Where it is highest, Hz: fn √(1 - 2ζ²)."""
        return self.frequency * math.sqrt(max(0.0, 1.0 - 2.0 * self.damping_ratio**2))

    @property
    def magnification(self) -> float:
        """Its highest value over the static one: 1/(2ζ√(1 - ζ²))."""
        ratio = self.damping_ratio
        return 1.0 / (2.0 * ratio * math.sqrt(1.0 - ratio**2))

    @property
    def half_power(self) -> tuple[float, float]:
        """Frequencies, Hz, at which |H|² is half its highest value: r² = 1 - 2ζ² ± 2ζ√(1 - ζ²)."""
        ratio = self.damping_ratio
        middle, off = 1.0 - 2.0 * ratio**2, 2.0 * ratio * math.sqrt(1.0 - ratio**2)
        return self.frequency * math.sqrt(max(0.0, middle - off)), self.frequency * math.sqrt(middle + off)

    def highest_line(self, spacing: float) -> float:
        """The highest of some lines over the peak at worst, where it lies halfway between two `spacing`, Hz, apart."""
        return 1.0 / math.hypot(1.0, spacing / self.half_power_width)


class Response(ABC):
    """Complex output per coherent unit of an input, over frequency."""

    kind: ClassVar[str]

    @abstractmethod
    def at(self, frequency: FloatArray) -> ComplexArray:
        """At frequencies in Hz, of the same shape."""

    @property
    def takes(self) -> str | None:
        """The dimension of the input that it is to; None for any."""
        return None

    @property
    def resonances(self) -> tuple[Resonance, ...]:
        """Where it peaks sharply."""
        return ()

    @property
    def corners(self) -> FloatArray:
        """Frequencies, Hz, at which its course has a corner: those of a table."""
        return np.empty(0)

    @property
    def static(self) -> complex:
        """What a slow input gives."""
        return complex(self.at(np.array([1e-9]))[0])

    @property
    def assumed_damping(self) -> bool:
        """Whether its damping was not stated."""
        return False

    @property
    @abstractmethod
    def words(self) -> str:
        """How it is called in a line."""
