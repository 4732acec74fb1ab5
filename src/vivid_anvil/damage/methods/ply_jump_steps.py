"""One ply in one jump of a laminate by hand: moduli that are left, stresses, the life of its worst cycle, damage."""

from __future__ import annotations

from typing import TYPE_CHECKING, Any

import numpy as np

from vivid_anvil.damage.methods.ply_steps import joint_steps
from vivid_anvil.events.calendar import plural
from vivid_anvil.ground.checks import FloatArray
from vivid_anvil.ground.errors import InputError
from vivid_anvil.materials.plies.ply import LIVES
from vivid_anvil.progress._kernels import PARTS
from vivid_anvil.progress.one_jump import JumpPoint, OneJump, one_jump
from vivid_anvil.stress.laminates.laminate import RESULTANTS
from vivid_anvil.stress.laminates.section_loads import dimension_of_resultant
from vivid_anvil.stress.laminates.static_failure import FACES
from vivid_anvil.units import DIMENSIONS, UnitSystem, display_unit, factor, number, shown
from vivid_anvil.writing.working import Step, Working, put_in

if TYPE_CHECKING:
    from vivid_anvil.damage.methods.ply_fatigue import PlyFatigue

MODULI = ("E1", "E2", "G12")
SYMBOLS = ("s1", "s2", "t12")
LITTLE = 1e-12


def jump_working(method: PlyFatigue, life: Any, ply: int | None, jump: int | None, units: UnitSystem) -> Working:
    """A ply, from 1 at the bottom, in a jump, from 1; by default the ply that fails first, in the jump that ends with it."""
    progress = method.progress(life.hot_spot, life.duty_cycle)
    if progress is None or progress.course.repeats.size < 2:
        raise InputError(f"hot spot {life.hot_spot.name}", "a laminate that takes no jump", "one that is followed on")
    first = progress.failures[0] if progress.failures else None
    lead = method.place(life.hot_spot, life.duty_cycle).lead
    at = ply if ply is not None else (lead.ply if first is None else first.ply) + 1
    if not 1 <= at <= len(method.laminate.laid):
        raise InputError("ply", f"{at}", f"a number from 1 to {len(method.laminate.laid)}, from the bottom")
    which = jump if jump is not None else max(first.jump, 1) if first is not None else 1
    cycles = method.place(life.hot_spot, life.duty_cycle).cycle_ends
    taken = one_jump(progress, cycles, which - 1)
    repeats = plural(life.duty_cycle.repeat)
    title = f"{method.laminate.label(at - 1).capitalize()} of {life.hot_spot.name} in jump {which}, worked by hand"
    opening = (
        f"The jump goes from {number(taken.start)} {repeats} on over {number(taken.repeats)} {repeats}. Worked here are the "
        "stresses of its middle, with what is lost of all plies by then; those of its start and third quarter are found alike."
    )
    return Working(title, opening, tuple(_steps(method, cycles, taken, at - 1, units)))


def _steps(method: PlyFatigue, cycles: Any, taken: OneJump, ply: int, units: UnitSystem) -> list[Step]:
    laid, unit = method.laminate.laid[ply].ply, display_unit("stress", units)
    steps, middle = [], taken.points[1]
    for c, name in enumerate(MODULI):
        whole = float(shown(float(method.laminate.moduli[ply, c]), "stress", units))
        lost = float(middle.lost[ply, c])
        formula, numbers = f"{name} = {name}_0 (1 - D_{c + 1})", f"{put_in(whole)} {unit} × (1 - {put_in(lost)})"
        steps.append(
            Step(f"{name} that is left in the middle of the jump", formula, numbers, whole * (1.0 - lost), unit)
        )
    rates = middle.rates[ply]
    face, mode = (int(one) for one in np.unravel_index(int(rates.argmax()), rates.shape))
    if not rates[face, mode] > 0.0:
        return [*steps, *_left_steps(taken, ply)]
    c = 0 if mode == 0 else _counted(cycles, middle, ply, face)
    first, last = (int(one) for one in cycles.spans[ply, face, c])
    at = int(cycles.slots[ply, face, c])
    logs = (middle.alone if mode == 0 else middle.joint)[at : at + last - first]
    each = cycles.often[first:last] * 10.0 ** -np.minimum(logs, 300.0)
    row = first + int(each.argmax())
    wanted = (0,) if mode == 0 else (1, 2)
    pairs = {}
    for k in wanted:
        ends = []
        for label, loads in zip(("one", "other"), cycles.ends[row], strict=True):
            step = _stress_step(middle, ply, face, k, loads, label, units)
            ends.append(float(loads @ middle.per_load[ply, face, k] + middle.there[ply, face, k]))
            steps.append(step)
        pairs[k] = 0.5 * abs(ends[0] - ends[1]), 0.5 * (ends[0] + ends[1])
    if mode == 0:
        steps += laid.fibre_life.steps("s1", *pairs[0], units)  # type: ignore[union-attr]  # checked when made
    elif method.settings.together and all(pairs[k][0] > 0.0 for k in wanted):
        assert laid.across_life is not None
        assert laid.shear_life is not None
        steps += joint_steps(laid.across_life, laid.shear_life, pairs[1], pairs[2], units)
    else:
        steps += getattr(laid, LIVES[c]).steps(SYMBOLS[c], *pairs[c], units)
    life, often = steps[-1].value, float(cycles.often[row])
    return [*steps, *_damage_steps(taken, ply, (face, mode), often / life, (often, life)), *_left_steps(taken, ply)]


def _damage_steps(
    taken: OneJump, ply: int, at: tuple[int, int], own: float, numbers: tuple[float, float]
) -> list[Step]:
    """Damage a repeat of one class and of all in the middle, and from that at all points the damage of the jump."""
    often, life = numbers
    first, middle, third = (float(point.rates[ply][at]) for point in taken.points)
    where = f"{('of fibres', 'between fibres')[at[1]]} at the {FACES[at[0]]} face"
    return [
        Step(
            f"Damage of this class a repeat, in which it comes {number(often, 6)} times",
            "D_class = n / N",
            f"{put_in(often)} / {put_in(life)}",
            own,
            "",
            "Palmgren 1924, Miner 1945",
        ),
        Step(
            f"Damage of all classes a repeat {where}, in the middle",
            "d_2 = D_class + that of the others",
            f"{put_in(own)} + {put_in(middle - own)}",
            middle,
            "",
        ),
        Step(
            f"Damage of the jump {where}, with d_1 and d_3 at its start and third quarter",
            "ΔD = Δr (2/9 d_1 + 1/3 d_2 + 4/9 d_3)",
            f"{put_in(taken.repeats)} × (2/9 × {put_in(first)} + 1/3 × {put_in(middle)} + 4/9 × {put_in(third)})",
            taken.repeats * sum(part * rate for part, rate in zip(PARTS[:3], (first, middle, third), strict=True)),
            "",
            "Bogacki and Shampine 1989",
        ),
    ]


def _counted(cycles: Any, point: JumpPoint, ply: int, face: int) -> int:
    """Which of s2 and t12 counts the cycles that do more."""
    sums = []
    for c in (1, 2):
        first, last = cycles.spans[ply, face, c]
        at = cycles.slots[ply, face, c]
        logs = np.minimum(point.joint[at : at + last - first], 300.0)
        sums.append(float((cycles.often[first:last] * 10.0**-logs).sum()))
    return 1 + int(sums[1] > sums[0])


def _stress_step(
    point: JumpPoint, ply: int, face: int, c: int, loads: FloatArray, label: str, units: UnitSystem
) -> Step:
    """A stress of the ply of the resultants at an end of the cycle, with the stiffness of the middle of the jump."""
    unit, parts = display_unit("stress", units), []
    own = point.per_load[ply, face, c]
    for k in range(6):
        if loads[k] == 0.0 or abs(own[k]) <= LITTLE * np.abs(own).max():
            continue
        dimension = dimension_of_resultant(k)
        name = display_unit(dimension, units)
        scale = factor(name, DIMENSIONS[dimension])
        per = float(shown(float(own[k]) * scale, "stress", units))
        parts.append(f"{put_in(per)} × {put_in(float(loads[k]) / scale)}")
    there = float(point.there[ply, face, c])
    if there:
        parts.append(put_in(float(shown(there, "stress", units))))
    value = float(shown(float(loads @ own) + there, "stress", units))
    names = ", ".join(RESULTANTS[k] for k in range(6) if loads[k] != 0.0) or "nothing"
    title = f"{SYMBOLS[c]} at the {label} end of the cycle that does most, of {names}, at the {FACES[face]} face"
    formula = f"{SYMBOLS[c]} = Σ s_k N_k" + (" + of the temperature" if there else "")
    return Step(title, formula, f"({' + '.join(parts) or '0'}) {unit}", value, unit)


def _left_steps(taken: OneJump, ply: int) -> list[Step]:
    """What is left of each modulus at the end of the jump."""
    found = []
    for c, name in enumerate(MODULI):
        before, after = float(taken.points[0].lost[ply, c]), float(taken.lost_after[ply, c])
        found.append(
            Step(
                f"Part of {name} that is left at the end of the jump",
                "e = 1 - D_before - ΔD",
                f"1 - {put_in(before)} - {put_in(after - before)}",
                1.0 - after,
                "",
            )
        )
    return found
