"""A hot spot, its curve and steel, and simple loads."""

from tests.reference_values import block_event
from tests.spots import hot_spot
from vivid_anvil.events import DutyCycle, Event
from vivid_anvil.histories import Channel, LoadHistory
from vivid_anvil.materials import MEAN_STRESS_RULES, Material, knee_curve

SMOOTH = {
    "name": "smooth",
    "stress": "amplitude",
    "r_ratio": -1.0,
    "knee_stress": 180.0,
    "knee_life": 2e6,
    "slope": 6.0,
    "slope_below": 11.0,
}
CURVE = knee_curve(**SMOOTH)
VALUES = {
    "ultimate_strength": 700.0,
    "yield_strength": 420.0,
    "true_fracture_strength": 1050.0,
    "fatigue_strength_coefficient": 980.0,
    "walker_exponent": 0.65,
    "mean_stress_sensitivity": 0.145,
}
STEEL = Material(name="steel", **VALUES)


def one_block(amplitude, mean, cycles=1e4):
    return DutyCycle("block", [block_event("block", amplitude, mean, cycles)], repeats_per_year=12.0)


def spot(curve=CURVE, **settings):
    """A spot of the stress itself; a `relation` or `method` stands for all its keys."""
    usual = {"name": "spot", "material": STEEL}
    usual |= {} if "relation" in settings else {"channel": "stress", "stress_per_load": "1"}
    usual |= {} if "method" in settings else {"curve": curve}
    return hot_spot(**usual | settings)


def needed_by(rule):
    """Of the values of the material that which a rule takes."""
    needs = MEAN_STRESS_RULES[rule].needs if rule in MEAN_STRESS_RULES else None
    return {} if needs is None else {needs: VALUES[needs]}


def codes(result):
    return [finding.code for finding in result.findings]


def sampled(values, rate=100.0, occurrences=1.0):
    history = LoadHistory("run", [Channel.in_unit("stress", values, "MPa")], rate)
    return DutyCycle("run", [Event("run", history, occurrences)], 1.0)


def mixed(high, few, low, many):
    """A few high cycles and many low ones."""
    return DutyCycle("block", [block_event("high", high, 0.0, few), block_event("low", low, 0.0, many)], 1.0)
