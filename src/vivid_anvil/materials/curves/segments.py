"""A curve as segments, and the fast way through power laws: split by a loop, raised to powers by NumPy, block by block.

NumPy raises many numbers at once, two to three times as fast as one by one; blocks that stay in the processor's cache keep it so.
"""

from __future__ import annotations

from collections.abc import Callable, Iterator
from dataclasses import dataclass
from functools import cached_property
from typing import Any

import numpy as np

from vivid_anvil.ground.checks import FloatArray
from vivid_anvil.materials.curves import _kernels

BLOCK = 1 << 14
_POWER_LIKE = (_kernels.POWER, _kernels.CONSTANT, _kernels.NEVER)
Split = Callable[[FloatArray, FloatArray, FloatArray, FloatArray], int]


@dataclass(frozen=True)
class Segments:
    """A curve as the loops want it: see `_kernels`."""

    edge: FloatArray
    kind: Any
    stress: FloatArray
    life: FloatArray
    rate: FloatArray

    @property
    def by_stress(self) -> Any:
        """The arguments of a loop that starts from stresses."""
        return self.edge, self.kind, self.stress, self.life, self.rate

    @cached_property
    def powers(self) -> bool:
        """Whether all of it is power laws, held lives and stresses without damage."""
        return bool(np.isin(self.kind, _POWER_LIKE).all())


def _blocks(values: FloatArray, split: Split) -> Iterator[tuple[slice, FloatArray, FloatArray, int]]:
    """Place, power and factor of each block of `values`, and the place of a value that the loop refused, or -1."""
    size = min(BLOCK, values.size)
    ratio, exponent, factor = np.empty(size), np.empty(size), np.empty(size)
    for start in range(0, values.size, BLOCK):
        block = values[start : start + BLOCK]
        used = slice(0, block.size)
        bad = split(block, ratio, exponent, factor)
        if bad < 0:
            with np.errstate(
                over="ignore", under="ignore", divide="ignore"
            ):  # a life beyond all numbers is inf, a damage 0
                np.power(ratio[used], exponent[used], out=ratio[used])
        yield slice(start, start + block.size), ratio[used], factor[used], start + bad if bad >= 0 else -1


def lives_of_powers(stress: FloatArray, parts: Segments, out: FloatArray) -> int:
    """Write the life at each stress into `out`; the place of a stress that is no number of 0 or more, or -1."""

    def split(block: FloatArray, ratio: FloatArray, exponent: FloatArray, factor: FloatArray) -> int:
        edges = parts.edge, parts.kind, parts.stress, -parts.rate, parts.life, np.inf
        return int(_kernels.split_stresses(block, 1.0, *edges, ratio, exponent, factor))

    for where, power, factor, bad in _blocks(stress, split):
        if bad >= 0:
            return bad
        with np.errstate(over="ignore"):
            np.multiply(power, factor, out=out[where])
    return -1


def stresses_of_powers(life: FloatArray, point_life: FloatArray, parts: Segments, out: FloatArray) -> int:
    """Write the stress at each life into `out`; the place of a life that is no number above 0, or -1."""

    def split(block: FloatArray, ratio: FloatArray, exponent: FloatArray, factor: FloatArray) -> int:
        return int(_kernels.split_lives(block, point_life, *parts.by_stress[1:], ratio, exponent, factor))

    for where, power, factor, bad in _blocks(life, split):
        if bad >= 0:
            return bad
        with np.errstate(over="ignore"):
            np.multiply(power, factor, out=out[where])
    return -1


def damage_of_powers(stress: FloatArray, scale: float, count: FloatArray | None, parts: Segments) -> float:
    """Sum of count / life at the stresses times `scale`; each counts once where no `count` is given."""
    shares = 1.0 / parts.life

    def split(block: FloatArray, ratio: FloatArray, exponent: FloatArray, factor: FloatArray) -> int:
        edges = parts.edge, parts.kind, parts.stress, parts.rate, shares, 0.0
        return int(_kernels.split_stresses(block, scale, *edges, ratio, exponent, factor))

    total = 0.0
    for where, power, factor, _ in _blocks(np.ascontiguousarray(stress), split):
        total += float(power @ factor if count is None else (power * factor) @ count[where])
    return total
