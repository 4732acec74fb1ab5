"""What is told of a growing crack: a row among others, sentences, its course."""

from __future__ import annotations

import math
from collections.abc import Mapping, Sequence

import numpy as np

from vivid_anvil.events.calendar import amount
from vivid_anvil.events.life_columns import life_columns
from vivid_anvil.growth.growth_numbers import Growth
from vivid_anvil.units import UnitSystem, fixed, in_unit, number, opened
from vivid_anvil.writing.result import Words
from vivid_anvil.writing.table import Column, Table, stacked

ROWS, EVERY = 45, 4  # rows of a course, and every which of them a page shows: the first, the last and ten between


def growths_table(growths: Sequence[Growth]) -> Table:
    """A row a crack: in files all its single numbers, on a page those that are compared."""
    cracks, duties = [growth.crack for growth in growths], [growth.duty_cycle for growth in growths]
    limits = [growth.critical for growth in growths]
    looks = [_every(growth) for growth in growths]
    columns = [
        Column("hot spot", [crack.hot_spot.name for crack in cracks], head="Crack at"),
        Column("initial size", [crack.initial_size for crack in cracks], of="length", head="Initial\n"),
        Column("limiting size", [growth.critical.limiting for growth in growths], of="length", only="file"),
        Column(
            "limiting size",
            [growth.stages[-1].critical.limiting for growth in growths],
            of="length",
            head="Limiting\n",
            only="page",
        ),
        *life_columns(
            [one.life_repeats for one in growths],
            [one.calendar for one in duties],
            [one.hours for one in duties],
            endless="no growth",
        ),
        Column(
            "used at target",
            [growth.used_at_target for growth in growths],
            head="Used",
            style="percent",
            endless="all at once",
        ),
        Column("inspect every", looks, head="Inspect\nevery", only="page"),
        Column("governed by", [growth.governed_by for growth in growths], only="file"),
        Column("shape", [crack.shape.kind for crack in cracks], only="file"),
        Column("initial half length", [crack.initial_half_length for crack in cracks], of="length", only="file"),
        Column("growth law", [crack.law.name for crack in cracks], only="file"),
        Column("kind of law", [crack.law.kind for crack in cracks], only="file"),
        Column("slope of the law", [crack.law.slope for crack in cracks], only="file"),
        Column(
            "threshold at R = 0",
            [float(crack.law.threshold_at(0.0)) for crack in cracks],
            of="stress intensity",
            only="file",
        ),
        Column("counted part", [crack.counted_part for crack in cracks], only="file"),
        Column("order", [crack.order for crack in cracks], only="file"),
        Column("retardation", [crack.retardation.kind for crack in cracks], only="file"),
        Column("peak nominal stress", [growth.drive.peak_stress for growth in growths], of="stress", only="file"),
        Column("size at toughness", [limit.toughness for limit in limits], of="length", only="file"),
        Column("size at net-section yield", [limit.net_section for limit in limits], of="length", only="file"),
        Column("size at assessment curve", [limit.assessment for limit in limits], of="length", only="file"),
        Column("size at limit of solution", [limit.validity for limit in limits], of="length", only="file"),
        Column(
            "life without retardation [repeats]", [growth.without_memory_repeats for growth in growths], only="file"
        ),
        Column("target [repeats]", [growth.target_repeats for growth in growths], only="file"),
        Column("stopped by", [growth.stopped_by for growth in growths], only="file"),
        Column("stopped in", [growth.stopped_in for growth in growths], only="file"),
        Column("size at stop", [growth.final_size for growth in growths], of="length", only="file"),
        Column("cycles followed", [one.cycles for one in growths], only="file"),
        Column("detectable size", [one.detectable_size for one in cracks], of="length", only="file"),
        Column("inspection factor", [one.inspection_factor for one in cracks], only="file"),
        Column("inspection interval [repeats]", [one.interval_repeats for one in growths], only="file"),
        Column("inspection interval [years]", [one.interval_years for one in growths], only="file"),
        Column("change by halving steps", [one.halving_change for one in growths], only="file"),
        Column("repeat", [one.repeat for one in duties], only="file"),
    ]
    return Table("", tuple(columns), "cracks")


def _every(growth: Growth) -> str:
    interval = growth.interval_repeats
    never = interval is None or not 0.0 < interval < math.inf
    return "-" if never else growth.duty_cycle.calendar.text(interval or 0.0)


def growth_tables(growth: Growth) -> tuple[Table, ...]:
    """Course of the crack, of what it becomes, and what each event does at the start."""
    shares = growth.event_shares()
    events = Table(
        "",
        (Column("event", list(shares)), Column("share of the growth at the start", list(shares.values()))),
        "events",
        only="file",
    )
    first = course(growth, "course") if growth.sizes.size > 1 else None
    later = [
        course(stage, f"course {i}", f"Then a {stage.crack.shape.kind} crack, size: {stage.crack.shape.size_means}")
        for i, stage in enumerate(growth.stages[1:], start=2)
    ]
    return (*([] if first is None else [first]), *later, events)


def course(growth: Growth, key: str, title: str = "") -> Table:
    """The growth at sizes that rise evenly from start to stop: time, share of the life, K, growth in a repeat."""
    calendar, repeat, hours = growth.duty_cycle.calendar, growth.duty_cycle.repeat, growth.duty_cycle.hours
    sizes = growth.sizes if growth.sizes.size == 1 else np.linspace(growth.sizes[0], growth.sizes[-1], ROWS)
    repeats = np.interp(np.log(sizes), np.log(growth.sizes), growth.repeats).tolist()
    life, each = growth.life_repeats, sizes.tolist()
    time = calendar.unit_for(life)
    told = [] if time == calendar.repeats else [Column(time, calendar.life_in(time, np.array(repeats)), only="page")]
    columns = [
        Column("size", each, of="length", head="Size\n"),
        *(
            []
            if growth.half_lengths is None
            else [Column("half length", [growth.half_length(a) for a in each], of="length", only="file")]
        ),
        Column("repeats", repeats, head=calendar.repeats.capitalize()),
        *told,
        *([] if hours is None else [Column("time [h]", [at * hours for at in repeats], only="file")]),
        *(
            []
            if calendar.repeats_per_year is None
            else [Column("time [years]", [calendar.years(at) for at in repeats], only="file")]
        ),
        Column("share of the life", [at / life if life > 0.0 else 1.0 for at in repeats], only="file"),
        Column("largest K", [growth.peak_k(a) for a in each], of="stress intensity", head="Largest K\n"),
        Column(
            "largest range of K", [growth.largest_range_k(a) for a in each], of="stress intensity", head="Largest ΔK\n"
        ),
        Column(
            "growth per repeat", [growth.growth_at(a) for a in each], of="length", head="Growth\n", per=f" a {repeat}"
        ),
    ]
    return Table(title, tuple(columns), key, kept=range(0, len(each), EVERY))


def growth_words(growth: Growth, units: UnitSystem) -> Words:
    """Shape, sizes, limits, life, target, why it stopped, memory, inspection, events, how exact it is."""
    crack = growth.crack
    stop = _length(growth.stages[-1].final_size, units)
    return (
        ("Shape", f"{crack.shape.kind} crack; size: {crack.shape.size_means}"),
        ("Initial size", _initial(growth, units)),
        *_limits(growth, units),
        ("Life to limiting size", _life(growth)),
        *_of_target(growth),
        ("Stopped by", f"{growth.stopped_by}, at {stop}"),
        *([] if growth.stopped_in is None else [("In", growth.stopped_in)]),
        *_memory(growth, units),
        ("Inspection", _inspection(growth, units)),
        ("Growth at the start by", _shares(growth.event_shares())),
        _exact(growth),
    )


def _length(size: float | None, units: UnitSystem) -> str:
    return "not reached" if size is None else in_unit(size, "length", units)


def _initial(growth: Growth, units: UnitSystem) -> str:
    crack, along = growth.crack, ""
    if crack.initial_half_length is not None:
        along = f" deep, {in_unit(crack.initial_half_length, 'length', units)} half length"
    return in_unit(crack.initial_size, "length", units) + along


def _limits(growth: Growth, units: UnitSystem) -> list[tuple[str, str]]:
    """Where each limit is met; of two sizes only the one that ends each part of the way."""
    critical = growth.critical
    if len(growth.crack.sizes) == 2:
        rows = [("Limiting size", f"{_length(critical.limiting, units)} deep, {critical.governed_by}")]
        if growth.half_lengths is not None and growth.half_lengths.size > 1:
            rows.append(("Half length there", _length(float(growth.half_lengths[-1]), units)))
        for stage in growth.stages[1:]:
            end, what = stage.critical, f"Then as {stage.crack.shape.kind} crack"
            rows.append((what, f"to {_length(end.limiting, units)} {stage.crack.shape.size_means}, {end.governed_by}"))
        return rows
    rows = [
        ("Toughness reached at", _length(critical.toughness, units)),
        ("Net section yields at", _length(critical.net_section, units)),
    ]
    if critical.assessment is not None or growth.crack.limits == "assessment curve":
        rows = [("Assessment curve met at", _length(critical.assessment, units))]
    if critical.chosen is not None:
        rows.append(("Chosen size", _length(critical.chosen, units)))
    return [
        *rows,
        ("Solution valid to", _length(critical.validity, units)),
        ("Limiting size", f"{_length(critical.limiting, units)}, {critical.governed_by}"),
    ]


def _life(growth: Growth) -> str:
    if math.isinf(growth.life_repeats):
        return "no growth"
    told: str = growth.duty_cycle.calendar.in_all_units(growth.life_repeats, growth.duty_cycle.hours)
    return told


def _of_target(growth: Growth) -> list[tuple[str, str]]:
    """How much of the crack's life the target uses."""
    share = growth.used_at_target
    if growth.target_repeats is None or share is None:
        return []
    word = "met" if share <= 1.0 else "missed"
    part = "all at once" if math.isinf(share) else fixed(100.0 * share)
    return [("Target", f"{amount(growth.target_repeats, growth.duty_cycle.repeat)} {word}: {part} % used")]


def _memory(growth: Growth, units: UnitSystem) -> list[tuple[str, str]]:
    """What the memory of larger cycles does, where it is asked for; at which cycle it stopped."""
    rows, repeat, memory = [], growth.duty_cycle.repeat, growth.crack.retardation
    without = growth.without_memory_repeats
    if without is not None:
        rows.append((f"Without {memory.kind}", "no growth" if math.isinf(without) else amount(without, repeat)))
        rows.append(("Plastic zone", memory.zone_words(growth.start_peak_k, units)))
    if growth.cycles is not None:
        rows.append(("Cycles followed", number(float(growth.cycles))))
    return rows


def _exact(growth: Growth) -> tuple[str, str]:
    change = "less than 1e-9" if growth.halving_change < 1e-9 else f"{growth.halving_change:.0e}"
    if growth.cycles is None:
        return "Halving every step", f"changes the life by {change} of itself"
    return "Reading K off a grid", f"moves growth rates by {change} of themselves"


def _inspection(growth: Growth, units: UnitSystem) -> str:
    crack, interval = growth.crack, growth.interval_repeats
    if interval is None or crack.detectable_size is None:
        return "no detectable size given"
    detectable = in_unit(crack.detectable_size, "length", units)
    if interval == 0.0:
        return f"useless: {detectable} is beyond the limiting size"
    if math.isinf(interval):
        return f"no interval: a crack of {detectable} does not grow"
    return f"every {growth.duty_cycle.calendar.text(interval)} (detectable {detectable}, factor {crack.inspection_factor:g})"


def _shares(shares: Mapping[str, float], most: int = 4) -> str:
    """Events with their shares; where there are many those that do most, and all others together."""
    named = list(shares.items())
    if len(named) > most + 1:
        named = sorted(named, key=lambda one: -one[1])
        named = [*named[:most], (f"all others ({len(named) - most})", sum(share for _, share in named[most:]))]
    return ", ".join(f"{name} {share:.1%}" for name, share in named)


@opened()
def course_of_all(growths: Sequence[Growth]) -> Table:
    """The courses of several cracks below each other, each row with the name of its hot spot."""
    tables = [course(growth, "course") for growth in growths]
    named = [
        Table("", (Column("hot spot", [one.crack.hot_spot.name] * len(table)), *table.columns), "courses")
        for one, table in zip(growths, tables, strict=True)
    ]
    return stacked(named)
