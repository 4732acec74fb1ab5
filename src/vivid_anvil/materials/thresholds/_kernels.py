"""The loop over a threshold that is handed in by address: arrays in, arrays out, no checks."""

from vivid_anvil.ground.compiled import compiled
from vivid_anvil.ground.handed import REAL, ROW, caller

THRESHOLD = REAL(ROW, REAL, REAL)  # numbers, R, size -> range of K

call_threshold = caller(THRESHOLD)


@compiled
def thresholds_of(limit, q, r, a, out):
    """The threshold at each R and size."""
    for i in range(r.size):
        out[i] = call_threshold(limit, q, r[i], a[i])
