"""A history with a given PSD, seeded, and the cycles that are counted in it: what the formulas stand in for.

Lines of independent normal amplitudes, summed by the fast Fourier transform: Shinozuka & Jan (1972), J. Sound and Vibration 25,
111-128, here with Gaussian amplitudes, so that the process is Gaussian however few the lines are.
"""

from __future__ import annotations

import math
from collections.abc import Sequence
from dataclasses import dataclass
from typing import NamedTuple

import numpy as np
from scipy import fft

from vivid_anvil.counting import Cycles, rainflow
from vivid_anvil.counting.cycles import BLOCK, joined
from vivid_anvil.ground import checks
from vivid_anvil.ground.checks import FloatArray
from vivid_anvil.ground.errors import InputError, inside
from vivid_anvil.spectra.density import SpectralDensity
from vivid_anvil.units import coherent, opened

PER_PERIOD = 32.0  # samples in the shortest period: peaks are met to 0.5 % at worst, 0.2 % on average
BLOCKS = 20  # parts that tell the scatter
LARGEST = 2**28  # samples: 2 GB


class Tone(NamedTuple):
    """A sine beside a random process.

    Parameters
    ----------
    frequency : float
        Hz.
    amplitude : float
        Half of its range, in the coherent unit of the input.
    phase : float, default 0.0
        At the start, rad.

    Raises
    ------
    InputError
        By the event that takes it, for a frequency that is not above 0.

    Examples
    --------
    >>> Tone(50.0, 15.0).amplitude
    15.0
    """

    frequency: float
    amplitude: float
    phase: float = 0.0


@dataclass(frozen=True, eq=False)
class Synthesis:
    """A made history: `samples` about a mean of 0, and their rate, Hz."""

    samples: FloatArray
    sample_rate: float

    def blocks(self, many: int = BLOCKS) -> list[FloatArray]:
        """Equal parts one after the other."""
        return np.array_split(self.samples, many)


@opened()
def synthesized(
    density: SpectralDensity,
    duration: float | str,
    *,
    seed: int,
    sample_rate: float | str | None = None,
    tones: Sequence[Tone] = (),
) -> Synthesis:
    """A Gaussian history with the PSD of `density`, of `duration`, s, with `tones` on top.

    Parameters
    ----------
    density : SpectralDensity
        The PSD.
    duration : float or str
        How long, s or text.
    seed : int
        Of the random numbers: the same seed gives the same history.
    sample_rate : float or str, optional
        Hz; by default 32 samples in the period of the highest frequency.
    tones : sequence of Tone
        Sines beside it.

    Returns
    -------
    Synthesis
        Samples and rate.

    Raises
    ------
    InputError
        For a rate of less than four samples in the shortest period, or more samples than fit into memory.

    Examples
    --------
    >>> from vivid_anvil.spectra.psd import PSD
    >>> made = synthesized(PSD([10.0, 40.0], [3.0, 3.0], dimension="stress"), "200 s", seed=1)
    >>> made.samples.size, made.sample_rate
    (256000, 1280.0)
    """
    time = checks.positive_number("synthesis, duration", coherent(duration, "time", "synthesis, duration"))
    low, high = density.band
    high = max([high, *(one.frequency for one in tones)])
    rate = PER_PERIOD * high if sample_rate is None else coherent(sample_rate, "frequency", "synthesis, sample_rate")
    if not rate >= 4.0 * high:
        raise InputError(
            inside("synthesis", "sample_rate"),
            f"{rate:g} Hz for frequencies up to {high:g} Hz",
            f"{4.0 * high:g} Hz or more",
            "Peaks between samples are missed: take 32 samples in the shortest period where you can.",
        )
    size = max(4, round(time * rate))
    whole = int(fft.next_fast_len(size, real=True))
    if whole > LARGEST:
        raise InputError("synthesis, duration", f"{whole:.3g} samples", f"at most {LARGEST:.3g}", "Make it shorter.")
    samples = fft.irfft(_amplitudes(density, whole, rate, low, high, seed), n=whole, workers=-1)[:size] * whole
    clock = np.arange(size) / rate if tones else np.empty(0)
    for one in tones:
        samples += one.amplitude * np.cos(2.0 * np.pi * one.frequency * clock + one.phase)
    return Synthesis(checks.read_only(samples), rate)


def _amplitudes(density: SpectralDensity, size: int, rate: float, low: float, high: float, seed: int) -> np.ndarray:
    """Half the complex amplitude of each line of the transform."""
    spacing = rate / size
    first, last = max(1, math.ceil(low / spacing)), min(size // 2, math.floor(high / spacing))
    found = np.zeros(size // 2 + 1, dtype=np.complex128)
    if last < first:
        raise InputError(
            "synthesis, duration",
            f"lines {spacing:.3g} Hz apart for a band from {low:g} to {high:g} Hz",
            f"a duration of {20.0 / max(high - low, 1e-300):.3g} s or more",
        )
    places = np.arange(first, last + 1)
    rms = np.sqrt(density.at(places * spacing) * spacing)
    random = np.random.default_rng(seed).standard_normal((2, places.size))
    found[first : last + 1] = 0.5 * rms * (random[0] - 1j * random[1])
    return found


@opened()
def counted_synthesis(made: Synthesis, *, dimension: str = "stress", blocks: int = BLOCKS) -> Cycles:
    """The rainflow cycles of a made history, each of `blocks` parts counted by itself; the column "block" tells which.

    Parameters
    ----------
    made : Synthesis
        The history.
    dimension : str, default "stress"
        What its samples are; a name of `DIMENSIONS`.
    blocks : int, default 20
        How many parts, whose scatter tells the standard error.

    Returns
    -------
    Cycles
        All cycles, with the column "block".

    Raises
    ------
    InputError
        For an argument of another kind, unit or range; the message says which.

    Examples
    --------
    >>> made = synthesized(PSD([48.0, 52.0], [25.0, 25.0], dimension="stress"), "60 s", seed=3)
    >>> 2900.0 < counted_synthesis(made).total < 3100.0
    True
    """
    tables = []
    for number, part in enumerate(made.blocks(blocks)):
        table = rainflow(part, residue="repeated", dimension=dimension)
        tables.append(
            Cycles(
                range=table.range,
                mean=table.mean,
                count=table.count,
                dimension=dimension,
                columns={BLOCK: np.full(len(table), float(number))},
            )
        )
    return joined(tables)


def standard_error(cycles: Cycles, damage: FloatArray, blocks: int = BLOCKS) -> float:
    """Of the sum of `damage` of counted cycles, relative: the scatter between blocks over the root of their number."""
    sums = np.bincount(cycles.columns[BLOCK].astype(np.int64), weights=damage, minlength=blocks)
    mean = float(sums.mean())
    return float(sums.std(ddof=1) / mean / math.sqrt(blocks)) if mean > 0.0 else math.inf
