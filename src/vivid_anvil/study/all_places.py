"""All hot spots, cracks, flaws and the worst node beside each other: what is used, what governs, what would move it most."""

from __future__ import annotations

import dataclasses
import math
from collections.abc import Callable, Iterator, Sequence
from dataclasses import dataclass

from vivid_anvil.acceptance import ListedFlaw
from vivid_anvil.acceptance.grow_flaw import said_years
from vivid_anvil.damage import LifeResult
from vivid_anvil.events.calendar import Calendar
from vivid_anvil.growth import GrowthResult
from vivid_anvil.study.levers import CHANGE, TARGET, Lever, SurvivalLives, levers_of_growth, levers_of_life, survival_of
from vivid_anvil.study.study import WORST_NODE
from vivid_anvil.study.study_result import StudyResult
from vivid_anvil.units import UnitSystem, number, one, opened
from vivid_anvil.writing.finding import Finding
from vivid_anvil.writing.result import Result, Words
from vivid_anvil.writing.table import Column, Table

Watch = Callable[[str, int, int], None]
MOST = 20  # places whose levers are worked out, the worst first


@dataclass(frozen=True, slots=True)
class Place:
    """A place: its kind, the share that is used of what it may (1 is all), what that is a share of, life and verdict in words.

    `used` is inf where it fails at once, None where there is nothing to hold it against.
    """

    name: str
    kind: str
    used: float | None
    share_of: str
    life: str
    verdict: str
    governed_by: str

    @property
    def bad(self) -> bool:
        """Whether more is used than it may."""
        return self.used is not None and self.used > 1.0


@dataclass(frozen=True, eq=False, repr=False)
class AllPlaces(Result):
    """All places of a study, the most used first; what moves the worst of their lives, and how lives go with survival.

    Parameters
    ----------
    result : StudyResult
        What the study answers.
    places : tuple of Place
        Hot spots, cracks, the worst node, flaws and fronts.
    levers : tuple of Lever
        What a tenth of each value makes of a life.
    survivals : tuple of SurvivalLives
        Lives by survival probability, where curves tell their scatter.

    Raises
    ------
    InputError
        For an argument of another kind, unit or range; the message says which.

    Examples
    --------
    >>> all_places(result)  # result of the demo
    <AllPlaces Larkfell chairlift, hanger arm: 4 places, 2 use too much>
    """

    result: StudyResult
    places: tuple[Place, ...]
    levers: tuple[Lever, ...]
    survivals: tuple[SurvivalLives, ...]

    @property
    def title(self) -> str:
        """The title of the study."""
        return f"{self.result.title}: all places"

    @property
    def findings(self) -> tuple[Finding, ...]:
        """None of its own: those of the lives, cracks and flaws stand with them."""
        return ()

    @property
    def calendar(self) -> Calendar | None:
        """That of the duty cycle; None where a study has none."""
        duty = self.result.study.duty_cycle
        return None if duty is None else duty.calendar

    @property
    def unit_of_life(self) -> str:
        """The unit that lives are shown in, that of the shortest."""
        if self.calendar is None:
            return "years"
        lives = [one.life for one in self.levers if 0.0 < one.life < math.inf]
        return self.calendar.unit_for(min(lives, default=1.0))

    def levers_of(self, name: str, kind: str) -> tuple[Lever, ...]:
        """Those of one place, the one that moves it most first."""
        own = [one for one in self.levers if (one.place, one.kind) == (name, kind)]
        return tuple(sorted(own, key=lambda one: (one.lever == TARGET, -one.swing)))

    @property
    def moved(self) -> tuple[tuple[str, str], ...]:
        """Name and kind of the places whose levers are worked out, the most used first."""
        return tuple(dict.fromkeys((one.place, one.kind) for one in self.levers))

    @classmethod
    def overview(cls, results: Sequence[AllPlaces]) -> Table:
        """A row a study: how many places, how many of them use more than they may."""
        columns = (
            Column("study", [one.result.title for one in results], left=True),
            Column("places", [len(one.places) for one in results]),
            Column("that use more than they may", [sum(place.bad for place in one.places) for one in results]),
        )
        return Table("", columns, "studies")

    def words(self, units: UnitSystem) -> Words:
        """How many use more than they may; what moves the worst most."""
        bad = sum(place.bad for place in self.places)
        told = [
            (
                "",
                f"{bad} of {len(self.places)} places use more than they may."
                if bad
                else "No place uses more than it may.",
            )
        ]
        if self.moved:
            name, kind = self.moved[0]
            first = self.levers_of(name, kind)[0]
            if first.lever != TARGET and math.isfinite(first.swing):
                factor = number(first.swing, 3)
                moved = f"The {kind} of {name} moves most with its {first.lever}"
                told.append(
                    ("", f"{moved}: from {CHANGE:.0%} less to {CHANGE:.0%} more is a factor {factor} on the life.")
                )
        return tuple(told)

    def tables(self, units: UnitSystem = "metric") -> tuple[Table, ...]:
        """The places, what moves them, lives by survival probability."""
        return _places_table(self.places), self._levers_table(), self._survival_table()

    def _levers_table(self) -> Table:
        say = self._said
        rows = [one for name, kind in self.moved for one in self.levers_of(name, kind)]
        columns = (
            Column("place", [one.place for one in rows], left=True),
            Column("kind", [one.kind for one in rows], left=True),
            Column("what", [one.lever for one in rows], head=f"What ±{CHANGE:.0%}", left=True),
            Column("life with less", [one.life_low for one in rows], unit="repeats", only="file"),
            Column("life with more", [one.life_high for one in rows], unit="repeats", only="file"),
            Column("less", [say(one.life_low) for one in rows], head="Life, less of it", only="page"),
            Column("more", [say(one.life_high) for one in rows], head="Life, more of it", only="page"),
            Column("used with less", [one.used_low for one in rows], style="percent", endless="all at once"),
            Column("used with more", [one.used_high for one in rows], style="percent", endless="all at once"),
        )
        return Table("What moves each life", columns, "levers")

    def _survival_table(self) -> Table:
        rows = [(one, i) for one in self.survivals for i in range(one.shares.size)]
        columns = (
            Column("place", [one.place for one, _ in rows], left=True),
            Column("survival probability", [float(one.shares[i]) for one, i in rows], style="percent"),
            Column("life", [float(one.repeats[i]) for one, i in rows], unit="repeats", only="file"),
            Column("lasts", [self._said(float(one.repeats[i])) for one, i in rows], head="Life", only="page"),
            Column(
                "as stated", ["as stated" if one.shares[i] == one.stated else "" for one, i in rows], head="", left=True
            ),
        )
        return Table("Life by survival probability", columns, "survival")

    def _said(self, repeats: float | None) -> str | None:
        if repeats is None or self.calendar is None:
            return None
        return said_life(self.calendar, repeats)

    def __repr__(self) -> str:
        return f"<AllPlaces {self.result.title}: {len(self.places)} places, {sum(one.bad for one in self.places)} use too much>"


def said_life(calendar: Calendar, repeats: float) -> str:
    """A life in words, also that of a place that fails at once or never."""
    return "fails at once" if repeats == 0.0 else "no end" if math.isinf(repeats) else calendar.text(repeats)


@opened(most=one(at_least=0.0))
def all_places(result: StudyResult, *, most: int = MOST, watch: Watch | None = None) -> AllPlaces:
    """All places of a study beside each other, with what moves the `most` lives that are used most.

    Load, notch factor, the stress level of the S-N curve and the target are changed by a tenth up and down, one at a time, and
    the life is assessed again; of a crack load, initial size and target.

    Parameters
    ----------
    result : StudyResult
        What the study answers.
    most : int, default 20
        How many lives are moved, the most used first.
    watch : Callable[[str, int, int], None], optional
        Called with a label, how far it is, and of how many.

    Returns
    -------
    AllPlaces
        The places, the levers and lives by survival probability, as a result.

    Raises
    ------
    InputError
        For a number below 0.

    Examples
    --------
    >>> found = all_places(result)  # result of the demo
    >>> [(place.name, place.kind, round(100 * place.used)) for place in found.places[:2]]
    [('weld toe at the grip head', 'crack', 364), ('weld toe at the grip head', 'life', 108)]
    >>> [lever.lever for lever in found.levers_of("weld toe at the grip head", "life")]
    ['load', 'S-N curve', 'notch factor', 'target']
    """
    lives = list(result.lives)
    if result.model is not None and result.model.life is not None:
        lives.append(result.model.life)
    urgent: list[LifeResult | GrowthResult] = [*lives, *result.growths]
    urgent.sort(key=lambda job: job.life_repeats)
    levers: list[Lever] = []
    survivals: list[SurvivalLives] = []
    for i, job in enumerate(urgent[: int(most)]):
        if watch is not None:
            watch("moving each life", i, min(int(most), len(urgent)))
        if isinstance(job, LifeResult):
            levers += levers_of_life(job)
            found = survival_of(job)
            survivals += [] if found is None else [found]
        else:
            levers += levers_of_growth(job)
    places = sorted(_places(result), key=lambda place: (place.used is None, -(place.used or 0.0)))
    return AllPlaces(result, tuple(places), tuple(levers), tuple(survivals))


def _places(result: StudyResult) -> Iterator[Place]:
    for life in result.lives:
        yield _of_life(life)
    for growth in result.growths:
        yield _of_growth(growth)
    if result.model is not None:
        yield _of_node(result)
    if result.flaws is not None:
        for flaw in result.flaws.flaws:
            yield _of_flaw(flaw)
    for front in result.fronts:
        reserve = front.reserve_on_load.factor
        verdict = "acceptable" if front.acceptable else "not acceptable"
        yield Place(
            front.front.name,
            "front",
            _inverse(reserve),
            "the load",
            "",
            verdict,
            f"{front.point.governing.name} of the front",
        )


def _of_node(result: StudyResult) -> Place:
    """The worst node, also one that fails at once, of which there is no life in full."""
    worst, life = result.places[WORST_NODE], None if result.model is None else result.model.life
    if worst.life_repeats > 0.0 and life is not None:
        return dataclasses.replace(_of_life(life), kind="node")
    at_once = worst.life_repeats == 0.0
    used = math.inf if at_once else None if worst.target_repeats is None else 0.0
    said = "fails at once" if at_once else "no damage"
    return Place(worst.place, "node", used, "the life", said, said, "its mean stress" if at_once else said)


def _of_life(life: LifeResult) -> Place:
    governed = "no damage"
    if life.damage_per_repeat > 0.0:
        worst = max(life.events, key=lambda one: one.damage)
        governed = f"{worst.name}, {worst.share:.0%} of the damage"
    said = "no damage" if math.isinf(life.life_repeats) else said_life(life.duty_cycle.calendar, life.life_repeats)
    return Place(life.hot_spot.name, "life", life.used_at_target, "the life", said, life.verdict, governed)


def _of_growth(growth: GrowthResult) -> Place:
    target, repeats = growth.target_repeats, growth.life_repeats
    used = None if target is None else math.inf if repeats == 0.0 else target / repeats
    verdict = "no target" if used is None else "fails the target" if used > 1.0 else "meets the target"
    said = said_life(growth.duty_cycle.calendar, repeats)
    return Place(growth.crack.hot_spot.name, "crack", used, "the life", said, verdict, growth.governed_by)


def _of_flaw(flaw: ListedFlaw) -> Place:
    own = flaw.assessment
    life = "" if flaw.life is None else said_years(flaw.life)
    return Place(
        f"flaw {flaw.name}",
        "flaw",
        _inverse(own.reserve_on_load.factor),
        "the load",
        life,
        flaw.verdict,
        own.point.governing.name,
    )


def _inverse(reserve: float) -> float:
    return math.inf if reserve == 0.0 else 1.0 / reserve


def _places_table(places: Sequence[Place]) -> Table:
    bad = [place.bad for place in places]
    columns = (
        Column("place", [place.name for place in places], left=True),
        Column("kind", [place.kind for place in places], left=True),
        Column("used", [place.used for place in places], style="percent", endless="all at once", alarm=bad),
        Column("share of", [place.share_of for place in places], head="Of", left=True),
        Column("life", [place.life for place in places]),
        Column("verdict", [place.verdict for place in places], left=True, alarm=bad),
        Column("governed by", [place.governed_by for place in places], left=True),
    )
    return Table("", columns, "places")
