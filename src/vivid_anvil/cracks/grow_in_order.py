"""Growth of a crack cycle by cycle through the duty cycle, its events one after another as they are listed."""

from __future__ import annotations

import math

import numpy as np

from vivid_anvil.checks import FloatArray, IntArray
from vivid_anvil.cracks.by_cycle import CycleGrowth, Retardation, grow_by_cycle, opening_stress
from vivid_anvil.cracks.by_cycle_two import grow_two_by_cycle
from vivid_anvil.cracks.crack import Crack
from vivid_anvil.cracks.drive import GrowthDrive
from vivid_anvil.cracks.grow_one_way import limits_of, one_way_path
from vivid_anvil.cracks.grow_two_sizes import critical_at, two_size_margins, two_size_outline, two_size_path
from vivid_anvil.cracks.path import GrowthPath
from vivid_anvil.cracks.two_way import TwoWayTable
from vivid_anvil.errors import InputError
from vivid_anvil.histories import DutyCycle, Source
from vivid_anvil.units import number

MOST_PIECES = 100_000
LONGER_WITH_MEMORY = 10
MOST_PASSES = 2_000_000


def in_order_path(crack: Crack, duty_cycle: DutyCycle, drive: GrowthDrive, target: float | None) -> GrowthPath:
    """From the initial size to the limit or to `target` repeats, each cycle in its order."""
    plain = one_way_path(crack, drive, None, None)
    if math.isinf(plain.life_repeats) or plain.life_repeats == 0.0:
        return plain
    critical = limits_of(crack, drive)
    memory = crack.retardation.kind in ("wheeler", "willenborg")
    expected = plain.life_repeats * (LONGER_WITH_MEMORY if memory else 1.2) + 10.0
    passes = int(min(expected if target is None else max(expected, target + 1.0), MOST_PASSES))
    rows, pieces = sequence(crack, duty_cycle)
    how, end = crack.retardation, critical.limiting
    if how.kind == "constant closure":
        lowest = 0.0 if crack.counted_part == "tensile" else -math.inf
        opens = max(lowest, opening_stress(rows, how, lowest))
        rows, how = np.maximum(rows, [opens, opens, 0.0]), Retardation()
    scale = float(crack.one_size.geometry_factor(end)) * math.sqrt(math.pi * end)
    rows, pieces = _without_idle(rows, pieces, crack, scale, remembered=how.kind != "none")
    if not rows.size:
        return GrowthPath.still(crack.initial_size, critical, math.inf, "no growth")
    found = _marched(crack, how, rows, pieces, end, passes)
    sizes, repeats = _kept(found)
    life = float(repeats[-1]) if found.stopped_at is not None else math.inf
    stopped_by = critical.governed_by if found.stopped_at is not None else "no limit within the cycles followed"
    if target is not None and life > target:
        stopped_by, size = "target life", float(np.interp(target, repeats, sizes))
        before = repeats < target
        sizes, repeats = np.append(sizes[before], size), np.append(repeats[before], target)
    at = found.stopped_at
    where = None if at is None else _stopped_in(crack, duty_cycle, pieces[at[1]], at[0], at[2])
    return GrowthPath(sizes, repeats, life, stopped_by, 0.0, critical, cycles=found.cycles, stopped_in=where)


def two_size_in_order_path(crack: Crack, duty_cycle: DutyCycle, drive: GrowthDrive, target: float | None) -> GrowthPath:
    """The same for depth and half length."""
    margins = two_size_margins(crack, drive)
    used = any(margin(crack.initial_size, crack.half_length) <= 0.0 for margin in margins.values())
    plain = two_size_outline(crack, drive)
    if used or plain.ended_by == "no growth":
        return two_size_path(crack, drive, None)
    rows, pieces = sequence(crack, duty_cycle)
    if crack.counted_part == "tensile":
        rows[:, 1] = np.maximum(rows[:, 1], 0.0)
    found, bound = None, 1.05 * _largest_scale(crack, plain)
    while found is None or found.largest_scale > bound:
        bound = bound if found is None else 1.2 * found.largest_scale
        few, parts = _without_idle(rows, pieces, crack, bound)
        passes = int(min(1.5 * float(plain.repeats[-1]) + 10.0, MOST_PASSES))
        start = (crack.initial_size, crack.half_length)
        found = grow_two_by_cycle(few, parts, crack.two_sizes, crack.law, start, margins, passes)
    depths, along, repeats = found.depths, found.half_lengths, found.passes
    life, ended_by = float(repeats[-1]), found.ended_by
    critical = critical_at(crack, ended_by, float(depths[-1]))
    if target is not None and life > target:
        ended_by, at = "target life", repeats < target
        depths, along = (np.append(one[at], np.exp(np.interp(target, repeats, np.log(one)))) for one in (depths, along))
        repeats = np.append(repeats[at], target)
    passed, piece, time = found.place
    where = _stopped_in(crack, duty_cycle, parts[piece], passed, time) if ended_by != "target life" else None
    return GrowthPath(depths, repeats, life, ended_by, 0.0, critical, along, found.cycles, where)


def _largest_scale(crack: Crack, path: TwoWayTable) -> float:
    """The largest K per MPa on a path, √mm."""
    return max(
        max(crack.two_sizes.factors(float(a), float(c))) * math.sqrt(math.pi * float(a))
        for a, c in zip(path.depths, path.half_lengths, strict=True)
    )


def _marched(
    crack: Crack, how: Retardation, rows: FloatArray, pieces: FloatArray, end: float, passes: int
) -> CycleGrowth:
    return grow_by_cycle(
        rows,
        crack.one_size,
        crack.law,
        crack.initial_size,
        passes=passes,
        stop=end,
        pieces=pieces,
        counted_part=crack.counted_part,
        retardation=how,
    )


def _stopped_in(crack: Crack, duty_cycle: DutyCycle, piece: FloatArray, passed: int, time: int) -> str:
    """ "month 99, loaded lap no 351": where in the sequence it stopped."""
    event = duty_cycle.sources(crack.hot_spot.channel)[int(piece[4])].name
    what = "cycle" if piece[3] > 1.0 else "no"
    return f"{duty_cycle.repeat} {passed + 1}, {event} {what} {time + 1}"


def sequence(crack: Crack, duty_cycle: DutyCycle) -> tuple[FloatArray, FloatArray]:
    """Rows (largest, smallest nominal stress, count) of a repeat in order; pieces (first, last, occurrences, repetitions, event).

    Cycles of a history come in the order in which they close. An event that does not happen in every repeat comes in those in
    which the sum of its occurrences passes a whole number. Raises InputError for blocks whose cycles are not whole.
    """
    spot = crack.hot_spot
    per_load = spot.nominal_factor(duty_cycle.dimension_of_channel(spot.channel))
    rows: list[FloatArray] = []
    pieces: list[tuple[float, ...]] = []
    at = 0
    for place, source in enumerate(duty_cycle.sources(spot.channel)):
        table = _in_order(source, per_load, spot.offset)
        whole = round(source.occurrences) if abs(round(source.occurrences) / source.occurrences - 1.0) < 1e-9 else 0
        often = [float(whole)] if whole else [float(int(source.occurrences)), source.occurrences % 1.0]
        if (table[:, 2] > 1.0).any():
            counts = [_whole_count(source, float(count)) for count in table[:, 2]]
            if len(counts) * often[0] > MOST_PIECES:
                raise InputError(
                    f"growth cycle by cycle, event {source.name}",
                    f"{len(counts)} blocks {number(often[0])} times in a repeat",
                    f"at most {MOST_PIECES} blocks in a repeat",
                    "Choose a shorter repeat, or order = 'per repeat'.",
                )
            each = [1.0] * int(often[0]) + [part for part in often[1:] if part > 0.0]
            pieces += [(at + i, at + i + 1, part, count, place) for part in each for i, count in enumerate(counts)]
            table[:, 2] = 1.0
        else:
            pieces += [(at, at + table.shape[0], part, 1.0, place) for part in often if part > 0.0]
        rows.append(table)
        at += table.shape[0]
    return np.concatenate(rows), np.array(pieces, dtype=np.float64)


def _in_order(source: Source, per_load: float, offset: float) -> FloatArray:
    cycles = source.cycles.linear(per_load, offset, "stress")
    order = np.argsort(np.maximum(cycles.start, cycles.end), kind="stable")
    return np.column_stack([cycles.maximum, cycles.minimum, cycles.count])[order]


def _whole_count(source: Source, count: float) -> int:
    if abs(count - round(count)) > 1e-9:
        raise InputError(
            f"growth cycle by cycle, event {source.name}",
            f"{number(count)} cycles",
            "whole numbers of cycles in a block",
        )
    return round(count)


def _without_idle(
    rows: FloatArray, pieces: FloatArray, crack: Crack, scale: float, *, remembered: bool = False
) -> tuple[FloatArray, FloatArray]:
    """The rows that can grow the crack at K per MPa `scale`, the largest on its way, and the pieces of what is left.

    Where larger cycles are `remembered`, of idle ones in a row that with the largest stress stays: the crack has the same size
    at all of them, so that only the largest zone counts.
    """
    lowest = 0.0 if crack.counted_part == "tensile" else -math.inf
    counted = np.maximum(rows[:, 0], lowest) - np.maximum(rows[:, 1], lowest)
    high = np.where(rows[:, 0] > 0.0, rows[:, 0], np.inf)
    ratios = np.minimum((high - counted) / high, 1.0 - 1e-12)
    works = (crack.law.growth(scale * counted, ratios, 1e12) > 0.0) & (rows[:, 0] > 0.0)
    if crack.law.form == "forman-mettu":  # its threshold depends on the size
        works[:] = True
    if remembered:
        works[_largest_idle(rows[:, 0], works, pieces)] = True
    before = np.concatenate([[0], np.cumsum(works)])
    first, last = before[pieces[:, :2].astype(int)].T
    kept = np.column_stack([first, last, pieces[:, 2:]])
    return rows[works], kept[kept[:, 1] > kept[:, 0]]


def _largest_idle(high: FloatArray, works: np.ndarray, pieces: FloatArray) -> IntArray:
    """Of each run of idle rows, not across the borders of pieces, the place of that with the largest stress."""
    starts = np.zeros(high.size + 1, dtype=np.int64)
    starts[pieces[:, :2].astype(int).ravel()] = 1
    idle = np.flatnonzero(~works)
    run = (np.cumsum(works) + np.cumsum(starts[:-1]))[idle]
    order = np.lexsort((-high[idle], run))
    first = np.concatenate([[True], np.diff(run[order]) > 0])[: idle.size]
    return np.asarray(idle[order][first], dtype=np.int64)


def _kept(found: CycleGrowth) -> tuple[FloatArray, FloatArray]:
    """Sizes and repeats, a few thousand at most, the stop as the last."""
    sizes, repeats = found.sizes, np.arange(found.sizes.size, dtype=np.float64)
    if found.stopped_at is not None:
        sizes, repeats = np.append(sizes, found.size), np.append(repeats, float(found.sizes.size - 1) + _share(found))
    moved = np.concatenate([[True], np.diff(sizes) > 0.0])
    sizes, repeats = sizes[moved], repeats[moved]
    if sizes.size > 4000:
        keep = np.unique(np.linspace(0, sizes.size - 1, 4000).astype(int))
        sizes, repeats = sizes[keep], repeats[keep]
    return sizes, repeats


def _share(found: CycleGrowth) -> float:
    """The part of the last pass that was gone through, by cycles; a whole one where it stopped in the first."""
    passes = found.sizes.size - 1
    if passes == 0:
        return 1.0
    each = (found.cycles) / (passes + 1)
    return float(np.clip(found.cycles / max(each, 1.0) - passes, 1e-9, 1.0))
