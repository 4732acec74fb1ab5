"""The plan of looks at a flaw: how large it will be at each, and the largest that may be left there until the next."""

from __future__ import annotations

import dataclasses
import datetime
import math
from collections.abc import Callable, Sequence
from dataclasses import dataclass
from typing import Self

from vivid_anvil.acceptance.allowable_flaws import largest_flaw
from vivid_anvil.acceptance.flaw_legs import QUICK
from vivid_anvil.acceptance.flaw_list import date_after
from vivid_anvil.acceptance.grow_flaw import FlawGrowth, said_years
from vivid_anvil.acceptance.point import Point
from vivid_anvil.acceptance.stages import Stage, years_of
from vivid_anvil.ground.errors import InputError
from vivid_anvil.units import UnitSystem, number, opened
from vivid_anvil.writing.finding import Finding
from vivid_anvil.writing.result import Result, Words
from vivid_anvil.writing.table import Column, Table

MOST = 40  # looks
USUAL = 8  # where the flaw does not end before

Watch = Callable[[str, int, int], None]


@dataclass(frozen=True)
class Look:
    """A look at a flaw.

    Parameters
    ----------
    years : float
        Since the flaw was found.
    sizes : tuple of float
        Expected then, mm.
    largest : tuple of float
        That may be left then, mm, of the same aspect; empty where none may.
    point : Point
        Where the flaw lies in the diagram then.
    lasts, needed : float
        Years that are left then, and that what is left has to last.

    Raises
    ------
    InputError
        By what makes one.

    Examples
    --------
    >>> Look(1.0, (5.0, 12.0), (5.6, 13.4), None, lasts=4.0, needed=2.0).may_stay
    True
    """

    years: float
    sizes: tuple[float, ...]
    largest: tuple[float, ...]
    point: Point
    lasts: float
    needed: float

    @property
    def may_stay(self) -> bool:
        """Whether the flaw as expected lasts as long as it has to: it is no larger than may be left."""
        return self.lasts >= self.needed * (1.0 - 1e-9)


@dataclass(frozen=True, eq=False, repr=False)
class FlawLooks(Result):
    """Looks at a flaw, the first as it was found; `flaw_looks` makes one.

    Parameters
    ----------
    growth : FlawGrowth
        The flaw over the years.
    every : float
        Years from one look to the next.
    looks : tuple of Look
        In their order.
    inspected : date, optional
        When it was found.

    Raises
    ------
    InputError
        By what makes one.

    Examples
    --------
    >>> plate = SurfaceCrack(thickness="25 mm", plate_width="300 mm")
    >>> flaw = Flaw(name="A1", shape=plate, size="5 mm", half_length="12 mm")
    >>> metal = Metal(material=Material(name="S355", yield_strength=355.0, ultimate_strength=510.0, toughness=2400.0))
    >>> law = ParisLaw(name="air", rate="5.21e-13 mm/cycle at 1 MPa√mm", slope=3.0)
    >>> years = Stage("service", law, RangesPerYear([("60 MPa", 1e5)]))
    >>> grown = grow_flaw(assess_flaw(flaw, FractureLoads([PrimaryStresses(membrane="150 MPa")]), metal), [years])
    >>> flaw_looks(grown, "2 years")
    <FlawLooks A1: every 2 years, may stay until the look after 8 years>
    """

    growth: FlawGrowth
    every: float
    looks: tuple[Look, ...]
    inspected: datetime.date | None = None

    @property
    def repair_at(self) -> Look | None:
        """The first look at which it may not be left; None where it may at all."""
        return next((look for look in self.looks if not look.may_stay), None)

    @property
    def verdict(self) -> str:
        """In words."""
        at = self.repair_at
        if at is None:
            return "may stay at all of these looks"
        if at.years == 0.0:
            return "may not be left today"
        return f"may stay until the look after {said_years(at.years)}"

    @property
    def title(self) -> str:
        """Of which flaw."""
        return f"Looks at flaw {self.growth.assessment.flaw.name}"

    @property
    def findings(self) -> tuple[Finding, ...]:
        """What an expert would say of the interval."""
        flaw, needed = self.growth.assessment.flaw.name, self.growth.next_look
        if self.repair_at is None or self.repair_at.years > 0.0 or needed == 0.0:
            return ()
        return (
            Finding(
                "severe",
                "interval-too-long",
                f"Flaw {flaw} does not last {number(self.growth.inspection_factor)} intervals of {said_years(self.every)}.",
                f"Look every {said_years(needed)}, or repair it.",
            ),
        )

    @classmethod
    def overview(cls, results: Sequence[Self]) -> Table:
        """A row a flaw."""
        ends = [one.repair_at for one in results]
        columns = (
            Column("flaw", [one.growth.assessment.flaw.name for one in results]),
            Column("look every", [one.every for one in results], unit="years"),
            Column("remaining life", [one.growth.life for one in results], unit="years", endless="no end"),
            Column("repair at the look after", [None if at is None else at.years for at in ends], unit="years"),
            Column("verdict", [one.verdict for one in results]),
        )
        return Table("Looks at flaws", columns)

    def words(self, units: UnitSystem) -> Words:
        """The interval, the life, the verdict."""
        flaw, factor = self.growth.assessment.flaw, number(self.growth.inspection_factor)
        return (
            ("Flaw", f"{flaw.shape.kind}, {flaw.said_in(units)}"),
            ("Remaining life", f"{said_years(self.growth.life)}, {self.growth.governed_by}"),
            ("Interval", f"{said_years(self.every)}; what is left at a look has to last {factor} of them"),
            ("Verdict", self.verdict),
        )

    def tables(self, units: UnitSystem = "metric") -> tuple[Table, ...]:
        """A row a look."""
        looks, shape = self.looks, self.growth.assessment.flaw.shape
        dates = [date_after(self.inspected, look.years) for look in looks]
        columns = [
            Column("look after", [look.years for look in looks], unit="years", head="Look\nafter", style="number"),
            *((Column("on", dates, head="On the"),) if self.inspected is not None else ()),
        ]
        for j, name in enumerate(shape.sizes):
            head = name[:1].upper() + name[1:].replace(" ", "\n")
            columns.append(
                Column(f"expected {name}", [look.sizes[j] for look in looks], of="length", head=head, style="number")
            )
        for j, name in enumerate(shape.sizes):
            most = [look.largest[j] if look.largest else None for look in looks]
            head = "Largest\n" + name
            columns.append(Column(f"largest {name}", most, of="length", head=head, style="number", none="none"))
        points = [look.point for look in looks]
        columns += [
            Column("L_r", [point.load_ratio for point in points], only="file"),
            Column("K_r", [point.governing.fracture_ratio for point in points], only="file"),
            Column("verdict", ["may stay" if look.may_stay else "repair" for look in looks], left=True),
        ]
        return (Table("Expected size, and the largest that may be left", tuple(columns), key="looks"),)

    def __repr__(self) -> str:
        return f"<FlawLooks {self.growth.assessment.flaw.name}: every {said_years(self.every)}, {self.verdict}>"


@opened()
def flaw_looks(
    growth: FlawGrowth,
    every: float | str,
    *,
    most: int = USUAL,
    inspected: datetime.date | None = None,
    watch: Watch | None = None,
) -> FlawLooks:
    """The looks at a flaw at an interval, until its life ends: expected size, and the largest that may be left at each.

    What is left at a look, of the aspect that the flaw has by then, has to last the inspection factor times the interval under
    the stages that are still to come.

    Parameters
    ----------
    growth : FlawGrowth
        The flaw over the years.
    every : float or str
        Years from look to look, or text such as "6 months".
    most : int, default 8
        How many looks at the most, the one that found it included.
    inspected : date, optional
        When it was found; looks have dates then.
    watch : Callable[[str, int, int], None], optional
        Called with a label, how far it is, and of how many.

    Returns
    -------
    FlawLooks
        A row a look.

    Raises
    ------
    InputError
        For an interval that is no time, and fewer than one look.

    Examples
    --------
    >>> plate = SurfaceCrack(thickness="25 mm", plate_width="300 mm")
    >>> flaw = Flaw(name="A1", shape=plate, size="5 mm", half_length="12 mm")
    >>> metal = Metal(material=Material(name="S355", yield_strength=355.0, ultimate_strength=510.0, toughness=2400.0))
    >>> law = ParisLaw(name="air", rate="5.21e-13 mm/cycle at 1 MPa√mm", slope=3.0)
    >>> years = Stage("service", law, RangesPerYear([("60 MPa", 1e5)]))
    >>> grown = grow_flaw(assess_flaw(flaw, FractureLoads([PrimaryStresses(membrane="150 MPa")]), metal), [years])
    >>> [(look.years, round(look.sizes[0], 1), round(look.largest[0], 1)) for look in flaw_looks(grown, "3 years").looks]
    [(0.0, 5.0, 7.3), (3.0, 7.3, 8.6), (6.0, 10.8, 9.5), (9.0, 16.7, 10.0)]
    """
    interval = years_of(every, "flaw looks, every")
    if not 1 <= most <= MOST:
        raise InputError("flaw looks, most", f"{most}", f"1 to {MOST} looks")
    times = [i * interval for i in range(most) if i == 0 or i * interval <= _followed(growth)]
    looks = []
    for i, years in enumerate(times):
        if watch is not None:
            watch(f"look after {said_years(years)}", i, len(times))
        looks.append(_look(growth, years, growth.inspection_factor * interval))
    return FlawLooks(growth, interval, tuple(looks), inspected)


def _followed(growth: FlawGrowth) -> float:
    """Years over which its sizes are known in its shape."""
    return math.inf if growth.course[0].size == 1 and growth.life == math.inf else growth.own_years


def _look(growth: FlawGrowth, years: float, lasting: float) -> Look:
    still = growth.course[0].size == 1
    sizes = growth.assessment.flaw.sizes if still else growth.sizes_at(years)
    left = stages_after(growth.stages, years)
    ratio = sizes[0] / sizes[1] if len(sizes) == 2 else None
    size, _ = largest_flaw(growth.assessment, left, lasting, ratio, pace=QUICK) if left else (0.0, math.nan)
    largest = () if size == 0.0 else (size,) if ratio is None else (size, size / ratio)
    return Look(years, sizes, largest, growth.point_at(sizes), growth.life - years, lasting)


def stages_after(stages: tuple[Stage, ...], years: float) -> tuple[Stage, ...]:
    """Stages that are still to come after so many years."""
    left: list[Stage] = []
    for stage in stages:
        rest = stage.years - years
        years = max(0.0, -rest)
        if rest > 0.0:
            left.append(stage if math.isinf(rest) or rest == stage.years else dataclasses.replace(stage, duration=rest))
    return tuple(left)
