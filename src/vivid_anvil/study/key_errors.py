"""Errors of the study file in the user's words: the file, the path of keys, what was found, what was expected."""

from __future__ import annotations

from typing import Any

from pydantic import BaseModel, ValidationError

from vivid_anvil.ground.errors import InputError, did_you_mean, listed
from vivid_anvil.study.models import StudyFile

_EXPECTED = {
    "missing": "the key",
    "float_type": "a number",
    "int_type": "a whole number",
    "string_type": "text in quotes",
    "bool_type": "true or false",
    "list_type": "a list of tables, written [[name]]",
    "dict_type": "tables, written [name.yours]",
    "model_type": "a table",
    "model_attributes_type": "a table",
    "too_short": "at least one",
    "string_too_short": "text with something in it",
}


def as_input_error(file: str, data: dict[str, Any], error: ValidationError) -> InputError:
    """The first fault as an InputError; the others stand in its notes, one line each."""
    faults = sorted(error.errors(include_url=False), key=lambda details: details["type"] != "extra_forbidden")
    found = [_one(file, data, details) for details in faults]  # a misspelt key first: it is why another one is missing
    first = found[0]
    for other in found[1:]:
        first.add_note(str(other))
    return first


def key_path(data: Any, path: tuple[int | str, ...]) -> str:
    """The path of keys as people write it; entries of lists by number from 1 and by their name.

    >>> key_path({"hot_spots": [{"name": "toe"}]}, ("hot_spots", 0, "offset"))
    'hot_spots, entry 1 (toe), offset'
    """
    parts: list[str] = []
    at = data
    for key in path:
        if isinstance(key, int):
            at = at[key] if isinstance(at, list) and key < len(at) else None
            name = at.get("name") or at.get("hot_spot") if isinstance(at, dict) else None
            parts.append(f"entry {key + 1}" + (f" ({name})" if name else ""))
        elif key in ("float", "literal['any']", "constrained-str", "list[constrained-str]"):  # branches of unions
            continue
        else:
            at = at.get(key) if isinstance(at, dict) else None
            parts.append(key)
    return ", ".join(parts)


def _one(file: str, data: dict[str, Any], details: Any) -> InputError:
    kind, path = details["type"], details["loc"]
    where = f"{file}, {key_path(data, path)}" if path else file
    inner = details.get("ctx", {}).get("error")
    if isinstance(inner, InputError):
        where = ", ".join(part for part in (where, inner.where.strip(", ")) if part)
        return InputError(where, inner.found, inner.expected, inner.remedy)
    if kind == "extra_forbidden":
        known = _known_keys(path[:-1])
        return InputError(where, "an unknown key", f"one of {listed(known)}", did_you_mean(str(path[-1]), known))
    if kind == "missing":
        return InputError(where, "no such key", f"the key {path[-1]!r}", "Add it.")
    if kind == "literal_error":
        return InputError(where, repr(details["input"]), str(details["ctx"]["expected"]).replace(" or ", ", "))
    if kind == "too_short" and details["ctx"]["min_length"] > 1:
        return InputError(where, repr(details["input"]), f"at least {details['ctx']['min_length']}")
    return InputError(where, repr(details["input"]), _EXPECTED.get(kind, details["msg"]))


def _known_keys(path: tuple[int | str, ...]) -> list[str]:
    """The keys that the table at `path` may have."""
    model: type[BaseModel] = StudyFile
    for key in path:
        if isinstance(key, int) or key not in model.model_fields:
            continue
        inner = _section_of(model.model_fields[key].annotation)
        model = inner or model
    return list(model.model_fields)


def _section_of(annotation: Any) -> type[BaseModel] | None:
    if isinstance(annotation, type) and issubclass(annotation, BaseModel):
        return annotation
    for argument in getattr(annotation, "__args__", ()):
        found = _section_of(argument)
        if found is not None:
            return found
    return None
