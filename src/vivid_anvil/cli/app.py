"""The commands."""

from __future__ import annotations

from pathlib import Path
from typing import Annotated

import typer

from vivid_anvil.cli.options import CsvFile, FiguresFolder, JsonFile, SpotName, StudyFile, Units, UnitsShown
from vivid_anvil.cli.outputs import Outputs

app = typer.Typer(
    help="Fatigue life and crack growth from load histories, with every number open to a hand check.",
    no_args_is_help=True,
    pretty_exceptions_enable=False,
    add_completion=False,
)


def _version(wanted: bool) -> None:
    if wanted:
        from importlib.metadata import version

        print(f"vivid-anvil {version('vivid-anvil')}")
        raise typer.Exit


@app.callback()
def _common(
    version: Annotated[
        bool, typer.Option("--version", callback=_version, is_eager=True, help="Show the version.")
    ] = False,
) -> None:
    """Options before the command."""


@app.command()
def demo(
    folder: Annotated[Path, typer.Argument(help="Folder to write the demo study into.")] = Path("larkfell-demo"),
    json_file: JsonFile = None,
    csv_file: CsvFile = None,
    figures: FiguresFolder = None,
    units: UnitsShown = Units.metric,
) -> None:
    """Write the demo study (the Larkfell chairlift) with its data, run it, show results, draw figures."""
    from vivid_anvil.cli import run
    from vivid_anvil.demo import write_demo

    study_file = write_demo(folder)
    run.whole_study(study_file, Outputs(json_file, csv_file, figures or folder / "figures"), units.value)


@app.command()
def check(
    study: StudyFile, json_file: JsonFile = None, csv_file: CsvFile = None, units: UnitsShown = Units.metric
) -> None:
    """Check a study file and every file that it names; say what would be computed, compute nothing."""
    from vivid_anvil.cli import run

    run.check(study, Outputs(json_file, csv_file, None), units.value)


@app.command()
def life(
    study: StudyFile,
    spot: SpotName = None,
    json_file: JsonFile = None,
    csv_file: CsvFile = None,
    figures: FiguresFolder = None,
    units: UnitsShown = Units.metric,
) -> None:
    """Life of each hot spot: damage, years, reserve factors, shares of events and range classes."""
    from vivid_anvil.cli import run

    run.life(study, spot, Outputs(json_file, csv_file, figures), units.value)


@app.command()
def grow(
    study: StudyFile,
    spot: SpotName = None,
    json_file: JsonFile = None,
    csv_file: CsvFile = None,
    figures: FiguresFolder = None,
    units: UnitsShown = Units.metric,
) -> None:
    """Growth of each crack to its limiting size, and the inspection interval."""
    from vivid_anvil.cli import run

    run.grow(study, spot, Outputs(json_file, csv_file, figures), units.value)


@app.command()
def explain(
    study: StudyFile,
    spot: SpotName = None,
    json_file: JsonFile = None,
    csv_file: CsvFile = None,
    units: UnitsShown = Units.metric,
) -> None:
    """The hand calculation behind the worst hot spot (or --spot), and one step of its crack."""
    from vivid_anvil.cli import run

    run.explain(study, spot, Outputs(json_file, csv_file, None), units.value)


@app.command()
def count(
    file: Annotated[
        Path, typer.Argument(help="History file; headers with units: 'vertical force [kN]'.", show_default=False)
    ],
    channel: Annotated[str | None, typer.Option(help="Channel to count; needed where there are several.")] = None,
    rate: Annotated[
        str | None, typer.Option(help="Sample rate, such as '100 Hz', where there is no time column.")
    ] = None,
    read: Annotated[
        list[str] | None, typer.Option(help="Setting of the reader: sheet=measured, unit=kN, ... Repeatable.")
    ] = None,
    method: Annotated[str, typer.Option(help="rainflow, range-pair or simple-range.")] = "rainflow",
    residue: Annotated[str, typer.Option(help="'half cycles' or 'repeated'.")] = "half cycles",
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
    units: UnitsShown = Units.metric,
) -> None:
    """Check one channel of a file, and count its cycles."""
    from vivid_anvil.cli import run_count

    how = run_count.How(channel, rate, tuple(read or ()), method, residue, gate, matrix, classes)
    command = run_count.in_chunks if chunked else run_count.whole
    command(file, how, Outputs(json_file, csv_file, figures, parquet_file), units.value)
