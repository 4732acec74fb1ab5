"""The PSD of a response: G = Σ_jk H_j conj(H_k) G_jk, at places that integrate it through its resonances.

Source of the sum: Bendat & Piersol (2010), Random Data, 4th ed., ch. 7 (there the first factor is conjugated).
"""

from __future__ import annotations

from collections.abc import Mapping
from dataclasses import dataclass
from functools import cached_property

import numpy as np
from numpy.typing import ArrayLike

from vivid_anvil.ground.checks import FloatArray, read_only
from vivid_anvil.spectra.between_points import NODES, WEIGHTS, WIDEST
from vivid_anvil.spectra.cross_spectra import CrossSpectra
from vivid_anvil.spectra.density import Lines, SpectralDensity
from vivid_anvil.spectra.responses.response import Resonance, Response


def graded_edges(low: float, high: float, corners: FloatArray, resonances: tuple[Resonance, ...]) -> FloatArray:
    """Edges of panels from `low` to `high`, Hz: at corners, and around each resonance so narrow that it is smooth in each."""
    edges = [np.array([low, high]), corners[(corners > low) & (corners < high)]]
    for own in resonances:
        step = 0.5 * own.half_power_width
        reach = step * WIDEST ** np.arange(0.0, max(1.0, np.log(max(high - low, step) / step) / np.log(WIDEST)) + 1.0)
        around = own.frequency + np.concatenate([-reach[::-1], [0.0], reach])
        edges.append(around[(around > low) & (around < high)])
    ends = np.unique(np.concatenate(edges))
    ends = ends[np.append(np.diff(ends) > 1e-12 * high, True)]
    start = max(float(ends[0]), 1e-6 * high)
    count = max(1, int(np.ceil(np.log(high / start) / np.log(WIDEST))))
    wide = start * (high / start) ** (np.arange(count + 1) / count)
    both = np.unique(np.concatenate([ends, wide[(wide > low) & (wide < high)]]))
    return np.asarray(both)


@dataclass(frozen=True, eq=False)
class ResponseDensity(SpectralDensity):
    """The PSD of what `responses` make of some inputs, by the inputs' names."""

    inputs: CrossSpectra
    responses: Mapping[str, Response]
    dimension: str = "stress"
    factor: float = 1.0

    @property
    def band(self) -> tuple[float, float]:
        """Of the inputs."""
        return self.inputs.band

    def at(self, frequency: ArrayLike) -> FloatArray:
        """The double sum; 0 outside the band."""
        asked = np.asarray(frequency, dtype=np.float64)
        low, high = self.band
        within = (asked >= low) & (asked <= high)
        f = np.clip(asked.ravel(), low, high)
        names = tuple(self.responses)
        h = np.stack([self.responses[name].at(f) for name in names], axis=-1)
        found = np.einsum("mj,mjk,mk->m", h, self.inputs.matrix(f, names), h.conj()).real
        return np.where(within, self.factor**2 * np.maximum(found, 0.0).reshape(asked.shape), 0.0)

    @property
    def resonances(self) -> tuple[Resonance, ...]:
        """Of all responses."""
        return tuple(dict.fromkeys(own for one in self.responses.values() for own in one.resonances))

    @cached_property
    def _laid(self) -> tuple[Lines, FloatArray]:
        corners = np.unique(np.concatenate([self.inputs.corners, *(one.corners for one in self.responses.values())]))
        edges = graded_edges(*self.band, corners, self.resonances)
        half, middle = 0.5 * np.diff(edges)[:, None], 0.5 * (edges[:-1] + edges[1:])[:, None]
        lines = Lines(read_only((middle + half * NODES).ravel()), read_only((half * WEIGHTS).ravel()))
        return lines, read_only(self.at(lines.frequency))

    def lines(self) -> Lines:
        """Twelve in each panel."""
        return self._laid[0]

    def moment(self, order: float) -> float:
        """m_n by the lines."""
        (frequency, weight), values = self._laid
        return float(np.sum(weight * frequency**order * values))

    def times(self, factor: float) -> ResponseDensity:
        """The PSD of the response times a factor."""
        return ResponseDensity(self.inputs, self.responses, self.dimension, factor * self.factor)

    def __getstate__(self) -> dict[str, object]:
        return {name: value for name, value in self.__dict__.items() if name != "_laid"}
