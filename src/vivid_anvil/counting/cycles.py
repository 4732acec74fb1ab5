"""The table of counted cycles: what every counting method gives, and what damage and growth take."""

from __future__ import annotations

from collections.abc import Mapping, Sequence
from dataclasses import dataclass, field
from types import MappingProxyType
from typing import Any

import numpy as np
from numpy.typing import ArrayLike

from vivid_anvil.ground import checks
from vivid_anvil.ground.checks import FloatArray, IntArray
from vivid_anvil.ground.errors import InputError, field_of
from vivid_anvil.units import DIMENSIONS, in_dimension, opened, plain_numbers, sound
from vivid_anvil.writing.html import html_frame

COLUMNS = ("range", "mean", "count", "start", "end", "event", "per_repeat")  # one number a cycle
PANEL = "panel"  # column of cycles that stand for a density, see `panels`
BLOCK = "block"  # column of cycles counted in parts of a made history: the number of the part
FREQUENCY = "frequency"  # column of cycles of a sine, Hz
LACKING = {PANEL: -1.0, BLOCK: -1.0, FREQUENCY: np.nan}  # where others have the column

_NONE: Mapping[str, FloatArray] = MappingProxyType({})
_OF_NOTHING: dict[str, Any] = dict(  # noqa: C408 (names are read more easily)
    dimension="stress", sample_rate=None, sources=(), lowest=None, highest=None, fixed=0.0, columns=_NONE
)


@sound
@dataclass(frozen=True, eq=False, repr=False)
class Cycles:
    """Counted cycles, one entry each, shape (k,): range and mean in the coherent unit of `dimension`.

    `count` is 1 for a full cycle, 0.5 for a half cycle, or a number of equal cycles. `start` and `end` are the samples of the two
    turning points, -1 where the cycles come from no history. `sample_rate` in Hz, or None.

    The cycles of a repeat of a duty cycle say more: `event` is the number of the source that each is of, `per_repeat` how often
    it happens in a repeat (else its count), `sources` what they are of, `lowest` and `highest` the extremes also where an event
    has no cycle. `fixed` is the part of each mean that no load factor moves. `columns` are what a method adds, by name, shape
    (k,); they stay with their cycles.

    Parameters
    ----------
    range : ndarray
        Maximum - minimum of each, in the coherent unit of `dimension`.
    mean : ndarray
        Mean of each, in the coherent unit of `dimension`.
    count : ndarray
        How often each occurs: 1, 0.5 for half cycles, or a number of equal cycles.
    start : ndarray of int, optional
        Sample at which each begins; -1 where it comes from no history.
    end : ndarray of int, optional
        Sample at which each ends; -1 likewise.
    dimension : str, default "stress"
        What the values are, such as "stress" or "force"; a name of `DIMENSIONS`.
    sample_rate : float, optional
        Samples a second, Hz, or text such as "100 Hz"; where the data say it themselves it is not needed.
    event : ndarray of int, optional
        Number of the source that each is of.
    per_repeat : ndarray, optional
        How often each happens in a repeat; by default its count.
    sources : tuple of any, optional
        What the cycles are of.
    lowest : float, optional
        Lowest value, also where no cycle has it.
    highest : float, optional
        Highest value, also where no cycle has it.
    fixed : float, default 0.0
        Part of each mean that no load factor moves.
    columns : mapping of str to ndarray, optional
        What a method adds, by name, shape (k,).

    Raises
    ------
    InputError
        For an argument of another kind, unit or range; the message says which.

    Examples
    --------
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
    event: IntArray = None  # type: ignore[assignment]
    per_repeat: FloatArray = None  # type: ignore[assignment]
    sources: tuple[Any, ...] = ()
    lowest: float | None = None
    highest: float | None = None
    fixed: float = 0.0
    columns: Mapping[str, FloatArray] = field(default_factory=dict)

    def __post_init__(self) -> None:
        checks.one_of(field_of("Cycles", "dimension"), self.dimension, tuple(DIMENSIONS))
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
            places = np.full(size, -1) if given is None else _whole(given, name)
            if places.shape != (size,):
                raise InputError(f"Cycles.{name}", f"shape {places.shape}", f"{size} sample numbers")
            object.__setattr__(self, name, checks.kept(places))
        event = np.zeros(size, dtype=np.int64) if self.event is None else _whole(self.event, "event")
        often = (
            self.count if self.per_repeat is None else plain_numbers(self.per_repeat, field_of("Cycles", "per_repeat"))
        )
        object.__setattr__(self, "event", checks.kept(event))
        object.__setattr__(self, "per_repeat", checks.kept(often))
        added = {name: checks.kept(plain_numbers(one, f"Cycles, {name}")) for name, one in self.columns.items()}
        object.__setattr__(self, "columns", MappingProxyType(added))
        for name, one in (("event", self.event), ("per_repeat", self.per_repeat), *self.columns.items()):
            if one.shape != (size,):
                raise InputError(f"Cycles.{name}", f"shape {one.shape}", f"{size} values, as many as ranges")

    def _changed(self, **changes: Any) -> Cycles:
        """The same table with some fields changed, which are sound and read-only: nothing is checked again."""
        made: Cycles = object.__new__(Cycles)
        made.__dict__.update(self.__dict__)
        made.__dict__.update(changes)
        return made

    @classmethod
    def of_columns(cls, ranges: FloatArray, means: FloatArray, count: FloatArray, per_repeat: FloatArray) -> Cycles:
        """Stress cycles of no history that a loop wrote, sound and not written to again: nothing is checked."""
        nowhere = np.broadcast_to(np.int64(-1), ranges.shape)
        event = np.broadcast_to(np.int64(0), ranges.shape)
        made: Cycles = object.__new__(cls)
        made.__dict__.update(zip(COLUMNS, (ranges, means, count, nowhere, nowhere, event, per_repeat), strict=True))
        made.__dict__.update(_OF_NOTHING)
        return made

    def __getstate__(self) -> dict[str, Any]:
        return {**self.__dict__, "columns": dict(self.columns)}

    def __setstate__(self, state: dict[str, Any]) -> None:
        self.__dict__.update(state)
        self.__dict__["columns"] = MappingProxyType(state["columns"])

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
        """The cycles of factor * load + offset: as a linear relation keeps which turning points pair up. `offset` is fixed."""
        ends = [None if one is None else factor * one + offset for one in (self.lowest, self.highest)]
        low, high = ends if None in ends else sorted(ends)  # type: ignore[type-var]
        return self._changed(
            range=checks.read_only(abs(factor) * self.range),
            mean=checks.read_only(factor * self.mean + offset),
            dimension=dimension,
            fixed=factor * self.fixed + offset,
            lowest=low,
            highest=high,
        )

    def at(self, load_factor: float | FloatArray) -> Cycles:
        """The cycles with all loads times a factor, or each with its own; what is fixed of their means stays.

        >>> Cycles(range=[100.0], mean=[60.0], count=[1.0], fixed=10.0).at(2.0).mean
        array([110.])
        """
        if isinstance(load_factor, float) and load_factor == 1.0:
            return self
        return self._changed(
            range=checks.read_only(np.abs(load_factor) * self.range),
            mean=checks.read_only(load_factor * (self.mean - self.fixed) + self.fixed),
        )

    def with_ends(self, low: FloatArray, high: FloatArray) -> Cycles:
        """The same cycles between other ends, which are sound."""
        return self._changed(range=checks.read_only(high - low), mean=checks.read_only(0.5 * low + 0.5 * high))

    def about(self, mean: float) -> Cycles:
        """The same cycles, all of their means moved by `mean`, with the loads."""
        return self._changed(mean=checks.read_only(self.mean + mean))

    def with_columns(self, columns: Mapping[str, FloatArray]) -> Cycles:
        """The same cycles with these columns in the place of those that a method added before, each of shape (k,)."""
        return self._changed(columns=MappingProxyType({name: checks.read_only(one) for name, one in columns.items()}))

    def happening(self, count: FloatArray) -> Cycles:
        """The same rows with other counts of 0 or more, also those that do not happen: others may hang on them."""
        kept = checks.read_only(count)
        return self._changed(count=kept, per_repeat=kept)

    def sampled(self, sample_rate: float | None) -> Cycles:
        """The same cycles, of samples at that rate, Hz."""
        return self._changed(sample_rate=sample_rate)

    def nowhere(self) -> Cycles:
        """The same cycles, of no history."""
        none = checks.read_only(np.full(len(self), -1))
        return self._changed(start=none, end=none)

    def fixed_at(self, fixed: float) -> Cycles:
        """The same cycles, with that part of their means moved by no load factor."""
        return self._changed(fixed=fixed)

    def alone(self) -> Cycles:
        """The same cycles as single ones: they no longer stand for a density of ranges."""
        left = {name: one for name, one in self.columns.items() if name != PANEL}
        return self._changed(columns=MappingProxyType(left))

    def among(self, samples: IntArray) -> Cycles:
        """The same cycles with the samples of the whole history, of which `samples` were counted."""
        ends = {name: checks.read_only(samples[getattr(self, name)]) for name in ("start", "end")}
        return self._changed(**ends)

    def counted(self, count: ArrayLike) -> Cycles:
        """The same cycles with other counts, shape (k,), of 0 or more; those of 0 are left out."""
        many = np.asarray(count, dtype=np.float64)
        if many.shape != self.count.shape or not (many >= 0.0).all():
            raise InputError(field_of("Cycles", "counted"), f"{many.shape} counts", f"{len(self)} counts of 0 or more")
        kept = checks.read_only(many.copy())
        return self._changed(count=kept, per_repeat=kept).chosen(many > 0.0)

    def sorted_by_range(self) -> Cycles:
        """The same cycles, the largest range first."""
        return self.chosen(np.argsort(-self.range, kind="stable"))

    def chosen(self, which: ArrayLike) -> Cycles:
        """The cycles that `which` (indices or a mask) chooses."""
        index = np.asarray(which)
        own = {name: checks.read_only(getattr(self, name)[index]) for name in COLUMNS}
        added = {name: checks.read_only(one[index]) for name, one in self.columns.items()}
        return self._changed(**own, columns=MappingProxyType(added))

    def replaced(self, which: IntArray, like: IntArray, **values: Any) -> Cycles:
        """Without the rows `which`, and with more at the end, which are as the rows `like` but for `values`; all sound."""
        stay = np.ones(len(self), dtype=bool)
        stay[which] = False
        added = values.pop("columns")
        own = {
            name: checks.read_only(
                np.concatenate([getattr(self, name)[stay], values.get(name, getattr(self, name)[like])])
            )
            for name in COLUMNS
        }
        columns = {
            name: checks.read_only(np.concatenate([one[stay], added.get(name, one[like])]))
            for name, one in self.columns.items()
        }
        return self._changed(**own, columns=MappingProxyType(columns))

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
    checks.one_of(field_of("Cycles", "dimension"), dimension, tuple(DIMENSIONS))
    made: Cycles = object.__new__(Cycles)
    of_no_event = checks.read_only(np.zeros(ranges.size, dtype=np.int64))
    made.__dict__.update(zip(COLUMNS, (*columns, of_no_event, columns[2]), strict=True))
    made.__dict__.update({**_OF_NOTHING, "dimension": dimension, "sample_rate": sample_rate})
    return made


@opened()
def joined(tables: Sequence[Cycles]) -> Cycles:
    """Several tables of the same load as one, in their order, with the columns that all of them have."""
    if not tables:
        raise InputError("joined cycles", "no table", "one or more")
    tables = [table for table in tables if len(table)] or list(tables[:1])
    kinds = dict.fromkeys(table.dimension for table in tables)
    if len(kinds) > 1:
        raise InputError("joined cycles", f"cycles of {', '.join(kinds)}", "cycles of one dimension")
    if len(tables) == 1:
        return tables[0]
    own = {name: checks.read_only(np.concatenate([getattr(table, name) for table in tables])) for name in COLUMNS}
    return tables[0]._changed(**own, columns=_added(tables))


def _added(tables: Sequence[Cycles]) -> Mapping[str, FloatArray]:
    """The columns that all tables have, and those that some have and others are known in without."""
    names = dict.fromkeys(name for table in tables for name in table.columns)
    found = {}
    for name in names:
        if name in LACKING or all(name in table.columns for table in tables):
            parts = [table.columns.get(name, np.full(len(table), LACKING.get(name))) for table in tables]
            found[name] = checks.read_only(np.concatenate(parts))
    return MappingProxyType(found)


def of_a_repeat(sources: Sequence[Any], extremes: tuple[float, float]) -> Cycles:
    """The cycles of one occurrence of every source, with the number of the source and how often each happens in a repeat."""
    tables = [source.cycles for source in sources]
    sizes = [len(table) for table in tables]
    occurrences = np.repeat(np.array([source.occurrences for source in sources], dtype=np.float64), sizes)
    own = {name: checks.read_only(np.concatenate([getattr(table, name) for table in tables])) for name in COLUMNS}
    own["event"] = checks.read_only(np.repeat(np.arange(len(tables)), sizes))
    own["per_repeat"] = checks.read_only(own["count"] * occurrences)
    low, high = extremes
    rates = {table.sample_rate for table in tables}
    rate = rates.pop() if len(rates) == 1 else None
    first: Cycles = tables[0]
    return first._changed(
        **own, columns=_added(tables), sample_rate=rate, sources=tuple(sources), lowest=low, highest=high
    )


def _whole(given: Any, name: str) -> IntArray:
    """Whole numbers of each cycle."""
    found = plain_numbers(given, field_of("Cycles", name))
    if not (found == np.floor(found)).all():
        raise InputError(field_of("Cycles", name), "numbers that are not whole", "whole numbers")
    return found.astype(np.int64)
