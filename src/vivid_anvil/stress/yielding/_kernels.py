"""Loops over turning points with material memory."""

import numpy as np

from vivid_anvil.ground.compiled import compiled


@compiled
def on_skeleton(x, per_step, cubics):
    """Stress and strain at a drive of 0 or more, from the cubics of its step, steps even; `per_step` is one over a step."""
    at = x * per_step
    i = min(int(at), cubics.shape[0] - 1)
    t = at - i
    c = cubics[i]
    return c[0] + t * (c[1] + t * (c[2] + t * c[3])), c[4] + t * (c[5] + t * (c[6] + t * c[7]))


@compiled
def many_on_skeleton(drives, per_step, cubics, at_stress, at_strain):
    """`on_skeleton` at many drives."""
    for i in range(drives.size):
        at_stress[i], at_strain[i] = on_skeleton(drives[i], per_step, cubics)


@compiled
def follow(drive, largest, per_step, cubics, at_stress, at_strain, ends):
    """Stress and strain at each turning point, and every loop that closes; how many did.

    `largest` is the largest size of drive so far; where it is passed the path runs on the cyclic curve. `ends`, with room for
    half as many rows as there are points, gets the turning points of a loop, the earlier first.
    """
    stack, values = np.empty(drive.size + 2, np.int64), np.empty(drive.size + 2)
    depth = closed = 0
    one = two = 0.0  # the last open point, and the one before
    for k in range(drive.size):
        x = drive[k]
        while depth >= 2 and abs(x - one) >= abs(one - two):
            ends[closed, 0] = stack[depth - 2]
            ends[closed, 1] = stack[depth - 1]
            closed += 1
            depth -= 2
            one = values[max(depth - 1, 0)]
            two = values[max(depth - 2, 0)]
        if abs(x) > largest or depth == 0:  # on the cyclic curve: what was open before is forgotten
            largest = max(largest, abs(x))
            s, e = on_skeleton(abs(x), per_step, cubics)
            at_stress[k] = s if x >= 0.0 else -s
            at_strain[k] = e if x >= 0.0 else -e
            depth = 0
        else:
            a = stack[depth - 1]
            s, e = on_skeleton(0.5 * abs(x - one), per_step, cubics)
            twice = 2.0 if x >= one else -2.0
            at_stress[k] = at_stress[a] + twice * s
            at_strain[k] = at_strain[a] + twice * e
        stack[depth] = k
        values[depth] = x
        depth += 1
        two = one
        one = x
    return closed


@compiled
def close_open(values, names, stack, open_names, loops, at):
    """Close loops of turning points by the four-point rule; how many, and how many points stay open on the stack.

    `names` are the points' own numbers. A loop gets into `loops` the numbers of the points at which it starts and turns, and of
    the point before, from which the branch comes that it hangs on; into `at` the values of the first two.
    """
    depth = 0
    closed = 0
    for k in range(values.size):
        value = values[k]
        while depth >= 3:
            inner = abs(stack[depth - 2] - stack[depth - 1])
            if inner > abs(stack[depth - 1] - value) or inner > abs(stack[depth - 3] - stack[depth - 2]):
                break
            for i in range(2):
                loops[closed, i] = open_names[depth - 2 + i]
                at[closed, i] = stack[depth - 2 + i]
            loops[closed, 2] = open_names[depth - 3]
            closed += 1
            depth -= 2
        stack[depth] = value
        open_names[depth] = names[k]
        depth += 1
    return closed, depth


@compiled
def tips(low, high, half, first, hung, parent, rises, lowest, highest):
    """Stress at both tips of loops, each after the one that it hangs on; the last loop is the outermost.

    `half` is half of the stress range, `first` the stress on the cyclic curve at the tip with the larger drive, and `hung` the
    stress range from the tip of the parent to where the loop starts.
    """
    for k in range(low.size - 1, -1, -1):
        p = parent[k]
        if p < 0:
            if abs(high[k]) >= abs(low[k]):
                highest[k] = first[k]
                lowest[k] = first[k] - 2.0 * half[k]
            else:
                lowest[k] = first[k]
                highest[k] = first[k] + 2.0 * half[k]
        elif rises[k]:  # it hangs on a branch that rises from the lower tip, and starts at its own upper one
            highest[k] = lowest[p] + hung[k]
            lowest[k] = highest[k] - 2.0 * half[k]
        else:
            lowest[k] = highest[p] - hung[k]
            highest[k] = lowest[k] + 2.0 * half[k]


@compiled
def dragged(stress, radii, softness, linear, passes, strain):
    """Total deviatoric strain at each stress deviator, (n, 6), of sliders in series, in the last of some passes, into `strain`.

    Each slider's centre is dragged along by the stress at its radius, and its plastic strain is `softness` times its centre
    (von Mises, Prager); `linear` times the stress is elastic.
    """
    many = radii.size
    centres = np.zeros((many, 6))
    for _turn in range(passes):
        for t in range(stress.shape[0]):
            for c in range(6):
                strain[t, c] = linear * stress[t, c]
            for i in range(many):
                square = 0.0
                for c in range(6):
                    square += (stress[t, c] - centres[i, c]) ** 2
                if square > radii[i] ** 2:
                    left = 1.0 - radii[i] / np.sqrt(square)
                    for c in range(6):
                        centres[i, c] += left * (stress[t, c] - centres[i, c])
                for c in range(6):
                    strain[t, c] += softness[i] * centres[i, c]


@compiled
def shared(strain, weights, radii, stiffness, passes, stress):
    """Stress deviator at each deviatoric strain, (n, 6), of elastic-perfectly plastic parts side by side, in the last pass.

    Every part has the same stiffness, and a radius beyond which it yields (Besseling 1958); `weights` sum to what is elastic.
    """
    many = radii.size
    parts, before = np.zeros((many, 6)), np.zeros(6)
    for _turn in range(passes):
        for t in range(strain.shape[0]):
            stress[t, :] = 0.0
            for i in range(many):
                square = 0.0
                for c in range(6):
                    parts[i, c] += stiffness * (strain[t, c] - before[c])
                    square += parts[i, c] ** 2
                if square > radii[i] ** 2:
                    scale = radii[i] / np.sqrt(square)
                    for c in range(6):
                        parts[i, c] *= scale
                for c in range(6):
                    stress[t, c] += weights[i] * parts[i, c]
            before[:] = strain[t]
