"""The loop over cycles of many places: from ranges and means to damage."""

from __future__ import annotations

import numpy as np

from vivid_anvil.ground.compiled import compiled
from vivid_anvil.materials.curves._kernels import NEVER, POWER

MOST_MULTIPLIED = 32  # rates up to which a power is multiplied
BLOCK = 512  # cycles at once


@compiled(inline="always")
def _power(ratio, rate, whole):
    """`ratio ** rate`; whole rates, as most slopes are, by multiplying."""
    if whole < 0:
        return ratio**rate
    found = 1.0
    while whole > 0:
        if whole & 1:
            found *= ratio
        ratio *= ratio
        whole >>= 1
    return found


@compiled
def _reversed_of(ranges, middles, factor, twice, strength, means, out):
    """The stress that a curve is asked for, of each cycle, inf where a mean reaches the strength: several cycles at once."""
    half = 0.5 * factor
    for i in range(out.size):
        size, mean = half * ranges[i], factor * middles[i]
        if means == 0:
            mean = mean if mean > 0.0 else 0.0
        elif means == 1:
            mean = mean if mean > -size else -size
        left = 1.0 - mean / strength
        out[i] = twice * size / left if left > 0.0 else np.inf


@compiled
def damage_of_nodes(
    ranges,
    middles,
    often,
    ends,
    which,
    factors,
    twice,
    strength,
    means,
    edge,
    kind,
    anchor_stress,
    anchor_life,
    rate,
    out,
):
    """Damage of the cycles of the nodes `which`, at `factors` on their stresses, shape of `which`: sums into `out`.

    Cycles of the nodes stand one after the other, `ends` says where those of each end; `often`, as many or one for all, how
    often each happens in a repeat. The rule is
    S_a / (1 - S_m / strength), none with an infinite `strength`; `means` are held at 0 or above (0), at -S_a or above (1), or
    not (2); `twice` is 2 for a curve in ranges. The curve is that of power laws, held lives and stresses without damage; inf
    where a mean reaches the strength.
    """
    whole = np.empty(rate.size, dtype=np.int64)
    for j in range(rate.size):
        whole[j] = int(rate[j]) if int(rate[j]) == rate[j] and 0 <= rate[j] <= MOST_MULTIPLIED else -1
    stresses = np.empty(BLOCK)
    for k in range(which.size):
        node, total = which[k], 0.0
        for start in range(ends[node - 1] if node > 0 else 0, ends[node], BLOCK):
            end = min(start + BLOCK, ends[node])
            part = stresses[: end - start]
            _reversed_of(ranges[start:end], middles[start:end], factors[k], twice, strength, means, part)
            for i in range(part.size):
                stress = part[i]
                if stress == np.inf:
                    total = np.inf
                    break
                j = 0
                while j < edge.size and stress < edge[j]:
                    j += 1
                if stress == 0.0 or kind[j] == NEVER:
                    continue
                share = 1.0 / anchor_life[j]
                if kind[j] == POWER:
                    share *= _power(stress / anchor_stress[j], rate[j], whole[j])
                total += share * (often[0] if often.size == 1 else often[start + i])
        out[k] = total
