"""Tables of results: each column named once, for pages and files.

In a file a heading is the column's name with the metric unit, and every value stands there; a page has shorter heads, the unit
system of the reader, and of long tables the rows that matter, with all others summed.
"""

from __future__ import annotations

import html
import math
from collections.abc import Sequence
from dataclasses import dataclass
from typing import Any, Literal

import numpy as np

from vivid_anvil.units import UnitSystem, display_unit, fixed, number, shown
from vivid_anvil.writing.plain import plain

Style = Literal["fixed", "number", "percent", "share", "bar"]
BAR = 16  # letters


@dataclass(frozen=True, eq=False)
class Column:
    """Values under one name, in the coherent unit of their dimension `of`, or in a `unit` that no system changes.

    `head` is what a page writes above it, `none`, `endless` and `zero` what it writes for None, inf and 0. `style`: numbers with
    four digits, `fixed` keeps zeros, `percent` and `share` times 100 (the second with its sign), `bar` draws the share. `only`
    says where a column stands if not everywhere; `rest` how a page sums rows that it leaves out; `alarm` which values are bad
    news, `per` what follows the unit on a page, where `bare` leaves the unit out.

    >>> Column("peak stress", (161.6,), of="stress", head="Peak").heading
    'peak stress [MPa]'
    """

    name: str
    values: Any
    of: str | None = None
    unit: str = ""
    head: str | None = None
    style: Style = "fixed"
    none: str = "-"
    endless: str = "inf"
    zero: str = ""
    only: Literal["", "page", "file"] = ""
    rest: Literal["", "sum", "largest"] = ""
    left: bool = False
    digits: int = 4
    alarm: Sequence[bool] = ()
    per: str = ""
    bare: bool = False

    @property
    def heading(self) -> str:
        """Name and metric unit, as files have it."""
        unit = display_unit(self.of, "metric") if self.of else self.unit
        return f"{self.name} [{unit}]" if unit else self.name

    @property
    def in_metric(self) -> Any:
        """The values as files have them: in the metric unit of their dimension."""
        return self.values if self.of is None else _in_units(self.values, self.of, "metric")

    def head_in(self, units: UnitSystem, joint: str) -> str:
        """What stands above the column on a page, the unit after `joint`."""
        head = self.name[:1].upper() + self.name[1:] if self.head is None else self.head
        unit = display_unit(self.of, units) if self.of else self.unit
        if self.style == "percent":
            unit = "%"
        if not unit or self.bare:
            return head
        return f"{head.rstrip()}{joint}[{unit}{self.per}]"

    def cell(self, value: Any, units: UnitSystem) -> str:
        """One value as a page writes it."""
        if value is None:
            return self.none
        if isinstance(value, str | bool | np.bool_ | int | np.integer) and not self.of:
            return ("yes" if value else "no") if isinstance(value, bool | np.bool_) else str(value)
        size = float(value)
        if math.isinf(size):
            return self.endless
        if size == 0.0 and self.zero:
            return self.zero
        if self.style == "bar":
            return ("#" * round(BAR * size)).ljust(BAR)
        if self.style == "share":
            return f"{size:.1%}"
        in_unit = float(shown(size, self.of, units)) if self.of else size
        if self.style == "percent":
            in_unit *= 100.0
        return number(in_unit, self.digits) if self.style == "number" else fixed(in_unit, self.digits)

    def summed(self, left_out: Sequence[int]) -> Any:
        """One value for the rows that a page leaves out; "" where they have none."""
        if not self.rest:
            return ""
        values = [self.values[i] for i in left_out]
        return sum(values) if self.rest == "sum" else max(values)


@dataclass(frozen=True, eq=False)
class Table:
    """Columns of one length under a `title`, with a `note` below; `key` is its name in a file, by default the title.

    A page shows the rows `kept`, places in the order in which they come, and sums the rest in a last row called `others`.
    A table that stands `only` "in full" is on pages where all is asked for, one for a "file" on none.

    >>> spots = Column("hot spot", ("toe", "heel"))
    >>> table = Table("Stresses", (spots, Column("peak stress", (10.0, 20.0), of="stress")))
    >>> table.rows()
    [{'hot spot': 'toe', 'peak stress [MPa]': 10.0}, {'hot spot': 'heel', 'peak stress [MPa]': 20.0}]
    >>> table.on_page("us").rows
    [['toe', '1.450'], ['heel', '2.901']]
    """

    title: str
    columns: tuple[Column, ...]
    key: str = ""
    note: str = ""
    kept: Sequence[int] | None = None
    others: str = ""
    only: Literal["", "in full", "file"] = ""

    def __len__(self) -> int:
        return len(self.columns[0].values) if self.columns else 0

    @property
    def in_file(self) -> tuple[Column, ...]:
        """The columns that files have."""
        return tuple(column for column in self.columns if column.only != "page")

    def rows(self) -> list[dict[str, Any]]:
        """A dictionary a row, plain numbers and text, by the headings of files."""
        columns = {one.heading: plain(_listed(one.in_metric)) for one in self.in_file}
        return [dict(zip(columns, values, strict=True)) for values in zip(*columns.values(), strict=True)]

    def to_frame(self) -> Any:
        """The same as a pandas data frame, inf as it is."""
        import pandas as pd

        return pd.DataFrame({one.heading: one.in_metric for one in self.in_file})

    def _repr_html_(self) -> str:
        return self.on_page().to_html()

    def on_page(self, units: UnitSystem = "metric") -> PageTable:
        """The table in words, for a terminal or a document."""
        columns = [column for column in self.columns if column.only != "file"]
        heads = [column.head for column in columns if column.head]
        joint = "\n" if any("\n" in head for head in heads) else " "
        places = list(range(len(self))) if self.kept is None else list(self.kept)
        rows = [[column.cell(column.values[i], units) for column in columns] for i in places]
        left_out = sorted(set(range(len(self))) - set(places))
        if left_out and self.others:
            sums = [column.summed(left_out) for column in columns]
            rows.append([self.others.format(len(left_out)), *_cells(columns[1:], sums[1:], units)])
        left = [column.left or column.style == "bar" or _wordy(column) for column in columns]
        bad = frozenset(
            (i, k)
            for k, one in enumerate(columns)
            if len(one.alarm)
            for i in range(len(places))
            if one.alarm[places[i]]
        )
        return PageTable(self.title, [column.head_in(units, joint) for column in columns], rows, left, self.note, bad)


def as_table(frame: Any) -> Table:
    """A pandas data frame as a table, its headings as they stand."""
    return Table("", tuple(Column(str(name), frame[name].tolist()) for name in frame))


def stacked(tables: Sequence[Table]) -> Table:
    """Tables of one kind below each other, by their headings in files; None where one has no such column.

    >>> stacked([Table("", (Column("a", (1,)),)), Table("", (Column("a", (2,)), Column("b", (3,))))]).rows()
    [{'a': 1, 'b': None}, {'a': 2, 'b': 3}]
    """
    heads = dict.fromkeys(column.heading for table in tables for column in table.in_file)
    every = [({one.heading: one for one in table.in_file}, len(table)) for table in tables]
    columns = [
        Column(
            head,
            [
                value
                for known, size in every
                for value in (_listed(known[head].in_metric) if head in known else [None] * size)
            ],
        )
        for head in heads
    ]
    return Table("", tuple(columns), tables[0].key if tables else "")


@dataclass(frozen=True, eq=False)
class PageTable:
    """Heads and cells as text; `left` says which columns are set to the left, `bad` which cells (row, column) are bad news."""

    title: str
    heads: list[str]
    rows: list[list[str]]
    left: list[bool]
    note: str = ""
    bad: frozenset[tuple[int, int]] = frozenset()

    def to_html(self) -> str:
        """The table in HTML: its title as caption, a line for each row, the note below.

        >>> PageTable("Lives", ["Hot spot", "Life"], [["toe", "27.9 years"]], [True, False]).to_html()[:47]
        '<table><caption><b>Lives</b></caption><tr><th>H'
        """
        lines = ["<tr>" + "".join(f"<th>{html.escape(head)}</th>" for head in self.heads) + "</tr>"]
        lines += ["<tr>" + "".join(f"<td>{html.escape(cell)}</td>" for cell in row) + "</tr>" for row in self.rows]
        caption = f"<caption><b>{html.escape(self.title)}</b></caption>" if self.title else ""
        below = f"<p>{html.escape(self.note)}</p>" if self.note else ""
        return f"<table>{caption}{''.join(lines)}</table>{below}"


def _cells(columns: Sequence[Column], values: Sequence[Any], units: UnitSystem) -> list[str]:
    return ["" if value == "" else one.cell(value, units) for one, value in zip(columns, values, strict=True)]


def _wordy(column: Column) -> bool:
    """Whether a column holds words, not numbers in letters."""
    if isinstance(column.values, np.ndarray):
        return False
    texts = [value for value in column.values if isinstance(value, str)]
    return any(not text[:1].isdigit() and text[:1] not in ("-", "") for text in texts)


def _listed(values: Any) -> list[Any]:
    return values.tolist() if isinstance(values, np.ndarray) else list(values)


def _in_units(values: Any, dimension: str, units: UnitSystem) -> Any:
    """Values in a unit system, None left as it is."""
    if isinstance(values, np.ndarray):
        return shown(values, dimension, units)
    return [
        value if value is None or isinstance(value, str) else float(shown(value, dimension, units)) for value in values
    ]
