"""How Y is followed between the sizes at which a shape is asked, for growth cycle by cycle.

One size: a grid over all sizes, so fine that it is right to 1e-8, is asked in advance. Two: Y at both ends is followed as a plane
over (a, c) around an anchor; when a size has moved by `REACH` of itself, the anchor moves there and the shape is asked again.
The error of the plane is of the order of `REACH` squared.
"""

from __future__ import annotations

import math
from abc import ABC, abstractmethod
from collections.abc import Callable
from typing import Any, cast

import numpy as np

from vivid_anvil.ground.checks import FloatArray, IntArray, given_back
from vivid_anvil.growth.fracture_cycle import CyclePlace, cycles_until
from vivid_anvil.materials import GrowthLaw
from vivid_anvil.shapes.shape import Margin, OneSizeShape

GRID = 1 << 16
REACH = 1e-3
_SLOPE_STEP = 1e-4
AlwaysThere = Callable[..., Any]


class Anchors(ABC):
    """What the loop asks for, and what it tells of its way. `powered` rows hold K per MPa and C times its power.

    Where cycles have a second stress, the `bent` shape stands beside the `pure` one.
    """

    reach: float
    error: float

    def __init__(
        self, shape: Any, law: GrowthLaw, always: AlwaysThere | None, largest: float, *, powered: bool, bent: bool
    ) -> None:
        self.shape, self.law, self.always, self.largest, self.powered = shape, law, always, largest, powered
        self.pure: Any = shape.under(0.0) if bent else shape
        self.bent: Any = shape.under(1.0) if bent else None
        self.error = 0.0

    @property
    def state(self) -> Any:
        """What to come back to: none where all is known in advance."""
        return None

    @state.setter  # noqa: B027 (nothing to come back to is no fault)
    def state(self, state: Any) -> None:
        """Back to it."""

    @abstractmethod
    def around(self, at: FloatArray, cycles: int) -> FloatArray:
        """Rows for the loop from the sizes `at`, mm, which have been reached after so many cycles."""

    @abstractmethod
    def way(
        self, ways: FloatArray, at: FloatArray, place: IntArray, parts: FloatArray, stop: CyclePlace | None, margin: Any
    ) -> FloatArray:
        """Rows of sizes, mm, and passes, the last at the end; `margin` is what was used up there, if it was one."""

    @abstractmethod
    def largest_scale(self, at: FloatArray) -> float:
        """The largest K per MPa, √mm, on the way to the sizes `at`."""


class OneSizeAnchors(Anchors):
    """A grid over the size."""

    reach = math.inf

    def around(self, at: FloatArray, cycles: int) -> FloatArray:
        """All of it, with the error that reading between its places makes."""
        shape, start = cast(OneSizeShape, self.pure), float(at[0])
        grid = (np.geomspace if self.powered else np.linspace)(start, self.largest, GRID)
        grid[0], grid[-1] = start, self.largest
        factors = np.asarray(shape.geometry_factor(grid), dtype=np.float64)
        self.error = self.law.slope * _off_the_grid(shape, grid, factors)
        self._scales = factors * np.sqrt(np.pi * grid)
        self._grid = grid
        if self.powered:
            return _with_slopes(grid, self._scales, self.law.constant * self._scales**self.law.slope)
        there = np.zeros(GRID) if self.always is None else given_back("always", self.always(grid), grid.shape)
        bending = [] if self.bent is None else [np.asarray(self.bent.geometry_factor(grid), dtype=np.float64)]
        return _with_slopes(grid, factors, there, *bending)

    def way(
        self, ways: FloatArray, at: FloatArray, place: IntArray, parts: FloatArray, stop: CyclePlace | None, margin: Any
    ) -> FloatArray:
        """The sizes after each pass, and where in the last it stopped."""
        n = int(place[0])
        rows = np.column_stack([ways[: n + 1], np.arange(n + 1, dtype=np.float64)])
        if stop is None:
            return rows
        gone, whole = cycles_until(parts, stop)
        return np.vstack([rows, [*at, n + min(max(gone / whole, 1e-9), 1.0)]])

    def largest_scale(self, at: FloatArray) -> float:
        """Of all places of the grid up to there."""
        last = int(np.searchsorted(self._grid, min(float(at[0]), self.largest), side="left"))
        return float(self._scales[: last + 1].max())


class TwoSizeAnchors(Anchors):
    """A plane around sizes that move."""

    def __init__(
        self, shape: Any, law: GrowthLaw, always: AlwaysThere | None, largest: float, *, powered: bool, bent: bool
    ) -> None:
        super().__init__(shape, law, always, largest, powered=powered, bent=bent)
        self.reach = 0.5 * REACH if powered else REACH
        self._anchor: FloatArray | None = None
        self._path: list[tuple[float, ...]] = []
        self._summed, self._counted, self._scale = 0.0, 0, 0.0

    @property
    def state(self) -> Any:
        """The way so far."""
        return self._anchor, len(self._path), self._summed, self._counted, self._scale, self.error

    @state.setter
    def state(self, state: Any) -> None:
        self._anchor, length, self._summed, self._counted, self._scale, self.error = state
        del self._path[length:]

    def around(self, at: FloatArray, cycles: int) -> FloatArray:
        """One row."""
        before, self._anchor = self._anchor, self._plane(float(at[0]), float(at[1]))
        self._path.append((float(at[0]), float(at[1]), float(cycles)))
        self._scale = max(self._scale, max(self._anchor[self._firsts]) * math.sqrt(math.pi * at[0]))
        if before is not None:
            self._summed += self.law.slope * self._missed(before, self._anchor) * (cycles - self._counted)
            self._counted = cycles
            self.error = self._summed / max(self._counted, 1)
        return (_power_plane(self._anchor, self.law) if self.powered else self._anchor)[None]

    def way(
        self, ways: FloatArray, at: FloatArray, place: IntArray, parts: FloatArray, stop: CyclePlace | None, margin: Any
    ) -> FloatArray:
        """The sizes at each anchor; the last where the margin is 0."""
        each = float((parts[:, 1] - parts[:, 0]) @ (parts[:, 2] * parts[:, 3]))
        rows = [*self._path, (float(at[0]), float(at[1]), float(place[4]))]
        if margin is not None:
            rows[-1] = _just_used_up(margin, rows[-2], rows[-1])
        found = np.array(rows)
        found[:, 2] /= each
        kept = np.concatenate([[True], np.diff(found[:, 2]) > 0.0])
        return np.asarray(found[kept])

    def largest_scale(self, at: FloatArray) -> float:
        """At all anchors."""
        return self._scale

    def _plane(self, a: float, c: float) -> FloatArray:
        """a, c, then for the end of a and for that of c each value with its slopes over a and over c.

        The values: Y, K of residual stress, and Y of bending where there is such a stress.
        """
        step_a, step_c = -_SLOPE_STEP * a, _SLOPE_STEP * c  # towards less depth: the wall may be near
        asked = [self.pure.ends, self.always, *([] if self.bent is None else [self.bent.ends])]
        found = np.zeros((2, 3 * len(asked)))
        for j, function in enumerate(asked):
            if function is not None:
                here, less, longer = (np.array(function(*at)) for at in ((a, c), (a + step_a, c), (a, c + step_c)))
                found[:, 3 * j : 3 * j + 3] = np.column_stack([here, (less - here) / step_a, (longer - here) / step_c])
        return np.concatenate([[a, c], *found])

    @property
    def _firsts(self) -> list[int]:
        """Where Y of both ends stands in a row."""
        return [2, 8] if self.bent is None else [2, 11]

    def _missed(self, before: FloatArray, after: FloatArray) -> float:
        """By which share of Y the plane of one anchor misses the next."""
        moved_a, moved_c = after[0] - before[0], after[1] - before[1]
        planes = (before[i] + before[i + 1] * moved_a + before[i + 2] * moved_c for i in self._firsts)
        return max(abs(float(y / after[i]) - 1.0) for y, i in zip(planes, self._firsts, strict=True))


ANCHORS: dict[int, type[Anchors]] = {1: OneSizeAnchors, 2: TwoSizeAnchors}


def _with_slopes(grid: FloatArray, *values: FloatArray) -> FloatArray:
    """Rows: place, then each value with its slope to the next row."""
    widths = np.diff(grid)
    columns = [grid]
    for value in values:
        slopes = np.diff(value) / widths
        columns += [value, np.append(slopes, slopes[-1])]
    return np.column_stack(columns)


def _off_the_grid(shape: OneSizeShape, grid: FloatArray, factors: FloatArray) -> float:
    """The largest share by which Y halfway between places of the grid is off, looked at every 64th."""
    at = slice(0, GRID - 1, 64)
    exact = np.asarray(shape.geometry_factor(0.5 * (grid[:-1] + grid[1:])[at]), dtype=np.float64)
    return float(np.abs(0.5 * (factors[:-1] + factors[1:])[at] / exact - 1.0).max())


def _power_plane(anchor: FloatArray, law: GrowthLaw) -> FloatArray:
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


def _just_used_up(margin: Margin, before: tuple[float, ...], after: tuple[float, ...]) -> tuple[float, ...]:
    """The place between two anchors, next to one another, at which the margin is 0, on straight lines."""
    room, missing = margin(*before[:2]), margin(*after[:2])
    share = room / (room - missing) if room > 0.0 >= missing and math.isfinite(missing) else 1.0
    return tuple(one + share * (two - one) for one, two in zip(before, after, strict=True))
