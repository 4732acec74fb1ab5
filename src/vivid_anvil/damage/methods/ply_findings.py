"""What an expert would say about fatigue of a laminate: layup, tests behind the diagrams, compression, failures, jumps."""

from __future__ import annotations

import dataclasses
import math
from collections.abc import Iterator
from typing import TYPE_CHECKING, Any

import numpy as np

from vivid_anvil.damage.methods.ply_place import COUNTED, MODE, PLY
from vivid_anvil.damage.methods.ply_words import MODE_WORDS, interlaminar, weakest
from vivid_anvil.ground.checks import FloatArray
from vivid_anvil.materials.plies import LifeDiagram
from vivid_anvil.materials.plies.ply import LIVES, STRENGTH_DECAYS_OF
from vivid_anvil.progress import laminate_progress
from vivid_anvil.stress.laminates import SectionLoads
from vivid_anvil.units import number
from vivid_anvil.writing.finding import Finding

if TYPE_CHECKING:
    from vivid_anvil.damage.methods.ply_fatigue import PlyFatigue

SHARE = 0.1  # of the damage, that cycles outside of tests carry
R_APART = 0.05  # of the direction from no mean to no amplitude, that R may lie outside of the tests
DISAGREE = 1.25  # factor between lives by the damage sum and by residual strength
JUMPS = 1e-3  # of the life, that its end may be wrong by
MUCH_SHEAR = 0.5  # of the interlaminar strength


def before_counting(method: PlyFatigue, relation: SectionLoads) -> Iterator[Finding]:
    """On layup and loads, whatever happens."""
    laminate = method.laminate
    if laminate.couples and not relation.bends:
        yield Finding(
            "warning",
            "layup-couples",
            f"The layup {laminate.layup} is not symmetric, so that forces bend it; only forces are given, so it is free to bend.",
            "If the part is held flat, give the moments that hold it.",
        )
    if "matrix" not in method.modes and method.rule != "energy":
        yield Finding(
            "note",
            "mode-not-assessed",
            "Cracks between fibres are not assessed.",
            'Give the plies across_life and shear_life, and modes = ["fibre", "matrix"].',
        )
    if "fibre" not in method.modes and method.rule != "energy":
        yield Finding("note", "mode-not-assessed", "Fibres are not assessed.", "Give the plies fibre_life.")


def ply_findings(method: PlyFatigue, life: Any) -> Iterator[Finding]:
    """On a life."""
    yield from _static(method, life)
    if life.damage_per_repeat > 0.0:
        yield from _tests(method, life)
    yield from _between_plies(method, life)
    yield from _progress(method, life)


def _static(method: PlyFatigue, life: Any) -> Iterator[Finding]:
    least = weakest(method, life)
    if least.factor < 1.0:
        where = method.laminate.label(least.ply)
        yield Finding(
            "severe",
            "ply-fails-statically",
            f"By {method.static} {where} fails in {least.mode} at {number(least.factor, 3)} times the largest loads: at once.",
            "Check the units of the forces and moments, the layup and the strengths.",
        )


def _tests(method: PlyFatigue, life: Any) -> Iterator[Finding]:
    cycles = life.spectrum.cycles
    mode, ply = list(method.components)[int(cycles.columns[MODE][0])], int(cycles.columns[PLY][0])
    laid = method.laminate.laid[ply].ply
    if mode == "energy":
        return
    counted = int(cycles.columns[COUNTED][0])
    diagram: LifeDiagram = getattr(laid, LIVES[counted])
    total = life.damage_per_repeat
    if diagram.r_ratios_tested:
        outside = _outside(diagram, cycles.mean, 0.5 * cycles.range)
        share = float(life.damage[outside].sum()) / total
        if share > SHARE:
            worst = int(np.argmax(np.where(outside, life.damage, 0.0)))
            r = _r_of(float(cycles.mean[worst]), 0.5 * float(cycles.range[worst]))
            tested = ", ".join(number(one, 3) for one in diagram.r_ratios_tested)
            yield Finding(
                "warning",
                "r-outside-tests",
                f"Cycles at an R that was not tested carry {share:.0%} of the damage {MODE_WORDS[mode]}: the worst has R = "
                f"{number(r, 3)}, tested were {tested}.",
                "Between them and the static strength the diagram is a guess: test at that R too.",
            )
    pressed = cycles.mean < 0.0
    share = float(life.damage[pressed].sum()) / total
    if share > SHARE and counted != 2 and laid.compression_supported is not False:
        known = (
            "were made with the ply held against buckling"
            if laid.compression_supported
            else "are not said to be otherwise"
        )
        yield Finding(
            "warning" if laid.compression_supported else "note",
            "compression-governs",
            f"Compression carries {share:.0%} of the damage {MODE_WORDS[mode]}, and its tests in compression {known}.",
            "If the part is not held, it may buckle first: say in compression_supported how the tests were made, check buckling.",
        )


def _outside(diagram: LifeDiagram, mean: FloatArray, size: FloatArray) -> Any:
    """Cycles whose direction in the diagram lies outside of those of the R that were tested."""
    tested = np.array([math.atan2((1.0 + r) / (1.0 - r), 1.0) for r in diagram.r_ratios_tested or () if r != 1.0])
    own = np.arctan2(mean, size)
    return (own > tested.max() + R_APART) | (own < tested.min() - R_APART)


def _r_of(mean: float, size: float) -> float:
    high, low = mean + size, mean - size
    return low / high if high != 0.0 else -math.inf


def _between_plies(method: PlyFatigue, life: Any) -> Iterator[Finding]:
    shear = interlaminar(method, life)
    if shear is not None and shear.strength is not None and shear.stress > MUCH_SHEAR * shear.strength:
        yield Finding(
            "severe" if shear.stress >= shear.strength else "warning",
            "interlaminar-shear",
            f"The shear between plies comes to {number(shear.stress)} MPa, {shear.stress / shear.strength:.0%} of its strength.",
            "This is an indicator alone: assess delamination by its own methods, at free edges too.",
        )


def _progress(method: PlyFatigue, life: Any) -> Iterator[Finding]:
    progress = method.progress(life.hot_spot, life.duty_cycle)
    if progress is None:
        return
    place = method.place(life.hot_spot, life.duty_cycle)
    moved = progress.error or 0.0
    if moved > JUMPS:
        yield Finding(
            "warning",
            "jumps-too-long",
            f"The jumps leave the end of the laminate uncertain by {moved:.1%}, as jumps twice as long show.",
            f"Set jump_error below {number(method.jump_error)}.",
        )
    softens = any(
        getattr(one.ply, key) is not None
        for one in method.laminate.laid
        for key in ("fibre_stiffness_decay", "across_stiffness_decay", "shear_stiffness_decay")
    )
    if len(place.tables[0]) > 1 and (softens or len(progress.failures) > 1):
        yield Finding(
            "note",
            "cycles-of-the-sound-laminate",
            "Several loads act together: while the laminate softens, its cycles stay those that were counted in the sound one.",
            "Their stresses follow the stiffness; which turning points make a cycle does not.",
        )
    yield from _other_sum(method, life, place)


def _other_sum(method: PlyFatigue, life: Any, place: Any) -> Iterator[Finding]:
    """Where the plies say how strength goes down: the end by the other way to fail."""
    needed = [
        key
        for mode, keys in (("fibre", STRENGTH_DECAYS_OF[:1]), ("matrix", STRENGTH_DECAYS_OF[1:]))
        for key in keys
        if mode in method.modes
    ]
    if not all(getattr(one.ply, key) is not None for one in method.laminate.laid for key in needed):
        return
    other = "residual strength" if method.fails_by == "damage sum" else "damage sum"
    settings = dataclasses.replace(method.settings, fails_by=other)
    here = method.progress(life.hot_spot, life.duty_cycle)
    there = laminate_progress(method.laminate, place.cycle_ends, settings)
    if (
        here is None
        or not (math.isfinite(here.over) and math.isfinite(there.over))
        or min(here.over, there.over) <= 0.0
    ):
        return
    ratio = there.over / here.over
    if max(ratio, 1.0 / ratio) > DISAGREE:
        yield Finding(
            "note",
            "sums-disagree",
            f"Failing by {method.fails_by} the laminate is over after {number(here.over)} repeats, by {other} after "
            f"{number(there.over)}.",
            "The damage sum knows no order of loads; take the shorter one, or test with the real sequence.",
        )
