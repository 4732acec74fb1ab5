"""The commands."""

from pathlib import Path
from typing import Annotated

import typer

from vivid_anvil.cli import app_curves
from vivid_anvil.cli.options import (
    CsvFile,
    FiguresFolder,
    GrowthTestsFile,
    HowManyInFull,
    JsonFile,
    PageFile,
    RatioOfTests,
    SpotName,
    StudyFile,
    Units,
    UnitsShown,
)
from vivid_anvil.cli.outputs import Outputs
from vivid_anvil.cli.words import TakesNegatives, be_quiet, quiet, words

app = typer.Typer(
    help="Fatigue life and crack growth from load histories, with every number open to a hand check.",
    no_args_is_help=True,
    pretty_exceptions_enable=False,
    context_settings={"help_option_names": ["-h", "--help"]},
)
START, LOADS, LIFE, MODELS, CRACKS = "Start", "Loads", "Life", "Whole models", "Cracks and flaws"
CURVES, AFTER = "S-N and strain-life curves", "Hand over and look up"


def _version(wanted: bool) -> None:
    if wanted:
        from vivid_anvil import __version__

        print(f"vivid-anvil {__version__}")
        raise typer.Exit


@app.callback()
def _common(
    _asked_version: Annotated[
        bool, typer.Option("--version", callback=_version, is_eager=True, help="Show the version.")
    ] = False,
    silent: Annotated[
        bool, typer.Option("--quiet", help="Say nothing but errors; the files asked for are written.")
    ] = False,
) -> None:
    """Options before the command."""
    be_quiet(silent)


@app.command(rich_help_panel=START)
def demo(
    folder: Annotated[Path, typer.Argument(help="Folder to write the demo study into.")] = Path("larkfell-demo"),
    json_file: JsonFile = None,
    csv_file: CsvFile = None,
    figures: FiguresFolder = None,
    units: UnitsShown = Units.metric,
) -> None:
    """Write the demo, run it, show lives, a model, flaws; draw.

    The demo is a made-up chairlift: studies with their data and models, written into a folder to be looked at and changed.
    """
    from vivid_anvil.cli import run, run_flaws, run_model
    from vivid_anvil.demo import write_demo

    study_file = write_demo(folder)
    pictures = figures or folder / "figures"
    run.whole_study(study_file, Outputs(json_file, csv_file, pictures), units.value)
    wishes = run_model.ModelWishes(most=4, seen_from=("corner",))
    run_model.model(folder / "hanger_head.toml", wishes, Outputs(None, None, pictures, others=(None,)), units.value)
    run_flaws.flaws(
        folder / "tower_base.toml", run_flaws.Listing(details=0), Outputs(None, None, pictures), units.value
    )
    run.next_steps(study_file)


@app.command(rich_help_panel=START)
def check(
    study: StudyFile, json_file: JsonFile = None, csv_file: CsvFile = None, units: UnitsShown = Units.metric
) -> None:
    """Is the study sound? What would be computed?

    Reads the study and every file that it names, and computes nothing.
    """
    from vivid_anvil.cli import run

    run.check(study, Outputs(json_file, csv_file, None), units.value)


@app.command(rich_help_panel=LOADS)
def count(
    file: Annotated[
        Path, typer.Argument(help=words("History file; headers with units: 'vertical force [kN]'."), show_default=False)
    ],
    channel: Annotated[str | None, typer.Option(help="Channel to count; needed where there are several.")] = None,
    rate: Annotated[
        str | None, typer.Option(help="Sample rate, such as '100 Hz', where there is no time column.")
    ] = None,
    read: Annotated[
        list[str] | None, typer.Option(help="Setting of the reader: sheet=measured, unit=kN, ... Repeatable.")
    ] = None,
    method: Annotated[str, typer.Option(help="rainflow, range-pair or simple-range.")] = "rainflow",
    residue: Annotated[str, typer.Option(help="'half cycles', or 'repeated' as in a duty cycle.")] = "half cycles",
    gate: Annotated[
        str | None, typer.Option(help="Take out closed cycles smaller than this, such as '0.05 kN'.")
    ] = None,
    matrix: Annotated[str | None, typer.Option(help="Also a matrix: range-mean, maximum-minimum or from-to.")] = None,
    classes: Annotated[int, typer.Option(help="Classes of the matrix along each side.")] = 64,
    chunked: Annotated[bool, typer.Option("--chunked", help="For files larger than memory: only the matrix.")] = False,
    json_file: JsonFile = None,
    csv_file: CsvFile = None,
    parquet_file: Annotated[
        Path | None, typer.Option("--parquet", help="Also write the cycles to this Parquet file.")
    ] = None,
    figures: FiguresFolder = None,
    page: PageFile = None,
    units: UnitsShown = Units.metric,
) -> None:
    """Check one channel of a file, and count its cycles."""
    from vivid_anvil.cli import run_count

    how = run_count.How(channel, rate, tuple(read or ()), method, residue, gate, matrix, classes)
    command = run_count.in_chunks if chunked else run_count.whole
    command(file, how, Outputs(json_file, csv_file, figures, parquet_file, page=page), units.value)


@app.command(rich_help_panel=LOADS)
def vibration(
    file: Annotated[
        Path,
        typer.Argument(
            help=words("A study; or a table: a PSD 'base [g^2/Hz]', a response 'real [MPa/g]', a history."),
            show_default=False,
        ),
    ],
    spot: SpotName = None,
    event: Annotated[str | None, typer.Option(help="Of a study only this event.")] = None,
    channel: Annotated[str | None, typer.Option(help="Column of a table; needed where there are several.")] = None,
    exposure: Annotated[str | None, typer.Option(help="How long a PSD acts, such as '8 h': its largest value.")] = None,
    slope: Annotated[float, typer.Option(help="Slope m of the S-N curve that formulas are compared for.")] = 5.0,
    synthesis: Annotated[
        str | None, typer.Option(help="Also count a history made of the PSD, such as '10 min' long.")
    ] = None,
    seed: Annotated[int, typer.Option(help="Seed of that history.")] = 1,
    segment: Annotated[
        str | None, typer.Option(help="Of a history: length of averaged segments, such as '2 s'.")
    ] = None,
    overlap: Annotated[float, typer.Option(help="Share by which segments overlap.")] = 0.5,
    window: Annotated[str, typer.Option(help="hann, 'flat top' or none.")] = "hann",
    between: Annotated[
        str | None, typer.Option(help="Between lines; of a PSD log-log, linear or lines; of a response also rational.")
    ] = None,
    json_file: JsonFile = None,
    csv_file: CsvFile = None,
    figures: FiguresFolder = None,
    page: PageFile = None,
    units: UnitsShown = Units.metric,
) -> None:
    """Moments, cycles by all formulas, bands, resonances.

    A look at vibration before any life: moments, rates, all formulas side by side, bands that do the damage, resonances.
    """
    from vivid_anvil.cli import run_vibration

    how = run_vibration.Looking(
        spot, event, channel, exposure, slope, synthesis, seed, segment, overlap, window, between
    )
    run_vibration.vibration(file, how, Outputs(json_file, csv_file, figures, page=page), units.value)


@app.command(rich_help_panel=LOADS)
def tailor(
    file: Annotated[
        Path, typer.Argument(help="The service: a study, a PSD, or a history of acceleration.", show_default=False)
    ],
    time: Annotated[str, typer.Option(help="How long the test lasts, such as '8 h'.")],
    slope: Annotated[float, typer.Option(help="Slope of the S-N curve of what is tested.")],
    channel: Annotated[
        str | None, typer.Option(help="The base acceleration, where there are several channels.")
    ] = None,
    quality_factor: Annotated[float | None, typer.Option(help="Q = 1/(2ζ) of the oscillators; 10 by default.")] = None,
    low: Annotated[str, typer.Option("--from", help="Lowest natural frequency.")] = "5 Hz",
    high: Annotated[str, typer.Option("--to", help="Highest natural frequency.")] = "500 Hz",
    per_octave: Annotated[int, typer.Option(help="Oscillators an octave.")] = 12,
    corner: Annotated[
        list[str] | None,
        typer.Option(help="A breakpoint of the test, such as '40 Hz'. Repeatable; else one an octave."),
    ] = None,
    service_life: Annotated[
        str | None, typer.Option(help="Of a study: how long the service is, such as '30 years'; else its target life.")
    ] = None,
    exposure: Annotated[str | None, typer.Option(help="Of a PSD or a history: how long it acts in service.")] = None,
    against: Annotated[
        Path | None, typer.Option(help="Also a test that is given: a table with its PSD.", show_default=False)
    ] = None,
    against_time: Annotated[str | None, typer.Option(help="How long the given test lasts; else --time.")] = None,
    json_file: JsonFile = None,
    csv_file: CsvFile = None,
    figures: FiguresFolder = None,
    page: PageFile = None,
    units: UnitsShown = Units.metric,
) -> None:
    """The shaker test that does the damage of a service.

    The random test that does in its time what the service does in its own; or, whether a given test covers the service.
    """
    from vivid_anvil.cli import run_vibration

    how = run_vibration.Tailoring(
        time, slope, channel, quality_factor, low, high, per_octave, tuple(corner or ()), service_life, exposure,
        against, against_time,
    )  # fmt: skip
    run_vibration.tailor(file, how, Outputs(json_file, csv_file, figures, page=page), units.value)


for _command in app_curves.COMMANDS:
    app.command(rich_help_panel=CURVES)(_command)


@app.command(rich_help_panel=LIFE)
def life(
    study: StudyFile,
    spot: SpotName = None,
    json_file: JsonFile = None,
    csv_file: CsvFile = None,
    parquet_file: Annotated[
        Path | None,
        typer.Option("--parquet", help="Also write every counted cycle with its damage to this Parquet file."),
    ] = None,
    planes_file: Annotated[
        Path | None,
        typer.Option(
            "--planes", help="Also write the life on every plane to this CSV file, of places assessed on planes."
        ),
    ] = None,
    figures: FiguresFolder = None,
    page: PageFile = None,
    units: UnitsShown = Units.metric,
    details: HowManyInFull = 3,
) -> None:
    """Life of each hot spot, with reserve factors.

    Damage, years, reserve factors, shares of events and stress classes.
    """
    from vivid_anvil.cli import run

    others = () if planes_file is None else (planes_file,)
    outputs = Outputs(json_file, csv_file, figures, parquet_file, page=page, others=others)
    run.life(study, spot, outputs, units.value, details)


@app.command(rich_help_panel=LIFE)
def places(
    study: StudyFile,
    most: Annotated[int, typer.Option(min=0, help="How many lives are moved, those that are used most.")] = 20,
    json_file: JsonFile = None,
    csv_file: CsvFile = None,
    figures: FiguresFolder = None,
    page: PageFile = None,
    units: UnitsShown = Units.metric,
) -> None:
    """All places side by side: what governs, what moves them.

    What each has used, what governs it, what would move its life most, its life by survival.
    """
    from vivid_anvil.cli import run

    run.places(study, most, Outputs(json_file, csv_file, figures, page=page), units.value)


@app.command(rich_help_panel=LIFE)
def rules(
    study: StudyFile,
    spot: SpotName = None,
    json_file: JsonFile = None,
    csv_file: CsvFile = None,
    figures: FiguresFolder = None,
    page: PageFile = None,
    units: UnitsShown = Units.metric,
    details: HowManyInFull = 3,
) -> None:
    """Life of each hot spot by every mean-stress rule.

    Every rule that its material allows, side by side.
    """
    from vivid_anvil.cli import run_rules

    run_rules.rules(study, spot, Outputs(json_file, csv_file, figures, page=page), units.value, details)


@app.command(rich_help_panel=MODELS)
def model(
    study: StudyFile,
    most: Annotated[int, typer.Option(help="How many of the worst places.")] = 8,
    node_set: Annotated[str | None, typer.Option("--set", help="Only nodes of this set.")] = None,
    share: Annotated[float, typer.Option(help="Only places with this share of the largest damage, 0 to 1.")] = 0.0,
    life_below: Annotated[
        str | None, typer.Option(help="Only places that live shorter, such as '30 years'.", show_default=False)
    ] = None,
    seen_from: Annotated[
        list[str] | None,
        typer.Option(help="View of a figure: a side, corner, or three numbers such as 1,0,2. May be repeated."),
    ] = None,
    reserve: Annotated[str, typer.Option(help="Reserve on stress (solved), on life, or none.")] = "stress",
    node: Annotated[
        int | None, typer.Option(help="Also this node as a hot spot of its own, with its hand calculation.")
    ] = None,
    threads: Annotated[int, typer.Option(min=1, help="Threads that share the nodes.")] = 2,
    cluster: Annotated[
        str | None, typer.Option(help="Address of a Dask scheduler whose workers share the nodes.", show_default=False)
    ] = None,
    keep: Annotated[
        Path | None, typer.Option(help="Folder for finished work: an interrupted run goes on from there.")
    ] = None,
    nodes_file: Annotated[
        Path | None, typer.Option("--nodes", help="Also write every node to this .vtu, .csv or .parquet file.")
    ] = None,
    json_file: JsonFile = None,
    csv_file: CsvFile = None,
    figures: FiguresFolder = None,
    page: PageFile = None,
    units: UnitsShown = Units.metric,
) -> None:
    """Life at every node of a finite-element model.

    Its worst places, drawn on its surface, written for a viewer.
    """
    from vivid_anvil.cli import run_model

    wishes = run_model.ModelWishes(
        most, node_set, share, life_below, tuple(seen_from or ()), threads, cluster, keep, nodes_file, node, reserve
    )
    outputs = Outputs(json_file, csv_file, figures, others=(nodes_file,), page=page)
    run_model.model(study, wishes, outputs, units.value)


@app.command(rich_help_panel=START)
def template(file: Annotated[Path, typer.Argument(help="Study file to write.")] = Path("study.toml")) -> None:
    """Write a commented study file to start from.

    An existing file is never overwritten.
    """
    from vivid_anvil.study.schema import write_template

    written = write_template(file)
    if not quiet():
        print(f"Written: {written}")


@app.command(rich_help_panel=START)
def schema(
    json_file: Annotated[
        Path | None, typer.Option("--json", help="Write it to this file instead of printing it.")
    ] = None,
) -> None:
    """The JSON Schema of the study file, for editors.

    An editor that knows it completes and checks the keys of the TOML file.
    """
    import json

    from vivid_anvil.ground.files import replacing
    from vivid_anvil.study.schema import study_schema

    outputs = Outputs(json_file)
    outputs.check()
    schema = study_schema()
    if json_file is None:
        print(json.dumps(schema, indent=2, ensure_ascii=False))
        return
    with replacing(json_file) as temporary:
        temporary.write_text(json.dumps(schema, indent=2, ensure_ascii=False) + "\n", encoding="utf-8")
    if not quiet():
        print(f"Written: {json_file}")


@app.command("side-by-side", rich_help_panel=LIFE)
def side_by_side(
    studies: Annotated[list[Path], typer.Argument(help="Two or more study files.", show_default=False)],
    json_file: JsonFile = None,
    csv_file: CsvFile = None,
    units: UnitsShown = Units.metric,
) -> None:
    """Studies side by side: what differs, in and out.

    What differs in the input, and in the lives.
    """
    from vivid_anvil.cli import run_what_if

    run_what_if.side_by_side(studies, Outputs(json_file, csv_file), units.value)


@app.command("what-if", cls=TakesNegatives, rich_help_panel=LIFE)
def what_if(
    study: StudyFile,
    key: Annotated[
        str,
        typer.Argument(
            help="Path in the study, such as 'hot_spots/NAME/notch_factor', or 'load scale'.", show_default=False
        ),
    ],
    values: Annotated[
        list[str],
        typer.Argument(help="Values, negative ones too, or a range: four are '25 mm..64 mm/4'.", show_default=False),
    ],
    spot: SpotName = None,
    json_file: JsonFile = None,
    csv_file: CsvFile = None,
    figures: FiguresFolder = None,
    page: PageFile = None,
    units: UnitsShown = Units.metric,
) -> None:
    """Vary one value of a study: lives for each value.

    All hot spots, in one table and one figure.
    """
    from vivid_anvil.cli import run_what_if

    run_what_if.what_if(study, key, values, spot, Outputs(json_file, csv_file, figures, page=page), units.value)


@app.command(rich_help_panel=LIFE)
def solve(
    study: StudyFile,
    spot: SpotName = None,
    key: Annotated[str | None, typer.Option(help="A value of the study to solve for, by its path.")] = None,
    between: Annotated[str | None, typer.Option(help="Where to look for it, such as '300..900 MPa'.")] = None,
    standard: Annotated[str | None, typer.Option(help="Which standard's class is needed.")] = None,
    test_cycles: Annotated[float | None, typer.Option(help="A test of so many cycles: at which stress?")] = None,
    test_stress: Annotated[str | None, typer.Option(help="A test at this stress: how many cycles?")] = None,
    leave_out: Annotated[
        list[str] | None, typer.Option(help="A test without smaller ranges, such as '30 MPa'. Repeatable.")
    ] = None,
    json_file: JsonFile = None,
    csv_file: CsvFile = None,
    units: UnitsShown = Units.metric,
) -> None:
    """What would just meet the target.

    Loads, class, or any value; and tests that do the damage of the service.
    """
    from vivid_anvil.cli import run_solve
    from vivid_anvil.study.answers import Questions

    asked = Questions(key, between, standard, test_cycles, test_stress, tuple(leave_out or ()))
    run_solve.solve(study, spot, asked, Outputs(json_file, csv_file), units.value)


@app.command(rich_help_panel=CRACKS)
def grow(
    study: StudyFile,
    spot: SpotName = None,
    after_damage: Annotated[
        bool, typer.Option("--after-damage", help="Also the whole life: until a crack is there, then its growth.")
    ] = False,
    json_file: JsonFile = None,
    csv_file: CsvFile = None,
    figures: FiguresFolder = None,
    page: PageFile = None,
    units: UnitsShown = Units.metric,
    details: HowManyInFull = 3,
) -> None:
    """Growth of each crack, and its inspection interval.

    From its initial to its limiting size.
    """
    from vivid_anvil.cli import run_cracks

    asked = run_cracks.Growing(spot, details, after_damage)
    run_cracks.grow(study, asked, Outputs(json_file, csv_file, figures, page=page), units.value)


@app.command("growth-tests", rich_help_panel=CRACKS)
def growth_tests(
    tests: GrowthTestsFile,
    r_ratio: RatioOfTests = None,
    piece: Annotated[
        str | None, typer.Option(help="For sizes against cycles: compact tension, three-point bend, middle tension.")
    ] = None,
    force_range: Annotated[str | None, typer.Option(help="Range of force on the piece, such as '4.5 kN'.")] = None,
    thickness: Annotated[str | None, typer.Option(help="Thickness of the piece, such as '12.5 mm'.")] = None,
    width: Annotated[str | None, typer.Option(help="Width of the piece, such as '50 mm'.")] = None,
    method: Annotated[str, typer.Option(help="polynomial or secant.")] = "polynomial",
    slope: Annotated[float | None, typer.Option(help="Fit only the constant, with this slope m.")] = None,
    json_file: JsonFile = None,
    csv_file: CsvFile = None,
    figures: FiguresFolder = None,
    page: PageFile = None,
    units: UnitsShown = Units.metric,
) -> None:
    """Fit a crack growth law to measured rates or sizes.

    Rates over ranges of K, or crack sizes against cycles of a test piece.
    """
    from vivid_anvil.cli import run_cracks

    readings = run_cracks.Readings(r_ratio, piece, force_range, thickness, width, method, slope)
    run_cracks.growth_tests(tests, readings, Outputs(json_file, csv_file, figures, page=page), units.value)


@app.command(rich_help_panel=CRACKS)
def inspections(
    study: StudyFile,
    spot: SpotName = None,
    every: Annotated[str | None, typer.Option(help="Interval, such as '1 year'; else the one that is allowed.")] = None,
    first: Annotated[str | None, typer.Option(help="When to look first, such as '2 years'.")] = None,
    json_file: JsonFile = None,
    csv_file: CsvFile = None,
    figures: FiguresFolder = None,
    page: PageFile = None,
    units: UnitsShown = Units.metric,
) -> None:
    """When to look at a crack; how large it may start.

    What would be seen at each look, how large the crack may start, how large it may get at other loads.
    """
    from vivid_anvil.cli import run_cracks

    asked = run_cracks.Looks(spot, every, first)
    run_cracks.inspections(study, asked, Outputs(json_file, csv_file, figures, page=page), units.value)


@app.command(rich_help_panel=CRACKS)
def flaws(
    study: StudyFile,
    flaw: Annotated[str | None, typer.Option(help="Only this flaw or indication, in full.")] = None,
    details: Annotated[int, typer.Option(min=0, help="How many of the most urgent are told in full.")] = 1,
    processes: Annotated[int, typer.Option(min=1, help="Processes that share a long list.")] = 2,
    json_file: JsonFile = None,
    csv_file: CsvFile = None,
    figures: FiguresFolder = None,
    page: PageFile = None,
    units: UnitsShown = Units.metric,
) -> None:
    """Which flaws may stay, by how much, until when.

    The most urgent with limits, growth, and what moves it.
    """
    from vivid_anvil.cli import run_flaws

    asked = run_flaws.Listing(flaw, details, processes)
    run_flaws.flaws(study, asked, Outputs(json_file, csv_file, figures, page=page), units.value)


@app.command(rich_help_panel=CRACKS)
def front(
    tables: Annotated[
        list[Path],
        typer.Argument(
            help=words("Contours along a crack front: position [mm], 'K_I contour 1 [MPa√m]', ..."), show_default=False
        ),
    ],
    case: Annotated[str | None, typer.Option(help="Which case, where the table has several.")] = None,
    sheet: Annotated[str | None, typer.Option(help="Sheet of a workbook.")] = None,
    youngs_modulus: Annotated[str, typer.Option(help="For K of J.")] = "207 GPa",
    poissons_ratio: Annotated[float, typer.Option(help="For K of J and mixed mode.")] = 0.3,
    rule: Annotated[
        str, typer.Option(help="Mixed mode: 'energy release rate' or 'largest tangential stress'.")
    ] = "energy release rate",
    size: Annotated[
        list[str] | None, typer.Option(help="Size of the crack in each table, such as '4 mm': makes a shape.")
    ] = None,
    stress: Annotated[str | None, typer.Option(help="Nominal stress of those models, such as '100 MPa'.")] = None,
    json_file: JsonFile = None,
    csv_file: CsvFile = None,
    figures: FiguresFolder = None,
    page: PageFile = None,
    units: UnitsShown = Units.metric,
) -> None:
    """K along a crack front of a finite-element model.

    What of it can be trusted, the worst position; several sizes as a shape.
    """
    from vivid_anvil.cli import run_flaws

    asked = run_flaws.Fronts(case, sheet, youngs_modulus, poissons_ratio, rule, tuple(size or ()), stress)
    run_flaws.fronts(tables, asked, Outputs(json_file, csv_file, figures, page=page), units.value)


@app.command(rich_help_panel=AFTER)
def report(
    study: StudyFile,
    files: Annotated[
        list[Path],
        typer.Argument(help="Where to write it: names that end in .html, .docx or .pdf.", show_default=False),
    ],
    section: Annotated[list[str] | None, typer.Option(help="Only this section. May be repeated.")] = None,
    leave_out: Annotated[list[str] | None, typer.Option(help="All but this section. May be repeated.")] = None,
    beside: Annotated[
        list[Path] | None, typer.Option(help="Another study or variant to hold beside it. May be repeated.")
    ] = None,
    date: Annotated[str | None, typer.Option(help="Its date, such as 2026-10-05; else today.")] = None,
    interactive: Annotated[
        bool, typer.Option("--interactive", help="Figures of the HTML report that zoom, turn and answer the pointer.")
    ] = False,
    units: UnitsShown = Units.metric,
) -> None:
    """A study and its answer as a document: HTML, Word or PDF.

    One content, in each of the files that are named.
    """
    from vivid_anvil.cli import run_report

    wanted = run_report.Wanted(tuple(section or ()), tuple(leave_out or ()), tuple(beside or ()), date, interactive)
    run_report.report(study, files, wanted, units.value)


@app.command(rich_help_panel=LIFE)
def explain(
    study: StudyFile,
    spot: SpotName = None,
    event: Annotated[str | None, typer.Option(help="Only cycles of this event.")] = None,
    stress: Annotated[
        str | None, typer.Option(help="The class that holds this stress, in the curve's terms, such as '85 MPa'.")
    ] = None,
    rule: Annotated[str | None, typer.Option(help="As if this were the mean-stress rule, such as gerber.")] = None,
    ply: Annotated[
        int | None, typer.Option(help="This ply of a laminate, from the bottom, in one jump of its life.")
    ] = None,
    jump: Annotated[
        int | None, typer.Option(help="This jump of a laminate; by default the one that ends a ply.")
    ] = None,
    latex: Annotated[bool, typer.Option("--latex", help="Print the steps as LaTeX.")] = False,
    json_file: JsonFile = None,
    csv_file: CsvFile = None,
    units: UnitsShown = Units.metric,
) -> None:
    """The hand calculation, numbered step by step.

    That behind the worst hot spot (or --spot), and one step of its crack.
    """
    from vivid_anvil.cli import run

    asked = run.Asked(spot, event, stress, latex, rule, ply, jump)
    run.explain(study, asked, Outputs(json_file, csv_file, None), units.value)


@app.command(rich_help_panel=AFTER)
def meaning(
    names: Annotated[
        list[str] | None,
        typer.Argument(help="Codes of findings, or terms, such as few-samples or rainflow; all without."),
    ] = None,
    json_file: JsonFile = None,
    csv_file: CsvFile = None,
) -> None:
    """What the code of a finding, or a term, means.

    Codes with what to do; terms and symbols of the trade in words.
    """
    from vivid_anvil.cli import run_meaning

    run_meaning.meaning(names or [], Outputs(json_file, csv_file, None))
