"""Leak before break: whether a flaw that breaks through leaks, and is found by it, before it is critical."""

from __future__ import annotations

import dataclasses
import math
from collections.abc import Sequence
from dataclasses import dataclass
from typing import Any, Self

import numpy as np
from scipy.optimize import brentq

from vivid_anvil.acceptance.assess_flaw import FlawAssessment
from vivid_anvil.acceptance.flaw_legs import CURVE
from vivid_anvil.acceptance.grow_flaw import grow_flaw, said_years
from vivid_anvil.acceptance.limiting_sizes import limit_of
from vivid_anvil.acceptance.point import section_stress
from vivid_anvil.acceptance.stages import Stage
from vivid_anvil.ground.checks import positive_number
from vivid_anvil.ground.errors import InputError
from vivid_anvil.shapes.shape import Shape
from vivid_anvil.units import LENGTH, UnitSystem, coherent, in_unit, number, opened
from vivid_anvil.writing.finding import Finding
from vivid_anvil.writing.result import Result, Words
from vivid_anvil.writing.table import Column, Table

POINTS, WEIGHTS = np.polynomial.legendre.leggauss(24)
ENOUGH = 2.0  # limiting over detectable length, below which a margin is thin


@dataclass(frozen=True, eq=False, repr=False)
class LeakBeforeBreak(Result):
    """Lengths of a crack through the wall, half of each, mm; `leak_before_break` makes one.

    Parameters
    ----------
    name : str
        The flaw.
    through : FlawAssessment
        The crack through the wall as it breaks through.
    breaks_through_at : float
        Its half length then, mm.
    years_until_then : float, optional
        Years until then; None where nothing makes it grow.
    limiting : float
        Half length at which it is critical, mm; nan where the solution ends before.
    detectable : float
        Half length at which its leak is found, mm; nan where it is not within the solution.
    detectable_area : float
        Opening that is found, mm².
    years_to_find : float
        Years from a leak that is found to the limiting length; inf where it does not grow.

    Raises
    ------
    InputError
        By what makes one.

    Examples
    --------
    >>> part = Part(form="cylinder, along", wall="12 mm", radius="300 mm")
    >>> flaw = Flaw(name="L1", shape=part.shape_of("surface"), size="5 mm", half_length="15 mm")
    >>> metal = Metal(material=Material(name="S355", yield_strength=355.0, ultimate_strength=510.0, toughness=4000.0))
    >>> found = assess_flaw(flaw, FractureLoads([PrimaryStresses(membrane="100 MPa")]), metal)
    >>> leak_before_break(found, 20.0).shown
    True
    """

    name: str
    through: FlawAssessment
    breaks_through_at: float
    years_until_then: float | None
    limiting: float
    detectable: float
    detectable_area: float
    years_to_find: float

    @property
    def shown(self) -> bool:
        """Whether it breaks through shorter than the limiting length, and is found before that is reached."""
        if math.isnan(self.limiting) or math.isnan(self.detectable):
            return False
        return self.breaks_through_at < self.limiting and self.detectable < self.limiting

    @property
    def opening_at_break(self) -> float:
        """Opening area as it breaks through, mm²."""
        return opening_area(self.through, self.breaks_through_at)

    @property
    def title(self) -> str:
        """Of which flaw."""
        return f"Leak before break of flaw {self.name}"

    @property
    def findings(self) -> tuple[Finding, ...]:
        """Where it does not hold, or only just."""
        return tuple(_findings(self))

    @classmethod
    def overview(cls, results: Sequence[Self]) -> Table:
        """A row a flaw."""
        return Table(
            "Leak before break",
            (
                Column("flaw", [one.name for one in results]),
                Column("shown", [one.shown for one in results]),
                Column("breaks through at half length", [one.breaks_through_at for one in results], of="length"),
                Column("found at half length", [one.detectable for one in results], of="length"),
                Column("limiting half length", [one.limiting for one in results], of="length"),
                Column("time to find it", [one.years_to_find for one in results], unit="years"),
            ),
        )

    def words(self, units: UnitSystem) -> Words:
        """The three lengths, and the verdict."""

        def length(value: float) -> str:
            return "beyond the solution" if math.isnan(value) else f"2c = {in_unit(2.0 * value, 'length', units)}"

        when = "" if self.years_until_then is None else f", after {said_years(self.years_until_then)}"
        found = f"{length(self.detectable)}, opening {number(self.detectable_area)} mm²"
        return (
            (
                "Breaks through",
                length(self.breaks_through_at) + when + f", opening {number(self.opening_at_break)} mm²",
            ),
            ("Leak is found", found),
            ("Critical", f"{length(self.limiting)}; {said_years(self.years_to_find)} after the leak can be found"),
            ("Verdict", "leak before break is shown" if self.shown else "leak before break is not shown"),
        )

    def __repr__(self) -> str:
        verdict = "shown" if self.shown else "not shown"
        return f"<LeakBeforeBreak of {self.name}: {verdict}, found at 2c = {2.0 * self.detectable:.4g} mm>"


def _findings(found: LeakBeforeBreak) -> Any:
    if math.isnan(found.limiting):
        yield Finding(
            "note",
            "leak-not-limited",
            f"A crack of flaw {found.name} through the wall meets no limit before its solution ends.",
            "Its critical length is beyond that: the margin is larger than can be shown.",
        )
    elif found.breaks_through_at >= found.limiting:
        yield Finding(
            "severe",
            "break-before-leak",
            f"Flaw {found.name} is longer as it breaks through, 2c = {number(2.0 * found.breaks_through_at)} mm, than is "
            f"critical, {number(2.0 * found.limiting)} mm.",
            "It breaks without a leak: it must be found while it is in the wall.",
        )
    if math.isnan(found.detectable) or (not math.isnan(found.limiting) and found.detectable >= found.limiting):
        yield Finding(
            "severe",
            "leak-found-late",
            f"The leak of flaw {found.name} is found at {number(found.detectable_area)} mm², which a crack below the "
            "limiting length does not open to.",
            "A finer detection of leaks, or none can be relied on.",
        )
    elif not math.isnan(found.limiting) and found.limiting < ENOUGH * found.detectable:
        yield Finding(
            "warning",
            "leak-margin-thin",
            f"The limiting length is {number(found.limiting / found.detectable, 3)} times the one at which the leak is found.",
            "2 is usual: openings are estimates, and paint, rust and dirt close them.",
        )


@opened(half_length=LENGTH)
def opening_area(through: FlawAssessment, half_length: float) -> float:
    """Opening area, mm², of a crack through the wall under the primary membrane stress: 4 σ π / E ∫ c Y² dc (Castigliano).

    Parameters
    ----------
    through : FlawAssessment
        Of a crack with one size.
    half_length : float
        Half of its length, mm.

    Returns
    -------
    float
        Area, mm²; 2 π σ c² / E where Y is 1.

    Raises
    ------
    InputError
        For a flaw with two sizes.

    Examples
    --------
    >>> part = Flaw(name="T", shape=CentreCrack("1000 m"), size=10.0)
    >>> metal = Metal(material=Material(name="S355", yield_strength=355.0, ultimate_strength=510.0, toughness=4000.0))
    >>> found = assess_flaw(part, FractureLoads([PrimaryStresses(membrane="100 MPa")]), metal)
    >>> round(opening_area(found, 10.0), 6), round(2.0 * math.pi * 100.0 * 100.0 / 207000.0, 6)
    (0.303536, 0.303536)
    """
    shape: Shape = through.flaw.shape
    if len(shape.sizes) != 1:
        raise InputError(f"opening area, flaw {through.flaw.name}", f"a {shape.kind} flaw", "a crack through the wall")
    stress = through.partial_factors.load * section_stress(through.loads, shape.wall_thickness).membrane
    places = 0.5 * half_length * (POINTS + 1.0)
    heights = np.array([shape.ends(float(c))[0] for c in places])
    whole = 0.5 * half_length * float((WEIGHTS * places * heights**2).sum())
    return 4.0 * math.pi * max(stress, 0.0) / through.metal.youngs_modulus * whole


@opened()
def leak_before_break(
    found: FlawAssessment, detectable_area: float | str, stages: Sequence[Stage] = ()
) -> LeakBeforeBreak:
    """Whether a flaw leaks, and is found by it, before it is critical (BS 7910, annex F; R6, chapter III.11).

    Where its ligament breaks before it has grown through, the crack through the wall is as long as it is then and the ligament
    on both sides.

    Parameters
    ----------
    found : FlawAssessment
        The flaw in the wall.
    detectable_area : float or str
        Opening that is found by its leak, mm², or text such as "20 mm^2".
    stages : sequence of Stage
        What makes it grow; without, it breaks through with the aspect that it has.

    Returns
    -------
    LeakBeforeBreak
        Lengths as it breaks through, as it is found, as it is critical; times; verdict.

    Raises
    ------
    InputError
        For a shape that does not become a crack through the wall.

    Examples
    --------
    >>> part = Part(form="cylinder, along", wall="12 mm", radius="300 mm")
    >>> flaw = Flaw(name="L1", shape=part.shape_of("surface"), size="5 mm", half_length="15 mm")
    >>> metal = Metal(material=Material(name="S355", yield_strength=355.0, ultimate_strength=510.0, toughness=4000.0))
    >>> held = assess_flaw(flaw, FractureLoads([PrimaryStresses(membrane="100 MPa")]), metal)
    >>> own = leak_before_break(held, "20 mm^2")
    >>> own.breaks_through_at < own.detectable < own.limiting
    True
    """
    area = opening(detectable_area, "leak before break, detectable_area")
    broken, years, size = _broken_through(found, tuple(stages))
    limiting = limit_of(broken, (1e-3 * size,))
    detectable = _detectable(broken, area)
    late = math.inf
    if stages and not math.isnan(detectable):
        there = dataclasses.replace(broken, flaw=dataclasses.replace(broken.flaw, size=detectable))
        last = (dataclasses.replace(stages[-1], duration=None),)
        late = grow_flaw(there, last).life
    return LeakBeforeBreak(found.flaw.name, broken, size, years, limiting, detectable, area, late)


def opening(given: float | str, where: str) -> float:
    """An opening in mm² or as text with that unit; InputError at `where` for others.

    >>> opening("20 mm^2", "leak")
    20.0
    """
    if isinstance(given, str):
        text = given.replace("²", "^2").replace(" ", "")
        if not text.endswith("mm^2"):
            raise InputError(where, repr(given), "an area in mm^2, such as '20 mm^2'")
        return positive_number(where, coherent(f"{text[:-4]} mm", "length", where))
    return positive_number(where, given)


def _broken_through(found: FlawAssessment, stages: tuple[Stage, ...]) -> tuple[FlawAssessment, float | None, float]:
    """The crack through the wall, the years until then, its half length."""
    where = f"leak before break, flaw {found.flaw.name}"
    if len(found.flaw.sizes) != 2:
        raise InputError(where, f"a {found.flaw.shape.kind} flaw", "a flaw in part of the wall")
    grown = grow_flaw(found, stages) if stages else None
    last = grown
    while last is not None and last.then is not None:
        last = last.then
    if grown is not None and last is not None and len(last.assessment.flaw.sizes) == 1:
        return last.assessment, grown.years_to_leak, last.assessment.flaw.size
    deepest, years = found.flaw.shape.deepest, None
    if grown is not None and grown.ended_by == CURVE:  # the ligament breaks: the crack takes it in on both sides
        a, c = grown.legs[-1][1].last
        half, years = c + deepest - a, grown.own_years
    else:
        a, c = found.flaw.sizes
        half = c * deepest / a
    onwards = found.flaw.shape.becomes(deepest, half)
    if onwards is None:
        raise InputError(where, f"a {found.flaw.shape.kind} flaw", "a shape that becomes a crack through the wall")
    shape, sizes = onwards
    broken = dataclasses.replace(found, flaw=found.flaw.through(shape, sizes))
    if len(sizes) == 2:  # an embedded flaw is at a surface now
        through, _, size = _broken_through(broken, ())
        return through, years, size
    return broken, years, sizes[0]


def _detectable(through: FlawAssessment, area: float) -> float:
    """Half length with that opening, mm; nan beyond the solution."""
    largest = float(getattr(through.flaw.shape, "largest_size", math.inf))
    if opening_area(through, largest) < area:
        return math.nan
    return float(brentq(lambda c: opening_area(through, c) - area, 1e-6 * largest, largest, xtol=1e-12, rtol=1e-12))
