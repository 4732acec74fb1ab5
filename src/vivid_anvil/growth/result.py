"""The result of growing a crack: size against repeats, why it stopped, critical size, inspection interval, findings."""

from __future__ import annotations

import math
from dataclasses import dataclass
from typing import Any

import numpy as np

from vivid_anvil.events import DutyCycle
from vivid_anvil.events.calendar import share_used
from vivid_anvil.ground.checks import FloatArray
from vivid_anvil.ground.errors import InputError
from vivid_anvil.growth.crack import Crack
from vivid_anvil.growth.drive import GrowthDrive
from vivid_anvil.growth.limits import CriticalSizes
from vivid_anvil.materials.fits.growth_tests import GrowthTests
from vivid_anvil.shapes.one_size import stress_intensity
from vivid_anvil.units import number
from vivid_anvil.writing.finding import Finding
from vivid_anvil.writing.html import html_frame
from vivid_anvil.writing.plain import in_root_metres


@dataclass(frozen=True, eq=False, repr=False)
class GrowthResult:
    """Size against repeats, why the growth stopped, critical size, inspection interval, findings.

    `sizes`, mm, and `repeats`, shape (n,), go from the initial size to the stop. `life_repeats` goes on to the limiting
    size even where the target life stops the table earlier; it is inf where the crack does not grow. A crack with two sizes
    has `half_lengths` beside its depths in `sizes`, and `then`, what it becomes where it breaks through. Cycle by cycle
    `cycles` are those gone through, `stopped_in` says where, `without_memory_repeats` the life without retardation.
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
    then: GrowthResult | None = None
    cycles: int | None = None
    stopped_in: str | None = None
    without_memory_repeats: float | None = None
    tests: GrowthTests | None = None

    @property
    def stages(self) -> tuple[GrowthResult, ...]:
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
        return max(scale * self.drive.peak_stress + there for scale, there in self._ends(size))

    def largest_range_k(self, size: float) -> float:
        """Largest range of K that counts, MPa√mm, at `size`, mm; of two sizes at the end where it is larger."""
        return max(float(delta_k.max(initial=0.0)) for delta_k, _ in self.end_cycles(size))

    def end_cycles(self, size: float) -> list[tuple[FloatArray, FloatArray]]:
        """Range of K that counts, MPa√mm, and R of each cycle of the drive at `size`, mm, at the end of the crack or at both."""
        return [self.drive.k_cycles(*end) for end in self._ends(size)]

    def depth_cycles(self, size: float) -> tuple[FloatArray, FloatArray]:
        """The same, of two sizes at the end of the depth."""
        return self.end_cycles(size)[0]

    def cycle_growth(self, size: float) -> FloatArray:
        """Growth by each cycle of the drive in one repeat, mm, at `size`, mm; of two sizes that of the depth."""
        return self.drive.per_repeat * self.crack.law.growth(*self.depth_cycles(size), size)

    def _ends(self, size: float) -> list[tuple[float, float]]:
        """K per MPa, √mm, and K that is always there, MPa√mm, at the end of the crack, or at both ends."""
        crack = self.crack
        if not crack.two_way:
            return [(float(stress_intensity(crack.one_size, size, 1.0)), *crack.always_at(size))]  # type: ignore[list-item]
        c = self.half_length(size) if self.half_lengths is not None else crack.half_length
        root = math.sqrt(math.pi * size)
        factors = crack.two_sizes.factors(size, c)
        return [(y * root, there) for y, there in zip(factors, crack.always_at(size, c), strict=True)]

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
            for i, source in enumerate(self.duty_cycle.sources(self.crack.hot_spot.channel))
        }

    def rows(self, number_of_rows: int = 12) -> list[dict[str, Any]]:
        """The growth curve at sizes that rise evenly from start to stop: sizes, time, share of the life, K and growth."""
        at_once, hours = self.sizes.size == 1, self.duty_cycle.hours
        sizes = self.sizes if at_once else np.linspace(self.sizes[0], self.sizes[-1], number_of_rows)
        repeats = np.interp(np.log(sizes), np.log(self.sizes), self.repeats)
        return [
            {
                "size_mm": float(size),
                **({} if self.half_lengths is None else {"half_length_mm": self.half_length(float(size))}),
                "repeats": float(at),
                **({} if hours is None else {"hours": float(at) * hours}),
                **({} if self.duty_cycle.repeats_per_year is None else {"years": self._years(float(at))}),
                "share_of_life": float(at) / self.life_repeats if self.life_repeats > 0.0 else 1.0,
                "largest_K_MPa_sqrt_m": in_root_metres(self.peak_k(float(size))),
                "largest_K_range_MPa_sqrt_m": in_root_metres(self.largest_range_k(float(size))),
                "growth_per_repeat_mm": self.growth_at(float(size)),
            }
            for size, at in zip(sizes, repeats, strict=True)
        ]

    @property
    def governed_by(self) -> str:
        """What ends the life in the end, also after the wall is broken through."""
        return self.stages[-1].critical.governed_by

    def to_dict(self) -> dict[str, Any]:
        """The result as plain numbers and text, units in the names; inf as the text 'inf'."""
        from vivid_anvil.growth.record import growth_record

        return growth_record(self)

    def to_frame(self) -> Any:
        """The growth as a table: sizes, repeats, K and rates along the way."""
        import pandas as pd

        return pd.DataFrame(self.rows(50))

    def _repr_html_(self) -> str:
        return html_frame(repr(self).strip("<>"), self.to_frame())

    def __repr__(self) -> str:
        spot = self.crack.hot_spot.name
        if math.isinf(self.life_repeats):
            return f"<GrowthResult {spot}: no growth from {self.crack.initial_size:g} mm>"
        return (
            f"<GrowthResult {spot}: {number(self.sizes[0])} to {number(self.critical.limiting)} mm in "
            f"{self.duty_cycle.calendar.in_all_units(self.life_repeats)}, {self.governed_by}>"
        )
