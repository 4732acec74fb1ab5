"""Growth of a crack cycle by cycle through the duty cycle, its events one after another as they are listed."""

from __future__ import annotations

import math
from dataclasses import dataclass

import numpy as np

from vivid_anvil.events import DutyCycle
from vivid_anvil.ground.checks import FloatArray
from vivid_anvil.growth.by_cycle import grow_by_cycle
from vivid_anvil.growth.by_cycle_two import grow_two_by_cycle
from vivid_anvil.growth.crack import Crack
from vivid_anvil.growth.drive import GrowthDrive
from vivid_anvil.growth.fracture_cycle import BY_PEAK, CyclePlace, breaking_cycle, cycles_until, stress_at_limit
from vivid_anvil.growth.grow_one_way import limits_of, one_way_path
from vivid_anvil.growth.grow_two_sizes import critical_at, two_size_margins, two_size_outline, two_size_path
from vivid_anvil.growth.limits import CriticalSizes, Margin, critical_depth, one_way_margins
from vivid_anvil.growth.memories import NoRetardation, Retardation
from vivid_anvil.growth.path import GrowthPath
from vivid_anvil.growth.sequence import sequence, stopped_in, without_idle
from vivid_anvil.materials import GrowthLaw

LONGER_WITH_MEMORY = 10
MOST_PASSES = 2_000_000
OUT_OF_CYCLES = "no limit within the cycles followed"


def in_order_path(
    crack: Crack, duty_cycle: DutyCycle, drive: GrowthDrive, later: float | None, target: float | None
) -> GrowthPath:
    """From the initial size to the limit or to `target` repeats, each cycle in its order.

    Another law takes over with the repeat in which `later` falls, where there is one.
    """
    plain = one_way_path(crack, drive, later, None)
    if math.isinf(plain.life_repeats) or plain.life_repeats == 0.0:
        return plain
    critical = limits_of(crack, drive)
    passes = _most_passes(crack, plain.life_repeats, target)
    rows, pieces = sequence(crack, duty_cycle)
    rows, _ = crack.retardation.prepared(rows, crack.lowest)  # of the whole spectrum, before idle cycles are left out
    how, end = _remembering(crack), critical.limiting
    scale = float(crack.one_size.geometry_factor(end)) * math.sqrt(math.pi * end)
    size, memory, cycles, error, at, share = crack.initial_size, None, 0, 0.0, None, 1.0
    path = [np.array([size])]
    for law, first, last in _stages(crack, later, passes):
        few, parts = without_idle(rows, pieces, crack, law, scale)
        if not few.size:
            path.append(np.full(last - first, size))
            continue
        found = grow_by_cycle(
            few,
            crack.one_size,
            law,
            size,
            passes=last - first,
            stop=end,
            pieces=parts,
            counted_part=crack.counted_part,
            retardation=how,
            always=crack.always,
            begun=first,
            memory=memory,
        )
        path.append(found.sizes[1:])
        size, memory, cycles, error = found.size, found.memory, cycles + found.cycles, max(error, found.error)
        if found.stopped_at is not None:
            reached = CyclePlace(first + found.stopped_at[0], *found.stopped_at[1:])
            broken = _breaks(crack, drive, critical, few, parts, reached)
            at = (parts[broken.piece], broken.passed, broken.time)
            path += [np.full(broken.passed - reached.passed, size), np.array([size])]
            gone, whole = cycles_until(parts, broken)
            cycles += _between(parts, reached, broken)
            share = float(np.clip(gone / whole, 1e-9, 1.0))
            break
    sizes, repeats = _kept(np.concatenate(path), share)
    if sizes.size < 2:
        return GrowthPath.still(crack.initial_size, critical, math.inf, "no growth")
    life = float(repeats[-1]) if at is not None else math.inf
    stopped_by = critical.governed_by if at is not None else OUT_OF_CYCLES
    where = None if at is None else stopped_in(crack, duty_cycle, *at)
    way = GrowthPath(sizes, repeats, life, stopped_by, error, critical, cycles=cycles, stopped_in=where)
    if target is None or life <= target:
        return way
    final, before = float(np.interp(target, repeats, sizes)), repeats < target
    return way.cut(np.append(sizes[before], final), np.append(repeats[before], target))


def two_size_in_order_path(
    crack: Crack, duty_cycle: DutyCycle, drive: GrowthDrive, later: float | None, target: float | None
) -> GrowthPath:
    """The same for depth and half length."""
    margins = two_size_margins(crack, drive)
    if any(margin(crack.initial_size, crack.half_length) <= 0.0 for margin in margins.values()):
        return two_size_path(crack, drive, None, later)
    depths, along, expected = two_size_outline(crack, drive, later)
    if math.isinf(expected):
        return two_size_path(crack, drive, None, later)
    rows, pieces = sequence(crack, duty_cycle)
    rows, _ = crack.retardation.prepared(rows, crack.lowest)
    stages = _stages(crack, later, _most_passes(crack, expected, target))
    bound, way = 1.05 * _largest_scale(crack, depths, along), None
    while way is None or way.largest_scale > bound:
        bound = bound if way is None else 1.2 * way.largest_scale
        way = _two_marched(crack, drive, margins, rows, pieces, bound, stages)
    depths, along, repeats = way.rows.T
    life, ended_by = (float(repeats[-1]), way.ended_by) if way.ended_by else (math.inf, OUT_OF_CYCLES)
    name, depth = way.ended_by, float(depths[-1])
    if not name:
        depth, name = critical_depth(margins, crack.two_sizes.deepest, depth / float(along[-1]))
    critical = critical_at(crack, name, depth)
    where = None if way.at is None else stopped_in(crack, duty_cycle, *way.at)
    path = GrowthPath(depths, repeats, life, ended_by, way.error, critical, along, way.cycles, where)
    if target is None or life <= target:
        return path
    at = repeats < target
    depths, along = (np.append(one[at], np.exp(np.interp(target, repeats, np.log(one)))) for one in (depths, along))
    return path.cut(depths, np.append(repeats[at], target), along)


@dataclass
class _TwoWay:
    """What the stages gave together: rows (depth, half length, repeats), and where it ended: piece, pass, time."""

    rows: FloatArray
    cycles: int = 0
    ended_by: str = ""
    largest_scale: float = 0.0
    error: float = 0.0
    at: tuple[FloatArray, int, int] | None = None


def _two_marched(
    crack: Crack,
    drive: GrowthDrive,
    margins: dict[str, Margin],
    rows: FloatArray,
    pieces: FloatArray,
    bound: float,
    stages: list[_Stage],
) -> _TwoWay:
    """Depth and half length through the stages, idle cycles up to K per MPa `bound` left out."""
    memory = None
    how = _remembering(crack)
    way = _TwoWay(np.array([[crack.initial_size, crack.half_length, 0.0]]))
    for law, first, last in stages:
        few, parts = without_idle(rows, pieces, crack, law, bound)
        if not few.size:
            way.rows = np.vstack([way.rows, [*way.rows[-1, :2], float(last)]])
            continue
        start = (float(way.rows[-1, 0]), float(way.rows[-1, 1]))
        found = grow_two_by_cycle(
            few,
            parts,
            crack.two_sizes,
            law,
            start,
            margins,
            last - first,
            retardation=how,
            always=crack.always,
            counted_part=crack.counted_part,
            begun=first,
            memory=memory,
        )
        onwards = np.column_stack([found.depths, found.half_lengths, first + found.passes])[1:]
        way.rows, memory = np.vstack([way.rows, onwards]), found.memory
        way.cycles, way.ended_by = way.cycles + found.cycles, found.ended_by
        way.largest_scale = max(way.largest_scale, found.largest_scale)
        way.error = max(way.error, found.error)
        if found.ended_by:
            reached = CyclePlace(first + found.place[0], *_inside(parts, found.place))
            broken = reached
            if found.ended_by in BY_PEAK:
                broken = breaking_cycle(few, parts, reached, drive.peak_stress)
                gone, whole = cycles_until(parts, broken)
                way.rows[-1, 2] = max(way.rows[-1, 2], broken.passed + gone / whole)
            way.at = parts[broken.piece], broken.passed, broken.time
            way.cycles += _between(parts, reached, broken)
            break
    return way


_Stage = tuple[GrowthLaw, int, int]


def _stages(crack: Crack, later: float | None, passes: int) -> list[_Stage]:
    """Laws with the first and the last of their passes."""
    if later is None or crack.later_law is None:
        return [(crack.law, 0, passes)]
    since = min(int(later + 1e-9), passes)
    parts = [(crack.law, 0, since), (crack.later_law, since, passes)]
    return [part for part in parts if part[2] > part[1]]


def _most_passes(crack: Crack, expected: float, target: float | None) -> int:
    """How many repeats to follow at most, where all at once `expected` are needed."""
    longer = LONGER_WITH_MEMORY if crack.retardation.acts else 1.5
    most = expected * longer + 10.0
    return int(min(most if target is None else max(most, target + 1.0), MOST_PASSES))


def _remembering(crack: Crack) -> Retardation:
    """The model of retardation, where it remembers; one that changes the cycles beforehand has done so."""
    return crack.retardation if crack.retardation.remembers else NoRetardation()


def _largest_scale(crack: Crack, depths: FloatArray, half_lengths: FloatArray) -> float:
    """The largest K per MPa on a way, √mm."""
    return max(
        max(crack.two_sizes.factors(a, c)) * math.sqrt(math.pi * a)
        for a, c in zip(depths.tolist(), half_lengths.tolist(), strict=True)
    )


def _kept(sizes: FloatArray, share: float) -> tuple[FloatArray, FloatArray]:
    """Sizes and repeats, a few thousand at most, the last of them after a `share` of its repeat."""
    repeats = np.arange(sizes.size, dtype=np.float64)
    repeats[-1] += share - 1.0
    moved = np.concatenate([[True], np.diff(sizes) > 0.0])
    sizes, repeats = sizes[moved], repeats[moved]
    if sizes.size > 4000:
        keep = np.unique(np.linspace(0, sizes.size - 1, 4000).astype(int))
        sizes, repeats = sizes[keep], repeats[keep]
    return sizes, repeats


def _breaks(
    crack: Crack, drive: GrowthDrive, critical: CriticalSizes, rows: FloatArray, parts: FloatArray, reached: CyclePlace
) -> CyclePlace:
    """The cycle that breaks a crack which has reached its limiting size: the next that is large enough for it."""
    if critical.governed_by not in BY_PEAK:
        return reached
    least = drive.peak_stress
    if critical.governed_by != "fracture by the law":

        def room(stress: float) -> float:
            margins = one_way_margins(
                crack.one_size, crack.hot_spot.material, stress, crack.limits, crack.youngs_modulus, crack.always
            )
            return margins[critical.governed_by](critical.limiting)

        least = stress_at_limit(room, drive.peak_stress)
    return breaking_cycle(rows, parts, reached, least)


def _inside(parts: FloatArray, place: tuple[int, int, int]) -> tuple[int, int, int]:
    """Piece, time and first row of a place that may be just past the end of its pass."""
    piece = min(place[1], len(parts) - 1)
    return piece, place[2] if piece == place[1] else 0, int(parts[piece, 0])


def _between(parts: FloatArray, first: CyclePlace, then: CyclePlace) -> int:
    """How many cycles lie from one place to a later one in the same pass or the next."""
    gone, whole = cycles_until(parts, first)
    later, _ = cycles_until(parts, then)
    return later - gone if first.passed == then.passed else whole - gone + later
