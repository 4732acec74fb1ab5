"""One laminate stepped through its life by jumps over many repeats: stresses, lives, losses of what is left, failures."""

from __future__ import annotations

import math

import numpy as np

from vivid_anvil.ground.compiled import compiled
from vivid_anvil.progress._jump_kernels import empty_state, jumped, nearest, put
from vivid_anvil.progress._life_kernels import empty_lives, forgotten, look_at_lives
from vivid_anvil.progress._stress_kernels import empty_stresses, stresses, work_of

# how a march ends: goes on, laminate over, nothing moves, past the limit, jumps
FULL, OVER, ENDLESS, LATER, MANY = 0, 1, 2, 3, 4
MOVES_AT_ALL = 1e-9  # of the largest range of stress: a class below it does nothing
TRIES = 60
MOST, LEAST = 4.0, 0.1  # by which one jump may be longer than that before


@compiled
def slots_in_all(classes):
    """How many there are."""
    last = classes.slots.shape[0] - 1
    return int(classes.slots[last, 1, 2] + classes.spans[last, 1, 2, 1] - classes.spans[last, 1, 2, 0])


@compiled
def _hardest(classes, now):
    """The end of a cycle that does most work on the sound laminate, that work, a range of stress that does nothing."""
    reference, work, small = 0, -1.0, 0.0
    for row in range(classes.ends.shape[0]):
        for e in range(2):
            own = work_of(now.compliance, classes.ends[row, e])
            if own > work:
                work, reference = own, 2 * row + e
    for slot in range(now.at_ends.shape[0]):
        small = max(small, abs(now.at_ends[slot, 0, 0] - now.at_ends[slot, 1, 0]))
    return reference, work, MOVES_AT_ALL * small


@compiled
def _broken(ways, state, p, mode):
    """Let a mode of a ply fail: broken fibres carry nothing between them either."""
    state.failed[p, mode] = True
    left, first = (ways.fibre_left, 0) if mode == 0 else (ways.matrix_left, 1)
    if mode == 0:
        state.failed[p, 1] = True
    for c in range(first, 3):
        state.lost[p, c] = max(state.lost[p, c], 1.0 - left)


@compiled
def _stiffness_left(classes, now, reference, first_work):
    """Stiffness against the load that does most work, as a part of the sound laminate's."""
    work = work_of(now.compliance, classes.ends[reference // 2, reference % 2])
    return first_work / work if work > 0.0 else 1.0


@compiled
def _fail(plies, classes, ways, state, now, anchors, lives, middle, repeats, jump, count, events):
    """Stresses here, then modes that fail at once, the nearest first: events by then, stiffness, how it goes on."""
    where, stiffness = np.zeros(3, dtype=np.int64), 1.0
    while True:
        if not stresses(plies, classes, state.lost, now):
            return count, 0.0, OVER
        stiffness = _stiffness_left(classes, now, anchors[0], anchors[1])
        near = nearest(plies, classes, ways, now, state, where)
        if where[0] < 0 or near < 1.0 - 1e-9:
            return count, stiffness, FULL
        p, mode = where[0], where[2]
        _broken(ways, state, p, mode)
        forgotten(lives, p)
        forgotten(middle, p)
        if stresses(plies, classes, state.lost, now):
            stiffness = _stiffness_left(classes, now, anchors[0], anchors[1])
        events.rows[count, 0], events.rows[count, 1], events.rows[count, 2], events.rows[count, 3] = (
            p,
            where[1],
            mode,
            jump,
        )
        events.repeats[count], events.stiffness[count] = repeats, stiffness
        count += 1
        if stiffness < ways.over_below or np.all(state.failed[:, 0]):
            return count, stiffness, OVER


@compiled
def _tell(plies, now, state, repeats, stiffness, jump, told):
    """Write down what a jump begins with."""
    told.repeats[jump], told.stiffness[jump] = repeats, stiffness
    for p in range(plies.moduli.shape[0]):
        for c in range(3):
            told.left[jump, p, c] = 1.0 - state.lost[p, c]
        for f in range(2):
            for mode in range(2):
                told.damage[jump, p, f, mode] = state.damage[p, f, mode]
            for k in range(5):
                told.strengths[jump, p, f, k] = plies.static[p, k] - state.weaker[p, f, k]
            for c in range(3):
                told.highest[jump, p, f, c], told.lowest[jump, p, f, c] = (
                    now.extremes[p, f, c, 0],
                    now.extremes[p, f, c, 1],
                )


@compiled
def _soonest(lives, state, critical):
    """Repeats to the first mode whose damage is full; inf where none rises."""
    soonest = math.inf
    for p in range(state.damage.shape[0]):
        for f in range(2):
            for mode in range(2):
                if lives.rates[p, f, mode] > 0.0:
                    soonest = min(soonest, (critical - state.damage[p, f, mode]) / lives.rates[p, f, mode])
    return soonest


@compiled
def _off_and_moved(plies, ways, state, one, two):
    """What two ways to take a jump differ by at most, in damage or stiffness, and what `two` moves at most."""
    error, moved = 0.0, 0.0
    for p in range(plies.moduli.shape[0]):
        for c in range(3):
            error = max(error, abs(two.lost[p, c] - one.lost[p, c]) / (1.0 - two.lost[p, c]))
            moved = max(moved, two.lost[p, c] - state.lost[p, c])
        for f in range(2):
            for mode in range(2):
                if not state.failed[p, mode]:
                    error = max(error, abs(two.damage[p, f, mode] - one.damage[p, f, mode]) / ways.critical)
                    moved = max(moved, two.damage[p, f, mode] - state.damage[p, f, mode])
            if ways.residual:
                for k in range(5):
                    error = max(error, abs(two.weaker[p, f, k] - one.weaker[p, f, k]) / plies.static[p, k])
                    moved = max(moved, (two.weaker[p, f, k] - state.weaker[p, f, k]) / plies.static[p, k])
    return error, moved


@compiled
def _try(plies, classes, ways, state, now, small, step, lives, middle, one, two):
    """A jump by the stresses of its middle into `two`, and by those of its start: what both differ by, what it moves."""
    jumped(plies, classes, lives, 0.5 * step, 2, state, one)
    stresses(plies, classes, one.lost, now)
    look_at_lives(plies, classes, ways, state.failed, now, small, step, middle)
    jumped(plies, classes, middle, step, 2, state, two)
    jumped(plies, classes, lives, step, 1, state, one)
    return _off_and_moved(plies, ways, state, one, two)


@compiled
def _to_failure(plies, classes, ways, state, now, middle, step, two):
    """Where a jump that goes past a failure ends: at the failure; `two` is what it comes to there."""
    where = np.zeros(3, dtype=np.int64)
    low, high = 0.0, step
    if (
        not ways.residual
    ):  # damage goes straight: to the first that is full, unless stress alone breaks something before
        high = min(high, max(_soonest(middle, state, ways.critical) * (1.0 + 1e-12), 0.0))
    for tries in range(TRIES):
        taken = high * (1.0 - 1e-9) if tries == 0 and high < step else 0.5 * (low + high)
        jumped(plies, classes, middle, taken, 2, state, two)
        stresses(plies, classes, two.lost, now)
        if nearest(plies, classes, ways, now, two, where) >= 1.0:
            high = taken
        else:
            low = taken
        if high - low <= 1e-9 * high:
            break
    jumped(plies, classes, middle, high, 2, state, two)
    return high


@compiled
def march(plies, classes, ways, state, events, jumps, told):
    """The life of a laminate in jumps: failures into `events`, what each jump begins with into `told`, if that has a length.

    Returns how many events and jumps, repeats, part of the stiffness left, the errors of all jumps summed, and how it ended.
    """
    laid, slots = plies.moduli.shape[0], slots_in_all(classes)
    now, lives, middle = empty_stresses(laid, slots), empty_lives(laid, slots), empty_lives(laid, slots)
    one, two, where = empty_state(state), empty_state(state), np.zeros(3, dtype=np.int64)
    stresses(plies, classes, np.zeros((laid, 3)), now)
    reference, work, small = _hardest(classes, now)
    repeats, errors, count, jump, step = 0.0, 0.0, 0, 0, -1.0
    while True:
        count, stiffness, ended = _fail(
            plies, classes, ways, state, now, (reference, work), lives, middle, repeats, jump, count, events
        )
        look_at_lives(plies, classes, ways, state.failed, now, small, max(step, 0.0), lives)
        if jump < told.repeats.size:
            _tell(plies, now, state, repeats, stiffness, jump, told)
        if ended == FULL and repeats >= ways.longest:
            ended = LATER
        if ended == FULL and jump + 1 >= jumps:
            ended = MANY
        if ended != FULL:
            break
        soonest = _soonest(lives, state, ways.critical)
        if step <= 0.0:
            step = soonest if soonest < math.inf else 1.0
        step = min(step, ways.longest - repeats)
        if not ways.residual and soonest > 0.0:
            step = min(step, soonest * (1.0 + 1e-12))
        factor, error, moved = 1.0, 0.0, 0.0
        for tried in range(TRIES):
            error, moved = _try(plies, classes, ways, state, now, small, step, lives, middle, one, two)
            factor = MOST if error <= 0.0 else min(MOST, max(LEAST, 0.9 * math.sqrt(ways.tolerance / error)))
            if error <= ways.tolerance or tried == TRIES - 1:
                break
            step *= factor
        if moved <= 0.0 and soonest == math.inf:
            ended = ENDLESS
            break
        taken = step
        stresses(plies, classes, two.lost, now)
        if nearest(plies, classes, ways, now, two, where) > 1.0 + 1e-9:
            taken = _to_failure(plies, classes, ways, state, now, middle, step, two)
        put(two, state)
        repeats, errors, step, jump = repeats + taken, errors + error, step * factor, jump + 1
    return count, jump + 1, repeats, stiffness, errors, ended
