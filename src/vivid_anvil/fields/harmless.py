"""Nodes that can do no damage, shown by a bound that holds exactly: a norm of a sum is at most the sum of the norms.

|s(t)| is at most B = Σ norm(unit stress) max |load| + norm(constant), with the norm that the measure states. A cycle within
-B to B has a range of at most 2 B; under the mean-stress rules named here its fully reversed amplitude is at most B, as amplitude
and mean together are.
"""

from __future__ import annotations

from collections.abc import Sequence

import numpy as np

from vivid_anvil.fields.field_loads import EventLoads
from vivid_anvil.ground.checks import FloatArray
from vivid_anvil.materials import SNFamily
from vivid_anvil.materials.mean_stress import MEAN_STRESS_RULES
from vivid_anvil.stress import HotSpot
from vivid_anvil.stress.measures import Measure


def harmless(
    units: FloatArray, constants: FloatArray, events: Sequence[EventLoads], spot: HotSpot, measure: Measure
) -> np.ndarray:
    """Which nodes do no damage whatever the phase of the loads, shape (n,); none where the bound says nothing."""
    nobody = np.zeros(units.shape[0], dtype=bool)
    always, each = measure.norm(constants), measure.norm(units.reshape(-1, 6))
    if always is None or each is None:  # no bound, no skipping
        return nobody
    if isinstance(spot.curve, SNFamily) or spot.curve is None or spot.below_knee != "as the curve says":
        return nobody
    rule = MEAN_STRESS_RULES.get(spot.mean_stress, "mean_stress")
    if rule.corrects and (not rule.bounded or spot.curve.r_ratio != -1.0):
        return nobody
    largest = np.max([np.abs(event.loads).max(axis=0, initial=0.0) for event in events], axis=0)
    bound = (always + each.reshape(units.shape[:2]) @ largest) * (1.0 + 1e-9)  # room for rounding
    in_curve = 2.0 * bound if spot.curve.stress == "range" else bound
    with np.errstate(divide="ignore"):
        never = np.isinf(spot.curve.life(np.maximum(in_curve, 1e-300)))
    if rule.needs is not None:
        never &= bound < rule.value_of(spot.material, f"hot spot {spot.name}")
    return np.asarray(never, dtype=bool)
