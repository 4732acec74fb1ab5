"""What the commands on curves, cards, classes, estimates and tests do: read, call, show, write."""

from __future__ import annotations

import dataclasses
from collections.abc import Sequence
from dataclasses import dataclass
from functools import partial
from pathlib import Path
from typing import Any

from vivid_anvil.cli.outputs import Drawing, Outputs
from vivid_anvil.cli.progress import progress
from vivid_anvil.cli.run import draw, say_written
from vivid_anvil.ground.errors import InputError, did_you_mean, listed
from vivid_anvil.units import UnitSystem, fixed

CARD, CLASS, OF_STUDY = "card:", "class:", "#"
_WAYS = "'card:NAME', 'class:STANDARD/CLASS', 'study.toml' or 'study.toml#CURVE'"


@dataclass(frozen=True)
class CurveWishes:
    """How curves are wanted: the terms, the survival probability, another R, and the table to copy."""

    stress: str | None = None
    survival: float | None = None
    r_ratio: float | None = None
    rule: str = "goodman"
    value: str | None = None
    lives: str | None = None
    unit: str | None = None
    loading: str | None = None
    component: str = "normal"
    cards: Path | None = None
    toml_file: Path | None = None


def cards(words: str, folder: Path | None, outputs: Outputs, units: UnitSystem) -> None:
    """The cards that hold all words; a single one in full."""
    outputs.check()
    from vivid_anvil.materials import curve_record
    from vivid_anvil.study import find_cards

    found = find_cards(words, folder)
    if not found:
        raise InputError(
            "cards", f"no card with {words!r}", "words that stand on a card", "List all: vivid-anvil cards"
        )
    rows: list[dict[str, Any]] = [
        {
            "card": card.key,
            "name": card.name,
            "group": card.group,
            "basis": card.basis,
            "source": card.source,
            **{f"{one.name} [{_coherent_unit(one.dimension)}]": one.value for one in card.values.values()},
        }
        for card in found
    ]
    record = {
        "cards": [
            {**row, "sn_curves": [curve_record(one) for one in card.curves.values()]}
            for row, card in zip(rows, found, strict=True)
        ]
    }
    keys = list(dict.fromkeys(key for row in rows for key in row))
    table = [{key: row.get(key, "") for key in keys} for row in rows]
    drawings = _drawings([curve for card in found for curve in card.curves.values()], units)
    written = outputs.write(record, table, drawings)
    from vivid_anvil.cli import curve_tables, tables

    out = tables.console()
    out.print(curve_tables.card_details(found[0], units) if len(found) == 1 else curve_tables.cards_table(found, units))
    if len(found) > 1:
        out.print(f"{len(found)} cards. One in full: vivid-anvil cards {found[0].key}")
    say_written(out, written)


def _coherent_unit(dimension: str) -> str:
    from vivid_anvil.units import DIMENSIONS

    return DIMENSIONS[dimension].coherent


def classes(standard: str | None, file: Path | None, outputs: Outputs, units: UnitSystem) -> None:
    """The standards, or the classes of one."""
    outputs.check()
    from vivid_anvil.materials import read_standard, shipped_standards, standard_named

    known = shipped_standards()
    chosen = None
    if file is not None:
        chosen = read_standard(file)
    elif standard is not None:
        chosen = standard_named(standard)
    rows = [
        {
            "standard": one.name,
            "component": curves.component,
            "loading": curves.loading,
            "class": name,
            "curve": curves.what,
        }
        for one in ([chosen] if chosen else known.values())
        for curves in one.curves
        for name in curves.classes
    ]
    written = outputs.write({"classes": rows}, rows)
    from vivid_anvil.cli import curve_tables, tables

    out = tables.console()
    if chosen is not None:
        out.print(curve_tables.standard_details(chosen, units))
    else:
        out.print(curve_tables.standards_table(known))
        out.print(
            "Classes of one: vivid-anvil classes 'EN 1993-1-9'. A curve: vivid-anvil curve 'class:EN 1993-1-9/71'"
        )
    say_written(out, written)


def curve(specifications: Sequence[str], wishes: CurveWishes, outputs: Outputs, units: UnitSystem) -> None:
    """One curve in full, or several side by side."""
    outputs.check()
    with progress("reading the curves") as watch:
        from vivid_anvil.materials import SNFamily, chosen_lives, curve_record, curve_working, stress_table

        found = [one for text in specifications for one in _curves_of(text, wishes)]
        families = [one for one in found if isinstance(one, SNFamily)]
        curves = [_as_wished(one, wishes) for one in found if not isinstance(one, SNFamily)]
        unit = wishes.unit or ("MPa" if units == "metric" else "ksi")
        lives = _lives(wishes.lives) if wishes.lives else sorted({life for one in curves for life in chosen_lives(one)})
        rows = stress_table(curves, lives, unit) if curves else []
        drawings = _drawings(curves, units) + [(f"family {one.name}", partial(draw, one, units)) for one in families]
        record = {"curves": [curve_record(one) for one in curves], "table": rows}
        written = outputs.write(record, rows, drawings, watch, others=(partial(_export, curves),))
    from vivid_anvil.cli import curve_tables, tables

    out = tables.console()
    for one in curves:
        out.print(curve_tables.curve_facts(one, units))
        out.print(tables.findings_list(one.findings)) if one.findings else None
    if rows:
        out.print(curve_tables.lives_table(rows))
    for family in families:
        out.print(tables.heading(f"Family {family.name}: " + ", ".join(one.at_r for one in family.curves)))
    if len(curves) == 1 and curves[0].steps:
        _print_working(out, curve_working(curves[0], units))
    say_written(out, written)


def _print_working(out: Any, working: Any) -> None:
    """The steps alone: what the opening says stands above them already."""
    out.print("\n" + str(dataclasses.replace(working, opening="")), markup=False, soft_wrap=True)


def _curves_of(text: str, wishes: CurveWishes) -> list[Any]:
    """The curves that one word of the command line names."""
    from vivid_anvil.materials import detail_curve, read_standard
    from vivid_anvil.study import read_card_named

    if text.startswith(CARD):
        name, _, of_card = text.removeprefix(CARD).partition("/")
        card = read_card_named(name, wishes.cards)
        return [card.curve(of_card)] if of_card else list(card.curves.values()) or [card.curve()]
    if text.startswith(CLASS):
        standard, slash, name = text.removeprefix(CLASS).rpartition("/")
        if not slash:
            raise InputError("curve", repr(text), "a standard and a class, such as 'class:EN 1993-1-9/71'")
        table = read_standard(standard) if standard.endswith(".toml") else standard
        return [detail_curve(table, name, component=wishes.component, loading=wishes.loading)]
    path, _, wanted = text.partition(OF_STUDY)
    if not path.endswith(".toml"):
        raise InputError("curve", repr(text), _WAYS, "List what there is: vivid-anvil cards, vivid-anvil classes.")
    from vivid_anvil.study import read_study

    known = read_study(path).curves
    if not known:
        raise InputError(path, "no S-N curve", "at least one under sn_curves")
    if wanted and wanted not in known:
        raise InputError(f"{path}, sn_curves", repr(wanted), f"one of {listed(known)}", did_you_mean(wanted, known))
    return [known[wanted]] if wanted else list(known.values())


def _as_wished(curve: Any, wishes: CurveWishes) -> Any:
    """A curve in the terms, survival probability and R that were asked for."""
    from vivid_anvil.materials import at_survival, curve_at_r, in_terms_of

    if wishes.survival is not None:
        curve = at_survival(curve, wishes.survival)
    if wishes.r_ratio is not None:
        curve = curve_at_r(curve, wishes.r_ratio, rule=wishes.rule, **_rule_value(wishes))
    return curve if wishes.stress is None else in_terms_of(curve, wishes.stress)  # type: ignore[arg-type]


def _rule_value(wishes: CurveWishes) -> dict[str, Any]:
    """The value that the rule needs, from the option --value, under its name."""
    from vivid_anvil.materials import MEAN_STRESS_RULES
    from vivid_anvil.units import coherent

    needs = MEAN_STRESS_RULES[wishes.rule].needs if wishes.rule in MEAN_STRESS_RULES else None
    if needs is None:
        return {}
    name, strength = needs.replace("_", " "), needs.endswith(("strength", "coefficient"))
    if wishes.value is None:
        example = "--value '510 MPa'" if strength else "--value 0.65"
        raise InputError("--r-ratio", f"no {name}", f"such as {example}", f"The rule {wishes.rule} needs it.")
    if strength:
        return {needs: coherent(wishes.value, "stress", "--value")}
    return {needs: coherent(wishes.value, "number", "--value")}


def _lives(text: str) -> list[float]:
    try:
        return [float(one) for one in text.split(",")]
    except ValueError:
        raise InputError("--at", repr(text), "lives with commas between, such as 1e4,1e5,2e6") from None


def number_or_word(text: str | None) -> float | str | None:
    """An option that may be a number or a word."""
    try:
        return None if text is None else float(text)
    except ValueError:
        return text


def _drawings(curves: Sequence[Any], units: UnitSystem) -> list[Drawing]:
    drawings: list[Drawing] = [(f"curve {one.name}", partial(draw, one, units)) for one in curves]
    if len(curves) > 1:
        drawings.append(("curves", partial(draw, list(curves), units)))
    return drawings


def _export(curves: Sequence[Any], path: Path) -> None:
    """The curves as tables that a study file can hold."""
    from vivid_anvil.cli.outputs import file_names
    from vivid_anvil.materials import section_text

    keys = file_names([one.name for one in curves])
    path.write_text("\n".join(section_text(one, key) for one, key in zip(curves, keys, strict=True)), encoding="utf-8")


def estimate(group: str, settings: dict[str, Any], outputs: Outputs, units: UnitSystem) -> None:
    """An estimated curve, each factor with its working."""
    outputs.check()
    from vivid_anvil.materials import curve_record, curve_working, estimate_curve

    found = estimate_curve(group, **settings)
    curve_found = found.curve
    rows = [
        {
            "step": step.title,
            "formula": step.formula,
            "numbers": step.numbers,
            "value": step.value,
            "unit": step.unit,
            "source": step.source,
        }
        for step in curve_found.steps
    ]
    record = {
        "factors": dict(found.factors),
        "limit_MPa": found.limit,
        "steps": rows,
        "curve": curve_record(curve_found),
    }
    export = partial(_export, [curve_found])
    written = outputs.write(record, rows, _drawings([curve_found], units), others=(export,))
    from vivid_anvil.cli import curve_tables, tables

    out = tables.console()
    out.print(curve_tables.curve_facts(curve_found, units))
    factors = tables.table("Factor", "Value", "Formula")
    factors.columns[2].justify = "left"
    for step in curve_found.steps:
        factors.add_row(step.title, f"{fixed(step.value)} {step.unit}".strip(), step.formula)
    out.print(factors)
    out.print(tables.findings_list(curve_found.findings))
    _print_working(out, curve_working(curve_found, units))
    say_written(out, written)


@dataclass(frozen=True)
class FitWishes:
    """How tests are to be fitted."""

    model: str | None = None
    r_ratio: float | None = None
    sheet: str | None = None
    survival: float = 0.95
    confidence: float = 0.75
    toml_file: Path | None = None


def fit(path: Path, wishes: FitWishes, outputs: Outputs, units: UnitSystem) -> None:
    """Tests fitted: models compared, one of them in full."""
    outputs.check()
    with progress("fitting") as watch:
        from vivid_anvil.cli import curve_tables, tables
        from vivid_anvil.materials import FIT_MODELS, compare_fits, curve_record, fit_likelihood, fit_line

        series = _specimens(path, wishes)
        fits, refused = compare_fits(series)
        known = ("regression", *FIT_MODELS)
        if wishes.model is not None and wishes.model not in known:
            raise InputError(
                "--model", repr(wishes.model), f"one of {listed(known)}", did_you_mean(wishes.model, known)
            )
        if wishes.model == "regression" or (wishes.model is None and not series.runouts):
            chosen: Any = fit_line(series)
        else:
            chosen = fits.get(wishes.model or next(iter(fits), "line")) or fit_likelihood(
                series, wishes.model or "line"
            )
        rows = curve_tables.level_rows(chosen, wishes.survival, wishes.confidence)
        made = chosen.curve(survival_probability=wishes.survival, confidence=wishes.confidence)
        record = {
            "tests": series.name,
            "model": chosen.model,
            "models": [{"model": name, "AIC": one.aic, **one.described()} for name, one in fits.items()],
            "refused": refused,
            "levels": [{key: _finite(value) for key, value in row.items()} for row in rows],
            "curve": curve_record(made),
        }
        drawings: list[Drawing] = [(f"fit {series.name}", partial(draw, chosen, units))]
        written = outputs.write(record, rows, drawings, watch, others=(partial(_export, [made]),))
    out = tables.console()
    out.print(tables.heading(f"Tests {series.name}: {series.summary}"))
    out.print(curve_tables.series_table(series, units))
    out.print(curve_tables.models_table(fits, refused, chosen.model))
    out.print(curve_tables.fit_details(chosen, made, wishes.survival, wishes.confidence, units))
    say_written(out, written)


def _finite(value: float) -> float | str:
    """A number, or text where JSON has none."""
    return value if value == value and abs(value) != float("inf") else "inf" if value > 0 else "none"


def staircase(path: Path, wishes: FitWishes, outputs: Outputs, units: UnitSystem) -> None:
    """A staircase test evaluated."""
    outputs.check()
    from vivid_anvil.cli import curve_tables, tables
    from vivid_anvil.materials import staircase as evaluate

    result = evaluate(_specimens(path, wishes))
    found, probit = result.dixon_mood, result.probit
    row = {
        "tests": result.series.name,
        "life [cycles]": result.life,
        "event": found.event,
        "F": found.F,
        "A": found.A,
        "B": found.B,
        "spread": found.spread,
        "mean [MPa]": found.mean,
        "std [MPa]": found.std,
        "likelihood mean [MPa]": "" if probit is None else probit.mean,
        "likelihood std [MPa]": "" if probit is None else probit.std,
    }
    drawings: list[Drawing] = [(f"staircase {result.series.name}", partial(draw, result, units))]
    written = outputs.write(row, [row], drawings)
    out = tables.console()
    out.print(tables.heading(f"Tests {result.series.name}: {result.series.summary}"))
    out.print(curve_tables.staircase_details(result, wishes.survival, wishes.confidence, units))
    say_written(out, written)


def _specimens(path: Path, wishes: FitWishes) -> Any:
    from vivid_anvil.materials import read_specimens

    return read_specimens(path, r_ratio=wishes.r_ratio, sheet=0 if wishes.sheet is None else wishes.sheet)
