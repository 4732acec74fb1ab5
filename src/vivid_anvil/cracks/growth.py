"""The growth of a crack through the repeats of a duty cycle, to the size at which it has to stop."""

from __future__ import annotations

import dataclasses
import math
from dataclasses import dataclass
from typing import TYPE_CHECKING, Any

import numpy as np

from vivid_anvil.checks import FloatArray, read_only
from vivid_anvil.cracks.crack import Crack
from vivid_anvil.cracks.critical import CriticalSizes, critical_sizes
from vivid_anvil.cracks.drive import GrowthDrive, growth_drive, growth_per_repeat, threshold_sizes
from vivid_anvil.cracks.integrate import integrate_growth, size_after
from vivid_anvil.cracks.shapes import stress_intensity
from vivid_anvil.findings import Finding
from vivid_anvil.histories import DutyCycle
from vivid_anvil.stress import nominal_cycles
from vivid_anvil.units import number

if TYPE_CHECKING:
    from vivid_anvil.working import Working


@dataclass(frozen=True, eq=False, repr=False)
class GrowthResult:
    """Size against repeats, why the growth stopped, critical size, inspection interval, findings.

    `sizes`, mm, and `repeats`, shape (n,), go from the initial size to the stop. `life_repeats` goes on to the limiting
    size even where the target life stops the table earlier; it is inf where the crack does not grow.
    """

    crack: Crack
    duty_cycle: DutyCycle
    drive: GrowthDrive
    critical: CriticalSizes
    sizes: FloatArray
    repeats: FloatArray
    stopped_by: str
    life_repeats: float
    halving_change: float
    target_repeats: float | None = None
    interval_repeats: float | None = None
    findings: tuple[Finding, ...] = ()

    @property
    def life_years(self) -> float:
        """Years from the initial to the limiting size."""
        return self.life_repeats / self.duty_cycle.repeats_per_year

    @property
    def life_hours(self) -> float | None:
        """Hours from the initial to the limiting size; None where the duty cycle does not know its duration."""
        hours = self.duty_cycle.hours
        return None if hours is None else self.life_repeats * hours

    @property
    def interval_years(self) -> float | None:
        """Inspection interval in years; None where no detectable size is given."""
        return None if self.interval_repeats is None else self.interval_repeats / self.duty_cycle.repeats_per_year

    @property
    def final_size(self) -> float:
        """Size at the stop, mm."""
        return float(self.sizes[-1])

    @property
    def start_range_k(self) -> float:
        """Largest range of the stress intensity factor at the initial size, MPa√mm."""
        return float(stress_intensity(self.crack.shape, self.crack.initial_size, self.drive.largest_range))

    @property
    def start_peak_k(self) -> float:
        """Largest stress intensity factor at the initial size, MPa√mm."""
        return float(stress_intensity(self.crack.shape, self.crack.initial_size, self.drive.peak_stress))

    def growth_at(self, size: float) -> float:
        """Growth in one repeat, mm, of a crack of `size`, mm."""
        return float(growth_per_repeat(self.drive, self.crack.shape, self.crack.law)(size))

    def event_shares(self, size: float | None = None) -> dict[str, float]:
        """Share of each event in the growth of one repeat, at the initial size or at `size`, mm."""
        at = self.crack.initial_size if size is None else size
        delta_k = stress_intensity(self.crack.shape, at, self.drive.ranges)
        growth = self.drive.per_repeat * self.crack.law.growth(delta_k)
        total = float(growth.sum())
        return {
            event.name: float(growth[self.drive.event == i].sum()) / total if total > 0.0 else 0.0
            for i, event in enumerate(self.duty_cycle.events)
        }

    def rows(self, number_of_rows: int = 12) -> list[dict[str, float]]:
        """The growth curve at sizes that rise evenly from start to stop: size, repeats, years, largest K and range of K."""
        at_once = self.sizes.size == 1
        sizes = self.sizes if at_once else np.linspace(self.sizes[0], self.sizes[-1], number_of_rows)
        repeats = np.interp(np.log(sizes), np.log(self.sizes), self.repeats)
        shape, drive = self.crack.shape, self.drive
        return [
            {
                "size_mm": float(size),
                "repeats": float(at),
                "years": float(at) / self.duty_cycle.repeats_per_year,
                "largest_K_MPa_sqrt_mm": float(stress_intensity(shape, size, drive.peak_stress)),
                "largest_K_range_MPa_sqrt_mm": float(stress_intensity(shape, size, drive.largest_range)),
                "growth_per_repeat_mm": self.growth_at(float(size)),
            }
            for size, at in zip(sizes, repeats, strict=True)
        ]

    def working(self) -> Working:
        """The hand calculation of one step of growth at the start."""
        from vivid_anvil.cracks.growth_working import growth_working

        return growth_working(self)

    def to_dict(self) -> dict[str, Any]:
        """The result as plain numbers and text, units in the names; inf as the text 'inf'."""
        from vivid_anvil.cracks.growth_record import growth_record

        return growth_record(self)

    def __repr__(self) -> str:
        spot, repeat = self.crack.hot_spot.name, self.duty_cycle.repeat
        if math.isinf(self.life_repeats):
            return f"<GrowthResult {spot}: no growth from {self.crack.initial_size:g} mm>"
        return (
            f"<GrowthResult {spot}: {number(self.sizes[0])} to {number(self.critical.limiting)} mm in "
            f"{number(self.life_repeats)} {repeat}s ({number(self.life_years)} years), {self.critical.governed_by}>"
        )


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
    from vivid_anvil.cracks.growth_findings import growth_findings

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
