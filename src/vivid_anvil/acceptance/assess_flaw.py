"""The assessment of one flaw at one moment: where it lies in the diagram, how much is left, and in which direction."""

from __future__ import annotations

import dataclasses
import math
from collections.abc import Sequence
from dataclasses import dataclass
from functools import cached_property
from typing import Self

from vivid_anvil.acceptance.flaw import Flaw
from vivid_anvil.acceptance.flaw_findings import flaw_findings
from vivid_anvil.acceptance.flaw_working import flaw_working
from vivid_anvil.acceptance.partial_factors import PartialFactors
from vivid_anvil.acceptance.point import Driver, FractureLoads, Point, Terms, point_of, said_point
from vivid_anvil.acceptance.reserves import Reserve, needed_toughness, on_load, on_size, on_toughness, on_yield
from vivid_anvil.materials.fracture import AssessmentCurve, FoundToughness, Metal
from vivid_anvil.units import UnitSystem, in_unit, number, opened
from vivid_anvil.writing.finding import Finding, gravest_first
from vivid_anvil.writing.result import Result, Words
from vivid_anvil.writing.table import Column, Table
from vivid_anvil.writing.working import Working

THIN = 1.1  # a reserve below it is thin
HAIR = 1e-9


@dataclass(frozen=True, eq=False, repr=False)
class FlawAssessment(Result):
    """A flaw against the assessment curve; `assess_flaw` makes one.

    Parameters
    ----------
    flaw : Flaw
        The flaw.
    loads : FractureLoads
        What pulls at it.
    metal : Metal
        What it lies in.
    partial_factors : PartialFactors
        What the values stated are taken with.

    Raises
    ------
    InputError
        By what makes one.

    Examples
    --------
    >>> plate = SurfaceCrack(thickness="25 mm", plate_width="300 mm")
    >>> flaw = Flaw(name="A1", shape=plate, size="5 mm", half_length="12 mm")
    >>> loads = FractureLoads([PrimaryStresses(membrane="150 MPa")])
    >>> metal = Metal(material=Material(name="S355", yield_strength=355.0, ultimate_strength=510.0, toughness=2400.0))
    >>> assess_flaw(flaw, loads, metal)
    <FlawAssessment A1: acceptable, L_r = 0.4518, K_r = 0.2411>
    """

    flaw: Flaw
    loads: FractureLoads
    metal: Metal
    partial_factors: PartialFactors = PartialFactors()

    # ---- what counts ---------------------------------------------------------------------------------------------

    @cached_property
    def sizes(self) -> tuple[float, ...]:
        """Sizes that count, mm, with the partial factor."""
        return tuple(self.partial_factors.size * one for one in self.flaw.sizes)

    @cached_property
    def curve(self) -> AssessmentCurve:
        """The assessment curve, with the partial factor on strength."""
        own, factor = self.metal.assessment_curve, self.partial_factors.strength
        return own if factor == 1.0 else own.weaker(factor)

    @cached_property
    def tough(self) -> FoundToughness:
        """The toughness as stated or estimated."""
        wall = self.flaw.shape.wall_thickness or self.flaw.wall
        return self.metal.tough(math.nan if wall is None else wall)

    @property
    def toughness(self) -> float:
        """The toughness that counts, MPa√mm, with the partial factor."""
        return self.tough.k / self.partial_factors.toughness

    @cached_property
    def driver(self) -> Driver:
        """What drives flaws of this shape here."""
        return Driver(self.flaw.shape, self.loads, self.metal)

    @cached_property
    def terms(self) -> Terms:
        """K at each end and the reference stress, with the partial factor on load."""
        return self.terms_at(self.sizes)

    def of_sizes(self, sizes: tuple[float, ...]) -> FlawAssessment:
        """The same for sizes that count, mm, whatever the flaw's own are."""
        other = dataclasses.replace(self)
        other.__dict__["sizes"], other.__dict__["driver"] = sizes, self.driver
        return other

    def terms_at(self, sizes: tuple[float, ...], factor: float = 1.0) -> Terms:
        """The same at other sizes, mm, and with primary loads times a factor."""
        return self.driver.terms(sizes, factor * self.partial_factors.load)

    # ---- answers -------------------------------------------------------------------------------------------------

    @cached_property
    def point(self) -> Point:
        """Where it lies in the diagram."""
        return point_of(self.terms, self.curve, self.toughness, self.loads.way, self.flaw.shape.end_names)

    @property
    def acceptable(self) -> bool:
        """Whether it lies on or under the curve."""
        return self.point.acceptable

    @property
    def needed_toughness(self) -> float:
        """The toughness, MPa√mm, that is just needed; inf where none is enough."""
        return needed_toughness(self.terms, self.curve, self.loads.way)

    def under_load(self, factor: float) -> Terms:
        """The same with all primary loads times a factor; secondary stress stays, unless every load relaxes it."""
        if self.loads.moves:
            return self.terms_at(self.sizes, factor)
        own = self.terms
        return Terms(tuple(factor * one for one in own.primary), own.secondary, factor * own.reference)

    @cached_property
    def reserve_on_load(self) -> Reserve:
        """The factor on all primary loads at which it meets the curve."""
        return on_load(self.terms, self.under_load, self.curve, self.toughness, self.loads.way)

    @cached_property
    def reserve_on_toughness(self) -> Reserve:
        """The toughness over the one that is needed."""
        return on_toughness(self.terms, self.curve, self.toughness, self.loads.way)

    @cached_property
    def reserve_on_yield(self) -> Reserve:
        """The factor by which the strengths may be lower."""
        return on_yield(self.terms, self.curve, self.toughness, self.loads.way)

    @cached_property
    def largest_factor(self) -> float:
        """The factor on its sizes at which the solution of the shape ends, a hair before."""
        return end_of_solution(self.flaw, self.sizes)

    @cached_property
    def reserve_on_size(self) -> Reserve:
        """The factor on its sizes, the aspect kept, at which it meets the curve; inf where that is beyond the solution."""

        def at_size(factor: float) -> Terms:
            return self.terms_at(tuple(factor * one for one in self.sizes))

        return on_size(at_size, self.largest_factor, self.curve, self.toughness, self.loads.way)

    @property
    def reserves(self) -> tuple[Reserve, ...]:
        """All four."""
        return self.reserve_on_load, self.reserve_on_toughness, self.reserve_on_size, self.reserve_on_yield

    @property
    def verdict(self) -> str:
        """In words."""
        if not self.acceptable:
            return f"not acceptable: it carries {number(self.reserve_on_load.factor)} of the load"
        least = min(self.reserves, key=lambda one: one.factor)
        if least.factor < THIN:
            return f"acceptable, with a thin reserve of {number(least.factor)} on {least.on}"
        return f"acceptable, the least reserve is {number(least.factor)} on {least.on}"

    # ---- as a result ---------------------------------------------------------------------------------------------

    @property
    def title(self) -> str:
        """Which flaw."""
        return f"Flaw {self.flaw.name}"

    @cached_property
    def findings(self) -> tuple[Finding, ...]:
        """What an expert would say."""
        return tuple(gravest_first([*self.tough.findings, *flaw_findings(self)]))

    @classmethod
    def overview(cls, results: Sequence[Self]) -> Table:
        """A row a flaw."""
        points = [one.point for one in results]
        return Table(
            "Flaws",
            (
                Column("flaw", [one.flaw.name for one in results]),
                Column("acceptable", [one.acceptable for one in results]),
                Column("L_r", [one.load_ratio for one in points]),
                Column("K_r", [one.governing.fracture_ratio for one in points]),
                Column("largest K_r", [one.allowed for one in points]),
                Column("governing end", [one.governing.name for one in points]),
                Column("reference stress", [one.terms.reference for one in results], of="stress"),
                Column("toughness", [one.toughness for one in results], of="stress intensity"),
                Column("needed toughness", [one.needed_toughness for one in results], of="stress intensity"),
                Column("reserve on load", [one.reserve_on_load.factor for one in results]),
                Column("reserve on toughness", [one.reserve_on_toughness.factor for one in results]),
                Column("reserve on size", [one.reserve_on_size.factor for one in results]),
                Column("reserve on yield", [one.reserve_on_yield.factor for one in results]),
            ),
        )

    def words(self, units: UnitSystem) -> Words:
        """Flaw, point, verdict."""
        own, end = self.point, self.point.governing
        partial = self.partial_factors
        factors = f"load {partial.load:g}, size {partial.size:g}, toughness {partial.toughness:g}, strength {partial.strength:g}"
        return (
            ("Flaw", f"{self.flaw.shape.kind}, {self.flaw.said_in(units)}"),
            ("Metal", f"{self.metal.material.name}; {self.curve.words}"),
            (
                "Toughness",
                in_unit(self.toughness, "stress intensity", units) + (", an estimate" if self.tough.estimated else ""),
            ),
            *((("Partial factors", factors),) if partial.any else ()),
            ("Point", f"{said_point(own)} at the {end.name}; the curve allows {number(own.allowed)}"),
            ("Verdict", self.verdict),
        )

    def tables(self, units: UnitSystem = "metric") -> tuple[Table, ...]:
        """Ends and reserves."""
        ends = self.point.ends
        one = Table(
            "Ends of the flaw",
            (
                Column("end", [end.name for end in ends]),
                Column("K primary", [end.k_primary for end in ends], of="stress intensity"),
                Column("K secondary", [end.k_secondary for end in ends], of="stress intensity"),
                Column("χ", [end.chi for end in ends], head="χ"),
                Column("ρ", [end.added for end in ends], head="ρ"),
                Column("V", [end.factor for end in ends]),
                Column("K_r", [end.fracture_ratio for end in ends]),
            ),
            key="ends",
        )
        reserves = self.reserves
        other = Table(
            "Reserves",
            (
                Column("on", [reserve.on for reserve in reserves]),
                Column("factor", [reserve.factor for reserve in reserves]),
                Column("means", [self._meaning(reserve) for reserve in reserves]),
            ),
            key="reserves",
        )
        return one, other

    def _meaning(self, reserve: Reserve) -> str:
        """What a factor is of."""
        if reserve.on == "size" and math.isinf(reserve.factor):
            return f"not met up to {number(reserve.looked_to)} times its sizes, where the solution ends"
        return {
            "load": "on all primary stresses, secondary ones as they are",
            "toughness": "toughness over the one that is needed",
            "size": "on depth and length alike",
            "yield": "by which yield and ultimate strength may be lower",
        }[reserve.on]

    def working(self, units: UnitSystem = "metric") -> Working:
        """The point as a hand calculation."""
        return flaw_working(self, units)

    def __repr__(self) -> str:
        own = self.point
        verdict = "acceptable" if self.acceptable else "not acceptable"
        return (
            f"<FlawAssessment {self.flaw.name}: {verdict}, L_r = {number(own.load_ratio)}, "
            f"K_r = {number(own.governing.fracture_ratio)}>"
        )


def end_of_solution(flaw: Flaw, sizes: tuple[float, ...]) -> float:
    """The factor on sizes at which the solution of the shape ends, a hair before."""
    margins = [margin for name, margin in flaw.shape.rooms(weighed=False).items() if not name.startswith("aspect")]

    def inside(factor: float) -> bool:
        return all(margin(*(factor * one for one in sizes)) > 0.0 for margin in margins)

    low, high = (1.0, 2.0) if inside(1.0) else (0.0, 1.0)
    while inside(high) and high < 1e6:
        low, high = high, 2.0 * high
    for _ in range(60):
        middle = 0.5 * (low + high)
        low, high = (middle, high) if inside(middle) else (low, middle)
    return low * (1.0 - HAIR)


@opened()
def assess_flaw(
    flaw: Flaw, loads: FractureLoads, metal: Metal, *, partial_factors: PartialFactors | None = None
) -> FlawAssessment:
    """A flaw held against the failure assessment curve of its metal.

    K of primary and secondary stress at each end of the flaw, L_r = σ_ref / σ_y, K_r = (K_p + V K_s) / K_mat + ρ; acceptable
    where K_r is at most f(L_r). Sources: BS 7910:2013, clause 7 and annexes; R6 revision 4.

    Parameters
    ----------
    flaw : Flaw
        Shape and sizes.
    loads : FractureLoads
        Primary and secondary stresses, and how they act together.
    metal : Metal
        Strengths, toughness, assessment curve.
    partial_factors : PartialFactors, optional
        Safety factors that the values are taken with; none by default.

    Returns
    -------
    FlawAssessment
        Point, reserves, verdict, working.

    Raises
    ------
    InputError
        For stresses that the shape does not know, and a metal without what is needed.

    Examples
    --------
    >>> plate = SurfaceCrack(thickness="25 mm", plate_width="300 mm")
    >>> flaw = Flaw(name="A1", shape=plate, size="5 mm", half_length="12 mm")
    >>> loads = FractureLoads(
    ...     [PrimaryStresses(membrane="150 MPa", bending="30 MPa")],
    ...     [SecondaryStresses(membrane="80 MPa", bending="20 MPa", of="residual")],
    ... )
    >>> steel = Material(name="S355", yield_strength=355.0, ultimate_strength=510.0, toughness=2400.0)
    >>> found = assess_flaw(flaw, loads, Metal(material=steel))
    >>> round(found.point.governing.fracture_ratio, 4), [round(one.factor, 4) for one in found.reserves]
    (0.4685, [1.8497, 2.0985, 2.8546, 2.1721])
    """
    found = FlawAssessment(flaw, loads, metal, partial_factors or PartialFactors())
    assert found.point.load_ratio >= 0.0
    return found
