"""What the command report does: read, run, put together, write."""

from __future__ import annotations

import dataclasses
from dataclasses import dataclass
from pathlib import Path
from typing import Any

from vivid_anvil.cli.outputs import Outputs
from vivid_anvil.cli.progress import progress
from vivid_anvil.ground.errors import InputError
from vivid_anvil.units import UnitSystem


@dataclass(frozen=True)
class Wanted:
    """Which sections, which other studies beside it."""

    sections: tuple[str, ...] = ()
    leave_out: tuple[str, ...] = ()
    beside: tuple[Path, ...] = ()
    date: str | None = None
    interactive: bool = False


def report(path: Path, files: list[Path], wanted: Wanted, units: UnitSystem) -> None:
    """A study and what it answers as documents."""
    outputs = Outputs(others=tuple(files))
    outputs.check()
    with progress("reading the study") as watch:
        from vivid_anvil.ground.files import inputs_so_far
        from vivid_anvil.reports import build_report, report_bytes, writer_of
        from vivid_anvil.study import read_study, run_study

        for file in files:
            writer_of(file)
        study = read_study(path, watch=watch)
        settings = _settings(study, wanted)
        result = run_study(study, watch=watch)
        others = {one.stem: run_study(read_study(one, watch=watch), watch=watch) for one in wanted.beside}
        if len(others) < len(wanted.beside):
            raise InputError("--beside", "two studies of one name", "different names")
        inputs = inputs_so_far()
        document = build_report(result, settings, others=others, inputs=inputs, units=units, watch=watch)

        def fill(file: Path) -> Any:
            return lambda place: place.write_bytes(report_bytes(document, file, settings))

        written = outputs.write({}, result.tables()[0], others=[fill(file) for file in files])
    from vivid_anvil.cli import show

    out = show.console()
    show.say_written(out, written)


def _settings(study: Any, wanted: Wanted) -> Any:
    """Those of the study with what the command says; the day of the report by the option."""
    import datetime

    from vivid_anvil.study.report_settings import ReportSettings

    settings = study.report or ReportSettings()
    if wanted.sections:
        settings = dataclasses.replace(settings, sections=wanted.sections, leave_out=None)
    if wanted.leave_out:
        settings = dataclasses.replace(settings, leave_out=wanted.leave_out, sections=None)
    if wanted.interactive:
        settings = dataclasses.replace(settings, pictures="interactive")
    if wanted.date is not None:
        try:
            settings = dataclasses.replace(settings, date=datetime.date.fromisoformat(wanted.date))
        except ValueError:
            raise InputError("--date", repr(wanted.date), "a date such as 2026-10-05") from None
    return settings
