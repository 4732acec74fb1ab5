"""The stress cycles of all events of one repeat at a hot spot, side by side in one table."""

from __future__ import annotations

from vivid_anvil.counting import Cycles
from vivid_anvil.events import DutyCycle
from vivid_anvil.stress.hot_spot import HotSpot
from vivid_anvil.units import opened


@opened()
def local_cycles(hot_spot: HotSpot, duty_cycle: DutyCycle) -> Cycles:
    """Local stress cycles of a repeat, with the notch factor: what an S-N curve is asked about."""
    return _stress_cycles(hot_spot, duty_cycle, hot_spot.notch_factor)


@opened()
def nominal_cycles(hot_spot: HotSpot, duty_cycle: DutyCycle) -> Cycles:
    """Nominal stress cycles of a repeat, without the notch factor: what a crack that has left the notch is driven by."""
    return _stress_cycles(hot_spot, duty_cycle, 1.0)


def _stress_cycles(hot_spot: HotSpot, duty_cycle: DutyCycle, notch_factor: float) -> Cycles:
    per_load = notch_factor * hot_spot.nominal_factor(duty_cycle.dimension_of_channel(hot_spot.channel))
    return duty_cycle.cycles_of(hot_spot.channel).linear(per_load, notch_factor * hot_spot.offset, "stress")
