"""The numbers of a growth: size against repeats, why it stopped, critical size, inspection interval."""

from __future__ import annotations

from dataclasses import dataclass

import numpy as np

from vivid_anvil.events import DutyCycle
from vivid_anvil.events.calendar import share_used
from vivid_anvil.ground.checks import FloatArray
from vivid_anvil.ground.errors import InputError, inside
from vivid_anvil.growth.crack import Crack
from vivid_anvil.growth.driving_cycles import GrowthDrive
from vivid_anvil.growth.limits import CriticalSizes
from vivid_anvil.materials.fits.growth_tests import GrowthTests
from vivid_anvil.writing.finding import Finding


@dataclass(frozen=True, eq=False, repr=False)
class Growth:
    """Size against repeats, why the growth stopped, critical size, inspection interval, in numbers.

    `sizes`, mm, and `repeats`, shape (n,), go from the initial size to the stop. `life_repeats` goes on to the limiting
    size even where the target life stops the table earlier; it is inf where the crack does not grow. A crack with two sizes
    has `half_lengths` beside its depths in `sizes`, and `then`, what it becomes where it breaks through. Cycle by cycle
    `cycles` are those gone through, `stopped_in` says where, `without_memory_repeats` the life without retardation.
    `ended_late_by` is what ends the life of a crack that breaks through after the target only.
    `tests` are those of its law, where the study names them.
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
    half_lengths: FloatArray | None = None
    then: Growth | None = None
    ended_late_by: str | None = None
    cycles: int | None = None
    stopped_in: str | None = None
    without_memory_repeats: float | None = None
    tests: GrowthTests | None = None

    @property
    def stages(self) -> tuple[Growth, ...]:
        """This result and those of what the crack becomes, one after the other."""
        return (self,) if self.then is None else (self, *self.then.stages)

    @property
    def life_years(self) -> float | None:
        """Years from the initial to the limiting size; None without repeats per year."""
        return self._years(self.life_repeats)

    @property
    def life_hours(self) -> float | None:
        """Hours from the initial to the limiting size; None where the duty cycle does not know its duration."""
        hours = self.duty_cycle.hours
        return None if hours is None else self.life_repeats * hours

    @property
    def used_at_target(self) -> float | None:
        """Share of the life that is used when the target is reached; None without target, 0 without growth."""
        share: float | None = share_used(self.target_repeats, self.life_repeats)
        return share

    @property
    def interval_years(self) -> float | None:
        """Inspection interval in years; None where no detectable size is given, and without repeats per year."""
        return None if self.interval_repeats is None else self._years(self.interval_repeats)

    def _years(self, repeats: float) -> float | None:
        years: float | None = self.duty_cycle.calendar.years(repeats)
        return years

    @property
    def final_size(self) -> float:
        """Size at the stop, mm."""
        return float(self.sizes[-1])

    @property
    def start_range_k(self) -> float:
        """Largest range of the stress intensity factor at the initial size, MPa√mm."""
        return self.largest_range_k(self.crack.initial_size)

    @property
    def start_peak_k(self) -> float:
        """Largest stress intensity factor at the initial size, MPa√mm."""
        return self.peak_k(self.crack.initial_size)

    def peak_k(self, size: float) -> float:
        """Largest K, MPa√mm, at `size`, mm; of two sizes at the end where it is larger; residual stress included."""
        peak, bent = self.drive.peak_stress, self.drive.peak_bending
        ends = zip(self._ends(size), self._bending_scales(size), strict=True)
        return max(scale * peak + bending * bent + there for (scale, there), bending in ends)

    def largest_range_k(self, size: float) -> float:
        """Largest range of K that counts, MPa√mm, at `size`, mm; of two sizes at the end where it is larger."""
        return max(float(delta_k.max(initial=0.0)) for delta_k, _ in self.end_cycles(size))

    def end_cycles(self, size: float) -> list[tuple[FloatArray, FloatArray]]:
        """Range of K that counts, MPa√mm, and R of each cycle of the drive at `size`, mm, at the end of the crack or at both."""
        ends = zip(self._ends(size), self._bending_scales(size), strict=True)
        return [self.drive.k_cycles(self.crack.law, *end, bending) for end, bending in ends]

    def depth_cycles(self, size: float) -> tuple[FloatArray, FloatArray]:
        """The same, of two sizes at the end of the depth."""
        return self.end_cycles(size)[0]

    def cycle_growth(self, size: float) -> FloatArray:
        """Growth by each cycle of the drive in one repeat, mm, at `size`, mm; of two sizes that of the depth."""
        return self.drive.per_repeat * self.crack.law.growth(*self.depth_cycles(size), size)

    def _ends(self, size: float) -> list[tuple[float, float]]:
        """K per MPa, √mm, and K that is always there, MPa√mm, at the end of the crack, or at both ends."""
        crack, sizes = self.crack, self.sizes_at(size)
        shape = crack.shape if self.drive.bending is None else crack.shape.under(0.0)
        return list(zip(shape.scales(*sizes), crack.always_at(*sizes), strict=True))

    def _bending_scales(self, size: float) -> tuple[float, ...]:
        """K per MPa of bending, √mm, at each end; 0 where no second stress is counted."""
        shape = self.crack.shape
        if self.drive.bending is None:
            return (0.0,) * len(shape.sizes)
        return shape.under(1.0).scales(*self.sizes_at(size))

    def sizes_at(self, size: float) -> tuple[float, ...]:
        """All sizes, mm, where the first is `size`, on its way; InputError beyond the solution."""
        shape = self.crack.shape
        if not 0.0 < size <= shape.deepest * (1.0 + 1e-12):
            raise InputError(
                inside(f"{shape.kind} crack", "size"),
                f"{size:g} mm",
                f"sizes above 0 and up to {shape.deepest:g} mm",
                f"Beyond, the solution ({shape.source}) is not valid.",
            )
        if len(shape.sizes) == 1:
            return (size,)
        return (size, self.half_length(size) if self.half_lengths is not None else self.crack.sizes[1])

    def half_length(self, size: float) -> float:
        """Half length, mm, that a crack with two sizes has at depth `size`, mm, on its way."""
        if self.half_lengths is None:
            raise InputError(f"crack at {self.crack.hot_spot.name}", "one size", "a shape with depth and half length")
        return float(np.exp(np.interp(np.log(size), np.log(self.sizes), np.log(self.half_lengths))))

    def scale(self, size: float) -> float:
        """K per MPa, √mm, at `size`, mm; of two sizes at the end where it is larger."""
        return max(scale for scale, _ in self._ends(size))

    def depth_scale(self, size: float) -> float:
        """K per MPa, √mm, at `size`, mm; of two sizes at the end of the depth."""
        return self._ends(size)[0][0]

    def growth_at(self, size: float) -> float:
        """Growth in one repeat, mm, of a crack of `size`, mm; of two sizes that of the depth."""
        return float(self.cycle_growth(size).sum())

    def event_shares(self, size: float | None = None) -> dict[str, float]:
        """Share of each event in the growth of one repeat, at the initial size or at `size`, mm."""
        at = self.crack.initial_size if size is None else size
        growth = self.cycle_growth(at)
        total = float(growth.sum())
        return {
            source.name: float(growth[self.drive.event == i].sum()) / total if total > 0.0 else 0.0
            for i, source in enumerate(self.duty_cycle.sources(self.crack.hot_spot.fed.counted))
        }

    @property
    def governed_by(self) -> str:
        """What ends the life in the end, also after the wall is broken through."""
        return self.ended_late_by or self.stages[-1].critical.governed_by
