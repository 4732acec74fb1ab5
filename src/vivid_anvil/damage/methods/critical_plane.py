"""Critical plane: on each plane the shear is counted along directions, each cycle with its normal stress; the worst plane counts.

In: stresses of six components at a place. A criterion makes of shear amplitude and normal stress one parameter, which a uniaxial
S-N curve is asked about at the fully reversed amplitude that has the same parameter.
"""

from __future__ import annotations

import dataclasses
from collections.abc import Callable, Iterator, Mapping, Sequence
from dataclasses import dataclass
from functools import partial
from typing import Any, ClassVar

import numpy as np

from vivid_anvil.counting import Cycles
from vivid_anvil.counting.cycles import of_a_repeat
from vivid_anvil.damage.methods.critical_plane_findings import critical_plane_findings
from vivid_anvil.damage.methods.critical_plane_steps import load_steps, plane_steps
from vivid_anvil.damage.methods.endless_life import endless_life
from vivid_anvil.damage.methods.kept import Kept
from vivid_anvil.damage.methods.plane_search import Search, search_of
from vivid_anvil.damage.methods.worst_plane import WorstPlane
from vivid_anvil.events import DutyCycle, Source
from vivid_anvil.ground import checks
from vivid_anvil.ground.checks import FloatArray
from vivid_anvil.ground.errors import InputError, inside
from vivid_anvil.materials import SNCurve, curve_record
from vivid_anvil.stress import METHODS, HotSpot, Method, OfMany
from vivid_anvil.stress.measures.straight import normal_weights
from vivid_anvil.stress.planes.limits_used import FatigueLimits
from vivid_anvil.stress.planes.path_places import Asking, PathLoads
from vivid_anvil.stress.planes.plane_cycles import PlaneCycles, only_alone, placed, tensor_event, tensor_events
from vivid_anvil.stress.planes.shear_amplitude import SHEAR_AMPLITUDES
from vivid_anvil.stress.planes.shear_parameters import SHEAR_PARAMETERS, ShearParameter
from vivid_anvil.stress.planes.surface_planes import check_planes, surface_stated
from vivid_anvil.units import OptionalCoherent, UnitSystem, number
from vivid_anvil.writing.finding import Finding
from vivid_anvil.writing.result import Words
from vivid_anvil.writing.table import Column, Table
from vivid_anvil.writing.working import Step

_FOUND: Kept[WorstPlane] = Kept()


@METHODS.add("critical plane")
@dataclass(frozen=True, kw_only=True, eq=False)
class CriticalPlane(Method):
    """A criterion on planes with a uniaxial S-N curve.

    Parameters
    ----------
    sn_curve : SNCurve
        Of fully reversed uniaxial tests (R = -1), or of any R.
    criterion : str, default "findley"
        One of `SHEAR_PARAMETERS`.
    k : float, optional
        Weight of the normal stress, -, for "findley" and "matake"; without it by the two fatigue limits.
    axial_limit : float or text with a unit, optional
        Fatigue limit in tension and compression, amplitude, fully reversed, MPa.
    torsion_limit : float or text with a unit, optional
        Fatigue limit in torsion, amplitude, fully reversed, MPa.
    repeated_limit : float or text with a unit, optional
        Fatigue limit in repeated tension (R = 0), amplitude, MPa: beside that in torsion, for Sines' criterion of endless life.
    shear_amplitude : str, optional
        Without it the shear is counted along directions by rainflow. With one of `SHEAR_AMPLITUDES`, such as "circle", each
        passage of an event is one cycle, with that amplitude of its whole path: for loads that go round once.
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
    >>> curve = knee_curve(
    ...     name="S355", stress="amplitude", r_ratio=-1, knee_stress=190.0, knee_life=2e6, slope=5, slope_below=9
    ... )
    >>> CriticalPlane(sn_curve=curve, criterion="findley", k=0.3).words
    'S-N curve S355, critical plane by findley, k 0.3'
    """

    sn_curve: SNCurve
    criterion: str = "findley"
    k: OptionalCoherent = OptionalCoherent("number", at_least=0.0)
    axial_limit: OptionalCoherent = OptionalCoherent("stress", above=0.0)
    torsion_limit: OptionalCoherent = OptionalCoherent("stress", above=0.0)
    repeated_limit: OptionalCoherent = OptionalCoherent("stress", above=0.0)
    shear_amplitude: str | None = None
    planes: str = "all"
    surface_normal: tuple[float, float, float] | None = None
    critical_sum: float = 1.0
    tensors = True
    hangs = True  # it needs all cycles of a place as it has made them

    def __post_init__(self) -> None:
        where = "critical plane"
        if not isinstance(self.sn_curve, SNCurve):
            raise InputError(
                inside(where, "sn_curve"), repr(self.sn_curve), "one S-N curve; a family has no place here"
            )
        SHEAR_PARAMETERS.get(self.criterion, inside(where, "criterion"))
        checks.positive_number(inside(where, "critical_sum"), self.critical_sum, "a damage sum above 0")
        if self.sn_curve.r_ratio not in (-1.0, "any"):
            raise InputError(
                inside(where, "sn_curve"),
                f"the curve {self.sn_curve.name!r} at {self.sn_curve.at_r}",
                "a fully reversed curve, R = -1",
                "The criterion brings the mean stress in itself: convert the curve with `curve_at_r`.",
            )
        self.form.check_constants(self, where)
        if self.repeated_limit is not None and self.torsion_limit is None:
            found = "a limit in repeated tension without one in torsion"
            raise InputError(inside(where, "repeated_limit"), found, "torsion_limit beside it, for Sines' criterion")
        if self.shear_amplitude is not None:
            checks.one_of(inside(where, "shear_amplitude"), self.shear_amplitude, tuple(SHEAR_AMPLITUDES))
        check_planes(where, self.planes)
        if self.planes == "all" and self.surface_normal is not None:
            found = "a normal, while all planes are looked at"
            raise InputError(inside(where, "surface_normal"), found, 'planes = "free surface"')
        object.__setattr__(self, "surface_normal", surface_stated(where, self.surface_normal))

    @property
    def path_form(self) -> str:
        """How the amplitude of a whole path is taken, as the loops call it."""
        return str(self.shear_amplitude) if self.form.by_shear else "normal"

    @property
    def form(self) -> type[ShearParameter]:
        """The criterion."""
        return SHEAR_PARAMETERS[self.criterion]

    @property
    def curve(self) -> SNCurve:  # type: ignore[override]
        """The S-N curve."""
        return self.sn_curve

    @property
    def reference(self) -> SNCurve:  # type: ignore[override]
        """The same."""
        return self.sn_curve

    @property
    def limits(self) -> FatigueLimits:
        """The fatigue limits that are stated, for criteria of endless life."""
        return FatigueLimits(self.axial_limit, self.torsion_limit, self.repeated_limit)

    def constants(self, spot: HotSpot) -> tuple[float, float]:
        """Weights of shear amplitude and of normal stress in the equivalent uniaxial amplitude."""
        return self.form.weights(self, spot.material, f"hot spot {spot.name}")

    varies: ClassVar[str] = "criterion"

    def variants(self, spot: HotSpot) -> Mapping[str, Callable[[], Method]]:
        """By every criterion, with those of the constants that it takes."""

        def by(name: str, form: type[ShearParameter]) -> Method:
            k, axial, torsion = (
                getattr(self, key) if key in form.takes else None for key in ("k", "axial_limit", "torsion_limit")
            )
            repeated = None if torsion is None else self.repeated_limit
            return dataclasses.replace(
                self, criterion=name, k=k, axial_limit=axial, torsion_limit=torsion, repeated_limit=repeated
            )

        return {name: partial(by, name, form) for name, form in SHEAR_PARAMETERS.items()}

    @property
    def variant(self) -> str:
        """Its criterion."""
        return self.criterion

    def valid(self, variant: str) -> str:
        """What a criterion suits."""
        return SHEAR_PARAMETERS[variant].suits

    def check(self, spot: HotSpot) -> None:
        """InputError for a constant that neither the method nor the material has, and for a place without six components."""
        self.constants(spot)
        if spot.relation is not None:
            placed(spot.relation)

    def goes_with(self, duty_cycle: DutyCycle) -> None:
        """InputError where cycles are not rainflow's of events each by itself, and for loads over frequency."""
        only_alone(duty_cycle)

    def worst(self, spot: HotSpot, duty_cycle: DutyCycle) -> WorstPlane:
        """The plane and direction that are damaged most; looked for once for a place and a duty cycle."""

        def look() -> WorstPlane:
            self.goes_with(duty_cycle)
            return search_of(self, spot, duty_cycle, tensor_events(spot.fed, duty_cycle, spot.notch_factor)).worst()

        return _FOUND.of(spot, duty_cycle, look)

    def on_planes(self, spot: HotSpot, duty_cycle: DutyCycle) -> Callable[[FloatArray], FloatArray]:
        """Damage a repeat on planes, by their normals, shape (planes, 3): for a map, or a table of chosen planes."""
        self.goes_with(duty_cycle)
        return search_of(self, spot, duty_cycle, tensor_events(spot.fed, duty_cycle, spot.notch_factor)).damage

    def cycles(self, spot: HotSpot, duty_cycle: DutyCycle) -> Cycles:
        """Cycles on the worst plane: as range that of the shear, as mean the largest normal stress while it lasts, MPa."""
        worst = self.worst(spot, duty_cycle)
        sources = []
        for event, own in zip(worst.events, worst.cycles, strict=True):
            table = Cycles(
                range=own.ranges,
                mean=own.normals,
                count=own.per_repeat / event.often if event.often else own.per_repeat,
                start=own.start,
                end=own.end,
                sample_rate=event.sample_rate,
            )
            sources.append(Source(event.name, event.often, table, event.history))
        found = of_a_repeat(sources, spot.extremes(duty_cycle))  # of what one stress would say: held against strengths
        constant = spot.notch_factor * spot.fed.constant  # type: ignore[attr-defined]
        return found.fixed_at(float(constant @ normal_weights(worst.found.normal)))

    def equivalent(self, spot: HotSpot, ranges: FloatArray, normals: FloatArray) -> FloatArray:
        """Fully reversed uniaxial amplitudes with the same parameter, MPa."""
        shear, normal = self.constants(spot)
        return self.form.amplitude(shear, normal, 0.5 * ranges, normals)

    def terms(self, spot: HotSpot, cycles: Cycles) -> FloatArray:
        """Each cycle as range or amplitude of the curve, MPa."""
        return self.sn_curve.from_amplitude(self.equivalent(spot, cycles.range, cycles.mean))

    def damage(self, spot: HotSpot, terms: FloatArray, per_repeat: FloatArray) -> FloatArray:
        """n / N of each."""
        with np.errstate(divide="ignore"):
            return np.asarray(per_repeat / self.sn_curve.life(terms))

    def damage_of(self, spot: HotSpot, cycles: PlaneCycles) -> float:
        """Damage a repeat of the cycles of an event on a plane."""
        terms = self.sn_curve.from_amplitude(self.equivalent(spot, cycles.ranges, cycles.normals))
        return float(self.damage(spot, terms, cycles.per_repeat).sum())

    def of_many(
        self,
        spot: HotSpot,
        units: FloatArray,
        constants: FloatArray,
        events: Sequence[Any],
        duty_cycle: DutyCycle | None,
    ) -> OfMany | None:
        """Many places at once where the curve is power laws: whole paths by one loop, that leaves out what cannot be worst; else
        place by place, without those that a bound shows to be harmless.
        """
        if not self.sn_curve.powers or (self.shear_amplitude is not None and self.planes != "all"):
            return None
        if duty_cycle is not None:
            self.goes_with(duty_cycle)
        asking = Asking(*self.constants(spot), self.form.clamps, self.sn_curve, self.form.on_largest_shear)
        loads = PathLoads.of(events)
        by_event = np.zeros((len(units), len(events)))
        if self.shear_amplitude is not None:
            worst = loads.worst_of(units, constants, self.path_form, asking)
            np.add.at(by_event.T, loads.event, worst.damage.T)
            return OfMany(by_event, worst.looked >= 0)
        counted = loads.bounds_of(units, constants, "circle" if self.form.by_shear else "normal", asking) > 0.0
        for place in np.flatnonzero(counted).tolist():
            own = [tensor_event(event, event.loads @ units[place] + constants[place]) for event in events]
            there = Search(self, spot, own).worst()
            by_event[place] = [self.damage_of(spot, cycles) for cycles in there.cycles]
        return OfMany(by_event, counted)

    def opens_along(self, spot: HotSpot, duty_cycle: DutyCycle) -> FloatArray:
        """The normal of the worst plane."""
        return self.worst(spot, duty_cycle).found.normal

    def terms_in_words(self, spot: HotSpot) -> str:
        """Such as "equivalent stress amplitude at R = -1"."""
        return f"equivalent stress {self.sn_curve.stress} at {self.sn_curve.at_r}"

    def made(self, spot: HotSpot) -> Sequence[Step]:
        """How curve and constants came to be."""
        return [*self.sn_curve.steps, *self.form.constant_steps(self, spot.material)]

    def steps(self, spot: HotSpot, size: float, mean: float, units: UnitSystem) -> list[Step]:
        """From shear amplitude and normal stress to the life."""
        return plane_steps(self, spot, size, mean, units)

    def load_steps(self, life: Any, row: int, units: UnitSystem) -> list[Step]:
        """Loads, components, shear and normal stress on the plane."""
        return load_steps(self, life, row, units)

    def findings(self, life: Any) -> Iterator[Finding]:
        """On the plane, the constants, the path."""
        return critical_plane_findings(self, life)

    def words_of(self, life: Any, units: UnitSystem) -> Words:
        """The plane by its angles and its normal."""
        return self.worst(life.hot_spot, life.duty_cycle).told

    def tables(self, life: Any, units: UnitSystem) -> tuple[Table, ...]:
        """Criteria for endless life, where both fatigue limits are known."""
        return endless_life(self, life)

    def columns(self, lives: Sequence[Any]) -> tuple[Column, ...]:
        """Curve, criterion, constants."""
        methods = [life.method if isinstance(life.method, CriticalPlane) else None for life in lives]
        return (
            Column("curve", [None if one is None else one.sn_curve.name for one in methods], only="file"),
            Column("criterion", [None if one is None else one.criterion for one in methods], only="file"),
            Column("shear amplitude", [None if one is None else one.shear_amplitude for one in methods], only="file"),
            Column("planes", [None if one is None else one.planes for one in methods], only="file"),
            Column("weight k", [None if one is None else one.k for one in methods], only="file"),
            *(
                Column(name, [None if one is None else getattr(one, key) for one in methods], only="file", of="stress")
                for name, key in (
                    ("axial limit", "axial_limit"),
                    ("torsion limit", "torsion_limit"),
                    ("repeated limit", "repeated_limit"),
                )
            ),
        )

    def others(self, spot: HotSpot) -> Mapping[str, Any]:
        """The curve."""
        return {"S-N curve": curve_record(self.sn_curve)}

    @property
    def words(self) -> str:
        """Curve and criterion."""
        weight = "" if self.k is None else f", k {number(self.k)}"
        whole = "" if self.shear_amplitude is None else f", whole paths by {self.shear_amplitude}"
        which = "" if self.planes == "all" else ", planes of the free surface"
        return f"S-N curve {self.sn_curve.name}, critical plane by {self.criterion}{weight}{whole}{which}"
