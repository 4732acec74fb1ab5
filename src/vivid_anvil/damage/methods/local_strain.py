"""Local strain: the history followed at the notch with the memory of the material, a strain-life curve, linear damage.

In: the elastic stress at the notch. A rule gives stress and strain where the metal yields; each closed loop has an amplitude of
strain and a mean stress, and of these a life (Matsuishi, M. and Endo, T. 1968; Morrow, J. 1965; Neuber, H. 1961).
"""

from __future__ import annotations

import dataclasses
import math
from collections.abc import Callable, Iterator, Mapping, Sequence
from dataclasses import dataclass
from functools import cached_property, partial
from typing import Any, ClassVar, NamedTuple

import numpy as np

from vivid_anvil.counting import Cycles
from vivid_anvil.damage.methods.local_strain_findings import local_strain_findings
from vivid_anvil.damage.methods.local_strain_steps import alone_steps, loop_steps
from vivid_anvil.damage.methods.strain_terms import damage_of, terms_of
from vivid_anvil.events import DutyCycle
from vivid_anvil.ground import checks
from vivid_anvil.ground.checks import FloatArray
from vivid_anvil.ground.errors import InputError, inside
from vivid_anvil.materials.strain import STRAIN_MEANS, CyclicCurve, StrainLife, StrainMean
from vivid_anvil.stress import METHODS, HotSpot, Method
from vivid_anvil.stress.yielding import NOTCH_RULES
from vivid_anvil.stress.yielding.hung_loops import as_stress, check_count, hung_cycles
from vivid_anvil.stress.yielding.tips_of_loops import Loops, loops_of
from vivid_anvil.units import OptionalCoherent, UnitSystem, number
from vivid_anvil.writing.finding import Finding
from vivid_anvil.writing.result import Words
from vivid_anvil.writing.table import Column, Table
from vivid_anvil.writing.working import Step

NEARLY_ELASTIC = 1e-300  # a ductility coefficient that leaves the elastic line alone
MOST_LOOPS = 10  # told in files
ON_A_PAGE = 5


class Elastic(NamedTuple):
    """What the elastic line alone would say: damage a repeat, and that over the damage with plastic strain."""

    damage: float
    ratio: float


@METHODS.add("local strain")
@dataclass(frozen=True, kw_only=True, eq=False)
class LocalStrain(Method):
    """A strain-life curve with its cyclic curve, a notch rule and what a mean stress does.

    Parameters
    ----------
    strain_life : StrainLife
        The curve, with the cyclic stress-strain curve that belongs to it.
    notch_rule : str, default "neuber"
        From the elastic stress at the notch to stress and strain: one of `NOTCH_RULES`; "none" takes the strain as it is, the
        elastic stress over E.
    plastic_limit_ratio : float, optional
        Load at which the section yields as a whole over that at which the notch first yields, for sections that yield too.
    mean_stress : str, default "smith-watson-topper"
        What the mean stress of a loop does: one of `STRAIN_MEANS`.
    critical_sum : float, default 1.0
        Damage sum at which a place counts as failed.

    Raises
    ------
    InputError
        For an argument of another kind, unit or range; the message says which.

    Examples
    --------
    >>> steel = uniform_material_law("520 MPa")
    >>> LocalStrain(strain_life=steel, mean_stress="morrow").words
    'strain-life curve uniform material law, steel of 520 MPa, neuber, mean stress morrow'
    """

    strain_life: StrainLife
    notch_rule: str = "neuber"
    plastic_limit_ratio: OptionalCoherent = OptionalCoherent("number", at_least=1.0)
    mean_stress: str = "smith-watson-topper"
    critical_sum: float = 1.0
    hangs = True
    elastic = False

    def __post_init__(self) -> None:
        where = "local strain"
        if not isinstance(self.strain_life, StrainLife):
            raise InputError(inside(where, "strain_life"), repr(self.strain_life), "a strain-life curve")
        rule = NOTCH_RULES.get(self.notch_rule, inside(where, "notch_rule"))
        STRAIN_MEANS.get(self.mean_stress, inside(where, "mean_stress"))
        checks.positive_number(inside(where, "critical_sum"), self.critical_sum, "a damage sum above 0")
        if rule.drive == "strain" and self.plastic_limit_ratio is not None:
            raise InputError(
                inside(where, "plastic_limit_ratio"),
                f"{self.plastic_limit_ratio:g} with the notch rule {self.notch_rule!r}",
                "none, as strains are taken as they are",
                "Leave it out, or choose a rule for elastic stresses.",
            )

    @property
    def cyclic(self) -> CyclicCurve:
        """The cyclic stress-strain curve."""
        return self.strain_life.cyclic

    @property
    def form(self) -> type[StrainMean]:
        """What the mean stress does."""
        return STRAIN_MEANS[self.mean_stress]

    @cached_property
    def elastic_line(self) -> StrainLife:
        """The strain-life curve without its plastic part."""
        own = self.strain_life
        return StrainLife(
            name=own.name,
            youngs_modulus=own.youngs_modulus,
            fatigue_strength_coefficient=own.fatigue_strength_coefficient,
            fatigue_strength_exponent=own.fatigue_strength_exponent,
            fatigue_ductility_coefficient=NEARLY_ELASTIC,
            fatigue_ductility_exponent=own.fatigue_ductility_exponent,
        )

    varies: ClassVar[str] = "mean stress and notch rule"

    def variants(self, spot: HotSpot) -> Mapping[str, Callable[[], Method]]:
        """By every form of the mean stress, and by the other notch rules for elastic stresses."""
        forms = [(form, self.notch_rule) for form in STRAIN_MEANS]
        rules = [(self.mean_stress, name) for name, one in NOTCH_RULES.items() if one.drive == "stress"]
        if NOTCH_RULES[self.notch_rule].drive == "strain":
            rules = []
        both = dict.fromkeys([*forms, *rules])
        return {
            f"{form}, {rule}": partial(dataclasses.replace, self, mean_stress=form, notch_rule=rule)
            for form, rule in both
        }

    @property
    def variant(self) -> str:
        """Its form of the mean stress, and its notch rule."""
        return f"{self.mean_stress}, {self.notch_rule}"

    def valid(self, variant: str) -> str:
        """What a form suits."""
        return STRAIN_MEANS[variant.partition(", ")[0]].suits

    def check(self, spot: HotSpot) -> None:
        """InputError where the material lacks what the mean-stress form needs, and for a K' below its yield strength."""
        yielding, coefficient = spot.material.yield_strength, self.cyclic.cyclic_strength_coefficient
        if yielding is not None and coefficient < yielding:
            raise InputError(
                f"hot spot {spot.name}, cyclic_strength_coefficient",
                f"K' = {coefficient:g} MPa below the yield strength of {spot.material.name}, {yielding:g} MPa",
                "K' well above it: the stress at a plastic strain of 1",
                "Is a unit wrong, or the curve that of another steel?",
            )
        self.form.value_of(spot.material, f"hot spot {spot.name}")

    def goes_with(self, duty_cycle: DutyCycle) -> None:
        """InputError for another count than rainflow's of a repeated history."""
        check_count(duty_cycle)

    def cycles(self, spot: HotSpot, duty_cycle: DutyCycle) -> Cycles:
        """The loops of a repeat as elastic stress cycles, with the branches that they hang on."""
        relation = spot.fed
        counted = hung_cycles(duty_cycle, relation.counted)
        factor = spot.notch_factor * relation.factor(duty_cycle)
        return as_stress(counted, factor, spot.notch_factor * relation.offset)

    def loops(self, cycles: Cycles) -> Loops:
        """Strain amplitude and stresses of the loop of each cycle."""
        return loops_of(self.cyclic, cycles, self.notch_rule, self.plastic_limit_ratio)

    def lives(self, spot: HotSpot, loops: Loops) -> FloatArray:
        """Life of each loop, cycles; 0 where its mean fails the place at once."""
        value = self.form.value_of(spot.material, f"hot spot {spot.name}")
        return self.form.life(self.strain_life, loops.amplitude, loops.highest, loops.lowest, value)

    def terms(self, spot: HotSpot, cycles: Cycles) -> FloatArray:
        """E times the fully reversed strain amplitude of the same life, MPa; inf where a mean reaches the strength."""
        return terms_of(self.strain_life, self.lives(spot, self.loops(cycles)))

    def damage(self, spot: HotSpot, terms: FloatArray, per_repeat: FloatArray) -> FloatArray:
        """n / N of each; inf at inf."""
        return damage_of(self.strain_life, terms, per_repeat)

    def elastic_damage(self, spot: HotSpot, cycles: Cycles) -> FloatArray:
        """Damage of each cycle a repeat by the elastic stresses and the elastic line alone: what stress-life would say."""
        value = self.form.value_of(spot.material, f"hot spot {spot.name}")
        amplitude = 0.5 * cycles.range / self.strain_life.youngs_modulus
        lives = self.form.life(self.elastic_line, amplitude, cycles.maximum, cycles.minimum, value)
        with np.errstate(divide="ignore"):
            return np.asarray(cycles.per_repeat / lives)

    def beside(self, life: Any) -> Elastic:
        """The elastic line beside a life by this method."""
        elastic = float(self.elastic_damage(life.hot_spot, life.spectrum.cycles).sum())
        own = life.damage_per_repeat
        return Elastic(elastic, elastic / own if own > 0.0 else math.nan)

    def terms_in_words(self, spot: HotSpot) -> str:
        """What its terms are."""
        return "strain amplitude × E of equal life"

    def made(self, spot: HotSpot) -> Sequence[Step]:
        """Where the cyclic curve comes from, where it is that of the four constants."""
        return self.strain_life.compatible_steps()

    def steps(self, spot: HotSpot, size: float, mean: float, units: UnitSystem) -> list[Step]:
        """A loop by itself: from first loading to its larger end, back to the other, to its life."""
        return alone_steps(self, spot, size, mean, units)

    def steps_of(self, spot: HotSpot, cycles: Cycles, row: int, units: UnitSystem) -> list[Step]:
        """The loop of a row, from the outermost one that it hangs on."""
        return loop_steps(self, spot, cycles, row, units)

    def beyond(self, spot: HotSpot, mean: float) -> tuple[str, str, str]:
        """A mean stress at or beyond the fatigue strength coefficient."""
        strength = self.strain_life.fatigue_strength_coefficient
        return (
            "a loop whose mean stress reaches σ_f'",
            f"a mean below σ_f', {strength:.4g} MPa",
            "The part would fail statically. Check units and stress per load.",
        )

    def findings(self, life: Any) -> Iterator[Finding]:
        """On the constants, on plastic strain against the elastic line, on the section, on what is kept in mind."""
        return local_strain_findings(self, life)

    def words_of(self, life: Any, units: UnitSystem) -> Words:
        """Local stress and strain, plastic part, the elastic line beside it."""
        loops = self.loops(life.spectrum.cycles)
        if not len(loops.amplitude):
            return ()
        from vivid_anvil.units import in_unit

        top, low = float(loops.highest.max()), float(loops.lowest.min())
        stresses = f"{in_unit(low, 'stress', units)} to {in_unit(top, 'stress', units)}"
        widest = float(loops.amplitude.max())
        words = [("Notch", f"local stress {stresses}; largest strain amplitude {in_unit(widest, 'strain', units)}")]
        beside = self.beside(life)
        if beside.damage > 0.0 and math.isfinite(beside.damage):
            repeats = self.critical_sum / beside.damage
            told = life.duty_cycle.calendar.in_all_units(repeats, life.duty_cycle.hours)
            words.append(("Elastic line", f"stress-life by its elastic line alone: {told}"))
        return tuple(words)

    def tables(self, life: Any, units: UnitSystem) -> tuple[Table, ...]:
        """The loops that do most damage."""
        worst = np.argsort(-life.damage, kind="stable")[:MOST_LOOPS]
        worst = worst[life.damage[worst] > 0.0]
        if not worst.size:
            return ()
        spectrum, curve = life.spectrum, self.strain_life
        loops = self.loops(spectrum.cycles)
        lives = self.lives(life.hot_spot, loops)[worst]
        plastic = self.cyclic.plastic(0.5 * (loops.highest - loops.lowest)[worst])
        columns = (
            Column("event", [spectrum.sources[int(spectrum.event[i])].name for i in worst]),
            Column("strain amplitude", loops.amplitude[worst].tolist(), of="strain"),
            Column("plastic part", (plastic / loops.amplitude[worst]).tolist(), style="share"),
            Column("lowest stress", loops.lowest[worst].tolist(), of="stress", head="Stress from"),
            Column("highest stress", loops.highest[worst].tolist(), of="stress", head="to"),
            Column("elastic amplitude", (0.5 * spectrum.cycles.range[worst]).tolist(), of="stress", only="file"),
            Column("per repeat", spectrum.per_repeat[worst].tolist(), only="file"),
            Column("life [cycles]", lives.tolist(), head="Life\n[cycles]", style="number"),
            Column("damage per repeat", life.damage[worst].tolist(), only="file"),
            Column("share", (life.damage[worst] / life.damage_per_repeat).tolist(), style="share"),
        )
        kept = range(ON_A_PAGE) if worst.size > ON_A_PAGE else None
        title = f"The worst loops; transition at {number(curve.transition_life)} cycles"
        return (Table(title, columns, "loops", kept=kept, others=""),)

    def columns(self, lives: Sequence[Any]) -> tuple[Column, ...]:
        """Curve, rules, and what the elastic line says."""
        methods = [life.method if isinstance(life.method, LocalStrain) else None for life in lives]
        names = [None if one is None else one.strain_life.name for one in methods]
        keys = (
            ("notch rule", "notch_rule"),
            ("plastic limit ratio", "plastic_limit_ratio"),
            ("mean stress on strain", "mean_stress"),
        )
        beside = [
            None if one is None else one.critical_sum / (one.beside(life).damage or math.nan)
            for one, life in zip(methods, lives, strict=True)
        ]
        return (
            Column("strain-life curve", names, only="file"),
            *(
                Column(head, [None if one is None else getattr(one, key) for one in methods], only="file")
                for head, key in keys
            ),
            Column("life by the elastic line [repeats]", beside, only="file"),
        )

    def others(self, spot: HotSpot) -> Mapping[str, Any]:
        """The curve."""
        return {"strain-life curve": self.strain_life.record()}

    @property
    def words(self) -> str:
        """Curve, notch rule, mean stress."""
        return f"strain-life curve {self.strain_life.name}, {self.notch_rule}, mean stress {self.mean_stress}"
