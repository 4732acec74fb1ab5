"""Curves, cards, classes, estimates and fits as tables that stay readable at 80 columns."""

from __future__ import annotations

from collections.abc import Mapping, Sequence
from typing import Any

import numpy as np
from rich.console import Group, RenderableType
from rich.table import Table
from rich.text import Text

from vivid_anvil.cli.tables import findings_list, heading, indented, table
from vivid_anvil.materials import (
    DetailStandard,
    LikelihoodFit,
    LineFit,
    MaterialCard,
    SNCurve,
    SpecimenSeries,
    Staircase,
    describe,
)
from vivid_anvil.units import UnitSystem, display_unit, fixed, in_unit, number, shown


def cards_table(cards: Sequence[MaterialCard], units: UnitSystem) -> RenderableType:
    """One line a card."""
    unit = display_unit("stress", units)
    made = table("Card", "Material", f"R_m\n[{unit}]", f"R_e\n[{unit}]", "S-N", "Growth", "Basis")
    for card in cards:
        strengths = [
            fixed(float(shown(card.values[key].value, "stress", units)), 3) if key in card.values else "-"
            for key in ("ultimate_strength", "yield_strength")
        ]
        made.add_row(card.key, card.name, *strengths, str(len(card.curves)), str(len(card.laws)), card.basis)
    made.columns[1].justify = "left"
    made.columns[0].no_wrap = True
    return made


def card_details(card: MaterialCard, units: UnitSystem) -> RenderableType:
    """Everything a card holds, each value with its scatter and source."""
    made = table("Value", "", "Scatter", "Source")
    made.columns[2].justify = made.columns[3].justify = "left"
    for one in card.values.values():
        source = "of the card" if one.source == card.source else one.source
        made.add_row(one.name.replace("_", " "), in_unit(one.value, one.dimension, units), one.scatter, source)
    parts: list[RenderableType] = [heading(f"{card.key}: {card.name}")]
    parts.append(indented(f"Group: {card.group}. Basis: {card.basis}. Source: {card.source}."))
    if card.note:
        parts.append(indented(f"Note: {card.note}."))
    parts.append(made)
    parts += [curve_facts(curve, units) for curve in card.curves.values()]
    for name, law in card.laws.items():
        ratio = "R not stated" if law.r_ratio is None else f"R = {law.r_ratio:g}"
        words = f"Growth law {name}, {law.kind}: {law.words}, threshold {law.threshold.words_in(units)}, {ratio}"
        parts.append(indented(f"{words}, {law.scatter}; {law.source}"))
    if not card.curves:
        parts.append(indented("No S-N curve on this card."))
    return Group(*parts)


def standards_table(standards: Mapping[str, DetailStandard]) -> RenderableType:
    """Which standards there are."""
    made = table("Standard", "What", "Classes")
    made.columns[1].justify = "left"
    for one in standards.values():
        names = dict.fromkeys(name for curves in one.curves for name in curves.classes)
        made.add_row(f"{one.name} ({one.edition})", one.title, str(len(names)))
    return made


def standard_details(standard: DetailStandard, units: UnitSystem) -> RenderableType:
    """Curves, classes, thickness exponents and environments of one standard."""
    parts: list[RenderableType] = [heading(f"{standard.name} ({standard.edition}): {standard.title}")]
    parts.append(indented(f"Stress {standard.stress}, R = {standard.r_ratio}. Valid for {standard.validity}."))
    if standard.note:
        parts.append(indented(f"Note: {standard.note}"))
    thickness: dict[str, float] = {}
    environments: dict[str, Mapping[str, Any]] = {}
    for one in standard.curves:
        parts.append(heading(f"{one.component} stress, {one.loading} amplitude"))
        parts.append(indented(f"{one.what}. Classes: {', '.join(one.classes)}. Source: {one.source}."))
        thickness |= dict(one.thickness_exponents)
        environments |= dict(one.environments)
    reference = next((one.reference_thickness for one in standard.curves if one.reference_thickness), None)
    if thickness and reference is not None:
        parts.append(heading(f"Thickness above {in_unit(reference, 'length', units)}: exponent"))
        parts += [indented(f"{value:g}  {name}") for name, value in thickness.items()]
    for name, found in environments.items():
        parts.append(heading(f"Environment: {name}"))
        knees = ", no knee" if found.get("knees") == "none" else ""
        parts.append(indented(f"stresses times {found['stress_factor']:g}{knees} ({found.get('source', '')})"))
    return Group(*parts)


def curve_facts(curve: SNCurve, units: UnitSystem) -> RenderableType:
    """What a curve says of itself."""
    one, unit = float(shown(1.0, "stress", units)), display_unit("stress", units)
    survival = "not stated" if curve.survival_probability is None else f"{curve.survival_probability:g}"
    scatter = "not stated" if curve.log_life_std is None else number(curve.log_life_std, 3)
    upto = "on" if np.isinf(curve.tested_to) else f"to {number(curve.tested_to)} cycles"
    rows = [
        ("Stress", f"{curve.component} stress {curve.stress}, {curve.at_r}"),
        ("Lines", describe(curve, unit, one)),
        ("Tested", f"from {number(curve.tested_from)} cycles {upto}"),
        ("Survival probability", f"{survival}; standard deviation of log10 life {scatter}"),
        ("Basis", f"{curve.basis}; {curve.source}"),
    ]
    facts = Table.grid(padding=(0, 2))
    for name, text in rows:
        facts.add_row(f"  {name}", Text(text))
    return Group(heading(f"S-N curve {curve.name}"), facts)


def lives_table(rows: Sequence[Mapping[str, Any]]) -> RenderableType:
    """Stresses at chosen lives, one column a curve."""
    heads = list(rows[0])
    made = table("Life\n[cycles]", *map(_folded, heads[1:]))
    made.columns[0].justify = "right"
    for row in rows:
        made.add_row(number(row[heads[0]], 6), *(_stress_text(row[head]) for head in heads[1:]))
    return made


def _folded(head: str) -> str:
    """A heading on three lines: name, range or amplitude, R and unit."""
    name, _, rest = head.rpartition(": ")
    return f"{name}\n{rest.replace(', ', chr(10))}"


def _stress_text(value: float) -> str:
    return "any" if np.isinf(value) else "none" if value == 0.0 else fixed(value, 5)


def series_table(series: SpecimenSeries, units: UnitSystem) -> RenderableType:
    """One line a stress level."""
    unit = display_unit("stress", units)
    made = table(f"Stress {series.stress} [{unit}]", "Tests", "Run-outs", "Shortest life", "Longest life")
    made.columns[0].justify = "right"
    for level in series.levels[::-1]:
        of = series.stresses == level
        lives = series.lives[of]
        stress = fixed(float(shown(float(level), "stress", units)))
        runouts = str(int((~series.failed[of]).sum()))
        made.add_row(stress, str(int(of.sum())), runouts, number(float(lives.min())), number(float(lives.max())))
    return made


def models_table(fits: Mapping[str, LikelihoodFit], refused: Mapping[str, str], chosen: str) -> RenderableType:
    """Candidate models, the best first, by Akaike's criterion."""
    made = table("Model", "Parameters", "ln L", "AIC", "More than\nthe best", "Weight", "")
    best = min((fit.aic for fit in fits.values()), default=0.0)
    weights = {name: float(np.exp(-0.5 * (fit.aic - best))) for name, fit in fits.items()}
    for name, fit in fits.items():
        share = weights[name] / sum(weights.values())
        made.add_row(
            name,
            str(fit.parameters),
            f"{fit.log_likelihood:.2f}",
            f"{fit.aic:.2f}",
            f"{fit.aic - best:.2f}",
            f"{share:.1%}",
            "shown" if name == chosen else "",
        )
    parts: list[RenderableType] = [heading("Models compared (AIC: the smaller the better)"), made]
    parts += [indented(f"{name}: not possible, {why}") for name, why in refused.items()]
    return Group(*parts)


def fit_details(
    fit: LineFit | LikelihoodFit, made: SNCurve, survival: float, confidence: float, units: UnitSystem
) -> RenderableType:
    """Parameters, tests of the line, slope of the curve that is `made`, lives at the levels with their limits, findings."""
    facts = Table.grid(padding=(0, 2))
    high, (near, end) = float(made.points[0][0]), (float(one[0]) for one in made.points[-2:])
    low = max(float(fit.series.levels[0]), (near * end) ** 0.5)  # the lowest tested one, or beside the end
    ends = (f"{number(made.slope_at(one), 4)} at {in_unit(one, 'stress', units)}" for one in (high, low))
    what = (
        "slope of the curve",
        f"{', '.join(ends)}: outlived by {survival:.1%} with {confidence:.0%}, as --toml exports it",
    )
    for name, text in [*_facts(fit, units), what]:
        facts.add_row(f"  {name}", text)
    parts: list[RenderableType] = [heading(f"Fit: {fit.model}"), facts, levels_table(fit, survival, confidence, units)]
    parts.append(findings_list(fit.findings))
    return Group(*parts)


def _facts(fit: LineFit | LikelihoodFit, units: UnitSystem) -> list[tuple[str, str]]:
    if isinstance(fit, LikelihoodFit):
        rows = []
        for name, value in fit.described().items():
            stress = name.endswith("[MPa]")
            text = in_unit(value, "stress", units) if stress else number(value, 5)
            rows.append((name.removesuffix(" [MPa]").removesuffix(" [cycles]"), text))
        return [*rows, ("ln likelihood", f"{fit.log_likelihood:.4f} with {fit.parameters} parameters")]
    low, high = fit.slope_interval()
    least, most = fit.intercept_interval()
    rows = [
        ("log10 N = A - m log10 S", "S in MPa, life the dependent variable, lognormal (ASTM E739)"),
        ("intercept A", f"{number(fit.intercept, 6)}, 95 % limits {number(least)} and {number(most)}"),
        ("slope m", f"{number(fit.slope, 5)}, 95 % limits {number(low)} and {number(high)}"),
        ("std of log10 N", f"{number(fit.std)} with {fit.degrees_of_freedom} degrees of freedom"),
        ("slope against none", f"{fit.slope_test():.2g} is the probability of such a slope by chance"),
        ("replication", f"{fit.replication:.0%}"),
    ]
    linear = fit.linearity()
    if linear is None:
        return [*rows, ("lack of fit", "no test without replicates at three levels")]
    verdict = "straight" if linear.value <= linear.critical else "not straight"
    text = f"F = {number(linear.value)}, critical {number(linear.critical)} (5 %): {verdict}"
    return [*rows, ("lack of fit", text)]


def levels_table(fit: LineFit | LikelihoodFit, survival: float, confidence: float, units: UnitSystem) -> RenderableType:
    """Median with its band, and the life that most parts reach, at each level."""
    rows = level_rows(fit, survival, confidence)
    unit = display_unit("stress", units)
    made = table(
        f"Stress\n[{unit}]",
        "Median\nlife",
        "95 % limits\nof median",
        "",
        f"Outlived by\n{survival:.1%}",
        f"with {confidence:.0%}\nconfidence",
    )
    made.columns[0].justify = "right"
    for row in rows:
        values = list(row.values())
        cells = ["no failure" if np.isinf(one) else "-" if np.isnan(one) else number(one) for one in values[1:]]
        made.add_row(fixed(float(shown(values[0], "stress", units))), *cells)
    return made


def level_rows(fit: LineFit | LikelihoodFit, survival: float, confidence: float) -> list[dict[str, float]]:
    """Lives at the tested levels as plain numbers, the highest stress first; nan where the tests carry no limits."""
    from vivid_anvil.ground.errors import InputError

    levels = fit.series.levels[::-1]
    blank = np.full(levels.size, np.nan)
    try:
        with np.errstate(invalid="ignore"):
            lower, upper = fit.band(levels)
        tolerance = fit.life(levels, survival, confidence)
    except InputError:
        lower = upper = tolerance = blank
    columns = {
        "stress [MPa]": levels,
        "median life [cycles]": fit.life(levels),
        "lower 95 % of median [cycles]": lower,
        "upper 95 % of median [cycles]": upper,
        f"life at survival {survival:g} [cycles]": fit.life(levels, survival),
        f"the same at confidence {confidence:g} [cycles]": tolerance,
    }
    return [{name: float(values[i]) for name, values in columns.items()} for i in range(levels.size)]


def staircase_details(result: Staircase, survival: float, confidence: float, units: UnitSystem) -> RenderableType:
    """Both evaluations of a staircase, with the sums to redo them, and findings."""
    found, probit = result.dixon_mood, result.probit

    def stress(value: float) -> str:
        return in_unit(value, "stress", units)

    levels = table(f"Level of the {found.event}", "i", "n", "i n", "i² n")
    for i, n in enumerate(found.counts):
        levels.add_row(stress(found.lowest + i * found.step), str(i), str(n), str(i * n), str(i * i * n))
    levels.add_row("sum", "", f"F = {found.F}", f"A = {found.A}", f"B = {found.B}")
    sign = "-" if found.event == "failures" else "+"
    mean = f"{stress(found.lowest)} + {stress(found.step)} × ({found.A} / {found.F} {sign} 1/2) = {stress(found.mean)}"
    spread = f"({found.F} × {found.B} - {found.A}²) / {found.F}² = {number(found.spread)}"
    rule = "1.62 d (spread + 0.029)" if found.spread >= 0.3 else "0.53 d, as the spread is below 0.3"
    facts = Table.grid(padding=(0, 2))
    rows = [
        ("Mean", f"S_0 + d (A / F {sign} 1/2) = {mean}"),
        ("Spread", f"(F B - A²) / F² = {spread}"),
        ("Standard deviation", f"{rule} = {stress(found.std)}"),
    ]
    if probit is not None:
        limit = stress(probit.strength(survival, confidence))
        rows += [
            ("Likelihood: mean", f"{stress(probit.mean)}, standard error {stress(probit.mean_error)}"),
            ("Likelihood: deviation", f"{stress(probit.std)}, standard error {stress(probit.std_error)}"),
            (
                f"Survived by {survival:.1%}",
                f"{stress(probit.strength(survival))}; with {confidence:.0%} confidence {limit}",
            ),
        ]
    for name, text in rows:
        facts.add_row(f"  {name}", text)
    head = heading(f"Staircase {result.series.name} at {number(result.life)} cycles (Dixon and Mood 1948)")
    return Group(head, levels, facts, findings_list(result.findings))
