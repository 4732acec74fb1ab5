"""Several loads that act together, worked by hand: the loads at one end of a cycle, and the stress that they make."""

from __future__ import annotations

import numpy as np

from vivid_anvil.damage.life_numbers import Life
from vivid_anvil.events import ChannelSum
from vivid_anvil.units import DIMENSIONS, UnitSystem, display_unit, factor, shown
from vivid_anvil.writing.working import Step, put_in


def sum_steps(result: Life, cycle: int, stress: float, end: str, system: UnitSystem) -> list[Step]:
    """The step from the loads at an end of a cycle, `stress` MPa, to their stress; none where the end is of two events."""
    channel = result.hot_spot.channel
    number_of_event, flat = int(result.spectrum.event[cycle]), result.duty_cycle.flat()
    if not isinstance(channel, ChannelSum) or number_of_event >= len(flat):
        return []
    load = flat[number_of_event][0].load
    course, seen = load.samples(), channel.seen(load).samples().channel(str(channel)).values
    cycles = result.spectrum.cycles
    ends = [int(place[cycle]) for place in (cycles.start, cycles.end)]
    among = np.array(ends) if load.measured is not None and min(ends) >= 0 else np.arange(seen.size)
    sample = int(among[np.abs(seen[among] - stress).argmin()])
    unit = display_unit("stress", system)
    parts = []
    for (name, _), per_load in zip(channel.parts, channel.factors(load.dimensions, "working"), strict=True):
        dimension = load.dimensions[name]
        load_unit = display_unit(dimension, system)
        in_load = factor(load_unit, DIMENSIONS[dimension]) if load_unit not in ("1", "") else 1.0
        each = put_in(float(shown(per_load * in_load, "stress", system)))
        value = put_in(float(course.channel(name).values[sample]) / in_load)
        plain = load_unit in ("1", "")
        parts.append(f"{each} {unit} × {value}" if plain else f"{each} {unit}/{load_unit} × {value} {load_unit}")
    return [
        Step(
            f"Stress of the loads at the cycle's {end}: {', '.join(channel.channels)}",
            "S_n = Σ s_i × F_i",
            " + ".join(parts),
            float(shown(stress, "stress", system)),
            unit,
        )
    ]
