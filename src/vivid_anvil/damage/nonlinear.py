"""Damage that depends on the order of the loads: power rule, damage curve, double linear rule.

In: levels in their order, each with its life and its cycles (or its share of life). Out: damage, or blocks until failure.
Methods: Marco, S. M. and Starkey, W. L. (1954), Trans. ASME 76, 627-632; Manson, S. S. and Halford, G. R. (1981), Int. J.
Fracture 17, 169-192.
"""

from __future__ import annotations

import math
from collections.abc import Sequence
from dataclasses import dataclass

import numpy as np
from numpy.typing import ArrayLike

from vivid_anvil.damage._kernels import blocks_until_failure
from vivid_anvil.ground.checks import FloatArray, finite_samples
from vivid_anvil.ground.errors import InputError, shortened
from vivid_anvil.units import many, one, opened

CURVE_EXPONENT = 0.4  # of the damage curve
KNEE_EXPONENT = 0.25  # of the double linear rule
PHASE_ONE, PHASE_TWO = 0.35, 0.65
MOST_BLOCKS = 10_000_000

ORDER_RULES = ("damage curve", "double linear", "power rule")

LONGEST_LIFE = 1e100  # cycles: beyond it the two phases are no numbers


@opened(fractions=many(at_least=0.0), exponents=many(above=0.0))
def power_rule(fractions: ArrayLike, exponents: ArrayLike) -> FloatArray:
    """Damage after each level, shape (n,): D = (n/N)^x with an exponent x a level, the state carried over (Marco, Starkey).

    The next level starts at the share of its life D^(1/x) at which it has the damage reached.

    >>> power_rule([0.4, 0.3], [2.5, 1.2]).round(5)
    array([0.10119, 0.38178])
    """
    shares, powers = _row(fractions, "fractions"), _row(exponents, "exponents")
    _same_length(shares, powers)
    if not ((shares >= 0.0).all() and (powers > 0.0).all()):
        raise InputError(
            "power rule", "a share below 0 or an exponent that is not above 0", "shares and exponents above 0"
        )
    found, damage = [], 0.0
    for share, power in zip(shares.tolist(), powers.tolist(), strict=True):
        damage = (damage ** (1.0 / power) + share) ** power
        found.append(damage)
    return np.array(found)


@opened(fractions=many(at_least=0.0), lives=many(above=0.0))
def damage_curve(fractions: ArrayLike, lives: ArrayLike) -> FloatArray:
    """Share of life used after each level, in the terms of that level, shape (n,); failure at 1 (Manson and Halford).

    What was used up to then counts at the next level as r^((N_i / N_next)^0.4).

    >>> damage_curve([0.2, 0.2, 0.2], [1e3, 1e4, 1e5]).round(5)
    array([0.2    , 0.72691, 1.08075])
    """
    shares, long = _row(fractions, "fractions"), _lives(lives)
    _same_length(shares, long)
    found, used = [], 0.0
    for i, share in enumerate(shares.tolist()):
        if i and used > 0.0:
            used = used ** ((long[i - 1] / long[i]) ** CURVE_EXPONENT)
        used += share
        found.append(used)
    return np.array(found)


@dataclass(frozen=True, eq=False)
class Phases:
    """Lives in the two phases of the double linear rule, cycles, shape (n,) each; their sum is the life."""

    first: FloatArray
    second: FloatArray


@opened(lives=many(at_least=1.0))
def double_linear_phases(lives: ArrayLike) -> Phases:
    """Phase I and phase II lives of levels of `lives`, cycles; the constants follow from the shortest and the longest.

    N_I = N exp(Z N^φ), N_II = N - N_I; with one life only, the two phases are shares 0.35 and 0.65 of it.

    >>> double_linear_phases([1e3, 1e5]).first.round(2)
    array([  110.68, 79445.2 ])
    """
    long = _lives(lives)
    if not long.size or long.max() > LONGEST_LIFE:
        raise InputError(
            "double linear rule, lives", f"{shortened(lives)}", f"lives up to {LONGEST_LIFE:g} cycles, one or more"
        )
    short, most = float(long.min()), float(long.max())
    ratio = (short / most) ** KNEE_EXPONENT
    if short == most:
        return Phases(PHASE_ONE * long, PHASE_TWO * long)
    low, high = math.log(PHASE_ONE * ratio), math.log1p(-PHASE_TWO * ratio)
    phi = math.log(low / high) / math.log(short / most)
    z = low / short**phi
    first = long * np.exp(z * long**phi)
    return Phases(first, long - first)


@opened(cycles=many(at_least=0.0), lives=many(at_least=1.0))
def double_linear_blocks(cycles: ArrayLike, lives: ArrayLike) -> float:
    """Blocks until failure of a repeated, finely mixed block with `cycles` at each level of `lives`, by the double linear rule.

    >>> round(double_linear_blocks([1.0, 20.0, 400.0], [1e3, 2e4, 5e5]), 3)
    172.425
    """
    counts, long = _row(cycles, "cycles"), _lives(lives)
    _same_length(counts, long)
    phases = double_linear_phases(long)
    return float(1.0 / (counts / phases.first).sum() + 1.0 / (counts / phases.second).sum())


@opened(fraction=one(at_least=0.0, at_most=1.0), first_life=one(at_least=1.0), second_life=one(at_least=1.0))
def double_linear_remaining(fraction: float, first_life: float, second_life: float) -> float:
    """Share of the second level's life that is left after `fraction` of the first level's, by the double linear rule.

    >>> round(double_linear_remaining(0.3, 1e3, 1e5), 5)
    0.16179
    """
    phases = double_linear_phases([first_life, second_life])
    (first_one, first_two), (second_one, second_two) = phases.first, phases.second
    used = fraction * first_life
    if used <= first_one:
        return float(((1.0 - used / first_one) * first_two + second_two) / second_life)
    return float((1.0 - (used - first_one) / second_one) * second_two / second_life)


@opened(cycles=many(at_least=0.0), lives=many(above=0.0, may_be_infinite=True))
def damage_curve_blocks(cycles: Sequence[float], lives: ArrayLike) -> float:
    """Blocks until failure of a repeated block whose levels come in the order given, by the damage curve.

    The last, unfinished block counts by its share of the cycles that it still carried. inf where no level does damage.

    >>> round(damage_curve_blocks([100.0, 0.0], [1e3, 1e5]), 9)
    10.0
    """
    counts, long = _row(cycles, "cycles"), _lives(lives)
    _same_length(counts, long)
    does = np.isfinite(long) & (counts > 0.0)
    counts, long = counts[does], long[does]
    return _blocks(counts, counts / long, (np.roll(long, 1) / long) ** CURVE_EXPONENT)


@opened(cycles=many(at_least=0.0), lives=many(above=0.0, may_be_infinite=True), exponents=many(above=0.0))
def power_rule_blocks(cycles: Sequence[float], lives: ArrayLike, exponents: ArrayLike) -> float:
    """Blocks until failure of a repeated block whose levels come in the order given, by the power rule.

    Equal exponents cancel out, and the linear rule remains.

    >>> round(power_rule_blocks([100.0, 1000.0], [1e3, 1e5], [2.0, 2.0]), 3)
    9.1
    """
    counts, long, powers = _row(cycles, "cycles"), _lives(lives), _row(exponents, "exponents")
    _same_length(counts, long)
    _same_length(counts, powers)
    if not (powers > 0.0).all():
        raise InputError("power rule", f"an exponent of {float(powers.min()):g}", "exponents above 0")
    does = np.isfinite(long) & (counts > 0.0)
    counts, long, powers = counts[does], long[does], powers[does]
    return _blocks(counts, counts / long, np.roll(powers, 1) / powers)


def _blocks(counts: FloatArray, shares: FloatArray, powers: FloatArray) -> float:
    """Blocks until the used share of life is 1; on entering a level it becomes its own power of `powers`."""
    if not counts.size:
        return math.inf
    found = float(blocks_until_failure(counts, shares, powers, MOST_BLOCKS))
    if found < 0.0:
        raise InputError(
            "damage in order", f"more than {MOST_BLOCKS} blocks", "fewer until failure", "Use the linear rule."
        )
    return found


def _row(values: ArrayLike, what: str) -> FloatArray:
    return finite_samples(values, where=f"nonlinear damage, {what}", unit="")


def _lives(values: ArrayLike) -> FloatArray:
    lives = np.atleast_1d(np.asarray(values, dtype=np.float64))
    if not (lives > 0.0).all():
        raise InputError("nonlinear damage, lives", f"{float(lives.min()):g} cycles", "lives above 0 cycles")
    return lives


def _same_length(one: FloatArray, other: FloatArray) -> None:
    if one.size != other.size:
        raise InputError("nonlinear damage", f"{one.size} and {other.size} values", "one of each for every level")
