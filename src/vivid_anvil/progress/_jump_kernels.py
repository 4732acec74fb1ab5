"""One jump of a laminate over many repeats: losses of stiffness and strength, damage, and what is nearest to failure then."""

from __future__ import annotations

import math

import numpy as np

from vivid_anvil.ground.compiled import compiled
from vivid_anvil.ground.handed import REAL, ROW, caller
from vivid_anvil.materials.plies._kernels import LONGEST
from vivid_anvil.progress.bundles import State

STRENGTH = REAL(ROW, REAL, REAL, REAL, REAL, REAL)  # numbers, lost, cycles, life, start, stress -> lost
STIFFNESS = REAL(
    ROW, REAL, REAL, REAL, REAL, REAL, REAL
)  # numbers, lost, cycles, life, modulus, stress, strength -> lost
_strength, _stiffness = caller(STRENGTH), caller(STIFFNESS)


@compiled
def empty_state(state):
    """Room for what a state comes to; modes fail in both."""
    return State(np.empty_like(state.lost), np.empty_like(state.damage), np.empty_like(state.weaker), state.failed)


@compiled
def put(state, into):
    """Write one state over another."""
    into.lost[:], into.damage[:], into.weaker[:] = state.lost, state.damage, state.weaker


@compiled
def _class_by_class(plies, classes, lives, repeats, backward, p, f, c, softens, part, weaker):
    """Part lost of a modulus after half of all classes of a component in order and half in the other, `backward` first or last.

    Their lost strength is written down as well.
    """
    first, at = classes.spans[p, f, c, 0], classes.slots[p, f, c]
    span = classes.spans[p, f, c, 1] - first
    weakens = plies.strength_at[p, c] != 0
    for turn in range(2):
        for j in range(span):
            i = j if (turn == 1) == backward else span - 1 - j
            stress, life = lives.peak[at + i], lives.life[at + i]
            cycles = repeats * classes.often[first + i] / 2.0
            size = abs(stress)
            if size <= 0.0 or cycles <= 0.0:
                continue
            side = 4 if c == 2 else 2 * c + (1 if stress < 0.0 else 0)
            whole = plies.static[p, side]
            if softens:
                numbers = plies.stiffness_numbers[p, c]
                part = _stiffness(
                    plies.stiffness_at[p, c], numbers, part, cycles, life, plies.moduli[p, c], size, whole
                )
            if weakens and lives.alone[at + i] < LONGEST:
                numbers = plies.strength_numbers[p, c]
                weaker[p, f, side] = _strength(
                    plies.strength_at[p, c], numbers, weaker[p, f, side], cycles, life, whole, size
                )
    return part


@compiled
def jumped(plies, classes, lives, repeats, backward, state, found):
    """Damage, lost strength and stiffness after so many repeats of stresses that stay: half in order, half backward."""
    lost, failed = state.lost, state.failed
    found.weaker[:], found.lost[:] = state.weaker, lost
    for p in range(plies.moduli.shape[0]):
        for f in range(2):
            for mode in range(2):
                found.damage[p, f, mode] = state.damage[p, f, mode] + repeats * lives.rates[p, f, mode]
            for c in range(3):
                softens, weakens = plies.stiffness_at[p, c] != 0, plies.strength_at[p, c] != 0
                if failed[p, 0 if c == 0 else 1] or not (softens or weakens):
                    continue
                part = lost[p, c]
                if softens and plies.by_sum[p, c]:  # it goes by the sum of n / N alone
                    softens, used = False, repeats * lives.alone_sum[p, f, c]
                    numbers, whole = plies.stiffness_numbers[p, c], plies.static[p, 2 * c]
                    part = _stiffness(
                        plies.stiffness_at[p, c], numbers, part, used, 1.0, plies.moduli[p, c], 1.0, whole
                    )
                if softens or weakens:
                    part = _class_by_class(
                        plies, classes, lives, repeats, backward, p, f, c, softens, part, found.weaker
                    )
                found.lost[p, c] = max(found.lost[p, c], part)
        if plies.stiffness_at[p, 1] != 0 and plies.stiffness_at[p, 2] == 0 and not failed[p, 1]:
            found.lost[p, 2] = max(found.lost[p, 2], found.lost[p, 1])  # cracks between fibres soften both


@compiled
def _strength_left(plies, weaker, residual, p, f, k):
    return plies.static[p, k] - (weaker[p, f, k] if residual else 0.0)


@compiled
def _of_fibres(plies, now, weaker, residual, p, f):
    """How near s1 comes to its strength: 1 is failure."""
    high, low = now.extremes[p, f, 0, 0], now.extremes[p, f, 0, 1]
    up, down = _strength_left(plies, weaker, residual, p, f, 0), _strength_left(plies, weaker, residual, p, f, 1)
    worst = 0.0
    if high > 0.0:
        worst = high / up if up > 0.0 else math.inf
    if low < 0.0:
        worst = max(worst, -low / down if down > 0.0 else math.inf)
    return worst


@compiled
def _at_most_between(plies, now, weaker, residual, p, f):
    """What the largest s2 and t12 of any ends together come to at most."""
    high, low = now.extremes[p, f, 1, 0], now.extremes[p, f, 1, 1]
    shear = max(now.extremes[p, f, 2, 0], -now.extremes[p, f, 2, 1])
    up, down = _strength_left(plies, weaker, residual, p, f, 2), _strength_left(plies, weaker, residual, p, f, 3)
    side = _strength_left(plies, weaker, residual, p, f, 4)
    if up <= 0.0 or down <= 0.0 or side <= 0.0:
        return math.inf
    across = max(high / up if high > 0.0 else 0.0, -low / down if low < 0.0 else 0.0)
    return math.sqrt(across * across + shear * shear / (side * side))


@compiled
def _between_fibres(plies, classes, now, weaker, residual, p, f):
    """How near s2 and t12 of an end of a cycle come to strengths, by their squares: 1 is failure."""
    up, down = _strength_left(plies, weaker, residual, p, f, 2), _strength_left(plies, weaker, residual, p, f, 3)
    side, worst = _strength_left(plies, weaker, residual, p, f, 4), 0.0
    for c in range(1, 3):
        at = classes.slots[p, f, c]
        for slot in range(at, at + classes.spans[p, f, c, 1] - classes.spans[p, f, c, 0]):
            for e in range(2):
                s, t = now.at_ends[slot, e, c - 1], now.at_ends[slot, e, 2 - c]
                y = up if s > 0.0 else down
                worst = max(worst, (s / y) ** 2 + (t / side) ** 2 if y > 0.0 and side > 0.0 else math.inf)
    return math.sqrt(worst)


@compiled
def nearest(plies, classes, ways, now, state, where):
    """The largest part of a failure that any mode has come to, and where: by damage, residual strength, static strength."""
    residual, found = ways.residual, 0.0
    where[0], where[1], where[2] = -1, 0, 0
    for p in range(plies.moduli.shape[0]):
        for mode in range(2):
            if not ways.assessed[mode] or state.failed[p, mode]:
                continue
            for f in range(2):
                value = 0.0 if residual else state.damage[p, f, mode] / ways.critical
                if mode == 0:
                    value = max(value, _of_fibres(plies, now, state.weaker, residual, p, f))
                elif _at_most_between(plies, now, state.weaker, residual, p, f) > max(value, found):
                    value = max(value, _between_fibres(plies, classes, now, state.weaker, residual, p, f))
                if value > found:
                    found = value
                    where[0], where[1], where[2] = p, f, mode
    return found
