"""The growth of a crack as a result: its numbers with words, tables and working."""

from __future__ import annotations

import math
from collections.abc import Mapping, Sequence
from dataclasses import dataclass
from typing import Any

from vivid_anvil.growth.growth_numbers import Growth
from vivid_anvil.growth.growth_page import growth_tables, growth_words, growths_table
from vivid_anvil.growth.working import growth_working
from vivid_anvil.units import UnitSystem, number
from vivid_anvil.writing.result import Result, Words
from vivid_anvil.writing.table import Table
from vivid_anvil.writing.working import Working


@dataclass(frozen=True, eq=False, repr=False)
class GrowthResult(Growth, Result):
    """The growth of one crack under a duty cycle: the numbers of `Growth`, and all that is said of them.

    Parameters
    ----------
    crack : Crack
        The crack.
    duty_cycle : DutyCycle
        The events of one repeat.
    drive : GrowthDrive
        The cycles of one repeat as the crack sees them.
    critical : CriticalSizes
        Where it has to stop.
    sizes : ndarray
        Sizes on the way, mm.
    repeats : ndarray
        Repeats at which they are reached.
    stopped_by : str
        Why it stopped.
    life_repeats : float
        Repeats to the limiting size; inf where it does not grow.
    halving_change : float
        What finer steps would change, as a share of the life, -.
    target_repeats : float, optional
        Repeats that it shall last; None without a target.
    interval_repeats : float, optional
        Repeats from one inspection to the next.
    findings : tuple of Finding, optional
        What an expert would say about it.
    half_lengths : ndarray, optional
        Half lengths, mm, of a crack with two sizes.
    then : Growth, optional
        What the crack becomes when it has broken through.
    ended_late_by : str, optional
        What ends the life of a crack that breaks through after the target.
    cycles : int, optional
        Cycles gone through, cycle by cycle.
    stopped_in : str, optional
        Where in the sequence it stopped, cycle by cycle.
    without_memory_repeats : float, optional
        The life without retardation, repeats.
    tests : GrowthTests, optional
        Tests of its law, where the study names them.

    Raises
    ------
    InputError
        For an argument of another kind, unit or range; the message says which.

    Examples
    --------
    >>> growth = result.growths[0]  # of the demo: run_study(read_study('larkfell.toml'))
    >>> round(growth.life_years, 2), growth.stopped_by
    (8.25, 'net-section yield')
    """

    @property
    def title(self) -> str:
        """Where the crack is."""
        return f"Crack at {self.crack.hot_spot.name}"

    @classmethod
    def overview(cls, results: Sequence[GrowthResult]) -> Table:
        """A row a crack: what it is, sizes at each limit, life, how much of it is used, when to look."""
        return growths_table(results)

    def words(self, units: UnitSystem) -> Words:
        """Shape, sizes, limits, life, target, why it stopped, memory, inspection, events, how exact it is."""
        return growth_words(self, units)

    def tables(self, units: UnitSystem = "metric") -> tuple[Table, ...]:
        """The course of the crack, and of what it becomes; which event drives it."""
        return growth_tables(self)

    def working(self, units: UnitSystem = "metric") -> Working:
        """One step of the growth, to redo by hand."""
        return growth_working(self, units)

    def others(self) -> Mapping[str, Any]:
        """The record of what the crack becomes, where it breaks through."""
        return {} if self.then is None else {"then": self.then.to_dict()}  # type: ignore[attr-defined]

    def __repr__(self) -> str:
        spot = self.crack.hot_spot.name
        if math.isinf(self.life_repeats):
            return f"<GrowthResult {spot}: no growth from {self.crack.initial_size:g} mm>"
        if self.life_repeats == 0.0:
            return f"<GrowthResult {spot}: critical from the start, {self.crack.initial_size:g} mm, {self.governed_by}>"
        return (
            f"<GrowthResult {spot}: {number(self.sizes[0])} to {number(self.critical.limiting)} mm in "
            f"{self.duty_cycle.calendar.in_all_units(self.life_repeats)}, {self.governed_by}>"
        )
