"""Hand calculation of a mean-stress rule: from amplitude and mean to the fully reversed amplitude, and to the R of a curve."""

from __future__ import annotations

from vivid_anvil.materials.mean_stress.rules import MeanStressRule
from vivid_anvil.materials.mean_stress.sensitivity import mean_ratio
from vivid_anvil.units import UnitSystem, display_unit, shown
from vivid_anvil.writing.working import Step, put_in

# The four regions of the sensitivity rule: up to which mean / amplitude, at which R, formula, numbers; and the same at R.
_REGIONS = (
    (-1.0, "R > 1", "S_a × (1 - M)", "{a} × (1 - {v})", "S_ar / (1 - M)", "{a} / (1 - {v})"),
    (1.0, "R <= 0", "S_a + M × S_m", "{a} + {v} × {m}", "S_ar / (1 + M × k)", "{a} / (1 + {v} × {k})"),
    (
        3.0,
        "0 < R < 0.5",
        "(1 + M) × (S_a + M / 3 × S_m) / (1 + M / 3)",
        "(1 + {v}) × ({a} + {v} / 3 × {m}) / (1 + {v} / 3)",
        "S_ar × (1 + M / 3) / ((1 + M) × (1 + M / 3 × k))",
        "{a} × (1 + {v} / 3) / ((1 + {v}) × (1 + {v} / 3 × {k}))",
    ),
    (
        float("inf"),
        "R >= 0.5",
        "3 × S_a × (1 + M)^2 / (3 + M)",
        "3 × {a} × (1 + {v})^2 / (3 + {v})",
        "S_ar × (3 + M) / (3 × (1 + M)^2)",
        "{a} × (3 + {v}) / (3 × (1 + {v})^2)",
    ),
)


def rule_steps(
    rule: MeanStressRule,
    amplitude: float,
    mean: float,
    value: float,
    r_ratio: float,
    system: UnitSystem = "metric",
    remark: str = "",
) -> tuple[Step, ...]:
    """Steps from `amplitude` and `mean`, MPa, as they enter the rule, to the amplitude at `r_ratio`.

    `value` is what the rule needs, in MPa or a plain number; `remark` is said of the first step.
    """
    unit = display_unit("stress", system)

    def stress(one: float) -> str:
        return f"{put_in(float(shown(one, 'stress', system)))} {unit}"

    is_strength = rule.needs is not None and rule.needs.endswith(("strength", "coefficient"))
    v = stress(value) if is_strength else put_in(value)
    reversed_amplitude = float(rule.to_reversed(amplitude, mean, value))
    formula, numbers = _reversed(rule, amplitude, mean)
    steps = [
        Step(
            f"Equally damaging fully reversed amplitude, rule {rule.name}{remark}",
            formula,
            numbers.format(a=stress(amplitude), m=stress(mean), v=v),
            float(shown(reversed_amplitude, "stress", system)),
            unit,
            rule.source,
        )
    ]
    if r_ratio != -1.0:
        formula, numbers = _at_r(rule, r_ratio)
        steps.append(
            Step(
                f"The same at the R of the curve, {r_ratio:g}",
                formula,
                numbers.format(a=stress(reversed_amplitude), k=put_in(mean_ratio(r_ratio)), v=v),
                float(shown(float(rule.at_r(reversed_amplitude, r_ratio, value)), "stress", system)),
                unit,
            )
        )
    return tuple(steps)


def _reversed(rule: MeanStressRule, amplitude: float, mean: float) -> tuple[str, str]:
    if rule.numbers:
        return rule.formula, rule.numbers
    place = mean / amplitude if amplitude else 0.0
    region = next(one for one in _REGIONS if place < one[0] or (one[0] == 1.0 and place <= 1.0))
    return f"S_ar = {region[2]}, {region[1]}", region[3]


def _at_r(rule: MeanStressRule, r_ratio: float) -> tuple[str, str]:
    if rule.numbers_at:
        return rule.formula_at, rule.numbers_at
    region = next(one for one in _REGIONS if mean_ratio(r_ratio) < one[0] or (one[0] == 1.0 and r_ratio <= 0.0))
    return f"S_aR = {region[4]}, {region[1]}, k = (1 + R) / (1 - R)", region[5]
