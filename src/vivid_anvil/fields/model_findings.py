"""What an expert says of a model and its worst places."""

from __future__ import annotations

from collections.abc import Sequence

import numpy as np

from vivid_anvil.errors import listed
from vivid_anvil.fields.hottest import HotPlace
from vivid_anvil.fields.model_result import ModelResult
from vivid_anvil.fields.surface import undrawable
from vivid_anvil.fields.trust import NOT_PROPORTIONAL
from vivid_anvil.findings import Finding
from vivid_anvil.units import opened

COARSE = 0.1  # of the largest von Mises stress
SMALL = 0.1  # MPa
SIZES = (0.5, 50_000.0)  # mm


@opened()
def model_findings(result: ModelResult, places: Sequence[HotPlace]) -> tuple[Finding, ...]:
    """Findings of the worst `places`: stresses that do not move in step, elements that disagree; kinds that cannot be drawn."""
    found = []
    turning = [one for one in places if one.off_straight_line > NOT_PROPORTIONAL]
    if turning and result.directions is None:
        most = max(one.off_straight_line for one in turning)
        found.append(
            Finding(
                "warning",
                "not-proportional",
                f"At {_nodes(turning)} the components of the stress do not move in step: up to {most:.0%} off a straight line.",
                'One stress does not tell the damage there: directions turn. Try measure = "normal stress, critical plane".',
            )
        )
    spread = result.field.spread
    apart = {} if spread is None else {one.node: float(spread[result.field.place_of(one.node)]) for one in places}
    coarse = [one for one in places if apart.get(one.node, 0.0) > COARSE]
    if coarse:
        taken = (
            "their mean was taken"
            if result.chosen is None or "element" not in coarse[0].worst_of
            else "the worst was taken"
        )
        found.append(
            Finding(
                "warning",
                "mesh-coarse",
                f"At {_nodes(coarse)} the elements disagree by up to {max(apart.values()):.0%} of the largest stress; {taken}.",
                "Refine the mesh there, and see whether the life stays.",
            )
        )
    found += _implausible(result)
    kinds = undrawable(result.field.elements)
    if kinds:
        found.append(
            Finding(
                "note",
                "not-drawn",
                f"Elements of the kinds {listed(kinds)} are assessed, but cannot be drawn.",
                "Look at the others, or write the nodes into a file for a viewer.",
            )
        )
    return tuple(found)


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
    size = float(np.ptp(result.field.coordinates, axis=0).max())
    if not SIZES[0] <= size <= SIZES[1] and result.field.size > 1:
        found.append(
            Finding("warning", "size-unusual", f"The model is {size:.3g} mm large.", "Is the length unit right?")
        )
    return found


def _nodes(places: Sequence[HotPlace]) -> str:
    return ("node " if len(places) == 1 else "nodes ") + ", ".join(str(one.node) for one in places)
