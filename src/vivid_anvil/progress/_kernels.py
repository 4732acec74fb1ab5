"""One laminate stepped through its life by jumps over many repeats: stresses, lives, losses of what is left, failures.

Plies p, faces f (lower, upper), components c (s1, s2, t12), modes (fibres, between fibres), strengths X_t, X_c, Y_t, Y_c, S.
A slot is one class of cycles counted by one component at one face: those of p, f, c stand from `slots[p, f, c]` on, and are the
rows `spans[p, f, c]` of `ends`. Forms of lives and decays are handed in by address; 0 is none.
"""

from __future__ import annotations

import math

import numpy as np

from vivid_anvil.ground.compiled import compiled
from vivid_anvil.ground.handed import REAL, ROW, caller
from vivid_anvil.materials.plies._kernels import LIFE, LONGEST, USE, joint_log_life

STRENGTH = REAL(ROW, REAL, REAL, REAL, REAL, REAL)  # numbers, strength, cycles, life, start, stress -> strength
STIFFNESS = REAL(
    ROW, REAL, REAL, REAL, REAL, REAL, REAL
)  # numbers, left, cycles, life, modulus, stress, strength -> left
_life, _use, _strength, _stiffness = caller(LIFE), caller(USE), caller(STRENGTH), caller(STIFFNESS)
STEEPEST, MOST_MOVED = 60.0, 0.02  # slope of lives over stress, and share of it, within which lives may be kept
NEXT_TO_NONE = 1e-6  # of the damage of a component, that a class may do and stay as it was found
FULL, OVER, ENDLESS, LATER, MANY = (
    0,
    1,
    2,
    3,
    4,
)  # how a march ends: goes on, laminate over, nothing moves, past the limit, jumps


@compiled
def inverted(matrix, out):
    """Inverse of a symmetric positive definite matrix (6, 6), by Cholesky; False where it is not."""
    n = 6
    lower = np.zeros((n, n))
    for i in range(n):
        for j in range(i + 1):
            total = matrix[i, j]
            for k in range(j):
                total -= lower[i, k] * lower[j, k]
            if i == j:
                if not total > 0.0:
                    return False
                lower[i, i] = math.sqrt(total)
            else:
                lower[i, j] = total / lower[j, j]
    for column in range(n):
        x = np.zeros(n)
        for i in range(n):
            total = 1.0 if i == column else 0.0
            for k in range(i):
                total -= lower[i, k] * x[k]
            x[i] = total / lower[i, i]
        for i in range(n - 1, -1, -1):
            total = x[i]
            for k in range(i + 1, n):
                total -= lower[k, i] * x[k]
            x[i] = total / lower[i, i]
        for i in range(n):
            out[i, column] = x[i]
    return True


@compiled
def stress_of_loads(moduli, lost, turn, z, free, per_load, there, compliance):
    """Stresses of plies per unit of each resultant, and those of the temperature, with the parts of moduli that are lost."""
    plies = moduli.shape[0]
    abd = np.zeros((6, 6))
    held = np.zeros(6)
    own = np.zeros((plies, 3, 3))  # strains of the laminate -> stresses of the ply
    for p in range(plies):
        e1, e2 = moduli[p, 0] * (1.0 - lost[p, 0]), moduli[p, 1] * (1.0 - lost[p, 1])
        g, nu = moduli[p, 2] * (1.0 - lost[p, 2]), moduli[p, 3]
        d = 1.0 - nu * nu * e2 / e1
        q11, q12, q22 = e1 / d, nu * e2 / d, e2 / d
        for j in range(3):
            own[p, 0, j] = q11 * turn[p, 0, j] + q12 * turn[p, 1, j]
            own[p, 1, j] = q12 * turn[p, 0, j] + q22 * turn[p, 1, j]
            own[p, 2, j] = g * turn[p, 2, j]
        s1 = q11 * free[p, 0] + q12 * free[p, 1]
        s2 = q12 * free[p, 0] + q22 * free[p, 1]
        one, two, three = z[p + 1] - z[p], 0.5 * (z[p + 1] ** 2 - z[p] ** 2), (z[p + 1] ** 3 - z[p] ** 3) / 3.0
        for i in range(3):
            thermal = turn[p, 0, i] * s1 + turn[p, 1, i] * s2
            held[i] += thermal * one
            held[3 + i] += thermal * two
            for j in range(3):
                bar = 0.0
                for k in range(3):
                    bar += turn[p, k, i] * own[p, k, j]
                abd[i, j] += bar * one
                abd[i, 3 + j] += bar * two
                abd[3 + i, j] += bar * two
                abd[3 + i, 3 + j] += bar * three
    if not inverted(abd, compliance):
        return False
    warm = compliance @ held
    for p in range(plies):
        nu = moduli[p, 3]
        e1, e2 = moduli[p, 0] * (1.0 - lost[p, 0]), moduli[p, 1] * (1.0 - lost[p, 1])
        d = 1.0 - nu * nu * e2 / e1
        for f in range(2):
            at = z[p + f]
            for c in range(3):
                fixed = 0.0
                for k in range(6):
                    total = 0.0
                    for j in range(3):
                        total += own[p, c, j] * (compliance[j, k] + at * compliance[3 + j, k])
                    per_load[p, f, c, k] = total
                for j in range(3):
                    fixed += own[p, c, j] * (warm[j] + at * warm[3 + j])
                if c == 0:
                    fixed -= (e1 * free[p, 0] + nu * e2 * free[p, 1]) / d
                elif c == 1:
                    fixed -= (nu * e2 * free[p, 0] + e2 * free[p, 1]) / d
                there[p, f, c] = fixed
    return True


@compiled
def _at_end(per_load, there, p, f, c, row):
    total = there[p, f, c]
    for k in range(6):
        total += per_load[p, f, c, k] * row[k]
    return total


@compiled
def _extremes(per_load, there, ends, spans, p, f, c):
    """The highest and the lowest stress of a component at any end of its cycles."""
    high, low = -1e300, 1e300
    for row in range(spans[p, f, c, 0], spans[p, f, c, 1]):
        for e in range(2):
            own = _at_end(per_load, there, p, f, c, ends[row, e])
            high, low = max(high, own), min(low, own)
    return high, low


@compiled
def _moved(per_load, there, ends, spans, p, f, c, kept):
    """The same, and how far both are from those in `kept`, as a share."""
    high, low = _extremes(per_load, there, ends, spans, p, f, c)
    size = max(abs(high), abs(low))
    if size <= 0.0 or kept[p, f, c, 0] != kept[p, f, c, 0]:
        return high, low, math.inf
    return high, low, max(abs(high - kept[p, f, c, 0]), abs(low - kept[p, f, c, 1])) / size


@compiled
def lives_of_slots(
    per_load,
    there,
    ends,
    often,
    spans,
    slots,
    life_at,
    use_at,
    life_numbers,
    together,
    small,
    failed,
    step,
    allowed,
    kept,
    whole,
    share,
    alone,
    joint,
    peak,
):
    """log10 lives of every slot: under its component alone, and together with the other of both between fibres; its peak.

    A stress that moves less than `small` does nothing. Lives of a component stay as they were found at the stresses in `kept`
    while what these have moved since changes the damage of a jump of `step` by less than is `allowed`; `share` is its damage a
    repeat. Classes that did next to none of it stay as they were found when all were last, at the stresses in `whole`.
    """
    for p in range(spans.shape[0]):
        for f in range(2):
            moves = np.empty(3)
            extremes = np.empty((3, 2))
            for c in range(3):
                extremes[c, 0], extremes[c, 1], moves[c] = _moved(per_load, there, ends, spans, p, f, c, kept)
            again = np.empty(3, dtype=np.bool_)
            for c in range(3):
                most = moves[0] if c == 0 else max(moves[1], moves[2]) if together else moves[c]
                again[c] = not (most <= MOST_MOVED and most * STEEPEST * share[p, f, c] * step <= allowed)
            if together and (again[1] or again[2]):
                again[1] = again[2] = True
            shared = together and spans[p, f, 1, 0] == spans[p, f, 2, 0] and spans[p, f, 1, 1] == spans[p, f, 2, 1]
            for c in range(3):
                at = slots[p, f, c]
                if not again[c]:
                    for i in range(spans[p, f, c, 1] - spans[p, f, c, 0]):
                        row = spans[p, f, c, 0] + i
                        one = _at_end(per_load, there, p, f, c, ends[row, 0])
                        two = _at_end(per_load, there, p, f, c, ends[row, 1])
                        peak[at + i] = max(one, two) if max(one, two) >= -min(one, two) else min(one, two)
                    continue
                every = kept[p, f, c, 0] != kept[p, f, c, 0] or share[p, f, c] <= 0.0
                for d in range(0 if c == 0 else 1, 1 if c == 0 else 3):
                    size = max(abs(extremes[d, 0]), abs(extremes[d, 1]))
                    off = max(abs(extremes[d, 0] - whole[p, f, d, 0]), abs(extremes[d, 1] - whole[p, f, d, 1]))
                    if not off <= MOST_MOVED * size:
                        every = True
                if every:
                    for d in range(0 if c == 0 else 1, 1 if c == 0 else 3):
                        if not (c == 2 and d == 1):
                            whole[p, f, d, 0], whole[p, f, d, 1] = extremes[d, 0], extremes[d, 1]
                kept[p, f, c, 0], kept[p, f, c, 1] = extremes[c, 0], extremes[c, 1]
                total = 0.0
                least = NEXT_TO_NONE * share[p, f, c]
                for i in range(0 if c == 2 and shared else spans[p, f, c, 1] - spans[p, f, c, 0]):
                    row = spans[p, f, c, 0] + i
                    one = _at_end(per_load, there, p, f, c, ends[row, 0])
                    two = _at_end(per_load, there, p, f, c, ends[row, 1])
                    high, low = max(one, two), min(one, two)
                    peak[at + i] = high if high >= -low else low
                    d, beside = 3 - c, slots[p, f, 2] + i
                    size_d, mean_d = 0.0, 0.0
                    if c > 0 and together:
                        other = _at_end(per_load, there, p, f, d, ends[row, 0])
                        other_two = _at_end(per_load, there, p, f, d, ends[row, 1])
                        size_d, mean_d = 0.5 * abs(other - other_two), 0.5 * (other + other_two)
                        if shared:
                            most = max(other, other_two)
                            peak[beside] = most if most >= -min(other, other_two) else min(other, other_two)
                    if not every:
                        log = min(joint[at + i], alone[at + i])
                        if shared and c > 0:
                            log = min(log, alone[beside])
                        if log >= LONGEST or often[row] * math.exp(-2.302585092994046 * log) < least:
                            continue
                    size, mean = 0.5 * (high - low), 0.5 * (high + low)
                    own, log_d = 400.0, 400.0
                    if high - low > small and life_at[p, c] != 0:
                        own = _life(life_at[p, c], life_numbers[p, c], size, mean)
                    if c > 0 and together and 2.0 * size_d > small and life_at[p, d] != 0:
                        log_d = _life(life_at[p, d], life_numbers[p, d], size_d, mean_d)
                    both = own
                    if own < LONGEST and log_d < LONGEST and not failed[p, 1]:
                        both = joint_log_life(
                            use_at[p, c],
                            life_numbers[p, c],
                            size,
                            mean,
                            own,
                            use_at[p, d],
                            life_numbers[p, d],
                            size_d,
                            mean_d,
                            log_d,
                        )
                    alone[at + i], joint[at + i] = own, both
                    if shared and c == 1:  # the cycles of the other are the same ones
                        alone[beside], joint[beside] = log_d, min(both, log_d)
                for i in range(spans[p, f, c, 1] - spans[p, f, c, 0]):
                    log = min(joint[at + i], alone[at + i])
                    if log < LONGEST:
                        total += often[spans[p, f, c, 0] + i] * math.exp(-2.302585092994046 * log)
                share[p, f, c] = total


@compiled
def rates_of(spans, slots, often, alone, joint, assessed, failed, rates):
    """Damage a repeat of both modes at every face."""
    for p in range(spans.shape[0]):
        for f in range(2):
            for mode in range(2):
                rates[p, f, mode] = 0.0
            if assessed[0] and not failed[p, 0]:
                for i in range(spans[p, f, 0, 1] - spans[p, f, 0, 0]):
                    log = alone[slots[p, f, 0] + i]
                    if log < LONGEST:
                        rates[p, f, 0] += often[spans[p, f, 0, 0] + i] * math.exp(-2.302585092994046 * log)
            if assessed[1] and not failed[p, 1]:
                for c in range(1, 3):
                    total = 0.0
                    for i in range(spans[p, f, c, 1] - spans[p, f, c, 0]):
                        log = joint[slots[p, f, c] + i]
                        if log < LONGEST:
                            total += often[spans[p, f, c, 0] + i] * math.exp(-2.302585092994046 * log)
                    rates[p, f, 1] = max(rates[p, f, 1], total)


@compiled
def jumped(
    repeats,
    ways,
    damage,
    weaker,
    lost,
    rates,
    spans,
    slots,
    often,
    alone,
    peak,
    moduli,
    static,
    strength_at,
    strength_numbers,
    stiffness_at,
    stiffness_numbers,
    by_sum,
    failed,
    new_damage,
    new_weaker,
    new_lost,
):
    """Damage, lost strength and stiffness after so many repeats of stresses that stay: in order, or half so, half backward."""
    plies = spans.shape[0]
    for p in range(plies):
        for f in range(2):
            for mode in range(2):
                new_damage[p, f, mode] = damage[p, f, mode] + repeats * rates[p, f, mode]
            for k in range(5):
                new_weaker[p, f, k] = weaker[p, f, k]
        for c in range(3):
            new_lost[p, c] = lost[p, c]
        for f in range(2):
            for c in range(3):
                gone = failed[p, 0] if c == 0 else failed[p, 1]
                if gone or (stiffness_at[p, c] == 0 and strength_at[p, c] == 0):
                    continue
                part = lost[p, c]
                first, span = spans[p, f, c, 0], spans[p, f, c, 1] - spans[p, f, c, 0]
                at = slots[p, f, c]
                if stiffness_at[p, c] != 0 and by_sum[p, c]:  # it goes by the sum of n / N alone
                    total = 0.0
                    for i in range(span):
                        if alone[at + i] < LONGEST:
                            total += repeats * often[first + i] * math.exp(-2.302585092994046 * alone[at + i])
                    part = _stiffness(
                        stiffness_at[p, c],
                        stiffness_numbers[p, c],
                        part,
                        total,
                        1.0,
                        moduli[p, c],
                        1.0,
                        static[p, 2 * c],
                    )
                softens = stiffness_at[p, c] != 0 and not by_sum[p, c]
                if not softens and strength_at[p, c] == 0:
                    new_lost[p, c] = max(new_lost[p, c], part)
                    continue
                for way in range(ways):
                    for j in range(span):
                        i = j if way == 0 else span - 1 - j
                        log, stress = alone[at + i], peak[at + i]
                        cycles = repeats * often[first + i] / ways
                        side = 4 if c == 2 else 2 * c + (1 if stress < 0.0 else 0)
                        size = abs(stress)
                        if size <= 0.0 or cycles <= 0.0:
                            continue
                        life = math.exp(2.302585092994046 * min(log, LONGEST))
                        if softens:
                            part = _stiffness(
                                stiffness_at[p, c],
                                stiffness_numbers[p, c],
                                part,
                                cycles,
                                life,
                                moduli[p, c],
                                size,
                                static[p, side],
                            )
                        if strength_at[p, c] != 0 and log < LONGEST:
                            new_weaker[p, f, side] = _strength(
                                strength_at[p, c],
                                strength_numbers[p, c],
                                new_weaker[p, f, side],
                                cycles,
                                life,
                                static[p, side],
                                size,
                            )
                new_lost[p, c] = max(new_lost[p, c], part)
        if stiffness_at[p, 1] != 0 and stiffness_at[p, 2] == 0 and not failed[p, 1]:
            new_lost[p, 2] = max(new_lost[p, 2], new_lost[p, 1])  # cracks between fibres soften both


@compiled
def effort(per_load, there, ends, spans, static, weaker, p, f, mode):
    """How near the stresses of the loads come to strengths: 1 is failure. Fibres by s1, between fibres by the squares of both."""
    worst = 0.0
    for c in range(3):
        if (mode == 0) != (c == 0):
            continue
        for row in range(spans[p, f, c, 0], spans[p, f, c, 1]):
            for e in range(2):
                if mode == 0:
                    s = _at_end(per_load, there, p, f, 0, ends[row, e])
                    x = static[p, 0] - weaker[p, f, 0] if s > 0.0 else static[p, 1] - weaker[p, f, 1]
                    worst = max(worst, abs(s) / x if x > 0.0 else math.inf)
                else:
                    s = _at_end(per_load, there, p, f, 1, ends[row, e])
                    t = _at_end(per_load, there, p, f, 2, ends[row, e])
                    y = static[p, 2] - weaker[p, f, 2] if s > 0.0 else static[p, 3] - weaker[p, f, 3]
                    x = static[p, 4] - weaker[p, f, 4]
                    whole = y > 0.0 and x > 0.0
                    worst = max(worst, math.sqrt((s / y) ** 2 + (t / x) ** 2) if whole else math.inf)
    return worst


@compiled
def _bound(per_load, there, ends, spans, static, weaker, residual, p, f):
    """What the largest s2 and t12 of any end together come to at most."""
    total = 0.0
    for c in range(1, 3):
        high, low = _extremes(per_load, there, ends, spans, p, f, c)
        if c == 1:
            up = static[p, 2] - (weaker[p, f, 2] if residual else 0.0)
            down = static[p, 3] - (weaker[p, f, 3] if residual else 0.0)
            part = max(high / up if high > 0.0 else 0.0, -low / down if low < 0.0 else 0.0)
        else:
            part = max(abs(high), abs(low)) / (static[p, 4] - (weaker[p, f, 4] if residual else 0.0))
        total += part * part
    return math.sqrt(total)


@compiled
def nearest(per_load, there, ends, spans, damage, weaker, static, unhurt, residual, critical, assessed, failed, where):
    """The largest part of a failure that any mode has come to, and where: by damage, residual strength, static strength."""
    found = 0.0
    where[0], where[1], where[2] = -1, 0, 0
    for p in range(spans.shape[0]):
        for mode in range(2):
            if not assessed[mode] or failed[p, mode]:
                continue
            for f in range(2):
                # no end of a cycle is worse than the extremes of both stresses together
                quiet = residual or damage[p, f, mode] / critical <= found
                if (
                    mode == 1
                    and quiet
                    and _bound(per_load, there, ends, spans, static, weaker, residual, p, f) <= found
                ):
                    continue
                if residual:
                    value = effort(per_load, there, ends, spans, static, weaker, p, f, mode)
                else:
                    value = max(
                        damage[p, f, mode] / critical, effort(per_load, there, ends, spans, static, unhurt, p, f, mode)
                    )
                if value > found:
                    found = value
                    where[0], where[1], where[2] = p, f, mode
    return found


@compiled
def work_of(compliance, row):
    """Twice the work of a load: its stiffness against itself goes with 1 over it."""
    total = 0.0
    for i in range(6):
        for j in range(6):
            total += row[i] * compliance[i, j] * row[j]
    return total


@compiled
def march(
    moduli,
    turn,
    z,
    free,
    ends,
    often,
    spans,
    slots,
    life_at,
    use_at,
    life_numbers,
    static,
    strength_at,
    strength_numbers,
    stiffness_at,
    stiffness_numbers,
    by_sum,
    assessed,
    together,
    residual,
    critical,
    fibre_left,
    matrix_left,
    over_below,
    tolerance,
    longest,
    lost,
    damage,
    weaker,
    failed,
    events,
    event_repeats,
    event_stiffness,
    jumps,
    told,
):
    """The life of a laminate in jumps: failures into `events` (ply, face, mode, jump), what each jump leaves into `told`.

    Returns how many events and jumps, repeats, part of the stiffness left, the errors of all jumps summed, and how it ended.
    `told` is (repeats, stiffness, left, damage, strengths, highest, lowest) of every jump, or None.
    """
    plies = moduli.shape[0]
    total = int(slots[plies - 1, 1, 2] + spans[plies - 1, 1, 2, 1] - spans[plies - 1, 1, 2, 0])
    alone, joint, peak = np.empty(total), np.empty(total), np.empty(total)
    alone_m, joint_m, peak_m = np.empty(total), np.empty(total), np.empty(total)
    per_load, there, compliance = np.empty((plies, 2, 3, 6)), np.empty((plies, 2, 3)), np.empty((6, 6))
    rates, rates_m = np.zeros((plies, 2, 2)), np.zeros((plies, 2, 2))
    d1, d2 = np.empty((plies, 2, 2)), np.empty((plies, 2, 2))
    x1, x2 = np.empty((plies, 2, 5)), np.empty((plies, 2, 5))
    l1, l2 = np.empty((plies, 3)), np.empty((plies, 3))
    where = np.zeros(3, dtype=np.int64)
    kept, kept_m = np.full((plies, 2, 3, 2), math.nan), np.full((plies, 2, 3, 2), math.nan)
    whole, whole_m = np.full((plies, 2, 3, 2), math.nan), np.full((plies, 2, 3, 2), math.nan)
    share, share_m = np.zeros((plies, 2, 3)), np.zeros((plies, 2, 3))
    unhurt = np.zeros((plies, 2, 5))
    repeats, errors, count, jump = 0.0, 0.0, 0, 0
    step, first_work, reference = -1.0, -1.0, 0
    stiffness = 1.0
    ended = FULL
    small = 0.0
    # the sound laminate: the load that does most work, and what moves so little that it does nothing
    stress_of_loads(moduli, np.zeros((plies, 3)), turn, z, free, per_load, there, compliance)
    for row in range(ends.shape[0]):
        for e in range(2):
            own = work_of(compliance, ends[row, e])
            if own > first_work:
                first_work, reference = own, 2 * row + e
    for p in range(plies):
        for f in range(2):
            for c in range(3):
                for row in range(spans[p, f, c, 0], spans[p, f, c, 1]):
                    a = _at_end(per_load, there, p, f, c, ends[row, 0])
                    b = _at_end(per_load, there, p, f, c, ends[row, 1])
                    small = max(small, abs(a - b))
    small *= 1e-9
    while True:
        # what stands here: stresses, then modes that fail at once, the nearest first
        while True:
            if not stress_of_loads(moduli, lost, turn, z, free, per_load, there, compliance):
                ended = OVER
                break
            now = work_of(compliance, ends[reference // 2, reference % 2])
            stiffness = first_work / now if now > 0.0 else 1.0
            near = nearest(
                per_load,
                there,
                ends,
                spans,
                damage,
                weaker,
                static,
                unhurt,
                residual,
                critical,
                assessed,
                failed,
                where,
            )
            if where[0] < 0 or near < 1.0 - 1e-9:
                break
            p, f, mode = where[0], where[1], where[2]
            failed[p, mode] = True
            for f in range(2):
                for c in range(3):
                    kept[p, f, c, 0], kept_m[p, f, c, 0] = math.nan, math.nan
            if mode == 0:
                failed[p, 1] = True
                for c in range(3):
                    lost[p, c] = max(lost[p, c], 1.0 - fibre_left)
            else:
                for c in range(1, 3):
                    lost[p, c] = max(lost[p, c], 1.0 - matrix_left)
            events[count, 0], events[count, 1], events[count, 2], events[count, 3] = p, where[1], mode, jump
            event_repeats[count] = repeats
            if stress_of_loads(moduli, lost, turn, z, free, per_load, there, compliance):
                now = work_of(compliance, ends[reference // 2, reference % 2])
                stiffness = first_work / now if now > 0.0 else 1.0
            event_stiffness[count] = stiffness
            count += 1
            broken = True
            for k in range(plies):
                broken = broken and failed[k, 0]
            if stiffness < over_below or broken:
                ended = OVER
                break
        lives_of_slots(
            per_load,
            there,
            ends,
            often,
            spans,
            slots,
            life_at,
            use_at,
            life_numbers,
            together,
            small,
            failed,
            max(step, 0.0),
            0.01 * tolerance,
            kept,
            whole,
            share,
            alone,
            joint,
            peak,
        )
        if told is not None:
            told[0][jump], told[1][jump] = repeats, stiffness
            for p in range(plies):
                for c in range(3):
                    told[2][jump, p, c] = 1.0 - lost[p, c]
                for f in range(2):
                    for mode in range(2):
                        told[3][jump, p, f, mode] = damage[p, f, mode]
                    for k in range(5):
                        told[4][jump, p, f, k] = static[p, k] - weaker[p, f, k]
                    for c in range(3):
                        high, low = -1e300, 1e300
                        for row in range(spans[p, f, c, 0], spans[p, f, c, 1]):
                            for e in range(2):
                                own = _at_end(per_load, there, p, f, c, ends[row, e])
                                high, low = max(high, own), min(low, own)
                        told[5][jump, p, f, c], told[6][jump, p, f, c] = high, low
        if ended != FULL:
            break
        if repeats >= longest:
            ended = LATER
            break
        if jump + 1 >= jumps:
            ended = MANY
            break
        rates_of(spans, slots, often, alone, joint, assessed, failed, rates)
        soonest = math.inf
        for p in range(plies):
            for f in range(2):
                for mode in range(2):
                    if rates[p, f, mode] > 0.0:
                        soonest = min(soonest, (critical - damage[p, f, mode]) / rates[p, f, mode])
        if step <= 0.0:
            step = soonest if soonest < math.inf else 1.0
        step = min(step, longest - repeats)
        if not residual:
            step = min(step, soonest * (1.0 + 1e-12)) if soonest > 0.0 else step
        tried = 0
        while True:
            tried += 1
            # half a jump of the stresses of its start, then the whole jump by the stresses of its middle
            jumped(
                0.5 * step,
                2,
                damage,
                weaker,
                lost,
                rates,
                spans,
                slots,
                often,
                alone,
                peak,
                moduli,
                static,
                strength_at,
                strength_numbers,
                stiffness_at,
                stiffness_numbers,
                by_sum,
                failed,
                d1,
                x1,
                l1,
            )
            stress_of_loads(moduli, l1, turn, z, free, per_load, there, compliance)
            lives_of_slots(
                per_load,
                there,
                ends,
                often,
                spans,
                slots,
                life_at,
                use_at,
                life_numbers,
                together,
                small,
                failed,
                max(step, 0.0),
                0.01 * tolerance,
                kept_m,
                whole_m,
                share_m,
                alone_m,
                joint_m,
                peak_m,
            )
            rates_of(spans, slots, often, alone_m, joint_m, assessed, failed, rates_m)
            jumped(
                step,
                2,
                damage,
                weaker,
                lost,
                rates_m,
                spans,
                slots,
                often,
                alone_m,
                peak_m,
                moduli,
                static,
                strength_at,
                strength_numbers,
                stiffness_at,
                stiffness_numbers,
                by_sum,
                failed,
                d2,
                x2,
                l2,
            )
            jumped(
                step,
                1,
                damage,
                weaker,
                lost,
                rates,
                spans,
                slots,
                often,
                alone,
                peak,
                moduli,
                static,
                strength_at,
                strength_numbers,
                stiffness_at,
                stiffness_numbers,
                by_sum,
                failed,
                d1,
                x1,
                l1,
            )
            error, moved = 0.0, 0.0
            for p in range(plies):
                for c in range(3):
                    error = max(error, abs(l2[p, c] - l1[p, c]) / (1.0 - l2[p, c]))
                    moved = max(moved, l2[p, c] - lost[p, c])
                for f in range(2):
                    for mode in range(2):
                        if not failed[p, mode]:
                            error = max(error, abs(d2[p, f, mode] - d1[p, f, mode]) / critical)
                            moved = max(moved, d2[p, f, mode] - damage[p, f, mode])
                    if residual:
                        for k in range(5):
                            error = max(error, abs(x2[p, f, k] - x1[p, f, k]) / static[p, k])
                            moved = max(moved, (x2[p, f, k] - weaker[p, f, k]) / static[p, k])
            factor = 4.0 if error <= 0.0 else min(4.0, max(0.1, 0.9 * math.sqrt(tolerance / error)))
            if error <= tolerance or tried > 60:
                break
            step *= factor
        if moved <= 0.0 and soonest == math.inf:
            ended = ENDLESS
            break
        # a failure inside of the jump: the jump ends there
        taken = step
        stress_of_loads(moduli, l2, turn, z, free, per_load, there, compliance)
        near = nearest(
            per_load, there, ends, spans, d2, x2, static, unhurt, residual, critical, assessed, failed, where
        )
        if near > 1.0 + 1e-9:
            low, high = 0.0, step
            if (
                not residual
            ):  # damage goes straight: the first one that is full, unless stress alone breaks something before
                for p in range(plies):
                    for f in range(2):
                        for mode in range(2):
                            if assessed[mode] and not failed[p, mode] and rates_m[p, f, mode] > 0.0:
                                full = (critical - damage[p, f, mode]) / rates_m[p, f, mode] * (1.0 + 1e-12)
                                high = min(high, max(full, 0.0))
            for tries in range(60):
                taken = 0.5 * (low + high)
                if tries == 0 and high < step:
                    taken = high * (1.0 - 1e-9)
                jumped(
                    taken,
                    2,
                    damage,
                    weaker,
                    lost,
                    rates_m,
                    spans,
                    slots,
                    often,
                    alone_m,
                    peak_m,
                    moduli,
                    static,
                    strength_at,
                    strength_numbers,
                    stiffness_at,
                    stiffness_numbers,
                    by_sum,
                    failed,
                    d2,
                    x2,
                    l2,
                )
                stress_of_loads(moduli, l2, turn, z, free, per_load, there, compliance)
                if (
                    nearest(
                        per_load,
                        there,
                        ends,
                        spans,
                        d2,
                        x2,
                        static,
                        unhurt,
                        residual,
                        critical,
                        assessed,
                        failed,
                        where,
                    )
                    >= 1.0
                ):
                    high = taken
                else:
                    low = taken
                if high - low <= 1e-9 * high:
                    break
            taken = high
            jumped(
                taken,
                2,
                damage,
                weaker,
                lost,
                rates_m,
                spans,
                slots,
                often,
                alone_m,
                peak_m,
                moduli,
                static,
                strength_at,
                strength_numbers,
                stiffness_at,
                stiffness_numbers,
                by_sum,
                failed,
                d2,
                x2,
                l2,
            )
        repeats += taken
        errors += error
        for p in range(plies):
            for c in range(3):
                lost[p, c] = l2[p, c]
            for f in range(2):
                for mode in range(2):
                    damage[p, f, mode] = d2[p, f, mode]
                for k in range(5):
                    weaker[p, f, k] = x2[p, f, k]
        step *= factor
        jump += 1
    return count, jump + 1, repeats, stiffness, errors, ended
