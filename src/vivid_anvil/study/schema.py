"""The JSON Schema of the study file, so that editors complete and check it; and a commented template to start from."""

from __future__ import annotations

from importlib.resources import files
from pathlib import Path
from typing import Any

from vivid_anvil.ground.errors import InputError
from vivid_anvil.ground.files import replacing
from vivid_anvil.histories.load import LOADS
from vivid_anvil.study.include import INCLUDE
from vivid_anvil.study.key_words import BY_NAME, choices_of, words_of
from vivid_anvil.study.models import study_file
from vivid_anvil.study.models_of_nouns import WITH_UNIT
from vivid_anvil.units import opened


def study_schema() -> dict[str, Any]:
    """The schema of the study file (draft 2020-12): keys, kinds, and the forms of an S-N curve by their leading key.

    Returns
    -------
    dict
        The schema as plain dictionaries.

    Examples
    --------
    >>> study_schema()["required"]
    ['format']
    """
    schema: dict[str, Any] = study_file().model_json_schema(mode="validation")
    schema["$schema"] = "https://json-schema.org/draft/2020-12/schema"
    schema["title"] = "Vivid Anvil study file"
    schema["properties"][INCLUDE] = {"type": "string", "description": "a study file to start from"}
    for name, section in schema["$defs"].items():
        _tell(section, name.partition("_")[0] if name.startswith(("SNCurve_", "Event_")) else name)
    _tell(schema, "StudyFile")
    schema["required"] = [key for key in schema["required"] if key == "format"]  # an included file may hold the rest
    return schema


def _tell(section: dict[str, Any], name: str) -> None:
    """Put description, example and choices of each key into the schema of a section; kinds of load if any were added."""
    if name == "Event" and not len(LOADS):
        section["properties"].pop("load", None)
    for key, one in section["properties"].items():
        says, example = words_of(name, key)
        if "const" in one:
            one |= {"description": says or key.replace("_", " "), "examples": [one["const"]]}
            continue
        known = one.pop("description", "")
        one["description"] = _description(name, key, says, known)
        one |= {} if example is None else {"examples": [example]}
        choices = choices_of(name, key)
        if choices is not None:
            kinds = one.pop("anyOf", None) or [{"type": one.pop("type", "string")}]
            others = [kind for kind in kinds if kind.get("type") not in ("string", "null")]
            optional = any(kind.get("type") == "null" for kind in kinds)
            allowed = {"enum": [*choices, *([None] if optional else [])]}
            one |= {"anyOf": [allowed, *others]} if others else allowed


def _description(section: str, key: str, says: str, known: str) -> str:
    """The words of a key; where it is a field of a noun those of the noun, unless it refers to one by its name."""
    if f" {WITH_UNIT}" in known and says:
        return f"{says} ({known})"
    if f"{section}.{key}" in BY_NAME or key in BY_NAME:
        return says
    return known or says or key.replace("_", " ")


@opened()
def write_template(path: str | Path) -> Path:
    """Write a commented study to start from to `path`.

    Parameters
    ----------
    path : str or path
        Where to; no file may stand there.

    Returns
    -------
    Path
        The file.

    Raises
    ------
    InputError
        Where a file stands there already.

    Examples
    --------
    >>> write_template("mine.toml").name
    'mine.toml'
    """
    target = Path(path)
    if target.exists():
        raise InputError(str(target), "a file that is there already", "a new name", "It is never overwritten.")
    with replacing(target) as temporary:
        temporary.write_bytes((files("vivid_anvil.study") / "data" / "template.toml").read_bytes())
    return target
