"""Paths taken whole at many places: each passage of an event is one cycle on every plane, and one plane is the worst.

In: unit stresses of places and the loads of the events. Of the loads only the corners of their convex hull are kept, as all that
counts on a plane (circle, chord, largest normal stress) is a convex function of them.
"""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass
from functools import cached_property
from typing import Any, NamedTuple

import numpy as np

from vivid_anvil.ground.checks import FloatArray, IntArray
from vivid_anvil.materials import SNCurve
from vivid_anvil.stress.load_corners import load_corners
from vivid_anvil.stress.planes import _path_kernels as kernels
from vivid_anvil.stress.planes.shear_amplitude import without_rhyme

FORMS = {"circle": kernels.CIRCLE, "chord": kernels.CHORD, "variance": kernels.VARIANCE, "normal": kernels.NORMAL}


class Asking(NamedTuple):
    """What a criterion makes of shear and normal part: weights, whether compression counts as 0, its curve of power laws."""

    shear: float
    normal: float
    clamps: bool
    curve: SNCurve
    by_shear: bool  # whether the plane of the largest shear amplitude counts

    @property
    def how(self) -> FloatArray:
        """As the loops take it."""
        return np.array([self.shear, self.normal, float(self.clamps)])

    @property
    def twice(self) -> float:
        """2 for a curve in ranges."""
        return 2.0 if self.curve.stress == "range" else 1.0


class OnPlanes(NamedTuple):
    """Amplitude and largest normal part of each path, MPa, shape (planes, paths)."""

    shear: FloatArray
    normal: FloatArray


class WorstOfPlaces(NamedTuple):
    """Damage of each path a repeat, shape (places, paths), on the worst plane, its normal, (places, 3), how many were looked at.

    Of places that a bound shows to be harmless -1 planes, and no normal.
    """

    damage: FloatArray
    normals: FloatArray
    looked: IntArray


@dataclass(frozen=True, eq=False)
class PathLoads:
    """The loads of paths: corners of all, where those of each end, the event of each and how often it is gone through.

    An event of stated cycles has a path for each of its cycles, between the two ends.
    """

    corners: FloatArray
    ends: IntArray
    event: IntArray
    often: FloatArray
    scatter: FloatArray

    @classmethod
    def of(cls, events: Sequence[Any]) -> PathLoads:
        """Of the events as relations give them, all with a course in time."""
        paths: list[FloatArray] = []
        owner: list[int] = []
        often: list[float] = []
        whole: list[FloatArray] = []
        for number, event in enumerate(events):
            pieces = [event.loads] if event.counts is None else list(event.loads.reshape(-1, 2, event.loads.shape[1]))
            counts = [1.0] if event.counts is None else event.counts.tolist()
            for piece, count in zip(pieces, counts, strict=True):
                paths.append(load_corners(piece))
                whole.append(piece)
                owner.append(number)
                often.append(event.often * count)
        scatter = np.stack([np.atleast_2d(np.cov(one.T, bias=True)) for one in whole])
        corners = np.ascontiguousarray(np.concatenate(paths))
        ends = np.cumsum([len(one) for one in paths])
        return cls(corners, ends, np.array(owner, dtype=np.int64), np.array(often), np.ascontiguousarray(scatter))

    @cached_property
    def order(self) -> IntArray:
        """In which the corners of each path are added to a circle."""
        sizes = np.diff(self.ends, prepend=0)
        return np.concatenate([without_rhyme(int(size)) for size in sizes])

    def room(self) -> tuple[FloatArray, ...]:
        """What the loops write into."""
        size, cases = self.corners.shape
        return np.empty((size, 2)), np.empty((size, 2)), np.empty((2, 3)), np.empty((cases + 2, 6))

    def on_planes(self, unit: FloatArray, constant: FloatArray, normals: FloatArray, form: str) -> OnPlanes:
        """Amplitudes and normal parts at a place, `unit` (cases, 6), `constant` (6,), MPa."""
        shape = (len(normals), self.ends.size)
        found = OnPlanes(np.empty(shape), np.empty(shape))
        place = (np.ascontiguousarray(unit), np.ascontiguousarray(constant))
        kernels.of_planes(
            np.ascontiguousarray(normals),
            *place,
            self.corners,
            self.ends,
            self.order,
            self.scatter,
            FORMS[form],
            self.room(),
            *found,
        )
        return found

    def bounds_of(self, units: FloatArray, constants: FloatArray, form: str, asking: Asking) -> FloatArray:
        """What the largest cycle of each path does at most on any plane of many places: where 0, none does any damage."""
        found = np.empty(len(units))
        place = (np.ascontiguousarray(units), np.ascontiguousarray(constants), self.corners, self.ends)
        curve = tuple(np.asarray(one) for one in asking.curve.segments.by_stress)
        kernels.bounds_of_places(*place, FORMS[form], self.often, asking.how, asking.twice, curve, found)
        return found

    def worst_of(self, units: FloatArray, constants: FloatArray, form: str, asking: Asking) -> WorstOfPlaces:
        """The worst plane of many places, shape (places, cases, 6) and (places, 6), MPa, with what bounds leave out left out."""
        size = len(units)
        found = WorstOfPlaces(np.empty((size, self.ends.size)), np.empty((size, 3)), np.empty(size, dtype=np.int64))
        kernels.of_places(
            np.ascontiguousarray(units),
            np.ascontiguousarray(constants),
            self.corners,
            self.ends,
            self.order,
            self.scatter,
            FORMS[form],
            self.often,
            asking.how,
            asking.twice,
            tuple(np.asarray(one) for one in asking.curve.segments.by_stress),
            kernels.BY_SHEAR if asking.by_shear else kernels.BY_DAMAGE,
            self.room(),
            found.damage,
            found.normals,
            found.looked,
        )
        return found


__all__ = ["FORMS", "Asking", "OnPlanes", "PathLoads", "WorstOfPlaces"]
