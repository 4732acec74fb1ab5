"""What an expert says of damage by expected cycles: a formula that does not fit the spectrum or the curve, and what scatters."""

from __future__ import annotations

import dataclasses
from collections.abc import Iterator
from typing import Any

import numpy as np

from vivid_anvil.counting import Cycles
from vivid_anvil.counting.cycles import BLOCK
from vivid_anvil.damage.converged import converged
from vivid_anvil.damage.life_numbers import Life
from vivid_anvil.ground.checks import FloatArray
from vivid_anvil.spectra.methods import EXPECTED_CYCLES
from vivid_anvil.spectra.non_gaussian import COEFFICIENTS, hermite_form
from vivid_anvil.spectra.synthesis import standard_error
from vivid_anvil.units import number
from vivid_anvil.writing.finding import Finding

TOO_MUCH = 1.1  # times the damage by the usual formula
NEAR = 0.02  # share within which two slopes are one
USUAL = "dirlik"


def expected_findings(result: Life) -> Iterator[Finding]:
    """Of each random event with a share of the damage."""
    if result.damage_per_repeat == 0.0:
        return
    yield from _one_slope(result)
    for i, (event, _) in enumerate(result.duty_cycle.flat()):
        seen: Any = event.seen(result.hot_spot.fed.counted).one_channel(str(result.hot_spot.fed.counted))
        share = float(result.damage[result.spectrum.event == i].sum()) / result.damage_per_repeat
        if share < 0.01:
            continue
        if "cross-spectra" in seen.gives:
            yield from _wide_band(result, event.name, seen)
            yield from _kurtosis(result, event.name, seen)
        yield from scatter_of_synthesis(event.name, result.spectrum.cycles, result.damage, i)


def damage_of(result: Life, cycles: Cycles) -> float:
    """Damage of the cycles of what is counted, in one occurrence of them."""
    spot = result.hot_spot
    factor = spot.notch_factor * spot.fed.factor(result.duty_cycle)
    local = converged(spot, cycles.linear(factor, spot.notch_factor * spot.fed.offset, "stress"))
    method = spot.assessed_by
    return float(method.damage(spot, method.terms(spot, local), local.per_repeat).sum())


def _wide_band(result: Life, event: str, seen: Any) -> Iterator[Finding]:
    if result.duty_cycle.expected_cycles != "narrow band" or seen.tones:
        return
    usual = damage_of(result, seen.cycles_of(seen.channel, method=USUAL))
    factor = damage_of(result, seen.cycles_of(seen.channel, method="narrow band")) / usual if usual else np.inf
    if factor > TOO_MUCH:
        yield Finding(
            "warning",
            "narrow-band-on-wide",
            f"{event} is no narrow band (irregularity {seen.process.irregularity:.2f}): the narrow-band formula does "
            f"{number(factor, 3)} times the damage of {USUAL!r}.",
            'It is on the safe side, at that price: take expected_cycles = "dirlik".',
        )


def _one_slope(result: Life) -> Iterator[Finding]:
    """A formula of one slope beside a curve of others."""
    duty, spot = result.duty_cycle, result.hot_spot
    curve = spot.assessed_by.reference
    if not EXPECTED_CYCLES[duty.expected_cycles].one_slope or duty.expected_slope is None or curve is None:
        return
    if not any("cross-spectra" in event.load.gives for event, _ in duty.flat()):
        return
    used = result.equivalent_stress[result.damage > 0.0]
    slopes = {round(float(curve.slope_at(float(one))), 6) for one in np.quantile(used, (0.0, 0.25, 0.5, 0.75, 1.0))}
    if any(abs(one / duty.expected_slope - 1.0) > NEAR for one in slopes):
        listed = " and ".join(number(one, 3) for one in sorted(slopes))
        yield Finding(
            "warning",
            "slope-differs",
            f"The formula {duty.expected_cycles!r} was asked for a slope of {number(duty.expected_slope)}; where the cycles do "
            f"their damage the curve {curve.name} has {listed}.",
            "It holds for one slope only: state that of the curve, or take a formula that gives ranges, such as 'dirlik'.",
        )


def _kurtosis(result: Life, event: str, seen: Any) -> Iterator[Finding]:
    """The two ways to meet a kurtosis, both shown."""
    if seen.shaping.form is None:
        return
    stated = _stated(result, event)
    gauss = dataclasses.replace(seen, shaping=seen.shaping._replace(form=None))
    method, slope = result.duty_cycle.expected_cycles, result.duty_cycle.expected_slope
    base = damage_of(result, gauss.cycles_of(seen.channel, method=method, slope=slope))
    if base == 0.0:
        return
    times = {}
    for how in COEFFICIENTS:
        form = hermite_form(*stated, coefficients=how)
        other = dataclasses.replace(seen, shaping=seen.shaping._replace(form=form))
        times[how] = damage_of(result, other.cycles_of(seen.channel, method=method, slope=slope)) / base
    yield Finding(
        "note",
        "not-gaussian",
        f"{event} has a kurtosis of {number(stated[0])}: {number(times['exact'], 3)} times the damage of Gauss with "
        f"coefficients that meet it, {number(times['usual'], 3)} times with the usual ones, which overshoot.",
        "How far they lie apart tells how far to trust either: compare with a history counted by rainflow.",
    )


def _stated(result: Life, event: str) -> tuple[float, float]:
    """Kurtosis and skewness as the event states them."""
    load: Any = next(one.load for one, _ in result.duty_cycle.flat() if one.name == event)
    return float(load.kurtosis), float(load.skewness)


def scatter_of_synthesis(event: str, cycles: Cycles, damage: FloatArray, i: int) -> Iterator[Finding]:
    """Of an event, the source `i` of cycles with this damage: tones on a wide band, whose cycles were counted in a synthesis."""
    own = np.flatnonzero(cycles.event == i)
    if BLOCK not in cycles.columns or not (cycles.columns[BLOCK][own] >= 0.0).any():
        return
    error = standard_error(cycles.chosen(own), damage[own])
    yield Finding(
        "warning" if error > 0.05 else "note",
        "counted-synthesis",
        f"Cycles of {event}, tones on a wide band, are counted in a seeded synthesis: the standard error of their damage is "
        f"{error:.1%}.",
        "Another seed gives another damage within that; formulas hold without tones only.",
    )
