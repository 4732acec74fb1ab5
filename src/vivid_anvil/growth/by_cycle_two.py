"""Growth of depth and half length cycle by cycle, each from the sizes that the cycle before left.

Y at both ends is followed as a plane over (a, c) around an anchor; when a size has moved by `REACH` of itself, the anchor moves
there, the shape is asked again, and the limits are looked at. The error of the plane is of the order of `REACH` squared.
"""

from __future__ import annotations

import math
from dataclasses import dataclass

import numpy as np

from vivid_anvil.ground.checks import FloatArray
from vivid_anvil.growth._kernels import OUT_OF_REACH, PAST_LIMIT, march, march_power
from vivid_anvil.growth.by_cycle import weights_of
from vivid_anvil.growth.drive import counts_shut, lowest_of
from vivid_anvil.growth.limits import AlwaysEnds, Margin
from vivid_anvil.growth.memories import NoRetardation, Retardation
from vivid_anvil.growth.memories.retardation import KEPT
from vivid_anvil.materials import GrowthLaw
from vivid_anvil.shapes.shape import TwoWayShape
from vivid_anvil.shapes.two_sizes import within, within_weight

REACH = 1e-3
_SLOPE_STEP = 1e-4


@dataclass(frozen=True, eq=False)
class TwoWayCycles:
    """Depth and half length, mm, at each anchor, with the passes done; cycles gone through; what ended it, "" where nothing.

    `largest_scale`, √mm, is the largest K per MPa that was met; `place` is the pass, piece and time of it at the end. `memory`,
    shape (2, n), is what larger cycles left at both ends; `error` the mean share by which rates were off at the rim of a plane.
    """

    depths: FloatArray
    half_lengths: FloatArray
    passes: FloatArray
    cycles: int
    ended_by: str
    largest_scale: float
    place: tuple[int, int, int]
    memory: FloatArray
    error: float


def grow_two_by_cycle(
    rows: FloatArray,
    pieces: FloatArray,
    shape: TwoWayShape,
    law: GrowthLaw,
    start: tuple[float, float],
    margins: dict[str, Margin],
    passes: int,
    *,
    retardation: Retardation | None = None,
    always: AlwaysEnds | None = None,
    counted_part: str = "tensile",
    begun: int = 0,
    memory: FloatArray | None = None,
) -> TwoWayCycles:
    """From `start` (a, c), mm, through `passes` of rows (largest, smallest stress, count) until a margin is used up.

    `always` gives the K, MPa√mm, that residual stress adds at both ends; `counted_part` is one of `COUNTED_PARTS`. To go on where
    another call ended, `begun` are the passes done and `memory` what it left.

    >>> from vivid_anvil.materials import ParisLaw
    >>> from vivid_anvil.shapes import SurfaceCrack
    >>> law = ParisLaw(name="steel", rate=3e-13, slope=3.0)
    >>> plate = SurfaceCrack(thickness=20.0, plate_width=200.0)
    >>> one = np.array([[100.0, 0.0, 1.0]])
    >>> found = grow_two_by_cycle(one, np.array([[0.0, 1.0, 1.0, 1.0]]), plate, law, (1.0, 2.5), {}, 506956)
    >>> round(float(found.depths[-1]), 4), round(float(found.half_lengths[-1]), 4)
    (2.0, 3.0404)
    """
    at, place, sizes = np.array(start, dtype=np.float64), np.zeros(5, dtype=np.int64), np.empty((passes + 1, 2))
    stops = np.array([shape.deepest * (1.0 - 1e-12), math.inf])
    total = float((pieces[:, 1] - pieces[:, 0]) @ (pieces[:, 2] * pieces[:, 3]))
    path: list[tuple[float, ...]] = [(start[0], start[1], 0.0)]
    ended_by, largest, error, counted = "", 0.0, 0.0, 0.0
    how = NoRetardation() if retardation is None else retardation
    kept = np.zeros((2, KEPT)) if memory is None else memory.copy()
    shut, lowest = counts_shut(counted_part, law), lowest_of(counted_part)
    powers = weights_of(law, rows, lowest, shut) if how.slows_the_rate and always is None else None
    remembered, rest = (*how.handed, kept), (stops, begun, at, place, sizes)
    anchor = _anchor(shape, *start, always)
    while True:
        largest = max(largest, max(anchor[2], anchor[8]) * math.sqrt(math.pi * anchor[0]))
        if powers is None:
            why = march(*law.handed, *remembered, rows, pieces, anchor[None], lowest, shut, REACH, *rest)
        else:
            planes = _power_planes(anchor, law)
            why = march_power(*powers, *remembered, rows, pieces, planes[None], 0.5 * REACH, *rest)
        a, c, gone = float(at[0]), float(at[1]), float(place[4])
        path.append((a, c, gone / total))
        if why == PAST_LIMIT:
            ended_by = "wall"
            break
        ended_by = next((name for name, margin in margins.items() if margin(a, c) <= 0.0), "")
        if ended_by:
            path[-1] = _just_used_up(margins[ended_by], path[-2], path[-1])
        if why != OUT_OF_REACH or ended_by:
            break
        before, anchor = anchor, _anchor(shape, a, c, always)
        error += law.slope * _missed(before, anchor) * (gone - counted)
        counted = gone
    depths, half_lengths, done = np.array(path).T
    moved = np.concatenate([[True], np.diff(done) > 0.0])
    return TwoWayCycles(
        np.minimum(depths[moved], shape.deepest),
        half_lengths[moved],
        done[moved],
        int(place[4]),
        ended_by,
        largest,
        (int(place[0]), int(place[1]), int(place[2])),
        kept,
        error / max(counted, 1.0),
    )


def _just_used_up(margin: Margin, before: tuple[float, ...], after: tuple[float, ...]) -> tuple[float, ...]:
    """The place between two anchors, next to one another, at which the margin is 0, on straight lines."""
    room, missing = margin(*before[:2]), margin(*after[:2])
    share = room / (room - missing) if room > 0.0 >= missing and math.isfinite(missing) else 1.0
    return tuple(one + share * (two - one) for one, two in zip(before, after, strict=True))


def _anchor(shape: TwoWayShape, a: float, c: float, always: AlwaysEnds | None) -> FloatArray:
    """a, c, then for the end of a and for that of c Y and the K of residual stress, each with its slopes over a and over c."""
    step_a, step_c = -_SLOPE_STEP * a, _SLOPE_STEP * c  # towards less depth: the wall may be near
    found = [np.zeros(6), np.zeros(6)]
    asked = [(shape.factors, within, 0), *([] if always is None else [(always, within_weight, 3)])]
    for function, known, first in asked:
        here, less, longer = (function(*known(shape, *at)) for at in ((a, c), (a + step_a, c), (a, c + step_c)))
        for i in (0, 1):
            found[i][first : first + 3] = here[i], (less[i] - here[i]) / step_a, (longer[i] - here[i]) / step_c
    return np.array([a, c, *found[0], *found[1]])


def _missed(before: FloatArray, after: FloatArray) -> float:
    """By which share of Y the plane of one anchor misses the next."""
    moved_a, moved_c = after[0] - before[0], after[1] - before[1]
    planes = (before[i] + before[i + 1] * moved_a + before[i + 2] * moved_c for i in (2, 8))
    return max(abs(float(y / after[i]) - 1.0) for y, i in zip(planes, (2, 8), strict=True))


def _power_planes(anchor: FloatArray, law: GrowthLaw) -> FloatArray:
    """a, c, then for each end K per MPa and C times its power m, both with their slopes over a and c."""
    root = math.sqrt(math.pi * anchor[0])
    found = [anchor[0], anchor[1]]
    for y, over_a, over_c in (anchor[2:5], anchor[8:11]):
        scale = y * root
        slope_a, slope_c = over_a * root + 0.5 * scale / anchor[0], over_c * root
        power = law.constant * scale**law.slope
        share = law.slope * power / scale
        found += [scale, slope_a, slope_c, power, share * slope_a, share * slope_c]
    return np.array(found)
