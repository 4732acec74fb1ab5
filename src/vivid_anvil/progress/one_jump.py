"""One jump of a laminate taken again, with all that stands in its middle: stresses, lives, what each class of cycles does."""

from __future__ import annotations

from dataclasses import dataclass

import numpy as np

from vivid_anvil.ground.checks import FloatArray
from vivid_anvil.ground.errors import InputError
from vivid_anvil.progress import _kernels
from vivid_anvil.progress.laminate_progress import CycleEnds, LaminateProgress
from vivid_anvil.progress.tables import PlyTables


@dataclass(frozen=True, eq=False)
class OneJump:
    """A jump: from `start` on so many repeats; in its middle the parts of moduli that are lost, (plies, 3), stresses per
    resultant and of the temperature, log10 lives of every slot alone and together, damage a repeat, (plies, 2, 2); what is lost
    at its end."""

    start: float
    repeats: float
    lost_before: FloatArray
    lost: FloatArray
    per_load: FloatArray
    there: FloatArray
    alone: FloatArray
    joint: FloatArray
    rates: FloatArray
    lost_after: FloatArray


def one_jump(progress: LaminateProgress, cycles: CycleEnds, number: int) -> OneJump:
    """The jump from state `number` of the course, from 0, to the next; InputError for one that is not there."""
    course = progress.course
    if not 0 <= number < course.repeats.size - 1:
        raise InputError("jump", f"{number + 1}", f"a number from 1 to {course.repeats.size - 1}")
    tables = PlyTables(progress.laminate, progress.settings)
    laminate, how = progress.laminate, progress.settings
    plies, slots = len(laminate.laid), cycles.slots
    total = int(slots[-1, 1, 2] + np.diff(cycles.spans[-1, 1, 2])[0])
    moduli, edges = np.ascontiguousarray(laminate.moduli), np.ascontiguousarray(laminate.edges)
    per_load, there, compliance = np.empty((plies, 2, 3, 6)), np.empty((plies, 2, 3)), np.empty((6, 6))
    alone, joint, peak = (np.full(total, 400.0) for _ in range(3))
    rates = np.zeros((plies, 2, 2))
    failed = np.zeros((plies, 2), dtype=bool)
    for one in progress.failures:
        if one.jump <= number:
            failed[one.ply, 1] = True
            failed[one.ply, 0] |= one.mode == "fibre"
    lost = np.ascontiguousarray(1.0 - course.left[number])
    weaker = np.ascontiguousarray(tables.static[:, None] - course.strengths[number])
    damage = np.ascontiguousarray(course.damage[number])
    step = float(course.repeats[number + 1] - course.repeats[number])
    small = 1e-9 * float(max(np.abs(course.highest[0]).max(), np.abs(course.lowest[0]).max()))

    def look(at: FloatArray) -> None:
        """Stresses and lives with these parts lost."""
        _kernels.stress_of_loads(moduli, at, tables.turn, edges, tables.free, per_load, there, compliance)
        nowhere = [np.full((plies, 2, 3, 2), np.nan) for _ in range(2)]
        lives = (tables.life_at, tables.use_at, tables.life_numbers, how.together, small, failed, step, 0.0)
        slots_of = (cycles.ends, cycles.often, cycles.spans, slots)
        _kernels.lives_of_slots(
            per_load, there, *slots_of, *lives, *nowhere, np.zeros((plies, 2, 3)), alone, joint, peak
        )
        _kernels.rates_of(cycles.spans, slots, cycles.often, alone, joint, how.assessed, failed, rates)

    def after(repeats: float) -> FloatArray:
        """Parts lost after so many repeats of these stresses."""
        found = np.empty((plies, 3))
        decays = (
            tables.strength_at,
            tables.strength_numbers,
            tables.stiffness_at,
            tables.stiffness_numbers,
            tables.by_sum,
        )
        _kernels.jumped(
            repeats,
            2,
            damage,
            weaker,
            lost,
            rates,
            cycles.spans,
            slots,
            cycles.often,
            alone,
            peak,
            moduli,
            tables.static,
            *decays,
            failed,
            np.empty((plies, 2, 2)),
            np.empty((plies, 2, 5)),
            found,
        )
        return found

    look(lost)
    middle = after(0.5 * step)
    look(middle)
    start = float(course.repeats[number])
    return OneJump(start, step, lost, middle, per_load, there, alone, joint, rates, after(step))
