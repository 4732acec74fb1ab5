"""An S-N curve at another R than that of its tests, by a mean-stress rule: exact, not fitted by new lines."""

from __future__ import annotations

import dataclasses
from typing import Any

import numpy as np

from vivid_anvil.checks import FloatArray
from vivid_anvil.damage.mean_stress_rules import compressive_mean, counted_r, equivalent_amplitude, mean_stress_rule
from vivid_anvil.damage.rule_working import rule_steps
from vivid_anvil.errors import InputError
from vivid_anvil.materials import ANY_R, FIXED_MEAN, Conversion, SNCurve, mean_over_amplitude
from vivid_anvil.units import UnitSystem
from vivid_anvil.working import Step


def curve_at_r(curve: SNCurve, r_ratio: float, *, rule: str, compressive: str = "ignored", **values: float) -> SNCurve:
    """`curve`, in its own terms (range or amplitude), at `r_ratio` below 1, by a rule of `MEAN_STRESS_RULES`
    with the value that it needs.

    A cycle of the new curve has the life that the old curve gives its equivalent amplitude. Raises InputError for a curve
    without an R of its own, and for a rule whose value is missing.

    >>> from vivid_anvil.materials import straight_curve
    >>> bar = straight_curve(name="bar", stress="amplitude", r_ratio=-1, point_stress=140.0, point_life=1e6, slope=8)
    >>> pulsating = curve_at_r(bar, 0.0, rule="goodman", ultimate_strength=700.0)
    >>> float(pulsating.stress_at(1e6)).__round__(3), float(pulsating.life(116.6666667)).__round__(-1)
    (116.667, 1000000.0)
    """
    where = f"S-N curve {curve.name} at R = {r_ratio:g}"
    chosen = mean_stress_rule(rule, f"{where}, rule")
    if curve.r_ratio in (ANY_R, FIXED_MEAN) or curve.conversion is not None:
        raise InputError(where, f"a curve for {curve.at_r}", "a curve tested at one R, not converted before")
    if chosen.needs is not None and values.get(chosen.needs) is None:
        raise InputError(where, f"no {chosen.needs}", f"the value that the rule {rule!r} needs", "State it.")
    value = float(values[chosen.needs]) if chosen.needs is not None else np.nan
    at_curve, ratio = float(curve.r_ratio), mean_over_amplitude(r_ratio)
    tested_ratio = mean_over_amplitude(at_curve)
    settings: dict[str, Any] = {"rule": rule, "compressive": compressive, **values}
    half = 0.5 if curve.stress == "range" else 1.0

    def to_tested(stress: FloatArray) -> FloatArray:
        amplitude = half * stress
        return equivalent_amplitude(amplitude, ratio * amplitude, r_ratio=at_curve, **settings) / half

    def from_tested(stress: FloatArray) -> FloatArray:
        amplitude = half * stress
        return equivalent_amplitude(amplitude, tested_ratio * amplitude, r_ratio=r_ratio, **settings) / half

    def working(stress: float, system: UnitSystem) -> tuple[Step, ...]:
        size = half * stress
        mean = float(compressive_mean(size, ratio * size, compressive, chosen))
        return rule_steps(chosen, size, mean, value, counted_r(at_curve, compressive), system)

    return dataclasses.replace(
        curve,
        name=f"{curve.name} at R = {r_ratio:g}",
        r_ratio=float(r_ratio),
        source=f"{curve.source}; to R = {r_ratio:g} by the rule {rule}",
        conversion=Conversion(to_tested, from_tested, f"brought from R = {at_curve:g} by the rule {rule}", working),
    )
