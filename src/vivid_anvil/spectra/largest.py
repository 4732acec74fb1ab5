"""The largest value that a stationary Gaussian process is expected to reach in an exposure.

Davenport (1964), Proc. Institution of Civil Engineers 28, 187-196: upcrossings of a high level are independent events.
"""

from __future__ import annotations

import math
from dataclasses import dataclass

from vivid_anvil.ground import checks
from vivid_anvil.ground.errors import InputError, inside
from vivid_anvil.spectra.moments import Moments
from vivid_anvil.units import coherent, opened

EULER = 0.5772156649015329


@dataclass(frozen=True)
class Largest:
    """Levels above the mean in units of the rms, after `crossings` upcrossings of the mean."""

    crossings: float

    @property
    def most_probable(self) -> float:
        """√(2 ln ν0T)."""
        return math.sqrt(2.0 * math.log(self.crossings))

    @property
    def expected(self) -> float:
        """The mean of the largest value: c + 0.5772/c, c = √(2 ln ν0T)."""
        return self.most_probable + EULER / self.most_probable

    @property
    def deviation(self) -> float:
        """Its standard deviation: π/(√6 c)."""
        return math.pi / (math.sqrt(6.0) * self.most_probable)

    def level(self, probability: float) -> float:
        """The level that is passed with that probability: √(2 ln(ν0T/(-ln(1 - p))))."""
        p = checks.real_number("largest, probability", probability)
        if not 0.0 < p < 1.0:
            raise InputError("largest, probability", f"{p:g}", "a probability between 0 and 1")
        return math.sqrt(2.0 * math.log(self.crossings / -math.log1p(-p)))

    @property
    def of_magnitude(self) -> Largest:
        """That of the magnitude, up or down: twice as many crossings."""
        return Largest(2.0 * self.crossings)


@opened()
def expected_largest(process: Moments, exposure: float | str) -> Largest:
    """The largest value of a Gaussian process in an exposure, in units of its rms above its mean.

    Parameters
    ----------
    process : Moments
        A PSD, or stated moments.
    exposure : float or str
        How long, s or text.

    Returns
    -------
    Largest
        Most probable and expected value, levels by probability.

    Raises
    ------
    InputError
        For an exposure with fewer than three upcrossings, for which the largest value is no rare event.

    Examples
    --------
    >>> process = StatedMoments.of_rate("30 MPa", "25 Hz")
    >>> f"{expected_largest(process, '1 h').expected * process.rms:.2f} MPa"
    '146.92 MPa'
    """
    where = inside("expected largest", "exposure")
    time = checks.positive_number(where, coherent(exposure, "time", where))
    crossings = process.upcrossing_rate * time
    if not crossings > 3.0:
        raise InputError(
            where, f"{time:g} s, {crossings:.3g} upcrossings", "an exposure of more than three upcrossings"
        )
    return Largest(crossings)
