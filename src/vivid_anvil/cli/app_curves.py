"""The commands on materials and S-N curves."""

from pathlib import Path
from typing import Annotated

import typer

from vivid_anvil.cli.options import (
    CardsFolder,
    ConfidenceShown,
    CsvFile,
    FiguresFolder,
    JsonFile,
    PageFile,
    RatioOfTests,
    SheetOfTests,
    SurvivalShown,
    TestsFile,
    TomlFile,
    Units,
    UnitsShown,
)
from vivid_anvil.cli.outputs import Outputs


def cards(
    words: Annotated[
        list[str] | None, typer.Argument(help="Only cards with these words; a single one is shown in full.")
    ] = None,
    folder: CardsFolder = None,
    json_file: JsonFile = None,
    csv_file: CsvFile = None,
    figures: FiguresFolder = None,
    page: PageFile = None,
    units: UnitsShown = Units.metric,
) -> None:
    """List, search and show material cards.

    Cards hold strengths, S-N curves, strain-life curves, growth laws, rubbers and plies, with their sources.
    """
    from vivid_anvil.cli import run_curves

    run_curves.cards(" ".join(words or ()), folder, Outputs(json_file, csv_file, figures, page=page), units.value)


def classes(
    standard: Annotated[str | None, typer.Argument(help="A standard, to list its classes.")] = None,
    file: Annotated[Path | None, typer.Option(help="Data file of another standard.")] = None,
    json_file: JsonFile = None,
    csv_file: CsvFile = None,
    units: UnitsShown = Units.metric,
) -> None:
    """List the weld and detail classes of standards.

    With thickness exponents and environments.
    """
    from vivid_anvil.cli import run_curves

    run_curves.classes(standard, file, Outputs(json_file, csv_file), units.value)


def curve(
    which: Annotated[
        list[str],
        typer.Argument(help="card:NAME, class:STANDARD/CLASS, class:FILE.toml/CLASS, study.toml or study.toml#CURVE."),
    ],
    stress: Annotated[str | None, typer.Option("--as", help="In terms of 'range' or 'amplitude'.")] = None,
    survival: Annotated[float | None, typer.Option(help="For this survival probability, such as 0.977.")] = None,
    r_ratio: Annotated[float | None, typer.Option(help="At this R, by --rule.")] = None,
    rule: Annotated[str, typer.Option(help="Mean-stress rule for --r-ratio.")] = "goodman",
    value: Annotated[str | None, typer.Option(help="What the rule needs, such as its strength '510 MPa'.")] = None,
    lives: Annotated[str | None, typer.Option("--at", help="Lives of the table, such as 1e4,1e5,2e6.")] = None,
    unit: Annotated[str | None, typer.Option(help="Stress unit of the table: MPa, ksi, psi, ...")] = None,
    loading: Annotated[str | None, typer.Option(help="For classes: 'variable' or 'constant' amplitude.")] = None,
    component: Annotated[str, typer.Option(help="For classes: 'normal' or 'shear' stress.")] = "normal",
    folder: CardsFolder = None,
    toml_file: TomlFile = None,
    json_file: JsonFile = None,
    csv_file: CsvFile = None,
    figures: FiguresFolder = None,
    page: PageFile = None,
    units: UnitsShown = Units.metric,
) -> None:
    """Show an S-N curve with its working, or compare several.

    With a table to copy; curves can be exported.
    """
    from vivid_anvil.cli import run_curves

    wishes = run_curves.CurveWishes(
        stress, survival, r_ratio, rule, value, lives, unit, loading, component, folder, toml_file
    )
    run_curves.curve(which, wishes, Outputs(json_file, csv_file, figures, others=(toml_file,), page=page), units.value)


def estimate(
    group: Annotated[str, typer.Argument(help="steel, 'cast iron' or aluminium.")],
    strength: Annotated[str | None, typer.Option(help="Ultimate tensile strength, such as '780 MPa'.")] = None,
    hardness: Annotated[float | None, typer.Option(help="Or the Brinell hardness.")] = None,
    surface: Annotated[
        str | None, typer.Option(help="polished, ground, 'machined or cold-drawn', hot-rolled, as-forged.")
    ] = None,
    loading: Annotated[str, typer.Option(help="bending, axial or torsion.")] = "bending",
    size: Annotated[list[str] | None, typer.Option(help="Diameter, such as '32 mm'; twice for a rectangle.")] = None,
    section: Annotated[str, typer.Option(help="'rotating round', round or rectangle.")] = "rotating round",
    temperature: Annotated[str, typer.Option(help="Such as '260 °C'.")] = "20 °C",
    survival: Annotated[float, typer.Option(help="Survival probability.")] = 0.5,
    below: Annotated[str | None, typer.Option(help="Below the knee: a slope, 'extend', 'hold' or 'no damage'.")] = None,
    toml_file: TomlFile = None,
    json_file: JsonFile = None,
    csv_file: CsvFile = None,
    figures: FiguresFolder = None,
    page: PageFile = None,
    units: UnitsShown = Units.metric,
) -> None:
    """Estimate an S-N curve from tensile strength or hardness.

    Every factor with its formula and source.
    """
    from vivid_anvil.cli import run_curves

    settings = {
        "ultimate_strength": strength,
        "brinell_hardness": hardness,
        "surface": surface,
        "loading": loading,
        "size": None if not size else size[0] if len(size) == 1 else tuple(size),
        "section": section,
        "temperature": temperature,
        "survival_probability": survival,
        "below": run_curves.number_or_word(below),
    }
    run_curves.estimate(
        group, settings, Outputs(json_file, csv_file, figures, others=(toml_file,), page=page), units.value
    )


def fit(
    tests: TestsFile,
    model: Annotated[
        str | None, typer.Option(help="regression, line, 'two slopes', 'sharp limit', 'random limit'; else the best.")
    ] = None,
    r_ratio: RatioOfTests = None,
    sheet: SheetOfTests = None,
    survival: SurvivalShown = 0.95,
    confidence: ConfidenceShown = 0.75,
    toml_file: TomlFile = None,
    json_file: JsonFile = None,
    csv_file: CsvFile = None,
    figures: FiguresFolder = None,
    page: PageFile = None,
    units: UnitsShown = Units.metric,
) -> None:
    """Fit S-N curves to fatigue tests, compare the models.

    With or without run-outs.
    """
    from vivid_anvil.cli import run_curves

    wishes = run_curves.FitWishes(model, r_ratio, sheet, survival, confidence, toml_file)
    run_curves.fit(tests, wishes, Outputs(json_file, csv_file, figures, others=(toml_file,), page=page), units.value)


def staircase(
    tests: TestsFile,
    r_ratio: RatioOfTests = None,
    sheet: SheetOfTests = None,
    survival: SurvivalShown = 0.95,
    confidence: ConfidenceShown = 0.75,
    json_file: JsonFile = None,
    csv_file: CsvFile = None,
    figures: FiguresFolder = None,
    page: PageFile = None,
    units: UnitsShown = Units.metric,
) -> None:
    """Evaluate a staircase test.

    The stress that half of the parts survive, and its scatter.
    """
    from vivid_anvil.cli import run_curves

    wishes = run_curves.FitWishes(None, r_ratio, sheet, survival, confidence)
    run_curves.staircase(tests, wishes, Outputs(json_file, csv_file, figures, page=page), units.value)


def strain_life(
    which: Annotated[
        list[str],
        typer.Argument(
            help="card:NAME, study.toml, study.toml#CURVE, estimate:METHOD ('uniform material law', medians, hardness, "
            "'universal slopes'), or a CSV or Excel file of strain-controlled tests."
        ),
    ],
    youngs_modulus: Annotated[str | None, typer.Option(help="E, needed for tests, such as '206 GPa'.")] = None,
    strength: Annotated[str | None, typer.Option(help="For estimates: tensile strength, such as '780 MPa'.")] = None,
    hardness: Annotated[float | None, typer.Option(help="For the hardness method: HB.")] = None,
    fracture_strain: Annotated[str | None, typer.Option(help="For universal slopes, such as '85 %'.")] = None,
    group: Annotated[str | None, typer.Option(help="For estimates: steel, aluminium or titanium.")] = None,
    form: Annotated[str | None, typer.Option(help="Of universal slopes: original or modified.")] = None,
    survival: Annotated[float | None, typer.Option(help="For this survival probability, such as 0.9.")] = None,
    at: Annotated[
        str | None, typer.Option(help="Strain amplitudes, such as '0.4 %, 0.2 %'; one is worked out.")
    ] = None,
    folder: CardsFolder = None,
    sheet: SheetOfTests = None,
    json_file: JsonFile = None,
    csv_file: CsvFile = None,
    figures: FiguresFolder = None,
    page: PageFile = None,
    units: UnitsShown = Units.metric,
) -> None:
    """Show, estimate or fit strain-life curves.

    With their cyclic curves: stated, on cards, estimated, or fitted to tests.
    """
    from vivid_anvil.cli import run_strain

    wishes = run_strain.StrainWishes(
        youngs_modulus, strength, hardness, fracture_strain, group, form, survival, at, folder, sheet
    )
    run_strain.strain_life(which, wishes, Outputs(json_file, csv_file, figures, page=page), units.value)


COMMANDS = (cards, classes, curve, estimate, fit, staircase, strain_life)
