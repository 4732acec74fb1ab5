"""What the commands on curves, cards, classes, estimates and tests do: read, call, show, write."""

from __future__ import annotations

import dataclasses
from collections.abc import Sequence
from dataclasses import dataclass
from functools import partial
from pathlib import Path
from typing import TYPE_CHECKING, Any

from vivid_anvil.cli.outputs import Drawing, Outputs
from vivid_anvil.cli.progress import progress
from vivid_anvil.ground.errors import InputError, did_you_mean, inside, listed
from vivid_anvil.units import UnitSystem, fixed

if TYPE_CHECKING:
    from vivid_anvil.writing.table import Table

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
    from vivid_anvil.materials.card_page import card_pages, cards_table
    from vivid_anvil.study import find_cards

    cards = find_cards(words, folder)
    if not cards:
        raise InputError(
            "cards", f"no card with {words!r}", "words that stand on a card", "List all: vivid-anvil cards"
        )
    table = cards_table(cards)
    curves = [[curve_record(curve) for curve in card.curves.values()] for card in cards]
    record = {"cards": [{**row, "curves": own} for row, own in zip(table.rows(), curves, strict=True)]}
    drawings = _drawings([curve for card in cards for curve in card.curves.values()], units)
    written = outputs.write(record, table, drawings)
    from vivid_anvil.cli import show

    out = show.console()
    for page in card_pages(cards[0], units) if len(cards) == 1 else ():
        out.print(show.page(page, units))
    if len(cards) > 1:
        out.print(show.table(table, units))
        out.print(f"{len(cards)} cards. One in full: vivid-anvil cards {cards[0].key}")
    show.say_written(out, written)


def classes(standard: str | None, file: Path | None, outputs: Outputs, units: UnitSystem) -> None:
    """The standards, or the classes of one."""
    outputs.check()
    from vivid_anvil.materials import read_standard, shipped_standards, standard_named
    from vivid_anvil.materials.curves.standard_page import classes_table, standard_pages, standards_table

    known, chosen = shipped_standards(), None
    if file is not None:
        chosen = read_standard(file)
    elif standard is not None:
        chosen = standard_named(standard)
    table = classes_table([chosen] if chosen else list(known.values()))
    written = outputs.write({table.key: table.rows()}, table)
    from vivid_anvil.cli import show

    out = show.console()
    for page in () if chosen is None else standard_pages(chosen, units):
        out.print(show.page(page, units))
    if chosen is None:
        out.print(show.table(standards_table(known), units))
        out.print(
            "Classes of one: vivid-anvil classes 'EN 1993-1-9'. A curve: vivid-anvil curve 'class:EN 1993-1-9/71'"
        )
    show.say_written(out, written)


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
        table = stress_table(curves, lives, unit)
        drawings = _drawings(curves, units) + [Drawing(f"family {one.name}", one, units) for one in families]
        record = {"curves": [curve_record(curve) for curve in curves], table.key: table.rows() if curves else []}
        written = outputs.write(record, table, drawings, watch, others=(partial(_export, curves),))
    from vivid_anvil.cli import show
    from vivid_anvil.materials import curve_page

    out = show.console()
    for one in curves:
        out.print(show.page(curve_page(one, units, unit), units))
    if curves:
        out.print(show.table(table, units))
    for family in families:
        out.print(show.heading(f"Family {family.name}: " + ", ".join(curve.at_r for curve in family.curves)))
    if len(curves) == 1 and curves[0].steps:
        _print_working(out, curve_working(curves[0], units))
    show.say_written(out, written)


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
        raise InputError(
            inside(f"{path}", "sn_curves"), repr(wanted), f"one of {listed(known)}", did_you_mean(wanted, known)
        )
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
    drawings: list[Drawing] = [Drawing(f"curve {curve.name}", curve, units) for curve in curves]
    if len(curves) > 1:
        drawings.append(Drawing("curves", list(curves), units))
    return drawings


def _export(curves: Sequence[Any], path: Path) -> None:
    """The curves as tables that a study file can hold."""
    from vivid_anvil.cli.outputs import file_names
    from vivid_anvil.materials import section_text

    keys = file_names([curve.name for curve in curves])
    path.write_text("\n".join(section_text(one, key) for one, key in zip(curves, keys, strict=True)), encoding="utf-8")


def estimate(group: str, settings: dict[str, Any], outputs: Outputs, units: UnitSystem) -> None:
    """An estimated curve, each factor with its working."""
    outputs.check()
    from vivid_anvil.materials import curve_page, curve_record, curve_working, estimate_curve

    found = estimate_curve(group, **settings)
    made = found.curve
    working = curve_working(made, units)
    table = working.table()
    record = {
        "factors": dict(found.factors),
        "limit [MPa]": found.limit,
        table.key: table.rows(),
        "curve": curve_record(made),
    }
    export = partial(_export, [made])
    written = outputs.write(record, table, _drawings([made], units), others=(export,))
    from vivid_anvil.cli import show

    out = show.console()
    out.print(show.page(curve_page(made, units), units))
    out.print(show.table(_factors(made), units))
    _print_working(out, working)
    show.say_written(out, written)


def _factors(curve: Any) -> Table:
    """The factors of an estimate with their formulas."""
    from vivid_anvil.writing.table import Column, Table

    steps = curve.steps
    columns = (
        Column("factor", [step.title for step in steps], left=True),
        Column("value", [f"{fixed(step.value)} {step.unit}".strip() for step in steps]),
        Column("formula", [step.formula for step in steps], left=True),
    )
    return Table("", columns, "factors")


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
        from vivid_anvil.materials import FIT_MODELS, compare_fits, curve_record, fit_likelihood, fit_line
        from vivid_anvil.materials.fits.fit_curve import fit_page, levels_table, models_table

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
        levels = levels_table(chosen, wishes.survival, wishes.confidence)
        made = chosen.curve(survival_probability=wishes.survival, confidence=wishes.confidence)
        record = {
            "tests": series.name,
            "model": chosen.model,
            "models": [one.facts() for one in fits.values()],
            "refused": refused,
            **chosen.to_dict(),
            levels.key: levels.rows(),
            "curve": curve_record(made),
        }
        drawings: list[Drawing] = [Drawing(f"fit {series.name}", chosen, units)]
        written = outputs.write(record, levels, drawings, watch, others=(partial(_export, [made]),))
    from vivid_anvil.cli import show

    out = show.console()
    out.print(show.heading(f"Tests {series.name}: {series.summary}"))
    out.print(show.table(series.levels_tested(), units))
    out.print(show.table(models_table(fits, chosen.model), units))
    for name, why in refused.items():
        out.print(show.indented(f"{name}: not possible, {why}"))
    out.print(show.page(fit_page(chosen, made, wishes.survival, wishes.confidence, units), units))
    show.say_written(out, written)


def staircase(path: Path, wishes: FitWishes, outputs: Outputs, units: UnitSystem) -> None:
    """A staircase test evaluated."""
    outputs.check()
    from vivid_anvil.cli import show
    from vivid_anvil.materials import Staircase
    from vivid_anvil.materials import staircase as evaluate
    from vivid_anvil.materials.fits.staircase import staircase_words

    result = evaluate(_specimens(path, wishes))
    drawings: list[Drawing] = [Drawing(f"staircase {result.series.name}", result, units)]
    written = outputs.write(result.to_dict(), Staircase.overview([result]), drawings)
    out = show.console()
    out.print(show.heading(f"Tests {result.series.name}: {result.series.summary}"))
    words = staircase_words(result, units, wishes.survival, wishes.confidence)
    out.print(show.page(dataclasses.replace(result.page(units), words=words), units))
    show.say_written(out, written)


def _specimens(path: Path, wishes: FitWishes) -> Any:
    from vivid_anvil.materials import read_specimens

    return read_specimens(path, r_ratio=wishes.r_ratio, sheet=0 if wishes.sheet is None else wishes.sheet)
