"""A shape from keys, as a study states them: its own fields."""

from __future__ import annotations

import dataclasses
import inspect
from collections.abc import Mapping
from typing import Any

from vivid_anvil.ground.errors import InputError, did_you_mean, inside, listed
from vivid_anvil.shapes.shape import SHAPES, Shape
from vivid_anvil.units import opened


@opened()
def keys_of_shape(made_by: Any) -> dict[str, bool]:
    """The keys that make a shape, and whether it needs them."""
    if not dataclasses.is_dataclass(made_by):
        return {name: one.default is one.empty for name, one in inspect.signature(made_by).parameters.items()}
    fields = [one for one in dataclasses.fields(made_by) if one.init and one.name != "source"]
    bare = {
        field.name
        for field in fields
        if field.default is dataclasses.MISSING and field.default_factory is dataclasses.MISSING
    }
    return {field.name: field.name in bare for field in fields}


@opened()
def shape_of_keys(name: str, keys: Mapping[str, Any], where: str) -> Shape:
    """The shape of that name from its keys; InputError for one that it needs or does not have."""
    made_by = SHAPES.get(name, inside(where, "shape"))
    takes = keys_of_shape(made_by)
    for key, needed in takes.items():
        if needed and key not in keys:
            raise InputError(inside(where, f"{key}"), "nothing", f"a value, which a crack of the shape {name!r} needs")
    for key in keys:
        if key not in takes:
            raise InputError(
                inside(where, f"{key}"),
                f"a key that the shape {name!r} does not have",
                f"its keys: {listed(takes)}",
                did_you_mean(key, takes),
            )
    return made_by(**keys)
