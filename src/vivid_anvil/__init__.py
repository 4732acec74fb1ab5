"""Fatigue life and crack growth from load histories, with every number open to a hand check.

>>> import vivid_anvil
>>> cycles = vivid_anvil.rainflow([0.0, 120.0, 20.0, 80.0, 0.0])
>>> cycles
<Cycles: 2 cycles, largest range 120 MPa>

Names are loaded when they are first used, so that importing the package, and the command's help, answer at once.
"""

from __future__ import annotations

import importlib
from typing import TYPE_CHECKING, Any

_HOMES = {
    "vivid_anvil.ground.errors": ["InputError"],
    "vivid_anvil.writing.finding": ["Finding"],
    "vivid_anvil.writing.working": ["Step", "Working"],
    "vivid_anvil.writing.latex": ["working_in_latex"],
    "vivid_anvil.histories": ["Channel", "LoadHistory", "history_from_frame", "read_csv"],
    "vivid_anvil.events": ["ConstantAmplitude", "DutyCycle", "Event", "LoadStates"],
    "vivid_anvil.counting": ["Cycles", "rainflow", "turning_points"],
    "vivid_anvil.materials": [
        "GrowthLaw",
        "ParisLaw",
        "WalkerLaw",
        "Material",
        "SNCurve",
        "Palmgren",
        "SNFamily",
        "Stromeyer",
        "SpecimenSeries",
        "at_survival",
        "basquin_curve",
        "compare_fits",
        "curve_at_r",
        "curved_curve",
        "detail_curve",
        "estimate_curve",
        "fit_likelihood",
        "fit_line",
        "in_terms_of",
        "intercept_curve",
        "knee_curve",
        "read_specimens",
        "sloped_curve",
        "staircase",
        "straight_curve",
        "stress_table",
        "table_curve",
    ],
    "vivid_anvil.stress": [
        "CaseLoad",
        "CaseLoads",
        "HotSpot",
        "OneLoad",
        "SeveralLoads",
        "UnitStresses",
        "read_unit_stresses",
        "stresses_of_rosette",
    ],
    "vivid_anvil.damage": ["LifeResult", "StressLife", "assess_life"],
    "vivid_anvil.shapes": ["CentreCrack", "EdgeCrack"],
    "vivid_anvil.growth": ["Crack", "GrowthResult", "grow_crack"],
    "vivid_anvil.study": ["Study", "StudyResult", "explain", "read_card", "read_card_named", "read_study", "run_study"],
    "vivid_anvil.figures": ["plot", "save_figure"],
}
_PACKAGES = (
    *("ground", "units", "writing", "counting", "histories", "events", "shapes", "materials"),
    *("stress", "damage", "growth", "models", "fields", "study", "figures"),
)
_HOME_OF = {name: home for home, names in _HOMES.items() for name in names}

__all__ = [*_HOME_OF, "__version__"]


def __getattr__(name: str) -> Any:
    if name == "__version__":
        from importlib.metadata import version  # takes as long as all of the rest

        return version("vivid-anvil")
    if name in _PACKAGES:
        return importlib.import_module(f"vivid_anvil.{name}")
    if name not in _HOME_OF:
        raise AttributeError(f"module 'vivid_anvil' has no attribute {name!r}")
    value = getattr(importlib.import_module(_HOME_OF[name]), name)
    globals()[name] = value
    return value


def __dir__() -> list[str]:
    return sorted([*_PACKAGES, *__all__])


if TYPE_CHECKING:
    from vivid_anvil.counting.cycles import Cycles
    from vivid_anvil.counting.rainflow import rainflow
    from vivid_anvil.counting.turning_points import turning_points
    from vivid_anvil.damage.assess import assess_life
    from vivid_anvil.damage.life import LifeResult
    from vivid_anvil.damage.methods.stress_life import StressLife
    from vivid_anvil.events.duty_cycle import DutyCycle, Event
    from vivid_anvil.events.equal_cycles import ConstantAmplitude
    from vivid_anvil.events.load_states import LoadStates
    from vivid_anvil.figures.plot import plot
    from vivid_anvil.figures.style import save_figure
    from vivid_anvil.ground.errors import InputError
    from vivid_anvil.growth.crack import Crack
    from vivid_anvil.growth.grow import grow_crack
    from vivid_anvil.growth.result import GrowthResult
    from vivid_anvil.histories.channel import Channel
    from vivid_anvil.histories.from_frame import history_from_frame
    from vivid_anvil.histories.load_history import LoadHistory
    from vivid_anvil.histories.read_csv import read_csv
    from vivid_anvil.materials.curves.asymptotic import Palmgren, Stromeyer
    from vivid_anvil.materials.curves.at_r import curve_at_r
    from vivid_anvil.materials.curves.convert import at_survival, in_terms_of
    from vivid_anvil.materials.curves.curve import SNCurve
    from vivid_anvil.materials.curves.detail_class import detail_curve
    from vivid_anvil.materials.curves.estimate import estimate_curve
    from vivid_anvil.materials.curves.family import SNFamily
    from vivid_anvil.materials.curves.forms import (
        basquin_curve,
        curved_curve,
        intercept_curve,
        knee_curve,
        sloped_curve,
        straight_curve,
        table_curve,
    )
    from vivid_anvil.materials.curves.page import stress_table
    from vivid_anvil.materials.fits.fit_likelihood import compare_fits, fit_likelihood
    from vivid_anvil.materials.fits.fit_line import fit_line
    from vivid_anvil.materials.fits.specimens import SpecimenSeries, read_specimens
    from vivid_anvil.materials.fits.staircase import staircase
    from vivid_anvil.materials.laws.law import GrowthLaw
    from vivid_anvil.materials.laws.paris import ParisLaw
    from vivid_anvil.materials.laws.walker import WalkerLaw
    from vivid_anvil.materials.material import Material
    from vivid_anvil.shapes.one_size import CentreCrack, EdgeCrack
    from vivid_anvil.stress.hot_spot import HotSpot
    from vivid_anvil.stress.relations.case_loads import CaseLoad, CaseLoads
    from vivid_anvil.stress.relations.one_load import OneLoad
    from vivid_anvil.stress.relations.read_unit_stresses import read_unit_stresses
    from vivid_anvil.stress.relations.rosette import stresses_of_rosette
    from vivid_anvil.stress.relations.several_loads import SeveralLoads
    from vivid_anvil.stress.relations.unit_stresses import UnitStresses
    from vivid_anvil.study.cards import read_card, read_card_named
    from vivid_anvil.study.explain import explain
    from vivid_anvil.study.read_study import read_study
    from vivid_anvil.study.run import run_study
    from vivid_anvil.study.study import Study
    from vivid_anvil.study.study_result import StudyResult
    from vivid_anvil.writing.finding import Finding
    from vivid_anvil.writing.latex import working_in_latex
    from vivid_anvil.writing.working import Step, Working
