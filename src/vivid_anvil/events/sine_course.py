"""How the frequency of a sine goes: it dwells at some frequencies, or sweeps from one to another."""

from __future__ import annotations

import math
import re
from abc import ABC, abstractmethod
from dataclasses import dataclass
from typing import NamedTuple

import numpy as np

from vivid_anvil.counting.panels import places
from vivid_anvil.events.profile import Profile
from vivid_anvil.ground import checks
from vivid_anvil.ground.checks import FloatArray, read_only
from vivid_anvil.ground.errors import InputError, inside, shortened
from vivid_anvil.spectra.response_density import graded_edges
from vivid_anvil.spectra.responses.response import Response
from vivid_anvil.units import Coherent, coherent

SCALES = ("linear", "logarithmic")
NO_EDGES = read_only(np.empty(0))


class SineRows(NamedTuple):
    """Frequencies, Hz, with amplitudes of the input and how many cycles at each; the panel that each belongs to, -1 for a dwell.

    `edges` of the panels of a sweep, with the amplitudes there.
    """

    frequency: FloatArray
    amplitude: FloatArray
    cycles: FloatArray
    panel: FloatArray
    edges: FloatArray = NO_EDGES
    at_edges: FloatArray = NO_EDGES


class Course(ABC):
    """Frequency, amplitude and cycles of a sine event."""

    @property
    @abstractmethod
    def seconds(self) -> float:
        """How long it takes, s."""

    @abstractmethod
    def rows(self, response: Response) -> SineRows:
        """Frequencies, amplitudes and cycles, so close that the response is met."""

    def amplitude_at(self, frequency: FloatArray) -> FloatArray:
        """Amplitude of the input at frequencies of a sweep, Hz."""
        raise InputError("sine", "dwells", "a sweep, which has an amplitude between its ends")

    @property
    @abstractmethod
    def words(self) -> str:
        """How it is called in a line."""


@dataclass(frozen=True, eq=False)
class Dwells(Course):
    """Frequencies one after the other, each for a time: n = f t cycles of one range.

    Parameters
    ----------
    frequency : ndarray, shape (n,)
        Hz; above 0.
    amplitude : ndarray, shape (n,)
        Amplitude of each (half of the range), in the coherent unit of the input; above 0.
    time : ndarray, shape (n,)
        How long each lasts, s; above 0.

    Raises
    ------
    InputError
        For values that are not above 0, and columns of different lengths.

    Examples
    --------
    >>> Dwells([47.5], [88.0], [108000.0]).words
    '47.5 Hz, 5.13e+06 cycles'
    """

    frequency: FloatArray
    amplitude: FloatArray
    time: FloatArray

    def __post_init__(self) -> None:
        for name, unit in (("frequency", "Hz"), ("amplitude", ""), ("time", "s")):
            row = checks.finite_samples(getattr(self, name), where=inside("dwells", name), unit=unit)
            if not (row > 0.0).all():
                raise InputError(inside("dwells", name), f"{row.min():g} {unit}".strip(), "values above 0")
            object.__setattr__(self, name, read_only(np.array(row)))
        if not self.frequency.size == self.amplitude.size == self.time.size:
            raise InputError("dwells", "columns of different lengths", "a frequency, an amplitude and a time each")

    @property
    def seconds(self) -> float:
        """All of them, s."""
        return float(self.time.sum())

    def rows(self, response: Response) -> SineRows:
        """One a dwell."""
        cycles = read_only(self.frequency * self.time)
        return SineRows(self.frequency, self.amplitude, cycles, np.full(cycles.size, -1.0))

    @property
    def words(self) -> str:
        """Frequencies and cycles."""
        where = checks.reach(self.frequency)
        return f"{where} Hz, {float(np.sum(self.frequency * self.time)):g} cycles"


@dataclass(frozen=True, eq=False, kw_only=True)
class Sweep(Course):
    """A frequency that moves from one end to the other, quasi-steady: no resonance lags behind it.

    Parameters
    ----------
    start, end : float or str
        Frequencies, Hz or text; upwards or downwards.
    profile : Profile
        Amplitude of the input over frequency.
    rate : str
        "1 octave/min" sweeps logarithmically, "0.5 Hz/s" linearly.
    passes : float, default 1.0
        How often it goes from one end to the other; up and down are two.

    Raises
    ------
    InputError
        For a sweep of no length, a rate in another unit, and a profile that does not cover it.

    Examples
    --------
    >>> run_up = Sweep(start=20.0, end="400 Hz", profile=Profile.constant(1.5), rate="2 octave/min")
    >>> f"{run_up.seconds:.1f} s, {run_up.seconds_within(90.0, 100.0):.2f} s near 95 Hz"
    '129.7 s, 4.56 s near 95 Hz'
    """

    start: Coherent = Coherent("frequency", above=0.0)
    end: Coherent = Coherent("frequency", above=0.0)
    profile: Profile
    rate: str
    passes: float = 1.0

    def __post_init__(self) -> None:
        if self.start == self.end:
            raise InputError("sweep", f"both ends at {self.start:g} Hz", "two ends", "At one frequency it is a dwell.")
        checks.positive_number(inside("sweep", "passes"), self.passes)
        if not isinstance(self.profile, Profile):
            raise InputError(inside("sweep", "profile"), shortened(self.profile), "a Profile, such as Profile.constant")
        self.profile.at(np.array(self.ends))
        sweep_rate(self.rate, inside("sweep", "rate"))

    @property
    def ends(self) -> tuple[float, float]:
        """Lower and upper frequency, Hz."""
        low, high = sorted((self.start, self.end))
        return low, high

    @property
    def speed(self) -> tuple[str, float]:
        """ "linear" with Hz/s, or "logarithmic" with octaves a second."""
        return sweep_rate(self.rate, inside("sweep", "rate"))

    @property
    def seconds(self) -> float:
        """Of all passes, s."""
        return self.seconds_within(*self.ends)

    def seconds_within(self, low: float, high: float) -> float:
        """Time that all passes spend between two frequencies, Hz, s."""
        scale, rate = self.speed
        a, b = max(low, self.ends[0]), min(high, self.ends[1])
        if not a < b:
            return 0.0
        return self.passes * ((b - a) / rate if scale == "linear" else math.log2(b / a) / rate)

    def rows(self, response: Response) -> SineRows:
        """Places over frequency, each with the cycles that pass there: f dt."""
        scale, rate = self.speed
        corners = np.concatenate([response.corners, self.profile.frequency])
        edges = graded_edges(*self.ends, corners, response.resonances)
        frequency, weight, panel = places(edges)
        per_hertz = frequency / rate if scale == "linear" else np.full(frequency.size, 1.0 / (rate * math.log(2.0)))
        cycles = read_only(self.passes * weight * per_hertz)
        at = self.amplitude_at
        return SineRows(read_only(frequency), at(frequency), cycles, panel, read_only(edges), at(edges))

    def amplitude_at(self, frequency: FloatArray) -> FloatArray:
        """By the profile."""
        return self.profile.at(frequency)

    @property
    def words(self) -> str:
        """From where to where, how fast, how often."""
        times = "once" if self.passes == 1.0 else f"{self.passes:g} times"
        return f"{self.start:g} to {self.end:g} Hz at {self.rate}, {times}"


_RATE = re.compile(r"\s*([0-9.]+(?:[eE][+-]?[0-9]+)?)\s*(octaves?|decades?|Hz)\s*/\s*(s|min|h)\s*")
_SECONDS = {"s": 1.0, "min": 60.0, "h": 3600.0}


def sweep_rate(text: str, where: str) -> tuple[str, float]:
    """ "1 octave/min" -> ("logarithmic", octaves a second); "0.5 Hz/s" -> ("linear", Hz/s).

    >>> sweep_rate("30 Hz/min", "sweep")
    ('linear', 0.5)
    """
    found = _RATE.fullmatch(text) if isinstance(text, str) else None
    if found is None:
        raise InputError(where, shortened(text), "a rate of a sweep, such as '1 octave/min' or '0.5 Hz/s'")
    value = checks.positive_number(where, float(found[1])) / _SECONDS[found[3]]
    if found[2] == "Hz":
        return "linear", value
    return "logarithmic", value * (math.log2(10.0) if found[2].startswith("decade") else 1.0)


def rate_of(start: float | str, end: float | str, time: float | str, scale: str) -> str:
    """The rate of a sweep by the time of one pass; `scale` is "linear" or "logarithmic".

    >>> rate_of("10 Hz", "40 Hz", "2 min", "logarithmic")
    '1 octave/min'
    """
    checks.one_of("sweep, scale", scale, SCALES)
    seconds = checks.positive_number("sweep, time", coherent(time, "time", "sweep, time"))
    low, high = sorted(coherent(one, "frequency", "sweep") for one in (start, end))
    if not 0.0 < low < high:
        raise InputError("sweep", f"{low:g} to {high:g} Hz", "two frequencies above 0")
    if scale == "linear":
        return f"{(high - low) / seconds:.17g} Hz/s"
    return f"{60.0 * math.log2(high / low) / seconds:.17g} octave/min"
