"""What an expert would say about a growth result."""

from __future__ import annotations

import math
from collections.abc import Callable, Iterator
from typing import TYPE_CHECKING

import numpy as np

from vivid_anvil.events.calendar import amount
from vivid_anvil.events.counting_findings import counting_findings
from vivid_anvil.ground.errors import InputError
from vivid_anvil.growth.growth_numbers import Growth
from vivid_anvil.growth.limits import ENDS_OF_SOLUTION
from vivid_anvil.stress.vibration_findings import vibration_findings
from vivid_anvil.units import coherent, in_unit, number
from vivid_anvil.writing.finding import Finding, gravest_first

if TYPE_CHECKING:
    from vivid_anvil.materials import GrowthLaw

NOT_CONVERGED = 1.0e-3
SHORT_CRACK = 0.1
R_DIFFERENCE = 0.15
SLOWEST, FASTEST = 3e-5, 1e-1  # mm per cycle at 30 MPa√m
ATOM_SPACING = 2.5e-7  # mm
RETARDED = 1.2
OUTSIDE = 0.01  # share of the growth
ABOVE_LAW = 0.1  # share of rates
BEYOND_TESTS = 1.1


def growth_findings(result: Growth) -> tuple[Finding, ...]:
    """All findings on `result`, the gravest first."""
    return gravest_first(finding for look in LOOKS for finding in look(result))


def _counting(result: Growth) -> Iterator[Finding]:
    yield from counting_findings(result.duty_cycle)
    yield from vibration_findings(result.crack.hot_spot, result.duty_cycle)


def _already_critical(result: Growth) -> Iterator[Finding]:
    start, limit = result.crack.initial_size, result.critical.limiting
    if start >= limit:
        yield Finding(
            "severe",
            "critical-at-start",
            f"The initial size, {in_unit(start, 'length')}, is at or beyond the limiting size, {in_unit(limit, 'length')} "
            f"({result.critical.governed_by}).",
            "There is no life to calculate: check size, toughness and peak stress.",
        )


def _detection(result: Growth) -> Iterator[Finding]:
    size, interval = result.crack.detectable_size, result.interval_repeats
    if size is None or interval is None:
        return
    if interval == 0.0:
        yield Finding(
            "severe",
            "found-too-late",
            f"The detectable size, {in_unit(size, 'length')}, is at or beyond the limiting size, "
            f"{in_unit(result.critical.limiting, 'length')}.",
            "Inspection of this kind cannot prevent failure: use a finer method or a tougher design.",
        )
    elif interval < 1.0:
        yield Finding(
            "warning",
            "interval-short",
            f"The inspection interval is {number(interval)} of a {result.duty_cycle.repeat}.",
            "It is shorter than one repeat of the duty cycle: choose a shorter repeat to resolve it.",
        )


def _convergence(result: Growth) -> Iterator[Finding]:
    if result.halving_change > NOT_CONVERGED:
        yield Finding(
            "severe",
            "not-converged",
            f"Halving every step would change the life by {result.halving_change:.2%}.",
            "The growth rate jumps in a way that the steps do not resolve: report it with the study.",
        )
    if 0.0 < result.life_repeats < 20.0:
        yield Finding(
            "note",
            "few-repeats",
            f"The crack grows to its limit in {amount(result.life_repeats, result.duty_cycle.repeat)}.",
            "Growth is spread evenly over each repeat: choose a shorter repeat if the order within it matters.",
        )


def _law_and_load_r(result: Growth) -> Iterator[Finding]:
    law = result.crack.law
    if law.r_ratio is None or math.isinf(result.life_repeats):
        return
    delta_k, r_ratio = result.depth_cycles(result.crack.initial_size)
    weights = result.drive.per_repeat * delta_k**law.slope
    load = float((weights * np.clip(r_ratio, -1.0, 1.0)).sum() / weights.sum())
    if abs(load - law.r_ratio) > R_DIFFERENCE:
        unsafe = load > law.r_ratio
        yield Finding(
            "warning" if unsafe else "note",
            "growth-r-differs",
            f"The growth law holds for R = {law.r_ratio:g}; the cycles that grow the crack have R of about {number(load, 2)}.",
            "Cracks grow faster at higher R: use constants for this R."
            if unsafe
            else "The law is on the safe side for R.",
        )


def _stays_in_compression(result: Growth) -> Iterator[Finding]:
    drive, crack = result.drive, result.crack
    shut = (drive.maximum <= 0.0) & (drive.ranges > 0.0)
    if crack.counted_part != "full" or drive.counts_shut(crack.law) or crack.always is not None or not shut.any():
        return
    yield Finding(
        "severe" if float(drive.ranges[shut].max()) > 0.5 * float(drive.ranges.max()) else "warning",
        "compression-left-out",
        f"{number(float(drive.per_repeat[shut].sum()))} cycles a {result.duty_cycle.repeat} stay in compression, with ranges "
        f"up to {in_unit(float(drive.ranges[shut].max()), 'stress')}. The law {crack.law.name} ({crack.law.kind}) asks "
        "for R, which they do not have: they grow nothing, though the full range is to count.",
        "State the residual stress that holds the crack open, which gives them their R, or take a law that does not ask for R.",
    )


def share_outside_r(result: Growth) -> float:
    """Share of the growth, at the initial or at the final size, by cycles whose R lies where the law was never tested."""
    law, most = result.crack.law, 0.0
    low, high = law.known_r
    start = result.crack.initial_size
    if low == -math.inf and high >= 1.0:
        return 0.0
    for size in dict.fromkeys((start, max(start, 0.999 * result.final_size))):  # within the solution
        for delta_k, r_ratio in result.end_cycles(size):
            growth = result.drive.per_repeat * law.growth(delta_k, r_ratio, size)
            total = float(growth.sum())
            if 0.0 < total < math.inf:
                outside = (r_ratio < low - 1e-9) | (r_ratio > high + 1e-9)
                most = max(most, float(growth[outside].sum()) / total)
    return most


def _law_beyond_its_r(result: Growth) -> Iterator[Finding]:
    share, law = share_outside_r(result), result.crack.law
    if share > OUTSIDE:
        low, high = law.known_r
        yield Finding(
            "severe",
            "law-beyond-r",
            f"{share:.0%} of the growth comes from cycles at an R where the law {law.name} ({law.kind}) was never tested: it "
            f"holds from R = {number(low, 3)} to {number(high, 3)}.",
            "Such a law may be many times too slow there: take another form, or state valid_r where you have tests.",
        )


def _secondary_with_curve(result: Growth) -> Iterator[Finding]:
    crack = result.crack
    if crack.residual_stress is not None and crack.limits == "assessment curve":
        yield Finding(
            "note",
            "interaction",
            "Residual stress and load together: plasticity raises K_r by ρ of the simplified procedure.",
            "It is on the safe side; where ρ decides, assess the flaw in detail.",
        )


def _constants(result: Growth) -> Iterator[Finding]:
    law = result.crack.law
    at = coherent("30 MPa√m", "stress intensity", "check")
    advice = "Are the units of the constant those of its source (m or mm per cycle, MPa√m or MPa√mm)?"
    rate = _rate(law, at)
    if rate is not None and not SLOWEST <= rate <= FASTEST:
        words = "less than an atom's spacing" if rate < ATOM_SPACING else "metals grow 1e-4 to 1e-2 there"
        yield Finding(
            "warning" if rate >= ATOM_SPACING else "severe",
            "growth-constants",
            f"At ΔK = 30 MPa√m the law gives {number(rate)} mm per cycle; {words}.",
            advice,
        )
    threshold = float(law.threshold_at(0.0))
    first = _rate(law, 1.001 * threshold) if threshold > 0.0 else None
    if first is not None and first > 1.0:
        yield Finding(
            "severe",
            "growth-constants",
            f"At its threshold the law gives {number(first)} mm per cycle, more than 1 mm.",
            advice,
        )


def _rate(law: GrowthLaw, delta_k: float) -> float | None:
    """mm per cycle at R = 0; None where the law ends before, by fracture or as a table."""
    try:
        rate = float(law.growth(delta_k, 0.0))
    except InputError:
        return None
    return rate if math.isfinite(rate) and rate > 0.0 else None


def _law_ends(result: Growth) -> Iterator[Finding]:
    """A cycle at which the law itself says fracture, at the initial size."""
    size, law = result.crack.initial_size, result.crack.law
    if any(bool(np.isinf(law.growth(*one, size)).any()) for one in result.end_cycles(size)):
        yield Finding(
            "severe",
            "law-fracture-at-start",
            f"At the initial size K reaches the toughness within the growth law {law.name}.",
            "The crack is critical at once by the law: compare its toughness with the material's and with the peak stress.",
        )


def _memory(result: Growth) -> Iterator[Finding]:
    """What retardation does to the life, and where it has no end."""
    kind, plain = result.crack.retardation.kind, result.without_memory_repeats
    if plain is None or not 0.0 < plain < math.inf:
        return
    repeat = result.duty_cycle.repeat
    if math.isinf(result.life_repeats):
        yield Finding(
            "warning",
            "retardation-arrest",
            f"With {kind} the crack does not reach its limit in the cycles followed; without it, in {amount(plain, repeat)}.",
            "Nobody should count on arrest: check exponent, shut-off ratio and yield strength, or leave retardation out.",
        )
    elif result.life_repeats > RETARDED * plain:
        yield Finding(
            "note",
            "retardation-counts",
            f"The life is {number(result.life_repeats / plain)} times that without {kind} ({amount(plain, repeat)}).",
            "Use it only where tests of this material under this kind of loading support it.",
        )


def _sizes(result: Growth) -> Iterator[Finding]:
    start = result.crack.initial_size
    if start < SHORT_CRACK:
        yield Finding(
            "warning",
            "short-crack",
            f"The initial size is {in_unit(start, 'length')}.",
            "Below about 0.1 mm cracks grow faster than the law for long cracks says. Is the unit right?",
        )
    if math.isinf(result.life_repeats):
        delta_k, r_ratio = result.depth_cycles(start)
        largest = int(np.argmax(delta_k)) if delta_k.size else 0
        at_r = float(r_ratio[largest]) if delta_k.size else 0.0
        threshold = float(result.crack.law.threshold_at(at_r, start))
        yield Finding(
            "note",
            "no-growth",
            f"The largest range of K that counts at {in_unit(start, 'length')}, "
            f"{in_unit(float(delta_k.max(initial=0.0)), 'stress intensity')}, does not reach the threshold, "
            f"{in_unit(threshold, 'stress intensity')}.",
            "A larger flaw or a single larger cycle would start it: see how far the size is from growing.",
        )
    if result.crack.hot_spot.notch_factor > 1.0:
        yield Finding(
            "note",
            "notch-left-out",
            f"The crack is driven by the nominal stress; the notch factor {result.crack.hot_spot.notch_factor:g} is left out.",
            "While the crack is shorter than the notch is deep, its stress intensity is higher.",
        )


def _why_limited(result: Growth) -> Iterator[Finding]:
    if result.governed_by in ENDS_OF_SOLUTION and result.stopped_by != "no growth":
        ends = result.stages[-1]
        yield Finding(
            "note",
            "solution-ends",
            f"The stress intensity solution ends at {in_unit(ends.critical.limiting, 'length')}, before toughness or net "
            "section is reached.",
            "The life is counted to there; the true critical size is larger.",
        )


def _at_the_surface(result: Growth) -> Iterator[Finding]:
    """An embedded crack that is deeper for its length at the surface than solutions know."""
    if result.then is None or result.half_lengths is None:
        return
    added = result.crack.shape.widening(float(result.sizes[-1]), float(result.half_lengths[-1]))
    half = result.then.crack.initial_half_length
    if added > 0.0 and half is not None:
        yield Finding(
            "note",
            "taken-longer",
            f"At the surface the crack is taken as {in_unit(2.0 * half, 'length')} long; it is {in_unit(2.0 * added, 'length')} "
            "shorter.",
            "Solutions end where a surface crack is as deep as it is long: the life from there on is on the safe side.",
        )


def _tests(result: Growth) -> Iterator[Finding]:
    """How the law lies to the tests that are named with it."""
    tests, law = result.tests, result.crack.law
    if tests is None:
        return
    known = law.growth(tests.ranges, tests.r_ratio)
    above = float((tests.rates > known).mean())
    if above > ABOVE_LAW:
        yield Finding(
            "warning",
            "law-below-tests",
            f"{above:.0%} of the measured rates lie above the growth law {law.name}, the worst by a factor of "
            f"{number(float((tests.rates / np.maximum(known, 1e-300)).max()), 3)}.",
            "The law is on the unsafe side of its tests: fit it with above_mean = 2, or say why the tests do not count.",
        )
    least, most = float(tests.ranges.min()), float(tests.ranges.max())
    largest = result.largest_range_k(result.final_size)
    if largest > BEYOND_TESTS * most:
        yield Finding(
            "note",
            "beyond-tests",
            f"ΔK goes to {in_unit(largest, 'stress intensity')}; the tests go from {in_unit(least, 'stress intensity')} to "
            f"{in_unit(most, 'stress intensity')}.",
            "There the law is not backed by its tests.",
        )


LOOKS: tuple[Callable[[Growth], Iterator[Finding]], ...] = (
    _already_critical,
    _counting,
    _detection,
    _convergence,
    _law_and_load_r,
    _law_beyond_its_r,
    _stays_in_compression,
    _secondary_with_curve,
    _constants,
    _law_ends,
    _memory,
    _sizes,
    _why_limited,
    _at_the_surface,
    _tests,
)
