"""From the loads of a duty cycle to the one nominal stress that is counted at a place."""

from __future__ import annotations

from abc import abstractmethod
from collections.abc import Callable, Iterator
from typing import ClassVar, NamedTuple

import numpy as np

from vivid_anvil.counting import Cycles
from vivid_anvil.events import DutyCycle
from vivid_anvil.events.seen import Seen
from vivid_anvil.ground.checks import FloatArray
from vivid_anvil.histories.load import Load
from vivid_anvil.units import UnitSystem
from vivid_anvil.writing.finding import Finding
from vivid_anvil.writing.working import Step


class Moment(NamedTuple):
    """One end of a cycle: the event, its load, and the sample, or which of the ends of cycles where these are stated."""

    event: str
    load: Load
    sample: int


class Nominal(NamedTuple):
    """Steps to a nominal stress, and how it is written in the step that uses it: formula and numbers."""

    steps: list[Step]
    formula: str
    numbers: str


AskedMoment = Callable[[], Moment]  # looked for where a relation needs it only


class Relation(Seen):
    """How loads become the nominal stress at a place: stress per load × what is counted + `offset`.

    What is counted is the stress itself unless `counted` says a channel, whose cycles are then counted once for all places and
    scaled. `offset`, MPa, is there without load (preload, assembly, residual): no load factor moves it.
    """

    offset: float
    gives: ClassVar[str] = "stresses"  # what a method takes of it

    @property
    def scaled_along(self) -> bool:
        """Whether what is counted holds stress that no load moves, so that a factor on it is none on the loads alone."""
        return False

    @property
    def counted(self) -> str | Seen:
        """What the duty cycle counts: a channel by its name, or (here) the stress itself."""
        return self

    def per_load(self, dimension: str) -> float:
        """Nominal stress, MPa, for a coherent unit of what is counted, of that dimension; not 0."""
        return 1.0

    @property
    @abstractmethod
    def words(self) -> str:
        """What acts on the place."""

    @abstractmethod
    def worked(self, stress: float, moment: AskedMoment, dimension: str, units: UnitSystem) -> Nominal:
        """The nominal stress without offset, MPa, by hand, by the loads of that `moment()`."""

    def goes_with(self, duty_cycle: DutyCycle) -> None:  # most take any
        """InputError for a duty cycle that lacks what the relation names."""

    def factor(self, duty_cycle: DutyCycle) -> float:
        """`per_load` for the duty cycle; InputError for a channel that an event does not have."""
        return self.per_load(duty_cycle.dimension_of_channel(self.counted))

    def remarks(self) -> Iterator[Finding]:
        """What an expert would say of it, whatever the loads."""
        return iter(())

    def cycles(self, duty_cycle: DutyCycle, notch_factor: float = 1.0) -> Cycles:
        """Stress cycles of a repeat, MPa, with a notch factor on all of the stress."""
        counted = duty_cycle.cycles_of(self.counted)
        return counted.linear(notch_factor * self.factor(duty_cycle), notch_factor * self.offset, self.dimension)

    def extremes(self, duty_cycle: DutyCycle) -> tuple[float, float]:
        """Lowest and highest nominal stress, MPa."""
        ends = [self.factor(duty_cycle) * one + self.offset for one in duty_cycle.extremes(self.counted)]
        return min(ends), max(ends)


def moment_of(relation: Relation, duty_cycle: DutyCycle, event: int, ends: list[int], value: float) -> Moment:
    """The moment at which what is counted comes nearest to `value`: in an event, by its number, or in any for a number beyond.

    `ends` are the samples of the cycle, -1 where not known.
    """
    flat = duty_cycle.flat()
    found: list[tuple[float, Moment]] = []
    for one, _ in flat[event : event + 1] or flat:
        load = one.load if isinstance(relation.counted, str) else relation.seen(one.load, one.name)
        values = _course(load, str(relation.counted))
        known = one.load.measured is not None and min(ends) >= 0 and event < len(flat)
        among = np.array(ends) if known else np.arange(values.size)
        off = np.abs(values[among] - value)
        found.append((float(off.min()), Moment(one.name, one.load, int(among[off.argmin()]))))
    return min(found, key=lambda each: each[0])[1]


def _course(load: Load, channel: str) -> FloatArray:
    if "samples" in load.gives:
        return load.samples().channel(channel).values
    return load.ends(channel).channel.values
