"""Keys of a study by their paths with slashes: values looked up and changed, entries of lists by their names or numbers."""

from __future__ import annotations

import copy
import dataclasses
import re
from pathlib import Path
from typing import Any

from vivid_anvil.ground.errors import InputError, did_you_mean, listed
from vivid_anvil.study.read_study import build_study
from vivid_anvil.study.study import Study
from vivid_anvil.units import opened

LOAD_SCALE = "load scale"
_QUANTITY = re.compile(r"\s*([+-]?[\d.]+(?:[eE][+-]?\d+)?)(\s*\D.*)")


@opened()
def number_and_unit(value: Any) -> tuple[float, str] | None:
    """Number and unit of a value; None for a word."""
    if isinstance(value, bool) or value is None:
        return None
    if isinstance(value, int | float):
        return float(value), ""
    match = _QUANTITY.fullmatch(value) if isinstance(value, str) else None
    return None if match is None else (float(match[1]), match[2].strip())


def changed_study(base: Study, key: str, value: Any) -> Study:
    """The study with another value under `key`; what is not concerned is not read or fitted again."""
    data = dict(base.data)
    *path, last = _path(data, key)
    at: Any = data
    for part in path:  # only the tables on the way are copied
        at[part] = copy.copy(at[part])
        at = at[part]
    at[last] = value
    made = build_study(base.path or Path("study.toml"), data, like=base)
    return dataclasses.replace(made, title=base.title)


def value_at(data: Any, key: str) -> Any:
    """The value under `key` in the tables of a study; None where the study leaves a known key out."""
    at = data
    for part in _path(data, key):
        at = at.get(part) if isinstance(at, dict) else at[part]
    return at


def _names_of(entries: list[Any]) -> list[str]:
    """What entries of a list are called: by their name, by their hot spot, else by their number from 1."""
    named = [one.get("name") or one.get("hot_spot") if isinstance(one, dict) else None for one in entries]
    return [str(name or i) for i, name in enumerate(named, 1)]


def _with_slashes(data: dict[str, Any], key: str) -> str:
    """What is said where the tables on the way to a key were parted by points or blanks."""
    parts = re.split(r"[.\s]+", key)
    meant = "/".join(parts)
    return f"Tables and keys are parted by slashes: {meant!r}?" if len(parts) > 1 and parts[0] in data else ""


def _path(data: Any, key: str) -> list[Any]:
    """The keys and places of a path; InputError with those that are there."""
    found: list[Any] = []
    at, parts = data, key.split("/")
    for i, part in enumerate(parts):
        where = f"what if, {key}"
        if isinstance(at, list):
            names = _names_of(at)
            if part not in names:
                raise InputError(where, f"no {part!r}", f"one of {listed(names)}", did_you_mean(part, names))
            found.append(names.index(part))
        elif isinstance(at, dict) and (part in at or i == len(parts) - 1):
            found.append(part)
            if part not in at:
                if i == 0:
                    raise InputError(
                        where,
                        f"no {part!r}",
                        f"one of {listed(at)}, or {LOAD_SCALE!r}",
                        _with_slashes(at, key) or did_you_mean(part, [*at, LOAD_SCALE]),
                    )
                return found
        else:
            known = list(at) if isinstance(at, dict) else []
            raise InputError(where, f"no {part!r}", f"one of {listed(known)}", did_you_mean(part, known))
        at = at[found[-1]]
    return found
