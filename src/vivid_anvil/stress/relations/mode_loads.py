"""The loads of a model by its modes: natural frequencies, participation factors, damping; unit stresses are modal stresses."""

from __future__ import annotations

from collections.abc import Mapping
from dataclasses import dataclass, field
from functools import cached_property
from typing import Any

import numpy as np

from vivid_anvil.events import DutyCycle
from vivid_anvil.ground.checks import FloatArray
from vivid_anvil.ground.errors import InputError, listed
from vivid_anvil.spectra.responses.modal_components import ModalComponents, ModalCoordinates
from vivid_anvil.stress.relations.case_loads import StressesByCase
from vivid_anvil.stress.relations.coordinate_loads import constants_of, events_of, place_of, units_of
from vivid_anvil.stress.relations.vibrating_components import VibratingComponents


@dataclass(frozen=True, eq=False, kw_only=True)
class ModeLoads:
    """How inputs move the modes of a model, whose load cases are modal stresses, MPa/(mm √t), one mode after the other.

    Parameters
    ----------
    natural_frequency : ndarray or sequence of float or str, shape (modes,)
        Hz; in the order of the cases.
    participation : mapping of str to ndarray, shape (modes,)
        Of each input: participation factors of a shaken base, √t; of a force the deflection of each mode there, 1/√t.
    damping_ratio, quality_factor, loss_factor : float or sequence of float, optional
        One for all modes, or one each, by one of these words; 0.02 of critical, with a finding, where none is given.
    constant : mapping of str to float, optional
        Factors of cases that are there all the time, -, by their names.

    Raises
    ------
    InputError
        For an argument of another kind, unit or range; the message says which.

    Examples
    --------
    >>> ModeLoads(natural_frequency=["70 Hz", "160 Hz"], participation={"base": [0.1, 0.07]}, damping_ratio=0.02).channels
    ('base',)
    """

    natural_frequency: FloatArray
    participation: Mapping[str, FloatArray]
    damping_ratio: float | tuple[float, ...] | None = None
    quality_factor: float | tuple[float, ...] | None = None
    loss_factor: float | tuple[float, ...] | None = None
    constant: Mapping[str, float] = field(default_factory=dict)
    moving: tuple[str, ...] = field(default=(), init=False)

    def __post_init__(self) -> None:
        assert self.source.channels

    @cached_property
    def source(self) -> ModalCoordinates:
        """The modal coordinates."""
        modes = np.size(self.natural_frequency)
        return ModalCoordinates(
            ModalComponents(
                natural_frequency=self.natural_frequency,
                participation=self.participation,
                modal_stress=np.zeros((modes, 6)),
                damping_ratio=self.damping_ratio,
                quality_factor=self.quality_factor,
                loss_factor=self.loss_factor,
            )
        )

    @property
    def channels(self) -> tuple[str, ...]:
        """The inputs."""
        return self.source.channels

    def check(self, stresses: StressesByCase) -> None:
        """InputError unless there is a natural frequency for every case of the field that is not constant."""
        for name in self.constant:
            stresses.of_case(name)
        modes = [name for name in stresses.cases if name not in self.constant]
        if len(modes) != np.size(self.natural_frequency):
            raise InputError(
                "modes of a model",
                f"{np.size(self.natural_frequency)} natural frequencies for {len(modes)} cases: {listed(modes)}",
                "one for each mode, in their order",
                "Modal stresses need the natural frequency and the participation factor of the same mode.",
            )
        object.__setattr__(self, "moving", tuple(modes))

    def units(self, stresses: StressesByCase) -> FloatArray:
        """Modal stresses, shape (rows, modes, 6), MPa/(mm √t)."""
        self.check(stresses)
        return units_of(stresses, self.moving)

    def constants(self, stresses: StressesByCase) -> FloatArray:
        """What is there all the time, shape (rows, 6), MPa."""
        return constants_of(stresses, self.constant)

    def events(self, duty_cycle: DutyCycle) -> list[Any]:
        """Every event of the duty cycle: modal coordinates in time, or over frequency."""
        return events_of(self.source, duty_cycle)

    def relation_at(self, unit: FloatArray, constant: FloatArray, measure: Any) -> VibratingComponents:
        """How the inputs become the counted stress at a place with these modal stresses and constant ones."""
        return place_of(self.source, unit, constant, measure)
