"""From a hot spot and a duty cycle to a life."""

from __future__ import annotations

import numpy as np

from vivid_anvil.damage.life import LifeResult
from vivid_anvil.damage.spectrum import Spectrum, spectrum
from vivid_anvil.events import DutyCycle
from vivid_anvil.ground.checks import FloatArray, read_only
from vivid_anvil.ground.errors import InputError
from vivid_anvil.stress import HotSpot
from vivid_anvil.units import opened


@opened()
def assess_life(hot_spot: HotSpot, duty_cycle: DutyCycle, *, target: float | str | None = None) -> LifeResult:
    """Life of `hot_spot` when `duty_cycle` is repeated, with reserve factors against `target` ("30 years", or repeats).

    Parameters
    ----------
    hot_spot : HotSpot
        The place that is assessed.
    duty_cycle : DutyCycle
        The events of one repeat.
    target : float or str, optional
        How long it shall last: repeats, or text such as "30 years".

    Returns
    -------
    LifeResult
        The life with its findings, working, tables.

    Raises
    ------
    InputError
        For a channel that an event does not have, an unknown mean-stress rule, a missing strength, a rule that
        contradicts the curve, and a mean stress at or beyond the ultimate strength.

    Examples
    --------
    >>> from vivid_anvil.events import ConstantAmplitude, Event
    >>> from vivid_anvil.materials import Material, straight_curve
    >>> from vivid_anvil.damage.methods import StressLife
    >>> from vivid_anvil.stress import OneLoad
    >>> load = ConstantAmplitude.from_range("force", "3 kN", r_ratio=0.0, cycles=1000)
    >>> year = DutyCycle("year", [Event("service", load, 50)], repeats_per_year=1)
    >>> curve = straight_curve(name="detail", stress="range", r_ratio="any", point_stress=90.0, point_life=2e6, slope=3)
    >>> spot = HotSpot(
    ...     name="toe",
    ...     relation=OneLoad("force", "30 MPa/kN"),
    ...     material=Material(name="steel"),
    ...     method=StressLife(sn_curve=curve),
    ... )
    >>> assess_life(spot, year, target="30 years")
    <LifeResult toe: life 40 years, meets the target, 1 finding>
    """
    target_repeats = None if target is None else duty_cycle.repeats_in(target)
    cycles = spectrum(hot_spot, duty_cycle)
    equivalent = cycles.equivalent_stress()
    _refuse_failing_at_once(cycles, equivalent)
    return LifeResult(
        hot_spot=hot_spot,
        duty_cycle=duty_cycle,
        spectrum=cycles,
        equivalent_stress=read_only(equivalent),
        damage=read_only(cycles.damage_of(equivalent)),
        target_repeats=target_repeats,
    )


def _refuse_failing_at_once(cycles: Spectrum, terms: FloatArray) -> None:
    """InputError for the first cycle that fails the place at once: life has no meaning there."""
    beyond = np.flatnonzero(~np.isfinite(terms))
    if not beyond.size:
        return
    worst, spot = int(beyond[0]), cycles.hot_spot
    event, start = cycles.sources[int(cycles.event[worst])].name, int(cycles.cycles.start[worst])
    place = "" if start < 0 else f", the cycle that starts at sample {start}"
    found, expected, remedy = spot.assessed_by.beyond(spot, float(cycles.cycles.mean[worst]))
    raise InputError(f"hot spot {spot.name}, event {event}{place}", found, expected, remedy)
