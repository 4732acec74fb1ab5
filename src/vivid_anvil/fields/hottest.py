"""The worst places of a model: nodes by damage, neighbours taken together."""

from __future__ import annotations

from dataclasses import dataclass
from typing import Any

import numpy as np
from scipy.spatial import cKDTree

from vivid_anvil import checks
from vivid_anvil.checks import IntArray
from vivid_anvil.errors import InputError
from vivid_anvil.fields.model_result import ModelResult
from vivid_anvil.fields.node_life import WorstCycle, worst_cycle
from vivid_anvil.fields.trust import trust_of_nodes
from vivid_anvil.units import coherent, opened


@dataclass(frozen=True, slots=True)
class HotPlace:
    """A place among the worst: its worst node, where it is, mm, in which sets, its life, how many nodes were taken with it.

    Its worst cycle with its stresses, MPa, when it turns, s, and the direction of its principal stress; the biaxiality there and
    how far the load path is off a straight line; `region` whose curve holds, and `worst_of` which element or face was the worst.
    """

    rank: int
    node: int
    at_mm: tuple[float, float, float]
    sets: tuple[str, ...]
    damage_per_repeat: float
    life_repeats: float
    life_years: float | None
    worst_event: str
    lowest_stress_MPa: float
    highest_stress_MPa: float
    nodes_nearby: int
    region: str
    worst_of: str
    biaxiality: float
    off_straight_line: float
    worst_cycle: WorstCycle

    def to_row(self) -> dict[str, Any]:
        """As a row of a table."""
        row = {name: getattr(self, name) for name in self.__slots__ if name not in ("at_mm", "worst_cycle")}
        cycle = {f"worst_cycle_{name}": value for name, value in self.worst_cycle._asdict().items()}
        along = cycle.pop("worst_cycle_direction")
        cycle |= {f"worst_cycle_direction_{axis}": one for axis, one in zip("xyz", along, strict=True)}
        places = dict(zip(("x_mm", "y_mm", "z_mm"), self.at_mm, strict=True))
        return {**row, **cycle, **places, "sets": ", ".join(self.sets)}


@opened()
def hottest_places(
    result: ModelResult,
    most: int = 10,
    *,
    apart: float | str = 0.0,
    node_set: str | None = None,
    share_of_worst: float = 0.0,
    life_below: float | str | None = None,
) -> list[HotPlace]:
    """The `most` places with the largest damage; nodes closer than `apart` (mm, or text) to a worse one belong to it.

    `node_set` looks at a set only; `share_of_worst` leaves out places with less than that share of the largest damage,
    `life_below` those that live as long (repeats, or text such as "20 years"), so that none may be left. Where nothing does
    damage the places with the largest stress come instead. Raises InputError for a set that is not there.
    """
    if not checks.real_number("hottest places, most", most) >= 1:
        raise InputError("hottest places, most", f"{most}", "one place or more")
    distance = coherent(apart, "length", "hottest places, apart")
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
    life, years = result.life_repeats, result.life_years
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
            names[int(values.worst_event[at])],
            float(values.lowest[at]),
            float(values.highest[at]),
            count,
            result.region_at(at),
            "" if result.chosen is None else result.chosen[at],
            float(trust.biaxiality[rank - 1]),
            float(trust.off_line[rank - 1]),
            worst_cycle(result, at),
        )
        for rank, (at, count) in enumerate(zip(leaders, nearby, strict=True), 1)
    ]


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
