"""A document while it is put together: sections get their numbers, tables and figures theirs, places their anchors."""

from __future__ import annotations

import dataclasses
import re
import zlib
from collections.abc import Sequence

from vivid_anvil.reports.document import Block, Grid, Picture, Section
from vivid_anvil.units import UnitSystem
from vivid_anvil.writing.table import PageTable, Table


def anchor_of(*words: str) -> str:
    """A name that links can lead to, another for other words: 'results', 'weld toe' -> 'results-weld-toe'.

    >>> anchor_of("results", "weld toe"), anchor_of("toe [left]") != anchor_of("toe (left)")
    ('results-weld-toe', True)
    """
    plain = "-".join(re.sub(r"\W+", "-", word.lower()).strip("-") for word in words)
    lost = plain != "-".join(words).replace(" ", "-")
    return f"{plain}-{zlib.crc32('/'.join(words).encode()):08x}" if lost else plain


ROOM = 3.0  # letters beside the text of a cell


def column_shares(table: PageTable) -> list[float]:
    """How wide each column of a table is, of all: as its words ask for.

    >>> column_shares(PageTable("", ["a", "b"], [["four", "four"]], [True, True]))
    [0.5, 0.5]
    """
    asked = []
    for k, head in enumerate(table.heads):
        cells = [row[k] for row in table.rows]
        longest = max([*(len(line) for line in head.split("\n")), *(min(len(cell), 60) for cell in cells)], default=1)
        word = max((len(part) for text in (head, *cells) for part in text.split()), default=1)
        asked.append(0.55 * longest + 0.45 * min(word, 34) + ROOM)
    return [one / sum(asked) for one in asked]


def grid(table: Table, caption: str, units: UnitSystem) -> Grid:
    """A table of a result, as a page has it."""
    return Grid(table.on_page(units), caption)


def section(title: str, blocks: Sequence[Block], inner: Sequence[Section] = (), *, anchor: str = "") -> Section:
    """A section without number yet."""
    return Section("", anchor or anchor_of(title), title, tuple(blocks), tuple(inner))


def numbered(sections: Sequence[Section]) -> tuple[Section, ...]:
    """The same with their numbers, and those of tables and figures, in the order of the document."""
    counts: dict[type, int] = {Grid: 0, Picture: 0}

    def blocks_of(blocks: Sequence[Block]) -> tuple[Block, ...]:
        found: list[Block] = []
        for block in blocks:
            if isinstance(block, Grid | Picture):
                counts[type(block)] += 1
                block = dataclasses.replace(block, number=counts[type(block)])
            found.append(block)
        return tuple(found)

    def with_number(one: Section, number: str) -> Section:
        blocks = blocks_of(one.blocks)
        inner = tuple(with_number(other, f"{number}.{i}") for i, other in enumerate(one.inner, 1))
        return dataclasses.replace(one, number=number, blocks=blocks, inner=inner)

    return tuple(with_number(one, str(i)) for i, one in enumerate(sections, 1))
