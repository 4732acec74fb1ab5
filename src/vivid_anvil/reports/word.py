"""A document as a Word file (docx), on the shipped styles or on those, header and footer, of a company's own document."""

from __future__ import annotations

import datetime
import io
import textwrap
import zipfile
from functools import singledispatch
from typing import Any

from vivid_anvil.ground.errors import InputError
from vivid_anvil.reports.document import Bullets, Document, Facts, Grid, Paragraph, Picture, Section, Steps, Told
from vivid_anvil.reports.draft import column_shares
from vivid_anvil.writing.table import PageTable

WIDTH = 16.5  # cm of a page between its margins, where the template says nothing else
RED, GREY = (0xB3, 0x43, 0x2B), (0x5D, 0x68, 0x73)


def to_word(document: Document, template: str | None = None) -> bytes:
    """The document as the bytes of a docx file; the same for the same document and template."""
    import docx
    from docx.opc.exceptions import PackageNotFoundError

    try:
        word = docx.Document(template)
    except (PackageNotFoundError, ValueError, KeyError, zipfile.BadZipFile) as error:
        raise InputError("report, word_template", str(template), "a Word document (docx)") from error
    if template is None:
        _own_look(word)
    _title(word, document)
    for one in document.first:
        _section(word, one)
    _contents(word, document)
    for one in document.rest:
        _section(word, one)
    return _fixed(word, document)


def _own_look(word: Any) -> None:
    """Fonts, margins and page numbers of a report without a template."""
    from docx.shared import Cm, Pt, RGBColor

    page = word.sections[0]
    page.page_width, page.page_height = Cm(21.0), Cm(29.7)
    page.left_margin = page.right_margin = Cm(2.25)
    page.top_margin = page.bottom_margin = Cm(2.2)
    normal = word.styles["Normal"]
    normal.font.name, normal.font.size = "Calibri", Pt(10.5)
    normal.paragraph_format.space_after = Pt(5)
    for level, size in ((1, 15), (2, 12.5)):
        style = word.styles[f"Heading {level}"]
        style.font.size, style.font.color.rgb = Pt(size), RGBColor(0x1F, 0x4E, 0x79)
    foot = page.footer.paragraphs[0]
    foot.alignment = 2
    _field(foot, "PAGE")
    foot.add_run(" / ")
    _field(foot, "NUMPAGES")


def _field(paragraph: Any, code: str, shown: str = "1") -> None:
    """A field that Word works out, with what is shown until it does."""
    from docx.oxml import OxmlElement
    from docx.oxml.ns import qn

    for kind, text in (("begin", ""), ("", code), ("separate", ""), ("shown", shown), ("end", "")):
        run = paragraph.add_run()
        if kind == "shown":
            run.text = text
        elif kind:
            mark = OxmlElement("w:fldChar")
            mark.set(qn("w:fldCharType"), kind)
            run._r.append(mark)
        else:
            words = OxmlElement("w:instrText")
            words.set(qn("xml:space"), "preserve")
            words.text = f" {text} "
            run._r.append(words)


def _title(word: Any, document: Document) -> None:
    from docx.shared import Cm

    if document.logo is not None:
        word.add_picture(io.BytesIO(document.logo), height=Cm(1.6))
    _styled(word, document.kind, "Subtitle")
    _styled(word, document.title, "Title")
    _two_columns(word, document.block)


def _styled(word: Any, text: str, style: str) -> Any:
    """A paragraph in a style of the template, plain where it has none of that name."""
    names = {one.name for one in word.styles}
    return word.add_paragraph(text, style=style if style in names else None)


def _contents(word: Any, document: Document) -> None:
    """A list of the sections that Word brings up to date, filled already for those that do not."""
    paragraph = word.add_paragraph()
    lines = [f"{'    ' * (one.level - 1)}{one.number}  {one.title}" for one in document.every()]
    _field(paragraph, r'TOC \o "1-2" \h', "\n".join(lines))


def _section(word: Any, one: Section) -> None:
    head = _styled(word, f"{one.number}  {one.title}", f"Heading {one.level}")
    _bookmark(head, one.anchor)
    for block in one.blocks:
        put(block, word)
    for inner in one.inner:
        _section(word, inner)


def _bookmark(paragraph: Any, name: str) -> None:
    from docx.oxml import OxmlElement
    from docx.oxml.ns import qn

    key = str(abs(hash_of(name)))
    for kind in ("w:bookmarkStart", "w:bookmarkEnd"):
        mark = OxmlElement(kind)
        mark.set(qn("w:id"), key)
        if kind.endswith("Start"):
            mark.set(qn("w:name"), bookmark_of(name))
        paragraph._p.append(mark)


def hash_of(name: str) -> int:
    """A number that is the same for a name in every process."""
    import zlib

    return zlib.crc32(name.encode())


def bookmark_of(anchor: str) -> str:
    """A name that Word takes for a bookmark: letters, digits and underlines, 40 at the most."""
    plain = "".join(letter if letter.isalnum() else "_" for letter in anchor)
    return f"s_{plain}"[:31] + f"_{hash_of(anchor) % 10**8:08d}"


@singledispatch
def put(block: object, word: Any) -> None:  # noqa: ARG001
    """A block into the document; TypeError for one that no writer knows."""
    raise TypeError(type(block).__name__)


@put.register
def _(block: Paragraph, word: Any) -> None:
    word.add_paragraph(block.text)


@put.register
def _(block: Bullets, word: Any) -> None:
    for one in block.items:
        _styled(word, one, "List Bullet")


@put.register
def _(block: Facts, word: Any) -> None:
    _two_columns(word, block.rows)


@put.register
def _(block: Grid, word: Any) -> None:
    _caption(word, f"Table {block.number}: {block.caption}")
    _grid(word, block.table, block.links)
    if block.table.note:
        word.add_paragraph(block.table.note)


@put.register
def _(block: Picture, word: Any) -> None:
    from docx.shared import Cm

    word.add_picture(io.BytesIO(block.png), width=Cm(_room(word)))
    _caption(word, f"Figure {block.number}: {block.caption}")


@put.register
def _(block: Steps, word: Any) -> None:
    if block.opening:
        word.add_paragraph(block.opening)
    for i, step in enumerate(block.steps, 1):
        paragraph = word.add_paragraph()
        title, _, rest = textwrap.dedent(str(step)).partition("\n")
        paragraph.add_run(f"{i}. {title}").bold = True
        run = paragraph.add_run(f"\n{rest}")
        run.font.name = "Consolas"
        run.font.size = _points(8.5)
        paragraph.paragraph_format.keep_together = True
    if block.closing:
        word.add_paragraph(block.closing)


@put.register
def _(block: Told, word: Any) -> None:
    rows = [[one.severity, f"{one.sentence} {one.advice}", one.code] for one in block.findings]
    bad = frozenset((i, 0) for i, one in enumerate(block.findings) if one.severity == "severe")
    _grid(word, PageTable("", ["Severity", "Finding and what to do", "Code"], rows, [True] * 3, "", bad), {})


def _points(size: float) -> Any:
    from docx.shared import Pt

    return Pt(size)


def _room(word: Any) -> float:
    """Width between the margins, cm."""
    page = word.sections[-1]
    if page.page_width is None or page.left_margin is None or page.right_margin is None:
        return WIDTH
    return float(page.page_width - page.left_margin - page.right_margin) / 360000.0  # EMU in a cm


def _caption(word: Any, text: str) -> None:
    from docx.shared import RGBColor

    paragraph = _styled(word, "", "Caption")
    run = paragraph.add_run(text)
    run.font.color.rgb = RGBColor(*GREY)
    paragraph.paragraph_format.keep_with_next = text.startswith("Table")


def _two_columns(word: Any, rows: tuple[tuple[str, str], ...]) -> None:
    """Label and text side by side; a sentence without label as a paragraph."""
    from docx.shared import Cm

    labelled = [row for row in rows if row[0]]
    if labelled:
        table = word.add_table(rows=0, cols=2)
        for label, text in labelled:
            cells = table.add_row().cells
            _text(cells[0], label, bold=True)
            _text(cells[1], text)
            cells[0].width, cells[1].width = Cm(0.28 * _room(word)), Cm(0.72 * _room(word))
        word.add_paragraph()
    for label, text in rows:
        if not label:
            word.add_paragraph(text)


def _text(cell: Any, text: str, *, bold: bool = False, bad: bool = False, right: bool = False) -> None:
    from docx.shared import RGBColor

    paragraph = cell.paragraphs[0]
    paragraph.paragraph_format.space_after = _points(1)
    run = paragraph.add_run(text)
    run.bold, run.font.size = bold or bad, _points(9)
    if bad:
        run.font.color.rgb = RGBColor(*RED)
    if right:
        paragraph.alignment = 2


def _grid(word: Any, table: PageTable, links: dict[tuple[int, int], str]) -> None:
    from docx.oxml import OxmlElement
    from docx.oxml.ns import qn
    from docx.shared import Cm

    names = {one.name for one in word.styles}
    made = word.add_table(rows=1, cols=len(table.heads))
    for style in ("Light List Accent 1", "Table Grid"):
        if style in names:
            made.style = style
            break
    for cell, head, left in zip(made.rows[0].cells, table.heads, table.left, strict=True):
        _text(cell, head.replace("\n", " "), bold=True, right=not left)
    again = OxmlElement("w:tblHeader")
    again.set(qn("w:val"), "true")
    made.rows[0]._tr.get_or_add_trPr().append(again)
    for i, row in enumerate(table.rows):
        cells = made.add_row().cells
        for k, (cell, text) in enumerate(zip(cells, row, strict=True)):
            if (i, k) in links and text:
                _link(cell, text, links[i, k])
            else:
                _text(cell, text, bad=(i, k) in table.bad, right=not table.left[k])
    made.autofit = False
    for column, share in zip(made.columns, column_shares(table), strict=True):
        column.width = Cm(share * _room(word))
        for cell in column.cells:
            cell.width = column.width
    word.add_paragraph()


def _link(cell: Any, text: str, anchor: str) -> None:
    """A reference to a section, by its bookmark."""
    from docx.oxml import OxmlElement
    from docx.oxml.ns import qn

    paragraph = cell.paragraphs[0]
    link = OxmlElement("w:hyperlink")
    link.set(qn("w:anchor"), bookmark_of(anchor))
    run = paragraph.add_run(text)
    run.font.size, run.font.underline = _points(9), True
    link.append(run._r)
    paragraph._p.append(link)


def _fixed(word: Any, document: Document) -> bytes:
    """The bytes of the file, with no time of day in them."""
    day = datetime.datetime.fromisoformat(document.block[-1][1])
    core = word.core_properties
    core.title, core.created, core.modified, core.last_modified_by, core.revision = document.title, day, day, "", 1
    core.author = dict(document.block).get("Author", "") or core.author
    first, second = io.BytesIO(), io.BytesIO()
    word.save(first)
    with zipfile.ZipFile(first) as read, zipfile.ZipFile(second, "w", zipfile.ZIP_DEFLATED) as made:
        for name in read.namelist():
            made.writestr(zipfile.ZipInfo(name, (1980, 1, 1, 0, 0, 0)), read.read(name), zipfile.ZIP_DEFLATED)
    return second.getvalue()
