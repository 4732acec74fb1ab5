"""The loop over a growth law and its threshold, handed in by address: arrays in, arrays out, no checks."""

from vivid_anvil.ground.compiled import compiled
from vivid_anvil.ground.handed import REAL, ROW, caller

RATE = REAL(ROW, REAL, REAL, REAL, REAL)  # numbers, threshold, range of K, R, size -> mm/cycle
THRESHOLD = REAL(ROW, REAL, REAL)  # numbers, R, size -> range of K

call_rate = caller(RATE)
call_threshold = caller(THRESHOLD)


@compiled
def rates_of(law, p, limit, q, dk, r, a, out):
    """Growth of each cycle, mm."""
    for i in range(dk.size):
        threshold = call_threshold(limit, q, r[i], a[i])
        out[i] = call_rate(law, p, threshold, dk[i], r[i], a[i]) if dk[i] > threshold else 0.0
