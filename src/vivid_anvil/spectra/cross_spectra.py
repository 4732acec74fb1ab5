"""Several inputs at once: their PSDs, and how they go together.

G_jk belongs to E[X_j conj(X_k)], the second factor conjugated. Much measuring software conjugates the first: its matrix is the
transposed one, with phases of the opposite sign. A table says which it is when it is read: the other way round is another answer.
"""

from __future__ import annotations

from abc import ABC, abstractmethod
from collections.abc import Mapping, Sequence
from dataclasses import dataclass, field

import numpy as np
from numpy.typing import ArrayLike

from vivid_anvil.ground import checks
from vivid_anvil.ground.checks import FloatArray, read_only
from vivid_anvil.ground.errors import InputError, inside, listed, shortened
from vivid_anvil.spectra.density import SpectralDensity
from vivid_anvil.spectra.responses.response import ComplexArray
from vivid_anvil.units import sound

CONJUGATED = ("first", "second")
NEGATIVE = 1e-9  # of the largest eigenvalue: what rounding may take the smallest below 0


class CrossSpectra(ABC):
    """A matrix over frequency of the PSDs and cross-spectra of named inputs, second factor conjugated."""

    @property
    @abstractmethod
    def dimensions(self) -> dict[str, str]:
        """Names and dimensions of the inputs."""

    @property
    @abstractmethod
    def band(self) -> tuple[float, float]:
        """Lowest and highest frequency, Hz."""

    @property
    @abstractmethod
    def corners(self) -> FloatArray:
        """Frequencies, Hz, between which it runs smoothly."""

    @abstractmethod
    def matrix(self, frequency: FloatArray, names: Sequence[str]) -> ComplexArray:
        """At frequencies (m,), of the inputs named: shape (m, k, k), coherent unit of one times that of the other, a Hz."""


@dataclass(frozen=True)
class Together:
    """How two inputs go together, the first named and the second.

    Parameters
    ----------
    coherence : float, default 1.0
        γ², from 0 (independent) to 1 (fully correlated).
    phase : float, default 0.0
        That of the first less that of the second, rad.
    delay : float, default 0.0
        Time by which the second comes after the first, s.

    Raises
    ------
    InputError
        For an argument of another kind, unit or range; the message says which.

    Examples
    --------
    >>> Together(coherence=0.25).factor(np.array([10.0]))
    array([0.5+0.j])
    """

    coherence: float = 1.0
    phase: float = 0.0
    delay: float = 0.0

    def __post_init__(self) -> None:
        where = "inputs together"
        coherence = checks.real_number(inside(where, "coherence"), self.coherence)
        if not 0.0 <= coherence <= 1.0:
            raise InputError(inside(where, "coherence"), f"{coherence:g}", "a coherence from 0 to 1")
        for name in ("phase", "delay"):
            checks.real_number(inside(where, name), getattr(self, name))

    def factor(self, frequency: FloatArray) -> ComplexArray:
        """G_12/√(G_11 G_22)."""
        return np.asarray(
            np.sqrt(self.coherence) * np.exp(1j * (self.phase + 2.0 * np.pi * np.asarray(frequency) * self.delay))
        )


@sound
@dataclass(frozen=True, eq=False)
class PSDs(CrossSpectra):
    """Inputs by their PSDs; pairs that are not named in `together` are independent.

    Parameters
    ----------
    inputs : mapping of str to SpectralDensity
        The PSD of each input, by its name.
    together : mapping of (str, str) to Together, optional
        How pairs of inputs go together.

    Raises
    ------
    InputError
        For a pair of unknown inputs, and pairs that no three inputs can have (the matrix is not positive semidefinite).

    Examples
    --------
    >>> from vivid_anvil.spectra.psd import PSD
    >>> flat = PSD([10.0, 100.0], [4.0, 4.0])
    >>> both = PSDs({"x": flat, "y": flat}, {("x", "y"): Together(coherence=0.25)})
    >>> both.matrix(np.array([50.0]), ("x", "y"))[0].real
    array([[4., 2.],
           [2., 4.]])
    """

    inputs: Mapping[str, SpectralDensity]
    together: Mapping[tuple[str, str], Together] = field(default_factory=dict)

    def __post_init__(self) -> None:
        if not isinstance(self.inputs, Mapping) or not self.inputs:
            raise InputError("random vibration", "no input", "a PSD for one input at least")
        for name, one in self.inputs.items():
            checks.text("random vibration, an input", name)
            if not isinstance(one, SpectralDensity):
                raise InputError(f"random vibration, {name}", shortened(one), "a PSD")
        for pair in self.together:
            for name in pair:
                if name not in self.inputs:
                    raise InputError("inputs together", f"no input {name!r}", f"one of {listed(self.inputs)}")
            if len(set(pair)) < 2 or pair[::-1] in self.together:
                raise InputError("inputs together", f"the pair {pair[0]}, {pair[1]}", "each pair of two inputs once")
        if self.together:
            refuse_negative(self.corners, self.matrix(self.corners, tuple(self.inputs)))

    @property
    def dimensions(self) -> dict[str, str]:
        """Of each PSD."""
        return {name: one.dimension for name, one in self.inputs.items()}

    @property
    def band(self) -> tuple[float, float]:
        """Of all together."""
        lows, highs = zip(*(one.band for one in self.inputs.values()), strict=True)
        return min(lows), max(highs)

    @property
    def corners(self) -> FloatArray:
        """The points of all PSDs."""
        rows = [getattr(one, "frequency", np.array(one.band)) for one in self.inputs.values()]
        return np.unique(np.concatenate(rows))

    def matrix(self, frequency: FloatArray, names: Sequence[str]) -> ComplexArray:
        """PSDs on the diagonal, √(G_jj G_kk) times the factor of the pair beside it."""
        f = np.asarray(frequency, dtype=np.float64)
        roots = np.stack([np.sqrt(self.inputs[name].at(f)) for name in names], axis=-1)
        found = np.zeros((f.size, len(names), len(names)), dtype=np.complex128)
        for j, one in enumerate(names):
            found[:, j, j] = self.inputs[one].at(f)
            for k, other in enumerate(names):
                if (one, other) in self.together:
                    both = self.together[one, other].factor(f) * roots[:, j] * roots[:, k]
                    found[:, j, k], found[:, k, j] = both, both.conj()
        return found


@sound
@dataclass(frozen=True, eq=False)
class SpectralMatrix(CrossSpectra):
    """A measured matrix at lines, straight between them in real and imaginary parts.

    Parameters
    ----------
    names : tuple of str
        The inputs, in the order of the matrix.
    kinds : tuple of str
        Dimension of each.
    frequency : ndarray, shape (m,)
        Lines, Hz.
    values : ndarray of complex, shape (m, k, k)
        One-sided, coherent units a Hz.
    conjugated : str
        Which factor is the conjugate one, "first" or "second": E[conj(X_j) X_k], or E[X_j conj(X_k)]. It must be said.

    Raises
    ------
    InputError
        For a matrix that is not Hermitian or not positive semidefinite, and for lines that do not fit.

    Examples
    --------
    >>> lines = np.array([[[4.0, 2.0j], [-2.0j, 4.0]]] * 2)
    >>> kinds = ("acceleration", "acceleration")
    >>> both = SpectralMatrix(("x", "y"), kinds, np.array([10.0, 20.0]), lines, conjugated="first")
    >>> complex(both.matrix(np.array([15.0]), ("x", "y"))[0, 0, 1])
    -2j
    """

    names: tuple[str, ...]
    kinds: tuple[str, ...]
    frequency: FloatArray
    values: ComplexArray
    conjugated: str

    def __post_init__(self) -> None:
        where = "cross-spectra"
        checks.one_of(inside(where, "conjugated"), self.conjugated, CONJUGATED)
        frequency = checks.finite_samples(self.frequency, where=inside(where, "frequency"), unit="Hz")
        many = len(self.names)
        try:
            values = np.asarray(self.values, dtype=np.complex128)
        except (TypeError, ValueError):
            raise InputError(inside(where, "values"), shortened(self.values), "complex numbers") from None
        if values.shape != (frequency.size, many, many):
            raise InputError(
                where, f"a matrix of shape {values.shape}", f"{frequency.size} lines of {many} by {many} values"
            )
        if (np.diff(frequency) <= 0.0).any() or frequency[0] < 0.0 or frequency.size < 2:
            raise InputError(
                inside(where, "frequency"), "lines out of order", "two or more ascending lines of 0 or more"
            )
        off = np.abs(values - values.conj().swapaxes(1, 2)).max()
        if not off <= 1e-6 * np.abs(values).max():
            raise InputError(where, f"G_jk and G_kj that differ by {off:.3g}", "conjugates of each other (Hermitian)")
        refuse_negative(frequency, values)
        object.__setattr__(self, "frequency", read_only(np.array(frequency)))
        own = values if self.conjugated == "second" else values.swapaxes(1, 2)
        object.__setattr__(self, "values", read_only(np.ascontiguousarray(own)))
        object.__setattr__(self, "conjugated", "second")

    @property
    def dimensions(self) -> dict[str, str]:
        """As named."""
        return dict(zip(self.names, self.kinds, strict=True))

    @property
    def band(self) -> tuple[float, float]:
        """First and last line."""
        return float(self.frequency[0]), float(self.frequency[-1])

    @property
    def corners(self) -> FloatArray:
        """The lines."""
        return self.frequency

    def matrix(self, frequency: FloatArray, names: Sequence[str]) -> ComplexArray:
        """Straight between lines; 0 outside."""
        places = [self.names.index(name) for name in names]
        own = self.values[:, places][:, :, places]
        f = np.asarray(frequency, dtype=np.float64)
        flat = own.reshape(self.frequency.size, -1)
        found = [
            np.interp(f, self.frequency, one.real, left=0.0, right=0.0)
            + 1j * np.interp(f, self.frequency, one.imag, left=0.0, right=0.0)
            for one in flat.T
        ]
        return np.stack(found, axis=-1).reshape(f.size, len(names), len(names))


def refuse_negative(frequency: ArrayLike, matrix: ComplexArray) -> None:
    """InputError where a matrix has a negative eigenvalue: no inputs have such cross-spectra."""
    values = np.linalg.eigvalsh(matrix)
    bad = np.flatnonzero(values[:, 0] < -NEGATIVE * np.maximum(values[:, -1], 1e-300))
    if bad.size:
        at = float(np.asarray(frequency)[bad[0]])
        diagonal = np.sqrt(np.abs(np.einsum("kii->ki", matrix[bad[:1]])[0]))
        off = np.abs(matrix[bad[0]]) / np.maximum(np.outer(diagonal, diagonal), 1e-300)
        np.fill_diagonal(off, 0.0)
        above = off.max() ** 2
        found = f"a coherence of {above:.4g} at {at:g} Hz" if above > 1.0 else f"a negative eigenvalue at {at:g} Hz"
        raise InputError(
            "cross-spectra",
            found,
            "a positive semidefinite matrix",
            "Look at coherences, phases, and units of the lines.",
        )
