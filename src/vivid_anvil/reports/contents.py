"""What stands in the sections of a report: the study in tables, formulas with sources, results, what was left out."""

from __future__ import annotations

import platform
from collections.abc import Callable, Iterator, Sequence
from importlib.metadata import PackageNotFoundError, version
from importlib.resources import files
from pathlib import Path
from typing import Any

from vivid_anvil.damage import LifeResult
from vivid_anvil.figures import draw_into, plot
from vivid_anvil.ground.files import fingerprint
from vivid_anvil.histories import LoadHistory, check_history
from vivid_anvil.pages import live
from vivid_anvil.reports.document import Block, Facts, Grid, Paragraph, Picture, Section, Steps, Told
from vivid_anvil.reports.document import Bullets as Sentences
from vivid_anvil.reports.draft import anchor_of, grid, section
from vivid_anvil.study import Study, StudyResult, all_places, check_study
from vivid_anvil.study.compare import flat_keys
from vivid_anvil.study.report_settings import SECTIONS
from vivid_anvil.units import UnitSystem
from vivid_anvil.writing.finding import Finding
from vivid_anvil.writing.result import Result
from vivid_anvil.writing.table import Column, Table
from vivid_anvil.writing.working import Working

PACKAGES = ("numpy", "scipy", "pandas", "numba", "matplotlib", "pint", "pydantic")
TABLES = {"sn_curves": "S-N curves", "sn_families": "S-N families"}
MOST_LOOKED_INTO = 3  # lives of an interactive report with their histories and cycles
MOST_IN_FULL = 6  # results of one kind that are told in full and drawn
Watch = Callable[[str, int, int], None]


# ---- inputs ----------------------------------------------------------------------------------------------------------


def inputs_section(result: StudyResult, units: UnitSystem) -> Section:
    """Every value of the study with its unit as it was given, what it makes, the files with their hashes."""
    study, check = result.study, check_study(result.study)
    inner = []
    for name, value in study.data.items():
        if isinstance(value, dict | list) and name != "report":
            rows = [(key, _in_words(one)) for key, one in flat_keys(value)]
            if rows:
                columns = (
                    Column("key", [key for key, _ in rows], left=True),
                    Column("value", [one for _, one in rows], left=True),
                )
                title = f"{TABLES.get(name, name.replace('_', ' ').capitalize())}, as written"
                inner.append(section(title, [grid(Table("", columns), title, units)], anchor=anchor_of("inputs", name)))
    tables = [table for table in check.tables(units) if len(table) and table.only == ""]
    made: list[Block] = [grid(table, table.title or table.key.capitalize(), units) for table in tables]
    inner.append(section("What they make", made, anchor="inputs-made"))
    inner.append(section("Histories, checks and repairs", _histories(study, units), anchor="inputs-histories"))
    plain = [
        (key.replace("_", " "), str(value)) for key, value in study.data.items() if not isinstance(value, dict | list)
    ]
    return section(SECTIONS["inputs"], [Facts(tuple(plain))], inner, anchor="inputs")


def _in_words(value: Any) -> str:
    if isinstance(value, list):
        return "; ".join(_in_words(one) if not isinstance(one, list) else ", ".join(map(str, one)) for one in value)
    return str(value)


def _histories(study: Study, units: UnitSystem) -> list[Block]:
    """What was said of each measured history, and what was repaired."""
    if study.duty_cycle is None:
        return [Paragraph("The study has no duty cycle.")]
    rows, blocks = [], []
    for event, times in study.duty_cycle.flat():
        measured = event.load.measured
        repairs = "-" if measured is None else "; ".join(measured.repairs) or "none"
        rows.append((event.name, f"{times:g}", "stated" if measured is None else measured.name, repairs))
        if measured is not None:
            blocks += _checked(event.name, measured, units)
    heads = ("event", "times a repeat", "history", "repairs")
    columns = tuple(Column(head, [row[i] for row in rows], left=i != 1) for i, head in enumerate(heads))
    return [Grid(Table("", columns).on_page(), "Events and their histories"), *blocks]


def _checked(name: str, history: LoadHistory, units: UnitSystem) -> list[Block]:
    """What a history looks like, channel by channel, and what its check found."""
    blocks: list[Block] = []
    for check in check_history(history):
        page = check.page(units, title=f"{name}: {check.title}")
        blocks += [Paragraph(page.title), Facts(page.words)]
        blocks += [grid(table, page.title, units) for table in page.tables]
        blocks += [Told(page.findings)] if page.findings else []
    return blocks


# ---- method ----------------------------------------------------------------------------------------------------------


def method_section(result: StudyResult, units: UnitSystem) -> Section:
    """Methods of the places in words, and every formula that the hand calculations use, with its source."""
    facts = [(life.hot_spot.name, life.hot_spot.assessed_by.words) for life in result.lives]
    for growth in result.growths:
        crack = growth.crack
        facts.append((f"crack at {crack.hot_spot.name}", f"{crack.shape.kind} crack, law {crack.law.name}"))
    facts += _method_of_flaws(result)
    rows: dict[tuple[str, str], tuple[str, str, str]] = {}
    for working in workings_of(result, units):
        for step in working.steps:
            rows.setdefault((step.title, step.formula), (step.title, step.formula, step.source))
    used = list(rows.values())
    columns = tuple(
        Column(head, [row[i] for row in used], left=True) for i, head in enumerate(("what", "formula", "source"))
    )
    formulas: list[Block] = [grid(Table("", columns), "Formulas and their sources", units)] if used else []
    return section(SECTIONS["method"], [Facts(tuple(facts)), *formulas], anchor="method")


def _method_of_flaws(result: StudyResult) -> list[tuple[str, str]]:
    job = result.study.flaws
    if job is None:
        return []
    return [
        (f"flaws in {name}", f"failure assessment diagram, {place.metal.assessment_curve.words}")
        for name, place in job.places.items()
    ]


def workings_of(result: StudyResult, units: UnitSystem) -> list[Working]:
    """The hand calculation of the worst of each kind of answer."""
    found: list[Result] = []
    if result.worst is not None:
        found.append(result.worst)
    found += sorted(result.growths, key=lambda one: one.life_repeats)[:1]
    if result.model is not None and result.model.life is not None:
        found.append(result.model.life)
    if result.flaws is not None:
        found += [flaw.assessment for flaw in result.flaws.flaws[:1]]
    found += result.fronts[:1]
    return [one.working(units) for one in found]


# ---- results ---------------------------------------------------------------------------------------------------------


def results_section(
    result: StudyResult, units: UnitSystem, watch: Watch | None = None, *, pictures: str = "still"
) -> Section:
    """Every result with its words, tables and figures; of many the worst in full, all in a table."""
    told = list(_told(result, pictures))
    inner = []
    for i, (title, anchor, one, drawn) in enumerate(told):
        if watch is not None:
            watch(f"drawing {title}", i, len(told))
        made = [picture_of(thing, title, units, pictures) for thing in drawn]
        inner.append(result_section(title, anchor, one, made, units))
    return section(SECTIONS["results"], [], inner, anchor="results")


def _told(result: StudyResult, pictures: str) -> Iterator[tuple[str, str, Result, Sequence[Any]]]:
    """Title, anchor, result, and what is drawn of it."""
    places = all_places(result)
    yield "All places", anchor_of("results", "places"), places, [places]
    lives = sorted(result.lives, key=lambda one: one.life_repeats)[:MOST_IN_FULL]
    for i, life in enumerate(lives):
        name = life.hot_spot.name
        further = _further(life) if pictures == "interactive" and i < MOST_LOOKED_INTO else []
        yield f"Life: {name}", anchor_of("results", "life", name), life, [life, *further]
    for growth in sorted(result.growths, key=lambda one: one.life_repeats)[:MOST_IN_FULL]:
        name = growth.crack.hot_spot.name
        yield f"Crack: {name}", anchor_of("results", "crack", name), growth, [growth]
    if result.model is not None:
        yield "Model", anchor_of("results", "model"), result.model, _views(result)
    if result.flaws is not None and result.flaws.flaws:
        growing = [one.growth for one in result.flaws.growing if one.assessment.acceptable and one.growth is not None]
        drawn = [result.flaws, result.flaws.flaws[0].assessment, *growing[:1]]
        yield "Flaws", anchor_of("results", "flaws"), result.flaws, drawn
    for front in result.fronts:
        yield f"Front: {front.front.name}", anchor_of("results", "front", front.front.name), front, [front]


def _further(life: LifeResult) -> list[Any]:
    """What is worth a look around: the worst cycles in their history, and how range and mean are spread."""
    worst = life.worst_history
    over_time = [] if worst is None else [life.damage_over_time(worst)]
    return [*over_time, *([life.spectrum.cycles] if len(life.spectrum.cycles) else [])]


def _views(result: StudyResult) -> list[Any]:
    """The model from a corner, with its worst places."""
    from vivid_anvil.fields import ModelView

    answer, job = result.model, result.study.model
    assert answer is not None
    assert job is not None
    return [ModelView(answer.result, "corner", answer.places, job.up, answer.title)]


def result_section(title: str, anchor: str, result: Result, pictures: Sequence[Picture], units: UnitSystem) -> Section:
    """A result with its words, tables and figures."""
    page = result.page(units)
    blocks: list[Block] = [Facts(page.words)] if page.words else []
    blocks += pictures
    blocks += [grid(table, f"{title}: {table.title or table.key}", units) for table in page.tables]
    return section(title, blocks, anchor=anchor)


def _what(drawn: Any) -> str:
    """What a figure shows, in words."""
    return {
        "LifeResult": "curve, exceedance and damage",
        "AllPlaces": "what is used, what moves each life",
        "DamageOverTime": "when the damage is done",
        "Cycles": "ranges and means of the cycles",
        "GrowthResult": "growth to the limiting size",
        "ModelView": "life on the surface",
        "FlawList": "all flaws in the assessment diagram",
        "FlawAssessment": "the most urgent flaw in the assessment diagram",
        "FlawGrowth": "growth of the most urgent flaw that may stay today",
    }.get(type(drawn).__name__, "figure")


def picture_of(thing: Any, title: str, units: UnitSystem, pictures: str) -> Picture:
    """A figure with its caption, on a page to look around in where that is asked for."""
    made = live(thing, units=units) if pictures == "interactive" else None
    return Picture(png_of(thing, units), f"{title}, {_what(thing)}", live=made)


def png_of(thing: Any, units: UnitSystem) -> bytes:
    """A figure of anything that can be drawn, as PNG; the same bytes for the same thing."""
    import io

    buffer = io.BytesIO()
    draw_into(plot(thing, units=units), buffer)
    return buffer.getvalue()


# ---- the rest --------------------------------------------------------------------------------------------------------


def hand_section(result: StudyResult, units: UnitSystem) -> Section:
    """The hand calculation of the worst of each kind."""
    inner = [
        section(one.title, [Steps(one.opening, one.steps, one.closing)], anchor=anchor_of("hand", one.title))
        for one in workings_of(result, units)
    ]
    return section(SECTIONS["hand calculation"], [], inner, anchor="hand-calculation")


def findings_section(findings: Sequence[Finding]) -> Section:
    """All findings, the gravest first."""
    blocks: list[Block] = [Told(tuple(findings))] if findings else [Paragraph("There are none.")]
    return section(SECTIONS["findings"], blocks, anchor="findings")


def not_considered(result: StudyResult) -> Section:
    """What this study does not look at, as far as it can know."""
    study, told = result.study, []
    if study.duty_cycle is not None and not result.growths:
        told.append("Growth of cracks: the study has none.")
    curves = [life.method.reference for life in result.lives]
    if curves and all(curve is not None and curve.survival_probability is None for curve in curves):
        told.append("Scatter of the S-N curves: they state no survival probability.")
    if study.duty_cycle is not None and study.target_life is None:
        told.append("A target life: none is stated, so no place can fail it.")
    if study.duty_cycle is not None and study.duty_cycle.repeats_per_year is None:
        told.append("A calendar: no repeats a year are stated, so that lives are in repeats.")
    without = [spot.name for spot in study.hot_spots if spot.method is None]
    if without:
        told.append(f"Lives by damage of {', '.join(without)}: no S-N curve is stated there.")
    if study.flaws is not None:
        still = [name for name, place in study.flaws.places.items() if not place.stages]
        if still:
            told.append(f"Growth of flaws in {', '.join(still)}: no stages are stated there.")
        if all(place.partial_factors.any is False for place in study.flaws.places.values()):
            told.append("Partial factors on load, size, toughness and strength: all are 1.")
    told += [
        "Events and loads other than those listed; corrosion, wear and temperature beyond what curves and laws state.",
        "Flaws, cracks and places that are not named; whether inspections find what they look for.",
        "Buckling, deformation, vibration of the whole structure, and limits other than fatigue, fracture and yield.",
    ]
    return section(SECTIONS["not considered"], [Sentences(tuple(told))], anchor="not-considered")


def versions_section(inputs: Sequence[Path]) -> Section:
    """Versions of the package and of the libraries that compute, and the hash of every file that was read."""
    facts = [("vivid-anvil", version("vivid-anvil")), ("Python", platform.python_version())]
    for name in PACKAGES:
        try:
            facts.append((name, version(name)))
        except PackageNotFoundError:  # one that is not there computes nothing
            continue
    shipped = Path(str(files("vivid_anvil"))).resolve()  # what belongs to the package goes by its version
    rows = [fingerprint(path) for path in sorted(inputs) if not path.resolve().is_relative_to(shipped)]
    columns = (
        Column("file", [row["name"] for row in rows], left=True),
        Column("bytes", [row["bytes"] for row in rows]),
        Column("SHA-256", [row["sha256"] for row in rows], head="SHA-256", left=True),
    )
    read: list[Block] = [Grid(Table("", columns).on_page(), "Files that were read")] if rows else []
    return section(SECTIONS["versions"], [Facts(tuple(facts)), *read], anchor="versions")


def appendix_section(result: StudyResult, units: UnitSystem) -> Section:
    """Tables that stand only where all is asked for, and all places of each kind."""
    blocks: list[Block] = []
    for table in result.tables(units):
        if len(table):
            blocks.append(grid(table, table.title or table.key or "All places", units))
    for life in result.lives:
        for table in life.tables(units):
            if table.only == "in full" and len(table):
                blocks.append(grid(table, f"{life.hot_spot.name}: {table.title or table.key}", units))
    return section(SECTIONS["appendix"], blocks or [Paragraph("There are no further tables.")], anchor="appendix")
