"""The plane where something is largest: over a net of the half sphere, then refined around all that come near."""

from __future__ import annotations

from collections.abc import Callable
from dataclasses import dataclass

import numpy as np

from vivid_anvil.ground.checks import BoolArray, FloatArray, IntArray
from vivid_anvil.ground.errors import InputError
from vivid_anvil.stress.directions import beside, half_sphere, step_of
from vivid_anvil.stress.planes.resolve import angles_of, directions
from vivid_anvil.units import one, opened

FINEST = 0.01  # degrees, to which planes are refined
AROUND = 8  # planes looked at around each
NEAR = 0.05  # share below the best, within which planes of the net are refined
MOST = 24  # planes that are refined
GAIN = 1e-7  # share by which a plane has to be better, so that a search does not wander among those that tie
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
    found = np.asarray(values(net), dtype=np.float64)
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
        own = np.asarray(second(chosen[order]), dtype=np.float64)
        order = order[np.argsort(-own, kind="stable")]
    first = chosen[order[0]]
    return PlaneFound(float(reached[order[0]]), first, _apart(first, chosen[order[1:]]))


def refined_around(values: Values, normals: FloatArray, step_degrees: float) -> PlaneFound:
    """The best of some planes after each is moved to the best around it, from so many degrees on down to 0.01."""
    chosen = directions(normals)
    chosen, reached = _refined(values, chosen, np.asarray(values(chosen), dtype=np.float64), 2.0 * step_degrees)
    best = float(reached.max())
    tied = np.flatnonzero(reached >= best - TIED * abs(best))
    order = tied[np.argsort(-reached[tied], kind="stable")]
    first = chosen[order[0]]
    return PlaneFound(float(reached[order[0]]), first, _apart(first, chosen[order[1:]]))


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
    return net, np.asarray(values(net), dtype=np.float64)
