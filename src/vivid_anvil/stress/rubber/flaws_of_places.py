"""The worst plane of a flaw at many places: what loops need of the rubber is made ready once."""

from __future__ import annotations

from dataclasses import dataclass
from functools import cached_property
from typing import Any

import numpy as np

from vivid_anvil.ground.checks import FloatArray
from vivid_anvil.materials.rubber import Rubber
from vivid_anvil.stress.directions import half_sphere
from vivid_anvil.stress.rubber import _kernels as paths
from vivid_anvil.stress.rubber import _life_kernels as kernels
from vivid_anvil.stress.rubber.flaw_growth import law_for_loops
from vivid_anvil.stress.rubber.strain_loads import StrainWay
from vivid_anvil.stress.rubber.strain_states import UNDEFORMED

STEP = 5.0  # degrees between planes of the net
ENERGIES = 400  # of the table of what a cycle does at most: from 1e-6 MPa up to 480


@dataclass(frozen=True, eq=False)
class WorstOfPlace:
    """The normal of the worst plane, damage of each way there, least and largest energy, MPa, planes that were counted."""

    normal: FloatArray
    by_way: FloatArray
    reach: FloatArray
    counted: int


@dataclass(frozen=True, eq=False)
class FlawsOfPlaces:
    """Ways through states, and the rubber, for any number of places; `pruned` leaves out planes that a bound shows to be less."""

    rubber: Rubber
    ways: tuple[StrainWay, ...]
    closes: bool = True
    pruned: bool = True

    @cached_property
    def _law(self) -> tuple[int, FloatArray, FloatArray, FloatArray]:
        return law_for_loops(self.rubber)

    @cached_property
    def _net(self) -> tuple[FloatArray, FloatArray]:
        net = half_sphere(STEP)
        squares = np.empty((6, len(net)))
        paths.squares_of(net, squares)
        return net, squares

    @cached_property
    def most(self) -> FloatArray:
        """The most damage over the range that any cycle up to a range does, over its logarithm; then up to where it holds.

        Ranges of rainflow's cycles sum up to what a course travels up. With d(r) <= d_0 + r max(d - d_0)/r up to the largest, the
        damage is at most travel times that, and d_0 a cycle.
        """
        energies = np.exp(kernels.LEAST + kernels.FINE * np.arange(ENERGIES))
        found = np.empty(ENERGIES)
        kernels.table_of_most(*self._law, energies, found)
        least, flaw = float(found[0]), self._law[3]
        upper = np.append(found[1:], found[-1])  # of a step at most what its upper end does
        ratio = np.maximum.accumulate((upper - least) / energies)
        ratio = np.append(ratio[0], ratio[:-1])
        holds = (
            np.inf
            if flaw[kernels.BY_RANGE] > 0.5
            else flaw[kernels.MIDDLE] / (flaw[kernels.PER_SIZE] * flaw[kernels.END])
        )
        rises = min(flaw[kernels.RISE], *flaw[kernels.ONE :]) >= 0.0
        return np.concatenate([ratio, [holds * np.exp(-kernels.FINE) if rises else 0.0, least]])

    @cached_property
    def _of_ways(self) -> tuple[Any, Any, Any]:
        sizes = [len(way.weights) - 1 for way in self.ways]
        first = np.array([way.first for way in self.ways], dtype=np.int64)
        return np.cumsum(sizes).astype(np.int64), first, np.array([way.often for way in self.ways], dtype=np.float64)

    def at(self, strains: FloatArray, surface_normal: FloatArray | None) -> WorstOfPlace:
        """The worst plane of a place, of the strains of its states, E, shape (states, 6), and the normal of a free surface."""
        ends, first, often = self._of_ways
        steps = int(ends[-1])
        forms = tuple(np.empty((steps, paths.NODES, 6)) for _ in range(3))
        law = self.rubber.law
        how = paths.VOLUME if surface_normal is None else paths.SURFACE
        normal = np.zeros(3) if surface_normal is None else np.ascontiguousarray(surface_normal, dtype=np.float64)
        before = 0
        for way, end in zip(self.ways, ends.tolist(), strict=True):
            greens = UNDEFORMED + 2.0 * (way.weights @ strains)
            parts = (one[before:end] for one in forms)
            paths.prepared(greens, law.row, how, float(law.bulk_modulus or 0.0), normal, *parts)
            before = end
        found, by_way, reach = np.zeros(3), np.empty(len(self.ways)), np.empty(2)
        net, squares = self._net
        counted = kernels.worst_of_place(
            forms,
            (ends, first, often),
            net,
            squares,
            STEP,
            self.most,
            self.pruned,
            self._law,
            self.closes,
            found,
            by_way,
            reach,
        )
        return WorstOfPlace(found, by_way, reach, int(counted))
