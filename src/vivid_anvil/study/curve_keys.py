"""An S-N curve as people write it in a study file or on a material card: a table of keys, in one of several forms.

Exactly one leading key says which form it is. A formula is a noun whose fields are the keys; the other forms are functions, and
what their keys are stands here beside what calls them.
"""

from __future__ import annotations

import dataclasses
import functools
from collections.abc import Callable, Mapping
from dataclasses import dataclass
from pathlib import Path
from typing import Annotated, Any

from pydantic import BeforeValidator, Discriminator, Field, Tag, WithJsonSchema, create_model

from vivid_anvil.ground.checks import one_of
from vivid_anvil.ground.errors import InputError, listed
from vivid_anvil.materials import (
    FIT_MODELS,
    SNCurve,
    at_survival,
    basquin_curve,
    curved_curve,
    detail_curve,
    estimate_curve,
    fit_likelihood,
    fit_line,
    intercept_curve,
    knee_curve,
    read_points,
    read_specimens,
    sloped_curve,
    straight_curve,
    table_curve,
    thickened,
)
from vivid_anvil.materials.curves.curved import CURVED_FORMS
from vivid_anvil.materials.curves.standards import standard_named
from vivid_anvil.study.models_of_nouns import TAG, Section, Text, from_text, made, tables_by_kind, united, written
from vivid_anvil.units import celsius, coherent

REGRESSION = "regression"


@dataclass(frozen=True)
class Source:
    """Where a section stands: the files that it names are in `folder`; how a card's curve is looked up."""

    folder: Path
    card_curve: Callable[[str, str | None], SNCurve]


Make = Callable[[str, dict[str, Any], Source], SNCurve]


@dataclass(frozen=True)
class Form:
    """A way to write a curve: the keys that it needs and may have, with their types, and what makes the curve of them."""

    needs: Mapping[str, Any]
    may: Mapping[str, Any]
    make: Make


def _with_unit(dimension: str) -> Any:
    return Annotated[float, from_text(dimension), written(dimension)]


def _celsius(value: Any) -> float:
    if not isinstance(value, str):
        raise InputError("", repr(value), "text with its unit", "Write for instance '260 °C'.")
    return celsius(value, "")


def _points(value: Any) -> Any:
    """Pairs of a stress with its unit and a life."""
    if not isinstance(value, list) or not value:
        raise InputError("", repr(value), 'pairs of stress and life, such as [["400 MPa", 1e4], ["250 MPa", 1e5]]')
    for row, point in enumerate(value, start=1):
        if not isinstance(point, list) or len(point) != 2:
            raise InputError(f"point {row}", repr(point), 'a pair, such as ["400 MPa", 1e4]')
        if not isinstance(point[0], str):
            found = f"{point[0]!r} without a unit"
            raise InputError(f"point {row}", found, "text with a unit of stress", "Write for instance '185 MPa'.")
        coherent(point[0], "stress", f"point {row}")
    return value


def _is(kind: type, words: str) -> BeforeValidator:
    """A value of that kind, in the words of the error."""

    def convert(value: Any) -> Any:
        if not isinstance(value, kind):
            raise InputError("", repr(value), words)
        return value

    return BeforeValidator(convert)


def _size(value: Any) -> Any:
    if isinstance(value, str):
        return value
    if isinstance(value, list) and len(value) == 2 and all(isinstance(one, str) for one in value):
        return tuple(value)
    raise InputError("", repr(value), 'a diameter such as "32 mm", or ["20 mm", "8 mm"] for a rectangle')


Number, Numbers, NumberOrText = (
    float,
    Annotated[list[float], Field(min_length=1), _is(list, "a list of numbers, such as [3, 5]")],
    float | Text,
)
Stress, Length = _with_unit("stress"), _with_unit("length")
Sheet, Block = Text | int, Text | int
Pair = {"type": "array", "minItems": 2, "maxItems": 2}
Points = Annotated[list[Any], BeforeValidator(_points), WithJsonSchema({"type": "array", "items": Pair})]
Temperature = Annotated[
    float, BeforeValidator(_celsius), WithJsonSchema({"type": "string", "description": "such as '260 °C'"})
]
Size = Annotated[Any, BeforeValidator(_size), WithJsonSchema({"type": ["string", "array"]})]

# What a curve written by its numbers states besides them, and what may follow every form.
WRITTEN = {
    "mean_stress": Stress,
    "tested_from": Number,
    "tested_to": Number,
    "survival_probability": Number,
    "log_life_std": Number,
    "component": Text,
    "basis": Text,
    "source": Text,
}
STATED = {"stress": Text, "r_ratio": NumberOrText}
AFTERWARDS = {
    "at_survival": Number,
    "thickness": Length,
    "reference_thickness": Length,
    "thickness_exponent": NumberOrText,
}


def _by(make: Callable[..., SNCurve]) -> Make:
    return lambda name, values, _: make(name=name, **values)


def _intercepts(name: str, values: dict[str, Any], _: Source) -> SNCurve:
    return intercept_curve(name=name, unit=values.pop("intercept_unit"), **values)


def _by_formula(name: str, values: dict[str, Any], _: Source) -> SNCurve:
    return curved_curve(name=name, form=made(CURVED_FORMS, values.pop("form")), **values)


def _table_file(name: str, values: dict[str, Any], place: Source) -> SNCurve:
    file, sheet, block = values.pop("table"), values.pop("sheet", 0), values.pop("block", None)
    stress, points, told = read_points(place.folder / file, sheet, block=block, stress=values.get("stress"))
    values.setdefault("source", told)
    if values.setdefault("stress", stress) != stress:
        raise InputError("stress", repr(values["stress"]), f"{stress!r}, as the file {file} is headed")
    return table_curve(name=name, points=points, **values)


def _standard(name: str, values: dict[str, Any], place: Source) -> SNCurve:
    file = values.pop("standard_file", None)
    table = standard_named(values.pop("standard", ""), None if file is None else place.folder / file)
    return detail_curve(table, values.pop("class"), name=name, **values)


def _card(name: str, values: dict[str, Any], place: Source) -> SNCurve:
    return dataclasses.replace(place.card_curve(values["card"], values.get("curve")), name=name)


def _estimate(name: str, values: dict[str, Any], _: Source) -> SNCurve:
    return estimate_curve(values.pop("estimate"), name=name, **values).curve


def _tests(name: str, values: dict[str, Any], place: Source) -> SNCurve:
    model = values.get("model", "line")
    one_of("model", model, (REGRESSION, *FIT_MODELS))
    how = {key: values[key] for key in ("r_ratio", "sheet", "block", "stress") if key in values}
    series = read_specimens(place.folder / values["tests"], **how)
    fit = fit_line(series) if model == REGRESSION else fit_likelihood(series, model)
    more = {key: values.get(key) for key in ("confidence", "below")}
    return fit.curve(survival_probability=values.get("survival_probability", 0.5), name=name, **more)


# By leading key.
FORMS: dict[str, Form] = {
    "knee_life": Form(
        {"knee_stress": Stress, "knee_life": Number, "slope": Number, "slope_below": Number, **STATED},
        WRITTEN,
        _by(knee_curve),
    ),
    "point_stress": Form(
        {"point_stress": Stress, "point_life": Number, "slope": Number, **STATED}, WRITTEN, _by(straight_curve)
    ),
    "knee_lives": Form(
        {"knee_stress": Stress, "knee_lives": Numbers, "slopes": Numbers, **STATED}, WRITTEN, _by(sloped_curve)
    ),
    "log_a": Form(
        {"log_a": Numbers, "slopes": Numbers, "intercept_unit": Text, **STATED},
        {**WRITTEN, "ends_at": Number},
        _intercepts,
    ),
    "coefficient": Form(
        {"coefficient": Stress, "exponent": Number, "counted_in": Text, **STATED},
        {**WRITTEN, "knee_life": Number, "slope_below": Number},
        _by(basquin_curve),
    ),
    "points": Form(
        {"points": Points, "above": NumberOrText, "below": NumberOrText, **STATED},
        {**WRITTEN, "interpolation": Text},
        _by(table_curve),
    ),
    "form": Form({"form": Any, "tested_from": Number, "tested_to": Number, **STATED}, WRITTEN, _by_formula),
    "table": Form(  # the headings of the file say what the stress is
        {"table": Text, "above": NumberOrText, "below": NumberOrText, "r_ratio": NumberOrText},
        {**WRITTEN, "stress": Text, "interpolation": Text, "sheet": Sheet, "block": Block},
        _table_file,
    ),
    "class": Form(
        {"class": NumberOrText},
        {
            "standard": Text,
            "standard_file": Text,
            "component": Text,
            "loading": Text,
            "environment": Text,
            "partial_factor": Number,
            "attachment_length": Length,
        },
        _standard,
    ),
    "card": Form({"card": Text}, {"curve": Text}, _card),
    "estimate": Form(
        {"estimate": Text, "loading": Text},
        {
            "ultimate_strength": Stress,
            "brinell_hardness": Number,
            "surface": Text,
            "size": Size,
            "section": Text,
            "temperature": Temperature,
            "temperature_rule": Text,
            "survival_probability": Number,
            "fraction_at_1e3": Number,
            "below": NumberOrText,
            "own_factors": Annotated[dict[str, Any], _is(dict, "a table of keys")],
        },
        _estimate,
    ),
    "tests": Form(
        {"tests": Text},
        {
            "model": Text,
            "r_ratio": Number,
            "sheet": Sheet,
            "block": Block,
            "stress": Text,
            "survival_probability": Number,
            "confidence": Number,
            "below": NumberOrText,
        },
        _tests,
    ),
}


def curve_keys() -> Any:
    """The type of an S-N curve in a file: every form, and every formula in the table of formulas, is in it."""
    return _curve_keys(tuple(CURVED_FORMS))


@functools.lru_cache(maxsize=4)
def _curve_keys(formulas: tuple[str, ...]) -> Any:  # noqa: ARG001 (what is kept depends on it)
    formula = tables_by_kind(CURVED_FORMS)
    models = {leading: _model(leading, form, formula) for leading, form in FORMS.items()}
    tagged = [Annotated[model, Tag(f"{TAG}{leading}")] for leading, model in models.items()]
    return Annotated[united(tagged), Discriminator(_tag_of), BeforeValidator(_with_one_leading_key)]


def _model(leading: str, form: Form, formula: Any) -> type[Section]:
    types = {**form.needs, **form.may, **AFTERWARDS}
    if leading == "class":  # the standard has its own reference
        del types["reference_thickness"]
    if leading == "form":
        types["form"] = formula
    keys: dict[str, Any] = {key: (own, ...) if key in form.needs else (own | None, None) for key, own in types.items()}
    made_of: type[Section] = create_model(f"SNCurve_{leading}", __base__=Section, **keys)
    return made_of


def _leading(value: Any) -> list[str]:
    found = [key for key in FORMS if key in value]
    if "coefficient" in found and "knee_life" in found:  # Basquin's line may have a knee
        found.remove("knee_life")
    return found


def _tag_of(value: Any) -> str:
    if isinstance(value, Section):
        return TAG + type(value).__name__.removeprefix("SNCurve_")
    return TAG + (_leading(value) or [""])[0]


def _with_one_leading_key(value: Any) -> Any:
    """InputError unless there is exactly one leading key."""
    if not isinstance(value, dict):
        return value
    found = _leading(value)
    if len(found) == 1:
        return value
    if not value:
        raise InputError("", "an empty table", f"one of the keys {listed(FORMS)}")
    raise InputError(
        "",
        f"the keys {', '.join(value)}",
        f"exactly one of the keys {listed(FORMS)}",
        "Each stands for one way to write a curve; for a fatigue limit write slope_below = inf."
        if not found
        else f"{' and '.join(found)} are two ways to write a curve: keep one.",
    )


def leading_key(section: Section) -> str:
    """The key that says which form a checked section has."""
    return type(section).__name__.removeprefix("SNCurve_")


def curve_of(name: str, section: Section, place: Source, **usual: Any) -> SNCurve:
    """The S-N curve of a checked section; `usual` is what holds where a curve by numbers does not say otherwise."""
    leading = leading_key(section)
    values = section.given
    if "stress" in values and "basis" in FORMS[leading].may:
        values = usual | values
    by_standard = leading == "class"
    later = {key: values.pop(key) for key in list(values) if key in AFTERWARDS and not (by_standard and "thick" in key)}
    curve = FORMS[leading].make(name, values, place)
    if "thickness" in later or "thickness_exponent" in later:
        keys = ("thickness", "reference_thickness", "thickness_exponent")
        missing = [key for key in keys if key not in later]
        if missing or isinstance(later["thickness_exponent"], str):
            found = f"no {' and no '.join(missing) or 'number as thickness_exponent'}"
            raise InputError("", found, f"all of {listed(keys)}")
        curve = thickened(curve, *(later[key] for key in keys))
    return at_survival(curve, later["at_survival"]) if "at_survival" in later else curve
