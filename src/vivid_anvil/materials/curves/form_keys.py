"""The formula of a curved S-N line as it is written: a table with its `kind` and the values that the form needs."""

from __future__ import annotations

import dataclasses
import inspect
from collections.abc import Mapping
from typing import Any

from vivid_anvil.ground.errors import InputError
from vivid_anvil.materials.curves.curved import CURVED_FORMS, CurvedForm
from vivid_anvil.units import Coherent
from vivid_anvil.units.sections import checked


def form_of_table(table: Mapping[str, Any], where: str) -> CurvedForm:
    """The form that a table describes; InputError with the key for anything that cannot be meant."""
    if "kind" not in table:
        raise InputError(f"{where}, kind", "nothing", f"one of {', '.join(map(repr, CURVED_FORMS))}")
    form = CURVED_FORMS.get(table["kind"], f"{where}, kind")
    kinds, needed = keys_of_form(form)
    values = {key: value for key, value in table.items() if key != "kind"}
    return form(**checked(values, kinds, where, needed))


def keys_of_form(form: type[CurvedForm]) -> tuple[dict[str, str], tuple[str, ...]]:
    """The keys of a form with their kinds, and those that it needs."""
    kinds, needed = {}, []
    for field in dataclasses.fields(form):  # type: ignore[arg-type]  # forms are dataclasses
        descriptor = inspect.getattr_static(form, field.name, None)
        dimension = descriptor.dimension if isinstance(descriptor, Coherent) else "anything"
        kinds[field.name] = "a number" if dimension == "number" else dimension
        if field.default is dataclasses.MISSING and field.default_factory is dataclasses.MISSING:
            needed.append(field.name)
    return kinds, tuple(needed)
