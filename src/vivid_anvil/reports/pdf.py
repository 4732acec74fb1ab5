"""A document as PDF, by a common package, without a browser; fonts that have Greek letters and roots are in the file."""

from __future__ import annotations

import html
import io
import textwrap
from functools import singledispatch
from pathlib import Path
from typing import Any

from vivid_anvil.reports.document import Bullets, Document, Facts, Grid, Paragraph, Picture, Section, Steps, Told
from vivid_anvil.reports.draft import column_shares
from vivid_anvil.writing.table import PageTable

MARGIN = 20.0  # mm
MOST_TOGETHER = 8  # rows of a table that stay on one page
LEAST_LEFT = 100.0  # points of a page on which a longer one begins
INK, BLUE, GREY, RED, LINE = "#1d2733", "#1f4e79", "#5d6873", "#b3432b", "#c7d1da"


def to_pdf(document: Document) -> bytes:
    """The document as the bytes of a PDF file; the same for the same document."""
    from reportlab.lib.pagesizes import A4
    from reportlab.lib.units import mm
    from reportlab.platypus import PageBreak, Spacer, TableStyle
    from reportlab.platypus.tableofcontents import TableOfContents

    _fonts()
    styles, buffer = _styles(), io.BytesIO()
    made = _template(document)(
        buffer,
        pagesize=A4,
        leftMargin=MARGIN * mm,
        rightMargin=MARGIN * mm,
        topMargin=MARGIN * mm,
        bottomMargin=MARGIN * mm,
        title=document.title,
        author=dict(document.block).get("Author", ""),
        invariant=1,
    )
    contents = TableOfContents(dotsMinLevel=0)
    contents.tableStyle = TableStyle(
        [("LEFTPADDING", (0, 0), (-1, -1), 0), ("RIGHTPADDING", (0, 0), (-1, -1), 0), *_tight()]
    )
    contents.levelStyles = [styles["contents 1"], styles["contents 2"]]
    story: list[Any] = _front(document, styles)
    for one in document.first:
        story += _section(one, styles, made.width)
    story += [Spacer(1, 6 * mm), contents, PageBreak()]
    for one in document.rest:
        story += _section(one, styles, made.width)
    made.multiBuild(story)
    return buffer.getvalue()


def _fonts() -> None:
    """DejaVu, which matplotlib brings along."""
    import matplotlib
    from reportlab.lib.fonts import addMapping
    from reportlab.pdfbase import pdfmetrics
    from reportlab.pdfbase.ttfonts import TTFont

    if "report" in pdfmetrics.getRegisteredFontNames():
        return
    folder = Path(matplotlib.get_data_path()) / "fonts" / "ttf"
    for name, file in (("report", "DejaVuSans"), ("report-bold", "DejaVuSans-Bold"), ("report-mono", "DejaVuSansMono")):
        pdfmetrics.registerFont(TTFont(name, str(folder / f"{file}.ttf")))
    for bold in (0, 1):
        addMapping("report", bold, 0, "report-bold" if bold else "report")
        addMapping("report", bold, 1, "report-bold" if bold else "report")


def _styles() -> dict[str, Any]:
    from reportlab.lib.styles import ParagraphStyle

    plain = ParagraphStyle("plain", fontName="report", fontSize=9, leading=12.5, textColor=INK, spaceAfter=4)

    def like(name: str, **more: Any) -> Any:
        return ParagraphStyle(name, parent=plain, **more)

    return {
        "plain": plain,
        "kind": like("kind", fontSize=8, textColor=GREY, spaceAfter=2),
        "title": like("title", fontName="report-bold", fontSize=19, leading=23, spaceAfter=6),
        "heading 1": like("heading 1", fontName="report-bold", fontSize=13, leading=16, textColor=BLUE, spaceBefore=12),
        "heading 2": like("heading 2", fontName="report-bold", fontSize=10.5, leading=14, spaceBefore=9),
        "cell": like("cell", fontSize=7.6, leading=9.6, spaceAfter=0, splitLongWords=1),
        "cell right": like("cell right", fontSize=7.6, leading=9.6, spaceAfter=0, alignment=2),
        "head": like("head", fontName="report-bold", fontSize=7.6, leading=9.6, spaceAfter=0),
        "head right": like("head right", fontName="report-bold", fontSize=7.6, leading=9.6, spaceAfter=0, alignment=2),
        "caption": like("caption", fontSize=8, leading=10.5, textColor=GREY, spaceAfter=3, spaceBefore=4),
        "step": like("step", fontName="report-mono", fontSize=7.4, leading=9.8, spaceAfter=5),
        "contents 1": like("contents 1", leading=11.5, spaceAfter=0),
        "contents 2": like("contents 2", leftIndent=14, fontSize=8, leading=10, spaceAfter=0),
    }


def _template(document: Document) -> Any:
    """A page layout that numbers its pages and tells the list of contents where sections are."""
    from reportlab.lib.units import mm
    from reportlab.platypus import BaseDocTemplate, Frame, PageTemplate

    class Layout(BaseDocTemplate):  # type: ignore[misc]
        def __init__(self, *given: Any, **named: Any) -> None:
            super().__init__(*given, **named)
            frame = Frame(
                self.leftMargin, self.bottomMargin, self.width, self.height, id="page", leftPadding=0, rightPadding=0
            )
            self.addPageTemplates(PageTemplate(id="all", frames=[frame], onPage=_foot))

        def afterFlowable(self, flowable: Any) -> None:
            where = getattr(flowable, "of_section", None)
            if where is not None:
                self.canv.bookmarkPage(where.anchor)
                self.canv.addOutlineEntry(f"{where.number} {where.title}", where.anchor, where.level - 1, closed=True)
                text = html.escape(f"{where.number}  {where.title}")
                self.notify("TOCEntry", (where.level - 1, text, self.page, where.anchor))

    def _foot(canvas: Any, layout: Any) -> None:
        canvas.saveState()
        canvas.setFont("report", 7.5)
        canvas.setFillColor(GREY)
        said = "  ·  ".join(text for _, text in document.block)[:110]
        canvas.drawString(layout.leftMargin, 11 * mm, said)
        canvas.drawRightString(layout.leftMargin + layout.width, 11 * mm, str(layout.page))
        canvas.restoreState()

    return Layout


def _front(document: Document, styles: dict[str, Any]) -> list[Any]:
    from reportlab.lib.units import mm
    from reportlab.lib.utils import ImageReader
    from reportlab.platypus import Image, Spacer
    from reportlab.platypus import Paragraph as Text

    found: list[Any] = []
    if document.logo is not None:
        width, height = ImageReader(io.BytesIO(document.logo)).getSize()
        tall = min(16.0 * mm, 60.0 * mm * height / width)
        found.append(Image(io.BytesIO(document.logo), width=tall * width / height, height=tall, hAlign="RIGHT"))
    found += [Text(_safe(document.kind.upper()), styles["kind"]), Text(_safe(document.title), styles["title"])]
    found += as_flowables(Facts(document.block), styles, 170.0 * mm)
    return [*found, Spacer(1, 4 * mm)]


def _safe(text: str) -> str:
    return html.escape(text, quote=False).replace("\n", "<br/>")


def _section(one: Section, styles: dict[str, Any], width: float) -> list[Any]:
    from reportlab.platypus import CondPageBreak, KeepTogether
    from reportlab.platypus import Paragraph as Text

    head = Text(f'<a name="{one.anchor}"/>{_safe(f"{one.number}  {one.title}")}', styles[f"heading {one.level}"])
    head.of_section = one
    head.keepWithNext = not (one.blocks and _is_long(one.blocks[0]))
    story: list[Any] = [head] if head.keepWithNext else [CondPageBreak(LEAST_LEFT + 40.0), head]
    for block in one.blocks:
        found = as_flowables(block, styles, width)
        story += [KeepTogether(found)] if isinstance(block, Picture) else found
    for inner in one.inner:
        story += _section(inner, styles, width)
    return story


@singledispatch
def as_flowables(block: object, styles: dict[str, Any], width: float) -> list[Any]:  # noqa: ARG001
    """A block; TypeError for one that no writer knows."""
    raise TypeError(type(block).__name__)


@as_flowables.register
def _(block: Paragraph, styles: dict[str, Any], width: float) -> list[Any]:  # noqa: ARG001
    from reportlab.platypus import Paragraph as Text

    return [Text(_safe(block.text), styles["plain"])]


@as_flowables.register
def _(block: Bullets, styles: dict[str, Any], width: float) -> list[Any]:  # noqa: ARG001
    from reportlab.platypus import Paragraph as Text

    return [Text(_safe(one), styles["plain"], bulletText="•") for one in block.items]


@as_flowables.register
def _(block: Facts, styles: dict[str, Any], width: float) -> list[Any]:
    from reportlab.platypus import Paragraph as Text
    from reportlab.platypus import Table

    labelled = [
        [Text(_safe(label), styles["head"]), Text(_safe(text), styles["cell"])] for label, text in block.rows if label
    ]
    found: list[Any] = []
    if labelled:
        made = Table(labelled, colWidths=[0.28 * width, 0.72 * width], hAlign="LEFT", spaceAfter=6)
        made.setStyle([("VALIGN", (0, 0), (-1, -1), "TOP"), ("LEFTPADDING", (0, 0), (-1, -1), 0), *_tight()])
        found.append(made)
    return [*found, *(Text(_safe(text), styles["plain"]) for label, text in block.rows if not label)]


def _tight() -> list[Any]:
    return [("TOPPADDING", (0, 0), (-1, -1), 1.5), ("BOTTOMPADDING", (0, 0), (-1, -1), 1.5)]


@as_flowables.register
def _(block: Grid, styles: dict[str, Any], width: float) -> list[Any]:
    from reportlab.platypus import CondPageBreak
    from reportlab.platypus import Paragraph as Text

    caption = Text(_safe(f"Table {block.number}: {block.caption}"), styles["caption"])
    caption.keepWithNext = not _is_long(block)
    room = [] if caption.keepWithNext else [CondPageBreak(LEAST_LEFT)]
    note = [Text(_safe(block.table.note), styles["caption"])] if block.table.note else []
    return [*room, caption, _table(block.table, block.links, styles, width), *note]


def _is_long(block: object) -> bool:
    """Whether a block is a table that may be parted between pages; shorter ones stay with their caption."""
    return isinstance(block, Grid) and len(block.table.rows) > MOST_TOGETHER


def _table(table: PageTable, links: dict[tuple[int, int], str], styles: dict[str, Any], width: float) -> Any:
    from reportlab.platypus import Paragraph as Text
    from reportlab.platypus import Table

    def style(k: int, name: str) -> Any:
        return styles[name if table.left[k] else f"{name} right"]

    rows: list[list[Any]] = [[Text(_safe(head), style(k, "head")) for k, head in enumerate(table.heads)]]
    for i, row in enumerate(table.rows):
        cells = []
        for k, cell in enumerate(row):
            text = _safe(cell)
            if (i, k) in links and cell:
                text = f'<a href="#{links[i, k]}" color="{BLUE}">{text}</a>'
            elif (i, k) in table.bad:
                text = f'<font color="{RED}"><b>{text}</b></font>'
            cells.append(Text(text, style(k, "cell")))
        rows.append(cells)
    made = Table(
        rows, colWidths=[width * share for share in column_shares(table)], repeatRows=1, hAlign="LEFT", spaceAfter=8
    )
    made.setStyle(
        [
            ("VALIGN", (0, 0), (-1, -1), "TOP"),
            ("VALIGN", (0, 0), (-1, 0), "BOTTOM"),
            ("LINEBELOW", (0, 0), (-1, 0), 1.0, BLUE),
            ("LINEBELOW", (0, 1), (-1, -1), 0.3, LINE),
            ("LEFTPADDING", (0, 0), (-1, -1), 2.5),
            ("RIGHTPADDING", (0, 0), (-1, -1), 2.5),
            *_tight(),
        ]
    )
    return made


@as_flowables.register
def _(block: Picture, styles: dict[str, Any], width: float) -> list[Any]:
    from reportlab.lib.utils import ImageReader
    from reportlab.platypus import Image
    from reportlab.platypus import Paragraph as Text

    wide, high = ImageReader(io.BytesIO(block.png)).getSize()
    picture = Image(io.BytesIO(block.png), width=width, height=width * high / wide)
    return [picture, Text(_safe(f"Figure {block.number}: {block.caption}"), styles["caption"])]


@as_flowables.register
def _(block: Steps, styles: dict[str, Any], width: float) -> list[Any]:  # noqa: ARG001
    from reportlab.platypus import KeepTogether, Preformatted
    from reportlab.platypus import Paragraph as Text

    found: list[Any] = [Text(_safe(block.opening), styles["plain"])] if block.opening else []
    for i, step in enumerate(block.steps, 1):
        found.append(KeepTogether([Preformatted(f"{i}. {textwrap.dedent(str(step))}", styles["step"])]))
    return [*found, *([Text(_safe(block.closing), styles["plain"])] if block.closing else [])]


@as_flowables.register
def _(block: Told, styles: dict[str, Any], width: float) -> list[Any]:
    rows = [[one.severity, f"{one.sentence} {one.advice}", one.code] for one in block.findings]
    bad = frozenset((i, 0) for i, one in enumerate(block.findings) if one.severity == "severe")
    table = PageTable("", ["Severity", "Finding and what to do", "Code"], rows, [True] * 3, "", bad)
    return [_table(table, {}, styles, width)]
