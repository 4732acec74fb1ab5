"""Mean-stress rules: a cycle of any mean becomes the equally damaging amplitude at the R of the S-N curve.

In: amplitudes and means, MPa. Out: amplitudes, MPa. Each rule leads to the fully reversed amplitude, and from there to
any R. The table `MEAN_STRESS_RULES` holds what there is, with validity and source.
"""

from __future__ import annotations

from collections.abc import Callable
from dataclasses import dataclass

import numpy as np
from numpy.typing import ArrayLike

from vivid_anvil.checks import FloatArray
from vivid_anvil.errors import InputError, did_you_mean, listed


def goodman_reversed(amplitude: ArrayLike, mean: ArrayLike, ultimate_strength: float) -> FloatArray:
    """Fully reversed amplitude, MPa, that does the damage of `amplitude` at `mean`, MPa; inf at or beyond the ultimate.

    S_ar = S_a / (1 - S_m / R_m) (Goodman, J. 1899, Mechanics applied to engineering; the straight line to R_m).

    >>> float(goodman_reversed(120.0, 100.0, 700.0))
    140.0
    """
    left = 1.0 - np.asarray(mean, dtype=np.float64) / ultimate_strength
    with np.errstate(divide="ignore"):
        return np.where(left > 0.0, np.asarray(amplitude, dtype=np.float64) / np.maximum(left, 0.0), np.inf)


def goodman_at(reversed_amplitude: ArrayLike, r_ratio: float, ultimate_strength: float) -> FloatArray:
    """Amplitude, MPa, at `r_ratio` below 1 that does the damage of a fully reversed amplitude: the rule solved for S_a.

    With S_m = S_a (1 + R) / (1 - R): S_aR = S_ar / (1 + S_ar (1 + R) / ((1 - R) R_m)).

    >>> round(float(goodman_at(140.0, 0.0, 700.0)), 3)
    116.667
    """
    amplitude = np.asarray(reversed_amplitude, dtype=np.float64)
    slope = (1.0 + r_ratio) / ((1.0 - r_ratio) * ultimate_strength)
    with np.errstate(divide="ignore"):
        return 1.0 / (1.0 / amplitude + slope) if slope else amplitude


def unchanged_reversed(amplitude: ArrayLike, mean: ArrayLike, ultimate_strength: float) -> FloatArray:  # noqa: ARG001
    """The amplitude itself: the mean is taken to have no effect."""
    return np.asarray(amplitude, dtype=np.float64)


def unchanged_at(reversed_amplitude: ArrayLike, r_ratio: float, ultimate_strength: float) -> FloatArray:  # noqa: ARG001
    """The amplitude itself, at any R."""
    return np.asarray(reversed_amplitude, dtype=np.float64)


@dataclass(frozen=True, slots=True)
class MeanStressRule:
    """A rule: to and from the fully reversed amplitude, the strength it needs, where it holds, whose it is."""

    name: str
    to_reversed: Callable[[ArrayLike, ArrayLike, float], FloatArray]
    at_r: Callable[[ArrayLike, float, float], FloatArray]
    needs: str | None
    validity: str
    source: str


MEAN_STRESS_RULES = {
    rule.name: rule
    for rule in (
        MeanStressRule(
            "none",
            unchanged_reversed,
            unchanged_at,
            None,
            "where the curve holds for the means that occur, such as welds as welded",
            "no correction",
        ),
        MeanStressRule(
            "goodman",
            goodman_reversed,
            goodman_at,
            "ultimate_strength",
            "mean below the ultimate strength; on the safe side for most ductile metals",
            "Goodman 1899",
        ),
    )
}

COMPRESSIVE_MEANS = {
    "ignored": "a compressive mean counts as 0 (on the safe side)",
    "credited": "a compressive mean lowers the equivalent amplitude, as the rule's formula gives it",
}


def mean_stress_rule(name: str, where: str = "mean_stress") -> MeanStressRule:
    """The rule of that name; InputError with the nearest name otherwise."""
    if name not in MEAN_STRESS_RULES:
        raise InputError(
            where, repr(name), f"one of {listed(MEAN_STRESS_RULES)}", did_you_mean(name, MEAN_STRESS_RULES)
        )
    return MEAN_STRESS_RULES[name]


def compressive_mean(mean: ArrayLike, choice: str, where: str = "compressive_mean") -> FloatArray:
    """The means that enter the rule: as they are, or with compressive ones at 0 (see `COMPRESSIVE_MEANS`)."""
    if choice not in COMPRESSIVE_MEANS:
        raise InputError(
            where, repr(choice), f"one of {listed(COMPRESSIVE_MEANS)}", did_you_mean(choice, COMPRESSIVE_MEANS)
        )
    means = np.asarray(mean, dtype=np.float64)
    return np.maximum(means, 0.0) if choice == "ignored" else means


def equivalent_amplitude(
    amplitude: ArrayLike,
    mean: ArrayLike,
    *,
    rule: str,
    r_ratio: float,
    ultimate_strength: float = np.inf,
    compressive: str = "ignored",
) -> FloatArray:
    """Amplitude, MPa, at `r_ratio` that does the damage of `amplitude` at `mean`, MPa; broadcast shape.

    Raises InputError for an unknown rule or choice, and where a mean reaches the ultimate strength under a rule that
    has no meaning there.

    >>> equivalent_amplitude([120.0, 120.0], [100.0, -100.0], rule="goodman", r_ratio=-1.0, ultimate_strength=700.0)
    array([140., 120.])
    """
    chosen = mean_stress_rule(rule)
    means = compressive_mean(mean, compressive)
    reversed_amplitude = chosen.to_reversed(amplitude, means, ultimate_strength)
    if not np.isfinite(reversed_amplitude).all():
        place = int(np.flatnonzero(~np.isfinite(np.ravel(reversed_amplitude)))[0])
        worst = float(np.ravel(np.broadcast_to(means, reversed_amplitude.shape))[place])
        raise InputError(
            f"mean-stress rule {rule}, cycle {place}",
            f"a mean of {worst:.4g} MPa",
            f"a mean below the ultimate strength, {ultimate_strength:.4g} MPa",
            "The part would fail statically: check the units of load, stress per load and strength.",
        )
    return chosen.at_r(reversed_amplitude, r_ratio, ultimate_strength)
