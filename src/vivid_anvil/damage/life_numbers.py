"""The numbers of a life: damage per repeat, life in repeats, hours and years, shares of events and classes, reserve factors."""

from __future__ import annotations

import math
from dataclasses import dataclass
from functools import cached_property

import numpy as np

from vivid_anvil.counting.panels import happening
from vivid_anvil.damage.reserve import reserve_on_stress
from vivid_anvil.damage.spectrum import Spectrum
from vivid_anvil.events import DutyCycle
from vivid_anvil.ground.checks import FloatArray, IntArray, positive_number
from vivid_anvil.ground.errors import InputError
from vivid_anvil.materials import SNCurve
from vivid_anvil.stress import HotSpot, Method
from vivid_anvil.units import STRESS, UnitSystem, one, opened, shown


@dataclass(frozen=True, slots=True)
class StressClass:
    """Cycles of one repeat whose stress in the curve's terms, MPa, lies at `lower` or above and below `upper`."""

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


@dataclass(frozen=True, eq=False)
class DamageMatrix:
    """Cycles and damage of one repeat, shape (k, k): rows are classes of local stress range, columns of mean, MPa.

    `dimension` says what the cycles are of: stress, or the energy density of rubber.
    """

    range_edges: FloatArray
    mean_edges: FloatArray
    cycles: FloatArray
    damage: FloatArray
    dimension: str = "stress"


@dataclass(frozen=True, eq=False, repr=False)
class Life:
    """Life of one hot spot under a duty cycle, in numbers.

    `equivalent_stress`, MPa in the terms of the method, and `damage` per repeat have one entry per counted cycle.
    `reserve_on_stress` and `reserve_on_life` are None where there is no target. The reserve on stress, which takes long, is
    worked out when it is first asked for.
    """

    hot_spot: HotSpot
    duty_cycle: DutyCycle
    spectrum: Spectrum
    equivalent_stress: FloatArray
    damage: FloatArray
    target_repeats: float | None

    @cached_property
    def reserve_on_stress(self) -> float | None:
        """Factor on all loads at which the target is just met, solved; None without target."""
        return None if self.target_repeats is None else reserve_on_stress(self.spectrum, self.target_repeats)

    @property
    def method(self) -> Method:
        """How stress becomes damage there."""
        return self.hot_spot.assessed_by

    @property
    def curve(self) -> SNCurve:
        """The S-N curve that cycles are held against (of a family its reference); InputError for a method without one."""
        curve = self.method.reference
        if curve is None:
            found = f"the method {self.method.kind!r}"
            raise InputError(
                f"hot spot {self.hot_spot.name}", found, "a method that goes by a curve", "Take StressLife."
            )
        return curve

    @property
    def dimension(self) -> str:
        """What its cycles are of: stress, or the energy density of rubber."""
        return self.method.counts

    @property
    def critical_sum(self) -> float:
        """The damage sum at which the hot spot counts as failed."""
        return self.method.critical_sum

    @property
    def stress_in_words(self) -> str:
        """What cycles are told in, such as "stress amplitude at R = -1"."""
        return self.method.terms_in_words(self.hot_spot)

    @property
    def damage_per_repeat(self) -> float:
        """Damage sum of one repeat, -."""
        return float(self.damage.sum())

    @property
    def life_repeats(self) -> float:
        """Repeats until the damage reaches the critical sum; inf where nothing does damage."""
        total = self.damage_per_repeat
        return self.critical_sum / total if total > 0.0 else math.inf

    @property
    def life_years(self) -> float | None:
        """The same in years; None without repeats per year."""
        return self._years(self.life_repeats)

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
        return self.damage_per_repeat * self.target_repeats / self.critical_sum

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
        """Largest local elastic stress of the duty cycle, MPa; of rubber the largest energy that is counted."""
        return self.spectrum.highest

    @property
    def lowest_stress(self) -> float:
        """Smallest local elastic stress of the duty cycle, MPa."""
        return self.spectrum.lowest

    @property
    def static_reserves(self) -> dict[str, float]:
        """Strength over the largest local elastic stress, in tension or compression, for each strength that is known.

        Empty for a method that takes other than stresses of the part: plies and rubber know strengths of their own.
        """
        if self.method.takes != "stresses":
            return {}
        peak = max(self.peak_stress, -self.lowest_stress)
        material = self.hot_spot.material
        known = {"yield": material.yield_strength, "ultimate": material.ultimate_strength}
        return {name: strength / peak if peak > 0.0 else math.inf for name, strength in known.items() if strength}

    def damage_equivalent_stress(self, reference_cycles: float, repeats: float | None = None) -> float:
        """Constant-amplitude stress, MPa, in the curve's terms, whose `reference_cycles` do the damage of `repeats`.

        `repeats` is the target by default, else the life. 0 where nothing does damage.
        """
        cycles = positive_number("damage-equivalent stress, reference_cycles", reference_cycles, "cycles above 0")
        asked = (
            repeats
            if repeats is not None
            else self.target_repeats
            if self.target_repeats is not None
            else self.life_repeats
        )
        damage = self.damage_per_repeat * asked if self.damage_per_repeat > 0.0 else 0.0
        return float(self.curve.stress_at(cycles / damage)) if damage > 0.0 else 0.0

    @property
    def events(self) -> tuple[EventShare, ...]:
        """What each event does."""
        shares, shown_by = [], happening(self.spectrum.cycles)
        for i, source in enumerate(self.spectrum.sources):
            of = self.spectrum.event == i
            damage = float(self.damage[of].sum())
            largest = float(self.spectrum.cycles.range[of & shown_by].max(initial=0.0))
            cycles = float(self.spectrum.per_repeat[of].sum())
            shares.append(EventShare(source.name, source.occurrences, cycles, largest, damage, self._share(damage)))
        return tuple(shares)

    @property
    def largest_equivalent(self) -> float:
        """The largest equivalent stress, MPa: of expected cycles the largest that a repeat has once."""
        return float(self.equivalent_stress[happening(self.spectrum.cycles)].max(initial=0.0))

    def edges(self, system: UnitSystem = "metric") -> FloatArray:
        """Edges of classes of the equivalent stress, MPa, that are round numbers in the unit that `system` shows."""
        unit = float(shown(1.0, self.dimension, system))
        return class_edges(self.largest_equivalent * unit) / unit

    def stress_classes(self, edges: FloatArray | None = None) -> tuple[StressClass, ...]:
        """Cycles, damage and share in classes of equivalent stress, in the curve's terms; `edges`, MPa, else round numbers."""
        limits = self.edges() if edges is None else edges
        place = self.class_of(limits)
        size = limits.size - 1
        cycles = np.bincount(place, weights=self.spectrum.per_repeat, minlength=size)
        damage = np.bincount(place, weights=self.damage, minlength=size)
        return tuple(
            StressClass(
                float(limits[i]), float(limits[i + 1]), float(cycles[i]), float(damage[i]), self._share(damage[i])
            )
            for i in range(size)
        )

    def damage_matrix(self, classes: int = 16) -> DamageMatrix:
        """Cycles and damage per repeat in classes of local range and mean."""
        cycles = self.spectrum.cycles
        if not len(cycles):
            none = np.array([0.0, 1.0])
            return DamageMatrix(none, none, np.zeros((1, 1)), np.zeros((1, 1)), self.dimension)
        largest = float(cycles.range[happening(cycles)].max())
        ranges = np.linspace(0.0, largest * (1.0 + 1e-12), classes + 1)
        low, high = float(cycles.mean.min()), float(cycles.mean.max())
        means = np.linspace(low, high if high > low else low + 1.0, classes + 1)
        edges = (ranges, means)
        table = [
            np.histogram2d(np.minimum(cycles.range, largest), cycles.mean, edges, weights=weights)[0]
            for weights in (self.spectrum.per_repeat, self.damage)
        ]
        return DamageMatrix(ranges, means, table[0], table[1], self.dimension)

    def class_of(self, edges: FloatArray) -> IntArray:
        """Class number of each cycle's equivalent stress for the given edges, MPa; a stress on an edge belongs above it."""
        return np.clip(np.searchsorted(edges, self.equivalent_stress, side="right") - 1, 0, edges.size - 2)

    def _years(self, repeats: float) -> float | None:
        years: float | None = self.duty_cycle.calendar.years(repeats)
        return years

    def _share(self, damage: float) -> float:
        total = self.damage_per_repeat
        return float(damage) / total if total > 0.0 else 0.0


@opened(largest=STRESS, about=one(at_least=1.0, at_most=1e6))
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
