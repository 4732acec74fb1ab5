"""Codes of findings and terms of the trade, told in words."""

from __future__ import annotations

import textwrap
from typing import TYPE_CHECKING

from vivid_anvil.cli.outputs import Outputs
from vivid_anvil.writing.meanings import Meaning, finding_meanings, glossary_terms, meaning_of, symbols
from vivid_anvil.writing.table import Column, Table

if TYPE_CHECKING:
    from vivid_anvil.writing.result import Words


def meaning(names: list[str], outputs: Outputs) -> None:
    """What each of the names means; without any, all there are, in short."""
    outputs.check()
    found = [meaning_of(name) for name in names] or [*finding_meanings(), *glossary_terms()]
    table = Table(
        "Meanings",
        (
            Column("name", [one.name for one in found]),
            Column("kind", [one.group or "term" for one in found]),
            Column("meaning", [one.text for one in found]),
            Column("what to do", [one.advice for one in found]),
            Column("terms", [", ".join(one.terms) for one in found]),
            Column("symbol", [one.symbol for one in found]),
        ),
        "meanings",
    )
    written = outputs.write({"meanings": table.rows(), "symbols": symbols()}, table)
    from vivid_anvil.cli import show

    out = show.console()
    if names:
        for one in found:
            out.print(show.heading(one.name))
            out.print(show.words_grid(_words(one)))
    else:
        for title in dict.fromkeys(one.group or "Terms" for one in found):
            out.print(show.heading(title))
            short = tuple((one.name, one.text) for one in found if (one.group or "Terms") == title)
            out.print(show.words_grid(short))
        out.print(show.heading("Symbols"))
        out.print(show.words_grid(tuple(symbols().items())))
        out.print(show.indented("\nOne in full: vivid-anvil meaning few-samples"))
    show.say_written(out, written)


def _words(one: Meaning) -> Words:
    """What it means, what to do, its terms with their first sentence, where the guide has it."""
    told = [("Means", one.text)]
    if one.advice:
        told.append(("Do", one.advice))
    if one.symbol:
        told.append(("Symbol", one.symbol))
    told += [(name, textwrap.shorten(meaning_of(name).text, 300)) for name in one.terms]
    pages = dict.fromkeys([one.page] if one.page else [meaning_of(name).page for name in one.terms])
    return (*told, ("Guide", ", ".join(pages))) if pages else tuple(told)
