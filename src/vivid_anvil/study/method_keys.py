"""Methods as they are written: a table of the fields of one, or its name."""

from __future__ import annotations

from collections.abc import Mapping
from typing import Any

from vivid_anvil.ground.errors import InputError
from vivid_anvil.stress import METHODS, Method
from vivid_anvil.study.models_of_nouns import Section, Text, kind_or, model_of, union_of

USUAL = "stress life"
REFERS = {
    "sn_curve": "sn_curves",
    "shear_curve": "sn_curves",
    "strain_life": "strain_life_curves",
    "rubber": "rubbers",
    "laminate": "laminates",
}  # keys that name something of another table


def method_keys() -> Any:
    """The type of a method in a study file; every one in the table of methods is in it."""
    models = {
        kind: model_of(noun, instead=_names_in(noun), kind=kind, usual=kind == USUAL) for kind, noun in METHODS.items()
    }
    return union_of(models, kind_or(USUAL))


def _names_in(noun: type) -> dict[str, Any]:
    """Keys of the method that name something of another table."""
    return dict.fromkeys((key for key in REFERS if key in noun.__dataclass_fields__), Text)  # type: ignore[attr-defined]


def method_of(section: Section, tables: Mapping[str, Any]) -> Method:
    """The method of a checked table; `tables` are what its names may refer to, by the name of the table."""
    given = dict(section.given)
    for key, table in REFERS.items():
        if key in given:
            given[key] = tables[table](given[key], key)
    kind: str = section.kind  # type: ignore[attr-defined]
    if kind not in METHODS:
        raise InputError("kind", repr(kind), "a method")
    return METHODS[kind](**given)
