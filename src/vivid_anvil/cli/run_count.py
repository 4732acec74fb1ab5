"""What the command `count` does: read, check, count, show, write."""

from __future__ import annotations

import dataclasses
from dataclasses import dataclass
from pathlib import Path
from typing import Any

from vivid_anvil.cli.outputs import Drawing, Outputs
from vivid_anvil.cli.progress import progress
from vivid_anvil.ground.errors import InputError, listed
from vivid_anvil.units import DIMENSIONS, UnitSystem, coherent, number

SLOPES = (3.0, 5.0)


@dataclass(frozen=True)
class How:
    """The settings of the command."""

    channel: str | None
    rate: str | None
    read: tuple[str, ...]
    method: str
    residue: str
    gate: str | None
    matrix: str | None
    classes: int

    def reader_settings(self) -> dict[str, Any]:
        """Settings of the reader: numbers as numbers, everything else as text."""
        settings: dict[str, Any] = {}
        for one in self.read:
            key, sign, value = one.partition("=")
            if not sign or not key:
                raise InputError("--read", repr(one), "a key and a value", "Write for instance --read sheet=measured.")
            settings[key] = int(value) if value.isdecimal() else value
        if self.rate is not None:
            settings["sample_rate"] = self.rate
        return settings


def whole(path: Path, how: How, outputs: Outputs, units: UnitSystem) -> None:
    """Check and count a file that fits into memory."""
    outputs.check()
    with progress("reading the file") as watch:
        from vivid_anvil.counting import (
            COUNTING_METHODS,
            binning_effect,
            binning_findings,
            cycle_matrix,
            turning_points,
        )
        from vivid_anvil.counting.tables import largest_cycles, matrix_table, range_classes
        from vivid_anvil.damage import class_edges
        from vivid_anvil.histories import check_history, read_history
        from vivid_anvil.writing.plain import finding_records
        from vivid_anvil.writing.table import as_table

        COUNTING_METHODS.get(how.method, "--method")
        history = read_history(path, **how.reader_settings())
        name = how.channel or _only_channel(history, path)
        samples = history[name].values
        watch("counting", 0, 1)
        cycles, removed = _counted(history, name, how)
        check = next(one for one in check_history(history) if one.channel == name)
        points = turning_points(samples).size
        classes = range_classes(cycles, class_edges(float(cycles.range.max(initial=0.0))), name, units)
        matrix = (
            cycle_matrix(cycles, how.matrix, classes=how.classes, samples=samples)
            if how.matrix and len(cycles)
            else None
        )
        record = {
            "file": path.name,
            "channel": name,
            "samples": len(samples),
            "duration [s]": history.duration,
            "turning points": points,
            "method": how.method,
            "residue": how.residue,
            "cycles": cycles.total,
            "removed by gate": removed,
            "classes": classes.rows(),
            "findings": finding_records(check.findings),
        } | ({} if matrix is None else {"matrix": _matrix_record(matrix)})
        drawings = _drawings(history, name, cycles, matrix, how, units)
        written = outputs.write(record, as_table(cycles.to_frame()), drawings, watch)
    from vivid_anvil.cli import show

    out = show.console()
    out.print(show.heading(f"{path.name}, {name}"))
    out.print(f"{len(samples)} samples, {history.course}; {points} turning points")
    out.print(show.page(dataclasses.replace(check.page(units), title=""), units))
    residue = f", residue as {how.residue}" if how.method == "rainflow" else ""
    gate = "" if how.gate is None else f"; gate {how.gate} took out {number(removed, 8)}"
    out.print(f"{number(cycles.total, 8)} cycles by {how.method} counting{residue}{gate}")
    if matrix is not None:
        effects = ", ".join(f"{binning_effect(cycles, matrix, slope):+.2%} at slope {slope:g}" for slope in SLOPES)
        out.print(f"{matrix!r}: binning to middle values moves the damage by {effects}", markup=False)
        out.print(show.findings_list(binning_findings(cycles, matrix, SLOPES[-1])))
        out.print(show.table(matrix_table(matrix, units), units))
    if not len(cycles):
        out.print("The channel never changes: there is no cycle to count.")
    else:
        out.print(show.table(largest_cycles(cycles), units))
        out.print(show.table(classes, units))
    show.say_written(out, written)


def in_chunks(path: Path, how: How, outputs: Outputs, units: UnitSystem) -> None:
    """Count a file of any size into a matrix."""
    outputs.check()
    if how.channel is None:
        raise InputError("--chunked", "no channel", "the name of one", "Add --channel.")
    with progress("reading the file") as watch:
        from vivid_anvil.counting.tables import range_classes
        from vivid_anvil.damage import class_edges
        from vivid_anvil.histories import count_file
        from vivid_anvil.writing.table import as_table

        unit = how.reader_settings().get("unit")
        kind = how.matrix or "range-mean"
        found = count_file(
            path, how.channel, kind=kind, classes=how.classes, residue=how.residue, unit=unit, watch=watch
        )
        record = {
            "file": path.name,
            "channel": how.channel,
            "samples": found.samples,
            "matrix": _matrix_record(found.matrix),
        }
        filled = found.matrix.cycles()
        drawings: list[Drawing] = [Drawing(f"matrix {path.stem} {how.channel}", found.matrix, units)]
        written = outputs.write(record, as_table(filled.to_frame()), drawings, watch)
    from vivid_anvil.cli import show

    out = show.console()
    out.print(show.heading(f"{path.name}, {how.channel}"))
    out.print(
        f"{found.samples} samples; {number(found.matrix.total, 8)} cycles, residue as {how.residue}; {found.matrix!r}"
    )
    edges = class_edges(float(filled.range.max(initial=0.0)))
    out.print(show.table(range_classes(filled, edges, how.channel, units), units))
    show.say_written(out, written)


def _counted(history: Any, name: str, how: How) -> tuple[Any, float]:
    """The cycles, and how many a gate took out."""
    from vivid_anvil.counting import COUNTING_METHODS
    from vivid_anvil.events import GatedHistory

    one = history[name]
    if how.method != "rainflow":
        if how.gate is not None:
            raise InputError(
                "--gate",
                f"a gate with {how.method} counting",
                "rainflow counting",
                "The gate takes out rainflow cycles.",
            )
        count = COUNTING_METHODS[how.method].cycles
        rate = history.counting_rate
        return count(one.values, dimension=one.dimension, sample_rate=rate, residue=how.residue), 0.0
    if how.gate is None:
        return history.cycles_of(name, residue=how.residue), 0.0
    gated = GatedHistory(history, {name: coherent(how.gate, one.dimension, "--gate")})
    left = gated.gated(name)
    return gated.cycles_of(name, residue=how.residue), 0.0 if left is None else left.removed.total


def _only_channel(history: Any, path: Path) -> str:
    names = [channel.name for channel in history.channels]
    if len(names) > 1:
        raise InputError(
            path.name, f"{len(names)} channels", "the name of one", f"Add --channel with one of {listed(names)}."
        )
    return str(names[0])


def _matrix_record(matrix: Any) -> dict[str, Any]:
    unit = DIMENSIONS[matrix.dimension].coherent
    return {
        "kind": matrix.kind,
        f"row edges [{unit}]": matrix.row_edges.tolist(),
        f"column edges [{unit}]": matrix.column_edges.tolist(),
        "counts": matrix.counts.tolist(),
    }


def _drawings(history: Any, name: str, cycles: Any, matrix: Any, how: How, units: UnitSystem) -> list[Drawing]:
    from vivid_anvil.events import GatedHistory

    alone = dataclasses.replace(history, channels=(history[name],))
    thing: Any = alone
    if how.gate is not None:
        thing = GatedHistory(alone, {name: coherent(how.gate, history[name].dimension, "--gate")})
    drawings: list[Drawing] = [Drawing(f"history {history.name}", thing, units)]
    if len(cycles):
        drawings.append(Drawing(f"cycles {history.name} {name}", cycles, units))
    if matrix is not None:
        drawings.append(Drawing(f"matrix {history.name} {name}", matrix, units))
    return drawings
