"""A life as columns of a table: repeats, hours and years for files, the unit that reads well for a page."""

from __future__ import annotations

from collections.abc import Sequence

from vivid_anvil.events.calendar import Calendar
from vivid_anvil.writing.table import Column


def life_columns(
    repeats: Sequence[float | None],
    calendars: Sequence[Calendar],
    hours: Sequence[float | None] | None = None,
    *,
    name: str = "life",
    endless: str = "no damage",
) -> tuple[Column, ...]:
    """Columns for lives in repeats, each with its calendar, None where a row has none; `hours` are those of one repeat.

    >>> [one.heading for one in life_columns([36.0], [Calendar("month", 12.0)])]
    ['life [repeats]', 'life [years]', 'life [years]']
    """
    years = [None if life is None else one.years(life) for life, one in zip(repeats, calendars, strict=True)]
    unit = calendars[0].unit_for(*(life for life in repeats if life is not None)) if calendars else "repeats"
    told = [None if life is None else one.life_in(unit, life) for life, one in zip(repeats, calendars, strict=True)]
    lasting = []
    if hours is not None:
        each = [None if None in (life, one) else life * one for life, one in zip(repeats, hours, strict=True)]  # type: ignore[operator]
        lasting = [Column(name, each, unit="h", only="file")]
    return (
        Column(name, repeats, unit="repeats", only="file"),
        *lasting,
        Column(name, years, unit="years", only="file"),
        Column(name, told, unit=unit, only="page", endless=endless),
    )
