"""Loads from a specification: block programmes (rows in order) and load spectra (classes without order).

In: rows of maximum and minimum or level, with counts; or of range, with counts or exceedance. Out: cycles.
"""

from __future__ import annotations

from collections.abc import Mapping, Sequence
from dataclasses import dataclass, field
from pathlib import Path
from typing import Any, ClassVar

import numpy as np
from numpy.typing import ArrayLike

from vivid_anvil.counting.counter import RESIDUES
from vivid_anvil.counting.cycles import Cycles
from vivid_anvil.counting.exceedance import classes_of_exceedance
from vivid_anvil.counting.load_sequence import LoadSequence
from vivid_anvil.ground import checks
from vivid_anvil.ground.checks import FloatArray
from vivid_anvil.ground.errors import InputError, field_of, inside, listed
from vivid_anvil.histories.load import Give, Load
from vivid_anvil.units import DIMENSIONS, dimension_of, factor, in_dimension, one, opened
from vivid_anvil.writing.known_table import read_known
from vivid_anvil.writing.read_table import column_numbers


@dataclass(frozen=True, eq=False, repr=False)
class BlockProgramme(Load):
    """Rows of `cycles` equal cycles between `maximum` and `minimum`, in order, in the coherent unit of `dimension`.

    >>> programme = BlockProgramme("force", maximum=[3e3, 2e3], minimum=[0.0, 1e3], cycles=[10, 500], dimension="force")
    >>> programme
    <BlockProgramme force: 2 blocks, 510 cycles>
    """

    channel: str
    maximum: FloatArray
    minimum: FloatArray
    cycles: FloatArray
    dimension: str = "stress"
    names: tuple[str, ...] = ()
    frequency: float | None = None
    gives: ClassVar[frozenset[Give]] = frozenset({"cycles", "order"})

    def __post_init__(self) -> None:
        where = f"block programme of {self.channel}"
        checks.text(field_of("BlockProgramme", "channel"), self.channel)
        checks.one_of(inside(where, "dimension"), self.dimension, tuple(DIMENSIONS))
        for name in ("maximum", "minimum"):
            object.__setattr__(self, name, in_dimension(getattr(self, name), self.dimension, inside(where, f"{name}")))
        for name in ("maximum", "minimum", "cycles"):
            values = checks.finite_samples(getattr(self, name), where=inside(where, f"{name}"), unit="")
            object.__setattr__(self, name, checks.kept(np.array(values)))
        if not self.maximum.size == self.minimum.size == self.cycles.size:
            raise InputError(where, "columns of different lengths", "one maximum, minimum and count a row")
        _refuse_rows(where, self.maximum < self.minimum, "a maximum below the minimum", "maximum above minimum")
        _refuse_rows(where, ~(self.cycles > 0.0), "a count that is not above 0", "cycles above 0")

    @property
    def dimensions(self) -> dict[str, str]:
        """The channel and its dimension."""
        return {self.channel: self.dimension}

    @property
    def duration(self) -> float | None:
        """Time that the cycles take, s; None where no frequency is stated."""
        return None if self.frequency is None else float(self.cycles.sum()) / self.frequency

    def extremes(self, channel: str) -> tuple[float, float]:
        """Lowest and highest load."""
        return float(self.minimum.min()), float(self.maximum.max())

    def cycles_of(self, channel: str, *, residue: str = "half cycles") -> Cycles:
        """Each block as the cycles it is specified by; there is no residue."""
        _known(self, channel, residue)
        return Cycles(
            range=self.maximum - self.minimum,
            mean=0.5 * (self.maximum + self.minimum),
            count=self.cycles,
            dimension=self.dimension,
        )

    def in_order(self, channel: str) -> LoadSequence:
        """The blocks in their order."""
        none = self.cycles_of(channel).chosen(np.zeros(self.cycles.size, dtype=bool))
        rows = zip(self.minimum, self.maximum, self.cycles, strict=True)
        return LoadSequence(none, tuple((np.array([low, high, low]), float(times)) for low, high, times in rows))

    def __repr__(self) -> str:
        return f"<BlockProgramme {self.channel}: {self.cycles.size} blocks, {self.cycles.sum():g} cycles>"


@dataclass(frozen=True, eq=False, repr=False)
class LoadSpectrum(Load):
    """Classes of cycles without order: `table` in the unit of the load, for one occurrence.

    >>> LoadSpectrum("force", Cycles(range=[3e3, 1e3], mean=[0.0, 0.0], count=[10.0, 1e4], dimension="force"))
    <LoadSpectrum force: 2 classes, 10010 cycles>
    """

    channel: str
    table: Cycles
    duration: float | None = field(default=None)
    gives: ClassVar[frozenset[Give]] = frozenset({"cycles"})

    def __post_init__(self) -> None:
        checks.text(field_of("LoadSpectrum", "channel"), self.channel)
        if not isinstance(self.table, Cycles):
            raise InputError(
                f"load spectrum of {self.channel}",
                f"a {type(self.table).__name__}",
                "Cycles",
                "load_spectrum takes columns.",
            )
        if not len(self.table):
            raise InputError(f"load spectrum of {self.channel}", "no class", "at least one")

    @property
    def dimensions(self) -> dict[str, str]:
        """The channel and its dimension."""
        return {self.channel: self.table.dimension}

    def extremes(self, channel: str) -> tuple[float, float]:
        """Lowest and highest load."""
        return float(self.table.minimum.min()), float(self.table.maximum.max())

    def cycles_of(self, channel: str, *, residue: str = "half cycles") -> Cycles:
        """The classes; there is no residue."""
        _known(self, channel, residue)
        return self.table

    def in_order(self, channel: str) -> LoadSequence:
        """A spectrum has no order: InputError."""
        raise InputError(
            f"load spectrum of {self.channel}",
            "a load without order",
            "a history, a block programme or a constant amplitude",
            'Choose between = "each by itself" or "worst case".',
        )

    def __repr__(self) -> str:
        return f"<LoadSpectrum {self.channel}: {len(self.table)} classes, {self.table.total:g} cycles>"


# The columns that a table of rows may have: those with the unit of the load, and those without.
_LOAD_COLUMNS = ("maximum", "minimum", "level", "range", "amplitude", "mean")
_OTHER_COLUMNS = ("cycles", "exceedance", "r_ratio", "name")


@opened(frequency=one("frequency", above=0.0, optional=True))
def block_programme(
    channel: str, rows: Mapping[str, Any], unit: str, *, frequency: float | None = None
) -> BlockProgramme:
    """A programme from columns: cycles, and maximum with minimum, or level (half of the range) with mean or r_ratio (else -1).

    Parameters
    ----------
    channel : str
        The load that the levels are of.
    rows : mapping of str to sequence
        Rows of the programme: range, or maximum and minimum, and cycles.
    unit : str
        Unit of the numbers.
    frequency : float or text with a unit, optional
        How often a second, Hz or text.

    Returns
    -------
    BlockProgramme
        The programme, a load for an event.

    Raises
    ------
    InputError
        For an argument of another kind, unit or range; the message says which.

    Examples
    --------
    >>> block_programme("force", {"level": [2.0, 1.0], "cycles": [10, 100]}, "kN").minimum
    array([-2000., -1000.])
    """
    where = f"block programme of {channel}"
    columns = _columns(rows, where)
    high, low = _limits(columns, where)
    dimension = dimension_of(unit, where)
    scale = factor(unit, dimension, where)
    names = tuple(str(name) for name in _names(rows.get("name", ()), where))
    return BlockProgramme(
        channel, scale * high, scale * low, _needed(columns, "cycles", where), dimension.name, names, frequency
    )


@opened()
def load_spectrum(channel: str, rows: Mapping[str, Any], unit: str) -> LoadSpectrum:
    """A spectrum from columns: range (or amplitude), with cycles or exceedance, and mean or r_ratio (else mean 0).

    Parameters
    ----------
    channel : str
        The channel, by its name.
    rows : mapping of str to sequence
        Rows of level and cycles.
    unit : str
        Unit of the numbers.

    Returns
    -------
    LoadSpectrum
        The spectrum, a load for an event.

    Raises
    ------
    InputError
        For an argument of another kind, unit or range; the message says which.

    Examples
    --------
    >>> load_spectrum("force", {"range": [3.0, 1.0], "exceedance": [10, 1000]}, "kN").table.count
    array([ 10., 990.])
    """
    where = f"load spectrum of {channel}"
    columns = _columns(rows, where)
    _names(rows.get("name", ()), where)
    dimension = dimension_of(unit, where)
    scale = factor(unit, dimension, where)
    high, low = _limits(columns, where)
    if "exceedance" in columns:
        count = classes_of_exceedance(high - low, columns["exceedance"], where=where).count
    else:
        count = _needed(columns, "cycles", where)
        _refuse_rows(where, ~(count > 0.0), "a count that is not above 0", "cycles above 0")
    table = Cycles(range=scale * (high - low), mean=scale * 0.5 * (high + low), count=count, dimension=dimension.name)
    return LoadSpectrum(channel, table)


@opened(frequency=one("frequency", above=0.0, optional=True))
def read_programme(
    path: str | Path,
    *,
    channel: str,
    sheet: str | int = 0,
    block: int | str | None = None,
    frequency: float | None = None,
) -> BlockProgramme:
    r"""A block programme from a CSV or Excel file with columns such as `maximum [kN],minimum [kN],cycles,name`.

    Headings may be as people write them (`Max (kN)`, `N`), titles may stand above; `block` chooses one of several blocks of
    columns side by side.

    Parameters
    ----------
    path : str or path
        The file.
    channel : str
        The channel, by its name.
    sheet : str or int, default 0
        Sheet of a workbook, by its name or its number from 0.
    block : int or str, optional
        Which of several blocks of columns side by side, from 1.
    frequency : float or text with a unit, optional
        How often a second, Hz or text.

    Returns
    -------
    BlockProgramme
        The programme, a load for an event.

    Raises
    ------
    InputError
        For an argument of another kind, unit or range; the message says which.

    Examples
    --------
    >>> from pathlib import Path
    >>> _ = Path("blocks.csv").write_text("maximum [kN],minimum [kN],cycles\n8,2,1000\n14,2,20\n")
    >>> read_programme("blocks.csv", channel="force")
    <BlockProgramme force: 2 blocks, 1020 cycles>
    """
    rows, unit = _rows(Path(path), sheet, block)
    return block_programme(channel, rows, unit, frequency=frequency)


@opened()
def read_spectrum(
    path: str | Path, *, channel: str, sheet: str | int = 0, block: int | str | None = None
) -> LoadSpectrum:
    r"""A load spectrum from a CSV or Excel file with columns such as `range [kN],cycles` or `range [kN],exceedance`.

    Headings, titles and blocks as in `read_programme`.

    Parameters
    ----------
    path : str or path
        The file.
    channel : str
        The channel, by its name.
    sheet : str or int, default 0
        Sheet of a workbook, by its name or its number from 0.
    block : int or str, optional
        Which of several blocks of columns side by side, from 1.

    Returns
    -------
    LoadSpectrum
        The spectrum, a load for an event.

    Raises
    ------
    InputError
        For an argument of another kind, unit or range; the message says which.

    Examples
    --------
    >>> from pathlib import Path
    >>> _ = Path("spectrum.csv").write_text("range [kN],cycles\n12,100\n4,20000\n")
    >>> read_spectrum("spectrum.csv", channel="force")
    <LoadSpectrum force: 2 classes, 20100 cycles>
    """
    rows, unit = _rows(Path(path), sheet, block)
    return load_spectrum(channel, rows, unit)


def _rows(path: Path, sheet: str | int, block: int | str | None) -> tuple[dict[str, list[Any]], str]:
    """Columns by name, and the one unit of those that carry a load."""
    table = read_known(path, (*_LOAD_COLUMNS, *_OTHER_COLUMNS), what="a file of rows", sheet=sheet, block=block)
    units = {head.unit for head in table.headings if head.column in _LOAD_COLUMNS}
    if len(units) != 1 or "" in units:
        found = f"the columns {', '.join(head.cell for head in table.headings)}"
        raise InputError(table.where, found, "one unit for all loads", "Head a column for instance 'maximum [kN]'.")
    unit = units.pop()
    dimension_of(unit, table.where)
    rows: dict[str, list[Any]] = {}
    for heading in table.headings:
        column = table.frame[heading.column]
        where = f"{table.where}, column {heading.cell!r}"
        named = heading.column == "name"
        rows[heading.column] = column.fillna("").tolist() if named else column_numbers(column, where).tolist()
    return rows, unit


def _columns(rows: Mapping[str, Any], where: str) -> dict[str, FloatArray]:
    columns = {}
    if not isinstance(rows, Mapping):
        raise InputError(where, f"a {type(rows).__name__}", "columns by their names")
    many = max((len(values) for values in rows.values() if not _single(values)), default=1)
    for name, given in rows.items():
        if isinstance(given, Mapping):
            raise InputError(inside(where, f"{name}"), "a table", "a list of numbers, one a row")
        values = [given] * many if _single(given) else given  # one number holds in every row
        if name not in (*_LOAD_COLUMNS, *_OTHER_COLUMNS):
            raise InputError(where, f"the column {name!r}", f"one of {listed((*_LOAD_COLUMNS, *_OTHER_COLUMNS))}")
        if name != "name":
            for row, value in enumerate(values, start=1):
                checks.real_number(inside(where, f"row {row}, {name}"), value)
            columns[name] = checks.finite_samples(
                np.asarray(values, dtype=np.float64), where=inside(where, f"{name}"), unit=""
            )
    if len({values.size for values in columns.values()}) > 1:
        raise InputError(where, "columns of different lengths", "a value in every row")
    return columns


def _names(values: Any, where: str) -> Sequence[Any]:
    if _single(values):
        raise InputError(inside(where, "name"), repr(values), "a list of names, one a row")
    found: Sequence[Any] = values
    return found


def _single(values: Any) -> bool:
    return isinstance(values, str) or not hasattr(values, "__len__")


def _limits(columns: dict[str, FloatArray], where: str) -> tuple[FloatArray, FloatArray]:
    """Maximum and minimum from whichever columns there are."""
    if "maximum" in columns or "minimum" in columns:
        return _needed(columns, "maximum", where), _needed(columns, "minimum", where)
    halves = [
        columns[name] * (0.5 if name == "range" else 1.0) for name in ("level", "amplitude", "range") if name in columns
    ]
    if len(halves) != 1:
        raise InputError(
            where, f"the columns {listed(columns)}", "maximum and minimum, or one of level, amplitude and range"
        )
    _refuse_rows(where, ~(halves[0] > 0.0), "a range that is not above 0", "ranges above 0")
    if "r_ratio" in columns:
        _refuse_rows(where, ~(columns["r_ratio"] < 1.0), "an r_ratio of 1 or more", "minimum / maximum below 1")
        mean = halves[0] * (1.0 + columns["r_ratio"]) / (1.0 - columns["r_ratio"])
    else:
        mean = columns.get("mean", np.zeros(halves[0].size))
    return mean + halves[0], mean - halves[0]


def _needed(columns: dict[str, FloatArray], name: str, where: str) -> FloatArray:
    if name not in columns:
        raise InputError(where, f"the columns {listed(columns)}", f"a column {name!r}")
    return columns[name]


def _refuse_rows(where: str, bad: ArrayLike, found: str, expected: str) -> None:
    rows = np.flatnonzero(bad)
    if rows.size:
        raise InputError(inside(where, f"row {rows[0] + 1}"), found, expected)


def _known(load: BlockProgramme | LoadSpectrum, channel: str, residue: str) -> None:
    checks.one_of("residue", residue, tuple(RESIDUES))
    checks.one_of(inside(f"{load!r}", "channel"), channel, tuple(load.dimensions))
