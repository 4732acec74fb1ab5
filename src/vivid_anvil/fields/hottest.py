"""The worst places of a model: nodes by damage, neighbours taken together."""

from __future__ import annotations

from dataclasses import dataclass

import numpy as np
from scipy.spatial import cKDTree

from vivid_anvil.fields.model_result import ModelResult
from vivid_anvil.fields.node_life import WorstCycle, worst_cycle
from vivid_anvil.fields.proportionality import trust_of_nodes
from vivid_anvil.ground import checks
from vivid_anvil.ground.checks import FloatArray, IntArray
from vivid_anvil.ground.errors import InputError
from vivid_anvil.models.stress_field import Elements, StressField
from vivid_anvil.units import coherent, opened


@dataclass(frozen=True, slots=True)
class HotPlace:
    """A place among the worst: its worst node, where it is, mm, in which sets, its life, how many nodes were taken with it.

    Its worst cycle with its stresses, MPa, when it turns, s, and the direction of its principal stress; the biaxiality there and
    how far the load path is off a straight line; `region` whose curve holds, and `worst_of` which element or face was the worst;
    `by_event` is the damage of each event in a repeat, the largest first.
    """

    rank: int
    node: int
    at_mm: tuple[float, float, float]
    sets: tuple[str, ...]
    damage_per_repeat: float
    life_repeats: float
    life_years: float | None
    used_at_target: float | None
    worst_event: str
    lowest_stress_MPa: float
    highest_stress_MPa: float
    nodes_nearby: int
    region: str
    worst_of: str
    biaxiality: float
    off_straight_line: float
    worst_cycle: WorstCycle
    by_event: dict[str, float]


@opened()
def hottest_places(
    result: ModelResult,
    most: int = 10,
    *,
    apart: float | str | None = None,
    node_set: str | None = None,
    share_of_worst: float = 0.0,
    life_below: float | str | None = None,
) -> list[HotPlace]:
    """The `most` places with the largest damage; nodes closer than `apart` (mm, or text) to a worse one belong to it.

    Without `apart` that is `neighbours_within(field)`, a few edges of its elements; with 0 each node is a place of its own.

    `node_set` looks at a set only; `share_of_worst` leaves out places with less than that share of the largest damage,
    `life_below` those that live as long (repeats, or text such as "20 years"), so that none may be left. Where nothing does
    damage the places with the largest stress come instead.

    Parameters
    ----------
    result : ModelResult
        The result that is asked.
    most : int, default 10
        How many at most.
    apart : float or str, optional
        Nodes nearer than this to a worse one belong to its place, mm; by default by the mesh.
    node_set : str, optional
        A set to look at alone.
    share_of_worst : float, default 0.0
        Least share of the largest damage, -.
    life_below : float or str, optional
        Only places that live less than this: repeats, or text such as "20 years".

    Returns
    -------
    list[HotPlace]
        The places, the worst first.

    Raises
    ------
    InputError
        For a set that is not there.

    Examples
    --------
    >>> worst, = hottest_places(model, 1)  # of the demo: run_model(read_study("hanger_head.toml"))
    >>> worst.node, round(worst.life_years, 2), worst.worst_event
    (2613, 17.78, 'lap')
    """
    if not checks.real_number("hottest places, most", most) >= 1:
        raise InputError("hottest places, most", f"{most}", "one place or more")
    distance = neighbours_within(result.field) if apart is None else coherent(apart, "length", "hottest places, apart")
    least = checks.share_of_one("hottest places, share_of_worst", share_of_worst)
    values, field = result.values, result.field
    places = result.assessed if node_set is None else np.intersect1d(field.places_of(node_set), result.assessed)
    if not places.size:
        raise InputError("hottest places, node_set", f"{node_set!r}, all of it left out", "a set with nodes assessed")
    peak = np.maximum(values.highest, -values.lowest)
    order = places[np.lexsort((places, -peak[places], -values.damage[places]))]
    if least > 0.0:
        order = order[values.damage[order] >= least * values.damage[order[0]]]
    if life_below is not None:
        order = order[result.life_repeats[order] < result.duty_cycle.repeats_in(life_below)]
    leaders, nearby = _leaders(result, order, distance, most)
    names = result.event_names
    sets = {name: set(np.asarray(nodes).tolist()) for name, nodes in field.node_sets.items()}
    life, years, used = result.life_repeats, result.life_years, result.used_at_target
    trust = trust_of_nodes(result, leaders)
    return [
        HotPlace(
            rank,
            int(field.node_ids[at]),
            tuple(float(one) for one in field.coordinates[at]),  # type: ignore[arg-type]
            tuple(name for name, nodes in sets.items() if at in nodes),
            float(values.damage[at]),
            float(life[at]),
            None if years is None else float(years[at]),
            None if used is None else float(used[at]),
            names[int(values.worst_event[at])],
            float(values.lowest[at]),
            float(values.highest[at]),
            count,
            result.region_at(at),
            "" if result.chosen is None else result.chosen[at],
            float(trust.biaxiality[rank - 1]),
            float(trust.off_line[rank - 1]),
            worst_cycle(result, at),
            _by_event(result, at),
        )
        for rank, (at, count) in enumerate(zip(leaders, nearby, strict=True), 1)
    ]


def _by_event(result: ModelResult, at: int) -> dict[str, float]:
    """Damage of each event that does any at the node that stands there, the largest first."""
    damage = result.values.by_event[at]
    names = result.event_names
    return {names[i]: float(damage[i]) for i in np.argsort(-damage, kind="stable").tolist() if damage[i] > 0.0}


EDGES_TOGETHER = 3.0  # a peak at a notch spreads over about so many elements
LARGEST_PLACE = 0.1  # of the diagonal
_SAMPLED = 20_000


@opened()
def neighbours_within(field: StressField) -> float:
    """How far nodes of one hot place are apart, mm: three median edges of the elements, or steps between points.

    At most a tenth of the model's diagonal, so that a coarse mesh is not all one place.
    """
    edges = [_edges(field.coordinates, element) for element in field.elements if np.shape(element.nodes)[1] > 1]
    if edges:
        lengths = np.concatenate(edges)
    else:
        if field.size < 2:
            return 0.0
        points = field.coordinates
        lengths = np.asarray(cKDTree(points).query(points[:: max(1, len(points) // _SAMPLED)], k=2)[0])[:, 1]
    diagonal = float(np.linalg.norm(np.ptp(field.coordinates, axis=0)))
    return min(EDGES_TOGETHER * float(np.median(lengths)), LARGEST_PLACE * diagonal)


def _edges(points: FloatArray, elements: Elements) -> FloatArray:
    """For each element its shortest distance from the first node to another: an edge, or half of one with a node in it."""
    nodes = np.asarray(elements.nodes)[:: max(1, len(elements.nodes) // _SAMPLED)]
    steps = np.linalg.norm(points[nodes[:, 1:]] - points[nodes[:, :1]], axis=2)
    return np.asarray(steps.min(axis=1))


def _leaders(result: ModelResult, order: IntArray, distance: float, most: int) -> tuple[list[int], list[int]]:
    """Worst nodes that are `distance` apart, and how many others each takes with it."""
    tree = cKDTree(result.field.coordinates[order]) if distance > 0.0 else None
    taken = np.zeros(order.size, dtype=bool)
    leaders: list[int] = []
    nearby: list[int] = []
    for i, at in enumerate(order.tolist()):
        if taken[i]:
            continue
        if len(leaders) == most:
            break
        around = [i] if tree is None else tree.query_ball_point(result.field.coordinates[at], distance)
        fresh = [j for j in around if not taken[j]]
        taken[fresh] = True
        leaders.append(at)
        nearby.append(len(fresh) - 1)
    return leaders, nearby
