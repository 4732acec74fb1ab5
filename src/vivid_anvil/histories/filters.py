"""Repairs that filter a channel, and another sample rate for all."""

from __future__ import annotations

from fractions import Fraction
from typing import Literal

import numpy as np

from vivid_anvil.ground import checks
from vivid_anvil.ground.errors import InputError, inside
from vivid_anvil.histories.channel import Channel
from vivid_anvil.histories.load_history import LoadHistory
from vivid_anvil.histories.repairs import REPAIRS, _changed, _repaired
from vivid_anvil.units import coherent, number, opened

MOST_SAMPLES = 2e9  # what is resampled is held in memory


@REPAIRS.add("low_pass")
@opened()
def low_pass(history: LoadHistory, *, channel: str, frequency: float | str, order: int = 4) -> LoadHistory:
    """`channel` without what is faster than `frequency`, Hz: Butterworth, forwards and backwards, so without delay.

    Parameters
    ----------
    history : LoadHistory
        The history; it stays as it is.
    channel : str
        The channel, by its name.
    frequency : float or str
        What is faster goes, Hz or text.
    order : int, default 4
        Order of the filter, which is run forwards and backwards.

    Returns
    -------
    LoadHistory
        The history with that channel filtered.

    Raises
    ------
    InputError
        For an argument of another kind, unit or range; the message says which.

    Examples
    --------
    >>> low_pass(history, channel="vertical force", frequency="10 Hz").repairs  # of the demo: read_history("loaded_lap.csv")
    ('vertical force: filtered, above 10 Hz taken out (order 4, no delay)',)
    """
    return _filtered(history, channel, frequency, order, "lowpass", "above")


@REPAIRS.add("high_pass")
@opened()
def high_pass(history: LoadHistory, *, channel: str, frequency: float | str, order: int = 4) -> LoadHistory:
    """`channel` without what is slower than `frequency`, Hz, the mean included; without delay.

    Parameters
    ----------
    history : LoadHistory
        The history; it stays as it is.
    channel : str
        The channel, by its name.
    frequency : float or str
        What is slower goes, Hz or text.
    order : int, default 4
        Order of the filter, which is run forwards and backwards.

    Returns
    -------
    LoadHistory
        The history with that channel filtered.

    Raises
    ------
    InputError
        For an argument of another kind, unit or range; the message says which.

    Examples
    --------
    >>> high_pass(history, channel="vertical force", frequency="0.5 Hz").repairs  # of the demo: read_history("loaded_lap.csv")
    ('vertical force: filtered, below 0.5 Hz taken out (order 4, no delay)',)
    """
    return _filtered(history, channel, frequency, order, "highpass", "below")


@REPAIRS.add("resample")
@opened()
def resample(history: LoadHistory, *, sample_rate: float | str) -> LoadHistory:
    """All channels at another `sample_rate`, Hz, by a polyphase filter; the ratio is taken as a fraction of whole numbers.

    Parameters
    ----------
    history : LoadHistory
        The history; it stays as it is.
    sample_rate : float or str
        Samples a second, Hz, or text such as "100 Hz"; where the data say it themselves it is not needed.

    Returns
    -------
    LoadHistory
        The history at that rate.

    Raises
    ------
    InputError
        For an argument of another kind, unit or range; the message says which.

    Examples
    --------
    >>> resample(history, sample_rate="50 Hz")  # of the demo: read_history("loaded_lap.csv")
    <LoadHistory loaded_lap: 480 s at 50 Hz, vertical force>
    """
    from scipy.signal import resample_poly

    history.timed("resampling")
    rate = checks.positive_number("resample, sample_rate", coherent(sample_rate, "frequency", "resample, sample_rate"))
    size = history.channels[0].values.size * rate / history.sample_rate
    if size > MOST_SAMPLES:
        raise InputError(
            "resample, sample_rate", f"{size:.3g} samples at {number(rate)} Hz", f"at most {MOST_SAMPLES:.3g}"
        )
    ratio = Fraction(rate / history.sample_rate).limit_denominator(10_000)
    if abs(float(ratio) * history.sample_rate / rate - 1.0) > 1e-9:
        raise InputError(
            "resample, sample_rate",
            f"{number(rate)} Hz",
            f"a simple ratio to {number(history.sample_rate)} Hz",
            "Such as 2 or 3/5.",
        )
    channels = [
        Channel(
            channel.name,
            resample_poly(channel.values, ratio.numerator, ratio.denominator, padtype="line"),
            channel.dimension,
        )
        for channel in history.channels
    ]
    done = f"resampled from {number(history.sample_rate)} Hz to {number(rate)} Hz"
    return _repaired(history, done, channels=tuple(channels), sample_rate=rate)


def _filtered(
    history: LoadHistory,
    channel: str,
    frequency: float | str,
    order: int,
    kind: Literal["lowpass", "highpass"],
    side: str,
) -> LoadHistory:
    from scipy.signal import butter, sosfiltfilt

    history.timed("a filter")
    one, limit = history[channel], coherent(frequency, "frequency", f"{kind}, frequency")
    if not 0.0 < limit < 0.5 * history.sample_rate:
        raise InputError(
            inside(f"{kind}", "frequency"),
            f"{number(limit)} Hz",
            f"above 0 and below half the sample rate, {number(0.5 * history.sample_rate)} Hz",
        )
    if not 1 <= order <= 12:
        raise InputError(inside(f"{kind}", "order"), str(order), "1 to 12")
    sections = butter(order, limit, btype=kind, fs=history.sample_rate, output="sos")
    padding = min(len(one) - 1, int(3 * history.sample_rate / limit))
    values = np.asarray(sosfiltfilt(sections, one.values, padlen=padding), dtype=np.float64)
    return _changed(
        history, channel, values, f"{channel}: filtered, {side} {number(limit)} Hz taken out (order {order}, no delay)"
    )
