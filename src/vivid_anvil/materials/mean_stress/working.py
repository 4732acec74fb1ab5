"""Hand calculation of a mean-stress rule: from amplitude and mean to the fully reversed amplitude, and to the R of a curve."""

from __future__ import annotations

from vivid_anvil.materials.mean_stress.rule import MeanStressRule, mean_ratio
from vivid_anvil.units import UnitSystem, display_unit, shown
from vivid_anvil.writing.working import Step, put_in


def rule_steps(
    rule: type[MeanStressRule],
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
    formula, numbers = rule.formulas(amplitude, mean)
    steps = [
        Step(
            f"Equally damaging fully reversed amplitude, rule {rule.kind}{remark}",
            formula,
            numbers.format(a=stress(amplitude), m=stress(mean), v=v),
            float(shown(reversed_amplitude, "stress", system)),
            unit,
            rule.source,
        )
    ]
    if r_ratio != -1.0:
        formula, numbers = rule.formulas_at(r_ratio)
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
