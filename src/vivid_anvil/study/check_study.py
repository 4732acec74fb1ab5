"""What a study holds and would compute, with what an expert would say before anything is counted."""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass

from vivid_anvil.acceptance import Characterised
from vivid_anvil.acceptance.many_flaws import flaws_made
from vivid_anvil.damage import findings_before_counting
from vivid_anvil.materials import curves_table
from vivid_anvil.study.study import Study
from vivid_anvil.units import UnitSystem, in_unit, number, opened
from vivid_anvil.writing.finding import Finding
from vivid_anvil.writing.result import Result, Words
from vivid_anvil.writing.table import Column, Table


@dataclass(frozen=True, eq=False, repr=False)
class StudyCheck(Result):
    """A study before it is run, and what is to be said of each hot spot before counting."""

    study: Study
    found: dict[str, tuple[Finding, ...]]

    @property
    def title(self) -> str:
        """The title of the study."""
        return self.study.title

    @property
    def findings(self) -> tuple[Finding, ...]:
        """Those of all hot spots."""
        return tuple(finding for one in self.found.values() for finding in one)

    @classmethod
    def overview(cls, results: Sequence[StudyCheck]) -> Table:
        """A row a study: how much it would compute."""
        studies = [result.study for result in results]
        columns = (
            Column("title", [study.title for study in studies]),
            Column("number of lives", [len(study.assessed) for study in studies]),
            Column("number of cracks", [len(study.cracks) for study in studies]),
            Column("number of nodes", [0 if study.model is None else study.model.field.size for study in studies]),
            Column("number of flaws", [len(_characterised(study)) for study in studies]),
        )
        return Table("", columns, "studies")

    def words(self, units: UnitSystem) -> Words:
        """What a repeat is made of, and the target."""
        return self.study.words

    def tables(self, units: UnitSystem = "metric") -> tuple[Table, ...]:
        """What would be computed; events, hot spots, curves, cracks."""
        study = self.study
        own = (_answers(study), *_of_flaws(study))
        if study.duty_cycle is None:
            return own
        return (
            own[0],
            _events(study, units),
            _hot_spots(study),
            curves_table(study.curves, units),
            _cracks(study),
            *own[1:],
        )

    def __repr__(self) -> str:
        lives, cracks = len(self.study.assessed), len(self.study.cracks)
        flaws = "" if self.study.flaws is None else f"{len(_characterised(self.study))} flaws, "
        return f"<StudyCheck {self.study.title}: {lives} lives, {cracks} cracks, {flaws}{len(self.findings)} findings>"


@opened()
def check_study(study: Study) -> StudyCheck:
    """What `study` would compute, with findings that need no counting.

    Parameters
    ----------
    study : Study
        The study, or its file.

    Returns
    -------
    StudyCheck
        The events, places and findings.

    Raises
    ------
    InputError
        For an argument of another kind, unit or range; the message says which.

    Examples
    --------
    >>> check_study(study)  # of the demo: read_study("larkfell.toml")
    <StudyCheck Larkfell chairlift, hanger arm: 3 lives, 1 cracks, 1 findings>
    """
    found = {spot.name: findings_before_counting(spot, study.duty) for spot in study.assessed}
    return StudyCheck(study, found)


def _answers(study: Study) -> Table:
    rows = [("life", spot.name, spot.assessed_by.words) for spot in study.assessed]
    rows += [("crack", crack.hot_spot.name, f"{crack.shape.kind} crack, {crack.law.name}") for crack in study.cracks]
    rows += [("flaw", name, f"{flaw.flaw.shape.kind} in {place}") for name, place, _, flaw in _characterised(study)]
    if study.flaws is not None:
        rows += [("front", name, f"in {front.place}") for name, front in study.flaws.fronts.items()]
    if (job := study.model) is not None:
        rows.append(("model", f"{job.field.size} nodes", f"{job.field.source}, {job.planes or job.measure.label}"))
    columns = tuple(Column(head, [row[i] for row in rows]) for i, head in enumerate(("kind", "place", "with")))
    return Table("", columns, "would compute", only="file")


def _events(study: Study, units: UnitSystem) -> Table:
    """Events with occurrences, duration and limits of each channel."""
    duty, rows = study.duty, []
    for event, times in duty.flat():
        duration = "not stated" if event.lasts is None else number(event.lasts)
        for i, (name, dimension) in enumerate(event.load.dimensions.items()):
            low, high = (in_unit(one, dimension, units) for one in event.load.extremes(name))
            first = (event.name, number(times), duration) if i == 0 else ("", "", "")
            rows.append((*first, name, low, high))
    heads = ("event", f"times a {duty.repeat}", "duration [s]", "channel", "lowest", "highest")
    columns = tuple(Column(head, [row[i] for row in rows], left=i in (0, 3)) for i, head in enumerate(heads))
    return Table("", columns, "events")


def _hot_spots(study: Study) -> Table:
    """What is set for each hot spot."""
    spots = study.hot_spots
    columns = (
        Column("hot spot", [spot.name for spot in spots]),
        Column("loads", [spot.fed.words for spot in spots], left=True),
        Column("notch factor", [spot.notch_factor for spot in spots], head="Kf", style="number"),
        Column(
            "method", [None if spot.method is None else spot.method.words for spot in spots], none="none", left=True
        ),
    )
    return Table("", columns, "hot spots")


def _cracks(study: Study) -> Table:
    """What is set for each crack."""
    cracks = study.cracks
    columns = (
        Column("hot spot", [crack.hot_spot.name for crack in cracks], head="Crack at"),
        Column("shape", [crack.shape.kind for crack in cracks]),
        Column("initial size", [crack.initial_size for crack in cracks], of="length", style="number"),
        Column("growth law", [crack.law.name for crack in cracks]),
        Column(
            "detectable size",
            [crack.detectable_size for crack in cracks],
            of="length",
            head="Detectable",
            style="number",
        ),
    )
    return Table("", columns, "cracks")


def _characterised(study: Study) -> list[tuple[str, str, str, Characterised]]:
    """Flaws of the indications, with the names of their place and stresses."""
    job = study.flaws
    if job is None:
        return []
    return [
        (one.flaw.name, place, stress, one)
        for place, stress, one in flaws_made(job.indications, job.places, job.stresses)
    ]


def _of_flaws(study: Study) -> tuple[Table, ...]:
    """What is set for each place, for its stages, and the flaws that the indications are taken as."""
    job = study.flaws
    if job is None:
        return ()
    places = job.places
    stages = [(name, stage) for name, place in places.items() for stage in place.stages]
    rows = _characterised(study)
    return (
        Table(
            "Places with flaws",
            (
                Column("place", list(places)),
                Column("form", [place.part.form for place in places.values()]),
                Column("wall", [place.part.wall for place in places.values()], of="length", style="number"),
                Column("material", [place.metal.material.name for place in places.values()]),
                Column(
                    "toughness",
                    [place.metal.tough(place.part.wall).k for place in places.values()],
                    of="stress intensity",
                    style="number",
                ),
                Column("curve", [place.metal.assessment_curve.words for place in places.values()], left=True),
            ),
            key="places",
        ),
        Table(
            "Stages",
            (
                Column("place", [name for name, _ in stages]),
                Column("stage", [stage.name for _, stage in stages], left=True),
                Column("law", [stage.law.name for _, stage in stages], left=True),
                Column("cycles a year", [float(stage.drive.per_repeat.sum()) for _, stage in stages], style="number"),
                Column(
                    "duration", [stage.years for _, stage in stages], unit="years", style="number", endless="no end"
                ),
            ),
            key="stages",
        ),
        Table(
            "Flaws",
            (
                Column("flaw", [name for name, _, _, _ in rows]),
                Column("place", [place for _, place, _, _ in rows], left=True),
                Column("stresses", [stress for _, _, stress, _ in rows], left=True),
                Column("kind", [one.flaw.shape.kind for _, _, _, one in rows], only="file"),
                Column("size", [one.flaw.size for _, _, _, one in rows], of="length", style="number"),
                Column("half length", [one.flaw.half_length for _, _, _, one in rows], of="length", style="number"),
                Column("taken as", ["; ".join(one.rules) for _, _, _, one in rows], only="file"),
            ),
            key="flaws",
        ),
    )
