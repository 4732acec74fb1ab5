"""What a report says of itself: its title block, its sections, the templates that it is put into."""

from __future__ import annotations

import dataclasses
import datetime
from collections.abc import Sequence
from dataclasses import dataclass
from pathlib import Path
from typing import Any

from vivid_anvil.ground import checks
from vivid_anvil.ground.errors import InputError, did_you_mean, inside, listed
from vivid_anvil.units import sound

WHERE = "report"
SECTIONS = {
    "answer": "Question and answer",
    "inputs": "Inputs",
    "method": "Method",
    "results": "Results",
    "hand calculation": "Hand calculation of the worst place",
    "findings": "Findings",
    "not considered": "What was not considered",
    "versions": "Versions and files",
    "appendix": "Appendix",
}
# Words of the title block, in the order of its fields: what the document is, then its labels.
LANGUAGES = {
    "en": ("Report", "Project", "Number", "Revision", "Author", "Checked by", "Date"),
    "de": ("Bericht", "Projekt", "Nummer", "Revision", "Verfasst von", "Geprüft von", "Datum"),
    "fr": ("Rapport", "Projet", "Numéro", "Révision", "Rédigé par", "Vérifié par", "Date"),
    "es": ("Informe", "Proyecto", "Número", "Revisión", "Autor", "Revisado por", "Fecha"),
    "it": ("Relazione", "Progetto", "Numero", "Revisione", "Redatto da", "Verificato da", "Data"),
}
PICTURES = ("still", "interactive")
IN_BLOCK = ("project", "number", "revision", "author", "checker")


@sound
@dataclass(frozen=True, kw_only=True)
class ReportSettings:
    """The title block of a report, and what goes into it.

    Parameters
    ----------
    project : str, default ""
        What it is for.
    number : str, default ""
        Of the document.
    revision : str, default ""
        Of the document.
    author : str, default ""
        Who made it.
    checker : str, default ""
        Who checked it.
    date : date, optional
        Its date; by default the day on which it is made.
    logo : str, optional
        A picture (PNG or JPEG) for the title block.
    language : str, default "en"
        Of the title block: one of `LANGUAGES`.
    sections : sequence of str, optional
        Only these sections, in the order of `SECTIONS`.
    leave_out : sequence of str, optional
        All sections but these.
    pictures : str, default "still"
        One of `PICTURES`: with "interactive" figures of an HTML report zoom, turn and answer the pointer.
    html_template : str, optional
        A template (Jinja2) in place of the shipped one.
    word_template : str, optional
        A document (docx) whose styles, header and footer are used.

    Raises
    ------
    InputError
        For unknown sections and languages, both sections and leave_out, and files that are not there.

    Examples
    --------
    >>> ReportSettings(project="Larkfell", leave_out=["appendix"]).chosen[:2]
    ('answer', 'inputs')
    """

    project: str = ""
    number: str = ""
    revision: str = ""
    author: str = ""
    checker: str = ""
    date: datetime.date | None = None
    logo: str | None = None
    language: str = "en"
    sections: Sequence[str] | None = None
    leave_out: Sequence[str] | None = None
    pictures: str = "still"
    html_template: str | None = None
    word_template: str | None = None

    def __post_init__(self) -> None:
        checks.one_of(inside(WHERE, "language"), self.language, tuple(LANGUAGES))
        checks.one_of(inside(WHERE, "pictures"), self.pictures, PICTURES)
        if self.sections is not None and self.leave_out is not None:
            raise InputError(inside(WHERE, "leave_out"), "sections left out beside sections chosen", "one of both")
        for key in ("sections", "leave_out"):
            given: Any = getattr(self, key)
            if given is None:
                continue
            if isinstance(given, str):
                raise InputError(inside(WHERE, key), repr(given), f"a list, such as [{next(iter(SECTIONS))!r}]")
            for name in given:
                if name not in SECTIONS:
                    raise InputError(
                        inside(WHERE, key), repr(name), f"some of {listed(SECTIONS)}", did_you_mean(str(name), SECTIONS)
                    )
            object.__setattr__(self, key, tuple(given))
        if not self.chosen:
            raise InputError(inside(WHERE, "leave_out"), "every section", "one section that stays")
        if self.date is not None and not isinstance(self.date, datetime.date):
            raise InputError(inside(WHERE, "date"), repr(self.date), "a date, such as datetime.date(2026, 10, 5)")

    @property
    def chosen(self) -> tuple[str, ...]:
        """The sections of the report, in their order."""
        kept = (
            self.sections
            if self.sections is not None
            else [one for one in SECTIONS if one not in (self.leave_out or ())]
        )
        return tuple(one for one in SECTIONS if one in kept)

    @property
    def labels(self) -> tuple[str, ...]:
        """Words of the title block in its language."""
        return LANGUAGES[self.language]

    def block(self, day: datetime.date) -> tuple[tuple[str, str], ...]:
        """Label and text of each filled field of the title block, the date last."""
        words = dict(zip((*IN_BLOCK, "date"), self.labels[1:], strict=True))
        filled = [(words[key], getattr(self, key)) for key in IN_BLOCK if getattr(self, key)]
        return (*filled, (words["date"], (self.date or day).isoformat()))

    def beside(self, folder: Path) -> ReportSettings:
        """The same with its files looked for in a folder; InputError for one that is not there."""
        files: dict[str, Any] = {}
        for key in ("logo", "html_template", "word_template"):
            given = getattr(self, key)
            if given is None:
                continue
            path = folder / given
            if not path.is_file():
                raise InputError(
                    inside(WHERE, key), str(path), "a file that is there", "Check the folder and the spelling."
                )
            files[key] = str(path)
        return dataclasses.replace(self, **files)
