"""A list of indications assessed in one go: verdict, reserves, remaining life, next look, the most urgent first."""

from __future__ import annotations

import datetime
import math
from calendar import isleap
from collections.abc import Callable, Mapping, Sequence
from concurrent.futures import Executor
from dataclasses import dataclass
from functools import cached_property
from typing import Self

from vivid_anvil.acceptance.assess_flaw import FlawAssessment, assess_flaw
from vivid_anvil.acceptance.flaw_legs import QUICK
from vivid_anvil.acceptance.grow_flaw import FlawGrowth, grown, said_years
from vivid_anvil.acceptance.indication import Characterised, Indication, characterised
from vivid_anvil.acceptance.part import Part
from vivid_anvil.acceptance.partial_factors import PartialFactors
from vivid_anvil.acceptance.point import FractureLoads
from vivid_anvil.acceptance.stages import IN_A_YEAR, Stage, years_of
from vivid_anvil.ground.errors import InputError, did_you_mean, inside, listed
from vivid_anvil.materials.fracture import Metal
from vivid_anvil.units import UnitSystem, one, opened
from vivid_anvil.writing.finding import Finding, gravest_first
from vivid_anvil.writing.result import Result, Words
from vivid_anvil.writing.table import Column, Table

Watch = Callable[[str, int, int], None]
LONGEST = 1000.0  # years that have a date
TOGETHER = 50  # flaws that are worked on as one part
Job = tuple[Characterised, str, str, "PlaceOfFlaws", FractureLoads, float]


@dataclass(frozen=True, kw_only=True, eq=False)
class PlaceOfFlaws:
    """A part, its metal, and the stages in which its flaws grow.

    Parameters
    ----------
    part : Part
        The wall.
    metal : Metal
        Strengths and toughness there.
    stages : sequence of Stage
        What makes flaws grow; none where only today counts.
    partial_factors : PartialFactors
        What the values stated are taken with.

    Raises
    ------
    InputError
        By what it holds.

    Examples
    --------
    >>> steel = Material(name="S355", yield_strength=355.0, ultimate_strength=510.0, toughness=2400.0)
    >>> PlaceOfFlaws(part=Part(form="plate", wall="25 mm", width="300 mm"), metal=Metal(material=steel)).stages
    ()
    """

    part: Part
    metal: Metal
    stages: Sequence[Stage] = ()
    partial_factors: PartialFactors = PartialFactors()

    def __post_init__(self) -> None:
        object.__setattr__(self, "stages", tuple(self.stages))


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


@opened(inspection_factor=one(at_least=1.0))
def assess_indications(
    indications: Sequence[Indication],
    places: Mapping[str, PlaceOfFlaws],
    stresses: Mapping[str, FractureLoads],
    *,
    name: str = "indications",
    inspection_factor: float = 2.0,
    inspected: datetime.date | None = None,
    target_life: float | str | None = None,
    watch: Watch | None = None,
    executor: Executor | None = None,
) -> FlawList:
    """Every indication as a flaw against its curve, and over the years where its place has stages.

    Neighbours with the same place and stress are looked at together.

    Parameters
    ----------
    indications : sequence of Indication
        What was found.
    places : mapping of str to PlaceOfFlaws
        Parts by the names in the list; with one place indications need not name it.
    stresses : mapping of str to FractureLoads
        Stresses likewise.
    name : str, default "indications"
        What the list is of.
    inspection_factor : float, default 2.0
        How many looks fall into a remaining life, -.
    inspected : date, optional
        When they were found; the next look has a date then.
    target_life : float or str, optional
        Years, or text such as "10 years", that they shall stay acceptable.
    watch : Callable[[str, int, int], None], optional
        Called with a label, how far it is, and of how many.
    executor : Executor, optional
        Of `concurrent.futures`, with processes that work on parts of a long list.

    Returns
    -------
    FlawList
        The most urgent first.

    Raises
    ------
    InputError
        For places or stresses without name, and flaws that a shape does not know.

    Examples
    --------
    >>> steel = Material(name="S355", yield_strength=355.0, ultimate_strength=510.0, toughness=2400.0)
    >>> place = PlaceOfFlaws(part=Part(form="plate", wall="25 mm", width="300 mm"), metal=Metal(material=steel))
    >>> loads = FractureLoads([PrimaryStresses(membrane="150 MPa")])
    >>> rows = [Indication(name=f"A{a}", kind="surface", length=4.0 * a, height=a) for a in (2, 5, 16)]
    >>> found = assess_indications(rows, {"plate": place}, {"storm": loads})
    >>> found, [(flaw.name, flaw.verdict) for flaw in found.flaws][0]
    (<FlawList indications: 3 flaws, 0 not acceptable>, ('A16', 'acceptable'))
    """
    if inspected is not None and not isinstance(inspected, datetime.date):
        raise InputError("flaws, inspected", repr(inspected), "a date, such as datetime.date(2026, 10, 5)")
    target = None if target_life is None else years_of(target_life, "flaws, target_life")
    if not places or not stresses:
        raise InputError("flaws", "no places or no stresses", "one of each at least")
    made = flaws_made(indications, places, stresses)
    jobs = [(flaw, place, stress, places[place], stresses[stress], inspection_factor) for place, stress, flaw in made]
    parts = [jobs[i : i + TOGETHER] for i in range(0, len(jobs), TOGETHER)]
    found: list[ListedFlaw] = []
    for part in map(_part, parts) if executor is None else executor.map(_part, parts):
        found += part
        if watch is not None:
            watch("flaws", len(found), len(jobs))
    return FlawList(name, tuple(sorted(found, key=lambda flaw: flaw.urgency)), inspected, target)


def flaws_made(
    indications: Sequence[Indication], places: Mapping[str, PlaceOfFlaws], stresses: Mapping[str, FractureLoads]
) -> list[tuple[str, str, Characterised]]:
    """Names of place and stresses, and the flaw, of each; neighbours with the same of both are looked at together."""
    groups: dict[tuple[str, str], list[Indication]] = {}
    for row in indications:
        where = f"indication {row.name}"
        key = _named(row.place, places, inside(where, "place")), _named(row.stress, stresses, inside(where, "stress"))
        groups.setdefault(key, []).append(row)
    return [
        (place, stress, flaw)
        for (place, stress), rows in groups.items()
        for flaw in characterised(places[place].part, rows)
    ]


def _part(jobs: list[Job]) -> list[ListedFlaw]:
    """Some flaws of a list, one after the other."""
    return [_listed(*job) for job in jobs]


def _named(given: str, known: Mapping[str, object], where: str) -> str:
    """A name among those known; the only one where none is given."""
    if given in known:
        return given
    if not given and len(known) == 1:
        return next(iter(known))
    raise InputError(where, repr(given) if given else "none", f"one of {listed(known)}", did_you_mean(given, known))


def _listed(
    made: Characterised, place: str, stress: str, at: PlaceOfFlaws, loads: FractureLoads, factor: float
) -> ListedFlaw:
    assessment = assess_flaw(made.flaw, loads, at.metal, partial_factors=at.partial_factors)
    growth = grown(assessment, tuple(at.stages), "free", factor, QUICK) if at.stages else None
    found = ListedFlaw(made, place, stress, assessment, growth)
    _ = found.urgency, assessment.reserve_on_toughness  # worked out here, where it may be another process
    return found
