"""Read a load history from any file: one function that picks the reader by content and ending."""

from __future__ import annotations

import inspect
from collections.abc import Callable
from pathlib import Path
from typing import Any

from vivid_anvil.ground.errors import InputError, in_file, inside, listed
from vivid_anvil.ground.files import existing
from vivid_anvil.histories.load_history import LoadHistory
from vivid_anvil.histories.read_csv import read_csv
from vivid_anvil.histories.read_tables import read_excel, read_hdf5, read_mdf, read_npy, read_parquet

# Reader, endings, first bytes.
READERS: dict[str, tuple[Callable[..., LoadHistory], tuple[str, ...], bytes]] = {
    "text": (read_csv, (".csv", ".tsv", ".txt", ".asc", ".dat"), b""),
    "Excel": (read_excel, (".xlsx", ".xlsm"), b"PK\x03\x04"),
    "Parquet": (read_parquet, (".parquet", ".pq"), b"PAR1"),
    "HDF5": (read_hdf5, (".h5", ".hdf5", ".hdf"), b"\x89HDF"),
    "NumPy": (read_npy, (".npy",), b"\x93NUMPY"),
    "MDF": (read_mdf, (".mf4", ".mdf"), b"MDF"),
}


def read_history(path: str | Path, **how: Any) -> LoadHistory:
    """The load history in `path`: text, Excel, Parquet, HDF5, NumPy or MDF 4, by its first bytes, else by its ending.

    `how` goes to the reader: `sample_rate`, `name` and `units` to most, `sheet` to Excel, `dataset` to HDF5, `unit` to NumPy,
    `delimiter` and `decimal` to text. See each reader.

    Parameters
    ----------
    path : str or path
        The file.
    **how : any
        Settings of the reader, by their names; see each.

    Returns
    -------
    LoadHistory
        The history, with its channels in their units.

    Raises
    ------
    InputError
        For a file that cannot be read, and for a setting that its reader doesn't have.

    Examples
    --------
    >>> read_history("loaded_lap.csv")  # in the folder of `vivid-anvil demo`
    <LoadHistory loaded_lap: 480 s at 100 Hz, vertical force>
    """
    file = existing(path)
    kind = kind_of(file)
    reader = READERS[kind][0]
    known = list(inspect.unwrap(reader).__kwdefaults__ or {})
    with in_file(file.name):
        for name in how:
            if name not in known:
                why = f"a setting that {kind} files do not have"
                raise InputError(inside(file.name, name), why, f"one of {listed(known)}")
        return reader(file, **how)


def kind_of(path: Path) -> str:
    """The kind of file, by its first bytes, else by its ending; text where neither says another."""
    with path.open("rb") as file:
        start = file.read(8)
    for kind, (_, endings, magic) in READERS.items():
        if magic and start.startswith(magic):
            return kind
        if magic and path.suffix.lower() in endings:  # named so, but cut short or encrypted: its reader says what
            return kind
    return "text"
