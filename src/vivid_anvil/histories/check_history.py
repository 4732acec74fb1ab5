"""Look at a history before counting: its numbers, and what an expert would see in them. Nothing is repaired here.

In: `LoadHistory`. Out: a `ChannelCheck` per channel, with findings.
"""

from __future__ import annotations

import dataclasses
from collections.abc import Sequence
from dataclasses import dataclass

import numpy as np

from vivid_anvil.counting.turning_points import turning_points
from vivid_anvil.ground.checks import FloatArray, IntArray
from vivid_anvil.histories.channel import Channel
from vivid_anvil.histories.load_history import LoadHistory
from vivid_anvil.units import UnitSystem, in_unit, number, opened
from vivid_anvil.writing.finding import Finding, gravest_first
from vivid_anvil.writing.result import Result, Words
from vivid_anvil.writing.table import Column, Table

FEW_SAMPLES = 10.0
CLIPPED_RUN = 3
FLAT_SECONDS, FLAT_SAMPLES = 1.0, 20
SPIKE_SIGMAS, SPIKE_SHARE = 8.0, 0.1
DRIFT_SHARE = 0.2
JITTER = 1e-3
SMALL_SWING, FEW_PER_POINT = 0.05, 3.0
_SEGMENT, _TOGETHER = 4_096, 256  # samples of a segment; segments that are transformed at once
_SHARE, _ABOVE, _ASIDE = 0.1, 5.0, 12
_LISTED = 5


@dataclass(frozen=True, eq=False)
class ChannelCheck(Result):
    """What one channel looks like; values in the coherent unit of `dimension`, times in s, rates in Hz.

    Peaks and valleys without even times have no frequency and no rate of turning points: those are 0, `duration` may be nan.
    `dominant_frequency` is 0 where no frequency stands out. `samples_per_turning_point` leaves out swings below a twentieth
    of the span.
    `crest_factor` is the largest deviation from the mean over the rms deviation. `clipped` and `flat` are stretches as rows
    of first and last sample; `spikes` are sample numbers. `drift` is what a straight line through the history rises by.
    """

    channel: str
    dimension: str
    duration: float
    sample_rate: float
    jitter: float
    minimum: float
    maximum: float
    mean: float
    rms: float
    crest_factor: float
    turning_points_per_second: float
    dominant_frequency: float
    samples_per_cycle: float
    samples_per_turning_point: float
    clipped: IntArray
    flat: IntArray
    spikes: IntArray
    drift: float
    findings: tuple[Finding, ...]

    @property
    def title(self) -> str:
        """The name of the channel."""
        return self.channel

    @classmethod
    def overview(cls, results: Sequence[ChannelCheck]) -> Table:
        """A row a channel; values in the coherent unit of the dimension that stands beside them."""
        names = [
            one.name for one in dataclasses.fields(cls) if one.name not in ("clipped", "flat", "spikes", "findings")
        ]
        columns = [Column(name.replace("_", " "), [getattr(result, name) for result in results]) for name in names]
        columns += [
            Column("clipped stretches", [len(result.clipped) for result in results]),
            Column("flat stretches", [len(result.flat) for result in results]),
            Column("spikes", [result.spikes.size for result in results]),
        ]
        return Table("", tuple(columns), "channels")

    def words(self, units: UnitSystem) -> Words:
        """The numbers of the channel before counting."""

        def value(one: float) -> str:
            return in_unit(one, self.dimension, units)

        every = f"one every {number(self.samples_per_turning_point, 3)} samples, small swings left out"
        points = f"{number(self.turning_points_per_second)} a second; {every}"
        frequency = "none stands out"
        if self.dominant_frequency > 0.0:
            frequency = f"{number(self.dominant_frequency)} Hz, {number(self.samples_per_cycle, 3)} samples a cycle"
        timed = np.isfinite(self.samples_per_turning_point)
        return (
            ("Lowest, highest", f"{value(self.minimum)}, {value(self.maximum)}"),
            ("Mean, rms", f"{value(self.mean)}, {value(self.rms)}; crest factor {number(self.crest_factor, 3)}"),
            *([("Turning points", points), ("Dominant frequency", frequency)] if timed else []),
            ("Clipped, flat, spikes", f"{len(self.clipped)}, {len(self.flat)} stretches; {self.spikes.size} samples"),
            ("Drift, jitter of time", f"{value(self.drift)}; {self.jitter:.2g} of a step"),
        )


@opened()
def check_history(history: LoadHistory) -> tuple[ChannelCheck, ...]:
    """Check every channel of `history`.

    Parameters
    ----------
    history : LoadHistory
        The history; it stays as it is.

    Returns
    -------
    tuple[ChannelCheck, ...]
        One check a channel, with findings.

    Raises
    ------
    InputError
        For an argument of another kind, unit or range; the message says which.

    Examples
    --------
    >>> wave = np.sin(2.0 * np.pi * 2.0 * np.arange(1000) / 100.0)
    >>> check = check_history(LoadHistory("run", (Channel("force", wave, "force"),), 100.0))[0]
    >>> round(check.dominant_frequency, 2), round(check.samples_per_cycle), check.findings
    (2.0, 50, ())
    """
    return tuple(_check(history, channel) for channel in history.channels)


def clipped_stretches(values: FloatArray) -> IntArray:
    """Stretches of at least 3 equal samples at the highest or lowest value that are entered by a jump: rows (first, last).

    A rounded peak of few digits also has equal samples, but is entered by a small step.
    """
    first, last = _runs(values, CLIPPED_RUN)
    span = float(np.ptp(values))
    at_end = (values[first] == values.max()) | (values[first] == values.min())
    before, after = values[np.maximum(first - 1, 0)], values[np.minimum(last + 1, values.size - 1)]
    jump = np.maximum(np.abs(values[first] - before), np.abs(values[last] - after)) > 0.01 * span
    chosen = at_end & jump if span > 0.0 else np.zeros(first.size, dtype=bool)
    return np.stack([first[chosen], last[chosen]], axis=1)


def flat_stretches(values: FloatArray, sample_rate: float) -> IntArray:
    """Stretches of equal samples of at least 1 s and 20 samples: rows (first, last)."""
    first, last = _runs(values, max(FLAT_SAMPLES, round(FLAT_SECONDS * sample_rate)))
    return np.stack([first, last], axis=1)


def spikes(values: FloatArray) -> IntArray:
    """Samples that stand out from the median of the five around them, by 8 robust standard deviations and a tenth of the span.

    The standard deviation is 1.4826 times the median absolute deviation, which the spikes themselves hardly move.
    """
    from scipy.ndimage import median_filter

    if values.size < 5:
        return np.empty(0, dtype=np.int64)
    off = np.abs(values - median_filter(values, size=5, mode="nearest"))
    sigma = 1.4826 * float(np.median(off))
    low, high = np.quantile(values, [0.001, 0.999])
    return np.flatnonzero(off > max(SPIKE_SIGMAS * sigma, SPIKE_SHARE * float(high - low), np.finfo(float).tiny))


def _check(history: LoadHistory, channel: Channel) -> ChannelCheck:
    values, rate = channel.values, history.sample_rate
    mean = float(values.mean())
    deviation = float(values.std())
    timed = history.steps == "even"
    frequency = dominant_frequency(values, rate) if timed else 0.0
    time = np.arange(values.size) - 0.5 * (values.size - 1)
    slope = float((time * (values - mean)).sum() / (time**2).sum())
    seen = {
        "clipped": clipped_stretches(values),
        "flat": flat_stretches(values, rate),
        "spikes": spikes(values) if timed else np.empty(0, dtype=np.int64),
        "drift": slope * (values.size - 1),
    }
    numbers = {
        "channel": channel.name,
        "dimension": channel.dimension,
        "duration": np.nan if history.duration is None else history.duration,
        "sample_rate": rate,
        "jitter": history.jitter,
        "minimum": float(values.min()),
        "maximum": float(values.max()),
        "mean": mean,
        "rms": float(np.sqrt((values**2).mean())),
        "crest_factor": float(np.abs(values - mean).max()) / deviation if deviation > 0.0 else 0.0,
        "turning_points_per_second": turning_points(values).size * rate / max(values.size - 1, 1) if timed else 0.0,
        "dominant_frequency": frequency,
        "samples_per_cycle": rate / frequency if frequency > 0.0 else np.inf,
        "samples_per_turning_point": _samples_per_turning_point(values) if timed else np.inf,
    }
    check = ChannelCheck(**numbers, **seen, findings=())  # type: ignore[arg-type]
    return ChannelCheck(**numbers, **seen, findings=_findings(check))  # type: ignore[arg-type]


def _samples_per_turning_point(values: FloatArray) -> float:
    """Samples for each turning point of the swings that matter: those of a twentieth of the span and more."""
    from vivid_anvil.counting.gate import gate

    span = float(np.ptp(values))
    if span == 0.0:
        return np.inf
    return float(values.size / max(gate(values, SMALL_SWING * span, dimension="number").values.size, 1))


def dominant_frequency(values: FloatArray, sample_rate: float) -> float:
    """Frequency, Hz, of the highest line of the power spectrum (Welch's method); 0 where none stands out.

    A line stands out where it and its two neighbours hold a tenth of the power and are well above what lies around them.
    """
    if values.size < 8 or np.ptp(values) == 0.0:
        return 0.0
    size = min(values.size, _SEGMENT)
    lines = segment_power(values, size)[1:]
    top = int(np.argmax(lines))
    peak = float(lines[max(0, top - 1) : top + 2].sum())
    aside = [lines[max(0, top - _ASIDE) : max(0, top - 3)], lines[top + 4 : top + _ASIDE + 1]]
    around = max((float(one.mean()) for one in aside if one.size), default=0.0)
    # the lowest line is a single wave over all of it: drift, or a spectrum that only falls
    stands_out = top > 0 and peak >= _SHARE * float(lines.sum()) and float(lines[top]) > _ABOVE * around
    return float((top + 1) * sample_rate / size) if stands_out else 0.0


def segment_power(values: FloatArray, size: int) -> FloatArray:
    """Power of each line, in no unit: of segments that overlap by half, under a Hann window, the straight line taken out before.

    Welch, P. D. 1967, IEEE Trans. AU-15, 70-73. In NumPy alone: asked of every history, where SciPy's takes long to import.
    """
    time = np.arange(values.size) - 0.5 * (values.size - 1)
    straight = values.mean() + time * (time @ values) / (time @ time)
    segments = np.lib.stride_tricks.sliding_window_view(values - straight, size)[:: size - size // 2]
    window = 0.5 - 0.5 * np.cos(2.0 * np.pi * np.arange(size) / size)
    power = np.zeros(size // 2 + 1)
    for first in range(0, len(segments), _TOGETHER):
        power += (np.abs(np.fft.rfft(segments[first : first + _TOGETHER] * window, axis=1)) ** 2).sum(axis=0)
    return np.asarray(power / len(segments))


def _findings(check: ChannelCheck) -> tuple[Finding, ...]:
    findings = []
    name, span = check.channel, check.maximum - check.minimum
    if span == 0.0:
        findings.append(
            Finding("warning", "constant", f"{name} never changes.", "Is it the right channel, is the sensor on?")
        )
    if check.clipped.size:
        findings.append(
            Finding(
                "severe",
                "clipped",
                f"{name} is cut off at its highest or lowest value in {len(check.clipped)} stretches, first at "
                f"sample {check.clipped[0, 0]}.",
                "The real peaks are higher: measure again with a larger range; no repair brings them back.",
            )
        )
    if check.flat.size and span > 0.0:
        findings.append(
            Finding(
                "warning",
                "flat",
                f"{name} stands still in {len(check.flat)} stretches, first from sample {check.flat[0, 0]} to "
                f"{check.flat[0, 1]}.",
                "Did the sensor drop out? Cut the stretch out if it is no rest of the part.",
            )
        )
    if check.spikes.size:
        places = ", ".join(str(place) for place in check.spikes[:_LISTED]) + (
            " ..." if check.spikes.size > _LISTED else ""
        )
        findings.append(
            Finding(
                "warning",
                "spikes",
                f"{name} has {check.spikes.size} samples that stand out alone: {places}.",
                "Look at them; interpolate over those that are electrical.",
            )
        )
    if span > 0.0 and abs(check.drift) > DRIFT_SHARE * span and check.dominant_frequency * check.duration > 3.0:
        findings.append(
            Finding(
                "note",
                "drift",
                f"{name} drifts by {in_unit(check.drift, check.dimension)} over the history.",
                "If the load cannot do that, remove the drift; if it can, leave it.",
            )
        )
    if check.samples_per_turning_point < FEW_PER_POINT and not check.samples_per_cycle < FEW_SAMPLES:
        findings.append(
            Finding(
                "warning",
                "few-samples-a-turn",
                f"{name} turns every {check.samples_per_turning_point:.2g} samples, swings below "
                f"{SMALL_SWING:.0%} of its span left out.",
                "Peaks are cut off where fewer than about 3 samples lie between two of them: measure at a higher rate; if it is "
                "noise, filter or gate it; if the rows are turning points, read them as peaks and valleys.",
            )
        )
    if check.samples_per_cycle < FEW_SAMPLES:
        findings.append(
            Finding(
                "warning",
                "few-samples",
                f"{name} has about {check.samples_per_cycle:.1f} samples per cycle at its dominant "
                f"{number(check.dominant_frequency)} Hz.",
                "Peaks are cut off below about 10: measure at a higher rate, or resample.",
            )
        )
    if check.jitter > JITTER:
        findings.append(
            Finding(
                "note",
                "jitter",
                f"The steps of time differ by up to {check.jitter:.2%}.",
                "Are they rounded, or was a sample lost?",
            )
        )
    return gravest_first(findings)


def _runs(values: FloatArray, least: int) -> tuple[IntArray, IntArray]:
    """First and last sample of runs of at least `least` equal samples."""
    edges = np.flatnonzero(np.diff(values) != 0.0) + 1
    first, last = np.concatenate([[0], edges]), np.concatenate([edges, [values.size]]) - 1
    long = last - first + 1 >= least
    return first[long], last[long]
