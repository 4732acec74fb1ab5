"""What a structure makes of inputs at a place with six stress components: complex, over frequency, with their phases."""

from __future__ import annotations

from abc import ABC, abstractmethod
from collections.abc import Mapping, Sequence
from dataclasses import dataclass
from typing import Any

import numpy as np

from vivid_anvil.ground import checks
from vivid_anvil.ground.checks import FloatArray, read_only
from vivid_anvil.ground.errors import InputError, inside, listed
from vivid_anvil.spectra.psd import MOTIONS
from vivid_anvil.spectra.responses.damping import Damping, dampings
from vivid_anvil.spectra.responses.modes import modal_coordinates
from vivid_anvil.spectra.responses.of_motion import fitting, per_motion
from vivid_anvil.spectra.responses.response import ComplexArray, Resonance
from vivid_anvil.spectra.responses.response_table import ResponseTable
from vivid_anvil.units import coherent_values

COMPONENTS = ("xx", "yy", "zz", "xy", "yz", "zx")
SIGNS = {"acceleration": -1.0, "force": 1.0}  # of a modal coordinate: a base that shakes, a force that acts
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


class ComponentResponses(ABC):
    """Six complex stresses for a coherent unit of each input."""

    @property
    @abstractmethod
    def channels(self) -> tuple[str, ...]:
        """The inputs."""

    @abstractmethod
    def at(self, frequency: FloatArray, inputs: Mapping[str, str]) -> ComplexArray:
        """At frequencies (m,), Hz, of `inputs` by name with their dimensions: shape (m, 6, inputs)."""

    @property
    def resonances(self) -> tuple[Resonance, ...]:
        """Where it peaks sharply."""
        return ()

    @property
    def corners(self) -> FloatArray:
        """Frequencies, Hz, at which it has a corner."""
        return np.empty(0)

    @property
    def assumed_damping(self) -> bool:
        """Whether its damping was not stated."""
        return False

    @property
    @abstractmethod
    def words(self) -> str:
        """How it is called in a line."""

    def static(self, inputs: Mapping[str, str]) -> FloatArray:
        """What slow inputs give, shape (6, inputs)."""
        return np.asarray(self.at(np.array([SLOW]), inputs)[0].real)


@dataclass(frozen=True, eq=False)
class ModalCoordinates(Coordinates):
    """The modal coordinates of a structure: those that `modes` have, whatever their stresses."""

    modes: ModalComponents

    @property
    def channels(self) -> tuple[str, ...]:
        """The inputs."""
        return self.modes.channels

    def coordinates(self, frequency: FloatArray, inputs: Mapping[str, str]) -> ComplexArray:
        """Modal coordinates, mm √t."""
        return self.modes.coordinates(frequency, inputs)

    @property
    def resonances(self) -> tuple[Resonance, ...]:
        """One a mode."""
        return self.modes.resonances

    @property
    def assumed_damping(self) -> bool:
        """Whether no word for it was given."""
        return self.modes.assumed_damping

    @property
    def words(self) -> str:
        """How many modes, from where to where."""
        return self.modes.words


@dataclass(frozen=True, eq=False, kw_only=True)
class ModalComponents(ComponentResponses):
    """Six stress components at a place by the modes of a structure, normalised to a modal mass of 1 t.

    Parameters
    ----------
    natural_frequency : ndarray or sequence of float or str, shape (modes,)
        Hz; above 0.
    participation : mapping of str to ndarray, shape (modes,)
        Of each input: participation factors of a shaken base, √t; of a force the deflection of each mode there, 1/√t.
    modal_stress : ndarray, shape (modes, 6)
        Stresses for a modal coordinate of 1, MPa/(mm √t): xx, yy, zz, xy, yz, zx.
    damping_ratio, quality_factor, loss_factor : float or sequence of float, optional
        One for all modes, or one each, by one of these words; 0.02 of critical, with a finding, where none is given.

    Raises
    ------
    InputError
        For an argument of another kind, unit or range; the message says which.

    Examples
    --------
    >>> foot = ModalComponents(
    ...     natural_frequency=["45 Hz"],
    ...     participation={"base": [0.5]},
    ...     modal_stress=[[15.0, 0, 0, 4.0, 0, 0]],
    ...     damping_ratio=0.02,
    ... )
    >>> abs(foot.at(np.array([45.0]), {"base": "acceleration"})[0, [0, 3], 0] * 9806.65).round(2)
    array([23.  ,  6.13])
    """

    natural_frequency: FloatArray
    participation: Mapping[str, FloatArray]
    modal_stress: FloatArray
    damping_ratio: float | tuple[float, ...] | None = None
    quality_factor: float | tuple[float, ...] | None = None
    loss_factor: float | tuple[float, ...] | None = None

    def __post_init__(self) -> None:
        where = "modes"
        given = np.atleast_1d(coherent_values(self.natural_frequency, "frequency", inside(where, "natural_frequency")))
        own = checks.finite_samples(given, where=inside(where, "natural_frequency"), unit="Hz")
        if not (own > 0.0).all():
            found = f"{own.min():g} Hz"
            raise InputError(
                inside(where, "natural_frequency"), found, "frequencies above 0", "A rigid-body mode has no stress."
            )
        object.__setattr__(self, "natural_frequency", read_only(np.array(own)))
        if not isinstance(self.participation, Mapping) or not self.participation:
            raise InputError(
                inside(where, "participation"),
                checks.shortened(self.participation),
                "the participation factors of each input, by its name",
                "Modal stresses need the participation factor of the same mode, in the same order.",
            )
        rows = {name: self._row(name, one) for name, one in self.participation.items()}
        object.__setattr__(self, "participation", rows)
        stress = np.asarray(self.modal_stress, dtype=np.float64)
        if stress.shape != (own.size, 6) or not np.isfinite(stress).all():
            raise InputError(
                inside(where, "modal_stress"),
                f"shape {stress.shape} for {own.size} modes",
                f"six finite stresses a mode: {', '.join(COMPONENTS)}",
            )
        object.__setattr__(self, "modal_stress", read_only(np.array(stress)))
        assert len(self.damping) == own.size

    def _row(self, name: str, values: Any) -> FloatArray:
        place = inside("modes", f"participation, {name}")
        row = checks.finite_samples(values, where=place, unit="√t")
        if row.size != self.natural_frequency.size:
            found = f"{row.size} values for {self.natural_frequency.size} natural frequencies"
            raise InputError(place, found, "one for each mode", "In the order of the natural frequencies.")
        return read_only(np.array(row))

    @property
    def channels(self) -> tuple[str, ...]:
        """The inputs."""
        return tuple(self.participation)

    @property
    def damping(self) -> tuple[Damping, ...]:
        """Of each mode."""
        words = (self.damping_ratio, self.quality_factor, self.loss_factor)
        return dampings(*words, modes=self.natural_frequency.size)

    def coordinates(self, frequency: FloatArray, inputs: Mapping[str, str]) -> ComplexArray:
        """Modal coordinates, mm √t, for a coherent unit of each input: shape (m, modes, inputs)."""
        each = modal_coordinates(frequency, self.natural_frequency, self.damping)
        rows = [_per_input(frequency, name, kind)[:, None] * self.participation[name] for name, kind in inputs.items()]
        return np.asarray(each[:, :, None] * np.stack(rows, axis=-1))

    def at(self, frequency: FloatArray, inputs: Mapping[str, str]) -> ComplexArray:
        """Modal stresses times modal coordinates."""
        return np.asarray(np.einsum("rc,mrj->mcj", self.modal_stress, self.coordinates(frequency, inputs)))

    @property
    def resonances(self) -> tuple[Resonance, ...]:
        """One a mode."""
        rows = zip(self.natural_frequency.tolist(), self.damping, strict=True)
        return tuple(Resonance(own, one.ratio) for own, one in rows)

    @property
    def assumed_damping(self) -> bool:
        """Whether no word for it was given."""
        return any(one.assumed for one in self.damping)

    @property
    def words(self) -> str:
        """How many, from where to where."""
        many = self.natural_frequency.size
        where = checks.reach(self.natural_frequency)
        return f"six components of {many} modes, {where} Hz" if many > 1 else f"six components of a mode at {where} Hz"


@dataclass(frozen=True, eq=False)
class SuperposedComponents(ComponentResponses):
    """Six components of a place by coordinates: `unit`, shape (coordinates, 6), are stresses for a coordinate of 1."""

    source: Coordinates
    unit: FloatArray

    @property
    def channels(self) -> tuple[str, ...]:
        """The inputs."""
        return self.source.channels

    def at(self, frequency: FloatArray, inputs: Mapping[str, str]) -> ComplexArray:
        """Unit stresses times coordinates."""
        return np.asarray(np.einsum("rc,mrj->mcj", self.unit, self.source.coordinates(frequency, inputs)))

    @property
    def resonances(self) -> tuple[Resonance, ...]:
        """Of the coordinates."""
        return self.source.resonances

    @property
    def corners(self) -> FloatArray:
        """Of the coordinates."""
        return self.source.corners

    @property
    def assumed_damping(self) -> bool:
        """As the coordinates say."""
        return self.source.assumed_damping

    @property
    def words(self) -> str:
        """As the coordinates say."""
        return self.source.words


@dataclass(frozen=True, eq=False)
class ComponentTables(ComponentResponses):
    """Six stress components known at lines, as a steady-state analysis gives them.

    Parameters
    ----------
    tables : mapping of str to sequence of ResponseTable
        Of each input the six components, in the order xx, yy, zz, xy, yz, zx.

    Raises
    ------
    InputError
        For another number of components.

    Examples
    --------
    >>> one = ResponseTable(frequency=[10.0, 20.0], values=[1.0, 2.0 - 1.0j], per="MPa/g")
    >>> ComponentTables({"base": [one] * 6}).channels
    ('base',)
    """

    tables: Mapping[str, Sequence[ResponseTable]]

    def __post_init__(self) -> None:
        if not isinstance(self.tables, Mapping) or not self.tables:
            where = "responses of components"
            raise InputError(where, checks.shortened(self.tables), "six tables of each input, by its name")
        for name, six in self.tables.items():
            whole = isinstance(six, Sequence) and len(six) == 6
            if not whole or not all(isinstance(one, ResponseTable) for one in six):
                raise InputError(
                    f"responses of components, {name}",
                    checks.shortened(six),
                    f"six response tables: {', '.join(COMPONENTS)}",
                )

    @property
    def channels(self) -> tuple[str, ...]:
        """The inputs."""
        return tuple(self.tables)

    def at(self, frequency: FloatArray, inputs: Mapping[str, str]) -> ComplexArray:
        """By each table."""
        columns = [
            np.stack([fitting(one, kind, f"responses, {name}").at(frequency) for one in self.tables[name]], axis=-1)
            for name, kind in inputs.items()
        ]
        return np.stack(columns, axis=-1)

    @property
    def resonances(self) -> tuple[Resonance, ...]:
        """Those of all components."""
        return tuple(dict.fromkeys(own for six in self.tables.values() for one in six for own in one.resonances))

    @property
    def corners(self) -> FloatArray:
        """The lines, between which they run straight."""
        return np.unique(np.concatenate([one.corners for six in self.tables.values() for one in six]))

    def static(self, inputs: Mapping[str, str]) -> FloatArray:
        """What the lowest line gives, which is the slowest that is known."""
        low = max(float(one.frequency[0]) for six in self.tables.values() for one in six)
        return np.asarray(self.at(np.array([low]), inputs)[0].real)

    @property
    def words(self) -> str:
        """How many lines."""
        first = next(iter(self.tables.values()))[0]
        return f"six components at {first.frequency.size} lines, {checks.reach(first.frequency)} Hz"


def _per_input(frequency: FloatArray, name: str, dimension: str) -> ComplexArray:
    """What an input of 1 forces a mode by: an acceleration of the base, or another motion of it; a force as it is."""
    f = np.ravel(np.asarray(frequency, dtype=np.float64))
    if dimension in MOTIONS:
        return np.asarray(SIGNS["acceleration"] * per_motion(f, "acceleration", dimension))
    if dimension not in SIGNS:
        raise InputError(f"modes, input {name}", f"a {dimension}", f"one of {listed(SIGNS)}")
    return np.full(f.size, complex(SIGNS[dimension]))
