"""Numbers of a block of lines, to the last digit: by Arrow where it is installed, else by NumPy, which takes longer."""

from __future__ import annotations

import io
from collections import deque
from collections.abc import Callable, Iterator, Sequence
from concurrent.futures import Future, ThreadPoolExecutor
from pathlib import Path
from typing import IO, Any, TypeVar

import numpy as np

from vivid_anvil.ground.checks import FloatArray
from vivid_anvil.ground.extras import there

BLOCK, READERS = 1 << 22, 2
Parsed = TypeVar("Parsed")


def parsed_blocks(
    path: Path, encoding: str, header_line: int, parse: Callable[[bytes], Parsed], size: int = BLOCK
) -> Iterator[tuple[bytes, Parsed]]:
    """Blocks of whole lines below the header, in their order, and what `parse` makes of each, two at a time."""
    with _opened(path, encoding) as file, ThreadPoolExecutor(READERS) as pool:
        for _ in range(header_line):
            file.readline()
        waiting: deque[tuple[bytes, Future[Parsed]]] = deque()
        while block := file.read(size) + file.readline():
            whole = block if isinstance(block, bytes) else block.encode()
            waiting.append((whole, pool.submit(parse, whole)))
            if len(waiting) > 2 * READERS:
                first, job = waiting.popleft()
                yield first, job.result()
        for first, job in waiting:
            yield first, job.result()


def _opened(path: Path, encoding: str) -> IO[Any]:
    """The file as bytes whose lines end in one byte; as text where its encoding has more."""
    return path.open(encoding=encoding, newline="") if encoding == "utf-16" else path.open("rb")


class NotClean(ValueError):
    """A block that is not numbers in every cell: it is read cell by cell, which tells where."""


def columns_of_block(
    block: bytes, delimiter: str, decimal: str, columns: int, wanted: Sequence[int]
) -> list[FloatArray]:
    """The `wanted` ones of the columns of whole lines, which must hold numbers; NotClean for anything else.

    >>> columns_of_block(b"1,2.5\\n3,4\\n", ",", ".", 2, [1])[0].tolist()
    [2.5, 4.0]
    """
    return (by_arrow if there("pyarrow") else by_numpy)(block, delimiter, decimal, columns, wanted)


def by_arrow(block: bytes, delimiter: str, decimal: str, columns: int, wanted: Sequence[int]) -> list[FloatArray]:
    """The columns by the reader of Arrow."""
    from pyarrow import ArrowInvalid, BufferReader, csv, float64, py_buffer

    names = [str(i) for i in range(columns)]
    kept = [names[i] for i in wanted]
    try:
        table = csv.read_csv(
            BufferReader(py_buffer(block)),
            read_options=csv.ReadOptions(column_names=names, use_threads=False, block_size=len(block) + 1),
            parse_options=csv.ParseOptions(delimiter=delimiter, ignore_empty_lines=False),
            convert_options=csv.ConvertOptions(
                column_types=dict.fromkeys(kept, float64()),
                include_columns=kept,
                decimal_point=decimal,
                null_values=[],
                check_utf8=False,
            ),
        )
    except ArrowInvalid as error:
        raise NotClean(str(error)) from None
    return [table.column(name).to_numpy() for name in kept]


def by_numpy(block: bytes, delimiter: str, decimal: str, columns: int, wanted: Sequence[int]) -> list[FloatArray]:
    """The columns by the text reader of NumPy."""
    lines = block.count(b"\n") + (not block.endswith(b"\n"))
    text = block if decimal == "." else block.replace(b",", b".")
    if any(line.count(mark) != columns - 1 for mark in [delimiter.encode()] for line in text.splitlines()):
        raise NotClean("lines of different lengths")
    try:
        values = np.loadtxt(
            io.StringIO(text.decode("ascii")), delimiter=delimiter, comments=None, ndmin=2, usecols=list(wanted)
        )
    except ValueError as error:  # bytes that are no ASCII are a ValueError too
        raise NotClean(str(error)) from None
    if values.shape != (lines, len(wanted)):  # blank lines are skipped by it
        raise NotClean(f"{values.shape} numbers in {lines} lines")
    return list(np.ascontiguousarray(values.T))
