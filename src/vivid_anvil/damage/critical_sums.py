"""Guidance on the critical damage sum, by source. Figures to be checked in the edition that you work to."""

from __future__ import annotations

from dataclasses import dataclass

from vivid_anvil.writing.table import Column, Table


@dataclass(frozen=True, slots=True)
class CriticalSum:
    """A critical damage sum, the parts that it is meant for, and whose advice it is."""

    value: float
    parts: str
    source: str


# Experiments under variable amplitude fail at sums well below and above 1: the advice is about a safe mean.
CRITICAL_SUMS = (
    CriticalSum(1.0, "all parts, the definition of the rule", "Palmgren 1924, Miner 1945"),
    CriticalSum(1.0, "welded and other details of steel structures", "EN 1993-1-9, A.5"),
    CriticalSum(0.5, "welds under variable amplitude", "IIW-2259-15, 4.3"),
    CriticalSum(0.2, "welds under variable amplitude whose mean stress varies too", "IIW-2259-15, 4.3"),
    CriticalSum(0.3, "steel, cast steel and aluminium, not welded", "FKM guideline, 4.4"),
    CriticalSum(1.0, "cast irons, not welded", "FKM guideline, 4.4"),
)


def critical_sums_table() -> Table:
    """What sources advise as critical damage sum."""
    columns = (
        Column("critical sum", [one.value for one in CRITICAL_SUMS], style="number", left=True),
        Column("for", [one.parts for one in CRITICAL_SUMS], head="for"),
        Column("by", [one.source for one in CRITICAL_SUMS], head="by"),
    )
    return Table("Critical damage sums, as advised", columns, "critical sums")
