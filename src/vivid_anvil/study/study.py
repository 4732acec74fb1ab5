"""A study: the job written down, with everything it names opened and checked."""

from __future__ import annotations

from collections.abc import Callable, Mapping
from dataclasses import dataclass, field
from pathlib import Path
from typing import Any

from vivid_anvil.cracks import Crack, GrowthResult, GrowthTests, grow_crack, with_tests
from vivid_anvil.damage import LifeResult, assess_life
from vivid_anvil.damage.life_record import life_as_html
from vivid_anvil.errors import InputError, did_you_mean, listed
from vivid_anvil.findings import Finding, gravest_first
from vivid_anvil.histories import DutyCycle
from vivid_anvil.materials import SNCurve, SNFamily
from vivid_anvil.stress import HotSpot
from vivid_anvil.study.model_job import ModelJob
from vivid_anvil.units import opened

Watch = Callable[[str, int, int], None]


@dataclass(frozen=True, eq=False, repr=False)
class Study:
    """Duty cycle, hot spots, cracks and target of one job; made by `read_study`, or by hand.

    `curves` are all S-N curves and families that the file names, used or not; `data` are the tables of the file, `growth_tests`
    the tests that growth laws name, by the name of the law, `model` the finite-element model to assess.
    """

    title: str
    duty_cycle: DutyCycle
    hot_spots: tuple[HotSpot, ...]
    cracks: tuple[Crack, ...] = ()
    target_life: float | str | None = None
    path: Path | None = None
    curves: Mapping[str, SNCurve | SNFamily] = field(default_factory=dict)
    data: Mapping[str, Any] = field(default_factory=dict)
    growth_tests: Mapping[str, GrowthTests] = field(default_factory=dict)
    model: ModelJob | None = None

    @property
    def assessed(self) -> tuple[HotSpot, ...]:
        """The hot spots that have an S-N curve, and so a life."""
        return tuple(spot for spot in self.hot_spots if spot.curve is not None)

    def __repr__(self) -> str:
        return f"<Study {self.title}: {len(self.assessed)} lives, {len(self.cracks)} cracks, target {self.target_life}>"


@dataclass(frozen=True, eq=False, repr=False)
class StudyResult:
    """The lives of the hot spots and the growth of the cracks of a study."""

    study: Study
    lives: tuple[LifeResult, ...]
    growths: tuple[GrowthResult, ...]

    @property
    def worst(self) -> LifeResult | None:
        """The hot spot with the shortest life; None where no life was assessed."""
        return min(self.lives, key=lambda life: life.life_repeats, default=None)

    @property
    def findings(self) -> tuple[Finding, ...]:
        """All findings, the gravest first."""
        of_lives = [finding for life in self.lives for finding in life.findings]
        return gravest_first(of_lives + [finding for growth in self.growths for finding in growth.findings])

    def life_of(self, hot_spot: str) -> LifeResult:
        """The life of the hot spot of that name."""
        return self.lives[_place(hot_spot, [life.hot_spot.name for life in self.lives])]

    def growth_at(self, hot_spot: str) -> GrowthResult:
        """The growth of the crack at the hot spot of that name."""
        return self.growths[_place(hot_spot, [growth.crack.hot_spot.name for growth in self.growths])]

    def to_frame(self) -> Any:
        """The lives as a pandas data frame, one row a hot spot."""
        import pandas as pd

        rows = [
            {key: value for key, value in life.to_dict().items() if not isinstance(value, dict | list)}
            for life in self.lives
        ]
        return pd.DataFrame(rows)

    def to_dict(self) -> dict[str, Any]:
        """Everything as plain numbers and text."""
        return {
            "title": self.study.title,
            "lives": [life.to_dict() for life in self.lives],
            "cracks": [growth.to_dict() for growth in self.growths],
        }

    def _repr_html_(self) -> str:
        return life_as_html(self.lives, self.study.title)

    def __repr__(self) -> str:
        lines = [f"<StudyResult {self.study.title}", *(f"  {result!r}" for result in (*self.lives, *self.growths))]
        return "\n".join(lines) + ">"


@opened()
def run_study(study: Study, *, watch: Watch | None = None) -> StudyResult:
    """Assess every hot spot and grow every crack of `study`; `watch(label, done, of)` is told how far it is."""
    lives, growths = assess_lives(study, watch=watch), grow_cracks(study, watch=watch)
    return StudyResult(study, lives, growths)


@opened()
def assess_lives(study: Study, *, watch: Watch | None = None) -> tuple[LifeResult, ...]:
    """The life of each hot spot of `study` that has an S-N curve."""
    lives = []
    for i, spot in enumerate(study.assessed):
        _tell(watch, f"life of {spot.name}", i, len(study.assessed))
        lives.append(assess_life(spot, study.duty_cycle, target=study.target_life))
    _tell(watch, "lives", len(lives), len(lives))
    return tuple(lives)


@opened()
def grow_cracks(study: Study, *, watch: Watch | None = None) -> tuple[GrowthResult, ...]:
    """The growth of each crack of `study`."""
    growths = []
    for i, crack in enumerate(study.cracks):
        _tell(watch, f"crack at {crack.hot_spot.name}", i, len(study.cracks))
        grown = grow_crack(crack, study.duty_cycle, target=study.target_life)
        growths.append(with_tests(grown, study.growth_tests.get(crack.law.name)))
    _tell(watch, "cracks", len(growths), len(growths))
    return tuple(growths)


def _tell(watch: Watch | None, label: str, done: int, of: int) -> None:
    if watch is not None:
        watch(label, done, of)


def _place(name: str, names: list[str]) -> int:
    """Where `name` stands in `names`; InputError with the nearest name where it does not."""
    if name not in names:
        raise InputError("hot spot", repr(name), f"one of {listed(names)}", did_you_mean(name, names))
    return names.index(name)
