"""What makes a flaw grow: ranges of stress a year and a growth law, in stages one after the other."""

from __future__ import annotations

import math
import re
from collections.abc import Sequence
from dataclasses import dataclass
from functools import cached_property
from typing import Any

import numpy as np

from vivid_anvil.counting import Cycles
from vivid_anvil.events import DutyCycle
from vivid_anvil.ground import checks
from vivid_anvil.ground.errors import InputError, inside, shortened
from vivid_anvil.growth.driving_cycles import BENDING, GrowthDrive, growth_drive
from vivid_anvil.materials import GrowthLaw
from vivid_anvil.stress import HotSpot
from vivid_anvil.units import coherent, number, opened, sound

_TIME = re.compile(r"\s*([0-9.]+(?:[eE][+-]?\d+)?)\s*(years?|months?|weeks?|days?)\s*")
IN_A_YEAR = {"year": 1.0, "month": 12.0, "week": 365.25 / 7.0, "day": 365.25}


def years_of(value: Any, where: str) -> float:
    """Years in "10 years", "6 months", "3 weeks", "20 days"; a number is years.

    >>> years_of("6 months", "stage")
    0.5
    """
    if isinstance(value, str):
        match = _TIME.fullmatch(value)
        if match is None:
            raise InputError(where, repr(value), "a time such as '10 years', '6 months' or '20 days'")
        return checks.positive_number(where, float(match[1]) / IN_A_YEAR[match[2].rstrip("s")])
    return checks.positive_number(where, value, "a number of years above 0, or text such as '6 months'")


@sound
@dataclass(frozen=True, eq=False)
class RangesPerYear:
    """Ranges of stress at a flaw and how often a year each occurs, as pasted from a sheet.

    Parameters
    ----------
    rows : sequence of rows
        Membrane range, bending range, each MPa or text with its unit, and cycles a year; or membrane range and cycles a year.
    r_ratio : float, default 0.5
        Smallest over largest stress of all of them, -; at 0.5, as in welds as welded, the whole range opens the flaw.

    Raises
    ------
    InputError
        For rows of other lengths, ranges or counts below 0, and an R of 1 or more.

    Examples
    --------
    >>> RangesPerYear([("60 MPa", "20 MPa", 2e4), ("30 MPa", "10 MPa", 3e5)]).many
    320000.0
    """

    rows: Sequence[Any]
    r_ratio: float = 0.5

    def __post_init__(self) -> None:
        where = "ranges a year"
        r = checks.real_number(inside(where, "r_ratio"), self.r_ratio)
        if not r < 1.0:
            raise InputError(inside(where, "r_ratio"), f"{r:g}", "below 1")
        given: Any = self.rows
        if isinstance(given, str) or not len(given):
            raise InputError(inside(where, "rows"), shortened(given), "rows of ranges and cycles a year")
        made = tuple(self._row(row, inside(where, f"row {i}")) for i, row in enumerate(given, 1))
        object.__setattr__(self, "rows", made)

    @staticmethod
    def _row(row: Any, where: str) -> tuple[float, float, float]:
        if isinstance(row, str) or not hasattr(row, "__len__") or len(row) not in (2, 3):
            raise InputError(where, repr(row), "membrane range, bending range, cycles a year; or range and cycles")
        membrane, bending = row[0], (row[1] if len(row) == 3 else 0.0)
        found = (
            coherent(membrane, "stress", where),
            coherent(bending, "stress", where),
            checks.real_number(where, row[-1], "a number of cycles a year"),
        )
        if found[0] < 0.0 or found[2] < 0.0:
            raise InputError(where, f"{found[0]:g} MPa, {found[2]:g} cycles", "a range and a number of 0 or more")
        return found

    @property
    def many(self) -> float:
        """Cycles a year."""
        return float(sum(row[2] for row in self.rows))

    @cached_property
    def drive(self) -> GrowthDrive:
        """As growth wants them."""
        m, b, n = np.array(self.rows, dtype=np.float64).T
        top = 1.0 / (1.0 - self.r_ratio)
        columns = {} if not b.any() else {BENDING[0]: b * top, BENDING[1]: b * top * self.r_ratio}
        return growth_drive(Cycles(range=m, mean=m * (top - 0.5), count=n, columns=columns), "full")


@dataclass(frozen=True, eq=False, repr=False)
class Stage:
    """A part of the time with its own spectrum, law and environment.

    Parameters
    ----------
    name : str
        What it is called.
    law : GrowthLaw
        How fast the flaw grows in it.
    ranges : RangesPerYear, or GrowthDrive of one year
        What makes it grow.
    duration : float or str, optional
        Years, or text such as "6 months"; None for a last stage without end.
    shortest : float, default 0.0
        Years that one pass of its loads takes; a stage should not be shorter.

    Raises
    ------
    InputError
        For a duration that is not above 0.

    Examples
    --------
    >>> air = ParisLaw(name="air", rate="5.21e-13 mm/cycle at 1 MPa√mm", slope=3.0)
    >>> Stage("in air", air, RangesPerYear([("60 MPa", 1e5)]), "10 years")
    <Stage in air: air, 10 years>
    """

    name: str
    law: GrowthLaw
    ranges: RangesPerYear | GrowthDrive
    duration: float | str | None = None
    shortest: float = 0.0

    def __post_init__(self) -> None:
        checks.text("stage, name", self.name)
        where = f"stage {self.name}"
        if not isinstance(self.law, GrowthLaw):
            raise InputError(inside(where, "law"), shortened(self.law), "a growth law such as ParisLaw")
        if not isinstance(self.ranges, RangesPerYear | GrowthDrive):
            raise InputError(inside(where, "ranges"), shortened(self.ranges), "RangesPerYear")
        if self.duration is not None:
            object.__setattr__(self, "duration", years_of(self.duration, inside(where, "duration")))

    @property
    def years(self) -> float:
        """How long, inf for one without end."""
        return math.inf if self.duration is None else float(self.duration)

    @property
    def drive(self) -> GrowthDrive:
        """Its cycles of a year."""
        return self.ranges.drive if isinstance(self.ranges, RangesPerYear) else self.ranges

    def __repr__(self) -> str:
        end = "" if self.duration is None else f", {number(self.years)} years"
        return f"<Stage {self.name}: {self.law.name}{end}>"


@opened()
def stage_of_duty_cycle(
    name: str, law: GrowthLaw, hot_spot: HotSpot, duty_cycle: DutyCycle, duration: float | str | None = None
) -> Stage:
    """A stage whose cycles are those of a duty cycle at a hot spot, as membrane stress.

    Parameters
    ----------
    name : str
        What it is called.
    law : GrowthLaw
        How fast the flaw grows in it.
    hot_spot : HotSpot
        How loads become stress, without notch factor.
    duty_cycle : DutyCycle
        What happens, with its repeats per year.
    duration : float or str, optional
        Years, or text such as "6 months"; None for a last stage without end.

    Returns
    -------
    Stage
        The stage.

    Raises
    ------
    InputError
        For a duty cycle without repeats per year.

    Examples
    --------
    >>> spot = HotSpot(name="plate", relation=OneLoad("force", "1 MPa/kN"), material=Material(name="steel"))
    >>> pull = ConstantAmplitude.from_range("force", "60 kN", r_ratio=0.1, cycles=1e4)
    >>> duty = DutyCycle("week", [Event("pull", pull)], repeats_per_year=50)
    >>> law = ParisLaw(name="air", rate="5.21e-13 mm/cycle at 1 MPa√mm", slope=3.0)
    >>> float(stage_of_duty_cycle("service", law, spot, duty).drive.per_repeat.sum())
    500000.0
    """
    per_year = duty_cycle.repeats_per_year
    if per_year is None:
        raise InputError(f"stage {name}, duty cycle", "no repeats per year", "how many repeats a year has")
    repeat = hot_spot.nominal_cycles(duty_cycle)
    each = growth_drive(repeat)
    year = GrowthDrive(
        each.ranges,
        each.maximum,
        each.minimum,
        each.per_repeat * per_year,
        each.event,
        each.peak_stress,
        panel=each.panel,
    )
    return Stage(name, law, year, duration, 1.0 / per_year)
