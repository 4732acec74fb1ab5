"""A history followed with the memory of the material: stress and strain at each turning point, and the loops that close.

First loading runs on the cyclic curve; each reversal starts a branch, which is that curve doubled (Masing, G. 1926); a branch
that closes returns to the one before; beyond the largest drive so far the path is on the cyclic curve again (Matsuishi, M. and
Endo, T. 1968).
"""

from __future__ import annotations

from dataclasses import dataclass
from functools import cached_property

import numpy as np
from numpy.typing import ArrayLike

from vivid_anvil.counting import _kernels as counting
from vivid_anvil.counting import turning_points
from vivid_anvil.ground.checks import FloatArray, IntArray, as_numbers, finite_samples, read_only
from vivid_anvil.materials.strain import CyclicCurve
from vivid_anvil.stress.yielding import _kernels
from vivid_anvil.stress.yielding.notch_rules import NOTCH_RULES
from vivid_anvil.stress.yielding.skeleton import skeleton_table
from vivid_anvil.units import opened


@dataclass(frozen=True, eq=False)
class Followed:
    """The way of a notch through one block: turning points of the drive with stress, MPa, and strain, -, shape (n,); its loops.

    `samples` says where each turning point stands in what was given. `ends`, shape (k, 2), are the turning points at which each
    loop starts and turns, in the order in which they close.
    """

    samples: IntArray
    drive: FloatArray
    stress: FloatArray
    strain: FloatArray
    ends: IntArray

    @cached_property
    def highest_stress(self) -> FloatArray:
        """Largest stress of each loop, MPa, shape (k,)."""
        return np.asarray(self.stress[self.ends].max(axis=1))

    @cached_property
    def lowest_stress(self) -> FloatArray:
        """Smallest stress of each loop, MPa, shape (k,)."""
        return np.asarray(self.stress[self.ends].min(axis=1))

    @cached_property
    def amplitude(self) -> FloatArray:
        """Strain amplitude of each loop, -, shape (k,)."""
        return np.asarray(0.5 * np.abs(self.strain[self.ends[:, 0]] - self.strain[self.ends[:, 1]]))

    @property
    def mean_stress(self) -> FloatArray:
        """Mean stress of each loop, MPa, shape (k,)."""
        return 0.5 * (self.highest_stress + self.lowest_stress)


@opened()
def follow_block(
    curve: CyclicCurve,
    drive: ArrayLike,
    *,
    rule: str = "neuber",
    plastic_limit_ratio: float | None = None,
    repeated: bool = True,
) -> Followed:
    """The way through a block of drives: elastic notch stresses, MPa, or with the rule "none" strains, -.

    A `repeated` block is turned to begin and end at its largest size, where each repeat passes it: every loop closes. Else it is
    followed once, from nothing.

    Parameters
    ----------
    curve : CyclicCurve
        The cyclic stress-strain curve.
    drive : array_like
        The drive, in the order of time.
    rule : str, default "neuber"
        One of `NOTCH_RULES`.
    plastic_limit_ratio : float, optional
        Load at which the section yields as a whole over that at which the notch first yields, where the section yields too.
    repeated : bool, default True
        Whether the block follows itself.

    Returns
    -------
    Followed
        Turning points with stress and strain, and the loops.

    Raises
    ------
    InputError
        For an unknown rule, and drives that are no numbers.

    Examples
    --------
    >>> steel = CyclicCurve(youngs_modulus="206 GPa", cyclic_strength_coefficient="1080 MPa", cyclic_hardening_exponent=0.155)
    >>> way = follow_block(steel, [780.0, -520.0, 520.0, -260.0])
    >>> way.stress.round(1).tolist(), way.amplitude.round(6).tolist()
    ([461.7, -400.3, 383.6, -291.2, 461.7], [0.002188, 0.004759])
    """
    chosen = NOTCH_RULES.get(rule, "notch rule")
    values = finite_samples(as_numbers("follow block, drive", drive), where="follow block, drive", unit="")
    index = np.empty(values.size, dtype=np.int64)
    points = index[: counting.turning_points(values, index)]
    points = points if points.size else np.array([0])
    found = values[points]
    if repeated:
        points, found = _turned(points, found)
    ends = np.empty((found.size // 2 + 1, 2), dtype=np.int64)
    stress, strain = np.empty(found.size), np.empty(found.size)
    table = skeleton_table(curve, chosen.kind, float(max(found.max(), -found.min())), plastic_limit_ratio)
    closed = _kernels.follow(found, 0.0, *table, stress, strain, ends)
    return Followed(
        samples=read_only(points),
        drive=read_only(found),
        stress=read_only(stress),
        strain=read_only(strain),
        ends=read_only(ends[:closed]),
    )


def turned_points(values: FloatArray) -> tuple[IntArray, FloatArray]:
    """Turning points of a block that follows itself, from its largest size to that again: their samples, and their values."""
    index = np.empty(values.size, dtype=np.int64)
    points = index[: counting.turning_points(values, index)]
    points = points if points.size else np.array([0])
    return _turned(points, values[points])


def _turned(points: IntArray, values: FloatArray) -> tuple[IntArray, FloatArray]:
    """Turning points of the repeated block from its largest size to that again; where it is joined there may be none."""
    high, low = int(values.argmax()), int(values.argmin())
    first = high if values[high] >= -values[low] else low
    joint = points.size - first  # the place of the first sample, after the last one
    start, end = max(joint - 2, 0), min(joint + 2, points.size + 1)
    near = (first + np.arange(start, end)) % points.size
    kept = near[turning_points(values[near])] if near.size > 2 else near
    both = []
    for of in (points, values):
        turned = np.concatenate([of[first:], of[:first], of[first : first + 1]])
        both.append(np.concatenate([turned[:start], of[kept], turned[end:]]) if kept.size < near.size else turned)
    return both[0], both[1]
