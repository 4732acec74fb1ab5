"""The one verb for checking by hand: the working of any result."""

from __future__ import annotations

from typing import Any

from vivid_anvil.ground.errors import InputError
from vivid_anvil.materials import SNCurve, curve_working
from vivid_anvil.units import UnitSystem
from vivid_anvil.writing.result import Result
from vivid_anvil.writing.working import Working


def explain(result: Any, *, units: UnitSystem = "metric") -> Working:
    """The main number of a result as numbered steps to redo by hand; print it.

    Of a life: the cycle class that does most damage. Of a growth: one step at the start. Of a study: its worst hot spot,
    or its first crack where it has no life.
    Of an S-N curve: how it was made. `units` is "metric" or "us". Raises InputError for a thing without working.
    """
    if isinstance(result, Result):
        return result.working(units)
    if isinstance(result, SNCurve):
        working: Working = curve_working(result, units)
        return working
    raise InputError("explain", f"a {type(result).__name__}", "a life, growth or study result, or an S-N curve")
