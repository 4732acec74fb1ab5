"""Cycles on a plane: rainflow of the shear along a direction, each with the largest normal stress while it lasts.

In: the tensors of the events at one place. Out: on a plane with a direction, ranges, normal stresses, how often.
"""

from __future__ import annotations

from dataclasses import dataclass
from typing import Any, NamedTuple

import numpy as np

from vivid_anvil.counting import _kernels as counting
from vivid_anvil.events import DutyCycle
from vivid_anvil.ground.checks import FloatArray, IntArray
from vivid_anvil.ground.errors import InputError
from vivid_anvil.stress.measures.straight import normal_weights
from vivid_anvil.stress.planes import _kernels
from vivid_anvil.stress.planes.resolve import shear_weights
from vivid_anvil.stress.relations import Relation, UnitStresses
from vivid_anvil.stress.relations.vibrating_event import OVER_FREQUENCY


@dataclass(frozen=True, eq=False)
class TensorEvent:
    """An event at one place: stresses, MPa, shape (samples, 6), how often, and of specified cycles how many of each pair of ends.

    Where it yields, `strain` are tensor strains beside local stresses, and `samples` says where each stands in the history.
    """

    name: str
    often: float
    stress: FloatArray
    counts: FloatArray | None
    sample_rate: float | None
    history: Any
    strain: FloatArray | None = None
    samples: IntArray | None = None


@dataclass(frozen=True, eq=False)
class PlaneCycles:
    """Cycles of one event on a plane: shear ranges and largest normal stresses, MPa, how often in a repeat, ends in samples."""

    ranges: FloatArray
    normals: FloatArray
    per_repeat: FloatArray
    start: IntArray
    end: IntArray


def placed(relation: Relation) -> UnitStresses:
    """The relation, where it gives six components in time; else an InputError."""
    if isinstance(relation, UnitStresses):
        return relation
    raise InputError(
        "critical plane",
        f"the stress {relation.words!r}",
        "stresses of six components: unit_stresses, or a rosette",
        "One stress per load says nothing of planes; give the components, or take stress-life.",
    )


def tensor_events(relation: Relation, duty_cycle: DutyCycle, notch_factor: float) -> list[TensorEvent]:
    """The tensors of every event at a place; InputError where its stresses are not known as six components in time."""
    found, place = [], placed(relation)
    for event, (own, _) in zip(place.loads.events(duty_cycle), duty_cycle.flat(), strict=True):
        if event.vibrates:
            raise over_frequency(event.name)
        stress = notch_factor * (event.loads @ place.unit + place.constant)
        history = own.seen(relation.counted).measured
        rate = None if history is None else history.counting_rate
        found.append(TensorEvent(event.name, event.often, stress, event.counts, rate, history))
    return found


def tensor_event(event: Any, stress: FloatArray) -> TensorEvent:
    """An event as relations give it, with the stresses at a place."""
    return TensorEvent(event.name, event.often, stress, event.counts, None, None)


def only_alone(duty_cycle: DutyCycle) -> None:
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


def over_frequency(event: str) -> InputError:
    """The error for a load whose tensors have no course in time."""
    return InputError(
        f"event {event}",
        "a load over frequency",
        "a course in time, for the critical plane",
        "Assess it by a measure, such as the normal stress along a direction.",
    )


def cycles_on(event: TensorEvent, normal: FloatArray, along: FloatArray) -> PlaneCycles:
    """The cycles of an event on a plane, with the shear along a direction in it."""
    tau = event.stress @ shear_weights(normal[None], along[None])[0]
    sigma = event.stress @ normal_weights(normal)
    return counted(event, tau, sigma)


class ManyCycles(NamedTuple):
    """Cycles of many courses, one course after the other: ranges, the largest of what stands beside, (kinds, cycles), how often.

    `ends` says where those of each course end.
    """

    ranges: FloatArray
    peaks: FloatArray
    per_repeat: FloatArray
    ends: IntArray

    def sums(self, values: FloatArray) -> FloatArray:
        """Sums over the cycles of each course."""
        owner = np.repeat(np.arange(self.ends.size), np.diff(self.ends, prepend=0))
        return np.bincount(owner, weights=values, minlength=self.ends.size).astype(np.float64)


def counted_all(event: TensorEvent, courses: FloatArray, besides: FloatArray) -> ManyCycles:
    """The cycles of an event in courses, shape (courses, samples), with what besides, (kinds, samples), are largest meanwhile."""
    if event.counts is not None:
        ranges = np.abs(courses[:, 0::2] - courses[:, 1::2])
        peaks = np.maximum(besides[:, 0::2], besides[:, 1::2])
        ends = ranges.shape[1] * (1 + np.arange(len(courses)))
        often = np.tile(event.often * event.counts, len(courses))
        return ManyCycles(ranges.ravel(), np.tile(peaks, (1, len(courses))), often, ends)
    room = len(courses) * (courses.shape[1] // 2 + 2)
    found, peaks = np.empty(room), np.empty((len(besides), room))
    ends = np.empty(len(courses), dtype=np.int64)
    _kernels.loops_of_courses(courses, np.ascontiguousarray(besides), found, peaks, ends)
    size = int(ends[-1])
    return ManyCycles(found[:size], peaks[:, :size], np.full(size, event.often), ends)


def counted(event: TensorEvent, tau: FloatArray, sigma: FloatArray) -> PlaneCycles:
    """The same of courses of shear and normal stress."""
    if event.counts is not None:
        one, other = tau[0::2], tau[1::2]
        nowhere = np.full(one.size, -1)
        normals = np.maximum(sigma[0::2], sigma[1::2])
        return PlaneCycles(np.abs(one - other), normals, event.often * event.counts, nowhere, nowhere)
    top = int(tau.argmax())
    course = np.concatenate([tau[top:], tau[: top + 1]])
    beside = np.concatenate([sigma[top:], sigma[: top + 1]])
    index = np.empty(course.size, dtype=np.int64)
    turns = index[: counting.turning_points(course, index)]
    room = turns.size // 2 + 2
    ranges, normals = np.empty(room), np.empty(room)
    start, end = np.empty(room, dtype=np.int64), np.empty(room, dtype=np.int64)
    many = _kernels.loops(course, beside, turns, ranges, normals, start, end)
    places = [(top + one[:many]) % tau.size for one in (start, end)]
    return PlaneCycles(ranges[:many], normals[:many], np.full(many, event.often), *places)
