"""Files larger than memory: counting in chunks, into a matrix, with the residue carried over.

In: CSV, Parquet, HDF5 or .npy files. Out: samples chunk by chunk; a matrix of the whole file. Nothing but the chunk, the
open turning points and the matrix is kept.
"""

from __future__ import annotations

from collections.abc import Callable, Iterable, Iterator, Mapping
from dataclasses import dataclass
from pathlib import Path
from typing import Any

import numpy as np

from vivid_anvil.counting import _kernels
from vivid_anvil.counting.counter import RANGES_AND_MEANS, RainflowCounter
from vivid_anvil.counting.matrix import CycleMatrix
from vivid_anvil.ground.checks import FloatArray, finite_samples, one_of
from vivid_anvil.ground.errors import InputError, did_you_mean, listed
from vivid_anvil.ground.files import existing, first_line
from vivid_anvil.histories.block_of_text import NotClean, columns_of_block, parsed_blocks
from vivid_anvil.histories.read_csv import cell_by_cell, text_form
from vivid_anvil.histories.read_history import kind_of
from vivid_anvil.histories.read_tables import hdf5_file, parquet_file
from vivid_anvil.units import dimension_of, factor, opened
from vivid_anvil.writing.read_table import Header, headers

CHUNK = 1 << 20
SMALLEST_BLOCK = 1 << 20  # bytes of a text file
Watch = Callable[[str, int, int], None]


@opened()
def stream_channel(
    path: str | Path,
    channel: str,
    *,
    chunk: int = CHUNK,
    unit: str | None = None,
    units: Mapping[str, str] | None = None,
) -> Iterator[FloatArray]:
    """The samples of one channel of a file, about `chunk` at a time, in its coherent unit.

    `unit` is needed for .npy; the channel of HDF5 is the path of its dataset. Raises InputError as the readers do.
    """
    file = existing(path)
    kind = kind_of(file)
    if kind not in STREAMS:
        raise InputError(file.name, f"{kind} data", f"a file of {listed(STREAMS)}", "Write it as Parquet or HDF5.")
    names = dict(units or {}) | ({channel: unit} if unit else {})
    start = 0
    for raw, head in _told(STREAMS[kind](file, channel, chunk, names), file):
        samples = finite_samples(raw, where=f"{file.name}, {channel}, from sample {start} on", unit=head.unit)
        dimension = dimension_of(head.unit, head.where)
        scale = 1.0 if dimension.name == "number" else factor(head.unit, dimension, head.where)
        start += samples.size
        yield samples if scale == 1.0 else samples * scale


def _told(pieces: Iterator[tuple[FloatArray, Header]], path: Path) -> Iterator[tuple[FloatArray, Header]]:
    """The pieces of a file; what the reader behind raises on a damaged one is an InputError."""
    try:
        yield from pieces
    except (InputError, KeyboardInterrupt):
        raise
    except Exception as error:  # readers of formats raise errors of every kind
        raise InputError(path.name, f"a file that cannot be read ({first_line(error)})", "a whole file") from error


def dimension_in_file(path: str | Path, channel: str, *, unit: str | None = None) -> str:
    """The dimension of a channel of a file."""
    file = existing(path)
    _, head = next(iter(_told(STREAMS[kind_of(file)](file, channel, 2, {channel: unit} if unit else {}), file)))
    return dimension_of(head.unit, head.where).name


@dataclass(frozen=True, eq=False)
class FileCount:
    """What a whole file counts to: number of samples, their limits, the matrix of its cycles."""

    samples: int
    minimum: float
    maximum: float
    matrix: CycleMatrix


@opened()
def count_file(
    path: str | Path,
    channel: str,
    *,
    kind: str = "range-mean",
    classes: int = 64,
    residue: str = "half cycles",
    chunk: int = CHUNK,
    unit: str | None = None,
    watch: Watch | None = None,
) -> FileCount:
    """The matrix of the rainflow cycles of one channel of a file of any size.

    Two passes: one for the limits of the classes, one that counts. `kind` is "range-mean" or "maximum-minimum"; the residue
    counts half cycles unless it is "repeated".

    Parameters
    ----------
    path : str or path
        The file.
    channel : str
        The channel, by its name.
    kind : str, default "range-mean"
        What the two axes are: "range-mean" or "maximum-minimum".
    classes : int, default 64
        Number of even classes.
    residue : str, default "half cycles"
        What becomes of half cycles that are left: one of `RESIDUES`.
    chunk : int, default 1048576
        Samples at a time.
    unit : str, optional
        Unit of the column, where its heading has none.
    watch : Watch, optional
        Called with a label, how far it is, and of how many.

    Returns
    -------
    FileCount
        The matrix with what was read.

    Raises
    ------
    InputError
        For an argument of another kind, unit or range; the message says which.

    Examples
    --------
    >>> count_file("loaded_lap.csv", "vertical force", classes=32).matrix  # in the folder of `vivid-anvil demo`
    <CycleMatrix range-mean: 32 x 32 classes, 15144 cycles>
    """
    size, low, high = 0, np.inf, -np.inf
    for samples in stream_channel(path, channel, chunk=chunk, unit=unit):
        size, low, high = size + samples.size, min(low, float(samples.min())), max(high, float(samples.max()))
        _tell(watch, "reading the limits", size, 0)
    if not high > low:
        raise InputError(f"{path}, {channel}", "a constant channel" if size else "no samples", "a load that changes")
    dimension = dimension_in_file(path, channel, unit=unit)
    counted = count_chunks(
        _watched(stream_channel(path, channel, chunk=chunk, unit=unit), size, watch),
        low,
        high,
        kind=kind,
        classes=classes,
        residue=residue,
        dimension=dimension,
    )
    return FileCount(size, low, high, counted)


@opened()
def count_chunks(
    chunks: Iterable[FloatArray],
    minimum: float,
    maximum: float,
    *,
    kind: str = "range-mean",
    classes: int = 64,
    residue: str = "half cycles",
    dimension: str = "stress",
) -> CycleMatrix:
    """The matrix of the rainflow cycles of a history that comes in `chunks`, all within `minimum` and `maximum`.

    The residue counts half cycles unless it is "repeated".

    Parameters
    ----------
    chunks : Iterable[ndarray]
        Pieces of the history, in their order.
    minimum : float
        Smallest value that occurs.
    maximum : float
        Largest value that occurs.
    kind : str, default "range-mean"
        What the two axes are: "range-mean" or "maximum-minimum".
    classes : int, default 64
        Number of even classes.
    residue : str, default "half cycles"
        What becomes of half cycles that are left: one of `RESIDUES`.
    dimension : str, default "stress"
        What the values are, such as "stress" or "force"; a name of `DIMENSIONS`.

    Returns
    -------
    CycleMatrix
        The matrix.

    Raises
    ------
    InputError
        For an argument of another kind, unit or range; the message says which.

    Examples
    --------
    >>> history = np.sin(np.arange(1000.0))
    >>> count_chunks(np.array_split(history, 7), -1.0, 1.0, classes=8).total == count_chunks([history], -1.0, 1.0).total
    True
    """
    one_of("matrix, kind", kind, ("range-mean", "maximum-minimum"))
    span = (maximum - minimum) * (1.0 + 1e-12)
    steps = np.arange(classes + 1) / classes
    values = minimum + span * steps
    edges: dict[str, Any] = {"row_edges": span * steps if kind == "range-mean" else values, "column_edges": values}
    counter = RainflowCounter(dimension=dimension)
    counts = np.zeros((classes, classes))
    grid = (float(edges["row_edges"][0]), span / classes, minimum, span / classes)
    ones = np.ones(1)
    for (ranges, means, *_), used in counter.in_pieces(chunks, RANGES_AND_MEANS):
        if ones.size < used:
            ones = np.ones(2 * used)
        _bin(*_pair(kind, ranges[:used], means[:used]), ones, grid, counts)
    ending = counter.finish(residue)
    _bin(*_pair(kind, ending.range, ending.mean), ending.count, grid, counts)
    return CycleMatrix(kind, edges["row_edges"], edges["column_edges"], counts, dimension)


def _pair(kind: str, ranges: FloatArray, means: FloatArray) -> tuple[FloatArray, FloatArray]:
    if kind == "range-mean":
        return ranges, means
    return means + 0.5 * ranges, means - 0.5 * ranges


def _bin(
    first: FloatArray,
    second: FloatArray,
    count: FloatArray,
    grid: tuple[float, float, float, float],
    counts: FloatArray,
) -> None:
    outside = _kernels.bin_two(first, second, count, grid[0], grid[1], grid[2], grid[3], counts)
    if outside:
        raise InputError(
            "counting", f"{outside} cycles beyond the limits", "minimum and maximum that hold the whole history"
        )


def _watched(chunks: Iterator[FloatArray], size: int, watch: Watch | None) -> Iterator[FloatArray]:
    done = 0
    for samples in chunks:
        done += samples.size
        _tell(watch, "counting", done, size)
        yield samples


def _tell(watch: Watch | None, label: str, done: int, of: int) -> None:
    if watch is not None:
        watch(label, done, of)


Pieces = Iterator[tuple[FloatArray, Header]]


def _csv(path: Path, channel: str, chunk: int, units: Mapping[str, str]) -> Pieces:
    form = text_form(path, delimiter=None, decimal=None, encoding=None, header_line=None)
    heads = headers(form.cells, lambda i: f"{path.name}, line {form.header_line}, column {i + 1}", units)
    head = _head(heads, channel, path)
    wanted = [heads.index(head)]
    line = form.header_line + 1

    def parse(block: bytes) -> FloatArray | None:
        try:
            return columns_of_block(block, form.delimiter, form.decimal, len(heads), wanted)[0]
        except NotClean:
            return None

    encoding = "utf-8" if form.encoding == "utf-16" else form.encoding
    size = max(16 * chunk, SMALLEST_BLOCK)
    for block, values in parsed_blocks(path, form.encoding, form.header_line, parse, size):
        if values is None:
            lines = block.decode(encoding, "replace").splitlines()
            values = np.array(cell_by_cell(lines, line, path, form, heads, wanted), dtype=np.float64)[:, 0]
        yield values, head
        line += block.count(b"\n")


def _parquet(path: Path, channel: str, chunk: int, units: Mapping[str, str]) -> Pieces:
    file = parquet_file(path)
    cells = file.schema_arrow.names
    heads = headers(cells, lambda i: f"{path.name}, column {cells[i]!r}", units)
    head = _head(heads, channel, path)
    for batch in file.iter_batches(batch_size=chunk, columns=[cells[heads.index(head)]]):
        yield np.asarray(batch.column(0).to_numpy(zero_copy_only=False), dtype=np.float64), head


def _hdf5(path: Path, channel: str, chunk: int, units: Mapping[str, str]) -> Pieces:
    with hdf5_file(path) as file:
        if channel not in file:
            raise InputError(
                path.name, f"no dataset {channel!r}", f"one of {listed(file)}", did_you_mean(channel, file)
            )
        found = file[channel]
        name = found.name.rsplit("/", 1)[-1]
        cell = f"{name} [{found.attrs['unit']}]" if "unit" in found.attrs else name
        head = headers([cell], lambda _: f"{path.name}, dataset {channel!r}", {name: units.get(channel, "")})[0]
        for start in range(0, found.shape[0], chunk):
            yield found[start : start + chunk], head


def _npy(path: Path, channel: str, chunk: int, units: Mapping[str, str]) -> Pieces:
    if channel not in units:
        raise InputError(path.name, "no unit", "the unit of the values", 'State it: unit="kN".')
    values = np.load(path, mmap_mode="r", allow_pickle=False)
    head = Header(channel, units[channel], path.name)
    for start in range(0, values.shape[0], chunk):
        yield np.array(values[start : start + chunk]), head


def _head(heads: list[Header], channel: str, path: Path) -> Header:
    names = [head.name for head in heads]
    if channel not in names:
        raise InputError(path.name, f"no channel {channel!r}", f"one of {listed(names)}", did_you_mean(channel, names))
    return heads[names.index(channel)]


STREAMS: dict[str, Callable[[Path, str, int, Mapping[str, str]], Pieces]] = {
    "text": _csv,
    "Parquet": _parquet,
    "HDF5": _hdf5,
    "NumPy": _npy,
}
