"""Damage and extremes of oscillators over their natural frequency, of any input and of a whole duty cycle."""

from __future__ import annotations

import dataclasses
import math
from collections.abc import Sequence
from dataclasses import dataclass
from typing import Any, Self

import numpy as np

from vivid_anvil.events import DutyCycle, RandomVibration, Sine
from vivid_anvil.ground import checks
from vivid_anvil.ground.checks import FloatArray, read_only
from vivid_anvil.ground.errors import InputError, listed
from vivid_anvil.histories.load import Load
from vivid_anvil.spectra import OneDegreeOfFreedom, PSDs, ResponseDensity, SpectralDensity
from vivid_anvil.spectra.synthesis import Tone
from vivid_anvil.spectra.tone_on_random import tone_density
from vivid_anvil.tailoring._kernels import shaken
from vivid_anvil.tailoring.oscillators import Oscillators
from vivid_anvil.units import UnitSystem, coherent, in_unit, opened
from vivid_anvil.writing.finding import Finding
from vivid_anvil.writing.result import Result
from vivid_anvil.writing.table import Column, Table


@dataclass(frozen=True, eq=False, repr=False)
class DamageSpectrum(Result):
    """Fatigue damage spectrum and extreme response spectrum of one input; `damage_spectrum` makes one.

    Parameters
    ----------
    oscillators : Oscillators
        Natural frequencies, quality factor, slope.
    damage : ndarray, shape (n,)
        Of each oscillator.
    lowest : ndarray, shape (n,)
        Smallest pseudo acceleration -ω²z, mm/s².
    highest : ndarray, shape (n,)
        Largest pseudo acceleration, mm/s².
    time : float or None
        How long the input lasts, s; None where it is not known.
    name : str, default "input"
        What it is called.

    Raises
    ------
    InputError
        By what makes one.

    Examples
    --------
    >>> some = Oscillators([50.0, 90.0], slope=8.0)
    >>> damage_spectrum(PSD([20.0, 500.0], [2.9e6] * 2), some, exposure="200 h")
    <DamageSpectrum PSD: 50 to 90 Hz, Q = 10, slope 8, extreme 381 m/s^2>
    """

    oscillators: Oscillators
    damage: FloatArray
    lowest: FloatArray
    highest: FloatArray
    time: float | None
    name: str = "input"

    @property
    def title(self) -> str:
        """The name of the input."""
        return self.name

    @property
    def findings(self) -> tuple[Finding, ...]:
        """None of its own: they are told where it is compared."""
        return ()

    @classmethod
    def overview(cls, results: Sequence[Self]) -> Table:
        """A row an input."""
        return Table(
            "Inputs",
            (
                Column("input", [one.name for one in results]),
                Column("time", [one.time for one in results], of="time"),
                Column("largest extreme", [float(one.extreme.max()) for one in results], of="acceleration"),
            ),
        )

    def tables(self, units: UnitSystem = "metric") -> tuple[Table, ...]:
        """A row an oscillator."""
        columns = (
            Column("natural frequency", self.oscillators.natural_frequency, of="frequency"),
            Column("damage", self.damage),
            Column("extreme response", self.extreme, of="acceleration"),
        )
        return (Table(f"Damage and extremes of {self.name}", columns, key="oscillators"),)

    @property
    def extreme(self) -> FloatArray:
        """The largest magnitude of pseudo acceleration, mm/s²."""
        return np.maximum(np.abs(self.lowest), np.abs(self.highest))

    def times(self, occurrences: float) -> DamageSpectrum:
        """That of so many occurrences: damages add, extremes stay."""
        time = None if self.time is None else occurrences * self.time
        damage = read_only(occurrences * self.damage)
        return DamageSpectrum(self.oscillators, damage, self.lowest, self.highest, time, self.name)

    def called(self, name: str) -> DamageSpectrum:
        """The same under another name."""
        return dataclasses.replace(self, name=name)

    def __repr__(self) -> str:
        own, largest = self.oscillators, in_unit(float(self.extreme.max()), "acceleration", digits=3)
        where = checks.reach(own.natural_frequency)
        return f"<DamageSpectrum {self.name}: {where} Hz, Q = {own.quality_factor:g}, slope {own.slope:g}, extreme {largest}>"


def together(parts: Sequence[DamageSpectrum], name: str = "all") -> DamageSpectrum:
    """Of several inputs one after the other: damages add, extremes are enveloped."""
    times = [one.time for one in parts]
    return DamageSpectrum(
        parts[0].oscillators,
        read_only(np.sum([one.damage for one in parts], axis=0)),
        read_only(np.min([one.lowest for one in parts], axis=0)),
        read_only(np.max([one.highest for one in parts], axis=0)),
        None if None in times else float(sum(one for one in times if one is not None)),
        name,
    )


@opened()
def damage_spectrum(
    load: Any, oscillators: Oscillators, *, channel: str | None = None, exposure: float | str | None = None
) -> DamageSpectrum:
    """The damage and extremes that an input does to oscillators on a base that it shakes.

    Parameters
    ----------
    load : LoadHistory, PSD, RandomVibration, Sine or DutyCycle
        The input, an acceleration; of a duty cycle every event is one, as often as it happens in a repeat.
    oscillators : Oscillators
        Natural frequencies, quality factor and slope.
    channel : str, optional
        Which channel is the base acceleration, where there are several.
    exposure : float or str, optional
        How long a PSD acts, s or text; needed for a PSD alone.

    Returns
    -------
    DamageSpectrum
        Damage and extremes over natural frequency.

    Raises
    ------
    InputError
        For what is no acceleration, and for events that say nothing of frequencies.

    Examples
    --------
    >>> some = Oscillators([50.0, 90.0], slope=8.0)
    >>> flat = PSD([20.0, 2000.0], [0.03 * 9806.65**2] * 2)
    >>> damage_spectrum(flat, some, exposure="1 h").extreme.round(-3)
    array([231000., 319000.])
    """
    if isinstance(load, SpectralDensity):
        if exposure is None:
            raise InputError("damage spectrum, exposure", "none", "how long the PSD acts, such as '8 h'")
        time = coherent(exposure, "time", "damage spectrum, exposure")
        return _of_event(RandomVibration({"base": load}, time), "base", oscillators, "PSD")
    if exposure is not None:
        raise InputError("damage spectrum, exposure", f"{exposure} beside a {type(load).__name__}", "a PSD alone")
    if not isinstance(load, Load):
        raise InputError(
            "damage spectrum, load", f"a {type(load).__name__}", "a history, a PSD, an event, or a duty cycle"
        )
    if isinstance(load, DutyCycle):
        parts = [_of_event(event.load, channel, oscillators, event.name).times(n) for event, n in load.flat()]
        return together(parts, load.repeat)
    return _of_event(load, channel, oscillators, getattr(load, "name", "input"))


def _of_event(load: Load, channel: str | None, oscillators: Oscillators, name: str) -> DamageSpectrum:
    """Of one event."""
    base = _base(load, channel)
    if isinstance(load, RandomVibration):
        return _of_random(load, base, oscillators, name)
    if isinstance(load, Sine):
        return _of_sine(load, base, oscillators, name)
    if "samples" in load.gives and load.samples().steps == "even":
        return _of_history(load, base, oscillators, name)
    raise InputError(
        f"damage spectrum, {name}",
        f"a {type(load).__name__}, which says nothing of frequencies",
        "a history sampled evenly, a random event, or a sine",
    )


def _base(load: Load, channel: str | None) -> str:
    """The channel of base acceleration; InputError where it is not one."""
    kinds = load.dimensions
    names = [one for one, kind in kinds.items() if kind == "acceleration"]
    if channel is None:
        if not names:
            found = ", ".join(f"{one!r} ({kind})" for one, kind in kinds.items())
            raise InputError("damage spectrum, channel", found, "the acceleration of a base, such as one in g")
        if len(names) > 1:
            raise InputError(
                "damage spectrum, channel", f"channels {listed(names)}", "one acceleration", "Say which: channel = ..."
            )
        return names[0]
    if channel not in names:
        found = f"{channel!r}, of {kinds[channel]}" if channel in kinds else f"no channel {channel!r}"
        raise InputError(
            "damage spectrum, channel", found, f"an acceleration: {listed(names) if names else 'none here'}"
        )
    return channel


def _mass(oscillators: Oscillators, own: float) -> OneDegreeOfFreedom:
    """The pseudo acceleration of one oscillator, in mm/s² for 1 mm/s²."""
    return OneDegreeOfFreedom(
        natural_frequency=own, stress_per_acceleration=1.0, motion="relative", quality_factor=oscillators.quality_factor
    )


def _of_random(load: RandomVibration, base: str, oscillators: Oscillators, name: str) -> DamageSpectrum:
    """By narrow-band amplitudes of each response: Rayleigh's, or Rice's about a tone."""
    process: Any = load.process(base)
    if not isinstance(process, SpectralDensity):
        raise InputError(f"damage spectrum, {name}", "moments without a PSD", "a PSD")
    time, shaping = float(load.exposure), load.shaping
    if shaping.form is not None or not math.isinf(shaping.crest_factor):
        raise InputError(
            f"damage spectrum, {name}",
            "a kurtosis or a crest factor",
            "a Gaussian input",
            "The response of an oscillator to it is nearly Gaussian; leave it out.",
        )
    sums, extremes = [], []
    for own in oscillators.natural_frequency.tolist():
        mass = _mass(oscillators, own)
        density = ResponseDensity(PSDs({base: process}), {base: mass})
        tones = tuple(
            Tone(one.frequency, float(abs(one.amplitude * mass.at(np.array([one.frequency]))[0])))
            for one in load.tones.get(base, ())
        )
        peak = density.rms * _largest(density.upcrossing_rate * time) + sum(one.amplitude for one in tones)
        scale = (2.0 * np.pi * own) ** 2
        if tones:
            both = tone_density(density, tones)
            sums.append(both.moment(oscillators.slope) / 2.0**oscillators.slope * time / scale**oscillators.slope)
        else:
            rms, many = np.array(density.rms / scale), np.array(density.upcrossing_rate * time)
            sums.append(float(oscillators.sums_of_narrow_band(rms, many)))
        extremes.append(peak)
    top = np.array(extremes)
    damage = read_only(oscillators.damage_of_sums(np.array(sums)))
    return DamageSpectrum(oscillators, damage, read_only(-top), read_only(top), time, name)


def _largest(crossings: float) -> float:
    """√(2 ln ν0T), of one crossing at least."""
    return math.sqrt(2.0 * math.log(max(crossings, math.e)))


def _of_sine(load: Sine, base: str, oscillators: Oscillators, name: str) -> DamageSpectrum:
    """Cycle by cycle through each response, quasi-steady."""
    sums, extremes = [], []
    for own in oscillators.natural_frequency.tolist():
        stress = load.through("z", {base: _mass(oscillators, own)})
        table, scale = stress.cycles_of("z"), (2.0 * np.pi * own) ** 2
        sums.append(float(np.sum(table.count * (0.5 * table.range / scale) ** oscillators.slope)))
        extremes.append(stress.extremes("z")[1])
    top = np.array(extremes)
    damage = read_only(oscillators.damage_of_sums(np.array(sums)))
    return DamageSpectrum(oscillators, damage, read_only(-top), read_only(top), load.duration, name)


def _of_history(load: Load, base: str, oscillators: Oscillators, name: str) -> DamageSpectrum:
    """Sample by sample from rest, counted by rainflow, the residue by halves."""
    course = load.samples()
    values = np.ascontiguousarray(course.channel(base).values)
    many = oscillators.natural_frequency.size
    sums, low, high = np.empty(many), np.empty(many), np.empty(many)
    shaken(values, oscillators.steps(1.0 / course.sample_rate), oscillators.slope, sums, low, high)
    squared = oscillators.omega**2
    damage = read_only(oscillators.damage_of_sums(sums))
    return DamageSpectrum(
        oscillators, damage, read_only(-squared * high), read_only(-squared * low), load.duration, name
    )
