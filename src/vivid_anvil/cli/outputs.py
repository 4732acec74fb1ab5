"""Files that a command writes: JSON, CSV, figures. All or none: checked before, renamed into place after."""

from __future__ import annotations

import csv
import io
import json
import re
from collections.abc import Callable, Sequence
from dataclasses import dataclass
from pathlib import Path
from typing import Any

from vivid_anvil.errors import InputError
from vivid_anvil.files import replacing
from vivid_anvil.records import plain

Drawing = tuple[str, Callable[[], Any]]
Watch = Callable[[str, int, int], None]


@dataclass(frozen=True)
class Outputs:
    """Where to write; None for what is not asked for."""

    json_file: Path | None = None
    csv_file: Path | None = None
    figures: Path | None = None
    parquet_file: Path | None = None

    def check(self) -> None:
        """InputError, before anything is computed, for a place that cannot be written."""
        for path in (self.json_file, self.csv_file, self.parquet_file):
            if path is not None:
                if path.is_dir():
                    raise InputError(str(path), "a folder", "the name of a file to write")
                _try_to_write(path.parent, path)
        if self.figures is not None:
            existing = next(place for place in (self.figures, *self.figures.absolute().parents) if place.exists())
            _try_to_write(existing, self.figures)

    def write(
        self,
        record: dict[str, Any],
        rows: Sequence[dict[str, Any]],
        drawings: Sequence[Drawing] = (),
        watch: Watch | None = None,
        whole_table: Callable[[], Any] | None = None,
    ) -> list[Path]:
        """Write what is asked for; the files written. Parquet holds `whole_table`, a data frame, or else the rows."""
        written = []
        if self.json_file is not None:
            text = json.dumps(plain(record), indent=2, ensure_ascii=False, allow_nan=False)
            written.append(_replace(self.json_file, text + "\n"))
        if self.csv_file is not None:
            written.append(_replace(self.csv_file, _csv_text(rows)))
        if self.parquet_file is not None:
            written.append(_replace_parquet(self.parquet_file, rows, whole_table))
        if self.figures is not None:
            from vivid_anvil.figures import save_figure

            self.figures.mkdir(parents=True, exist_ok=True)
            for i, (name, draw) in enumerate(drawings):
                if watch is not None:
                    watch(f"drawing {name}", i, len(drawings))
                written.append(save_figure(draw(), self.figures / f"{file_name(name)}.png"))
        return written


def _replace_parquet(path: Path, rows: Sequence[dict[str, Any]], whole_table: Callable[[], Any] | None) -> Path:
    import pyarrow as pa
    from pyarrow import parquet

    made = pa.Table.from_pylist(list(rows)) if whole_table is None else pa.Table.from_pandas(whole_table())
    with replacing(path) as temporary:
        parquet.write_table(made, temporary)
    return path


def file_name(text: str) -> str:
    """A name for files from any text: 'weld toe at the grip head' -> 'weld-toe-at-the-grip-head'."""
    return re.sub(r"[^\w.-]+", "-", text.strip().lower()).strip("-") or "figure"


def _csv_text(rows: Sequence[dict[str, Any]]) -> str:
    buffer = io.StringIO()
    writer = csv.DictWriter(buffer, fieldnames=list(rows[0]) if rows else [], lineterminator="\n")
    writer.writeheader()
    writer.writerows(rows)
    return buffer.getvalue()


def _try_to_write(folder: Path, wanted: Path) -> None:
    probe = folder / f".{wanted.name}.probe"
    try:
        probe.touch()
        probe.unlink()
    except OSError as error:
        reason = error.strerror or "no access"
        raise InputError(
            str(wanted), f"a place that cannot be written ({reason})", "a folder that exists and can be written"
        ) from None


def _replace(path: Path, text: str) -> Path:
    with replacing(path) as temporary:
        temporary.write_text(text, encoding="utf-8")
    return path
