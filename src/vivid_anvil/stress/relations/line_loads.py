"""The loads of a model whose complex stresses are known at lines, as a steady-state step gives them."""

from __future__ import annotations

from collections.abc import Mapping
from dataclasses import dataclass, field
from functools import cached_property
from typing import Any

import numpy as np

from vivid_anvil.events import DutyCycle
from vivid_anvil.ground import checks
from vivid_anvil.ground.checks import FloatArray, read_only
from vivid_anvil.ground.errors import InputError, inside, listed
from vivid_anvil.spectra.responses.coordinates import LineCoordinates
from vivid_anvil.stress.relations.case_loads import StressesByCase
from vivid_anvil.stress.relations.coordinate_loads import constants_of, events_of, place_of, units_of
from vivid_anvil.stress.relations.vibrating_components import VibratingComponents
from vivid_anvil.units import coherent_values, dimension_of, sound, split
from vivid_anvil.units.door import coherent


@sound
@dataclass(frozen=True, eq=False, kw_only=True)
class LineLoads:
    """One input of a model with two load cases a line, the real and the imaginary part of its stresses, one line after the other.

    Parameters
    ----------
    channel : str
        The input.
    frequency : ndarray or sequence of float or str, shape (lines,)
        Hz, ascending; in the order of the cases.
    per : str
        The input that the stresses were computed for, such as "1 g" or "250 N".
    constant : mapping of str to float, optional
        Factors of cases that are there all the time, -, by their names.

    Raises
    ------
    InputError
        For lines that do not ascend, and an input without unit.

    Examples
    --------
    >>> LineLoads(channel="base", frequency=["20 Hz", "40 Hz"], per="1 g").channels
    ('base',)
    """

    channel: str
    frequency: FloatArray
    per: str
    constant: Mapping[str, float] = field(default_factory=dict)
    moving: tuple[str, ...] = field(default=(), init=False)

    def __post_init__(self) -> None:
        where = "stresses over frequency"
        checks.text(inside(where, "channel"), self.channel)
        given = np.atleast_1d(coherent_values(self.frequency, "frequency", inside(where, "frequency")))
        row = checks.finite_samples(given, where=inside(where, "frequency"), unit="Hz")
        if row.size < 2 or row[0] < 0.0 or (np.diff(row) <= 0.0).any():
            raise InputError(inside(where, "frequency"), checks.reach(row) + " Hz", "two or more ascending frequencies")
        object.__setattr__(self, "frequency", read_only(np.array(row)))
        assert self.source.per > 0.0

    @property
    def dimension(self) -> str:
        """Of the input."""
        _, unit = split(self.per, "stresses over frequency, per", "1 g", "acceleration")
        return dimension_of(unit, "stresses over frequency, per").name

    @cached_property
    def source(self) -> LineCoordinates:
        """What the parts at each line count."""
        where = "stresses over frequency, per"
        size = checks.positive_number(where, coherent(self.per, self.dimension, where))
        return LineCoordinates(self.channel, np.asarray(self.frequency), size, self.dimension)

    @property
    def channels(self) -> tuple[str, ...]:
        """The input."""
        return (self.channel,)

    def check(self, stresses: StressesByCase) -> None:
        """InputError unless the field has two cases a line beside the constant ones."""
        for name in self.constant:
            stresses.of_case(name)
        cases = [name for name in stresses.cases if name not in self.constant]
        if len(cases) != 2 * self.frequency.size:
            raise InputError(
                "stresses over frequency",
                f"{self.frequency.size} lines for {len(cases)} cases: {listed(cases[:6])}",
                "two cases a line: its real and its imaginary part",
            )
        object.__setattr__(self, "moving", tuple(cases))

    def units(self, stresses: StressesByCase) -> FloatArray:
        """Real and imaginary parts, shape (rows, 2 lines, 6), MPa."""
        self.check(stresses)
        return units_of(stresses, self.moving)

    def constants(self, stresses: StressesByCase) -> FloatArray:
        """What is there all the time, shape (rows, 6), MPa."""
        return constants_of(stresses, self.constant)

    def events(self, duty_cycle: DutyCycle) -> list[Any]:
        """Every event of the duty cycle over frequency, or by its Fourier transform."""
        return events_of(self.source, duty_cycle)

    def relation_at(self, unit: FloatArray, constant: FloatArray, measure: Any) -> VibratingComponents:
        """How the input becomes the counted stress at a place with these parts at its lines."""
        return place_of(self.source, unit, constant, measure)
