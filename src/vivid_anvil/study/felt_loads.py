"""Loads in the states of events that nothing feels: mostly a slip of their names."""

from __future__ import annotations

from collections.abc import Iterator
from typing import Any

from vivid_anvil.ground.errors import did_you_mean, listed

Keys = tuple[str | int, ...]


def load_that_nothing_feels(data: dict[str, Any], felt: set[str]) -> tuple[Keys, str, str, str] | None:
    """The first such load of a study's tables: its keys, what was found, what was expected, what to do; None without.

    `felt` are the channels that hot spots and load cases name.
    """
    for keys, event in _with_keys(data["duty_cycle"]["events"], ("duty_cycle", "events")):
        for name in event.get("states") or {}:
            if name not in felt:
                return (
                    (*keys, "states"),
                    f"a load {name!r} that no hot spot and no load case of the model feels",
                    f"one of {listed(sorted(felt))}",
                    did_you_mean(name, felt) or "Give a hot spot its stress_per_load, or leave the load out.",
                )
    return None


def _with_keys(
    events: list[dict[str, Any]], keys: tuple[str | int, ...]
) -> Iterator[tuple[tuple[str | int, ...], dict[str, Any]]]:
    """Every event as it is written, inner ones too, with the way to it."""
    for i, event in enumerate(events):
        yield (*keys, i), event
        yield from _with_keys(event.get("events") or [], (*keys, i, "events"))
