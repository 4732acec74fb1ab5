"""Six stress components at a place by the modes of a structure, and its modal coordinates alone."""

from __future__ import annotations

from collections.abc import Mapping
from dataclasses import dataclass
from typing import Any

import numpy as np

from vivid_anvil.ground import checks
from vivid_anvil.ground.checks import FloatArray, read_only
from vivid_anvil.ground.errors import InputError, inside, listed, shortened
from vivid_anvil.spectra.psd import MOTIONS
from vivid_anvil.spectra.responses.components import COMPONENTS, ComponentResponses
from vivid_anvil.spectra.responses.coordinates import Coordinates
from vivid_anvil.spectra.responses.damping import Damping, dampings
from vivid_anvil.spectra.responses.modes import modal_coordinates
from vivid_anvil.spectra.responses.of_motion import per_motion
from vivid_anvil.spectra.responses.response import ComplexArray, Resonance
from vivid_anvil.units import coherent_values, sound

SIGNS = {"acceleration": -1.0, "force": 1.0}  # of a modal coordinate: a base that shakes, a force that acts


@sound
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
                shortened(self.participation),
                "the participation factors of each input, by its name",
                "Modal stresses need the participation factor of the same mode, in the same order.",
            )
        rows = {name: self._row(name, one) for name, one in self.participation.items()}
        object.__setattr__(self, "participation", rows)
        stress = checks.as_numbers(inside(where, "modal_stress"), self.modal_stress)
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


def _per_input(frequency: FloatArray, name: str, dimension: str) -> ComplexArray:
    """What an input of 1 forces a mode by: an acceleration of the base, or another motion of it; a force as it is."""
    f = np.ravel(np.asarray(frequency, dtype=np.float64))
    if dimension in MOTIONS:
        return np.asarray(SIGNS["acceleration"] * per_motion(f, "acceleration", dimension))
    if dimension not in SIGNS:
        raise InputError(f"modes, input {name}", f"a {dimension}", f"one of {listed(SIGNS)}")
    return np.full(f.size, complex(SIGNS[dimension]))
