"""Reference stress of a cracked section (plastic collapse where it reaches yield), and the general failure assessment curve.

In: membrane and bending stress, MPa, sizes, mm. Out: stress, MPa; largest K_r at an L_r. Sources: BS 7910, annex P, and
option 1 of its edition of 2013.
"""

from __future__ import annotations

import math

import numpy as np
from numpy.typing import ArrayLike

from vivid_anvil.ground.checks import FloatArray, reach, refuse_unless, together
from vivid_anvil.units import LENGTH, LENGTHS, REACH, STRENGTH, STRESS, STRESSES, many, one, opened
from vivid_anvil.writing.working import Step, put_in

GAP = one("length", at_least=0.0)


@opened(membrane=STRESSES, bending=STRESSES, lost=many(at_least=0.0, below=1.0))
def reference_stress(membrane: ArrayLike, bending: ArrayLike, lost: ArrayLike) -> FloatArray:
    """(P_b + √(P_b² + 9 P_m² (1 - α)²)) / (3 (1 - α)²), α = `lost`: the share of the section that the crack takes.

    >>> float(reference_stress(130.0, 60.0, 0.25)).__round__(2)
    212.5
    """
    m, b, left = (np.asarray(one, dtype=np.float64) for one in (membrane, bending, 1.0 - np.asarray(lost)))
    return np.asarray((b + np.sqrt(b**2 + 9.0 * m**2 * left**2)) / (3.0 * left**2))


def _shorter(size: ArrayLike, width: float, **_: object) -> None:
    refuse_unless(
        2.0 * np.asarray(size) < width,
        "through reference stress, size",
        f"{reach(size)} mm in a plate {width:g} mm wide",
        "2a below the width",
        "The size is half of the crack's length.",
    )


@opened(_shorter, membrane=STRESSES, bending=STRESSES, size=many("length", at_least=0.0), width=LENGTH)
def through_reference_stress(membrane: ArrayLike, bending: ArrayLike, size: ArrayLike, width: float) -> FloatArray:
    """(P_b + √(P_b² + 9 P_m²)) / (3 (1 - 2a/W)), a crack of 2a through a plate.

    >>> float(through_reference_stress(130.0, 60.0, 35.0, 200.0)).__round__(3)
    233.122
    """
    m, b = np.asarray(membrane, dtype=np.float64), np.asarray(bending, dtype=np.float64)
    left = 1.0 - 2.0 * np.asarray(size, dtype=np.float64) / width
    return np.asarray((b + np.sqrt(b**2 + 9.0 * m**2)) / (3.0 * left))


def _within_plate(a: ArrayLike, c: ArrayLike, thickness: float, width: float = math.inf) -> None:
    deep, half = np.asarray(a), np.asarray(c)
    found = f"depth {reach(deep)} mm, half length {reach(half)} mm, {thickness:g} by {width:g} mm"
    fits = (deep <= thickness) & (2.0 * half <= width)
    refuse_unless(fits, "surface share", found, "a crack within the plate")


def section_lost(a: float, c: float, thickness: float, width: float) -> float:
    """`surface_share` of one crack that is known to be within the plate."""
    deep = a / thickness
    return deep / (1.0 + thickness / c) if width >= 2.0 * (c + thickness) else 2.0 * deep * c / width


def stress_of_one(membrane: float, bending: float, lost: float) -> float:
    """`reference_stress` of one section."""
    left = 1.0 - lost
    return (bending + math.sqrt(bending * bending + 9.0 * membrane * membrane * left * left)) / (3.0 * left * left)


@opened(_within_plate, a=LENGTHS, c=LENGTHS, thickness=LENGTH, width=REACH)
def surface_share(a: ArrayLike, c: ArrayLike, thickness: float, width: float = math.inf) -> FloatArray:
    """α of a surface crack: (a/B) / (1 + B/c) for W >= 2 (c + B), else (2a/B) (c/W).

    >>> float(surface_share(6.0, 12.0, 20.0, 300.0)).__round__(4)
    0.1125
    """
    deep, half = np.asarray(a, dtype=np.float64) / thickness, np.asarray(c, dtype=np.float64)
    wide = deep / (1.0 + thickness / half)
    return np.asarray(np.where(width >= 2.0 * (half + thickness), wide, 2.0 * deep * half / width))


def _inside_plate(a: float, c: float, thickness: float, ligament: float, width: float, **_: object) -> None:
    found = f"2a = {2.0 * a:g} mm, ligament {ligament:g} mm, 2c = {2.0 * c:g} mm in {thickness:g} by {width:g} mm"
    fits = 2.0 * a + ligament < thickness and 2.0 * c <= width
    refuse_unless(fits, "embedded reference stress", found, "a crack inside the plate")


@opened(
    _inside_plate, membrane=STRESS, bending=STRESS, a=LENGTH, c=LENGTH, thickness=LENGTH, ligament=GAP, width=LENGTH
)
def embedded_reference_stress(
    membrane: float, bending: float, a: float, c: float, thickness: float, ligament: float, width: float
) -> float:
    """{q + √(q² + 9 P_m² n)} / (3 n) of a crack 2a by 2c inside a plate that is free to bend, `ligament` p to the nearer face.

    α = (2a/t) / (1 + t/c) for W >= 2 (c + t), else (2a/t)(2c/W); q = P_b + 3 P_m α, n = (1 - α)² + 4 p α / t; P_b > 0 pulls at
    the nearer face. Source: BS 7910, annex P.

    >>> round(embedded_reference_stress(150.0, 40.0, 3.0, 15.0, 25.0, 5.0, 300.0), 4)
    190.7026
    """
    share = 2.0 * a / thickness
    lost = share / (1.0 + thickness / c) if width >= 2.0 * (c + thickness) else share * 2.0 * c / width
    q, n = bending + 3.0 * membrane * lost, (1.0 - lost) ** 2 + 4.0 * ligament * lost / thickness
    return float((q + math.sqrt(q * q + 9.0 * membrane**2 * n)) / (3.0 * n))


@opened(chi=many(), load_ratio=many(at_least=0.0))
def plasticity_interaction(chi: ArrayLike, load_ratio: ArrayLike) -> FloatArray:
    """ρ, what plasticity adds to K_r where primary and secondary stress act together; 0 where the secondary K is not above 0.

    χ = K_s L_r / K_p; ρ_1 = 0.1 χ^0.714 - 0.007 χ² + 0.00003 χ⁵, 0.25 above χ = 5.2; ρ = ρ_1 up to L_r = 0.8, 4 ρ_1 (1.05 - L_r)
    up to 1.05, then 0. Source: BS 7910:2005, annex R; R6, simplified procedure.

    >>> plasticity_interaction([0.3, 5.83], [0.9, 0.7]).round(5)
    array([0.02502, 0.25   ])
    """
    together("plasticity interaction", chi=chi, load_ratio=load_ratio)
    return np.asarray(np.vectorize(rho_of_one, otypes=[np.float64])(chi, load_ratio))


def rho_of_one(chi: float, load_ratio: float) -> float:
    """`plasticity_interaction` of one point."""
    x = max(chi, 0.0)
    first = 0.25 if x > 5.2 else 0.1 * x**0.714 - 0.007 * x**2 + 0.00003 * x**5
    return first * min(max(4.0 * (1.05 - load_ratio), 0.0), 1.0)


def _strengths(yield_strength: float, ultimate_strength: float, youngs_modulus: float, **_: object) -> None:
    refuse_unless(
        yield_strength <= ultimate_strength <= youngs_modulus,
        "assessment curve, strengths",
        f"yield {yield_strength:g}, ultimate {ultimate_strength:g}, E {youngs_modulus:g} MPa",
        "yield up to the ultimate strength, which is below E",
    )


@opened(
    _strengths,
    load_ratio=many(at_least=0.0),
    yield_strength=STRENGTH,
    ultimate_strength=STRENGTH,
    youngs_modulus=STRENGTH,
)
def assessment_curve(
    load_ratio: ArrayLike, yield_strength: float, ultimate_strength: float, youngs_modulus: float
) -> FloatArray:
    """Largest K_r at L_r: the general curve for continuous yielding, 0 beyond L_r,max = (σy + σu) / (2 σy).

    >>> assessment_curve([0.0, 1.0, 1.3], 355.0, 510.0, 207000.0).round(4)
    array([1.   , 0.564, 0.   ])
    """
    strengths = yield_strength, ultimate_strength, youngs_modulus
    return np.asarray(np.vectorize(lambda one: allowed_of_one(one, *strengths), otypes=[np.float64])(load_ratio))


def allowed_of_one(load_ratio: float, yield_strength: float, ultimate_strength: float, youngs_modulus: float) -> float:
    """`assessment_curve` at one L_r."""
    if load_ratio > (yield_strength + ultimate_strength) / (2.0 * yield_strength):
        return 0.0
    return general_height(load_ratio, yield_strength, ultimate_strength, youngs_modulus)


def general_height(load_ratio: float, yield_strength: float, ultimate_strength: float, youngs_modulus: float) -> float:
    """The general curve at one L_r, wherever it is cut off."""
    mu, low = min(0.001 * youngs_modulus / yield_strength, 0.6), min(load_ratio, 1.0)
    own = (0.3 + 0.7 * math.exp(-mu * low**6)) / math.sqrt(1.0 + 0.5 * low * low)
    power = 0.3 * (1.0 - yield_strength / ultimate_strength)
    if load_ratio <= 1.0:
        return own
    return own * math.exp((power - 1.0) / (2.0 * power) * math.log(load_ratio)) if power > 0.0 else 0.0


def reference_step(membrane: float, bending: float, lost: float) -> Step:
    """σ_ref of a section that lost a share α, as a step."""
    value = float(reference_stress(abs(membrane), abs(bending), lost))
    m, b, left = put_in(abs(membrane)), put_in(abs(bending)), put_in(1.0 - lost)
    formula = "σ_ref = (P_b + √(P_b^2 + 9 × P_m^2 × (1 - α)^2)) / (3 × (1 - α)^2)"
    numbers = f"({b} + √({b}^2 + 9 × {m}^2 × {left}^2)) / (3 × {left}^2)"
    return Step("Reference stress of the section", formula, numbers, value, "MPa", "BS 7910, annex P")
