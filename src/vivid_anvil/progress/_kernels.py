"""One laminate stepped through its life by jumps over many repeats: stresses, lives, losses of what is left, failures."""

from __future__ import annotations

import math

import numpy as np

from vivid_anvil.ground.compiled import compiled
from vivid_anvil.progress._jump_kernels import empty_state, jumped, nearest, put
from vivid_anvil.progress._life_kernels import begun_from, empty_lives, forgotten, look_at_lives
from vivid_anvil.progress._stress_kernels import empty_stresses, stresses, work_of

# how a march ends: goes on, laminate over, nothing moves, past the limit, jumps
FULL, OVER, ENDLESS, LATER, MANY = 0, 1, 2, 3, 4
MOVES_AT_ALL = 1e-9  # of the largest range of stress: a class below it does nothing
TRIES, NONE = 60, -1
# of a jump (Bogacki and Shampine 1989): where stresses are looked at after its start, parts by those, parts with those of its end
POINTS = (1.0 / 2.0, 3.0 / 4.0)
PARTS = (2.0 / 9.0, 1.0 / 3.0, 4.0 / 9.0, 0.0)
LESS_EXACT = (7.0 / 24.0, 1.0 / 4.0, 1.0 / 3.0, 1.0 / 8.0)
PAST = 1.05  # times the repeats to the first full damage, to which a jump goes at most
AT_FAILURE = 1e-9  # of a failure, within which a jump ends at it
SETTLED = 1e-5  # share of a jump to a failure, by which it may still move when it is taken
FLAT = 1e-13  # past a failure, and no more however long the jump
FIRST = 0.01  # of the repeats to the first full damage, with which jumps begin
MOST, LEAST = 8.0, 0.1  # by which one jump may be longer than that before


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
def _tell(plies, now, state, repeats, stiffness, jump, told):
    """Write down what stands now: with what a jump begins, or what is there before a failure."""
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
def _fail(plies, classes, ways, state, now, anchors, lives, repeats, jump, count, events, before):
    """Stresses here, then modes that fail at once, the nearest first: events by then, stiffness, how it goes on."""
    where, stiffness = np.zeros(3, dtype=np.int64), 1.0
    while True:
        if not stresses(plies, classes, state.lost, now):
            return count, 0.0, OVER
        stiffness = _stiffness_left(classes, now, anchors[0], anchors[1])
        near = nearest(plies, classes, ways, now, state, where)
        if where[0] < 0 or near < 1.0 - AT_FAILURE:
            return count, stiffness, FULL
        p, mode = where[0], where[2]
        if count < before.repeats.size:
            _tell(plies, now, state, repeats, stiffness, count, before)
        _broken(ways, state, p, mode)
        forgotten(lives, p)
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
def _off_and_moved(plies, ways, state, one, two, but):
    """What two ways to take a jump differ by at most, in damage or stiffness, in all plies but one, and what `two` moves."""
    error, moved = 0.0, 0.0
    for p in range(plies.moduli.shape[0]):
        if p == but:
            continue
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
def _composed(plies, classes, step, exact, state, lives, half, later, last, one, into):
    """A jump into `into` by lives that were looked at, of third order, or of second one, the classes then the other way round."""
    parts = PARTS if exact else LESS_EXACT
    jumped(plies, classes, lives, parts[0] * step, not exact, state, into)
    jumped(plies, classes, half, parts[1] * step, not exact, into, one)
    jumped(plies, classes, later, parts[2] * step, not exact, one, into)
    if not exact:
        jumped(plies, classes, last, parts[3] * step, True, into, one)
        put(one, into)


@compiled
def _try(plies, classes, ways, state, now, small, step, lives, half, later, last, one, two, three):
    """A jump into `three` by the stresses of its start, its middle and its third quarter, of third order: what it differs by
    from one of second order that goes by those of its end as well, classes the other way round, and what it moves. `now` is at
    its end.

    Bogacki and Shampine 1989, with the exact losses of stresses that stay in the place of their derivatives.
    """
    jumped(plies, classes, lives, POINTS[0] * step, False, state, one)
    stresses(plies, classes, one.lost, now)
    begun_from(lives, half)
    look_at_lives(plies, classes, ways, state.failed, now, small, step, half)
    jumped(plies, classes, half, POINTS[1] * step, False, state, one)
    stresses(plies, classes, one.lost, now)
    begun_from(half, later)
    look_at_lives(plies, classes, ways, state.failed, now, small, step, later)
    _composed(plies, classes, step, True, state, lives, half, later, last, one, three)
    stresses(plies, classes, three.lost, now)
    begun_from(later, last)
    look_at_lives(plies, classes, ways, state.failed, now, small, step, last)
    _composed(plies, classes, step, False, state, lives, half, later, last, one, two)
    return _off_and_moved(plies, ways, state, two, three, NONE)


@compiled
def _beyond(plies, classes, ways, now, state, where):
    """How far past a failure a state is, 1 - 1 / what is nearest: 0 at it, below 0 before it."""
    return 1.0 - 1.0 / max(nearest(plies, classes, ways, now, state, where), 1e-6)


@compiled
def _secant(one, off_one, other, off_other, aim, low, high):
    """Where a line through two jumps comes to `aim`; halfway between the ends, where that is not between them."""
    slope = (off_other - off_one) / (other - one) if other != one else 0.0
    found = other - (off_other - aim) / slope if slope > 0.0 else high
    return found if low < found < high else 0.5 * (low + high)


@compiled
def _meeting(plies, classes, ways, state, now, high, exact, lives, half, later, last, one, into):
    """Where a jump by lives that were looked at meets a failure, `into` there; -1 where one of `high` does not come to it.

    By secants through the last two jumps tried, and halfway between those before it and past it every third time.
    """
    where, aim = np.zeros(3, dtype=np.int64), 0.5 * AT_FAILURE
    low, earlier, was, taken, following = 0.0, 0.0, 0.0, 0.0, high
    off, behind, was_off, there, past = 0.0, 0.0, 0.0, 0.0, 0.0
    for tried in range(TRIES):
        was, was_off, taken = taken, there, following
        if taken > 0.0:
            _composed(plies, classes, taken, exact, state, lives, half, later, last, one, into)
        else:
            put(state, into)
        stresses(plies, classes, into.lost, now)
        there = _beyond(plies, classes, ways, now, into, where)
        if tried == 0:
            if there < 0.0:
                return -1.0
            past, following = there, 0.0
            continue
        if there >= 0.0:
            high, past = taken, there
        else:
            earlier, behind, low, off = low, off, taken, there
        if FLAT < there <= AT_FAILURE or (high - low <= AT_FAILURE * high and there >= 0.0):
            break
        if high - low <= AT_FAILURE * high:
            following = high
        elif past <= FLAT:
            # strength that is used up stays at the stress from the failure on: through two jumps before it
            following = min(_secant(earlier, behind, low, off, 0.0, low, high) + aim * high, high - 0.1 * (high - low))
        elif tried % 3 == 0:
            following = 0.5 * (low + high)
        else:
            following = _secant(was, was_off, taken, there, aim, low, high)
    return high


@compiled
def _to_failure(plies, classes, ways, state, now, small, start, step, lives, half, later, last, one, two, three):
    """Where a jump that goes past a failure ends, at the failure, and what it is off by there, where it comes to `three`.

    Lives are looked at anew where those looked at before would meet it, until that stays. Where strength falls ever faster,
    what the ply that fails is off by is told by when it fails, as a share of the life so far.
    """
    taken, error, where = step, ways.tolerance, np.zeros(3, dtype=np.int64)
    met = taken
    for _ in range(TRIES):
        met = _meeting(plies, classes, ways, state, now, step, True, lives, half, later, last, one, three)
        if met < 0.0 or abs(met - taken) <= SETTLED * taken:
            break
        taken = met
        error, _ = _try(plies, classes, ways, state, now, small, taken, lives, half, later, last, one, two, three)
    if met < 0.0:  # with lives of here it fails later than asked: a jump like any other
        _composed(plies, classes, taken, True, state, lives, half, later, last, one, three)
        stresses(plies, classes, three.lost, now)
        return taken, error
    if error > ways.tolerance:
        nearest(plies, classes, ways, now, three, where)
        others, _ = _off_and_moved(plies, ways, state, two, three, where[0])
        other = _meeting(plies, classes, ways, state, now, 2.0 * met, False, lives, half, later, last, one, two)
        if other > 0.0:
            error = max(others, abs(other - met) / (start + met))
        stresses(plies, classes, three.lost, now)
    return met, error


@compiled
def _longer(error, tolerance, order):
    """How many times as long a jump may be that is off by `error`, which goes with this power of it; a tenth of that is left."""
    return math.inf if error <= 0.0 else 0.9 * (tolerance / error) ** (1.0 / order)


@compiled
def march(plies, classes, ways, state, events, jumps, told, failing):
    """The life of a laminate in jumps: failures into `events`, what each jump begins with into `told`, and what stands before
    each failure into `failing`, as far as these have room.

    Returns how many events and jumps, repeats, part of the stiffness left, the errors of all jumps summed, and how it ended.
    """
    laid, slots = plies.moduli.shape[0], slots_in_all(classes)
    now, lives, half = empty_stresses(laid, slots), empty_lives(laid, slots), empty_lives(laid, slots)
    later, last = empty_lives(laid, slots), empty_lives(laid, slots)
    one, two, three = empty_state(state), empty_state(state), empty_state(state)
    where = np.zeros(3, dtype=np.int64)
    stresses(plies, classes, np.zeros((laid, 3)), now)
    reference, work, small = _hardest(classes, now)
    repeats, errors, count, jump, planned = 0.0, 0.0, 0, 0, -1.0
    while True:
        before = count
        count, stiffness, ended = _fail(
            plies, classes, ways, state, now, (reference, work), lives, repeats, jump, count, events, failing
        )
        for event in range(before, count):
            forgotten(later, events.rows[event, 0])
            forgotten(half, events.rows[event, 0])
            forgotten(last, events.rows[event, 0])
        look_at_lives(plies, classes, ways, state.failed, now, small, max(planned, 0.0), lives)
        if jump < told.repeats.size:
            _tell(plies, now, state, repeats, stiffness, jump, told)
        if ended == FULL and repeats >= ways.longest:
            ended = LATER
        if ended == FULL and jump + 1 >= jumps:
            ended = MANY
        if ended != FULL:
            break
        soonest = _soonest(lives, state, ways.critical)
        if planned <= 0.0:
            planned = FIRST * soonest if soonest < math.inf else 1.0
        step = min(planned, ways.longest - repeats)
        if not ways.residual and soonest > 0.0:
            step = min(step, PAST * soonest)
        error, moved, cut = 0.0, 0.0, step < planned
        for tried in range(TRIES):
            error, moved = _try(
                plies, classes, ways, state, now, small, step, lives, half, later, last, one, two, three
            )
            if error <= ways.tolerance and nearest(plies, classes, ways, now, three, where) > 1.0 + AT_FAILURE:
                step, error = _to_failure(
                    plies, classes, ways, state, now, small, repeats, step, lives, half, later, last, one, two, three
                )  # past it both ways to take the jump may come to the same, and hide what they differ by there
            if error <= ways.tolerance or tried == TRIES - 1:
                break
            step *= max(LEAST, _longer(error, ways.tolerance, 3.0 if tried == 0 else 1.0))
            planned, cut = step, False
        if moved <= 0.0 and soonest == math.inf:
            ended = ENDLESS
            break
        longer = _longer(error, ways.tolerance, 3.0)
        planned = max(planned, longer * step) if cut else min(MOST, longer) * step
        put(three, state)
        lives, last = last, lives
        repeats, errors, jump = repeats + step, errors + error, jump + 1
    return count, jump + 1, repeats, stiffness, errors, ended
