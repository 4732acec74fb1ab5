"""What an expert would say of a hot spot before anything is counted: units of curve, strengths and loads held against each other.

In: a hot spot, and the lowest and highest local stress of its duty cycle, MPa. Out: findings, also part of those of a life.
"""

from __future__ import annotations

import math
from collections.abc import Iterator

from vivid_anvil.events import DutyCycle
from vivid_anvil.materials import SNCurve
from vivid_anvil.stress import HotSpot
from vivid_anvil.stress.vibration_findings import vibration_findings
from vivid_anvil.units import in_unit, number, opened
from vivid_anvil.writing.finding import Finding, gravest_first

STRESS_SCALE = 20.0  # times the ultimate strength
TOO_SMALL = 50.0  # times what first does damage
LONG_LIFE = 1e8  # cycles, where a curve without a limit is looked at instead
SHORT_LIFE, SHORTEST_OF_CLASSES = 1e3, 1e4  # cycles, where a curve is held against the strength
SAME = 2e-3  # share within which two strengths are one number


@opened()
def findings_before_counting(hot_spot: HotSpot, duty_cycle: DutyCycle) -> tuple[Finding, ...]:
    """What can be said of a hot spot and its loads without counting a cycle, the gravest first.

    Raises InputError for a channel that an event does not have.
    """
    low, high = hot_spot.extremes(duty_cycle)
    reference = None if hot_spot.method is None else hot_spot.method.reference
    own = reference.findings if reference is not None else ()
    first = () if hot_spot.method is None else hot_spot.method.before(hot_spot, duty_cycle)
    return gravest_first(
        [*own, *first, *input_findings(hot_spot, low, high), *vibration_findings(hot_spot, duty_cycle)]
    )


def input_findings(spot: HotSpot, lowest: float, highest: float) -> Iterator[Finding]:
    """The findings on curve, strengths and the range of local stress, MPa; of strains the method speaks itself."""
    if spot.method is not None and spot.method.takes != "stresses":
        return
    yield from _peak_stress(spot, max(highest, -lowest))
    curve = None if spot.method is None else spot.method.reference
    if curve is not None:
        yield from _too_small(curve, max(highest, -lowest))
        yield from _curve_scale(spot, curve)
        yield from _limit_called_strength(spot, curve)


def _peak_stress(spot: HotSpot, peak: float) -> Iterator[Finding]:
    ultimate, yielding = spot.material.ultimate_strength, spot.material.yield_strength
    if ultimate is not None and peak > STRESS_SCALE * ultimate:
        yield Finding(
            "severe",
            "stress-scale",
            f"The largest stress, {in_unit(peak, 'stress')}, is {peak / ultimate:.0f} times the ultimate strength.",
            "Is the load in N where the header says kN, or the stress per load in Pa?",
        )
    elif spot.method is not None and not spot.method.elastic:
        return
    elif ultimate is not None and peak >= ultimate:
        yield Finding(
            "severe",
            "above-ultimate",
            f"The largest local stress, {in_unit(peak, 'stress')}, is above the ultimate strength, "
            f"{in_unit(ultimate, 'stress')}.",
            "The part fails statically, or the elastic stress at the notch is far from real: check before using the life.",
        )
    elif yielding is not None and peak > yielding:
        yield Finding(
            "warning",
            "above-yield",
            f"The largest local stress, {in_unit(peak, 'stress')}, is above the yield strength, {in_unit(yielding, 'stress')}.",
            "Stress-life assumes elastic behaviour: confirm with a local-strain assessment, or lower the stress.",
        )


def _too_small(curve: SNCurve, peak: float) -> Iterator[Finding]:
    """A load so small that nobody would assess it: mostly a unit."""
    level = curve.limit if curve.has_limit else max(float(curve.stress_at(LONG_LIFE)), 0.0)
    needed = level * (0.5 if curve.stress == "range" else 1.0)
    if 0.0 < peak * TOO_SMALL < needed < math.inf:
        yield Finding(
            "warning",
            "load-small",
            f"The largest stress, {in_unit(peak, 'stress')}, is 1/{needed / peak:.0f} of the amplitude that first does damage on "
            f"the curve {curve.name}, {in_unit(needed, 'stress')}.",
            "A load in kN headed N, a stress per load in the wrong unit, a curve in Pa or psi? Nobody assesses a part so idle.",
        )


def _curve_scale(spot: HotSpot, curve: SNCurve) -> Iterator[Finding]:
    """The curve against the ultimate strength: at a million cycles, and where its stresses are largest."""
    ultimate = spot.material.ultimate_strength
    if ultimate is None:
        return
    half = 0.5 if curve.stress == "range" else 1.0
    at_million = float(curve.stress_at(1e6))
    amplitude = half * (at_million if 0.0 < at_million < math.inf else curve.limit)
    advice = "Check the unit of the curve, and whether its stress is a range or an amplitude."
    if not 0.02 * ultimate <= amplitude <= ultimate:
        yield Finding(
            "warning",
            "curve-scale",
            f"The S-N curve at a million cycles, an amplitude of {in_unit(amplitude, 'stress')}, is "
            f"{number(amplitude / ultimate)} times the ultimate strength; 0.05 to 0.6 is usual.",
            advice,
        )
        return
    early = max(curve.tested_from, SHORT_LIFE)
    low, high = float(curve.stress_at(early)), float(curve.stress_at(max(early, SHORTEST_OF_CLASSES)))
    if half * high > ultimate and math.isfinite(high):
        yield Finding(
            "warning",
            "curve-scale",
            f"At {number(max(early, SHORTEST_OF_CLASSES))} cycles the S-N curve bears a stress {curve.stress} of "
            f"{in_unit(high, 'stress')}, an amplitude above the ultimate strength, {in_unit(ultimate, 'stress')}.",
            "No material does: is an amplitude declared as a range twice as large, or the curve in another unit?",
        )
    elif early <= SHORT_LIFE and curve.stress == "range" and low < 0.3 * ultimate:
        yield Finding(
            "warning",
            "curve-scale",
            f"At {number(early)} cycles the S-N curve bears a stress range of only {in_unit(low, 'stress')}, "
            f"{number(low / ultimate)} times the ultimate strength.",
            advice,
        )


def _limit_called_strength(spot: HotSpot, curve: SNCurve) -> Iterator[Finding]:
    """A strength that is the very number of the curve's last point."""
    for name in ("yield_strength", "ultimate_strength"):
        strength = getattr(spot.material, name)
        if strength is not None and abs(strength / curve.limit - 1.0) < SAME:
            words = name.replace("_", " ")
            yield Finding(
                "warning",
                "limit-called-strength",
                f"The {words} of {spot.material.name}, {in_unit(strength, 'stress')}, is the very stress of the last point "
                f"of the S-N curve {curve.name}.",
                f"Is this the {words}, or the fatigue limit?",
            )
