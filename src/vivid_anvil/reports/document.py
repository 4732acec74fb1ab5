"""A document before it is written: numbered sections of paragraphs, tables, figures, steps and findings.

The writers of HTML, Word and PDF take the same document, so that all three hold one content.
"""

from __future__ import annotations

from collections.abc import Iterator
from dataclasses import dataclass, field

from vivid_anvil.pages import Live
from vivid_anvil.writing.finding import Finding
from vivid_anvil.writing.table import PageTable
from vivid_anvil.writing.working import Step


@dataclass(frozen=True)
class Paragraph:
    """Text."""

    text: str


@dataclass(frozen=True)
class Bullets:
    """Sentences, one below the other."""

    items: tuple[str, ...]


@dataclass(frozen=True)
class Facts:
    """Label and text, as of a result's words; "" as label is a sentence."""

    rows: tuple[tuple[str, str], ...]


@dataclass(frozen=True, eq=False)
class Grid:
    """A table with a caption; `links` are the anchors that cells (row, column) lead to."""

    table: PageTable
    caption: str
    links: dict[tuple[int, int], str] = field(default_factory=dict)
    number: int = 0


@dataclass(frozen=True, eq=False)
class Picture:
    """A figure as PNG, with a caption; `live` is the same to look around in, for a page."""

    png: bytes
    caption: str
    number: int = 0
    live: Live | None = None


@dataclass(frozen=True)
class Steps:
    """The steps of a hand calculation, numbered."""

    opening: str
    steps: tuple[Step, ...]
    closing: str = ""


@dataclass(frozen=True)
class Told:
    """Findings in full."""

    findings: tuple[Finding, ...]


Block = Paragraph | Bullets | Facts | Grid | Picture | Steps | Told


@dataclass(frozen=True, eq=False)
class Section:
    """A section or one in it: number such as "4.2", anchor, title, blocks, inner sections."""

    number: str
    anchor: str
    title: str
    blocks: tuple[Block, ...]
    inner: tuple[Section, ...] = ()

    @property
    def level(self) -> int:
        """1 for a section, 2 for one in it."""
        return self.number.count(".") + 1

    def every(self) -> Iterator[Section]:
        """This one and those in it."""
        yield self
        for one in self.inner:
            yield from one.every()


@dataclass(frozen=True, eq=False)
class Document:
    """A whole report: its kind ("Report" in the language of the title block), title, title block, logo, sections."""

    kind: str
    title: str
    block: tuple[tuple[str, str], ...]
    sections: tuple[Section, ...]
    logo: bytes | None = None
    language: str = "en"

    def every(self) -> Iterator[Section]:
        """All sections, in their order."""
        for one in self.sections:
            yield from one.every()

    @property
    def first(self) -> tuple[Section, ...]:
        """What stands before the list of contents: the question and its answer, where that is told."""
        return self.sections[:1] if self.sections and self.sections[0].anchor == "answer" else ()

    @property
    def rest(self) -> tuple[Section, ...]:
        """What stands after it."""
        return self.sections[len(self.first) :]
