"""One jump of a laminate taken again, with all that stands at its points: stresses, lives, what each class of cycles does."""

from __future__ import annotations

from dataclasses import dataclass
from typing import NamedTuple

import numpy as np

from vivid_anvil.ground.checks import FloatArray
from vivid_anvil.ground.errors import InputError
from vivid_anvil.progress._jump_kernels import jumped
from vivid_anvil.progress._kernels import MOVES_AT_ALL, PARTS, POINTS, slots_in_all
from vivid_anvil.progress._life_kernels import empty_lives, look_at_lives
from vivid_anvil.progress._stress_kernels import empty_stresses, stresses
from vivid_anvil.progress.bundles import Lives, State, Stresses
from vivid_anvil.progress.laminate_progress import CycleEnds, LaminateProgress, sound_state
from vivid_anvil.progress.tables import PlyTables


class JumpPoint(NamedTuple):
    """What stands at one point of a jump: parts of moduli that are lost, (plies, 3), stresses per resultant and of the
    temperature, log10 lives of every slot alone and together, damage a repeat, (plies, 2, 2)."""

    lost: FloatArray
    per_load: FloatArray
    there: FloatArray
    alone: FloatArray
    joint: FloatArray
    rates: FloatArray


@dataclass(frozen=True, eq=False)
class OneJump:
    """A jump: from `start` on so many repeats, what stands at its start, its middle and its third quarter, what is lost then."""

    start: float
    repeats: float
    points: tuple[JumpPoint, JumpPoint, JumpPoint]
    lost_after: FloatArray


def one_jump(progress: LaminateProgress, cycles: CycleEnds, number: int) -> OneJump:
    """The jump from state `number` of the course, from 0, to the next; InputError for one that is not there."""
    course = progress.course
    if not 0 <= number < course.repeats.size - 1:
        raise InputError("jump", f"{number + 1}", f"a number from 1 to {course.repeats.size - 1}")
    tables, plies = PlyTables(progress.laminate, progress.settings), len(progress.laminate.laid)
    bundle, classes, ways = tables.bundle, cycles.classes, tables.ways(progress.repeats)
    slots = slots_in_all(classes)
    state, found = _state(progress, tables, number), sound_state(plies)
    step = float(course.repeats[number + 1] - course.repeats[number])

    def looked_at(lost: FloatArray) -> Lives:
        """Lives of all classes, with these parts lost, and what stands then."""
        now: Stresses = empty_stresses(plies, slots)
        lives: Lives = empty_lives(plies, slots)
        stresses(bundle, classes, lost, now)
        small = MOVES_AT_ALL * float(np.abs(np.diff(now.at_ends[..., 0], axis=1)).max())
        look_at_lives(bundle, classes, ways, state.failed, now, small, step, lives)
        logs = lives.alone, lives.joint
        points.append(JumpPoint(lost.copy(), now.per_load, now.there, *logs, lives.rates))
        return lives

    points: list[JumpPoint] = []
    lives = [looked_at(state.lost)]
    for part in POINTS:
        jumped(bundle, classes, lives[-1], part * step, False, state, found)
        lives.append(looked_at(found.lost))
    for part, own in zip(PARTS[:3], lives, strict=True):
        after = sound_state(plies)
        jumped(bundle, classes, own, part * step, False, state, after)
        state = after._replace(failed=state.failed)
    start = float(course.repeats[number])
    return OneJump(start, step, (points[0], points[1], points[2]), state.lost)


def _state(progress: LaminateProgress, tables: PlyTables, number: int) -> State:
    """What stood before that jump."""
    course = progress.course
    failed = np.zeros((len(progress.laminate.laid), 2), dtype=bool)
    for one in progress.failures:
        if one.jump <= number:
            failed[one.ply, 1] = True
            failed[one.ply, 0] |= one.mode == "fibre"
    weaker = tables.bundle.static[:, None] - course.strengths[number]
    return State(1.0 - course.left[number], course.damage[number].copy(), weaker, failed)
