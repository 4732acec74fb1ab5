"""Reserve factor on stress: the factor on all loads at which the target life is just met, found by solving."""

from __future__ import annotations

import math

from scipy.optimize import brentq

from vivid_anvil.damage.spectrum import Spectrum
from vivid_anvil.units import one, opened

# The search goes as far as this; a spot without damage at a load 1e15 times as high has no cycle at all.
LARGEST, SMALLEST = 1.0e15, 1.0e-15
_FLOOR = 700.0  # a logarithm that stands for 0 or inf


@opened(target_repeats=one(above=0.0))
def reserve_on_stress(spectrum: Spectrum, target_repeats: float) -> float:
    """Factor on all loads at which the damage of `target_repeats` just reaches the critical sum; inf where none does.

    Solved (Brent, R. P. 1973, Algorithms for minimization without derivatives, ch. 4) in the logarithm of the factor,
    as damage grows with every load factor; no slope is assumed. At a fatigue limit the damage jumps, and the factor is
    the one below the jump. 0 where the offset alone is at or beyond the ultimate strength.
    """
    allowed = spectrum.hot_spot.assessed_by.critical_sum / target_repeats

    def excess(log_factor: float) -> float:
        damage = float(spectrum.damage(math.exp(log_factor)).sum())
        if damage == 0.0:
            return -_FLOOR
        return min(_FLOOR, math.log(damage / allowed)) if damage < math.inf else _FLOOR

    low = high = 0.0
    while excess(high) <= 0.0:
        low, high = high, high + 1.0
        if high > math.log(LARGEST):
            return math.inf
    while excess(low) > 0.0:
        low, high = low - 1.0, low
        if low < math.log(SMALLEST):
            return 0.0
    root = float(brentq(excess, low, high, xtol=1e-13, rtol=1e-13))
    step = 1e-13
    while excess(root) > 1e-9:  # at a jump the solver may stop on the failing side
        root -= step
        step *= 2.0
    return math.exp(root)
