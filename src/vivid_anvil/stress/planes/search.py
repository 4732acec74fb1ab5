"""The plane where something is largest: over a net of the half sphere, then refined around all that come near."""

from __future__ import annotations

from collections.abc import Callable
from dataclasses import dataclass
from typing import NamedTuple

import numpy as np

from vivid_anvil.ground.checks import BoolArray, FloatArray, IntArray, given_back
from vivid_anvil.ground.errors import InputError
from vivid_anvil.stress.directions import beside, half_sphere, step_of
from vivid_anvil.stress.planes.resolve import angles_of, directions
from vivid_anvil.units import one, opened

FINEST = 0.01  # degrees, to which planes are refined
AROUND = 8  # planes looked at around each
NEAR = 0.05  # share below the best, within which planes of the net are refined
MOST = 24  # planes that are refined
GAIN = 1e-7  # share by which a plane has to be better, so that a search does not wander among those that tie
WORTH = 2e-5  # share for which a frame goes on as far: 1e-4 of the damage, which is flattened
TIED = 1e-6  # share within which two planes are the same
APART = 1.0  # degrees between planes that are told apart

Values = Callable[[FloatArray], FloatArray]  # of normals, shape (planes, 3)


@dataclass(frozen=True, eq=False)
class PlaneFound:
    """The worst plane: its value, normal and angles; others where the value is the same, shape (k, 3)."""

    value: float
    normal: FloatArray
    ties: FloatArray

    @property
    def angles(self) -> tuple[float, float]:
        """θ from z and φ from x to y, degrees."""
        theta, phi = angles_of(self.normal)
        return float(theta[0]), float(phi[0])

    @property
    def unique(self) -> bool:
        """Whether no other plane has the same value."""
        return len(self.ties) == 0


@opened(step_degrees=one("angle", degrees=True))
def worst_plane(
    values: Values, *, step_degrees: float = 5.0, second: Values | None = None, normals: FloatArray | None = None
) -> PlaneFound:
    """The plane where `values` is largest, to 0.01 degrees; of planes where it is the same the one where `second` is largest.

    Parameters
    ----------
    values : callable
        Of normals, shape (planes, 3), gives one value each.
    step_degrees : float or text with a unit, default 5
        Distance of planes on the first net.
    second : callable, optional
        Of normals, what decides between planes that tie.
    normals : ndarray, optional
        Only these planes, shape (k, 3), with no refinement: such as those of a free surface.

    Returns
    -------
    PlaneFound
        Value, normal, planes that tie.

    Raises
    ------
    InputError
        For an angle that no net has, and for no plane.

    Examples
    --------
    >>> from vivid_anvil.stress.planes import normal_stress
    >>> found = worst_plane(lambda n: normal_stress([[100.0, 0, 0, 0, 0, 0]], n)[:, 0])
    >>> round(found.value, 6), [round(one) for one in found.angles]
    (100.0, [90, 0])
    """
    fixed = normals is not None
    net = half_sphere(step_degrees) if normals is None else directions(normals)
    if not len(net):
        raise InputError("planes", "no plane", "one or more")
    found = given_back("planes, values", values(net), (len(net),))
    best = float(found.max())
    near = np.flatnonzero(found >= best - NEAR * abs(best))
    near = near[np.argsort(-found[near], kind="stable")]
    if not fixed:
        near = _spread(near[_peaks(net, found, near, step_of(step_degrees))])
        chosen, reached = _refined(values, net[near], found[near], step_of(step_degrees))
    else:
        chosen, reached = net[near], found[near]
    best = float(reached.max())
    tied = np.flatnonzero(reached >= best - TIED * abs(best))
    order = tied[np.argsort(-reached[tied], kind="stable")]
    if second is not None:
        own = given_back("planes, second", second(chosen[order]), (len(order),))
        order = order[np.argsort(-own, kind="stable")]
    first = chosen[order[0]]
    return PlaneFound(float(reached[order[0]]), first, _apart(first, chosen[order[1:]]))


class Frames(NamedTuple):
    """Planes with a direction in each, unit vectors, shape (k, 3), and the value there."""

    normals: FloatArray
    along: FloatArray
    values: FloatArray

    def beside(self, other: Frames) -> Frames:
        """Both."""
        return Frames(*(np.concatenate(two) for two in zip(self, other, strict=True)))

    def some(self, rows: IntArray) -> Frames:
        """Those of some rows."""
        return Frames(self.normals[rows], self.along[rows], self.values[rows])

    @property
    def by_value(self) -> Frames:
        """The best first."""
        return self.some(np.argsort(-self.values, kind="stable"))

    @property
    def near(self) -> Frames:
        """Those that come near the best."""
        best = float(self.values.max())
        return self.some(np.flatnonzero(self.values >= best - NEAR * abs(best)))

    @property
    def one_of_each(self) -> Frames:
        """The best of those that have the same value, and of those that lie together: what ties is the same thing seen twice."""
        ordered = self.by_value
        kept: list[int] = []
        least = np.cos(np.radians(APART))
        for i, value in enumerate(ordered.values.tolist()):
            alike = any(value >= ordered.values[k] - TIED * abs(ordered.values[k]) for k in kept[-1:])
            if not alike and (not kept or np.abs(ordered.normals[kept] @ ordered.normals[i]).max() < least):
                kept.append(i)
        return ordered.some(np.array(kept))

    def apart(self, degrees: float, most: int) -> Frames:
        """The best, at most so many, of which no two have both plane and direction nearer than that."""
        ordered, least = self.by_value, np.cos(np.radians(degrees))
        kept: list[int] = []
        for i in range(len(ordered.values)):
            same = np.abs(ordered.normals[kept] @ ordered.normals[i]) > least
            same &= np.abs(ordered.along[kept] @ ordered.along[i]) > least
            if not same.any():
                kept.append(i)
            if len(kept) == most:
                break
        return ordered.some(np.array(kept))

    @property
    def ties(self) -> FloatArray:
        """Normals of the other planes whose value is that of the best, apart from it and from each other."""
        ordered = self.by_value
        best = float(ordered.values[0])
        return _apart(ordered.normals[0], ordered.normals[1:][ordered.values[1:] >= best - TIED * abs(best)])


FrameValues = Callable[[FloatArray, FloatArray], FloatArray]  # of normals and directions in the planes, each (k, 3)


def frames_of_net(best: Callable[[FloatArray], tuple[FloatArray, FloatArray]], step_degrees: float) -> Frames:
    """The frames from which to look closer: those near the best of a net that have none better beside them.

    `best` gives of normals the value on each plane and the direction in it.
    """
    net = half_sphere(step_degrees)
    found, along = best(net)
    near = np.flatnonzero(found >= float(found.max()) * (1.0 - NEAR))
    near = near[np.argsort(-found[near], kind="stable")]
    near = _spread(near[_peaks(net, found, near, step_of(step_degrees))])
    return Frames(net[near], along[near], found[near])


def refined_frames(
    values: FrameValues, given: Frames, step_degrees: float, turns: bool, finest: float = FINEST, worth: float = WORTH
) -> Frames:
    """Each frame moved to the best around it: tilted eight ways, with `turns` turned both ways, by steps that double or halve.

    Steps double where one is worth so much, on a ridge; where it is worth less the frame still moves.
    """
    normals, along, reached = (one.copy() for one in given)
    steps = np.full(len(normals), step_degrees)
    while True:
        active = np.flatnonzero(steps > finest)
        if not active.size:
            return Frames(normals, along, reached)
        tried = _frames_beside(normals[active], along[active], steps[active], turns)
        many = tried[0].shape[1]
        found = values(*(one.reshape(-1, 3) for one in tried)).reshape(active.size, many)
        to = found.argmax(axis=1)
        row = np.arange(active.size)
        best = found[row, to]
        better = best > reached[active] + GAIN * np.abs(reached[active])
        moved = active[better]
        little = best[better] < reached[moved] * (1.0 + worth)
        normals[moved], along[moved] = (one[row, to][better] for one in tried)
        reached[moved] = best[better]
        steps[moved] = np.where(little, 0.5 * steps[moved], np.minimum(2.0 * steps[moved], step_degrees))
        steps[active[~better]] *= 0.5


def _frames_beside(
    normals: FloatArray, along: FloatArray, degrees: FloatArray, turns: bool
) -> tuple[FloatArray, FloatArray]:
    """Frames that far from each, shape (frames, ways, 3): normals, and directions."""
    angle = np.radians(degrees)[:, None]
    across = np.cross(normals, along)
    planes, inside = [], []
    for turn in 2.0 * np.pi * np.arange(AROUND) / AROUND:
        to = np.cos(turn) * along + np.sin(turn) * across
        planes.append(np.cos(angle) * normals + np.sin(angle) * to)
        # the direction goes with the plane as that turns about the line across `to`
        part = np.cos(turn) * (np.cos(angle) * to - np.sin(angle) * normals - to)
        inside.append(along + part)
    if turns:
        for sign in (1.0, -1.0):
            planes.append(normals)
            inside.append(np.cos(angle) * along + sign * np.sin(angle) * across)
    return np.stack(planes, axis=1), np.stack(inside, axis=1)


def _peaks(net: FloatArray, found: FloatArray, near: IntArray, step: float) -> BoolArray:
    """Which of the planes have none around them on the net that is better."""
    beside_them = np.abs(net[near] @ net.T) > np.cos(np.radians(1.6 * step))
    return np.asarray(np.where(beside_them, found, -np.inf).max(axis=1) <= found[near])


def _spread(near: np.ndarray) -> np.ndarray:
    """At most so many of the planes, the best first, then evenly among the others."""
    if near.size <= MOST:
        return near
    first = near[: MOST // 2]
    rest = near[MOST // 2 :]
    return np.concatenate([first, rest[np.linspace(0, rest.size - 1, MOST - first.size).astype(np.int64)]])


def _refined(values: Values, chosen: FloatArray, reached: FloatArray, step: float) -> tuple[FloatArray, FloatArray]:
    """Each plane moved to the best around it, with steps that double where one is better, and halve where none is."""
    chosen, reached = chosen.copy(), reached.copy()
    steps = np.full(len(chosen), 0.5 * step)
    turns = 2.0 * np.pi * np.arange(AROUND) / AROUND
    while True:
        active = np.flatnonzero(steps > FINEST)
        if not active.size:
            return chosen, reached
        around = np.stack([_beside_each(chosen[active], steps[active], turn) for turn in turns], axis=1)
        found = np.asarray(values(around.reshape(-1, 3)), dtype=np.float64).reshape(active.size, AROUND)
        to = found.argmax(axis=1)
        best = found[np.arange(active.size), to]
        better = best > reached[active] + GAIN * np.abs(reached[active])
        moved = active[better]
        chosen[moved], reached[moved] = around[better, to[better]], best[better]
        steps[moved] = np.minimum(2.0 * steps[moved], 0.5 * step)  # along a ridge
        steps[active[~better]] *= 0.5


def _beside_each(normals: FloatArray, degrees: FloatArray, turn: float) -> FloatArray:
    """Directions that far from each, a distance for each."""
    across = beside(normals, 90.0, turn)
    angle = np.radians(degrees)[:, None]
    return np.asarray(np.cos(angle) * normals + np.sin(angle) * across)


def _apart(first: FloatArray, others: FloatArray) -> FloatArray:
    """Those of other planes that lie apart from the first and from each other."""
    kept: list[FloatArray] = [first]
    least = np.cos(np.radians(APART))
    for one_of in others:
        if all(abs(float(one_of @ other)) < least for other in kept):
            kept.append(one_of)
    return np.array(kept[1:]).reshape(-1, 3)


@opened(step_degrees=one("angle", degrees=True))
def plane_map(values: Values, *, step_degrees: float = 2.0) -> tuple[FloatArray, FloatArray]:
    """Normals of a net over the half sphere, shape (k, 3), and the value on each, (k,).

    Parameters
    ----------
    values : callable
        Of normals, shape (planes, 3), gives one value each.
    step_degrees : float or text with a unit, default 2
        Distance of planes.

    Returns
    -------
    tuple of (ndarray, ndarray)
        Normals and values.

    Raises
    ------
    InputError
        For an angle that no net has.

    Examples
    --------
    >>> normals, values = plane_map(lambda n: n[:, 2], step_degrees=30.0)
    >>> normals.shape, float(values.max())
    ((23, 3), 1.0)
    """
    net = half_sphere(step_degrees)
    return net, given_back("planes, values", values(net), (len(net),))
