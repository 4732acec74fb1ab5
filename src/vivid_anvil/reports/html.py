"""A document as one HTML file that opens offline: styles and pictures are in it."""

from __future__ import annotations

import html
import textwrap
from collections.abc import Sequence
from functools import singledispatch
from importlib.resources import files
from pathlib import Path

from vivid_anvil.ground.errors import InputError
from vivid_anvil.pages import live_html, scripts, style
from vivid_anvil.reports.document import Bullets, Document, Facts, Grid, Paragraph, Picture, Section, Steps, Told
from vivid_anvil.writing.html import data_url


def to_html(document: Document, template: str | None = None) -> str:
    """The document through the shipped template, or one of the user's own (Jinja2).

    A template gets `document`, `answer` and `body` (the first section and the others as HTML), `contents` (a list of number,
    anchor, title, level) and `logo` (a data URL, or empty).
    """
    from jinja2 import Environment, StrictUndefined
    from jinja2.exceptions import TemplateError

    text = (
        (files("vivid_anvil.reports") / "data" / "report.html").read_text(encoding="utf-8")
        if template is None
        else Path(template).read_text(encoding="utf-8")
    )
    contents = [
        {"number": one.number, "anchor": one.anchor, "title": one.title, "level": one.level} for one in document.every()
    ]
    logo = "" if document.logo is None else data_url(document.logo)
    try:
        made = Environment(autoescape=True, undefined=StrictUndefined).from_string(text)
        answer, rest = _head(document) + body(document.first), body(document.rest)
        return made.render(document=document, answer=answer, body=rest, contents=contents, logo=logo) + "\n"
    except TemplateError as error:
        where = "report, html_template"
        raise InputError(
            where, f"{template}: {error}", "a template for document, answer, body, contents and logo"
        ) from error


def _head(document: Document) -> str:
    """What figures to look around in need, where there are some; whatever template they stand in."""
    pictures = (block for one in document.every() for block in one.blocks if isinstance(block, Picture))
    if all(one.live is None for one in pictures):
        return ""
    return f"<style>{style()}</style>\n{scripts()}\n"


def body(sections: Sequence[Section]) -> str:
    """Sections one below the other."""
    return "\n".join(_section(one) for one in sections)


def _section(one: Section) -> str:
    head = f"h{one.level + 1}"
    title = f'<{head} id="{one.anchor}"><span class="number">{one.number}</span> {html.escape(one.title)}</{head}>'
    blocks = "\n".join(block_as_html(block) for block in one.blocks)
    return "\n".join([f"<section>{title}", blocks, *(_section(inner) for inner in one.inner), "</section>"])


@singledispatch
def block_as_html(block: object) -> str:
    """A block; TypeError for one that no writer knows."""
    raise TypeError(type(block).__name__)


@block_as_html.register
def _(block: Paragraph) -> str:
    return f"<p>{html.escape(block.text)}</p>"


@block_as_html.register
def _(block: Bullets) -> str:
    return "<ul>" + "".join(f"<li>{html.escape(one)}</li>" for one in block.items) + "</ul>"


@block_as_html.register
def _(block: Facts) -> str:
    rows = [
        f"<tr><th>{html.escape(label)}</th><td>{html.escape(text)}</td></tr>"
        if label
        else f'<tr><td colspan="2">{html.escape(text)}</td></tr>'
        for label, text in block.rows
    ]
    return f'<table class="facts">{"".join(rows)}</table>'


@block_as_html.register
def _(block: Grid) -> str:
    table = block.table
    sides = ["left" if left else "right" for left in table.left]
    heads = "".join(
        f'<th class="{side}">{html.escape(head).replace(chr(10), "<br>")}</th>'
        for head, side in zip(table.heads, sides, strict=True)
    )
    rows = []
    for i, row in enumerate(table.rows):
        cells = []
        for k, cell in enumerate(row):
            text = html.escape(cell)
            if (i, k) in block.links:
                text = f'<a href="#{block.links[i, k]}">{text}</a>'
            bad = " bad" if (i, k) in table.bad else ""
            cells.append(f'<td class="{sides[k]}{bad}">{text}</td>')
        rows.append(f"<tr>{''.join(cells)}</tr>")
    note = f'<p class="note">{html.escape(table.note)}</p>' if table.note else ""
    caption = f"<caption>Table {block.number}: {html.escape(block.caption)}</caption>"
    return f'<table class="grid">{caption}<thead><tr>{heads}</tr></thead><tbody>{"".join(rows)}</tbody></table>{note}'


@block_as_html.register
def _(block: Picture) -> str:
    words = html.escape(block.caption)
    if block.live is not None:
        still = f'<img class="live-still" src="{data_url(block.png)}" alt="{words}">'
        made = live_html(block.live, f"figure-{block.number}")
        return f"<figure>{made}{still}<figcaption>Figure {block.number}: {words}</figcaption></figure>"
    return (
        f'<figure><img src="{data_url(block.png)}" alt="{words}">'
        f"<figcaption>Figure {block.number}: {words}</figcaption></figure>"
    )


@block_as_html.register
def _(block: Steps) -> str:
    rows = [f"<li><pre>{html.escape(textwrap.dedent(str(step)))}</pre></li>" for step in block.steps]
    before = f"<p>{html.escape(block.opening)}</p>" if block.opening else ""
    after = f"<p>{html.escape(block.closing)}</p>" if block.closing else ""
    return f'{before}<ol class="steps">{"".join(rows)}</ol>{after}'


@block_as_html.register
def _(block: Told) -> str:
    rows = [
        f'<tr><td class="{one.severity}">{one.severity}</td><td>{html.escape(one.sentence)} {html.escape(one.advice)}</td>'
        f"<td><code>{html.escape(one.code)}</code></td></tr>"
        for one in block.findings
    ]
    heads = "<tr><th>Severity</th><th>Finding and what to do</th><th>Code</th></tr>"
    return f'<table class="grid findings"><thead>{heads}</thead><tbody>{"".join(rows)}</tbody></table>'
