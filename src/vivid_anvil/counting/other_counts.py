"""The other counting methods of ASTM E1049-85: simple ranges, range pairs, peaks, level crossings.

In: samples of a channel, in time order. Out: `Cycles`, or counts of peaks and levels. For fatigue, rainflow is the method
of choice; these serve comparison with older spectra and specifications written in them.
"""

from __future__ import annotations

from typing import Any, NamedTuple

import numpy as np
from numpy.typing import ArrayLike

from vivid_anvil.counting import _kernels
from vivid_anvil.counting.cycles import Cycles
from vivid_anvil.counting.turning_points import turning_points
from vivid_anvil.ground.checks import FloatArray, IntArray, finite_samples, read_only
from vivid_anvil.ground.errors import InputError
from vivid_anvil.units import coherent_values, one, opened, with_dimension


@opened()
def simple_range(samples: ArrayLike, *, dimension: str | None = None, sample_rate: float | None = None) -> Cycles:
    """Each range between successive turning points of `samples`, shape (n,), as a half cycle (ASTM E1049-85, 5.3.1).

    Parameters
    ----------
    samples : array_like
        The samples, in their order.
    dimension : str, optional
        What the values are, such as "stress" or "force"; a name of `DIMENSIONS`.
    sample_rate : float, optional
        Samples a second, Hz, or text such as "100 Hz"; where the data say it themselves it is not needed.

    Returns
    -------
    Cycles
        The half cycles.

    Raises
    ------
    InputError
        For an argument of another kind, unit or range; the message says which.

    Examples
    --------
    >>> simple_range([0.0, 30.0, -10.0, 20.0]).range
    array([30., 40., 30.])
    """
    numbers, of = with_dimension(samples, dimension, "samples")
    values = finite_samples(numbers, where="samples", unit="")
    points = turning_points(values)
    return _cycles(values, points[:-1], points[1:], np.full(max(points.size - 1, 0), 0.5), of, sample_rate)


@opened()
def range_pair(samples: ArrayLike, *, dimension: str | None = None, sample_rate: float | None = None) -> Cycles:
    """Range-pair cycles of `samples`, shape (n,), forwards and then, of what is left, backwards (ASTM E1049-85, 5.4.3).

    A single range that remains counts as a half cycle: the standard leaves open whether half or full.

    Parameters
    ----------
    samples : array_like
        The samples, in their order.
    dimension : str, optional
        What the values are, such as "stress" or "force"; a name of `DIMENSIONS`.
    sample_rate : float, optional
        Samples a second, Hz, or text such as "100 Hz"; where the data say it themselves it is not needed.

    Returns
    -------
    Cycles
        The cycles.

    Raises
    ------
    InputError
        For an argument of another kind, unit or range; the message says which.

    Examples
    --------
    >>> range_pair([-2, 1, -3, 5, -1, 3, -4, 4, -2]).range
    array([3., 4., 8., 6.])
    """
    numbers, of = with_dimension(samples, dimension, "samples")
    values = finite_samples(numbers, where="samples", unit="")
    points = turning_points(values)
    first, second, left = _paired(values[points])
    late_first, late_second, single = _paired(values[points][left[::-1]])
    back = left[::-1]
    starts = np.concatenate([first, back[late_second], back[single][1::-1][:1] if single.size == 2 else first[:0]])
    ends = np.concatenate([second, back[late_first], back[single][:1] if single.size == 2 else second[:0]])
    count = np.ones(starts.size)
    if single.size == 2:
        count[-1] = 0.5
    return _cycles(values, points[starts], points[ends], count, of, sample_rate)


class PeakCount(NamedTuple):
    """Peaks above and valleys below the reference, the highest and the lowest first."""

    peaks: FloatArray
    valleys: FloatArray


@opened()
def peaks(samples: ArrayLike, reference: float = 0.0) -> PeakCount:
    """All maxima above and minima below `reference` between the ends of `samples`, shape (n,) (ASTM E1049-85, 5.2).

    >>> peaks([0.0, 30.0, -10.0, 20.0, 5.0, 45.0, -35.0, 0.0])
    PeakCount(peaks=array([45., 30., 20.]), valleys=array([-35., -10.]))
    """
    values, (level,) = _in_one_unit(samples, reference)
    points = values[turning_points(values)]
    inner, before = points[1:-1], points[:-2]
    highs, lows = inner[(inner > before) & (inner > level)], inner[(inner < before) & (inner < level)]
    return PeakCount(np.sort(highs)[::-1], np.sort(lows))


@opened()
def peaks_between_crossings(samples: ArrayLike, reference: float = 0.0) -> PeakCount:
    """The largest peak or valley of `samples`, shape (n,), between crossings of `reference` (ASTM E1049-85, 5.2).

    >>> peaks_between_crossings([0.0, 30.0, -10.0, 20.0, 5.0, 45.0, -35.0, 0.0])
    PeakCount(peaks=array([45., 30.]), valleys=array([-35., -10.]))
    """
    values, (level,) = _in_one_unit(samples, reference)
    away = values[values != level]
    if not away.size:
        return PeakCount(np.empty(0), np.empty(0))
    cuts = np.flatnonzero(np.diff(np.sign(away - level))) + 1
    starts = np.concatenate([[0], cuts])
    high, low = np.maximum.reduceat(away, starts), np.minimum.reduceat(away, starts)
    above = away[starts] > level
    return PeakCount(np.sort(high[above])[::-1], np.sort(low[~above]))


@opened()
def level_crossings(samples: ArrayLike, levels: ArrayLike, reference: float = 0.0) -> IntArray:
    """How often `samples`, shape (n,), cross each of `levels`: rising at and above `reference`, falling below it.

    A rising crossing goes from below a level to it or above; a falling one the other way (ASTM E1049-85, 5.1).

    Parameters
    ----------
    samples : array_like
        The samples, in their order.
    levels : array_like
        The levels, rising.
    reference : float, default 0.0
        The level from which crossings upwards are counted, else downwards.

    Returns
    -------
    ndarray of int
        Crossings of each level, shape of `levels`.

    Raises
    ------
    InputError
        Where the levels do not rise.

    Examples
    --------
    >>> level_crossings([-2, 1, -3, 5, -1, 3, -4, 4, -2], [-3.5, -0.5, 0.5, 3.5])
    array([1, 4, 4, 2])
    """
    values, (wanted, level) = _in_one_unit(samples, levels, reference)
    edges = finite_samples(wanted, where="levels", unit="")
    if (np.diff(edges) <= 0.0).any():
        raise InputError("levels", "levels that do not rise", "levels in rising order")
    points = values[turning_points(values)]
    low = np.searchsorted(edges, np.minimum(points[:-1], points[1:]), side="right")
    high = np.searchsorted(edges, np.maximum(points[:-1], points[1:]), side="right")
    rising = points[1:] > points[:-1]
    return np.where(edges >= level, _passed(low, high, rising, edges.size), _passed(low, high, ~rising, edges.size))


@opened(sample_rate=one("frequency", above=0.0))
def time_at_level(samples: ArrayLike, edges: ArrayLike, sample_rate: float) -> FloatArray:
    """Time, s, that `samples`, shape (n,), spend in each class between rising `edges`; classes are [edge, next edge).

    >>> time_at_level([0.0, 1.0, 1.5, 3.0], [0.0, 1.0, 2.0], sample_rate=10.0)
    array([0.1, 0.2])
    """
    values, (wanted,) = _in_one_unit(samples, edges)
    limits = finite_samples(wanted, where="edges", unit="")
    if limits.size < 2 or (np.diff(limits) <= 0.0).any():
        raise InputError("edges", f"{limits.size} edges", "two or more, rising")
    place = np.searchsorted(limits, values, side="right") - 1
    inside = (place >= 0) & (place < limits.size - 1)
    return np.bincount(place[inside], minlength=limits.size - 1) / sample_rate


def _in_one_unit(samples: ArrayLike, *others: Any) -> tuple[FloatArray, tuple[Any, ...]]:
    """Samples, and levels beside them, in the coherent unit of what the samples are."""
    numbers, dimension = with_dimension(samples, None, "samples")
    same = tuple(coherent_values(other, dimension, "levels") for other in others)
    return finite_samples(numbers, where="samples", unit=""), same


def _passed(low: IntArray, high: IntArray, chosen: np.ndarray, size: int) -> IntArray:
    """How many of the chosen segments pass each level, from the level numbers at their ends."""
    steps = np.bincount(low[chosen], minlength=size + 1) - np.bincount(high[chosen], minlength=size + 1)
    return np.asarray(np.cumsum(steps)[:size], dtype=np.int64)


def _paired(values: FloatArray) -> tuple[IntArray, IntArray, IntArray]:
    values = read_only(np.ascontiguousarray(values))
    first, second = np.empty((2, values.size // 2 + 1), dtype=np.int64)
    left = np.empty(values.size + 1, dtype=np.int64)
    pairs, depth = _kernels.range_pair(values, first, second, left)
    return first[:pairs], second[:pairs], left[:depth]


def _cycles(
    values: FloatArray, start: IntArray, end: IntArray, count: FloatArray, dimension: str, sample_rate: float | None
) -> Cycles:
    return Cycles(
        range=np.abs(values[start] - values[end]),
        mean=0.5 * (values[start] + values[end]),
        count=count,
        start=start,
        end=end,
        dimension=dimension,
        sample_rate=sample_rate,
    )
