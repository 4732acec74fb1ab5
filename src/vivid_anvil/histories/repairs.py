"""Repairs of a history, each a function of its own that says in the history what it did; never done silently.

In: `LoadHistory`. Out: a new one, whose `repairs` has one sentence more. Frequencies Hz, times s, or text with units.
"""

from __future__ import annotations

import dataclasses
import inspect
import math
from collections.abc import Callable, Mapping, Sequence
from typing import Any

import numpy as np

from vivid_anvil.ground import checks
from vivid_anvil.ground.checks import FloatArray
from vivid_anvil.ground.choices import Choices
from vivid_anvil.ground.errors import InputError, did_you_mean, inside, listed
from vivid_anvil.histories.channel import Channel
from vivid_anvil.histories.check_history import spikes
from vivid_anvil.histories.load_history import LoadHistory
from vivid_anvil.histories.rosette import principal_strains, principal_stresses
from vivid_anvil.units import DIMENSIONS, coherent, coherent_ratio, dimension_of, number, one, opened

REPAIRS: Choices[Callable[..., LoadHistory]] = Choices("repair")  # that a study may name as steps


@REPAIRS.add("cut")
@opened()
def cut(history: LoadHistory, *, start: float | str = 0.0, end: float | str) -> LoadHistory:
    """The part of `history` from `start` to `end`, s: the first and the last sample in it.

    Parameters
    ----------
    history : LoadHistory
        The history; it stays as it is.
    start : float or str, default 0.0
        From here on, s or text; by default from the beginning.
    end : float or str
        Up to here, s or text; by default to the end.

    Returns
    -------
    LoadHistory
        The part.

    Raises
    ------
    InputError
        For an argument of another kind, unit or range; the message says which.

    Examples
    --------
    >>> whole = LoadHistory("run", (Channel("force", np.arange(11.0), "force"),), 10.0)
    >>> cut(whole, start="0.2 s", end="0.5 s")["force"].values
    array([2., 3., 4., 5.])
    """
    history.timed("a cut")
    first, last = (coherent(value, "time", "cut") for value in (start, end))
    whole = (len(history.channels[0]) - 1) / history.sample_rate
    if not 0.0 <= first < last <= whole + 0.5 / history.sample_rate:
        raise InputError(
            "cut", f"{number(first)} to {number(last)} s", f"a window that rises, within 0 to {number(whole)} s"
        )
    part = slice(math.ceil(first * history.sample_rate - 1e-6), math.floor(last * history.sample_rate + 1e-6) + 1)
    channels = [Channel(channel.name, channel.values[part], channel.dimension) for channel in history.channels]
    return _repaired(history, f"cut to {number(first)} s to {number(last)} s", channels=tuple(channels))


@REPAIRS.add("remove_offset")
@opened()
def remove_offset(history: LoadHistory, *, channel: str, offset: str | None = None) -> LoadHistory:
    """`channel` without `offset` (text with unit), or without its mean where none is given.

    Parameters
    ----------
    history : LoadHistory
        The history; it stays as it is.
    channel : str
        The channel, by its name.
    offset : str, optional
        What to take away, text with its unit; by default the mean.

    Returns
    -------
    LoadHistory
        The history with that channel shifted.

    Raises
    ------
    InputError
        For an argument of another kind, unit or range; the message says which.

    Examples
    --------
    >>> remove_offset(history, channel="vertical force", offset="0.2 kN").repairs  # read_history("loaded_lap.csv")
    ('vertical force: offset of 200 N removed',)
    """
    one = history[channel]
    value = (
        float(one.values.mean()) if offset is None else coherent(offset, one.dimension, f"channel {channel}, offset")
    )
    unit = DIMENSIONS[one.dimension].coherent
    return _changed(history, channel, one.values - value, f"{channel}: offset of {number(value)} {unit} removed")


@REPAIRS.add("remove_drift")
@opened()
def remove_drift(history: LoadHistory, *, channel: str) -> LoadHistory:
    """`channel` without its straight-line trend; the mean stays.

    Parameters
    ----------
    history : LoadHistory
        The history; it stays as it is.
    channel : str
        The channel, by its name.

    Returns
    -------
    LoadHistory
        The history with that channel straightened.

    Raises
    ------
    InputError
        For an argument of another kind, unit or range; the message says which.

    Examples
    --------
    >>> remove_drift(history, channel="vertical force").repairs  # of the demo: read_history("loaded_lap.csv")
    ('vertical force: straight-line drift removed',)
    """
    from scipy.signal import detrend

    one = history[channel]
    straight = detrend(one.values, type="linear") + one.values.mean()
    return _changed(history, channel, straight, f"{channel}: straight-line drift removed")


@REPAIRS.add("interpolate_spikes")
@opened()
def interpolate_spikes(history: LoadHistory, *, channel: str, samples: Sequence[int] | None = None) -> LoadHistory:
    """`channel` with straight lines over `samples`, or over the spikes that `check_history` marks where none are given.

    Parameters
    ----------
    history : LoadHistory
        The history; it stays as it is.
    channel : str
        The channel, by its name.
    samples : sequence of int, optional
        The samples, in their order.

    Returns
    -------
    LoadHistory
        The history with that channel repaired.

    Raises
    ------
    InputError
        For an argument of another kind, unit or range; the message says which.

    Examples
    --------
    >>> interpolate_spikes(history, channel="vertical force", samples=[10, 11]).repairs  # read_history("loaded_lap.csv")
    ('vertical force: 2 samples interpolated',)
    """
    one = history[channel]
    marked = np.unique(spikes(one.values) if samples is None else np.asarray(samples, dtype=np.int64))
    if marked.size and not (marked[0] >= 0 and marked[-1] < len(one)):
        raise InputError(
            inside(f"channel {channel}", "samples"), f"{marked[0]} to {marked[-1]}", f"numbers from 0 to {len(one) - 1}"
        )
    stays = np.setdiff1d(np.arange(len(one)), marked)
    if not stays.size:
        raise InputError(inside(f"channel {channel}", "samples"), "all samples", "some that stay")
    values = np.interp(np.arange(len(one)), stays, one.values[stays])
    return _changed(history, channel, values, f"{channel}: {marked.size} samples interpolated")


@opened()
def join(histories: Sequence[LoadHistory], *, name: str) -> LoadHistory:
    """Histories of the same channels and rate, end to end, in the order given.

    Parameters
    ----------
    histories : sequence of LoadHistory
        Histories with the same channels and rate, in their order.
    name : str
        Name of the joined history.

    Returns
    -------
    LoadHistory
        The histories as one.

    Raises
    ------
    InputError
        For an argument of another kind, unit or range; the message says which.

    Examples
    --------
    >>> both = join([history, history], name="two laps")  # of the demo: read_history("loaded_lap.csv")
    >>> both.duration / history.duration
    2.00002083376737
    """
    if not histories:
        raise InputError("join", "no history", "at least one")
    first = histories[0]
    for other in histories[1:]:
        if other.steps != first.steps:
            raise InputError(
                f"join, history {other.name}", f"{other.steps} steps", f"{first.steps} steps as {first.name}"
            )
        if other.sample_rate != first.sample_rate and first.steps == "even":
            raise InputError(
                f"join, history {other.name}",
                f"a rate of {number(other.sample_rate)} Hz",
                f"{number(first.sample_rate)} Hz as {first.name}",
                "Resample it.",
            )
    channels = tuple(
        Channel(channel.name, np.concatenate([_same(other, channel) for other in histories]), channel.dimension)
        for channel in first.channels
    )
    before = tuple(f"{one.name}: {done}" for one in histories for done in one.repairs)
    rate = first.sample_rate
    if first.steps == "uneven":  # all of them take as long as each by itself
        rate = (len(channels[0]) - 1) / sum(history.duration or 0.0 for history in histories)
    done = (*before, f"joined of {listed(history.name for history in histories)}")
    return LoadHistory(name, channels, rate, done, steps=first.steps)


@REPAIRS.add("scale")
@opened(factor=one())
def scale(history: LoadHistory, *, channel: str, factor: float) -> LoadHistory:
    """`channel` times `factor`, which has no unit.

    Parameters
    ----------
    history : LoadHistory
        The history; it stays as it is.
    channel : str
        The channel, by its name.
    factor : float
        The factor, -.

    Returns
    -------
    LoadHistory
        The history with that channel scaled.

    Raises
    ------
    InputError
        For an argument of another kind, unit or range; the message says which.

    Examples
    --------
    >>> scale(history, channel="vertical force", factor=1.02).repairs  # of the demo: read_history("loaded_lap.csv")
    ('vertical force: times 1.02',)
    """
    one = history[channel]
    times = checks.real_number(inside(f"channel {channel}", "factor"), factor)
    return _changed(history, channel, times * one.values, f"{channel}: times {number(times)}")


@REPAIRS.add("combine")
@opened()
def combine(history: LoadHistory, *, name: str, unit: str, factors: Mapping[str, str | float]) -> LoadHistory:
    """A new channel `name` in `unit`: the sum of channels times `factors` ("0.8 kN/(mm/mm)"; bridge factors, unit loads).

    Parameters
    ----------
    history : LoadHistory
        The history; it stays as it is.
    name : str
        Name of the new channel.
    unit : str
        Unit of the sum.
    factors : mapping of str to str or float
        Factor of each channel, with its unit where they differ.

    Returns
    -------
    LoadHistory
        The history with one channel more.

    Raises
    ------
    InputError
        For an argument of another kind, unit or range; the message says which.

    Examples
    --------
    >>> two = [Channel("front", np.array([1.0, 2.0]), "force"), Channel("rear", np.array([3.0, 5.0]), "force")]
    >>> combine(LoadHistory("run", two, 1.0), name="both", unit="N", factors={"front": 1.0, "rear": 0.5})["both"].values
    array([2.5, 4.5])
    """
    dimension = dimension_of(unit, f"combination {name}").name
    if not factors:
        raise InputError(inside(f"combination {name}", "factors"), "none", "a factor for at least one channel")
    total = np.zeros(len(history.channels[0]))
    for channel, given in factors.items():
        one = history[channel]
        where = f"combination {name}, factor of {channel}"
        total = total + coherent_ratio(str(given), dimension, one.dimension, where) * one.values
    parts = " + ".join(f"{given} × {channel}" for channel, given in factors.items())
    return _repaired(history, f"{name} = {parts}", channels=(*history.channels, Channel(name, total, dimension)))


@REPAIRS.add("rosette")
def rosette(
    history: LoadHistory,
    *,
    gauges: Sequence[str],
    layout: str,
    name: str,
    elastic_modulus: str | float | None = None,
    poisson_ratio: float = 0.3,
) -> LoadHistory:
    """Two new channels, `name` larger and smaller: principal strains of three gauges, or stresses where a modulus is given.

    `layout` is "0/45/90" or "0/60/120", counted from the first of `gauges`.
    """
    if len(gauges) != 3:
        raise InputError(inside(f"rosette {name}", "gauges"), f"{len(gauges)} channels", "three channels of strain")
    for gauge in gauges:
        if history[gauge].dimension != "strain":
            raise InputError(
                f"rosette {name}, gauge {gauge}", f"a {history[gauge].dimension}", "a strain, such as [µm/m]"
            )
    first, second, third = (history[gauge].values for gauge in gauges)
    strains = principal_strains(first, second, third, layout)
    if elastic_modulus is None:
        larger, smaller, dimension, what = strains.larger, strains.smaller, "strain", "principal strains"
    else:
        larger, smaller = principal_stresses(strains, elastic_modulus, poisson_ratio)
        dimension, what = "stress", f"principal stresses (E {elastic_modulus}, Poisson's ratio {poisson_ratio:g})"
    new = (Channel(f"{name} larger", larger, dimension), Channel(f"{name} smaller", smaller, dimension))
    done = f"{name}: {what} of the {layout} rosette {listed(gauges)}"
    return _repaired(history, done, channels=(*history.channels, *new))


def _changed(history: LoadHistory, channel: str, values: FloatArray, done: str) -> LoadHistory:
    channels = tuple(
        Channel(one.name, values, one.dimension) if one.name == channel else one for one in history.channels
    )
    return _repaired(history, done, channels=channels)


def _repaired(history: LoadHistory, done: str, **changes: Any) -> LoadHistory:
    return dataclasses.replace(history, repairs=(*history.repairs, done), **changes)


def _same(other: LoadHistory, one: Channel) -> FloatArray:
    found = other[one.name]
    if found.dimension != one.dimension:
        raise InputError(
            f"join, history {other.name}, channel {one.name}", f"a {found.dimension}", f"a {one.dimension}"
        )
    return found.values


@opened()
def repair_step(history: LoadHistory, step: Mapping[str, Any]) -> LoadHistory:
    """One repair by name, as a study writes it: {"step": "cut", "end": "40 s"}; InputError for what it doesn't know.

    >>> whole = LoadHistory("run", (Channel("force", np.arange(11.0), "force"),), 10.0)
    >>> repair_step(whole, {"step": "cut", "start": "0.2 s", "end": "0.5 s"}).repairs
    ('cut to 0.2 s to 0.5 s',)
    """
    settings = dict(step)
    name = str(settings.pop("step", ""))
    repair = REPAIRS.get(name, "repairs, step")
    known = [key for key in inspect.signature(repair).parameters if key != "history"]
    for key in settings:
        if key not in known:
            raise InputError(
                f"repairs, {name}, {key}", "an unknown key", f"one of {listed(known)}", did_you_mean(key, known)
            )
    for key, parameter in inspect.signature(repair).parameters.items():
        if key != "history" and parameter.default is inspect.Parameter.empty and key not in settings:
            raise InputError(f"repairs, {name}", "no such key", f"the key {key!r}", "Add it.")
    return repair(history, **settings)
