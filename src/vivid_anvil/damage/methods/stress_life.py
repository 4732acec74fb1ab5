"""Stress-life: an S-N curve, a mean-stress rule, linear damage.

Method: D = Σ n / N (Palmgren, A. 1924, VDI-Z. 68, 339-341; Miner, M. A. 1945, J. Appl. Mech. 12, A159-A164).
"""

from __future__ import annotations

import dataclasses
from collections.abc import Callable, Iterator, Mapping, Sequence
from dataclasses import dataclass, field
from functools import partial
from typing import Any, ClassVar

import numpy as np

from vivid_anvil.counting import Cycles
from vivid_anvil.damage.methods.stress_life_findings import stress_life_findings
from vivid_anvil.damage.nonlinear import ORDER_RULES
from vivid_anvil.ground import checks
from vivid_anvil.ground.checks import BoolArray, FloatArray
from vivid_anvil.ground.errors import InputError, inside
from vivid_anvil.materials import Curve, SNCurve, curve_record, life_steps
from vivid_anvil.materials.curves.below_knee import BELOW_KNEE, consistent_damage, curve_below_knee
from vivid_anvil.materials.mean_stress import MEAN_STRESS_RULES, MeanStressRule
from vivid_anvil.materials.mean_stress.apply import COMPRESSIVE_MEANS, compressive_mean, counted_r
from vivid_anvil.materials.mean_stress.working import rule_steps
from vivid_anvil.stress import METHODS, HotSpot, Method, PowerLoop
from vivid_anvil.units import UnitSystem, display_unit, opened, shown, sound
from vivid_anvil.writing.finding import Finding
from vivid_anvil.writing.table import Column
from vivid_anvil.writing.working import Step, put_in

MEANS = {"ignored": 0, "capped": 1, "credited": 2}  # as the loop knows them


@sound
@METHODS.add("stress life")
@dataclass(frozen=True, kw_only=True, eq=False)
class StressLife(Method):
    """An S-N curve with its mean-stress rule.

    Parameters
    ----------
    sn_curve : SNCurve or SNFamily
        A family has the effect of the mean in it.
    mean_stress : str
        Name of the mean-stress rule.
    compressive_mean : str
        What a compressive mean does: "ignored" counts it as 0, "credited" lets it help.
    below_knee : str
        What cycles below the last point of the curve do; "as the curve says", or a way to continue it.
    critical_sum : float
        Damage sum at which a place counts as failed.
    order_rule : str
        A rule that knows the order of the loads, for a second life beside the linear one; "none" by default.
    order_exponents : mapping
        For the power rule: its exponent in each event, by name.

    Raises
    ------
    InputError
        For an argument of another kind, unit or range; the message says which.

    Examples
    --------
    >>> curve = knee_curve(
    ...     name="S355", stress="amplitude", r_ratio=-1, knee_stress=190.0, knee_life=2e6, slope=5, slope_below=9
    ... )
    >>> StressLife(sn_curve=curve, mean_stress="goodman").words
    'S-N curve S355, mean stress goodman'
    """

    sn_curve: Curve
    mean_stress: str = "none"
    compressive_mean: str = "ignored"
    below_knee: str = "as the curve says"
    critical_sum: float = 1.0
    order_rule: str = "none"
    order_exponents: Mapping[str, float] = field(default_factory=dict)

    def __post_init__(self) -> None:
        where = "stress life"
        if not isinstance(self.sn_curve, Curve):
            raise InputError(inside(where, "sn_curve"), repr(self.sn_curve), "an S-N curve, or a family of them")
        MEAN_STRESS_RULES.get(self.mean_stress, inside(where, "mean_stress"))
        checks.one_of(inside(where, "below_knee"), self.below_knee, tuple(BELOW_KNEE))
        checks.one_of(inside(where, "order_rule"), self.order_rule, ("none", *ORDER_RULES))
        checks.one_of(inside(where, "compressive_mean"), self.compressive_mean, tuple(COMPRESSIVE_MEANS))
        checks.positive_number(inside(where, "critical_sum"), self.critical_sum, "a damage sum above 0")
        _check_exponents(self, inside(where, "order_exponents"))
        _check_rule(self, inside(where, "mean_stress"))

    @property
    def curve(self) -> Curve:  # type: ignore[override]
        """The S-N curve."""
        return self.sn_curve

    @property
    def rule(self) -> type[MeanStressRule]:
        """The mean-stress rule."""
        return MEAN_STRESS_RULES[self.mean_stress]

    @property
    def reference(self) -> SNCurve:  # type: ignore[override]
        """The curve, or that of the reference of a family, below the knee as chosen."""
        return curve_below_knee(self.sn_curve.reference, self.below_knee, "stress life, below_knee")

    @property
    def acts_together(self) -> bool:  # type: ignore[override]
        """Under the consistent rule large cycles wear down the limit for small ones."""
        return self.below_knee == "consistent"

    @property
    def corrects(self) -> bool:
        """Whether means are corrected by the rule: a curve for any R, at a fixed mean, or a family has them in it."""
        return self.rule.corrects and not self.sn_curve.has_means

    def strength(self, spot: HotSpot) -> float:
        """The strength that the rule goes by, MPa; InputError where the material lacks it."""
        return self.rule.value_of(spot.material, f"hot spot {spot.name}")

    varies: ClassVar[str] = "mean-stress rule"

    def variants(self, spot: HotSpot) -> Mapping[str, Callable[[], Method]]:
        """By every mean-stress rule; InputError for a curve that has the mean stress in it already."""
        if self.sn_curve.has_means:
            raise InputError(
                f"hot spot {spot.name}",
                f"the curve {self.sn_curve.name!r}, for {self.reference.at_r}",
                "a curve tested at one R",
                "Such a curve has the mean stress in it already: there is nothing to compare.",
            )

        def by(name: str, rule: type[MeanStressRule]) -> Method:
            choice = self.compressive_mean if rule.in_compression else "ignored"
            return dataclasses.replace(self, mean_stress=name, compressive_mean=choice)

        return {name: partial(by, name, rule) for name, rule in MEAN_STRESS_RULES.items()}

    @property
    def variant(self) -> str:
        """Its rule."""
        return self.mean_stress

    def valid(self, variant: str) -> str:
        """What a rule holds for."""
        return MEAN_STRESS_RULES[variant].validity

    def check(self, spot: HotSpot) -> None:
        """InputError where the material lacks the strength that the rule goes by."""
        if self.corrects:
            self.strength(spot)

    def terms(self, spot: HotSpot, cycles: Cycles) -> FloatArray:
        """Each cycle as range or amplitude at the R of the curve, MPa; inf where a mean reaches the strength of the rule."""
        curve, rule = self.reference, self.rule
        amplitude = 0.5 * cycles.range
        if not self.corrects:
            return self.sn_curve.equivalent(amplitude, cycles.mean)
        value = self.strength(spot)
        means = compressive_mean(amplitude, cycles.mean, self.compressive_mean, rule)
        reversed_amplitude = rule.to_reversed(amplitude, means, value)
        finite = np.isfinite(reversed_amplitude)
        r_ratio = counted_r(float(curve.r_ratio), self.compressive_mean)
        at_curve = rule.at_r(np.where(finite, reversed_amplitude, 1.0), r_ratio, value)
        return curve.from_amplitude(np.where(finite, at_curve, np.inf))

    def damage(self, spot: HotSpot, terms: FloatArray, per_repeat: FloatArray) -> FloatArray:
        """n / N of each; inf at inf."""
        beyond = np.isinf(terms)
        if beyond.any():
            return np.where(beyond, np.inf, self.damage(spot, np.where(beyond, 0.0, terms), per_repeat))
        curve = self.reference
        if self.below_knee == "consistent":
            return consistent_damage(terms, per_repeat, curve)
        with np.errstate(divide="ignore"):
            return np.asarray(per_repeat / curve.life(terms))

    def never(self, spot: HotSpot, bound: FloatArray) -> BoolArray | None:
        """A cycle within ±bound has at most that amplitude; under the rules named here also as a fully reversed one."""
        rule, curve = self.rule, self.reference
        if self.sn_curve.mean_counts or self.below_knee != "as the curve says":
            return None
        if rule.corrects and (not rule.bounded or curve.r_ratio != -1.0):
            return None
        with np.errstate(divide="ignore"):
            never = np.isinf(curve.life(np.maximum(curve.equivalent(bound, bound), 1e-300)))
        if rule.needs is not None:
            never &= bound < self.strength(spot)
        return np.asarray(never, dtype=bool)

    def loop(self, spot: HotSpot) -> PowerLoop | None:
        """Where the curve is power laws, under a line to a strength or no rule."""
        if self.sn_curve.mean_counts or self.acts_together:
            return None
        curve, rule = self.reference, self.rule
        if not curve.powers:
            return None
        if not self.corrects:
            return PowerLoop(curve, np.inf, MEANS["credited"])
        if not rule.straight or counted_r(float(curve.r_ratio), self.compressive_mean) != -1.0:
            return None
        return PowerLoop(curve, self.strength(spot), MEANS[self.compressive_mean])

    def terms_in_words(self, spot: HotSpot) -> str:
        """Such as "stress amplitude at R = -1"."""
        return f"stress {self.reference.stress} at {self.reference.at_r}"

    def made(self, spot: HotSpot) -> Sequence[Step]:
        """How the numbers of the study became the curve: class, thickness, factors, survival."""
        return () if self.sn_curve.mean_counts else self.reference.steps

    def steps(self, spot: HotSpot, size: float, mean: float, units: UnitSystem) -> list[Step]:
        """The rule, and the life on the curve."""
        return stress_life_steps(self, spot, size, mean, units)

    def beyond(self, spot: HotSpot, mean: float) -> tuple[str, str, str]:
        """A mean at or beyond the strength of the rule."""
        strength = str(self.rule.needs).replace("_", " ")
        return (
            f"a mean stress of {mean:.4g} MPa",
            f"a mean below the {strength}, {self.strength(spot):.4g} MPa",
            f"The rule {self.mean_stress!r} has no meaning there: the part would fail statically. "
            "Check units and stress per load.",
        )

    def findings(self, life: Any) -> Iterator[Finding]:
        """On the curve against the load, its ends, its limit, the rule."""
        return stress_life_findings(self, life)

    def columns(self, lives: Sequence[Any]) -> tuple[Column, ...]:
        """Curve, rule and choices."""
        methods = [life.hot_spot.method for life in lives]
        heads = ("mean-stress rule", "compressive mean", "below knee")
        names = ("mean_stress", "compressive_mean", "below_knee")
        settings = (
            Column(head, [getattr(method, name, None) for method in methods], only="file")
            for head, name in zip(heads, names, strict=True)
        )
        curves = [getattr(getattr(method, "sn_curve", None), "name", None) for method in methods]
        return (Column("curve", curves, only="file"), *settings)

    def others(self, spot: HotSpot) -> Mapping[str, Any]:
        """The curve."""
        return {"S-N curve": curve_record(self.reference)}

    @property
    def words(self) -> str:
        """Curve and rule."""
        return f"S-N curve {self.sn_curve.name}, mean stress {self.mean_stress}"


@opened()
def stress_life(method: Method) -> StressLife:
    """The method, where it is stress-life; else an InputError."""
    if not isinstance(method, StressLife):
        raise InputError("method", f"the method {method.kind!r}", "stress life, which has these keys")
    return method


@opened()
def stress_life_of(spot: HotSpot) -> StressLife:
    """The stress-life method of a hot spot; InputError where it has none, or another."""
    if not isinstance(spot.method, StressLife):
        found = "no S-N curve" if spot.method is None else f"the method {spot.method.kind!r}"
        raise InputError(
            f"hot spot {spot.name}", found, "a curve, needed for a life by stress", "Give it method = StressLife."
        )
    return spot.method


def _check_rule(method: StressLife, where: str) -> None:
    """InputError for a rule beside a curve that has the mean stress in it, and for a choice of compression that it lacks."""
    rule, curve = method.rule, method.sn_curve
    if not rule.corrects:
        return
    if curve.has_means:
        raise InputError(
            where,
            f"{rule.kind!r} with the curve {curve.name!r}, {curve.has_means}",
            "'none', or a curve that states its R",
            "Such a curve has the mean stress in it already.",
        )
    compressive_mean(0.0, 0.0, method.compressive_mean, rule, "stress life, compressive_mean")


def _check_exponents(method: StressLife, where: str) -> None:
    """InputError unless exponents go with the power rule, and only with it."""
    given = method.order_exponents
    if (method.order_rule == "power rule") != bool(given):
        found = "no exponents" if not given else f"exponents with the order_rule {method.order_rule!r}"
        raise InputError(where, found, "an exponent for each event, with the power rule only")
    for event, value in given.items():
        checks.positive_number(inside(where, f"{event}"), value, "an exponent above 0")


def stress_life_steps(method: StressLife, spot: HotSpot, size: float, mean: float, units: UnitSystem) -> list[Step]:
    """From amplitude and mean, MPa, to the stress in the curve's terms, and to the life there, cycles."""
    curve, unit, rule = method.reference, display_unit("stress", units), method.rule
    amplitude = float(shown(size, "stress", units))
    steps: list[Step] = []
    equivalent = float(
        method.terms(spot, Cycles(range=np.array([2.0 * size]), mean=np.array([mean]), count=np.ones(1)))[0]
    )
    steps += method.sn_curve.equivalent_steps(size, mean, units)
    if steps:
        amplitude = float(shown(equivalent, "stress", units))
    if method.corrects:
        counted = float(compressive_mean(size, mean, method.compressive_mean, rule))
        held = f" (the compressive mean is {method.compressive_mean})" if counted != mean else ""
        r_ratio = counted_r(float(curve.r_ratio), method.compressive_mean)
        steps += rule_steps(rule, size, counted, method.strength(spot), r_ratio, units, held)
        amplitude = steps[-1].value
    if curve.stress == "range":
        stress = float(shown(equivalent, "stress", units))
        steps.append(Step("The curve is in ranges", "ΔS = 2 × S_a", f"2 × {put_in(amplitude)} {unit}", stress, unit))
    # under the consistent rule the slope goes on for those that it lets in
    looked_up = curve_below_knee(method.reference, "continued") if method.acts_together else curve
    return [*steps, *life_steps(looked_up, equivalent, units)]
