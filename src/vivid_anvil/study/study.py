"""A study: the job written down, with everything it names opened and checked."""

from __future__ import annotations

from collections.abc import Callable, Mapping
from dataclasses import dataclass, field
from pathlib import Path
from typing import Any

from vivid_anvil.events import DutyCycle
from vivid_anvil.events.calendar import amount
from vivid_anvil.ground.errors import InputError
from vivid_anvil.growth import Crack
from vivid_anvil.materials import Curve, GrowthTests
from vivid_anvil.materials.strain import StrainLife
from vivid_anvil.stress import HotSpot
from vivid_anvil.study.flaw_job import FlawJob
from vivid_anvil.study.model_job import ModelJob
from vivid_anvil.study.report_settings import ReportSettings
from vivid_anvil.units import number
from vivid_anvil.writing.result import Words

Watch = Callable[[str, int, int], None]
MOST_EVENTS = 8  # told one by one
WORST_NODE = "worst node"  # the place of a model that has the largest damage; no hot spot beside a model has this name


@dataclass(frozen=True, eq=False, repr=False)
class Study:
    """Duty cycle, hot spots, cracks and target of one job; made by `read_study`, or by hand.

    `curves` are all S-N curves and families that the file names, used or not; `data` are the tables of the file, `growth_tests`
    the tests that growth laws name, by the name of the law, `model` the finite-element model to assess.

    Parameters
    ----------
    title : str
        Its title.
    duty_cycle : DutyCycle or None
        The events of one repeat; None for flaws alone.
    hot_spots : tuple of HotSpot
        The places that are assessed.
    cracks : tuple of Crack, optional
        The cracks that are grown.
    target_life : float or str, optional
        How long it shall last.
    path : path, optional
        The file that it was read from.
    curves : mapping of str to Curve, optional
        The curves.
    data : mapping of str to any, optional
        The tables of the file.
    growth_tests : mapping of str to GrowthTests, optional
        Tests that growth laws name.
    model : ModelJob, optional
        The finite-element model to assess.
    flaws : FlawJob, optional
        The flaws to hold against their limits.
    report : ReportSettings, optional
        Title block and sections of its report.
    strain_life_curves : mapping of str to StrainLife, optional
        Strain-life curves that the file names.

    Raises
    ------
    InputError
        For an argument of another kind, unit or range; the message says which.

    Examples
    --------
    >>> study  # of the demo: read_study("larkfell.toml")
    <Study Larkfell chairlift, hanger arm: 3 lives, 1 cracks, target 30 years>
    """

    title: str
    duty_cycle: DutyCycle | None
    hot_spots: tuple[HotSpot, ...]
    cracks: tuple[Crack, ...] = ()
    target_life: float | str | None = None
    path: Path | None = None
    curves: Mapping[str, Curve] = field(default_factory=dict)
    data: Mapping[str, Any] = field(default_factory=dict)
    growth_tests: Mapping[str, GrowthTests] = field(default_factory=dict)
    model: ModelJob | None = None
    flaws: FlawJob | None = None
    report: ReportSettings | None = None
    strain_life_curves: Mapping[str, StrainLife] = field(default_factory=dict)

    @property
    def duty(self) -> DutyCycle:
        """The duty cycle; InputError where the study has none."""
        if self.duty_cycle is None:
            where = self.title if self.path is None else self.path.name
            raise InputError(where, "no duty cycle", "what the part goes through", "Add a table [duty_cycle].")
        return self.duty_cycle

    @property
    def assessed(self) -> tuple[HotSpot, ...]:
        """The hot spots that have an S-N curve, and so a life."""
        return tuple(spot for spot in self.hot_spots if spot.method is not None)

    @property
    def words(self) -> Words:
        """What a repeat is made of, and the target."""
        duty = self.duty_cycle
        if duty is None:
            return ()
        hours = "duration not stated" if duty.hours is None else f"{number(duty.hours)} h"
        yearly = "" if duty.repeats_per_year is None else f", {number(duty.repeats_per_year)} a year"
        named = [f"{number(event.occurrences)} × {event.name}" for event in duty.events]
        if len(named) > MOST_EVENTS:
            times = sum(event.occurrences for event in duty.events)
            named = [f"{len(named)} events, {number(times)} in all (check lists them)"]
        words = [(f"One {duty.repeat}", f"({hours}{yearly}) " + ", ".join(named))]
        if self.target_life is not None:
            target, stated = amount(duty.repeats_in(self.target_life), duty.repeat), str(self.target_life)
            in_repeats = stated.endswith((duty.repeat, duty.calendar.repeats))
            words.append(("Target life", target if in_repeats else f"{stated} = {target}"))
        return tuple(words)

    def __repr__(self) -> str:
        told = [] if self.flaws is None else [f"{len(self.flaws.indications)} indications"]
        if self.duty_cycle is not None:
            told = [f"{len(self.assessed)} lives", f"{len(self.cracks)} cracks", *told, f"target {self.target_life}"]
        return f"<Study {self.title}: {', '.join(told)}>"
