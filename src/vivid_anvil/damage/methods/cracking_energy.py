"""Fatigue of rubber: energy that is there to open a flaw on each plane, and the growth of the flaw to the end of its life.

In: large strains at a place as states that the loads go through. On each plane the cracking energy density is followed along the
path and counted by rainflow; a flaw that was there from the start grows by the tearing energy T = 2 k W c of each cycle.
"""

from __future__ import annotations

import dataclasses
from collections.abc import Callable, Iterator, Mapping, Sequence
from dataclasses import dataclass
from functools import partial
from typing import Any, ClassVar

import numpy as np
from scipy.optimize import elementwise

from vivid_anvil.counting import Cycles
from vivid_anvil.counting.cycles import of_a_repeat
from vivid_anvil.damage.methods.cracking_findings import before_counting, cracking_findings
from vivid_anvil.damage.methods.cracking_many import many_in_rubber
from vivid_anvil.damage.methods.cracking_search import PlaceInRubber, place_in_rubber
from vivid_anvil.damage.methods.cracking_steps import at_ends, growth_steps
from vivid_anvil.damage.methods.cracking_words import blocks_of, told
from vivid_anvil.damage.methods.kept import Kept
from vivid_anvil.events import DutyCycle, Source
from vivid_anvil.ground import checks
from vivid_anvil.ground.checks import FloatArray
from vivid_anvil.ground.errors import InputError, inside, shortened
from vivid_anvil.materials.rubber import Rubber
from vivid_anvil.stress import METHODS, HotSpot, Method, OfMany
from vivid_anvil.stress.planes.plane_cycles import only_alone
from vivid_anvil.stress.planes.resolve import directions
from vivid_anvil.stress.planes.surface_planes import surface_stated
from vivid_anvil.units import UnitSystem, number
from vivid_anvil.writing.finding import Finding
from vivid_anvil.writing.result import Words
from vivid_anvil.writing.table import Column, Table
from vivid_anvil.writing.working import Step

ENERGIES = {
    "cracking energy": "what opens a flaw on a plane, followed along the path; any course of strains",
    "energy density": "all that is stored, as if all of it opened the flaw: on the safe side, and blind to direction",
    "principal strain": "the energy of simple tension of the largest principal stretch: for parts that are pulled one way",
}
CLOSURES = {
    "traction": "energy counts while the plane is pulled: a closed flaw does not grow",
    "none": "all energy counts, as if nothing closed",
}
NO_BOUND = 1e6  # times the energy, where no body could be strained so far
WIDE = (1e-9, 1e4)  # times the energy of a cycle, within which that of a relaxing one of the same life is looked for


_FOUND: Kept[PlaceInRubber] = Kept()


@METHODS.add("cracking energy")
@dataclass(frozen=True, kw_only=True, eq=False)
class CrackingEnergy(Method):
    """Growth of a flaw in rubber by the cracking energy on its plane.

    Parameters
    ----------
    rubber : Rubber
        Laws and flaws.
    surface_normal : three numbers, optional
        Normal of the free surface in the undeformed part: nothing acts along it. Without it the bulk modulus of the rubber
        gives the pressure.
    energy : str, default "cracking energy"
        One of `ENERGIES`.
    closure : str, default "traction"
        One of `CLOSURES`.
    part_axes : two times three numbers, optional
        Axes x and y of the part in those of the model: planes are told in both.
    critical_sum : float, default 1.0
        Damage sum at which a place counts as failed.

    Raises
    ------
    InputError
        For an argument of another kind, unit or range; the message says which.

    Examples
    --------
    >>> from vivid_anvil.materials.rubber import MooneyRivlin, PowerTearing
    >>> law = MooneyRivlin(name="bushing", c10="0.3 MPa", c01="0.08 MPa")
    >>> growth = PowerTearing(name="bushing", rate="0.0025 mm/cycle", at="11 kJ/m^2", slope=2.0)
    >>> rubber = Rubber(name="bushing", law=law, growth=growth, initial_flaw="0.04 mm")
    >>> CrackingEnergy(rubber=rubber, surface_normal=[0, 0, 1]).words
    'rubber bushing, cracking energy, flaws of 0.04 mm to 1 mm by power (range)'
    """

    rubber: Rubber
    surface_normal: tuple[float, float, float] | None = None
    energy: str = "cracking energy"
    closure: str = "traction"
    part_axes: tuple[tuple[float, float, float], tuple[float, float, float]] | None = None
    critical_sum: float = 1.0
    tensors = True
    hangs = True
    elastic = False
    takes: ClassVar[str] = "strains"
    counts: ClassVar[str] = "energy density"

    def __post_init__(self) -> None:
        where = self.kind
        if not isinstance(self.rubber, Rubber):
            raise InputError(inside(where, "rubber"), repr(self.rubber), "a rubber")
        checks.one_of(inside(where, "energy"), self.energy, tuple(ENERGIES))
        checks.one_of(inside(where, "closure"), self.closure, tuple(CLOSURES))
        checks.positive_number(inside(where, "critical_sum"), self.critical_sum, "a damage sum above 0")
        object.__setattr__(self, "surface_normal", surface_stated(where, self.surface_normal))
        object.__setattr__(self, "part_axes", _axes(where, self.part_axes))

    @property
    def on_a_plane(self) -> bool:
        """Whether what is counted hangs on a plane."""
        return self.energy == "cracking energy"

    @property
    def axes(self) -> FloatArray | None:
        """Rows x, y, z of the part in the model."""
        if self.part_axes is None:
            return None
        x, y = (np.asarray(one) for one in self.part_axes)
        return np.stack([x, y, np.cross(x, y)])

    varies: ClassVar[str] = "energy"

    def variants(self, spot: HotSpot) -> Mapping[str, Callable[[], Method]]:
        """By every energy."""
        return {energy: partial(dataclasses.replace, self, energy=energy) for energy in ENERGIES}

    @property
    def variant(self) -> str:
        """Its energy."""
        return self.energy

    def valid(self, variant: str) -> str:
        """What an energy is for."""
        return ENERGIES[variant]

    def check(self, spot: HotSpot) -> None:
        """InputError for a notch factor, as strains at a place are what they are, and where the pressure is left open."""
        normal = self.surface_normal or getattr(spot.relation, "surface_normal", None)
        if spot.relation is not None and normal is None and self.rubber.law.bulk_modulus is None and self.on_a_plane:
            raise InputError(
                inside(f"hot spot {spot.name}", "surface_normal"),
                "none, and no bulk modulus of the rubber",
                "one of both: strains that keep the volume leave the pressure open",
                "State surface_normal = [..] for a place on a free surface, or bulk_modulus in the law.",
            )
        if spot.notch_factor != 1.0:
            raise InputError(
                inside(f"hot spot {spot.name}", "notch_factor"),
                f"{spot.notch_factor:g}",
                "none beside large strains",
                "Take the strains at the notch itself.",
            )

    def goes_with(self, duty_cycle: DutyCycle) -> None:
        """InputError where cycles are not rainflow's of events each by itself, and for loads over frequency."""
        only_alone(duty_cycle)

    def place(self, spot: HotSpot, duty_cycle: DutyCycle) -> PlaceInRubber:
        """The place under the duty cycle, with its worst plane; looked for once."""

        def look() -> PlaceInRubber:
            self.goes_with(duty_cycle)
            return place_in_rubber(self, spot, duty_cycle)

        return _FOUND.of(spot, duty_cycle, look)

    def of_many(
        self,
        spot: HotSpot,
        units: FloatArray,
        constants: FloatArray,
        events: Sequence[Any],
        duty_cycle: DutyCycle | None,
    ) -> OfMany:
        """Many places at once, of strains (places, states, 6); `constants` begin with the normal of a free surface."""
        if duty_cycle is not None:
            self.goes_with(duty_cycle)
        return many_in_rubber(self, units, constants, events)

    def opens_along(self, spot: HotSpot, duty_cycle: DutyCycle) -> FloatArray | None:
        """The normal of the worst plane, in the undeformed part."""
        worst = self.place(spot, duty_cycle).worst
        return None if worst is None else worst.normal

    def on_planes(self, spot: HotSpot, duty_cycle: DutyCycle) -> Callable[[FloatArray], FloatArray]:
        """Damage a repeat on planes, by their normals, shape (planes, 3): for a map, or a table of chosen planes."""
        return self.place(spot, duty_cycle).flaw.damage

    def cycles(self, spot: HotSpot, duty_cycle: DutyCycle) -> Cycles:
        """Cycles of energy on the worst plane, MPa."""
        place = self.place(spot, duty_cycle)
        return _cycles(place, place.courses)

    def again(self, spot: HotSpot, duty_cycle: DutyCycle, factor: float) -> Cycles:
        """The same with all loads times a factor, on the plane that is worst at the loads as they are.

        Where a factor leaves no stretch the energy has no bound.
        """
        here = self.place(spot, duty_cycle)
        place = place_in_rubber(self, spot, duty_cycle, factor)
        if not place.possible:
            return self.cycles(spot, duty_cycle).at(NO_BOUND)
        return _cycles(place, place.courses if here.worst is None else place.courses_on(here.worst.normal))

    def terms(self, spot: HotSpot, cycles: Cycles) -> FloatArray:
        """Largest energy, MPa, of the cycle that relaxes and has the same life."""
        high = np.maximum(cycles.mean + 0.5 * cycles.range, 0.0)
        with np.errstate(invalid="ignore", divide="ignore"):
            ratio = np.where(high > 0.0, np.maximum(cycles.mean - 0.5 * cycles.range, 0.0) / high, 0.0)
        return relaxing_energy(self.rubber, high, np.minimum(ratio, np.nextafter(1.0, 0.0)))

    def lives(self, energy: FloatArray, r_ratio: FloatArray | float = 0.0) -> FloatArray:
        """Cycles of each, of a largest energy density, MPa, and R."""
        one = self.rubber
        return one.tearing.lives(energy, r_ratio, one.initial_flaw, one.end_flaw, one.shape_factor)

    def damage(self, spot: HotSpot, terms: FloatArray, per_repeat: FloatArray) -> FloatArray:
        """n / N of each."""
        if not terms.size:
            return np.zeros(0)
        return np.asarray(per_repeat / self.lives(terms))

    def passes(self, life: Any) -> float:
        """Repeats in which one flaw under all cycles grows to its end; inf where it does not."""
        cycles, one = life.spectrum.cycles, self.rubber
        if not len(cycles):
            return np.inf
        high = cycles.mean + 0.5 * cycles.range
        ratio = np.clip((cycles.mean - 0.5 * cycles.range) / high, 0.0, np.nextafter(1.0, 0.0))
        law = one.tearing
        return law.passes(high, ratio, life.spectrum.per_repeat, one.initial_flaw, one.end_flaw, one.shape_factor)

    def terms_in_words(self, spot: HotSpot) -> str:
        """What its terms are."""
        return "relaxing energy of equal life"

    def made(self, spot: HotSpot) -> Sequence[Step]:
        """Nothing: its numbers are those of the rubber."""
        return ()

    def steps(self, spot: HotSpot, size: float, mean: float, units: UnitSystem) -> list[Step]:
        """Of a cycle of this amplitude and mean of the energy."""
        return growth_steps(self.rubber, mean + size, max(mean - size, 0.0), units)

    def load_steps(self, life: Any, row: int, units: UnitSystem) -> list[Step]:
        """Stretches and energies at both ends of the cycle."""
        return at_ends(self, life, row, units)

    def beyond(self, spot: HotSpot, mean: float) -> tuple[str, str, str]:
        """Nothing fails at once by growth."""
        return (f"a cycle of mean energy {mean:.4g} MPa", "a finite one", "Check the unit of the strains.")

    def before(self, spot: HotSpot, duty_cycle: DutyCycle) -> Iterator[Finding]:
        """On strains and law."""
        return before_counting(self, spot, duty_cycle)

    def findings(self, life: Any) -> Iterator[Finding]:
        """On strains, law, plane, path, growth."""
        return cracking_findings(self, life)

    def words_of(self, life: Any, units: UnitSystem) -> Words:
        """The plane, the path, the growth of one flaw."""
        return told(self, life, units)

    def tables(self, life: Any, units: UnitSystem) -> tuple[Table, ...]:
        """Blocks, and the size of the flaw over the life."""
        return blocks_of(self, life)

    def columns(self, lives: Sequence[Any]) -> tuple[Column, ...]:
        """Rubber, energy, growth."""
        methods = [life.method if isinstance(life.method, CrackingEnergy) else None for life in lives]
        rubbers = [None if one is None else one.rubber for one in methods]
        return (
            Column("rubber", [one and one.name for one in rubbers], only="file"),
            Column("energy", [one and one.energy for one in methods], only="file"),
            Column("closure", [one and one.closure for one in methods], only="file"),
            Column("tearing law", [one and one.tearing.kind for one in rubbers], only="file"),
            Column("initial flaw", [one and one.initial_flaw for one in rubbers], of="length", only="file"),
            Column("end flaw", [one and one.end_flaw for one in rubbers], of="length", only="file"),
            Column("shape factor", [one and one.shape_factor for one in rubbers], only="file"),
            Column("temperature [°C]", [one and one.tearing.temperature for one in rubbers], only="file"),
        )

    @property
    def words(self) -> str:
        """Rubber, energy, growth."""
        one = self.rubber
        sizes = f"flaws of {number(one.initial_flaw)} mm to {number(one.end_flaw)} mm"
        at = "" if one.tearing.temperature is None else f" at {number(one.tearing.temperature)} °C"
        return f"rubber {one.name}, {self.energy}, {sizes} by {one.tearing.kind} ({one.tearing.r_effect}){at}"


def relaxing_energy(rubber: Rubber, energy: FloatArray, r_ratio: FloatArray) -> FloatArray:
    """Largest energy, MPa, of the relaxing cycle that has the life of one of R, each of shape (n,).

    By the range it is the range itself. Of rubber that crystallises the life is solved for; a cycle below the threshold at the
    flaw's first size has the energy of the relaxing one with the same tearing energy there.
    """
    law = rubber.tearing
    if law.r_effect == "range" or not energy.size:
        return np.asarray(energy * (1.0 - r_ratio))
    first = rubber.per_size * rubber.initial_flaw
    near = law.equivalent(first * energy, r_ratio) / first
    ends = rubber.initial_flaw, rubber.end_flaw, rubber.shape_factor
    wanted = law.lives(energy, r_ratio, *ends)
    solve = np.flatnonzero(np.isfinite(wanted) & (r_ratio > 0.0))
    found = np.where(r_ratio > 0.0, near, energy)
    if solve.size:
        goal = np.log(wanted[solve])

        def off(log_energy: FloatArray, goal: FloatArray) -> FloatArray:
            lives = law.lives(np.exp(log_energy), 0.0, *ends)
            return np.where(np.isfinite(lives), np.log(np.where(np.isfinite(lives), lives, 1.0)), 1e3) - goal

        low, high = (np.log(near[solve] * factor) for factor in WIDE)
        found[solve] = np.exp(elementwise.find_root(off, (low, high), args=(goal,)).x)
    return np.asarray(found)


def _cycles(place: PlaceInRubber, courses: Sequence[FloatArray]) -> Cycles:
    sources = [
        Source(one.event.name, one.event.often, place.table_of(one, courses), one.history) for one in place.events
    ]
    ends = min(float(one.min()) for one in courses), max(float(one.max()) for one in courses)
    return of_a_repeat(sources, ends)


def _axes(where: str, given: Any) -> Any:
    """Axes x and y of the part, unit vectors across each other; InputError for others."""
    if given is None:
        return None
    try:
        x, y = directions(np.asarray(given, dtype=np.float64).reshape(2, 3))
    except (TypeError, ValueError, InputError):
        raise InputError(
            inside(where, "part_axes"), shortened(given), "axes x and y of the part: [[1, 0, 0], [0, 1, 0]]"
        ) from None
    if abs(float(x @ y)) > 1e-6:
        raise InputError(
            inside(where, "part_axes"), "axes that are not across each other", "two directions at 90 degrees"
        )
    return tuple(x.tolist()), tuple(y.tolist())


__all__ = ["CLOSURES", "ENERGIES", "CrackingEnergy", "relaxing_energy"]
