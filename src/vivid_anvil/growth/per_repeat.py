"""The way of a crack with all cycles of a repeat at once, whatever the number of its sizes."""

from __future__ import annotations

import math

from vivid_anvil.growth.crack import Crack
from vivid_anvil.growth.driving_cycles import GrowthDrive
from vivid_anvil.growth.gone import WayGone
from vivid_anvil.growth.one_size import OneSizeWay
from vivid_anvil.growth.two_sizes import TwoSizeWay
from vivid_anvil.growth.way import AT_REST, Ended, Way, moved, thinned

WAYS: dict[int, type[Way]] = {1: OneSizeWay, 2: TwoSizeWay}
MOST_LOOKED_AT = 2000


def way_of(crack: Crack, drive: GrowthDrive) -> Way:
    """The way of a crack with as many sizes as its shape has."""
    return WAYS[len(crack.shape.sizes)](crack, drive)


def per_repeat(way: Way, later: float | None, target: float | None) -> WayGone:
    """From the initial sizes to the limit, or to `target` repeats; `later`, repeats, is when the later law takes over."""
    used = way.used
    if used is not None:
        return WayGone.still(way.crack.sizes, way.critical(Ended(used, way.crack.sizes)), 0.0, used)
    whole = moved(way.whole(math.inf, later))
    ended = way.waiting() if whole.ended_by == AT_REST else Ended(whole.ended_by, whole.last)
    critical = way.critical(ended)
    if whole.repeats.size == 1:
        return WayGone.still(way.crack.sizes, critical, math.inf, AT_REST)
    whole = thinned(whole, MOST_LOOKED_AT)
    gone = WayGone(whole.sizes, whole.repeats, whole.life, whole.ended_by, whole.change, critical)
    if target is None or gone.repeats[-1] <= target:
        return gone
    part = thinned(moved(way.whole(target, later)), MOST_LOOKED_AT)
    return gone.cut(part.sizes, part.repeats)


def quick_life(way: Way) -> tuple[float, Ended]:
    """Repeats to the first limit by the first law, right to some 3e-4 at least, and what ended it."""
    used = way.used
    if used is not None:
        return 0.0, Ended(used, way.crack.sizes)
    leg = way.quick_leg()
    return leg.life, Ended(leg.ended_by, leg.last)


def repeats_from(way: Way, size: float, gone: WayGone) -> float:
    """Repeats from `size`, mm, on the way of the crack to its limit; from the start where it is larger already.

    With a later law all of them go by it, as nobody knows when the crack is found.
    """
    crack = way.crack
    if math.isinf(gone.life_repeats) or (size <= crack.initial_size and crack.later_law is None):
        return gone.life_repeats
    if crack.later_law is None:
        return way.left_from(size, gone.life_repeats)
    return way.leg(crack.later_law, gone.sizes_at(max(size, crack.initial_size)), math.inf).life
