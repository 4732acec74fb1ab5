"""Grow a crack through the repeats of a duty cycle, to the size at which it has to stop."""

from __future__ import annotations

import dataclasses
import math

import numpy as np

from vivid_anvil.checks import read_only
from vivid_anvil.cracks.crack import Crack
from vivid_anvil.cracks.critical import CriticalSizes, critical_sizes
from vivid_anvil.cracks.drive import GrowthDrive, growth_drive, growth_per_repeat, threshold_sizes
from vivid_anvil.cracks.growth import GrowthResult
from vivid_anvil.cracks.growth_findings import growth_findings
from vivid_anvil.cracks.integrate import integrate_growth, size_after
from vivid_anvil.histories import DutyCycle
from vivid_anvil.stress import nominal_cycles


def grow_crack(crack: Crack, duty_cycle: DutyCycle, *, target: float | str | None = None) -> GrowthResult:
    """Growth of `crack` while `duty_cycle` is repeated, to its limiting size or to `target` ("30 years", or repeats).

    Raises InputError where the material has no toughness or yield strength, and for a channel that an event lacks.

    >>> from vivid_anvil.cracks import CentreCrack
    >>> from vivid_anvil.histories import ConstantAmplitude, Event
    >>> from vivid_anvil.materials import GrowthLaw, Material, SNCurve
    >>> from vivid_anvil.stress import HotSpot
    >>> pull = ConstantAmplitude.from_range("force", "60 kN", r_ratio=0.1, cycles=1e4)
    >>> steel = Material(name="steel", yield_strength="350 MPa", toughness="70 MPa√m")
    >>> curve = SNCurve.straight(name="-", stress="range", r_ratio="any", point_stress=90.0, point_life=2e6, slope=3)
    >>> spot = HotSpot(name="plate", channel="force", stress_per_load="1 MPa/kN", curve=curve, material=steel)
    >>> law = GrowthLaw(name="steel in air", rate="5.21e-13 mm/cycle at 1 MPa√mm", slope=3)
    >>> flaw = Crack(hot_spot=spot, shape=CentreCrack("100 mm"), initial_size="3 mm", law=law)
    >>> grow_crack(flaw, DutyCycle("year", [Event("pull", pull)], repeats_per_year=1))
    <GrowthResult plate: 3 to 40 mm in 116.9 years (116.9 years), limit of the solution>
    """
    shape, law, start = crack.shape, crack.law, crack.initial_size
    drive = growth_drive(nominal_cycles(crack.hot_spot, duty_cycle), crack.counted_part)
    critical = critical_sizes(shape, crack.hot_spot.material, drive.peak_stress)
    growth = growth_per_repeat(drive, shape, law)
    target_repeats = None if target is None else duty_cycle.repeats_in(target)
    sizes, repeats, change, life = np.array([start]), np.array([0.0]), 0.0, math.inf
    stopped_by = "no growth"
    if start >= critical.limiting:
        life, stopped_by = 0.0, critical.governed_by
    elif float(growth(start)) > 0.0:
        table = integrate_growth(
            growth, start, critical.limiting, threshold_sizes(drive, shape, law, start, critical.limiting)
        )
        sizes, repeats, change = table.sizes, table.repeats, table.halving_change
        life, stopped_by = float(repeats[-1]), critical.governed_by
        if target_repeats is not None and life > target_repeats:
            stopped_by = "target life"
            size = size_after(table, growth, target_repeats)
            before = repeats < target_repeats
            sizes, repeats = np.append(sizes[before], size), np.append(repeats[before], target_repeats)
    result = GrowthResult(
        crack=crack,
        duty_cycle=duty_cycle,
        drive=drive,
        critical=critical,
        sizes=read_only(sizes),
        repeats=read_only(repeats),
        stopped_by=stopped_by,
        life_repeats=life,
        halving_change=change,
        target_repeats=target_repeats,
        interval_repeats=_inspection_interval(crack, critical, drive),
    )
    return dataclasses.replace(result, findings=growth_findings(result))


def _inspection_interval(crack: Crack, critical: CriticalSizes, drive: GrowthDrive) -> float | None:
    """Repeats from detectable to limiting size / factor; 0 where it fails before it can be found, inf without growth."""
    size = crack.detectable_size
    if size is None:
        return None
    if size >= critical.limiting:
        return 0.0
    growth = growth_per_repeat(drive, crack.shape, crack.law)
    if not float(growth(size)) > 0.0:
        return math.inf
    kinks = threshold_sizes(drive, crack.shape, crack.law, size, critical.limiting)
    return float(integrate_growth(growth, size, critical.limiting, kinks).repeats[-1]) / crack.inspection_factor
