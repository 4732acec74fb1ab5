"""What is told of a life of a laminate: the ply that fails first, static reserves, what is left over repeats, its end."""

from __future__ import annotations

import math
from typing import TYPE_CHECKING, Any, NamedTuple

import numpy as np

from vivid_anvil.events.calendar import plural
from vivid_anvil.ground.checks import FloatArray
from vivid_anvil.progress import LaminateProgress
from vivid_anvil.stress.laminates import StaticReserves
from vivid_anvil.stress.laminates.static_failure import FACES
from vivid_anvil.units import UnitSystem, in_unit, number
from vivid_anvil.writing.result import Words
from vivid_anvil.writing.table import Column, Table

if TYPE_CHECKING:
    from vivid_anvil.damage.methods.ply_fatigue import PlyFatigue

LOSSES = (0.05, 0.1, 0.2)  # of the stiffness against the loads, that repeats are told to
COMPONENTS = ("s1", "s2", "t12")
MODE_WORDS = {
    "fibre": "fibres",
    "matrix": "between fibres",
    "across": "across the fibres",
    "shear": "in shear",
    "energy": "by the energy",
}


class Weakest(NamedTuple):
    """The least static reserve under any load of the duty cycle."""

    factor: float
    ply: int
    face: str
    mode: str


def weakest(method: PlyFatigue, life: Any) -> Weakest:
    """The ply and mode with the least static reserve."""
    by_load = reserves_by_load(method, life)
    best = min((one.first for one in by_load), key=lambda one: one.factor)
    return Weakest(best.factor, best.ply, best.face, best.mode)


def reserves_by_load(method: PlyFatigue, life: Any) -> list[StaticReserves]:
    """Static reserves under each load at which any stress of a ply is largest or least."""
    return list(method.place(life.hot_spot, life.duty_cycle).static_reserves)


def ply_words(method: PlyFatigue, life: Any, units: UnitSystem) -> Words:
    """Laminate, first failure, static reserve, progress."""
    laminate = method.laminate
    one = laminate.constants
    plies = ", ".join(dict.fromkeys(each.ply.name for each in laminate.laid))
    moduli = ", ".join(in_unit(value, "stress", units) for value in one[:3])
    found = [
        (
            "Laminate",
            f"{laminate.layup} of {plies}, {in_unit(laminate.thickness, 'length', units)}; E_x, E_y, G_xy {moduli}",
        )
    ]
    place = method.place(life.hot_spot, life.duty_cycle)
    lead = place.lead
    if life.damage_per_repeat > 0.0:
        where = f"{MODE_WORDS[lead.mode]} in {laminate.label(lead.ply)}, at its {FACES[lead.face]} face"
        counted = "" if lead.mode in ("fibre", "energy") else f"; cycles counted by {COMPONENTS[lead.component]}"
        found.append(("First failure", f"{where}{counted}: this is the life told here, in the sound laminate"))
    least = weakest(method, life)
    if math.isfinite(least.factor):
        found.append(
            (
                "Static",
                f"by {method.static} {laminate.label(least.ply)} fails in {least.mode} at {number(least.factor)} times the loads"
                f"{_beside(method)}; the laminate bears up to {number(place.last_failure)} times",
            )
        )
    shear = interlaminar(method, life)
    if shear is not None:
        found.append(("Interlaminar", shear_words(shear, units)))
    progress = method.progress(life.hot_spot, life.duty_cycle)
    if progress is not None:
        found.append(("Followed on", progress_words(progress, life)))
    return tuple(found)


def _beside(method: PlyFatigue) -> str:
    return "" if method.laminate.temperature_change == 0.0 else ", beside the stresses of the temperature"


def progress_words(progress: LaminateProgress, life: Any) -> str:
    """First failures, losses of stiffness, the end, in the units of time that are known."""
    duty = life.duty_cycle

    def at(repeats: float) -> str:
        return duty.calendar.in_all_units(repeats, duty.hours) if repeats > 0.0 else "at once"

    parts = []
    for mode, words in (("matrix", "first failure between fibres"), ("fibre", "first broken fibres")):
        first = progress.first(mode)
        if math.isfinite(first):
            parts.append(f"{words} after {at(first)}" if first > 0.0 else f"{words} at once")
    tenth = progress.to_stiffness(0.9)
    if math.isfinite(tenth):
        parts.append(f"10 % softer after {at(tenth)}" if tenth > 0.0 else "10 % softer at once")
    over = progress.over
    end = f"over after {at(over)}" if math.isfinite(over) and over > 0.0 else "over at once"
    parts.append(end if math.isfinite(over) else f"not over: {progress.ended}")
    jumps = f"{progress.course.repeats.size - 1} jumps"
    if progress.error:
        jumps += f", converged to {number(100.0 * progress.error, 2)} %"
    return "; ".join(parts) + f" ({progress.settings.fails_by}, {jumps})"


class Interlaminar(NamedTuple):
    """Largest shear between plies, MPa, where (between ply and the next), what is borne, MPa or None."""

    stress: float
    below: int
    strength: float | None


def interlaminar(method: PlyFatigue, life: Any) -> Interlaminar | None:
    """The largest shear between plies of any event, of the shear forces that are stated; None without these."""
    relation = life.hot_spot.fed
    if not (relation.unit[:, 6:].any() or relation.constant[6:].any()):
        return None
    state = method.laminate.full
    worst = np.zeros(len(method.laminate.edges))
    for event in relation.loads.events(life.duty_cycle):
        forces = relation.course(event.loads)[:, 6:]
        shear = np.einsum("eaq,nq->nea", state.shear_per_load, forces)
        worst = np.maximum(worst, np.linalg.norm(shear, axis=2).max(axis=0))
    at = int(worst.argmax())
    known = [one.ply.interlaminar_strength for one in method.laminate.laid[max(at - 1, 0) : at + 1]]
    borne = min((one for one in known if one is not None), default=None)
    return Interlaminar(float(worst[at]), at, borne)


def shear_words(shear: Interlaminar, units: UnitSystem) -> str:
    """As an indicator, and no more."""
    own = f"largest shear between plies {in_unit(shear.stress, 'stress', units)}, above ply {shear.below}"
    part = "" if shear.strength is None else f", {shear.stress / shear.strength:.0%} of the strength"
    return f"{own}{part}; an indicator alone: neither edges nor growth of a delamination are followed"


def ply_tables(method: PlyFatigue, life: Any) -> tuple[Table, ...]:
    """Each ply, failures, what is left, the stiffness of the laminate."""
    found = [plies_table(method, life)]
    progress = method.progress(life.hot_spot, life.duty_cycle)
    if progress is not None:
        found.append(failures_table(progress, life))
        found.append(left_table(progress, life))
    found.append(stiffness_table(method))
    return tuple(found)


def plies_table(method: PlyFatigue, life: Any) -> Table:
    """Of each ply the stresses, the damage of each mode, the static reserve."""
    laminate, place = method.laminate, method.place(life.hot_spot, life.duty_cycle)
    low, high = place.extremes
    reserves = reserves_by_load(method, life)
    least = np.min([np.min([own.min(axis=1) for own in one.reserves.values()], axis=0) for one in reserves], axis=0)
    damage = {mode: own.max(axis=(1, 2)) for mode, own in place.damage.items()}
    numbers = range(1, len(laminate.laid) + 1)
    columns = [
        Column("ply", list(numbers), style="number"),
        Column("angle", laminate.angles.tolist(), unit="°", style="number"),
    ]
    for c, name in enumerate(COMPONENTS):
        top, bottom = high[:, :, c].max(axis=1), low[:, :, c].min(axis=1)
        columns.append(Column(f"highest {name}", top.tolist(), of="stress", only="file"))
        columns.append(Column(f"lowest {name}", bottom.tolist(), of="stress", only="file"))
        largest = np.where(top >= -bottom, top, bottom)
        columns.append(Column(f"largest {name}", largest.tolist(), of="stress", head=f"{name}\n", only="page"))
    for mode, own in damage.items():
        lives = [life.critical_sum / one if one > 0.0 else math.inf for one in own.tolist()]
        columns.append(Column(f"life {mode} [repeats]", lives, head=f"Life\n{mode}", endless="endless", digits=3))
    columns.append(Column("static mode", _static_modes(reserves), only="file"))
    columns.append(Column("static reserve", least.tolist(), endless="no limit", head="Static\nreserve"))
    note = (
        f"From the bottom to the top; the worse of both faces; lives in {plural(life.duty_cycle.repeat)}, each mode alone, in a "
        "sound laminate."
    )
    return Table("Plies", tuple(columns), "plies", note)


def _static_modes(reserves: list[StaticReserves]) -> list[str | None]:
    """The mode with the least static reserve of each ply; None where nothing breaks it."""
    found: list[str | None] = []
    for ply in range(len(reserves[0].stresses)):
        best: tuple[float, str | None] = (math.inf, None)
        for one in reserves:
            for mode, values in one.reserves.items():
                best = min(best, (float(values[ply].min()), mode), key=lambda pair: pair[0])
        found.append(best[1])
    return found


def failures_table(progress: LaminateProgress, life: Any) -> Table:
    """The failures in their order."""
    laminate, failures = progress.laminate, progress.failures
    years = [life.duty_cycle.calendar.years(one.repeats) for one in failures]
    columns = [
        Column(
            "repeats",
            [one.repeats for one in failures],
            head=plural(life.duty_cycle.repeat).capitalize(),
            zero="at once",
        ),
        Column("ply", [one.ply + 1 for one in failures], style="number"),
        Column("angle", [float(laminate.angles[one.ply]) for one in failures], unit="°", style="number"),
        Column("face", [one.face for one in failures], left=True),
        Column("mode", [MODE_WORDS[one.mode] for one in failures], left=True),
        Column("stiffness left", [one.stiffness_left for one in failures], style="share"),
    ]
    if all(year is not None for year in years) and life.duty_cycle.repeat != "year":
        columns.insert(1, Column("years", years, head="Years"))
    note = f"Stiffness against the loads of this place, after the failure. Left at the end: {progress.ended}."
    return Table("Failures of plies", tuple(columns), "failures of plies", note)


def left_table(progress: LaminateProgress, life: Any) -> Table:
    """Repeats to losses of stiffness, and to the end."""
    rows = [(f"{loss:.0%} of the stiffness lost", progress.to_stiffness(1.0 - loss)) for loss in LOSSES]
    rows.append(("first failure between fibres", progress.first("matrix")))
    rows.append(("first broken fibres", progress.first("fibre")))
    rows.append(("laminate over", progress.over))
    repeats = [one for _, one in rows]
    columns = [
        Column("what", [what for what, _ in rows], left=True),
        Column("repeats", repeats, head=plural(life.duty_cycle.repeat).capitalize(), endless="never", zero="at once"),
    ]
    years = [None if math.isinf(one) else life.duty_cycle.calendar.years(one) for one in repeats]
    if life.duty_cycle.repeats_per_year is not None and life.duty_cycle.repeat != "year":
        columns.append(Column("years", years))
    return Table("What is left of the laminate", tuple(columns), "progress")


def stiffness_table(method: PlyFatigue) -> Table:
    """[[A, B], [B, D]] and its inverse, row by row."""
    state = method.laminate.full
    names = [f"{part}_{i}" for part in ("N", "M") for i in ("x", "y", "xy")]

    def columns(matrix: FloatArray, letter: str) -> list[Column]:
        return [Column(f"{letter}_{k + 1}", matrix[:, k].tolist(), style="number", digits=7) for k in range(6)]

    rows = [Column("row", names, left=True), *columns(state.abd, "stiffness"), *columns(state.compliance, "compliance")]
    note = "Stiffness [[A, B], [B, D]] in N/mm, N, N·mm and its inverse, of the sound laminate."
    return Table("Stiffness of the laminate", tuple(rows), "stiffness of the laminate", note, only="in full")
