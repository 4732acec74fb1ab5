"""An S-N curve at another R than that of its tests, by a mean-stress rule: exact, not fitted by new lines."""

from __future__ import annotations

import dataclasses
from dataclasses import dataclass
from typing import Any

import numpy as np

from vivid_anvil.ground.checks import FloatArray
from vivid_anvil.ground.errors import InputError, inside
from vivid_anvil.materials.curves.curve import ANY_R, FIXED_MEAN, Conversion, SNCurve
from vivid_anvil.materials.curves.family import mean_over_amplitude
from vivid_anvil.materials.mean_stress import MEAN_STRESS_RULES
from vivid_anvil.materials.mean_stress.apply import compressive_mean, counted_r, equivalent_amplitude
from vivid_anvil.materials.mean_stress.working import rule_steps
from vivid_anvil.units import UnitSystem, inner, one, opened
from vivid_anvil.writing.working import Step


@opened(r_ratio=one(below=1.0))
def curve_at_r(
    curve: SNCurve, r_ratio: float, *, rule: str, compressive: str = "ignored", **values: float | str
) -> SNCurve:
    """`curve`, in its own terms (range or amplitude), at `r_ratio` below 1, by a mean-stress rule.

    A cycle of the new curve has the life that the old curve gives its equivalent amplitude.

    Parameters
    ----------
    curve : SNCurve
        The S-N curve.
    r_ratio : float
        Ratio of the smallest to the largest stress, R, -.
    rule : str
        The rule, by its name.
    compressive : str, default "ignored"
        What a compressive mean does: one of `COMPRESSIVE_MEANS`.
    **values : any
        Values that the rule needs, such as `ultimate_strength`.

    Returns
    -------
    SNCurve
        The curve at that R, with the step that made it.

    Raises
    ------
    InputError
        For a curve without an R of its own, and for a rule whose value is missing.

    Examples
    --------
    >>> from vivid_anvil.materials.curves.forms import straight_curve
    >>> bar = straight_curve(name="bar", stress="amplitude", r_ratio=-1, point_stress=140.0, point_life=1e6, slope=8)
    >>> pulsating = curve_at_r(bar, 0.0, rule="goodman", ultimate_strength=700.0)
    >>> float(pulsating.stress_at(1e6)).__round__(3), float(pulsating.life(116.6666667)).__round__(-1)
    (116.667, 1000000.0)
    """
    where = f"S-N curve {curve.name} at R = {r_ratio:g}"
    chosen = MEAN_STRESS_RULES.get(rule, inside(where, "rule"))
    if curve.r_ratio in (ANY_R, FIXED_MEAN) or curve.conversion is not None:
        raise InputError(where, f"a curve for {curve.at_r}", "a curve tested at one R, not converted before")
    value = chosen.checked_value(values, where)
    compressive_mean(0.0, 0.0, compressive, chosen, inside(where, "compressive"))
    half = 0.5 if curve.stress == "range" else 1.0
    made = ByRule(rule, value, compressive, float(curve.r_ratio), float(r_ratio), half)
    return dataclasses.replace(
        curve,
        name=f"{curve.name} at R = {r_ratio:g}",
        r_ratio=float(r_ratio),
        source=f"{curve.source}; to R = {r_ratio:g} by the rule {rule}",
        conversion=made,
    )


@dataclass(frozen=True)
class ByRule(Conversion):
    """Stresses at `r_ratio` as those at `tested_r`, by the mean-stress rule of that name with its `value`.

    `half` is 0.5 for a curve in ranges, else 1.
    """

    rule: str
    value: float
    compressive: str
    tested_r: float
    r_ratio: float
    half: float

    @property
    def words(self) -> str:
        """What was done."""
        return f"brought from R = {self.tested_r:g} by the rule {self.rule}"

    def to_tested(self, stress: FloatArray) -> FloatArray:
        """The amplitude that does the same damage at the R of the tests."""
        return self._moved(stress, self.r_ratio, self.tested_r)

    def from_tested(self, stress: FloatArray) -> FloatArray:
        """The other way round."""
        return self._moved(stress, self.tested_r, self.r_ratio)

    def _moved(self, stress: FloatArray, first: float, then: float) -> FloatArray:
        amplitude = self.half * np.asarray(stress, dtype=np.float64)
        needs = MEAN_STRESS_RULES.get(self.rule, "mean_stress").needs
        values = {} if needs is None else {needs: self.value}
        settings: dict[str, Any] = {"rule": self.rule, "compressive": self.compressive, **values}
        return (
            inner(equivalent_amplitude)(amplitude, mean_over_amplitude(first) * amplitude, r_ratio=then, **settings)
            / self.half
        )

    def working(self, stress: float, system: UnitSystem) -> tuple[Step, ...]:
        """The steps of the rule, from an amplitude at `r_ratio` to that at the R of the tests."""
        size, rule = self.half * stress, MEAN_STRESS_RULES.get(self.rule, "mean_stress")
        mean = float(compressive_mean(size, mean_over_amplitude(self.r_ratio) * size, self.compressive, rule))
        return rule_steps(rule, size, mean, self.value, counted_r(self.tested_r, self.compressive), system)
