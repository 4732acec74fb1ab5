"""Damage of a stress history of any length in one pass: counted and summed piece by piece, nothing kept.

Method: rainflow counting (see `histories.counter`) and linear damage, without mean-stress correction.
"""

from __future__ import annotations

from collections.abc import Iterable

import numpy as np
from numpy.typing import ArrayLike

from vivid_anvil.checks import finite_samples, read_only
from vivid_anvil.histories import RANGES_ONLY, RainflowCounter
from vivid_anvil.materials import SNCurve

PIECE = 1 << 17  # samples: its cycles stay in the cache of the processor


def damage_of_samples(samples: ArrayLike, curve: SNCurve, *, residue: str = "half cycles") -> float:
    """Damage of stress `samples`, MPa, shape (n,), on `curve`; `residue` is "half cycles" or "repeated".

    Raises InputError for anything but one row of finite numbers.

    >>> curve = SNCurve.straight(name="-", stress="range", r_ratio="any", point_stress=90.0, point_life=2e6, slope=3)
    >>> damage_of_samples([0.0, 90.0, 0.0], curve) * 2e6
    1.0
    """
    values = np.asarray(samples, dtype=np.float64)
    if values.ndim != 1 or not values.size:
        values = finite_samples(samples, where="samples", unit="MPa")  # raises, and says what is wrong
    return damage_of_chunks([values], curve, residue=residue)


def damage_of_chunks(chunks: Iterable[ArrayLike], curve: SNCurve, *, residue: str = "half cycles") -> float:
    """Damage of a stress history, MPa, that comes in `chunks`, on `curve`."""
    counter, total, scratch = RainflowCounter(), 0.0, RANGES_ONLY
    for chunk in chunks:
        values = read_only(np.ascontiguousarray(chunk, dtype=np.float64))
        for start in range(0, values.size, PIECE):
            scratch, used = counter.count_into(values[start : start + PIECE], scratch)
            total += curve.damage_of(scratch[0][:used])
    ending = counter.finish(residue)
    return total + curve.damage_of(ending.range, ending.count)
