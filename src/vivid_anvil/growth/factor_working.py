"""Hand calculation of the geometry factor of a crack."""

from __future__ import annotations

from vivid_anvil.growth.growth_numbers import Growth
from vivid_anvil.writing.working import Step


def factor_steps(result: Growth, unit: str, one: float) -> list[Step]:
    """Steps to Y, the last; lengths in `unit`, of which `one` has so many mm."""
    crack = result.crack
    if crack.two_way:
        return crack.two_sizes.steps(crack.initial_size, crack.half_length, unit, one)
    return crack.one_size.steps(crack.initial_size, unit, one)
