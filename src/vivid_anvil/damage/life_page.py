"""What is told of a life: a row among others, sentences, tables of events, classes and cycles."""

from __future__ import annotations

import dataclasses
import math
from collections.abc import Sequence

from vivid_anvil.damage.between_effect import between_effect
from vivid_anvil.damage.in_order import LifeInOrder
from vivid_anvil.damage.life_numbers import Life
from vivid_anvil.damage.over_time import worst_cycles
from vivid_anvil.events.calendar import amount
from vivid_anvil.events.life_columns import life_columns
from vivid_anvil.units import UnitSystem, display_unit, in_unit, number, shown
from vivid_anvil.writing.result import Words
from vivid_anvil.writing.table import Column, Table

MOST_EVENTS = 8  # events told one by one
MOST_CYCLES = 4  # told on a page
LEAST_SHARE = 0.01  # of the damage, in which a class is told by itself
VERDICTS = {"meets the target": "met", "fails the target": "missed", "no damage": "met", "no target": "none"}


def lives_table(lives: Sequence[Life], in_order: Sequence[LifeInOrder | None]) -> Table:
    """A row a life: in files all its single numbers, on a page those that are compared."""
    spots, duties = [life.hot_spot for life in lives], [life.duty_cycle for life in lives]
    repeat = duties[0].repeat
    missed = [life.verdict == "fails the target" for life in lives]
    columns = [
        Column("hot spot", [spot.name for spot in spots]),
        *_peaks(lives),
        Column("damage per repeat", [life.damage_per_repeat for life in lives], head=f"Damage\na {repeat}"),
        *life_columns(
            [life.life_repeats for life in lives], [one.calendar for one in duties], [one.hours for one in duties]
        ),
        Column(
            "used at target",
            [life.used_at_target for life in lives],
            head="Used",
            style="percent",
            endless="all at once",
            alarm=missed,
        ),
        Column(
            "reserve on stress",
            [life.reserve_on_stress for life in lives],
            head="Reserve on\nstress",
            endless="no limit",
        ),
        Column("reserve on life", [life.reserve_on_life for life in lives], head="\nlife", endless="no limit"),
        Column("target [repeats]", [life.target_repeats for life in lives], only="file"),
        Column("verdict", [life.verdict for life in lives], only="file"),
        Column("loads", [spot.fed.words for spot in spots], only="file"),
        Column("offset", [spot.fed.offset for spot in spots], of="stress", only="file"),
        Column("notch factor", [spot.notch_factor for spot in spots], only="file"),
        Column("method", [life.method.kind for life in lives], only="file"),
        *_of_methods(lives),
        Column("critical sum", [life.critical_sum for life in lives], only="file"),
        Column("repeat", [one.repeat for one in duties], only="file"),
        Column("repeats per year", [one.repeats_per_year for one in duties], only="file"),
        Column("hours per repeat", [one.hours for one in duties], only="file"),
        *(
            Column(f"static reserve on {name}", [life.static_reserves.get(name) for life in lives], only="file")
            for name in ("yield", "ultimate")
        ),
    ]
    if any(in_order):
        columns += [
            Column("rule of order", [one and one.rule for one in in_order], only="file"),
            Column("order", [one and one.order for one in in_order], only="file"),
            Column("life in order [repeats]", [one and one.life_repeats for one in in_order], only="file"),
            Column(
                "linear life to a sum of 1 [repeats]", [one and one.linear_repeats for one in in_order], only="file"
            ),
        ]
    return Table("", tuple(columns), "lives")


def _peaks(lives: Sequence[Life]) -> list[Column]:
    """Largest and lowest of what is counted, a column for each dimension that there is."""
    columns = []
    for kind in dict.fromkeys(life.dimension for life in lives):
        tops = [life.peak_stress if life.dimension == kind else None for life in lives]
        lows = [life.lowest_stress if life.dimension == kind else None for life in lives]
        head = "Peak" if kind == "stress" else f"Peak\n{kind}"
        columns.append(Column(f"peak {kind}", tops, of=kind, head=head))
        columns.append(Column(f"lowest {kind}", lows, of=kind, only="file"))
    return columns


def _of_methods(lives: Sequence[Life]) -> list[Column]:
    """The settings of all methods, each under its own heading once."""
    methods: dict[str, Column] = {}
    for method in {life.method.kind: life.method for life in lives}.values():
        for column in method.columns(lives):
            known = methods.get(column.name)
            if known is not None:  # each method knows its own lives alone
                both = zip(known.values, column.values, strict=True)
                column = dataclasses.replace(column, values=[two if one is None else one for one, two in both])
            methods[column.name] = column
    return list(methods.values())


def life_words(life: Life, in_order: LifeInOrder | None, units: UnitSystem) -> Words:
    """Life in all units of time, target, static reserve, life in order, repairs, what happens between events."""
    duty, repeat = life.duty_cycle, life.duty_cycle.repeat
    told = "no limit by this calculation: no cycle does damage"
    if math.isfinite(life.life_repeats):
        told = duty.calendar.in_all_units(life.life_repeats, duty.hours)
    words = [("Life", told)]
    if life.target_repeats is not None:
        on = "stress" if life.method.takes == "stresses" else "loads"
        reserve = "no limit" if math.isinf(life.reserve_on_life or 0.0) else number(life.reserve_on_life or 0.0)
        words.append(
            (
                "Target",
                f"{amount(life.target_repeats, repeat)} {VERDICTS[life.verdict]}: {number(100 * (life.used_at_target or 0.0))} % "
                f"used, reserve {number(life.reserve_on_stress or 0.0)} ({on}), {reserve} (life)",
            )
        )
    reserves = ", ".join(f"{number(value)} on {name}" for name, value in life.static_reserves.items())
    peak = in_unit(max(life.peak_stress, -life.lowest_stress), life.dimension, units)
    if life.method.takes == "stresses":
        words.append(("Static", f"local peak {peak}; reserve {reserves or 'unknown: no strength stated'}"))
    words += life.method.words_of(life, units)
    if in_order is not None:
        lives = (
            f"{amount(in_order.life_repeats, repeat)} (linear rule to a sum of 1: {number(in_order.linear_repeats)})"
        )
        words.append(("In order", f"by the {in_order.rule}: {lives}; {in_order.order}"))
    for source in life.spectrum.sources:
        if source.history is not None and source.history.repairs:
            words.append(("Repairs", f"of {source.name}: {'; '.join(source.history.repairs)}"))
    if len(duty.flat()) > 1:
        words.append(("Events", _between(life)))
    return tuple(words)


def _between(life: Life) -> str:
    """What each assumption on what happens between events would make of the damage."""
    words = []
    for choice, damage in between_effect(life).items():
        if choice == life.duty_cycle.between:
            words.append(f"{choice} (used)")
        elif damage is None:
            words.append(f"{choice}: not possible")
        elif life.damage_per_repeat > 0.0:
            change = round(damage / life.damage_per_repeat - 1.0, 3) + 0.0  # + 0.0: no "-0.0%"
            words.append(f"{choice} {change:+.1%} damage")
        else:
            words.append(f"{choice}: {'no damage' if damage == 0.0 else 'damage ' + number(damage)}")
    return "; ".join(words)


def life_tables(life: Life, in_order: LifeInOrder | None, units: UnitSystem) -> tuple[Table, ...]:
    """Events, stress classes, worst cycles, and the levels of a life in order."""
    tables = (_events(life), _classes(life, units), *life.method.tables(life, units), _worst(life))
    if in_order is None:
        return tables
    levels = in_order.levels
    columns = (
        Column("event", [level.event for level in levels]),
        Column("equivalent stress", [level.stress for level in levels], of=life.dimension),
        Column("cycles per repeat", [level.cycles for level in levels]),
        Column("life [cycles]", [level.life for level in levels]),
    )
    return (*tables, Table("Levels in their order", columns, "levels in order", only="file"))


def _events(life: Life) -> Table:
    """Events, that which does most first; where there are many a page sums all others."""
    shares = sorted(life.events, key=lambda one: (-one.damage, -one.largest_range))
    columns = (
        Column("event", [one.name for one in shares]),
        Column("occurrences per repeat", [one.occurrences for one in shares], only="file"),
        Column(
            "cycles per repeat",
            [one.cycles for one in shares],
            head=f"Cycles a {life.duty_cycle.repeat}",
            style="number",
            rest="sum",
        ),
        Column("largest range", [one.largest_range for one in shares], of=life.dimension, rest="largest"),
        Column("damage per repeat", [one.damage for one in shares], head="Damage", rest="sum"),
        Column("share", [one.share for one in shares], style="share", rest="sum"),
    )
    kept = range(MOST_EVENTS) if len(shares) > MOST_EVENTS + 1 else None
    return Table("", columns, "events", kept=kept, others="all others ({})")


def _classes(life: Life, units: UnitSystem) -> Table:
    """Stress classes, in the curve's terms; a page sums those that do next to nothing."""
    classes = [one for one in reversed(life.stress_classes(life.edges(units))) if one.cycles]
    unit, words = display_unit(life.dimension, units), life.stress_in_words
    limits = [[float(shown(edge, life.dimension, units)) for edge in (one.lower, one.upper)] for one in classes]
    columns = (
        Column(words, [f"{number(low)} to {number(high)}" for low, high in limits], unit=unit, only="page", left=True),
        Column("from", [one.lower for one in classes], of=life.dimension, only="file"),
        Column("below", [one.upper for one in classes], of=life.dimension, only="file"),
        Column(
            "cycles per repeat",
            [one.cycles for one in classes],
            head=f"Cycles a {life.duty_cycle.repeat}",
            style="number",
            rest="sum",
        ),
        Column("damage per repeat", [one.damage for one in classes], head="Damage", rest="sum"),
        Column("share", [one.share for one in classes], style="share", rest="sum"),
        Column("bar", [one.share for one in classes], head="", style="bar", only="page"),
    )
    kept = [i for i, one in enumerate(classes) if one.share >= LEAST_SHARE]
    return Table("", columns, "stress classes", kept=kept, others="all other classes", only="" if kept else "file")


def _worst(life: Life) -> Table:
    """The ten cycles that do most damage, with the times at which they turn."""
    worst = worst_cycles(life)
    columns = (
        Column("event", [one.event for one in worst]),
        Column("range", [one.range for one in worst], of=life.dimension),
        Column("mean", [one.mean for one in worst], of=life.dimension),
        Column("per repeat", [one.per_repeat for one in worst], only="file"),
        Column("damage per repeat", [one.damage for one in worst], only="file"),
        Column("share", [one.share for one in worst], style="share"),
        Column("start [s]", [one.start for one in worst], head="From [s]", style="number", digits=6),
        Column("end [s]", [one.end for one in worst], head="To [s]", style="number", digits=6),
    )
    kept = range(MOST_CYCLES) if len(worst) > MOST_CYCLES else None
    title = "The worst cycles, and the times at which they turn"
    return Table(title, columns, "worst cycles", only="in full", kept=kept, others="")
