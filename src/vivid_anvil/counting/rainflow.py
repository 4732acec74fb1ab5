"""Rainflow counting: a history becomes a table of cycles.

In: samples of a channel, in time order. Out: `Cycles` with the sample of each turning point.
Method: ASTM E1049-85, 5.4.4, by the equivalent four-point rule: of four successive turning points the inner pair is a
full cycle if its range is not larger than its neighbours'. What closes no cycle is the residue. It counts as half
cycles (5.4.4), is closed as if the history were repeated for ever (5.4.5), or is kept apart.
"""

from __future__ import annotations

from typing import NamedTuple

from numpy.typing import ArrayLike

from vivid_anvil.counting.counter import RainflowCounter, Residue, last_closed
from vivid_anvil.counting.cycles import Cycles, joined
from vivid_anvil.units import one, opened, with_dimension


@opened(sample_rate=one("frequency", above=0.0, optional=True))
def rainflow(
    samples: ArrayLike, *, residue: str = "half cycles", dimension: str | None = None, sample_rate: float | None = None
) -> Cycles:
    """Rainflow cycles of `samples`, shape (n,), in the coherent unit of `dimension`, by default stress.

    An array quantity, or a column headed "force [kN]", is converted and says its dimension itself.

    Closed cycles come first, in the order in which they close; those of the residue follow, as half cycles unless it is
    "repeated", as a duty cycle counts.

    Parameters
    ----------
    samples : array_like
        The samples, in their order.
    residue : str, default "half cycles"
        What becomes of half cycles that are left: one of `RESIDUES`.
    dimension : str, optional
        What the values are, such as "stress" or "force"; a name of `DIMENSIONS`.
    sample_rate : float or text with a unit, optional
        Samples a second, Hz, or text such as "100 Hz"; where the data say it themselves it is not needed.

    Returns
    -------
    Cycles
        The cycles, in the order in which they close.

    Raises
    ------
    InputError
        For anything but one row of finite numbers, and for an unknown `residue` (see `RESIDUES`).

    Examples
    --------
    >>> cycles = rainflow([-2, 1, -3, 5, -1, 3, -4, 4, -2])        # the example of ASTM E1049-85
    >>> [(float(r), float(n)) for r, n in zip(cycles.range, cycles.count)]
    [(4.0, 1.0), (3.0, 0.5), (4.0, 0.5), (8.0, 0.5), (9.0, 0.5), (8.0, 0.5), (6.0, 0.5)]
    >>> rainflow([-2, 1, -3, 5, -1, 3, -4, 4, -2], residue="repeated").range
    array([4., 3., 7., 9.])
    """
    values, of = with_dimension(samples, dimension, "samples")
    return RainflowCounter(dimension=of, sample_rate=sample_rate).whole(values, residue)


class FourPointCount(NamedTuple):
    """Closed cycles, and the residue apart from them."""

    cycles: Cycles
    residue: Residue


@opened(sample_rate=one("frequency", above=0.0, optional=True))
def four_point(samples: ArrayLike, *, dimension: str | None = None, sample_rate: float | None = None) -> FourPointCount:
    """The closed cycles of `samples`, shape (n,), by the four-point rule, with the residue kept apart.

    Parameters
    ----------
    samples : array_like
        The samples, in their order.
    dimension : str, optional
        What the values are, such as "stress" or "force"; a name of `DIMENSIONS`.
    sample_rate : float or text with a unit, optional
        Samples a second, Hz, or text such as "100 Hz"; where the data say it themselves it is not needed.

    Returns
    -------
    FourPointCount
        Closed cycles and the residue.

    Raises
    ------
    InputError
        For anything but one row of finite numbers.

    Examples
    --------
    >>> count = four_point([-2, 1, -3, 5, -1, 3, -4, 4, -2])
    >>> count.cycles.range, count.residue.values
    (array([4.]), array([-2.,  1., -3.,  5., -4.,  4., -2.]))
    """
    values, of = with_dimension(samples, dimension, "samples")
    counter = RainflowCounter(dimension=of, sample_rate=sample_rate)
    closed = counter.feed(values)
    columns, left = last_closed(counter.residue())
    return FourPointCount(joined([closed, counter.table_of(columns, columns[0].size)]), left)
