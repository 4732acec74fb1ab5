"""An event over frequency ready for the nodes of a model: its coordinates, and the moments of their cross-spectra.

The moments of a stress that is straight or quadratic in the components are quadratic forms of unit stresses with a small matrix
M_n = ∫ f^n Re(Q G Qᴴ) df, made once for a model, Q being the coordinates for each input: no loop over frequencies at a node.
"""

from __future__ import annotations

from collections.abc import Mapping
from dataclasses import dataclass, field
from typing import Any, ClassVar

import numpy as np

from vivid_anvil.ground.checks import FloatArray, read_only
from vivid_anvil.histories.load import Load
from vivid_anvil.spectra.between_points import NODES, WEIGHTS
from vivid_anvil.spectra.response_density import graded_edges
from vivid_anvil.spectra.responses.coordinates import SLOW, Coordinates
from vivid_anvil.spectra.responses.response import ComplexArray

OVER_FREQUENCY = frozenset({"lines", "cross-spectra"})  # what a load gives that is no course in time


@dataclass(frozen=True, eq=False)
class VibratingEvent:
    """An event over frequency: its name, how often in a repeat, its load, and what that makes of coordinates."""

    name: str
    occurrences: float
    load: Load
    source: Coordinates
    formula: str
    slope: float | None
    vibrates: ClassVar[bool] = True
    _moments: dict[float, FloatArray] = field(default_factory=dict, init=False, repr=False)

    @property
    def often(self) -> float:
        """How often in a repeat."""
        return self.occurrences

    @property
    def inputs(self) -> dict[str, str]:
        """The inputs that there are coordinates for, with their dimensions."""
        kinds = self.load.dimensions
        return {name: kinds[name] for name in self.source.channels if name in kinds}

    @property
    def many(self) -> int:
        """How many coordinates."""
        return int(self.coordinates(np.array([SLOW])).shape[1])

    @property
    def loads(self) -> FloatArray:
        """No samples."""
        return np.empty((0, self.many))

    def coordinates(self, frequency: FloatArray) -> ComplexArray:
        """For a coherent unit of each input, at frequencies, Hz: shape (m, coordinates, inputs)."""
        return self.source.coordinates(frequency, self.inputs)

    def static(self, means: Mapping[str, Any]) -> FloatArray:
        """Coordinates under static means of the inputs, shape (coordinates,)."""
        values = np.array([float(means.get(name, 0.0)) for name in self.inputs])
        if not values.any():
            return np.zeros(self.many)
        return np.asarray(self.coordinates(np.array([SLOW]))[0].real @ values)

    @property
    def mean_square(self) -> FloatArray:
        """Mean squares and products of the coordinates, shape (coordinates, coordinates): of sines at the strongest one."""
        if "cross-spectra" in self.load.gives:
            return self.moments(0.0)
        load: Any = self.load
        rows = load.course.rows(self.source)
        q = self.coordinates(rows.frequency)[:, :, 0] * rows.amplitude[:, None]
        top = q[int(np.argmax((np.abs(q) ** 2).sum(axis=1)))]
        return np.asarray(0.5 * np.outer(top, top.conj()).real)

    def moments(self, order: float) -> FloatArray:
        """M_n of a random event, shape (coordinates, coordinates)."""
        if order not in self._moments:
            load: Any = self.load
            spectra = load.inputs
            low, high = spectra.band
            corners = np.unique(np.concatenate([spectra.corners, self.source.corners]))
            edges = graded_edges(low, high, corners, self.source.resonances)
            half, middle = 0.5 * np.diff(edges)[:, None], 0.5 * (edges[:-1] + edges[1:])[:, None]
            f, weight = (middle + half * NODES).ravel(), (half * WEIGHTS).ravel()
            q = self.coordinates(f)
            matrices = np.einsum("mrj,mjk,msk->mrs", q, spectra.matrix(f, tuple(self.inputs)), q.conj()).real
            for n in {order, 0.0, 1.0, 2.0, 4.0}:
                self._moments[n] = read_only(np.einsum("m,mrs->rs", weight * f**n, matrices))
        return self._moments[order]
