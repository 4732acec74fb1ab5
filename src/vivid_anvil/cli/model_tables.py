"""A model's result as tables: what was assessed, its worst places, its paths."""

from __future__ import annotations

import math
from collections.abc import Sequence

from rich.console import Group, RenderableType

from vivid_anvil.cli.tables import edgeless, indented, table, used
from vivid_anvil.events.calendar import Calendar
from vivid_anvil.fields import HotPlace, ModelResult, WorstCycle
from vivid_anvil.units import UnitSystem, display_unit, fixed, in_unit, number, shown


def facts(result: ModelResult, measure: str) -> RenderableType:
    """What was assessed."""
    field, spot = result.field, result.spot
    counted = int(result.values.counted.sum()) + (0 if result.left_out is None else int(result.left_out.sum()))
    curve = "none" if spot.curve is None else spot.curve.name
    lines = [
        f"{field.size} nodes of {field.source}; load cases {', '.join(field.cases)}; measure: {measure}.",
        f"Curve {curve}, Kf = {spot.notch_factor:g}, mean stress {spot.mean_stress}. "
        f"{field.size - counted} nodes shown to be harmless without counting.",
    ]
    for number_of, (name, own) in enumerate(result.regions):
        many = 0 if result.region_of is None else int((result.region_of == number_of).sum())
        of = "none" if own.curve is None else own.curve.name
        lines.append(f"{many} nodes of {name}: curve {of}, Kf = {own.notch_factor:g}, mean stress {own.mean_stress}.")
    if result.left_out is not None:
        lines.append(f"{int(result.left_out.sum())} nodes are left out of the assessment, as the study says.")
    if result.chosen is not None:
        lines.append("Of the stresses at a node the one with the largest damage counts.")
    return Group(*(indented(line) for line in lines))


def places_table(
    places: Sequence[HotPlace], reserves: Sequence[float | None], calendar: Calendar, units: UnitSystem, kind: str
) -> RenderableType:
    """The worst places, the worst first: where they are, damage, life, how much of it is used, the reserve of that `kind`."""
    time = calendar.unit_for(*(one.life_repeats for one in places))
    heads = (f"Damage\na {calendar.repeat}", f"Life\n[{time}]", "Used\n[%]", f"Reserve\non {kind}")
    made = table("", "\nNode", f"\nx, y, z [{display_unit('length', units)}]", *heads[: 3 if kind == "none" else 4])
    made.columns[2].no_wrap = True
    for one, reserve in zip(places, reserves, strict=True):
        made.add_row(
            str(one.rank),
            str(one.node),
            _at(one, units),
            "at once" if math.isinf(one.damage_per_repeat) else fixed(one.damage_per_repeat),
            _life(one, calendar, time),
            used(one.used_at_target),
            *([] if kind == "none" else [_factor(reserve)]),
        )
    return edgeless(made)


def doings_table(places: Sequence[HotPlace], apart: float, units: UnitSystem) -> RenderableType:
    """What happens at each of the worst places: stress, load path, the events that do the damage; what belongs to it."""
    stress = display_unit("stress", units)
    several = any(one.worst_of for one in places)
    made = table("", "\nNode", f"Highest\n[{stress}]", "Off\nline", "\nNear", "\nDamage by event")
    made.columns[5].justify = "left"
    if several:
        made.add_column("\nWorst of", overflow="fold")
    for one in places:
        made.add_row(
            str(one.rank),
            str(one.node),
            fixed(float(shown(one.highest_stress_MPa, "stress", units))),
            f"{one.off_straight_line:.0%}",
            str(one.nodes_nearby),
            _events(one),
            *([one.worst_of] if several else []),
        )
    words = (
        "Off line: how far the load path leaves a straight line. Near: how many nodes belong to the place, those within "
        f"{in_unit(apart, 'length', units)} of it (key apart)."
        if apart > 0.0
        else "Off line: how far the load path leaves a straight line. Each node is a place of its own (apart = 0)."
    )
    return Group(edgeless(made), indented(words))


def _events(place: HotPlace, most: int = 3) -> str:
    """The events that do most at a place, with their shares; the rest together."""
    total = place.damage_per_repeat
    if not place.by_event:
        return "none"
    if math.isinf(total):
        return place.worst_event
    parts = [f"{name} {damage / total:.1%}" for name, damage in list(place.by_event.items())[:most]]
    rest = sum(list(place.by_event.values())[most:])
    return ", ".join([*parts, *([f"all others {rest / total:.1%}"] if rest > 0.0 else [])])


def worst_cycle(place: HotPlace, units: UnitSystem) -> RenderableType:
    """The worst cycle of the worst place, in words."""
    cycle, stress = place.worst_cycle, display_unit("stress", units)
    low, high = (fixed(float(shown(value, "stress", units))) for value in (cycle.lowest_MPa, cycle.highest_MPa))
    x, y, z = (one + 0.0 for one in cycle.direction)
    share = f", {cycle.share_of_damage:.1%} of the damage" if cycle.share_of_damage > 0.0 else ""
    return Group(
        indented(f"Worst cycle at node {place.node}: {low} to {high} {stress} in {cycle.event}{_when(cycle)}{share}."),
        indented(
            f"Its principal stress lies along ({x:.2f}, {y:.2f}, {z:.2f}): a crack opens that way. "
            f"Biaxiality {place.biaxiality:.2f}."
        ),
    )


def _when(cycle: WorstCycle) -> str:
    """When the cycle turns, where its load has a course in time."""
    if cycle.from_s is None or cycle.to_s is None:
        return ""
    return f", turns at {cycle.from_s:.6g} s and {cycle.to_s:.6g} s"


def paths_table(
    places: Sequence[HotPlace], reserves: Sequence[float | None], calendar: Calendar, units: UnitSystem, kind: str
) -> RenderableType:
    """Structural stress at the paths of the study, the worst first."""
    stress, time = display_unit("stress", units), calendar.unit_for(*(one.life_repeats for one in places))
    heads = (f"Lowest\n[{stress}]", f"Highest\n[{stress}]", f"Life\n[{time}]", "Used\n[%]")
    made = table("\nPath", *heads, *([] if kind == "none" else [f"Reserve\non {kind}"]), "Worst\nevent")
    made.columns[0].no_wrap = True
    for one, reserve in zip(places, reserves, strict=True):
        low, high = (
            fixed(float(shown(value, "stress", units))) for value in (one.lowest_stress_MPa, one.highest_stress_MPa)
        )
        factor = [] if kind == "none" else [_factor(reserve)]
        made.add_row(
            one.region, low, high, _life(one, calendar, time), used(one.used_at_target), *factor, one.worst_event
        )
    return edgeless(made)


def _at(one: HotPlace, units: UnitSystem) -> str:
    digits = 1 if units == "metric" else 3
    return ", ".join(f"{float(shown(value, 'length', units)) + 0.0:.{digits}f}" for value in one.at_mm)


def _life(one: HotPlace, calendar: Calendar, time: str) -> str:
    return "no damage" if math.isinf(one.life_repeats) else number(calendar.life_in(time, one.life_repeats))


def _factor(reserve: float | None) -> str:
    return "-" if reserve is None else "no limit" if math.isinf(reserve) else number(reserve)
