"""A load history: channels sampled over time, each with a name and a unit."""

from __future__ import annotations

from collections.abc import Iterable, Mapping, Sequence
from concurrent.futures import ThreadPoolExecutor
from dataclasses import dataclass
from typing import Any, ClassVar, Literal, get_args

import numpy as np
from numpy.typing import ArrayLike

from vivid_anvil.counting.cycles import Cycles
from vivid_anvil.counting.load_sequence import LoadSequence
from vivid_anvil.counting.rainflow import four_point, rainflow
from vivid_anvil.ground import checks
from vivid_anvil.ground.checks import FloatArray
from vivid_anvil.ground.errors import InputError, did_you_mean, listed
from vivid_anvil.histories.load import Give, Load, Samples
from vivid_anvil.units import DIMENSIONS, Coherent, dimension_of, factor, in_dimension, unit_of
from vivid_anvil.writing.html import html_frame

Steps = Literal["even", "uneven", "none"]
STEPS: tuple[str, ...] = get_args(Steps)


@dataclass(frozen=True, eq=False, repr=False)
class Channel:
    """One measured quantity: `values`, shape (n,), in the coherent unit of `dimension`.

    >>> Channel.in_unit("vertical force", [3.1, 4.2, 2.9], "kN")
    <Channel vertical force: 3 samples, 2900 to 4200 N>
    """

    name: str
    values: FloatArray
    dimension: str

    def __post_init__(self) -> None:
        checks.text("Channel.name", self.name)
        checks.one_of(f"channel {self.name}, dimension", self.dimension, tuple(DIMENSIONS))
        unit = DIMENSIONS[self.dimension].coherent
        values = in_dimension(self.values, self.dimension, f"channel {self.name}")
        checks.finite_samples(values, where=f"channel {self.name}", unit=unit)
        object.__setattr__(self, "values", checks.kept(np.asarray(values, dtype=np.float64)))

    @classmethod
    def in_unit(cls, name: str, values: ArrayLike, unit: str) -> Channel:
        """A channel from values in any unit of the trade; InputError where they carry another unit of their own."""
        dimension = dimension_of(unit, f"channel {name}")
        own = unit_of(values, f"channel {name}")
        if own is not None:
            if factor(own, dimension, f"channel {name}") != factor(unit, dimension, f"channel {name}"):
                raise InputError(
                    f"channel {name}", f"values in {own}", f"values in {unit}, as is said", "Say one unit."
                )
            values = getattr(values, "magnitude", getattr(values, "values", values))
        samples = checks.finite_samples(values, where=f"channel {name}", unit=unit)
        scale = 1.0 if dimension.name == "number" else factor(unit, dimension, f"channel {name}")
        return cls(name, checks.read_only(samples * scale), dimension.name)

    def __len__(self) -> int:
        return int(self.values.size)

    def __array__(self, dtype: object = None, copy: bool | None = None) -> FloatArray:
        return np.array(self.values, dtype=dtype, copy=copy)  # type: ignore[call-overload, no-any-return]

    def __repr__(self) -> str:
        unit = DIMENSIONS[self.dimension].coherent
        return f"<Channel {self.name}: {len(self)} samples, {self.values.min():.4g} to {self.values.max():.4g} {unit}>"


def check_channels(channels: Sequence[Channel], where: str) -> None:
    """InputError unless there are channels, each with a name of its own, all equally long."""
    if not channels:
        raise InputError(where, "no channel", "at least one channel")
    names = [channel.name for channel in channels]
    for name in names:
        if names.count(name) > 1:
            raise InputError(f"{where}, channel {name}", "the same name twice", "a different name for each channel")
    lengths = {channel.name: len(channel) for channel in channels}
    if len(set(lengths.values())) > 1:
        raise InputError(where, f"channels of {lengths} samples", "channels of equal length")


def channel_named(channels: Sequence[Channel], name: str, where: str) -> Channel:
    """The channel of that name; InputError with the nearest one where there is none."""
    for channel in channels:
        if channel.name == name:
            return channel
    known = [channel.name for channel in channels]
    raise InputError(where, f"no channel {name!r}", f"one of {listed(known)}", did_you_mean(name, known))


def sum_of(channels: Sequence[Channel], name: str, factors: Mapping[str, float]) -> Channel:
    """The channel `name`, MPa, that is the sum of factor × channel."""
    total = sum(factor * channel_named(channels, one, name).values for one, factor in factors.items())
    return Channel(name, checks.read_only(np.asarray(total)), "stress")


@dataclass(frozen=True, eq=False, repr=False)
class LoadHistory(Load):
    """Channels of equal length, sampled at `sample_rate` (Hz, or text such as "100 Hz"), with a name.

    `repairs` says in words what was done to it since it was read; `jitter` is the largest deviation of a step of its time
    column from the mean step, as a share of it. `steps` are "even"; or "uneven" or "none" where the samples are peaks and
    valleys at any times or at none: `sample_rate` is their mean rate then, or says nothing, and no cycle has times.

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
        checks.text("LoadHistory.name", self.name)
        object.__setattr__(self, "channels", tuple(self.channels))
        checks.one_of(f"history {self.name}, steps", self.steps, STEPS)
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

    def combined(self, name: str, factors: Mapping[str, float]) -> LoadHistory:
        """The sum of factor × channel, MPa, as a history of one channel."""
        return LoadHistory(self.name, (sum_of(self.channels, name, factors),), self.sample_rate, steps=self.steps)

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
        """Rainflow cycles of one channel; see `rainflow`."""
        chosen = self[channel]
        return rainflow(chosen.values, residue=residue, dimension=chosen.dimension, sample_rate=self.counting_rate)

    def cycles_of_all(self, *, residue: str = "half cycles", threads: int = 2) -> dict[str, Cycles]:
        """Rainflow cycles of every channel by name; the loop lets go of the interpreter, so channels run side by side."""
        names = [channel.name for channel in self.channels]
        with ThreadPoolExecutor(max_workers=max(1, threads)) as pool:
            tables = pool.map(lambda name: self.cycles_of(name, residue=residue), names)
            return dict(zip(names, tables, strict=True))

    @classmethod
    def from_frame(
        cls,
        frame: Any,
        name: str = "data frame",
        *,
        sample_rate: float | str | None = None,
        rows: str = "samples at even steps",
    ) -> LoadHistory:
        """A history from a data frame whose columns are headed with units, `time [s]`, `force [kN]`.

        Without a time column the index is the time where it is named as one (`time [s]`), else `sample_rate` is needed.
        Raises InputError as readers of files do.

        >>> import pandas as pd
        >>> LoadHistory.from_frame(pd.DataFrame({"time [s]": [0.0, 0.1, 0.2], "force [kN]": [1.0, 3.0, 2.0]}))
        <LoadHistory data frame: 0.2 s at 10 Hz, force>
        """
        from vivid_anvil.histories.columns import history_of
        from vivid_anvil.writing.read_table import column_numbers, headers

        if not hasattr(frame, "columns"):
            raise InputError("load history", f"a {type(frame).__name__}", "a data frame")
        whole = frame.reset_index() if "[" in str(frame.index.name) else frame
        cells = [str(cell) for cell in whole.columns]
        heads = headers(cells, lambda i: f"{name}, column {i + 1}")
        columns = [column_numbers(whole.iloc[:, i], f"{name}, column {cell!r}") for i, cell in enumerate(cells)]
        return history_of(name, heads, columns, sample_rate, name, 1, rows)

    def to_frame(self) -> Any:
        """The samples as a data frame, units in the headings; the time first, where samples have one."""
        import pandas as pd

        columns = {f"{one.name} [{DIMENSIONS[one.dimension].coherent}]": one.values for one in self.channels}
        return pd.DataFrame({**({"time [s]": self.time} if self.steps == "even" else {}), **columns})

    def _repr_html_(self) -> str:
        return html_frame(repr(self).strip("<>"), self.to_frame())

    def __repr__(self) -> str:
        names: Iterable[str] = (channel.name for channel in self.channels)
        return f"<LoadHistory {self.name}: {self.course}, {', '.join(names)}>"
