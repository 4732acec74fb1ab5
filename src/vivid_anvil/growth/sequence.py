"""The cycles of a repeat as a crack meets them: in their order, event after event, those that cannot grow it left out."""

from __future__ import annotations

import dataclasses
from typing import Any

import numpy as np

from vivid_anvil.counting import Cycles, rainflow
from vivid_anvil.counting.cycles import FREQUENCY, PANEL
from vivid_anvil.events import DutyCycle, Source
from vivid_anvil.ground.checks import FloatArray, IntArray
from vivid_anvil.ground.errors import InputError
from vivid_anvil.growth.crack import Crack
from vivid_anvil.growth.driving_cycles import counts_shut
from vivid_anvil.materials import GrowthLaw
from vivid_anvil.materials.thresholds.threshold import LARGE
from vivid_anvil.units import number

MOST_PIECES = 100_000


def sequence(crack: Crack, duty_cycle: DutyCycle) -> tuple[FloatArray, FloatArray]:
    """Rows (largest, smallest nominal stress, count) of a repeat in order; pieces (first, last, occurrences, repetitions, event).

    Cycles of a history come in the order in which they close. An event that does not happen in every repeat comes in those in
    which the sum of its occurrences passes a whole number. Raises InputError for blocks whose cycles are not whole.
    """
    spot = crack.hot_spot
    relation, per_load = spot.fed, spot.fed.factor(duty_cycle)
    rows: list[FloatArray] = []
    pieces: list[tuple[float, ...]] = []
    at = 0
    flat = duty_cycle.flat()
    for place, source in enumerate(duty_cycle.sources(relation.counted)):
        own = source
        if place < len(flat) and PANEL in source.cycles.columns:
            load = flat[place][0].seen(relation.counted).one_channel(str(relation.counted))
            own = dataclasses.replace(source, cycles=_one_by_one(load, source.cycles))
        table = _in_order(own, per_load, relation.offset)
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


def _one_by_one(load: Any, cycles: Cycles) -> Cycles:
    """Cycles that stand for a density as whole ones: of random stress those of a seeded history, of a sweep place by place."""
    if "cross-spectra" in load.gives:
        (values, _), *_ = load.in_order(load.channel).steps
        return rainflow(values, residue="repeated", dimension=cycles.dimension)
    ordered = cycles.chosen(np.argsort(cycles.columns[FREQUENCY], kind="stable"))
    whole = np.diff(np.round(np.cumsum(ordered.count)), prepend=0.0)
    return ordered.counted(whole)


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


def without_idle(
    rows: FloatArray, pieces: FloatArray, crack: Crack, law: GrowthLaw, scale: float
) -> tuple[FloatArray, FloatArray]:
    """The rows that can grow the crack at K per MPa `scale`, the largest on its way, and the pieces of what is left.

    Where larger cycles are remembered, of idle ones in a row that with the largest stress stays: the crack has the same size
    at all of them, so that only the largest zone counts. With residual stress all stay, as it may open any of them.
    """
    if crack.always is not None:
        return rows, pieces
    counted = np.maximum(rows[:, 0], crack.lowest) - np.maximum(rows[:, 1], crack.lowest)
    opened = rows[:, 0] > 0.0
    high = np.where(opened, rows[:, 0], 1.0)
    ratios = np.minimum(np.where(opened, (high - counted) / high, 0.0), 1.0 - 1e-12)
    works = law.growth(scale * counted, ratios, LARGE) > 0.0
    if not counts_shut(crack.counted_part, law):
        works &= opened
    if law.limit.depends_on_size:
        works[:] = True
    if crack.retardation.remembers:
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


def stopped_in(crack: Crack, duty_cycle: DutyCycle, piece: FloatArray, passed: int, time: int) -> str:
    """ "month 99, loaded lap no 351": where in the sequence it stopped."""
    event = duty_cycle.sources(crack.hot_spot.fed.counted)[int(piece[4])].name
    what = "cycle" if piece[3] > 1.0 else "no"
    return f"{duty_cycle.repeat} {passed + 1}, {event} {what} {time + 1}"
