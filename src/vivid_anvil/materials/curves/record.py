"""An S-N curve as plain numbers and text, and as a table of stresses at chosen lives for another program."""

from __future__ import annotations

from collections.abc import Sequence
from typing import Any

import numpy as np

from vivid_anvil.ground.errors import InputError
from vivid_anvil.materials.curves.checks import check_life
from vivid_anvil.materials.curves.curve import SNCurve
from vivid_anvil.units import DIMENSIONS, factor, number, opened
from vivid_anvil.writing.plain import finding_records, plain

FEW_POINTS = 4


@opened()
def curve_record(curve: SNCurve) -> dict[str, Any]:
    """Everything a curve says, coherent units in the names; inf as the text "inf"."""
    points = zip(curve.point_stresses.tolist(), curve.point_lives.tolist(), strict=True)
    record: dict[str, Any] = plain(
        {
            "name": curve.name,
            "stress": curve.stress,
            "component": curve.component,
            "r_ratio": curve.r_ratio,
            "mean_stress_MPa": curve.mean_stress,
            "points": [{"stress_MPa": stress, "life_cycles": life} for stress, life in points],
            "interpolation": curve.interpolation,
            "above": curve.above,
            "below": curve.below,
            "converted": None if curve.conversion is None else curve.conversion.words,
            "tested_from_cycles": curve.tested_from,
            "tested_to_cycles": curve.tested_to,
            "survival_probability": curve.survival_probability,
            "log_life_std": curve.log_life_std,
            "basis": curve.basis,
            "source": curve.source,
            "findings": finding_records(curve.findings),
        }
    )
    return record


def stress_table(curves: Sequence[SNCurve], lives: Sequence[float], unit: str = "MPa") -> list[dict[str, Any]]:
    """Stresses of curves at chosen lives, in `unit`, one row a life; the headings say range or amplitude, R and unit.

    >>> from vivid_anvil.materials.curves.forms import straight_curve
    >>> line = straight_curve(name="l", stress="range", r_ratio=0, point_stress=90.0, point_life=2e6, slope=3)
    >>> stress_table([line], [2e6], "ksi")[0]
    {'life [cycles]': 2000000.0, 'l: stress range, R = 0 [ksi]': 13.05}
    """
    one = factor(unit, DIMENSIONS["stress"], "unit of the table")
    rows = []
    for life in lives:
        value = check_life("life of the table", life)
        row = {"life [cycles]": value}
        for curve in curves:
            heading = f"{curve.name}: stress {curve.stress}, {curve.at_r} [{unit}]"
            if heading in row:
                raise InputError("table of curves", f"two curves named {curve.name!r}", "a different name for each")
            row[heading] = float(curve.stress_at(value)) / one
        rows.append(row)
    return rows


@opened()
def chosen_lives(curve: SNCurve) -> list[float]:
    """The decades from 1e3 to 1e8 cycles and the lives of the points, where they are few: what a table of the curve shows."""
    decades = 10.0 ** np.arange(3, 9)
    points = curve.point_lives if curve.point_lives.size <= FEW_POINTS else curve.point_lives[[0, -1]]
    return sorted({float(number(life, 6)) for life in (*decades, *points)})
