"""Spectra of six stress components at a place, and the process that stands for them: straight or quadratic in the components.

G = Σ_jk T_j conj(T_k)ᵀ G_jk, shape (6, 6). What is straight in the components with weights w has the PSD w G w; the equivalent
von Mises process has trace(A G), A = BᵀB of its quadratic form: Preumont & Piéfort (1994), J. Vibration and Acoustics 116.
"""

from __future__ import annotations

from collections.abc import Mapping
from dataclasses import dataclass, field
from functools import cached_property
from typing import Any

import numpy as np
from numpy.typing import ArrayLike

from vivid_anvil.ground import checks
from vivid_anvil.ground.checks import FloatArray, read_only
from vivid_anvil.ground.errors import InputError, shortened
from vivid_anvil.spectra.between_points import NODES, WEIGHTS
from vivid_anvil.spectra.cross_spectra import CrossSpectra
from vivid_anvil.spectra.density import Lines, SpectralDensity
from vivid_anvil.spectra.response_density import graded_edges
from vivid_anvil.spectra.responses.components import ComponentResponses
from vivid_anvil.spectra.responses.response import ComplexArray
from vivid_anvil.units import sound


@sound
@dataclass(frozen=True, eq=False)
class TensorSpectra:
    """The 6x6 PSD, MPa²/Hz, of what responses make of some inputs; xx, yy, zz, xy, yz, zx.

    Parameters
    ----------
    inputs : CrossSpectra
        The inputs.
    response : ComponentResponses
        What they make of six components.
    channels : tuple of str
        Which inputs.

    Raises
    ------
    InputError
        For inputs that it has no response to.

    Examples
    --------
    >>> from vivid_anvil.spectra import PSD, PSDs
    >>> foot = ModalComponents(
    ...     natural_frequency=[45.0], participation={"base": [0.5]}, modal_stress=[[15, 0, 0, 4, 0, 0]], damping_ratio=0.02
    ... )
    >>> spectra = TensorSpectra(PSDs({"base": PSD([5.0, 200.0], [9.6e5, 9.6e5])}), foot, ("base",))
    >>> np.sqrt(spectra.covariance().diagonal()).round(3)
    array([3.858, 0.   , 0.   , 1.029, 0.   , 0.   ])
    """

    inputs: CrossSpectra
    response: ComponentResponses
    channels: tuple[str, ...]
    _moments: dict[float, FloatArray] = field(default_factory=dict, init=False, repr=False)

    def __post_init__(self) -> None:
        given: Any = (self.inputs, self.response)
        if not isinstance(given[0], CrossSpectra):
            raise InputError("tensor spectra, inputs", shortened(self.inputs), "PSDs, or a SpectralMatrix")
        if not isinstance(given[1], ComponentResponses):
            found = shortened(self.response)
            raise InputError("tensor spectra, response", found, "ModalComponents, or ComponentTables")
        for name in self.channels:
            if name not in self.inputs.dimensions:
                raise InputError("tensor spectra", f"no input {name!r}", f"one of {', '.join(self.inputs.dimensions)}")

    @property
    def kinds(self) -> dict[str, str]:
        """Dimensions of the inputs."""
        return {name: self.inputs.dimensions[name] for name in self.channels}

    @property
    def band(self) -> tuple[float, float]:
        """Of the inputs."""
        return self.inputs.band

    def matrix(self, frequency: ArrayLike) -> ComplexArray:
        """At frequencies (m,), Hz, shape (m, 6, 6), second factor conjugated; 0 outside the band."""
        asked = np.atleast_1d(np.asarray(frequency, dtype=np.float64))
        low, high = self.band
        f = np.clip(asked, low, high)
        response = self.response.at(f, self.kinds)
        found = np.einsum("maj,mjk,mbk->mab", response, self.inputs.matrix(f, self.channels), response.conj())
        return np.where(((asked >= low) & (asked <= high))[:, None, None], found, 0.0)

    @cached_property
    def _laid(self) -> tuple[Lines, FloatArray]:
        corners = np.unique(np.concatenate([self.inputs.corners, self.response.corners]))
        edges = graded_edges(*self.band, corners, self.response.resonances)
        half, middle = 0.5 * np.diff(edges)[:, None], 0.5 * (edges[:-1] + edges[1:])[:, None]
        lines = Lines(read_only((middle + half * NODES).ravel()), read_only((half * WEIGHTS).ravel()))
        return lines, read_only(self.matrix(lines.frequency).real)

    def lines(self) -> Lines:
        """Places and weights that integrate it."""
        return self._laid[0]

    def covariance(self, order: float = 0.0) -> FloatArray:
        """∫ f^n Re G df, shape (6, 6): for order 0 the covariance of the components, MPa²."""
        if order not in self._moments:
            (frequency, weight), values = self._laid
            self._moments[order] = read_only(np.einsum("m,mab->ab", weight * frequency**order, values))
        found: FloatArray = self._moments[order]
        return found

    def process(self, forms: ArrayLike) -> TensorProcess:
        """What has the mean square Σ (form · components)²: one form for a component or a normal stress, five for von Mises."""
        return TensorProcess(self, np.atleast_2d(np.asarray(forms, dtype=np.float64)))

    def __getstate__(self) -> dict[str, object]:
        return {name: value for name, value in self.__dict__.items() if name != "_laid"}


@dataclass(frozen=True, eq=False)
class TensorProcess(SpectralDensity):
    """A stress that stands for the components: of several forms the trace."""

    spectra: TensorSpectra
    forms: FloatArray
    factor: float = 1.0
    dimension: str = "stress"

    def __post_init__(self) -> None:
        if self.forms.ndim != 2 or self.forms.shape[1] != 6:
            raise InputError("tensor spectra", f"forms of shape {self.forms.shape}", "weights of six components")
        checks.real_number("tensor spectra, factor", self.factor)

    @property
    def band(self) -> tuple[float, float]:
        """Of the inputs."""
        return self.spectra.band

    def at(self, frequency: ArrayLike) -> FloatArray:
        """trace(B G Bᵀ)."""
        asked = np.asarray(frequency, dtype=np.float64)
        matrices = self.spectra.matrix(asked.ravel()).real
        found = np.einsum("ka,mab,kb->m", self.forms, matrices, self.forms)
        return np.asarray(self.factor**2 * np.maximum(found, 0.0).reshape(asked.shape))

    def lines(self) -> Lines:
        """Those of the spectra."""
        return self.spectra.lines()

    def moment(self, order: float) -> float:
        """trace(B C_n Bᵀ)."""
        found = np.einsum("ka,ab,kb->", self.forms, self.spectra.covariance(order), self.forms)
        return float(self.factor**2 * found)

    def times(self, factor: float) -> TensorProcess:
        """Of the stress times a factor."""
        return TensorProcess(self.spectra, self.forms, factor * self.factor)


def input_names(inputs: Mapping[str, str], response: ComponentResponses) -> tuple[str, ...]:
    """The inputs that the response is of, in its order."""
    return tuple(name for name in response.channels if name in inputs)
