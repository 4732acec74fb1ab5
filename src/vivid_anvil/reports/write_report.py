"""A report into files: HTML, Word or PDF by the ending of each; all or none."""

from __future__ import annotations

from collections.abc import Callable
from pathlib import Path

from vivid_anvil.ground.errors import InputError, listed
from vivid_anvil.ground.extras import needed
from vivid_anvil.ground.files import replacing
from vivid_anvil.reports.document import Document
from vivid_anvil.reports.html import to_html
from vivid_anvil.reports.pdf import to_pdf
from vivid_anvil.reports.word import to_word
from vivid_anvil.study.report_settings import ReportSettings
from vivid_anvil.units import opened

WRITERS: dict[str, Callable[[Document, ReportSettings], bytes]] = {
    ".html": lambda document, settings: to_html(document, settings.html_template).encode("utf-8"),
    ".docx": lambda document, settings: to_word(document, settings.word_template),
    ".pdf": lambda document, _: to_pdf(document),
}


NEEDS = {".html": "jinja2", ".docx": "docx", ".pdf": "reportlab"}


@opened()
def writer_of(path: str | Path) -> Callable[[Document, ReportSettings], bytes]:
    """What writes a file of that ending; InputError for another one, and where its package is not installed."""
    ending = Path(path).suffix.lower()
    if ending not in WRITERS:
        raise InputError(f"report, {path}", f"the ending {Path(path).suffix!r}", f"one of {listed(WRITERS)}")
    needed(NEEDS[ending], f"report, {path}", "reports")
    return WRITERS[ending]


@opened()
def report_bytes(document: Document, path: str | Path, settings: ReportSettings | None = None) -> bytes:
    """The bytes of a report as the ending of `path` asks for; InputError for another ending."""
    return writer_of(path)(document, settings or ReportSettings())


@opened()
def write_report(document: Document, path: str | Path, settings: ReportSettings | None = None) -> Path:
    """Write a report as HTML, Word or PDF, by the ending of its name; never half.

    Parameters
    ----------
    document : Document
        What `build_report` made.
    path : str or path
        The file: .html, .docx or .pdf.
    settings : ReportSettings, optional
        With templates of one's own.

    Returns
    -------
    Path
        The file.

    Raises
    ------
    InputError
        For another ending, templates that cannot be used, and a place that cannot be written.

    Examples
    --------
    >>> document = build_report(result, ReportSettings(sections=["answer", "findings"]))  # result of the demo
    >>> write_report(document, "answer.html").name
    'answer.html'
    """
    data, target = report_bytes(document, path, settings), Path(path)
    try:
        with replacing(target) as temporary:
            temporary.write_bytes(data)
    except OSError as error:
        raise InputError(str(target), error.strerror or "no access", "a place that can be written") from None
    return target
