"""A gate for small cycles: the turning points that are left, and the cycles that were taken out.

In: samples of a channel and the size of the gate, in its unit. Out: the samples that stay, and the cycles removed.
Method: closed four-point cycles with a range below the gate are taken out; the rest of the history, and so every other
cycle, is exactly as before. (A filter that looks at successive ranges only would change the cycles at both ends.)
"""

from __future__ import annotations

from typing import NamedTuple

import numpy as np
from numpy.typing import ArrayLike

from vivid_anvil.counting.cycles import Cycles
from vivid_anvil.counting.rainflow import four_point
from vivid_anvil.counting.turning_points import turning_points
from vivid_anvil.ground.checks import FloatArray, IntArray, finite_samples, positive_number
from vivid_anvil.units import coherent_values, opened, with_dimension


class Gated(NamedTuple):
    """Values and samples of the turning points that stay, and the cycles removed."""

    values: FloatArray
    samples: IntArray
    removed: Cycles

    def share_removed(self, slope: float) -> float:
        """Share of the removed cycles in Σ n ΔS^slope of the whole: their share of the damage on a curve of that slope."""
        kept = four_point(self.values)
        halves = 0.5 * float((np.abs(np.diff(kept.residue.values)) ** slope).sum())
        stays = float((kept.cycles.count * kept.cycles.range**slope).sum()) + halves
        goes = float((self.removed.count * self.removed.range**slope).sum())
        return goes / (stays + goes) if stays + goes > 0.0 else 0.0


@opened()
def gate(samples: ArrayLike, size: float, *, dimension: str | None = None, sample_rate: float | None = None) -> Gated:
    """Take the closed cycles with a range below `size` out of `samples`, shape (n,), both in the coherent unit.

    Parameters
    ----------
    samples : array_like
        The samples, in their order.
    size : float
        Smallest range that is kept.
    dimension : str, optional
        What the values are, such as "stress" or "force"; a name of `DIMENSIONS`.
    sample_rate : float, optional
        Samples a second, Hz, or text such as "100 Hz"; where the data say it themselves it is not needed.

    Returns
    -------
    Gated
        The samples that are left, and what was taken out.

    Raises
    ------
    InputError
        For a size that is not above 0 and for anything but one row of finite numbers.

    Examples
    --------
    >>> gated = gate([0.0, 100.0, 60.0, 61.0, 20.0, 90.0, 0.0], 5.0)
    >>> gated.values, gated.removed.range
    (array([  0., 100.,  20.,  90.,   0.]), array([1.]))
    """
    numbers, of = with_dimension(samples, dimension, "samples")
    limit = positive_number("gate", coherent_values(size, of, "gate"), "a range above 0")
    values = finite_samples(numbers, where="samples", unit="")
    closed = four_point(values, dimension=of, sample_rate=sample_rate).cycles
    small = closed.range < limit
    removed = closed.chosen(small)
    points = turning_points(values)
    stays = np.ones(values.size, dtype=bool)
    stays[removed.start] = stays[removed.end] = False
    left = points[stays[points]]
    return Gated(values[left], left, removed)
