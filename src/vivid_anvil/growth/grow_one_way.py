"""Growth of a crack with one size, all cycles of a repeat at once; another law may hold from a time on."""

from __future__ import annotations

import dataclasses
import math
from collections.abc import Callable

import numpy as np

from vivid_anvil.ground.checks import FloatArray
from vivid_anvil.growth.crack import Crack
from vivid_anvil.growth.drive import GrowthDrive, growth_per_repeat, threshold_sizes
from vivid_anvil.growth.integrate import GrowthTable, integrate_growth, size_after
from vivid_anvil.growth.limits import CriticalSizes, critical_sizes
from vivid_anvil.growth.path import GrowthPath
from vivid_anvil.materials import GrowthLaw

MOST_LOOKED_AT = 2000
ARREST_LOOKS = 257  # sizes at which growth is looked at where it may end on the way
# Laws that go through all cycles at every size: as far as their jumps at the thresholds allow.
LOOSE = {"tolerance": 1e-6, "most_steps": 4096}


def limits_of(crack: Crack, drive: GrowthDrive) -> CriticalSizes:
    """The limiting sizes of a crack with one size, that at which its law says fracture among them."""
    found = critical_sizes(
        crack.one_size,
        crack.hot_spot.material,
        drive.peak_stress,
        chosen=crack.stop_size,
        limits=crack.limits,
        youngs_modulus=crack.youngs_modulus,
        always=crack.always,
        largest=crack.deepest,
    )
    start, end = crack.initial_size, found.limiting
    laws = [law for law in (crack.law, crack.later_law) if law is not None and law.fracture_toughness is not None]
    broken = [
        _fracture_size(growth_per_repeat(drive, crack.one_size, law, crack.always), start, end)
        for law in laws
        if start < end
    ]
    return dataclasses.replace(found, law=min((size for size in broken if size is not None), default=None))


def _fracture_size(growth: Callable[..., np.ndarray], start: float, end: float) -> float | None:
    """The size, mm, from which the growth of a repeat is infinite; None where it never is before `end`."""
    if np.isfinite(growth(end)):
        return None
    if not np.isfinite(growth(start)):
        return start
    low, high = math.log(start), math.log(end)
    for _ in range(52):
        middle = 0.5 * (low + high)
        low, high = (middle, high) if np.isfinite(growth(math.exp(middle))) else (low, middle)
    return math.exp(low)


def one_way_path(crack: Crack, drive: GrowthDrive, later_from: float | None, target: float | None) -> GrowthPath:
    """From the initial size to the limit, or to `target` repeats; `later_from`, repeats, is when the later law takes over."""
    critical, start = limits_of(crack, drive), crack.initial_size
    end = critical.limiting
    if start >= end:
        return GrowthPath.still(start, critical, 0.0, critical.governed_by)
    table, growth = table_to(crack, drive, crack.law, start, end)
    if later_from is not None and crack.later_law is not None and (table is None or table.repeats[-1] > later_from):
        size = start if table is None else size_after(table, growth, later_from)
        second, growth = table_to(crack, drive, crack.later_law, size, end)
        table = _joined(table, size, later_from, second)
    if table is None:
        return GrowthPath.still(start, critical, math.inf, "no growth")
    sizes, repeats, life = table.sizes, table.repeats, float(table.repeats[-1])
    if sizes[-1] < end * (1.0 - 1e-12):  # it comes to rest, or the later law does not grow it
        return GrowthPath(sizes, repeats, math.inf, "no growth", table.halving_change, critical)
    stopped_by = critical.governed_by
    if target is not None and life > target:
        stopped_by = "target life"
        size = size_after(table, growth, target) if later_from is None else float(np.interp(target, repeats, sizes))
        before = repeats < target
        sizes, repeats = np.append(sizes[before], size), np.append(repeats[before], target)
    return GrowthPath(*_thinned(sizes, repeats), life, stopped_by, table.halving_change, critical)


def _thinned(sizes: FloatArray, repeats: FloatArray) -> tuple[FloatArray, FloatArray]:
    """Sizes and repeats to look at, a few thousand at most: every kink is a step, and there may be one for each cycle."""
    if sizes.size <= MOST_LOOKED_AT:
        return sizes, repeats
    kept = np.unique(np.linspace(0, sizes.size - 1, MOST_LOOKED_AT).astype(int))
    return sizes[kept], repeats[kept]


def table_to(
    crack: Crack, drive: GrowthDrive, law: GrowthLaw, start: float, end: float
) -> tuple[GrowthTable | None, Callable[..., np.ndarray]]:
    """Sizes and repeats from `start` to `end`, mm, None where it does not grow; and the growth per repeat."""
    shape = crack.one_size
    growth = growth_per_repeat(drive, shape, law, crack.always)
    if not float(growth(start)) > 0.0:
        return None, growth
    end = _arrest(crack, growth, start, end)
    if crack.always is not None or not law.separable:
        kinks = np.array(shape.kinks)
        return integrate_growth(growth, start, end, kinks, **LOOSE), growth  # type: ignore[arg-type]
    return integrate_growth(growth, start, end, threshold_sizes(drive, shape, law, start, end)), growth


def _arrest(crack: Crack, growth: Callable[..., np.ndarray], start: float, end: float) -> float:
    """`end`, or the size, mm, before it at which growth falls to 0: K may fall with the size, or residual stress close it."""
    sizes = np.geomspace(start, end, ARREST_LOOKS)
    k = np.asarray(crack.one_size.geometry_factor(sizes)) * np.sqrt(sizes)
    if crack.always is None and (np.diff(k) >= 0.0).all():
        return end
    still = np.flatnonzero(~(growth(sizes) > 0.0))
    if not still.size:
        return end
    low, high = math.log(sizes[still[0] - 1]), math.log(sizes[still[0]])
    for _ in range(52):
        middle = 0.5 * (low + high)
        low, high = (middle, high) if float(growth(math.exp(middle))) > 0.0 else (low, middle)
    return math.exp(low)


def _joined(
    first: GrowthTable | None, size: float, later_from: float, second: GrowthTable | None
) -> GrowthTable | None:
    """The table of the first law up to `later_from`, and that of the second after it."""
    if first is None:
        sizes, repeats, change = np.array([size]), np.array([0.0]), 0.0
        if second is None:
            return None
    else:
        before = first.repeats < later_from
        sizes, repeats, change = first.sizes[before], first.repeats[before], first.halving_change
    sizes, repeats = np.append(sizes, size), np.append(repeats, later_from)
    if second is None:
        return GrowthTable(sizes, repeats, change)
    return GrowthTable(
        np.append(sizes, second.sizes[1:]),
        np.append(repeats, later_from + second.repeats[1:]),
        max(change, second.halving_change),
    )
