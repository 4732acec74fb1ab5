"""Reserve factors of a flaw, each along its own ray: on load, on toughness, on size, on yield."""

from __future__ import annotations

import math
from collections.abc import Callable
from typing import NamedTuple

from scipy.optimize import brentq

from vivid_anvil.acceptance.point import Terms, point_of
from vivid_anvil.acceptance.stresses.interaction import Way
from vivid_anvil.materials.fracture import AssessmentCurve

LOOKS, OF_SIZES = 32, 16  # places on a ray at which the first meeting is looked for


class Reserve(NamedTuple):
    """A factor and what it is on; where the line is not met, how far was looked, as `looked_to`."""

    on: str
    factor: float
    looked_to: float = math.inf


Margin = Callable[[float], float]
Scaled = Callable[[float], Terms]


def first_meeting(
    margin: Margin, top: float, kinks: tuple[float, ...] = (), bottom: float = 0.0, looks: int = LOOKS
) -> float:
    """The first factor from `bottom` to `top` at which the margin is used up; inf where it is not, 0 where it is from the start.

    >>> first_meeting(lambda x: 2.0 - x, 10.0)
    2.0
    """
    start = max(bottom, 1e-9 * top)
    places = {*(top * i / looks for i in range(1, looks + 1)), *kinks}
    before = start
    if margin(start) <= 0.0:
        return 0.0
    for place in sorted(one for one in places if start < one <= top):
        if margin(place) <= 0.0:
            return float(brentq(margin, before, place, xtol=1e-14, rtol=1e-14))
        before = place
    return math.inf


def on_load(terms: Terms, scaled: Scaled, curve: AssessmentCurve, toughness: float, way: Way) -> Reserve:
    """The factor on all primary loads at which the flaw meets the curve; `scaled` is the flaw under it."""

    def margin(factor: float) -> float:
        return room(scaled(factor), curve, toughness, way)

    ratio = terms.reference / curve.yield_strength
    largest = max(terms.primary, default=0.0)
    if ratio <= 0.0 and largest <= 0.0:
        return Reserve("load", math.inf if margin(1.0) >= 0.0 else 0.0)
    top = curve.largest_load_ratio / ratio * (1.0 + 1e-9) if ratio > 0.0 else 2.0 * toughness / largest
    kinks = tuple(kink / ratio for kink in curve.kinks) if ratio > 0.0 else ()
    return Reserve("load", first_meeting(margin, top, kinks))


def on_toughness(terms: Terms, curve: AssessmentCurve, toughness: float, way: Way) -> Reserve:
    """The toughness over the one that is just needed."""
    needed = needed_toughness(terms, curve, way)
    return Reserve("toughness", toughness / needed if needed > 0.0 else math.inf)


def needed_toughness(terms: Terms, curve: AssessmentCurve, way: Way) -> float:
    """The toughness, MPa√mm, that is just needed: the larger of both ends' (K_p + V K_s) / (f - ρ); inf where none is enough."""
    ratio = max(terms.reference, 0.0) / curve.yield_strength
    allowed, needed = curve.allowed(ratio), 0.0
    for k_p, k_s in zip(terms.primary, terms.secondary, strict=True):
        own = way.added(max(k_p, 0.0), k_s, ratio)
        left, k = allowed - own.sum, max(k_p + own.factor * k_s, 0.0)
        if left <= 0.0:
            return math.inf
        needed = max(needed, k / left)
    return needed


def on_yield(terms: Terms, curve: AssessmentCurve, toughness: float, way: Way) -> Reserve:
    """The factor by which yield and ultimate strength may fall; stiffness and secondary stress stay."""
    ratio = terms.reference / curve.yield_strength

    def margin(factor: float) -> float:
        return room(terms, curve.weaker(factor), toughness, way)

    if ratio <= 0.0:
        return Reserve("yield", math.inf if margin(1.0) >= 0.0 else 0.0)
    kinks = tuple(kink / ratio for kink in curve.kinks)
    strongest = 1.001 * curve.ultimate_strength / curve.youngs_modulus
    top = curve.largest_load_ratio / ratio * (1.0 + 1e-9)
    return Reserve("yield", first_meeting(margin, top, kinks, strongest))


def on_size(at_size: Scaled, largest: float, curve: AssessmentCurve, toughness: float, way: Way) -> Reserve:
    """The factor on all sizes at which the flaw meets the curve, up to the end of the solution, `largest`."""

    def margin(factor: float) -> float:
        return room(at_size(factor), curve, toughness, way)

    return Reserve("size", first_meeting(margin, largest, looks=OF_SIZES), largest)


def room(terms: Terms, curve: AssessmentCurve, toughness: float, way: Way) -> float:
    """f(L_r) less the larger K_r."""
    names = ("",) * len(terms.primary)
    return point_of(terms, curve, toughness, way, names).room
