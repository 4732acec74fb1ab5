"""A list of indications assessed in one go: verdict, reserves, remaining life, next look, the most urgent first."""

from __future__ import annotations

import math
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
from vivid_anvil.acceptance.stages import Stage
from vivid_anvil.ground.errors import InputError, did_you_mean, inside, listed
from vivid_anvil.materials.fracture import Metal
from vivid_anvil.units import UnitSystem, one, opened
from vivid_anvil.writing.finding import Finding, gravest_first
from vivid_anvil.writing.result import Result, Words
from vivid_anvil.writing.table import Column, Table

Watch = Callable[[str, int, int], None]
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

    @property
    def title(self) -> str:
        """Of what."""
        return self.name

    @property
    def rejected(self) -> tuple[ListedFlaw, ...]:
        """Those that are not acceptable."""
        return tuple(one for one in self.flaws if not one.assessment.acceptable)

    @cached_property
    def findings(self) -> tuple[Finding, ...]:
        """Those of all flaws, each kind told once with the flaws that it is of."""
        told: dict[str, list[tuple[str, Finding]]] = {}
        for flaw in self.flaws:
            for finding in (*flaw.assessment.findings, *(flaw.growth.findings if flaw.growth is not None else ())):
                told.setdefault(finding.code, []).append((flaw.name, finding))
        return tuple(gravest_first([_of_several(rows) for rows in told.values()]))

    @classmethod
    def overview(cls, results: Sequence[Self]) -> Table:
        """A row a list."""
        return Table(
            "Lists of flaws",
            (
                Column("list", [one.name for one in results]),
                Column("flaws", [len(one.flaws) for one in results]),
                Column("not acceptable", [len(one.rejected) for one in results]),
            ),
        )

    def words(self, units: UnitSystem) -> Words:
        """How many, what was joined."""
        rules = [rule for flaw in self.flaws for rule in flaw.made.rules]
        many = f"{len(self.flaws)}, of which {len(self.rejected)} not acceptable"
        return (("Flaws", many), *((("Characterised", "; ".join(rules)),) if rules else ()))

    def tables(self, units: UnitSystem = "metric") -> tuple[Table, ...]:
        """A row a flaw."""
        rows = self.flaws
        points = [row.assessment.point for row in rows]
        growing = any(row.growth is not None for row in rows)
        years = (
            Column("remaining life", [row.life for row in rows], unit="years"),
            Column("next look within", [row.next_look for row in rows], unit="years"),
        )
        columns = (
            Column("flaw", [row.name for row in rows]),
            *((Column("place", [row.place for row in rows]),) if any(row.place for row in rows) else ()),
            Column("kind", [row.made.flaw.shape.kind for row in rows]),
            Column("size", [row.made.flaw.size for row in rows], of="length"),
            Column("half length", [row.made.flaw.half_length for row in rows], of="length"),
            Column("L_r", [point.load_ratio for point in points]),
            Column("K_r", [point.governing.fracture_ratio for point in points]),
            Column("largest K_r", [point.allowed for point in points]),
            Column("reserve on load", [row.assessment.reserve_on_load.factor for row in rows]),
            Column("reserve on toughness", [row.assessment.reserve_on_toughness.factor for row in rows]),
            *(years if growing else ()),
            Column("verdict", [row.verdict for row in rows]),
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
    if not places or not stresses:
        raise InputError("flaws", "no places or no stresses", "one of each at least")
    groups: dict[tuple[str, str], list[Indication]] = {}
    for row in indications:
        where = f"indication {row.name}"
        key = _named(row.place, places, inside(where, "place")), _named(row.stress, stresses, inside(where, "stress"))
        groups.setdefault(key, []).append(row)
    made = [
        (place, stress, flaw)
        for (place, stress), rows in groups.items()
        for flaw in characterised(places[place].part, rows)
    ]
    jobs = [(flaw, place, stress, places[place], stresses[stress], inspection_factor) for place, stress, flaw in made]
    parts = [jobs[i : i + TOGETHER] for i in range(0, len(jobs), TOGETHER)]
    found: list[ListedFlaw] = []
    for part in map(_part, parts) if executor is None else executor.map(_part, parts):
        found += part
        if watch is not None:
            watch("flaws", len(found), len(jobs))
    return FlawList(name, tuple(sorted(found, key=lambda flaw: flaw.urgency)))


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
