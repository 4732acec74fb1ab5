"""From a hot spot and a duty cycle to a life."""

from __future__ import annotations

import numpy as np

from vivid_anvil.damage.in_order import ORDER_RULES
from vivid_anvil.damage.life import LifeResult
from vivid_anvil.damage.spectrum import Spectrum, spectrum
from vivid_anvil.events import DutyCycle
from vivid_anvil.ground import checks
from vivid_anvil.ground.checks import read_only
from vivid_anvil.ground.errors import InputError
from vivid_anvil.materials import ANY_R, FIXED_MEAN, SNFamily
from vivid_anvil.materials.curves.below_knee import BELOW_KNEE
from vivid_anvil.materials.mean_stress import MEAN_STRESS_RULES
from vivid_anvil.materials.mean_stress.apply import COMPRESSIVE_MEANS, compressive_mean
from vivid_anvil.stress import HotSpot
from vivid_anvil.units import opened


@opened()
def assess_life(hot_spot: HotSpot, duty_cycle: DutyCycle, *, target: float | str | None = None) -> LifeResult:
    """Life of `hot_spot` when `duty_cycle` is repeated, with reserve factors against `target` ("30 years", or repeats).

    Raises InputError for a channel that an event does not have, an unknown mean-stress rule, a missing strength, a rule
    that contradicts the curve, and a mean stress at or beyond the ultimate strength.

    >>> from vivid_anvil.events import ConstantAmplitude, Event
    >>> from vivid_anvil.materials import Material, straight_curve
    >>> load = ConstantAmplitude.from_range("force", "3 kN", r_ratio=0.0, cycles=1000)
    >>> year = DutyCycle("year", [Event("service", load, 50)], repeats_per_year=1)
    >>> curve = straight_curve(name="detail", stress="range", r_ratio="any", point_stress=90.0, point_life=2e6, slope=3)
    >>> spot = HotSpot(name="toe", channel="force", stress_per_load="30 MPa/kN", curve=curve, material=Material(name="steel"))
    >>> assess_life(spot, year, target="30 years")
    <LifeResult toe: life 40 years, meets the target, 1 finding>
    """
    check_rule(hot_spot)
    target_repeats = None if target is None else duty_cycle.repeats_in(target)
    cycles = spectrum(hot_spot, duty_cycle)
    equivalent = cycles.equivalent_stress()
    _refuse_means_beyond_strength(cycles, equivalent)
    return LifeResult(
        hot_spot=hot_spot,
        duty_cycle=duty_cycle,
        spectrum=cycles,
        equivalent_stress=read_only(equivalent),
        damage=read_only(cycles.damage_of(equivalent)),
        target_repeats=target_repeats,
    )


def check_rule(hot_spot: HotSpot) -> None:
    """InputError unless the mean-stress rule exists, has its strength, and does not contradict the curve."""
    where = f"hot spot {hot_spot.name}"
    rule = MEAN_STRESS_RULES.get(hot_spot.mean_stress, f"{where}, mean_stress")
    checks.one_of(f"{where}, below_knee", hot_spot.below_knee, tuple(BELOW_KNEE))
    checks.one_of(f"{where}, order_rule", hot_spot.order_rule, ("none", *ORDER_RULES))
    _check_exponents(hot_spot)
    checks.one_of(f"{where}, compressive_mean", hot_spot.compressive_mean, tuple(COMPRESSIVE_MEANS))
    if not rule.corrects:
        return
    curve = hot_spot.curve
    if isinstance(curve, SNFamily) or (curve is not None and curve.r_ratio in (ANY_R, FIXED_MEAN)):
        what = {ANY_R: "which holds for any R", FIXED_MEAN: "which holds for one mean stress"}
        kind = "a family of curves" if isinstance(curve, SNFamily) else what[str(curve.r_ratio)]
        raise InputError(
            f"{where}, mean_stress",
            f"{rule.kind!r} with the curve {curve.name!r}, {kind}",
            "'none', or a curve that states its R",
            "Such a curve has the mean stress in it already.",
        )
    compressive_mean(0.0, 0.0, hot_spot.compressive_mean, rule, f"{where}, compressive_mean")
    rule.value_of(hot_spot.material, where)


def _check_exponents(hot_spot: HotSpot) -> None:
    """InputError unless exponents go with the power rule, and only with it."""
    where, given = f"hot spot {hot_spot.name}, order_exponents", hot_spot.order_exponents
    if (hot_spot.order_rule == "power rule") != bool(given):
        found = "no exponents" if not given else f"exponents with the order_rule {hot_spot.order_rule!r}"
        raise InputError(where, found, "an exponent for each event, with the power rule only")
    for event, value in given.items():
        checks.positive_number(f"{where}, {event}", value, "an exponent above 0")


def _refuse_means_beyond_strength(cycles: Spectrum, equivalent: np.ndarray) -> None:
    beyond = np.flatnonzero(~np.isfinite(equivalent))
    if not beyond.size:
        return
    worst = int(beyond[0])
    spot = cycles.hot_spot
    rule = MEAN_STRESS_RULES.get(spot.mean_stress, "mean_stress")
    event = cycles.sources[int(cycles.event[worst])].name
    start = int(cycles.cycles.start[worst])
    place = "" if start < 0 else f", the cycle that starts at sample {start}"
    raise InputError(
        f"hot spot {spot.name}, event {event}{place}",
        f"a mean stress of {cycles.cycles.mean[worst]:.4g} MPa",
        f"a mean below the {str(rule.needs).replace('_', ' ')}, {rule.value_of(spot.material, spot.name):.4g} MPa",
        f"The rule {spot.mean_stress!r} has no meaning there: the part would fail statically. Check units and stress per load.",
    )
