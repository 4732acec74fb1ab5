"""Which history scales which load case of a field: σ(t) = Σ unit stress × load(t) / unit load, plus what is always there."""

from __future__ import annotations

from collections.abc import Mapping, Sequence
from dataclasses import dataclass, field

import numpy as np

from vivid_anvil.checks import FloatArray, real_number
from vivid_anvil.errors import InputError, did_you_mean, listed
from vivid_anvil.fields.stress_field import StressField
from vivid_anvil.histories import DutyCycle, LoadHistory
from vivid_anvil.units import DIMENSIONS, coherent


@dataclass(frozen=True, kw_only=True)
class CaseLoad:
    """A load case, the channel whose history scales it, and the load at which its stresses were computed ("10 kN").

    `event_factors` multiply the load in the events that they name.
    """

    case: str
    channel: str
    unit_load: float | str
    event_factors: Mapping[str, float] = field(default_factory=dict)


@dataclass(frozen=True, eq=False)
class EventLoads:
    """An event ready for the loops: name, how often in a repeat, and loads over unit loads, shape (samples, cases)."""

    name: str
    occurrences: float
    loads: FloatArray
    sample_rate: float


@dataclass(frozen=True, eq=False)
class FieldLoads:
    """The loads of all cases of a field.

    `constant` names cases that are there all the time, such as dead weight or residual stress, with a factor each.
    Raises InputError for a case of the field without history or twice, a history without case, a unit load of 0, and an event
    that is no history.
    """

    cases: Sequence[CaseLoad]
    constant: Mapping[str, float] = field(default_factory=dict)

    def check(self, stresses: StressField) -> None:
        """InputError unless every case of the field has exactly one load."""
        named = [one.case for one in self.cases] + list(self.constant)
        for name in named:
            stresses.of_case(name)
            if named.count(name) > 1:
                raise InputError(f"load case {name}", "two loads", "one: a history, or constant")
        left = [name for name in stresses.cases if name not in named]
        if left:
            raise InputError(
                f"load case {left[0]}",
                "no history and not constant",
                "a load for every case of the field",
                "Give it a history, make it constant, or leave the case out of the field.",
            )

    def units(self, stresses: StressField) -> FloatArray:
        """Unit stresses of the cases with a history, shape (n, cases, 6), MPa."""
        order = [stresses.of_case(one.case) for one in self.cases]
        empty = np.empty((0, stresses.size, 6))
        return np.ascontiguousarray(np.moveaxis(np.array(order) if order else empty, 0, 1))

    def constants(self, stresses: StressField) -> FloatArray:
        """What is there all the time, shape (n, 6), MPa."""
        total = np.zeros((stresses.size, 6))
        for name, factor in self.constant.items():
            total += real_number(f"load case {name}, constant", factor) * stresses.of_case(name)
        return total

    def events(self, duty_cycle: DutyCycle) -> list[EventLoads]:
        """Every event of the duty cycle as loads over unit loads."""
        if duty_cycle.between != "each by itself":
            raise InputError(
                "duty cycle, between",
                repr(duty_cycle.between),
                "'each by itself' for a whole model",
                "Look at the worst nodes one by one for what happens between events.",
            )
        flat = duty_cycle.flat()
        names = [event.name for event, _ in flat]
        for one in self.cases:
            for name in one.event_factors:
                if name not in names:
                    hint = did_you_mean(name, names)
                    raise InputError(
                        f"load case {one.case}, event_factors", repr(name), f"an event: {listed(names)}", hint
                    )
        return [self._event(event.name, event.load, often) for event, often in flat]

    def _event(self, name: str, load: object, often: float) -> EventLoads:
        if not isinstance(load, LoadHistory):
            raise InputError(
                f"event {name}",
                type(load).__name__,
                "a history with a channel for every load case",
                "A whole model needs the loads in their order in time.",
            )
        columns = []
        for one in self.cases:
            channel = load[one.channel]
            where = f"load case {one.case}, unit_load"
            unit = coherent(one.unit_load, channel.dimension, where)
            if unit == 0.0 or not np.isfinite(unit):
                example = DIMENSIONS[channel.dimension].example
                raise InputError(
                    where, f"{unit:g}", "the load at which the stresses were computed", f"Such as {example}."
                )
            columns.append(channel.values * (one.event_factors.get(name, 1.0) / unit))
        return EventLoads(name, often, np.ascontiguousarray(np.column_stack(columns)), load.sample_rate)
