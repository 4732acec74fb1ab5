"""Growth cycle by cycle written out as plain loops."""

import math

from vivid_anvil import shapes as sh
from vivid_anvil.growth.memories.retardation import plastic_zone
from vivid_anvil.materials import FormanLaw, ParisLaw, PowerOfRThreshold, TwoStageLaw, WalkerLaw

PLATE = sh.CentreCrack(120.0)
SURFACE = sh.SurfaceCrack(thickness=20.0, plate_width=200.0)
LAWS = {
    "paris": ParisLaw(name="p", rate=2e-12, slope=3.0, threshold=60.0),
    "paris, m = 2.7": ParisLaw(name="p", rate=2e-11, slope=2.7, threshold=60.0),
    "paris, m = 4": ParisLaw(name="p", rate=5e-15, slope=4.0),
    "walker": WalkerLaw(name="w", rate=2e-12, slope=3.1, threshold=60.0, gamma=0.6),
    "threshold over R": ParisLaw(
        name="r", rate=2e-12, slope=3.0, threshold=PowerOfRThreshold(range=120.0, exponent=0.7)
    ),
    "two-stage": TwoStageLaw(name="2", rate=1e-17, slope=5.0, rate_2=2e-12, slope_2=3.0),
    "forman": FormanLaw(name="f", rate="4e-9 with mm/cycle and MPa√mm", slope=3.0, toughness=3000.0),
}


def by_hand(rows, law, size, passes, counted="tensile"):
    """Each cycle from the size that the one before left, with the face of the law and of the shape."""
    for _ in range(passes):
        for high, low in rows:
            floor = max(low, 0.0) if counted == "tensile" else low
            scale = float(sh.stress_intensity(PLATE, size, 1.0))
            if high > floor:
                size += float(law.growth(scale * (high - floor), floor / high, size))
    return size


def wheeler(rows, law, size, yield_strength, exponent):
    """Wheeler 1972: the rate times (r_p / (X - a))^w while the zone stays within X, the farthest reached so far."""
    end = 0.0
    for high, low in rows:
        k = float(sh.stress_intensity(PLATE, size, 1.0))
        zone = (k * high / yield_strength) ** 2 / (3.0 * math.pi)
        factor = 1.0
        if size + zone < end:
            factor = (zone / (end - size)) ** exponent
        else:
            end = size + zone
        size += factor * float(law.growth(k * (high - max(low, 0.0)), max(low, 0.0) / high, size))
    return size


def willenborg(rows, law, size, yield_strength, shut_off):
    """Generalised Willenborg: K lowered by phi (K_ol √(1 - (a - a_ol) / r_ol) - K_max), phi = 1 / (shut-off - 1)."""
    k_over, a_over, zone_over = 0.0, 0.0, 0.0
    for high, low in rows:
        k = float(sh.stress_intensity(PLATE, size, 1.0))
        k_max, k_min = k * high, k * max(low, 0.0)
        zone = (k_max / yield_strength) ** 2 / (3.0 * math.pi)
        if size + zone < a_over + zone_over:
            residual = (k_over * math.sqrt(1.0 - (size - a_over) / zone_over) - k_max) / (shut_off - 1.0)
            if residual > 0.0:
                k_max, k_min = k_max - residual, max(k_min - residual, 0.0)
        else:
            k_over, a_over, zone_over = k_max, size, zone
        if k_max > k_min:
            size += float(law.growth(k_max - k_min, k_min / k_max, size))
    return size


def two_by_hand(rows, law, a, c, memory):
    """Depth and half length one cycle after another, each end with a zone of its own (Wheeler), or none."""
    ends = [0.0, 0.0]
    for high, low in rows:
        root = math.sqrt(math.pi * a)
        grown = []
        for i, (y, size) in enumerate(zip(SURFACE.factors(a, c), (a, c), strict=True)):
            zone, factor = plastic_zone(memory, y * root * high), 1.0
            if size + zone < ends[i]:
                factor = (zone / (ends[i] - size)) ** memory.exponent
            else:
                ends[i] = size + zone
            grown.append(factor * float(law.growth(y * root * (high - low), low / high, size)))
        a, c = a + grown[0], c + grown[1]
    return a, c
