"""What is told of an S-N curve: in words, as plain numbers, and as a table of stresses at chosen lives for another program."""

from __future__ import annotations

from collections.abc import Mapping, Sequence
from typing import Any

import numpy as np

from vivid_anvil.ground.errors import InputError
from vivid_anvil.materials.curves.checks import check_life
from vivid_anvil.materials.curves.curve import Curve, SNCurve, describe
from vivid_anvil.units import DIMENSIONS, UnitSystem, display_unit, factor, number, opened, shown
from vivid_anvil.writing.plain import finding_records, plain
from vivid_anvil.writing.result import Page
from vivid_anvil.writing.table import Column, Table


@opened()
def curve_page(curve: SNCurve, units: UnitSystem = "metric", unit: str | None = None) -> Page:
    """What a curve says of itself, its stresses in `unit`, by default that of the system of units."""
    unit = display_unit("stress", units) if unit is None else unit
    one = 1.0 / factor(unit, DIMENSIONS["stress"], "curve, unit")
    survival = "not stated" if curve.survival_probability is None else f"{curve.survival_probability:g}"
    scatter = "not stated" if curve.log_life_std is None else number(curve.log_life_std, 3)
    upto = "on" if np.isinf(curve.tested_to) else f"to {number(curve.tested_to)} cycles"
    words = (
        ("Stress", f"{curve.component} stress {curve.stress}, {curve.at_r}"),
        ("Lines", describe(curve, unit, one)),
        ("Tested", f"from {number(curve.tested_from)} cycles {upto}"),
        ("Survival probability", f"{survival}; standard deviation of log10 life {scatter}"),
        ("Basis", f"{curve.basis}; {curve.source}"),
    )
    return Page(f"S-N curve {curve.name}", words, findings=curve.findings or None)


@opened()
def curve_record(curve: SNCurve) -> dict[str, Any]:
    """Everything a curve says as plain numbers and text, metric units in the names; inf as the text "inf"."""
    points = (
        Column("stress", curve.point_stresses.tolist(), of="stress"),
        Column("life", curve.point_lives.tolist(), unit="cycles"),
    )
    record: dict[str, Any] = plain(
        {
            "name": curve.name,
            "stress": curve.stress,
            "component": curve.component,
            "R": curve.r_ratio,
            "mean stress [MPa]": curve.mean_stress,
            "points": Table("", points).rows(),
            "interpolation": curve.interpolation,
            "above": curve.above,
            "below": curve.below,
            "converted": None if curve.conversion is None else curve.conversion.words,
            "tested from [cycles]": curve.tested_from,
            "tested to [cycles]": curve.tested_to,
            "survival probability": curve.survival_probability,
            "std of log10 life": curve.log_life_std,
            "basis": curve.basis,
            "source": curve.source,
            "findings": finding_records(curve.findings),
        }
    )
    return record


@opened()
def curves_table(curves: Mapping[str, Curve], units: UnitSystem) -> Table:
    """A row a curve or family, by its name in a study: where it comes from, in what it counts, its lines."""
    unit, one = display_unit("stress", units), float(shown(1.0, "stress", units))
    rows = [(name, *curve.told, curve.lines_in(unit, one)) for name, curve in curves.items()]
    heads = ("S-N curve", "basis", "stress", "lines")
    columns = tuple(Column(head, [row[i] for row in rows], left=True) for i, head in enumerate(heads))
    return Table("", columns, "curves")


@opened()
def stress_table(curves: Sequence[SNCurve], lives: Sequence[float], unit: str = "MPa") -> Table:
    """Stresses of curves at chosen lives, in `unit`, one row a life; the headings say range or amplitude, R and unit.

    Parameters
    ----------
    curves : sequence of SNCurve
        Curves, one a column.
    lives : sequence of float
        Lives, cycles, one a row.
    unit : str, default "MPa"
        Unit of the stresses.

    Returns
    -------
    Table
        The table, one column a curve.

    Raises
    ------
    InputError
        For an argument of another kind, unit or range; the message says which.

    Examples
    --------
    >>> from vivid_anvil.materials.curves.forms import straight_curve
    >>> line = straight_curve(name="l", stress="range", r_ratio=0, point_stress=90.0, point_life=2e6, slope=3)
    >>> stress_table([line], [2e6], "ksi").rows()[0]
    {'life [cycles]': 2000000.0, 'l: stress range, R = 0 [ksi]': 13.05}
    """
    one = factor(unit, DIMENSIONS["stress"], "unit of the table")
    values = [check_life("life of the table", life) for life in lives]
    columns = [Column("life", values, unit="cycles", head="Life\n", style="number", digits=6)]
    for curve in curves:
        heading = curve.heading
        if heading in [column.name for column in columns]:
            raise InputError("table of curves", f"two curves named {curve.name!r}", "a different name for each")
        head = f"{curve.name}\nstress {curve.stress}\n{curve.at_r}"
        stresses = [float(curve.stress_at(value)) / one for value in values]
        columns.append(Column(heading, stresses, unit=unit, head=head, digits=5, endless="any", zero="none"))
    return Table("", tuple(columns), "table")
