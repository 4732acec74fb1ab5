"""Errors of the study file in the user's words: the file, the path of keys, what was found, what was expected."""

from __future__ import annotations

import re
from typing import Any

from pydantic import BaseModel, ValidationError

from vivid_anvil.ground.errors import InputError, did_you_mean, inside, listed
from vivid_anvil.study.models_of_nouns import ONE_VALUE, TAG

_EXPECTED = {
    "missing": "the key",
    "float_type": "a number",
    "int_type": "a whole number",
    "string_type": "text in quotes",
    "bool_type": "true or false",
    "list_type": "a list: [1, 2], or of tables [[name]]",
    "dict_type": "tables, written [name.yours]",
    "model_type": "a table",
    "model_attributes_type": "a table",
    "too_short": "at least one",
    "string_too_short": "text with something in it",
}

# Keys that stood in an earlier format, and what to write now.
MOVED = {
    "form": 'Write kind in its place, such as kind = "walker".',
    "values": "Its values are keys themselves now, beside kind: gamma = 0.6.",
    "threshold_model": 'Write threshold = { kind = "power of 1 - R", range = "2 MPa√m", exponent = 0.5 }.',
    "threshold_exponent": 'Write threshold = { kind = "power of 1 - R", range = "2 MPa√m", exponent = 0.5 }.',
}


# Of format 1: the table that a key stood in, and what to write now.
_RENAMED = {("cracks", "growth_law"): "law", ("duty_cycle", "duration"): "repeat_duration"}


def what_to_change(data: Any, to: int) -> str:
    """What to write in a file of an earlier format to make it one of format `to`, and where."""
    if data.get("format") != 1:
        return "The file was written for another version."
    changes = [f"format = {to}"]
    for (table, key), now in _RENAMED.items():
        places: list[tuple[int | str, ...]] = (
            [(table, i) for i in range(len(data[table]))] if isinstance(data.get(table), list) else [(table,)]
        )
        for place in places:
            section = data.get(table) if len(place) == 1 else data[table][place[1]]
            if isinstance(section, dict) and key in section:
                changes.append(f"{now} in place of {key} at {key_path(data, place)}")
    laws = data.get("growth_laws") if isinstance(data.get("growth_laws"), dict) else {}
    for name, law in laws.items():
        changes += [f"at growth_laws, {name}, {key}: {MOVED[key]}" for key in law if key in MOVED]
    return "Write " + "; ".join(changes).removesuffix(".") + "."


def as_input_error(file: str, data: Any, error: ValidationError, model: Any, above: tuple[str, ...] = ()) -> InputError:
    """The first fault as an InputError; the others stand in its notes, one line each. `above` are keys before the place."""
    faults = sorted(error.errors(include_url=False), key=lambda details: details["type"] != "extra_forbidden")
    found = [
        _one(file, data, details, model, above) for details in faults
    ]  # a misspelt key first: it is why another one is missing
    first = found[0]
    for other in found[1:]:
        first.add_note(str(other))
    return first


def key_path(data: Any, path: tuple[int | str, ...]) -> str:
    """The path of keys as people write it; entries of lists by number from 1 and by their name.

    Kinds that were chosen are left out.

    >>> key_path({"hot_spots": [{"name": "toe"}]}, ("hot_spots", 0, "offset"))
    'hot_spots, entry 1 (toe), offset'
    >>> key_path({"growth_laws": {"air": {"kind": "walker"}}}, ("growth_laws", "air", "of the kind walker", "gamma"))
    'growth_laws, air, gamma'
    """
    parts: list[str] = []
    at = data
    for place, key in enumerate(path):
        if isinstance(key, int):
            at = at[key] if isinstance(at, list) and key < len(at) else None
            name = at.get("name") or at.get("hot_spot") if isinstance(at, dict) else None
            parts.append(f"entry {key + 1}" + (f" ({name})" if name else ""))
            continue
        if key.startswith(TAG):
            continue
        last = place == len(path) - 1
        if isinstance(at, dict) and (key in at or last):
            at = at.get(key)
            parts.append(key)
        elif last and not isinstance(at, dict) and key not in _BRANCHES and at is None:
            parts.append(key)
    return ", ".join(parts)


_BRANCHES = ("float", "literal['any']", "constrained-str", "list[constrained-str]")


def _one(file: str, data: Any, details: Any, model: Any, above: tuple[str, ...]) -> InputError:
    kind, path = details["type"], details["loc"]
    where = ", ".join(part for part in (file, *above, key_path(data, path)) if part)
    inner = details.get("ctx", {}).get("error")
    if isinstance(inner, InputError):
        where = ", ".join(part for part in (where, inner.where.strip(", ")) if part)
        return InputError(where, inner.found, inner.expected, inner.remedy)
    if kind == "extra_forbidden":
        key, known = str(path[-1]), _known_keys(model, path[:-1])
        hint = MOVED.get(key) or did_you_mean(key, known)
        if key in _known_keys(model, tuple(one for one in path[:-1] if not str(one).startswith(TAG))):
            hint = "It goes with another kind: make two of it, or leave it out."
        return InputError(where, "an unknown key", f"one of {listed(known)}", hint)
    if kind == "missing":
        return InputError(where, "no such key", f"the key {path[-1]!r}", "Add it.")
    if kind == "union_tag_invalid":
        tags = [
            tag.removeprefix(TAG)
            for tag in re.findall(r"'([^']*)'", details["ctx"]["expected_tags"])
            if tag != ONE_VALUE
        ]
        tag = details["ctx"]["tag"].removeprefix(TAG)
        return InputError(inside(where, "kind"), repr(tag), f"one of {listed(tags)}", did_you_mean(str(tag), tags))
    if kind == "literal_error":
        return InputError(where, repr(details["input"]), str(details["ctx"]["expected"]).replace(" or ", ", "))
    if kind == "too_short" and details["ctx"]["min_length"] > 1:
        return InputError(where, repr(details["input"]), f"at least {details['ctx']['min_length']}")
    return InputError(where, repr(details["input"]), _EXPECTED.get(kind, details["msg"]))


def _known_keys(model: Any, path: tuple[int | str, ...]) -> list[str]:
    """The keys that the table at `path` may have."""
    at: list[type[BaseModel]] = _sections_of(model)
    for key in path:
        tagged = [one for one in at if _tag(one) == key]
        if len(at) > 1 and tagged:
            at = tagged
            continue
        inner = [
            one for section in at if key in section.model_fields for one in _sections_of(_annotation(section, key))
        ]
        at = inner or at
    return list(dict.fromkeys(name for section in at for name in section.model_fields))


def _annotation(section: type[BaseModel], key: int | str) -> Any:
    return section.model_fields[str(key)].annotation


def _tag(section: type[BaseModel]) -> Any:
    kind = section.model_fields.get("kind")
    if kind is None:  # told apart by a leading key
        return TAG + section.__name__.partition("_")[2]
    return f"{TAG}{getattr(kind.annotation, '__args__', (None,))[0]}"


def _sections_of(annotation: Any) -> list[type[BaseModel]]:
    """The models that an annotation names."""
    if isinstance(annotation, type) and issubclass(annotation, BaseModel):
        return [annotation]
    return [one for argument in getattr(annotation, "__args__", ()) for one in _sections_of(argument)]
