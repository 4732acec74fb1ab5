"""Strain on the critical plane: the place yields under all stresses at once, and on each plane strains are counted.

In: elastic stresses of six components at a place. Local stress and strain follow a rule for several stresses at once; a criterion
makes of the strains and normal stresses of each cycle on a plane one parameter, whose life a strain-life curve gives.
"""

from __future__ import annotations

import dataclasses
from collections.abc import Callable, Iterator, Mapping, Sequence
from dataclasses import dataclass
from functools import cached_property, partial
from typing import Any, ClassVar

import numpy as np

from vivid_anvil.counting import Cycles
from vivid_anvil.counting.cycles import of_a_repeat
from vivid_anvil.damage.methods.kept import Kept
from vivid_anvil.damage.methods.strain_plane_findings import strain_plane_findings
from vivid_anvil.damage.methods.strain_plane_steps import at_ends, strain_steps
from vivid_anvil.damage.methods.strain_search import StrainSearch, Yielded, yielded
from vivid_anvil.damage.methods.strain_terms import damage_of, terms_of
from vivid_anvil.damage.methods.worst_plane import WorstPlane
from vivid_anvil.events import DutyCycle, Source
from vivid_anvil.ground import checks
from vivid_anvil.ground.checks import FloatArray
from vivid_anvil.ground.errors import InputError, inside
from vivid_anvil.materials.strain import StrainLife
from vivid_anvil.stress import METHODS, HotSpot, Method
from vivid_anvil.stress.planes.plane_cycles import only_alone, placed
from vivid_anvil.stress.planes.strain_parameters import STRAIN_PARAMETERS, Given, StrainCycles, StrainParameter
from vivid_anvil.stress.planes.surface_planes import check_planes, free_normal, surface_stated
from vivid_anvil.stress.yielding.local_tensors import PLASTICITY, Yielding
from vivid_anvil.units import OptionalCoherent, UnitSystem, in_unit, number
from vivid_anvil.writing.finding import Finding
from vivid_anvil.writing.result import Words
from vivid_anvil.writing.table import Column
from vivid_anvil.writing.working import Step

RANGES, HIGHEST, LOWEST, ACROSS = "strain range", "highest normal stress", "lowest normal stress", "normal strain range"
NONE = -1  # of no sample


@dataclass(frozen=True, eq=False)
class _Known:
    """What was found for a place and a duty cycle."""

    worst: WorstPlane
    yielded: Yielded


_FOUND: Kept[_Known] = Kept()


@METHODS.add("strain on planes")
@dataclass(frozen=True, kw_only=True, eq=False)
class StrainPlane(Method):
    """A criterion on strains on planes with a strain-life curve.

    Parameters
    ----------
    strain_life : StrainLife
        The curve, with the cyclic stress-strain curve that belongs to it.
    criterion : str, default "fatemi-socie"
        One of `STRAIN_PARAMETERS`.
    k : float, optional
        Weight of the normal stress, -, for "fatemi-socie".
    s : float, optional
        Weight of the normal strain, -, for "brown-miller"; 0.5 unless stated.
    plasticity : str, default "proportional"
        How the place yields: one of `PLASTICITY`.
    notch_rule : str, default "neuber"
        From elastic to local equivalent stress: one of `NOTCH_RULES` for stresses.
    poissons_ratio : float, default 0.3
        Elastic, -.
    transverse : str, default "stress ratio"
        What the proportional rule holds in the surface: one of `TRANSVERSE`.
    nonproportional_hardening : float, default 0.0
        α, -: K' times 1 + α F, with F how far the path leaves a line (0 to 1). For the incremental rule.
    planes : str, default "all"
        "all", or "free surface": only those across the surface and at 45 degrees to it.
    surface_normal : three numbers, optional
        Normal of the free surface; without it the direction along which there is no stress.
    critical_sum : float, default 1.0
        Damage sum at which a place counts as failed.

    Raises
    ------
    InputError
        For an argument of another kind, unit or range; the message says which.

    Examples
    --------
    >>> steel = uniform_material_law("520 MPa")
    >>> StrainPlane(strain_life=steel, k=0.3).words
    'strain-life curve uniform material law, steel of 520 MPa, planes by fatemi-socie, k 0.3, proportional, neuber'
    """

    strain_life: StrainLife
    criterion: str = "fatemi-socie"
    k: OptionalCoherent = OptionalCoherent("number", at_least=0.0)
    s: OptionalCoherent = OptionalCoherent("number", at_least=0.0)
    plasticity: str = "proportional"
    notch_rule: str = "neuber"
    poissons_ratio: float = 0.3
    transverse: str = "stress ratio"
    nonproportional_hardening: float = 0.0
    planes: str = "all"
    surface_normal: tuple[float, float, float] | None = None
    critical_sum: float = 1.0
    tensors = True
    hangs = True
    elastic = False

    def __post_init__(self) -> None:
        where = "strain on planes"
        if not isinstance(self.strain_life, StrainLife):
            raise InputError(inside(where, "strain_life"), repr(self.strain_life), "a strain-life curve")
        STRAIN_PARAMETERS.get(self.criterion, inside(where, "criterion"))
        checks.positive_number(inside(where, "critical_sum"), self.critical_sum, "a damage sum above 0")
        self.form.check_constants(self, where)
        check_planes(where, self.planes)
        object.__setattr__(self, "surface_normal", surface_stated(where, self.surface_normal))
        assert self.how is not None  # says what is wrong with it

    @cached_property
    def how(self) -> Yielding:
        """How the place yields."""
        return Yielding(
            cyclic=self.strain_life.cyclic,
            plasticity=self.plasticity,
            notch_rule=self.notch_rule,
            poissons_ratio=self.poissons_ratio,
            transverse=self.transverse,
            nonproportional_hardening=self.nonproportional_hardening,
        )

    @property
    def form(self) -> type[StrainParameter]:
        """The criterion."""
        return STRAIN_PARAMETERS[self.criterion]

    def given(self, spot: HotSpot) -> Given:
        """The constants of the criterion."""
        return self.form.given(self, spot.material, f"hot spot {spot.name}")

    def normal_of(self, tensors: FloatArray) -> FloatArray:
        """The normal of the surface: as it is stated, else the direction along which there is least stress."""
        return np.asarray(self.surface_normal) if self.surface_normal is not None else free_normal(tensors).normal

    varies: ClassVar[str] = "criterion and rule for yielding"

    def variants(self, spot: HotSpot) -> Mapping[str, Callable[[], Method]]:
        """By every criterion with this rule for yielding, and by the other rules with this criterion."""
        both = [(criterion, self.plasticity) for criterion in STRAIN_PARAMETERS]
        both += [(self.criterion, plasticity) for plasticity in PLASTICITY]

        def by(criterion: str, plasticity: str) -> Method:
            takes = STRAIN_PARAMETERS[criterion].takes
            k, s = (getattr(self, key) if key in takes else None for key in ("k", "s"))
            hardening = self.nonproportional_hardening if plasticity == "incremental" else 0.0
            across = self.transverse if plasticity == "proportional" else "stress ratio"
            return dataclasses.replace(
                self,
                criterion=criterion,
                k=k,
                s=s,
                plasticity=plasticity,
                nonproportional_hardening=hardening,
                transverse=across,
            )

        return {f"{criterion}, {rule}": partial(by, criterion, rule) for criterion, rule in dict.fromkeys(both)}

    @property
    def variant(self) -> str:
        """Its criterion and rule."""
        return f"{self.criterion}, {self.plasticity}"

    def valid(self, variant: str) -> str:
        """What a criterion suits."""
        return STRAIN_PARAMETERS[variant.partition(", ")[0]].suits

    def check(self, spot: HotSpot) -> None:
        """InputError for a constant that neither the method nor the material has, and for a place without six components."""
        self.given(spot)
        if spot.relation is not None:
            placed(spot.relation)

    def goes_with(self, duty_cycle: DutyCycle) -> None:
        """InputError where cycles are not rainflow's of events each by itself, and for loads over frequency."""
        only_alone(duty_cycle)

    def known(self, spot: HotSpot, duty_cycle: DutyCycle) -> _Known:
        """The worst plane and how the place yields; looked for once for a place and a duty cycle."""

        def look() -> _Known:
            self.goes_with(duty_cycle)
            local = yielded(self, spot, duty_cycle)
            return _Known(StrainSearch(self, spot, local.events).worst(), local)

        return _FOUND.of(spot, duty_cycle, look)

    def worst(self, spot: HotSpot, duty_cycle: DutyCycle) -> WorstPlane:
        """The plane and direction that are damaged most."""
        return self.known(spot, duty_cycle).worst

    def opens_along(self, spot: HotSpot, duty_cycle: DutyCycle) -> FloatArray:
        """The normal of the worst plane."""
        return self.worst(spot, duty_cycle).found.normal

    def on_planes(self, spot: HotSpot, duty_cycle: DutyCycle) -> Callable[[FloatArray], FloatArray]:
        """Damage a repeat on planes, by their normals, shape (planes, 3): for a map, or a table of chosen planes."""
        return StrainSearch(self, spot, self.known(spot, duty_cycle).yielded.events).damage

    def cycles(self, spot: HotSpot, duty_cycle: DutyCycle) -> Cycles:
        """Cycles on the worst plane: as range E times that of the counted strain, as mean the middle normal stress, MPa."""
        return self._cycles(spot, duty_cycle, self.worst(spot, duty_cycle))

    def again(self, spot: HotSpot, duty_cycle: DutyCycle, factor: float) -> Cycles:
        """The same with all loads times a factor, on the plane that is worst at the loads as they are."""
        worst = self.worst(spot, duty_cycle)
        local = yielded(self, spot, duty_cycle, factor)
        search = StrainSearch(self, spot, local.events)
        own = tuple(search.cycles_on(event, worst.found.normal, worst.along) for event in local.events)
        return self._cycles(spot, duty_cycle, worst._replace(cycles=own, events=local.events))

    def _cycles(self, spot: HotSpot, duty_cycle: DutyCycle, worst: WorstPlane) -> Cycles:
        modulus, sources = self.strain_life.youngs_modulus, []
        for event, own in zip(worst.events, worst.cycles, strict=True):
            found: StrainCycles = own.cycles
            start, end = (_samples(event.samples, one) for one in (own.start, own.end))
            table = Cycles(
                range=modulus * found.ranges,
                mean=0.5 * (found.highest + found.lowest),
                count=own.per_repeat / event.often if event.often else own.per_repeat,
                start=start,
                end=end,
                sample_rate=event.sample_rate,
                columns=dict(zip((RANGES, HIGHEST, LOWEST, ACROSS), found, strict=True)),
            )
            sources.append(Source(event.name, event.often, table, event.history))
        return of_a_repeat(sources, spot.extremes(duty_cycle))  # of what one stress would say: held against strengths

    def own(self, cycles: Cycles, rows: Any = slice(None)) -> StrainCycles:
        """What happens on the plane in cycles of a table."""
        return StrainCycles(*(cycles.columns[name][rows] for name in (RANGES, HIGHEST, LOWEST, ACROSS)))

    def lives(self, spot: HotSpot, cycles: StrainCycles) -> FloatArray:
        """Life of each, cycles."""
        return self.form.life(self.given(spot), cycles)

    def terms(self, spot: HotSpot, cycles: Cycles) -> FloatArray:
        """E times the fully reversed strain amplitude of the same life, MPa; inf where a mean fails the place at once."""
        return terms_of(self.strain_life, self.lives(spot, self.own(cycles)))

    def damage(self, spot: HotSpot, terms: FloatArray, per_repeat: FloatArray) -> FloatArray:
        """n / N of each; inf at inf."""
        return damage_of(self.strain_life, terms, per_repeat)

    def terms_in_words(self, spot: HotSpot) -> str:
        """What its terms are."""
        return "strain amplitude × E of equal life"

    def made(self, spot: HotSpot) -> Sequence[Step]:
        """Where the cyclic curve comes from, where it is that of the four constants."""
        return self.strain_life.compatible_steps()

    def steps(self, spot: HotSpot, size: float, mean: float, units: UnitSystem) -> list[Step]:
        """Of a cycle of this strain amplitude, over E, whose normal stress stays at a mean."""
        one = np.array([mean])
        strain = np.array([2.0 * size / self.strain_life.youngs_modulus])
        return strain_steps(self, spot, StrainCycles(strain, one, one, np.zeros(1)), units)

    def steps_of(self, spot: HotSpot, cycles: Cycles, row: int, units: UnitSystem) -> list[Step]:
        """From strains and normal stress on the plane to the life."""
        return strain_steps(self, spot, self.own(cycles, slice(row, row + 1)), units)

    def load_steps(self, life: Any, row: int, units: UnitSystem) -> list[Step]:
        """Local stress and strain at both ends, resolved on the plane."""
        return at_ends(self, life, row, units)

    def beyond(self, spot: HotSpot, mean: float) -> tuple[str, str, str]:
        """A mean normal stress at or beyond half of the fatigue strength coefficient."""
        return (
            f"a cycle of mean normal stress {mean:.4g} MPa that fails it at once",
            f"a mean below half of σ_f', {0.5 * self.strain_life.fatigue_strength_coefficient:.4g} MPa",
            "The part would fail statically. Check units and stresses.",
        )

    def findings(self, life: Any) -> Iterator[Finding]:
        """On the plane, on yielding, on the path."""
        return strain_plane_findings(self, life)

    def words_of(self, life: Any, units: UnitSystem) -> Words:
        """The plane by its angles and its normal; local stress and strain."""
        known = self.known(life.hot_spot, life.duty_cycle)
        largest = max(float(np.abs(event.strain).max()) for event in known.worst.events if event.strain is not None)
        elastic = max(path.equivalent for path in known.yielded.paths)
        top = in_unit(elastic, "stress", units)
        words = f"elastic equivalent stress up to {top}; largest strain {in_unit(largest, 'strain', units)}"
        return (*known.worst.told, ("Notch", words))

    def columns(self, lives: Sequence[Any]) -> tuple[Column, ...]:
        """Curve, criterion, rules."""
        methods = [life.method if isinstance(life.method, StrainPlane) else None for life in lives]
        names = [None if one is None else one.strain_life.name for one in methods]
        keys = (("strain criterion", "criterion"), ("plasticity", "plasticity"), ("planes looked at", "planes"))
        return (
            Column("strain-life curve of planes", names, only="file"),
            *(
                Column(head, [None if one is None else getattr(one, key) for one in methods], only="file")
                for head, key in keys
            ),
        )

    def others(self, spot: HotSpot) -> Mapping[str, Any]:
        """The curve."""
        return {"strain-life curve": self.strain_life.record()}

    @property
    def words(self) -> str:
        """Curve, criterion, rule for yielding."""
        weight = next(
            (f", {key} {number(getattr(self, key))}" for key in ("k", "s") if getattr(self, key) is not None), ""
        )
        which = "" if self.planes == "all" else ", planes of the free surface"
        rule = f", {self.plasticity}" + ("" if self.plasticity == "elastic" else f", {self.notch_rule}")
        return f"strain-life curve {self.strain_life.name}, planes by {self.criterion}{weight}{rule}{which}"


def _samples(samples: Any, places: Any) -> Any:
    """Samples of the history at places of what was followed."""
    if samples is None:
        return places
    return np.where(places >= 0, samples[np.maximum(places, 0)], NONE)
