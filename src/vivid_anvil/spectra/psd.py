"""A one-sided PSD given by points: breakpoints in log-log, or lines.

In: frequencies in Hz, values in the coherent unit squared a Hz. Moments are exact for the way that it runs between points.
"""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass
from typing import Any

import numpy as np
from numpy.typing import ArrayLike

from vivid_anvil.ground import checks
from vivid_anvil.ground.checks import FloatArray, as_numbers, read_only
from vivid_anvil.ground.errors import InputError, inside, shortened
from vivid_anvil.spectra.between_points import BETWEEN_POINTS, BetweenPoints
from vivid_anvil.spectra.density import Lines, SpectralDensity
from vivid_anvil.units import DIMENSIONS, opened
from vivid_anvil.units.psd import psd_dimension

MOTIONS = ("acceleration", "velocity", "length")  # each the integral of the one before


@dataclass(frozen=True, eq=False, repr=False)
class PSD(SpectralDensity):
    """A one-sided PSD by its points; `between` says how it runs between them (see `BETWEEN_POINTS`).

    Parameters
    ----------
    frequency : ndarray, shape (n,)
        Frequencies, Hz; ascending, two or more.
    values : ndarray, shape (n,)
        The PSD at each, in the coherent unit squared a Hz.
    dimension : str, default "acceleration"
        What it is the PSD of; a name of `DIMENSIONS`.
    between : str, default "log-log"
        How it runs between its points; one of `BETWEEN_POINTS`.

    Raises
    ------
    InputError
        For frequencies that do not ascend, a two-sided PSD, values below 0, or of 0 where a logarithm is taken.

    Examples
    --------
    >>> rope = PSD([5.0, 20.0, 60.0, 200.0], [1.0, 40.0, 40.0, 0.5], dimension="stress")
    >>> rope
    <PSD of stress: 4 points, 5 to 200 Hz, rms 51.85 MPa>
    >>> f"{rope.upcrossing_rate:.2f} Hz, {rope.peak_rate:.2f} Hz"
    '61.24 Hz, 100.06 Hz'
    """

    frequency: FloatArray
    values: FloatArray
    dimension: str = "acceleration"
    between: str = "log-log"

    def __post_init__(self) -> None:
        checks.one_of(inside("PSD", "dimension"), self.dimension, tuple(DIMENSIONS))
        rule = BETWEEN_POINTS.get(self.between, inside("PSD", "between"))
        frequency = checks.finite_samples(self.frequency, where=inside("PSD", "frequency"), unit="Hz")
        values = checks.finite_samples(self.values, where=inside("PSD", "values"), unit=self.unit)
        _check_frequencies(frequency)
        if frequency.size != values.size:
            raise InputError("PSD", f"{frequency.size} frequencies and {values.size} values", "a value for each")
        _check_values(frequency, values, rule)
        object.__setattr__(self, "frequency", checks.kept(np.array(frequency)))
        object.__setattr__(self, "values", checks.kept(np.array(values)))

    @property
    def unit(self) -> str:
        """The coherent unit of the values."""
        return psd_dimension(self.dimension).coherent

    @property
    def rule(self) -> type[BetweenPoints]:
        """How it runs between points."""
        return BETWEEN_POINTS[self.between]

    @property
    def band(self) -> tuple[float, float]:
        """First and last frequency, Hz."""
        return float(self.frequency[0]), float(self.frequency[-1])

    def at(self, frequency: ArrayLike) -> FloatArray:
        """G at frequencies in Hz; 0 outside the band."""
        asked = np.asarray(frequency, dtype=np.float64)
        low, high = self.band
        within = (asked >= low) & (asked <= high)
        found = self.rule.at(self.frequency, self.values, np.clip(asked, low, high))
        return np.where(within, found, 0.0)

    def moment(self, order: float) -> float:
        """m_n by the closed form of each piece between points."""
        checks.real_number("PSD, order of a moment", order)
        return float(np.sum(self.rule.pieces(self.frequency, self.values, float(order))))

    def lines(self) -> Lines:
        """Those that integrate each piece as it runs."""
        return self.rule.lines(self.frequency)

    def times(self, factor: float) -> PSD:
        """The PSD of the quantity times a factor."""
        return PSD(self.frequency, read_only(self.values * factor**2), self.dimension, self.between)

    def in_motion(self, dimension: str) -> PSD:
        """That of the same motion as "acceleration", "velocity" or "length" (displacement): G/(2πf)² from one to the next.

        >>> base = PSD([20.0, 80.0, 350.0, 2000.0], [9.617e5, 3.847e6, 3.847e6, 6.732e5])
        >>> f"{base.in_motion('velocity').rms:.2f} mm/s, {base.in_motion('length').rms:.4f} mm"
        '52.57 mm/s, 0.1943 mm'
        """
        where = inside("PSD", "in_motion")
        checks.one_of(where, dimension, MOTIONS)
        if self.dimension not in MOTIONS:
            raise InputError(
                where, f"a PSD of {self.dimension}", "one of an acceleration, a velocity or a displacement"
            )
        times = MOTIONS.index(dimension) - MOTIONS.index(self.dimension)
        if times and (self.between == "linear" or self.frequency[0] == 0.0):
            found = f"a PSD that starts at {self.frequency[0]:g} Hz, {self.between} between points"
            raise InputError(where, found, "one in log-log or at lines, above 0 Hz", "Straight lines would be bent.")
        values = self.values * (2.0 * np.pi * self.frequency) ** (-2.0 * times)
        return PSD(self.frequency, read_only(values), dimension, self.between)

    def __repr__(self) -> str:
        from vivid_anvil.units import in_unit

        low, high = self.band
        size = in_unit(self.rms, self.dimension)
        return f"<PSD of {self.dimension}: {self.frequency.size} points, {low:g} to {high:g} Hz, rms {size}>"


def _check_frequencies(frequency: FloatArray) -> None:
    where = inside("PSD", "frequency")
    if frequency.size < 2:
        raise InputError(where, "one frequency", "two or more", "A tone by itself is a sine, not a PSD.")
    if frequency[0] < 0.0:
        raise InputError(
            where,
            f"{frequency[0]:g} Hz",
            "a one-sided PSD, with frequencies of 0 or more",
            "A two-sided PSD becomes one-sided when its positive half is doubled and the other left out.",
        )
    falls = np.flatnonzero(np.diff(frequency) <= 0.0)
    if falls.size:
        at = int(falls[0]) + 1
        raise InputError(
            where,
            f"{frequency[at]:g} Hz after {frequency[at - 1]:g} Hz, point {at + 1}",
            "ascending frequencies",
            "Sort the points; a step needs two frequencies, such as 80 and 80.1 Hz.",
        )


def _check_values(frequency: FloatArray, values: FloatArray, rule: type[BetweenPoints]) -> None:
    where = inside("PSD", "values")
    if (values < 0.0).any():
        at = int(np.flatnonzero(values < 0.0)[0])
        raise InputError(
            where,
            f"{values[at]:g} at {frequency[at]:g} Hz",
            "values of 0 or more",
            "A mean square is never negative; values in dB are 10 log10 of it: turn them back before.",
        )
    if rule.takes_logarithms and (frequency[0] == 0.0 or not values.all()):
        at = 0 if frequency[0] == 0.0 else int(np.flatnonzero(values == 0.0)[0])
        raise InputError(
            where,
            f"{values[at]:g} at {frequency[at]:g} Hz",
            "frequencies and values above 0, straight in log-log",
            "Leave out the point where there is nothing, or say between = 'linear'.",
        )
    if not values.any():
        raise InputError(where, "0 everywhere", "a PSD", "Leave out an event in which nothing shakes.")


@opened()
def psd_of_slopes(frequency: Sequence[float], levels: Sequence[float | Any]) -> FloatArray:
    """Values of breakpoints of which some are stated by the slope of their skirt.

    dB are 10 log10 of the PSD, so that -3 dB/octave is an exponent of -0.9966.

    Parameters
    ----------
    frequency : sequence of float
        Breakpoints, Hz.
    levels : sequence of float or ("dB/octave", float)
        For each a value, or a slope: before the first stated value it leads up to the next point, after it on from the last.

    Returns
    -------
    ndarray, shape (n,)
        A value for each.

    Raises
    ------
    InputError
        For slopes only.

    Examples
    --------
    >>> psd_of_slopes([20.0, 80.0, 350.0, 700.0], [("dB/octave", 3.0), 0.04, 0.04, ("dB/octave", -3.0)]).round(5)
    array([0.01005, 0.04   , 0.04   , 0.02005])
    """
    numbers = [level for level in levels if not isinstance(level, tuple)]
    if len(as_numbers("PSD, frequency", frequency)) != len(levels) or as_numbers("PSD, levels", numbers).ndim != 1:
        raise InputError("PSD, levels", shortened(levels), "a level, or a slope, for each frequency")
    values = np.array([np.nan if isinstance(level, tuple) else level for level in levels], dtype=np.float64)
    known = np.flatnonzero(~np.isnan(values))
    if not known.size:
        raise InputError("PSD, levels", "slopes only", "a value at one frequency at least")
    slopes = [float(level[1]) if isinstance(level, tuple) else 0.0 for level in levels]
    for at in range(int(known[0]) - 1, -1, -1):
        values[at] = values[at + 1] / _along(slopes[at], frequency[at], frequency[at + 1])
    for at in range(int(known[0]) + 1, values.size):
        if np.isnan(values[at]):
            values[at] = values[at - 1] * _along(slopes[at], frequency[at - 1], frequency[at])
    return values


def _along(slope: float, low: float, high: float) -> float:
    """By which factor a PSD rises from one frequency to another, for a slope in dB/octave."""
    return float((high / low) ** (slope / (10.0 * np.log10(2.0))))
