"""What an event may hold: a load that says what it is able to give."""

from __future__ import annotations

from abc import ABC, abstractmethod
from collections.abc import Callable, Iterator, Mapping
from typing import Any, ClassVar, Literal, NamedTuple

import numpy as np

from vivid_anvil.counting.cycles import Cycles
from vivid_anvil.counting.gate import Gated
from vivid_anvil.counting.load_sequence import LoadSequence
from vivid_anvil.ground.checks import FloatArray
from vivid_anvil.ground.choices import Choices
from vivid_anvil.ground.errors import InputError
from vivid_anvil.histories.channel import Channel, channel_named
from vivid_anvil.units import UnitSystem
from vivid_anvil.writing.finding import Finding
from vivid_anvil.writing.working import Step

Give = Literal["samples", "cycles", "order", "lines", "cross-spectra"]
WORDS: dict[str, str] = {
    "samples": "its course in time",
    "cycles": "cycles of a channel",
    "order": "the order of its turning points",
    "lines": "amplitudes over frequency",
    "cross-spectra": "PSDs and cross-spectra over frequency",
}


class Samples(NamedTuple):
    """Channels side by side: at `sample_rate`, Hz, and `steps` as of a history; or gone through `passes` times and round."""

    channels: tuple[Channel, ...]
    sample_rate: float
    steps: Literal["even", "uneven", "none"]
    passes: float | None = None

    def channel(self, name: str) -> Channel:
        """The channel of that name."""
        return channel_named(self.channels, name, "a load")


class Ends(NamedTuple):
    """Both ends of each cycle that is specified, first and other in turn, and how often each cycle is."""

    channel: Channel
    counts: FloatArray


class WorkedCycle(NamedTuple):
    """A cycle that is worked by hand: of an event, its local range, MPa, its frequency, Hz (nan where it has none).

    `scale` is local stress over what the load gives; `damage` is that of all its cycles in one occurrence, `critical` the sum.
    """

    event: str
    range: float
    frequency: float
    scale: float
    formula: str
    slope: float | None
    damage: float
    critical: float


class TensorView(NamedTuple):
    """How six stress components over frequency are seen as one stress.

    `forms` have squares that sum up to that of the stress, None where no random process stands for it; `amplitude` gives that of
    turning tensors, complex (n, 6) to (n,); `value` that of tensors at rest; `constant` is there all the time.
    """

    response: Any
    channels: tuple[str, ...]
    label: str
    forms: FloatArray | None
    amplitude: Callable[[Any], FloatArray]
    value: Callable[[FloatArray], FloatArray]
    constant: FloatArray
    straight: bool


LOADS: Choices[type[Load]] = Choices("load")  # kinds beside those that an event has keys of its own for


class Load(ABC):
    """A load of an event. What a kind of load does not give raises an InputError that says what it gives."""

    gives: ClassVar[frozenset[Give]]

    @property
    @abstractmethod
    def dimensions(self) -> dict[str, str]:
        """Names and dimensions of the channels."""

    @property
    @abstractmethod
    def duration(self) -> float | None:
        """Time that one occurrence takes, s; None where it is not known."""

    @abstractmethod
    def extremes(self, channel: Any) -> tuple[float, float]:
        """Lowest and highest load."""

    @abstractmethod
    def cycles_of(self, channel: Any, *, residue: str = "half cycles") -> Cycles:
        """Cycles of one occurrence by itself: a residue counts half cycles unless it is "repeated", as a duty cycle asks."""

    def in_order(self, channel: str) -> LoadSequence:
        """The order of one occurrence."""
        raise self.lacks("order")

    def samples(self) -> Samples:
        """The course of all channels."""
        raise self.lacks("samples")

    def ends(self, channel: str) -> Ends:
        """Both ends of the cycles that one occurrence is specified by."""
        table = self.cycles_of(channel, residue="repeated")
        both = np.column_stack([table.minimum, table.maximum]).ravel()
        return Ends(Channel(channel, both, table.dimension), table.count)

    def with_channel(self, channel: Channel) -> Load:
        """The same course with this channel alone, whose values are as many as the samples."""
        raise self.lacks("samples")

    def through(self, name: str, responses: Mapping[str, Any]) -> Load:
        """What responses, by the channels that they are of, make of the load: a load with the one channel `name`, MPa."""
        raise self.lacks("lines")

    def in_time(self) -> Load:
        """As it is looked at where six components are superposed (as here: as it is)."""
        return self

    def through_tensor(self, name: str, view: TensorView) -> Load:
        """What responses of six stress components make of the load, as the one channel `name`, MPa."""
        raise self.lacks("lines")

    def one_channel(self, channel: str) -> Load:
        """The load with that channel alone, where it may be looked at so (as here: it stays as it is)."""
        return self

    def worked(self, cycle: WorkedCycle, units: UnitSystem) -> tuple[list[Step], list[Step]]:
        """Steps to a cycle of it by hand, and steps from the damage that it does in one occurrence; none of what is counted."""
        return [], []

    def remarks(self, event: str) -> Iterator[Finding]:
        """What an expert would say of it as a load of that event, before any cycle is counted."""
        return iter(())

    @property
    def measured(self) -> Any:
        """The history that cycles come from; None where they come from none."""
        return None

    def gated(self, channel: str) -> Gated | None:
        """What a gate leaves and takes out; None without a gate."""
        return None

    @property
    def parts(self) -> tuple[Any, ...]:
        """The events of a duty cycle of its own; none of any other load."""
        return ()

    @property
    def named(self) -> dict[str, str]:
        """Loads that this one names, so that they are 0 in those that do not: with their dimensions."""
        return {}

    def with_zeros(self, dimensions: Mapping[str, str]) -> Load:
        """With a load of 0 for each of these that it could name and does not."""
        return self

    def lacks(self, what: Give) -> InputError:
        """The error for something that this kind of load does not give."""
        has = " and ".join(WORDS[one] for one in WORDS if one in self.gives)
        return InputError(
            f"load {', '.join(self.dimensions)}",
            f"a {type(self).__name__}, which gives {has} only",
            f"a load that gives {WORDS[what]}",
        )
