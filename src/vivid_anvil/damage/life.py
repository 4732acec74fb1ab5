"""Life of a hot spot: damage per repeat, life in repeats, hours and years, shares, reserve factors, findings."""

from __future__ import annotations

import math
from dataclasses import dataclass
from typing import TYPE_CHECKING, Any

import numpy as np

from vivid_anvil.checks import FloatArray, IntArray
from vivid_anvil.damage.spectrum import Spectrum
from vivid_anvil.findings import Finding
from vivid_anvil.histories import DutyCycle
from vivid_anvil.materials import SNCurve
from vivid_anvil.stress import HotSpot
from vivid_anvil.units import number

if TYPE_CHECKING:
    pass


@dataclass(frozen=True, slots=True)
class RangeClass:
    """Cycles of one repeat whose local stress range, MPa, lies at `lower` or above and below `upper`."""

    lower: float
    upper: float
    cycles: float
    damage: float
    share: float


@dataclass(frozen=True, slots=True)
class EventShare:
    """What one event does in one repeat: cycles, damage, and its share of the damage."""

    name: str
    occurrences: float
    cycles: float
    largest_range: float
    damage: float
    share: float


@dataclass(frozen=True, eq=False, repr=False)
class LifeResult:
    """Life of one hot spot under a duty cycle.

    `equivalent_stress`, MPa in the curve's terms, and `damage` per repeat have one entry per counted cycle.
    `reserve_on_stress` and `reserve_on_life` are None where there is no target.
    """

    hot_spot: HotSpot
    duty_cycle: DutyCycle
    spectrum: Spectrum
    equivalent_stress: FloatArray
    damage: FloatArray
    target_repeats: float | None
    reserve_on_stress: float | None
    findings: tuple[Finding, ...] = ()

    @property
    def curve(self) -> SNCurve:
        """The S-N curve of the hot spot."""
        return self.spectrum.curve

    @property
    def damage_per_repeat(self) -> float:
        """Damage sum of one repeat, -."""
        return float(self.damage.sum())

    @property
    def life_repeats(self) -> float:
        """Repeats until the damage reaches the critical sum; inf where nothing does damage."""
        total = self.damage_per_repeat
        return self.hot_spot.critical_sum / total if total > 0.0 else math.inf

    @property
    def life_years(self) -> float:
        """The same in years."""
        return self.life_repeats / self.duty_cycle.repeats_per_year

    @property
    def life_hours(self) -> float | None:
        """The same in hours of the events; None where the duty cycle doesn't know its duration."""
        hours = self.duty_cycle.hours
        return None if hours is None else self.life_repeats * hours

    @property
    def reserve_on_life(self) -> float | None:
        """Life / target; None without target, inf where nothing does damage."""
        return None if self.target_repeats is None else self.life_repeats / self.target_repeats

    @property
    def used_at_target(self) -> float | None:
        """Share of the life that is used when the target is reached; None without target."""
        if self.target_repeats is None:
            return None
        return self.damage_per_repeat * self.target_repeats / self.hot_spot.critical_sum

    @property
    def verdict(self) -> str:
        """'meets the target', 'fails the target', 'no damage' or 'no target'."""
        if self.damage_per_repeat == 0.0:
            return "no damage"
        reserve = self.reserve_on_life
        if reserve is None:
            return "no target"
        return "meets the target" if reserve >= 1.0 else "fails the target"

    @property
    def peak_stress(self) -> float:
        """Largest local elastic stress of the duty cycle, MPa."""
        return self.spectrum.highest

    @property
    def lowest_stress(self) -> float:
        """Smallest local elastic stress of the duty cycle, MPa."""
        return self.spectrum.lowest

    @property
    def events(self) -> tuple[EventShare, ...]:
        """What each event does."""
        shares = []
        for i, source in enumerate(self.spectrum.sources):
            of = self.spectrum.event == i
            damage = float(self.damage[of].sum())
            largest = float(self.spectrum.cycles.range[of].max(initial=0.0))
            cycles = float(self.spectrum.per_repeat[of].sum())
            shares.append(EventShare(source.name, source.occurrences, cycles, largest, damage, self._share(damage)))
        return tuple(shares)

    def range_classes(self, edges: FloatArray | None = None) -> tuple[RangeClass, ...]:
        """Cycles, damage and share in classes of local stress range; `edges`, MPa, are round numbers by default."""
        limits = class_edges(float(self.spectrum.cycles.range.max(initial=0.0))) if edges is None else edges
        place = self.class_of(limits)
        size = limits.size - 1
        cycles = np.bincount(place, weights=self.spectrum.per_repeat, minlength=size)
        damage = np.bincount(place, weights=self.damage, minlength=size)
        return tuple(
            RangeClass(
                float(limits[i]), float(limits[i + 1]), float(cycles[i]), float(damage[i]), self._share(damage[i])
            )
            for i in range(size)
        )

    def class_of(self, edges: FloatArray) -> IntArray:
        """Class number of each cycle for the given edges, MPa; a range on an edge belongs above it."""
        return np.clip(np.searchsorted(edges, self.spectrum.cycles.range, side="right") - 1, 0, edges.size - 2)

    def to_dict(self) -> dict[str, Any]:
        """The result as plain numbers and text, coherent units in the names; inf as the text 'inf'."""
        from vivid_anvil.damage.life_record import life_record

        return life_record(self)

    def _share(self, damage: float) -> float:
        total = self.damage_per_repeat
        return float(damage) / total if total > 0.0 else 0.0

    def __repr__(self) -> str:
        repeat = self.duty_cycle.repeat
        life = "no damage" if math.isinf(self.life_repeats) else f"life {number(self.life_repeats)} {repeat}s"
        years = "" if math.isinf(self.life_years) else f" ({number(self.life_years)} years)"
        findings = f"{len(self.findings)} finding" + ("" if len(self.findings) == 1 else "s")
        return f"<LifeResult {self.hot_spot.name}: {life}{years}, {self.verdict}, {findings}>"


def class_edges(largest: float, about: int = 10) -> FloatArray:
    """Edges of about `about` classes from 0 to just above `largest`, at round numbers.

    >>> class_edges(87.0)
    array([  0.,  10.,  20.,  30.,  40.,  50.,  60.,  70.,  80.,  90.])
    """
    if not largest > 0.0:
        return np.array([0.0, 1.0])
    rough = largest / about
    size = 10.0 ** math.floor(math.log10(rough))
    step = next(size * nice for nice in (1.0, 2.0, 2.5, 5.0, 10.0) if size * nice >= rough * 0.999)
    return np.asarray(step * np.arange(math.floor(largest / step) + 2), dtype=np.float64)
