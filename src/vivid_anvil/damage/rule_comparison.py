"""All mean-stress rules side by side: for chosen cycles, and for a hot spot with its whole spectrum."""

from __future__ import annotations

import dataclasses
import math
from collections.abc import Mapping, Sequence
from dataclasses import dataclass
from typing import Any

import numpy as np
from numpy.typing import ArrayLike

from vivid_anvil.damage.assess import assess_life
from vivid_anvil.damage.life import LifeResult
from vivid_anvil.events.life_columns import life_columns
from vivid_anvil.ground.checks import FloatArray
from vivid_anvil.ground.errors import InputError
from vivid_anvil.materials import Material
from vivid_anvil.materials.mean_stress import MEAN_STRESS_RULES
from vivid_anvil.materials.mean_stress.apply import equivalent_amplitude
from vivid_anvil.units import STRESSES, UnitSystem, many, number, one, opened
from vivid_anvil.writing.finding import Finding
from vivid_anvil.writing.result import Result, Words
from vivid_anvil.writing.table import Column, Table


@dataclass(frozen=True, eq=False)
class RulesForCycles:
    """Equivalent amplitudes, MPa, of the same cycles by each rule that the material allows, and why not by the others."""

    amplitude: FloatArray
    mean: FloatArray
    r_ratio: float
    equivalent: Mapping[str, FloatArray]
    refused: Mapping[str, str]

    def rows(self) -> list[dict[str, float]]:
        """One row a cycle: amplitude, mean, and the equivalent amplitude by each rule, MPa."""
        return [
            {
                "amplitude [MPa]": float(self.amplitude[i]),
                "mean [MPa]": float(self.mean[i]),
                **{f"{name} [MPa]": float(values[i]) for name, values in self.equivalent.items()},
            }
            for i in range(self.amplitude.size)
        ]


@opened(amplitude=many("stress", at_least=0.0), mean=STRESSES, r_ratio=one())
def compare_rules_for_cycles(
    amplitude: ArrayLike, mean: ArrayLike, material: Material, *, r_ratio: float = -1.0, compressive: str = "ignored"
) -> RulesForCycles:
    """Every rule for cycles of `amplitude` and `mean`, MPa, broadcast to shape (n,), as amplitudes at `r_ratio`.

    Parameters
    ----------
    amplitude : array_like or text with a unit
        Amplitude of each cycle, MPa.
    mean : array_like or text with a unit
        Mean of each cycle, MPa.
    material : Material
        Its strengths.
    r_ratio : float, default -1.0
        Ratio of the smallest to the largest stress, R, -.
    compressive : str, default "ignored"
        What a compressive mean does: one of `COMPRESSIVE_MEANS`.

    Returns
    -------
    RulesForCycles
        An equivalent amplitude, MPa, for each rule and cycle.

    Raises
    ------
    InputError
        For an argument of another kind, unit or range; the message says which.

    Examples
    --------
    >>> steel = Material(name="s", ultimate_strength=700.0, yield_strength=420.0)
    >>> found = compare_rules_for_cycles(120.0, 100.0, steel)
    >>> {name: round(float(value[0]), 1) for name, value in found.equivalent.items()}
    {'none': 120.0, 'goodman': 140.0, 'gerber': 122.5, 'soderberg': 157.5, 'elliptic': 123.6, 'smith-watson-topper': 162.5}
    """
    sizes, means = np.broadcast_arrays(np.atleast_1d(np.asarray(amplitude, float)), np.asarray(mean, float))
    cycles: dict[str, FloatArray] = {}
    refused: dict[str, str] = {}
    for name, rule in MEAN_STRESS_RULES.items():
        choice = compressive if rule.in_compression else "ignored"
        try:
            values: dict[str, Any] = (
                {} if rule.needs is None else {rule.needs: rule.value_of(material, "the comparison")}
            )
            cycles[name] = equivalent_amplitude(sizes, means, rule=name, r_ratio=r_ratio, compressive=choice, **values)
        except InputError as error:
            refused[name] = _reason(name, error)
    return RulesForCycles(sizes, means, r_ratio, cycles, refused)


def _reason(rule: str, error: InputError) -> str:
    """Why a rule is missing, in a few words."""
    needs = MEAN_STRESS_RULES[rule].needs if rule in MEAN_STRESS_RULES else None
    if needs is not None and error.found == f"no {needs}":
        return f"the material has no {needs}"
    return f"found {error.found}, expected {error.expected}"


@dataclass(frozen=True, eq=False, repr=False)
class RuleComparison(Result):
    """The life of one hot spot by each rule that its material allows; `refused` says why not by the others."""

    base: LifeResult
    lives: Mapping[str, LifeResult]
    refused: Mapping[str, str]

    @property
    def title(self) -> str:
        """The name of the hot spot."""
        return self.base.hot_spot.name

    @property
    def used(self) -> str:
        """The rule, form or criterion of the study."""
        return self.base.method.variant

    @property
    def spread(self) -> float:
        """Longest over shortest life that is finite; 1 where there is one."""
        lives = [life.life_repeats for life in self.lives.values() if math.isfinite(life.life_repeats)]
        return max(lives) / min(lives) if lives and min(lives) > 0.0 else 1.0

    @property
    def findings(self) -> tuple[Finding, ...]:
        """Those of the life as it is."""
        return self.base.findings

    @classmethod
    def overview(cls, results: Sequence[RuleComparison]) -> Table:
        """A row a hot spot: the rule that it uses, the shortest and the longest life of all rules."""
        lives = [[life.life_repeats for life in result.lives.values()] for result in results]
        calendars = [result.base.duty_cycle.calendar for result in results]
        columns = (
            Column("hot spot", [result.title for result in results]),
            Column("rule used", [result.used for result in results]),
            *life_columns([min(life) for life in lives], calendars, name="shortest life"),
            *life_columns([max(life) for life in lives], calendars, name="longest life"),
        )
        return Table("", columns, "comparisons")

    def words(self, units: UnitSystem) -> Words:
        """How far lives spread, and why rules are missing."""
        spread = ("", f"The longest of these lives is {number(self.spread, 3)} times the shortest.")
        return (spread, *(("", f"{name}: not possible, {why}.") for name, why in self.refused.items()))

    def tables(self, units: UnitSystem = "metric") -> tuple[Table, ...]:
        """A row a rule: damage per repeat, life, reserve on stress, for what it is valid; the one that is used marked."""
        lives, names = list(self.lives.values()), list(self.lives)
        used, duty, method = self.used, self.base.duty_cycle, self.base.method
        columns = (
            Column("hot spot", [self.title for _ in lives], only="file"),
            Column("rule", names, head=f"{method.varies[0].upper()}{method.varies[1:]}"),
            Column("used", [name == used for name in names], only="file"),
            Column("damage per repeat", [life.damage_per_repeat for life in lives], head=f"Damage\na {duty.repeat}"),
            *life_columns([life.life_repeats for life in lives], [duty.calendar] * len(lives)),
            Column(
                "used at target",
                [life.used_at_target for life in lives],
                head="Used",
                style="percent",
                endless="all at once",
            ),
            Column("reserve on stress", [life.reserve_on_stress for life in lives], head="Reserve\non stress"),
            Column("as it is", ["as it is" if name == used else "" for name in names], head="", only="page"),
            Column("validity", [method.valid(name) for name in names], only="file"),
        )
        return (Table("", columns, "rules"),)

    def others(self) -> Mapping[str, Any]:
        """Why rules are missing."""
        return {"refused": dict(self.refused)}

    def __repr__(self) -> str:
        return f"<RuleComparison {self.base.hot_spot.name}: {', '.join(self.lives)}>"


@opened()
def compare_rules(result: LifeResult) -> RuleComparison:
    """`result` again by every rule of its method, with all else the same: mean-stress rules, forms on strain, criteria.

    Parameters
    ----------
    result : LifeResult
        The result that is asked.

    Returns
    -------
    RuleComparison
        A life for each rule.

    Raises
    ------
    InputError
        For a curve that has the mean stress in it already (any R, a fixed mean, a family).

    Examples
    --------
    >>> compare_rules(result.lives[1])  # of the demo: run_study(read_study('larkfell.toml'))
    <RuleComparison bore of the suspension pin: none, goodman, gerber, soderberg, elliptic, smith-watson-topper>
    """
    spot, lives, refused = result.hot_spot, {}, {}
    for name, make in spot.assessed_by.variants(spot).items():
        try:
            other = dataclasses.replace(spot, method=make())
            lives[name] = assess_life(other, result.duty_cycle, target=result.target_repeats)
        except InputError as error:
            refused[name] = _reason(name, error)
    return RuleComparison(result, lives, refused)
