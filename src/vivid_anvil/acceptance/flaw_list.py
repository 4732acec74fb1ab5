"""A list of flaws that were assessed, the most urgent first: verdict, reserves, remaining life, the date of the next look."""

from __future__ import annotations

import datetime
import math
from calendar import isleap
from collections.abc import Sequence
from dataclasses import dataclass
from functools import cached_property
from typing import Self

from vivid_anvil.acceptance.assess_flaw import FlawAssessment
from vivid_anvil.acceptance.grow_flaw import FlawGrowth, said_years
from vivid_anvil.acceptance.indication import Characterised
from vivid_anvil.acceptance.stages import IN_A_YEAR
from vivid_anvil.ground.errors import InputError, did_you_mean, listed
from vivid_anvil.units import UnitSystem
from vivid_anvil.writing.finding import Finding, gravest_first
from vivid_anvil.writing.result import Result, Words
from vivid_anvil.writing.table import Column, Table

LONGEST = 1000.0  # years that have a date


@dataclass(frozen=True, eq=False)
class ListedFlaw:
    """A flaw of a list: how it came about, where it is, its assessment, its growth where there are stages.

    Parameters
    ----------
    made : Characterised
        The flaw and its indications.
    place, stress : str
        Names of part and stresses.
    assessment : FlawAssessment
        Today.
    growth : FlawGrowth, optional
        Over the years.

    Raises
    ------
    InputError
        By what makes one.

    Examples
    --------
    >>> steel = Material(name="S355", yield_strength=355.0, ultimate_strength=510.0, toughness=2400.0)
    >>> part = Part(form="plate", wall="25 mm", width="300 mm")
    >>> (made,) = characterised(part, [Indication(name="A1", kind="surface", length="24 mm", height="5 mm")])
    >>> held = assess_flaw(made.flaw, FractureLoads([PrimaryStresses(membrane="150 MPa")]), Metal(material=steel))
    >>> ListedFlaw(made, "plate", "storm", held, None).verdict
    'acceptable'
    """

    made: Characterised
    place: str
    stress: str
    assessment: FlawAssessment
    growth: FlawGrowth | None

    @property
    def name(self) -> str:
        """What it is called."""
        return self.made.flaw.name

    @property
    def life(self) -> float | None:
        """Remaining life in years; None without stages."""
        return None if self.growth is None else self.growth.life

    @property
    def next_look(self) -> float | None:
        """Years until the next look; None without stages."""
        return None if self.growth is None else self.growth.next_look

    @property
    def urgency(self) -> tuple[bool, float, float]:
        """What flaws are sorted by: those that are not acceptable first, then by remaining life, then by reserve."""
        life = math.inf if self.growth is None else self.growth.life
        return self.assessment.acceptable, life, self.assessment.reserve_on_load.factor

    @property
    def verdict(self) -> str:
        """In few words."""
        if not self.assessment.acceptable:
            return "not acceptable"
        if self.next_look is not None and math.isfinite(self.next_look):
            return f"look within {said_years(self.next_look)}"
        return "acceptable"


@dataclass(frozen=True, eq=False, repr=False)
class FlawList(Result):
    """All flaws of a list, the most urgent first; `assess_indications` makes one.

    Parameters
    ----------
    name : str
        What the list is of.
    flaws : tuple of ListedFlaw
        In the order of their urgency.
    inspected : date, optional
        When they were found; the next look has a date then.
    target_life : float, optional
        Years that they shall stay acceptable.

    Raises
    ------
    InputError
        By what makes one.

    Examples
    --------
    >>> FlawList("tower base", ())
    <FlawList tower base: 0 flaws, 0 not acceptable>
    """

    name: str
    flaws: tuple[ListedFlaw, ...]
    inspected: datetime.date | None = None
    target_life: float | None = None

    @property
    def title(self) -> str:
        """Of what."""
        return self.name

    @property
    def rejected(self) -> tuple[ListedFlaw, ...]:
        """Those that are not acceptable."""
        return tuple(one for one in self.flaws if not one.assessment.acceptable)

    @property
    def growing(self) -> tuple[ListedFlaw, ...]:
        """Those whose place has stages."""
        return tuple(one for one in self.flaws if one.growth is not None)

    @property
    def next_look(self) -> float | None:
        """Years until the first of those that are acceptable asks for a look; None where none of them grows."""
        kept = [one.growth for one in self.growing if one.growth is not None and one.assessment.acceptable]
        return min((one.next_look for one in kept), default=None)

    def date_after(self, years: float | None) -> str | None:
        """The day so many years after the inspection, as year-month-day; None without one."""
        return date_after(self.inspected, years)

    def _look_by(self, flaw: ListedFlaw) -> str | None:
        """The day of the next look; None of one that is not acceptable, which is repaired first."""
        return self.date_after(flaw.next_look) if flaw.assessment.acceptable else None

    def in_a_word(self, flaw: ListedFlaw) -> str:
        """Whether it holds, today and as long as asked for."""
        if not flaw.assessment.acceptable:
            return "fails"
        short = self.target_life is not None and flaw.life is not None and flaw.life < self.target_life
        return "too short" if short else "holds"

    def _of_target(self) -> list[Finding]:
        """Flaws that do not stay acceptable as long as is asked for."""
        target = self.target_life
        short = (
            []
            if target is None
            else [flaw for flaw in self.growing if flaw.assessment.acceptable and (flaw.life or 0.0) < target]
        )
        if not short:
            return []
        names = ", ".join(flaw.name for flaw in short[:6]) + (f" and {len(short) - 6} more" if len(short) > 6 else "")
        first = f"{said_years(short[0].life or 0.0)} of {said_years(target or 0.0)} asked for"
        return [
            Finding(
                "severe",
                "flaw-target-missed",
                f"{names}: acceptable today, but not as long as asked; the most urgent lasts {first}.",
                "Repair, look again by then, or lower the ranges.",
            )
        ]

    @cached_property
    def findings(self) -> tuple[Finding, ...]:
        """Those of all flaws, each kind told once with the flaws that it is of."""
        told: dict[str, list[tuple[str, Finding]]] = {}
        for flaw in self.flaws:
            for finding in (*flaw.assessment.findings, *(flaw.growth.findings if flaw.growth is not None else ())):
                told.setdefault(finding.code, []).append((flaw.name, finding))
        return tuple(gravest_first([*(_of_several(rows) for rows in told.values()), *self._of_target()]))

    @classmethod
    def overview(cls, results: Sequence[Self]) -> Table:
        """A row a list."""
        return Table(
            "Lists of flaws",
            (
                Column("list", [one.name for one in results]),
                Column("flaws", [len(one.flaws) for one in results]),
                Column("not acceptable", [len(one.rejected) for one in results]),
                Column("inspected on", [one.date_after(0.0) for one in results]),
                Column("target life", [one.target_life for one in results], unit="years"),
                Column("next look within", [one.next_look for one in results], unit="years"),
                Column("next look by", [one.date_after(one.next_look) for one in results]),
            ),
        )

    def words(self, units: UnitSystem) -> Words:
        """How many, what was joined."""
        rules = [rule for flaw in self.flaws for rule in flaw.made.rules]
        many = f"{len(self.flaws)}, of which {len(self.rejected)} not acceptable"
        return (("Flaws", many), *self._looks(), *((("Characterised", "; ".join(rules)),) if rules else ()))

    def _looks(self) -> Words:
        """When they were found, and when the next look is due."""
        if self.next_look is None:
            return ()
        by = self.date_after(self.next_look)
        due = (
            f"at the latest in {said_years(self.next_look)}"
            if math.isfinite(self.next_look)
            else "none is due: nothing grows"
        )
        told = () if self.inspected is None else (("Inspected", self.inspected.isoformat()),)
        asked = () if self.target_life is None else (("Target life", said_years(self.target_life)),)
        return (*told, *asked, ("Next look", due + (f", on {by}" if by else "")))

    def tables(self, units: UnitSystem = "metric") -> tuple[Table, ...]:
        """A row a flaw."""
        rows = self.flaws
        points = [row.assessment.point for row in rows]
        growing = any(row.growth is not None for row in rows)
        dates = self.inspected is not None
        years = (
            Column("remaining life", [row.life for row in rows], unit="years", head="Life", endless="no end"),
            Column(
                "next look within",
                [row.next_look for row in rows],
                unit="years",
                only="file" if dates else "",
                head="Look in",
            ),
            *((Column("next look by", [self._look_by(row) for row in rows], head="Look by"),) if dates else ()),
        )
        columns = (
            Column("flaw", [row.name for row in rows]),
            *((Column("place", [row.place for row in rows], left=True),) if any(row.place for row in rows) else ()),
            Column("kind", [row.made.flaw.shape.kind for row in rows], only="file"),
            Column("size", [row.made.flaw.size for row in rows], of="length", style="number"),
            Column(
                "half length",
                [row.made.flaw.half_length for row in rows],
                of="length",
                head="Half\nlength",
                style="number",
            ),
            Column("L_r", [point.load_ratio for point in points], only="file"),
            Column("K_r", [point.governing.fracture_ratio for point in points], only="file"),
            Column("largest K_r", [point.allowed for point in points], only="file"),
            Column(
                "reserve on load",
                [row.assessment.reserve_on_load.factor for row in rows],
                head="Reserve\non load",
                digits=3,
            ),
            Column(
                "reserve on toughness",
                [row.assessment.reserve_on_toughness.factor for row in rows],
                head="on tough-\nness",
                digits=3,
            ),
            *(years if growing else ()),
            Column("verdict", [row.verdict for row in rows], only="file"),
            Column(
                "verdict",
                [self.in_a_word(row) for row in rows],
                only="page",
                left=True,
                alarm=[self.in_a_word(row) != "holds" for row in rows],
            ),
        )
        return (Table("Flaws, the most urgent first", columns, key="flaws"),)

    def flaw(self, name: str) -> ListedFlaw:
        """A flaw by its name, or by one of its indications; InputError with the nearest name."""
        for flaw in self.flaws:
            if name == flaw.name or name in flaw.made.of:
                return flaw
        names = [one.name for one in self.flaws]
        raise InputError(f"flaws, {self.name}", repr(name), f"one of {listed(names)}", did_you_mean(name, names))

    def __repr__(self) -> str:
        return f"<FlawList {self.name}: {len(self.flaws)} flaws, {len(self.rejected)} not acceptable>"


def date_after(day: datetime.date | None, years: float | None) -> str | None:
    """The day so many years later, not after it, as year-month-day; None without a day, or beyond a thousand years.

    >>> date_after(datetime.date(2026, 10, 5), 0.5)
    '2027-04-05'
    """
    if day is None or years is None or not years < LONGEST:
        return None
    whole = math.floor(years + 1e-9)
    last = 28 if (day.month, day.day) == (2, 29) and not isleap(day.year + whole) else day.day
    start = day.replace(year=day.year + whole, day=last)
    return (start + datetime.timedelta(days=math.floor((years - whole) * IN_A_YEAR["day"] + 1e-6))).isoformat()


def _of_several(rows: list[tuple[str, Finding]]) -> Finding:
    """A finding as it is of one flaw; of several with their names."""
    name, first = rows[0]
    if len(rows) == 1:
        own = name if name in first.sentence else f"{name}: "
        return first if own == name else Finding(first.severity, first.code, f"{own}{first.sentence}", first.advice)
    names = ", ".join(name for name, _ in rows[:6]) + (f" and {len(rows) - 6} more" if len(rows) > 6 else "")
    return Finding(
        first.severity, first.code, f"Of {len(rows)} flaws ({names}), the first: {first.sentence}", first.advice
    )
