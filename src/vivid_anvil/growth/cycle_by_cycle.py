"""Growth of a crack cycle by cycle through the duty cycle, its events one after another as they are listed."""

from __future__ import annotations

import math
from dataclasses import dataclass

import numpy as np

from vivid_anvil.events import DutyCycle
from vivid_anvil.ground.checks import FloatArray
from vivid_anvil.ground.errors import InputError, inside
from vivid_anvil.growth.by_cycle import grow_by_cycle
from vivid_anvil.growth.crack import Crack
from vivid_anvil.growth.fracture_cycle import BY_PEAK, CyclePlace, breaking_cycle, cycles_until
from vivid_anvil.growth.gone import WayGone
from vivid_anvil.growth.memories import NoRetardation, Retardation
from vivid_anvil.growth.per_repeat import per_repeat
from vivid_anvil.growth.sequence import sequence, stopped_in, without_idle
from vivid_anvil.growth.way import AT_REST, Ended, Leg, Way, moved, thinned
from vivid_anvil.materials import GrowthLaw

LONGER_WITH_MEMORY = 10
MOST_PASSES = 2_000_000
OUT_OF_CYCLES = "no limit within the cycles followed"


def cycle_by_cycle(way: Way, duty_cycle: DutyCycle, later: float | None, target: float | None) -> WayGone:
    """From the initial sizes to the limit or to `target` repeats, each cycle in its order.

    Another law takes over with the repeat in which `later` falls, where there is one.
    """
    crack = way.crack
    if way.drive.bending is not None:
        raise InputError(
            inside(f"crack at {crack.hot_spot.name}", "order"),
            "cycle by cycle, with a second stress of bending",
            "order = 'per repeat'",
            "Or give `grow_by_cycle` the rows of both stresses.",
        )
    at_once = way.whole(math.inf, later) if later is not None and way.used is None else way.quick_leg()
    if way.used is not None or at_once.ended_by == AT_REST:
        return per_repeat(way, later, None)
    rows, pieces = sequence(crack, duty_cycle)
    rows, _ = crack.retardation.prepared(rows, crack.lowest)  # of the whole spectrum, before idle cycles are left out
    stages = _stages(crack, later, _most_passes(crack, at_once.life, target))
    bound, marched = way.scale(at_once.sizes) * (1.0 + way.scale_known_to), None
    while marched is None or marched.largest_scale > bound:
        bound = bound if marched is None else 1.2 * marched.largest_scale
        marched = _marched(way, rows, pieces, bound, stages)
    return _cut(_gone(way, duty_cycle, marched), target)


def _gone(way: Way, duty_cycle: DutyCycle, marched: _Marched) -> WayGone:
    """The way with its limits, and where in the sequence it ended."""
    crack = way.crack
    found = thinned(
        moved(Leg(marched.rows[:, :-1], marched.rows[:, -1], marched.ended_by, marched.error)), way.most_places
    )
    if found.repeats.size < 2:
        return WayGone.still(crack.sizes, way.critical(way.waiting()), math.inf, AT_REST)
    ended = Ended(marched.ended_by, found.last) if marched.ended_by else way.waiting_at(found.last)
    life, stopped_by = (float(found.repeats[-1]), ended.by) if marched.ended_by else (math.inf, OUT_OF_CYCLES)
    where = None if marched.at is None else stopped_in(crack, duty_cycle, *marched.at)
    critical = way.critical(ended)
    return WayGone(found.sizes, found.repeats, life, stopped_by, found.change, critical, marched.cycles, where)


def _cut(gone: WayGone, target: float | None) -> WayGone:
    """To the target, where it comes before the end."""
    if target is None or gone.life_repeats <= target:
        return gone
    last = [float(np.exp(np.interp(target, gone.repeats, np.log(one)))) for one in gone.sizes.T]
    before = gone.repeats < target
    return gone.cut(np.vstack([gone.sizes[before], last]), np.append(gone.repeats[before], target))


@dataclass
class _Marched:
    """What the stages gave together: rows (sizes, repeats), and where it ended: piece, pass, time."""

    rows: FloatArray
    cycles: int = 0
    ended_by: str = ""
    largest_scale: float = 0.0
    error: float = 0.0
    at: tuple[FloatArray, int, int] | None = None


def _marched(way: Way, rows: FloatArray, pieces: FloatArray, bound: float, stages: list[_Stage]) -> _Marched:
    """All sizes through the stages, idle cycles up to K per MPa `bound` left out."""
    crack, memory = way.crack, None
    how, all_of_it = _remembering(crack), _Marched(np.array([[*crack.sizes, 0.0]]))
    for law, first, last in stages:
        few, parts = without_idle(rows, pieces, crack, law, bound)
        if not few.size:
            all_of_it.rows = np.vstack([all_of_it.rows, [*all_of_it.rows[-1, :-1], float(last)]])
            continue
        grown = grow_by_cycle(
            few,
            crack.shape,
            law,
            all_of_it.rows[-1, :-1],
            passes=last - first,
            stop=way.marched_to(),
            margins=way.margins(),
            pieces=parts,
            counted_part=crack.counted_part,
            retardation=how,
            always=way.always,
            begun=first,
            memory=memory,
        )
        onwards = np.column_stack([grown.sizes, first + grown.passes])[1:]
        all_of_it.rows, memory = np.vstack([all_of_it.rows, onwards]), grown.memory
        all_of_it.cycles += grown.cycles
        all_of_it.largest_scale = max(all_of_it.largest_scale, grown.largest_scale)
        all_of_it.error = max(all_of_it.error, grown.error)
        if grown.stopped_at is not None:
            _stopped(way, all_of_it, few, parts, grown.ended_by, grown.stopped_at, first)
            break
    return all_of_it


def _stopped(
    way: Way, marched: _Marched, rows: FloatArray, parts: FloatArray, by: str, at: CyclePlace, begun: int
) -> None:
    """Which limit it was, and which cycle breaks the crack there: the next that is large enough for it."""
    sizes = tuple(marched.rows[-1, :-1].tolist())
    ended = way.ended(by, sizes)
    reached = CyclePlace(begun + at.passed, *at[1:])
    broken = reached
    if ended.by in BY_PEAK:
        broken = breaking_cycle(rows, parts, reached, way.breaking_stress(ended))
        gone, whole = cycles_until(parts, broken)
        marched.rows[-1, -1] = max(marched.rows[-1, -1], broken.passed + gone / whole)
    marched.ended_by, marched.at = ended.by, (parts[broken.piece], broken.passed, broken.time)
    marched.cycles += _between(parts, reached, broken)


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


def _between(parts: FloatArray, first: CyclePlace, then: CyclePlace) -> int:
    """How many cycles lie from one place to a later one in the same pass or the next."""
    gone, whole = cycles_until(parts, first)
    later, _ = cycles_until(parts, then)
    return later - gone if first.passed == then.passed else whole - gone + later
