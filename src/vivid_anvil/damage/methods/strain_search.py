"""The plane whose strain cycles do most damage, after the place has yielded as it does.

In: a method on strain planes, a hot spot, a duty cycle. Out: the worst plane with its cycles.
"""

from __future__ import annotations

import dataclasses
from functools import cached_property
from typing import TYPE_CHECKING, NamedTuple

import numpy as np

from vivid_anvil.damage.methods.plane_search import Search
from vivid_anvil.events import DutyCycle
from vivid_anvil.ground.checks import FloatArray, IntArray
from vivid_anvil.stress import HotSpot
from vivid_anvil.stress.measures.straight import normal_weights
from vivid_anvil.stress.planes._count_kernels import strain_damage_on_planes
from vivid_anvil.stress.planes.plane_cycles import ManyCycles, TensorEvent, counted, counted_all, tensor_events
from vivid_anvil.stress.planes.strain_parameters import StrainCycles, Terms
from vivid_anvil.stress.yielding.local_tensors import LocalPath

if TYPE_CHECKING:
    from vivid_anvil.damage.methods.strain_plane import StrainPlane

BETWEEN = 40  # steps between the ends of a stated cycle


class StrainPlaneCycles(NamedTuple):
    """Cycles of one event on a plane, how often in a repeat, ends in samples of what was followed."""

    cycles: StrainCycles
    per_repeat: FloatArray
    start: IntArray
    end: IntArray


class StrainSearch(Search):
    """Damage on planes of one place by strains."""

    method: StrainPlane
    in_numbers = True

    def tensors(self, event: TensorEvent) -> FloatArray:
        """The strains; of shear, engineering strains come of them twice."""
        assert event.strain is not None
        return event.strain

    @cached_property
    def terms(self) -> Terms:
        """What the loop over planes needs."""
        return self.method.form.terms(self.method.given(self.spot))

    def _add(self, event: TensorEvent, shear: FloatArray, normal: FloatArray, sums: FloatArray) -> None:
        """Damage of an event by the loop over planes."""
        form = self.method.form
        stress, strain = (np.ascontiguousarray(one.T) for one in (event.stress, self.tensors(event)))
        strain_damage_on_planes(
            shear, normal, stress, strain, event.often, form.by_shear, form.by_range, self.terms, sums
        )

    def beside(self, event: TensorEvent, normal: FloatArray) -> tuple[FloatArray, ...]:
        """Normal stress and normal strain."""
        weights = normal_weights(normal)
        return event.stress @ weights, self.tensors(event) @ weights

    def courses(self, event: TensorEvent, normal: FloatArray, directions: FloatArray) -> FloatArray:
        """Engineering shear strains, or normal strains."""
        own = super().courses(event, normal, directions)
        return 2.0 * own if self.method.form.by_shear else own

    def damages(self, event: TensorEvent, courses: FloatArray, beside: tuple[FloatArray, ...]) -> FloatArray:
        """Damage of the cycles of each course."""
        own, found = self._counted(event, courses, beside)
        with np.errstate(divide="ignore"):
            return found.sums(found.per_repeat / self.method.lives(self.spot, own))

    def _counted(
        self, event: TensorEvent, courses: FloatArray, beside: tuple[FloatArray, ...]
    ) -> tuple[StrainCycles, ManyCycles]:
        """Cycles of all courses, with what the criterion looks at while each lasts."""
        stress, strain = beside
        if not self.method.form.by_range:
            found = counted_all(event, courses, stress[None])
            (highest,) = found.peaks
            return StrainCycles(found.ranges, highest, highest, np.zeros(highest.size)), found
        found = counted_all(event, courses, np.stack([stress, -stress, strain, -strain]))
        highest, lowest, top, bottom = found.peaks
        return StrainCycles(found.ranges, highest, -lowest, top + bottom), found

    def size(self, normals: FloatArray) -> FloatArray:
        """The largest parameter on each plane, where nothing does damage."""
        given = self.method.given(self.spot)
        found = np.zeros(len(normals))
        for i, (normal, directions) in enumerate(zip(normals, self._looked(normals), strict=True)):
            for event in self.events:
                own, _ = self._counted(event, self.courses(event, normal, directions), self.beside(event, normal))
                found[i] = max(found[i], float(self.method.form.parameter(given, own).max(initial=0.0)))
        return found

    def cycles_on(self, event: TensorEvent, normal: FloatArray, along: FloatArray) -> StrainPlaneCycles:
        """Cycles of an event as the criterion counts them."""
        (course,) = self.courses(event, normal, along[None])
        return strain_cycles(event, course, *self.beside(event, normal))


def strain_cycles(event: TensorEvent, course: FloatArray, stress: FloatArray, strain: FloatArray) -> StrainPlaneCycles:
    """Cycles of a course of strain, with what normal stress and normal strain do while each lasts."""
    found = counted(event, course, stress)
    low, top, bottom = (counted(event, course, one).normals for one in (-stress, strain, -strain))
    own = StrainCycles(found.ranges, found.normals, -low, top + bottom)
    return StrainPlaneCycles(own, found.per_repeat, found.start, found.end)


class Yielded(NamedTuple):
    """The events of a place with local stresses and strains, and the path of each."""

    events: tuple[TensorEvent, ...]
    paths: tuple[LocalPath, ...]


def yielded(method: StrainPlane, spot: HotSpot, duty_cycle: DutyCycle, factor: float = 1.0) -> Yielded:
    """Each event by itself, again and again, with all loads times a factor; `surface_normal` of the method, else one for all."""
    relation = spot.fed
    elastic = tensor_events(relation, duty_cycle, spot.notch_factor)
    constant = spot.notch_factor * relation.constant  # type: ignore[attr-defined]
    scaled = [dataclasses.replace(one, stress=factor * (one.stress - constant) + constant) for one in elastic]
    normal = method.normal_of(np.concatenate([one.stress for one in scaled]))
    events, paths = [], []
    for one in scaled:
        own = (
            _stated(method, one, normal)
            if one.counts is not None
            else [method.how.local(one.stress, surface_normal=normal)]
        )
        samples = np.concatenate([path.samples for path in own]) if one.counts is None else None
        stress, strain = (np.concatenate([getattr(path, name) for path in own]) for name in ("stress", "strain"))
        events.append(dataclasses.replace(one, stress=stress, strain=strain, samples=samples))
        paths += own
    return Yielded(tuple(events), tuple(paths))


def _stated(method: StrainPlane, event: TensorEvent, normal: FloatArray) -> list[LocalPath]:
    """Local stress and strain at both ends of each stated cycle, which goes to and fro on a straight way."""
    found = []
    there = np.linspace(0.0, 1.0, BETWEEN + 1)[:, None]
    for first, last in zip(event.stress[0::2], event.stress[1::2], strict=True):
        way = first + there * (last - first)
        path = method.how.local(np.concatenate([way, way[-2:0:-1]]), surface_normal=normal)
        # where nothing moves along the line of the rule there is one point alone, for both ends
        at = [
            int(np.flatnonzero(path.samples == sample)[0]) if sample in path.samples else 0 for sample in (0, BETWEEN)
        ]
        found.append(
            dataclasses.replace(path, stress=path.stress[at], strain=path.strain[at], samples=path.samples[at])
        )
    return found


__all__ = ["StrainPlaneCycles", "StrainSearch", "Yielded", "strain_cycles", "yielded"]
