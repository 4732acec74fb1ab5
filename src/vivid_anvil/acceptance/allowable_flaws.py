"""The largest flaw that may be left: for a target life over aspects, and at each inspection until the next."""

from __future__ import annotations

import dataclasses
import math
from collections.abc import Callable, Sequence
from dataclasses import dataclass
from typing import Self

import numpy as np

from vivid_anvil.acceptance.assess_flaw import FlawAssessment, end_of_solution
from vivid_anvil.acceptance.flaw import Flaw
from vivid_anvil.acceptance.flaw_legs import ASPECTS_KEPT, EVEN, QUICK
from vivid_anvil.acceptance.grow_flaw import grown, said_years, until
from vivid_anvil.acceptance.limiting_sizes import ASPECTS
from vivid_anvil.acceptance.stages import Stage, years_of
from vivid_anvil.ground.checks import FloatArray, one_of, read_only
from vivid_anvil.ground.errors import InputError
from vivid_anvil.growth import largest_lasting_size
from vivid_anvil.growth.integrate_two import Pace
from vivid_anvil.units import UnitSystem, many, number, opened
from vivid_anvil.writing.finding import Finding
from vivid_anvil.writing.result import Result, Words
from vivid_anvil.writing.table import Column, Table

SMALLEST = 0.05  # mm
AHEAD = 1.5  # times the target, how far a flaw is followed
NEAR = 2e-3  # how far a quick answer may be off
SHORT = 0.1  # mm, below which cracks grow faster than the laws say


@dataclass(frozen=True, eq=False, repr=False)
class AllowableFlaws(Result):
    """Initial sizes that just live a target, over aspects; `allowable_flaws` makes one.

    Parameters
    ----------
    flaw : Flaw
        The flaw that is there.
    target : float
        Years.
    aspects : ndarray, shape (n,)
        a/c at the start, -.
    depths : ndarray, shape (n,)
        Largest initial depth, mm; 0 where none lasts.
    lives : ndarray, shape (n,)
        What each then lives, years: the target, but where a flaw of any size of the solution lasts longer.

    Raises
    ------
    InputError
        By what makes one.

    Examples
    --------
    >>> plate = SurfaceCrack(thickness="25 mm", plate_width="300 mm")
    >>> flaw = Flaw(name="A1", shape=plate, size="5 mm", half_length="12 mm")
    >>> AllowableFlaws(flaw, 10.0, np.array([0.5]), np.array([4.0]), np.array([10.0]))
    <AllowableFlaws for 10 years: 1 aspect>
    """

    flaw: Flaw
    target: float
    aspects: FloatArray
    depths: FloatArray
    lives: FloatArray

    @property
    def title(self) -> str:
        """For how long."""
        return f"Flaws that may be left for {said_years(self.target)}"

    @property
    def findings(self) -> tuple[Finding, ...]:
        """Sizes that are too small for the laws."""
        small = self.aspects[self.depths < SHORT]
        if not small.size:
            return ()
        return (
            Finding(
                "warning",
                "allowable-small",
                f"Flaws of a/c = {', '.join(f'{one:g}' for one in small)} would have to be below 0.1 mm to last.",
                "Cracks so small grow faster than the laws say: take it that none may be left.",
            ),
        )

    @classmethod
    def overview(cls, results: Sequence[Self]) -> Table:
        """A row a flaw."""
        return Table(
            "Flaws that may be left",
            (
                Column("flaw", [one.flaw.name for one in results]),
                Column("target", [one.target for one in results], unit="years"),
                Column("smallest allowable depth", [float(one.depths.min()) for one in results], of="length"),
            ),
        )

    def words(self, units: UnitSystem) -> Words:
        """The flaw itself."""
        return (("Flaw", f"{self.flaw.name}: {self.flaw.said_in(units)}"),)

    def tables(self, units: UnitSystem = "metric") -> tuple[Table, ...]:
        """A row an aspect."""
        columns = (
            Column("a/c", self.aspects, head="a/c", style="number"),
            Column("depth", self.depths, of="length"),
            Column("half length", self.depths / self.aspects, of="length"),
            Column("life", self.lives, unit="years"),
        )
        return (Table("The largest of each aspect", columns, key="allowable flaws"),)

    def __repr__(self) -> str:
        n = self.aspects.size
        return f"<AllowableFlaws for {number(self.target)} years: {n} aspect{'' if n == 1 else 's'}>"


@opened(aspects=many(above=0.0))
def allowable_flaws(
    found: FlawAssessment,
    stages: Sequence[Stage],
    target: float | str,
    *,
    aspects: Sequence[float] = ASPECTS,
    aspect: str = "free",
    watch: Callable[[str, int, int], None] | None = None,
) -> AllowableFlaws:
    """The largest initial flaw of each aspect that just lives a target under the loads and stages of a flaw.

    Parameters
    ----------
    found : FlawAssessment
        Loads, metal and shape; the flaw itself is only shown beside.
    stages : sequence of Stage
        What makes flaws grow.
    target : float or str
        Years, or text such as "30 years".
    aspects : sequence of float
        a/c at the start, -.
    aspect : str, default "free"
        As in `grow_flaw`.
    watch : Callable[[str, int, int], None], optional
        Called with a label, how far it is, and of how many.

    Returns
    -------
    AllowableFlaws
        A depth for each aspect.

    Raises
    ------
    InputError
        For a shape with one size only.

    Examples
    --------
    >>> plate = SurfaceCrack(thickness="25 mm", plate_width="300 mm")
    >>> flaw = Flaw(name="A1", shape=plate, size="5 mm", half_length="12 mm")
    >>> loads = FractureLoads([PrimaryStresses(membrane="180 MPa", bending="30 MPa")])
    >>> steel = Material(name="S355", yield_strength=355.0, ultimate_strength=510.0, toughness=1900.0)
    >>> law = ParisLaw(name="law", rate=3e-13, slope=3.0)
    >>> stage = Stage("service", law, RangesPerYear([(90.0, 20.0, 4e5)]))
    >>> allowable_flaws(assess_flaw(flaw, loads, Metal(material=steel)), [stage], 1.0, aspects=[0.5]).depths.round(3)
    array([4.75])
    """
    one_of("allowable flaws, aspect", aspect, ASPECTS_KEPT)
    if len(found.flaw.sizes) != 2:
        raise InputError("allowable flaws", f"a {found.flaw.shape.kind} flaw, of one size", "a shape with two sizes")
    years = years_of(target, "allowable flaws, target")
    low, high = getattr(found.flaw.shape, "aspects_known", (0.0, 2.0))
    rows = [float(one) for one in np.atleast_1d(aspects) if low <= one <= high]
    if not rows or not len(stages):
        given = f"{len(stages)} stages, {len(rows)} aspects that the shape knows"
        raise InputError("allowable flaws", given, f"one stage and one a/c from {low:g} to {high:g}, or more")
    both = []
    for i, ratio in enumerate(rows):
        if watch is not None:
            watch("aspects", i, len(rows))
        both.append(largest_flaw(found, tuple(stages), years, ratio, aspect))
    depths, lives = (read_only(np.array(column)) for column in zip(*both, strict=True))
    return AllowableFlaws(found.flaw, years, read_only(np.array(rows)), depths, lives)


def largest_flaw(
    found: FlawAssessment,
    stages: tuple[Stage, ...],
    years: float,
    ratio: float | None,
    aspect: str = "free",
    pace: Pace = EVEN,
) -> tuple[float, float]:
    """First size, mm, of the flaw with that a/c (None: of one size) that just lives so many years, and what it lives."""

    def sizes(first: float) -> tuple[float, ...]:
        return (first,) if ratio is None else (first, first / ratio)

    ahead = until(stages, AHEAD * years)

    def life(first: float, at: Pace = pace) -> float:
        flaw = dataclasses.replace(found.flaw, size=first, half_length=None if ratio is None else first / ratio)
        return grown(dataclasses.replace(found, flaw=flaw), ahead, aspect, pace=at).life

    largest = end_of_solution(found.flaw, sizes(1.0)) * (1.0 - 1e-6)
    smallest = max(SMALLEST, found.flaw.shape.smallest_size)
    near = largest_lasting_size(lambda first: life(first, QUICK), years, largest, smallest)
    low, high = max(smallest, near * (1.0 - NEAR)), min(largest, near * (1.0 + NEAR))
    around = pace is not QUICK and low < high and life(low) >= years > life(high)
    size = (
        near if pace is QUICK else largest_lasting_size(life, years, *((high, low) if around else (largest, smallest)))
    )
    return (size, life(size)) if size > 0.0 else (0.0, math.nan)
