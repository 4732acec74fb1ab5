"""The duty cycle of a node: that of the model, with the counted stress at the node as the load of every event."""

from __future__ import annotations

import dataclasses
from collections.abc import Callable, Iterator, Sequence
from dataclasses import dataclass
from typing import Any, ClassVar, cast

import numpy as np

from vivid_anvil.counting import Cycles, LoadSequence
from vivid_anvil.events import DutyCycle, Event, LoadStates
from vivid_anvil.fields.field_loads import EventLoads
from vivid_anvil.ground.checks import FloatArray
from vivid_anvil.histories import Channel, LoadHistory
from vivid_anvil.histories.load import Give, Load

CHANNEL = "stress"


def node_duty(
    duty_cycle: DutyCycle, events: Sequence[EventLoads], stress_of: Callable[[FloatArray], FloatArray]
) -> DutyCycle:
    """The same events, residue and choice of what happens between them; `stress_of(loads)` gives the stress of samples, MPa."""
    return _stressed(duty_cycle, iter(events), stress_of)


def _stressed(
    duty_cycle: DutyCycle, events: Iterator[EventLoads], stress_of: Callable[[FloatArray], FloatArray]
) -> DutyCycle:
    made = []
    for event in duty_cycle.events:
        if event.load.parts:
            load: Any = _stressed(cast(DutyCycle, event.load), events, stress_of)
        else:
            load = stress_load(next(events), stress_of)
        stated = event.duration if load.duration is None else None
        made.append(Event(event.name, load, event.occurrences, stated))
    return dataclasses.replace(duty_cycle, events=tuple(made))


def stress_load(
    event: EventLoads, stress_of: Callable[[FloatArray], FloatArray]
) -> LoadHistory | LoadStates | NodeCycles:
    """The stress of an event: a history, states, or the cycles that it is specified by."""
    history = stress_of(event.loads)
    if event.passes is not None:
        return LoadStates((Channel(CHANNEL, history, "stress"),), event.passes)
    if event.counts is None:
        return LoadHistory(event.name, (Channel(CHANNEL, history, "stress"),), event.sample_rate, steps=event.steps)
    return NodeCycles(history[0::2], history[1::2], event.counts)


@dataclass(frozen=True, eq=False)
class NodeCycles(Load):
    """Blocks of `counts` equal cycles, each from its `first` stress to the `other`, MPa, and back, in their order."""

    first: FloatArray
    other: FloatArray
    counts: FloatArray
    gives: ClassVar[frozenset[Give]] = frozenset({"cycles", "order"})

    @property
    def dimensions(self) -> dict[str, str]:
        """The stress."""
        return {CHANNEL: "stress"}

    @property
    def duration(self) -> float | None:
        """Not known at a node."""
        return None

    def extremes(self, channel: str) -> tuple[float, float]:
        """Lowest and highest stress."""
        both = np.concatenate([self.first, self.other])
        return float(both.min()), float(both.max())

    def cycles_of(self, channel: str, *, residue: str = "repeated") -> Cycles:
        """The cycles as they are specified."""
        return Cycles(
            range=np.abs(self.first - self.other),
            mean=0.5 * (self.first + self.other),
            count=self.counts,
            dimension="stress",
        )

    def in_order(self, channel: str) -> LoadSequence:
        """The blocks in their order."""
        none = self.cycles_of(channel, residue="repeated").chosen(np.zeros(self.counts.size, dtype=bool))
        rows = zip(self.first, self.other, self.counts, strict=True)
        return LoadSequence(none, tuple((np.array([one, other, one]), float(times)) for one, other, times in rows))
