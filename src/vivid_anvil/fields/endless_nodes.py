"""Criteria for endless life at every node of a model: how much of the fatigue limits the largest path uses, and where most."""

from __future__ import annotations

from dataclasses import dataclass

import numpy as np

from vivid_anvil.damage.methods import CriticalPlane
from vivid_anvil.damage.methods.endless_life import endless_table
from vivid_anvil.fields.model_result import ModelResult
from vivid_anvil.ground.checks import FloatArray, IntArray, read_only
from vivid_anvil.stress.planes.limits_used import FatigueLimits, limits_used
from vivid_anvil.stress.planes.path_places import PathLoads
from vivid_anvil.units import opened
from vivid_anvil.writing.table import Column, Table

CRITERIA = ("dang van", "crossland", "sines")  # those by invariants; planes are the method's own


@dataclass(frozen=True, eq=False)
class EndlessNodes:
    """By criterion the share of the fatigue limit that each node uses, shape (n,), and the number of the event of it.

    nan, and -1, at nodes that are left out, and where no limits are stated.
    """

    result: ModelResult
    used: dict[str, FloatArray]
    event: dict[str, IntArray]

    @property
    def table(self) -> Table:
        """Of each criterion the node that uses most, and how many are beyond the limit."""
        ids, names = self.result.field.node_ids, self.result.event_names
        at = {name: int(np.nanargmax(each)) for name, each in self.used.items()}
        worst = {name: (float(self.used[name][k]), names[self.event[name][k]]) for name, k in at.items()}
        beyond = [int((each > 1.0).sum()) for each in self.used.values()]
        where = Column("node", [int(ids[k]) for k in at.values()])
        return endless_table(worst, where, Column("nodes beyond it", beyond))


@opened()
def endless_life_of_nodes(result: ModelResult) -> EndlessNodes | None:
    """Dang Van, Crossland and Sines at every node of an assessed model; None where no critical plane there has two limits.

    Parameters
    ----------
    result : ModelResult
        A model by critical planes whose method states fatigue limits.

    Returns
    -------
    EndlessNodes or None
        The share of the limit at each node by each criterion, and its event.

    Raises
    ------
    InputError
        For an argument of another kind; the message says which.

    Examples
    --------
    >>> endless_life_of_nodes(model) is None  # of the demo: by stress-life, which has no such limits
    True
    """
    spots = [result.spot, *(own for _, own in result.regions)]
    limits = [_limits(spot.assessed_by) for spot in spots]
    names = [name for name in CRITERIA if any(name in one.criteria for one in limits)]
    if not names:
        return None
    size = result.field.size
    used = {name: np.full(size, np.nan) for name in names}
    event = {name: np.full(size, -1) for name in names}
    units, constants = result.loads.units(result.field), result.loads.constants(result.field)
    loads = PathLoads.of(result.loads.events(result.duty_cycle))
    region = np.full(size, -1) if result.region_of is None else result.region_of
    assessed = np.ones(size, dtype=bool) if result.left_out is None else ~result.left_out
    for number, (spot, own) in enumerate(zip(spots, limits, strict=True)):
        places = np.flatnonzero(assessed & (region == number - 1))
        factor = spot.notch_factor
        for name, each in limits_used(loads, factor * units[places], factor * constants[places], own, CRITERIA).items():
            if not places.size:
                continue
            used[name][places], event[name][places] = each.max(axis=1), loads.event[each.argmax(axis=1)]
    known = [name for name, each in used.items() if not np.isnan(each).all()]  # a region may hold no node
    if not known:
        return None
    frozen = {name: read_only(used[name]) for name in known}
    return EndlessNodes(result, frozen, {name: np.asarray(read_only(event[name])) for name in known})


def _limits(method: object) -> FatigueLimits:
    return method.limits if isinstance(method, CriticalPlane) else FatigueLimits()
