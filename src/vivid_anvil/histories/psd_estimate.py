"""The PSD of a channel of a history, averaged over segments, with what its lines are worth.

Welch (1967), IEEE Transactions on Audio and Electroacoustics 15, 70-73; Bendat & Piersol (2010), Random Data, 4th ed., ch. 8.
"""

from __future__ import annotations

import math
from collections.abc import Sequence
from dataclasses import dataclass
from functools import cached_property
from typing import Any, Self

import numpy as np
from scipy.special import gammaincinv

from vivid_anvil.ground import checks
from vivid_anvil.ground.checks import FloatArray, read_only
from vivid_anvil.ground.errors import InputError, inside, shortened
from vivid_anvil.histories.channel import channel_named
from vivid_anvil.histories.load import Load
from vivid_anvil.spectra import PSD
from vivid_anvil.units import UnitSystem, coherent, in_unit, number, opened
from vivid_anvil.units.psd import psd_dimension
from vivid_anvil.writing.finding import Finding
from vivid_anvil.writing.result import Result, Words
from vivid_anvil.writing.table import Column, Table

WINDOWS = {"hann": "hann", "flat top": "flattop", "none": "boxcar"}
MEANS: dict[str, Any] = {"taken out": "constant", "kept": False}
FEW = 10.0  # independent averages
STANDS_OUT, FALLS = 30.0, 0.05  # times the lines around; share of the peak three lines away
AROUND = 12  # lines on each side that are looked at


@dataclass(frozen=True, eq=False)
class PSDEstimate(Result):
    """A PSD averaged over segments of a history; `estimate_psd` makes one.

    Parameters
    ----------
    channel : str
        Of the history.
    frequency : ndarray, shape (n,)
        Lines, Hz, evenly spaced from 0.
    values : ndarray, shape (n,)
        One-sided, in the coherent unit squared a Hz.
    dimension : str
        What it is the PSD of.
    segments : int
        How many were averaged.
    window : str
        Of each segment.
    overlap : float
        Share of a segment that the next one repeats.

    Raises
    ------
    InputError
        By what makes one.

    Examples
    --------
    >>> noise = np.random.default_rng(1).standard_normal(4096)
    >>> history = LoadHistory("rope", [Channel("base", 9806.65 * noise, "acceleration")], sample_rate=256.0)
    >>> estimate_psd(history, "base", segment="1 s").segments
    31
    """

    channel: str
    frequency: FloatArray
    values: FloatArray
    dimension: str
    segments: int
    window: str
    overlap: float

    @property
    def title(self) -> str:
        """The channel."""
        return f"PSD of {self.channel}"

    @property
    def spacing(self) -> float:
        """From line to line, Hz."""
        return float(self.frequency[1] - self.frequency[0])

    @property
    def mean_square(self) -> float:
        """Sum of all lines times their spacing."""
        return float(self.values.sum() * self.spacing)

    @cached_property
    def averages(self) -> float:
        """Independent averages that the overlapped segments are worth: n / (1 + 2 Σ (1 - k/n) ρ_k²)."""
        from scipy import signal

        size = 2 * (self.frequency.size - 1)
        own = signal.get_window(WINDOWS[self.window], size)
        step, squares = max(1, round(size * (1.0 - self.overlap))), float(np.sum(own**2))
        together = 0.0
        for k in range(1, math.ceil(size / step)):
            alike = float(np.sum(own[k * step :] * own[: -k * step])) / squares
            together += max(0.0, 1.0 - k / self.segments) * alike**2
        return self.segments / (1.0 + 2.0 * together)

    def confidence(self, probability: float = 0.95) -> tuple[float, float]:
        """Factors on a line between which the PSD lies with that probability: ν/χ², ν = 2 × averages."""
        p = checks.real_number("PSD estimate, probability", probability)
        if not 0.0 < p < 1.0:
            raise InputError("PSD estimate, probability", f"{p:g}", "a probability between 0 and 1")
        free = 2.0 * self.averages
        low, high = (float(0.5 * free / gammaincinv(0.5 * free, one)) for one in (0.5 + 0.5 * p, 0.5 - 0.5 * p))
        return low, high

    @property
    def psd(self) -> PSD:
        """For an event: known at lines, from the first above 0 on."""
        return PSD(self.frequency[1:], self.values[1:], self.dimension, "lines")

    @cached_property
    def findings(self) -> tuple[Finding, ...]:
        """Too few averages, and lines that stand out."""
        return (*_few_averages(self), *_standing_out(self))

    @classmethod
    def overview(cls, results: Sequence[Self]) -> Table:
        """A row an estimate."""
        return Table(
            "PSDs of histories",
            (
                Column("channel", [one.channel for one in results]),
                Column("line spacing", [one.spacing for one in results], of="frequency"),
                Column("segments", [one.segments for one in results]),
                Column("independent averages", [one.averages for one in results]),
                Column("window", [one.window for one in results]),
                Column("overlap", [one.overlap for one in results]),
            ),
        )

    def words(self, units: UnitSystem) -> Words:
        """How it was estimated."""
        low, high = self.confidence()
        return (
            (
                "Segments",
                f"{self.segments} of {number(1.0 / self.spacing)} s, {self.overlap:.0%} overlapped, window {self.window}",
            ),
            ("Lines", f"{number(self.spacing)} Hz apart, worth {number(self.averages, 3)} independent averages"),
            ("A line", f"lies within {low:.0%} and {high:.0%} of what is shown, 19 times in 20"),
            ("Root mean square", in_unit(math.sqrt(self.mean_square), self.dimension, units)),
        )

    def tables(self, units: UnitSystem = "metric") -> tuple[Table, ...]:
        """A row a line."""
        unit = psd_dimension(self.dimension).coherent
        columns = (Column("frequency", self.frequency, of="frequency"), Column(self.channel, self.values, unit=unit))
        return (Table(self.title, columns, key="lines", only="in full"),)


@opened()
def estimate_psd(
    history: Load,
    channel: str,
    *,
    segment: float | str,
    overlap: float = 0.5,
    window: str = "hann",
    mean: str = "taken out",
) -> PSDEstimate:
    """Estimate the one-sided PSD of a channel by averaging over segments.

    Parameters
    ----------
    history : LoadHistory
        Sampled evenly.
    channel : str
        Its channel.
    segment : float or str
        Length of a segment, s or text: lines are its inverse apart.
    overlap : float, default 0.5
        Share of a segment that the next one repeats.
    window : str, default "hann"
        "hann", "flat top" or "none".
    mean : str, default "taken out"
        Whether the mean of each segment is "taken out" or "kept".

    Returns
    -------
    PSDEstimate
        Lines, averages, and what a line is worth.

    Raises
    ------
    InputError
        For a history without an even rate, and a segment longer than it.

    Examples
    --------
    >>> noise = np.random.default_rng(1).standard_normal(4096)
    >>> history = LoadHistory("rope", [Channel("base", 9806.65 * noise, "acceleration")], sample_rate=256.0)
    >>> found = estimate_psd(history, "base", segment="1 s")
    >>> f"{found.averages:.1f} averages: a line within {found.confidence()[0]:.2f} and {found.confidence()[1]:.2f} of it"
    '29.4 averages: a line within 0.72 and 1.49 of it'
    """
    from scipy import signal

    where = "PSD estimate"
    checks.one_of(inside(where, "window"), window, tuple(WINDOWS))
    checks.one_of(inside(where, "mean"), mean, tuple(MEANS))
    if not isinstance(history, Load) or "samples" not in history.gives or history.samples().steps != "even":
        raise InputError(inside(where, "history"), shortened(history), "a history sampled evenly")
    share = checks.real_number(inside(where, "overlap"), overlap)
    if not 0.0 <= share < 1.0:
        raise InputError(inside(where, "overlap"), f"{share:g}", "a share from 0 to below 1", "Half is usual.")
    course = history.samples()
    own = channel_named(course.channels, channel, where)
    time = checks.positive_number(inside(where, "segment"), coherent(segment, "time", inside(where, "segment")))
    size = round(time * course.sample_rate)
    if not 8 <= size <= own.values.size:
        there = own.values.size / course.sample_rate
        raise InputError(
            inside(where, "segment"),
            f"{time:g} s, {size} samples",
            f"8 samples or more, and at most the history's {there:g} s",
            f"For 20 averages take {2.0 * there / 21.0:.3g} s.",
        )
    size += size % 2
    size = min(size, own.values.size - own.values.size % 2)
    step = max(1, round(size * (1.0 - share)))
    frequency, values = signal.welch(
        own.values,
        fs=course.sample_rate,
        window=WINDOWS[window],
        nperseg=size,
        noverlap=size - step,
        detrend=MEANS[mean],
    )
    many = (own.values.size - size) // step + 1
    return PSDEstimate(channel, read_only(frequency), read_only(values), own.dimension, many, window, share)


def _few_averages(estimate: PSDEstimate) -> list[Finding]:
    if estimate.averages >= FEW:
        return []
    low, high = estimate.confidence()
    return [
        Finding(
            "warning",
            "few-averages",
            f"The PSD of {estimate.channel} averages {number(estimate.averages, 2)} independent segments: each line lies within "
            f"{low:.0%} and {high:.0%} of what is shown, 19 times in 20.",
            "Make segments shorter (lines lie further apart then), or measure for longer.",
        )
    ]


def _standing_out(estimate: PSDEstimate) -> list[Finding]:
    """Lines that rise out of those around and fall at once: a sine, or a resonance narrower than the lines."""
    values, found = estimate.values, []
    for at in range(4, values.size - 4):
        near: Any = values[max(1, at - AROUND) : at + AROUND + 1]
        top = values[at]
        if top < near.max() or top < STANDS_OUT * np.median(near) or max(values[at - 3], values[at + 3]) > FALLS * top:
            continue
        power = float((values[at - 2 : at + 3] - np.median(near)).sum() * estimate.spacing)
        amplitude = in_unit(math.sqrt(2.0 * max(power, 0.0)), estimate.dimension, digits=3)
        found.append(
            Finding(
                "warning",
                "tone-in-psd",
                f"At {number(float(estimate.frequency[at]))} Hz a line of the PSD of {estimate.channel} stands out, "
                f"{number(float(top / np.median(near)), 2)} times those around: a sine of {amplitude}, or a resonance narrower "
                f"than the {number(estimate.spacing, 3)} Hz between lines.",
                "A sine leaks into a PSD as a hump as wide as the window, and is no random part: take it out as a tone or a "
                "dwell; else take longer segments.",
            )
        )
    return found
