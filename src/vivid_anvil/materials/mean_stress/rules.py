"""The table of mean-stress rules: function, the value it needs, where it holds, its working, whose it is.

One error for anything else, and the one call that applies a rule.
"""

from __future__ import annotations

import math
from collections.abc import Callable, Mapping
from dataclasses import dataclass
from typing import Any

import numpy as np
from numpy.typing import ArrayLike

from vivid_anvil.ground.checks import FloatArray
from vivid_anvil.ground.errors import InputError, did_you_mean, listed
from vivid_anvil.materials.material import Material
from vivid_anvil.materials.mean_stress import sensitivity as of
from vivid_anvil.units import STRENGTH, many, one, opened

Reversed = Callable[[ArrayLike, ArrayLike, float], FloatArray]
AtR = Callable[[ArrayLike, float, float], FloatArray]


# What rules need, with the limits of each.
VALUES = {
    "ultimate_strength": STRENGTH,
    "yield_strength": STRENGTH,
    "true_fracture_strength": STRENGTH,
    "fatigue_strength_coefficient": STRENGTH,
    "walker_exponent": one(above=0.0, at_most=1.0),
    "mean_stress_sensitivity": one(at_least=0.0, at_most=1.0),
}


@dataclass(frozen=True, slots=True)
class MeanStressRule:
    """A rule: to and from the fully reversed amplitude, the value of the material that it needs, where it holds, whose it is.

    `formula` and `formula_at` say the same in symbols; a, m and v stand for amplitude, mean and the value in `numbers`, and a,
    k and v in `numbers_at`, with k = (1 + R) / (1 - R).
    """

    name: str
    to_reversed: Reversed
    at_r: AtR
    needs: str | None
    validity: str
    source: str
    formula: str = ""
    numbers: str = ""
    formula_at: str = ""
    numbers_at: str = ""
    in_compression: bool = True  # whether its formula has a meaning for compressive means
    needs_tension: bool = False  # whether a cycle wholly in compression has no equivalent amplitude

    def __reduce__(self) -> tuple[Callable[[str], MeanStressRule], tuple[str]]:
        return mean_stress_rule, (self.name,)

    def checked_value(self, values: Mapping[str, Any], where: str) -> float:
        """What the rule needs of `values`, coherent and within its limits; nan where it needs nothing.

        Raises InputError for a value that is missing, that cannot be, or that this rule does not use.
        """
        for name in values:
            if name != self.needs:
                needed = "none" if self.needs is None else f"{self.needs!r} alone"
                known = [self.needs] if self.needs is not None else []
                raise InputError(
                    f"{where}, {name}",
                    "a value that the rule does not use" if name in VALUES else "an unknown keyword",
                    f"{needed} with the rule {self.name!r}",
                    did_you_mean(name, known),
                )
        if self.needs is None:
            return math.nan
        if values.get(self.needs) is None:
            raise InputError(where, f"no {self.needs}", f"the value that the rule {self.name!r} needs", "State it.")
        return float(VALUES[self.needs].checked(values[self.needs], f"{where}, {self.needs}"))


def _line(name: str, needs: str, symbol: str, validity: str, source: str) -> MeanStressRule:
    """A straight line to a strength."""
    return MeanStressRule(
        name,
        of.goodman_reversed,
        of.goodman_at,
        needs,
        validity,
        source,
        f"S_ar = S_a / (1 - S_m / {symbol})",
        "{a} / (1 - {m} / {v})",
        f"S_aR = S_ar / (1 + S_ar × k / {symbol}), k = (1 + R) / (1 - R)",
        "{a} / (1 + {a} × {k} / {v})",
    )


_WALKER = (
    "S_ar = S_max^(1 - γ) × S_a^γ, S_max = S_a + S_m",
    "({a} + {m})^(1 - {v}) × {a}^{v}",
    "S_aR = S_ar × ((1 - R) / 2)^(1 - γ), (1 - R) / 2 = 1 / (1 + k)",
    "{a} × (1 / (1 + {k}))^(1 - {v})",
)
MEAN_STRESS_RULES = {
    rule.name: rule
    for rule in (
        MeanStressRule(
            "none",
            of.unchanged_reversed,
            of.unchanged_at,
            None,
            "where the curve holds for the means that occur, such as welds as welded",
            "no correction",
        ),
        _line(
            "goodman",
            "ultimate_strength",
            "R_m",
            "mean below the ultimate strength; on the safe side for most ductile metals",
            "Goodman 1899",
        ),
        MeanStressRule(
            "gerber",
            of.gerber_reversed,
            of.gerber_at,
            "ultimate_strength",
            "tensile means below the ultimate strength; ductile metals, no longer safe near yield; no meaning in compression",
            "Gerber 1874",
            "S_ar = S_a / (1 - (S_m / R_m)^2)",
            "{a} / (1 - ({m} / {v})^2)",
            "S_aR = 2 × S_ar / (1 + (1 + 4 × (k × S_ar / R_m)^2)^0.5), k = (1 + R) / (1 - R)",
            "2 × {a} / (1 + (1 + 4 × ({k} × {a} / {v})^2)^0.5)",
            in_compression=False,
        ),
        _line(
            "soderberg",
            "yield_strength",
            "R_e",
            "mean below the yield strength; very much on the safe side",
            "Soderberg 1930",
        ),
        MeanStressRule(
            "elliptic",
            of.elliptic_reversed,
            of.elliptic_at,
            "yield_strength",
            "tensile means below the yield strength; the mildest of the textbook rules; no meaning in compression",
            "Marin 1956",
            "S_ar = S_a / (1 - (S_m / R_e)^2)^0.5",
            "{a} / (1 - ({m} / {v})^2)^0.5",
            "S_aR = S_ar / (1 + (k × S_ar / R_e)^2)^0.5, k = (1 + R) / (1 - R)",
            "{a} / (1 + ({k} × {a} / {v})^2)^0.5",
            in_compression=False,
        ),
        _line(
            "morrow",
            "true_fracture_strength",
            "σ_fB",
            "mean below the true fracture strength of the tensile test; steels and others",
            "Morrow 1968",
        ),
        _line(
            "morrow coefficient",
            "fatigue_strength_coefficient",
            "σ_f'",
            "mean below the fatigue strength coefficient; steels; unsafe for aluminium",
            "Morrow 1968",
        ),
        MeanStressRule(
            "smith-watson-topper",
            lambda amplitude, mean, value: of.walker_reversed(amplitude, mean, 0.5),
            lambda amplitude, r_ratio, value: of.walker_at(amplitude, r_ratio, 0.5),
            None,
            "maximum stress above 0, else no damage; needs no strength; good for aluminium, fair for steels",
            "Smith, Watson and Topper 1970",
            "S_ar = (S_max × S_a)^0.5, S_max = S_a + S_m",
            "(({a} + {m}) × {a})^0.5",
            "S_aR = S_ar × ((1 - R) / 2)^0.5, (1 - R) / 2 = 1 / (1 + k)",
            "{a} × (1 / (1 + {k}))^0.5",
            needs_tension=True,
        ),
        MeanStressRule(
            "walker",
            of.walker_reversed,
            of.walker_at,
            "walker_exponent",
            "maximum stress above 0, else no damage; best where its exponent was fitted to tests",
            "Walker 1970",
            *_WALKER,
            needs_tension=True,
        ),
        MeanStressRule(
            "sensitivity",
            of.sensitivity_reversed,
            of.sensitivity_at,
            "mean_stress_sensitivity",
            "four regions of R, flat for R > 1 and R >= 0.5; machined and cast parts of steel, iron and aluminium",
            "FKM guideline, 4.4.2; Schütz 1967",
            "S_ar = S_a × f(S_m / S_a, M), four regions of R",
            "",
        ),
    )
}

COMPRESSIVE_MEANS = {
    "ignored": "a compressive mean counts as 0 (on the safe side)",
    "capped": "a compressive mean helps, but no more than that of a cycle that ends at zero (R = minus infinity)",
    "credited": "a compressive mean lowers the equivalent amplitude, as the rule's formula gives it",
}


def mean_stress_rule(name: str, where: str = "mean_stress") -> MeanStressRule:
    """The rule of that name; InputError with the nearest name otherwise."""
    if name not in MEAN_STRESS_RULES:
        raise InputError(
            where, repr(name), f"one of {listed(MEAN_STRESS_RULES)}", did_you_mean(name, MEAN_STRESS_RULES)
        )
    return MEAN_STRESS_RULES[name]


def compressive_mean(
    amplitude: ArrayLike, mean: ArrayLike, choice: str, rule: MeanStressRule, where: str = "compressive_mean"
) -> FloatArray:
    """The means that enter the rule, MPa: as they are, or with compressive ones held (see `COMPRESSIVE_MEANS`)."""
    if choice not in COMPRESSIVE_MEANS:
        raise InputError(
            where, repr(choice), f"one of {listed(COMPRESSIVE_MEANS)}", did_you_mean(choice, COMPRESSIVE_MEANS)
        )
    if choice != "ignored" and not rule.in_compression:
        raise InputError(
            where,
            f"{choice!r} with the rule {rule.name!r}",
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

    `values` holds what the rule needs under its name, such as `ultimate_strength=700.0`. Raises InputError for an unknown
    rule or choice, a value that is missing or not used, and where a mean reaches the strength of a rule that has no meaning
    there.

    >>> equivalent_amplitude([120.0, 120.0], [100.0, -100.0], rule="goodman", ultimate_strength=700.0)
    array([140., 120.])
    """
    chosen = mean_stress_rule(rule)
    value = chosen.checked_value(values, f"mean-stress rule {rule}")
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


def _check_r(r_ratio: float, rule: MeanStressRule) -> None:
    """InputError for R = 1, and for an R of cycles wholly in compression where the rule has no amplitude for it."""
    if r_ratio < 1.0 or (r_ratio > 1.0 and rule.in_compression and not rule.needs_tension):
        return
    expected = "minimum / maximum other than 1" if r_ratio == 1.0 else f"an R below 1 with the rule {rule.name!r}"
    raise InputError("equivalent amplitude, r_ratio", f"{r_ratio:g}", expected)


def rule_value(rule: MeanStressRule, material: Material, where: str) -> float:
    """The value that `rule` needs, from the material, or estimated from its strength where it asks for that; nan for none."""
    purpose = f"the mean-stress rule {rule.name} of {where}"
    if rule.needs is None:
        return np.nan
    if rule.needs == "walker_exponent" and material.walker_exponent == "estimated":
        return of.estimated_walker_exponent(material.needed("ultimate_strength", purpose))
    if (
        rule.needs == "mean_stress_sensitivity"
        and material.mean_stress_sensitivity is None
        and material.group is not None
    ):
        return of.estimated_sensitivity(material.group, material.needed("ultimate_strength", purpose))
    return material.needed(rule.needs, purpose)
