"""Lives of all classes of cycles in plies, by forms handed in by address (0 is none), and what they sum up to."""

from __future__ import annotations

import math

import numpy as np

from vivid_anvil.ground.compiled import compiled
from vivid_anvil.ground.handed import caller
from vivid_anvil.materials.plies._kernels import LIFE, LONGEST, joint_log_life_near
from vivid_anvil.progress._stress_kernels import same_rows
from vivid_anvil.progress.bundles import Lives

_life = caller(LIFE)
STEEPEST, MOST_MOVED = 60.0, 0.02  # slope of lives over stress, and share of it, within which lives may be kept
NEXT_TO_NONE = 1e-6  # of the damage of a component, that a class may do and stay as it was found
LN_10 = 2.302585092994046
NO_LIFE = 400.0  # a log10 that stands for no damage: above LONGEST


@compiled
def empty_lives(plies, slots):
    """Room for the lives of so many plies and slots; nothing was looked at."""
    anywhere = np.full((plies, 2, 3, 2), math.nan)
    return Lives(
        np.full(slots, NO_LIFE),
        np.full(slots, NO_LIFE),
        np.ones(slots),
        np.zeros(slots),
        np.zeros(slots),
        np.zeros(slots),
        anywhere,
        anywhere.copy(),
        np.zeros((plies, 2, 3)),
        np.zeros((plies, 2, 3)),
        np.zeros((plies, 2, 3)),
        np.zeros((plies, 2, 2)),
    )


@compiled
def forgotten(lives, p):
    """Let the lives of a ply be looked at anew, all of them."""
    lives.kept[p, :, :, :] = math.nan
    lives.whole[p, :, :, :] = math.nan


@compiled
def begun_from(near, lives):
    """Let joint lives be looked for from those of a look nearby."""
    lives.joint[:] = near.joint


@compiled
def _scale(static, p, c):
    return static[p, 4] if c == 2 else 0.5 * (static[p, 2 * c] + static[p, 2 * c + 1])


@compiled
def _moved(static, extremes, marks, together, p, f, c):
    """How far the extremes of a component are from those of `marks`, as a share of its range; inf without any.

    Over strengths, and where the other acts with it and has a larger range, as a share of that.
    """
    own = _scale(static, p, c)
    reach = (extremes[p, f, c, 0] - extremes[p, f, c, 1]) / own
    if together and c > 0:
        reach = max(reach, (extremes[p, f, 3 - c, 0] - extremes[p, f, 3 - c, 1]) / _scale(static, p, 3 - c))
    if not reach > 0.0 or math.isnan(marks[p, f, c, 0]):
        return math.inf
    off = max(abs(extremes[p, f, c, 0] - marks[p, f, c, 0]), abs(extremes[p, f, c, 1] - marks[p, f, c, 1]))
    return off / own / reach


@compiled
def _largest(at_ends, slot):
    """The largest stress of a class, with its sign."""
    high, low = max(at_ends[slot, 0, 0], at_ends[slot, 1, 0]), min(at_ends[slot, 0, 0], at_ends[slot, 1, 0])
    return high if high >= -low else low


@compiled
def _kept_as(lives, slot, often, alone, joint):
    """Write the lives of a slot down, and what it uses of both a repeat."""
    lives.alone[slot], lives.joint[slot] = alone, joint
    lives.life[slot] = math.exp(LN_10 * min(alone, LONGEST))
    lives.alone_use[slot] = often / lives.life[slot] if alone < LONGEST else 0.0
    lives.joint_use[slot] = often * math.exp(-LN_10 * joint) if joint < LONGEST else 0.0


@compiled
def _look(plies, classes, together, small, now, p, f, c, every, lives):
    """Lives of the classes of a component; where the other between fibres stands in the same ones, of both."""
    first, at = classes.spans[p, f, c, 0], classes.slots[p, f, c]
    d, beside = 3 - c, classes.slots[p, f, 2]
    acts = together and c > 0 and plies.life_at[p, 3 - c] != 0
    shared = together and c == 1 and same_rows(classes.spans, p, f)
    least = NEXT_TO_NONE * lives.share[p, f, c]
    numbers, at_ends = plies.life_numbers, now.at_ends
    for i in range(classes.spans[p, f, c, 1] - first):
        slot, often = at + i, classes.often[first + i]
        if not every:
            use = max(lives.alone_use[slot], lives.joint_use[slot])
            if shared:
                use = max(use, lives.alone_use[beside + i])
            if use < least:
                continue
        one, two = at_ends[slot, 0, 0], at_ends[slot, 1, 0]
        size, mean = 0.5 * abs(one - two), 0.5 * (one + two)
        log, log_d, size_d, mean_d = NO_LIFE, NO_LIFE, 0.0, 0.0
        if 2.0 * size > small and plies.life_at[p, c] != 0:
            log = _life(plies.life_at[p, c], numbers[p, c], size, mean)
        if acts:
            one, two = at_ends[slot, 0, 1], at_ends[slot, 1, 1]
            size_d, mean_d = 0.5 * abs(one - two), 0.5 * (one + two)
            if 2.0 * size_d > small:
                log_d = _life(plies.life_at[p, d], numbers[p, d], size_d, mean_d)
        both = log
        if log < LONGEST and log_d < LONGEST:
            u, v = plies.use_at[p, c], plies.use_at[p, d]
            mine, other, near = numbers[p, c], numbers[p, d], lives.joint[slot]
            both = joint_log_life_near(near, u, mine, size, mean, log, v, other, size_d, mean_d, log_d)
        _kept_as(lives, slot, often, log, both)
        if shared:  # the cycles of the other are the same ones
            _kept_as(lives, beside + i, often, log_d, min(both, log_d))


@compiled
def _summed(classes, p, f, c, lives):
    """What the classes of a component use of lives a repeat: alone, together, the larger of both."""
    at, alone, joint, larger = classes.slots[p, f, c], 0.0, 0.0, 0.0
    for slot in range(at, at + classes.spans[p, f, c, 1] - classes.spans[p, f, c, 0]):
        alone += lives.alone_use[slot]
        joint += lives.joint_use[slot]
        larger += max(lives.alone_use[slot], lives.joint_use[slot])
    lives.alone_sum[p, f, c], lives.joint_sum[p, f, c], lives.share[p, f, c] = alone, joint, larger


@compiled
def look_at_lives(plies, classes, ways, failed, now, small, step, lives):
    """Lives at the stresses of `now`, and the damage of modes a repeat.

    A stress that moves less than `small` does nothing. Lives of a component stay as they were found at the stresses in `kept`
    while what these have moved since changes the damage of a jump of `step` by less than a hundredth of what it may be off by.
    Classes that did next to none of it stay as they were found when all were last, at the stresses in `whole`.
    """
    allowed, again, every = 0.01 * ways.tolerance, np.empty(3, dtype=np.bool_), np.empty(3, dtype=np.bool_)
    static, extremes, kept, whole, share = plies.static, now.extremes, lives.kept, lives.whole, lives.share
    together, spans, slots = ways.together, classes.spans, classes.slots
    for p in range(spans.shape[0]):
        for f in range(2):
            for c in range(3):
                most, own = _moved(static, extremes, kept, together, p, f, c), share[p, f, c]
                again[c] = not (most <= MOST_MOVED and most * STEEPEST * own * step <= allowed)
                every[c] = own <= 0.0 or not _moved(static, extremes, whole, together, p, f, c) <= MOST_MOVED
            if together:
                again[1] = again[2] = again[1] or again[2]
                every[1] = every[2] = every[1] or every[2]
            both = together and same_rows(spans, p, f)
            for c in range(3):
                if plies.strength_at[p, c] != 0 or (plies.stiffness_at[p, c] != 0 and not plies.by_sum[p, c]):
                    for slot in range(slots[p, f, c], slots[p, f, c] + spans[p, f, c, 1] - spans[p, f, c, 0]):
                        lives.peak[slot] = _largest(now.at_ends, slot)
                if not again[c] or failed[p, 0 if c == 0 else 1]:
                    continue
                for e in range(2):
                    kept[p, f, c, e] = extremes[p, f, c, e]
                    if every[c]:
                        whole[p, f, c, e] = extremes[p, f, c, e]
                if not (both and c == 2):
                    _look(plies, classes, together, small, now, p, f, c, every[c], lives)
                _summed(classes, p, f, c, lives)
            _rates_of_face(ways.assessed, failed, p, f, lives)


@compiled
def _rates_of_face(assessed, failed, p, f, lives):
    """Damage a repeat of both modes at a face: between fibres the cycles of one stress count, with the other beside it."""
    lives.rates[p, f, 0] = lives.alone_sum[p, f, 0] if assessed[0] and not failed[p, 0] else 0.0
    between = max(lives.joint_sum[p, f, 1], lives.joint_sum[p, f, 2])
    lives.rates[p, f, 1] = between if assessed[1] and not failed[p, 1] else 0.0
