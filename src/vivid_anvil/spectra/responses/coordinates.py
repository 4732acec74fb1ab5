"""What inputs make of the coordinates that stresses of a model are superposed by: loads over unit loads, or lines."""

from __future__ import annotations

from abc import ABC, abstractmethod
from collections.abc import Mapping
from dataclasses import dataclass

import numpy as np

from vivid_anvil.ground import checks
from vivid_anvil.ground.checks import FloatArray
from vivid_anvil.ground.errors import InputError
from vivid_anvil.spectra.psd import MOTIONS
from vivid_anvil.spectra.responses.of_motion import per_motion
from vivid_anvil.spectra.responses.response import ComplexArray, Resonance

SLOW = 1e-9  # Hz


class Coordinates(ABC):
    """What inputs make of coordinates that stresses are superposed by: modal ones, or loads over unit loads."""

    @property
    @abstractmethod
    def channels(self) -> tuple[str, ...]:
        """The inputs."""

    @abstractmethod
    def coordinates(self, frequency: FloatArray, inputs: Mapping[str, str]) -> ComplexArray:
        """For a coherent unit of each input, at frequencies (m,), Hz: shape (m, coordinates, inputs)."""

    @property
    def resonances(self) -> tuple[Resonance, ...]:
        """Where they peak sharply."""
        return ()

    @property
    def corners(self) -> FloatArray:
        """Frequencies, Hz, at which they have a corner."""
        return np.empty(0)

    @property
    def assumed_damping(self) -> bool:
        """Whether damping was not stated."""
        return False

    @property
    @abstractmethod
    def words(self) -> str:
        """How they are called in a line."""


@dataclass(frozen=True, eq=False)
class StillCoordinates(Coordinates):
    """Loads over unit loads: the same at all frequencies; `gains` by the input, shape (coordinates,)."""

    gains: Mapping[str, FloatArray]

    @property
    def channels(self) -> tuple[str, ...]:
        """The inputs."""
        return tuple(self.gains)

    def coordinates(self, frequency: FloatArray, inputs: Mapping[str, str]) -> ComplexArray:
        """The gains."""
        rows = np.stack([self.gains[name] for name in inputs], axis=-1).astype(np.complex128)
        return np.broadcast_to(rows, (np.size(frequency), *rows.shape))

    @property
    def words(self) -> str:
        """That they follow at once."""
        return "stresses that follow the loads at once"


@dataclass(frozen=True, eq=False)
class LineCoordinates(Coordinates):
    """Of one input known at lines, Hz: what the real and the imaginary part at each count, straight between lines.

    `per` is the input of the run, in its coherent unit. Outside of the lines there is nothing, and asking there is an error.
    """

    channel: str
    lines: FloatArray
    per: float
    dimension: str = "acceleration"

    def _turned(self, frequency: FloatArray, given: str) -> ComplexArray:
        """What an input of another motion is of the one of the run."""
        if given == self.dimension:
            return np.ones(frequency.size, dtype=np.complex128)
        if given not in MOTIONS or self.dimension not in MOTIONS:
            where = f"stresses over frequency, {self.channel}"
            raise InputError(where, f"an input of {given}", f"one of {self.dimension}, which the run had")
        return per_motion(frequency, self.dimension, given)

    @property
    def channels(self) -> tuple[str, ...]:
        """The input."""
        return (self.channel,)

    @property
    def corners(self) -> FloatArray:
        """The lines."""
        return self.lines

    def coordinates(self, frequency: FloatArray, inputs: Mapping[str, str]) -> ComplexArray:
        """Hat functions over the lines; i times them for imaginary parts."""
        f = np.ravel(np.asarray(frequency, dtype=np.float64))
        low, high = float(self.lines[0]), float(self.lines[-1])
        if f.size and f.max() <= SLOW:
            f = np.full(f.size, low)  # a slow input: the lowest line is the slowest that is known
        elif f.size and not (f.min() >= low * (1.0 - 1e-9) and f.max() <= high * (1.0 + 1e-9)):
            raise InputError(
                f"stresses over frequency, {self.channel}",
                f"an input from {f.min():.4g} to {f.max():.4g} Hz",
                f"frequencies from {low:g} to {high:g} Hz, which the lines have",
                "Compute the stresses as far as the input goes, or cut the input there.",
            )
        (kind,) = inputs.values()
        turned = self._turned(f, kind)[:, None] / self.per
        hats = turned * np.stack([np.interp(f, self.lines, row) for row in np.eye(self.lines.size)], axis=-1)
        found = np.empty((f.size, 2 * self.lines.size, 1), dtype=np.complex128)
        found[:, 0::2, 0], found[:, 1::2, 0] = hats, 1j * hats
        return found

    @property
    def words(self) -> str:
        """How many lines."""
        return f"{self.lines.size} lines, {checks.reach(self.lines)} Hz"
