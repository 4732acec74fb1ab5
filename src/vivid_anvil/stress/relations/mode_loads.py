"""The loads of a model by its modes: natural frequencies, participation factors, damping; unit stresses are modal stresses."""

from __future__ import annotations

from collections.abc import Mapping
from dataclasses import dataclass, field
from functools import cached_property
from typing import Any

import numpy as np

from vivid_anvil.events import DutyCycle
from vivid_anvil.ground.checks import FloatArray
from vivid_anvil.ground.errors import InputError, inside, listed
from vivid_anvil.histories.load import Load
from vivid_anvil.spectra.responses.components import ModalComponents, ModalCoordinates, SuperposedComponents
from vivid_anvil.stress.relations.case_loads import EventLoads, StressesByCase
from vivid_anvil.stress.relations.vibrating_components import VibratingComponents
from vivid_anvil.stress.relations.vibrating_event import OVER_FREQUENCY, VibratingEvent


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
        whole: FloatArray | None = getattr(stresses, "stresses", None)
        if whole is not None and getattr(stresses, "rows", None) is None and self.moving == tuple(stresses.cases):
            return np.moveaxis(whole, 0, 1)  # as they stand: a large model has no room for them twice
        return np.moveaxis(np.array([stresses.assessed(name) for name in self.moving]), 0, 1)

    def constants(self, stresses: StressesByCase) -> FloatArray:
        """What is there all the time, shape (rows, 6), MPa."""
        total = np.zeros((stresses.owners.size, 6))
        for name, factor in self.constant.items():
            total += float(factor) * stresses.assessed(name)
        return total

    def events(self, duty_cycle: DutyCycle) -> list[Any]:
        """Every event of the duty cycle: modal coordinates in time, or over frequency."""
        how = duty_cycle.expected_cycles, duty_cycle.expected_slope
        found: list[Any] = []
        for event, often in duty_cycle.flat():
            load = event.load.in_time()
            if load.gives & OVER_FREQUENCY:
                found.append(VibratingEvent(event.name, often, load, self._there(load, event.name), *how))
            else:
                found.append(self._in_time(event.name, load, often))
        return found

    def _there(self, load: Load, event: str) -> ModalCoordinates:
        if not set(self.channels) & set(load.dimensions):
            raise InputError(f"event {event}", f"channels {listed(load.dimensions)}", f"one of {listed(self.channels)}")
        return self.source

    def _in_time(self, name: str, load: Load, often: float) -> EventLoads:
        """Modal coordinates of a history, by its Fourier transform, as one that repeats."""
        kinds = load.dimensions
        inputs = {one: kinds[one] for one in self.channels if one in kinds}
        if not inputs:
            raise InputError(f"event {name}", f"channels {listed(kinds)}", f"one of {listed(self.channels)}")
        if "samples" not in load.gives or load.samples().steps != "even":
            raise InputError(
                inside(f"event {name}", "load"),
                f"a {type(load).__name__}, which says nothing of frequencies",
                "a history sampled evenly, a random event, or a sine",
            )
        course = load.samples()
        values = np.stack([course.channel(one).values for one in inputs])
        frequency: FloatArray = np.asarray(np.fft.rfftfreq(values.shape[1], 1.0 / course.sample_rate), dtype=np.float64)
        frequency[0] = 1e-6 * (frequency[1] if frequency.size > 1 else 1.0)
        lines: Any = np.fft.rfft(values)
        through = np.einsum("mrj,jm->rm", self.source.coordinates(frequency, inputs), lines)
        loads = np.ascontiguousarray(np.fft.irfft(through, n=values.shape[1]).T)
        return EventLoads(name, often, loads, course.sample_rate, steps=course.steps, passes=course.passes)

    def relation_at(self, unit: FloatArray, constant: FloatArray, measure: Any) -> VibratingComponents:
        """How the inputs become the counted stress at a place with these modal stresses and constant ones."""
        response = SuperposedComponents(self.source, unit)
        return VibratingComponents(response=response, constant=constant, measure=measure)
