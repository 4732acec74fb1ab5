"""An inspection plan: when to look first, how often, what would be seen, and how many chances there are to see it."""

from __future__ import annotations

import math
from dataclasses import dataclass
from typing import Any

import numpy as np

from vivid_anvil.events.calendar import amount
from vivid_anvil.ground.checks import FloatArray, read_only
from vivid_anvil.ground.errors import InputError
from vivid_anvil.growth.result import GrowthResult
from vivid_anvil.units import in_unit, opened
from vivid_anvil.writing.finding import Finding
from vivid_anvil.writing.html import html_frame

MOST = 1000


@dataclass(frozen=True, eq=False, repr=False)
class InspectionPlan:
    """Inspections at `at_repeats`, with the size, mm, that the crack has there and whether it can be found.

    `allowed_repeats` is the interval that detectable and limiting size and the factor allow, `interval_repeats` that of the plan,
    `chances` the inspections at which the crack can be found before it is critical.
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

    def rows(self) -> list[dict[str, Any]]:
        """One row an inspection: number, repeats, years, expected size, whether it can be found."""
        result, calendar = self.result, self.result.duty_cycle.calendar
        return [
            {
                "inspection": i,
                "repeats": float(at),
                "years": calendar.years(float(at)),
                "expected_size_mm": float(size),
                **({} if result.half_lengths is None else {"expected_half_length_mm": result.half_length(float(size))}),
                "can_be_found": bool(seen),
            }
            for i, (at, size, seen) in enumerate(zip(self.at_repeats, self.sizes, self.found, strict=True), start=1)
        ]

    def to_frame(self) -> Any:
        """A row an inspection."""
        import pandas as pd

        return pd.DataFrame(self.rows())

    def _repr_html_(self) -> str:
        return html_frame(repr(self).strip("<>"), self.to_frame())

    def __repr__(self) -> str:
        every = self.result.duty_cycle.calendar.text(self.interval_repeats)
        return f"<InspectionPlan {self.result.crack.hot_spot.name}: every {every}, {amount(self.chances, 'chance')}>"


@opened()
def inspection_plan(
    result: GrowthResult, *, every: float | str | None = None, first: float | str | None = None
) -> InspectionPlan:
    """The plan for a growth result whose crack has a detectable size.

    Interval: repeats from detectable to limiting size over the inspection factor, or `every` ("1 year", or repeats). First:
    `first`, else the whole life over the same factor, but not after one interval beyond the detectable size. Raises InputError
    without detectable size, and where the crack does not grow or cannot be found in time.
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
    interval = allowed if every is None else duty.repeats_in(every, f"{where}, every")
    seen_from = float(
        np.interp(np.log(max(crack.detectable_size, result.sizes[0])), np.log(result.sizes), result.repeats)
    )
    latest = min(result.life_repeats / crack.inspection_factor, seen_from + interval)
    start = (interval if every is not None else latest) if first is None else duty.repeats_in(first, f"{where}, first")
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
