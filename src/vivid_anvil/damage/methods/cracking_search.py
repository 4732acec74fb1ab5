"""The plane on which a flaw in rubber is damaged most, and the courses of energy by which its cycles are counted.

In: a method, a hot spot whose strains go through states, a duty cycle. Out: the worst plane, energies of every way there.
"""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass
from functools import cached_property
from typing import TYPE_CHECKING, Any, NamedTuple

import numpy as np

from vivid_anvil.counting import Cycles, rainflow
from vivid_anvil.events import DutyCycle
from vivid_anvil.ground.checks import FloatArray, IntArray
from vivid_anvil.stress import HotSpot
from vivid_anvil.stress.planes import PlaneFound, plane_map, worst_plane
from vivid_anvil.stress.planes.deviator import FULL
from vivid_anvil.stress.rubber.flaw_growth import FlawOnPlanes
from vivid_anvil.stress.rubber.flaws_of_places import FlawsOfPlaces
from vivid_anvil.stress.rubber.strain_loads import StrainEvent, StrainWay
from vivid_anvil.stress.rubber.strain_states import StrainStates, largest_stretch

if TYPE_CHECKING:
    from vivid_anvil.damage.methods.cracking_energy import CrackingEnergy

TIES, APART = (
    10.0,
    1.0,
)  # degrees between planes of the net on which others are looked for, and between planes that are told apart
MANY = 2000  # rows of all ways, from which on planes that tie are not climbed
ALIKE = 1e-3  # share within which two planes do the same damage


class EventOfPlace(NamedTuple):
    """An event with the numbers of its ways among those of the place."""

    event: StrainEvent
    ways: range
    history: Any


@dataclass(frozen=True, eq=False)
class PlaceInRubber:
    """A place under a duty cycle: its events, and the flaw there on every plane."""

    method: CrackingEnergy
    events: tuple[EventOfPlace, ...]
    flaw: FlawOnPlanes
    strains: FloatArray

    @cached_property
    def worst(self) -> PlaneFound | None:
        """The plane that is damaged most, else the one with most energy; None where what is counted hangs on no plane."""
        if not self.method.on_a_plane:
            return None
        places = FlawsOfPlaces(self.method.rubber, tuple(self.flaw.ways), self.flaw.closes)
        found = places.at(self.strains, self.flaw.surface_normal)
        return PlaneFound(float(found.by_way.sum()), upwards(found.normal), np.zeros((0, 3)))

    @cached_property
    def ties(self) -> FloatArray:
        """Normals of other planes that are damaged as much, apart from the worst, shape (k, 3)."""
        worst = self.worst
        if worst is None:
            return np.zeros((0, 3))
        values = self.flaw.damage if worst.value > 0.0 else self.flaw.peaks
        least = (1.0 - ALIKE) * float(values(worst.normal[None])[0])
        if sum(len(one) for one in self.flaw.cauchy_greens) > MANY:  # planes of the net alone, as they are
            normals, found = plane_map(values, step_degrees=TIES)
            near = normals[found >= least]
        else:
            others = worst_plane(values, step_degrees=TIES)
            near = np.concatenate([others.normal[None], others.ties]) if others.value >= least else np.zeros((0, 3))
        return np.asarray(near[np.abs(near @ worst.normal) < np.cos(np.radians(APART))])

    @property
    def possible(self) -> bool:
        """Whether every stretch on the ways is above 0."""
        return all(bool((np.linalg.eigvalsh(one[:, FULL]) > 0.0).all()) for one in self.flaw.cauchy_greens)

    @cached_property
    def courses(self) -> tuple[FloatArray, ...]:
        """Energy over the repeated part of every way, its first row again as the last, MPa."""
        if self.worst is None:
            return tuple(self._without_plane(number) for number in range(len(self.flaw.ways)))
        return self.courses_on(self.worst.normal)

    def courses_on(self, normal: FloatArray) -> tuple[FloatArray, ...]:
        """The same on a plane."""
        return tuple(self.flaw.energies(number, normal[None])[0] for number in range(len(self.flaw.ways)))

    def _without_plane(self, number: int) -> FloatArray:
        return energy_of(self.method, self.flaw.cauchy_greens[number][self.flaw.ways[number].first :])

    def table_of(self, one: EventOfPlace, courses: Sequence[FloatArray]) -> Cycles:
        """Cycles of an event, of all its ways."""
        parts: list[tuple[FloatArray, ...]] = []
        for number in one.ways:
            way, course = self.flaw.ways[number], courses[number]
            own = rainflow(course[:-1], residue="repeated", dimension="energy density")
            keep = own.range > 0.0
            times = way.often / one.event.often if one.event.often else way.often
            samples = [_samples(way, ends[keep]) for ends in (own.start, own.end)]
            parts.append((own.range[keep], own.mean[keep], own.count[keep] * times, *samples))
        ranges, means, counts, start, end = (np.concatenate(many) for many in zip(*parts, strict=True))
        return Cycles(
            range=ranges,
            mean=means,
            count=counts,
            start=start.astype(np.int64),
            end=end.astype(np.int64),
            sample_rate=one.event.sample_rate,
            dimension="energy density",
        )


def upwards(normal: FloatArray) -> FloatArray:
    """A normal with its largest part positive: both sides of a plane are the same."""
    return np.asarray(normal if normal[int(np.abs(normal).argmax())] > 0.0 else -normal)


def _samples(way: StrainWay, rows: IntArray) -> FloatArray:
    """Samples of the event at rows of the repeated part; of a state that is passed between two the sample before it."""
    known = np.maximum.accumulate(way.samples)
    return np.asarray(known[np.asarray(rows, dtype=np.int64)])


def energy_of(method: CrackingEnergy, cauchy_greens: FloatArray) -> FloatArray:
    """What is counted of each C, shape (rows, 6), where that hangs on no plane, MPa."""
    law = method.rubber.law
    if method.energy == "energy density":
        return stored_energy(law, cauchy_greens)
    return np.asarray(law.energy_of("simple", np.maximum(largest_stretch(cauchy_greens), 1.0)))


def stored_energy(law: Any, cauchy_greens: FloatArray) -> FloatArray:
    """Energy density of each C, shape (rows, 6), without what a change of volume takes, MPa."""
    squares = np.linalg.eigvalsh(cauchy_greens[:, FULL])
    stretch = np.sqrt(np.maximum(squares, 0.0))
    return np.asarray(law.energy(stretch / np.cbrt(stretch.prod(axis=1))[:, None]))


def place_in_rubber(method: CrackingEnergy, spot: HotSpot, duty_cycle: DutyCycle, factor: float = 1.0) -> PlaceInRubber:
    """The place with all loads times a factor."""
    relation = spot.fed
    assert isinstance(relation, StrainStates)
    events: list[EventOfPlace] = []
    ways: list[StrainWay] = []
    flat = duty_cycle.flat()
    for event, (own, _) in zip(relation.loads.events(duty_cycle, factor), flat, strict=True):
        numbers = range(len(ways), len(ways) + len(event.ways))
        ways += event.ways
        events.append(EventOfPlace(event, numbers, own.seen(relation.counted).measured))
    greens = [relation.cauchy_greens(way.weights) for way in ways]
    stated = method.surface_normal or relation.surface_normal
    normal = None if stated is None else np.asarray(stated)
    flaw = FlawOnPlanes(method.rubber, tuple(ways), tuple(greens), normal, method.closure == "traction")
    return PlaceInRubber(method, tuple(events), flaw, relation.strains)
