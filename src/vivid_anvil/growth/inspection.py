"""An inspection plan: when to look first, how often, what would be seen, and how many chances there are to see it."""

from __future__ import annotations

import math
from collections.abc import Sequence
from dataclasses import dataclass

import numpy as np

from vivid_anvil.events.calendar import amount
from vivid_anvil.ground.checks import FloatArray, read_only
from vivid_anvil.ground.errors import InputError, inside
from vivid_anvil.growth.result import GrowthResult
from vivid_anvil.units import UnitSystem, in_unit, opened
from vivid_anvil.writing.finding import Finding
from vivid_anvil.writing.result import Result, Words
from vivid_anvil.writing.table import Column, Table

MOST = 1000


@dataclass(frozen=True, eq=False, repr=False)
class InspectionPlan(Result):
    """Inspections at `at_repeats`, with the size, mm, that the crack has there and whether it can be found.

    `allowed_repeats` is the interval that detectable and limiting size and the factor allow, `interval_repeats` that of the plan,
    `chances` the inspections at which the crack can be found before it is critical.

    Parameters
    ----------
    result : GrowthResult
        The result that is asked.
    first_repeats : float
        Repeats at the first inspection.
    interval_repeats : float
        Repeats from one inspection to the next.
    allowed_repeats : float
        Longest interval, repeats.
    at_repeats : ndarray
        Repeats at each inspection.
    sizes : ndarray
        Expected size at each, mm.
    found : ndarray
        Which of them can find the crack.
    findings : tuple of Finding
        What an expert would say about it.

    Raises
    ------
    InputError
        For an argument of another kind, unit or range; the message says which.

    Examples
    --------
    >>> inspection_plan(result.growths[0]).chances  # of the demo: run_study(read_study('larkfell.toml'))
    3
    """

    result: GrowthResult
    first_repeats: float
    interval_repeats: float
    allowed_repeats: float
    at_repeats: FloatArray
    sizes: FloatArray
    found: FloatArray
    findings: tuple[Finding, ...]

    @property
    def chances(self) -> int:
        """Inspections that can find the crack before it is critical."""
        return int(self.found.sum())

    @property
    def title(self) -> str:
        """Where the crack is that is looked for."""
        return f"Inspections of the crack at {self.result.crack.hot_spot.name}"

    @classmethod
    def overview(cls, results: Sequence[InspectionPlan]) -> Table:
        """A row a plan: interval, first inspection, chances."""
        cracks = [result.result.crack for result in results]
        columns = (
            Column("hot spot", [crack.hot_spot.name for crack in cracks]),
            Column("detectable size", [crack.detectable_size for crack in cracks], of="length"),
            Column("limiting size", [result.result.critical.limiting for result in results], of="length"),
            Column("chances", [result.chances for result in results]),
            *_times("interval allowed", results, [result.allowed_repeats for result in results]),
            *_times("interval of the plan", results, [result.interval_repeats for result in results]),
            *_times("first inspection", results, [result.first_repeats for result in results]),
        )
        return Table("", columns, "plans")

    def words(self, units: UnitSystem) -> Words:
        """Sizes, the interval that is allowed and that of the plan, chances."""
        crack, calendar = self.result.crack, self.result.duty_cycle.calendar
        detectable = in_unit(crack.detectable_size or 0.0, "length", units)
        limiting = in_unit(self.result.critical.limiting, "length", units)
        words = (
            ("Detectable, limiting size", f"{detectable}, {limiting} ({self.result.governed_by})"),
            ("Interval allowed", f"{calendar.text(self.allowed_repeats)} (factor {crack.inspection_factor:g})"),
            (
                "Interval of the plan",
                f"{calendar.text(self.interval_repeats)}, first after {calendar.text(self.first_repeats)}",
            ),
            ("Chances to find it", amount(self.chances, "inspection")),
        )
        return words if self.at_repeats.size else (*words, ("", "No inspection before the limiting size."))

    def tables(self, units: UnitSystem = "metric") -> tuple[Table, ...]:
        """A row an inspection: when, the size that is expected, whether it can be found."""
        result, calendar = self.result, self.result.duty_cycle.calendar
        time = calendar.unit_for(result.life_repeats)
        at, sizes = self.at_repeats.tolist(), self.sizes.tolist()
        columns = [
            Column("inspection", list(range(1, len(at) + 1)), left=True),
            Column("repeats", at, only="file"),
            Column("time [years]", [calendar.years(one) for one in at], only="file"),
            Column(time, [calendar.life_in(time, one) for one in at], only="page"),
            Column("expected size", sizes, of="length"),
        ]
        if result.half_lengths is not None:
            half = [result.half_length(size) for size in sizes]
            columns.append(Column("expected half length", half, of="length", head="Half length"))
        columns.append(Column("can be found", [bool(seen) for seen in self.found]))
        return (Table("", tuple(columns), "inspections"),)

    def __repr__(self) -> str:
        every = self.result.duty_cycle.calendar.text(self.interval_repeats)
        return f"<InspectionPlan {self.result.crack.hot_spot.name}: every {every}, {amount(self.chances, 'chance')}>"


def _times(name: str, plans: Sequence[InspectionPlan], repeats: Sequence[float]) -> tuple[Column, Column]:
    """A time in repeats and in years."""
    calendars = [plan.result.duty_cycle.calendar for plan in plans]
    years = [calendar.years(one) for calendar, one in zip(calendars, repeats, strict=True)]
    return Column(name, repeats, unit="repeats"), Column(name, years, unit="years")


@opened()
def inspection_plan(
    result: GrowthResult, *, every: float | str | None = None, first: float | str | None = None
) -> InspectionPlan:
    """The plan for a growth result whose crack has a detectable size.

    Interval: repeats from detectable to limiting size over the inspection factor, or `every` ("1 year", or repeats). First:
    `first`, else the whole life over the same factor, but not after one interval beyond the detectable size.

    Parameters
    ----------
    result : GrowthResult
        The result that is asked.
    every : float or str, optional
        The interval: repeats, or text such as "1 year".
    first : float or str, optional
        The first inspection: repeats, or text.

    Returns
    -------
    InspectionPlan
        Times of inspections and the sizes expected then.

    Raises
    ------
    InputError
        Without detectable size, and where the crack does not grow or cannot be found in time.

    Examples
    --------
    >>> inspection_plan(result.growths[0])  # of the demo: run_study(read_study('larkfell.toml'))
    <InspectionPlan weld toe at the grip head: every 1.21 years, 3 chances>
    """
    crack, duty = result.crack, result.duty_cycle
    where = f"inspections at {crack.hot_spot.name}"
    allowed = result.interval_repeats
    if crack.detectable_size is None or allowed is None:
        raise InputError(
            where, "no detectable size", "the size that inspection finds for sure", "Give detectable_size."
        )
    if math.isinf(result.life_repeats) or math.isinf(allowed):
        raise InputError(where, "a crack that does not grow", "one that grows", "There is nothing to plan.")
    if allowed == 0.0:
        size, limit = in_unit(crack.detectable_size, "length"), in_unit(result.critical.limiting, "length")
        raise InputError(
            where, f"detectable {size}, critical {limit}", "a detectable size below it", "Use a finer method."
        )
    interval = allowed if every is None else duty.repeats_in(every, inside(where, "every"))
    seen_from = float(
        np.interp(np.log(max(crack.detectable_size, result.sizes[0])), np.log(result.sizes), result.repeats)
    )
    latest = min(result.life_repeats / crack.inspection_factor, seen_from + interval)
    start = (
        (interval if every is not None else latest) if first is None else duty.repeats_in(first, inside(where, "first"))
    )
    end = float(result.repeats[-1])
    at = start + interval * np.arange(min(MOST, max(0, math.ceil((end - start) / interval))))
    sizes = np.exp(np.interp(at, result.repeats, np.log(result.sizes)))
    found = sizes >= crack.detectable_size * (1.0 - 1e-9)
    return InspectionPlan(
        result,
        start,
        interval,
        allowed,
        read_only(at),
        read_only(sizes),
        read_only(found),
        _findings(result, interval, found),
    )


def _findings(result: GrowthResult, interval: float, found: FloatArray) -> tuple[Finding, ...]:
    chances, factor = int(found.sum()), result.crack.inspection_factor
    calendar = result.duty_cycle.calendar
    if chances == 0:
        return (
            Finding(
                "severe",
                "inspections-miss",
                "No inspection of this plan falls between the detectable and the limiting size.",
                f"Inspect at least every {calendar.text(result.interval_repeats or 0.0)}.",
            ),
        )
    if interval > (result.interval_repeats or 0.0) * (1.0 + 1e-9):
        return (
            Finding(
                "warning",
                "inspections-rare",
                f"The plan looks every {calendar.text(interval)}, {amount(chances, 'time')} between the detectable and the "
                f"limiting size; a factor of {factor:g} needs every {calendar.text(result.interval_repeats or 0.0)}.",
                "Look more often, or find smaller cracks.",
            ),
        )
    return ()
