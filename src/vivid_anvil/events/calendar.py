"""How long repeats last in years, and the words for it: one place for all tables, titles and messages.

In: the repeat's name and, where the study knows it, repeats per year. Out: a life in years or days, or in repeats where there is
no calendar; plurals.
"""

from __future__ import annotations

import math
import re
from dataclasses import dataclass
from typing import Any

from vivid_anvil.units import number

DAYS = 365.25  # in a year
_FEW_DAYS = 0.1  # years; shorter lives are told in days
_SIBILANT = re.compile(r"(ss|x|z|ch|sh)$")
_CONSONANT_Y = re.compile(r"[^aeiou]y$")


def plural(word: str) -> str:
    """More than one of a thing.

    >>> [plural(word) for word in ("lap", "pass", "day", "duty", "cycles")]
    ['laps', 'passes', 'days', 'duties', 'cycles']
    """
    if _SIBILANT.search(word):
        return f"{word}es"
    if _CONSONANT_Y.search(word):
        return f"{word[:-1]}ies"
    return word if word.endswith("s") else f"{word}s"


def amount(value: float, word: str) -> str:
    """ "1 lap", "12 laps"."""
    return f"{number(value)} {word if value == 1.0 else plural(word)}"


@dataclass(frozen=True, slots=True)
class Calendar:
    """What a repeat is called, and how many a year has; None where the use knows no years (a test, a block).

    >>> Calendar("month", 12.0).text(18.0)
    '1.5 years'
    >>> Calendar("pass", None).text(18.0)
    '18 passes'
    """

    repeat: str
    repeats_per_year: float | None

    @property
    def repeats(self) -> str:
        """The plural of the repeat."""
        return plural(self.repeat)

    def years(self, repeats: Any) -> Any:
        """Years that `repeats` last, a number or an array; None without repeats per year."""
        return None if self.repeats_per_year is None else repeats / self.repeats_per_year

    def unit_for(self, *lives: float) -> str:
        """The unit in which these lives, in repeats, read well: "years", "days" where the shortest is short, or the repeats."""
        if self.repeats_per_year is None:
            return self.repeats
        finite = [life / self.repeats_per_year for life in lives if 0.0 < life < math.inf]
        return "days" if finite and min(finite) < _FEW_DAYS and self.repeat != "day" else "years"

    def life_in(self, unit: str, repeats: Any) -> Any:
        """Repeats, a number or an array, in a unit of `unit_for`."""
        if self.repeats_per_year is None:
            return repeats
        return self.years(repeats) * (DAYS if unit == "days" else 1.0)

    def text(self, repeats: float) -> str:
        """A life in the unit that fits its size."""
        unit = self.unit_for(repeats)
        word = {"years": "year", "days": "day"}.get(unit, self.repeat)
        return amount(self.life_in(unit, repeats), word)

    def in_all_units(self, repeats: float, hours: float | None = None) -> str:
        """A life in repeats, in hours where a repeat lasts `hours`, and in years or days; no unit twice.

        >>> Calendar("month", 12.0).in_all_units(18.0, 30.0)
        '18 months = 540 h = 1.5 years'
        >>> Calendar("year", 1.0).in_all_units(18.0)
        '18 years'
        """
        parts = [amount(repeats, self.repeat)]
        if hours is not None and self.repeat not in ("h", "hour"):
            parts.append(f"{number(repeats * hours)} h")
        if self.repeats_per_year is not None and (years := self.text(repeats)) not in parts:
            parts.append(years)
        return " = ".join(parts)


def share_used(target_repeats: float | None, life_repeats: float) -> float | None:
    """Share of a life that is used at the target; None without target, inf for a life of 0, 0 for one without end.

    >>> share_used(30.0, 60.0), share_used(30.0, 0.0), share_used(None, 5.0)
    (0.5, inf, None)
    """
    if target_repeats is None:
        return None
    return target_repeats / life_repeats if life_repeats > 0.0 else float("inf")
