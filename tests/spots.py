"""Hot spots from flat keywords, as tests like them: one load or several, stress-life."""

import dataclasses
from collections.abc import Mapping
from typing import Any

from vivid_anvil.damage import StressLife
from vivid_anvil.stress import HotSpot, OneLoad, SeveralLoads

METHOD = tuple(one.name for one in dataclasses.fields(StressLife))


def hot_spot(**flat: Any) -> HotSpot:
    """A hot spot of `channel`, `stress_per_load`, `offset`; `curve` and the other settings of stress-life; its own fields."""
    return HotSpot(**_fields(None, flat))


def changed(spot: HotSpot, **flat: Any) -> HotSpot:
    """The hot spot with some of these changed."""
    return dataclasses.replace(spot, **_fields(spot, flat))


def _fields(spot: HotSpot | None, flat: Mapping[str, Any]) -> dict[str, Any]:
    given = dict(flat)
    if "curve" in given:
        given["sn_curve"] = given.pop("curve")
    how = {key: given.pop(key) for key in METHOD if key in given}
    loads = {key: given.pop(key) for key in ("channel", "stress_per_load", "offset") if key in given}
    if how:
        old = None if spot is None else spot.method
        given["method"] = StressLife(**how) if old is None else dataclasses.replace(old, **how)
    if loads:
        old_relation = None if spot is None else spot.relation
        kind = SeveralLoads if isinstance(loads.get("stress_per_load"), Mapping) else OneLoad
        given["relation"] = kind(**loads) if old_relation is None else dataclasses.replace(old_relation, **loads)
    return given
