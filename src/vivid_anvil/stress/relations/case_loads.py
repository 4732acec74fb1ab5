"""Which channel scales which load case: σ(t) = Σ unit stress × load(t) / unit load, plus what is always there."""

from __future__ import annotations

from collections.abc import Mapping, Sequence
from dataclasses import dataclass, field
from functools import cached_property, partial
from typing import Any, ClassVar, Protocol

import numpy as np

from vivid_anvil.events import DutyCycle
from vivid_anvil.events.seen import ByName
from vivid_anvil.ground.checks import FloatArray, IntArray, real_number
from vivid_anvil.ground.errors import InputError, did_you_mean, inside, listed
from vivid_anvil.histories import Channel, Steps
from vivid_anvil.histories.load import Load
from vivid_anvil.spectra.responses.coordinates import StillCoordinates
from vivid_anvil.stress.relations.vibrating_event import OVER_FREQUENCY, VibratingEvent
from vivid_anvil.units import DIMENSIONS, coherent


class StressesByCase(Protocol):
    """Unit stresses of load cases at some places, such as a model's."""

    @property
    def cases(self) -> Sequence[str]:
        """Names of the load cases."""

    @property
    def owners(self) -> IntArray:
        """The place that each row belongs to."""

    def of_case(self, name: str) -> FloatArray:
        """Stresses of a case; InputError for one that is not there."""

    def assessed(self, name: str) -> FloatArray:
        """The same for all rows, shape (rows, 6), MPa."""


@dataclass(frozen=True, kw_only=True)
class CaseLoad:
    """A load case, the channel whose history scales it, and the load at which its stresses were computed ("10 kN").

    `event_factors` multiply the load in the events that they name.

    Parameters
    ----------
    case : str
        Name of the load case.
    channel : str
        The channel, by its name.
    unit_load : float or str
        The load at which the stresses were computed, such as "10 kN".
    event_factors : mapping of str to float, optional
        Factors on the load in some events, -, by their names.

    Raises
    ------
    InputError
        For an argument of another kind, unit or range; the message says which.

    Examples
    --------
    >>> CaseLoad(case="vertical", channel="force", unit_load="10 kN").unit_load
    '10 kN'
    """

    case: str
    channel: str
    unit_load: float | str
    event_factors: Mapping[str, float] = field(default_factory=dict)


@dataclass(frozen=True, kw_only=True)
class StepLoad:
    """Fields computed one after the other, such as those of a warm-up, and the channel that says which one holds.

    The channel is a number: 1 is the first of `cases`, 2.5 is halfway between the second and the third, component by component.

    Parameters
    ----------
    channel : str
        The channel, by its name.
    cases : sequence of str
        The load cases.

    Raises
    ------
    InputError
        For an argument of another kind, unit or range; the message says which.

    Examples
    --------
    >>> StepLoad(channel="step", cases=["cold", "warm", "hot"]).weights(np.array([1.0, 2.5]), "warm-up")
    array([[1. , 0. , 0. ],
           [0. , 0.5, 0.5]])
    """

    channel: str
    cases: Sequence[str]

    def weights(self, steps: FloatArray, event: str) -> FloatArray:
        """What each case counts at every sample, shape (samples, cases); InputError outside of the sequence."""
        size = len(self.cases)
        outside = np.flatnonzero(~((steps >= 1.0) & (steps <= size)))
        if outside.size:
            raise InputError(
                f"event {event}, channel {self.channel}, sample {outside[0]}",
                f"step {steps[outside[0]]:g}",
                f"steps from 1 to {size}, of {listed(self.cases)}",
            )
        before = np.minimum(np.floor(steps).astype(np.int64), max(size - 1, 1)) - 1
        found, rows = np.zeros((steps.size, size)), np.arange(steps.size)
        after = steps - 1.0 - before
        found[rows, before] = 1.0 - after
        if size > 1:
            found[rows, before + 1] = after
        return found


@dataclass(frozen=True, eq=False)
class EventLoads:
    """An event ready for the loops: name, how often in a repeat, and loads over unit loads, shape (samples, cases).

    Of events that are specified by their cycles the samples are the two ends of each, and `counts` says how many there are.
    Loads that go through states together, back to the first, do so `passes` times.
    """

    name: str
    occurrences: float
    loads: FloatArray
    sample_rate: float
    counts: FloatArray | None = None
    steps: Steps = "even"
    passes: float | None = None

    vibrates: ClassVar[bool] = False

    @property
    def often(self) -> float:
        """How often in a repeat the samples are gone through."""
        return self.occurrences * (1.0 if self.passes is None else self.passes)

    @cached_property
    def by_case(self) -> FloatArray:
        """The loads with a row for each case, shape (cases, samples): as the loops take them."""
        return np.ascontiguousarray(self.loads.T)


@dataclass(frozen=True, eq=False)
class CaseLoads:
    """The loads of all cases of a field.

    `constant` names cases that are there all the time, such as dead weight or residual stress, with a factor each; `sequences`
    are cases that follow each other. All are summed.

    Parameters
    ----------
    cases : sequence of CaseLoad
        The load cases.
    constant : mapping of str to float, optional
        Factors of cases that are there all the time, -, by their names.
    sequences : sequence of StepLoad, optional
        Load cases that follow each other, and the channel that says which holds.

    Raises
    ------
    InputError
        For a case of the field without history or twice, a history without case, a unit load of 0, a gate, and for events
        that are no history where several channels scale the cases.

    Examples
    --------
    >>> lift = CaseLoad(case="vertical", channel="force", unit_load="10 kN")
    >>> CaseLoads(cases=(lift,), constant={"weight": 1.0}).constant
    {'weight': 1.0}
    """

    cases: Sequence[CaseLoad]
    constant: Mapping[str, float] = field(default_factory=dict)
    sequences: Sequence[StepLoad] = ()

    @property
    def moving(self) -> list[str]:
        """Cases that change with time, in the order of the columns of loads."""
        return [case.case for case in self.cases] + [name for one in self.sequences for name in one.cases]

    def check(self, stresses: StressesByCase) -> None:
        """InputError unless every case of the field has exactly one load."""
        named = self.moving + list(self.constant)
        for name in named:
            stresses.of_case(name)
            if named.count(name) > 1:
                raise InputError(f"load case {name}", "two loads", "one: a history, or constant")
        if not self.moving:
            raise InputError(
                "loads", "no load case with a history", "one or more", "A constant stress makes no cycles."
            )
        left = [name for name in stresses.cases if name not in named]
        if left:
            raise InputError(
                f"load case {left[0]}",
                "no history and not constant",
                "a load for every case of the field",
                "Give it a history or states with a load factor of that name, make it constant, or name it in ignore_cases.",
            )

    def units(self, stresses: StressesByCase) -> FloatArray:
        """Unit stresses of the cases with a history, shape (rows, cases, 6), MPa; rows are nodes, or elements at nodes."""
        return np.ascontiguousarray(np.moveaxis(np.array([stresses.assessed(name) for name in self.moving]), 0, 1))

    def constants(self, stresses: StressesByCase) -> FloatArray:
        """What is there all the time, shape (rows, 6), MPa."""
        total = np.zeros((stresses.owners.size, 6))
        for name, factor in self.constant.items():
            total += real_number(inside(f"load case {name}", "constant"), factor) * stresses.assessed(name)
        return total

    def events(self, duty_cycle: DutyCycle) -> list[Any]:
        """Every event of the duty cycle: loads over unit loads in time (`EventLoads`), or over frequency (`VibratingEvent`)."""
        flat = duty_cycle.flat()
        names = [event.name for event, _ in flat]
        for case in self.cases:
            for name in case.event_factors:
                if name not in names:
                    hint = did_you_mean(name, names)
                    raise InputError(
                        inside(f"load case {case.case}", "event_factors"),
                        repr(name),
                        f"an event: {listed(names)}",
                        hint,
                    )
        ordered = duty_cycle.between == "in the order given"
        how = duty_cycle.expected_cycles, duty_cycle.expected_slope
        return [
            VibratingEvent(event.name, often, event.load, self.coordinates(event.load, event.name), *how)
            if event.load.gives & OVER_FREQUENCY
            else self._event(event.name, event.load, often, ordered)
            for event, often in flat
        ]

    def coordinates(self, load: Load, event: str) -> StillCoordinates:
        """Loads over unit loads for a coherent unit of each channel that a load over frequency has."""
        if self.sequences:
            found = "load cases that follow each other under a load over frequency"
            raise InputError(f"event {event}", found, "cases that channels scale", "State the events as histories.")
        there = [name for name in self.channels if name in load.dimensions]
        if not there:
            raise InputError(f"event {event}", f"channels {listed(load.dimensions)}", f"one of {listed(self.channels)}")

        kinds = load.dimensions

        def one(of: str, name: str) -> Channel:
            return Channel(name, np.array([1.0 if name == of else 0.0]), kinds[name])

        gains = {}
        for of in there:
            still = [case for case in self.cases if case.channel in kinds]
            row = CaseLoads(still).over_unit_loads(event, partial(one, of))[0]
            known = dict(zip([case.case for case in still], row.tolist(), strict=True))
            gains[of] = np.array([known.get(case.case, 0.0) for case in self.cases])
        return StillCoordinates(gains)

    def relation_at(self, unit: FloatArray, constant: FloatArray, measure: Any) -> Any:
        """How the loads become the counted stress at a place with these unit stresses and constant ones."""
        from vivid_anvil.stress.relations.unit_stresses import UnitStresses

        return UnitStresses(loads=self, unit=unit, constant=constant, measure=measure)

    def _event(self, name: str, load: Load, often: float, ordered: bool) -> EventLoads:
        if "samples" in load.gives:
            course = load.samples()
            loads, rate = self.over_unit_loads(name, course.channel), course.sample_rate
            return EventLoads(name, often, loads, rate, steps=course.steps, passes=course.passes)
        channels = self.channels
        try:
            ends = load.ends(channels[0])
        except InputError as error:
            where = error.where if error.where.startswith("event") else f"event {name}"
            raise InputError(where, error.found, error.expected, error.remedy) from None
        if len(channels) > 1:
            raise InputError(
                f"event {name}",
                "cycles of one channel",
                f"a history, or states, with the channels {listed(channels)}",
                "How loads go together is known from their course in time only.",
            )
        if ordered:
            load.in_order(channels[0])  # refuses a load without order
        return EventLoads(name, often, self.over_unit_loads(name, lambda _: ends.channel), 1.0, np.asarray(ends.counts))

    @property
    def channels(self) -> tuple[str, ...]:
        """The channels that scale the cases."""
        named = [case.channel for case in self.cases] + [sequence.channel for sequence in self.sequences]
        return tuple(dict.fromkeys(named))

    def over_unit_loads(self, name: str, channel_named: ByName) -> FloatArray:
        """Loads over unit loads in the event of that name, shape (samples, cases)."""
        columns: list[FloatArray] = []
        for case in self.cases:
            channel = channel_named(case.channel)
            where = f"load case {case.case}, unit_load"
            unit = coherent(case.unit_load, channel.dimension, where)
            if unit == 0.0 or not np.isfinite(unit):
                example = DIMENSIONS[channel.dimension].example
                raise InputError(
                    where, f"{unit:g}", "the load at which the stresses were computed", f"Such as {example}."
                )
            columns.append(channel.values * (case.event_factors.get(name, 1.0) / unit))
        for sequence in self.sequences:
            channel = channel_named(sequence.channel)
            if channel.dimension != "number":
                raise InputError(
                    f"event {name}, channel {sequence.channel}", f"a {channel.dimension}", "a number of a step"
                )
            columns += list(sequence.weights(channel.values, name).T)
        return np.ascontiguousarray(np.column_stack(columns))
