"""What every result gives the same way: words, tables, findings, working; and from these a page, records, a data frame, HTML."""

from __future__ import annotations

import html
from abc import ABC, abstractmethod
from collections.abc import Mapping, Sequence
from dataclasses import dataclass
from typing import Any, Self

from vivid_anvil.ground.errors import InputError
from vivid_anvil.units import UnitSystem
from vivid_anvil.writing.finding import Finding
from vivid_anvil.writing.plain import finding_records, plain
from vivid_anvil.writing.table import Table
from vivid_anvil.writing.working import Working

Words = tuple[tuple[str, str], ...]


@dataclass(frozen=True)
class Page:
    """What is shown of a result, in this order: `words` by their label ("" for a sentence), tables, findings.

    `findings` are None where a page has none to tell, () where there could have been some.
    """

    title: str
    words: Words = ()
    tables: tuple[Table, ...] = ()
    findings: tuple[Finding, ...] | None = None


class Result(ABC):
    """The answer of a calculation. A class says its title, findings, words and tables; the rest follows."""

    findings: Any  # of `Finding`: a field, or a property

    @property
    @abstractmethod
    def title(self) -> str:
        """What it is the result of."""

    @classmethod
    @abstractmethod
    def overview(cls, results: Sequence[Self]) -> Table:
        """A table with a row for each of several results: all their single numbers, by the headings of files."""

    def words(self, units: UnitSystem) -> Words:
        """Label and sentence of what a reader is told before the tables."""
        return ()

    def tables(self, units: UnitSystem = "metric") -> tuple[Table, ...]:
        """What has several rows; classes have limits that are round in `units`."""
        return ()

    def working(self, units: UnitSystem = "metric") -> Working:
        """The main number as steps to redo by hand; InputError where there is nothing to redo."""
        raise InputError("explain", f"a {type(self).__name__}", "a result that is worked out in steps")

    def others(self) -> Mapping[str, Any]:
        """What a record holds besides numbers, tables and findings: records of what the result stands on."""
        return {}

    def page(self, units: UnitSystem = "metric", *, title: str = "", in_full: bool = False) -> Page:
        """What is shown of it; with everything where that is asked for."""
        tables = tuple(one for one in self.tables(units) if len(one) and one.only in ("", "in full" if in_full else ""))
        return Page(title or self.title, self.words(units), tables, tuple(self.findings))

    def facts(self) -> dict[str, Any]:
        """Its single numbers and words, by the headings of files."""
        return self.overview([self]).rows()[0]

    def to_dict(self) -> dict[str, Any]:
        """Everything as plain numbers and text, metric units in the names; inf as the text "inf"."""
        tables = {one.key or one.title: one.rows() for one in self.tables()}
        record: dict[str, Any] = plain({**self.facts(), **self.others(), **tables})
        return {**record, "findings": finding_records(self.findings)}

    def rows(self) -> list[dict[str, Any]]:
        """Its first table, or where it has none its numbers: a dictionary a row, by the headings of files."""
        return self._first().rows()

    def to_frame(self) -> Any:
        """The same as a pandas data frame."""
        return self._first().to_frame()

    def _first(self) -> Table:
        return (*self.tables(), self.overview([self]))[0]

    def _repr_html_(self) -> str:
        return page_as_html(self.page())


def page_as_html(page: Page) -> str:
    """A page for notebooks.

    >>> page_as_html(Page("Lives", (("Life", "27.9 years"),)))
    '<h4>Lives</h4><table><tr><th>Life</th><td>27.9 years</td></tr></table>'
    """
    rows = [
        f"<tr><th>{html.escape(label)}</th><td>{html.escape(text)}</td></tr>"
        if label
        else f"<tr><td colspan=2>{html.escape(text)}</td></tr>"
        for label, text in page.words
    ]
    parts = [f"<h4>{html.escape(page.title)}</h4>", *([f"<table>{''.join(rows)}</table>"] if rows else [])]
    parts += [table.on_page().to_html() for table in page.tables]
    parts += [
        f"<p><b>{finding.severity}</b>: {html.escape(f'{finding.sentence} {finding.advice}')} [{html.escape(finding.code)}]</p>"
        for finding in page.findings or ()
    ]
    return "".join(parts)
