"""A study that includes another one and changes some values.

`include = "base.toml"` takes all of the other file; tables are merged key by key, lists of named entries (events, hot spots,
cracks) entry by entry by their name, anything else is replaced. An entry with a new name is added; one with `leave_out = true` is
taken out. Files that the other study names are looked for beside it.
"""

from __future__ import annotations

import os
from collections.abc import Mapping
from pathlib import Path
from typing import Any

from vivid_anvil.ground.errors import InputError, inside
from vivid_anvil.ground.files import read_toml

MOST_INCLUDES = 30
INCLUDE, LEAVE_OUT = "include", "leave_out"
# Keys whose values are names of files.
_FILES = (
    "history",
    "programme",
    "spectrum",
    "table",
    "tests",
    "file",
    "points",
    "stresses",
    "sets_from",
    "standard_file",
    "cards",
)


def with_includes(path: Path, above: tuple[Path, ...] = ()) -> dict[str, Any]:
    """The tables of the study file `path` with those that it includes; InputError for a missing or circular include."""
    data = read_toml(path, "a study file", "Write the demo study with 'vivid-anvil demo' and start from it.")
    other = data.pop(INCLUDE, None)
    if other is None:
        return data
    where = f"{path.name}, {INCLUDE}"
    if not isinstance(other, str):
        raise InputError(where, repr(other), "the name of a study file")
    base_path = path.parent / other
    chain = (*above, path.resolve())
    if base_path.resolve() in chain:
        names = " includes ".join(one.name for one in (*chain, base_path))
        raise InputError(where, f"a circle: {names}", "files that don't include each other", "Cut one include out.")
    if len(chain) > MOST_INCLUDES:
        raise InputError(
            where, f"a chain of more than {MOST_INCLUDES} files", "a shorter one", "Put the values into one file."
        )
    base = _relocated(with_includes(base_path, chain), base_path.parent, path.parent)
    return _merged(base, data, path.name)


def _merged(base: Mapping[str, Any], changes: Mapping[str, Any], where: str) -> dict[str, Any]:
    """`base` with `changes` put in."""
    found = dict(base)
    for key, value in changes.items():
        here, old = inside(where, f"{key}"), found.get(key)
        if isinstance(value, dict) and isinstance(old, dict):
            found[key] = _merged(old, value, here)
        elif isinstance(old, list) and _is_named(value) and _is_named(old):
            found[key] = _merged_lists(old, value, here)
        else:
            found[key] = value
    return found


def _is_named(value: Any) -> bool:
    """Whether it is a list of tables with names."""
    return isinstance(value, list) and bool(value) and all(isinstance(one, dict) and _name(one) for one in value)


def _name(entry: Mapping[str, Any]) -> Any:
    return entry.get("name") or entry.get("hot_spot")


def _merged_lists(base: list[Any], changes: list[Any], where: str) -> list[Any]:
    lists = list(base)
    for entry in changes:
        names = [_name(one) for one in lists]
        change = {key: value for key, value in entry.items() if key != LEAVE_OUT}
        place = names.index(_name(entry)) if _name(entry) in names else None
        if entry.get(LEAVE_OUT) is True:
            if place is None:
                raise InputError(
                    inside(where, f"{_name(entry)}"), "an entry to leave out that is not there", f"one of {names}"
                )
            del lists[place]
        elif place is None:
            lists.append(change)
        else:
            lists[place] = _merged(lists[place], change, inside(where, f"{_name(entry)}"))
    return lists


def _relocated(value: Any, old: Path, new: Path) -> Any:
    """Names of files as they stand from the folder `new`, where they stood from `old`."""
    if isinstance(value, dict):
        return {
            key: _moved(one, old, new) if key in _FILES and _are_names(one) else _relocated(one, old, new)
            for key, one in value.items()
        }
    return [_relocated(one, old, new) for one in value] if isinstance(value, list) else value


def _are_names(value: Any) -> bool:
    return isinstance(value, str) or (isinstance(value, list) and all(isinstance(one, str) for one in value))


def _moved(value: Any, old: Path, new: Path) -> Any:
    if isinstance(value, list):
        return [_moved(one, old, new) for one in value]
    return value if Path(value).is_absolute() else Path(os.path.relpath(old / value, new)).as_posix()
