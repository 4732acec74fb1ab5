"""What an expert would say about a life by an S-N curve: the curve against the load, its ends, its limit, the rule."""

from __future__ import annotations

import math
from collections.abc import Callable, Iterator
from typing import TYPE_CHECKING, Protocol

import numpy as np

from vivid_anvil.counting.cycles import PANEL
from vivid_anvil.ground.checks import BoolArray
from vivid_anvil.materials import ANY_R, Curve, SNCurve
from vivid_anvil.units import in_unit, number
from vivid_anvil.writing.finding import Finding

if TYPE_CHECKING:
    from vivid_anvil.damage.life_numbers import Life


class ByCurve(Protocol):
    """What is looked at of a method that goes by an S-N curve."""

    @property
    def sn_curve(self) -> Curve:
        """The curve, or the family."""

    @property
    def reference(self) -> SNCurve:
        """The curve that cycles are held against."""

    @property
    def mean_stress(self) -> str:
        """The rule."""

    @property
    def compressive_mean(self) -> str:
        """What becomes of a mean in compression."""

    @property
    def below_knee(self) -> str:
        """What becomes of cycles below the limit."""


LOW_CYCLE = 1.0e3
MEAN_DIFFERENCE = 0.15
RARE = 1e-3  # share of the damage, below which the tail of a density is not told
LONG = 1e6  # cycles, before which no material has a fatigue limit


def stress_life_findings(method: ByCurve, result: Life) -> Iterator[Finding]:
    """All of them."""
    for look in LOOKS:
        yield from look(method, result)


def _curve_itself(method: ByCurve, _: Life) -> Iterator[Finding]:
    yield from method.reference.findings


def _load_and_curve_r(method: ByCurve, result: Life) -> Iterator[Finding]:
    curve = method.reference
    if method.sn_curve.has_means:
        return
    if method.mean_stress != "none":
        return
    total = result.damage_per_repeat
    if total == 0.0:
        return
    cycles = result.spectrum.cycles
    used = result.damage > 0.0
    load = float((result.damage[used] * cycles.mean[used] / (0.5 * cycles.range[used])).sum() / total)
    of_curve = (1.0 + float(curve.r_ratio)) / (1.0 - float(curve.r_ratio))
    if abs(load - of_curve) <= MEAN_DIFFERENCE:
        return
    r = (load - 1.0) / (load + 1.0) if load != -1.0 else -math.inf
    unsafe = load > of_curve
    yield Finding(
        "warning" if unsafe else "note",
        "r-differs",
        f"The curve was tested at {curve.at_r}; the damaging cycles have R of about {number(r, 2)}, "
        "and no mean-stress rule is set.",
        "The life is on the unsafe side: set mean_stress, or use a curve for this R."
        if unsafe
        else "The life is on the safe side; a mean-stress rule would lengthen it.",
    )


def _as_welded(method: ByCurve, result: Life) -> Iterator[Finding]:
    if method.reference.r_ratio == ANY_R and result.damage_per_repeat > 0.0:
        yield Finding(
            "note",
            "as-welded",
            "No mean-stress rule: the curve holds for any R, as residual stress in a weld as welded lifts every cycle to yield.",
            "For a stress-relieved part take a curve tested at an R, and a rule.",
        )


def _compressive_means(method: ByCurve, result: Life) -> Iterator[Finding]:
    if method.mean_stress == "none" or method.compressive_mean == "ignored":
        return
    share = float(result.damage[result.spectrum.cycles.mean < 0.0].sum()) / (result.damage_per_repeat or 1.0)
    if share > 0.01:
        yield Finding(
            "note",
            "compression-credited",
            f"Cycles of compressive mean carry {share:.0%} of the damage, and their compression is credited.",
            'Residual or assembly tension may cancel it: compare with compressive_mean = "ignored".',
        )


def _beyond_the_tests(method: ByCurve, result: Life) -> Iterator[Finding]:
    curve, total = method.reference, result.damage_per_repeat
    if total == 0.0:
        return
    life = curve.life(result.equivalent_stress)
    floor = max(curve.tested_from, LOW_CYCLE)
    stress, points = result.equivalent_stress, curve.point_stresses
    short = (life < floor) | ((stress > points[0]) & isinstance(curve.above, str))
    share = float(result.damage[short].sum()) / total
    if short.any() and not (share < RARE and (short <= _expected(result)).all()):
        yield Finding(
            "warning",
            "curve-starts-later",
            f"{number(float(result.spectrum.per_repeat[short].sum()))} cycles per {result.duty_cycle.repeat} lie above the "
            f"tested part of the S-N curve (lives below {number(floor)} cycles), where {_choice(curve.above)}; they carry "
            f"{share:.1%} of the damage.",
            "Test at this level, or use a local-strain method: below about 1000 cycles the material yields.",
        )
    ends = (stress < points[-1]) & isinstance(curve.below, str)
    long = ((life > curve.tested_to) | ends) & (result.damage > 0.0)
    share = float(result.damage[long].sum()) / total
    if share > 0.01:
        yield Finding(
            "note",
            "curve-ends-earlier",
            f"{share:.1%} of the damage comes from stresses below the tested part of the S-N curve (lives above "
            f"{number(curve.tested_to)} cycles), where {_choice(curve.below)}.",
            "What holds there is an assumption: state where it comes from.",
        )


def _expected(result: Life) -> BoolArray:
    """Cycles that stand for a density, which has no largest one."""
    numbers = result.spectrum.cycles.columns.get(PANEL)
    return np.zeros(result.damage.shape, dtype=bool) if numbers is None else numbers >= 0.0


def _choice(end: float | str) -> str:
    """What the curve says beyond an end, in words."""
    words = {"extend": "its line goes on", "hold": "its life is held", "no damage": "nothing does damage"}
    return words[end] if isinstance(end, str) else f"its slope is {number(end)}"


def _below_the_limit(method: ByCurve, result: Life) -> Iterator[Finding]:
    """What the cycles that the curve calls harmless would do if its last slope went on."""
    curve, stress = method.reference, result.equivalent_stress
    if not curve.has_limit or not stress.size or method.below_knee == "consistent":
        return
    slope = _lowest_slope(curve)
    share = np.where(stress < curve.limit, (stress / curve.limit) ** slope / curve.point_lives[-1], 0.0)
    more = float((result.spectrum.per_repeat * share).sum())
    total = result.damage_per_repeat
    if total > 0.0 and more > 0.01 * total:
        yield Finding(
            "warning" if more > 0.2 * total else "note",
            "limit-fades",
            f"Cycles below the last point of the curve are taken as harmless; with its last slope, {number(slope, 3)}, "
            f"continued they would add {more / total:.0%} to the damage.",
            "Larger cycles wear a fatigue limit down: where the curve leaves you the choice, continue a slope.",
        )


def _reserve_beyond(method: ByCurve, result: Life) -> Iterator[Finding]:
    """A reserve that rests on what is assumed beyond the last point of the curve."""
    factor, curve = result.reserve_on_stress, method.reference
    if factor is None or not math.isfinite(factor) or factor <= 1.0 or not isinstance(curve.below, str):
        return
    stress = result.spectrum.equivalent_stress(factor * (1.0 + 1e-6))  # at a jump the reserve is just below it
    damage = result.spectrum.damage_of(stress)
    total = float(damage.sum())
    beyond = float(damage[stress < curve.point_stresses[-1]].sum()) / total if 0.0 < total < math.inf else 0.0
    if curve.below == "extend" and beyond > 0.01:
        how = (
            "line in log N and S, which soon reaches 0" if curve.interpolation == "semi-log" else "last line, extended"
        )
        yield Finding(
            "warning" if curve.interpolation == "semi-log" or beyond > 0.5 else "note",
            "reserve-beyond-tests",
            f"At the loads that just meet the target {beyond:.0%} of the damage lies below the last point of the S-N curve: the "
            f"reserve rests on its {how}.",
            "Test at longer lives, or compare with a curve that ends in a limit.",
        )
    if curve.below == "no damage" and total > 0.0:
        edge = float(damage[(stress >= curve.point_stresses[-1]) & (stress < 1.02 * curve.point_stresses[-1])].sum())
        if edge > 0.5 * total:
            yield Finding(
                "warning",
                "reserve-beyond-tests",
                "At the loads that just meet the target most of the damage lies at the last point of the S-N curve: the reserve "
                "is decided by where the table ends.",
                "Below its last point nothing is known but the choice 'no damage': state a slope, or test at longer lives.",
            )


def _gates(method: ByCurve, result: Life) -> Iterator[Finding]:
    for source in result.spectrum.sources:
        if source.gated is not None:
            curve = method.reference
            share = source.gated.share_removed(_lowest_slope(curve))
            yield Finding(
                "warning" if share > 0.01 else "note",
                "gated-cycles",
                f"The gate took {number(source.gated.removed.total)} small cycles out of each {source.name}; on the lowest "
                f"slope of the curve they would do {share:.2%} of its damage.",
                "Choose a smaller gate." if share > 0.01 else "They do not matter.",
            )


def _lowest_slope(curve: SNCurve) -> float:
    """The slope of the last line that does damage, at the last point."""
    return max(1.0, curve.slope_at(curve.limit if curve.has_limit else curve.limit * (1.0 - 1e-9)))


def _no_damage(method: ByCurve, result: Life) -> Iterator[Finding]:
    if result.damage_per_repeat == 0.0 and len(result.spectrum.cycles):
        highest = result.largest_equivalent
        curve = method.reference
        if curve.has_limit and len(curve.points) > 1 and curve.point_lives[-1] < LONG:
            yield Finding(
                "warning",
                "table-ends",
                f"Nothing does damage only because the S-N curve ends at {number(float(curve.point_lives[-1]))} cycles, where "
                f"{_choice(curve.below)}.",
                "That is too early for a fatigue limit: add points at longer lives, or state the slope below.",
            )
        yield Finding(
            "note",
            "no-damage",
            f"The largest equivalent stress {method.reference.stress}, {in_unit(highest, 'stress')}, is below the "
            f"fatigue limit, {in_unit(method.reference.limit, 'stress')}: no damage.",
            "A fatigue limit fades under variable amplitude and corrosion: compare with a second slope below the knee.",
        )


LOOKS: tuple[Callable[[ByCurve, Life], Iterator[Finding]], ...] = (
    _curve_itself,
    _reserve_beyond,
    _load_and_curve_r,
    _as_welded,
    _beyond_the_tests,
    _below_the_limit,
    _compressive_means,
    _no_damage,
    _gates,
)
