"""Results as tables that stay readable at 80 columns, in a terminal and in a pipe."""

from __future__ import annotations

import math
from collections.abc import Iterable

import numpy as np
from rich import box
from rich.console import Console, Group, RenderableType
from rich.padding import Padding
from rich.table import Table
from rich.text import Text

from vivid_anvil.cracks import GrowthResult
from vivid_anvil.damage import LifeResult, between_effect
from vivid_anvil.findings import Finding
from vivid_anvil.histories import ChannelCheck, Cycles, DutyCycle, LoadHistory
from vivid_anvil.study import Study
from vivid_anvil.units import UnitSystem, display_unit, fixed, in_unit, number, shown

WIDTH = 80
TARGET_WORDS = {"meets the target": "met", "fails the target": "missed", "no damage": "met", "no target": "none"}
LARGEST_CYCLES = 10
_COLOURS = {"note": "cyan", "warning": "yellow", "severe": "bold red"}


def console() -> Console:
    """The console of all tables: at most 100 columns wide, 80 in a pipe."""
    out = Console(highlight=False)
    out.width = min(out.width, 100) if out.is_terminal else WIDTH
    return out


def table(*columns: str) -> Table:
    """A table whose first column is text and whose others are numbers, set to the right."""
    made = Table(box=box.SIMPLE_HEAD, padding=(0, 1, 0, 0))
    for i, column in enumerate(columns):
        made.add_column(Text(column), justify="left" if i == 0 or not column else "right", overflow="fold")
    return made


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


def duty_cycle_table(duty: DutyCycle, units: UnitSystem) -> RenderableType:
    """Events with occurrences, duration and limits of each channel."""
    made = table("Event", f"Times a {duty.repeat}", "Duration [s]", "Channel", "Lowest", "Highest")
    for event, times in duty.flat():
        load = event.load
        duration = "not stated" if load.duration is None else number(load.duration)
        for i, (name, dimension) in enumerate(load.dimensions.items()):
            low, high = load.extremes(name)
            first = (event.name, number(times), duration) if i == 0 else ("", "", "")
            made.add_row(*first, name, in_unit(low, dimension, units), in_unit(high, dimension, units))
    return made


def study_lines(study: Study) -> RenderableType:
    """Title, duty cycle and target in two or three lines."""
    duty = study.duty_cycle
    hours = "duration not stated" if duty.hours is None else f"{number(duty.hours)} h"
    lines = [
        f"One {duty.repeat} ({hours}, {number(duty.repeats_per_year)} a year): "
        + ", ".join(f"{number(event.occurrences)} × {event.name}" for event in duty.events)
    ]
    if study.target_life is not None:
        lines.append(f"Target life: {study.target_life} = {number(duty.repeats_in(study.target_life))} {duty.repeat}s")
    return Text("\n".join(lines))


def hot_spots_table(study: Study) -> RenderableType:
    """What is set for each hot spot."""
    made = table("Hot spot", "Channel", "Stress per load", "Kf", "S-N curve", "Mean stress")
    for spot in study.hot_spots:
        curve = "none" if spot.curve is None else spot.curve.name
        made.add_row(
            spot.name, spot.channel, str(spot.stress_per_load), number(spot.notch_factor), curve, spot.mean_stress
        )
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


def life_text(value: float) -> str:
    """A life in years or repeats, or 'no damage'."""
    return "no damage" if math.isinf(value) else fixed(value)


def lives_table(lives: tuple[LifeResult, ...], units: UnitSystem) -> RenderableType:
    """One line per hot spot."""
    repeat = lives[0].duty_cycle.repeat
    unit = display_unit("stress", units)
    made = table(
        "Hot spot", f"Peak\n[{unit}]", f"Damage\na {repeat}", "Life\n[years]", "Reserve on\nstress", "\nlife", "Target"
    )
    for life in lives:
        style = "red" if life.verdict == "fails the target" else ""
        made.add_row(
            life.hot_spot.name,
            fixed(float(shown(life.peak_stress, "stress", units))),
            fixed(life.damage_per_repeat),
            life_text(life.life_years),
            "-" if life.reserve_on_stress is None else fixed(life.reserve_on_stress),
            "-" if life.reserve_on_life is None else fixed(life.reserve_on_life),
            Text(TARGET_WORDS[life.verdict], style=style),
        )
    return made


def life_details(life: LifeResult, units: UnitSystem) -> RenderableType:
    """Life in all units of time, shares of events and range classes, findings of one hot spot."""
    repeat = life.duty_cycle.repeat
    parts: list[RenderableType] = [heading(life.hot_spot.name)]
    if math.isinf(life.life_repeats):
        parts.append(indented("No cycle does damage: life has no limit by this calculation."))
    else:
        hours = "" if life.life_hours is None else f" = {number(life.life_hours)} h"
        used = "" if life.used_at_target is None else f"; {number(100 * life.used_at_target)} % used at the target"
        parts.append(
            indented(f"Life {number(life.life_repeats)} {repeat}s{hours} = {number(life.life_years)} years{used}")
        )
    for source in life.spectrum.sources:
        if source.history is not None and source.history.repairs:
            parts.append(indented(f"Repairs of {source.name}: {'; '.join(source.history.repairs)}"))
    if len(life.duty_cycle.flat()) > 1:
        parts.append(indented(_between(life)))
    parts.append(findings_list(life.findings))
    events = table("Event", f"Cycles a {repeat}", f"Largest range [{display_unit('stress', units)}]", "Damage", "Share")
    for one in life.events:
        events.add_row(
            one.name,
            number(one.cycles),
            fixed(float(shown(one.largest_range, "stress", units))),
            fixed(one.damage),
            f"{one.share:.1%}",
        )
    parts.append(events)
    if life.damage_per_repeat > 0.0:
        parts.append(_class_table(life, units))
    return Group(*parts)


def _between(life: LifeResult) -> str:
    """What each assumption on what happens between events would make of the damage."""
    words = []
    for choice, damage in between_effect(life).items():
        if choice == life.duty_cycle.between:
            words.append(f"{choice} (used)")
        elif damage is None:
            words.append(f"{choice}: not possible")
        elif life.damage_per_repeat > 0.0:
            words.append(f"{choice} {damage / life.damage_per_repeat - 1.0:+.1%} damage")
        else:
            words.append(f"{choice}: {'no damage' if damage == 0.0 else 'damage ' + number(damage)}")
    return "Between events: " + "; ".join(words)


def _class_table(life: LifeResult, units: UnitSystem, least: float = 5e-4) -> RenderableType:
    """Range classes; those that do next to nothing are put together in the last line."""
    unit = display_unit("stress", units)
    made = table(f"Local stress range [{unit}]", f"Cycles a {life.duty_cycle.repeat}", "Damage", "Share", "")
    rest_cycles = rest_damage = rest_share = 0.0
    for one in reversed(life.range_classes()):
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


def growth_details(growth: GrowthResult, units: UnitSystem) -> RenderableType:
    """Sizes, life, inspection, the growth curve and findings of one crack."""
    crack, critical, repeat = growth.crack, growth.critical, growth.duty_cycle.repeat

    def length(size: float | None) -> str:
        return "not reached" if size is None else in_unit(size, "length", units)

    facts = Table.grid(padding=(0, 2))
    rows = [
        ("Shape", f"{crack.shape.kind} crack, plate {length(crack.shape.width)} wide; size: {crack.shape.size_means}"),
        ("Initial size", length(crack.initial_size)),
        ("Toughness reached at", length(critical.toughness)),
        ("Net section yields at", length(critical.net_section)),
        ("Solution valid to", length(critical.validity)),
        ("Limiting size", f"{length(critical.limiting)}, {critical.governed_by}"),
        ("Life to limiting size", _growth_life(growth)),
        ("Stopped by", f"{growth.stopped_by}, at {length(growth.final_size)}"),
        ("Inspection", _inspection(growth, units)),
        ("Growth at the start by", ", ".join(f"{name} {share:.0%}" for name, share in growth.event_shares().items())),
        ("Halving every step", _halving(growth.halving_change)),
    ]
    for name, value in rows:
        facts.add_row(f"  {name}", value)
    parts: list[RenderableType] = [heading(f"Crack at {crack.hot_spot.name}"), facts]
    if growth.sizes.size > 1:
        parts.append(_growth_table(growth, units, repeat))
    parts.append(findings_list(growth.findings))
    return Group(*parts)


def _halving(change: float) -> str:
    return f"changes the life by {'less than 1e-9' if change < 1e-9 else f'{change:.0e}'} of itself"


def _growth_life(growth: GrowthResult) -> str:
    if math.isinf(growth.life_repeats):
        return "no growth"
    hours = "" if growth.life_hours is None else f" = {number(growth.life_hours)} h"
    return f"{number(growth.life_repeats)} {growth.duty_cycle.repeat}s{hours} = {number(growth.life_years)} years"


def _inspection(growth: GrowthResult, units: UnitSystem) -> str:
    crack, years = growth.crack, growth.interval_years
    if years is None or crack.detectable_size is None:
        return "no detectable size given"
    detectable = in_unit(crack.detectable_size, "length", units)
    if years == 0.0:
        return f"useless: {detectable} is beyond the limiting size"
    if math.isinf(years):
        return f"no interval: a crack of {detectable} does not grow"
    return f"every {number(years)} years (detectable {detectable}, factor {crack.inspection_factor:g})"


def _growth_table(growth: GrowthResult, units: UnitSystem, repeat: str) -> RenderableType:
    size_unit, k_unit = display_unit("length", units), display_unit("stress intensity", units)
    made = table(
        f"Size\n[{size_unit}]",
        f"{repeat.capitalize()}s",
        "Years",
        f"Largest K\n[{k_unit}]",
        f"Largest ΔK\n[{k_unit}]",
        f"Growth\n[{size_unit} a {repeat}]",
    )
    made.columns[0].justify = "right"
    for row in growth.rows():
        made.add_row(
            fixed(float(shown(row["size_mm"], "length", units))),
            fixed(row["repeats"]),
            fixed(row["years"]),
            fixed(float(shown(row["largest_K_MPa_sqrt_mm"], "stress intensity", units))),
            fixed(float(shown(row["largest_K_range_MPa_sqrt_mm"], "stress intensity", units))),
            fixed(float(shown(row["growth_per_repeat_mm"], "length", units))),
        )
    return made


def check_table(check: ChannelCheck, units: UnitSystem) -> RenderableType:
    """The numbers of a channel before counting, and its findings."""

    def value(one: float) -> str:
        return in_unit(one, check.dimension, units)

    frequency = "none" if check.dominant_frequency == 0.0 else f"{number(check.dominant_frequency)} Hz"
    facts = Table.grid(padding=(0, 2))
    rows = [
        ("Lowest, highest", f"{value(check.minimum)}, {value(check.maximum)}"),
        ("Mean, rms", f"{value(check.mean)}, {value(check.rms)}; crest factor {number(check.crest_factor, 3)}"),
        ("Turning points", f"{number(check.turning_points_per_second)} a second"),
        ("Dominant frequency", f"{frequency}, {number(check.samples_per_cycle, 3)} samples a cycle"),
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
    largest = table("No", f"Range [{unit}]", f"Mean [{unit}]", "Count", "From [s]", "To [s]")
    top = cycles.sorted_by_range().chosen(np.arange(min(LARGEST_CYCLES, len(cycles))))
    for i in range(len(top)):
        times = [number(float(place[i]) / history.sample_rate, 6) for place in (top.start, top.end)]
        values = [fixed(float(shown(value[i], cycles.dimension, units))) for value in (top.range, top.mean)]
        largest.add_row(str(i + 1), *values, number(float(top.count[i])), *times)
    by_class = class_table(classes, cycles.dimension, channel, units)
    return Group(heading("The largest cycles"), largest, by_class)


def class_table(classes: list[dict[str, float]], dimension: str, channel: str, units: UnitSystem) -> RenderableType:
    """Classes of range with their cycles, and how many reach or pass them."""
    by_class = table(f"Range [{display_unit(dimension, units)}]", "Cycles", "At or above")
    above = 0.0
    for one in reversed(classes):
        above += one["cycles"]
        low, high = (number(float(shown(one[key], dimension, units))) for key in ("from", "below"))
        by_class.add_row(f"{low} to {high}", number(one["cycles"]), number(above))
    return Group(heading(f"Classes of the range of {channel}"), by_class)
