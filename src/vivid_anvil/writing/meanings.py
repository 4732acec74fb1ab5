"""What codes of findings, terms of the trade and symbols mean: read from the tables beside, for the command and the documents."""

from __future__ import annotations

import tomllib
from collections.abc import Iterator
from dataclasses import dataclass
from functools import cache
from importlib.resources import files
from typing import Any

from vivid_anvil.ground import checks
from vivid_anvil.ground.errors import InputError, did_you_mean, field_of
from vivid_anvil.units import opened


@dataclass(frozen=True, slots=True)
class Meaning:
    """What a code of a finding or a term means: in words, what to do, the terms it stands on, its symbol, the guide's page.

    Parameters
    ----------
    name : str
        The code or the term.
    text : str
        What it means.
    advice : str, default ""
        What to do; for codes.
    terms : tuple of str, default ()
        Terms that the words stand on; for codes.
    symbol : str, default ""
        Its symbol; for terms.
    page : str, default ""
        Page of the guide; for terms.
    group : str, default ""
        What kind of finding it is; for codes.

    Raises
    ------
    InputError
        Without a name or a text.

    Examples
    --------
    >>> meaning_of("knee").page
    '3-materials'
    """

    name: str
    text: str
    advice: str = ""
    terms: tuple[str, ...] = ()
    symbol: str = ""
    page: str = ""
    group: str = ""

    def __post_init__(self) -> None:
        checks.text(field_of("Meaning", "name"), self.name)
        checks.text(field_of("Meaning", "text"), self.text)


@opened()
def meaning_of(name: str) -> Meaning:
    """What a code of a finding, or a term, means.

    Parameters
    ----------
    name : str
        A code such as "few-samples", or a term such as "rainflow"; capital letters do not matter.

    Returns
    -------
    Meaning
        In words; for a code with what to do.

    Raises
    ------
    InputError
        For a name that is neither, with the nearest one.

    Examples
    --------
    >>> print(meaning_of("r-differs").text)
    The curve was tested at another R than the load has, and no mean-stress rule carries it over.
    """
    checks.text("code or term", name)
    known = {one.name.lower(): one for one in (*finding_meanings(), *glossary_terms())}
    wanted = name.strip().strip("[]").lower()
    if wanted not in known:
        holding = [one.name for key, one in known.items() if wanted in key]
        hint = did_you_mean(wanted, known) or (f"Those with it: {', '.join(holding)}." if holding else "")
        raise InputError("meaning", repr(name), "a code of a finding, or a term of the glossary", hint)
    return known[wanted]


@cache
def finding_meanings() -> tuple[Meaning, ...]:
    """All codes of findings, in groups in the order of the work.

    Returns
    -------
    tuple of Meaning
        With group, advice and terms.

    Examples
    --------
    >>> finding_meanings()[0].name
    'bins-too-coarse'
    """
    return tuple(_codes(_table("findings")))


def _codes(table: dict[str, Any]) -> Iterator[Meaning]:
    for group in table.values():
        for code, one in group["codes"].items():
            yield Meaning(code, one["means"], one["do"], tuple(one["terms"]), group=group["title"])


@cache
def glossary_terms() -> tuple[Meaning, ...]:
    """All terms of the glossary, in the order of the alphabet.

    Returns
    -------
    tuple of Meaning
        With symbol and page.

    Examples
    --------
    >>> [one.name for one in glossary_terms()][:3]
    ['amplitude', 'assessment diagram', 'Charpy energy']
    """
    found = [
        Meaning(name, one["text"], symbol=one.get("symbol", ""), page=one["see"])
        for name, one in _table("glossary")["terms"].items()
    ]
    return tuple(sorted(found, key=lambda one: one.name.lower()))


@cache
def symbols() -> dict[str, str]:
    """The symbols of the formulas, with what they stand for and their unit.

    Returns
    -------
    dict of str to str
        Meaning by symbol.

    Examples
    --------
    >>> symbols()["Y"]
    'shape factor of a crack'
    """
    return dict(_table("glossary")["symbols"])


def _table(name: str) -> dict[str, Any]:
    text = (files("vivid_anvil.writing") / "data" / f"{name}.toml").read_text(encoding="utf-8")
    return tomllib.loads(text)
