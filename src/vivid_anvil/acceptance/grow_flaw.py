"""How long a flaw may stay: growth in stages until it meets the assessment curve, its path in the diagram, when to look again."""

from __future__ import annotations

import dataclasses
import math
from collections.abc import Sequence
from dataclasses import dataclass
from functools import cached_property
from typing import Any, Self

import numpy as np

from vivid_anvil.acceptance.assess_flaw import FlawAssessment
from vivid_anvil.acceptance.flaw_legs import (
    ASPECTS_KEPT,
    AT_REST,
    CURVE,
    EVEN,
    IN_TIME,
    FlawLeg,
    leg_of,
    margins_of_flaw,
)
from vivid_anvil.acceptance.point import Point, point_of
from vivid_anvil.acceptance.stages import IN_A_YEAR, Stage
from vivid_anvil.events.calendar import amount
from vivid_anvil.ground.checks import FloatArray, one_of
from vivid_anvil.ground.errors import InputError
from vivid_anvil.growth.integrate_two import FINE, Pace
from vivid_anvil.units import UnitSystem, number, one, opened
from vivid_anvil.writing.finding import Finding
from vivid_anvil.writing.result import Result, Words
from vivid_anvil.writing.table import Column, Table

END_OF_STAGES = "end of the stages"
AT_MOST_ROWS = 60


@dataclass(frozen=True, eq=False, repr=False)
class FlawGrowth(Result):
    """A flaw over the years; `grow_flaw` makes one.

    Parameters
    ----------
    assessment : FlawAssessment
        As it is found.
    stages : tuple of Stage
        What makes it grow.
    legs : tuple of (Stage, FlawLeg)
        Sizes and years since the start of each stage.
    ended_by : str
        "assessment curve", an end of the solution, "no growth", or the end of the stages.
    then : FlawGrowth, optional
        What it becomes when it has broken through, with the years since then.
    inspection_factor : float
        How many looks fall into the remaining life.

    Raises
    ------
    InputError
        By what makes one.

    Examples
    --------
    >>> plate = SurfaceCrack(thickness="25 mm", plate_width="300 mm")
    >>> flaw = Flaw(name="A1", shape=plate, size="5 mm", half_length="12 mm")
    >>> loads = FractureLoads([PrimaryStresses(membrane="150 MPa")])
    >>> metal = Metal(material=Material(name="S355", yield_strength=355.0, ultimate_strength=510.0, toughness=2400.0))
    >>> law = ParisLaw(name="air", rate="5.21e-13 mm/cycle at 1 MPa√mm", slope=3.0)
    >>> years = Stage("service", law, RangesPerYear([("60 MPa", 1e5)]))
    >>> grow_flaw(assess_flaw(flaw, loads, metal), [years])
    <FlawGrowth A1: 10.77 years, assessment curve>
    """

    assessment: FlawAssessment
    stages: tuple[Stage, ...]
    legs: tuple[tuple[Stage, FlawLeg], ...]
    ended_by: str
    then: FlawGrowth | None = None
    inspection_factor: float = 2.0

    @cached_property
    def own_years(self) -> float:
        """Years in this shape."""
        return float(sum(leg.years[-1] for _, leg in self.legs))

    @property
    def life(self) -> float:
        """Years until it meets the assessment curve, or the solutions end; inf where it comes to rest or the stages end first."""
        if self.then is not None:
            return self.own_years + self.then.life
        return math.inf if self.ended_by in (AT_REST, END_OF_STAGES) else self.own_years

    @property
    def governed_by(self) -> str:
        """What ends the life."""
        return self.ended_by if self.then is None else self.then.governed_by

    @property
    def years_to_leak(self) -> float | None:
        """Years until it is through the wall; None where it is not before its end. An embedded flaw is at a surface first."""
        if self.then is None:
            return None
        if len(self.then.assessment.flaw.sizes) == 1:
            return self.own_years
        later = self.then.years_to_leak
        return None if later is None else self.own_years + later

    @property
    def next_look(self) -> float:
        """Years until the next inspection: the life over the inspection factor."""
        return self.life / self.inspection_factor

    @cached_property
    def course(self) -> tuple[FloatArray, FloatArray, tuple[str, ...]]:
        """Years, sizes (n, sizes), mm, and the stage of each."""
        years, sizes, names, before = [], [], [], 0.0
        for stage, leg in self.legs:
            years.append(before + leg.years)
            sizes.append(leg.sizes)
            names += [stage.name] * leg.years.size
            before += float(leg.years[-1])
        return np.concatenate(years), np.concatenate(sizes), tuple(names)

    def sizes_at(self, years: float) -> tuple[float, ...]:
        """Sizes, mm, after so many years, straight between steps; InputError beyond the life in this shape."""
        own, sizes, _ = self.course
        if not 0.0 <= years <= own[-1] * (1.0 + 1e-12):
            raise InputError(f"flaw {self.assessment.flaw.name}", f"{years:g} years", f"0 to {own[-1]:.4g} years")
        return tuple(float(np.interp(years, own, column)) for column in sizes.T)

    def point_at(self, sizes: tuple[float, ...]) -> Point:
        """Where it lies in the diagram at these sizes."""
        found = self.assessment
        terms = found.terms_at(tuple(found.partial_factors.size * one for one in sizes))
        return point_of(terms, found.curve, found.toughness, found.loads.way, found.flaw.shape.end_names)

    @cached_property
    def path(self) -> tuple[tuple[float, Point], ...]:
        """Years and points in the diagram, at some sixty places on the way."""
        years, sizes, _ = self.course
        rows = np.unique(np.linspace(0, years.size - 1, min(years.size, AT_MOST_ROWS)).astype(int))
        return tuple((float(years[i]), self.point_at(tuple(sizes[i]))) for i in rows)

    # ---- as a result ---------------------------------------------------------------------------------------------

    @property
    def title(self) -> str:
        """Of which flaw."""
        return f"Growth of flaw {self.assessment.flaw.name}"

    @property
    def findings(self) -> tuple[Finding, ...]:
        """What an expert would say of the time."""
        return tuple(_findings(self))

    @classmethod
    def overview(cls, results: Sequence[Self]) -> Table:
        """A row a flaw."""
        return Table(
            "Growth of flaws",
            (
                Column("flaw", [one.assessment.flaw.name for one in results]),
                Column("remaining life", [one.life for one in results], unit="years"),
                Column("ended by", [one.governed_by for one in results]),
                Column("breaks through after", [one.years_to_leak for one in results], unit="years"),
                Column("next look within", [one.next_look for one in results], unit="years"),
            ),
        )

    def words(self, units: UnitSystem) -> Words:
        """Life and next look."""
        after = "" if self.then is None else f"after {said_years(self.own_years)}"
        surface = self.then is not None and len(self.then.assessment.flaw.sizes) == 2
        through = (("At the surface" if surface else "Through the wall", after),) if after else ()
        return (
            ("Flaw", f"{self.assessment.flaw.shape.kind}, {self.assessment.flaw.said_in(units)}"),
            ("Stages", "; ".join(repr(one)[1:-1].removeprefix("Stage ") for one in self.stages)),
            *through,
            ("Remaining life", f"{said_years(self.life)}, {self.governed_by}"),
            ("Next look", f"within {said_years(self.next_look)}, the life over {number(self.inspection_factor)}"),
        )

    def tables(self, units: UnitSystem = "metric") -> tuple[Table, ...]:
        """A row a place on the way."""
        years, sizes, names = self.course
        rows = np.unique(np.linspace(0, years.size - 1, min(years.size, 12)).astype(int))
        points = [self.point_at(tuple(sizes[i])) for i in rows]
        shape = self.assessment.flaw.shape
        return (
            Table(
                "Sizes over the years",
                (
                    Column("time", years[rows], unit="years"),
                    Column("stage", [names[i] for i in rows]),
                    *(Column(name, sizes[rows, j], of="length") for j, name in enumerate(shape.sizes)),
                    Column("L_r", [point.load_ratio for point in points]),
                    Column("K_r", [point.governing.fracture_ratio for point in points]),
                    Column("largest K_r", [point.allowed for point in points]),
                ),
                key="course",
            ),
            *(() if self.then is None else self.then.tables(units)),
        )

    def __repr__(self) -> str:
        return f"<FlawGrowth {self.assessment.flaw.name}: {said_years(self.life)}, {self.governed_by}>"


def said_years(years: float) -> str:
    """Years, or days where they are few.

    >>> said_years(7.834), said_years(0.05), said_years(float("inf"))
    ('7.834 years', '18.26 days', 'without end')
    """
    if math.isinf(years):
        return "without end"
    return amount(years, "year") if years >= 0.25 or years == 0.0 else f"{number(years * IN_A_YEAR['day'])} days"


def _findings(found: FlawGrowth) -> Any:
    if found.ended_by not in (CURVE, AT_REST, END_OF_STAGES, IN_TIME) and found.then is None:
        yield Finding(
            "warning",
            "flaw-solution-ends",
            f"Flaw {found.assessment.flaw.name} is followed to the {found.ended_by}, where it is still acceptable.",
            "Its life is on the safe side: take a shape that reaches further, or see it as broken through.",
        )
    if found.then is not None and len(found.then.assessment.flaw.sizes) == 2:
        flaw, last = found.assessment.flaw, found.legs[-1][1].last
        longer = (
            ", and that is taken as long as it is deep, where it is shorter" if flaw.shape.widening(*last) > 0.0 else ""
        )
        yield Finding(
            "note",
            "flaw-reaches-surface",
            f"Flaw {flaw.name} reaches the surface after {said_years(found.own_years)}.",
            f"From then on it is followed as a surface flaw that takes in the ligament{longer}.",
        )
    if found.years_to_leak is not None:
        yield Finding(
            "warning",
            "flaw-leaks",
            f"Flaw {found.assessment.flaw.name} breaks through after {said_years(found.years_to_leak)}, before it is critical.",
            "What it holds leaks then: whether that is found in time, leak_before_break tells.",
        )
    for stage in found.stages:
        if stage.years < stage.shortest:
            yield Finding(
                "warning",
                "stage-short",
                f"Stage {stage.name} lasts {said_years(stage.years)}, one pass of its loads takes {said_years(stage.shortest)}.",
                "Its rare loads count by their share: say them as a stage of their own, or make it longer.",
            )


@opened(target=one(above=0.0, optional=True), inspection_factor=one(at_least=1.0))
def grow_flaw(
    found: FlawAssessment,
    stages: Sequence[Stage],
    *,
    aspect: str = "free",
    target: float | None = None,
    inspection_factor: float = 2.0,
) -> FlawGrowth:
    """A flaw grown through stages until it meets the assessment curve under the loads of the assessment.

    Ranges of the stages drive the growth, each end of a flaw with two sizes by its own range; the loads of the assessment say
    when it ends. A surface flaw that breaks through before goes on as a crack through the wall.

    Parameters
    ----------
    found : FlawAssessment
        The flaw as it is found.
    stages : sequence of Stage
        One after the other; the last may have no end.
    aspect : str, default "free"
        Whether depth and length grow each at its own rate, "free", or the aspect a/c is "kept" and the faster end counts.
    target : float, optional
        Years at which to stop.
    inspection_factor : float, default 2.0
        How many looks fall into the remaining life, -.

    Returns
    -------
    FlawGrowth
        Life, course, path in the diagram, next look.

    Raises
    ------
    InputError
        For no stages, one without end that is not the last, and loads that the shape does not know.

    Examples
    --------
    >>> plate = SurfaceCrack(thickness="25 mm", plate_width="300 mm")
    >>> flaw = Flaw(name="A1", shape=plate, size="5 mm", half_length="12 mm")
    >>> loads = FractureLoads([PrimaryStresses(membrane="150 MPa")])
    >>> metal = Metal(material=Material(name="S355", yield_strength=355.0, ultimate_strength=510.0, toughness=2400.0))
    >>> slow = ParisLaw(name="air", rate="5.21e-13 mm/cycle at 1 MPa√mm", slope=3.0)
    >>> fast = ParisLaw(name="seawater", rate="2.3e-12 mm/cycle at 1 MPa√mm", slope=3.0)
    >>> ranges = RangesPerYear([("60 MPa", 1e5)])
    >>> stages = [Stage("coated", slow, ranges, "5 years"), Stage("bare", fast, ranges)]
    >>> grown = grow_flaw(assess_flaw(flaw, loads, metal), stages)
    >>> round(grown.life, 3), round(grown.next_look, 3)
    (6.307, 3.154)
    """
    one_of("grow flaw, aspect", aspect, ASPECTS_KEPT)
    rows = (stages,) if isinstance(stages, Stage) else tuple(stages)
    if not rows or not all(isinstance(stage, Stage) for stage in rows):
        raise InputError("grow flaw, stages", f"{len(rows)} stages", "one Stage or more")
    endless = [stage.name for stage in rows[:-1] if math.isinf(stage.years)]
    if endless:
        raise InputError(f"stage {endless[0]}, duration", "none", "a duration for every stage but the last")
    return grown(found, until(rows, target), aspect, inspection_factor, FINE)


def until(stages: tuple[Stage, ...], target: float | None) -> tuple[Stage, ...]:
    """Stages up to so many years."""
    if target is None:
        return stages
    kept, left = [], target
    for stage in stages:
        kept.append(dataclasses.replace(stage, duration=min(stage.years, left)))
        left -= stage.years
        if left <= 0.0:
            break
    return tuple(kept)


def grown(
    found: FlawAssessment, stages: tuple[Stage, ...], aspect: str = "free", factor: float = 2.0, pace: Pace = EVEN
) -> FlawGrowth:
    """The same without checks, at a pace."""
    sizes, legs, ended = found.flaw.sizes, [], END_OF_STAGES
    used = next((name for name, margin in margins_of_flaw(found).items() if margin(*sizes) < 0.0), None)
    if used is not None:
        still = FlawLeg(np.array([sizes]), np.zeros(1), used)
        return FlawGrowth(found, stages, ((stages[0], still),), used, None, factor)
    then: FlawGrowth | None = None
    for i, stage in enumerate(stages):
        leg = leg_of(found, stage, sizes, aspect, pace)
        legs.append((stage, leg))
        sizes = leg.last
        if leg.ended_by != IN_TIME:
            ended = leg.ended_by
            then = _through(found, sizes, ended, stages[i:], float(leg.years[-1]), factor, pace)
            break
    return FlawGrowth(found, stages, tuple(legs), ended, then, factor)


def _through(
    found: FlawAssessment,
    sizes: tuple[float, ...],
    ended: str,
    stages: tuple[Stage, ...],
    gone: float,
    factor: float,
    pace: Pace,
) -> FlawGrowth | None:
    """The flaw through the wall, where it breaks through and a solution goes on."""
    onwards = found.flaw.shape.becomes(*sizes) if ended in ("wall",) else None
    if onwards is None:
        return None
    shape, after = onwards
    try:
        through = dataclasses.replace(found, flaw=found.flaw.through(shape, after))
        assert through.point.load_ratio >= 0.0
    except InputError:  # loads that a through crack does not know, such as a profile
        return None
    left = stages[0].years - gone
    rest = (dataclasses.replace(stages[0], duration=None if math.isinf(left) else left),) if left > 0.0 else ()
    following = (*rest, *stages[1:])
    return grown(through, following, "free", factor, pace) if following else None
