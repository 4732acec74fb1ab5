"""Growth of a crack with depth and half length to its limit, or to the wall, as a path like any other."""

from __future__ import annotations

import math

from vivid_anvil.cracks.crack import Crack
from vivid_anvil.cracks.critical import CriticalSizes, Margin, critical_depth, two_way_margins
from vivid_anvil.cracks.drive import GrowthDrive
from vivid_anvil.cracks.path import GrowthPath
from vivid_anvil.cracks.two_way import TOLERANCE, TwoWayTable, followed, grow_two_way, two_way_rates
from vivid_anvil.errors import InputError

_FIELDS = {
    "toughness": "toughness",
    "net-section yield": "net_section",
    "assessment curve": "assessment",
    "chosen size": "chosen",
    "wall": "wall",
    "length of the solution": "length",
}


def two_size_path(crack: Crack, drive: GrowthDrive, target: float | None) -> GrowthPath:
    """From the initial depth and half length to the limit, the wall, or `target` repeats."""
    a, c = crack.initial_size, crack.half_length
    margins = two_size_margins(crack, drive)
    used = next((name for name, margin in margins.items() if margin(a, c) <= 0.0), None)
    if used is not None:
        return GrowthPath.still(a, critical_at(crack, used, a), 0.0, used, c)
    table = _grown(crack, drive, a, c, math.inf)
    if table.ended_by == "no growth":
        depth, name = critical_depth(margins, crack.two_sizes.deepest, a / c)
        return GrowthPath.still(a, critical_at(crack, name, depth), math.inf, "no growth", c)
    critical = critical_at(crack, table.ended_by, float(table.depths[-1]))
    life, stopped_by, change = float(table.repeats[-1]), table.ended_by, table.change
    if target is not None and life > target:
        table, stopped_by = _grown(crack, drive, a, c, target), "target life"
    return GrowthPath(table.depths, table.repeats, life, stopped_by, change, critical, table.half_lengths)


def two_size_life(crack: Crack, drive: GrowthDrive) -> tuple[float, str, float]:
    """Repeats to the first limit, right to some 1e-5, its name, and the half length, mm, there."""
    a, c = crack.initial_size, crack.half_length
    margins = two_size_margins(crack, drive)
    used = next((name for name, margin in margins.items() if margin(a, c) <= 0.0), None)
    if used is not None:
        return 0.0, used, c
    rates = two_way_rates(drive, crack.two_sizes, (crack.law, crack.law))
    if not sum(rates(a, c)) > 0.0:
        return math.inf, "no growth", c
    found = followed(rates, (a, c), margins, math.inf, 10.0 * TOLERANCE)
    life = math.inf if found.ended_by == "no growth" else float(found.repeats[-1])
    return life, found.ended_by, float(found.half_lengths[-1])


def two_size_repeats(crack: Crack, drive: GrowthDrive, depth: float, path: GrowthPath) -> float:
    """Repeats from `depth`, mm, on the way of the crack to its limit; from the start where it is deeper already."""
    a, c = crack.initial_size, crack.half_length
    if math.isinf(path.life_repeats) or depth <= a:
        return path.life_repeats
    laws = (crack.law, crack.law)
    margin: dict[str, Margin] = {"depth": lambda deep, _: depth - deep}
    found = followed(two_way_rates(drive, crack.two_sizes, laws), (a, c), margin, math.inf)
    return path.life_repeats - float(found.repeats[-1])


def two_size_margins(crack: Crack, drive: GrowthDrive) -> dict[str, Margin]:
    """What is left before each limit."""
    return two_way_margins(
        crack.two_sizes, crack.hot_spot.material, drive.peak_stress, crack.limits, crack.youngs_modulus, crack.stop_size
    )


def _grown(crack: Crack, drive: GrowthDrive, a: float, c: float, target: float) -> TwoWayTable:
    if crack.later_law is not None:
        raise InputError(
            f"crack at {crack.hot_spot.name}, later_law", "a later law with two sizes", "a shape with one size"
        )
    rates = two_way_rates(drive, crack.two_sizes, (crack.law, crack.law))
    return grow_two_way(rates, (a, c), two_size_margins(crack, drive), target)


def critical_at(crack: Crack, name: str, depth: float) -> CriticalSizes:
    """The depth at which the crack stopped, under the name of what stopped it."""
    deepest = crack.two_sizes.deepest
    values: dict[str, float | None] = {
        "toughness": None,
        "net_section": None,
        "validity": max(deepest, depth) * (1.0 + 1e-12),
    }
    return CriticalSizes(**(values | {_FIELDS[name]: depth}))  # type: ignore[arg-type]
