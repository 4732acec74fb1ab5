"""Growth of cracks, inspection plans and whole lives as tables."""

from __future__ import annotations

import math
from collections.abc import Mapping, Sequence

from rich.console import Group, RenderableType
from rich.table import Table

from vivid_anvil.cli.tables import edgeless, findings_list, heading, indented, life_text, table, used
from vivid_anvil.events.calendar import amount, plural, share_used
from vivid_anvil.growth import GrowthResult, InspectionPlan, LoadLimit, SizeLives
from vivid_anvil.materials import GrowthFit
from vivid_anvil.study import TotalLife
from vivid_anvil.units import UnitSystem, coherent, display_unit, fixed, in_unit, number, shown


def growth_details(growth: GrowthResult, units: UnitSystem) -> RenderableType:
    """Sizes, life and how much of it the target uses, inspection, the growth curve and findings of one crack."""
    crack, repeat = growth.crack, growth.duty_cycle.repeat

    def length(size: float | None) -> str:
        return "not reached" if size is None else in_unit(size, "length", units)

    facts = Table.grid(padding=(0, 2))
    rows = [
        ("Shape", f"{crack.shape.kind} crack; size: {crack.shape.size_means}"),
        ("Initial size", _initial(growth, units)),
        *_limit_rows(growth, units),
        ("Life to limiting size", _growth_life(growth)),
        *_of_target(growth),
        ("Stopped by", f"{growth.stopped_by}, at {length(growth.stages[-1].final_size)}"),
        *([] if growth.stopped_in is None else [("In", growth.stopped_in)]),
        *_memory_rows(growth, units),
        ("Inspection", _inspection(growth, units)),
        ("Growth at the start by", _shares(growth.event_shares())),
        _error_row(growth),
    ]
    for name, value in rows:
        facts.add_row(f"  {name}", value)
    parts: list[RenderableType] = [heading(f"Crack at {crack.hot_spot.name}"), facts]
    if growth.sizes.size > 1:
        parts.append(_growth_table(growth, units, repeat))
    for stage in growth.stages[1:]:
        shape = stage.crack.shape
        parts.append(indented(f"Then a {shape.kind} crack, size: {shape.size_means}"))
        parts.append(_growth_table(stage, units, repeat))
    parts.append(findings_list(growth.findings))
    return Group(*parts)


def _shares(shares: Mapping[str, float], most: int = 4) -> str:
    """Events with their shares; where there are many those that do most, and all others together."""
    named = list(shares.items())
    if len(named) > most + 1:
        named = sorted(named, key=lambda one: -one[1])
        named = [*named[:most], (f"all others ({len(named) - most})", sum(share for _, share in named[most:]))]
    return ", ".join(f"{name} {share:.1%}" for name, share in named)


def growths_table(growths: Sequence[GrowthResult], units: UnitSystem) -> RenderableType:
    """One line a crack: from which size to which, its life, how much of it the target uses, when to look."""
    calendar, length = growths[0].duty_cycle.calendar, display_unit("length", units)
    time = calendar.unit_for(*(one.life_repeats for one in growths))
    made = table(
        "Crack at", f"Initial\n[{length}]", f"Limiting\n[{length}]", f"Life\n[{time}]", "Used\n[%]", "Inspect\nevery"
    )
    for one in growths:
        sizes = (one.crack.initial_size, one.stages[-1].critical.limiting)
        never = one.interval_repeats is None or not 0.0 < one.interval_repeats < math.inf
        made.add_row(
            one.crack.hot_spot.name,
            *(fixed(float(shown(size, "length", units))) for size in sizes),
            "no growth" if math.isinf(one.life_repeats) else fixed(float(calendar.life_in(time, one.life_repeats))),
            used(one.used_at_target),
            "-" if never else calendar.text(one.interval_repeats or 0.0),
        )
    return edgeless(made)


def _of_target(growth: GrowthResult) -> list[tuple[str, str]]:
    """How much of the crack's life the target uses."""
    share = growth.used_at_target
    if growth.target_repeats is None or share is None:
        return []
    word = "met" if share <= 1.0 else "missed"
    return [("Target", f"{amount(growth.target_repeats, growth.duty_cycle.repeat)} {word}: {used(share)} % used")]


def _initial(growth: GrowthResult, units: UnitSystem) -> str:
    crack = growth.crack
    along = (
        ""
        if crack.initial_half_length is None
        else f" deep, {in_unit(crack.initial_half_length, 'length', units)} half length"
    )
    return in_unit(crack.initial_size, "length", units) + along


def _limit_rows(growth: GrowthResult, units: UnitSystem) -> list[tuple[str, str]]:
    """Where each limit is met; of two sizes only the one that ends each part of the way."""
    critical = growth.critical

    def length(size: float | None) -> str:
        return "not reached" if size is None else in_unit(size, "length", units)

    if growth.crack.two_way:
        first = f"{length(critical.limiting)} deep, {critical.governed_by}"
        rows = [("Limiting size", first)]
        if growth.half_lengths is not None and growth.half_lengths.size > 1:
            rows.append(("Half length there", length(float(growth.half_lengths[-1]))))
        for stage in growth.stages[1:]:
            end, what = stage.critical, f"Then as {stage.crack.shape.kind} crack"
            rows.append((what, f"to {length(end.limiting)} {stage.crack.shape.size_means}, {end.governed_by}"))
        return rows
    rows = [
        ("Toughness reached at", length(critical.toughness)),
        ("Net section yields at", length(critical.net_section)),
    ]
    if critical.assessment is not None or growth.crack.limits == "assessment curve":
        rows = [("Assessment curve met at", length(critical.assessment))]
    if critical.chosen is not None:
        rows.append(("Chosen size", length(critical.chosen)))
    return [
        *rows,
        ("Solution valid to", length(critical.validity)),
        ("Limiting size", f"{length(critical.limiting)}, {critical.governed_by}"),
    ]


def _memory_rows(growth: GrowthResult, units: UnitSystem) -> list[tuple[str, str]]:
    """What the memory of larger cycles does, where it is asked for; at which cycle it stopped."""
    rows, repeat = [], growth.duty_cycle.repeat
    if growth.without_memory_repeats is not None:
        words = (
            "no growth" if math.isinf(growth.without_memory_repeats) else amount(growth.without_memory_repeats, repeat)
        )
        rows.append((f"Without {growth.crack.retardation.kind}", words))
        rows.append(("Plastic zone", growth.crack.retardation.zone_words(growth.start_peak_k, units)))
    if growth.cycles is not None:
        rows.append(("Cycles followed", number(float(growth.cycles))))
    return rows


def _error_row(growth: GrowthResult) -> tuple[str, str]:
    change = "less than 1e-9" if growth.halving_change < 1e-9 else f"{growth.halving_change:.0e}"
    if growth.cycles is None:
        return "Halving every step", f"changes the life by {change} of itself"
    return "Reading K off a grid", f"moves growth rates by {change} of themselves"


def _growth_life(growth: GrowthResult) -> str:
    if math.isinf(growth.life_repeats):
        return "no growth"
    return growth.duty_cycle.calendar.in_all_units(growth.life_repeats, growth.duty_cycle.hours)


def _inspection(growth: GrowthResult, units: UnitSystem) -> str:
    crack, interval = growth.crack, growth.interval_repeats
    if interval is None or crack.detectable_size is None:
        return "no detectable size given"
    detectable = in_unit(crack.detectable_size, "length", units)
    if interval == 0.0:
        return f"useless: {detectable} is beyond the limiting size"
    if math.isinf(interval):
        return f"no interval: a crack of {detectable} does not grow"
    return f"every {growth.duty_cycle.calendar.text(interval)} (detectable {detectable}, factor {crack.inspection_factor:g})"


def _growth_table(growth: GrowthResult, units: UnitSystem, repeat: str) -> RenderableType:
    size_unit, k_unit = display_unit("length", units), display_unit("stress intensity", units)
    calendar = growth.duty_cycle.calendar
    time: str | None = calendar.unit_for(growth.life_repeats)
    time = None if time == calendar.repeats else time
    made = table(
        f"Size\n[{size_unit}]",
        plural(repeat).capitalize(),
        *([] if time is None else [time.capitalize()]),
        f"Largest K\n[{k_unit}]",
        f"Largest ΔK\n[{k_unit}]",
        f"Growth\n[{size_unit} a {repeat}]",
    )
    made.columns[0].justify = "right"
    for row in growth.rows():
        made.add_row(
            fixed(float(shown(row["size_mm"], "length", units))),
            fixed(row["repeats"]),
            *([] if time is None else [fixed(calendar.life_in(time, row["repeats"]))]),
            fixed(_k_shown(row["largest_K_MPa_sqrt_m"], units)),
            fixed(_k_shown(row["largest_K_range_MPa_sqrt_m"], units)),
            fixed(float(shown(row["growth_per_repeat_mm"], "length", units))),
        )
    return made


def total_lines(total: TotalLife) -> RenderableType:
    """Life by damage, growth, and both together."""
    facts = Table.grid(padding=(0, 2))

    def words(repeats: float) -> str:
        if math.isinf(repeats):
            return "without end"
        return total.calendar.in_all_units(repeats)

    share = "" if total.growth_share is None else f", {total.growth_share:.1%} of it growth"
    facts.add_row("  Until a crack is there, by damage", words(total.until_crack_repeats))
    facts.add_row("  Growth to the limiting size", words(total.growth_repeats))
    facts.add_row("  One after the other", words(total.repeats) + share)
    if total.used_at_target is not None and total.target_repeats is not None:
        target = amount(total.target_repeats, total.calendar.repeat)
        facts.add_row("  Of it used at the target", f"{used(total.used_at_target)} % ({target})")
    return Group(heading(f"Whole life of {total.hot_spot}"), facts, findings_list(total.findings))


def plan_page(
    plan: InspectionPlan, lives: SizeLives, limits: list[LoadLimit], target: object, units: UnitSystem
) -> RenderableType:
    """The plan with its inspections, lives from other initial sizes, limiting sizes at other loads."""
    result = plan.result
    calendar, crack = result.duty_cycle.calendar, result.crack
    length = display_unit("length", units)

    facts = Table.grid(padding=(0, 2))
    rows = [
        (
            "Detectable, limiting size",
            f"{in_unit(crack.detectable_size or 0.0, 'length', units)}, "
            f"{in_unit(result.critical.limiting, 'length', units)} ({result.governed_by})",
        ),
        ("Interval allowed", f"{calendar.text(plan.allowed_repeats)} (factor {crack.inspection_factor:g})"),
        (
            "Interval of the plan",
            f"{calendar.text(plan.interval_repeats)}, first after {calendar.text(plan.first_repeats)}",
        ),
        ("Chances to find it", amount(plan.chances, "inspection")),
    ]
    for name, value in rows:
        facts.add_row(f"  {name}", value)
    sizes = {"expected_size_mm": f"Expected size [{length}]", "expected_half_length_mm": f"Half length [{length}]"}
    keys = [key for key in sizes if key in (plan.rows() or [{}])[0]]
    time = calendar.unit_for(result.life_repeats)
    looks = table("Inspection", time.capitalize(), *(sizes[key] for key in keys), "Can be found")
    for row in plan.rows():
        values = [fixed(float(shown(row[key], "length", units))) for key in keys]
        looks.add_row(
            str(row["inspection"]),
            fixed(calendar.life_in(time, row["repeats"])),
            *values,
            "yes" if row["can_be_found"] else "no",
        )
    return Group(
        heading(f"Inspections of the crack at {crack.hot_spot.name}"),
        facts,
        looks if plan.at_repeats.size else indented("No inspection before the limiting size."),
        findings_list(plan.findings),
        heading("Life from other initial sizes"),
        *_size_lines(lives, target, units),
        heading("Limiting size at other loads"),
        _load_table(limits, units),
    )


def _size_lines(lives: SizeLives, target: object, units: UnitSystem) -> list[RenderableType]:
    calendar = lives.duty_cycle.calendar
    time = calendar.unit_for(*lives.repeats.tolist())
    made = table(
        f"Initial size [{display_unit('length', units)}]", f"{time.capitalize()} to the limiting size", "Used [%]"
    )
    made.columns[0].justify = "right"
    for size, life in zip(lives.sizes, lives.repeats, strict=True):
        share = share_used(lives.target_repeats, float(life))
        made.add_row(
            fixed(float(shown(size, "length", units))), life_text(float(calendar.life_in(time, life))), used(share)
        )
    lines: list[RenderableType] = [made]
    if lives.largest_lasting is not None:
        largest = in_unit(lives.largest_lasting, "length", units)
        words = f"Initial size that just lasts {target}: {largest}."
        if lives.largest_lasting < 0.1:
            words += " That is below 0.1 mm, where cracks grow faster than the law says: it does not last."
        lines.append(indented(words))
    return lines


def _load_table(limits: list[LoadLimit], units: UnitSystem) -> RenderableType:
    stress, length = display_unit("stress", units), display_unit("length", units)
    made = table("Load times", f"Peak stress [{stress}]", f"Limiting size [{length}]", "Governed by")
    made.columns[0].justify = "right"
    made.columns[3].justify = "left"
    for one in limits:
        values = (float(shown(one.peak_stress, "stress", units)), float(shown(one.size, "length", units)))
        made.add_row(f"{one.scale:g}", *(fixed(value) for value in values), one.governed_by)
    return made


def growth_fit_lines(fit: GrowthFit, units: UnitSystem) -> RenderableType:
    """The fitted law, its scatter and findings, and the lines for a study file."""
    tests, upper = fit.tests, fit.law(2.0)
    low, high = fit.slope_interval
    reach = [in_unit(float(one), "stress intensity", units) for one in (tests.ranges.min(), tests.ranges.max())]
    facts = Table.grid(padding=(0, 2))
    rows = [
        ("Rates", f"{tests.rates.size}, {tests.how}; R = {tests.r_ratio:g}"),
        ("ΔK tested", f"{reach[0]} to {reach[1]}"),
        ("Slope m", f"{number(fit.slope)} (95 % confidence {number(low)} to {number(high)})"),
        ("Scatter of log10 rate", f"standard deviation {number(fit.std, 3)}, a factor of {number(10.0**fit.std, 3)}"),
        ("C, mean", f"{fit.constant:.5g} (mm/cycle, MPa√mm)"),
        ("C, mean + 2 standard deviations", f"{upper.constant:.5g} (mm/cycle, MPa√mm)"),
    ]
    for name, value in rows:
        facts.add_row(f"  {name}", value)
    lines = (
        "[growth_laws.fitted]",
        f'rate = "{upper.constant:.6g} mm/cycle at 1 MPa√mm"   # the upper bound',
        f"slope = {fit.slope:.5g}",
        f"r_ratio = {tests.r_ratio:g}",
    )
    return Group(
        heading(f"Growth law from {tests.name}"),
        facts,
        findings_list(fit.findings),
        heading("For a study file"),
        *(indented(line) for line in lines),
    )


def _k_shown(root_metres: float, units: UnitSystem) -> float:
    """K in the unit system of the tables, from MPa√m as records have it."""
    return float(shown(coherent(f"{root_metres!r} MPa√m", "stress intensity", "K"), "stress intensity", units))
