"""Values that mean-stress rules need, estimated from the ultimate strength."""

from __future__ import annotations

from vivid_anvil.ground.checks import positive_number, real_number
from vivid_anvil.ground.errors import InputError, did_you_mean, listed
from vivid_anvil.units import STRENGTH, STRESS, opened

# a and b of M = a 1e-3 R_m + b (FKM guideline, table 4.4.2).
SENSITIVITIES = {
    "steel": (0.35, -0.10),
    "cast steel": (0.35, 0.05),
    "nodular iron": (0.35, 0.08),
    "malleable iron": (0.35, 0.13),
    "grey iron": (0.0, 0.5),
    "wrought aluminium": (1.0, -0.04),
    "cast aluminium": (1.0, 0.2),
}


@opened(ultimate_strength=STRENGTH)
def estimated_sensitivity(group: str, ultimate_strength: float) -> float:
    """Mean-stress sensitivity M of a material `group` (a key of `SENSITIVITIES`) from its ultimate strength, MPa.

    >>> round(estimated_sensitivity("steel", 700.0), 6)
    0.145
    """
    if group not in SENSITIVITIES:
        raise InputError(
            "mean-stress sensitivity",
            repr(group),
            f"one of {listed(SENSITIVITIES)}",
            did_you_mean(group, SENSITIVITIES),
        )
    strength = positive_number("ultimate strength", ultimate_strength, "a strength above 0 MPa")
    slope, base = SENSITIVITIES[group]
    found = slope * 1e-3 * strength + base
    if not found >= 0.0:
        raise InputError(
            f"mean-stress sensitivity, {group}",
            f"{strength:g} MPa, for which M = {found:.3g}",
            "a strength that gives M of 0 or more",
            "The estimate does not reach so low: state mean_stress_sensitivity.",
        )
    return found


@opened(ultimate_strength=STRESS)
def estimated_walker_exponent(ultimate_strength: float) -> float:
    """Walker's exponent γ of a steel from its ultimate strength, MPa: γ = 0.8818 - 0.0002 R_m.

    Dowling, N. E., Calhoun, C. A. and Arcari, A. (2009), Fatigue Fract. Engng Mater. Struct. 32, 163-179.

    >>> round(estimated_walker_exponent(780.0), 4)
    0.7258
    """
    strength = real_number("ultimate strength", ultimate_strength)
    if not 200.0 <= strength <= 2500.0:
        raise InputError("Walker's exponent", f"{strength:g} MPa", "an ultimate strength of steel, 200 to 2500 MPa")
    return 0.8818 - 0.0002 * strength
