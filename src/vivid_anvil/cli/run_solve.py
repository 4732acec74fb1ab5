"""What the command solve does: read, ask, show, write."""

from __future__ import annotations

import dataclasses
from pathlib import Path
from typing import TYPE_CHECKING, Any

from vivid_anvil.cli.outputs import Outputs
from vivid_anvil.cli.progress import progress
from vivid_anvil.units import UnitSystem

if TYPE_CHECKING:
    from vivid_anvil.study import Questions


def solve(path: Path, spot: str | None, asked: Questions, outputs: Outputs, units: UnitSystem) -> None:
    """The answers for one place, the worst by default."""
    outputs.check()
    with progress("reading the study") as watch:
        from vivid_anvil.study import FlawAnswers, answers, answers_of_flaw, asks_for_a_flaw, read_study

        study = read_study(path, watch=watch)
        solved: Any = answers_of_flaw if asks_for_a_flaw(study, spot) else answers
        result = solved(study, spot, asked, watch=watch)
        written = outputs.write(result.to_dict(), result.tables()[0])
    from vivid_anvil.cli import show

    out = show.console()
    out.print(show.page(dataclasses.replace(result.page(units), findings=None), units))
    command = "flaws" if isinstance(result, FlawAnswers) else "life"
    out.print(show.findings_summary(result.findings, f"vivid-anvil {command} {path.name}"))
    show.say_written(out, written)
