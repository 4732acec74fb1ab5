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
    "vivid_anvil.errors": ["InputError"],
    "vivid_anvil.findings": ["Finding"],
    "vivid_anvil.working": ["Step", "Working"],
    "vivid_anvil.working_latex": ["working_in_latex"],
    "vivid_anvil.histories": [
        "Channel",
        "ConstantAmplitude",
        "Cycles",
        "DutyCycle",
        "Event",
        "LoadHistory",
        "LoadStates",
        "rainflow",
        "read_csv",
        "turning_points",
    ],
    "vivid_anvil.materials": [
        "GrowthLaw",
        "Material",
        "SNCurve",
        "SNFamily",
        "SpecimenSeries",
        "at_survival",
        "basquin_curve",
        "compare_fits",
        "detail_curve",
        "estimate_curve",
        "fit_likelihood",
        "fit_line",
        "in_terms_of",
        "intercept_curve",
        "knee_curve",
        "read_card",
        "read_card_named",
        "read_specimens",
        "sloped_curve",
        "staircase",
        "straight_curve",
        "stress_table",
        "table_curve",
    ],
    "vivid_anvil.stress": ["HotSpot"],
    "vivid_anvil.damage": ["LifeResult", "assess_life", "curve_at_r"],
    "vivid_anvil.cracks": ["CentreCrack", "Crack", "EdgeCrack", "GrowthResult", "grow_crack"],
    "vivid_anvil.study": ["Study", "StudyResult", "explain", "read_study", "run_study"],
    "vivid_anvil.figures": ["plot", "save_figure"],
}
_HOME_OF = {name: home for home, names in _HOMES.items() for name in names}

__all__ = [*_HOME_OF, "__version__"]


def __getattr__(name: str) -> Any:
    if name == "__version__":
        from importlib.metadata import version  # takes as long as all of the rest

        return version("vivid-anvil")
    if name not in _HOME_OF:
        raise AttributeError(f"module 'vivid_anvil' has no attribute {name!r}")
    value = getattr(importlib.import_module(_HOME_OF[name]), name)
    globals()[name] = value
    return value


def __dir__() -> list[str]:
    return sorted([*globals(), *_HOME_OF])


if TYPE_CHECKING:
    from vivid_anvil.cracks import CentreCrack, Crack, EdgeCrack, GrowthResult, grow_crack
    from vivid_anvil.damage import LifeResult, assess_life
    from vivid_anvil.damage.curve_at_r import curve_at_r
    from vivid_anvil.errors import InputError
    from vivid_anvil.figures.plot import plot
    from vivid_anvil.figures.style import save_figure
    from vivid_anvil.findings import Finding
    from vivid_anvil.histories import Channel, ConstantAmplitude, Cycles, DutyCycle, Event, LoadHistory, LoadStates
    from vivid_anvil.histories.rainflow import rainflow
    from vivid_anvil.histories.read_csv import read_csv
    from vivid_anvil.histories.turning_points import turning_points
    from vivid_anvil.materials import (
        GrowthLaw,
        Material,
        SNCurve,
        SNFamily,
        SpecimenSeries,
        at_survival,
        basquin_curve,
        compare_fits,
        detail_curve,
        estimate_curve,
        in_terms_of,
        intercept_curve,
        knee_curve,
        read_card,
        read_card_named,
        read_specimens,
        sloped_curve,
        straight_curve,
        stress_table,
        table_curve,
    )
    from vivid_anvil.materials.fit_likelihood import fit_likelihood
    from vivid_anvil.materials.fit_line import fit_line
    from vivid_anvil.materials.staircase import staircase
    from vivid_anvil.stress import HotSpot
    from vivid_anvil.study import Study, StudyResult, run_study
    from vivid_anvil.study.explain import explain
    from vivid_anvil.study.read_study import read_study
    from vivid_anvil.working import Step, Working
    from vivid_anvil.working_latex import working_in_latex
