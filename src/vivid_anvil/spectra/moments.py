"""Spectral moments of a stationary Gaussian process, and the rates and bandwidths that follow from them.

m_n = ∫ f^n G df with f in Hz (no 2π) and G one-sided. Rice (1944, Bell System Technical Journal 23); Vanmarcke (1972).
"""

from __future__ import annotations

import math
from abc import ABC, abstractmethod
from collections.abc import Mapping
from dataclasses import dataclass
from types import MappingProxyType

from vivid_anvil.ground import checks
from vivid_anvil.ground.errors import InputError, inside, shortened
from vivid_anvil.units import coherent


class Moments(ABC):
    """What has spectral moments, in the coherent unit squared times Hz to the order."""

    @abstractmethod
    def moment(self, order: float) -> float:
        """m_n for any order n of 0 or more; InputError where it is not known."""

    @property
    def rms(self) -> float:
        """Root of the mean square about the mean: √m0."""
        return math.sqrt(self.moment(0.0))

    @property
    def upcrossing_rate(self) -> float:
        """Upcrossings of the mean a second, Hz: √(m2/m0)."""
        return math.sqrt(self.moment(2.0) / self.moment(0.0))

    @property
    def peak_rate(self) -> float:
        """Peaks a second, Hz: √(m4/m2)."""
        return math.sqrt(self.moment(4.0) / self.moment(2.0))

    @property
    def irregularity(self) -> float:
        """Upcrossings a peak, from 0 (broad) to 1 (narrow band): m2/√(m0 m4)."""
        return self.bandwidth_factor(2.0)

    def bandwidth_factor(self, order: float) -> float:
        """α_n = m_n/√(m0 m_2n), 1 for a narrow band; rounding never takes it above."""
        return min(self.moment(order) / math.sqrt(self.moment(0.0) * self.moment(2.0 * order)), 1.0)

    @property
    def bandwidth(self) -> float:
        """ε = √(1 - α2²), 0 for a narrow band."""
        return math.sqrt(1.0 - self.irregularity**2)

    @property
    def vanmarcke_bandwidth(self) -> float:
        """√(1 - α1²), 0 for a narrow band."""
        return math.sqrt(1.0 - self.bandwidth_factor(1.0) ** 2)


@dataclass(frozen=True)
class StatedMoments(Moments):
    """Moments that are known as numbers, by their order.

    Parameters
    ----------
    values : mapping of float to float
        The moment of each order, in the coherent unit squared times Hz to the order; above 0. Orders 0 and 2 at least.

    Raises
    ------
    InputError
        For moments that no process has: not above 0, or with an irregularity above 1.

    Examples
    --------
    >>> process = StatedMoments({0: 324.0, 1: 9000.0, 2: 3.0e5, 4: 5.2e8})
    >>> f"{process.rms:g} MPa, {process.upcrossing_rate:.4g} Hz, {process.irregularity:.3f}"
    '18 MPa, 30.43 Hz, 0.731'
    """

    values: Mapping[float, float]

    def __post_init__(self) -> None:
        where = "stated moments"
        if not isinstance(self.values, Mapping):
            raise InputError(where, shortened(self.values), "a table of orders with their moments")
        found = {
            checks.real_number(inside(where, "an order"), order): checks.positive_number(
                inside(where, f"m{order:g}"), one
            )
            for order, one in self.values.items()
        }
        for order in (0.0, 2.0):
            if order not in found:
                raise InputError(where, f"no m{order:g}", "m0 and m2 at least")
        for low, middle, high in ((0.0, 1.0, 2.0), (0.0, 2.0, 4.0)):
            if middle in found and high in found and found[middle] ** 2 > found[low] * found[high] * (1.0 + 1e-12):
                raise InputError(
                    where,
                    f"m{middle:g}² above m{low:g} m{high:g}",
                    "moments of one spectrum, with frequencies in Hz",
                    "No spectrum has such moments: look whether all are in Hz, or all in rad/s.",
                )
        object.__setattr__(self, "values", MappingProxyType(found))

    @classmethod
    def of_rate(cls, rms: float | str, upcrossing_rate: float | str, *, dimension: str = "stress") -> StatedMoments:
        """Of a narrow band: its rms, and its upcrossings of the mean a second.

        >>> StatedMoments.of_rate("34 MPa", "55 Hz").moment(2)
        3496900.0
        """
        size = checks.positive_number("narrow band, rms", coherent(rms, dimension, "narrow band, rms"))
        rate = coherent(upcrossing_rate, "frequency", "narrow band, upcrossing rate")
        rate = checks.positive_number("narrow band, upcrossing rate", rate)
        return cls({order: size**2 * rate**order for order in (0.0, 0.75, 1.0, 1.5, 2.0, 4.0)})

    def moment(self, order: float) -> float:
        """The moment of that order; InputError where it was not stated."""
        if order not in self.values:
            known = ", ".join(f"m{one:g}" for one in self.values)
            raise InputError("stated moments", f"no m{order:g}", f"one of {known}", "Give the PSD itself.")
        return self.values[order]
