"""Closure of a crack by its own plastic wake: at which share of the largest stress it opens (Newman 1984)."""

from __future__ import annotations

import math
from typing import NamedTuple

from vivid_anvil.units import one, opened


class Opening(NamedTuple):
    """Constants of f(R): a_0 to a_3."""

    a0: float
    a1: float
    a2: float
    a3: float

    def at(self, r: float) -> float:
        """Opening over maximum stress at R; below -2 as at -2.

        >>> round(opening(2.0, 0.3).at(0.0), 5)
        0.32566
        """
        if r >= 0.0:
            return max(r, self.a0 + self.a1 * r + self.a2 * r * r + self.a3 * r * r * r)
        return self.a0 + self.a1 * max(r, -2.0)


@opened(alpha=one(above=0.0), peak=one(above=0.0, below=1.0))
def opening(alpha: float, peak: float) -> Opening:
    """f(R) for the constraint `alpha` (1 plane stress, 3 plane strain) and largest over flow stress `peak` (Newman 1984).

    Raises InputError for a constraint that is not above 0 and for a share of stress that is not between 0 and 1.
    """
    a0 = (0.825 - 0.34 * alpha + 0.05 * alpha**2) * math.cos(0.5 * math.pi * peak) ** (1.0 / alpha)
    a1 = (0.415 - 0.071 * alpha) * peak
    a3 = 2.0 * a0 + a1 - 1.0
    return Opening(a0, a1, 1.0 - a0 - a1 - a3, a3)
