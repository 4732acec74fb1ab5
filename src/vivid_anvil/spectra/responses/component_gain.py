"""Six complex components of one input seen as the amplitude of one stress: a response without a phase of its own."""

from __future__ import annotations

from collections.abc import Callable, Mapping
from dataclasses import dataclass
from typing import Any

import numpy as np

from vivid_anvil.ground.checks import FloatArray
from vivid_anvil.spectra.responses.components import ComponentResponses
from vivid_anvil.spectra.responses.response import ComplexArray, Resonance, Response

_TENSOR = np.array([1.0, 1.0, 1.0, np.sqrt(2.0), np.sqrt(2.0), np.sqrt(2.0)])  # so that lengths are those of tensors


@dataclass(frozen=True, eq=False)
class ComponentGain(Response):
    """`amplitude` of the components that an input of 1 gives; `inputs` is that input with its dimension."""

    components: ComponentResponses
    inputs: Mapping[str, str]
    amplitude: Callable[[Any], FloatArray]

    def tensors(self, frequency: FloatArray) -> ComplexArray:
        """Six complex stresses at frequencies (m,), Hz, for an input of 1: shape (m, 6)."""
        return np.asarray(self.components.at(np.ravel(frequency), self.inputs)[:, :, 0])

    def at(self, frequency: FloatArray) -> ComplexArray:
        """The amplitude, as a real number."""
        found = self.amplitude(self.tensors(frequency))
        return np.asarray(found.reshape(np.shape(frequency)), dtype=np.complex128)

    def turning(self, frequency: FloatArray, stress: FloatArray) -> float:
        """Lesser over greater axis of the path of the tensor where the stress is largest: 0 where components move in step."""
        if not stress.size:
            return 0.0
        s = _TENSOR * self.tensors(frequency[[int(np.argmax(stress))]])[0]
        whole, straight = float(np.sum(np.abs(s) ** 2)), float(np.abs(np.sum(s**2)))
        return float(np.sqrt(max(whole - straight, 0.0) / (whole + straight))) if whole > 0.0 else 0.0

    @property
    def resonances(self) -> tuple[Resonance, ...]:
        """Of the components."""
        return self.components.resonances

    @property
    def corners(self) -> FloatArray:
        """Of the components."""
        return self.components.corners

    @property
    def assumed_damping(self) -> bool:
        """As the components say."""
        return self.components.assumed_damping

    @property
    def words(self) -> str:
        """As the components say."""
        return self.components.words
