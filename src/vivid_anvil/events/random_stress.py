"""A random process of one channel over an exposure, and the cycles that are expected of it."""

from __future__ import annotations

import math
from collections.abc import Iterator
from dataclasses import dataclass
from functools import cached_property
from typing import Any, ClassVar, NamedTuple

import numpy as np

from vivid_anvil.counting import Cycles, turning_points
from vivid_anvil.counting.load_sequence import LoadSequence
from vivid_anvil.events.stress_over_frequency_findings import cut_band, no_sign
from vivid_anvil.events.stress_over_frequency_working import density_steps, exposure_steps, random_steps
from vivid_anvil.ground.checks import FloatArray
from vivid_anvil.ground.errors import InputError
from vivid_anvil.histories.load import Give, Load, WorkedCycle
from vivid_anvil.spectra.largest import Largest
from vivid_anvil.spectra.methods.expected_cycles import expected_ranges
from vivid_anvil.spectra.moments import Moments
from vivid_anvil.spectra.non_gaussian import HermiteForm
from vivid_anvil.spectra.range_density import RangeDensity
from vivid_anvil.spectra.synthesis import PER_PERIOD, Synthesis, Tone, counted_synthesis, synthesized
from vivid_anvil.spectra.tone_on_random import tone_density
from vivid_anvil.units import UnitSystem
from vivid_anvil.writing.finding import Finding
from vivid_anvil.writing.working import Step

FORMULA = "dirlik"  # where none is chosen
COUNTED = 3e5  # peaks that are synthesized and counted where no formula holds
FELT = 0.99  # share of m4 up to the frequency whose periods are sampled well
LONGEST = 2e7  # turning points of a sequence in order


class Shaping(NamedTuple):
    """What is not Gaussian about a process: a form of more kurtosis, or a crest factor at which values are held."""

    form: HermiteForm | None = None
    crest_factor: float = math.inf
    seed: int = 1


@dataclass(frozen=True, eq=False)
class RandomStress(Load):
    """One channel of a random event: a process about a mean, for an exposure, with tones.

    `process` is a PSD, or stated moments where no tones are beside it.
    """

    channel: str
    process: Moments
    exposure: float
    mean: float = 0.0
    dimension: str = "stress"
    shaping: Shaping = Shaping()
    tones: tuple[Tone, ...] = ()
    gives: ClassVar[frozenset[Give]] = frozenset({"cycles", "order", "cross-spectra"})

    @property
    def dimensions(self) -> dict[str, str]:
        """The one channel."""
        return {self.channel: self.dimension}

    @property
    def duration(self) -> float | None:
        """The exposure, s."""
        return self.exposure

    @cached_property
    def largest(self) -> Largest:
        """The largest value that is expected, in units of the rms; of one crossing at least."""
        return Largest(max(self.process.upcrossing_rate * self.exposure, math.e))

    def extremes(self, channel: str) -> tuple[float, float]:
        """Mean plus and minus the largest value expected in the exposure, held at the crest factor, and the tones."""
        level = self.largest.expected
        top, bottom = level, -level
        if self.shaping.form is not None:
            top, bottom = float(self.shaping.form.at(level)), float(self.shaping.form.at(-level))
        held, rms = self.shaping.crest_factor, self.process.rms
        tones = sum(abs(one.amplitude) for one in self.tones)
        return self.mean + rms * max(bottom, -held) - tones, self.mean + rms * min(top, held) + tones

    def worked(self, cycle: WorkedCycle, units: UnitSystem) -> tuple[list[Step], list[Step]]:
        """Moments, rates, constants, ranges; and damage a second beside damage in the exposure."""
        asked = cycle.formula, cycle.slope, units
        before = random_steps(self, cycle.scale, *asked) + density_steps(self, cycle.scale, cycle.range, *asked)
        return before, exposure_steps(cycle.event, cycle.damage, self.exposure, cycle.critical)

    def remarks(self, event: str) -> Iterator[Finding]:
        """Where its band was cut, and a process that stands for a von Mises stress."""
        yield from cut_band(event, self)
        yield from no_sign(event, self)

    def ranges(self, method: str = FORMULA, slope: float | None = None) -> RangeDensity:
        """Expected ranges a second of the random part, about its mean."""
        found = expected_ranges(self.process, method, slope=slope)
        return found.held(2.0 * self.shaping.crest_factor * self.process.rms)

    def cycles_of(
        self, channel: str, *, residue: str = "half cycles", method: str = FORMULA, slope: float | None = None
    ) -> Cycles:
        """The cycles expected in the exposure, by a formula; tones on a wide band are counted in a synthesis."""
        if self.tones and method != "narrow band":
            return self._counted()
        if self.tones:
            table = tone_density(self.process, self.tones).cycles(self.exposure, dimension=self.dimension)
        else:
            table = self.ranges(method, slope).cycles(self.exposure, dimension=self.dimension)
        if self.shaping.form is not None:
            table = self.shaping.form.cycles(table, self.process.rms)
        return table.about(self.mean)

    def _counted(self) -> Cycles:
        """Cycles of a synthesis of at most the exposure, as many as in all of it."""
        time = min(self.exposure, COUNTED / self.process.peak_rate)
        table = counted_synthesis(self.synthesis(time, self.counting_rate), dimension=self.dimension)
        return table.about(self.mean).counted(table.count * (self.exposure / time))

    @property
    def counting_rate(self) -> float:
        """Samples a second, Hz, that meet its peaks: 32 in the period of the highest frequency that they hold anything of."""
        density: Any = self.process
        if not hasattr(density, "band"):
            raise InputError(f"random vibration, {self.channel}", "moments without a PSD", "a PSD")
        frequency, weight = density.lines()
        sharp = np.cumsum(weight * frequency**4 * density.at(frequency))
        felt = float(frequency[int(np.searchsorted(sharp, FELT * sharp[-1]))])
        highest = max([density.band[1], *(one.frequency for one in self.tones)])
        felt = max([felt, *(one.frequency for one in self.tones)])
        return float(max(4.0 * highest, PER_PERIOD * felt))

    def synthesis(self, duration: float, sample_rate: float | None = None) -> Synthesis:
        """A seeded history about a mean of 0."""
        density: Any = self.process
        if not hasattr(density, "band"):
            raise InputError(
                f"random vibration, {self.channel}",
                "moments without a PSD",
                "a PSD, which a history can be made of",
                "Give the PSD itself.",
            )
        made = synthesized(density, duration, seed=self.shaping.seed, sample_rate=sample_rate, tones=self.tones)
        values: FloatArray = made.samples
        rms = self.process.rms
        if self.shaping.form is not None:
            values = rms * self.shaping.form.at(values / rms)
        if not math.isinf(self.shaping.crest_factor):
            held = self.shaping.crest_factor * rms
            values = np.clip(values, -held, held)
        return Synthesis(values, made.sample_rate)

    def in_order(self, channel: str) -> LoadSequence:
        """Turning points of a seeded synthesis of the whole exposure."""
        peaks = 2.0 * self.process.peak_rate * self.exposure
        if peaks > LONGEST:
            raise InputError(
                f"random vibration, {self.channel}",
                f"{peaks:.3g} turning points in an exposure of {self.exposure:g} s",
                f"at most {LONGEST:.3g} for an order",
                "Make the exposure shorter and the event more frequent, or take events each by itself.",
            )
        samples = self.synthesis(self.exposure, self.counting_rate).samples
        values: FloatArray = np.asarray(samples[turning_points(samples)] + self.mean)
        none = Cycles(range=np.empty(0), mean=np.empty(0), count=np.empty(0), dimension=self.dimension)
        return LoadSequence(none, ((values, 1.0),))
