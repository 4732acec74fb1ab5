"""Stress and strain of loops whose elastic cycles and places among each other are known."""

from __future__ import annotations

from typing import NamedTuple

import numpy as np

from vivid_anvil.counting import Cycles
from vivid_anvil.ground.checks import FloatArray, IntArray, read_only
from vivid_anvil.ground.errors import InputError
from vivid_anvil.materials.strain import CyclicCurve
from vivid_anvil.stress.yielding import _kernels
from vivid_anvil.stress.yielding.hung_loops import HANGS_ON, LOOP, RISES
from vivid_anvil.stress.yielding.notch_rules import NOTCH_RULES
from vivid_anvil.stress.yielding.skeleton import on_skeleton


class Loops(NamedTuple):
    """Strain amplitude, -, and largest and smallest stress, MPa, of each loop, shape (k,)."""

    amplitude: FloatArray
    highest: FloatArray
    lowest: FloatArray


class Hung(NamedTuple):
    """Rows, each before the one that it hangs on; the place of that one there, -1 of none; whether its branch rises."""

    order: IntArray
    parent: IntArray
    rises: np.ndarray


def hung(cycles: Cycles) -> Hung:
    """Where each cycle hangs; cycles without these columns each hang on none."""
    size = len(cycles)
    if LOOP not in cycles.columns:
        return Hung(np.arange(size), np.full(size, -1), np.zeros(size, dtype=bool))
    loop = cycles.columns[LOOP]
    order = np.argsort(loop, kind="stable")  # a loop closes before the one that it hangs on
    known = loop[order] > -0.5
    row_of = np.full(int(max(loop.max(initial=0.0), 0.0)) + 1, -1)
    row_of[loop[order][known].astype(np.int64)] = np.flatnonzero(known)
    on = cycles.columns[HANGS_ON][order]
    hangs = on > -0.5
    parent = np.full(size, -1)
    wanted = np.where(hangs, on, 0.0).astype(np.int64)
    if hangs.any() and wanted.max() >= row_of.size:
        raise _torn()
    parent[hangs] = row_of[wanted[hangs]]
    if (parent[hangs] < 0).any():
        raise _torn()
    return Hung(order, parent, cycles.columns[RISES][order] > 0.5)


def _torn() -> InputError:
    return InputError("loops", "some without the ones that they hang on", "all cycles of a repeat together")


def loops_of(curve: CyclicCurve, cycles: Cycles, rule: str, plastic_limit_ratio: float | None = None) -> Loops:
    """Loops of elastic stress cycles, MPa, by a notch rule; those that hang on none start on the cyclic curve."""
    where = hung(cycles)
    stress, strain = _branches(curve, cycles, where, rule, plastic_limit_ratio)
    lowest, highest = _tips(cycles, where, *stress)
    return Loops(_back(strain[0], where), highest, lowest)


def strains_of_loops(
    curve: CyclicCurve, cycles: Cycles, rule: str, plastic_limit_ratio: float | None = None
) -> tuple[FloatArray, FloatArray]:
    """Smallest and largest strain, -, of the same loops: where they lie in a picture."""
    where = hung(cycles)
    _, strain = _branches(curve, cycles, where, rule, plastic_limit_ratio)
    return _tips(cycles, where, *strain)


Branches = tuple[
    FloatArray, FloatArray, FloatArray
]  # half of each loop, its tip by first loading, half of the way to its start


def _branches(
    curve: CyclicCurve, cycles: Cycles, where: Hung, rule: str, ratio: float | None
) -> tuple[Branches, Branches]:
    """Branches in stress and in strain, in the order of `where`."""
    low, high = cycles.minimum[where.order], cycles.maximum[where.order]
    size = low.size
    top = np.where(np.abs(high) >= np.abs(low), high, low)
    inner = where.parent >= 0
    parent = where.parent[inner]
    way = np.where(where.rises[inner], high[inner] - low[parent], high[parent] - low[inner])
    drives = np.concatenate([0.5 * (high - low), np.abs(top), np.zeros(size)])
    drives[2 * size :][inner] = 0.5 * np.maximum(way, 0.0)
    scale = curve.youngs_modulus if NOTCH_RULES[rule].drive == "strain" else 1.0
    stress, strain = on_skeleton(curve, rule, drives / scale, ratio)
    sign = np.sign(top)

    def parts(of: FloatArray) -> Branches:
        return of[:size], sign * of[size : 2 * size], of[2 * size :]

    return parts(stress), parts(strain)


def _tips(
    cycles: Cycles, where: Hung, half: FloatArray, first: FloatArray, way: FloatArray
) -> tuple[FloatArray, FloatArray]:
    """Lower and upper tip of each loop."""
    low, high = cycles.minimum[where.order], cycles.maximum[where.order]
    lowest, highest = np.empty(low.size), np.empty(low.size)
    _kernels.tips(low, high, half, first, 2.0 * way, where.parent, where.rises, lowest, highest)
    return _back(lowest, where), _back(highest, where)


def _back(values: FloatArray, where: Hung) -> FloatArray:
    found = np.empty(values.size)
    found[where.order] = values
    return read_only(found)
