"""Criteria for endless life beside a life on the critical plane: whole paths against two fatigue limits."""

from __future__ import annotations

from typing import TYPE_CHECKING, Any

import numpy as np

from vivid_anvil.ground.errors import InputError
from vivid_anvil.stress.load_corners import load_corners
from vivid_anvil.stress.planes import CRITERIA, crossland, dang_van, dang_van_constants, findley_constant
from vivid_anvil.stress.planes.plane_cycles import TensorEvent
from vivid_anvil.writing.table import Column, Table

if TYPE_CHECKING:
    from vivid_anvil.damage.methods.critical_plane import CriticalPlane

NAMES = ("dang van", "crossland", "findley")


def endless_life(method: CriticalPlane, life: Any) -> tuple[Table, ...]:
    """How much of the fatigue limits the largest path uses, by criteria that need no counting; none without both limits."""
    axial, torsion = method.axial_limit, method.torsion_limit
    if axial is None or torsion is None:
        return ()
    events = method.worst(life.hot_spot, life.duty_cycle).events
    rows = [(name, event.name, _used(name, event, float(axial), float(torsion))) for name in NAMES for event in events]
    known = [row for row in rows if row[2] is not None]
    if not known:
        return ()
    worst = [
        max((row for row in known if row[0] == name), key=lambda row: row[2] or 0.0)
        for name in dict.fromkeys(r[0] for r in known)
    ]
    columns = (
        Column("criterion", [row[0] for row in worst]),
        Column("event", [row[1] for row in worst]),
        Column(
            "used of the limit",
            [row[2] for row in worst],
            style="percent",
            alarm=[(row[2] or 0.0) > 1.0 for row in worst],
        ),
    )
    return (Table("Endless life: whole paths against the two fatigue limits", columns, "endless life"),)


def _used(name: str, event: TensorEvent, axial: float, torsion: float) -> float | None:
    """The largest path of an event by a criterion, over its limit; None where the ratio of the limits leaves none."""
    paths = [event.stress] if event.counts is None else list(event.stress.reshape(-1, 2, 6))
    return max((_of_path(name, path, axial, torsion) for path in paths), key=lambda one: one or 0.0)


def _of_path(name: str, path: np.ndarray, axial: float, torsion: float) -> float | None:
    few = load_corners(path)
    try:
        if name == "dang van":
            a, b = dang_van_constants(axial, torsion)
            return float(dang_van(few, a=a, b=b).utilisation)
        if name == "crossland":
            return float(crossland(few, axial_limit=axial, torsion_limit=torsion))
        k, limit = findley_constant(axial, torsion)
        return float(CRITERIA["findley"](k=k).worst(few)[1] / limit)  # type: ignore[call-arg]
    except InputError:  # a ratio of limits that the criterion does not take
        return None
