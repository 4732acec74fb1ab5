"""Several studies side by side: what differs in the input, and what differs in the answer."""

from __future__ import annotations

import math
from collections.abc import Iterator, Mapping, Sequence
from dataclasses import dataclass
from typing import Any

from vivid_anvil.acceptance.grow_flaw import said_years
from vivid_anvil.ground.errors import InputError
from vivid_anvil.study.kept_life import KeptLife
from vivid_anvil.study.study import WORST_NODE
from vivid_anvil.study.study_result import StudyResult
from vivid_anvil.study.what_if_flaws import KeptFlaw, kept_flaws
from vivid_anvil.units import UnitSystem, fixed, opened
from vivid_anvil.writing.finding import Finding, gravest_first
from vivid_anvil.writing.plain import finding_records
from vivid_anvil.writing.result import Result, Words
from vivid_anvil.writing.table import Column, Table


@dataclass(frozen=True, eq=False, repr=False)
class StudyComparison(Result):
    """Results by the name of their study; `differences` holds, by key, the value of each study (None where it has none)."""

    results: Mapping[str, StudyResult]
    differences: Mapping[str, tuple[Any, ...]]

    @property
    def title(self) -> str:
        """The names of the studies."""
        return ", ".join(self.results)

    @property
    def findings(self) -> tuple[Finding, ...]:
        """Those of all studies, the gravest first."""
        return gravest_first(finding for one in self.results.values() for finding in one.findings)

    @classmethod
    def overview(cls, results: Sequence[StudyComparison]) -> Table:
        """A row a comparison: the studies, and how many values differ."""
        columns = (
            Column("studies", [result.title for result in results]),
            Column("values that differ", [len(result.differences) for result in results]),
        )
        return Table("", columns, "comparisons")

    def words(self, units: UnitSystem) -> Words:
        """Where nothing differs, that."""
        return () if self.differences else (("", "Nothing differs in the input."),)

    def tables(self, units: UnitSystem = "metric") -> tuple[Table, ...]:
        """A row a place that any study has, with its lives; a row a key with the value of each study."""
        return self._lives(), *self._flaws(), self._inputs()

    def _flaws(self) -> tuple[Table, ...]:
        """A row a flaw of any study: what it has in each."""
        kept = {name: {} if one.flaws is None else kept_flaws(one.flaws, None) for name, one in self.results.items()}
        flaws = list(dict.fromkeys(flaw for one in kept.values() for flaw in one))
        if not flaws:
            return ()
        columns = [Column("flaw", flaws, head="Flaw (reserve on load)")]
        for name, own in kept.items():
            rows = [own.get(flaw) for flaw in flaws]
            told = [None if row is None else _told_flaw(row) for row in rows]
            columns += [
                Column(f"{name}: acceptable", [row and row.acceptable for row in rows], only="file"),
                Column(f"{name}: reserve on load", [row and row.reserve_on_load for row in rows], only="file"),
                Column(f"{name}: remaining life", [row and row.life for row in rows], unit="years", only="file"),
                Column(name, told, head=name, only="page", left=False),
            ]
        return (Table("Flaws", tuple(columns), "flaws"),)

    def _inputs(self) -> Table:
        keys = list(self.differences)
        columns = [Column("key", keys)]
        for i, name in enumerate(self.results):
            values = [self.differences[key][i] for key in keys]
            columns.append(Column(name, values, only="file"))
            columns.append(
                Column(name, [None if value is None else str(value) for value in values], head=name, only="page")
            )
        return Table("What differs in the input", tuple(columns), "differences")

    def _lives(self) -> Table:
        places = {name: result.places for name, result in self.results.items()}
        spots = list(dict.fromkeys(spot for lives in places.values() for spot in lives))
        columns = [Column("hot spot", spots, head="Life (used at the target)")]
        for name in self.results:
            lives = [places[name].get(spot) for spot in spots]
            told = [None if one is None else _told(one, spot) for one, spot in zip(lives, spots, strict=True)]
            columns += [
                *(
                    [Column(f"{name}: place", [life and life.place for life in lives], only="file")]
                    if WORST_NODE in spots
                    else []
                ),
                Column(f"{name}: life", [life and life.life_repeats for life in lives], unit="repeats", only="file"),
                Column(f"{name}: life", [life and life.life_years for life in lives], unit="years", only="file"),
                Column(f"{name}: used at target", [life and life.used_at_target for life in lives], only="file"),
                Column(f"{name}: reserve on life", [life and life.reserve_on_life for life in lives], only="file"),
                Column(name, told, head=name, only="page", left=False),
            ]
        return Table("Lives", tuple(columns), "lives")

    def others(self) -> Mapping[str, Any]:
        """The findings of each study."""
        return {"findings of": {name: finding_records(one.findings) for name, one in self.results.items()}}

    def __repr__(self) -> str:
        return f"<StudyComparison {', '.join(self.results)}: {len(self.differences)} values differ>"


def _told_flaw(flaw: KeptFlaw) -> str:
    """A flaw of one of several studies: how long it holds, and its reserve."""
    reserve = f"({fixed(flaw.reserve_on_load, 3)})"
    if not flaw.acceptable:
        return f"fails {reserve}"
    return f"holds {reserve}" if flaw.life is None else f"{said_years(flaw.life)} {reserve}"


def _told(life: KeptLife, spot: str) -> str:
    """A life of one of several studies, in its own unit, with how much of it the target uses."""
    if math.isinf(life.life_repeats):
        return "no damage"
    share = life.used_at_target
    told: str = life.calendar.text(life.life_repeats)
    if share is not None:
        told += f" ({'all at once' if math.isinf(share) else fixed(100.0 * share)} %)"
    return f"{told}, {life.place}" if spot == WORST_NODE else told


@opened()
def compare_studies(results: Mapping[str, StudyResult]) -> StudyComparison:
    """What differs between studies that were read from files and run, by a name for each; at least two.

    Keys are paths through the study file, entries of lists by their name.

    Parameters
    ----------
    results : mapping of str to StudyResult
        Results, by a name for each.

    Returns
    -------
    StudyComparison
        The keys that differ, and the answers beside each other.

    Raises
    ------
    InputError
        For an argument of another kind, unit or range; the message says which.

    Examples
    --------
    >>> compare_studies({"now": result, "before": result})  # of the demo: run_study(read_study('larkfell.toml'))
    <StudyComparison now, before: 0 values differ>
    """
    if len(results) < 2:
        raise InputError("compare studies", f"{len(results)} study", "at least two")
    flat = [dict(flat_keys(_without_report(result.study.data))) for result in results.values()]
    keys = dict.fromkeys(key for one in flat for key in one)
    rows = {key: tuple(one.get(key) for one in flat) for key in keys}
    return StudyComparison(dict(results), {key: row for key, row in rows.items() if any(one != row[0] for one in row)})


def _without_report(data: Mapping[str, Any]) -> dict[str, Any]:
    """The tables of a study but that of its report, which moves no number."""
    return {key: value for key, value in data.items() if key != "report"}


def flat_keys(value: Any, path: tuple[str, ...] = ()) -> Iterator[tuple[str, Any]]:
    """Every value with the path of its keys."""
    if isinstance(value, Mapping):
        for key, one in value.items():
            yield from flat_keys(one, (*path, str(key)))
    elif isinstance(value, Sequence) and not isinstance(value, str) and all(isinstance(one, Mapping) for one in value):
        for i, one in enumerate(value, start=1):
            name = one.get("name") or one.get("hot_spot") or i
            yield from flat_keys(one, (*path, str(name)))
    else:
        yield "/".join(path), value
