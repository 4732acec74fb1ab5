"""What an expert says of a model and its worst places."""

from __future__ import annotations

from collections.abc import Sequence

from vivid_anvil.errors import listed
from vivid_anvil.fields.hottest import HotPlace
from vivid_anvil.fields.model_result import ModelResult
from vivid_anvil.fields.node_life import COARSE
from vivid_anvil.fields.surface import undrawable
from vivid_anvil.fields.trust import NOT_PROPORTIONAL
from vivid_anvil.findings import Finding


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
                "One stress does not tell the damage there: directions turn. Look at it by planes, or by a multiaxial criterion.",
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


def _nodes(places: Sequence[HotPlace]) -> str:
    return ("node " if len(places) == 1 else "nodes ") + ", ".join(str(one.node) for one in places)
