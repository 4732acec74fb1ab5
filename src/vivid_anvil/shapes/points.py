"""Geometry factors of a user's own table: rows of a grid, and rows from a file."""

from __future__ import annotations

from collections.abc import Sequence
from pathlib import Path
from typing import Any

import numpy as np

from vivid_anvil.ground.checks import real_number
from vivid_anvil.ground.errors import InputError, inside, listed
from vivid_anvil.shapes.grid import GridCrack
from vivid_anvil.shapes.shape import SHAPES
from vivid_anvil.units import DIMENSIONS, coherent, factor, opened
from vivid_anvil.writing.headings import name_and_unit
from vivid_anvil.writing.read_table import column_numbers, read_frame

# Columns of a file of points, the first with a unit of length in its header.
COLUMNS = {"table": ("size", "Y"), "grid": ("depth", "aspect", "Y at the depth", "Y at the surface")}


@SHAPES.add("grid")
@opened()
def grid_of_rows(points: Sequence[Sequence[Any]]) -> GridCrack:
    """A `GridCrack` from rows of depth (mm or text), aspect a/c, Y at the end of the depth and at that of the length.

    Every depth needs every aspect; the order of the rows does not matter.

    Parameters
    ----------
    points : sequence of sequence
        Rows of depth, aspect, and Y at both ends.

    Returns
    -------
    GridCrack
        The shape.

    Raises
    ------
    InputError
        For an argument of another kind, unit or range; the message says which.

    Examples
    --------
    >>> rows = [("1 mm", 0.2, 1.1, 0.6), ("1 mm", 1.0, 0.7, 0.8), ("4 mm", 0.2, 1.3, 0.8), ("4 mm", 1.0, 0.8, 0.9)]
    >>> [round(y, 4) for y in grid_of_rows(rows).factors(2.5, 5.0)]
    [1.0312, 0.7562]
    """
    where = "crack of a grid, points"
    if not len(points) or any(isinstance(row, str) or np.shape(row) != (4,) for row in points):
        raise InputError(where, f"{len(points)} rows", f"rows of {listed(COLUMNS['grid'])}")
    rows = np.array(
        [
            (
                coherent(row[0], "length", inside(where, f"row {i}")),
                *(real_number(inside(where, f"row {i}"), one) for one in row[1:]),
            )
            for i, row in enumerate(points, 1)
        ],
        dtype=np.float64,
    )
    depths, aspects = np.unique(rows[:, 0]), np.unique(rows[:, 1])
    order = np.lexsort((rows[:, 1], rows[:, 0]))
    here = rows[order, :2].reshape(-1, 2)
    full = np.array([(a, r) for a in depths for r in aspects])
    if here.shape != full.shape or not (here == full).all():
        raise InputError(
            where,
            f"{rows.shape[0]} rows of {depths.size} depths and {aspects.size} aspects",
            f"{depths.size * aspects.size} rows: each depth once with each aspect",
            "Fill the gaps, or leave out the depth.",
        )
    deep, along = (rows[order, i].reshape(depths.size, aspects.size).tolist() for i in (2, 3))
    return GridCrack(depths=depths.tolist(), aspects=aspects.tolist(), deep=deep, along=along)


@opened()
def read_points(path: str | Path, shape: str) -> list[list[float]]:
    """The rows of a CSV file or workbook for the shape "table" or "grid": columns as in `COLUMNS`, lengths in mm.

    Raises InputError, with file and column, for other columns, a length without unit, and cells that are no numbers.
    """
    frame, where = read_frame(path, 0, "a file of geometry factors")
    wanted = COLUMNS.get(shape, COLUMNS["table"])
    heads = [name_and_unit(str(cell)) for cell in frame.columns]
    names = [name for name, _ in heads]
    if names != list(wanted):
        raise InputError(
            where, f"the columns {listed(names)}", f"the columns {listed(wanted)}, the first with its unit"
        )
    first, unit = str(frame.columns[0]), heads[0][1]
    if not unit:
        raise InputError(
            inside(where, f"column {first!r}"), "no unit", f"a unit in brackets, such as '{wanted[0]} [mm]'"
        )
    columns = [column_numbers(frame.iloc[:, i], inside(where, f"column {name!r}")) for i, name in enumerate(names)]
    columns[0] = columns[0] * factor(unit, DIMENSIONS["length"], where)
    return [[float(value) for value in row] for row in zip(*columns, strict=True)]
