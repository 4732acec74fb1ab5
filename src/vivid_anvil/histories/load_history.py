"""A load history: channels sampled over time, each with a name and a unit."""

from __future__ import annotations

from collections.abc import Iterable
from concurrent.futures import ThreadPoolExecutor
from dataclasses import dataclass
from typing import Any, ClassVar

import numpy as np

from vivid_anvil.counting.cycles import Cycles
from vivid_anvil.counting.load_sequence import LoadSequence
from vivid_anvil.counting.rainflow import four_point, rainflow
from vivid_anvil.ground import checks
from vivid_anvil.ground.checks import FloatArray
from vivid_anvil.ground.errors import InputError, field_of, inside
from vivid_anvil.histories.channel import STEPS, Channel, Steps, channel_named, check_channels
from vivid_anvil.histories.load import Give, Load, Samples
from vivid_anvil.units import DIMENSIONS, Coherent, sound
from vivid_anvil.writing.html import html_frame


@sound
@dataclass(frozen=True, eq=False, repr=False)
class LoadHistory(Load):
    """Channels of equal length, sampled at `sample_rate` (Hz, or text such as "100 Hz"), with a name.

    `repairs` says in words what was done to it since it was read; `jitter` is the largest deviation of a step of its time column
    from the mean step, as a share of it. `steps` are "even"; or "uneven" or "none" where the samples are peaks and valleys at any
    times or at none: `sample_rate` is their mean rate then, or says nothing, and no cycle has times.

    Parameters
    ----------
    name : str
        What it is called in messages, tables and reports.
    channels : tuple of Channel
        The channels.
    sample_rate : float or text with a unit
        Samples a second, Hz, or text such as "100 Hz"; where the data say it themselves it is not needed.
    repairs : tuple of str, optional
        What was repaired, in words.
    jitter : float, default 0.0
        Largest deviation of the times from even steps, as a share of a step, -.
    steps : Steps, default "even"
        What was done to it.

    Raises
    ------
    InputError
        For an argument of another kind, unit or range; the message says which.

    Examples
    --------
    >>> history = LoadHistory("lap", [Channel.in_unit("vertical force", [3.1, 4.2, 2.9], "kN")], "100 Hz")
    >>> history["vertical force"].values
    array([3100., 4200., 2900.])
    """

    name: str
    channels: tuple[Channel, ...]
    sample_rate: Coherent = Coherent("frequency", above=0.0)
    repairs: tuple[str, ...] = ()
    jitter: float = 0.0
    steps: Steps = "even"
    gives: ClassVar[frozenset[Give]] = frozenset({"samples", "cycles", "order"})

    def __post_init__(self) -> None:
        checks.text(field_of("LoadHistory", "name"), self.name)
        object.__setattr__(self, "channels", tuple(self.channels))
        checks.one_of(inside(f"history {self.name}", "steps"), self.steps, STEPS)
        check_channels(self.channels, f"history {self.name}")

    def __getitem__(self, name: str) -> Channel:
        return channel_named(self.channels, name, f"history {self.name}")

    @property
    def counting_rate(self) -> float | None:
        """The sample rate where samples have times, Hz; None otherwise."""
        return self.sample_rate if self.steps == "even" else None

    @property
    def duration(self) -> float | None:
        """Time from the first to the last sample, s; None where samples have no times."""
        return None if self.steps == "none" else float((len(self.channels[0]) - 1) / self.sample_rate)

    @property
    def course(self) -> str:
        """Duration and rate in words."""
        if self.steps == "even":
            return f"{self.duration:.4g} s at {self.sample_rate:.4g} Hz"
        points = f"{len(self.channels[0])} peaks and valleys"
        return points if self.duration is None else f"{points} in {self.duration:.4g} s"

    @property
    def time(self) -> FloatArray:
        """Time of each sample from the start, s; InputError for peaks and valleys without even times."""
        self.timed("times")
        return np.arange(len(self.channels[0])) / self.sample_rate

    def timed(self, what: str) -> None:
        """InputError unless the samples stand at even steps; `what` needs them to."""
        if self.steps != "even":
            raise InputError(
                f"history {self.name}", "peaks and valleys without even times", f"samples at even steps: {what}"
            )

    def samples(self) -> Samples:
        """All channels, as they are."""
        return Samples(self.channels, self.sample_rate, self.steps)

    def with_channel(self, channel: Channel) -> LoadHistory:
        """A history of this channel alone, at the same times."""
        return LoadHistory(self.name, (channel,), self.sample_rate, steps=self.steps)

    @property
    def measured(self) -> LoadHistory:
        """Itself."""
        return self

    @property
    def dimensions(self) -> dict[str, str]:
        """Names and dimensions of the channels."""
        return {channel.name: channel.dimension for channel in self.channels}

    def extremes(self, channel: str) -> tuple[float, float]:
        """Lowest and highest value of one channel."""
        values = self[channel].values
        return float(values.min()), float(values.max())

    def in_order(self, channel: str) -> LoadSequence:
        """The closed cycles of one channel, and its residue as the one step."""
        chosen = self[channel]
        count = four_point(chosen.values, dimension=chosen.dimension, sample_rate=self.counting_rate)
        return LoadSequence(count.cycles, ((count.residue.values, 1.0),))

    def cycles_of(self, channel: str, *, residue: str = "half cycles") -> Cycles:
        """Rainflow cycles of one channel, the residue as half cycles unless it is "repeated"; see `rainflow`."""
        chosen = self[channel]
        return rainflow(chosen.values, residue=residue, dimension=chosen.dimension, sample_rate=self.counting_rate)

    def cycles_of_all(self, *, residue: str = "half cycles", threads: int = 2) -> dict[str, Cycles]:
        """Rainflow cycles of every channel by name, the residue as `cycles_of` takes it; channels run side by side."""
        names = [channel.name for channel in self.channels]
        with ThreadPoolExecutor(max_workers=max(1, threads)) as pool:
            tables = pool.map(lambda name: self.cycles_of(name, residue=residue), names)
            return dict(zip(names, tables, strict=True))

    def to_frame(self) -> Any:
        """The samples as a data frame, units in the headings; the time first, where samples have one."""
        import pandas as pd

        columns = {
            f"{channel.name} [{DIMENSIONS[channel.dimension].coherent}]": channel.values for channel in self.channels
        }
        return pd.DataFrame({**({"time [s]": self.time} if self.steps == "even" else {}), **columns})

    def _repr_html_(self) -> str:
        return html_frame(repr(self).strip("<>"), self.to_frame())

    def __repr__(self) -> str:
        names: Iterable[str] = (channel.name for channel in self.channels)
        return f"<LoadHistory {self.name}: {self.course}, {', '.join(names)}>"
