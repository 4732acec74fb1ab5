"""The worst places of a model, and its paths, as tables."""

from __future__ import annotations

import math
from collections.abc import Sequence

from vivid_anvil.events.calendar import Calendar
from vivid_anvil.events.life_columns import life_columns
from vivid_anvil.fields.hottest import HotPlace
from vivid_anvil.units import UnitSystem, display_unit, in_unit, shown
from vivid_anvil.writing.table import Column, Table

MOST_EVENTS = 3
RESERVES = {"stress": "reserve on stress", "life": "reserve on life", "none": ""}


def places_table(
    places: Sequence[HotPlace],
    reserves: Sequence[float | None],
    reserve_on: str,
    calendar: Calendar,
    units: UnitSystem,
    of: str = "stress",
) -> Table:
    """A row a place: where it is, damage, life, how much of it is used, a reserve; in files all that is known of it."""
    columns = [
        Column("rank", [place.rank for place in places], head="", left=True),
        Column("node", [place.node for place in places]),
        Column(
            "x, y, z",
            [_at(place, units) for place in places],
            head="x, y, z",
            unit=display_unit("length", units),
            only="page",
        ),
        *(Column(axis, [place.at_mm[i] for place in places], of="length", only="file") for i, axis in enumerate("xyz")),
        Column("sets", [", ".join(place.sets) for place in places], only="file"),
        Column(
            "damage per repeat",
            [place.damage_per_repeat for place in places],
            head=f"Damage\na {calendar.repeat}",
            endless="at once",
        ),
        *_life(places, calendar),
        *_reserve(reserves, reserve_on),
        *_stresses(places, "file", of),
        Column("worst event", [place.worst_event for place in places], only="file"),
        Column("nodes nearby", [place.nodes_nearby for place in places], only="file"),
        Column("region", [place.region for place in places], only="file"),
        Column("worst of", [place.worst_of for place in places], only="file"),
        Column("biaxiality", [place.biaxiality for place in places], only="file"),
        Column("off straight line", [place.off_straight_line for place in places], only="file"),
        *_worst_cycles(places, of),
    ]
    events = dict.fromkeys(name for one in places for name in one.by_event)
    columns += [
        Column(f"damage of {name}", [place.by_event.get(name) for place in places], only="file") for name in events
    ]
    return Table("", tuple(columns), "places")


def doings_table(places: Sequence[HotPlace], apart: float, units: UnitSystem, of: str = "stress") -> Table:
    """What happens at each of the worst places: stress, load path, the events that do the damage; what belongs to it."""
    several = any(place.worst_of for place in places)
    columns = [
        Column("rank", [place.rank for place in places], head="", left=True),
        Column("node", [place.node for place in places]),
        Column("highest", [place.highest_stress_MPa for place in places], of=of, head="Highest\n"),
        Column("off line", [_share(place.off_straight_line) for place in places], head="Off\nline"),
        Column("near", [place.nodes_nearby for place in places]),
        Column("damage by event", [_events(place) for place in places], left=True),
        *([Column("worst of", [place.worst_of for place in places], left=True)] if several else []),
    ]
    near = f"how many nodes belong to the place, those within {in_unit(apart, 'length', units)} of it (key apart)"
    note = (
        f"Off line: how far the load path leaves a straight line. Near: {near}."
        if apart > 0.0
        else "Off line: how far the load path leaves a straight line. Each node is a place of its own (apart = 0)."
    )
    return Table("", tuple(columns), "doings", note, only="" if places else "file") if places else Table("", ())


def _share(value: float) -> str:
    return "-" if math.isnan(value) else f"{value:.0%}"


def paths_table(
    places: Sequence[HotPlace], reserves: Sequence[float | None], reserve_on: str, calendar: Calendar
) -> Table:
    """Structural stress at the paths of the study, the worst first."""
    columns = (
        Column("path", [place.region for place in places], left=True),
        *_stresses(places),
        Column("damage per repeat", [place.damage_per_repeat for place in places], only="file"),
        *_life(places, calendar),
        *_reserve(reserves, reserve_on),
        Column("worst event", [place.worst_event for place in places], head="Worst\nevent"),
        *_worst_cycles(places),
    )
    return Table("", columns, "paths")


def _stresses(places: Sequence[HotPlace], only: str = "", of: str = "stress") -> tuple[Column, Column]:
    lows, highs = [place.lowest_stress_MPa for place in places], [place.highest_stress_MPa for place in places]
    return (
        Column(f"lowest {of}", lows, of=of, head="Lowest\n", only=only),  # type: ignore[arg-type]
        Column(f"highest {of}", highs, of=of, head="Highest\n", only=only),  # type: ignore[arg-type]
    )


def _life(places: Sequence[HotPlace], calendar: Calendar) -> tuple[Column, ...]:
    used = [place.used_at_target for place in places]
    return (
        *life_columns([place.life_repeats for place in places], [calendar] * len(places)),
        Column("used at target", used, head="Used", style="percent", endless="all at once"),
    )


def _reserve(reserves: Sequence[float | None], reserve_on: str) -> list[Column]:
    if reserve_on == "none":
        return []
    head = f"Reserve\non {reserve_on}"
    return [Column(RESERVES[reserve_on], reserves, head=head, style="number", endless="no limit")]


def _worst_cycles(places: Sequence[HotPlace], of: str = "stress") -> list[Column]:
    cycles = [place.worst_cycle for place in places]
    return [
        Column("worst cycle: event", [one.event for one in cycles], only="file"),
        Column(f"worst cycle: lowest {of}", [one.lowest_MPa for one in cycles], of=of, only="file"),
        Column(f"worst cycle: highest {of}", [one.highest_MPa for one in cycles], of=of, only="file"),
        Column("worst cycle: from [s]", [one.from_s for one in cycles], only="file"),
        Column("worst cycle: to [s]", [one.to_s for one in cycles], only="file"),
        Column("worst cycle: share of damage", [one.share_of_damage for one in cycles], only="file"),
        *(
            Column(f"worst cycle: direction {axis}", [one.direction[i] for one in cycles], only="file")
            for i, axis in enumerate("xyz")
        ),
    ]


def _at(one: HotPlace, units: UnitSystem) -> str:
    digits = 1 if units == "metric" else 3
    return ", ".join(f"{float(shown(value, 'length', units)) + 0.0:.{digits}f}" for value in one.at_mm)


def _events(place: HotPlace) -> str:
    """The events that do most at a place, with their shares; the rest together."""
    total = place.damage_per_repeat
    if not place.by_event:
        return "none"
    if math.isinf(total):
        return place.worst_event
    parts = [f"{name} {damage / total:.1%}" for name, damage in list(place.by_event.items())[:MOST_EVENTS]]
    rest = sum(list(place.by_event.values())[MOST_EVENTS:])
    return ", ".join([*parts, *([f"all others {rest / total:.1%}"] if rest > 0.0 else [])])
