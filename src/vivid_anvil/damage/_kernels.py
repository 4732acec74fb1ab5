"""The loop behind damage in order: blocks until failure, one level after the other."""

from __future__ import annotations

from vivid_anvil.ground.compiled import compiled


@compiled
def blocks_until_failure(counts, shares, powers, most):
    """Blocks until the used share of life is 1, the last by its share of the cycles; -1 after `most` blocks."""
    used, total = 0.0, counts.sum()
    for block in range(most):
        carried = 0.0
        for i in range(counts.size):
            start = used ** powers[i] if used > 0.0 else 0.0
            used = start + shares[i]
            if used >= 1.0:
                return block + (carried + counts[i] * max(0.0, 1.0 - start) / shares[i]) / total
            carried += counts[i]
    return -1.0
