"""Files that a command writes: JSON, CSV, figures. All or none: checked before, renamed into place after."""

from __future__ import annotations

import contextlib
import re
from collections.abc import Callable, Sequence
from dataclasses import dataclass
from functools import partial
from pathlib import Path
from typing import TYPE_CHECKING, Any

from vivid_anvil.ground.errors import InputError
from vivid_anvil.ground.extras import needed
from vivid_anvil.ground.files import all_or_none, fingerprint, inputs_so_far, to_be_written

if TYPE_CHECKING:
    from vivid_anvil.units import UnitSystem
    from vivid_anvil.writing.table import Table

Watch = Callable[[str, int, int], None]


@dataclass(frozen=True)
class Drawing:
    """What is to be drawn, as a figure of that name or on a page: a noun or result, or a `partial` that makes it then."""

    name: str
    thing: Any
    units: UnitSystem

    @property
    def made(self) -> Any:
        """The noun or result."""
        return self.thing() if isinstance(self.thing, partial) else self.thing


JSON_FORMAT = 2


def heading() -> dict[str, Any]:
    """What stands at the top of every JSON file: its format, who wrote it, and from which inputs."""
    from importlib.metadata import version

    return {
        "format": JSON_FORMAT,
        "written_by": f"vivid-anvil {version('vivid-anvil')}",
        "inputs": [fingerprint(path) for path in inputs_so_far()],
    }


@dataclass(frozen=True)
class Outputs:
    """Where to write; None for what is not asked for. `others` are files that a command writes beside these."""

    json_file: Path | None = None
    csv_file: Path | None = None
    figures: Path | None = None
    parquet_file: Path | None = None
    page: Path | None = None
    others: tuple[Path | None, ...] = ()

    @property
    def files(self) -> tuple[Path, ...]:
        """The files to write."""
        every = (self.json_file, self.csv_file, self.parquet_file, self.page, *self.others)
        return tuple(path for path in every if path is not None)

    def check(self) -> None:
        """InputError, before anything is computed, for a place that cannot be written and for a file twice.

        From then on reading one of the outputs as an input is an error too.
        """
        for path in self.files:
            if _kind_of(path) == "a folder":
                raise InputError(str(path), "a folder", "the name of a file to write")
            _try_to_write(path.parent, path)
        for i, path in enumerate(self.files):
            if path.resolve() in [other.resolve() for other in self.files[:i]]:
                raise InputError(str(path), "the name of two outputs", "a file of its own for each")
        if self.page is not None:
            from vivid_anvil.pages import checked_place

            checked_place("--page", self.page)
        if self.parquet_file is not None:
            needed("pyarrow", "--parquet")
        if self.figures is not None:
            needed("matplotlib", "--figures")
            if _kind_of(self.figures) == "a file":
                raise InputError(str(self.figures), "a file", "the name of a folder for figures")
            existing = next(place for place in (self.figures, *self.figures.absolute().parents) if place.exists())
            _try_to_write(existing, self.figures)
        to_be_written(self.files)

    def write(
        self,
        record: dict[str, Any],
        table: Table,
        drawings: Sequence[Drawing] = (),
        watch: Watch | None = None,
        whole_table: Callable[[], Any] | None = None,
        others: Sequence[Callable[[Path], Any]] = (),
    ) -> list[Path]:
        """Write what is asked for, all or nothing; the files written.

        CSV holds the `table`, Parquet `whole_table`, a data frame, or the same table; `others` fill the files of that name.
        """
        import json

        from vivid_anvil.writing.plain import plain

        written = list(self.files)
        figures = self.figures
        made = [] if figures is None else [at for at in (figures, *figures.absolute().parents) if not at.exists()]
        try:
            with all_or_none() as stage:
                for path, fill in zip(self.others, others, strict=True):
                    if path is not None:
                        fill(stage(path))
                if self.json_file is not None:
                    text = json.dumps(plain({**heading(), **record}), indent=2, ensure_ascii=False, allow_nan=False)
                    stage(self.json_file).write_text(text + "\n", encoding="utf-8", errors="replace")
                if self.csv_file is not None:
                    stage(self.csv_file).write_text(_csv_text(table.rows()), encoding="utf-8", errors="replace")
                if self.parquet_file is not None:
                    _write_parquet(stage(self.parquet_file), table, whole_table)
                if self.page is not None:
                    stage(self.page).write_text(_page(self.page, record, drawings, watch), encoding="utf-8")
                if figures is not None:
                    figures.mkdir(parents=True, exist_ok=True)
                    written += self._draw(figures, drawings, watch, stage)
        except BaseException:
            for folder in made:
                with contextlib.suppress(OSError):  # not empty: somebody else's too
                    folder.rmdir()
            raise
        return written

    def _draw(
        self, folder: Path, drawings: Sequence[Drawing], watch: Watch | None, stage: Callable[[str | Path], Path]
    ) -> list[Path]:
        from vivid_anvil.figures import draw_into, plot

        found = []
        for i, (one, name) in enumerate(zip(drawings, file_names([one.name for one in drawings]), strict=True)):
            if watch is not None:
                watch(f"drawing {name}", i, len(drawings))
            path = folder / f"{name}.png"
            draw_into(plot(one.made, units=one.units), stage(path))
            found.append(path)
        return found


def _page(path: Path, record: dict[str, Any], drawings: Sequence[Drawing], watch: Watch | None) -> str:
    """The page of all that is drawn."""
    from vivid_anvil.pages import page_text

    units: UnitSystem = drawings[0].units if drawings else "metric"
    names = file_names([one.name for one in drawings])
    things = [(name.replace("-", " "), one.made) for name, one in zip(names, drawings, strict=True)]
    return page_text(dict(things), str(record.get("title") or path.stem), units=units, watch=watch)


def _kind_of(path: Path) -> str:
    """What stands there; InputError for a name that cannot be one."""
    try:
        return "a folder" if path.is_dir() else "a file" if path.exists() else "nothing"
    except (ValueError, OSError) as error:
        raise InputError(repr(str(path))[:80], f"no name of a file ({error})", "the name of a file to write") from None


def _write_parquet(path: Path, table: Table, whole_table: Callable[[], Any] | None) -> None:
    import pyarrow as pa
    from pyarrow import parquet

    made = pa.Table.from_pandas(table.to_frame() if whole_table is None else whole_table())
    parquet.write_table(made, path)


def file_names(texts: Sequence[str]) -> list[str]:
    """Names for files from texts, each its own: the second of two alike ends in -2.

    >>> file_names(["toe [left]", "toe (left)", "heel"])
    ['toe-left', 'toe-left-2', 'heel']
    """
    names: list[str] = []
    for text in texts:
        name = first = file_name(text)[:100]
        number = 2
        while name in names:
            name, number = f"{first}-{number}", number + 1
        names.append(name)
    return names


def file_name(text: str) -> str:
    """A name for files from any text: 'weld toe at the grip head' -> 'weld-toe-at-the-grip-head'."""
    return re.sub(r"[^\w.-]+", "-", text.strip().lower()).strip("-") or "figure"


def into_csv(table: Table, path: Path) -> None:
    """Write a table to a file."""
    path.write_text(_csv_text(table.rows()), encoding="utf-8", errors="replace")


def _csv_text(rows: Sequence[dict[str, Any]]) -> str:
    import csv
    import io

    buffer = io.StringIO()
    heads = list(dict.fromkeys(key for row in rows for key in row))
    writer = csv.DictWriter(buffer, fieldnames=heads, lineterminator="\n")
    writer.writeheader()
    writer.writerows({key: _no_formula(value) for key, value in row.items()} for row in rows)
    return buffer.getvalue()


def _no_formula(value: Any) -> Any:
    """Text that a spreadsheet would take for a formula with a quote before it."""
    return f"'{value}" if isinstance(value, str) and value.startswith(("=", "+", "-", "@", "\t", "\r")) else value


def _try_to_write(folder: Path, wanted: Path) -> None:
    import tempfile

    try:
        with tempfile.NamedTemporaryFile(dir=folder, prefix=".probe-"):
            pass
    except OSError as error:
        reason = error.strerror or "no access"
        raise InputError(
            str(wanted), f"a place that cannot be written ({reason})", "a folder that exists and can be written"
        ) from None
