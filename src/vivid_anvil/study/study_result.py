"""What a study answers: the lives of its hot spots, the growth of its cracks, the worst node of its model."""

from __future__ import annotations

import math
from collections.abc import Sequence
from dataclasses import dataclass
from typing import Any

from vivid_anvil.acceptance import FlawList, FrontAssessment
from vivid_anvil.damage import LifeResult
from vivid_anvil.events.calendar import Calendar
from vivid_anvil.events.life_columns import life_columns
from vivid_anvil.fields import ModelAnswer
from vivid_anvil.ground.errors import InputError, did_you_mean, listed
from vivid_anvil.growth import GrowthResult
from vivid_anvil.study.kept_life import KeptLife, kept_of, kept_worst
from vivid_anvil.study.study import WORST_NODE, Study
from vivid_anvil.units import UnitSystem, opened
from vivid_anvil.writing.finding import Finding, gravest_first
from vivid_anvil.writing.plain import finding_records
from vivid_anvil.writing.result import Result, Words
from vivid_anvil.writing.table import Column, Table
from vivid_anvil.writing.working import Working


@dataclass(frozen=True, eq=False, repr=False)
class StudyResult(Result):
    """The lives of the hot spots and the growth of the cracks of a study, and the life at the worst node of its model.

    Parameters
    ----------
    study : Study
        The study, or its file.
    lives : tuple of LifeResult
        Life of each hot spot.
    growths : tuple of GrowthResult
        Growth of each crack.
    model : ModelAnswer, optional
        Life at the nodes of its model.
    flaws : FlawList, optional
        Its flaws, the most urgent first.
    fronts : tuple of FrontAssessment, optional
        Cracks of finite-element models.

    Raises
    ------
    InputError
        For an argument of another kind, unit or range; the message says which.

    Examples
    --------
    >>> [round(life.life_repeats) for life in result.lives[:2]]  # of the demo: run_study(read_study("larkfell.toml"))
    [334, 1507]
    """

    study: Study
    lives: tuple[LifeResult, ...]
    growths: tuple[GrowthResult, ...]
    model: ModelAnswer | None = None
    flaws: FlawList | None = None
    fronts: tuple[FrontAssessment, ...] = ()

    @property
    def places(self) -> dict[str, KeptLife]:
        """The lives in numbers, by name: those of the hot spots, then that of the worst node."""
        places = {life.hot_spot.name: kept_of(life) for life in self.lives}
        return places if self.model is None else {**places, WORST_NODE: kept_worst(self.model.result)}

    @property
    def worst(self) -> LifeResult | None:
        """The hot spot with the shortest life; None where no life was assessed."""
        return min(self.lives, key=lambda life: life.life_repeats, default=None)

    @property
    def findings(self) -> tuple[Finding, ...]:
        """All findings, the gravest first."""
        of_lives = [finding for life in self.lives for finding in life.findings]
        of_lives += [] if self.model is None else self.model.findings
        of_lives += [] if self.flaws is None else self.flaws.findings
        of_lives += [finding for front in self.fronts for finding in front.findings]
        return gravest_first(of_lives + [finding for growth in self.growths for finding in growth.findings])

    def life_of(self, hot_spot: str) -> LifeResult:
        """The life of the hot spot of that name."""
        return self.lives[_place(hot_spot, [life.hot_spot.name for life in self.lives])]

    def growth_at(self, hot_spot: str) -> GrowthResult:
        """The growth of the crack at the hot spot of that name."""
        return self.growths[_place(hot_spot, [growth.crack.hot_spot.name for growth in self.growths])]

    @property
    def title(self) -> str:
        """The title of the study."""
        return self.study.title

    @classmethod
    def overview(cls, results: Sequence[StudyResult]) -> Table:
        """A row a study: how many lives and cracks, the shortest of each."""
        duties = [result.study.duty_cycle for result in results]
        calendars = [Calendar("year", 1.0) if duty is None else duty.calendar for duty in duties]
        flaws = [result.flaws for result in results]
        lives = [min((life.life_repeats for life in result.lives), default=None) for result in results]
        cracks = [min((growth.life_repeats for growth in result.growths), default=None) for result in results]
        columns = (
            Column("title", [result.title for result in results]),
            Column("number of lives", [len(result.lives) for result in results]),
            Column("number of cracks", [len(result.growths) for result in results]),
            *life_columns(lives, calendars, name="shortest life"),
            *life_columns(cracks, calendars, name="shortest life of a crack", endless="no growth"),
            Column("number of flaws", [None if one is None else len(one.flaws) for one in flaws]),
            Column("flaws not acceptable", [None if one is None else len(one.rejected) for one in flaws]),
        )
        return Table("", columns, "studies")

    def words(self, units: UnitSystem) -> Words:
        """What a repeat is made of, and the target."""
        return self.study.words

    def tables(self, units: UnitSystem = "metric") -> tuple[Table, ...]:
        """Lives and cracks, the shortest first, the worst places of the model, flaws and fronts."""
        lives, growths = worst_first(self.lives), sorted(self.growths, key=lambda one: one.life_repeats)
        found = [LifeResult.overview(lives)] if lives else []
        of_model = [] if self.model is None else self.model.tables(units)
        of_flaws = () if self.flaws is None or not self.flaws.flaws else self.flaws.tables(units)
        of_fronts = (FrontAssessment.overview(self.fronts),) if self.fronts else ()
        return (*found, *([GrowthResult.overview(growths)] if growths else []), *of_model, *of_flaws, *of_fronts)

    def to_dict(self) -> dict[str, Any]:
        """Everything, the whole record of each life and crack too."""
        return {
            **self.facts(),
            "lives": [life.to_dict() for life in self.lives],
            "cracks": [growth.to_dict() for growth in self.growths],
            **({} if self.model is None else {"model": self.model.to_dict()}),
            **({} if self.flaws is None else {"flaws": self.flaws.to_dict()}),
            **({"fronts": [front.to_dict() for front in self.fronts]} if self.fronts else {}),
            "findings": finding_records(self.findings),
        }

    def to_frame(self) -> Any:
        """The lives as a pandas data frame, one row a hot spot, in the order of the study."""
        return LifeResult.overview(self.lives).to_frame() if self.lives else self.tables()[0].to_frame()

    def working(self, units: UnitSystem = "metric") -> Working:
        """That of its worst hot spot; without lives of its first crack, its most urgent flaw, its first front."""
        flaws = () if self.flaws is None else self.flaws.flaws
        worst: tuple[Result, ...] = () if self.worst is None else (self.worst,)
        first = (*worst, *self.growths, *(flaw.assessment for flaw in flaws), *self.fronts)
        return first[0].working(units) if first else super().working(units)

    def __repr__(self) -> str:
        lines = [f"<StudyResult {self.study.title}", *(f"  {result!r}" for result in (*self.lives, *self.growths))]
        lines += [] if self.flaws is None else [f"  {self.flaws!r}"]
        lines += [f"  {front!r}" for front in self.fronts]
        return "\n".join(lines) + ">"


@opened()
def worst_first(lives: Sequence[LifeResult]) -> list[LifeResult]:
    """The shortest life first; of those without damage the one with the least reserve, else the largest stress."""
    return sorted(
        lives,
        key=lambda one: (one.life_repeats, one.reserve_on_stress or math.inf, -one.peak_stress, one.lowest_stress),
    )


def _place(name: str, names: list[str]) -> int:
    """Where `name` stands in `names`; InputError with the nearest name where it does not."""
    if name not in names:
        raise InputError("hot spot", repr(name), f"one of {listed(names)}", did_you_mean(name, names))
    return names.index(name)
