"""Which noun or result is shown how on a page."""

from __future__ import annotations

from functools import singledispatch
from typing import Any

from vivid_anvil.acceptance import FlawAssessment, FlawGrowth, FlawList
from vivid_anvil.counting import CycleMatrix, Cycles
from vivid_anvil.damage import DamageOverTime, LifeResult
from vivid_anvil.events import GatedHistory
from vivid_anvil.fields import ModelView
from vivid_anvil.growth import GrowthResult, InspectionPlan
from vivid_anvil.histories import LoadHistory
from vivid_anvil.materials import SNCurve
from vivid_anvil.pages.curve_live import curve_live, curves_live, life_live
from vivid_anvil.pages.flaw_live import flaw_growth_live, flaw_live, flaws_live
from vivid_anvil.pages.growth_live import growth_live
from vivid_anvil.pages.history_live import gated_live, history_live, over_time_live
from vivid_anvil.pages.live import Live
from vivid_anvil.pages.matrix_live import cycles_live, matrix_live
from vivid_anvil.pages.model_live import model_live
from vivid_anvil.pages.places_live import places_live
from vivid_anvil.study import AllPlaces
from vivid_anvil.units import UnitSystem, opened


@opened()
def live(thing: Any, *, units: UnitSystem = "metric") -> Live | None:
    """A figure to look around in of a noun or a result; None where there is only a still one, which `plot` draws.

    Of a load history, cycles, a matrix, S-N curves, a life, the damage over time, the growth of a crack, flaws, a model.

    Parameters
    ----------
    thing : any
        A noun or a result.
    units : UnitSystem, default "metric"
        Units of the axes.

    Returns
    -------
    Live, optional
        The figure, which `write_page` puts into a page.

    Raises
    ------
    InputError
        Where the extra "pages" is not installed.

    Examples
    --------
    >>> live(result.lives[0]).title  # result of the demo
    'Weld toe at the grip head: life 27.86 years, fails the target'
    """
    return _live(thing, units)


@singledispatch
def _live(thing: object, units: UnitSystem) -> Live | None:  # noqa: ARG001
    return None


def _several(things: list[Any] | tuple[Any, ...], units: UnitSystem) -> Live | None:
    curves = all(isinstance(thing, SNCurve) for thing in things)
    return curves_live(things, units) if curves and things else None


def _plan(plan: InspectionPlan, units: UnitSystem) -> Live:
    return growth_live(plan.result, units)


_live.register(LoadHistory, history_live)
_live.register(GatedHistory, gated_live)
_live.register(DamageOverTime, over_time_live)
_live.register(Cycles, cycles_live)
_live.register(CycleMatrix, matrix_live)
_live.register(SNCurve, curve_live)
_live.register(list, _several)
_live.register(tuple, _several)
_live.register(LifeResult, life_live)
_live.register(GrowthResult, growth_live)
_live.register(InspectionPlan, _plan)
_live.register(FlawAssessment, flaw_live)
_live.register(FlawGrowth, flaw_growth_live)
_live.register(FlawList, flaws_live)
_live.register(ModelView, model_live)
_live.register(AllPlaces, places_live)
