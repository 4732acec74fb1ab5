"""A way to look at loads: several channels as the one stress that they make. It stands where a channel's name may stand."""

from __future__ import annotations

from abc import ABC, abstractmethod
from collections.abc import Callable, Sequence

from vivid_anvil.events.stated_cycles import StatedCycles
from vivid_anvil.ground.checks import FloatArray, read_only
from vivid_anvil.ground.errors import InputError
from vivid_anvil.ground.errors import listed as listing
from vivid_anvil.histories.channel import Channel
from vivid_anvil.histories.load import Load

ByName = Callable[[str], Channel]


class Seen(ABC):
    """What a load is looked at as; `str` of it is the name of the one channel, MPa, that comes out."""

    channels: tuple[str, ...]
    any_of_channels: bool = False  # whether an event may lack some of them
    dimension: str = "stress"  # of what comes out

    @abstractmethod
    def seen(self, load: Load, event: str) -> Load:
        """The load of the event of that name with the one channel; InputError where loads do not go together."""


def seen_as(
    load: Load, name: str, channels: Sequence[str], stress_of: Callable[[ByName], FloatArray], dimension: str = "stress"
) -> Load:
    """A load with the one channel `name`: `stress_of(channel by its name)` gives its values, of samples or ends of cycles.

    A load that is specified by the cycles of a channel is seen by both ends of each. InputError for such a load where several
    channels are asked for.
    """
    if "samples" in load.gives:
        return load.with_channel(Channel(name, read_only(stress_of(load.samples().channel)), dimension))
    ends = load.ends(channels[0])
    if len(channels) > 1:
        raise InputError(
            f"loads that act together, {name}",
            "cycles of one channel",
            f"a history without a gate, or states, with the channels {listing(channels)}",
            "How loads go together is known from their course in time only.",
        )
    values = stress_of(lambda _: ends.channel)
    return StatedCycles(name, values[0::2], values[1::2], ends.counts, lambda: load.in_order(channels[0]), dimension)
