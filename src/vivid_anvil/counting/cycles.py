"""The table of counted cycles: what every counting method gives, and what damage and growth take."""

from __future__ import annotations

from dataclasses import dataclass
from typing import Any

import numpy as np
from numpy.typing import ArrayLike

from vivid_anvil.ground import checks
from vivid_anvil.ground.checks import FloatArray, IntArray
from vivid_anvil.ground.errors import InputError
from vivid_anvil.units import DIMENSIONS, in_dimension, plain_numbers
from vivid_anvil.writing.html import html_frame


@dataclass(frozen=True, eq=False, repr=False)
class Cycles:
    """Counted cycles, one entry each, shape (k,): range and mean in the coherent unit of `dimension`.

    `count` is 1 for a full cycle, 0.5 for a half cycle, or a number of equal cycles. `start` and `end` are the samples
    of the two turning points, -1 where the cycles come from no history. `sample_rate` in Hz, or None.

    >>> Cycles(range=[120.0, 60.0], mean=[10.0, 0.0], count=[1.0, 0.5])
    <Cycles: 1.5 cycles, largest range 120 MPa>
    """

    range: FloatArray
    mean: FloatArray
    count: FloatArray
    start: IntArray = None  # type: ignore[assignment]
    end: IntArray = None  # type: ignore[assignment]
    dimension: str = "stress"
    sample_rate: float | None = None

    def __post_init__(self) -> None:
        checks.one_of("Cycles.dimension", self.dimension, tuple(DIMENSIONS))
        for name in ("range", "mean"):
            object.__setattr__(self, name, in_dimension(getattr(self, name), self.dimension, f"Cycles.{name}"))
        size = np.size(self.range)
        for name in ("range", "mean", "count"):
            values = plain_numbers(getattr(self, name), f"Cycles.{name}")
            if values.shape != (size,):
                raise InputError(f"Cycles.{name}", f"shape {values.shape}", f"{size} values, as many as ranges")
            low, high = (float(values.min()), float(values.max())) if size else (0.0, 0.0)  # nan if any is
            if not (np.isfinite(low) and np.isfinite(high)) or (name != "mean" and low < 0.0):
                expected = "finite values" if name == "mean" else "finite values of 0 or more"
                raise InputError(f"Cycles.{name}", f"{low:g} to {high:g}", expected)
            object.__setattr__(self, name, checks.kept(values))
        for name in ("start", "end"):
            given = getattr(self, name)
            places = np.full(size, -1) if given is None else np.asarray(given, dtype=np.int64)
            if places.shape != (size,):
                raise InputError(f"Cycles.{name}", f"shape {places.shape}", f"{size} sample numbers")
            object.__setattr__(self, name, checks.kept(places))

    def __len__(self) -> int:
        return int(self.range.size)

    @property
    def total(self) -> float:
        """How many cycles, half cycles counting half."""
        return float(self.count.sum())

    @property
    def maximum(self) -> FloatArray:
        """Upper turning point of each cycle."""
        return self.mean + 0.5 * self.range

    @property
    def minimum(self) -> FloatArray:
        """Lower turning point of each cycle."""
        return self.mean - 0.5 * self.range

    @property
    def start_time(self) -> FloatArray:
        """Time of the first turning point of each cycle, s; nan where the cycles come from no history."""
        return self._time(self.start)

    @property
    def end_time(self) -> FloatArray:
        """Time of the second turning point of each cycle, s; nan where the cycles come from no history."""
        return self._time(self.end)

    def _time(self, samples: IntArray) -> FloatArray:
        rate = np.nan if self.sample_rate is None else self.sample_rate
        return np.where(samples >= 0, samples / rate, np.nan)

    def linear(self, factor: float, offset: float, dimension: str) -> Cycles:
        """The cycles of factor * load + offset: as a linear relation keeps which turning points pair up."""
        return Cycles(
            range=checks.read_only(abs(factor) * self.range),
            mean=checks.read_only(factor * self.mean + offset),
            count=self.count,
            start=self.start,
            end=self.end,
            dimension=dimension,
            sample_rate=self.sample_rate,
        )

    def sorted_by_range(self) -> Cycles:
        """The same cycles, the largest range first."""
        return self.chosen(np.argsort(-self.range, kind="stable"))

    def chosen(self, which: ArrayLike) -> Cycles:
        """The cycles that `which` (indices or a mask) chooses."""
        index = np.asarray(which)
        return Cycles(
            range=self.range[index],
            mean=self.mean[index],
            count=self.count[index],
            start=self.start[index],
            end=self.end[index],
            dimension=self.dimension,
            sample_rate=self.sample_rate,
        )

    def to_frame(self) -> Any:
        """A row a cycle, units in the headings: range, mean, count; samples and times of its ends where they are known."""
        import pandas as pd

        from vivid_anvil.units import DIMENSIONS

        unit = DIMENSIONS[self.dimension].coherent
        columns: dict[str, Any] = {f"range [{unit}]": self.range, f"mean [{unit}]": self.mean, "count": self.count}
        if len(self) and int(self.start.min()) >= 0:
            columns |= {"start sample": self.start, "end sample": self.end}
            if self.sample_rate is not None:
                columns |= {"start [s]": self.start_time, "end [s]": self.end_time}
        return pd.DataFrame(columns)

    def _repr_html_(self) -> str:
        return html_frame(repr(self).strip("<>"), self.to_frame())

    def __repr__(self) -> str:
        from vivid_anvil.units import DIMENSIONS, number

        if not len(self):
            return "<Cycles: none>"
        unit = DIMENSIONS[self.dimension].coherent
        return f"<Cycles: {self.total:g} cycles, largest range {number(float(self.range.max()))} {unit}>"


def written_by_a_loop(columns: tuple[Any, ...], dimension: str, sample_rate: float | None) -> Cycles:
    """Range, mean, count, start and end as a loop wrote them, read-only, from finite samples: only an overflow is looked for.

    The checks of a table from elsewhere pass over each column twice, a tenth of the time of counting.
    """
    ranges = columns[0]
    if ranges.size and not np.isfinite(ranges.max()):
        raise InputError("cycles", "a range beyond the largest number", "samples whose differences are finite")
    checks.one_of("Cycles.dimension", dimension, tuple(DIMENSIONS))
    made = object.__new__(Cycles)
    for name, value in zip(("range", "mean", "count", "start", "end"), columns, strict=True):
        object.__setattr__(made, name, value)
    object.__setattr__(made, "dimension", dimension)
    object.__setattr__(made, "sample_rate", sample_rate)
    return made
