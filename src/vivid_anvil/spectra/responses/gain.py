"""The same at all frequencies: a stress for a load."""

from __future__ import annotations

from dataclasses import dataclass

import numpy as np

from vivid_anvil.ground import checks
from vivid_anvil.ground.checks import FloatArray
from vivid_anvil.ground.errors import inside
from vivid_anvil.spectra.responses.response import ComplexArray, Response


@dataclass(frozen=True)
class Gain(Response):
    """`value`, in MPa for a coherent unit of the input, whatever the frequency."""

    value: float

    def __post_init__(self) -> None:
        checks.real_number(inside("gain", "value"), self.value)

    def at(self, frequency: FloatArray) -> ComplexArray:
        """The value."""
        return np.full(np.shape(frequency), complex(self.value))

    @property
    def words(self) -> str:
        """A factor."""
        return f"a factor of {self.value:g}"
