"""The plane that is damaged most at one place: rainflow of the shear along directions on each plane, or of whole paths.

In: a critical-plane method, a hot spot, its events. Out: the worst plane with its cycles.
"""

from __future__ import annotations

import dataclasses
from collections.abc import Callable, Sequence
from functools import cached_property
from typing import TYPE_CHECKING, Any, NamedTuple

import numpy as np

from vivid_anvil.damage.methods.worst_plane import WorstPlane
from vivid_anvil.events import DutyCycle
from vivid_anvil.ground.checks import FloatArray
from vivid_anvil.stress import HotSpot
from vivid_anvil.stress.directions import half_sphere
from vivid_anvil.stress.load_corners import load_corners
from vivid_anvil.stress.measures.straight import normal_weights
from vivid_anvil.stress.planes import PlaneFound, plane_axes, worst_plane
from vivid_anvil.stress.planes._count_kernels import damage_on_planes
from vivid_anvil.stress.planes.criteria import shear_amplitude
from vivid_anvil.stress.planes.fewer_samples import fewer_samples
from vivid_anvil.stress.planes.path_places import PathLoads
from vivid_anvil.stress.planes.plane_cycles import PlaneCycles, TensorEvent, counted, counted_all, cycles_on, placed
from vivid_anvil.stress.planes.resolve import shear_weights
from vivid_anvil.stress.planes.search import WORTH, Frames, frames_of_net, refined_frames
from vivid_anvil.stress.planes.surface_planes import free_normal, worst_of_surface

if TYPE_CHECKING:
    from vivid_anvil.damage.methods.critical_plane import CriticalPlane

DIRECTIONS = 9  # in a plane, over half a turn
STEP = 10.0  # degrees between planes of the first net
FLATTER = 0.2  # power of damages, of which those near the largest on the net are looked at more closely
STRAIGHT = 1e-9
SAVES = 0.7  # of the samples, from which on leaving others out saves nothing
CARRIES = 0.8  # of the damage, that few samples do where they are believed
HILLS = 4  # of what few samples found, that are climbed with all
CAP, FINER, SCOUTS = 15.0, 5.0, 6  # degrees around a plane, degrees of a net there, and hills that are climbed
ROUGH, ROUGHLY = 0.5, 1e-4  # degrees to which each hill is climbed first, and share that is worth a step
CLOSE = 1.0  # degrees around what few samples found, that all of them are asked about

Values = Callable[[FloatArray], FloatArray]


AT_ONCE = 1e200  # damage of what fails at once, where it is looked for


class Quick(NamedTuple):
    """Weights of shear and normal stress, and whether compression counts as 0; 2 of a curve in ranges; its power laws."""

    how: FloatArray
    twice: float
    curve: tuple[Any, ...]


class Search:
    """Damage on planes of one place, and the worst of them."""

    by_direction = True  # whether what is counted hangs on a direction in the plane

    def __init__(self, method: Any, spot: HotSpot, events: Sequence[TensorEvent]) -> None:
        self.method, self.spot, self.events = method, spot, tuple(events)

    def tensors(self, event: TensorEvent) -> FloatArray:
        """What is counted of an event."""
        return event.stress

    def beside(self, event: TensorEvent, normal: FloatArray) -> tuple[FloatArray, ...]:
        """What is looked at on a plane while a cycle lasts."""
        return (event.stress @ normal_weights(normal),)

    def courses(self, event: TensorEvent, normal: FloatArray, directions: FloatArray) -> FloatArray:
        """What is counted along each direction, shape (directions, samples): the shear, or the normal part."""
        own = self.tensors(event)
        if not self.method.form.by_shear:
            return np.repeat((own @ normal_weights(normal))[None], len(directions), axis=0)
        weights = shear_weights(np.tile(normal, (len(directions), 1)), directions)
        return np.ascontiguousarray((own @ weights.T).T)

    def damages(self, event: TensorEvent, courses: FloatArray, beside: tuple[FloatArray, ...]) -> FloatArray:
        """Damage of the cycles of each course."""
        found = counted_all(event, courses, np.stack(beside))
        amplitude = self.method.equivalent(self.spot, found.ranges, found.peaks[0])
        return found.sums(
            self.method.damage(self.spot, self.method.sn_curve.from_amplitude(amplitude), found.per_repeat)
        )

    @cached_property
    def in_line(self) -> bool:
        """Whether what is counted of all events moves along one line: then shear in any plane has one direction."""
        first = self.tensors(self.events[0])[0]
        off = np.concatenate([self.tensors(event) - first for event in self.events])
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
        looked = np.stack(self._looked(normals))
        sums = self._on_planes(normals, looked)
        every, at = np.arange(len(normals)), sums.argmax(axis=1)
        return sums[every, at], looked[every, at]

    @cached_property
    def quick(self) -> Quick | None:
        """What the loop over planes needs; None where the curve is not of power laws."""
        curve = self.method.sn_curve
        if not curve.powers:
            return None
        how = np.array([*self.method.constants(self.spot), float(self.method.form.clamps)])
        twice = 2.0 if curve.stress == "range" else 1.0
        return Quick(how, twice, tuple(np.asarray(one) for one in curve.segments.by_stress))

    def _on_planes(self, normals: FloatArray, looked: FloatArray) -> FloatArray:
        """Damage along directions, (planes, directions, 3), on planes."""
        if not self.in_numbers:
            return np.stack(
                [self._sums(normal, directions) for normal, directions in zip(normals, looked, strict=True)]
            )
        planes, many = looked.shape[:2]
        shear = shear_weights(np.repeat(normals, many, axis=0), looked.reshape(-1, 3)).reshape(planes, many, 6)
        sums, normal = np.zeros((planes, many)), normal_weights(normals)
        for event in self.events:
            if event.counts is not None:
                for i, (plane, directions) in enumerate(zip(normals, looked, strict=True)):
                    sums[i] += self.damages(event, self.courses(event, plane, directions), self.beside(event, plane))
                continue
            self._add(event, shear, normal, sums)
        return np.minimum(sums, AT_ONCE)

    @property
    def in_numbers(self) -> bool:
        """Whether the loop over planes knows the curve."""
        return self.quick is not None

    def _add(self, event: TensorEvent, shear: FloatArray, normal: FloatArray, sums: FloatArray) -> None:
        """Damage of an event by the loop over planes."""
        assert self.quick is not None
        stress = np.ascontiguousarray(event.stress.T)
        damage_on_planes(shear, normal, stress, event.often, self.method.form.by_shear, *self.quick, sums)

    def _looked(self, normals: FloatArray) -> list[FloatArray]:
        """Directions to look along in each plane: any one where none is counted, else those around and where it varies most."""
        if not self.method.form.by_shear:
            return [axis[None] for axis in plane_axes(normals)[0]]
        most = self._variance(normals)
        if self.in_line:
            return [one[None] for one in most]
        return [np.concatenate([one[None], others]) for one, others in zip(most, self.along(normals), strict=True)]

    @cached_property
    def scatter(self) -> FloatArray:
        """How what is counted scatters about its mean, of all events, shape (6, 6)."""
        return np.asarray(sum(np.cov(self.tensors(event).T, bias=True) for event in self.events))

    def _variance(self, normals: FloatArray) -> FloatArray:
        """The direction in which the shear of all events varies most, which is the only one of a path along a line."""
        first, second = plane_axes(normals)
        weights = np.stack([shear_weights(normals, axis) for axis in (first, second)])
        total = np.einsum("ipa,ab,jpb->pij", weights, self.scatter, weights, optimize=True)
        vector = np.linalg.eigh(total)[1][:, :, 1]
        return np.asarray(vector[:, :1] * first + vector[:, 1:] * second)

    def _sums(self, normal: FloatArray, directions: FloatArray) -> FloatArray:
        """Damage along each direction."""
        sums = np.zeros(len(directions))
        for event in self.events:
            sums += self.damages(event, self.courses(event, normal, directions), self.beside(event, normal))
        return np.minimum(sums, AT_ONCE)

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

    @cached_property
    def corners(self) -> list[FloatArray]:
        """The stresses of each event that no circle leaves out."""
        return [load_corners(event.stress) for event in self.events]

    def shear(self, normals: FloatArray) -> FloatArray:
        """The largest shear amplitude of any event on each plane, MPa, by the smallest circle."""
        each = [shear_amplitude(corners, normals, "circle") for corners in self.corners]
        return np.asarray(np.max(each, axis=0))

    def cycles_on(self, event: TensorEvent, normal: FloatArray, along: FloatArray) -> Any:
        """Cycles of an event as the criterion counts them."""
        if self.method.form.by_shear:
            return cycles_on(event, normal, along)
        sigma = event.stress @ normal_weights(normal)
        return counted(event, sigma, sigma)

    def largest(self, values: Values, second: Values | None = None) -> PlaneFound:
        """Where something is largest: of all planes, or of those that a free surface has."""
        if self.method.planes == "all":
            return worst_plane(values, second=second, step_degrees=STEP)
        return worst_of_surface(values, self.surface, second=second)

    def on_frames(self, normals: FloatArray, along: FloatArray) -> FloatArray:
        """Flattened damage on planes along one direction each; of a path along a line there is only one."""
        looked = self._variance(normals) if self.turns_nowhere else along
        return np.asarray(self._on_planes(normals, looked[:, None])[:, 0] ** FLATTER)

    @property
    def turns_nowhere(self) -> bool:
        """Whether there is only one direction to look along."""
        return self.in_line or not self.method.form.by_shear

    def _flattened(self, normals: FloatArray) -> tuple[FloatArray, FloatArray]:
        found, along = self.best(normals)
        return found**FLATTER, along

    def _one_way(self, normals: FloatArray) -> tuple[FloatArray, FloatArray]:
        """The same along the direction alone in which the shear varies most."""
        along = np.stack([one[0] for one in self._looked(normals)])
        return self.on_frames(normals, along), along

    def _scouts(self, normal: FloatArray) -> Frames:
        """The best frames in a cap around a plane, apart from each other: small cycles make many hills side by side."""
        net = half_sphere(FINER)
        net = net[np.abs(net @ normal) > np.cos(np.radians(CAP))]
        along = self.along(net)
        planes = np.repeat(net, along.shape[1], axis=0)
        every = Frames(planes, along.reshape(-1, 3), self._on_planes(net, along).ravel() ** FLATTER)
        return every.near.apart(FINER * 1.5, SCOUTS)

    def closer(self) -> WorstPlane | None:
        """The worst of all planes: with few samples over the net, then with all around what they found; None without damage.

        Where what few samples do is little of the damage there, small cycles at large normal stress do it, and all samples go
        over the net as well.
        """
        few = self.fewer()
        turns = not self.turns_nowhere
        first = frames_of_net(few._flattened, STEP)
        if first.values.max() <= 0.0:
            return None
        found = refined_frames(few.on_frames, first, 0.5 * STEP, turns, worth=ROUGHLY if few is not self else WORTH)
        ties = found.ties
        if few is not self:
            each = found.near.one_of_each
            again = each._replace(values=self.on_frames(each.normals, each.along))
            if (each.values[0] / again.values[0]) ** (1.0 / FLATTER) >= CARRIES:
                found = refined_frames(self.on_frames, again.apart(CLOSE, HILLS), CLOSE, turns, ROUGH, ROUGHLY)
                found = refined_frames(self.on_frames, found.apart(ROUGH, 1), ROUGH, turns)
            else:
                again = again.beside(frames_of_net(self._one_way, STEP)).one_of_each.near
                found = refined_frames(self.on_frames, again, 0.5 * STEP, turns, ROUGH, ROUGHLY)
                if turns:
                    scouts = self._scouts(found.by_value.normals[0])
                    found = found.beside(refined_frames(self.on_frames, scouts, 0.5 * STEP, turns, ROUGH, ROUGHLY))
                found = refined_frames(self.on_frames, found.apart(ROUGH, 2), CLOSE, turns)
        best = found.by_value
        normal, along = best.normals[0], best.along[0]
        if self.in_line and self.method.form.by_shear:
            along = self._variance(normal[None])[0]
        return self._worst(PlaneFound(float(best.values[0]), normal, ties), along)

    def _worst(self, found: PlaneFound, along: FloatArray) -> WorstPlane:
        cycles = tuple(self.cycles_on(event, found.normal, along) for event in self.events)
        return WorstPlane(found, along, cycles, self.events)

    def fewer(self) -> Search:
        """The same search with the samples alone that carry large cycles; itself where that saves little."""
        events = []
        for event in self.events:
            kept = fewer_samples(self.tensors(event)) if event.counts is None else np.arange(len(event.stress))
            strain = None if event.strain is None else event.strain[kept]
            events.append(dataclasses.replace(event, stress=event.stress[kept], strain=strain))
        sizes = [sum(len(one.stress) for one in many) for many in (events, self.events)]
        return self if sizes[0] > SAVES * sizes[1] else type(self)(self.method, self.spot, events)

    @cached_property
    def surface(self) -> FloatArray:
        """The normal of the free surface: as it is stated, or the direction along which there is least stress."""
        if self.method.surface_normal is not None:
            return np.asarray(self.method.surface_normal)
        return free_normal(np.concatenate([event.stress for event in self.events])).normal

    def worst(self) -> WorstPlane:
        """The plane that is damaged most; where nothing does damage the one with the largest parameter."""
        found = None
        if self.method.form.on_largest_shear:
            found = self.largest(self.shear, self.damage)
        elif self.method.planes != "all" or not self.by_direction:
            found = self.largest(lambda normals: self.damage(normals) ** FLATTER)
        else:
            closer = self.closer()
            if closer is not None:
                return closer
        if found is None or found.value <= 0.0:
            few = self.fewer() if self.method.planes == "all" else self  # those of a surface are few already
            found = few.largest(few.size)
        return self._worst(found, self._turned(found.normal))

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


class PathSearch(Search):
    """The same where each passage of an event is one cycle, whose shear amplitude is that of its whole path."""

    by_direction = False

    def __init__(
        self, method: CriticalPlane, spot: HotSpot, duty_cycle: DutyCycle, events: Sequence[TensorEvent]
    ) -> None:
        super().__init__(method, spot, events)
        place = placed(spot.fed)
        self.loads = PathLoads.of(place.loads.events(duty_cycle))
        self.unit, self.constant = spot.notch_factor * place.unit, spot.notch_factor * place.constant

    def fewer(self) -> Search:
        """Itself: corners are few."""
        return self

    def _amplitudes(self, normals: FloatArray) -> tuple[FloatArray, FloatArray]:
        """Shear amplitude and largest normal stress of each path on each plane, MPa, shape (planes, paths)."""
        form = self.method.path_form
        return self.loads.on_planes(self.unit, self.constant, normals, form)

    def best(self, normals: FloatArray) -> tuple[FloatArray, FloatArray]:
        """Damage on each plane, and a direction in it."""
        shear, normal = self._amplitudes(normals)
        amplitude = self.method.equivalent(self.spot, 2.0 * shear, normal)
        damage = self.method.damage(self.spot, self.method.sn_curve.from_amplitude(amplitude), self.loads.often)
        return damage.sum(axis=1), plane_axes(normals)[0]

    def size(self, normals: FloatArray) -> FloatArray:
        """The largest equivalent amplitude on each plane."""
        shear, normal = self._amplitudes(normals)
        return np.asarray(self.method.equivalent(self.spot, 2.0 * shear, normal).max(axis=1))

    def shear(self, normals: FloatArray) -> FloatArray:
        """The largest amplitude of any event on each plane, MPa."""
        return np.asarray(self._amplitudes(normals)[0].max(axis=1))

    def cycles_on(self, event: TensorEvent, normal: FloatArray, along: FloatArray) -> Any:
        """One cycle for each path of an event, between the two samples that are farthest apart."""
        number = next(i for i, one in enumerate(self.events) if one is event)
        mine = self.loads.event == number
        shear, largest = (one[0, mine] for one in self._amplitudes(normal[None]))
        if event.counts is not None:
            nowhere = np.full(shear.size, -1)
            return PlaneCycles(2.0 * shear, largest, self.loads.often[mine], nowhere, nowhere)
        course = event.stress @ (
            shear_weights(normal[None], along[None])[0] if self.method.form.by_shear else normal_weights(normal)
        )
        ends = np.array([course.argmin()]), np.array([course.argmax()])
        return PlaneCycles(2.0 * shear, largest, self.loads.often[mine], *ends)

    def _turned(self, normal: FloatArray) -> FloatArray:
        """The direction in which the path of the worst event is longest; by variance that in which it varies most."""
        first, second = (axis[0] for axis in plane_axes(normal))
        number = int(self._amplitudes(normal[None])[0][0].argmax())
        event = self.events[int(self.loads.event[number])]
        path = np.column_stack([event.stress @ shear_weights(normal[None], axis[None])[0] for axis in (first, second)])
        off = path - path.mean(axis=0)
        if self.method.shear_amplitude == "variance":
            turn = np.linalg.eigh(off.T @ off)[1][:, 1]
        else:
            around = np.pi * np.arange(720) / 720
            turns = np.column_stack([np.cos(around), np.sin(around)])
            turn = turns[int(np.ptp(off @ turns.T, axis=0).argmax())]
        return np.asarray(turn[0] * first + turn[1] * second)


def search_of(method: CriticalPlane, spot: HotSpot, duty_cycle: DutyCycle, events: Sequence[TensorEvent]) -> Search:
    """As the method counts."""
    if method.shear_amplitude is None:
        return Search(method, spot, events)
    return PathSearch(method, spot, duty_cycle, events)
