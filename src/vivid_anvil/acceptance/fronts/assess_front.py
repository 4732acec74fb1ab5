"""The worst position of a crack front in the assessment diagram, with the reference stress of its section."""

from __future__ import annotations

import math
from collections.abc import Sequence
from dataclasses import dataclass
from functools import cached_property
from typing import Self

from vivid_anvil.acceptance.flaw_working import worked_in
from vivid_anvil.acceptance.fronts.crack_front import CrackFront
from vivid_anvil.acceptance.point import Point, Terms, point_of, said_point
from vivid_anvil.acceptance.reserves import Reserve, on_load, on_toughness
from vivid_anvil.acceptance.stresses.interaction import INTERACTIONS
from vivid_anvil.materials.fracture import FoundToughness, Metal
from vivid_anvil.units import UnitSystem, in_unit, number, one, opened
from vivid_anvil.writing.finding import Finding, gravest_first
from vivid_anvil.writing.result import Result, Words
from vivid_anvil.writing.table import Column, Table
from vivid_anvil.writing.working import Step, Working, put_in

WAY = INTERACTIONS["none"]


@dataclass(frozen=True, eq=False, repr=False)
class FrontAssessment(Result):
    """A crack front against the assessment curve; `assess_front` makes one.

    Parameters
    ----------
    front : CrackFront
        K along it.
    metal : Metal
        What it lies in.
    reference_stress : float
        Of the section with the crack, MPa.
    wall : float, optional
        Thickness at the crack, mm, for a toughness that goes with it.

    Raises
    ------
    InputError
        By what makes one.

    Examples
    --------
    >>> front = crack_front([0.0, 4.0], {"K_I": [[1010.0, 1052, 1049, 1051], [1105, 1150, 1152, 1149]]})
    >>> metal = Metal(material=Material(name="S355", yield_strength=355.0, ultimate_strength=510.0, toughness=2400.0))
    >>> assess_front(front, metal, "180 MPa").acceptable
    True
    """

    front: CrackFront
    metal: Metal
    reference_stress: float
    wall: float | None = None

    @cached_property
    def tough(self) -> FoundToughness:
        """The toughness as stated or estimated."""
        return self.metal.tough(math.nan if self.wall is None else self.wall)

    @property
    def terms(self) -> Terms:
        """K at the worst position, and the reference stress."""
        return Terms((float(self.front.k_effective[self.front.worst]),), (0.0,), self.reference_stress)

    @cached_property
    def point(self) -> Point:
        """Where its worst position lies in the diagram."""
        name = self.front.said(self.front.worst)
        return point_of(self.terms, self.metal.assessment_curve, self.tough.k, WAY, (name,))

    @property
    def acceptable(self) -> bool:
        """Whether it lies on or under the curve."""
        return self.point.acceptable

    @cached_property
    def reserve_on_load(self) -> Reserve:
        """The factor on the load, K and reference stress alike, at which it meets the curve."""
        own = self.terms

        def under(factor: float) -> Terms:
            return Terms((factor * own.primary[0],), own.secondary, factor * own.reference)

        return on_load(own, under, self.metal.assessment_curve, self.tough.k, WAY)

    @property
    def reserve_on_toughness(self) -> Reserve:
        """The toughness over the one that is needed."""
        return on_toughness(self.terms, self.metal.assessment_curve, self.tough.k, WAY)

    @property
    def verdict(self) -> str:
        """In words."""
        if not self.acceptable:
            return f"not acceptable: it carries {number(self.reserve_on_load.factor)} of the load"
        return f"acceptable, reserve on load {number(self.reserve_on_load.factor)}"

    # ---- as a result ---------------------------------------------------------------------------------------------

    @property
    def title(self) -> str:
        """Of which front."""
        return self.front.title

    @property
    def findings(self) -> tuple[Finding, ...]:
        """Those of the table and of the toughness; whether it is not acceptable."""
        own = list(self._verdicts())
        return tuple(gravest_first([*own, *self.front.findings, *self.tough.findings]))

    def _verdicts(self) -> tuple[Finding, ...]:
        if self.acceptable:
            return ()
        return (
            Finding(
                "severe",
                "flaw-not-acceptable",
                f"The crack of {self.front.name} lies outside the curve: {said_point(self.point)}, "
                f"allowed {number(self.point.allowed)}.",
                "Lower the load, repair it, or measure the toughness.",
            ),
        )

    @classmethod
    def overview(cls, results: Sequence[Self]) -> Table:
        """A row a front."""
        points = [one.point for one in results]
        return Table(
            "Cracks of finite-element models",
            (
                Column("front", [one.front.name for one in results]),
                Column("worst at", [one.front.said(one.front.worst) for one in results]),
                Column("largest K", [one.terms.primary[0] for one in results], of="stress intensity"),
                Column("L_r", [one.load_ratio for one in points], only="file"),
                Column("K_r", [one.governing.fracture_ratio for one in points], only="file"),
                Column("largest K_r", [one.allowed for one in points], only="file"),
                Column("reserve on load", [one.reserve_on_load.factor for one in results], digits=3),
                Column(
                    "reserve on toughness",
                    [one.reserve_on_toughness.factor for one in results],
                    digits=3,
                    head="on toughness",
                ),
                Column("verdict", ["acceptable" if one.acceptable else "not acceptable" for one in results]),
            ),
            key="fronts",
        )

    def words(self, units: UnitSystem) -> Words:
        """The front, the point, the verdict."""
        stress = in_unit(self.reference_stress, "stress", units)
        return (
            *self.front.words(units),
            ("Metal", f"{self.metal.material.name}; {self.metal.assessment_curve.words}"),
            (
                "Toughness",
                in_unit(self.tough.k, "stress intensity", units) + (", an estimate" if self.tough.estimated else ""),
            ),
            (
                "Point",
                f"{said_point(self.point)} at a reference stress of {stress}; allowed {number(self.point.allowed)}",
            ),
            ("Verdict", self.verdict),
        )

    def tables(self, units: UnitSystem = "metric") -> tuple[Table, ...]:
        """K along the front."""
        return self.front.tables(units)

    def working(self, units: UnitSystem = "metric") -> Working:
        """K from the contours, L_r, K_r, the curve."""
        k, low = self.terms.primary[0], self.metal.assessment_curve.yield_strength
        row, front, end = self.front.worst, self.front, self.point.governing
        contours = " + ".join(put_in(float(one)) for one in front.contour_k[row, 1:])
        many = front.contour_k.shape[1] - 1
        mean = float(front.contour_k[row, 1:].mean())
        steps = (
            Step(
                f"K at {front.said(row, units)}, mean of all contours but the first",
                "K = Σ K_i / n",
                f"({contours}) / {many}",
                mean,
                "MPa√mm",
            ),
            Step("Effective K", f"by the rule: {front.rule}", put_in(mean), k, "MPa√mm"),
            *self.tough.steps,
            Step(
                "Load ratio",
                "L_r = σ_ref / σ_y",
                f"{put_in(self.reference_stress)} MPa / {put_in(low)} MPa",
                self.point.load_ratio,
                "",
            ),
            Step("Fracture ratio", "K_r = K / K_mat", f"{put_in(k)} / {put_in(self.tough.k)}", end.fracture_ratio, ""),
            *self.metal.assessment_curve.steps(self.point.load_ratio),
            Step("Reserve on load", "K_r(F × P) = f(F × L_r)", "solved for F", self.reserve_on_load.factor, ""),
        )
        return Working(self.title, f"{front.said(row, units)} governs.{worked_in(units)}", steps)

    def __repr__(self) -> str:
        verdict = "acceptable" if self.acceptable else "not acceptable"
        return f"<FrontAssessment {self.front.name}: {verdict}, {said_point(self.point)}>"


@opened(reference_stress=one("stress", at_least=0.0), wall=one("length", above=0.0))
def assess_front(
    front: CrackFront, metal: Metal, reference_stress: float | str, *, wall: float | str | None = None
) -> FrontAssessment:
    """The crack of a finite-element model against the curve: K of its worst position, L_r of a stress that is known otherwise.

    Parameters
    ----------
    front : CrackFront
        K along the front, from a table of contours.
    metal : Metal
        Strengths, curve, toughness.
    reference_stress : float or str
        Of the section with the crack, MPa or text: of a limit load, or by a formula of collapse.
    wall : float or str, optional
        Thickness at the crack, mm or text, for a toughness that goes with it.

    Returns
    -------
    FrontAssessment
        Point, reserves, verdict, working.

    Raises
    ------
    InputError
        For a reference stress below 0, and a toughness that goes with the thickness without wall.

    Examples
    --------
    >>> front = crack_front([0.0, 4.0], {"K_I": [[1010.0, 1052, 1049, 1051], [1105, 1150, 1152, 1149]]})
    >>> metal = Metal(material=Material(name="S355", yield_strength=355.0, ultimate_strength=510.0, toughness=2400.0))
    >>> assess_front(front, metal, "180 MPa")
    <FrontAssessment front: acceptable, L_r = 0.507, K_r = 0.4793>
    """
    found = FrontAssessment(front, metal, reference_stress, wall)  # type: ignore[arg-type]
    assert found.point.load_ratio >= 0.0
    return found
