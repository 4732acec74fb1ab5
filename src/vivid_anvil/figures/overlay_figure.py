"""Several histories over one another, and how often their levels are crossed."""

from __future__ import annotations

from collections.abc import Sequence

import numpy as np
from matplotlib.figure import Figure

from vivid_anvil.counting import level_crossings
from vivid_anvil.figures.style import BLUE, INK, ORANGE, RED, new_figure, thinned
from vivid_anvil.ground.errors import InputError
from vivid_anvil.histories import Channel, LoadHistory
from vivid_anvil.units import UnitSystem, display_unit, shown

LEVELS = 60
_LOOKS = ((BLUE, "-"), (ORANGE, "--"), (RED, "-."), (INK, ":"))


def overlay_figure(histories: Sequence[LoadHistory], units: UnitSystem = "metric") -> Figure:
    """The figure of one channel of several histories: the first channel that all of them have."""
    if not histories:
        raise InputError("plot", "no history", "at least one")
    for i, one in enumerate(histories, 1):
        if not isinstance(one, LoadHistory):
            raise InputError(
                f"plot, entry {i}", f"a {type(one).__name__}", "a LoadHistory: several are drawn over each other"
            )
    common = [name for name in histories[0].dimensions if all(name in history.dimensions for history in histories)]
    if not common:
        raise InputError("plot", "histories without a common channel", "the same channel in each")
    channels = [history[common[0]] for history in histories]
    if len({channel.dimension for channel in channels}) > 1:
        raise InputError(f"plot, channel {common[0]}", "different dimensions", "the same dimension in each history")
    label = f"{common[0].capitalize()} [{display_unit(channels[0].dimension, units)}]"
    figure = new_figure(f"{common[0].capitalize()} of {len(histories)} histories")
    left, right = figure.subplots(1, 2, width_ratios=(2.2, 1.0), sharey=True)
    for i, (history, channel) in enumerate(zip(histories, channels, strict=True)):
        colour, dash = _LOOKS[i % len(_LOOKS)]
        time, values = thinned(history.time, shown(channel.values, channel.dimension, units))
        left.plot(time, values, color=colour, lw=0.9, label=history.name, alpha=0.85)
        levels, counts = crossings(channel)
        right.step(
            counts,
            shown(levels, channel.dimension, units),
            where="mid",
            color=colour,
            ls=dash,
            lw=2.0,
            label=history.name,
        )
    left.set_xlabel("Time [s]")
    left.set_ylabel(label)
    left.set_title("Histories")
    low, high = left.get_ylim()
    left.set_ylim(low, high + 0.06 * len(histories) * (high - low))
    left.legend(loc="upper left")
    right.set_xscale("log")
    right.set_xlabel("Crossings of a level")
    right.set_title("Level crossings")
    right.legend(loc="upper right")
    return figure


def crossings(channel: Channel) -> tuple[np.ndarray, np.ndarray]:
    """Even levels over the span of a channel and how often each is crossed, rising above the mean and falling below it."""
    values = channel.values
    span = float(np.ptp(values)) or 1.0
    levels = float(values.min()) + span * (np.arange(LEVELS) + 0.5) / LEVELS
    counts = level_crossings(values, levels, float(values.mean()))
    crossed = counts > 0
    return levels[crossed], counts[crossed]
