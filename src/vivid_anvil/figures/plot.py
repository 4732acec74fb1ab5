"""The one verb for looking: draw any result, history, table of cycles or curve."""

from __future__ import annotations

from functools import singledispatch
from typing import Any

from matplotlib.axes import Axes
from matplotlib.figure import Figure
from matplotlib.text import Text

from vivid_anvil.acceptance import (
    AllowableFlaws,
    Characterised,
    CrackFront,
    FlawAssessment,
    FlawGrowth,
    FlawList,
    FlawLooks,
    FrontAssessment,
    LimitingSizes,
    Sensitivity,
    Tearing,
)
from vivid_anvil.counting import CycleMatrix, Cycles, TailFit
from vivid_anvil.damage import DamageMatrix, DamageOverTime, LifeResult, ResponseView, RuleComparison, VibrationView
from vivid_anvil.events import GatedHistory
from vivid_anvil.fields import ModelView
from vivid_anvil.figures.crack_figures import (
    course_figure,
    growth_fit_figure,
    law_figure,
    shape_figure,
    sizes_figure,
    visited_figure,
)
from vivid_anvil.figures.curve_figure import curve_figure, curves_figure, refuse_mixture
from vivid_anvil.figures.cycles_figure import cycles_figure
from vivid_anvil.figures.damage_over_time_figure import damage_matrix_figure, over_time_figure
from vivid_anvil.figures.family_figure import family_figure
from vivid_anvil.figures.fit_figure import fit_figure, staircase_figure
from vivid_anvil.figures.flaw_figures import (
    allowable_figure,
    flaw_figure,
    flaw_growth_figure,
    flaws_figure,
    front_figure,
    limiting_figure,
    tearing_figure,
)
from vivid_anvil.figures.growth_figure import growth_figure, plan_figure
from vivid_anvil.figures.history_figure import gated_figure, history_figure
from vivid_anvil.figures.laminate_figure import laminate_figure
from vivid_anvil.figures.life_figure import life_figure
from vivid_anvil.figures.local_strain_figure import local_strain_figure
from vivid_anvil.figures.looks_figures import (
    assessed_front_figure,
    characterised_figure,
    looks_figure,
    sensitivity_figure,
)
from vivid_anvil.figures.matrix_figure import matrix_figure
from vivid_anvil.figures.model_figure import model_figure
from vivid_anvil.figures.overlay_figure import overlay_figure
from vivid_anvil.figures.places_figure import places_figure
from vivid_anvil.figures.plane_figure import plane_figure
from vivid_anvil.figures.rubber_figure import rubber_figure
from vivid_anvil.figures.rubber_law_figures import hyperelastic_figure, tearing_fit_figure
from vivid_anvil.figures.rules_figure import rules_figure
from vivid_anvil.figures.strain_life_figure import strain_life_figure, strain_life_fit_figure
from vivid_anvil.figures.style import in_place_of, styled
from vivid_anvil.figures.tail_figure import tail_figure
from vivid_anvil.figures.tidy import tidy
from vivid_anvil.figures.vibration_figures import (
    coverage_figure,
    psd_estimate_figure,
    response_figure,
    tailored_figure,
    vibration_figure,
)
from vivid_anvil.figures.what_if_figure import flaws_what_if_figure, what_if_figure
from vivid_anvil.ground.errors import InputError
from vivid_anvil.growth import CrackCourse, GrowthResult, InspectionPlan, SizeLives, VisitedLaw
from vivid_anvil.histories import LoadHistory, PSDEstimate
from vivid_anvil.materials import (
    GrowthFit,
    GrowthLaw,
    LikelihoodFit,
    LineFit,
    SNCurve,
    SNFamily,
    SpecimenSeries,
    Staircase,
)
from vivid_anvil.materials.rubber import HyperelasticFit, TearingFit
from vivid_anvil.materials.strain import StrainLife, StrainLifeFit
from vivid_anvil.shapes import Shape
from vivid_anvil.study import AllPlaces, FlawsWhatIf, WhatIf
from vivid_anvil.tailoring import Coverage, TailoredTest
from vivid_anvil.units import UnitSystem, opened


@opened()
def plot(thing: Any, *, units: UnitSystem = "metric", ax: Axes | None = None) -> Figure:
    """A figure, 1280x800, of a noun or a result.

    Of a load history or several, cycles, a matrix, S-N curves with tests, a family, a fit, a life or a growth result, a crack's
    shape, law, course, initial sizes or inspection plan, a model from a side, vibration and its tests, flaws and their growth.

    `units` is "metric" or "us". With `ax`, a subplot of your own figure, it is drawn in its place, and is the part of the figure
    that stands there. Save it with `save_figure`.

    Parameters
    ----------
    thing : any
        A noun or a result.
    units : UnitSystem, default "metric"
        Units of the axes.
    ax : Axes, optional
        Axes to draw in; a figure of its own without.

    Returns
    -------
    Figure
        The figure; `save_figure` writes it.

    Raises
    ------
    InputError
        For a thing that has no figure.

    Examples
    --------
    >>> from vivid_anvil.counting import rainflow
    >>> figure = plot(rainflow([0.0, 120.0, 20.0, 80.0, 0.0]))
    >>> [axes.get_xlabel() for axes in figure.axes[:2]]
    ['Mean stress [MPa]', 'Cycles that reach or pass the range']
    """
    if ax is not None and not isinstance(ax, Axes):
        raise InputError("plot, ax", f"a {type(ax).__name__}", "axes of a figure of your own")
    with styled(), in_place_of(ax):
        figure = _draw(thing, units)
    for text in figure.findobj(Text):
        text.set_parse_math("$" not in text.get_text().replace("$\\mathdefault", ""))  # a $ in a name is a $
    tidy(figure)
    return figure


@singledispatch
def _draw(thing: object, units: UnitSystem) -> Figure:  # noqa: ARG001
    raise InputError(
        "plot",
        f"a {type(thing).__name__}",
        "a LoadHistory, an SNCurve or a list of them, GatedHistory, Cycles, CycleMatrix, TailFit, SNFamily, a fit, Staircase, "
        "HyperelasticFit, TearingFit, LifeResult, StrainLife, "
        "GrowthResult, a crack shape, GrowthLaw, VisitedLaw, CrackCourse, SizeLives, InspectionPlan, "
        "ModelView, VibrationView, ResponseView, PSDEstimate, Coverage, TailoredTest, FlawAssessment, FlawGrowth, "
        "FlawLooks, FlawList, AllPlaces, Characterised, Sensitivity, LimitingSizes, AllowableFlaws, CrackFront or Tearing",
        "Of a study result, plot one of its lives or growths.",
    )


def _several(things: list[Any] | tuple[Any, ...], units: UnitSystem) -> Figure:
    if any(isinstance(thing, SNCurve | SpecimenSeries) for thing in things):
        refuse_mixture(things)
        return curves_figure(things, units)
    return overlay_figure(things, units)


_draw.register(LoadHistory, history_figure)
_draw.register(GatedHistory, gated_figure)
_draw.register(CycleMatrix, matrix_figure)
_draw.register(TailFit, tail_figure)
_draw.register(list, _several)
_draw.register(tuple, _several)
_draw.register(SNFamily, family_figure)
_draw.register(LineFit, fit_figure)
_draw.register(LikelihoodFit, fit_figure)
_draw.register(Staircase, staircase_figure)
_draw.register(Cycles, cycles_figure)
_draw.register(SNCurve, curve_figure)
OF_METHODS = {
    "local strain": local_strain_figure,
    "critical plane": plane_figure,
    "strain on planes": plane_figure,
    "cracking energy": rubber_figure,
    "ply fatigue": laminate_figure,
}


@_draw.register
def _life(result: LifeResult, units: UnitSystem) -> Figure:
    """A life in the figure of its method."""
    return OF_METHODS.get(result.method.kind, life_figure)(result, units)


_draw.register(HyperelasticFit, hyperelastic_figure)
_draw.register(TearingFit, tearing_fit_figure)
_draw.register(StrainLife, strain_life_figure)
_draw.register(StrainLifeFit, strain_life_fit_figure)
_draw.register(RuleComparison, rules_figure)
_draw.register(WhatIf, what_if_figure)
_draw.register(FlawsWhatIf, flaws_what_if_figure)
_draw.register(DamageOverTime, over_time_figure)
_draw.register(DamageMatrix, damage_matrix_figure)
_draw.register(GrowthResult, growth_figure)
_draw.register(InspectionPlan, plan_figure)
_draw.register(GrowthLaw, law_figure)
_draw.register(VisitedLaw, visited_figure)
_draw.register(CrackCourse, course_figure)
_draw.register(SizeLives, sizes_figure)
_draw.register(Shape, shape_figure)
_draw.register(GrowthFit, growth_fit_figure)
_draw.register(ModelView, model_figure)
_draw.register(VibrationView, vibration_figure)
_draw.register(ResponseView, response_figure)
_draw.register(PSDEstimate, psd_estimate_figure)
_draw.register(Coverage, coverage_figure)
_draw.register(TailoredTest, tailored_figure)
_draw.register(FlawAssessment, flaw_figure)
_draw.register(FlawGrowth, flaw_growth_figure)
_draw.register(LimitingSizes, limiting_figure)
_draw.register(AllowableFlaws, allowable_figure)
_draw.register(FlawList, flaws_figure)
_draw.register(Tearing, tearing_figure)
_draw.register(CrackFront, front_figure)
_draw.register(FrontAssessment, assessed_front_figure)
_draw.register(Sensitivity, sensitivity_figure)
_draw.register(FlawLooks, looks_figure)
_draw.register(Characterised, characterised_figure)
_draw.register(AllPlaces, places_figure)
