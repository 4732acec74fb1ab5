"""What an expert says of a flaw, its loads and its place in the diagram."""

from __future__ import annotations

import math
from collections.abc import Iterator
from typing import TYPE_CHECKING

from vivid_anvil.acceptance.point import said_point, section_stress
from vivid_anvil.materials.fracture import ToughnessTests
from vivid_anvil.units import number
from vivid_anvil.writing.finding import Finding

if TYPE_CHECKING:
    from vivid_anvil.acceptance.assess_flaw import FlawAssessment

NEAR_WALL = 0.8  # of the wall
NEAR_END = 0.1  # of the room to an end of a solution
FINE, THIN = 1.5, 1.1
SMALL = 0.02  # of yield: a primary stress that may be a range, or in the wrong unit


def flaw_findings(found: FlawAssessment) -> Iterator[Finding]:
    """All of them."""
    for look in (_verdict, _reserves, _wall, _far, _residual, _loads, _secondary, _partial, _solution):
        yield from look(found)


def _verdict(found: FlawAssessment) -> Iterator[Finding]:
    if not found.acceptable:
        own = found.point
        yield Finding(
            "severe",
            "flaw-not-acceptable",
            f"Flaw {found.flaw.name} is not acceptable: {said_point(own)} at the {own.governing.name}, where "
            f"{number(own.allowed)} is allowed.",
            "Repair it, lower the load, or show more toughness or less residual stress: sensitivity says what moves it most.",
        )


def _reserves(found: FlawAssessment) -> Iterator[Finding]:
    load, tough = found.reserve_on_load.factor, found.reserve_on_toughness.factor
    if load >= FINE > 1.0 and 1.0 <= tough < min(THIN * 1.2, load):
        yield Finding(
            "warning",
            "reserve-one-sided",
            f"The reserve on load is {number(load)}, but that on toughness only {number(tough)}.",
            "Toughness scatters more than loads: see how low it may be at the lowest temperature.",
        )


def _wall(found: FlawAssessment) -> Iterator[Finding]:
    wall, depth = found.flaw.shape.wall_thickness, found.sizes[0]
    if wall is None or len(found.sizes) < 2 or found.flaw.shape.kind == "embedded":
        return
    if depth > NEAR_WALL * wall:
        yield Finding(
            "warning",
            "nearly-through",
            f"The flaw takes {depth / wall:.0%} of the wall: the ligament may go at once.",
            "Assess it as through the wall, with its length and the ligament on both sides, as well.",
        )


def _far(found: FlawAssessment) -> Iterator[Finding]:
    """Whether the flaw is near an end of the solution other than the wall: of its length, its plate, its aspect."""
    sizes = found.sizes
    for name, margin in found.flaw.shape.rooms(weighed=False).items():
        if name == "wall" or name.startswith("aspect"):
            continue
        left = margin(*sizes) / margin(*(1e-3 * one for one in sizes))
        if left < NEAR_END:
            yield Finding(
                "warning",
                "section-near-end",
                f"Flaw {found.flaw.name} takes {1.0 - left:.0%} of the {name}, up to which K and reference stress are known.",
                "Beyond it the net section is not what the solution was made for: take a shape that reaches further.",
            )


def _residual(found: FlawAssessment) -> Iterator[Finding]:
    if found.flaw.weld == "none":
        return
    rows = [
        one.stress(found.metal, found.terms.reference, found.flaw.shape.wall_thickness) for one in found.loads.secondary
    ]
    if not any(one.membrane or one.bending or one.profile is not None for one in rows):
        yield Finding(
            "severe" if found.flaw.weld == "as welded" else "warning",
            "no-residual-stress",
            f"Flaw {found.flaw.name} lies in a weld ({found.flaw.weld}), and no residual stress is stated.",
            "As welded it reaches yield: add a secondary stress, such as 'as welded', 'weld profile' or 'heat treated'.",
        )


def _loads(found: FlawAssessment) -> Iterator[Finding]:
    own = section_stress(found.loads, found.flaw.shape.wall_thickness)
    low = found.metal.strengths[0]
    largest = abs(own.membrane) + abs(own.bending)
    if abs(own.membrane) > low or largest > 1.5 * low:
        yield Finding(
            "severe",
            "primary-above-yield",
            f"Primary stresses of {number(own.membrane)} MPa membrane and {number(own.bending)} MPa bending pass what a sound "
            f"section carries at a yield of {number(low)} MPa.",
            "Are residual or thermal stresses among them? They are secondary.",
        )
    elif 0.0 < largest < SMALL * low:
        yield Finding(
            "warning",
            "primary-small",
            f"The primary stress, {number(largest)} MPa, is {largest / low:.1%} of yield.",
            "Is it the largest load of the assessment, and not the range of fatigue, and in the right unit?",
        )


def _secondary(found: FlawAssessment) -> Iterator[Finding]:
    helped = [end.name for end in found.point.ends if end.k_secondary < 0.0]
    if helped:
        yield Finding(
            "warning",
            "secondary-helps",
            f"Secondary stress presses the flaw together at the {' and the '.join(helped)}, which lowers K_r there.",
            "That holds only while it lasts: leave it out unless it was measured.",
        )


def _partial(found: FlawAssessment) -> Iterator[Finding]:
    source, partial = found.metal.toughness, found.partial_factors
    low = isinstance(source, ToughnessTests) and ("fractile" in source.rule or source.rule == "lower bound")
    if low and partial.toughness > 1.0:
        assert isinstance(source, ToughnessTests)
        yield Finding(
            "warning",
            "partial-factor-twice",
            f"The toughness is already a {source.rule} of the tests, and divided by {partial.toughness:g} besides.",
            "Partial factors are made for the value that their source names: the mean, the minimum of three, or a fractile.",
        )


def _solution(found: FlawAssessment) -> Iterator[Finding]:
    if found.acceptable and math.isinf(found.reserve_on_size.factor):
        yield Finding(
            "note",
            "size-not-limited",
            f"Up to {number(found.reserve_on_size.looked_to)} times its sizes, where the solution of the shape ends, the flaw is "
            "not limited.",
            "Beyond it the part has to be seen as broken through, or by another shape.",
        )
