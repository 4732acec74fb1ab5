"""The one verb for checking by hand: the working of any result."""

from __future__ import annotations

from functools import singledispatch
from typing import Any

from vivid_anvil.damage import LifeResult, life_working
from vivid_anvil.ground.errors import InputError
from vivid_anvil.growth import GrowthResult, growth_working
from vivid_anvil.materials import SNCurve, curve_working
from vivid_anvil.study.study import StudyResult
from vivid_anvil.units import UnitSystem
from vivid_anvil.writing.working import Working


def explain(result: Any, *, units: UnitSystem = "metric") -> Working:
    """The main number of a result as numbered steps to redo by hand; print it.

    Of a life: the cycle class that does most damage. Of a growth: one step at the start. Of a study: its worst hot spot,
    or its first crack where it has no life.
    Of an S-N curve: how it was made. `units` is "metric" or "us". Raises InputError for a thing without working.
    """
    return _working(result, units)


@singledispatch
def _working(result: object, units: UnitSystem) -> Working:  # noqa: ARG001
    raise InputError("explain", f"a {type(result).__name__}", "a life, growth or study result, or an S-N curve")


_working.register(LifeResult, life_working)
_working.register(GrowthResult, growth_working)
_working.register(SNCurve, curve_working)


@_working.register
def _of_study(result: StudyResult, units: UnitSystem) -> Working:
    return _working(result.growths[0] if result.worst is None else result.worst, units)
