"""Growth cycle by cycle in the real order, each from the sizes that the one before it left; larger cycles may be remembered.

In: cycles in order (largest and smallest nominal stress, MPa), a shape, a law. Out: sizes on the way, and at which cycle it
stopped. How larger cycles are remembered is in `memories`; how Y is followed between the sizes at which the shape is asked, in
`anchors`.
"""

from __future__ import annotations

import math
from collections.abc import Callable, Mapping
from dataclasses import dataclass
from typing import Any

import numpy as np
from numpy.typing import ArrayLike

from vivid_anvil.ground.checks import FloatArray, IntArray, as_numbers
from vivid_anvil.ground.errors import InputError
from vivid_anvil.growth._kernels import (
    ALL_DONE,
    OUT_OF_REACH,
    PAST_LIMIT,
    first_bad_row,
    march,
    march_power,
    what_counts,
)
from vivid_anvil.growth.anchors import ANCHORS
from vivid_anvil.growth.driving_cycles import counts_shut, lowest_of
from vivid_anvil.growth.fracture_cycle import CyclePlace
from vivid_anvil.growth.memories import NoRetardation, Retardation
from vivid_anvil.growth.memories.retardation import KEPT
from vivid_anvil.materials import GrowthLaw
from vivid_anvil.shapes.shape import Margin, Shape
from vivid_anvil.units import LENGTH_OR_NONE, many, number, opened

LOOKS_EVERY = 16  # steps of the anchor between looks at the margins, which cost as much as the step
BLOCK = 1 << 13  # cycles at a time: what stays in the cache
MOST_AT_ONCE = 3e7  # cycles that the loop goes through before it may be interrupted


@dataclass(frozen=True, eq=False)
class CycleGrowth:
    """Sizes, mm, shape (n, sizes), on the way (the start first), with the passes done, shape (n,), and why it ended.

    `cycles` were gone through; `ended_by` is the name of the margin that was used up, "stop" at the largest size, "" where
    nothing did; `stopped_at` is then (pass, piece, time, row). `largest_scale`, √mm, is the largest K per MPa that was met;
    `memory`, a row an end, is what larger cycles left; `error` a bound on the share by which reading Y moves a rate.
    """

    sizes: FloatArray
    passes: FloatArray
    cycles: int
    ended_by: str
    stopped_at: CyclePlace | None
    largest_scale: float
    memory: FloatArray
    error: float

    @property
    def size(self) -> float:
        """The first size at the end, mm."""
        return float(self.sizes[-1, 0])


@opened(cycles=many("stress", only_units=True), start=many("length"), stop=LENGTH_OR_NONE)
def grow_by_cycle(
    cycles: ArrayLike,
    shape: Shape,
    law: GrowthLaw,
    start: ArrayLike,
    *,
    passes: int = 1,
    stop: float | None = None,
    margins: Mapping[str, Margin] | None = None,
    pieces: ArrayLike | None = None,
    counted_part: str = "tensile",
    retardation: Retardation | None = None,
    always: Callable[..., Any] | None = None,
    begun: int = 0,
    memory: FloatArray | None = None,
) -> CycleGrowth:
    """Growth from `start`, mm, through `passes` of rows (largest, smallest stress, MPa[, count]) in their order.

    Rows may also be (largest, smallest stress, count, bending stress at the largest, at the smallest): K is then the sum of both.
    `start` is a size, or depth and half length. `stop`, mm, is where the first of them ends, by default at the limit of the
    shape; of two sizes `margins` are looked at on the way, functions of both. `pieces`, rows (first, last, occurrences,
    repetitions), are the parts of a pass: occurrences below 1 happen in the pass in which their sum is whole. `always` gives the
    K, MPa√mm, that residual stress adds at the sizes. To go on where another call ended, `begun` are the passes done, `memory`
    what it left. Raises InputError for a size outside the shape, rows of another form, and a law that ends before the load does.

    >>> from vivid_anvil.materials import ParisLaw
    >>> from vivid_anvil.shapes import CentreCrack, SurfaceCrack
    >>> law = ParisLaw(name="steel", rate=5.21e-13, slope=3.0)
    >>> found = grow_by_cycle([[100.0, 0.0], [150.0, 0.0]], CentreCrack(100.0), law, 5.0, passes=1000)
    >>> found.cycles, round(found.size, 4)
    (2000, 5.1478)
    >>> plate = SurfaceCrack(thickness=20.0, plate_width=200.0)
    >>> found = grow_by_cycle([[100.0, 0.0]], plate, law, (1.0, 2.5), passes=291920)
    >>> found.sizes[-1].round(4).tolist()
    [2.0, 3.0404]
    """
    sizes, largest = _start(start, shape, stop)
    how = NoRetardation() if retardation is None else retardation
    rows, lowest = how.prepared(_rows(cycles), lowest_of(counted_part))
    parts = as_numbers("growth by cycle, pieces", [[0, rows.shape[0], 1, 1]] if pieces is None else pieces)
    kept = np.zeros((sizes.size, KEPT)) if memory is None else memory.astype(np.float64)
    if parts.ndim != 2 or parts.shape[1] not in (4, 5) or kept.shape != (sizes.size, KEPT):
        shapes = f"pieces of shape {parts.shape}, memory of shape {kept.shape}"
        raise InputError(
            "growth by cycle", shapes, f"pieces of shape (n, 4 or 5), memory of shape {(sizes.size, KEPT)}"
        )
    shut = counts_shut(counted_part, law)
    bent = rows.shape[1] > 3
    quick = how.slows_the_rate and always is None and not bent
    powers = weights_of(law, rows, lowest, shut) if quick else None
    anchors = ANCHORS[sizes.size](shape, law, always, largest, powered=powers is not None, bent=bent)
    at, place, ways = sizes.copy(), np.zeros(5, dtype=np.int64), np.full((passes + 1, sizes.size), np.nan)
    ways[0] = sizes
    rest = (np.append(largest, np.full(sizes.size - 1, math.inf)), begun, at, place)
    if powers is None:
        in_k = bent or always is not None  # what counts of a cycle is known at its K only
        low = rows[:, 1] if in_k else np.maximum(rows[:, 1], lowest)
        table = np.column_stack([rows[:, 0], low, rows[:, 2:] if rows.shape[1] > 2 else np.ones(len(rows))])
        least = lowest if in_k else -math.inf
        fixed: tuple[Any, ...] = (*law.handed, *how.handed, kept, table, parts)
    else:
        fixed = (*powers, *how.handed, kept, rows, parts)
    ended_by, steps, looks = "", 0, LOOKS_EVERY
    known_good = (at.copy(), place.copy(), kept.copy(), anchors.state)
    at_once, planes = _passes_at_once(parts), None
    room = min(at_once, passes)
    while True:
        planes = anchors.around(at, int(place[4])) if planes is None else planes
        if powers is None:
            why = march(*fixed, planes, least, shut, anchors.reach, *rest, ways[: room + 1])
        else:
            why = march_power(*fixed, planes, anchors.reach, *rest, ways[: room + 1])
        if why == ALL_DONE and room < passes:
            room = min(room + at_once, passes)
            continue
        planes = None
        steps, known = steps + 1, bool(np.isfinite(at).all())  # inf where a cycle broke it, nan beyond a table
        if why == OUT_OF_REACH and steps % looks and known:
            continue
        used = [name for name, margin in (margins or {}).items() if margin(*at.tolist()) <= 0.0] if known else []
        if (used or not known) and looks > 1 and margins:  # back, and look at every step from there
            at[:], place[:], kept[:] = known_good[:3]
            anchors.state, steps, looks = known_good[3], 0, 1
            continue
        if np.isnan(at).any():
            raise law.beyond("a range of stress intensity")
        ended_by = "stop" if why == PAST_LIMIT else next(iter(used), "")
        if why != OUT_OF_REACH or ended_by:
            break
        known_good = (at.copy(), place.copy(), kept.copy(), anchors.state)
    stopped_at = None if not ended_by else _inside(parts, place)
    way = anchors.way(ways, at, place, parts, stopped_at, (margins or {}).get(ended_by))
    way[:, 0] = np.minimum(way[:, 0], largest)
    found = (anchors.largest_scale(at), kept, anchors.error)
    return CycleGrowth(way[:, :-1], way[:, -1], int(place[4]), ended_by, stopped_at, *found)


def _passes_at_once(parts: FloatArray) -> int:
    """Passes that the loop takes without coming back, so that an interrupt is answered within about a second."""
    in_a_pass = float(((parts[:, 1] - parts[:, 0]) * parts[:, 2] * parts[:, 3]).sum())
    return max(1, int(MOST_AT_ONCE / max(in_a_pass, 1.0)))


def _start(start: ArrayLike, shape: Shape, stop: float | None) -> tuple[FloatArray, float]:
    """The sizes to begin with, mm, and the first size at which it ends."""
    sizes = np.atleast_1d(np.array(start, dtype=np.float64))
    if sizes.size != len(shape.sizes):
        raise InputError(
            "growth by cycle, start", f"{sizes.size} sizes", f"{' and '.join(shape.sizes)}, as a {shape.kind} crack has"
        )
    largest = shape.deepest if stop is None else min(stop, shape.deepest)
    if not (0.0 < sizes[0] < largest and (sizes > 0.0).all()):
        raise InputError(
            "growth by cycle, start",
            " and ".join(f"{number(size)} mm" for size in sizes.tolist()),
            f"a size above 0 and below {number(largest)} mm, where it stops",
        )
    return sizes, largest if sizes.size == 1 else largest * (1.0 - 1e-12)


def _inside(parts: FloatArray, place: IntArray) -> CyclePlace:
    """Pass, piece, time and row of a place that may be just past the end of its piece or pass."""
    n, piece, time, row = (int(one) for one in place[:4])
    if piece >= len(parts):
        return CyclePlace(n, len(parts) - 1, 0, int(parts[-1, 0]))
    return CyclePlace(n, piece, time, max(row, int(parts[piece, 0])))


def weights_of(law: GrowthLaw, rows: FloatArray, lowest: float, shut: bool) -> tuple[FloatArray, FloatArray] | None:
    """For each cycle its growth over C (K per MPa)^m, and the K per MPa, √mm, that it must exceed; None where they don't part."""
    weight, least = np.empty(rows.shape[0]), np.empty(rows.shape[0])
    span, r = np.empty(BLOCK), np.empty(BLOCK)
    for start in range(0, rows.shape[0], BLOCK):
        size = min(BLOCK, rows.shape[0] - start)
        what_counts(rows, start, lowest, shut, span[:size], r[:size])
        parted = law.separate(span[:size], r[:size])
        if parted is None:
            return None
        weight[start : start + size], least[start : start + size] = parted
    if rows.shape[1] > 2:
        weight *= rows[:, 2]
    return weight, least


def _rows(cycles: ArrayLike) -> FloatArray:
    """Rows (largest, smallest[, count[, second stress at both]]), checked; the caller's own array where it can be."""
    given = np.ascontiguousarray(cycles, dtype=np.float64)
    if given.ndim != 2 or given.shape[1] not in (2, 3, 5) or not given.shape[0]:
        raise InputError(
            "growth by cycle, cycles",
            f"shape {given.shape}",
            "rows (largest, smallest stress), with a count, or with that and bending at both; one or more",
        )
    bad = first_bad_row(given)
    if bad >= 0:
        raise InputError(
            f"growth by cycle, cycles, row {bad + 1}",
            f"{given[bad].tolist()}",
            "finite numbers, the largest stress not below the smallest",
        )
    return given
