"""Life of a hot spot as a result: its numbers with findings, words, tables and working."""

from __future__ import annotations

import math
from collections.abc import Mapping, Sequence
from dataclasses import dataclass
from functools import cached_property
from typing import Any

import numpy as np

from vivid_anvil.damage.in_order import LifeInOrder, life_in_order
from vivid_anvil.damage.life_findings import life_findings
from vivid_anvil.damage.life_numbers import Life
from vivid_anvil.damage.life_page import life_tables, life_words, lives_table
from vivid_anvil.damage.life_working import life_working
from vivid_anvil.damage.over_time import DamageOverTime, WorstCycle, damage_over_time, worst_cycles
from vivid_anvil.events.calendar import amount
from vivid_anvil.units import DIMENSIONS, UnitSystem
from vivid_anvil.writing.finding import Finding
from vivid_anvil.writing.result import Result, Words
from vivid_anvil.writing.table import Table
from vivid_anvil.writing.working import Working


@dataclass(frozen=True, eq=False, repr=False)
class LifeResult(Life, Result):
    """Life of one hot spot under a duty cycle: the numbers of `Life`, and all that is said of them.

    The findings, which take long, are worked out when they are first asked for.

    Parameters
    ----------
    hot_spot : HotSpot
        The place that is assessed.
    duty_cycle : DutyCycle
        The events of one repeat.
    spectrum : Spectrum
        The local cycles of one repeat.
    equivalent_stress : ndarray
        Each cycle in the terms of its curve, MPa.
    damage : ndarray
        Damage of each cycle in one repeat, -.
    target_repeats : float
        Repeats that it shall last; None without a target.

    Raises
    ------
    InputError
        For an argument of another kind, unit or range; the message says which.

    Examples
    --------
    >>> life = result.lives[0]  # of the demo: run_study(read_study('larkfell.toml'))
    >>> round(life.life_years, 2), len(life.findings)
    (27.86, 3)
    """

    @property
    def title(self) -> str:
        """The name of the hot spot."""
        return self.hot_spot.name

    @cached_property
    def findings(self) -> tuple[Finding, ...]:
        """What an expert would say, the gravest first."""
        return life_findings(self)

    @cached_property
    def in_order(self) -> LifeInOrder | None:
        """The life by the rule of the hot spot that knows the order of the loads; None where it names none."""
        method = self.method
        return None if method.order_rule == "none" else life_in_order(self, method.order_rule, method.order_exponents)

    def worst_cycles(self, most: int = 10) -> tuple[WorstCycle, ...]:
        """The cycles that do most damage, with their times."""
        return worst_cycles(self, most)

    def damage_over_time(self, event: str) -> DamageOverTime:
        """The damage built up over the history of an event."""
        return damage_over_time(self, event)

    @property
    def worst_history(self) -> str | None:
        """The event with a history in time that does most damage; None where none does any."""
        sources = self.spectrum.sources
        timed = {one.name for one in sources if one.history is not None and one.history.steps == "even"}
        doing = [event for event in self.events if event.name in timed and event.damage > 0.0]
        return max(doing, key=lambda one: one.damage).name if doing else None

    @classmethod
    def overview(cls, results: Sequence[LifeResult]) -> Table:
        """A row a life: what was assessed, damage, life, how much of it is used, reserves."""
        return lives_table(results, [result.in_order for result in results])

    def words(self, units: UnitSystem) -> Words:
        """Life in all units of time, target, static reserve, order, repairs, what happens between events."""
        return life_words(self, self.in_order, units)

    def tables(self, units: UnitSystem = "metric") -> tuple[Table, ...]:
        """Events, stress classes, the worst cycles; in files the levels of an order too."""
        return life_tables(self, self.in_order, units)

    def working(self, units: UnitSystem = "metric") -> Working:
        """The cycle class that does most damage, and the sum, as steps to redo by hand."""
        return life_working(self, units)

    def others(self) -> Mapping[str, Any]:
        """What the method tells, and what was repaired in the histories."""
        repaired = {
            source.name: source.history.repairs
            for source in self.spectrum.sources
            if source.history is not None and source.history.repairs
        }
        return {**self.method.others(self.hot_spot), "repairs": repaired}

    def to_frame(self) -> Any:
        """The counted cycles as a pandas data frame, units in the headings: event, range, mean, how often, damage."""
        import pandas as pd

        spectrum, unit = self.spectrum, DIMENSIONS[self.dimension].coherent
        term = "equivalent stress" if self.dimension == "stress" else f"equivalent {self.dimension}"
        names = np.array([source.name for source in spectrum.sources])
        return pd.DataFrame(
            {
                "event": names[spectrum.event] if len(spectrum.cycles) else names[:0],
                f"range [{unit}]": spectrum.cycles.range,
                f"mean [{unit}]": spectrum.cycles.mean,
                "cycles per repeat": spectrum.per_repeat,
                f"{term} [{unit}]": self.equivalent_stress,
                "damage per repeat": self.damage,
            }
        )

    def __repr__(self) -> str:
        life = "no damage"
        if math.isfinite(self.life_repeats):
            life = f"life {self.duty_cycle.calendar.in_all_units(self.life_repeats)}"
        findings = amount(len(self.findings), "finding")
        return f"<LifeResult {self.hot_spot.name}: {life}, {self.verdict}, {findings}>"
