"""One stage of a flaw's growth: from its sizes to the assessment curve, to an end of the solution, or to the end of the stage."""

from __future__ import annotations

import math
from collections.abc import Callable
from dataclasses import dataclass
from typing import Any

import numpy as np

from vivid_anvil.acceptance.assess_flaw import FlawAssessment
from vivid_anvil.acceptance.limiting_sizes import limit_of
from vivid_anvil.acceptance.reserves import room
from vivid_anvil.acceptance.stages import Stage
from vivid_anvil.ground.checks import FloatArray
from vivid_anvil.growth.driving_cycles import growth_per_repeat
from vivid_anvil.growth.integrate import integrate_growth, size_after
from vivid_anvil.growth.integrate_two import Pace, followed, two_size_rates
from vivid_anvil.shapes.shape import Margin

IN_TIME, AT_REST, CURVE = "end of the stage", "no growth", "assessment curve"
ASPECTS_KEPT = ("free", "kept")
EVEN = Pace("DOP853", 0.25, 1e-7)  # right to some 1e-6
QUICK = Pace("RK45", 0.2, 1e-5)  # right to some 1e-4


@dataclass(frozen=True, eq=False)
class FlawLeg:
    """Sizes, mm, shape (n, sizes), at years since its start, (n,); and what ended it."""

    sizes: FloatArray
    years: FloatArray
    ended_by: str

    @property
    def last(self) -> tuple[float, ...]:
        """Where it ended."""
        return tuple(float(one) for one in self.sizes[-1])


def margins_of_flaw(found: FlawAssessment) -> dict[str, Margin]:
    """What is left under the curve, and to the ends of the solution."""
    factor = found.partial_factors.size

    def left(*sizes: float) -> float:
        terms = found.terms_at(tuple(factor * one for one in sizes))
        return room(terms, found.curve, found.toughness, found.loads.way)

    return {CURVE: left, **found.flaw.shape.rooms(weighed=bool(found.driver.crack[1]))}


def leg_of(found: FlawAssessment, stage: Stage, sizes: tuple[float, ...], aspect: str, pace: Pace = EVEN) -> FlawLeg:
    """Growth in a stage from these sizes."""
    if len(sizes) == 2 and aspect == "free":
        return _two(found, stage, sizes, pace)
    return _one(found, stage, sizes)


def _two(found: FlawAssessment, stage: Stage, sizes: tuple[float, ...], pace: Pace) -> FlawLeg:
    shape: Any = found.flaw.shape
    rates = two_size_rates(stage.drive, shape, stage.law)
    way = followed(rates, (sizes[0], sizes[1]), margins_of_flaw(found), stage.years, pace)
    ended = {"repeats": IN_TIME}.get(way.ended_by, way.ended_by)
    both = np.column_stack([way.depths, way.half_lengths])
    if ended == AT_REST:
        return _still(sizes, stage)
    return FlawLeg(both, way.repeats, ended)


def _still(sizes: tuple[float, ...], stage: Stage) -> FlawLeg:
    """Nothing grows: the stage goes by, or never ends."""
    if math.isinf(stage.years):
        return FlawLeg(np.array([sizes]), np.zeros(1), AT_REST)
    return FlawLeg(np.array([sizes, sizes]), np.array([0.0, stage.years]), IN_TIME)


def _one(found: FlawAssessment, stage: Stage, sizes: tuple[float, ...]) -> FlawLeg:
    """One size, or two whose aspect is kept: by quadrature to the limiting size."""
    shape, start = found.flaw.shape, sizes[0]
    growth = _growth(found, stage, sizes)
    limit = limit_of(found, sizes)
    ended = CURVE
    if math.isnan(limit):
        limit, ended = end_of_shape(found, sizes)
    if not start < limit:
        return FlawLeg(np.array([sizes]), np.zeros(1), ended)
    if not float(growth(start)) > 0.0:
        return _still(sizes, stage)
    table = integrate_growth(growth, start, limit, np.array(getattr(shape, "kinks", ())), 1e-9)
    way, years = table.sizes, table.repeats
    if years[-1] > stage.years:
        size, before, ended = size_after(table, growth, stage.years), years < stage.years, IN_TIME
        way, years = np.append(way[before], size), np.append(years[before], stage.years)
    columns = [way * one / start for one in sizes]
    return FlawLeg(np.column_stack(columns), years, ended)


def end_of_shape(found: FlawAssessment, sizes: tuple[float, ...]) -> tuple[float, str]:
    """The first size at which the solution ends, mm, and which end of it."""
    factor = found.largest_factor * found.sizes[0] / sizes[0] if len(sizes) == 1 else None
    if factor is None:
        from vivid_anvil.acceptance.assess_flaw import end_of_solution

        factor = end_of_solution(found.flaw, sizes)
    last = tuple(factor * one for one in sizes)
    margins = found.flaw.shape.rooms(weighed=False)
    name = min(margins, key=lambda one: margins[one](*last))
    return last[0], name


def _growth(found: FlawAssessment, stage: Stage, sizes: tuple[float, ...]) -> Callable[[Any], FloatArray]:
    shape: Any = found.flaw.shape
    if len(sizes) == 1:
        return growth_per_repeat(stage.drive, shape, stage.law)
    aspect = sizes[0] / sizes[1]
    rates = two_size_rates(stage.drive, shape, stage.law)

    def growth(size: Any) -> FloatArray:
        """Depth a year at a kept aspect: both ends as if each grew the depth, the faster one counts."""
        depths = np.atleast_1d(np.asarray(size, dtype=np.float64))
        values = np.array([max(rates(float(a), float(a) / aspect)) for a in depths.ravel()])
        return np.asarray(values.reshape(np.shape(size)))

    return growth
