"""Several studies side by side: what differs in the input, and what differs in the answer."""

from __future__ import annotations

from collections.abc import Iterator, Mapping, Sequence
from dataclasses import dataclass
from typing import Any

from vivid_anvil.ground.errors import InputError
from vivid_anvil.study.study import WORST_NODE, StudyResult
from vivid_anvil.writing.html import html_frame
from vivid_anvil.writing.plain import finding_records, plain


@dataclass(frozen=True, eq=False, repr=False)
class StudyComparison:
    """Results by the name of their study; `differences` holds, by key, the value of each study (None where it has none)."""

    results: Mapping[str, StudyResult]
    differences: Mapping[str, tuple[Any, ...]]

    def rows(self) -> list[dict[str, Any]]:
        """One row a place that any study has, the worst node of a model too: its lives; None where a study has none."""
        places = {name: result.places for name, result in self.results.items()}
        spots = dict.fromkeys(spot for lives in places.values() for spot in lives)
        rows = []
        for spot in spots:
            row: dict[str, Any] = {"hot_spot": spot}
            for name in self.results:
                life = places[name].get(spot)
                if WORST_NODE in spots:
                    row[f"{name}: place"] = None if life is None else life.place
                row[f"{name}: life_repeats"] = None if life is None else life.life_repeats
                row[f"{name}: life_years"] = None if life is None else life.life_years
                row[f"{name}: used_at_target"] = None if life is None else life.used_at_target
                row[f"{name}: reserve_on_life"] = None if life is None else life.reserve_on_life
            rows.append(row)
        return rows

    def to_dict(self) -> dict[str, Any]:
        """The comparison as plain numbers and text."""
        record: dict[str, Any] = plain(
            {
                "studies": list(self.results),
                "differences": {key: list(values) for key, values in self.differences.items()},
                "lives": self.rows(),
                "findings": {name: finding_records(one.findings) for name, one in self.results.items()},
            }
        )
        return record

    def to_frame(self) -> Any:
        """A row a hot spot."""
        import pandas as pd

        return pd.DataFrame(self.rows())

    def _repr_html_(self) -> str:
        return html_frame(repr(self).strip("<>"), self.to_frame())

    def __repr__(self) -> str:
        return f"<StudyComparison {', '.join(self.results)}: {len(self.differences)} values differ>"


def compare_studies(results: Mapping[str, StudyResult]) -> StudyComparison:
    """What differs between studies that were read from files and run, by a name for each; at least two.

    Keys are paths through the study file, entries of lists by their name.
    """
    if len(results) < 2:
        raise InputError("compare studies", f"{len(results)} study", "at least two")
    flat = [dict(_flat(result.study.data)) for result in results.values()]
    keys = dict.fromkeys(key for one in flat for key in one)
    rows = {key: tuple(one.get(key) for one in flat) for key in keys}
    return StudyComparison(dict(results), {key: row for key, row in rows.items() if any(one != row[0] for one in row)})


def _flat(value: Any, path: tuple[str, ...] = ()) -> Iterator[tuple[str, Any]]:
    """Every value with the path of its keys."""
    if isinstance(value, Mapping):
        for key, one in value.items():
            yield from _flat(one, (*path, str(key)))
    elif isinstance(value, Sequence) and not isinstance(value, str) and all(isinstance(one, Mapping) for one in value):
        for i, one in enumerate(value, start=1):
            name = one.get("name") or one.get("hot_spot") or i
            yield from _flat(one, (*path, str(name)))
    else:
        yield "/".join(path), value
