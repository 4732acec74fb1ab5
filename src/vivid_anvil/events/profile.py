"""Amplitude of a sweep over frequency: by points, straight between them, or by a displacement and an acceleration."""

from __future__ import annotations

from dataclasses import dataclass

import numpy as np

from vivid_anvil.ground import checks
from vivid_anvil.ground.checks import FloatArray, read_only
from vivid_anvil.ground.errors import InputError, inside
from vivid_anvil.units import coherent

SCALES = ("linear", "log-log")


@dataclass(frozen=True, eq=False)
class Profile:
    """Amplitudes at frequencies, straight between them; one point holds at all frequencies.

    Parameters
    ----------
    frequency : ndarray, shape (n,)
        Hz; above 0, ascending.
    amplitude : ndarray, shape (n,)
        In the coherent unit of the input; above 0.
    scales : str, default "linear"
        Where it is straight: "linear" or "log-log".

    Raises
    ------
    InputError
        For an argument of another kind, unit or range; the message says which.

    Examples
    --------
    >>> level = Profile(np.array([10.0, 200.0]), np.array([12.0, 50.0]))
    >>> level.at(np.array([105.0]))
    array([31.])
    """

    frequency: FloatArray
    amplitude: FloatArray
    scales: str = "linear"

    def __post_init__(self) -> None:
        where = "sweep, profile"
        checks.one_of(inside(where, "scales"), self.scales, SCALES)
        frequency = checks.finite_samples(self.frequency, where=inside(where, "frequency"), unit="Hz")
        amplitude = checks.finite_samples(self.amplitude, where=inside(where, "amplitude"), unit="")
        if frequency.size != amplitude.size or (np.diff(frequency) <= 0.0).any() or not frequency[0] > 0.0:
            raise InputError(where, "points out of order", "ascending frequencies above 0, an amplitude each")
        if not (amplitude > 0.0).all():
            raise InputError(where, f"an amplitude of {amplitude.min():g}", "amplitudes above 0")
        object.__setattr__(self, "frequency", read_only(np.array(frequency)))
        object.__setattr__(self, "amplitude", read_only(np.array(amplitude)))

    @classmethod
    def constant(cls, amplitude: float) -> Profile:
        """The same at all frequencies."""
        return cls(np.array([1.0]), np.array([amplitude]))

    @classmethod
    def crossover(cls, displacement: float | str, acceleration: float | str, *, start: float, end: float) -> Profile:
        """A displacement amplitude up to f = √(a/d)/2π, an acceleration amplitude above; start and end in Hz.

        >>> Profile.crossover("1.5 mm", "2 g", start=10.0, end=500.0).frequency.round(4)
        array([ 10.    ,  18.1991, 500.    ])
        """
        d = checks.positive_number("profile, displacement", coherent(displacement, "length", "profile, displacement"))
        a = checks.positive_number(
            "profile, acceleration", coherent(acceleration, "acceleration", "profile, acceleration")
        )
        cross = float(np.sqrt(a / d) / (2.0 * np.pi))
        if not start < cross < end:
            raise InputError(
                "sweep, profile",
                f"a crossover at {cross:.4g} Hz",
                f"one between {start:g} and {end:g} Hz",
                "Give one of both.",
            )
        low = d * (2.0 * np.pi * start) ** 2
        return cls(np.array([start, cross, end]), np.array([low, a, a]), "log-log")

    def at(self, frequency: FloatArray) -> FloatArray:
        """Amplitudes at frequencies; InputError beyond the points."""
        asked = np.asarray(frequency, dtype=np.float64)
        if self.frequency.size == 1:
            return np.full(asked.shape, self.amplitude[0])
        low, high = self.frequency[0], self.frequency[-1]
        if asked.min() < low * (1.0 - 1e-12) or asked.max() > high * (1.0 + 1e-12):
            raise InputError(
                "sweep, profile",
                f"a profile from {low:g} to {high:g} Hz for frequencies from {asked.min():g} to {asked.max():g} Hz",
                "a profile over the whole sweep",
            )
        if self.scales == "linear":
            return np.interp(asked, self.frequency, self.amplitude)
        return np.exp(np.interp(np.log(asked), np.log(self.frequency), np.log(self.amplitude)))
