"""Options that the commands share."""

from __future__ import annotations

from enum import StrEnum
from pathlib import Path
from typing import Annotated

import typer

from vivid_anvil.cli.words import words


class Units(StrEnum):
    """The unit systems of what is shown."""

    metric = "metric"
    us = "us"


StudyFile = Annotated[Path, typer.Argument(help="Study file (TOML).", show_default=False)]
JsonFile = Annotated[Path | None, typer.Option("--json", help="Also write everything to this JSON file.")]
CsvFile = Annotated[Path | None, typer.Option("--csv", help="Also write the main table to this CSV file.")]
FiguresFolder = Annotated[Path | None, typer.Option("--figures", help="Also draw the figures into this folder.")]
PageFile = Annotated[
    Path | None, typer.Option("--page", help="Also put the figures on this page (HTML), to zoom, turn and point at.")
]
UnitsShown = Annotated[Units, typer.Option("--units", help="Units shown; files stay in MPa, mm, N.")]
SpotName = Annotated[str | None, typer.Option("--spot", help="Only the hot spot, or flaw, of this name.")]

CardsFolder = Annotated[Path | None, typer.Option("--cards", help="Folder of your own material cards.")]
TomlFile = Annotated[Path | None, typer.Option("--toml", help="Also export the curve for a study file.")]
TestsFile = Annotated[
    Path,
    typer.Argument(
        help=words("CSV or Excel: stress amplitude [MPa], life [cycles], run-out (yes or no)."), show_default=False
    ),
]
GrowthTestsFile = Annotated[
    Path,
    typer.Argument(
        help=words(
            "CSV or Excel: stress intensity range [MPa√m] and growth rate [mm/cycle]; or cycles and crack size [mm]."
        ),
        show_default=False,
    ),
]
RatioOfTests = Annotated[float | None, typer.Option(help="R of the tests, where there is no column r_ratio.")]
SheetOfTests = Annotated[str | None, typer.Option(help="Sheet of the workbook.")]
SurvivalShown = Annotated[float, typer.Option(help="Share of parts that outlive the curve.")]
ConfidenceShown = Annotated[float, typer.Option(help="How sure that is.")]
HowManyInFull = Annotated[
    int, typer.Option("--details", min=0, help="How many of the worst are told in full and drawn.")
]
