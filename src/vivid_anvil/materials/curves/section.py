"""An S-N curve as people write it in a study file or on a material card: a table of keys, in one of several forms.

Exactly one leading key says which form it is; the keys that go with it are checked, and every stress carries its unit.
"""

from __future__ import annotations

import dataclasses
from collections.abc import Callable, Mapping
from dataclasses import dataclass
from pathlib import Path
from typing import Any

from vivid_anvil.ground.errors import InputError, did_you_mean, listed
from vivid_anvil.materials.curves.convert import at_survival, thickness_factor, with_stress_factor
from vivid_anvil.materials.curves.curve import NO_DAMAGE, SNCurve
from vivid_anvil.materials.curves.detail_class import detail_curve, standard_named
from vivid_anvil.materials.curves.estimate import estimate_curve
from vivid_anvil.materials.curves.form_keys import form_of_table
from vivid_anvil.materials.curves.forms import (
    basquin_curve,
    curved_curve,
    intercept_curve,
    knee_curve,
    sloped_curve,
    straight_curve,
    table_curve,
)
from vivid_anvil.materials.fits.fit_likelihood import fit_likelihood
from vivid_anvil.materials.fits.fit_line import fit_line
from vivid_anvil.materials.fits.fit_models import FIT_MODELS
from vivid_anvil.materials.fits.specimens import STRESS_HINTS, read_specimens
from vivid_anvil.units import DIMENSIONS, factor, opened
from vivid_anvil.units.sections import checked
from vivid_anvil.writing.known_table import read_known
from vivid_anvil.writing.read_table import column_numbers
from vivid_anvil.writing.working import Step, put_in

Section = Mapping[str, Any]
REGRESSION = "regression"


@dataclass(frozen=True)
class Place:
    """Where a section stands: for errors, for the files that it names, and to look a card's curve up."""

    where: str
    folder: Path
    card_curve: Callable[[str, str | None], SNCurve]


@dataclass(frozen=True)
class Form:
    """A way to write a curve: the keys that it needs and may have, with their kinds, and what makes the curve of them."""

    needs: Mapping[str, str]
    may: Mapping[str, str]
    make: Callable[[str, dict[str, Any], Place], SNCurve]


# What a curve written by its numbers states besides them, and what may follow every form.
WRITTEN = {
    "stress": "text",
    "r_ratio": "number or text",
    "mean_stress": "stress",
    "tested_from": "a number",
    "tested_to": "a number",
    "survival_probability": "a number",
    "log_life_std": "a number",
    "component": "text",
    "basis": "text",
    "source": "text",
}
AFTERWARDS = {
    "at_survival": "a number",
    "thickness": "length",
    "reference_thickness": "length",
    "thickness_exponent": "number or text",
}


def _by_numbers(make: Callable[..., SNCurve]) -> Callable[[str, dict[str, Any], Place], SNCurve]:
    def curve(name: str, values: dict[str, Any], place: Place) -> SNCurve:  # noqa: ARG001
        return make(name=name, **values)

    return curve


def _intercepts(name: str, values: dict[str, Any], place: Place) -> SNCurve:  # noqa: ARG001
    return intercept_curve(name=name, unit=values.pop("intercept_unit"), **values)


def _by_formula(name: str, values: dict[str, Any], place: Place) -> SNCurve:
    return curved_curve(name=name, form=form_of_table(values.pop("form"), f"{place.where}, form"), **values)


def _table_file(name: str, values: dict[str, Any], place: Place) -> SNCurve:
    file, sheet, block = values.pop("table"), values.pop("sheet", 0), values.pop("block", None)
    stress, points, told = read_points(place.folder / file, sheet, block=block, stress=values.get("stress"))
    values.setdefault("source", told)
    if values.setdefault("stress", stress) != stress:
        raise InputError(f"{place.where}, stress", repr(values["stress"]), f"{stress!r}, as the file {file} is headed")
    return table_curve(name=name, points=points, **values)


def _standard(name: str, values: dict[str, Any], place: Place) -> SNCurve:
    file = values.pop("standard_file", None)
    table = standard_named(values.pop("standard", ""), None if file is None else place.folder / file)
    return detail_curve(table, values.pop("class"), name=name, **values)


def _card(name: str, values: dict[str, Any], place: Place) -> SNCurve:
    return dataclasses.replace(place.card_curve(values["card"], values.get("curve")), name=name)


def _estimate(name: str, values: dict[str, Any], place: Place) -> SNCurve:  # noqa: ARG001
    size, own = values.pop("size", None), values.pop("own_factors", None)
    return estimate_curve(values.pop("estimate"), size=_sizes(size), own_factors=own, name=name, **values).curve


def _sizes(size: Any) -> Any:
    if size is None or isinstance(size, str):
        return size
    if isinstance(size, list) and len(size) == 2 and all(isinstance(one, str) for one in size):
        return tuple(size)
    raise InputError("size", repr(size), 'a diameter such as "32 mm", or ["20 mm", "8 mm"] for a rectangle')


def _tests(name: str, values: dict[str, Any], place: Place) -> SNCurve:
    model = values.get("model", "line")
    known = (REGRESSION, *FIT_MODELS)
    if model not in known:
        raise InputError(f"{place.where}, model", repr(model), f"one of {listed(known)}", did_you_mean(model, known))
    how = {key: values[key] for key in ("r_ratio", "sheet", "block", "stress") if key in values}
    series = read_specimens(place.folder / values["tests"], **how)
    fit = fit_line(series) if model == REGRESSION else fit_likelihood(series, model)
    return fit.curve(
        survival_probability=values.get("survival_probability", 0.5),
        confidence=values.get("confidence"),
        below=values.get("below"),
        name=name,
    )


_ESTIMATE_KEYS = {
    "ultimate_strength": "stress",
    "brinell_hardness": "a number",
    "surface": "text",
    "size": "anything",
    "section": "text",
    "temperature": "temperature",
    "temperature_rule": "text",
    "survival_probability": "a number",
    "fraction_at_1e3": "a number",
    "below": "number or text",
    "own_factors": "table",
}
# By leading key.
FORMS: dict[str, Form] = {
    "knee_life": Form(
        {"knee_stress": "stress", "knee_life": "a number", "slope": "a number", "slope_below": "a number"},
        WRITTEN,
        _by_numbers(knee_curve),
    ),
    "point_stress": Form(
        {"point_stress": "stress", "point_life": "a number", "slope": "a number"}, WRITTEN, _by_numbers(straight_curve)
    ),
    "knee_lives": Form(
        {"knee_stress": "stress", "knee_lives": "numbers", "slopes": "numbers"}, WRITTEN, _by_numbers(sloped_curve)
    ),
    "log_a": Form(
        {"log_a": "numbers", "slopes": "numbers", "intercept_unit": "text"},
        {**WRITTEN, "ends_at": "a number"},
        _intercepts,
    ),
    "coefficient": Form(
        {"coefficient": "stress", "exponent": "a number", "counted_in": "text"},
        {**WRITTEN, "knee_life": "a number", "slope_below": "a number"},
        _by_numbers(basquin_curve),
    ),
    "points": Form(
        {"points": "points", "above": "number or text", "below": "number or text"},
        {**WRITTEN, "interpolation": "text"},
        _by_numbers(table_curve),
    ),
    "form": Form({"form": "table", "tested_from": "a number", "tested_to": "a number"}, WRITTEN, _by_formula),
    "table": Form(
        {"table": "text", "above": "number or text", "below": "number or text"},
        {**WRITTEN, "interpolation": "text", "sheet": "anything", "block": "anything"},
        _table_file,
    ),
    "class": Form(
        {"class": "number or text"},
        {
            "standard": "text",
            "standard_file": "text",
            "component": "text",
            "loading": "text",
            "environment": "text",
            "partial_factor": "a number",
            "attachment_length": "length",
        },
        _standard,
    ),
    "card": Form({"card": "text"}, {"curve": "text"}, _card),
    "estimate": Form({"estimate": "text", "loading": "text"}, _ESTIMATE_KEYS, _estimate),
    "tests": Form(
        {"tests": "text"},
        {
            "model": "text",
            "r_ratio": "a number",
            "sheet": "anything",
            "block": "anything",
            "stress": "text",
            "survival_probability": "a number",
            "confidence": "a number",
            "below": "number or text",
        },
        _tests,
    ),
}


@opened()
def checked_keys(section: Section, where: str) -> tuple[str, dict[str, Any]]:
    """The leading key of `section` and its values by their kinds; no file is opened. InputError with the key otherwise."""
    form_key = _form_of(section, where)
    form = FORMS[form_key]
    if form_key == "form" and isinstance(section["form"], dict):
        form_of_table(section["form"], f"{where}, form" if where else "form")
    after = {key: kind for key, kind in AFTERWARDS.items() if key != "reference_thickness" or form_key != "class"}
    return form_key, checked(section, {**form.needs, **form.may, **after}, where, _needed(form))


@opened()
def curve_of_section(name: str, section: Section, place: Place) -> SNCurve:
    """The S-N curve that `section` describes; InputError with the key for anything that cannot be meant."""
    form_key, values = checked_keys(section, place.where)
    by_standard = form_key == "class"  # the standard has its own reference thickness
    later = {key: values.pop(key) for key in list(values) if key in AFTERWARDS and not (by_standard and "thick" in key)}
    curve = FORMS[form_key].make(name, values, place)
    if "thickness" in later or "thickness_exponent" in later:
        curve = _thickened(curve, later, place.where)
    return at_survival(curve, later["at_survival"]) if "at_survival" in later else curve


def _needed(form: Form) -> tuple[str, ...]:
    from_file = "table" in form.needs or "tests" in form.needs  # whose headings say what the stress is
    written = ("stress", "r_ratio") if "stress" in form.may and not from_file else ()
    return (*form.needs, *written, *(("r_ratio",) if "table" in form.needs else ()))


def _form_of(section: Section, where: str) -> str:
    """The leading key of the section; InputError unless there is exactly one."""
    found = [key for key in FORMS if key in section]
    if "coefficient" in found and "knee_life" in found:  # Basquin's line may have a knee
        found.remove("knee_life")
    if len(found) == 1:
        return found[0]
    if not found and not section:
        raise InputError(where, "an empty table", f"one of the keys {listed(FORMS)}")
    raise InputError(
        where,
        f"the keys {', '.join(section)}",
        f"exactly one of the keys {listed(FORMS)}",
        "Each stands for one way to write a curve; for a fatigue limit write slope_below = inf."
        if not found
        else f"{' and '.join(found)} are two ways to write a curve: keep one.",
    )


def _thickened(curve: SNCurve, later: Mapping[str, Any], where: str) -> SNCurve:
    """The curve of a thicker plate, by a stated reference and exponent."""
    keys = ("thickness", "reference_thickness", "thickness_exponent")
    missing = [key for key in keys if key not in later]
    if missing or isinstance(later["thickness_exponent"], str):
        raise InputError(
            where, f"no {' and no '.join(missing) or 'number as thickness_exponent'}", f"all of {listed(keys)}"
        )
    size, reference, power = (later[key] for key in keys)
    value = thickness_factor(size, reference, power)
    numbers = f"({put_in(reference)} / {put_in(max(size, reference))})^{put_in(power)}"
    step = Step(
        "Factor of a thicker plate; a thinner one counts as the reference", "f = (t_ref / t)^k", numbers, value, ""
    )
    return with_stress_factor(curve, value, step)


def read_points(
    path: str | Path, sheet: str | int = 0, *, block: int | str | None = None, stress: str | None = None
) -> tuple[str, list[tuple[float, float]], str]:
    """Range or amplitude, and the points (stress in MPa, life) of a CSV or Excel table headed `stress range [MPa],life [cycles]`.

    Headings may be as people write them (`N`, `Amplitude (MPa)`; `S (MPa)` with `stress` stated), titles may stand above, rows
    in any order, a point twice (a knee that ends one line and begins the next); `block` chooses one of several blocks of columns.
    The last of the answer tells how the headings were understood.
    Raises InputError, with the row, for anything that is missing or no number.
    """
    kinds = ("stress range", "stress amplitude")
    known = (*kinds, "life") if stress is None else (*kinds, "life", "stress")
    table = read_known(path, known, what="a table of points", sheet=sheet, block=block, hints=STRESS_HINTS)
    found = [one for one in table.headings if one.column != "life"]
    if len(found) != 1 or "life" not in table:
        cells = ", ".join(one.cell for one in table.headings)
        raise InputError(
            table.where, f"the columns {cells}", "'stress range [..]' or 'stress amplitude [..]', and 'life [cycles]'"
        )
    kind = stress or "" if found[0].column == "stress" else found[0].column.removeprefix("stress ")
    place = f"{table.where}, column {found[0].cell!r}"
    if not found[0].unit:
        raise InputError(place, "no unit", "a unit of stress", f"Head it {found[0].cell + ' [MPa]'!r}.")
    if table.unit("life") not in ("", "cycle", "cycles", "1", "-"):
        raise InputError(f"{table.where}, column 'life'", repr(table.unit("life")), "lives in cycles")
    one = factor(found[0].unit, DIMENSIONS["stress"], place)
    stresses = column_numbers(table.frame[found[0].column], place)
    lives = column_numbers(table.frame["life"], f"{table.where}, column 'life'")
    points = sorted(
        {(one * float(s), float(n)) for s, n in zip(stresses, lives, strict=True)}, key=lambda p: (-p[0], p[1])
    )
    return kind, points, table.told


@opened()
def section_text(curve: SNCurve, key: str) -> str:
    """The curve as a TOML table `[sn_curves.key]` that reads back as the same lines; InputError for a converted curve."""
    held = len(curve.points) == 1 and isinstance(curve.above, str)
    found = "one point with its life held above" if held else ""
    if curve.conversion is not None:
        found = f"a curve {curve.conversion.words}"
    elif curve.curved is not None:
        found = f"a curve by a formula, {curve.curved.words}"
    if found:
        raise InputError(
            f"S-N curve {curve.name}",
            found,
            "one of straight lines",
            "Export the curve before the conversion, or a table of it at chosen lives.",
        )
    lines = [f"[sn_curves.{_quoted_key(key)}]", f'stress = "{curve.stress}"', f"r_ratio = {_toml(curve.r_ratio)}"]
    if curve.mean_stress is not None:
        lines.append(f'mean_stress = "{curve.mean_stress!r} MPa"')
    if len(curve.points) == 1:
        slope = curve.above if not isinstance(curve.above, str) else 1.0
        lines += [
            f'knee_stress = "{curve.points[0][0]!r} MPa"',
            f"knee_life = {curve.points[0][1]!r}",
            f"slope = {slope!r}",
        ]
        lines.append(f"slope_below = {'inf' if curve.below == NO_DAMAGE else repr(curve.below)}")
    else:
        points = ", ".join(f'["{stress!r} MPa", {life!r}]' for stress, life in curve.points)
        lines += [f"points = [{points}]", f'interpolation = "{curve.interpolation}"']
        lines += [f"above = {_toml(curve.above)}", f"below = {_toml(curve.below)}"]
    lines += [f"tested_from = {curve.tested_from!r}", f"tested_to = {curve.tested_to!r}"]
    for field in ("survival_probability", "log_life_std"):
        if getattr(curve, field) is not None:
            lines.append(f"{field} = {getattr(curve, field)!r}")
    lines += [f"{field} = {_toml(getattr(curve, field))}" for field in ("component", "basis", "source")]
    return "\n".join(lines) + "\n"


def _toml(value: float | str) -> str:
    if not isinstance(value, str):
        return repr(float(value))
    return '"' + value.replace("\\", "\\\\").replace('"', '\\"').replace("\n", " ") + '"'


def _quoted_key(key: str) -> str:
    return key if key.replace("_", "").replace("-", "").isalnum() and key.isascii() else _toml(key)
