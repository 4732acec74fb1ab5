"""Critical plane: on each plane the shear is counted along directions, each cycle with its normal stress; the worst plane counts.

In: stresses of six components at a place. A criterion makes of shear amplitude and normal stress one parameter, which a uniaxial
S-N curve is asked about at the fully reversed amplitude that has the same parameter.
"""

from __future__ import annotations

import dataclasses
import weakref
from collections.abc import Callable, Iterator, Mapping, Sequence
from dataclasses import dataclass
from functools import cached_property, partial
from typing import Any, ClassVar, NamedTuple
from weakref import WeakKeyDictionary

import numpy as np

from vivid_anvil.counting import Cycles
from vivid_anvil.counting.cycles import of_a_repeat
from vivid_anvil.damage.methods.critical_plane_findings import critical_plane_findings
from vivid_anvil.damage.methods.critical_plane_steps import load_steps, plane_steps
from vivid_anvil.events import DutyCycle, Source
from vivid_anvil.ground import checks
from vivid_anvil.ground.checks import FloatArray
from vivid_anvil.ground.errors import InputError, inside
from vivid_anvil.materials import SNCurve, curve_record
from vivid_anvil.stress import METHODS, HotSpot, Method
from vivid_anvil.stress.measures.straight import normal_weights
from vivid_anvil.stress.planes import PlaneFound, angles_of, plane_axes, worst_plane
from vivid_anvil.stress.planes.criteria import shear_amplitude
from vivid_anvil.stress.planes.plane_cycles import (
    PlaneCycles,
    TensorEvent,
    check_components,
    counted,
    cycles_on,
    over_frequency,
    tensor_events,
)
from vivid_anvil.stress.planes.resolve import shear_weights
from vivid_anvil.stress.planes.shear_parameters import SHEAR_PARAMETERS, ShearParameter
from vivid_anvil.stress.relations.vibrating_event import OVER_FREQUENCY
from vivid_anvil.units import OptionalCoherent, UnitSystem, number
from vivid_anvil.writing.finding import Finding
from vivid_anvil.writing.result import Words
from vivid_anvil.writing.table import Column
from vivid_anvil.writing.working import Step

DIRECTIONS = 9  # in a plane, over half a turn
STEP = 10.0  # degrees between planes of the first net
FLATTER = 0.2  # power of damages, of which those near the largest on the net are looked at more closely
STRAIGHT = 1e-9


class WorstPlane(NamedTuple):
    """The plane that counts, with the direction of shear in it, unit vectors, and the cycles of each event there."""

    found: PlaneFound
    along: FloatArray
    cycles: tuple[PlaneCycles, ...]
    events: tuple[TensorEvent, ...]


_FOUND: WeakKeyDictionary[HotSpot, tuple[weakref.ref[DutyCycle], WorstPlane]] = WeakKeyDictionary()


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
            return dataclasses.replace(self, criterion=name, k=k, axial_limit=axial, torsion_limit=torsion)

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
            check_components(spot.relation)

    def goes_with(self, duty_cycle: DutyCycle) -> None:
        """InputError where cycles are not rainflow's of events each by itself, and for loads over frequency."""
        for event, _ in duty_cycle.flat():
            if event.load.gives & OVER_FREQUENCY:
                raise over_frequency(event.name)
        for key, usual in (("counting", "rainflow"), ("residue", "repeated"), ("between", "each by itself")):
            if getattr(duty_cycle, key) != usual:
                raise InputError(
                    f"duty cycle, {key}",
                    repr(getattr(duty_cycle, key)),
                    f"{usual!r}, where planes are searched",
                    f'Set {key} = "{usual}", or assess the place by stress-life.',
                )

    def worst(self, spot: HotSpot, duty_cycle: DutyCycle) -> WorstPlane:
        """The plane and direction that are damaged most; looked for once for a place and a duty cycle."""
        known = _FOUND.get(spot)
        if known is not None and known[0]() is duty_cycle:
            return known[1]
        self.goes_with(duty_cycle)
        worst = Search(self, spot, tensor_events(spot.fed, duty_cycle, spot.notch_factor)).worst()
        _FOUND[spot] = weakref.ref(duty_cycle), worst
        return worst

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
        worst = self.worst(life.hot_spot, life.duty_cycle)
        theta, phi = worst.found.angles
        normal = ", ".join(f"{one:.3f}" for one in worst.found.normal.tolist())
        ties = len(worst.found.ties)
        also = "" if not ties else f"; {ties} other{'s tie' if ties > 1 else ' ties'} with it"
        return (("Plane", f"θ {number(theta, 3)}° from z, φ {number(phi, 3)}° from x; normal ({normal}){also}"),)

    def columns(self, lives: Sequence[Any]) -> tuple[Column, ...]:
        """Curve, criterion, constants."""
        methods = [life.method if isinstance(life.method, CriticalPlane) else None for life in lives]
        return (
            Column("curve", [None if one is None else one.sn_curve.name for one in methods], only="file"),
            Column("criterion", [None if one is None else one.criterion for one in methods], only="file"),
            Column("weight k", [None if one is None else one.k for one in methods], only="file"),
            *(
                Column(name, [None if one is None else getattr(one, key) for one in methods], only="file", of="stress")
                for name, key in (("axial limit", "axial_limit"), ("torsion limit", "torsion_limit"))
            ),
        )

    def others(self, spot: HotSpot) -> Mapping[str, Any]:
        """The curve."""
        return {"S-N curve": curve_record(self.sn_curve)}

    @property
    def words(self) -> str:
        """Curve and criterion."""
        weight = "" if self.k is None else f", k {number(self.k)}"
        return f"S-N curve {self.sn_curve.name}, critical plane by {self.criterion}{weight}"


class Search:
    """Damage on planes of one place, and the worst of them."""

    def __init__(self, method: CriticalPlane, spot: HotSpot, events: Sequence[TensorEvent]) -> None:
        self.method, self.spot, self.events = method, spot, tuple(events)

    @cached_property
    def in_line(self) -> bool:
        """Whether the stresses of all events move along one line: then shear in any plane has one direction."""
        off = np.concatenate([event.stress - self.events[0].stress[0] for event in self.events])
        sizes = np.linalg.svd(off, compute_uv=False)
        return bool(sizes.size < 2 or sizes[1] <= STRAIGHT * sizes[0])

    def along(self, normals: FloatArray) -> FloatArray:
        """Directions that are looked at in each plane, shape (planes, directions, 3)."""
        first, second = plane_axes(normals)
        turn = np.pi * np.arange(DIRECTIONS) / DIRECTIONS
        return np.asarray(np.cos(turn)[:, None] * first[:, None, :] + np.sin(turn)[:, None] * second[:, None, :])

    def damage(self, normals: FloatArray) -> FloatArray:
        """Damage on each plane, along the direction that is worst."""
        return self.best(normals)[0]

    def best(self, normals: FloatArray) -> tuple[FloatArray, FloatArray]:
        """Damage on each plane and the direction of it, shape (planes, 3)."""
        found, chosen = np.full(len(normals), -1.0), np.empty((len(normals), 3))
        for i, (normal, directions) in enumerate(zip(normals, self._looked(normals), strict=True)):
            sums = self._sums(normal, directions)
            at = int(sums.argmax())
            found[i], chosen[i] = sums[at], directions[at]
        return found, chosen

    def _looked(self, normals: FloatArray) -> list[FloatArray]:
        """Directions to look along in each plane: any one where none is counted, else those around and where it varies most."""
        if not self.method.form.by_shear:
            return [axis[None] for axis in plane_axes(normals)[0]]
        most = self._variance(normals)
        if self.in_line:
            return [one[None] for one in most]
        return [np.concatenate([one[None], others]) for one, others in zip(most, self.along(normals), strict=True)]

    def _variance(self, normals: FloatArray) -> FloatArray:
        """The direction in which the shear of all events varies most, which is the only one of a path along a line."""
        first, second = plane_axes(normals)
        total = np.zeros((len(normals), 2, 2))
        for event in self.events:
            path = np.stack([event.stress @ shear_weights(normals, axis).T for axis in (first, second)], axis=-1)
            off = path - path.mean(axis=0)
            total += np.einsum("npi,npj->pij", off, off) / len(path)
        vector = np.linalg.eigh(total)[1][:, :, 1]
        return np.asarray(vector[:, :1] * first + vector[:, 1:] * second)

    def _sums(self, normal: FloatArray, directions: FloatArray) -> FloatArray:
        """Damage along each direction."""
        sums = np.zeros(len(directions))
        weights = shear_weights(np.tile(normal, (len(directions), 1)), directions)
        for event in self.events:
            sigma = event.stress @ normal_weights(normal)
            courses = self.method.form.courses(event.stress @ weights.T, sigma)
            for i, course in enumerate(np.ascontiguousarray(courses.T)):
                sums[i] += self.method.damage_of(self.spot, counted(event, course, sigma))
        return sums

    def size(self, normals: FloatArray) -> FloatArray:
        """The largest equivalent amplitude on each plane, where nothing does damage."""
        found = np.zeros(len(normals))
        for i, (normal, directions) in enumerate(zip(normals, self._looked(normals), strict=True)):
            for event in self.events:
                for along in directions:
                    own = self.cycles_on(event, normal, along)
                    if own.ranges.size:
                        found[i] = max(
                            found[i], float(self.method.equivalent(self.spot, own.ranges, own.normals).max())
                        )
        return found

    def shear(self, normals: FloatArray) -> FloatArray:
        """The largest shear amplitude of any event on each plane, MPa, by the smallest circle."""
        each = [shear_amplitude(event.stress, normals, "circle") for event in self.events]
        return np.asarray(np.max(each, axis=0))

    def cycles_on(self, event: TensorEvent, normal: FloatArray, along: FloatArray) -> PlaneCycles:
        """Cycles of an event as the criterion counts them."""
        if self.method.form.by_shear:
            return cycles_on(event, normal, along)
        sigma = event.stress @ normal_weights(normal)
        return counted(event, sigma, sigma)

    def worst(self) -> WorstPlane:
        """The plane that is damaged most; where nothing does damage the one with the largest parameter."""
        if self.method.form.on_largest_shear:
            found = worst_plane(self.shear, second=self.damage, step_degrees=STEP)
        else:
            found = worst_plane(lambda normals: self.damage(normals) ** FLATTER, step_degrees=STEP)
        if found.value <= 0.0:
            found = worst_plane(self.size, step_degrees=STEP)
        along = self._turned(found.normal)
        cycles = tuple(self.cycles_on(event, found.normal, along) for event in self.events)
        return WorstPlane(found, along, cycles, self.events)

    def _turned(self, normal: FloatArray) -> FloatArray:
        """The direction in the plane, turned to where the damage is largest."""
        _, (along,) = self.best(normal[None])
        if not self.method.form.by_shear:
            return np.asarray(along)
        across, step = np.cross(normal, along), np.pi / DIRECTIONS
        reached, angle = float(self._sums(normal, along[None])[0]), 0.0
        while step > 1e-4:
            step *= 0.5
            tried = np.array([angle - step, angle + step])
            some = np.cos(tried)[:, None] * along + np.sin(tried)[:, None] * across
            sums = self._sums(normal, some)
            at = int(sums.argmax())
            if sums[at] > reached:
                reached, angle = float(sums[at]), float(tried[at])
        return np.asarray(np.cos(angle) * along + np.sin(angle) * across)


def plane_damage(method: CriticalPlane, spot: HotSpot, duty_cycle: DutyCycle) -> Callable[[FloatArray], FloatArray]:
    """Damage a repeat on planes, by their normals, shape (planes, 3): for a map, or a table of chosen planes."""
    method.goes_with(duty_cycle)
    return Search(method, spot, tensor_events(spot.fed, duty_cycle, spot.notch_factor)).damage


__all__ = ["CriticalPlane", "Search", "WorstPlane", "angles_of", "plane_damage"]
