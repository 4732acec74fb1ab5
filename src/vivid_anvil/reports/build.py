"""A report put together: the sections that are asked for, numbered, the first page last, as it names the others."""

from __future__ import annotations

import datetime
from collections.abc import Callable, Mapping, Sequence
from pathlib import Path

from vivid_anvil.ground.errors import InputError
from vivid_anvil.reports import contents
from vivid_anvil.reports.answer import answer_blocks
from vivid_anvil.reports.document import Document, Section
from vivid_anvil.reports.draft import grid, numbered, section
from vivid_anvil.study import StudyResult, compare_studies
from vivid_anvil.study.report_settings import SECTIONS, ReportSettings
from vivid_anvil.units import UnitSystem, opened

Watch = Callable[[str, int, int], None]


@opened()
def build_report(
    result: StudyResult,
    settings: ReportSettings | None = None,
    *,
    others: Mapping[str, StudyResult] | None = None,
    inputs: Sequence[Path] = (),
    day: datetime.date | None = None,
    units: UnitSystem = "metric",
    watch: Watch | None = None,
) -> Document:
    """The report of a study's result as a document, which `write_report` writes.

    Parameters
    ----------
    result : StudyResult
        What the study answers.
    settings : ReportSettings, optional
        Title block and sections; by default those of the study, else all sections.
    others : mapping of str to StudyResult, optional
        Results of other studies or variants by their names, held beside it.
    inputs : sequence of path, optional
        The files that were read, whose hashes stand in the report.
    day : date, optional
        Its date where the settings state none; today by default.
    units : UnitSystem, default "metric"
        Units of the numbers shown.
    watch : Callable[[str, int, int], None], optional
        Called with a label, how far it is, and of how many.

    Returns
    -------
    Document
        Title block and numbered sections.

    Raises
    ------
    InputError
        For a section that is asked for and needs what is not there.

    Examples
    --------
    >>> document = build_report(result, ReportSettings(sections=["answer", "findings"]))  # result of the demo
    >>> [(one.number, one.title) for one in document.sections]
    [('1', 'Question and answer'), ('2', 'Findings')]
    """
    asked = settings or result.study.report or ReportSettings()
    made: list[Section] = []
    for name in asked.chosen:
        if name == "answer":
            made.append(section(SECTIONS[name], [], _beside(result, others, units), anchor="answer"))
        else:
            made.append(_section(name, result, inputs, units, watch, asked.pictures))
    first = numbered(made)
    if asked.chosen[0] == "answer":
        numbers = {one.anchor: one.number for outer in first for one in outer.every()}
        own = section(
            SECTIONS["answer"], answer_blocks(result, units, numbers), _beside(result, others, units), anchor="answer"
        )
        first = numbered([own, *made[1:]])
    logo = None if asked.logo is None else _logo(asked.logo)
    return Document(
        asked.labels[0], result.title, asked.block(day or datetime.date.today()), first, logo, asked.language
    )


def _section(
    name: str, result: StudyResult, inputs: Sequence[Path], units: UnitSystem, watch: Watch | None, pictures: str
) -> Section:
    made = {
        "inputs": lambda: contents.inputs_section(result, units),
        "method": lambda: contents.method_section(result, units),
        "results": lambda: contents.results_section(result, units, watch, pictures=pictures),
        "hand calculation": lambda: contents.hand_section(result, units),
        "findings": lambda: contents.findings_section(result.findings),
        "not considered": lambda: contents.not_considered(result),
        "versions": lambda: contents.versions_section(inputs),
        "appendix": lambda: contents.appendix_section(result, units),
    }
    return made[name]()


def _beside(result: StudyResult, others: Mapping[str, StudyResult] | None, units: UnitSystem) -> list[Section]:
    """Other studies or variants beside this one: what differs in the input and in the answers."""
    if not others:
        return []
    own = result.title if result.study.path is None else result.study.path.stem
    if own in others:
        raise InputError("report, others", repr(own), "names that differ from that of the study")
    compared = compare_studies({own: result, **others})
    blocks = [grid(table, table.title, units) for table in compared.tables(units) if len(table)]
    return [section("Beside other studies", blocks, anchor="answer-beside")]


def _logo(path: str) -> bytes:
    data = Path(path).read_bytes()
    if not data.startswith((b"\x89PNG\r\n\x1a\n", b"\xff\xd8\xff")):
        raise InputError("report, logo", path, "a PNG or JPEG picture")
    return data
