"""What is lost where the lines of a response lie too far apart for its resonance, and it runs straight between them.

Near a resonance H = 1/(u - i), u = (f - fn)/(ζ fn): the half-power band is 2 wide, and ∫|H|² du = π.
"""

from __future__ import annotations

import math

import numpy as np

ENOUGH = 4.0  # line spacings within the half-power band, from which on about 1 % of the rms is lost
_MANY = 2000  # lines on each side


def share_of_rms(spacings: float, between: float = 0.5) -> float:
    """Random rms that is left, with so many line spacings in the half-power band, and the peak that part of one after a line.

    >>> [round(share_of_rms(n), 3) for n in (0.4, 1.0, 4.0)]
    [0.63, 0.874, 0.99]
    """
    step = 2.0 / spacings
    h = 1.0 / ((np.arange(-_MANY, _MANY + 1) + between) * step - 1j)
    before, after = h[:-1], h[1:]
    squares = np.abs(before) ** 2 + (before * after.conj()).real + np.abs(after) ** 2
    return float(np.sqrt(step * squares.sum() / 3.0 / math.pi))


def share_of_peak(spacings: float, between: float = 0.5) -> float:
    """The highest line over the peak.

    >>> round(share_of_peak(0.4), 3)
    0.371
    """
    return 1.0 / math.hypot(1.0, 2.0 * min(between, 1.0 - between) / spacings)
