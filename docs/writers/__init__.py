"""Pages of the site that come from the code, so that they cannot drift from it."""

from __future__ import annotations

import shutil
from pathlib import Path

from writers.api import write_api
from writers.commands import write_commands
from writers.formulas import write_formulas
from writers.gallery import write_gallery
from writers.study_file import write_study_file
from writers.words import write_findings, write_glossary


def write_pages(folder: Path) -> None:
    """All of them, anew."""
    shutil.rmtree(folder, ignore_errors=True)
    folder.mkdir()
    write_commands(folder / "commands.md")
    write_study_file(folder / "study-file.md")
    write_findings(folder / "findings.md")
    write_glossary(folder / "glossary.md")
    write_formulas(folder / "formulas.md")
    write_gallery(folder / "gallery")
    write_api(folder / "api")
