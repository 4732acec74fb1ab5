"""What an expert would say about a life result."""

from __future__ import annotations

from collections.abc import Callable, Iterator

import numpy as np

from vivid_anvil.counting import Cycles, turning_points
from vivid_anvil.damage.expected_findings import expected_findings
from vivid_anvil.damage.input_findings import input_findings
from vivid_anvil.damage.life_numbers import Life
from vivid_anvil.events.counting_findings import counting_findings
from vivid_anvil.ground.checks import FloatArray
from vivid_anvil.ground.errors import listed
from vivid_anvil.stress.vibration_findings import vibration_findings
from vivid_anvil.units import number
from vivid_anvil.writing.finding import Finding, gravest_first

FEW_SAMPLES = 10.0
FEW_CYCLES = 5
HOURS = {"hour": 1.0, "day": 24.0, "week": 168.0, "month": 744.0, "year": 8784.0}
LONGER = 1.01
NEXT_TO_NOTHING = 2e-4  # of the time of a repeat


def life_findings(result: Life) -> tuple[Finding, ...]:
    """All findings on `result`, the gravest first."""
    of_method = result.method.findings(result)
    return gravest_first([*of_method, *(finding for look in LOOKS for finding in look(result))])


def _inputs(result: Life) -> Iterator[Finding]:
    yield from input_findings(result.hot_spot, result.lowest_stress, result.peak_stress)
    yield from vibration_findings(result.hot_spot, result.duty_cycle)
    yield from expected_findings(result)


def _few_cycles(result: Life) -> Iterator[Finding]:
    total = result.damage_per_repeat
    if total == 0.0:
        return
    cycles = result.spectrum.cycles
    single = (cycles.start >= 0) & (result.damage > 0.0)
    order = np.argsort(-np.where(single, result.damage, 0.0))[:FEW_CYCLES]
    share = float(result.damage[order][single[order]].sum()) / total
    if share > 0.5:
        names = sorted({result.spectrum.sources[int(result.spectrum.event[i])].name for i in order})
        yield Finding(
            "note",
            "few-cycles",
            f"The {len(order)} largest counted cycles (of {', '.join(names)}) carry {share:.0%} of the damage.",
            "The life hangs on how well these few were measured, and on how often they really happen.",
        )


def _samples_per_cycle(result: Life) -> Iterator[Finding]:
    if result.method.tensors:  # it says itself whether a path is coarse
        return
    for i, source in enumerate(result.spectrum.sources):
        of = np.flatnonzero((result.spectrum.event == i) & (result.damage > 0.0))
        damage = result.damage[of]
        untimed = source.history is None or source.history.steps != "even"
        if untimed or source.history is None or damage.sum() <= 0.01 * result.damage_per_repeat:
            continue
        values = source.history[str(result.hot_spot.fed.counted)].values
        samples = samples_per_cycle(values, result.spectrum.cycles.chosen(of), damage)
        if samples < FEW_SAMPLES:
            yield Finding(
                "warning",
                "few-samples",
                f"The damaging cycles of {source.name} have about {samples:.1f} samples each.",
                f"Peaks are cut off below about {FEW_SAMPLES:.0f} samples per cycle: measure at a higher rate.",
            )


def samples_per_cycle(values: FloatArray, cycles: Cycles, damage: FloatArray) -> float:
    """Samples in a sine whose peaks are as sharp as those of the damaging cycles; inf for a list of turning points.

    From a peak to the samples beside it a sine of amplitude A with n samples a cycle drops by A (1 - cos(2π / n));
    noise, which is small against a damaging cycle, hardly moves this.
    """
    ends = np.stack([cycles.start, cycles.end])
    inner = ((ends > 0) & (ends < values.size - 1)).all(axis=0)
    if not inner.any() or turning_points(values).size == values.size:
        return np.inf
    ends = ends[:, inner]
    drops = 0.5 * (np.abs(values[ends] - values[ends - 1]) + np.abs(values[ends] - values[ends + 1]))
    amplitude = 0.5 * np.abs(values[ends[0]] - values[ends[1]])
    drop = float(np.average(drops.mean(axis=0) / amplitude, weights=damage[inner]))
    return float(2.0 * np.pi / np.arccos(max(1.0 - drop, -1.0))) if drop > 0.0 else np.inf


def _nothing_happens(result: Life) -> Iterator[Finding]:
    for event, _ in result.duty_cycle.flat():
        low, high = event.extremes(result.hot_spot.fed.counted)
        if low == high:
            yield Finding(
                "warning",
                "constant-load",
                f"The load of {event.name} never changes: it has no cycle.",
                "Is it the right channel, and is the file complete?",
            )


def _counting(result: Life) -> Iterator[Finding]:
    yield from counting_findings(result.duty_cycle)


def _units_of_time(result: Life) -> Iterator[Finding]:
    hours = result.duty_cycle.hours
    per_year = result.duty_cycle.repeats_per_year
    if hours is not None and per_year is not None and hours * per_year > 8784.0:
        yield Finding(
            "severe",
            "more-than-a-year",
            f"The events of a year take {number(hours * per_year)} h; a year has 8766 h.",
            "Check occurrences, repeats per year and the sample rate.",
        )


def _longer_than_a_repeat(result: Life) -> Iterator[Finding]:
    """A repeat that is called by a time which its events do not have."""
    hours, repeat = result.duty_cycle.hours, result.duty_cycle.repeat
    known = HOURS.get(repeat)
    if hours is not None and known is not None and hours > LONGER * known:
        yield Finding(
            "severe",
            "longer-than-repeat",
            f"The events of one {repeat} take {number(hours)} h; a {repeat} has {number(known)} h.",
            "Check exposures and occurrences: the exposure is that of one occurrence.",
        )


def _next_to_no_time(result: Life) -> Iterator[Finding]:
    """Vibration whose exposure is next to nothing of the time that a repeat has."""
    duty = result.duty_cycle
    hours, per_year = duty.hours, duty.repeats_per_year
    known = HOURS.get(duty.repeat, HOURS["year"] / per_year if per_year is not None else None)
    shaken = [one.name for one, _ in duty.flat() if one.load.gives & {"lines", "cross-spectra"}]
    if shaken and hours is not None and known is not None and hours < NEXT_TO_NOTHING * known:
        yield Finding(
            "note",
            "exposure-short",
            f"The events of one {duty.repeat}, among them {listed(shaken)}, take {number(3600.0 * hours)} s of the "
            f"{number(known)} h that it has.",
            "Is the exposure meant in hours? Life in repeats and in years stands on it; damage a second does not.",
        )


def _reserve_with_constant(result: Life) -> Iterator[Finding]:
    if result.target_repeats is not None and result.hot_spot.fed.scaled_along:
        yield Finding(
            "note",
            "reserve-with-constant",
            "The reserve on stress is a factor on the counted stress, also on what is in it all the time.",
            "For a factor on the loads alone change them: what-if, or solve again.",
        )


LOOKS: tuple[Callable[[Life], Iterator[Finding]], ...] = (
    _inputs,
    _counting,
    _units_of_time,
    _samples_per_cycle,
    _few_cycles,
    _nothing_happens,
    _longer_than_a_repeat,
    _next_to_no_time,
    _reserve_with_constant,
)
