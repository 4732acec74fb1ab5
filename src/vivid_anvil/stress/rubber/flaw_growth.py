"""Damage of a flaw on planes of a place whose strains go through states: what loops need, made ready once."""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass
from functools import cached_property

import numpy as np

from vivid_anvil.ground.checks import FloatArray, IntArray
from vivid_anvil.ground.handed import address
from vivid_anvil.materials.rubber import Rubber
from vivid_anvil.stress.rubber import _life_kernels as kernels
from vivid_anvil.stress.rubber.cracking_energy import StrainPath, without_drift
from vivid_anvil.stress.rubber.strain_loads import StrainWay


def law_for_loops(rubber: Rubber) -> tuple[int, FloatArray, FloatArray, FloatArray]:
    """The address of the rate, numbers of the law, its knees, N/mm, and the row of the flaw, as the loops take them."""
    law = rubber.tearing
    middle, slope = law.anchor
    terms = law.slope_terms or (0.0, 0.0, 0.0)
    by_range = 1.0 if law.r_effect == "range" else 0.0
    flaw = (
        rubber.initial_flaw,
        rubber.end_flaw,
        rubber.per_size,
        by_range,
        middle,
        slope,
        law.slope_rise or 0.0,
        *terms,
    )
    return address(type(law).rate_of, kernels.RATE), law.numbers, np.array(law.knees, dtype=np.float64), np.array(flaw)


def damage_of_courses(rubber: Rubber, courses: Sequence[FloatArray], often: Sequence[float]) -> FloatArray:
    """Damage a repeat of each course of energy, MPa, whose last is its first again, that is gone through so often."""
    law = law_for_loops(rubber)
    found = [
        times * kernels.damage_of_course(np.ascontiguousarray(one[:-1]), *law, np.empty(one.size + 2))
        for one, times in zip(courses, often, strict=True)
    ]
    return np.array(found)


@dataclass(frozen=True, eq=False)
class FlawOnPlanes:
    """Ways through states at one place, and the rubber there.

    `cauchy_greens` has the C of each way, shape (rows, 6); `surface_normal` and `closes` are as of a `StrainPath`.
    """

    rubber: Rubber
    ways: Sequence[StrainWay]
    cauchy_greens: Sequence[FloatArray]
    surface_normal: FloatArray | None
    closes: bool = True

    @cached_property
    def paths(self) -> tuple[StrainPath, ...]:
        """Each way as a path."""
        how = {"law": self.rubber.law, "surface_normal": self.surface_normal, "closes": self.closes}
        return tuple(StrainPath(cauchy_greens=one, **how) for one in self.cauchy_greens)  # type: ignore[arg-type]

    @cached_property
    def _for_loops(self) -> tuple[FloatArray, FloatArray, FloatArray, IntArray, IntArray, FloatArray]:
        forms = [path.forms for path in self.paths]
        work, line, traction = (np.ascontiguousarray(np.concatenate(many)) for many in zip(*forms, strict=True))
        ends = np.cumsum([len(one[0]) for one in forms]).astype(np.int64)
        first = np.array([way.first for way in self.ways], dtype=np.int64)
        return work, line, traction, ends, first, np.array([way.often for way in self.ways], dtype=np.float64)

    def by_way(self, normals: FloatArray) -> FloatArray:
        """Damage a repeat of each way on planes, shape (ways, planes)."""
        work, line, traction, ends, first, often = self._for_loops
        sums = np.empty((len(self.ways), len(normals)))
        planes = np.ascontiguousarray(normals, dtype=np.float64)
        law = law_for_loops(self.rubber)
        kernels.damage_on_planes(work, line, traction, planes, self.closes, ends, first, often, *law, sums)
        return sums

    def damage(self, normals: FloatArray) -> FloatArray:
        """Damage a repeat on planes, shape (planes,)."""
        return np.asarray(self.by_way(normals).sum(axis=0))

    def energies(self, number: int, normals: FloatArray) -> FloatArray:
        """Energy on planes over the part of a way that is repeated, its first row again as the last, drift taken out, MPa."""
        return without_drift(self.paths[number].energies(normals)[:, self.ways[number].first :])

    def drift(self, number: int, normals: FloatArray) -> FloatArray:
        """What a pass of a way leaves on planes, MPa."""
        found = self.paths[number].energies(normals)
        return np.asarray(found[:, -1] - found[:, self.ways[number].first])

    def peaks(self, normals: FloatArray) -> FloatArray:
        """The largest energy of any way on planes, MPa."""
        each = [self.energies(number, normals).max(axis=1) for number in range(len(self.ways))]
        return np.asarray(np.max(each, axis=0))
