"""The one call that applies a mean-stress rule, and what becomes of compressive means."""

from __future__ import annotations

import numpy as np
from numpy.typing import ArrayLike

from vivid_anvil.ground import checks
from vivid_anvil.ground.checks import FloatArray
from vivid_anvil.ground.errors import InputError, did_you_mean, listed
from vivid_anvil.materials.mean_stress.rule import MEAN_STRESS_RULES, MeanStressRule
from vivid_anvil.units import many, one, opened

COMPRESSIVE_MEANS = {
    "ignored": "a compressive mean counts as 0 (on the safe side)",
    "capped": "a compressive mean helps, but no more than that of a cycle that ends at zero (R = minus infinity)",
    "credited": "a compressive mean lowers the equivalent amplitude, as the rule's formula gives it",
}


def compressive_mean(
    amplitude: ArrayLike, mean: ArrayLike, choice: str, rule: type[MeanStressRule], where: str = "compressive_mean"
) -> FloatArray:
    """The means that enter the rule, MPa: as they are, or with compressive ones held (see `COMPRESSIVE_MEANS`)."""
    if choice not in COMPRESSIVE_MEANS:
        raise InputError(
            where, repr(choice), f"one of {listed(COMPRESSIVE_MEANS)}", did_you_mean(choice, COMPRESSIVE_MEANS)
        )
    if choice != "ignored" and not rule.in_compression:
        raise InputError(
            where,
            f"{choice!r} with the rule {rule.kind!r}",
            "'ignored'",
            "Its curve is symmetric: it would punish compression as it does tension.",
        )
    means = np.asarray(mean, dtype=np.float64)
    if choice == "credited":
        return means
    lowest = -np.asarray(amplitude, dtype=np.float64) if choice == "capped" else 0.0
    return np.maximum(means, lowest)


def counted_r(r_ratio: float, choice: str) -> float:
    """The R that enters the rule for a curve: where compressive means count as 0, an R below -1 counts as -1."""
    return max(r_ratio, -1.0) if choice == "ignored" and r_ratio < 1.0 else r_ratio


@opened(amplitude=many("stress", at_least=0.0), mean=many("stress"), r_ratio=one())
def equivalent_amplitude(
    amplitude: ArrayLike,
    mean: ArrayLike,
    *,
    rule: str,
    r_ratio: float = -1.0,
    compressive: str = "ignored",
    **values: float | str,
) -> FloatArray:
    """Amplitude, MPa, at `r_ratio` that does the damage of `amplitude` at `mean`, MPa; broadcast shape.

    `values` holds what the rule needs under its name, such as `ultimate_strength=700.0`.

    Parameters
    ----------
    amplitude : array_like or text with a unit
        Amplitude of each cycle, MPa.
    mean : array_like or text with a unit
        Mean of each cycle, MPa.
    rule : str
        The rule, by its name.
    r_ratio : float, default -1.0
        Ratio of the smallest to the largest stress, R, -.
    compressive : str, default "ignored"
        What a compressive mean does: one of `COMPRESSIVE_MEANS`.
    **values : any
        Values that the rule needs, such as `ultimate_strength`.

    Returns
    -------
    ndarray
        Amplitudes, MPa, of the broadcast shape; inf where the rule has no answer but failure.

    Raises
    ------
    InputError
        For an unknown rule or choice, a value that is missing or not used, and where a mean reaches the strength of a
        rule that has no meaning there.

    Examples
    --------
    >>> equivalent_amplitude([120.0, 120.0], [100.0, -100.0], rule="goodman", ultimate_strength=700.0)
    array([140., 120.])
    """
    chosen = MEAN_STRESS_RULES.get(rule, "mean_stress")
    value = chosen.checked_value(values, f"mean-stress rule {rule}")
    checks.together(f"mean-stress rule {rule}", amplitude=amplitude, mean=mean)
    means = compressive_mean(amplitude, mean, compressive, chosen)
    _check_r(r_ratio, chosen)
    reversed_amplitude = chosen.to_reversed(amplitude, means, value)
    if not np.isfinite(reversed_amplitude).all():
        place = int(np.flatnonzero(~np.isfinite(np.ravel(reversed_amplitude)))[0])
        worst = float(np.ravel(np.broadcast_to(means, reversed_amplitude.shape))[place])
        raise InputError(
            f"mean-stress rule {rule}, cycle {place}",
            f"a mean of {worst:.4g} MPa",
            f"a mean below the {str(chosen.needs).replace('_', ' ')}, {value:.4g} MPa",
            "The rule has no meaning there: check the units of load, stress per load and strength.",
        )
    return chosen.at_r(reversed_amplitude, counted_r(r_ratio, compressive), value)


def _check_r(r_ratio: float, rule: type[MeanStressRule]) -> None:
    """InputError for R = 1, and for an R of cycles wholly in compression where the rule has no amplitude for it."""
    if r_ratio < 1.0 or (r_ratio > 1.0 and rule.in_compression and not rule.needs_tension):
        return
    expected = "minimum / maximum other than 1" if r_ratio == 1.0 else f"an R below 1 with the rule {rule.kind!r}"
    raise InputError("equivalent amplitude, r_ratio", f"{r_ratio:g}", expected)
