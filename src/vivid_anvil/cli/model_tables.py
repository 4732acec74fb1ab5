"""A model's result as tables: what was assessed, and its worst places."""

from __future__ import annotations

import math
from collections.abc import Sequence

from rich.console import Group, RenderableType

from vivid_anvil.cli.tables import edgeless, indented, table
from vivid_anvil.fields import HotPlace, ModelResult, Trust
from vivid_anvil.units import UnitSystem, display_unit, fixed, number, shown


def facts(result: ModelResult, trust: Trust, units: UnitSystem) -> RenderableType:  # noqa: ARG001 (nothing has a unit)
    """What was assessed, and how far one stress can be trusted at the worst node."""
    field, spot = result.field, result.spot
    counted = int(result.values.counted.sum())
    curve = "none" if spot.curve is None else spot.curve.name
    lines = [
        f"{field.size} nodes of {field.source}; load cases {', '.join(field.cases)}; measure: {result.measure.name}.",
        f"Curve {curve}, Kf = {spot.notch_factor:g}, mean stress {spot.mean_stress}. "
        f"{field.size - counted} nodes shown to be harmless without counting.",
        f"At the worst node: biaxiality {trust.biaxiality:.2f}, load path {trust.off_line:.1%} off a straight line.",
    ]
    return Group(*(indented(line) for line in lines))


def places_table(places: Sequence[HotPlace], reserves: Sequence[float | None], units: UnitSystem) -> RenderableType:
    """The worst places, the worst first."""
    length, stress = display_unit("length", units), display_unit("stress", units)
    made = table(
        "", "Node", f"x, y, z [{length}]", "Life [years]", "Reserve", f"Highest [{stress}]", "Worst event", "Near"
    )
    made.columns[2].no_wrap = True
    digits = 1 if units == "metric" else 3
    for one, reserve in zip(places, reserves, strict=True):
        at = ", ".join(f"{float(shown(value, 'length', units)) + 0.0:.{digits}f}" for value in one.at_mm)
        life = "no damage" if math.isinf(one.life_years) else number(one.life_years)
        factor = "-" if reserve is None else "no limit" if math.isinf(reserve) else number(reserve)
        peak = fixed(float(shown(one.highest_stress_MPa, "stress", units)))
        made.add_row(str(one.rank), str(one.node), at, life, factor, peak, one.worst_event, str(one.nodes_nearby))
    return edgeless(made)
