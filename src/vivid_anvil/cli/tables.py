"""Results as tables that stay readable at 80 columns, in a terminal and in a pipe."""

from __future__ import annotations

import math
import os
from collections.abc import Iterable, Mapping, Sequence
from typing import Any

import numpy as np
from rich import box
from rich.console import Console, Group, RenderableType
from rich.padding import Padding
from rich.table import Table
from rich.text import Text

from vivid_anvil.cli.words import quiet
from vivid_anvil.counting import MATRICES, CycleMatrix, Cycles
from vivid_anvil.damage import CRITICAL_SUMS, EventShare, LifeResult, RuleComparison, WorstCycle, between_effect
from vivid_anvil.events import DutyCycle
from vivid_anvil.events.calendar import amount
from vivid_anvil.ground.checks import IntArray
from vivid_anvil.histories import ChannelCheck, LoadHistory
from vivid_anvil.materials import SNFamily, describe
from vivid_anvil.study import WORST_NODE, Study, StudyComparison, VariantLife, WhatIf
from vivid_anvil.units import UnitSystem, display_unit, fixed, in_unit, number, shown
from vivid_anvil.writing.finding import Finding, gravest_first

WIDTH, WIDEST = 80, 160
MOST_EVENTS = 8  # events told one by one
TARGET_WORDS = {"meets the target": "met", "fails the target": "missed", "no damage": "met", "no target": "none"}
LARGEST_CYCLES = 10
MOST_SPOTS = 6
_COLOURS = {"note": "cyan", "warning": "yellow", "severe": "bold red"}


def console() -> Console:
    """The console of all tables, silent where asked to be: at most 160 columns wide; in a pipe 80, or what COLUMNS says."""
    out = Console(highlight=False, markup=False, emoji=False, quiet=quiet())  # names are text, whatever they look like
    stated = out.is_terminal or os.environ.get("COLUMNS", "").isdecimal()
    out.width = min(max(out.width, 40), WIDEST) if stated else WIDTH
    return out


def table(*columns: str) -> Table:
    """A table whose first column is text and whose others are numbers, set to the right."""
    made = Table(box=box.SIMPLE_HEAD, padding=(0, 1, 0, 0))
    for i, column in enumerate(columns):
        made.add_column(Text(column), justify="left" if i == 0 or not column else "right", overflow="fold")
    return made


def edgeless(made: Table) -> RenderableType:
    """A table with one empty line before and none after."""
    made.show_edge = False
    return Group(Text(""), made)


def heading(text: str) -> Text:
    """A bold line with an empty one before."""
    return Text(f"\n{text}", style="bold")


def indented(text: str) -> RenderableType:
    """A paragraph set in from the left."""
    return Padding(Text(text), (0, 0, 0, 2))


def findings_list(findings: Iterable[Finding]) -> RenderableType:
    """Findings, each as severity and code, sentence and advice."""
    lines = [
        Padding(
            Text.assemble((f"{one.severity}: ", _COLOURS[one.severity]), f"{one.sentence} {one.advice} [{one.code}]"),
            (0, 0, 0, 2),
        )
        for one in findings
    ]
    return Group(*lines) if lines else indented("no findings")


def findings_summary(findings: Iterable[Finding], where: str = "") -> RenderableType:
    """How many findings there are, and the gravest of them; `where` names the command that shows all."""
    every = gravest_first(findings)
    if not every:
        return indented("No findings.")
    counts = [(kind, sum(one.severity == kind for one in every)) for kind in ("severe", "warning", "note")]
    words = ", ".join(
        f"{many} {kind if many == 1 or kind == 'severe' else kind + 's'}" for kind, many in counts if many
    )
    if len(every) == 1:
        return Group(indented("One finding:"), findings_list(every))
    more = f"; all of them: {where}" if where else ""
    head = indented(f"{len(every)} findings ({words}{more}). The gravest:")
    return Group(head, findings_list(every[:1]))


def duty_cycle_table(duty: DutyCycle, units: UnitSystem) -> RenderableType:
    """Events with occurrences, duration and limits of each channel."""
    made = table("Event", f"Times a {duty.repeat}", "Duration [s]", "Channel", "Lowest", "Highest")
    for event, times in duty.flat():
        load = event.load
        duration = "not stated" if event.lasts is None else number(event.lasts)
        for i, (name, dimension) in enumerate(load.dimensions.items()):
            low, high = load.extremes(name)
            first = (event.name, number(times), duration) if i == 0 else ("", "", "")
            made.add_row(*first, name, in_unit(low, dimension, units), in_unit(high, dimension, units))
    return made


def study_lines(study: Study) -> RenderableType:
    """Title, duty cycle and target in two or three lines."""
    duty = study.duty_cycle
    hours = "duration not stated" if duty.hours is None else f"{number(duty.hours)} h"
    yearly = "" if duty.repeats_per_year is None else f", {number(duty.repeats_per_year)} a year"
    named = [f"{number(event.occurrences)} × {event.name}" for event in duty.events]
    if len(named) > MOST_EVENTS:
        times = sum(event.occurrences for event in duty.events)
        named = [f"{len(named)} events, {number(times)} in all (check lists them)"]
    lines = [f"One {duty.repeat} ({hours}{yearly}): " + ", ".join(named)]
    if study.target_life is not None:
        target = amount(duty.repeats_in(study.target_life), duty.repeat)
        stated = str(study.target_life)
        in_repeats = stated.endswith((duty.repeat, duty.calendar.repeats))
        lines.append(f"Target life: {target}" if in_repeats else f"Target life: {stated} = {target}")
    return Text("\n".join(lines))


def hot_spots_table(study: Study) -> RenderableType:
    """What is set for each hot spot."""
    made = table("Hot spot", "Channel", "Stress per load", "Kf", "S-N curve", "Mean stress")
    for spot in study.hot_spots:
        curve = "none" if spot.curve is None else spot.curve.name
        several = isinstance(spot.stress_per_load, Mapping)
        channel, per_load = (
            ("several", str(spot.channel)) if several else (str(spot.channel), str(spot.stress_per_load))
        )
        made.add_row(spot.name, channel, per_load, number(spot.notch_factor), curve, spot.mean_stress)
    return made


def curves_table(study: Study, units: UnitSystem) -> RenderableType:
    """The S-N curves of the study: where each comes from, and its lines."""
    unit, one = display_unit("stress", units), float(shown(1.0, "stress", units))
    made = table("S-N curve", "Basis", "Stress", "Lines")
    for column in made.columns:
        column.justify = "left"
    for name, curve in study.curves.items():
        if isinstance(curve, SNFamily):
            ratios = ", ".join(member.at_r for member in curve.curves)
            made.add_row(name, "family", "amplitude", f"{len(curve.curves)} curves: {ratios}")
        else:
            made.add_row(name, curve.basis, f"{curve.stress}, {curve.at_r}", describe(curve, unit, one))
    return made


def cracks_table(study: Study, units: UnitSystem) -> RenderableType:
    """What is set for each crack."""
    made = table("Crack at", "Shape", "Initial size", "Growth law", "Detectable")
    for crack in study.cracks:
        detectable = "-" if crack.detectable_size is None else in_unit(crack.detectable_size, "length", units)
        made.add_row(
            crack.hot_spot.name,
            crack.shape.kind,
            in_unit(crack.initial_size, "length", units),
            crack.law.name,
            detectable,
        )
    return made


def used(share: float | None) -> str:
    """A used share of the life in percent, or a dash where there is no target."""
    if share == math.inf:
        return "all at once"
    return "-" if share is None else fixed(100.0 * share)


def life_text(value: float) -> str:
    """A life in whatever unit the heading says, or 'no damage'."""
    return "no damage" if math.isinf(value) else fixed(value)


def worst_first(lives: Sequence[LifeResult]) -> list[LifeResult]:
    """The shortest life first; of those without damage the one with the least reserve, else the largest stress."""
    return sorted(
        lives,
        key=lambda one: (one.life_repeats, one.reserve_on_stress or math.inf, -one.peak_stress, one.lowest_stress),
    )


def lives_table(lives: Sequence[LifeResult], units: UnitSystem) -> RenderableType:
    """One line per hot spot, the worst first."""
    calendar = lives[0].duty_cycle.calendar
    unit, time = display_unit("stress", units), calendar.unit_for(*(life.life_repeats for life in lives))
    made = table(
        "Hot spot",
        f"Peak\n[{unit}]",
        f"Damage\na {calendar.repeat}",
        f"Life\n[{time}]",
        "Used\n[%]",
        "Reserve on\nstress",
        "\nlife",
    )
    for life in worst_first(lives):
        style = "red" if life.verdict == "fails the target" else ""
        made.add_row(
            life.hot_spot.name,
            fixed(float(shown(life.peak_stress, "stress", units))),
            fixed(life.damage_per_repeat),
            life_text(calendar.life_in(time, life.life_repeats)),
            Text(used(life.used_at_target), style=style),
            "-" if life.reserve_on_stress is None else fixed(life.reserve_on_stress),
            "-" if life.reserve_on_life is None else fixed(life.reserve_on_life),
        )
    return made


def life_details(life: LifeResult, units: UnitSystem, title: str = "") -> RenderableType:
    """Life in all units of time, shares of events and stress classes, findings of one hot spot."""
    duty, repeat = life.duty_cycle, life.duty_cycle.repeat
    parts: list[RenderableType] = [heading(title or life.hot_spot.name)]
    if math.isinf(life.life_repeats):
        parts.append(indented("No cycle does damage: life has no limit by this calculation."))
    else:
        parts.append(indented(f"Life {duty.calendar.in_all_units(life.life_repeats, duty.hours)}"))
    if life.target_repeats is not None:
        reserve = "no limit" if math.isinf(life.reserve_on_life or 0.0) else number(life.reserve_on_life or 0.0)
        used = number(100 * (life.used_at_target or 0.0))
        parts.append(
            indented(
                f"Target {amount(life.target_repeats, repeat)} {TARGET_WORDS[life.verdict]}: {used} % used, reserve "
                f"{number(life.reserve_on_stress or 0.0)} (stress), {reserve} (life)"
            )
        )
    reserves = ", ".join(f"{number(value)} on {name}" for name, value in life.static_reserves.items())
    peak = in_unit(max(life.peak_stress, -life.lowest_stress), "stress", units)
    parts.append(indented(f"Static: peak local stress {peak}; reserve {reserves or 'unknown: no strength stated'}"))
    if (other := life.in_order) is not None:
        lives = f"{amount(other.life_repeats, repeat)} (linear rule to a sum of 1: {number(other.linear_repeats)})"
        parts.append(indented(f"In order, by the {other.rule}: {lives}; {other.order}"))
    for source in life.spectrum.sources:
        if source.history is not None and source.history.repairs:
            parts.append(indented(f"Repairs of {source.name}: {'; '.join(source.history.repairs)}"))
    if len(life.duty_cycle.flat()) > 1:
        parts.append(indented(_between(life)))
    parts.append(findings_list(life.findings))
    events = table("Event", f"Cycles a {repeat}", f"Largest range [{display_unit('stress', units)}]", "Damage", "Share")
    for one in _events_that_matter(life):
        events.add_row(
            one.name,
            number(one.cycles),
            fixed(float(shown(one.largest_range, "stress", units))),
            fixed(one.damage),
            f"{one.share:.1%}",
        )
    parts.append(edgeless(events))
    if life.damage_per_repeat > 0.0:
        parts.append(edgeless(_class_table(life, units)))
    return Group(*parts)


def _events_that_matter(life: LifeResult) -> list[EventShare]:
    """Events, that which does most first; where there are many the last line holds all others."""
    events = sorted(life.events, key=lambda one: (-one.damage, -one.largest_range))
    if len(events) <= MOST_EVENTS + 1:
        return events
    rest = events[MOST_EVENTS:]
    others = EventShare(
        name=f"all others ({len(rest)})",
        occurrences=sum(one.occurrences for one in rest),
        cycles=sum(one.cycles for one in rest),
        largest_range=max(one.largest_range for one in rest),
        damage=sum(one.damage for one in rest),
        share=sum(one.share for one in rest),
    )
    return [*events[:MOST_EVENTS], others]


def worst_table(life: LifeResult, units: UnitSystem) -> RenderableType:
    """The ten cycles that do most damage, with their times in the event; two beside each other, to save lines."""
    worst = life.worst_cycles()
    single = len({one.event for one in worst}) == 1
    columns = ["Range", "Mean", "Share", "At [s]", "and [s]"] if single else ["Event", "Range", "Share", "At [s]"]
    half = (len(worst) + 1) // 2
    made = table(*columns, *([" ", *columns] if len(worst) > 1 else []))
    for i in range(half):
        pair = [_worst_cells(one, single, units) for one in (worst[i], *worst[i + half : i + half + 1])]
        made.add_row(*pair[0], *([""] + pair[1] if len(pair) > 1 else []))
    where = f", all of {worst[0].event}" if single else ""
    made.show_edge = False
    unit = display_unit("stress", units)
    return Group(Text(""), indented(f"The worst cycles{where} [{unit}], and the times at which they turn:"), made)


def _worst_cells(one: WorstCycle, single: bool, units: UnitSystem) -> list[str]:
    size, mean = (fixed(float(shown(value, "stress", units))) for value in (one.range, one.mean))
    start, end = ("-" if moment is None else number(moment, 6) for moment in (one.start, one.end))
    return [size, mean, f"{one.share:.1%}", start, end] if single else [one.event, size, f"{one.share:.1%}", start]


def _between(life: LifeResult) -> str:
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
    return "Between events: " + "; ".join(words)


def _class_table(life: LifeResult, units: UnitSystem, least: float = 1e-2) -> Table:
    """Stress classes, in the curve's terms; those that do next to nothing are put together in the last line."""
    unit = display_unit("stress", units)
    words = life.stress_in_words
    made = table(f"{words[0].upper()}{words[1:]} [{unit}]", f"Cycles a {life.duty_cycle.repeat}", "Damage", "Share", "")
    rest_cycles = rest_damage = rest_share = 0.0
    for one in reversed(life.stress_classes(life.edges(units))):
        low, high = (number(float(shown(limit, "stress", units))) for limit in (one.lower, one.upper))
        if one.share >= least:
            made.add_row(f"{low} to {high}", number(one.cycles), fixed(one.damage), f"{one.share:.1%}", bar(one.share))
        else:
            rest_cycles, rest_damage, rest_share = (
                rest_cycles + one.cycles,
                rest_damage + one.damage,
                rest_share + one.share,
            )
    if rest_cycles:
        made.add_row("all other classes", number(rest_cycles), fixed(rest_damage), f"{rest_share:.1%}", "")
    return made


def bar(share: float, width: int = 16) -> str:
    """A share as a bar of number signs, left in its column."""
    return ("#" * round(width * share)).ljust(width)


def rules_table(comparison: RuleComparison) -> RenderableType:
    """One line a mean-stress rule, the one that is used marked; why others are missing."""
    base = comparison.base
    calendar = base.duty_cycle.calendar
    time = calendar.unit_for(*(life.life_repeats for life in comparison.lives.values()))
    made = table("Rule", f"Damage\na {calendar.repeat}", f"Life\n[{time}]", "Used\n[%]", "Reserve\non stress", "")
    for row in comparison.rows():
        reserve = row["reserve_on_stress"]
        made.add_row(
            row["rule"],
            fixed(row["damage_per_repeat"]),
            life_text(calendar.life_in(time, row["life_repeats"])),
            used(row["used_at_target"]),
            "-" if reserve is None else fixed(reserve),
            "as it is" if row["used"] else "",
        )
    missing = [indented(f"{name}: not possible, {why}.") for name, why in comparison.refused.items()]
    return Group(heading(base.hot_spot.name), made, *missing)


def critical_sums_table() -> RenderableType:
    """What sources advise as critical damage sum."""
    made = table("Critical sum", "for", "by")
    for column in made.columns[1:]:
        column.justify = "left"
    for one in CRITICAL_SUMS:
        made.add_row(number(one.value), one.parts, one.source)
    return Group(heading("Critical damage sums, as advised"), made)


def answers_table(rows: list[dict[str, Any]]) -> RenderableType:
    """Questions asked the other way round, and their answers."""
    made = table("What", "Answer")
    for row in rows:
        made.add_row(row["question"], row["shown"])
    return made


def what_if_table(result: WhatIf) -> RenderableType:
    """One line a value and hot spot, the study as it is marked; values that it refuses with the reason."""
    first = next(life for one in result.variants for life in one.lives.values())
    middle = f"Damage\na {first.calendar.repeat}" if isinstance(first, VariantLife) else "Limiting\nsize [mm]"
    time = result.unit_of_life
    heads = (middle, f"Life\n[{time}]", "Used\n[%]", "Reserve\non life", "")
    made = table(result.key.rpartition("/")[2], "Hot spot", *heads)
    made.columns[1].justify = "left"
    spots = _spots_shown(result)
    for one in result.variants:
        for i, (spot, life) in enumerate((spot, one.lives[spot]) for spot in spots if spot in one.lives):
            reserve = life.reserve_on_life
            made.add_row(
                _given(one.value) if i == 0 else "",
                spot,
                fixed(life.damage_per_repeat if isinstance(life, VariantLife) else life.limiting_size),
                life_text(life.calendar.life_in(time, life.life_repeats)),
                used(life.used_at_target),
                "-" if reserve is None else fixed(reserve),
                "as it is" if one.is_base else "",
            )
    errors = [indented(f"{one.value}: {one.error}") for one in result.variants if one.error]
    others = len(result.spots) - len(spots)
    more = [indented(f"{others} more hot spots live longer: one of them by --spot, all by --csv.")] if others else []
    return Group(made, *_nodes_of(result), *more, *errors)


def _given(value: Any) -> str:
    """A value of the study; None where it leaves the key out."""
    return "not given" if value is None else str(value)


def _nodes_of(result: WhatIf) -> list[RenderableType]:
    """Which node is the worst one, where there is a model."""
    lives = {_given(one.value): one.lives.get(WORST_NODE) for one in result.variants}
    named = {value: life.place for value, life in lives.items() if isinstance(life, VariantLife)}
    if not named:
        return []
    if len(set(named.values())) == 1:
        return [indented(f"The worst node is {next(iter(named.values()))} at all of these values.")]
    return [indented("The worst node: " + ", ".join(f"{node} at {value}" for value, node in named.items()) + ".")]


def _spots_shown(result: WhatIf) -> list[str]:
    """The hot spots that live shortest in the study as it is; all where they are few."""
    base = next(one for one in result.variants if one.is_base)
    first = sorted(result.spots, key=lambda spot: base.lives[spot].life_repeats if spot in base.lives else math.inf)
    kept = first[:MOST_SPOTS] if len(first) > MOST_SPOTS + 1 else first
    return [spot for spot in result.spots if spot in kept]


def comparison_tables(result: StudyComparison) -> RenderableType:
    """What differs in the input of several studies, and their lives."""
    names = list(result.results)
    inputs = table("Key", *names)
    for key, values in result.differences.items():
        inputs.add_row(key, *("-" if value is None else str(value) for value in values))
    lives = table("Life (used at the target)", *names)
    for row in result.rows():
        lives.add_row(row["hot_spot"], *(_told(result, name, row) for name in names))
    same = [indented("Nothing differs in the input.")] if not result.differences else [inputs]
    return Group(heading("What differs in the input"), *same, heading("Lives"), lives)


def _told(result: StudyComparison, name: str, row: dict[str, Any]) -> str:
    """A life of one of several studies, in its own unit, with how much of it the target uses."""
    repeats, share = row[f"{name}: life_repeats"], row[f"{name}: used_at_target"]
    if repeats is None:
        return "-"
    if math.isinf(repeats):
        return "no damage"
    life = result.results[name].study.duty_cycle.calendar.text(repeats)
    told = life if share is None else f"{life} ({used(share)} %)"
    return f"{told}, {row[f'{name}: place']}" if row["hot_spot"] == WORST_NODE else told


def check_table(check: ChannelCheck, units: UnitSystem) -> RenderableType:
    """The numbers of a channel before counting, and its findings."""

    def value(one: float) -> str:
        return in_unit(one, check.dimension, units)

    points = f"one every {number(check.samples_per_turning_point, 3)} samples, small swings left out"
    timed = np.isfinite(check.samples_per_turning_point)
    frequency = "none stands out"
    if check.dominant_frequency > 0.0:
        frequency = f"{number(check.dominant_frequency)} Hz, {number(check.samples_per_cycle, 3)} samples a cycle"
    facts = Table.grid(padding=(0, 2))
    rows = [
        ("Lowest, highest", f"{value(check.minimum)}, {value(check.maximum)}"),
        ("Mean, rms", f"{value(check.mean)}, {value(check.rms)}; crest factor {number(check.crest_factor, 3)}"),
        *([("Turning points", f"{number(check.turning_points_per_second)} a second; {points}")] if timed else []),
        *([("Dominant frequency", frequency)] if timed else []),
        ("Clipped, flat, spikes", f"{len(check.clipped)}, {len(check.flat)} stretches; {check.spikes.size} samples"),
        ("Drift, jitter of time", f"{value(check.drift)}; {check.jitter:.2g} of a step"),
    ]
    for name, text in rows:
        facts.add_row(f"  {name}", text)
    return Group(facts, findings_list(check.findings))


def count_tables(
    history: LoadHistory, channel: str, cycles: Cycles, classes: list[dict[str, float]], units: UnitSystem
) -> RenderableType:
    """The largest cycles with their times, and the classes of range."""
    unit = display_unit(cycles.dimension, units)
    timed = history.steps == "even"
    largest = table(
        "No",
        f"Range [{unit}]",
        f"Mean [{unit}]",
        "Count",
        *(("From [s]", "To [s]") if timed else ("From row", "To row")),
    )
    top = cycles.sorted_by_range().chosen(np.arange(min(LARGEST_CYCLES, len(cycles))))
    for i in range(len(top)):
        places = [int(place[i]) for place in (top.start, top.end)]
        times = [number(one / history.sample_rate, 6) if timed else str(one + 1) for one in places]
        values = [fixed(float(shown(value[i], cycles.dimension, units))) for value in (top.range, top.mean)]
        largest.add_row(str(i + 1), *values, number(float(top.count[i])), *times)
    by_class = class_table(classes, cycles.dimension, channel, units)
    return Group(heading("The largest cycles"), largest, by_class)


def matrix_table(matrix: CycleMatrix, units: UnitSystem) -> RenderableType:
    """Cycles of a matrix in at most eight classes a side, neighbours put together; empty cells stay empty."""
    unit = display_unit(matrix.dimension, units)
    rows, columns = MATRICES[matrix.kind]
    row_at, column_at = (_coarse(edges.size - 1) for edges in (matrix.row_edges, matrix.column_edges))
    sums = np.add.reduceat(np.add.reduceat(matrix.counts, row_at[:-1], axis=0), column_at[:-1], axis=1)
    low, high = (shown(matrix.column_edges[one], matrix.dimension, units) for one in (column_at[:-1], column_at[1:]))
    heads = [f"{number(float(one), 3)} to\n{number(float(two), 3)}" for one, two in zip(low, high, strict=True)]
    made = table(f"{rows.capitalize()} [{unit}]", *heads)
    made.columns[0].no_wrap = True
    edges = shown(matrix.row_edges, matrix.dimension, units)
    for i in reversed(range(len(row_at) - 1)):
        first, last = (number(float(edges[one]), 3) for one in row_at[i : i + 2])
        made.add_row(f"{first} to {last}", *("" if one == 0.0 else number(float(one), 3) for one in sums[i]))
    return Group(heading(f"Cycles by {rows}, down, and {columns} [{unit}], across"), made)


def _coarse(size: int, most: int = 8) -> IntArray:
    """Edges that take classes together, so that at most `most` are left."""
    return np.unique(np.linspace(0, size, min(size, most) + 1).round().astype(np.int64))


def class_table(classes: list[dict[str, float]], dimension: str, channel: str, units: UnitSystem) -> RenderableType:
    """Classes of range with their cycles, and how many reach or pass them."""
    by_class = table(f"Range [{display_unit(dimension, units)}]", "Cycles", "At or above")
    above = 0.0
    for one in reversed(classes):
        above += one["cycles"]
        low, high = (number(float(shown(one[key], dimension, units))) for key in ("from", "below"))
        by_class.add_row(f"{low} to {high}", number(one["cycles"]), number(above))
    return Group(heading(f"Classes of the range of {channel}"), by_class)
