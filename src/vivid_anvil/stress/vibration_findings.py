"""What an expert says of a place that vibrates, whatever is asked of it: a life, a crack, or whether its study is sound."""

from __future__ import annotations

from collections.abc import Iterator
from typing import Any

from vivid_anvil.events import DutyCycle
from vivid_anvil.stress.hot_spot import HotSpot
from vivid_anvil.units import in_unit, number
from vivid_anvil.writing.finding import Finding

SIGMAS = 3.0


def vibration_findings(spot: HotSpot, duty_cycle: DutyCycle) -> Iterator[Finding]:
    """Of the responses at the place, of each event as stress there, and of three rms against yield."""
    relation = spot.fed
    yield from relation.remarks()
    for event, _ in duty_cycle.flat():
        seen: Any = event.seen(relation.counted).one_channel(str(relation.counted))
        yield from seen.remarks(event.name)
        if "cross-spectra" in seen.gives:
            yield from _above_yield(spot, duty_cycle, event.name, seen)


def _above_yield(spot: HotSpot, duty_cycle: DutyCycle, event: str, seen: Any) -> Iterator[Finding]:
    limit = spot.material.yield_strength
    if limit is None:
        return
    per_load, factor = spot.fed.factor(duty_cycle), spot.notch_factor
    rms = factor * abs(per_load) * seen.process.rms
    mean = factor * (per_load * seen.mean + spot.fed.offset)
    reached = abs(mean) + min(SIGMAS, seen.shaping.crest_factor) * rms
    if reached > limit:
        largest = in_unit(abs(mean) + rms * min(seen.largest.expected, seen.shaping.crest_factor), "stress")
        yield Finding(
            "warning",
            "three-sigma-above-yield",
            f"Three rms of {event}, {number(rms, 3)} MPa each about a mean of {number(mean, 3)} MPa, reach "
            f"{in_unit(reached, 'stress')}, above the yield strength, {in_unit(limit, 'stress')}; the largest stress expected in "
            f"{number(seen.exposure)} s is {largest}.",
            "A linear response ends there: lower the level, add damping, or assess by local strain.",
        )
