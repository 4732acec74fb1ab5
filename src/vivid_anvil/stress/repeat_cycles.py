"""The stress cycles of all events of one repeat at a hot spot, side by side in one table."""

from __future__ import annotations

from dataclasses import dataclass

import numpy as np

from vivid_anvil.counting import Cycles
from vivid_anvil.events import DutyCycle, Source
from vivid_anvil.ground.checks import FloatArray, IntArray
from vivid_anvil.stress.hot_spot import HotSpot
from vivid_anvil.units import opened


@dataclass(frozen=True, eq=False)
class RepeatCycles:
    """All cycles of one repeat.

    `cycles` of one occurrence of each source, MPa; the number of the source (`event`); how often each happens `per_repeat`.
    `lowest` and `highest` stress, MPa, also where an event has no cycle. `sources` names them: the events, and what happens
    between them.
    """

    cycles: Cycles
    event: IntArray
    per_repeat: FloatArray
    lowest: float
    highest: float
    sources: tuple[Source, ...] = ()


@opened()
def local_cycles(hot_spot: HotSpot, duty_cycle: DutyCycle) -> RepeatCycles:
    """Local stress cycles, with the notch factor: what an S-N curve is asked about."""
    return _stress_cycles(hot_spot, duty_cycle, hot_spot.notch_factor)


@opened()
def nominal_cycles(hot_spot: HotSpot, duty_cycle: DutyCycle) -> RepeatCycles:
    """Nominal stress cycles, without the notch factor: what a crack that has left the notch is driven by."""
    return _stress_cycles(hot_spot, duty_cycle, 1.0)


def _stress_cycles(hot_spot: HotSpot, duty_cycle: DutyCycle, notch_factor: float) -> RepeatCycles:
    per_load = notch_factor * hot_spot.nominal_factor(duty_cycle.dimension_of_channel(hot_spot.channel))
    offset = notch_factor * hot_spot.offset
    joined = duty_cycle.joined(hot_spot.channel)
    extremes = per_load * np.array(duty_cycle.extremes(hot_spot.channel)) + offset
    return RepeatCycles(
        joined.cycles.linear(per_load, offset, "stress"),
        joined.event,
        joined.per_repeat,
        lowest=float(extremes.min()),
        highest=float(extremes.max()),
        sources=duty_cycle.sources(hot_spot.channel),
    )
