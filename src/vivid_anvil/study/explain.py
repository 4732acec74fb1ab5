"""The one verb for checking by hand: the working of any result."""

from __future__ import annotations

from typing import Any

from vivid_anvil.ground.errors import InputError
from vivid_anvil.materials import SNCurve, curve_working
from vivid_anvil.units import UnitSystem, opened
from vivid_anvil.writing.result import Result
from vivid_anvil.writing.working import Working


@opened()
def explain(result: Any, *, units: UnitSystem = "metric") -> Working:
    """The main number of a result as numbered steps to redo by hand; print it.

    Of a life: the cycle class that does most damage. Of a growth: one step at the start. Of a study: its worst hot spot, or its
    first crack where it has no life. Of an S-N curve: how it was made. `units` is "metric" or "us".

    Parameters
    ----------
    result : any
        A life, a growth, a study, a model, an S-N curve.
    units : UnitSystem, default "metric"
        Units of the numbers shown.

    Returns
    -------
    Working
        The steps; `print` shows them.

    Raises
    ------
    InputError
        For a thing without working.

    Examples
    --------
    >>> print(explain(result.lives[0]).steps[0])  # of the demo: run_study(read_study('larkfell.toml'))
    Stress range at the knee, from the class at 2e6 cycles
        ΔS_k = ΔS_C × (N_C / N_k)^(1/m)
             = 71 MPa × (2e6 / 5e6)^(1 / 3)
             = 52.313 MPa
        (EN 1993-1-9:2005, 7.1)
    """
    if isinstance(result, Result):
        return result.working(units)
    if isinstance(result, SNCurve):
        working: Working = curve_working(result, units)
        return working
    raise InputError("explain", f"a {type(result).__name__}", "a life, growth or study result, or an S-N curve")
