"""A cycle of a ply by hand: loads, resultants, strains of the laminate, strains and stresses of the ply, life."""

from __future__ import annotations

import math
from typing import TYPE_CHECKING, Any

import numpy as np

from vivid_anvil.damage.methods.ply_place import COUNTED, MODE, PLY
from vivid_anvil.ground.checks import FloatArray
from vivid_anvil.materials.plies import LifeDiagram, Ply, joint_lives
from vivid_anvil.materials.plies.ply import to_ply
from vivid_anvil.stress.laminates.laminate import RESULTANTS
from vivid_anvil.stress.laminates.section_loads import dimension_of_resultant
from vivid_anvil.stress.laminates.static_failure import FACES
from vivid_anvil.stress.relations.one_load import load_in
from vivid_anvil.units import DIMENSIONS, UnitSystem, coherent, display_unit, factor, number, shown
from vivid_anvil.writing.working import Step, put_in

if TYPE_CHECKING:
    from vivid_anvil.damage.methods.ply_fatigue import PlyFatigue

CLT = "classical lamination theory; Jones, Mechanics of Composite Materials"
STRAINS = ("ε_x", "ε_y", "γ_xy", "κ_x", "κ_y", "κ_xy")
OWN = ("ε_1", "ε_2", "γ_12")
SYMBOLS = ("s1", "s2", "t12")
LITTLE = 1e-12


def load_steps(method: PlyFatigue, life: Any, row: int, units: UnitSystem) -> list[Step]:
    """From the loads at both ends of a cycle to its amplitude and mean."""
    cycles, spot = life.spectrum.cycles, life.hot_spot
    place = method.place(spot, life.duty_cycle)
    ply, counted = int(cycles.columns[PLY][row]), int(cycles.columns[COUNTED][row])
    mode = list(method.components)[int(cycles.columns[MODE][row])]
    assert (place.lead.mode, place.lead.ply, place.lead.component) == (mode, ply, counted)
    face = place.lead.face
    wanted = (0, 1, 2) if mode == "energy" else (1, 2) if mode == "matrix" else (counted,)
    steps: list[Step] = []
    found: dict[tuple[str, int], float] = {}
    for label, stress in (("max", float(cycles.maximum[row])), ("min", float(cycles.minimum[row]))):
        event, sample = _moment(method, place, cycles, row, ply, face, counted, stress)
        head = f"At the cycle's {label}imum"
        own = event.course[sample]
        steps += _resultant_steps(spot.fed, life.duty_cycle, event.name, sample, own, head, units)
        steps += _strain_steps(method, own, head, units)
        inner, turned = _turned_steps(method, own, ply, face, head, units)
        steps += inner
        for c in wanted:
            step = _stress_step(method, turned, ply, c, head, units)
            found[label, c] = step.value
            steps.append(step)
    unit = display_unit("stress", units)
    for c in wanted:
        one, two = found["max", c], found["min", c]
        a, b = put_in(max(one, two)), put_in(min(one, two))
        if mode == "energy":
            continue
        name = SYMBOLS[c]
        numbers = f"({a} {unit} - {b} {unit}) / 2", f"({a} {unit} + {b} {unit}) / 2"
        steps.append(Step(f"Amplitude of {name}", "S_a = (s_max - s_min) / 2", numbers[0], 0.5 * abs(one - two), unit))
        steps.append(Step(f"Mean of {name}", "S_m = (s_max + s_min) / 2", numbers[1], 0.5 * (one + two), unit))
    return steps


def _moment(
    method: PlyFatigue, place: Any, cycles: Any, row: int, ply: int, face: int, counted: int, stress: float
) -> tuple[Any, int]:
    """The event, and the sample at which the counted stress of the ply is this one."""
    event = place.events[int(cycles.event[row])]
    state = method.laminate.full
    course = event.course @ state.per_load[ply, face, counted] + state.thermal_stresses[ply, face, counted]
    ends = [int(one[row]) for one in (cycles.start, cycles.end)]
    among = np.array(ends) if min(ends) >= 0 else np.arange(course.size)
    return event, int(among[np.abs(course[among] - stress).argmin()])


def _resultant_steps(
    relation: Any, duty: Any, event: str, sample: int, own: FloatArray, head: str, units: UnitSystem
) -> list[Step]:
    """Loads over unit loads, and the resultants that they make."""
    flat = {one.name: one for one, _ in duty.flat()}[event]
    load = flat.load
    named = load.samples().channel if "samples" in load.gives else lambda name: load.ends(name).channel
    shares = relation.loads.over_unit_loads(event, named)[sample]
    steps = []
    for case, share in zip(relation.loads.cases, shares.tolist(), strict=False):
        dimension = load.dimensions[case.channel]
        name = display_unit(dimension, units)
        unit_load = coherent(case.unit_load, dimension, case.case) / load_in(name, dimension)
        scale = case.event_factors.get(event, 1.0)
        load_there = share * unit_load / scale if scale != 0.0 else 0.0
        times = "" if scale == 1.0 else f" × {put_in(scale)}"
        formula = "f = F / F_unit" + (" × factor of the event" if times else "")
        told = "" if name == "1" else f" {name}"
        numbers = f"{put_in(load_there)}{told} / {put_in(unit_load)}{told}{times}"
        steps.append(Step(f"{head}: load over unit load of {case.case}", formula, numbers, share, ""))
    for k in range(6):
        if own[k] == 0.0:
            continue
        dimension = dimension_of_resultant(k)
        unit = display_unit(dimension, units)

        def in_its_unit(value: float, dimension: str = dimension) -> str:
            return put_in(float(shown(value, dimension, units)))

        parts = [
            f"{put_in(float(f))} × {in_its_unit(float(one))}"
            for f, one in zip(shares, relation.unit[:, k], strict=True)
            if one != 0.0
        ]
        if relation.constant[k]:
            parts.append(in_its_unit(float(relation.constant[k])))
        value = float(shown(float(own[k]), dimension, units))
        steps.append(
            Step(
                f"{head}: {RESULTANTS[k]}",
                f"{RESULTANTS[k]} = Σ f × unit",
                f"({' + '.join(parts)}) {unit}",
                value,
                unit,
            )
        )
    return steps


def _strains(method: PlyFatigue, own: FloatArray) -> tuple[FloatArray, FloatArray]:
    """Strains of the middle and curvatures, and the temperature's part of them; what rounding leaves of zeros is taken out."""
    state, thickness = method.laminate.full, method.laminate.thickness
    across = np.array([1.0, 1.0, 1.0, thickness, thickness, thickness])  # a curvature as the strain it makes
    warm = state.thermal_strain
    strains = state.compliance @ own + warm
    least = LITTLE * max(np.abs(strains * across).max(), np.abs(warm * across).max())
    noise = np.abs(np.array([strains, warm]) * across) <= least
    return np.where(noise[0], 0.0, strains), np.where(noise[1], 0.0, warm)


def _strain_steps(method: PlyFatigue, own: FloatArray, head: str, units: UnitSystem) -> list[Step]:
    """Strains of the middle and curvatures, by the inverse of [[A, B], [B, D]]."""
    a = method.laminate.full.compliance
    strains, warm = _strains(method, own)
    there = bool(warm.any())
    length = factor(display_unit("length", units), DIMENSIONS["length"])
    steps = []
    for i in range(6):
        if strains[i] == 0.0 and warm[i] == 0.0:
            continue
        parts = []
        for k in range(6):
            if own[k] == 0.0 or abs(a[i, k]) <= LITTLE * np.abs(a[i]).max():
                continue
            dimension = dimension_of_resultant(k)
            scale = factor(display_unit(dimension, units), DIMENSIONS[dimension])
            load = float(shown(float(own[k]), dimension, units))
            parts.append(f"{put_in(float(a[i, k]) * scale * (length if i > 2 else 1.0))} × {put_in(load)}")
        bend = length if i > 2 else 1.0
        if there:
            parts.append(put_in(float(warm[i]) * bend))
        formula = f"{STRAINS[i]} = Σ a_{i + 1}k N_k" + (" + of the temperature" if there else "")
        unit = "" if i < 3 else f"1/{display_unit('length', units)}"
        what = "strain of the middle" if i < 3 else "curvature"
        steps.append(
            Step(f"{head}: {what} {STRAINS[i]}", formula, " + ".join(parts) or "0", float(strains[i]) * bend, unit, CLT)
        )
    return steps


def _turned_steps(
    method: PlyFatigue, own: FloatArray, ply: int, face: int, head: str, units: UnitSystem
) -> tuple[list[Step], FloatArray]:
    """Strains at the face of the ply, and the same turned into its axes."""
    laminate = method.laminate
    strains = _strains(method, own)[0]
    z, unit = float(laminate.edges[ply + face]), display_unit("length", units)
    there = strains[:3] + z * strains[3:]
    length = factor(unit, DIMENSIONS["length"])
    at = f"{put_in(z / length)} {unit}"
    steps = [
        Step(
            f"{head}: strain {STRAINS[i]} of {laminate.label(ply)} at its {FACES[face]} face",
            f"{STRAINS[i]}(z) = {STRAINS[i]} + z {STRAINS[3 + i]}",
            f"{put_in(float(strains[i]))} + {at} × {put_in(float(strains[3 + i]) * length)} 1/{unit}",
            float(there[i]),
            "",
        )
        for i in range(3)
    ]
    turn = to_ply(float(laminate.angles[ply]), engineering=True)
    turn = np.where(np.abs(turn) < LITTLE, 0.0, turn)  # what rounding leaves of cosines
    turned = turn @ there
    angle = f"{number(float(laminate.angles[ply]))}°"
    formulas = ("c² ε_x + s² ε_y + s c γ_xy", "s² ε_x + c² ε_y - s c γ_xy", "2 s c (ε_y - ε_x) + (c² - s²) γ_xy")
    for i in range(3):
        parts = " + ".join(f"{put_in(float(turn[i, j]))} × {put_in(float(there[j]))}" for j in range(3))
        title = f"{head}: strain {OWN[i]} of the ply, c = cos {angle}, s = sin {angle}"
        steps.append(Step(title, f"{OWN[i]} = {formulas[i]}", parts, float(turned[i]), ""))
    return steps, turned


def _stress_step(method: PlyFatigue, turned: FloatArray, ply: int, c: int, head: str, units: UnitSystem) -> Step:
    """A stress of the ply, from the strains in its axes."""
    laminate = method.laminate
    free = laminate.laid[ply].ply.expansion * laminate.temperature_change
    q = laminate.full.stiffnesses[ply]
    unit = display_unit("stress", units)
    parts, words = [], []
    for j in range(3):
        if q[c, j] == 0.0:
            continue
        inner = put_in(float(turned[j]))
        if free[j]:
            inner = f"({inner} - {put_in(float(free[j]))})"
        parts.append(f"{put_in(float(shown(float(q[c, j]), 'stress', units)))} × {inner}")
        words.append(f"Q_{c + 1}{j + 1} {OWN[j]}" if not free.any() else f"Q_{c + 1}{j + 1} ({OWN[j]} - α_{j + 1} ΔT)")
    value = float(shown(float(q[c] @ (turned - free)), "stress", units))
    title = f"{head}: {SYMBOLS[c]} of {laminate.label(ply)}"
    return Step(title, f"{SYMBOLS[c]} = {' + '.join(words)}", f"({' + '.join(parts)}) {unit}", value, unit, CLT)


def joint_steps(
    across: LifeDiagram,
    shear: LifeDiagram,
    of_across: tuple[float, float],
    of_shear: tuple[float, float],
    units: UnitSystem,
) -> list[Step]:
    """Lives of s2 and of t12 alone, by amplitude and mean of both, MPa, and the life of both together."""
    life = float(joint_lives(across, shear, of_across, of_shear)[0])
    steps: list[Step] = []
    used = []
    for diagram, symbol, (size, mean) in ((across, "s2", of_across), (shear, "t12", of_shear)):
        if size <= 0.0:
            used.append(0.0)
            continue
        steps += diagram.steps(symbol, size, mean, units)
        if not math.isfinite(life):
            continue
        part = float(diagram.used(life, size, mean)[0])
        used.append(part)
        steps.append(diagram.use_step(symbol, life, size, mean, part, units))
    if len(steps) and all(used) and math.isfinite(life):
        squares = " + ".join(f"{put_in(one)}²" for one in used)
        total = sum(one * one for one in used)
        steps.append(
            Step(
                "Both together: the life looked for is the one at which their squares sum up to 1",
                "u_2² + u_12² = 1",
                squares,
                total,
                "",
                "Hashin and Rotem 1973",
            )
        )
    steps.append(Step("Life between fibres", "N = the one looked for", put_in(life), life, "cycles"))
    return steps


def energy_steps(ply: Ply, high: FloatArray, low: FloatArray, units: UnitSystem) -> list[Step]:
    """The energy of a cycle over that which breaks the ply, and the life."""
    strengths = ply.strengths("the energy of a cycle")
    unit, parts, total = display_unit("stress", units), [], 0.0
    for c in range(3):
        big, small = sorted((abs(float(high[c])), abs(float(low[c]))), reverse=True)
        if big == 0.0:
            continue
        x = float(strengths[4 if c == 2 else 2 * c + int(high[c] + low[c] < 0.0)])
        told = [put_in(float(shown(one, "stress", units))) for one in (big, small, x)]
        parts.append(f"({told[0]}² - {told[1]}²) / {told[2]}²")
        total += (big * big - small * small) / (x * x)
    law = ply.energy_life
    assert law is not None
    life = (law.constant / total) ** (1.0 / law.exponent)
    return [
        Step(
            f"Energy of the cycle over that which breaks the ply, stresses in {unit}",
            "ΔW* = Σ (s_max² - s_min²) / X²",
            " + ".join(parts),
            total,
            "",
            "Ellyin and El-Kadi 1990; Shokrieh and Taheri-Behrooz 2006",
        ),
        Step(
            "Life by the energy",
            "N = (K / ΔW*)^(1/a)",
            f"({put_in(law.constant)} / {put_in(total)})^(1/{put_in(law.exponent)})",
            life,
            "cycles",
        ),
    ]
