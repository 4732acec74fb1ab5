"""A list of indications assessed in one go: verdict, reserves, remaining life, next look, the most urgent first."""

from __future__ import annotations

import datetime
from collections.abc import Callable, Mapping, Sequence
from concurrent.futures import Executor
from dataclasses import dataclass

from vivid_anvil.acceptance.assess_flaw import assess_flaw
from vivid_anvil.acceptance.flaw_legs import QUICK
from vivid_anvil.acceptance.flaw_list import FlawList, ListedFlaw
from vivid_anvil.acceptance.grow_flaw import grown
from vivid_anvil.acceptance.indication import Characterised, Indication, characterised
from vivid_anvil.acceptance.part import Part
from vivid_anvil.acceptance.partial_factors import PartialFactors
from vivid_anvil.acceptance.point import FractureLoads
from vivid_anvil.acceptance.stages import Stage, years_of
from vivid_anvil.ground.errors import InputError, did_you_mean, inside, listed
from vivid_anvil.materials.fracture import Metal
from vivid_anvil.units import one, opened, sound

Watch = Callable[[str, int, int], None]
TOGETHER = 50  # flaws that are worked on as one part
Job = tuple[Characterised, str, str, "PlaceOfFlaws", FractureLoads, float]


@sound
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
