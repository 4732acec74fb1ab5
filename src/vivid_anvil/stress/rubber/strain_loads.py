"""Which states of strain each event of a duty cycle goes through: closed ways, what leads into them apart.

In: states in turn, a duty cycle. Out: of each event its ways, as what each state counts at every row.
"""

from __future__ import annotations

from collections.abc import Iterator, Sequence
from dataclasses import dataclass
from typing import Any, ClassVar

import numpy as np

from vivid_anvil.events import DutyCycle
from vivid_anvil.ground.checks import FloatArray, IntArray, positive_number
from vivid_anvil.ground.errors import InputError, did_you_mean, listed
from vivid_anvil.histories.load import Load
from vivid_anvil.stress.relations.vibrating_event import OVER_FREQUENCY
from vivid_anvil.stress.rubber.states_in_turn import StatesInTurn
from vivid_anvil.units import sound


@dataclass(frozen=True, eq=False)
class StrainWay:
    """A closed way through states: what each counts at every row, shape (rows, cases), from the undeformed body on.

    The part from row `first` on is repeated, `often` times in a repeat; its last row is its first again. `samples` says which
    sample of the event each row of that part is, -1 for a state that is passed between two.
    """

    weights: FloatArray
    first: int
    often: float
    samples: IntArray


@dataclass(frozen=True, eq=False)
class StrainEvent:
    """An event as ways through states; `loads` are what states count at its samples, shape (samples, cases)."""

    name: str
    often: float
    ways: tuple[StrainWay, ...]
    loads: FloatArray
    beyond: float
    counts: FloatArray | None = None
    sample_rate: float | None = None
    history: Any = None

    vibrates: ClassVar[bool] = False

    @property
    def occurrences(self) -> float:
        """How often in a repeat."""
        return self.often


@sound
@dataclass(frozen=True, eq=False)
class StrainLoads:
    """Sequences of states; every event goes through those that name it, else through the one that names no event.

    Parameters
    ----------
    sequences : sequence of StatesInTurn
        The states.
    load_factor : float, default 1
        On all loads: it moves the channel of states that were computed at loads; the strains of states in turn it multiplies.

    Raises
    ------
    InputError
        For no sequence, an event or a state named twice, and two sequences for all events.

    Examples
    --------
    >>> turn = StatesInTurn(channel="sink", cases=["half", "full"], at=["3 mm", "6 mm"])
    >>> StrainLoads([turn]).cases
    ('half', 'full')
    """

    sequences: Sequence[StatesInTurn]
    load_factor: float = 1.0

    def __post_init__(self) -> None:
        given: Any = self.sequences
        if isinstance(given, StatesInTurn) or not given or not all(isinstance(one, StatesInTurn) for one in given):
            raise InputError("strain states", repr(given), "one or more StatesInTurn in a list")
        object.__setattr__(self, "sequences", tuple(given))
        positive_number("strain states, load_factor", self.load_factor)
        if sum(1 for one in self.sequences if not one.events) > 1:
            raise InputError(
                "strain states", "several sequences that name no event", "one at most", "State the events of each."
            )
        for what, names in (("event", self.named_events), ("state", self.cases)):
            twice = next((name for name in names if names.count(name) > 1), None)
            if twice is not None:
                raise InputError("strain states", f"the {what} {twice!r} in two sequences", "each once")

    @property
    def named_events(self) -> tuple[str, ...]:
        """Events that sequences name."""
        return tuple(name for one in self.sequences for name in one.events)

    @property
    def cases(self) -> tuple[str, ...]:
        """The states, one sequence after the other."""
        return tuple(name for one in self.sequences for name in one.cases)

    @property
    def channels(self) -> tuple[str, ...]:
        """The channels that go through states."""
        return tuple(dict.fromkeys(one.channel for one in self.sequences))

    def of(self, event: str) -> tuple[StatesInTurn, int]:
        """The sequence of an event, and where its states begin; InputError where no sequence has it."""
        at, usual = 0, None
        for one in self.sequences:
            if one.goes_through(event):
                return one, at
            if not one.events:
                usual = one, at
            at += len(one.cases)
        if usual is None:
            raise InputError(
                f"event {event}",
                "no states of strain",
                f"one of {listed(self.named_events)}, which the states name",
                "Name it among the events of its states.",
            )
        return usual

    def check_events(self, names: Sequence[str]) -> None:
        """InputError for an event that a sequence names and that is not there."""
        for name in self.named_events:
            if name not in names:
                raise InputError(
                    "strain states, events", repr(name), f"an event: {listed(names)}", did_you_mean(name, names)
                )

    def events(self, duty_cycle: DutyCycle, load_factor: float = 1.0) -> list[StrainEvent]:
        """Every event as ways through states, with all loads times a factor more."""
        flat = duty_cycle.flat()
        self.check_events([event.name for event, _ in flat])
        return [self._event(event.name, event.load, often, self.load_factor * load_factor) for event, often in flat]

    def _event(self, name: str, load: Load, often: float, factor: float) -> StrainEvent:
        if load.gives & OVER_FREQUENCY:
            raise InputError(
                f"event {name}",
                "a load over frequency",
                "a history, states or cycles, which go through states of strain",
                "Large strains are known from their course only.",
            )
        sequence, at = self.of(name)
        before, after = at, len(self.cases) - at - len(sequence.cases)
        moved = factor if sequence.at is not None else 1.0
        left = 1.0 if sequence.at is not None else factor

        def beyond(values: FloatArray) -> float:
            return max(sequence.beyond(values), left - 1.0)

        def weights(values: FloatArray) -> FloatArray:
            own = left * sequence.weights(values)
            return np.pad(own, ((0, 0), (before, after)))

        def way(values: FloatArray, times: float, first: int) -> StrainWay:
            closed = np.append(values, values[0])
            rows, numbers = sequence.through(closed) if sequence.at is not None else (closed, np.arange(closed.size))
            lead = sequence.way_in(float(values[0]))
            undeformed = np.zeros((1, len(self.cases)))
            whole = np.concatenate([undeformed, weights(lead), weights(rows)])
            samples = np.where(numbers >= 0, first + numbers % values.size, -1)
            return StrainWay(whole, 1 + lead.size, times, samples.astype(np.int64))

        if "samples" in load.gives:
            course = load.samples()
            values = moved * sequence.values_of(course.channel(sequence.channel), name)
            passes = 1.0 if course.passes is None else course.passes
            history = load.measured
            rate = None if history is None else history.counting_rate
            ways: tuple[StrainWay, ...] = (way(values, often * passes, 0),)
            return StrainEvent(name, often * passes, ways, weights(values), beyond(values), None, rate, history)
        try:
            ends = load.ends(sequence.channel)
        except InputError as error:
            where = error.where if error.where.startswith("event") else f"event {name}"
            raise InputError(where, error.found, error.expected, error.remedy) from None
        values, counts = moved * sequence.values_of(ends.channel, name), np.asarray(ends.counts, dtype=np.float64)
        pairs = zip(values.reshape(-1, 2), counts.tolist(), strict=True)
        ways = tuple(way(pair, often * count, 2 * i) for i, (pair, count) in enumerate(pairs))
        return StrainEvent(name, often, ways, weights(values), beyond(values), counts)

    def at_samples(self, event: str, values: FloatArray) -> FloatArray:
        """What each state counts at values of the event's channel, shape (samples, cases)."""
        sequence, at = self.of(event)
        turns = sequence.at is None
        own = sequence.weights(values if turns else self.load_factor * values)
        return np.pad(
            own * (self.load_factor if turns else 1.0), ((0, 0), (at, len(self.cases) - at - len(sequence.cases)))
        )

    @property
    def words(self) -> str:
        """All sequences."""
        return "; ".join(self._told())

    def _told(self) -> Iterator[str]:
        for one in self.sequences:
            yield one.words + (f" in {listed(one.events)}" if one.events else "")
