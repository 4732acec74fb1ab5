"""Options that the commands share."""

from __future__ import annotations

from enum import StrEnum
from pathlib import Path
from typing import Annotated

import typer


class Units(StrEnum):
    """The unit systems of what is shown."""

    metric = "metric"
    us = "us"


StudyFile = Annotated[Path, typer.Argument(help="Study file (TOML).", show_default=False)]
JsonFile = Annotated[Path | None, typer.Option("--json", help="Also write everything to this JSON file.")]
CsvFile = Annotated[Path | None, typer.Option("--csv", help="Also write the main table to this CSV file.")]
FiguresFolder = Annotated[Path | None, typer.Option("--figures", help="Also draw the figures into this folder.")]
UnitsShown = Annotated[Units, typer.Option("--units", help="Units shown; files stay in MPa, mm, N.")]
SpotName = Annotated[str | None, typer.Option("--spot", help="Only the hot spot of this name.")]
