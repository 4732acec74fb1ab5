"""A study: the job written down, with everything it names opened and checked."""

from __future__ import annotations

from collections.abc import Callable, Mapping
from dataclasses import dataclass, field
from pathlib import Path
from typing import Any

from vivid_anvil.damage import LifeResult
from vivid_anvil.damage.life_record import life_as_html
from vivid_anvil.events import DutyCycle
from vivid_anvil.ground.errors import InputError, did_you_mean, listed
from vivid_anvil.growth import Crack, GrowthResult
from vivid_anvil.materials import GrowthTests, SNCurve, SNFamily
from vivid_anvil.stress import HotSpot
from vivid_anvil.study.model_job import ModelJob
from vivid_anvil.study.variant_life import VariantLife, WorstNode, kept_of
from vivid_anvil.writing.finding import Finding, gravest_first

Watch = Callable[[str, int, int], None]
WORST_NODE = "worst node"  # the place of a model that has the largest damage; no hot spot beside a model has this name


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
    """The lives of the hot spots and the growth of the cracks of a study, and the life at the worst node of its model."""

    study: Study
    lives: tuple[LifeResult, ...]
    growths: tuple[GrowthResult, ...]
    worst_node: WorstNode | None = None

    @property
    def places(self) -> dict[str, VariantLife]:
        """The lives in numbers, by name: those of the hot spots, then that of the worst node."""
        found = {life.hot_spot.name: kept_of(life) for life in self.lives}
        return found if self.worst_node is None else {**found, WORST_NODE: self.worst_node.kept}

    @property
    def worst(self) -> LifeResult | None:
        """The hot spot with the shortest life; None where no life was assessed."""
        return min(self.lives, key=lambda life: life.life_repeats, default=None)

    @property
    def findings(self) -> tuple[Finding, ...]:
        """All findings, the gravest first."""
        of_lives = [finding for life in self.lives for finding in life.findings]
        of_lives += [] if self.worst_node is None else self.worst_node.findings
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
            **({} if self.worst_node is None else {"worst_node": self.worst_node.kept.to_dict()}),
        }

    def _repr_html_(self) -> str:
        return life_as_html(self.lives, self.study.title)

    def __repr__(self) -> str:
        lines = [f"<StudyResult {self.study.title}", *(f"  {result!r}" for result in (*self.lives, *self.growths))]
        return "\n".join(lines) + ">"


def _place(name: str, names: list[str]) -> int:
    """Where `name` stands in `names`; InputError with the nearest name where it does not."""
    if name not in names:
        raise InputError("hot spot", repr(name), f"one of {listed(names)}", did_you_mean(name, names))
    return names.index(name)
