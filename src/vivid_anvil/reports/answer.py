"""The first page of a report: what was asked, and the answer of every place in one table."""

from __future__ import annotations

import math
from collections.abc import Iterator
from typing import NamedTuple

from vivid_anvil.acceptance.grow_flaw import said_years
from vivid_anvil.damage import LifeResult
from vivid_anvil.events.calendar import amount
from vivid_anvil.fields import ModelAnswer
from vivid_anvil.growth import GrowthResult
from vivid_anvil.reports.document import Block, Bullets, Facts, Grid, Paragraph
from vivid_anvil.reports.draft import anchor_of
from vivid_anvil.study import WORST_NODE, KeptLife, StudyResult
from vivid_anvil.units import UnitSystem, fixed, in_unit
from vivid_anvil.writing.finding import gravest_first
from vivid_anvil.writing.table import PageTable

HEADS = ["Place", "Asked", "Answer", "Reserve", "Next inspection", "Verdict", "See"]
MOST_FLAWS = 15  # told on the first page
MOST_FINDINGS = 6


class Row(NamedTuple):
    """A row of the table: its cells but the last, the anchor that the last leads to, whether it is bad news."""

    place: str
    asked: str
    answer: str
    reserve: str
    look: str
    verdict: str
    anchor: str
    bad: bool


def answer_blocks(result: StudyResult, units: UnitSystem, numbers: dict[str, str]) -> list[Block]:
    """What was asked, the table, the findings that matter; `numbers` are those of sections by their anchors."""
    rows = list(rows_of(result, units))
    cells = [[*row[:6], numbers.get(row.anchor, "")] for row in rows]
    bad = frozenset((i, 5) for i, row in enumerate(rows) if row.bad)
    left = [True, True, True, False, True, True, True]
    table = PageTable("", HEADS, cells, left, "", bad)
    links = {(i, 6): row.anchor for i, row in enumerate(rows) if row.anchor in numbers}
    blocks: list[Block] = [Facts(_asked(result)), Grid(table, "Answers", links)]
    grave = [one for one in gravest_first(result.findings) if one.severity != "note"]
    if grave:
        blocks.append(Paragraph("What has to be looked at first:"))
        blocks.append(Bullets(tuple(f"{one.severity}: {one.sentence} {one.advice}" for one in grave[:MOST_FINDINGS])))
        if len(grave) > MOST_FINDINGS:
            blocks.append(Paragraph(f"{len(grave) - MOST_FINDINGS} more stand in the section of findings."))
    elif result.findings:
        blocks.append(Paragraph("There are notes, and no warnings, in the section of findings."))
    else:
        blocks.append(Paragraph("There are no findings."))
    return blocks


def _asked(result: StudyResult) -> tuple[tuple[str, str], ...]:
    """What is asked of what: the study in words."""
    study, parts = result.study, []
    if result.lives:
        parts.append(f"the life of {amount(len(result.lives), 'hot spot')}")
    if result.growths:
        parts.append(f"the growth of {amount(len(result.growths), 'crack')}")
    if result.model is not None:
        parts.append("the life at every node of a finite-element model")
    if result.flaws is not None and result.flaws.flaws:
        parts.append(f"whether {amount(len(result.flaws.flaws), 'flaw')} may stay, and until when")
    if result.fronts:
        parts.append(f"{amount(len(result.fronts), 'crack')} of a finite-element model against the assessment curve")
    return (("Asked", "; ".join(parts)), *study.words)


def rows_of(result: StudyResult, units: UnitSystem) -> Iterator[Row]:
    """A row a hot spot, a crack, the worst node, a flaw, a front."""
    for life in result.lives:
        yield _of_life(life)
    for growth in result.growths:
        yield _of_growth(growth, units)
    if result.model is not None:
        yield _of_node(result.places[WORST_NODE], result.model)
    yield from _of_flaws(result)
    for front in result.fronts:
        yield Row(
            front.front.name,
            "against the curve",
            f"K_r = {fixed(front.point.governing.fracture_ratio, 3)}",
            f"{fixed(front.reserve_on_load.factor, 3)} on load",
            "",
            "acceptable" if front.acceptable else "not acceptable",
            anchor_of("results", "front", front.front.name),
            not front.acceptable,
        )


def _of_life(life: LifeResult) -> Row:
    facts = life.facts()
    calendar = life.duty_cycle.calendar
    told = "no damage" if math.isinf(life.life_repeats) else calendar.text(life.life_repeats)
    reserve = life.reserve_on_stress
    verdict = str(facts["verdict"] or "no target")
    return Row(
        life.hot_spot.name,
        "life",
        told,
        "" if reserve is None else f"{fixed(reserve, 3)} on stress",
        "",
        verdict,
        anchor_of("results", "life", life.hot_spot.name),
        verdict.startswith("fails"),
    )


def _of_node(worst: KeptLife, model: ModelAnswer) -> Row:
    """The worst node, also one that fails at once, with the reserve of the worst place."""
    told = "no damage" if math.isinf(worst.life_repeats) else worst.calendar.text(worst.life_repeats)
    reserve = model.reserves[0] if model.reserves else None
    share = worst.reserve_on_life
    short = worst.life_repeats == 0.0 or (share is not None and share < 1.0)
    verdict = "fails at once" if worst.life_repeats == 0.0 else "no target" if share is None else "meets the target"
    if short and worst.life_repeats > 0.0:
        verdict = "fails the target"
    return Row(
        f"worst of the model: {worst.place}",
        "life",
        "fails at once" if worst.life_repeats == 0.0 else told,
        "" if reserve is None else f"{fixed(reserve, 3)} on {model.reserve_on}",
        "",
        verdict,
        anchor_of("results", "model"),
        short,
    )


def _of_growth(growth: GrowthResult, units: UnitSystem) -> Row:
    calendar = growth.duty_cycle.calendar
    told = "no growth" if math.isinf(growth.life_repeats) else calendar.text(growth.life_repeats)
    size = in_unit(growth.crack.initial_size, "length", units)
    target, interval = growth.target_repeats, growth.interval_repeats
    short = target is not None and growth.life_repeats < target
    return Row(
        growth.crack.hot_spot.name,
        f"crack of {size}",
        told,
        "" if target is None else f"{fixed(growth.life_repeats / target, 3)} on life",
        "" if interval is None else f"every {calendar.text(interval)}",
        "no target" if target is None else "fails the target" if short else "meets the target",
        anchor_of("results", "crack", growth.crack.hot_spot.name),
        short,
    )


def _of_flaws(result: StudyResult) -> Iterator[Row]:
    if result.flaws is None:
        return
    for flaw in result.flaws.flaws[:MOST_FLAWS]:
        accepted = flaw.assessment.acceptable
        look = result.flaws.date_after(flaw.next_look) if accepted else None
        if look is None and accepted and flaw.next_look is not None and math.isfinite(flaw.next_look):
            look = f"within {said_years(flaw.next_look)}"
        yield Row(
            f"flaw {flaw.name}",
            "may it stay?",
            "not today" if not accepted else "yes" if flaw.life is None else said_years(flaw.life),
            f"{fixed(flaw.assessment.reserve_on_load.factor, 3)} on load",
            look or "",
            result.flaws.in_a_word(flaw),
            anchor_of("results", "flaws"),
            result.flaws.in_a_word(flaw) != "holds",
        )
    others = len(result.flaws.flaws) - MOST_FLAWS
    if others > 0:
        yield Row(
            f"{others} more flaws", "may it stay?", "less urgent", "", "", "", anchor_of("results", "flaws"), False
        )
