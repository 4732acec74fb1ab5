"""Read load histories from binary and workbook files: Excel, Parquet, HDF5, NumPy, MDF 4.

Each needs units: in the headers (`force [kN]`), in the file's own unit fields, or given. Each error names file, sheet,
row or channel.
"""

from __future__ import annotations

import math
from collections.abc import Mapping, Sequence
from pathlib import Path
from typing import Any

import numpy as np

from vivid_anvil.ground.checks import FloatArray, one_row
from vivid_anvil.ground.errors import InputError, did_you_mean, inside, listed
from vivid_anvil.ground.extras import needed
from vivid_anvil.ground.files import existing, first_line, fits_memory, read_by_others
from vivid_anvil.histories.columns import EVEN, history_of
from vivid_anvil.histories.load_history import LoadHistory
from vivid_anvil.units import opened
from vivid_anvil.writing.headings import name_and_unit
from vivid_anvil.writing.read_table import DATE_TIME, Header, headers, workbook


@read_by_others("an .xlsx workbook")
@opened()
def read_excel(
    path: str | Path,
    *,
    sheet: str | int = 0,
    header_row: int = 1,
    sample_rate: float | str | None = None,
    name: str | None = None,
    units: Mapping[str, str] | None = None,
    rows: str = EVEN,
) -> LoadHistory:
    """The load history on a sheet (by name, or number from 0) of an Excel workbook; `header_row` counts from 1.

    Parameters
    ----------
    path : str or path
        The file.
    sheet : str or int, default 0
        Sheet of a workbook, by its name or its number from 0.
    header_row : int, default 1
        Row of the headings, from 1.
    sample_rate : float or str, optional
        Samples a second, Hz, or text such as "100 Hz"; where the data say it themselves it is not needed.
    name : str, optional
        What it is called in messages, tables and reports.
    units : mapping of str to str, optional
        Units of columns whose heading has none.
    rows : str, default "samples at even steps"
        What a row is: "samples at even steps", or "peaks and valleys", whose times may be uneven or missing.

    Returns
    -------
    LoadHistory
        The history, with its channels in their units.

    Raises
    ------
    InputError
        For an argument of another kind, unit or range; the message says which.

    Examples
    --------
    >>> history.to_frame().head(200).to_excel("lap.xlsx", index=False)  # history of the demo
    >>> read_excel("lap.xlsx")
    <LoadHistory lap: 1.99 s at 100 Hz, vertical force>
    """
    path = existing(path)
    frame, where = workbook(path, sheet, header_row)
    cells = [str(cell) for cell in frame.columns]
    heads = headers(cells, lambda i: inside(where, f"row {header_row}, column {i + 1}"), units)
    columns = [_excel_column(frame.iloc[:, i], head, where, header_row) for i, head in enumerate(heads)]
    return history_of(name or path.stem, heads, columns, sample_rate, where, header_row + 1, rows)


def _excel_column(column: Any, head: Header, where: str, header_row: int) -> FloatArray:
    import pandas as pd

    if head.unit == DATE_TIME:
        times = pd.to_datetime(column, errors="coerce")
        bad = np.flatnonzero(times.isna().to_numpy())
        values = ((times - pd.Timestamp(1970, 1, 1)) // pd.Timedelta(microseconds=1)).to_numpy(dtype=np.float64)
    else:
        numbers = pd.to_numeric(column, errors="coerce")
        bad = np.flatnonzero(numbers.isna().to_numpy())
        values = numbers.to_numpy(dtype=np.float64)
    if bad.size:
        cell = column.iloc[bad[0]]
        raise InputError(
            inside(where, f"row {int(bad[0]) + header_row + 1}, column {head.name!r}"),
            "an empty cell" if pd.isna(cell) else repr(str(cell)),
            "a date and time" if head.unit == DATE_TIME else "a number",
            "Cut the row out or fill it before, and keep a note of it: nothing is repaired here.",
        )
    return np.asarray(values, dtype=np.float64)


@read_by_others("a whole Parquet file")
@opened()
def read_parquet(
    path: str | Path,
    *,
    sample_rate: float | str | None = None,
    name: str | None = None,
    units: Mapping[str, str] | None = None,
    columns: Sequence[str] | None = None,
    rows: str = EVEN,
) -> LoadHistory:
    """The load history in a Parquet file whose columns are headed `force [kN]`; `columns` chooses some of them.

    Parameters
    ----------
    path : str or path
        The file.
    sample_rate : float or str, optional
        Samples a second, Hz, or text such as "100 Hz"; where the data say it themselves it is not needed.
    name : str, optional
        What it is called in messages, tables and reports.
    units : mapping of str to str, optional
        Units of columns whose heading has none.
    columns : sequence of str, optional
        Columns to read; all by default.
    rows : str, default "samples at even steps"
        What a row is: "samples at even steps", or "peaks and valleys", whose times may be uneven or missing.

    Returns
    -------
    LoadHistory
        The history, with its channels in their units.

    Raises
    ------
    InputError
        For an argument of another kind, unit or range; the message says which.

    Examples
    --------
    >>> read_parquet(write_history(history, "lap.parquet"))  # history of the demo: read_history("loaded_lap.csv")
    <LoadHistory lap: 480 s at 100 Hz, vertical force>
    """
    path = existing(path)
    file = parquet_file(path)
    cells = _chosen(path, file.schema_arrow.names, columns)
    heads = headers(cells, lambda i: f"{path.name}, column {cells[i]!r}", units)
    fits_memory(16.0 * file.metadata.num_rows * len(cells), path.name)
    table = file.read(columns=cells)
    values = [_arrow_column(table.column(cell), cell, path) for cell in cells]
    stated = (file.schema_arrow.metadata or {}).get(b"sample_rate", b"").decode() or None
    rate = stated if sample_rate is None else sample_rate
    return history_of(name or path.stem, heads, values, rate, path.name, 1, rows)


def parquet_file(path: Path) -> Any:
    """The open Parquet file; InputError where it is none, or cut short."""
    needed("pyarrow", path.name)
    from pyarrow import ArrowInvalid
    from pyarrow.parquet import ParquetFile

    try:
        return ParquetFile(path, memory_map=False, pre_buffer=False, buffer_size=1 << 22)
    except (ArrowInvalid, OSError) as error:
        reason = str(error).splitlines()[0]
        raise InputError(
            path.name, f"a file that is not Parquet, or is cut short ({reason})", "a whole Parquet file"
        ) from None


def _arrow_column(column: Any, cell: str, path: Path) -> FloatArray:
    from pyarrow import types

    if not (types.is_floating(column.type) or types.is_integer(column.type)):
        raise InputError(f"{path.name}, column {cell!r}", f"values of type {column.type}", "numbers")
    if column.null_count:
        raise InputError(
            f"{path.name}, column {cell!r}", f"{column.null_count} missing values", "a number in every row"
        )
    return np.ascontiguousarray(column.to_numpy(), dtype=np.float64)


@read_by_others("a whole HDF5 file")
@opened()
def read_hdf5(
    path: str | Path,
    *,
    dataset: str = "/",
    sample_rate: float | str | None = None,
    name: str | None = None,
    units: Mapping[str, str] | None = None,
    rows: str = EVEN,
) -> LoadHistory:
    """The load history in an HDF5 file: a group of one-dimensional datasets, or one dataset, at the path `dataset`.

    The unit of each is its attribute `unit`, in its name (`force [kN]`), or in `units`; the rate is the attribute `sample_rate`
    of the group or dataset, a dataset `time`, or given.

    Parameters
    ----------
    path : str or path
        The file.
    dataset : str, default "/"
        Path of the group or dataset in the file.
    sample_rate : float or str, optional
        Samples a second, Hz, or text such as "100 Hz"; where the data say it themselves it is not needed.
    name : str, optional
        What it is called in messages, tables and reports.
    units : mapping of str to str, optional
        Units of datasets that have none.
    rows : str, default "samples at even steps"
        What a row is: "samples at even steps", or "peaks and valleys", whose times may be uneven or missing.

    Returns
    -------
    LoadHistory
        The history, with its channels in their units.

    Raises
    ------
    InputError
        For an argument of another kind, unit or range; the message says which.

    Examples
    --------
    >>> read_hdf5(write_history(history, "lap.h5"))  # history of the demo: read_history("loaded_lap.csv")
    <LoadHistory lap: 480 s at 100 Hz, vertical force>
    """
    path = existing(path)
    needed("h5py", path.name)
    import h5py

    with hdf5_file(path) as file:
        if dataset not in file:
            known = list(file)
            raise InputError(
                path.name, f"no dataset {dataset!r}", f"one of {listed(known)}", did_you_mean(dataset, known)
            )
        found = file[dataset]
        members = {found.name.rsplit("/", 1)[-1]: found} if isinstance(found, h5py.Dataset) else dict(found.items())
        sets = {key: one for key, one in members.items() if isinstance(one, h5py.Dataset)}
        where = f"{path.name}, {dataset}"
        if not sets:
            raise InputError(where, "no dataset", "one-dimensional datasets", f"In it: {listed(members)}.")
        cells = [f"{key} [{one.attrs['unit']}]" if "unit" in one.attrs else key for key, one in sets.items()]
        heads = headers(cells, lambda i: inside(where, f"dataset {cells[i]!r}"), units)
        fits_memory(8.0 * sum(float(one.size or 0) for one in sets.values()), where)
        values = [one_row(one[()], where=inside(where, f"dataset {key!r}")) for key, one in sets.items()]
        rate = sample_rate if sample_rate is not None else found.attrs.get("sample_rate")
        rate = rate.item() if isinstance(rate, np.generic) else rate
    if len({column.size for column in values}) > 1:
        lengths = {head.name: column.size for head, column in zip(heads, values, strict=True)}
        raise InputError(where, f"datasets of {lengths} samples", "datasets of equal length", "Name one: dataset=.")
    return history_of(name or path.stem, heads, values, rate, where, 1, rows)


def hdf5_file(path: Path) -> Any:
    """The open HDF5 file; InputError where it is none."""
    needed("h5py", path.name)
    import h5py

    try:
        return h5py.File(path, "r")
    except OSError as error:
        raise InputError(
            path.name, f"a file that is not HDF5, or is cut short ({first_line(error)})", "an HDF5 file"
        ) from None


@read_by_others("a .npy file of one row")
@opened()
def read_npy(
    path: str | Path,
    *,
    unit: str | None = None,
    sample_rate: float | str | None = None,
    channel: str = "load",
    name: str | None = None,
    rows: str = EVEN,
) -> LoadHistory:
    """The load history in a NumPy .npy file of one row; the unit and the sample rate must be stated.

    Parameters
    ----------
    path : str or path
        The file.
    unit : str, optional
        Unit of the samples.
    sample_rate : float or str, optional
        Samples a second, Hz, or text such as "100 Hz"; where the data say it themselves it is not needed.
    channel : str, default "load"
        What the load is called.
    name : str, optional
        What it is called in messages, tables and reports.
    rows : str, default "samples at even steps"
        What a row is: "samples at even steps", or "peaks and valleys", whose times may be uneven or missing.

    Returns
    -------
    LoadHistory
        The history with one channel.

    Raises
    ------
    InputError
        For an argument of another kind, unit or range; the message says which.

    Examples
    --------
    >>> import numpy as np
    >>> np.save("force.npy", np.array([0.0, 8.0, 2.0, 6.0]))
    >>> read_npy("force.npy", unit="kN", sample_rate="10 Hz")
    <LoadHistory force: 0.3 s at 10 Hz, load>
    """
    path = existing(path)
    if unit is None:
        raise InputError(path.name, "no unit", "the unit of the values", 'State it: unit="kN".')
    try:
        with path.open("rb") as file:
            version = np.lib.format.read_magic(file)
            shape, _, kind = _header(file, version)
        fits_memory(float(kind.itemsize) * math.prod(float(one) for one in shape), path.name)
        values = np.load(path, allow_pickle=False)
    except (ValueError, EOFError, OSError) as error:
        raise InputError(
            path.name, f"a file that is no array of numbers ({first_line(error)})", "a .npy file of one row"
        ) from None
    row = one_row(values, where=path.name)
    heads = [Header(channel, unit, path.name)]
    return history_of(name or path.stem, heads, [row], sample_rate, path.name, 1, rows)


def _header(file: Any, version: tuple[int, int]) -> Any:
    """Shape, order and type that a .npy file declares."""
    if version == (1, 0):
        return np.lib.format.read_array_header_1_0(file)
    return np.lib.format.read_array_header_2_0(file)


@read_by_others("an MDF 4 file")
@opened()
def read_mdf(
    path: str | Path,
    *,
    channels: Sequence[str] | None = None,
    units: Mapping[str, str] | None = None,
    name: str | None = None,
) -> LoadHistory:
    """The load history in a measurement file of the ASAM MDF 4 format; needs the extra `vivid-anvil[mdf]`.

    `channels` chooses signals, which must share their time; all by default.

    Parameters
    ----------
    path : str or path
        The file.
    channels : sequence of str, optional
        The channels.
    units : mapping of str to str, optional
        Units of signals that have none.
    name : str, optional
        What it is called in messages, tables and reports.

    Returns
    -------
    LoadHistory
        The history, with its channels in their units.

    Raises
    ------
    InputError
        For an argument of another kind, unit or range; the message says which.

    Examples
    --------
    >>> read_mdf("lap.mf4")  # doctest: +SKIP
    """
    path = existing(path)
    needed("asammdf", path.name)
    from asammdf import MDF

    try:
        file = MDF(path)
    except Exception as error:  # the reader raises errors of its own kind
        raise InputError(path.name, f"a file that is not MDF ({first_line(error)})", "an MDF 4 file") from None
    with file:
        known = [one for one in file.channels_db if one.lower() not in ("time", "t")]
        signals = [file.get(one) for one in _chosen(path, known, channels)]
    if not signals:
        raise InputError(path.name, "no signal", "at least one signal")
    time = np.asarray(signals[0].timestamps, dtype=np.float64)
    for signal in signals[1:]:
        if signal.timestamps.size != time.size or not np.array_equal(signal.timestamps, time):
            raise InputError(
                f"{path.name}, signal {signal.name!r}",
                f"a time other than that of {signals[0].name!r}",
                "signals of one rate",
                "Choose those that belong together: channels=.",
            )
    cells = ["time [s]", *(f"{one.name} [{one.unit}]" if one.unit else one.name for one in signals)]
    heads = headers(cells, lambda i: f"{path.name}, signal {cells[i]!r}", units)
    columns = [time, *(np.asarray(one.samples, dtype=np.float64) for one in signals)]
    return history_of(name or path.stem, heads, columns, None, path.name, 1)


def _chosen(path: Path, known: Sequence[str], wanted: Sequence[str] | None) -> list[str]:
    """The columns wanted, by full header or by name; all by default."""
    if wanted is None:
        return list(known)
    by_name = {name_and_unit(cell)[0]: cell for cell in known} | {cell: cell for cell in known}
    for one in wanted:
        if one not in by_name:
            raise InputError(path.name, f"no column {one!r}", f"one of {listed(known)}", did_you_mean(one, by_name))
    return [by_name[one] for one in wanted]
