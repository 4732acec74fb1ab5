"""Headings as people write them: name and unit taken apart, and which known column a heading means."""

from __future__ import annotations

import re
from collections.abc import Mapping, Sequence
from dataclasses import dataclass

from vivid_anvil.ground.errors import InputError, did_you_mean, inside, listed
from vivid_anvil.units import is_unit

_SQUARE = re.compile(r"(?P<name>.*?)\s*\[(?P<unit>[^\[\]]*)\]")
_ROUND = re.compile(r"(?P<name>.*?)\s*\((?P<unit>[^()]*)\)")

# What people write for the columns that tables of this trade have, in small letters.
WORDS: dict[str, tuple[str, ...]] = {
    "life": ("n", "nf", "n_f", "cycles", "cycles to failure", "number of cycles", "endurance"),
    "cycles": ("n", "n_i", "count", "number", "number of cycles"),
    "exceedance": ("exceedances", "cumulative cycles", "cumulative"),
    "stress range": ("range", "ds", "delta s", "Δs", "Δσ", "delta sigma", "s range"),
    "stress amplitude": ("amplitude", "sa", "s_a", "σa", "σ_a", "sigma a", "sigma_a", "s amplitude"),
    "maximum stress": ("smax", "s_max", "σmax", "σ_max", "max stress", "sigma max"),
    "stress": ("s", "σ", "sigma"),
    "maximum": ("max", "max.", "peak", "upper"),
    "minimum": ("min", "min.", "valley", "lower"),
    "level": ("load level",),
    "r_ratio": ("r", "r ratio", "r-ratio", "stress ratio", "load ratio"),
    "run-out": ("runout", "run out", "run-outs", "runouts", "ran out"),
    "stress intensity range": ("Δk", "delta k", "dk", "k range"),
    "growth rate": ("da/dn", "rate", "crack growth rate"),
    "crack size": ("a", "crack length", "crack depth"),
    "specimen": ("no", "no.", "id", "test"),
    "remark": ("remarks", "note", "comment"),
    "name": ("block", "event", "description"),
}


@dataclass(frozen=True, slots=True)
class Heading:
    """A heading understood: which known column it is, its unit ("" for none), and as it stands in the file."""

    column: str
    unit: str
    cell: str

    def __str__(self) -> str:
        """How it was understood, in a few words."""
        meant = f"{self.column} [{self.unit}]" if self.unit else self.column
        return meant if self.cell == meant else f"{self.cell!r} as {meant}"


def name_and_unit(cell: str) -> tuple[str, str]:
    """Name and unit of a heading: `load [kN]`, or `load (kN)` where the brackets hold a unit; "" where there is none.

    >>> name_and_unit("Stress (MPa)"), name_and_unit("force (left) [kN]"), name_and_unit("force (left)")
    (('Stress', 'MPa'), ('force (left)', 'kN'), ('force (left)', ''))
    >>> name_and_unit("base [head] [g]")
    ('base [head]', 'g')
    """
    text = cell.strip()
    square = _SQUARE.fullmatch(text)
    if square:
        return square["name"].strip(), square["unit"].strip()
    rounded = _ROUND.fullmatch(text)
    if rounded and is_unit(rounded["unit"].strip()):
        return rounded["name"].strip(), rounded["unit"].strip()
    return text, ""


def column_meant(cell: str, known: Sequence[str]) -> str | None:
    """Which of the `known` columns a heading means; None for none.

    >>> column_meant("N", ("life", "stress range")), column_meant("Width [mm]", ("life",))
    ('life', None)
    """
    name = " ".join(name_and_unit(cell)[0].casefold().split())
    for column in known:
        if name in (column, *(word.casefold() for word in WORDS.get(column, ()))):
            return column
    return None


def headings(cells: Sequence[str], known: Sequence[str], where: str, hints: Mapping[str, str]) -> list[Heading]:
    """What each of the cells means; InputError, with the hint for its name, for one that is not known or twice there."""
    headings: list[Heading] = []
    for i, cell in enumerate(cells):
        column, (name, unit) = column_meant(cell, known), name_and_unit(cell)
        if column is None:
            hint = hints.get(name.lower()) or did_you_mean(name.lower(), known)
            raise InputError(inside(where, f"column {i + 1}"), repr(cell), f"one of {listed(known)}", hint)
        if column in [one.column for one in headings]:
            raise InputError(
                inside(where, f"column {i + 1}"), f"a second column {column!r}, {cell!r}", "each column once"
            )
        headings.append(Heading(column, unit, cell))
    return headings
