"""All local stress cycles of a hot spot in one repeat, and their damage: the sum that everything else is asked of."""

from __future__ import annotations

from collections.abc import Callable
from dataclasses import dataclass
from functools import partial

from vivid_anvil.counting import Cycles
from vivid_anvil.counting.cycles import PANEL
from vivid_anvil.damage.converged import converged
from vivid_anvil.events import DutyCycle, Source
from vivid_anvil.ground.checks import FloatArray, IntArray
from vivid_anvil.stress import HotSpot, Method
from vivid_anvil.units import opened


@dataclass(frozen=True, eq=False)
class Spectrum:
    """Local stress cycles of one repeat at a hot spot, MPa."""

    hot_spot: HotSpot
    cycles: Cycles
    again: Callable[[float], Cycles] | None = (
        None  # the cycles under another load factor, where they are not just scaled
    )

    @property
    def event(self) -> IntArray:
        """Of which source each cycle is."""
        return self.cycles.event

    @property
    def per_repeat(self) -> FloatArray:
        """How often each cycle happens in one repeat."""
        return self.cycles.per_repeat

    @property
    def sources(self) -> tuple[Source, ...]:
        """What the cycles are of."""
        return self.cycles.sources

    @property
    def lowest(self) -> float:
        """Lowest local stress, MPa, also where an event has no cycle."""
        low = self.cycles.lowest
        return float(self.cycles.minimum.min(initial=0.0)) if low is None else low

    @property
    def highest(self) -> float:
        """Highest local stress, MPa, also where an event has no cycle."""
        high = self.cycles.highest
        return float(self.cycles.maximum.max(initial=0.0)) if high is None else high

    def equivalent_stress(self, load_factor: float | FloatArray = 1.0) -> FloatArray:
        """Each cycle in the terms of the method, MPa, with all loads times `load_factor`; inf where it fails at once."""
        return self.hot_spot.assessed_by.terms(self.hot_spot, self.cycles.at(load_factor))

    def damage(self, load_factor: float = 1.0) -> FloatArray:
        """Damage of each cycle per repeat, shape (k,); under another load factor expected cycles may stand at other places."""
        if load_factor != 1.0 and self.again is not None:
            return Spectrum(self.hot_spot, self.again(load_factor)).damage()
        if load_factor != 1.0 and PANEL in self.cycles.columns:
            return Spectrum(self.hot_spot, converged(self.hot_spot, self.cycles.at(load_factor))).damage()
        return self.damage_of(self.equivalent_stress(load_factor))

    def damage_of(self, equivalent: FloatArray) -> FloatArray:
        """Damage per repeat, shape (k,), of the cycles at `equivalent` stresses, MPa, in the terms of the method; inf at inf."""
        return self.hot_spot.assessed_by.damage(self.hot_spot, equivalent, self.per_repeat)


@opened()
def spectrum(hot_spot: HotSpot, duty_cycle: DutyCycle) -> Spectrum:
    """The local stress cycles of `hot_spot` in one repeat of `duty_cycle`, counted once per event and channel."""
    found = converged(hot_spot, hot_spot.local_cycles(duty_cycle))
    method = hot_spot.method
    if method is None or type(method).again is Method.again:
        return Spectrum(hot_spot, found)
    return Spectrum(hot_spot, found, partial(method.again, hot_spot, duty_cycle))
