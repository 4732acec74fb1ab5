"""The stress cycles of all events of one repeat at a hot spot, side by side in one table."""

from __future__ import annotations

from dataclasses import dataclass

import numpy as np

from vivid_anvil.checks import FloatArray, IntArray, read_only
from vivid_anvil.histories import Cycles, DutyCycle
from vivid_anvil.stress.hot_spot import HotSpot


@dataclass(frozen=True, eq=False)
class RepeatCycles:
    """`cycles` of one occurrence of each event, MPa; the number of the `event`; how often each happens `per_repeat`."""

    cycles: Cycles
    event: IntArray
    per_repeat: FloatArray


def local_cycles(hot_spot: HotSpot, duty_cycle: DutyCycle) -> RepeatCycles:
    """Local stress cycles, with the notch factor: what an S-N curve is asked about."""
    return _joined([hot_spot.cycles(duty_cycle, event) for event in duty_cycle.events], duty_cycle)


def nominal_cycles(hot_spot: HotSpot, duty_cycle: DutyCycle) -> RepeatCycles:
    """Nominal stress cycles, without the notch factor: what a crack that has left the notch is driven by."""
    return _joined([hot_spot.nominal_cycles(duty_cycle, event) for event in duty_cycle.events], duty_cycle)


def _joined(tables: list[Cycles], duty_cycle: DutyCycle) -> RepeatCycles:
    def column(name: str) -> FloatArray:
        return read_only(np.concatenate([getattr(table, name) for table in tables]))

    cycles = Cycles(
        range=column("range"),
        mean=column("mean"),
        count=column("count"),
        start=column("start").astype(np.int64),
        end=column("end").astype(np.int64),
    )
    sizes = [len(table) for table in tables]
    occurrences = np.array([event.occurrences for event in duty_cycle.events], dtype=np.float64)
    return RepeatCycles(
        cycles,
        read_only(np.repeat(np.arange(len(tables)), sizes)),
        read_only(cycles.count * np.repeat(occurrences, sizes)),
    )
