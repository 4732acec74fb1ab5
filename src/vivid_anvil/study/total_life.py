"""Total life of a hot spot: until a crack is there, by damage, then its growth to the limit."""

from __future__ import annotations

import math
from collections.abc import Sequence
from dataclasses import dataclass

from vivid_anvil.damage import LifeResult
from vivid_anvil.events.calendar import Calendar, amount, share_used
from vivid_anvil.events.life_columns import life_columns
from vivid_anvil.ground.errors import InputError
from vivid_anvil.growth import GrowthResult
from vivid_anvil.units import UnitSystem, fixed, in_unit, number, opened
from vivid_anvil.writing.finding import Finding
from vivid_anvil.writing.result import Result, Words
from vivid_anvil.writing.table import Column, Table


@dataclass(frozen=True, eq=False, repr=False)
class TotalLife(Result):
    """Life by damage, `until_crack_repeats`, and life of the crack, `growth_repeats`, one after the other.

    Parameters
    ----------
    hot_spot : str
        The place that is assessed.
    calendar : Calendar
        How repeats become years.
    until_crack_repeats : float
        Repeats to the crack, by damage.
    growth_repeats : float
        Repeats from the crack to its limit.
    from_size : float
        Size at which growth begins, mm.
    findings : tuple of Finding
        What an expert would say about it.
    target_repeats : float, optional
        Repeats that it shall last; None without a target.

    Raises
    ------
    InputError
        For an argument of another kind, unit or range; the message says which.

    Examples
    --------
    >>> total_life(result.lives[0], result.growths[0])  # of the demo: run_study(read_study('larkfell.toml'))
    <TotalLife weld toe at the grip head: 334.4 + 99 months = 36.11 years>
    """

    hot_spot: str
    calendar: Calendar
    until_crack_repeats: float
    growth_repeats: float
    from_size: float
    findings: tuple[Finding, ...]
    target_repeats: float | None = None

    @property
    def used_at_target(self) -> float | None:
        """Share of the whole life that is used when the target is reached; None without target."""
        share: float | None = share_used(self.target_repeats, self.repeats)
        return share

    @property
    def repeats(self) -> float:
        """Both together; inf where one never ends."""
        return self.until_crack_repeats + self.growth_repeats

    @property
    def years(self) -> float | None:
        """Both together in years; None without repeats per year."""
        years: float | None = self.calendar.years(self.repeats)
        return years

    @property
    def growth_share(self) -> float | None:
        """Share of the growth in the whole; None where it never ends."""
        return None if math.isinf(self.repeats) or self.repeats == 0.0 else self.growth_repeats / self.repeats

    @property
    def title(self) -> str:
        """Which life."""
        return f"Whole life of {self.hot_spot}"

    @classmethod
    def overview(cls, results: Sequence[TotalLife]) -> Table:
        """A row a hot spot: life by damage, life of the crack, both, how much of it is used."""
        calendars = [result.calendar for result in results]
        columns = (
            Column("hot spot", [result.hot_spot for result in results]),
            Column("life until a crack is there", [result.until_crack_repeats for result in results], unit="repeats"),
            Column("life of the crack", [result.growth_repeats for result in results], unit="repeats"),
            *life_columns([result.repeats for result in results], calendars, name="whole life", endless="without end"),
            Column("used at target", [result.used_at_target for result in results]),
            Column("size at the start of growth", [result.from_size for result in results], of="length"),
        )
        return Table("", columns, "whole lives")

    def words(self, units: UnitSystem) -> Words:
        """Life by damage, growth, and both together."""

        def told(repeats: float) -> str:
            return "without end" if math.isinf(repeats) else self.calendar.in_all_units(repeats)

        share = "" if self.growth_share is None else f", {self.growth_share:.1%} of it growth"
        words = (
            ("Until a crack is there, by damage", told(self.until_crack_repeats)),
            ("Growth to the limiting size", told(self.growth_repeats)),
            ("One after the other", told(self.repeats) + share),
        )
        if self.used_at_target is None or self.target_repeats is None:
            return words
        used = "all at once" if math.isinf(self.used_at_target) else fixed(100.0 * self.used_at_target)
        target = amount(self.target_repeats, self.calendar.repeat)
        return (*words, ("Of it used at the target", f"{used} % ({target})"))

    def __repr__(self) -> str:
        parts = f"{number(self.until_crack_repeats)} + {number(self.growth_repeats)} {self.calendar.repeats}"
        return f"<TotalLife {self.hot_spot}: {parts} = {self.calendar.text(self.repeats)}>"


@opened()
def total_life(life: LifeResult, growth: GrowthResult) -> TotalLife:
    """Life by damage and then growth from the crack's initial size, at one hot spot under one duty cycle.

    Parameters
    ----------
    life : LifeResult
        The life by damage.
    growth : GrowthResult
        The growth of the crack.

    Returns
    -------
    TotalLife
        Both parts of the life.

    Raises
    ------
    InputError
        Where the two are of different hot spots or duty cycles.

    Examples
    --------
    >>> total_life(result.lives[0], result.growths[0])  # of the demo: run_study(read_study('larkfell.toml'))
    <TotalLife weld toe at the grip head: 334.4 + 99 months = 36.11 years>
    """
    spot, other = life.hot_spot.name, growth.crack.hot_spot.name
    if spot != other:
        raise InputError("total life", f"the life of {spot!r} with the crack at {other!r}", "both of one hot spot")
    duty, of_growth = life.duty_cycle, growth.duty_cycle
    if duty.calendar != of_growth.calendar:
        raise InputError("total life", f"repeats of a {duty.repeat} and of a {of_growth.repeat}", "one duty cycle")
    return TotalLife(
        spot,
        duty.calendar,
        life.life_repeats,
        growth.life_repeats,
        growth.crack.initial_size,
        _findings(life, growth),
        life.target_repeats,
    )


def _findings(life: LifeResult, growth: GrowthResult) -> tuple[Finding, ...]:
    curve = life.hot_spot.curve
    size = in_unit(growth.crack.initial_size, "length")
    if curve is not None and getattr(curve, "r_ratio", None) == "any":
        return (
            Finding(
                "warning",
                "growth-counted-twice",
                "The S-N curve is that of a welded detail: its life ends with a crack through the wall, so the growth is in it.",
                "Take the longer of both parts as the life, not their sum, or a curve to first crack.",
            ),
        )
    return (
        Finding(
            "note",
            "size-at-initiation",
            f"The sum holds if the S-N curve ends with a crack of {size}.",
            "Curves from small specimens end at 0.5 to 2 mm or at fracture: see how the tests were ended.",
        ),
    )
