"""Criteria for endless life beside a life on the critical plane: whole paths against fatigue limits."""

from __future__ import annotations

from typing import TYPE_CHECKING, Any

from vivid_anvil.stress.planes.limits_used import limits_used
from vivid_anvil.stress.planes.path_places import PathLoads
from vivid_anvil.stress.planes.plane_cycles import placed
from vivid_anvil.writing.table import Column, Table

if TYPE_CHECKING:
    from vivid_anvil.damage.methods.critical_plane import CriticalPlane


def endless_life(method: CriticalPlane, life: Any) -> tuple[Table, ...]:
    """How much of the fatigue limits the largest path uses, by criteria that need no counting; none without two limits."""
    limits = method.limits
    if not limits.criteria:
        return ()
    place, factor = placed(life.hot_spot.fed), life.hot_spot.notch_factor
    loads = PathLoads.of(place.loads.events(life.duty_cycle))
    used = limits_used(loads, factor * place.unit[None], factor * place.constant[None], limits)
    names = [event.name for event, _ in life.duty_cycle.flat()]
    worst = {name: (float(each[0].max()), names[loads.event[each[0].argmax()]]) for name, each in used.items()}
    return (endless_table(worst),)


def endless_table(worst: dict[str, tuple[float, str]], *more: Column) -> Table:
    """Of each criterion the largest share of its limit, and the event of it."""
    shares = [share for share, _ in worst.values()]
    columns = (
        Column("criterion", list(worst)),
        Column("event", [event for _, event in worst.values()]),
        Column("used of the limit", shares, style="percent", alarm=[one > 1.0 for one in shares]),
        *more,
    )
    return Table("Endless life: whole paths against the fatigue limits", columns, "endless life")
