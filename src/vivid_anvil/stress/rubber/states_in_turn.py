"""Computed states of strain that follow each other, and the channel that says which one holds: a number of a step, or a load."""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass
from functools import cached_property
from itertools import pairwise
from typing import Any

import numpy as np

from vivid_anvil.ground import checks
from vivid_anvil.ground.checks import FloatArray, IntArray
from vivid_anvil.ground.errors import InputError, inside, listed
from vivid_anvil.histories.channel import Channel
from vivid_anvil.units import DIMENSIONS, coherent, sound

ZERO = 1e-12  # of the largest place, below which a place is 0


@sound
@dataclass(frozen=True, kw_only=True, eq=False)
class StatesInTurn:
    """States of strain in their order, and the channel that goes through them.

    Without `at` the channel is a number: 1 is the first of `cases`, 2.5 halfway between the second and the third. With `at`, the
    values of the channel at which the states were computed, it is a load, such as a displacement; at 0 the part is undeformed
    unless a state is given for it. Between states Green and Lagrange's strain is straight, component by component.

    Parameters
    ----------
    channel : str
        The channel, by its name.
    cases : sequence of str
        The states, by their names.
    at : sequence of float or text with a unit, optional
        Where each was computed, rising, such as ["2 mm", "4 mm"].
    events : sequence of str, optional
        The events that go through these states; without it all that no other states name.

    Raises
    ------
    InputError
        For no states, a name twice, and places that are not as many as states, or do not rise.

    Examples
    --------
    >>> turn = StatesInTurn(channel="step", cases=["cold", "warm", "hot"])
    >>> turn.weights(np.array([1.0, 2.5]))
    array([[1. , 0. , 0. ],
           [0. , 0.5, 0.5]])
    """

    channel: str
    cases: Sequence[str]
    at: Sequence[float | str] | None = None
    events: Sequence[str] = ()

    def __post_init__(self) -> None:
        where = f"states of {self.channel}"
        checks.text("states, channel", self.channel)
        for key in ("cases", "events"):
            given: Any = getattr(self, key)
            if isinstance(given, str) or not all(isinstance(one, str) for one in given):
                raise InputError(inside(where, key), repr(given), "names in a list")
            object.__setattr__(self, key, tuple(given))
        if not self.cases or len(set(self.cases)) != len(self.cases):
            found = "no state" if not self.cases else "a name twice"
            raise InputError(inside(where, "cases"), found, "one or more states, each with a name of its own")
        if self.at is None:
            return
        if isinstance(self.at, str) or len(self.at) != len(self.cases):
            raise InputError(
                inside(where, "at"), repr(self.at), f"a value of the channel for each of {len(self.cases)} states"
            )
        kinds = {self._kind(one, i) for i, one in enumerate(self.at, 1)}
        if len(kinds) > 1:
            raise InputError(inside(where, "at"), f"values of {listed(sorted(kinds))}", "values of one dimension")
        places = [coherent(one, self.dimension, inside(where, "at")) for one in self.at]
        if any(not a < b for a, b in pairwise(places)):
            raise InputError(inside(where, "at"), f"{list(self.at)}", "values that rise", "Sort the states by them.")
        if places == [0.0]:
            raise InputError(inside(where, "at"), "one state at 0", "states at loads")

    def _kind(self, value: float | str, row: int) -> str:
        if not isinstance(value, str):
            return "number"
        from vivid_anvil.units import dimension_of
        from vivid_anvil.units.door import split

        where = f"states of {self.channel}, at, row {row}"
        return dimension_of(split(value, where, "4 mm", "number")[1], where).name

    @property
    def dimension(self) -> str:
        """Of the channel: that of `at`, else a number."""
        return "number" if self.at is None else self._kind(self.at[0], 1)

    @cached_property
    def places(self) -> FloatArray:
        """Values of the channel at which a state is known, rising, coherent; without `at` 1, 2, ..."""
        if self.at is None:
            return np.arange(1.0, len(self.cases) + 1.0)
        places = np.array([coherent(one, self.dimension, "states, at") for one in self.at])
        if self._adds_zero(places):
            places = np.sort(np.append(places, 0.0))
        return places

    @cached_property
    def _state_of_place(self) -> FloatArray:
        """What each state counts at each place, (places, cases): nothing where the part is undeformed."""
        every = np.eye(len(self.cases))
        if self.at is None or self.places.size == len(self.cases):
            return every
        zero = int(np.flatnonzero(self.places == 0.0)[0])
        return np.insert(every, zero, 0.0, axis=0)

    @staticmethod
    def _adds_zero(places: FloatArray) -> bool:
        return bool(np.abs(places).min() > ZERO * np.abs(places).max())

    def goes_through(self, event: str) -> bool:
        """Whether an event is named to go through these states."""
        return event in self.events

    def values_of(self, channel: Channel, event: str) -> FloatArray:
        """The channel's values; InputError for another dimension, and a number of a step that no state has."""
        where = f"event {event}, channel {self.channel}"
        if channel.dimension != self.dimension:
            if self.at is None:
                raise InputError(
                    where, f"a {channel.dimension}", "a number of a state", "Or state where each was computed: at."
                )
            raise InputError(where, f"a {channel.dimension}", f"a {self.dimension}, as the states were computed at")
        values = channel.values
        outside = (
            np.flatnonzero(~((values >= 1.0) & (values <= len(self.cases)))) if self.at is None else np.zeros(0, int)
        )
        if outside.size:
            raise InputError(
                f"{where}, sample {outside[0]}",
                f"state {values[outside[0]]:g}",
                f"1 to {len(self.cases)}, of {listed([self.cases[0], '...', self.cases[-1]])}",
                "The first state is number 1.",
            )
        return values

    def weights(self, values: FloatArray) -> FloatArray:
        """What each state counts at values of the channel, shape (samples, cases); beyond the last the line goes on."""
        places, states = self.places, self._state_of_place
        if places.size == 1:
            return np.repeat(states, values.size, axis=0)
        before = np.clip(np.searchsorted(places, values, side="right") - 1, 0, places.size - 2)
        share = (values - places[before]) / (places[before + 1] - places[before])
        found = (1.0 - share)[:, None] * states[before] + share[:, None] * states[before + 1]
        return np.asarray(found)

    def way_in(self, first: float) -> FloatArray:
        """Values from where the part is least loaded on to just before the first value, through the states between."""
        if self.at is None:
            start = 1.0
        else:
            start = float(self.places[np.abs(self.places).argmin()])
        return self.through(np.array([start, first]))[0][:-1]

    def through(self, values: FloatArray) -> tuple[FloatArray, IntArray]:
        """Values with every place that is passed on the way from one to the next, and the number of the value, -1 between.

        A number of a step is no load: from one to another nothing is passed but along a way in.
        """
        places = self.places
        low, high = np.minimum(values[:-1], values[1:]), np.maximum(values[:-1], values[1:])
        first, last = np.searchsorted(places, low, side="right"), np.searchsorted(places, high, side="left")
        passes = np.flatnonzero(last > first)
        if not passes.size:
            return values, np.arange(values.size)
        parts: list[FloatArray] = []
        numbers: list[IntArray] = []
        done = 0
        for at in passes.tolist():
            between = places[first[at] : last[at]]
            parts += [values[done : at + 1], between if values[at] < values[at + 1] else between[::-1]]
            numbers += [np.arange(done, at + 1), np.full(between.size, -1)]
            done = at + 1
        parts.append(values[done:])
        numbers.append(np.arange(done, values.size))
        return np.concatenate(parts), np.concatenate(numbers)

    def beyond(self, values: FloatArray) -> float:
        """How far values leave what was computed, over the reach of the places, -; 0 within."""
        reach = max(float(np.ptp(self.places)), float(np.abs(self.places).max()))
        over = max(float(values.max()) - float(self.places[-1]), float(self.places[0]) - float(values.min()), 0.0)
        return over / reach

    @property
    def words(self) -> str:
        """The states, and what goes through them."""
        many = f"{len(self.cases)} state{'s' if len(self.cases) > 1 else ''}"
        if self.at is None:
            return f"{many} in turn by {self.channel}"
        unit = "" if self.dimension == "number" else f" {DIMENSIONS[self.dimension].coherent}"
        return f"{many} by {self.channel}, {self.places[0]:g} to {self.places[-1]:g}{unit}"
