"""Events over frequency as people write them: PSDs, dwells, sweeps; each a form of an event."""

from __future__ import annotations

from collections.abc import Mapping
from pathlib import Path
from typing import Annotated, Any

from pydantic import Field

from vivid_anvil.events import Profile, RandomVibration, Sine
from vivid_anvil.events.sine_course import Sweep, rate_of
from vivid_anvil.ground.errors import InputError, listed
from vivid_anvil.histories import estimate_psd, read_history
from vivid_anvil.spectra import PSD, StatedMoments, Together, psd_of_rows, read_cross_spectra, read_psd
from vivid_anvil.spectra.synthesis import Tone
from vivid_anvil.study.models_of_nouns import Section, Text
from vivid_anvil.units import coherent

Rows = Annotated[list[Annotated[list[Text], Field(min_length=2, max_length=2)]], Field(min_length=1)]
Three = Annotated[list[Annotated[list[Text], Field(min_length=3, max_length=3)]], Field(min_length=1)]
Ends = Annotated[list[Text], Field(min_length=2, max_length=2)]


class PairSection(Section):
    """How two inputs of an event go together."""

    first: Text
    second: Text
    coherence: float = 1.0
    phase: Text | None = None
    delay: Text | None = None


class CrossoverSection(Section):
    """The profile of a sweep: a displacement amplitude below, an acceleration amplitude above."""

    displacement: Text
    acceleration: Text


class EstimateSection(Section):
    """A PSD that is estimated from a history: its column of the channel's name."""

    history: Text
    segment: Text
    overlap: float = 0.5
    window: str = "hann"


SHAPING: dict[str, Any] = {
    "crest_factor": float,
    "kurtosis": float,
    "skewness": float,
    "coefficients": str,
    "seed": int,
}
OF_ONE: dict[str, Any] = {"mean": Text, "tones": Rows, "between_points": str, **SHAPING}


def _psd(written: Any, channel: str, folder: Path, between: str) -> PSD:
    """The PSD of rows, or of a file: a column headed like the channel where it has several."""
    if isinstance(written, EstimateSection):
        settings = {key: value for key, value in written.given.items() if key != "history"}
        return estimate_psd(read_history(folder / written.history), channel, **settings).psd
    if not isinstance(written, str):
        return psd_of_rows(written, between=between)
    try:
        return read_psd(folder / written, between=between)
    except InputError as error:
        if error.expected != "one PSD":
            raise
        return read_psd(folder / written, channel=channel, between=between)


def _tones(rows: Any, dimension: str) -> tuple[Tone, ...]:
    return tuple(Tone(coherent(f, "frequency", "tones"), coherent(a, dimension, "tones")) for f, a in rows)


def _event(inputs: Mapping[str, Any], values: dict[str, Any], dimensions: Mapping[str, str], channel: str) -> Any:
    """The event of one input."""
    mean, tones = values.pop("mean", None), values.pop("tones", None)
    means = {} if mean is None else {channel: mean}
    with_tones = {} if tones is None else {channel: _tones(tones, dimensions[channel])}
    return RandomVibration(inputs, values.pop("exposure"), means=means, tones=with_tones, **values)


def random_of_psd(_: str, values: dict[str, Any], place: Any) -> Any:
    """One input by its PSD."""
    channel, between = values.pop("channel"), values.pop("between_points", "log-log")
    psd = _psd(values.pop("psd"), channel, place.folder, between)
    return _event({channel: psd}, values, {channel: psd.dimension}, channel)


def random_of_rms(_: str, values: dict[str, Any], __: Any) -> Any:
    """A narrow band of stress by its rms and rate."""
    channel = values.pop("channel")
    process = StatedMoments.of_rate(values.pop("rms"), values.pop("upcrossing_rate"))
    return _event({channel: process}, values, {channel: "stress"}, channel)


def random_of_psds(_: str, values: dict[str, Any], place: Any) -> Any:
    """Several inputs by their PSDs, and how pairs of them go together."""
    from vivid_anvil.spectra import PSDs

    between = values.pop("between_points", "log-log")
    inputs = {name: _psd(own, name, place.folder, between) for name, own in values.pop("psds").items()}
    pairs = {}
    for pair in values.pop("together", []):
        angle = 0.0 if pair.phase is None else coherent(pair.phase, "angle", "together, phase")
        delay = 0.0 if pair.delay is None else coherent(pair.delay, "time", "together, delay")
        pairs[pair.first, pair.second] = Together(pair.coherence, angle, delay)
    return RandomVibration(PSDs(inputs, pairs), values.pop("exposure"), **values)


def random_of_matrix(_: str, values: dict[str, Any], place: Any) -> Any:
    """Several inputs by a measured matrix."""
    matrix = read_cross_spectra(place.folder / values.pop("cross_spectra"), conjugated=values.pop("conjugated"))
    return RandomVibration(matrix, values.pop("exposure"), **values)


def sine_dwells(_: str, values: dict[str, Any], __: Any) -> Any:
    """Dwells one after the other."""
    return Sine.dwells(values.pop("channel"), values.pop("dwells"), **values)


def sine_sweep(_: str, values: dict[str, Any], __: Any) -> Any:
    """A sweep by its rate, or by the time of a pass."""
    (start, end), channel, profile = values.pop("sweep"), values.pop("channel"), values.pop("profile")
    time, scale = values.pop("time", None), values.pop("scale", None)
    if (time is None) == ("rate" not in values) or (time is None) != (scale is None):
        given = [key for key, one in (("rate", values.get("rate")), ("time", time), ("scale", scale)) if one]
        raise InputError(
            "rate",
            listed(given) if given else "neither",
            "a rate, or time with scale",
            "Such as rate = '1 octave/min', or time = '10 min' with scale = 'logarithmic'.",
        )
    if time is not None:
        values["rate"] = rate_of(start, end, time, scale)
    if not isinstance(profile, CrossoverSection):
        return Sine.sweep(channel, start=start, end=end, amplitude=profile, **values)
    low, high = sorted(coherent(one, "frequency", "sweep") for one in (start, end))
    both = Profile.crossover(profile.displacement, profile.acceleration, start=low, end=high)
    mean = coherent(values.pop("mean", 0.0), "acceleration", "sweep, mean")
    return Sine(channel, Sweep(start=start, end=end, profile=both, **values), "acceleration", mean)
