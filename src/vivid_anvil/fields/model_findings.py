"""What an expert says of a model and its worst places."""

from __future__ import annotations

from collections.abc import Sequence

import numpy as np

from vivid_anvil.events.counting_findings import counting_findings
from vivid_anvil.fields.hottest import HotPlace
from vivid_anvil.fields.model_result import ModelResult
from vivid_anvil.fields.proportionality import NOT_PROPORTIONAL
from vivid_anvil.ground.errors import listed
from vivid_anvil.models.read_sets import SUPPORTS
from vivid_anvil.models.surface import FLAT, SOLIDS, undrawable
from vivid_anvil.units import opened
from vivid_anvil.writing.finding import Finding

COARSE = 0.1  # of the largest von Mises stress
SMALL = 0.1  # MPa
SHEAR = -0.25  # second over first principal stress
SINGLE = 0.6  # of the largest stress
SIZES = (0.5, 50_000.0)  # mm


@opened()
def model_findings(result: ModelResult, places: Sequence[HotPlace]) -> tuple[Finding, ...]:
    """Findings of the worst `places`: stresses that do not move in step, elements that disagree; kinds that cannot be drawn."""
    findings = [*counting_findings(result.duty_cycle)]
    what = result.field.dimension
    by_one = [one for one in places if not result.spot_at(result.field.place_of(one.node)).assessed_by.tensors]
    turning = [place for place in by_one if place.off_straight_line > NOT_PROPORTIONAL]
    if turning and result.directions is None:
        most = max(one.off_straight_line for one in turning)
        findings.append(
            Finding(
                "warning",
                "not-proportional",
                f"At {_nodes(turning)} the components of the stress do not move in step: up to {most:.0%} off a straight line.",
                'One stress does not tell the damage there: directions turn. Try measure = "normal stress, critical plane".',
            )
        )
    spread = result.field.spread
    apart = {} if spread is None else {place.node: float(spread[result.field.place_of(place.node)]) for place in places}
    coarse = [place for place in places if apart.get(place.node, 0.0) > COARSE]
    if coarse:
        taken = (
            "their mean was taken"
            if result.chosen is None or "element" not in coarse[0].worst_of
            else "the worst was taken"
        )
        findings.append(
            Finding(
                "warning",
                "mesh-coarse",
                f"At {_nodes(coarse)} the elements disagree by up to {max(apart.values()):.0%} of the largest {what}; {taken}.",
                "Refine the mesh there, and see whether the life stays.",
            )
        )
    if what != "stress":
        failed = _failed(result) if what == "section loads" else []
        findings += [*failed, *_where(result, places), *_size(result)]
    else:
        of_stress = (
            _failed(result),
            _shells(result),
            _shear(result, places),
            _where(result, places),
            _implausible(result),
        )
        findings += [finding for some in of_stress for finding in some]
    kinds = undrawable(result.field.elements)
    if kinds:
        findings.append(
            Finding(
                "note",
                "not-drawn",
                f"Elements of the kinds {listed(kinds)} are assessed, but cannot be drawn.",
                "Look at the others, or write the nodes into a file for a viewer.",
            )
        )
    return tuple(findings)


def _failed(result: ModelResult) -> list[Finding]:
    """Nodes that a mean stress at the strength ends at once."""
    at = result.failed
    if not at.size:
        return []
    reached = np.maximum(result.values.highest, -result.values.lowest)
    worst = int(at[reached[at].argmax()])
    spot, region = result.spot_at(worst), result.region_at(worst)
    x, y, z = result.field.coordinates[worst]
    several = f"{at.size} nodes fail" if at.size > 1 else "One node fails"
    return [
        Finding(
            "severe",
            "beyond-strength",
            f"{several} at once: a mean stress reaches the strength that the {spot.assessed_by.words} goes by. Node "
            f"{result.field.node_ids[worst]} at ({x:.5g}, {y:.5g}, {z:.5g}) mm{f' of {region}' if region else ''} reaches "
            f"{reached[worst]:.4g} MPa.",
            "Their life is 0. A support, a point load, or the stress unit? Leave out what is no part of the question: leave_out.",
        )
    ]


def _shells(result: ModelResult) -> list[Finding]:
    """One stress a node on surface elements without solids: that of the middle, without bending."""
    field = result.field
    flat = [element.nodes.ravel() for element in field.elements if element.kind.rstrip("0123456789") in FLAT]
    if not flat or field.shell_face != "not stated" or result.chosen is not None:
        return []
    solid = [element.nodes.ravel() for element in field.elements if element.kind.rstrip("0123456789") in SOLIDS]
    alone = np.setdiff1d(np.concatenate(flat), np.concatenate(solid) if solid else [])
    alone = np.intersect1d(alone, result.assessed)
    if not alone.size:
        return []
    return [
        Finding(
            "severe",
            "shell-middle",
            f"{alone.size} nodes of surface elements have one stress each: if it is that of the middle surface, all bending is "
            "missing from it.",
            'Write the stresses of both faces; or say face = "middle" where that surface is meant.',
        )
    ]


def _shear(result: ModelResult, places: Sequence[HotPlace]) -> list[Finding]:
    """Places where a normal stress is counted while shear governs."""
    if result.directions is None and not result.measure.knows_direction:
        return []
    sheared = [place for place in places if place.biaxiality < SHEAR]
    if not sheared:
        return []
    least = min(one.biaxiality for one in sheared)
    curve = result.spot.assessed_by.reference
    slope = 3.0 if curve is None else max(curve.slope_at(1.001 * curve.limit), 1.0)
    return [
        Finding(
            "severe" if least < 2.0 * SHEAR else "warning",
            "shear-dominated",
            f"At {_nodes(sheared)} the second principal stress is {least:.0%} of the first: shear governs there, and a normal "
            f"stress sees {1.0 / (1.0 - least):.0%} of Tresca's, a life up to {(1.0 - least) ** slope:.3g} times too long.",
            'Compare measure = "signed Tresca" or "signed von Mises, principal".',
        )
    ]


def _where(result: ModelResult, places: Sequence[HotPlace]) -> list[Finding]:
    """Whether the worst place is one that a model often gets wrong."""
    if not places or not result.field.elements:
        return []
    worst, field = places[0], result.field
    at = field.place_of(worst.node)
    near = field.neighbours(at)
    found = []
    if result.left_out is not None and near.size and result.left_out[near].any() and field.dimension == "stress":
        found.append(
            Finding(
                "warning",
                "edge-of-part",
                f"The worst place, node {worst.node}, lies beside nodes that are left out.",
                "The stress there may still be that of the support or of the load: leave out more, or look at the mesh.",
            )
        )
    supports = np.asarray(field.node_sets.get(SUPPORTS, ()), dtype=np.int64)
    if supports.size and np.isin(np.append(near, at), supports).any():
        found.append(
            Finding(
                "warning",
                "at-support",
                f"The worst place, node {worst.node}, lies at a support of the model.",
                f"A rigid support makes stresses that no part has: leave_out = [{SUPPORTS!r}], or model what holds it.",
            )
        )
    reached = np.maximum(result.values.highest, -result.values.lowest)
    others = near if result.left_out is None else near[~result.left_out[near]]
    if others.size and float(reached[others].max()) < SINGLE * float(reached[at]):
        found.append(
            Finding(
                "warning",
                "one-node-peak",
                f"The {field.dimension} at node {worst.node} stands alone: of the nodes around it none has more than "
                f"{float(reached[others].max()) / float(reached[at]):.0%} of it.",
                "A point load, a point support or a sharp corner does that, and a finer mesh has more of it still.",
            )
        )
    return found


def _implausible(result: ModelResult) -> list[Finding]:
    """Stresses above yield, or next to none; a model as large as a house, or as small as a grain."""
    found = []
    reached = np.maximum(result.values.highest, -result.values.lowest)
    limits = np.array(
        [spot.material.yield_strength or np.inf for spot in (result.spot, *(one for _, one in result.regions))]
    )
    limit = np.full(reached.size, limits[0]) if result.region_of is None else limits[result.region_of + 1]
    above = np.flatnonzero(reached > limit)
    if above.size:
        at = int(above[reached[above].argmax()])
        found.append(
            Finding(
                "warning",
                "model-above-yield",
                f"{above.size} nodes pass the yield strength; node {result.field.node_ids[at]} reaches {reached[at]:.4g} MPa, "
                f"yield {limit[at]:.4g} MPa.",
                "Elastic stresses and S-N curves do not hold there. A point load or a sharp corner of the mesh may be the cause.",
            )
        )
    largest = float(reached.max(initial=0.0))
    if 0.0 < largest < SMALL:
        found.append(
            Finding(
                "warning",
                "stress-small",
                f"No stress passes {largest:.3g} MPa.",
                "Is the stress unit right, and the load at which the stresses were computed?",
            )
        )
    return [*found, *_size(result)]


def _size(result: ModelResult) -> list[Finding]:
    """A model as large as a house, or as small as a grain."""
    size = float(np.ptp(result.field.coordinates, axis=0).max())
    if SIZES[0] <= size <= SIZES[1] or result.field.size == 1:
        return []
    return [Finding("warning", "size-unusual", f"The model is {size:.3g} mm large.", "Is the length unit right?")]


def _nodes(places: Sequence[HotPlace]) -> str:
    return ("node " if len(places) == 1 else "nodes ") + ", ".join(str(place.node) for place in places)
