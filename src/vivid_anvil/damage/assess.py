"""From a hot spot and a duty cycle to a life."""

from __future__ import annotations

import dataclasses

import numpy as np

from vivid_anvil import checks
from vivid_anvil.checks import read_only
from vivid_anvil.damage.life import LifeResult
from vivid_anvil.damage.life_findings import life_findings
from vivid_anvil.damage.mean_stress import COMPRESSIVE_MEANS, mean_stress_rule
from vivid_anvil.damage.reserve import reserve_on_stress
from vivid_anvil.damage.spectrum import Spectrum, spectrum
from vivid_anvil.errors import InputError
from vivid_anvil.histories import DutyCycle
from vivid_anvil.materials import ANY_R
from vivid_anvil.stress import HotSpot


def assess_life(hot_spot: HotSpot, duty_cycle: DutyCycle, *, target: float | str | None = None) -> LifeResult:
    """Life of `hot_spot` when `duty_cycle` is repeated, with reserve factors against `target` ("30 years", or repeats).

    Raises InputError for a channel that an event does not have, an unknown mean-stress rule, a missing strength, a rule
    that contradicts the curve, and a mean stress at or beyond the ultimate strength.

    >>> from vivid_anvil.histories import ConstantAmplitude, Event
    >>> from vivid_anvil.materials import Material, SNCurve
    >>> load = ConstantAmplitude.from_range("force", "3 kN", r_ratio=0.0, cycles=1000)
    >>> year = DutyCycle("year", [Event("service", load, 50)], repeats_per_year=1)
    >>> curve = SNCurve.straight(name="detail", stress="range", r_ratio="any", point_stress=90.0, point_life=2e6, slope=3)
    >>> spot = HotSpot(name="toe", channel="force", stress_per_load="30 MPa/kN", curve=curve, material=Material(name="steel"))
    >>> assess_life(spot, year, target="30 years")
    <LifeResult toe: life 40 years (40 years), meets the target, 0 findings>
    """
    check_rule(hot_spot)
    target_repeats = None if target is None else duty_cycle.repeats_in(target)
    cycles = spectrum(hot_spot, duty_cycle)
    equivalent = cycles.equivalent_stress()
    _refuse_means_beyond_ultimate(cycles, equivalent)
    result = LifeResult(
        hot_spot=hot_spot,
        duty_cycle=duty_cycle,
        spectrum=cycles,
        equivalent_stress=read_only(equivalent),
        damage=read_only(cycles.damage()),
        target_repeats=target_repeats,
        reserve_on_stress=None if target_repeats is None else reserve_on_stress(cycles, target_repeats),
    )
    return dataclasses.replace(result, findings=life_findings(result))


def check_rule(hot_spot: HotSpot) -> None:
    """InputError unless the mean-stress rule exists, has its strength, and does not contradict the curve."""
    where = f"hot spot {hot_spot.name}"
    rule = mean_stress_rule(hot_spot.mean_stress, f"{where}, mean_stress")
    checks.one_of(f"{where}, compressive_mean", hot_spot.compressive_mean, tuple(COMPRESSIVE_MEANS))
    if rule.needs is None:
        return
    if hot_spot.curve is not None and hot_spot.curve.r_ratio == ANY_R:
        raise InputError(
            f"{where}, mean_stress",
            f"{rule.name!r} with the curve {hot_spot.curve.name!r}, which holds for any R",
            "'none', or a curve that states its R",
            "A curve for any R has the mean stress in it already.",
        )
    hot_spot.material.needed(rule.needs, f"the mean-stress rule {rule.name} of {where}")


def _refuse_means_beyond_ultimate(cycles: Spectrum, equivalent: np.ndarray) -> None:
    beyond = np.flatnonzero(~np.isfinite(equivalent))
    if not beyond.size:
        return
    worst = int(beyond[0])
    spot = cycles.hot_spot
    event = cycles.sources[int(cycles.event[worst])].name
    start = int(cycles.cycles.start[worst])
    place = "" if start < 0 else f", the cycle that starts at sample {start}"
    raise InputError(
        f"hot spot {spot.name}, event {event}{place}",
        f"a mean stress of {cycles.cycles.mean[worst]:.4g} MPa",
        f"a mean below the ultimate strength, {spot.material.ultimate_strength:.4g} MPa",
        f"The rule {spot.mean_stress!r} has no meaning there: the part would fail statically. Check units and stress per load.",
    )
