"""Stress cycles of an event at many places at once, their stresses made and counted block by block."""

from __future__ import annotations

from collections.abc import Iterator
from typing import NamedTuple

import numpy as np

from vivid_anvil.counting import _kernels as counting
from vivid_anvil.ground.checks import FloatArray, IntArray
from vivid_anvil.ground.handed import address
from vivid_anvil.stress import _kernels as kernels
from vivid_anvil.stress.measures import Measure

ROOM = 24_000  # cycles put side by side: what fits the cache


class Batch(NamedTuple):
    """Cycles of the places `places` (a part of those asked for), one after the other; good until the next batch comes.

    `ranges` and `means`, MPa, `counts` how often each is gone through, `ends` where those of each place end; `extremes`, (n, 2),
    the lowest and highest stress of each.
    """

    places: slice
    ranges: FloatArray
    means: FloatArray
    counts: FloatArray
    ends: IntArray
    extremes: FloatArray


def batches(
    measure: Measure,
    forms: FloatArray,
    units: FloatArray,
    constants: FloatArray,
    loads: FloatArray,
    counts: FloatArray | None,
) -> Iterator[Batch]:
    """Batches of cycles at all places: `forms`, (places or 1, k, 6), of the measure, `units`, (places, cases, 6), `constants`,
    (places, 6), MPa, `loads`, (cases, samples).

    With `counts`, (samples / 2,), samples are the two ends of cycles that are there so often; else a history, repeated for ever.
    """
    if counts is None:
        return _counted(measure, forms, units, constants, loads)
    return _specified(measure, forms, units, constants, loads, counts)


def _counted(
    measure: Measure, forms: FloatArray, units: FloatArray, constants: FloatArray, loads: FloatArray
) -> Iterator[Batch]:
    size = len(units)
    room = max(ROOM, loads.shape[1] // 2 + 4)
    ranges, means, ones = np.empty(room), np.empty(room), np.ones(room)
    ends, extremes = np.zeros(size, dtype=np.int64), np.empty((size, 2))
    at, done = _counting(), 0
    while done < size:
        own = forms if len(forms) == 1 else forms[done:]
        rest = (units[done:], constants[done:], loads, at, ranges, means, ends[done:], extremes[done:])
        now = slice(done, done + int(kernels.cycles_of_places(*measure.handed, own, *rest)))
        used = int(ends[now][-1])
        yield Batch(now, ranges[:used], means[:used], ones[:used], ends[now], extremes[now])
        done = now.stop


def _counting() -> IntArray:
    """Where the counting loops are."""
    handed = (
        (counting.turns_of_block, kernels.TURNS),
        (counting.closed_by_block, kernels.CLOSED),
        (counting.closed_by_round, kernels.ROUND),
    )
    return np.array([address(function, signature) for function, signature in handed])


def _specified(
    measure: Measure, forms: FloatArray, units: FloatArray, constants: FloatArray, loads: FloatArray, counts: FloatArray
) -> Iterator[Batch]:
    """The same for an event that is specified by its cycles."""
    size = loads.shape[1]
    together = max(1, 2 * ROOM // size)
    for start in range(0, len(units), together):
        places = slice(start, min(start + together, len(units)))
        many = places.stop - start
        histories = np.empty((many, size))
        for row, place in zip(histories, range(start, places.stop), strict=True):
            own = forms[0 if len(forms) == 1 else place]
            kernels.stress_history(*measure.handed, own, units[place], constants[place], loads, row)
        one, other = histories[:, 0::2], histories[:, 1::2]
        ranges, means = np.abs(one - other).ravel(), (0.5 * one + 0.5 * other).ravel()
        reached = np.column_stack([histories.min(axis=1), histories.max(axis=1)])
        yield Batch(places, ranges, means, np.tile(counts, many), np.arange(1, many + 1) * (size // 2), reached)
