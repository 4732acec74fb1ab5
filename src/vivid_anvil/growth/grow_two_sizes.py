"""Growth of a crack with depth and half length to its limit, or to the wall, as a path like any other."""

from __future__ import annotations

import math

import numpy as np

from vivid_anvil.ground.checks import FloatArray
from vivid_anvil.growth.crack import Crack
from vivid_anvil.growth.drive import GrowthDrive
from vivid_anvil.growth.limits import CriticalSizes, Margin, critical_depth, two_way_margins
from vivid_anvil.growth.path import GrowthPath
from vivid_anvil.growth.two_way import (
    CHECK,
    FINE,
    ROUGH,
    STEADY,
    Pace,
    TwoWayTable,
    followed,
    grow_two_way,
    two_way_rates,
)

_FIELDS = {
    "toughness": "toughness",
    "net-section yield": "net_section",
    "assessment curve": "assessment",
    "chosen size": "chosen",
    "wall": "wall",
    "length of the solution": "length",
    "aspect of the solution": "aspect",
    "fracture by the law": "law",
}


def two_size_path(crack: Crack, drive: GrowthDrive, target: float | None, later: float | None = None) -> GrowthPath:
    """From the initial depth and half length to the limit, the wall, or `target` repeats; the later law from `later` on."""
    a, c = crack.initial_size, crack.half_length
    margins = two_size_margins(crack, drive)
    used = next((name for name, margin in margins.items() if margin(a, c) <= 0.0), None)
    if used is not None:
        return GrowthPath.still(a, critical_at(crack, used, a), 0.0, used, c)
    table = _grown(crack, drive, (a, c), math.inf, later)
    if table.ended_by == "no growth":
        depth, name = critical_depth(margins, crack.two_sizes.deepest, a / c)
        return GrowthPath.still(a, critical_at(crack, name, depth), math.inf, "no growth", c)
    critical = critical_at(crack, table.ended_by, float(table.depths[-1]))
    life = float(table.repeats[-1])
    path = GrowthPath(table.depths, table.repeats, life, table.ended_by, table.change, critical, table.half_lengths)
    if target is None or life <= target:
        return path
    table = _grown(crack, drive, (a, c), target, later)
    return path.cut(table.depths, table.repeats, table.half_lengths)


def two_size_life(crack: Crack, drive: GrowthDrive) -> tuple[float, str, float, float]:
    """Repeats to the first limit, right to some 3e-4, its name, depth and half length, mm, there."""
    a, c = crack.initial_size, crack.half_length
    margins = two_size_margins(crack, drive)
    used = next((name for name, margin in margins.items() if margin(a, c) <= 0.0), None)
    if used is not None:
        return 0.0, used, a, c
    found = _outline(crack, drive)
    life = math.inf if found.ended_by == "no growth" else float(found.repeats[-1])
    return life, found.ended_by, float(found.depths[-1]), float(found.half_lengths[-1])


def two_size_outline(crack: Crack, drive: GrowthDrive, later: float | None) -> tuple[FloatArray, FloatArray, float]:
    """Depths, half lengths and repeats to the first limit, all cycles of a repeat at once; inf where it does not grow."""
    if later is None:
        found = _outline(crack, drive)
        return found.depths, found.half_lengths, math.inf if found.ended_by == "no growth" else float(found.repeats[-1])
    path = two_size_path(crack, drive, None, later)
    along = np.array([crack.half_length]) if path.half_lengths is None else path.half_lengths
    return path.sizes, along, path.life_repeats


def _outline(crack: Crack, drive: GrowthDrive) -> TwoWayTable:
    """The way to the first limit, right to some 3e-4."""
    rates = two_way_rates(drive, crack.two_sizes, crack.law, crack.always)
    start = (crack.initial_size, crack.half_length)
    return followed(rates, start, two_size_margins(crack, drive), math.inf, ROUGH)


def two_size_repeats(crack: Crack, drive: GrowthDrive, depth: float, path: GrowthPath) -> float:
    """Repeats from `depth`, mm, on the way of the crack to its limit; from the start where it is deeper already.

    With a later law all of them go by it, as nobody knows when the crack is found.
    """
    a, c = crack.initial_size, crack.half_length
    if math.isinf(path.life_repeats) or path.half_lengths is None:
        return path.life_repeats
    if crack.later_law is not None:
        start = max(depth, a)
        way = path.uncut or path
        halves = np.log(path.half_lengths if way.half_lengths is None else way.half_lengths)
        along = math.exp(float(np.interp(math.log(start), np.log(way.sizes), halves)))
        rates = two_way_rates(drive, crack.two_sizes, crack.later_law, crack.always)
        return float(
            followed(rates, (start, along), two_size_margins(crack, drive), math.inf, _paces(crack)[1]).repeats[-1]
        )
    if depth <= a:
        return path.life_repeats
    margin: dict[str, Margin] = {"depth": lambda deep, _: depth - deep}
    found = followed(
        two_way_rates(drive, crack.two_sizes, crack.law, crack.always), (a, c), margin, math.inf, _paces(crack)[1]
    )
    return path.life_repeats - float(found.repeats[-1])


def two_size_margins(crack: Crack, drive: GrowthDrive) -> dict[str, Margin]:
    """What is left before each limit."""
    found = two_way_margins(
        crack.two_sizes,
        crack.hot_spot.material,
        drive.peak_stress,
        crack.limits,
        crack.youngs_modulus,
        crack.stop_size,
        crack.always,
    )
    laws = [law for law in (crack.law, crack.later_law) if law is not None and law.fracture_toughness is not None]
    if laws:
        rates = [two_way_rates(drive, crack.two_sizes, law, crack.always) for law in laws]
        found["fracture by the law"] = lambda a, c: min(1.0 if math.isfinite(sum(one(a, c))) else -1.0 for one in rates)
    return found


def _paces(crack: Crack) -> tuple[Pace, Pace]:
    """How the way is followed, and its check; laws that go through all cycles at every look with longer steps."""
    laws = [law for law in (crack.law, crack.later_law) if law is not None]
    return (CHECK, FINE) if crack.always is None and all(law.separable for law in laws) else (ROUGH, STEADY)


def _grown(
    crack: Crack, drive: GrowthDrive, start: tuple[float, float], most_repeats: float, later: float | None
) -> TwoWayTable:
    """To the first limit or `most_repeats`; from `later` on, where there is one, with the later law."""
    margins, paces = two_size_margins(crack, drive), _paces(crack)
    first = two_way_rates(drive, crack.two_sizes, crack.law, crack.always)
    if later is None or crack.later_law is None or later >= most_repeats:
        return grow_two_way(first, start, margins, most_repeats, paces)
    before = grow_two_way(first, start, margins, later, paces)
    if before.ended_by not in ("repeats", "no growth"):
        return before
    still = before.ended_by == "no growth"
    state = start if still else (float(before.depths[-1]), float(before.half_lengths[-1]))
    second = two_way_rates(drive, crack.two_sizes, crack.later_law, crack.always)
    after = grow_two_way(second, state, margins, most_repeats - later, paces)
    if after.ended_by == "no growth":
        return after
    onwards = np.column_stack([after.depths, after.half_lengths, later + after.repeats])
    if still:
        rows = np.concatenate([[[*start, 0.0]], onwards])
    else:
        rows = np.concatenate([np.column_stack([before.depths, before.half_lengths, before.repeats]), onwards[1:]])
    return TwoWayTable(rows[:, 0], rows[:, 1], rows[:, 2], after.ended_by, max(before.change, after.change))


def critical_at(crack: Crack, name: str, depth: float) -> CriticalSizes:
    """The depth at which the crack stopped, under the name of what stopped it."""
    deepest = crack.two_sizes.deepest
    values: dict[str, float | None] = {
        "toughness": None,
        "net_section": None,
        "validity": max(deepest, depth) * (1.0 + 1e-12),
    }
    return CriticalSizes(**(values | {_FIELDS[name]: depth}))  # type: ignore[arg-type]
