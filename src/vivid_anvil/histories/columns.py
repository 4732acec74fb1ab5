"""Columns of any file become a load history: names with units, time or a stated rate. Shared by all readers.

In: headers such as `vertical force [kN]`, columns of numbers. Out: `LoadHistory`, or InputError that names the place.
"""

from __future__ import annotations

from collections.abc import Sequence

import numpy as np

from vivid_anvil.ground.checks import FloatArray, one_of
from vivid_anvil.ground.errors import InputError, inside
from vivid_anvil.histories.channel import Channel, Steps
from vivid_anvil.histories.load_history import LoadHistory
from vivid_anvil.units import dimension_of, factor, number, one
from vivid_anvil.writing.read_table import DATE_TIME, Header

# Steps may differ by this share of a step: times are often written with few digits.
STEP_TOLERANCE = 0.01
_RATE = one("frequency", above=0.0)
_PIECE = 1 << 18
EVEN, PEAKS = "samples at even steps", "peaks and valleys"
SHORT = "A single value is no history: describe it as an event of constant amplitude."


def history_of(
    name: str,
    heads: Sequence[Header],
    columns: Sequence[FloatArray],
    rate: float | str | None,
    where: str,
    first_row: int,
    rows: str = EVEN,
) -> LoadHistory:
    """The load history of `columns`, one per header; `first_row` is the number of the first row of values in the file.

    `rows` are "samples at even steps", or "peaks and valleys" at any times, or at none.
    Raises InputError for fewer than two samples, values that are not finite, and time that does not rise evenly.
    """
    one_of(inside(where, "rows"), rows, (EVEN, PEAKS))
    stated = None if rate is None else _RATE.checked(rate, inside(where, "sample rate"))
    if not len(columns[0]) >= 2:
        raise InputError(where, f"{len(columns[0])} row of values", "at least two samples", SHORT)
    for head, column in zip(heads, columns, strict=True):
        _refuse_gaps(head, column, where, first_row)
    jitter = 0.0
    times = [i for i, head in enumerate(heads) if head.is_time]
    if rows == PEAKS:
        stated = _mean_rate(columns[times[0]], heads[times[0]].unit, where, first_row) if times else stated
    elif times:
        time = columns[times[0]]
        found, jitter = rate_of(time, heads[times[0]].unit, inside(where, "column time"), first_row)
        if stated is not None and abs(found / stated - 1.0) > STEP_TOLERANCE:
            raise InputError(
                inside(where, "column time"),
                f"steps of {number(1 / found)} s ({number(found)} Hz)",
                f"the stated sample rate of {number(stated)} Hz",
                "Correct the rate, or leave it out.",
            )
        stated = found if stated is None else stated
    if stated is None and rows == EVEN:
        raise InputError(
            where,
            "no time column and no sample rate",
            "one of the two",
            "Head a column 'time [s]', or state the rate: sample_rate = \"100 Hz\"; or, where the rows are the turning points, "
            f'rows = "{PEAKS}".',
        )
    channels = [
        Channel.in_unit(head.name, column, head.unit)
        for head, column in zip(heads, columns, strict=True)
        if not head.is_time
    ]
    if not channels:
        raise InputError(where, "only a time column", "at least one channel", "Add the load beside it.")
    if rows == EVEN:
        return LoadHistory(name, tuple(channels), stated or 0.0, jitter=jitter)
    steps: Steps = "none" if stated is None else "uneven"
    return LoadHistory(name, tuple(channels), stated or 1.0, steps=steps)


def _mean_rate(time: FloatArray, unit: str, where: str, first_row: int) -> float:
    """Mean rate, Hz, of times that rise at any steps."""
    falls = np.flatnonzero(~(np.diff(time) > 0.0))
    if falls.size:
        row = int(falls[0])
        raise InputError(
            inside(where, f"column time, line {row + first_row + 1}"),
            f"{time[row + 1]:.10g} after {time[row]:.10g}",
            "time that rises",
        )
    in_seconds = 1e-6 if unit == DATE_TIME else factor(unit, dimension_of("s", "time"), where)
    return float((time.size - 1) / ((time[-1] - time[0]) * in_seconds))


def rate_of(time: FloatArray, unit: str, where: str, first_row: int) -> tuple[float, float]:
    """Sample rate, Hz, and jitter (share of a step) of a time column of equal steps; date-times come as microseconds."""
    in_seconds = 1e-6 if unit == DATE_TIME else factor(unit, dimension_of("s", "time"), where)
    step = float(time[-1] - time[0]) / (time.size - 1)
    worst, uneven = 0.0, 0
    first_uneven: tuple[int, float] | None = None
    for start in range(0, time.size - 1, _PIECE):  # by pieces: a long time column stands in memory once
        steps = np.diff(time[start : start + _PIECE + 1])
        if not steps.min() > 0.0:
            row = start + int(np.flatnonzero(~(steps > 0.0))[0])
            found = "the same time twice" if time[row + 1] == time[row] else "a time before the one above"
            raise InputError(
                inside(where, f"line {row + first_row + 1}"),
                f"{found}, {time[row + 1]:.10g} {unit}",
                "time that rises",
                "Cut the file where the recording starts again.",
            )
        off = max(float(steps.max()) - step, step - float(steps.min()))
        worst = max(worst, off / step)
        if off > STEP_TOLERANCE * step:
            bad = np.flatnonzero(np.abs(steps - step) > STEP_TOLERANCE * step)
            uneven += bad.size
            first_uneven = first_uneven or (start + int(bad[0]), float(steps[bad[0]]))
    if first_uneven is not None:
        row, found_step = first_uneven
        usual = float(np.median(np.diff(time[: _PIECE + 1])))
        lost = round(found_step / usual) - 1
        hint = (
            f"{lost} samples seem to be missing here; " if lost > 0 and abs(found_step / usual - lost - 1) < 0.1 else ""
        )
        raise InputError(
            inside(where, f"line {row + first_row + 1}"),
            f"a step of {number(found_step * in_seconds)} s where the mean is {number(step * in_seconds)} s",
            "equal steps",
            f"{hint}{uneven} of {time.size - 1} steps differ by more than {STEP_TOLERANCE:.0%}: resample; "
            "or, if only the printed digits are too few, drop the time column and state the sample rate; "
            f'or, where the rows are the turning points, state rows = "{PEAKS}".',
        )
    # 0.01 s steps mean 100 Hz, not 99.99999999999: the last digits are those of the printed times.
    return float(f"{1.0 / (step * in_seconds):.9g}"), worst


def _refuse_gaps(head: Header, column: FloatArray, where: str, first_row: int) -> None:
    if not np.isfinite(column.min() + column.max()):
        row = int(np.flatnonzero(~np.isfinite(column))[0])
        raise InputError(
            inside(where, f"line {row + first_row}, column {head.label!r}"),
            f"{column[row]}",
            "a finite number",
            "Cut the row out or fill it before, and keep a note of it: nothing is repaired here.",
        )
